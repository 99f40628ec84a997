"""The session: the job in hand and its verdict, its file, and the way every edit takes.

Views are given the session and listen to its signals; it knows none of them.
"""

from collections.abc import Callable
from pathlib import Path
from typing import TYPE_CHECKING, NamedTuple

import msgspec

from roomy_hull.core.errors import UserError
from roomy_hull.core.findings import Finding, Fix
from roomy_hull.core.signal import Signal
from roomy_hull.core.value import refusal
from roomy_hull.formats.jobfile import checked
from roomy_hull.formats.settings import Settings
from roomy_hull.job.edits.setups import resolved
from roomy_hull.job.history import History
from roomy_hull.job.model import Job, Scenario
from roomy_hull.session.arranging import ArrangeRun
from roomy_hull.session.asking import Asker, Nobody
from roomy_hull.session.building import Building
from roomy_hull.session.cutting import Cutting
from roomy_hull.session.messages import Messages
from roomy_hull.session.selection import Selection
from roomy_hull.session.view_state import View, ViewState
from roomy_hull.shop.shop import Shop, shipped_shop
from roomy_hull.verdict.acceptance import with_figures
from roomy_hull.verdict.verdict import Judged, Verdict, completed, fixes, glance, judge

if TYPE_CHECKING:
    from roomy_hull.formats.locks import Lock
    from roomy_hull.session.beside import Beside, Done
    from roomy_hull.session.catalogue import Catalogue


class OnDisk(NamedTuple):
    """The file that a session has in hand, and the claim to it."""

    path: Path
    claim: "Lock"


class Session:
    """One job in hand.

    Args:
        job: The first job.
        settings: Where recent jobs, preferences and autosaves go.
        path: The job's file.
        whole: Whether the job is judged at once; else a first glance is taken, and everything is judged when `verdict`
            is first asked for.
        known: A verdict on the very job, where somebody has one.
    """

    def __init__(
        self,
        job: Job,
        settings: Settings,
        path: Path | None = None,
        *,
        shop: Shop | None = None,
        whole: bool = True,
        known: Verdict | None = None,
    ) -> None:
        self.settings, self.path = settings, path
        self.on_disk: OnDisk | None = None
        self.seen: dict[str, bytes] = {}
        """What files of this job held when they were last read or written here, by their true paths."""
        self.shop = shop if shop is not None else shipped_shop()
        self.changed, self.saved = Signal(), Signal()
        self.messages, self.selection = Messages(), Selection()
        self.view = View(ViewState(scenario=_usual_scenario(job)))
        self.cutting = Cutting()
        self.building = Building()
        self.arranging = ArrangeRun()
        self.beside: Beside | None = None
        self.asker: Asker = Nobody()
        self.history = History(job)
        self._judged: Judged = known or (judge if whole else glance)(job, shop=self.shop)
        self._moving = False
        self._untold = False
        self._whole: Verdict | None = None
        self._fixes: tuple[Verdict | None, dict[Finding, tuple[Fix, ...]]] = (None, {})
        self._together = False
        self._catalogue: Catalogue | None = None

    # What there is

    @property
    def job(self) -> Job:
        """The job as it stands, a gesture's preview included."""
        return self.history.job

    @property
    def sight(self) -> Judged:
        """What is known of the job so far: the verdict, or a first glance before it."""
        return self._judged

    @property
    def verdict(self) -> Verdict:
        """Every result and finding of the job as it stands; what is still being worked out is waited for."""
        found = self._judged
        if not isinstance(found, Verdict) or (found.held and not self._moving):
            self._untold = True
            found = self._judged = judge(self.job, found, shop=self.shop)
        return found

    @property
    def known(self) -> Verdict:
        """The verdict as far as it is known now: what it holds of an earlier job is being worked out."""
        found = self._judged
        if not isinstance(found, Verdict):
            found = self._judged = self._quick(self.job, found, self.shop)
        return found

    def complete(self) -> None:
        """Judge everything where only a glance was taken before, and tell everybody; beside the window, if it can be."""
        if not isinstance(self._judged, Verdict):
            if self.beside is not None:
                self.beside.ask(self.job, self.shop, whole=True)
            else:
                self._judge()

    def settle_beside(self, beside: "Beside") -> None:
        """From now on have what is long worked out in a process beside the window."""
        self.beside = beside
        beside.warm()
        self.complete()

    def pump(self) -> bool:
        """Take what was worked out beside the window; whether anything is still to come."""
        if self.beside is None:
            return False
        done = self.beside.taken()
        ours = done is not None and done.job is self._judged.job and done.shop is self.shop
        if done is not None and ours and not self._moving:
            self._take_in(done)
        if self._untold:
            # Somebody had to wait for the whole: the others are told now.
            self._untold = False
            self._tell()
        return self.beside.working

    def _take_in(self, done: "Done") -> None:
        """Take what was worked out of the job in hand."""
        found = self._judged
        if isinstance(found, Verdict):
            if not found.held:
                return
            if done.results is not None:
                self._judged = completed(found, {key: done.results[key] for key in found.held})
        elif done.whole is not None:
            assembly = msgspec.structs.replace(done.whole.assembly, shop=self.shop)
            self._judged = msgspec.structs.replace(done.whole, job=self.job, assembly=assembly)
        self._untold = self.settle()

    def settle(self) -> bool:
        """Have everything worked out, waiting for it where need be; False where it cannot be, which is told."""
        try:
            return bool(self.verdict)
        except UserError as trouble:
            self.say(str(trouble), trouble=True)
            return False

    @property
    def look(self) -> ViewState:
        """How the job is looked at."""
        return self.view.look

    @property
    def catalogue(self) -> "Catalogue":
        """What can be placed; read when it is first wanted."""
        if self._catalogue is None:
            from roomy_hull.session.catalogue import (  # ruff: ignore[import-outside-top-level]  # not to slow the start
                Catalogue,
            )  # the stores are not to slow the start

            self._catalogue = Catalogue(self.settings.units_folder(), self.messages)
        return self._catalogue

    def scenario(self) -> Scenario:
        """The chosen scenario with what its set-up leaves off; the first where there is none such."""
        scenarios = resolved(self.job).scenarios
        return next((s for s in scenarios if s.id == self.look.scenario), scenarios[0])

    def say(self, message: str, *, trouble: bool = False) -> None:
        """Tell the user something in passing."""
        self.messages.say(message, trouble=trouble)

    # Files

    def take(self, job: Job, path: Path | None, *, saved: bool = True) -> None:
        """Take another job in hand.

        Args:
            saved: Whether that file holds it.
        Raises:
            UserError: The job cannot be judged; the job in hand stays.
        """
        self._judged = self._quick(checked(job), None, self.shop)
        self.history = History(job)
        if not saved:
            self.history.mark_unsaved()
        self.path = path
        self.seen.clear()
        self.arranging.forget()
        self.selection.clear()
        self.view.set(
            scenario=_usual_scenario(job), opened=frozenset(), play={"run": "", "step": 0}
        )
        self.selection.changed.emit()
        self.saved.emit()
        self.changed.emit()

    def set_shop(self, shop: Shop) -> None:
        """Have another shop make the job: everything is judged anew.

        Raises:
            UserError: It lacks a material of the job; the shop stays as it was.
        """
        self._judged = self._quick(self.job, None, shop)
        self.shop = shop
        self._tell()

    # Edits

    def edit(self, words: str, job: Job) -> bool:
        """Make a step of the history; one that cannot be saved or judged is not made: that is told, and False."""
        try:
            if job is not self.history.settled:
                checked(job)
        except UserError as trouble:
            self.cancel()
            self.say(f"{trouble} The step is not taken.", trouble=True)
            return False
        if isinstance(self._judged, Verdict) and not self._judged.held and job.accepted:
            job = with_figures(self._judged.findings, job)
        pushed = self.history.push(words, job)
        if self._together:
            return True
        if (pushed or self._judged.job is not self.job or self._moving) and not self._stands():
            return False
        if pushed:
            self.saved.emit()
        return True

    def _stands(self) -> bool:
        """Judge the step just made; one that cannot be judged is taken back: that is told, and False."""
        try:
            self._judge()
        except UserError as trouble:
            self.history.take_back()
            self._judge()
            self.say(f"{trouble} The step is taken back.", trouble=True)
            return False
        return True

    def as_one(self, words: str, make: Callable[[], None]) -> bool:
        """Do several edits as one step of the history, judged once, at its end, and whether it stands.

        One within another is part of that.
        """
        if self._together:
            make()
            return True
        before, self._together = self.history.settled, True
        try:
            make()
        finally:
            self._together = False
            self.history.fold(words, before)
            changed = self.history.settled is not before
            stands = not changed or self._stands()
        if changed and stands:
            self.saved.emit()
        return stands

    def attempt(self, words: str, make: Callable[[], Job]) -> bool:
        """Make a step from a function that may refuse; a refusal is told, not raised."""
        try:
            job = make()
        except UserError as trouble:
            self.say(str(trouble), trouble=True)
            return False
        except ValueError as trouble:
            # The job's own values refuse what does not go together.
            self.say(f"{refusal(trouble)}. The job stays as it was.", trouble=True)
            return False
        if self.messages.trouble:
            self.say("")
        return self.edit(words, job)

    def preview(self, job: Job) -> None:
        """Show a job while a gesture goes on."""
        if job is not self.job:
            self.history.preview(job)
            self._judge(moving=True)

    def cancel(self) -> None:
        """End a gesture without a step."""
        self.history.cancel()
        if self._judged.job is not self.job or self._moving:
            self._judge()

    def undo(self) -> None:
        """Take the last step back."""
        words = self.history.undo_words()
        if self.history.undo():
            self._judge()
            self.saved.emit()
            self.say(f"Undone: {words}{self._still_logged()}")

    def redo(self) -> None:
        """Bring the next step back."""
        words = self.history.redo_words()
        if self.history.redo():
            self._judge()
            self.saved.emit()
            self.say(f"Redone: {words}{self._still_logged()}")

    def _still_logged(self) -> str:
        """What to say of entries of the log that a file holds already."""
        kept = "; what was saved of the log stays: correct it by a later entry"
        return kept if self.history.kept_log else ""

    def _judge(self, *, moving: bool = False) -> None:
        """Judge the job as it stands, unless that is done, and tell everybody; what is long rests while a hand moves."""
        known = self._judged.job is self.job and isinstance(self._judged, Verdict)
        if not known or (self._moving and not moving):
            if moving:
                self._judged = judge(self.job, self._judged, shop=self.shop, moving=True)
            else:
                self._judged = self._quick(self.job, self._judged, self.shop)
            self._moving = moving
        self._tell()

    def _quick(self, job: Job, before: Judged | None, shop: Shop) -> Verdict:
        """Judge a job: whole, or with what is long left to the process beside the window."""
        if self.beside is None:
            return judge(job, before, shop=shop)
        if self._whole is not None and self._whole.job is job and self._whole.assembly.shop is shop:
            return self._whole
        found = judge(job, before, shop=shop, beside=True)
        self.beside.ask(job, shop)
        return found

    def _tell(self) -> None:
        """Bring the selection up to date, and tell that job and verdict are others."""
        job = self.job
        if isinstance(self._judged, Verdict) and not self._judged.held:
            self._whole = self._judged
        things = frozenset((*(u.id for u in job.units), *(c.id for c in job.carried)))
        self.selection.keep(things, self._judged.findings)
        self.changed.emit()

    def fixes(self, finding: Finding) -> tuple[Fix, ...]:
        """Compute the remedies of a finding, once for each verdict."""
        verdict = self.known
        if self._fixes[0] is not verdict:
            self._fixes = (verdict, {})
        known = self._fixes[1]
        if finding not in known:
            known[finding] = fixes(verdict, finding)
        return known[finding]


def _usual_scenario(job: Job) -> str:
    """Choose the scenario to show first: the full one, else the first."""
    ids = [s.id for s in job.scenarios]
    return "full" if "full" in ids else ids[0]
