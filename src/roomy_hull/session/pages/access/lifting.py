"""The page Lifting: what is lifted from where, with which strain."""

from roomy_hull.session.pages.model import PageModel
from roomy_hull.session.worn import in_setup
from roomy_hull.tables.access import LIFTS, LiftRow, lift_rows
from roomy_hull.tables.column import Cell, cells, heads


class LiftingModel(PageModel):
    """Every lift of every person, the worst first."""

    heads = heads(LIFTS)

    def keys(self) -> list[str]:
        """What each row chooses: its good, or its thing."""
        goods = {g.id for g in self._session.job.goods}
        return [
            f"goods.{r.one.what}" if r.one.what in goods else f"space.{r.one.what}."
            for r in self._rows()
        ]

    def _rows(self) -> list[LiftRow]:
        """The worst first."""
        rows = lift_rows(in_setup(self._session), self._session.look.system)
        return sorted(rows, key=lambda r: -r.one.index)

    def cells(self) -> list[list[Cell]]:
        """Every lift in a row."""
        return cells(LIFTS, self._rows())
