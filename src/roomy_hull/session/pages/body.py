"""The stage Body: its parts, which of them is chosen, which lies under a point, what can be added."""

from roomy_hull.core.primitives import Point
from roomy_hull.drawing.scenes.body_sizes import chosen_box
from roomy_hull.drawing.view import ELEVATION, Station
from roomy_hull.session.actions.bodies import part
from roomy_hull.session.actions.registry import Action
from roomy_hull.session.doing import registry
from roomy_hull.session.pages.model import PageModel


class BodyModel(PageModel):
    """What the body consists of besides tray and canopy."""

    def parts(self) -> tuple[tuple[str, str], ...]:
        """Key and words of every part: tray and canopy first, under no key."""
        body = self._session.job.body
        first = (
            "Tray and canopy" if body.canopy is not None and body.canopy.kind != "cargo" else "Tray"
        )
        if body.tray.kind != "tray":
            first = "Fit-out space"
        return (
            ("", first), *((r.id, r.name) for r in body.rooms), *((r.id, r.name) for r in body.racks)
        )  # fmt: skip

    def chosen(self) -> str:
        """The chosen room or rack; empty for tray and canopy."""
        return part(self._session)

    def can_add(self) -> list[Action]:
        """What can be added here, as the menu Body has it."""
        session = self._session
        return [
            a for a in registry().all()
            if a.id.startswith(("body.room_", "body.rack_")) and a.enabled(session)
        ]  # fmt: skip

    def part_at(self, station: Station, at: Point) -> str | None:
        """The room or rack under a point of the elevation, the nearest one; tray and canopy under none of them.

        Args:
            at: On the elevation. [mm]
        Returns: Its id; empty for tray and canopy, none where nothing changes.
        """
        view, assembly = ELEVATION[station], self._session.known.assembly
        found: list[tuple[float, str]] = []
        for key, _words in self.parts()[1:]:
            known = chosen_box(assembly, key)
            if known is not None:
                h0, k0, h1, k1 = view.rect(known[0])
                if h0 <= at[0] <= h1 and k0 <= at[1] <= k1:
                    found.append((view.nearness(known[0]), key))
        key = max(found)[1] if found else ""
        return key if key != self.chosen() else None
