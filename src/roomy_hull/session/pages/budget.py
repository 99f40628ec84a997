"""The page Budget: the brief with its masses, held against what the gross rating leaves."""

from roomy_hull.core.units import show
from roomy_hull.job.brief import Wish
from roomy_hull.session.marks import stop, strong
from roomy_hull.session.pages.cells import kg_of, mass_word, mm_of
from roomy_hull.session.pages.wishes import NOTHING, Wishes
from roomy_hull.studies.loads.budget import BudgetRow
from roomy_hull.tables.column import Cell, Column


class BudgetModel(Wishes[BudgetRow]):
    """The wishes: what they leave, each changed where it stands, new ones below."""

    def wish(self, entry: BudgetRow) -> Wish:
        """The wish of a row."""
        return entry.wish

    def title(self) -> str:
        """Write what the vehicle is for, and for how many."""
        brief = self._session.job.brief
        away = f" {brief.travellers} travel, {brief.days:g} days out." if brief.travellers else ""
        none = "No brief yet: say what the vehicle is for, and what is wished for."
        return (brief.purpose or none) + away

    def sums(self) -> str:
        """Write what the wishes leave, with marks."""
        session, found = self._session, self._session.known.budget

        def kg(value: float) -> str:
            return show(round(value), "mass", session.look.system)

        left = found.left_wanted
        state = stop(kg(left)) if left < 0 else strong(kg(left))
        return (
            f"As drawn, '{found.scenario}' leaves {strong(kg(found.left))} of the gross rating. Still needed "
            f"{kg(found.open['needed'])}, leaves {kg(found.left_needed)}. Wanted {kg(found.open['wanted'])}, leaves "
            f"{state} ± {kg(found.uncertainty)}. For later {kg(found.open['later'])}, would leave {kg(found.left_all)}. "
            f"Decided things came to {kg(found.over['needed'] + found.over['wanted'])} more than was allowed for. "
            f"The rear axle then has {kg(found.rear_wanted)} left."
        )

    def columns(self) -> tuple[Column[BudgetRow], ...]:
        """What is told of a wish."""
        session, word, names = self._session, mass_word(self._session), self._names()

        def kg(value: float) -> str:
            return kg_of(session, value)

        def came(r: BudgetRow) -> Cell:
            return (kg(r.decided) if r.decided is not None else "", "")

        def more(r: BudgetRow) -> Cell:
            if r.decided is None:
                return ("", "")
            return (kg(r.decided - r.allowed), "look" if r.decided > r.allowed * 1.1 else "")

        return (
            *self.named(),
            self.column(
                f"Allowed, {word}",
                "mass",
                lambda r: (f"{kg(r.allowed)} ± {kg(r.uncertainty)}", ""),
                needed=True,
            ),
            self.column(
                "Aft of axle", "x", lambda r: (mm_of(session, r.wish.x) if r.wish.x else "", "")
            ),
            self.decided(
                "Decided",
                lambda r: (
                    names.get(r.wish.thing, NOTHING),
                    "" if r.decided is not None else "note",
                ),
            ),
            Column(f"Came to, {word}", came),
            Column("More by", more),
            Column[BudgetRow](
                "Front / rear", lambda r: (f"{kg(r.front)} / {kg(r.rear)}" if r.wish.x else "", "")
            ),
        )

    def entries(self) -> tuple[BudgetRow, ...]:
        """The wishes with what they came to."""
        return self._session.known.budget.rows
