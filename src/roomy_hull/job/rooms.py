"""Rooms beside the canopy: cross-boxes, side boxes, a slide-in camper, a cab bay, a hold under a lid."""

from typing import Annotated, Literal

from msgspec import Meta

from roomy_hull.core.refs import Ref
from roomy_hull.core.uncertainty import Source
from roomy_hull.core.value import Id, Kg, Mm, Value
from roomy_hull.job.canopy import Canopy

RoomKind = Literal["box", "dog box", "side box", "camper", "cab", "hatch"]
MADE_ROOMS: frozenset[RoomKind] = frozenset({"box", "dog box", "side box"})
"""What the workshop makes as it makes a canopy; the others are bought, or the vehicle's own."""
Far = Annotated[float, Meta(ge=0, le=20000, description="mm, 0 or more")]
COMES_OFF: frozenset[RoomKind] = frozenset({"box", "dog box", "side box", "camper"})
"""What can be taken off the tray for another use."""


class Room(Value, frozen=True, kw_only=True):
    """A room with bays of its own, besides the canopy. [mm]

    `start` is its front behind the tray's front edge (ahead is negative), `across` its middle to the right of
    the centre plane, `up` its floor above the tray's. `shell` has its outside sizes, its doors and its bays, as a
    canopy has. A bought one weighs `mass`, its centre `centre_along` behind its front and `centre_up` above its
    floor (0: its middle). A camper's alcove reaches `over` ahead of its front, from `over_up` above its floor.
    """

    id: Id
    kind: RoomKind = "box"
    start: Mm = 0.0
    across: Mm = 0.0
    up: Mm = 0.0
    shell: Canopy
    mass: Kg = 0.0
    mass_source: Source = "data sheet"
    centre_along: Far = 0.0
    centre_up: Far = 0.0
    over: Far = 0.0
    over_up: Far = 0.0
    tie_downs: Annotated[int, Meta(ge=0, le=12)] = 4

    def __post_init__(self) -> None:
        """Refuse a made room that is the vehicle's own, and an alcove above its roof.

        Raises:
            ValueError: Names the room and the remedy.
        """
        if self.made != (self.shell.kind == "canopy"):
            word = "canopy" if self.made else "cargo"
            raise ValueError(f"room {self.id}: a {self.kind} has a shell of the kind {word}")
        if self.over and self.over_up >= self.shell.height:
            raise ValueError(
                f"room {self.id}: its alcove begins at {self.over_up:g}, above its height {self.shell.height:g}"
            )
        if self.centre_along > self.shell.length + self.over:
            raise ValueError(f"room {self.id}: its centre of mass lies behind it; measure it again")
        if self.centre_up > self.shell.height:
            raise ValueError(f"room {self.id}: its centre of mass lies above it; measure it again")

    @property
    def made(self) -> bool:
        """Whether the workshop makes it."""
        return self.kind in MADE_ROOMS

    @property
    def name(self) -> str:
        """What the workshop calls it."""
        return self.shell.name

    @property
    def ref(self) -> Ref:
        """What its parts, masses and findings belong to."""
        return Ref("room", self.id)
