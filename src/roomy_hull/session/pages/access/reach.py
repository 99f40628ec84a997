"""The page Reach and sight: every space, how each of the party reaches it and what they see of it."""

from roomy_hull.core.primitives import Rect, Scene
from roomy_hull.drawing.scenes import access as scene
from roomy_hull.drawing.view import Station
from roomy_hull.session.pages.access.words import (
    SIDES,
    asked,
    chosen_space,
    party,
    reach_words,
    seen_by,
    space_key,
)
from roomy_hull.session.pages.model import PageModel
from roomy_hull.session.worn import in_setup
from roomy_hull.studies.access.reach import SEES
from roomy_hull.tables.column import Cell


class ReachModel(PageModel):
    """Spaces against people."""

    def heads(self) -> tuple[str, ...]:
        """Heads of the table: three columns for each of the party."""
        return (
            "What",
            *(
                h
                for p in party(self._session)
                for h in (p.called.partition(",")[0], "reaches", "sees")
            ),
        )

    def keys(self) -> list[str]:
        """What each row chooses."""
        return [space_key(s) for s in in_setup(self._session).access.spaces]

    def cells(self) -> list[list[Cell]]:
        """Every space in a row."""
        found = in_setup(self._session).access
        n = self.chosen()
        rows: list[list[Cell]] = []
        for i, (space, seen) in enumerate(zip(found.spaces, found.seen, strict=True)):
            row: list[Cell] = [(space.name, "bold" if i == n else "")]
            for s in seen:
                bad = s.how in ("by climbing", "not at all")
                blind = space.top and not space.device and s.seen < SEES
                row += [(s.how, "look" if bad else ""), (f"{100 * s.reached:.0f} %", ""),
                        (f"{100 * s.seen:.0f} %", "look" if blind else "")]  # fmt: skip
            rows.append(row)
        return rows

    def chosen(self) -> int:
        """Which space is drawn: the chosen one, else the first."""
        session = self._session
        n = chosen_space(in_setup(session), session.look, session.selection.key)
        return n if n >= 0 else 0

    def _draw(self, *, plan: bool) -> tuple[str, tuple[Scene, Rect] | None]:
        session = self._session
        found = in_setup(session).access
        if not found.spaces:
            if "access" in self._session.known.held:
                return "Who reaches what is being worked out.", None
            return "There is nothing to reach for yet: place units in Fit-out.", None
        n, person = self.chosen(), asked(session)
        space, seen = found.spaces[n], seen_by(found.seen[n], person.id)
        if seen is None:
            return "", None
        if plan:
            side: Station = space.side if space.side in SIDES else "left"
            drawn = scene.reaching(
                in_setup(session).assembly, space, seen, person.stature, side, plan=True
            )
            return "From above", drawn
        station = scene.END.get(space.side, "rear")
        who = person.called.partition(",")[0]
        title = f"{who}, {person.stature / 10:.0f} cm, {space.name}: {reach_words(seen)}"
        return title, scene.reaching(
            in_setup(session).assembly, space, seen, person.stature, station
        )

    def profile(self, _aspect: float) -> tuple[str, tuple[Scene, Rect] | None]:
        """Draw somebody reaching, in profile."""
        return self._draw(plan=False)

    def above(self, _aspect: float) -> tuple[str, tuple[Scene, Rect] | None]:
        """Draw the same from above."""
        return self._draw(plan=True)
