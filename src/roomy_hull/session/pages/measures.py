"""The page Measures: what the tape says, typed where it stands; which readings contradict each other."""

from collections.abc import Mapping, Sequence

from roomy_hull.core.errors import UserError
from roomy_hull.core.tables.read import Measure, measures
from roomy_hull.core.units import parse, show, unit_word
from roomy_hull.planning.survey import Adjusted
from roomy_hull.session.actions import surveying
from roomy_hull.session.pages.model import PageModel
from roomy_hull.session.session import Session
from roomy_hull.tables.column import Cell, Column


class MeasuresModel(PageModel):
    """Every measure of a vehicle of its kind, with its readings."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.adjusted: Adjusted | None = None

    def adjust(self) -> None:
        """Hold the readings against one another."""
        self.adjusted = surveying.adjusted(self._session)

    def entries(self) -> Sequence[Measure]:
        """In the order in which one goes round the vehicle."""
        return measures()[self._session.job.vehicle.kind]

    def suspects(self) -> tuple[str, ...]:
        """Measures that contradict others, by their keys."""
        rows = self._session.job.survey.readings
        found = self.adjusted.suspects if self.adjusted is not None else ()
        return tuple(dict.fromkeys(rows[n].measure for n in found))

    def mean(self, measure: str) -> str:
        """The mean of a measure's readings with its unit; empty without one."""
        own = self._session.job.survey.of(measure)
        return (
            show(sum(r.value for r in own) / len(own), "length", self._session.look.system)
            if own
            else ""
        )

    def columns(self) -> tuple[Column[Measure], ...]:
        """What is told of a measure."""
        system, suspects = self._session.look.system, self.suspects()

        def name(one: Measure) -> Cell:
            return (one.words, "stop" if one.key in suspects else "")

        def reading(one: Measure) -> Cell:
            mean, many = self.mean(one.key), len(self._session.job.survey.of(one.key))
            mean = mean.removesuffix(f" {unit_word('length', system)}")
            if one.key in suspects:
                return (f"{mean} again", "stop")
            return (f"{mean} ({many})" if many > 1 else mean, "")

        return (
            Column("Measure", name),
            Column(f"Read, {unit_word('length', system)}", reading, "value", lambda _m: ""),
        )

    def change(self, entry: Measure, field: str, text: str) -> None:  # ruff: ignore[unused-method-argument]  # there is one field
        """Take a reading."""
        try:
            value = parse(text, "length", self._session.look.system)
        except UserError as trouble:
            self._session.say(str(trouble), trouble=True)
            return
        surveying.add_reading(self._session, measure=entry.key, value=value, by="tape")

    def add(self, typed: Mapping[str, str]) -> bool:  # ruff: ignore[unused-method-argument]  # what is measured follows from the vehicle
        """No measure is added by hand."""
        return False

    def delete(self, some: Sequence[Measure]) -> None:
        """Delete every reading of some measures."""
        for one in some:
            surveying.drop_readings(self._session, measure=one.key)

    def words(self) -> str:
        """Say how the survey stands."""
        a, rows = self.adjusted, self.entries()
        if a is None:
            return "The readings contradict each other so far that no sizes come of them."
        taken = sum(bool(self._session.job.survey.of(m.key)) for m in rows)
        words = f"{taken} of {len(rows)} measures taken. "
        found = [m.words for key in self.suspects() for m in rows if m.key == key]
        if len(found) > 3:
            return f"{words}One of the {len(found)} marked is wrong: measure them again."
        if found:
            return f"{words}They contradict each other: measure again {'; or '.join(found)}."
        if a.redundancy:
            return f"{words}{a.redundancy} check one another; they agree (spread {a.spread:.1f}, 1 is usual)."
        return f"{words}Nothing checks them yet: repeat a measure, or take the diagonals."
