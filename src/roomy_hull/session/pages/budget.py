"""The page Budget: the brief with its masses, held against what the gross rating leaves."""

from roomy_hull.core.errors import UserError
from roomy_hull.core.units import parse, show
from roomy_hull.job.brief import NEEDS, Need, Wish
from roomy_hull.session.marks import stop, strong
from roomy_hull.session.pages.cells import Cell, kg_of, mass_word
from roomy_hull.session.session import Session

NOTHING = "not decided"


class BudgetModel:
    """The wishes, which of them is chosen, and what they leave.

    Args:
        session: The job in hand.
    """

    def __init__(self, session: Session) -> None:
        self._session = session
        self.at = ""

    def wish(self) -> Wish | None:
        """Find the chosen wish; the first where the one that was chosen is gone."""
        wishes = self._session.job.brief.wishes
        found = next((w for w in wishes if w.id == self.at), None)
        if found is None and wishes:
            found = wishes[0]
        self.at = found.id if found is not None else ""
        return found

    def row(self) -> int:
        """Find the row of the chosen wish; -1 for none."""
        ids = [w.id for w in self._session.job.brief.wishes]
        return ids.index(self.at) if self.at in ids else -1

    def choose(self, row: int) -> None:
        """Choose a wish by its row."""
        wishes = self._session.job.brief.wishes
        if 0 <= row < len(wishes):
            self.at = wishes[row].id

    def things(self) -> list[tuple[str, str]]:
        """List what a wish may have been decided to be: words and id, nothing first."""
        found = [(t.name, t.id) for t in self._session.known.assembly.things]
        return [(NOTHING, ""), *found]

    def typed(self, field: str) -> str:
        """Write a field of the chosen wish as it is typed."""
        one, system = self.wish(), self._session.look.system
        if one is None:
            return ""
        if field == "name":
            return one.name
        value, quantity = (one.mass, "mass") if field == "mass" else (one.x, "length")
        return show(value, quantity, system, unit=False).replace(",", "")  # type: ignore[arg-type]  # one of both

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
            f"{state} ± {kg(found.doubt)}. For later {kg(found.open['later'])}, would leave {kg(found.left_all)}. "
            f"Decided things came to {kg(found.over['needed'] + found.over['wanted'])} more than was allowed for. "
            f"The rear axle then has {kg(found.rear_wanted)} left."
        )

    def heads(self) -> tuple[str, ...]:
        """Write the column heads."""
        word = mass_word(self._session)
        return (
            "Wish",
            "",
            f"Allowed, {word}",
            "Decided",
            f"Came to, {word}",
            "More by",
            "Front / rear",
        )

    def cells(self) -> list[list[Cell]]:
        """Lay the wishes out as a table."""
        session, rows = self._session, []
        names = {t.id: t.name for t in session.known.assembly.things}
        self.wish()
        for r in session.known.budget.rows:
            more = "" if r.decided is None else kg_of(session, r.decided - r.allowed)
            severity = "look" if r.decided is not None and r.decided > r.allowed * 1.1 else ""
            row: list[Cell] = [
                (r.wish.name, "bold" if r.wish.id == self.at else ""), (r.wish.need, ""),
                (f"{kg_of(session, r.allowed)} ± {kg_of(session, r.doubt)}", ""),
                (names.get(r.wish.thing, NOTHING), "" if r.decided is not None else "note"),
                (kg_of(session, r.decided) if r.decided is not None else "", ""), (more, severity),
                (f"{kg_of(session, r.front)} / {kg_of(session, r.rear)}" if r.wish.x else "", ""),
            ]  # fmt: skip
            rows.append(row)
        return rows

    # Edits

    def set(self, field: str, text: str) -> None:
        """Change a field of the chosen wish from what was typed or picked; trouble is told."""
        if self.wish() is None:
            return
        try:
            value = self._value(field, text)
        except UserError as trouble:
            self._session.say(str(trouble), trouble=True)
            return
        self._session.do("edit.size", path=f"brief.wishes.{self.at}.{field}", value=value)

    def add(self, name: str, mass: str, place: str, need: str) -> bool:
        """Add a wish from what was typed, and choose it; trouble is told."""
        session = self._session
        if not name.strip():
            session.say("Type what is wished for first.", trouble=True)
            return False
        try:
            kg, x = self._value("mass", mass), self._value("x", place)
        except UserError as trouble:
            session.say(str(trouble), trouble=True)
            return False
        wanted: Need = next(n for n in NEEDS if n == need)
        made = session.do("wish.add", name=name.strip(), need=wanted, mass=kg, x=x)
        if made:
            self.at = session.job.brief.wishes[-1].id
        return bool(made)

    def drop(self) -> None:
        """Delete the chosen wish."""
        one = self.wish()
        if one is not None:
            self._session.do("wish.drop", key=one.id)

    def _value(self, field: str, text: str) -> object:
        """Read what was typed in one field."""
        system = self._session.look.system
        if field == "mass":
            return parse(text or "0", "mass", system)
        if field == "x":
            return parse(text or "0", "length", system)
        return text.strip()
