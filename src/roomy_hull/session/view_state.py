"""View: how the job is looked at. Nothing of it is saved with the job."""

import msgspec

from roomy_hull.core.signal import Signal
from roomy_hull.core.units import System
from roomy_hull.drawing.view import Station


class ViewState(msgspec.Struct, frozen=True):
    """How the job is looked at.

    Attributes:
        stage: The stage that is shown.
        pages: The page shown in each stage that has pages.
        station: Where one stands.
        scenario: Id of the chosen scenario.
        system: ``metric`` or ``us``.
        dark, whole: The dark theme; the whole vehicle rather than close up.
        stature: Of the person beside the body, 0 for nobody. [mm]
        opened: Ids of the openings that stand open.
        run, step: The run-through that is played, and after how many moves.
        row: The row of the scenario board that is explained.
        service: What is chosen among the services, by its path there; empty for the trip.
        access, played: What is chosen in Access, as ``goods.ID`` or ``space.OWNER.PART``, and after how many of its
            moves it is shown.
        person: Who is asked, by their id; the first of the party where empty.
        urgent: The class of use that stands out on the drawing; empty for none.
        part, bent: The number of the part that is shown, from 1, and after how many of its bends; -1 for all.
        piece: Which sheet or bar is shown, from 0.
        against: The revision with which the last one, or what is drawn now, is compared; empty for the last.
        wish, question: What of the brief is chosen: a wish by its id, a question by its key.
        op, check, entry: What of the build is chosen: an operation, a check, an entry of the log, by their keys.
        body: The chosen room or rack on the stage Body; empty for tray and canopy.
        setup: The chosen set-up; empty for the scenario's own.
        swap: Between which set-ups the swap is told, by their ids; empty for the first two.
        bars: What the rows of the plan are: ``person``, ``station`` or ``thing``.
    """

    stage: str = "Fit-out"
    pages: dict[str, str] = {}
    station: Station = "right"
    scenario: str = ""
    system: System = "metric"
    dark: bool = False
    whole: bool = True
    stature: float = 0.0
    opened: frozenset[str] = frozenset()
    run: str = ""
    step: int = 0
    row: str = "rear"
    service: str = ""
    access: str = ""
    played: int = -1
    person: str = ""
    urgent: str = ""
    part: int = 0
    bent: int = -1
    piece: int = 0
    against: str = ""
    wish: str = ""
    question: str = ""
    op: str = ""
    check: str = ""
    entry: str = ""
    body: str = ""
    setup: str = ""
    swap: tuple[str, str] = ("", "")
    bars: str = "person"

    def page(self, stage: str) -> str:
        """The page shown in a stage; empty where none was chosen yet."""
        return self.pages.get(stage, "")


class View:
    """The look in hand; `changed` tells of every change, and of nothing else."""

    def __init__(self, look: ViewState) -> None:
        self.changed = Signal()
        self._look = look

    @property
    def look(self) -> ViewState:
        """How the job is looked at."""
        return self._look

    def set(self, **changes: object) -> None:
        """Change how the job is looked at.

        Args:
            **changes: Fields of `ViewState`.
        """
        new = msgspec.structs.replace(self._look, **changes)
        if new != self._look:
            self._look = new
            self.changed.emit()

    def turn_to(self, stage: str, page: str, **changes: object) -> None:
        """Show a page of a stage.

        Args:
            **changes: Other fields of `ViewState`.
        """
        self.set(stage=stage, pages={**self._look.pages, stage: page}, **changes)
