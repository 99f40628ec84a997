"""Selection: the things that are selected, and the finding that is shown."""

from roomy_hull.core.findings import Finding
from roomy_hull.core.signal import Signal


class Selection:
    """What is selected; `changed` tells of every change."""

    def __init__(self) -> None:
        self.changed = Signal()
        self.key: str = ""
        self.also: tuple[str, ...] = ()
        self.finding: Finding | None = None

    def ids(self) -> tuple[str, ...]:
        """List the ids of everything selected, the first chosen first."""
        return (self.key, *self.also) if self.key else ()

    def select(self, key: str) -> None:
        """Select a unit or carried item alone; an empty key selects nothing."""
        if key != self.key or self.also:
            self.key, self.also = key, ()
            self.finding = None
            self.changed.emit()

    def add(self, key: str) -> None:
        """Add a thing to the selection, or take it out again."""
        if not key or not self.key:
            self.select(key)
            return
        keys = self.ids()
        keys = tuple(k for k in keys if k != key) if key in keys else (*keys, key)
        self.key, self.also = (keys[0] if keys else ""), keys[1:]
        self.changed.emit()

    def show(self, finding: Finding | None, key: str = "") -> None:
        """Show a finding, and select the thing that it concerns where one is named."""
        self.finding = finding
        if key:
            self.key, self.also = key, ()
        self.changed.emit()

    def keep(self, there: frozenset[str], findings: tuple[Finding, ...]) -> None:
        """Let go of things that are gone, and follow the finding in a new verdict."""
        if not there.issuperset(self.ids()):
            self.also = tuple(k for k in self.also if k in there)
            if self.key not in there:
                self.key = ""
            self.changed.emit()
        if self.finding is not None:
            key = self.finding.key
            self.finding = next((f for f in findings if f.key == key), None)

    def clear(self) -> None:
        """Forget everything, without telling: another job is taken in hand."""
        self.key, self.also, self.finding = "", (), None
