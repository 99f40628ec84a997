"""The page Levers: what weighs what, what moving it would do, and the changes that gain most."""

from collections.abc import Callable

from roomy_hull.core.errors import UserError
from roomy_hull.core.primitives import Rect, Scene
from roomy_hull.core.refs import Ref
from roomy_hull.core.units import parse, show
from roomy_hull.drawing.scenes.loads import lever_scene, loads_frame, stability_frame
from roomy_hull.session.actions import editing
from roomy_hull.session.pages.cells import kg_of, mass_word
from roomy_hull.session.session import Session
from roomy_hull.studies.loads import ranking
from roomy_hull.studies.loads.ranking import Contribution
from roomy_hull.tables.column import Cell
from roomy_hull.verdict import improve

WORDS = {"rear": "On the rear axle", "front": "On the front axle", "side": "To one side"}
WAYS = ("forward", "aft", "left", "right")
_STEPS = {"forward": (-1.0, 0.0), "aft": (1.0, 0.0), "left": (0.0, -1.0), "right": (0.0, 1.0)}


class LeversModel:
    """The ranking, the chosen mass, and what a change of it would do."""

    def __init__(self, session: Session) -> None:
        self._session = session
        self.measure = "rear"
        self.chosen: Ref | None = None
        self.way = "forward"
        self.better: tuple[improve.Better, ...] = ()
        self._better_of: object = None
        self._rows: tuple[object, object, tuple[Contribution, ...]] = (None, None, ())

    def rows(self) -> tuple[Contribution, ...]:
        """List what is aboard, the greatest part of the measure first, then what stays at home."""
        verdict, one = self._session.known, self._session.scenario()
        if self._rows[0] is verdict and self._rows[1] == (one, self.measure):
            return self._rows[2]
        found = ranking.contributions(verdict.assembly, verdict.loads, one)
        home = tuple(
            Contribution(t.ref, f"{t.name} (at home)", *(0.0, *t.envelope.centre()), 0.0, 0.0, 0.0)
            for t in verdict.assembly.things
            if t.id in one.left_behind
        )
        rows = (*ranking.ranked(found, self.measure), *home)
        self._rows = verdict, (one, self.measure), rows
        return rows

    def follow_selection(self) -> None:
        """Choose what is selected; where nothing of it is listed, the first thing that is."""
        owners, key = [r.owner for r in self.rows()], self._session.selection.key
        selected = next((o for o in owners if o.is_thing and o.id == key), None)
        if selected is not None:
            self.chosen = selected
        if self.chosen not in owners:
            first = owners[0] if owners else None
            self.chosen = next((o for o in owners if o.is_thing), first)

    def at(self) -> int:
        """Find the row of what is chosen; -1 for nothing."""
        owners = [r.owner for r in self.rows()]
        return owners.index(self.chosen) if self.chosen in owners else -1

    def choose(self, row: int) -> None:
        """Choose a row, and select its thing."""
        rows = self.rows()
        if 0 <= row < len(rows):
            self.chosen = rows[row].owner
            if self.chosen.is_thing:
                self._session.selection.select(self.chosen.id)

    def heads(self) -> tuple[str, ...]:
        """Write the column heads."""
        return ("What", mass_word(self._session), "Front", "Rear", "To right")

    def cells(self) -> list[list[Cell]]:
        """Lay the ranking out as a table."""
        session = self._session
        return [
            [(r.name, "bold" if r.owner == self.chosen else ""), (kg_of(session, r.kg), ""),
             *((kg_of(session, r.of(m)), "bold" if m == self.measure else "") for m in ("front", "rear", "side"))]
            for r in self.rows()
        ]  # fmt: skip

    def drawn(self, _aspect: float) -> tuple[str, tuple[Scene, Rect]]:
        """Draw the levers on the vehicle, under their title."""
        session = self._session
        assembly = session.known.assembly
        scene = lever_scene(assembly, self.rows(), self.chosen, session.look.system, self.measure)
        frame = stability_frame(assembly) if self.measure == "side" else loads_frame(assembly)
        return f"{WORDS[self.measure]}, {session.scenario().name}", (scene, frame)

    def home(self) -> tuple[bool, str]:
        """Say whether the chosen thing can be left at home, and what the button for it says."""
        session, one = self._session, self.chosen
        key = one.id if one is not None and one.is_thing else ""
        back = key in session.scenario().left_behind
        words = "Take it along in this scenario" if back else "Leave it at home in this scenario"
        return bool(key) and session.selection.key == key, words

    def short(self) -> str:
        """Say what is shortest."""
        return f"Short is the {improve.short_of(self._session.known).words}"

    def answer(self, typed: str) -> tuple[str, str]:
        """Say what moving or leaving the chosen thing would do.

        Args:
            typed: How far it would move: a length or a sum of lengths.
        """
        session, system = self._session, self._session.look.system
        one = next((r for r in self.rows() if r.owner == self.chosen), None)
        if one is None:
            return "Choose something in the list.", ""
        question = f"What if {one.name} moved by"
        try:
            by = parse(typed, "length", system)
        except UserError as trouble:
            return question, str(trouble)
        dx, dy = (by * s for s in _STEPS[self.way])
        loads = session.known.loads
        moved, off = ranking.if_moved(loads, one, dx, dy), ranking.if_off(one)
        here = loads.scenario(session.look.scenario)

        def kg(value: float) -> str:
            return f"{'+' if value > 0 else ''}{show(value, 'mass', system)}"

        def after(value: float) -> str:
            return show(round(value), "mass", system)

        return question, (
            f"{show(by, 'length', system)} {self.way}: front {kg(moved.front)} to "
            f"{after(here.front.value + moved.front)}, rear {kg(moved.rear)} to "
            f"{after(here.rear.value + moved.rear)}, to the right {kg(moved.side)}.\n"
            f"Came off: front {kg(off.front)}, rear {kg(off.rear)}, gross {kg(off.gross)}, payload left "
            f"{after(here.payload_left.value - off.gross)}."
        )

    # The best changes

    def search(self) -> Callable[[Callable[[float], bool]], tuple[improve.Better, ...]]:
        """Begin a search for the best changes of the job as it is.

        Returns: The search: takes how far it has come, which says whether to go on; done in another thread.
        """
        session = self._session
        verdict, measure, key = session.known, self.measure, session.scenario().id
        system = session.look.system
        self.better, self._better_of = (), session.job
        return lambda step: improve.better(verdict, measure, key, system, progress=step)

    @property
    def fresh(self) -> bool:
        """Whether what was found is of the job as it is."""
        return self._better_of is self._session.job

    def lines(self) -> list[str]:
        """Write the changes that were found."""
        if not self.better:
            return ["No move or swap gains half a kilogram without a stop."]
        found = []
        for one in self.better:
            looks = f"; {one.looks:+d} look" if one.looks else ""
            gain = show(one.gain, "mass", self._session.look.system)
            found.append(f"−{gain}  {one.words}{looks}")
        return found

    def do(self, row: int) -> bool:
        """Make one of the changes that were found; False where the job is another by now."""
        if not self.fresh or not 0 <= row < len(self.better):
            return False
        one = self.better[row]
        editing.make_better(self._session, words=one.words, job=one.job)
        return True
