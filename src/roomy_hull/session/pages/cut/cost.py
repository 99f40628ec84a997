"""The page Cost: what it costs to make."""

from roomy_hull.core.errors import UserError
from roomy_hull.core.primitives import Rect, Scene
from roomy_hull.core.units import show
from roomy_hull.drawing.scenes.costs import waterfall
from roomy_hull.kinds.placed import Placed
from roomy_hull.making.cost import CostSheet, cost_sheet
from roomy_hull.making.cutlist import CutList
from roomy_hull.making.ways import both_ways
from roomy_hull.session.pages.cut.words import works
from roomy_hull.session.session import Session
from roomy_hull.tables.column import Cell
from roomy_hull.verdict.verdict import Verdict


class CostModel:
    """What the job costs to make, as a waterfall and by what it is for."""

    heads = (
        "Of",
        "Sheet",
        "Rest of sheets",
        "Bar",
        "Bought",
        "Cutting",
        "Bending",
        "Welding",
        "Fasteners",
        "Labour",
        "All",
    )

    def __init__(self, session: Session) -> None:
        self._session = session
        self._of: tuple[Verdict, CutList, CostSheet] | None = None

    def sheet(self) -> CostSheet | None:
        """The costs, remembered while job and cut are the same; nothing while the nesting is still at work."""
        session, cut = self._session, self._session.cutting.cut
        if cut is None:
            return None
        if self._of is None or self._of[0] is not session.known or self._of[1] is not cut:
            found = cost_sheet(works(session), cut, session.shop.prices)
            self._of = session.known, cut, found
        return self._of[2]

    def picture(self, ratio: float) -> tuple[str, tuple[Scene, Rect] | None]:
        """The waterfall."""
        found = self.sheet()
        if found is None:
            return "The nesting is at work", None
        return "What it costs to make, in the shop's own money", waterfall(found.whole, ratio)

    def cells(self) -> list[list[Cell]]:
        """A row for each owner, the dearest first, then the whole."""
        found = self.sheet()
        if found is None:
            return []
        rows = [(s.title, s.cost, "") for s in sorted(found.shares, key=lambda s: -s.cost.total)]
        rows.append(("The whole", found.whole, "bold"))
        return [
            [(title, bold), *((f"{v:,.0f}" if v else "", bold) for v in (
                c.sheet, c.rest, c.bar, c.hardware, c.cutting, c.bending, c.welding, c.fasteners, c.labour)),
             (f"{c.total:,.0f}", "bold")]
            for title, c, bold in rows
        ]  # fmt: skip

    def ways(self) -> str:
        """The selected unit built in both ways: mass, money and hours beside one another."""
        session = self._session
        thing = (
            session.known.assembly.thing(session.selection.key) if session.selection.key else None
        )
        if thing is None or thing.place is None or not isinstance(thing.value, Placed):
            return ""
        try:
            rows = both_ways(thing.value, session.shop, thing.place.bay.pitch, thing.place.bay.side)
        except UserError as trouble:
            return f"{thing.name} the other way: {trouble} "
        if not rows:
            return ""
        system = session.look.system
        told = "; ".join(
            f"{b.words} {show(b.kg, 'mass', system)}, {b.money:,.0f}, {b.hours:.1f} h" for b in rows
        )
        return f"{thing.name}: {told}. "

    def words(self) -> str:
        """What it is counted from."""
        found = self.sheet()
        if found is None:
            return "The nesting is at work…"
        return self.ways() + (
            f"{found.metres:.0f} m cut with {found.pierces:,} pierces, {found.bends} bends, {found.welded:.1f} m of weld, "
            f"{found.rivets} rivets, {found.hours:.1f} h of handling and fitting. Offcuts kept are worth {found.kept:,.0f}. "
            "Prices are the shop's; the shipped ones are starting values."
        )
