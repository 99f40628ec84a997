"""The page Budget: the brief with its masses, held against what the gross rating leaves."""

from collections.abc import Mapping, Sequence
from typing import Literal

from roomy_hull.core.errors import UserError
from roomy_hull.core.units import parse, show
from roomy_hull.job.brief import NEEDS
from roomy_hull.session.marks import stop, strong
from roomy_hull.session.pages.cells import Cell, kg_of, mass_word, mm_of
from roomy_hull.session.pages.columns import Column
from roomy_hull.session.pages.model import PageModel
from roomy_hull.studies.loads.budget import BudgetRow

NOTHING = "not decided"


class BudgetModel(PageModel):
    """The wishes: what they leave, each changed where it stands, new ones below."""

    def _names(self) -> dict[str, str]:
        """What a wish may have been decided to be: words by id, nothing first."""
        return {"": NOTHING} | {t.id: t.name for t in self._session.known.assembly.things}

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
            Column("Wish", lambda r: (r.wish.name, ""), "name", needed=True),
            Column("Need", lambda r: (r.wish.need, ""), "need", choices=lambda: NEEDS),
            Column(f"Allowed, {word}", lambda r: (f"{kg(r.allowed)} ± {kg(r.uncertainty)}", ""), "mass",
                   lambda r: self._typed(r.wish.mass, "mass"), needed=True),
            Column("Aft of axle", lambda r: (mm_of(session, r.wish.x) if r.wish.x else "", ""), "x",
                   lambda r: self._typed(r.wish.x, "length")),
            Column("Decided", lambda r: (names.get(r.wish.thing, NOTHING), "" if r.decided is not None else "note"), "thing",
                   choices=lambda: tuple(self._names().values())),
            Column(f"Came to, {word}", came),
            Column("More by", more),
            Column("Front / rear", lambda r: (f"{kg(r.front)} / {kg(r.rear)}" if r.wish.x else "", "")),
        )  # fmt: skip

    def entries(self) -> tuple[BudgetRow, ...]:
        """The wishes with what they came to."""
        return self._session.known.budget.rows

    def change(self, entry: BudgetRow, field: str, text: str) -> None:
        """Change a field of a wish from what was typed or picked; trouble is told."""
        try:
            value = self._value(field, text)
        except UserError as trouble:
            self._session.say(str(trouble), trouble=True)
            return
        self._session.do("edit.size", path=f"brief.wishes.{entry.wish.id}.{field}", value=value)

    def add(self, typed: Mapping[str, str]) -> bool:
        """Add a wish from what was typed; trouble is told."""
        session = self._session
        try:
            found = {field: self._value(field, text) for field, text in typed.items()}
        except UserError as trouble:
            session.say(str(trouble), trouble=True)
            return False
        need = found.get("need") if found.get("need") in NEEDS else "wanted"
        made = session.do(
            "wish.add",
            name=found["name"],
            need=need,
            mass=found.get("mass", 0.0),
            x=found.get("x", 0.0),
        )
        if made and found.get("thing"):
            key = session.job.brief.wishes[-1].id
            session.do("edit.size", path=f"brief.wishes.{key}.thing", value=found["thing"])
        return bool(made)

    def delete(self, some: Sequence[BudgetRow]) -> None:
        """Delete wishes."""
        for row in some:
            self._session.do("wish.drop", key=row.wish.id)

    def _typed(self, value: float, quantity: Literal["mass", "length"]) -> str:
        return show(value, quantity, self._session.look.system, unit=False).replace(",", "")

    def _value(self, field: str, text: str) -> object:
        """Read what was typed in one field."""
        system = self._session.look.system
        if field in {"mass", "x"}:
            # What is copied from the table has its uncertainty beside it.
            return parse(
                text.partition("±")[0].strip() or "0",
                "mass" if field == "mass" else "length",
                system,
            )
        if field == "thing":
            return next((key for key, name in self._names().items() if name == text), "")
        return text.strip()
