"""View: how the job is looked at, stage by stage. Nothing of it is saved with the job."""

from typing import Any

import msgspec

from roomy_hull.core.signal import Signal
from roomy_hull.core.units import System
from roomy_hull.drawing.view import Station


class BriefView(msgspec.Struct, frozen=True):
    """What of the brief is chosen: a wish by its id, a question by its key."""

    wish: str = ""
    question: str = ""


class BodyView(msgspec.Struct, frozen=True):
    """The chosen room or rack; empty for tray and canopy."""

    chosen: str = ""


class PlayView(msgspec.Struct, frozen=True):
    """The run-through that is played, and after how many moves."""

    run: str = ""
    step: int = 0


class SetupsView(msgspec.Struct, frozen=True):
    """The chosen set-up, empty for the scenario's own; between which the swap is told, empty for the first two."""

    chosen: str = ""
    swap: tuple[str, str] = ("", "")


class ServicesView(msgspec.Struct, frozen=True):
    """What is chosen among the services, by its path there; empty for the trip."""

    chosen: str = ""


class LoadsView(msgspec.Struct, frozen=True):
    """The row of the scenario board that is explained."""

    row: str = "rear"


class AccessView(msgspec.Struct, frozen=True):
    """What is chosen in Access, and who is asked.

    Attributes:
        chosen, played: As ``goods.ID`` or ``space.OWNER.PART``, and after how many of its moves it is shown.
        person: By their id; the first of the party where empty.
        urgent: The class of use that stands out on the drawing; empty for none.
    """

    chosen: str = ""
    played: int = -1
    person: str = ""
    urgent: str = ""


class CutView(msgspec.Struct, frozen=True):
    """What is shown of the cut.

    Attributes:
        part, bent: The number of the part, from 1, and after how many of its bends; -1 for all.
        piece: Which sheet or bar, from 0.
        against: The revision with which the last one, or what is drawn now, is compared; empty for the last.
    """

    part: int = 0
    bent: int = -1
    piece: int = 0
    against: str = ""


class BuildView(msgspec.Struct, frozen=True):
    """What of the build is chosen: an operation, a check, an entry of the log, by their keys.

    `bars` says what the rows of the plan are: ``person``, ``station`` or ``thing``.
    """

    op: str = ""
    check: str = ""
    entry: str = ""
    bars: str = "person"


class ViewState(msgspec.Struct, frozen=True):
    """How the job is looked at: what all stages share, then what is chosen in each.

    Attributes:
        stage: The stage that is shown.
        pages: The page shown in each stage that has pages.
        station: Where one stands.
        scenario: Id of the chosen scenario.
        system: ``metric`` or ``us``.
        dark, whole: The dark theme; the whole vehicle rather than close up.
        stature: Of the person beside the body, 0 for nobody. [mm]
        opened: Ids of the openings that stand open.
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
    brief: BriefView = BriefView()
    body: BodyView = BodyView()
    play: PlayView = PlayView()
    setups: SetupsView = SetupsView()
    services: ServicesView = ServicesView()
    loads: LoadsView = LoadsView()
    access: AccessView = AccessView()
    cut: CutView = CutView()
    build: BuildView = BuildView()

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

    def set(self, **changes: Any) -> None:
        """Change how the job is looked at.

        Args:
            **changes: Fields of `ViewState`; of what is chosen in a stage, those of its fields that change.
        """
        for stage, some in changes.items():
            if isinstance(some, dict) and stage != "pages":
                changes[stage] = msgspec.structs.replace(getattr(self._look, stage), **some)
        new = msgspec.structs.replace(self._look, **changes)
        if new != self._look:
            self._look = new
            self.changed.emit()

    def turn_to(self, stage: str, page: str, **changes: Any) -> None:
        """Show a page of a stage.

        Args:
            stage, page: Their titles.
            **changes: As for `set`.
        """
        self.set(stage=stage, pages={**self._look.pages, stage: page}, **changes)
