"""The page Lifting: what is lifted from where, with which strain."""

from roomy_hull.core.units import show
from roomy_hull.session.pages.access.words import index_words, names_of
from roomy_hull.session.pages.cells import Cell
from roomy_hull.session.pages.model import PageModel
from roomy_hull.session.worn import in_setup
from roomy_hull.studies.access.effort import Effort


class LiftingModel(PageModel):
    """Every lift of every person, the worst first."""

    heads = ("What", "Who", "Mass", "Hands out, cm", "Hands high, cm", "Limit", "Index")

    def keys(self) -> list[str]:
        """What each row chooses: its good, or its thing."""
        goods = {g.id for g in self._session.job.goods}
        return [
            f"goods.{e.what}" if e.what in goods else f"space.{e.what}."
            for e in self._worst_first()
        ]

    def _worst_first(self) -> list[Effort]:
        return sorted(in_setup(self._session).access.efforts, key=lambda e: -e.index)

    def cells(self) -> list[list[Cell]]:
        """Every lift in a row."""
        system = self._session.look.system
        names = names_of(self._session)
        rows: list[list[Cell]] = []
        for e in self._worst_first():
            weight = "look" if e.index > 3 else "note" if e.index > 1 else ""
            out = f"{e.out:.0f}" if e.out < 1e6 else "no place"
            rows.append([
                (e.name, ""), (names.get(e.person, e.person), ""), (show(e.kg, "mass", system), ""), (out, ""),
                (f"{e.height:.0f}", ""), (show(e.most, "mass", system), ""), (index_words(e.index), weight),
            ])  # fmt: skip
        return rows
