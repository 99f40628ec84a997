"""The build in hand: the plan of the verdict, made when somebody looks at it, and the workshop's board."""

from typing import TYPE_CHECKING

from roomy_hull.core.signal import Signal

if TYPE_CHECKING:
    from roomy_hull.assembly.assemble import Assembly
    from roomy_hull.formats.workshop import Board, Memory
    from roomy_hull.planning.plan import Build, Chances
    from roomy_hull.verdict.verdict import Verdict


class Building:
    """Holds what is planned beside the job; where no plan is begun the verdict has none, and it is made here."""

    def __init__(self) -> None:
        self.changed = Signal()
        self._build: tuple[Assembly, Build | None, Build] | None = None
        self._chances: tuple[Build, Chances | None] | None = None
        self.board: Board | None = None
        self.memory: Memory = {}

    def of(self, verdict: "Verdict") -> "Build":
        """The plan of a verdict."""
        from roomy_hull.formats.workshop import built  # ruff: ignore[import-outside-top-level]  # not to slow the start

        judged = verdict.results["build"]
        if (
            self._build is None
            or self._build[0] is not verdict.assembly
            or self._build[1] is not judged
        ):
            self._build = verdict.assembly, judged, built(verdict)
        return self._build[2]

    def chances(self, verdict: "Verdict") -> "Chances | None":
        """How sure its end is."""
        from roomy_hull.planning.plan import chances_of  # ruff: ignore[import-outside-top-level]  # as above

        build = self.of(verdict)
        if self._chances is None or self._chances[0] is not build:
            self._chances = build, chances_of(build, verdict.assembly.shop.workshop)
        return self._chances[1]

    def forget(self) -> None:
        """Let the board go, so that it is read anew."""
        self.board = None
        self.changed.emit()

    def put(self, board: "Board") -> None:
        """Take a board that was read."""
        self.board = board
        self.changed.emit()
