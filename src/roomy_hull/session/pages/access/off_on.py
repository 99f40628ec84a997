"""The page Off and on: how the canopy comes off."""

from roomy_hull.core.primitives import Rect, Scene
from roomy_hull.core.units import show
from roomy_hull.drawing.scenes import access as scene
from roomy_hull.session.pages.model import PageModel


class OffOnModel(PageModel):
    """The canopy off and on."""

    def picture(self, _aspect: float) -> tuple[str, tuple[Scene, Rect] | None]:
        """Draw the canopy on its legs."""
        off = self._session.known.access.off_on
        if off is None:
            return "This body has no canopy that comes off.", None
        return "On its legs: from behind, and from above with what stands on each", scene.on_legs(
            self._session.known.assembly, off
        )

    def steps(self) -> list[str]:
        """What is done, in order."""
        off = self._session.known.access.off_on
        return [f"{n + 1}. {w}" for n, w in enumerate(off.steps)] if off is not None else []

    def words(self) -> str:
        """What it weighs, and what its legs have to do."""
        off, system = self._session.known.access.off_on, self._session.look.system
        if off is None:
            return ""
        beside = show(abs(off.beside), "length", system)
        return (
            f"{show(off.empty, 'mass', system)} empty, {show(off.loaded, 'mass', system)} at its fullest. Legs of at least "
            f"{show(off.least_leg, 'length', system)} to their sockets. It tips at {off.tips:.0f}°. "
            + (f"{beside} are left on each side to drive out." if off.beside >= 0 else
               f"Each side lacks {beside} to drive out: swing the legs further out.")
        )  # fmt: skip
