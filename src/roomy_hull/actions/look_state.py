"""How the job is looked at, and notices that something changed."""

from collections.abc import Callable

import msgspec

from roomy_hull.core.units import System
from roomy_hull.drawing.view import Station


class Notice:
    """Something that listeners hear about."""

    def __init__(self) -> None:
        self._listeners: list[Callable[[], None]] = []

    def connect(self, listener: Callable[[], None]) -> None:
        """Have a function called on every notice."""
        self._listeners.append(listener)

    def emit(self) -> None:
        """Call all listeners."""
        for listener in tuple(self._listeners):
            listener()


class LookState(msgspec.Struct, frozen=True):
    """How the job is looked at; nothing of it is saved with the job."""

    stage: str = "Fit-out"
    station: Station = "right"
    scenario: str = ""
    system: System = "metric"
    dark: bool = False
    whole: bool = True
    stature: float = 0.0
    opened: frozenset[str] = frozenset()
    page: str = "Drawing"
    run: str = ""
    step: int = 0
    loads_page: str = "Board"
    row: str = "rear"
