"""Rooms beside the canopy: cross-boxes, side boxes, a slide-in camper, a cab bay, a hold under a lid."""

from typing import Annotated, Literal

from msgspec import Meta

from roomy_hull.core.card import shown
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
    start: Annotated[Mm, shown("Starts", "Behind the tray's front; ahead is negative")] = 0.0
    across: Annotated[Mm, shown("To the right", "Its middle, from the centre plane; left is negative")] = 0.0  # fmt: skip
    up: Annotated[Mm, shown("Up", "Its floor above the tray's; below is negative")] = 0.0
    shell: Canopy
    mass: Annotated[Kg, shown("Mass, empty", "From its plate", when=lambda r: r.kind == "camper")] = 0.0  # fmt: skip
    mass_source: Annotated[
        Source, shown("Mass known by", "Decides its uncertainty", when=lambda r: r.kind == "camper")
    ] = "data sheet"
    centre_along: Annotated[
        Far, shown("Centre, behind its nose", "From its plate; 0 for its middle", when=lambda r: r.kind == "camper")
    ] = 0.0  # fmt: skip
    centre_up: Annotated[
        Far, shown("Centre, above its floor", "0 for its middle", when=lambda r: r.kind == "camper")
    ] = 0.0
    over: Annotated[
        Far, shown("Over the cab by", "The bed's alcove ahead of its front; 0 for none", when=lambda r: r.kind == "camper")
    ] = 0.0  # fmt: skip
    over_up: Annotated[Far, shown("… from", "Above its floor", when=lambda r: r.kind == "camper")] = 0.0  # fmt: skip
    tie_downs: Annotated[
        int,
        Meta(ge=0, le=12),
        shown(
            "Tie-downs",
            "To the tray or the chassis, as its maker says",
            when=lambda r: r.kind == "camper",
        ),
    ] = 4

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
    def vehicles_own(self) -> bool:
        """Whether it is room that the vehicle has: nothing is made or bought, its doors are the vehicle's."""
        return self.kind not in COMES_OFF

    @property
    def name(self) -> str:
        """What the workshop calls it."""
        return self.shell.name

    @property
    def ref(self) -> Ref:
        """What its parts, masses and findings belong to."""
        return Ref("room", self.id)
