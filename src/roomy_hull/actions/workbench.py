"""The workbench: the job in hand, its verdict, what is selected and how it is looked at.

Views are given the workbench and listen to its notices; it knows none of them.
"""

import math
from collections.abc import Callable
from pathlib import Path
from typing import TYPE_CHECKING

import msgspec

from roomy_hull.actions.finding_room import first_place, page_of, side_of, why_not
from roomy_hull.actions.look_state import LookState, Notice
from roomy_hull.actions.placing import carried_place
from roomy_hull.actions.store_room import StoreRoom
from roomy_hull.core.errors import InputError, UserError
from roomy_hull.core.findings import Finding, Fix
from roomy_hull.formats import jobfile
from roomy_hull.formats.keeping import Keeping
from roomy_hull.job import edits, layouts
from roomy_hull.job.history import History
from roomy_hull.job.model import Acceptance, Job, Scenario
from roomy_hull.job.resizing import resized
from roomy_hull.job.survey import Reading
from roomy_hull.job.unit import Carried, Unit
from roomy_hull.planning.survey import Adjusted, adjust, taken_over
from roomy_hull.studies.fit.moving import applied
from roomy_hull.verdict.verdict import Verdict, fixes, judge

if TYPE_CHECKING:
    from roomy_hull.kit.stores import Entry

STAGES = ("Survey", "Body", "Fit-out", "Services", "Loads", "Access", "Cut", "Build")
ALIVE = frozenset({"Survey", "Body", "Fit-out", "Loads", "Cut"})


class Workbench:
    """The one model behind the window.

    Parameters
    ----------
    job : Job
        The first job.
    keeping : Keeping
        Where recent jobs, preferences and autosaves go.
    path : Path or None
        The job's file.
    whole : bool
        Whether the first verdict is whole; without, what opens is judged when `complete` is called.
    """

    def __init__(
        self, job: Job, keeping: Keeping, path: Path | None = None, *, whole: bool = True
    ) -> None:
        self.keeping = keeping
        self.job_changed = Notice()
        self.selection_changed = Notice()
        self.look_changed = Notice()
        self.told = Notice()
        self.stores_changed = Notice()
        self.message = ""
        self.trouble = False
        self.history = History(job)
        self.path = path
        self._whole = whole
        self.verdict: Verdict = judge(job, opens=whole)
        self.selection: str = ""
        self.also: tuple[str, ...] = ()
        self._room = StoreRoom(keeping.units_folder())
        self.finding: Finding | None = None
        self.look = LookState(scenario=self._usual_scenario(job))

    @staticmethod
    def _usual_scenario(job: Job) -> str:
        """Choose the scenario to show first: the full one, else the first."""
        ids = [s.id for s in job.scenarios]
        return "full" if "full" in ids else ids[0]

    @property
    def job(self) -> Job:
        """The job as it stands, a gesture's preview included."""
        return self.history.job

    def scenario(self) -> Scenario:
        """Give the chosen scenario; the first where there is none such."""
        found = [s for s in self.job.scenarios if s.id == self.look.scenario]
        return found[0] if found else self.job.scenarios[0]

    def say(self, message: str, *, trouble: bool = False) -> None:
        """Tell the user something in passing."""
        self.message, self.trouble = message[:1].upper() + message[1:], trouble
        self.told.emit()

    # Jobs

    def take(self, job: Job, path: Path | None, *, saved: bool = True) -> None:
        """Put another job on the bench."""
        verdict = judge(job)
        self._whole = True
        self.history = History(job)
        if not saved:
            self.history.mark_unsaved()
        self.path = path
        self.selection, self.also, self.finding = "", (), None
        self.verdict = verdict
        self.look = msgspec.structs.replace(
            self.look, scenario=self._usual_scenario(job), opened=frozenset(), run="", step=0
        )
        self._announce_all()

    def open(self, path: Path) -> None:
        """Open a job file.

        Parameters
        ----------
        path : Path
            The file.

        Raises
        ------
        JobFileError
            The file cannot be used; the job in hand stays.
        """
        job = jobfile.load(path)
        self.keeping.drop_autosave()
        self.take(job, path)
        self.keeping.add_recent(path)
        self.say(f"Opened {path.name}")

    def save(self, path: Path) -> None:
        """Save the job.

        Parameters
        ----------
        path : Path
            The file.

        Raises
        ------
        JobFileError
            The place cannot be written.
        """
        jobfile.save(self.history.settled, path)
        self.path = path
        self.history.mark_saved()
        self.keeping.drop_autosave()
        self.keeping.add_recent(path)
        self.say(f"Saved {path.name}")
        self.job_changed.emit()

    def autosave(self) -> None:
        """Write the job aside if it has changes."""
        if self.history.dirty:
            self.keeping.autosave(self.history.settled, self.path)

    # Edits

    def edit(self, words: str, job: Job) -> None:
        """Make a step of the history; one that cannot be judged is taken back, and that is told."""
        if self.history.push(words, job) or self.verdict.job is not self.job:
            try:
                self._judge()
            except UserError as trouble:
                self.history.undo()
                self._judge()
                self.say(f"{trouble} The step is taken back.", trouble=True)

    def attempt(self, words: str, make: Callable[[], Job]) -> bool:
        """Make a step from a function that may refuse; a refusal is told, not raised."""
        try:
            job = make()
        except UserError as trouble:
            self.say(str(trouble), trouble=True)
            return False
        if self.trouble:
            self.say("")
        self.edit(words, job)
        return True

    def preview(self, job: Job) -> None:
        """Show a job while a gesture goes on."""
        if job is not self.job:
            self.history.preview(job)
            self._judge()

    def settle(self, words: str) -> None:
        """End a gesture: what it shows becomes one step."""
        self.edit(words, self.history.job)

    def cancel(self) -> None:
        """End a gesture without a step."""
        self.history.cancel()
        if self.verdict.job is not self.job:
            self._judge()

    def undo(self) -> None:
        """Take the last step back."""
        words = self.history.undo_words()
        if self.history.undo():
            self._judge()
            self.say(f"Undone: {words}")

    def redo(self) -> None:
        """Bring the next step back."""
        words = self.history.redo_words()
        if self.history.redo():
            self._judge()
            self.say(f"Redone: {words}")

    def complete(self) -> None:
        """Judge what opens too, where the first verdict left it out."""
        if not self._whole:
            self._judge()

    def _judge(self) -> None:
        """Judge the job as it stands and tell everybody."""
        self.verdict = judge(self.job, self.verdict if self._whole else None)
        self._whole = True
        if any(self.job.thing(k) is None for k in self.chosen()):
            self.also = tuple(k for k in self.also if self.job.thing(k) is not None)
            if self.job.thing(self.selection) is None:
                self.selection = ""
            self.selection_changed.emit()
        if self.finding is not None:
            key = self.finding.key
            self.finding = next((f for f in self.verdict.findings if f.key == key), None)
        self.job_changed.emit()

    def set_field(self, key: str, field: str, value: object) -> bool:
        """Change one field of a unit or carried item, as one step."""
        thing = self.job.thing(key)
        name = thing.name if thing else key
        return self.attempt(
            f"change {field} of {name}", lambda: edits.changed(self.job, key, **{field: value})
        )

    def set_path(self, path: str, value: object) -> bool:
        """Set a size of vehicle or body by its path, as one step; what hangs on it goes along."""
        name = path.rsplit(".", 1)[-1].replace("_", " ")
        return self.attempt(f"change {name}", lambda: resized(self.job, path, value))

    def adjusted(self) -> Adjusted | None:
        """Adjust the survey; none where the readings make no figure, and that is told."""
        try:
            return adjust(self.job.survey, self.job.vehicle.kind)
        except UserError as trouble:
            self.say(str(trouble), trouble=True)
            return None

    def add_reading(self, measure: str, value: float, by: str) -> bool:
        """Take one reading as one step; refused where it is no length."""

        def make() -> Job:
            if not (value > 0 and math.isfinite(value)):
                raise InputError("a reading is a length above 0", measure, "Measure again.")
            reading = Reading(measure=measure, value=value, by="laser" if by == "laser" else "tape")
            survey = self.job.survey.but(readings=(*self.job.survey.readings, reading))
            return msgspec.structs.replace(self.job, survey=survey)

        return self.attempt("take a reading", make)

    def drop_readings(self, measure: str) -> None:
        """Delete every reading of one measure."""
        kept = tuple(r for r in self.job.survey.readings if r.measure != measure)
        if len(kept) != len(self.job.survey.readings):
            survey = self.job.survey.but(readings=kept)
            self.edit("delete readings", msgspec.structs.replace(self.job, survey=survey))

    def weigh(self, wheels: dict[str, float]) -> None:
        """Take the kerb axle masses from four wheel scales, as one step. [kg]"""
        front, rear = wheels["FL"] + wheels["FR"], wheels["RL"] + wheels["RR"]

        def make() -> Job:
            kerb = self.job.vehicle.kerb.but(front=front, rear=rear, source="weighed")
            return msgspec.structs.replace(
                self.job, vehicle=msgspec.structs.replace(self.job.vehicle, kerb=kerb)
            )

        if self.attempt("weigh the vehicle", make):
            self.say(
                f"Front axle {front:.0f} kg, rear axle {rear:.0f} kg. Enter driver, fuel and tools that "
                "were aboard, so that nothing counts twice."
            )

    def take_survey(self) -> None:
        """Put every size that the survey determines into the vehicle, as one step."""
        found = self.adjusted()
        if found is None:
            return

        def make() -> Job:
            vehicle = taken_over(self.job.vehicle, found)
            return msgspec.structs.replace(self.job, vehicle=vehicle)

        if self.attempt("put the survey into the vehicle", make):
            words = f"{len(found.sizes)} sizes are put into the vehicle."
            if found.suspects:
                words += (
                    " Readings contradict each other: measure the marked ones again before cutting."
                )
            self.say(words, trouble=bool(found.suspects))

    def fixes(self, finding: Finding) -> tuple[Fix, ...]:
        """Give the remedies of a finding that can be computed."""
        return fixes(self.verdict, finding)

    def apply(self, fix: Fix) -> None:
        """Apply a computed fix."""
        self.attempt(fix.words, lambda: applied(self.job, fix))

    def accept(self, finding: Finding, reason: str, initials: str) -> None:
        """Record that a *look* was accepted."""
        if finding.weight != "look":
            self.say("A stop cannot be accepted; it has to be mended.", trouble=True)
            return
        if not reason.strip() or not initials.strip():
            self.say("Accepting wants a reason and initials.", trouble=True)
            return
        record = Acceptance(
            code=finding.code, subjects=finding.subjects, scenario=finding.scenario,
            reason=reason.strip()[:400], initials=initials.strip()[:8],
        )  # fmt: skip
        self.edit(f"accept: {finding.title}", edits.accepted(self.job, record))

    def entries(self) -> "tuple[Entry, ...]":
        """Give everything in the stores; a file of the user's own that cannot be used is told once."""
        found = self._room.entries()
        if self._room.trouble:
            self.say(
                f"A file of your own stores cannot be used: {self._room.trouble}", trouble=True
            )
            self._room.trouble = ""
        return found

    def entry(self, key: str) -> "Entry":
        """Look an entry of the stores up."""
        return next(e for e in self.entries() if e.key == key)

    def keep_unit(self, key: str) -> None:
        """Keep a unit in the user's own stores, as an open file."""
        unit = self.job.thing(key)
        if unit is None or isinstance(unit, Carried):
            return
        try:
            path = self._room.keep(unit)
        except UserError as trouble:
            self.say(f"The unit cannot be kept: {trouble}", trouble=True)
            return
        self.say(f"{unit.name} is in your stores now: {path}")
        self.stores_changed.emit()

    def place(self, key: str, bay: str = "", u: float = 0.0, w: float = 0.0) -> str:
        """Place a thing from the stores as one step; returns its id, or nothing if refused.

        Without a bay it goes to the first free place on the side where one stands.
        """
        made = self.entry(key).make
        if isinstance(made, Carried):
            thing: Unit | Carried = carried_place(self.verdict, made, self.look.station)
        else:
            at = (bay, u, w) if bay else first_place(self.verdict, made, side_of(self.look.station))
            if at is None:
                why = why_not(self.verdict.assembly, made, side_of(self.look.station))
                self.say(f"{made.name} fits no bay on this side: {why}", trouble=True)
                return ""
            thing = made.but(bay=at[0], u=at[1], w=at[2])
        wish = edits.free_id(self.job, thing.id)
        if not self.attempt(f"place {thing.name}", lambda: edits.added(self.job, thing)):
            return ""
        self.select(wish)
        return wish

    # Looking

    def select(self, key: str) -> None:
        """Select a unit or carried item alone; an empty key selects nothing."""
        if key != self.selection or self.also:
            self.selection, self.also = key, ()
            self.finding = None
            self.selection_changed.emit()

    def select_also(self, key: str) -> None:
        """Add a thing to the selection, or take it out again."""
        if not key or not self.selection:
            self.select(key)
            return
        chosen = self.chosen()
        chosen = tuple(k for k in chosen if k != key) if key in chosen else (*chosen, key)
        self.selection, self.also = (chosen[0] if chosen else ""), chosen[1:]
        self.selection_changed.emit()

    def chosen(self) -> tuple[str, ...]:
        """Give the ids of everything selected, the first chosen first."""
        return (self.selection, *self.also) if self.selection else ()

    def show_finding(self, finding: Finding | None) -> None:
        """Turn to where a finding is and select its first subject."""
        self.finding = finding
        if finding is not None:
            if finding.subjects and self.job.thing(finding.subjects[0]) is not None:
                self.selection, self.also = finding.subjects[0], ()
            self._face(finding)
        self.selection_changed.emit()

    def _face(self, finding: Finding) -> None:
        """Stand where a finding can be seen, and choose its scenario and stage."""
        changes: dict[str, object] = {}
        for key in finding.subjects:
            thing = self.verdict.assembly.thing(key)
            if thing is not None and thing.place is not None:
                changes["station"] = thing.place.bay.side
                break
        if finding.scenario:
            changes["scenario"] = finding.scenario
        if finding.stage in ALIVE and finding.stage != "Cut":
            changes["stage"] = finding.stage
        if finding.stage == "Loads":
            changes |= page_of(finding.code)
        self.set_look(**changes)

    def set_look(self, **changes: object) -> None:
        """Change how the job is looked at; a notice only where something changed."""
        new = msgspec.structs.replace(self.look, **changes)
        if new != self.look:
            self.look = new
            self.look_changed.emit()

    def toggle_open(self, key: str) -> None:
        """Open or close everything that opens on a thing, or one opening by its own id."""
        thing = self.verdict.assembly.thing(key)
        opening = self.verdict.assembly.opening(key)
        keys = (
            {o.id for o in thing.openings}
            if thing is not None
            else {opening.id}
            if opening
            else set()
        )
        if not keys:
            self.say("This has nothing that opens.")
            return
        opened = self.look.opened
        self.set_look(opened=opened - keys if keys <= opened else opened | keys)

    def _announce_all(self) -> None:
        """Tell every listener that all has changed."""
        self.selection_changed.emit()
        self.look_changed.emit()
        self.job_changed.emit()

    def nudge(self, du: float, dw: float) -> None:
        """Move the selection along the wall and up, in the directions of the picture.

        A carried item moves along x (or y from the ends) and z.
        """
        thing = self.job.thing(self.selection)
        if thing is None:
            return
        station = self.look.station
        if isinstance(thing, Carried):
            field = "y" if station in ("rear", "front") else "x"
            sign = -1.0 if station in ("right", "front") else 1.0
            changes = {field: getattr(thing, field) + sign * du, "z": thing.z + dw}
            self.attempt(f"move {thing.name}", lambda: edits.changed(self.job, thing.id, **changes))
            return
        placed = self.verdict.assembly.thing(thing.id)
        side = placed.place.bay.side if placed and placed.place else "left"
        sign = -1.0 if side == "right" else 1.0
        words = f"move {thing.name}" if not self.also else f"move {len(self.chosen())} units"
        self.attempt(words, lambda: layouts.shifted(self.job, self.chosen(), sign * du, 0.0, dw))

    def pitch_of_selection(self) -> float:
        """Give the rail pitch under the selection, or a handy step where there is none. [mm]"""
        thing = self.verdict.assembly.thing(self.selection)
        pitch = thing.place.bay.pitch if thing and thing.place else 0.0
        return pitch if pitch > 0 else 25.0
