"""The page Buying: what comes from outside, and by when to order it."""

from roomy_hull.planning.judge import needed
from roomy_hull.session.pages.build.words import built, said
from roomy_hull.session.pages.cells import Cell
from roomy_hull.session.pages.model import PageModel


class BuyingModel(PageModel):
    """What comes from outside, when it is wanted, by when it has to be ordered."""

    heads = ("What", "How much", "How far", "Wanted", "Order by", "Here on")

    def keys(self) -> list[str]:
        """The key of each row."""
        return [p.key for p in built(self._session).buying]

    def cells(self) -> list[list[Cell]]:
        """A row for each."""
        build = built(self._session)
        begun = bool(self._session.job.plan.begin)
        rows: list[list[Cell]] = []
        for p in build.buying:
            need = needed(build, p)
            by = p.order_by(need) if need is not None else None
            late = p.state == "to order" and by is not None and by <= build.now and begun
            rows.append([
                (p.words, ""), (p.much, ""), (p.state, "look" if late else ""),
                (said(need.isoformat()) if need is not None and begun and p.state != "here" else "", ""),
                (said(by.isoformat()) if by is not None and begun and p.state == "to order" else "", "look" if late else ""),
                (said(p.arrives.isoformat()) if p.arrives is not None and begun else "", ""),
            ])  # fmt: skip
        return rows

    def words(self) -> str:
        """How much of it is here."""
        rows = built(self._session).buying
        here = sum(p.state == "here" for p in rows)
        sent = sum(p.state == "ordered" for p in rows)
        return (
            f"{len(rows)} things come from outside: {here} here, {sent} on their way, {len(rows) - here - sent} to order. "
            "Several rows can be chosen at once."
        )
