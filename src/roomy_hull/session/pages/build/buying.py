"""The page Buying: what comes from outside, and by when to order it."""

from roomy_hull.session.pages.build.words import built
from roomy_hull.session.pages.model import PageModel
from roomy_hull.tables.build import BUYING, buy_rows
from roomy_hull.tables.column import Cell, cells, heads


class BuyingModel(PageModel):
    """What comes from outside, when it is wanted, by when it has to be ordered."""

    heads = heads(BUYING)

    def keys(self) -> list[str]:
        """The key of each row."""
        return [p.key for p in built(self._session).buying]

    def cells(self) -> list[list[Cell]]:
        """A row for each."""
        return cells(
            BUYING, buy_rows(built(self._session), begun=bool(self._session.job.plan.begin))
        )

    def words(self) -> str:
        """How much of it is here."""
        rows = built(self._session).buying
        here = sum(p.state == "here" for p in rows)
        sent = sum(p.state == "ordered" for p in rows)
        return (
            f"{len(rows)} things come from outside: {here} here, {sent} on their way, {len(rows) - here - sent} to order. "
            "Several rows can be chosen at once."
        )
