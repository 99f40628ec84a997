"""The page Gaps: how likely each gap binds as built, what to measure again."""

from roomy_hull.core.units import exact
from roomy_hull.making.gap import Gap
from roomy_hull.making.gaps import worth
from roomy_hull.session.pages.model import PageModel
from roomy_hull.tables.column import Cell, cells, heads
from roomy_hull.tables.making import GAPS, GapRow


class GapsModel(PageModel):
    """Every narrow gap with its doubt, and which measure is worth taking again."""

    heads = heads(GAPS)

    def gaps(self) -> tuple[Gap, ...]:
        """The likeliest to bind first."""
        return self._session.known.gaps

    def cells(self) -> list[list[Cell]]:
        """A row for each gap."""
        return cells(GAPS, [GapRow(g, self._session.look.system) for g in self.gaps()])

    def keys(self) -> list[str]:
        """What each row selects."""
        return [g.refs[0].id if g.refs and g.refs[0].is_thing else "" for g in self.gaps()]

    def words(self) -> str:
        """What to measure again before anything is cut."""
        rows = worth(self.gaps())
        if not self.gaps() and "gaps" in self._session.known.held:
            return "The gaps are being worked out."
        if not rows:
            return (
                "No measure of the vehicle would make a gap safer: what is left is the shop's own cutting, bending "
                "and welding."
            )
        system = self._session.look.system
        said = "; ".join(
            f"{w.words} (± {exact(w.sigma, system, unit=True)}) would keep {w.saves:.0%} of a gap from binding"
            for w in rows[:4]
        )
        return f"Worth measuring again before the release: {said}."
