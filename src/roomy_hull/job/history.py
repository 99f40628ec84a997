"""History: the list of jobs behind undo and redo. One gesture is one step."""

import msgspec

from roomy_hull.job.chain import united
from roomy_hull.job.logs import Entry
from roomy_hull.job.model import Job


class History:
    """Jobs in the order they were made, with a cursor.

    Args:
        job: The first job.
    """

    LIMIT = 500

    def __init__(self, job: Job) -> None:
        self._steps: list[tuple[str, Job]] = [("", job)]
        self._at = 0
        self._saved: Job | None = job
        self._preview: Job | None = None
        self.logged: tuple[Entry, ...] = ()
        """Entries of the log that a file holds."""
        self.kept_log = False
        """Whether the last step back or forward left standing what a file holds of the log."""

    @property
    def job(self) -> Job:
        """The job as it stands, a gesture's preview included."""
        return self._preview if self._preview is not None else self._steps[self._at][1]

    @property
    def settled(self) -> Job:
        """The job without a gesture that has not ended."""
        return self._steps[self._at][1]

    @property
    def dirty(self) -> bool:
        """Whether the settled job differs from the one last saved."""
        return self.settled is not self._saved

    def push(self, words: str, job: Job) -> bool:
        """Make a new step; what could be redone is forgotten. No step where nothing changed."""
        self._preview = None
        if job is self.settled:
            return False
        del self._steps[self._at + 1 :]
        self._steps.append((words, job))
        if len(self._steps) > self.LIMIT:
            del self._steps[0]
        self._at = len(self._steps) - 1
        return True

    def fold(self, words: str, since: Job) -> None:
        """Make one step of all that were made since a job was settled."""
        at = next((n for n in range(self._at, -1, -1) if self._steps[n][1] is since), self._at)
        if self._at - at > 1:
            self._steps[at + 1 : self._at + 1] = [(words, self.settled)]
            self._at = at + 1

    def preview(self, job: Job) -> None:
        """Show a job while a gesture goes on; `push` or `cancel` ends it."""
        self._preview = job

    def cancel(self) -> None:
        """End a gesture without a step."""
        self._preview = None

    def take_back(self) -> None:
        """Step back from a step just made that cannot stand; redo does not bring it."""
        self.undo()
        del self._steps[self._at + 1 :]

    def undo_words(self) -> str:
        """Say what undo would take back, or nothing."""
        return self._steps[self._at][0] if self._at > 0 else ""

    def redo_words(self) -> str:
        """Say what redo would bring back, or nothing."""
        return self._steps[self._at + 1][0] if self._at + 1 < len(self._steps) else ""

    def undo(self) -> bool:
        """Step back, if there is a step."""
        self._preview = None
        if self._at == 0:
            return False
        self._at -= 1
        self._keep_log()
        return True

    def redo(self) -> bool:
        """Step forward, if there is a step."""
        self._preview = None
        if self._at + 1 >= len(self._steps):
            return False
        self._at += 1
        self._keep_log()
        return True

    def mark_logged(self, log: tuple[Entry, ...]) -> None:
        """Remember which entries of the log a file holds: no step takes these back, they are corrected by later ones."""
        self.logged = log

    def _keep_log(self) -> None:
        """Have the job that was come to hold every entry that a file holds."""
        words, job = self._steps[self._at]
        ids = {e.id for e in job.log}
        self.kept_log = any(e.id not in ids for e in self.logged)
        if self.kept_log:
            both, _wrong = united(self.logged, job.log)
            self._steps[self._at] = words, msgspec.structs.replace(job, log=both)

    def mark_saved(self) -> None:
        """Remember the settled job as the one on disk."""
        self._saved = self.settled

    def mark_unsaved(self) -> None:
        """Remember that no file holds this job, as after a recovery."""
        self._saved = None
