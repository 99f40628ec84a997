"""The cut in hand: the last nesting that was found, of which verdict it is, and whether one is looked for."""

from typing import TYPE_CHECKING

from roomy_hull.core.signal import Signal

if TYPE_CHECKING:
    from roomy_hull.assembly.assemble import Assembly
    from roomy_hull.making.cutlist import CutList
    from roomy_hull.verdict.verdict import Verdict


class Cutting:
    """Holds a cut beside the job; nesting takes too long to be done at every look."""

    def __init__(self) -> None:
        self.changed = Signal()
        self._cut: CutList | None = None
        self._of: Assembly | None = None
        self.working = False

    @property
    def cut(self) -> "CutList | None":
        """The last cut, maybe of an earlier verdict."""
        return self._cut

    def is_of(self, verdict: "Verdict") -> bool:
        """Whether the cut is that of a verdict: of the very same parts."""
        return self._of is verdict.assembly

    def put(self, cut: "CutList", verdict: "Verdict") -> None:
        """Take a cut."""
        self._cut, self._of = cut, verdict.assembly
        self.changed.emit()

    def tried(self, verdict: "Verdict") -> None:
        """Note that a verdict's cut was looked for and there is none: not again until something changes."""
        self._of = verdict.assembly
