"""The page Brief: wishes with what each costs in mass, money and room, and the choices where schools differ."""

from roomy_hull.assembly.scaling import reactions
from roomy_hull.core.units import show
from roomy_hull.job.brief import Wish
from roomy_hull.session.pages.cells import kg_of, mass_word
from roomy_hull.session.pages.wishes import Wishes
from roomy_hull.session.session import Session
from roomy_hull.tables.column import Cell, Column
from roomy_hull.verdict.guided import ASKED, Fact, Question, ask
from roomy_hull.verdict.verdict import Verdict


class BriefModel(Wishes[Wish]):
    """The wishes in their rank, what they come to, the questions."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self._asked: tuple[Verdict | None, dict[str, Question | None]] = (None, {})

    # Wishes

    def short(self) -> str:
        """The axle with the least room in the heaviest scenario: ``front`` or ``rear``."""
        rows = self._session.known.loads.scenarios
        heavy = min(rows, key=lambda s: s.payload_left.value)
        room = {
            e: (f.limit - f.value if f.limit else float("inf"))
            for e, f in (("front", heavy.front), ("rear", heavy.rear))
        }
        return min(room, key=lambda e: room[e])

    def on_short(self, wish: Wish) -> float:
        """What a wish puts on the short axle: where it was decided, or where it would be. [kg]"""
        verdict = self._session.known
        thing = verdict.assembly.thing(wish.thing) if wish.thing else None
        kg, x = wish.mass, wish.x
        if thing is not None:
            kg, x = self.came_to(wish) or 0.0, thing.envelope.centre()[0]
        ahead, behind = reactions(kg, x, verdict.job.vehicle.wheelbase)
        return ahead if self.short() == "front" else behind

    def came_to(self, wish: Wish) -> float | None:
        """What it weighs as decided; none while it is not. [kg]"""
        return next(
            (r.decided for r in self._session.known.budget.rows if r.wish.id == wish.id), None
        )

    def room(self, wish: Wish) -> float:
        """The room it takes: as said, else the box around what was decided. [l]"""
        thing = self._session.known.assembly.thing(wish.thing) if wish.thing else None
        if wish.litres or thing is None:
            return wish.litres
        b = thing.envelope
        return (b.x1 - b.x0) * (b.y1 - b.y0) * (b.z1 - b.z0) / 1e6

    def wish(self, entry: Wish) -> Wish:
        """The wish of a row."""
        return entry

    def entries(self) -> tuple[Wish, ...]:
        """Every wish, the first in rank first."""
        return self._session.job.brief.wishes

    def columns(self) -> tuple[Column[Wish], ...]:
        """What is told of a wish."""
        session, wishes = self._session, self.entries()
        names = session.known.assembly.names

        def mass(w: Wish) -> Cell:
            came = self.came_to(w)
            over = came is not None and w.mass and came > w.mass * 1.1
            return (kg_of(session, came if came is not None else w.mass), "look" if over else "")

        def name(w: Wish) -> Cell:
            return (w.name, "bold" if w.id == session.look.brief.wish else "")

        def now(w: Wish) -> Cell:
            return (names.get(w.thing, w.place), "" if w.thing in names else "note")

        return (
            Column("", lambda w: (str(wishes.index(w) + 1), "")),
            *self.named(name),
            self.column(mass_word(session), "mass", mass),
            Column(f"On the {self.short()} axle", lambda w: (kg_of(session, self.on_short(w)), "")),
            self.column(
                "Room, l", "litres", lambda w: (f"{self.room(w):.0f}" if self.room(w) else "", "")
            ),
            self.column("Money", "price", lambda w: (f"{w.price:,.0f}" if w.price else "", "")),
            self.decided("Now", now),
            self.column("In", "option", lambda w: (w.option or "the build", "")),
        )

    def keys(self) -> list[str]:
        """The id of each row's wish."""
        return [w.id for w in self._session.job.brief.wishes]

    def words(self) -> str:
        """What all wishes come to beside the budgets, and the commonest regret in this job's figures."""
        session = self._session
        brief = session.job.brief
        if not brief.wishes:
            return (
                "Nothing is wished for yet. Say what the vehicle is for on the card, then list what is needed, what "
                "is wanted, "
                "what is for later: each with its mass, money and reason."
            )

        def kg(value: float) -> str:
            return show(round(value), "mass", session.look.system)

        mass = sum(
            c if (c := self.came_to(w)) is not None else w.mass
            for w in brief.wishes
            if w.need != "later"
        )
        money = sum(w.price for w in brief.wishes if w.need != "later")
        told = [
            f"Needed and wanted come to {kg(mass)}"
            + (f" of {kg(brief.budget_kg)}" if brief.budget_kg else "")
        ]
        told[0] += (
            f" and {money:,.0f}"
            + (f" of {brief.budget_money:,.0f}" if brief.budget_money else "")
            + "."
        )
        left = session.known.budget.left_wanted
        told.append(
            f"The gross rating then leaves {kg(left)}."
            if left >= 0
            else f"That is {kg(-left)} more than the gross rating."
        )
        wanted = [w for w in brief.wishes if w.need == "wanted"]
        if wanted:
            on = sum(self.on_short(w) for w in wanted)
            room = sum(self.room(w) for w in wanted)
            told.append(
                "The commonest regret is fitting everything at once and never using it: the "
                f"{len(wanted)} that are only wanted put {kg(on)} on the {self.short()} axle and cost "
                f"{sum(w.price for w in wanted):,.0f}"
                + (f", and take {room:.0f} l." if room else ".")
            )
        board = session.building.board
        if board is not None and board.lessons:
            last = max(board.lessons, key=lambda x: x.day)
            told.append(f"Learnt at {last.job}: {last.words}.")
        return " ".join(told)

    # Questions

    def questions(self) -> list[tuple[str, str]]:
        """Key and name of every question."""
        return [(key, name) for key, (name, _ask) in ASKED.items()]

    def question(self) -> Question | None:
        """The chosen question, computed on this job once."""
        session = self._session
        if self._asked[0] is not session.known:
            self._asked = session.known, {}
        key = session.look.brief.question or next(iter(ASKED))
        if key not in ASKED:
            return None
        if key not in self._asked[1]:
            self._asked[1][key] = ask(session.known, key)
        return self._asked[1][key]

    def facts(self) -> tuple[tuple[str, ...], list[list[Cell]]]:
        """Heads and rows of the chosen question: a column of figures for each school."""
        one = self.question()
        if one is None:
            return ("",), []
        return ("On this job", *one.ways), [self._fact(f) for f in one.facts]

    def taken(self) -> str:
        """The way that was chosen at the question; empty before."""
        one = self.question()
        key = one.key if one is not None else ""
        return next((c.way for c in self._session.job.brief.choices if c.question == key), "")

    def _fact(self, fact: Fact) -> list[Cell]:
        best = (min if fact.low_is_better else max)(fact.values)
        apart = fact.low_is_better is not None and max(fact.values) - min(fact.values) > 1e-9
        row: list[Cell] = [(fact.words, "")]
        for value in fact.values:
            words = self._figure(value, fact.unit)
            row.append((words, "bold" if apart and abs(value - best) < 1e-9 else ""))
        return row

    def _figure(self, value: float, unit: str) -> str:
        if unit == "kg":
            return show(round(value), "mass", self._session.look.system)
        if unit == "mm":
            return show(value, "length", self._session.look.system)
        if not value:
            return "none" if unit in ("kPa", "A") else "0"
        digits = 0 if abs(value) >= 100 or unit in ("", "money") else 1 if abs(value) >= 10 else 2
        return f"{value:,.{digits}f}" + (f" {unit}" if unit not in ("", "money") else "")

    def note(self) -> str:
        """What is asked, and what no figure says; why there is nothing to ask where the job has nothing of it."""
        one = self.question()
        if one is None:
            return "This job has nothing that this question is about."
        return f"{one.words} {one.note}"
