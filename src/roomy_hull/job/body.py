"""The body: a tray, at most one canopy with its doors and bays, other rooms, racks."""

from typing import Annotated, Literal

from msgspec import Meta

from roomy_hull.core.card import shown
from roomy_hull.core.value import BentSheet, Gap, Id, Kg, Mm, Name, PositiveMm, Thickness, Value
from roomy_hull.job.canopy import Bay, Canopy, Door, check_sections
from roomy_hull.job.racks import Rack
from roomy_hull.job.rooms import Room

TRUNDLE = "tray.trundle"
"""The place that goods in the trundle drawer name."""


class Arch(Value, frozen=True, kw_only=True):
    """A hump in the tray over a wheel, on one side or both, rising from the floor. [mm]"""

    start: Mm
    length: PositiveMm
    width: PositiveMm
    height: PositiveMm
    side: Literal["left", "right", "both"] = "both"


class UnderBox(Value, frozen=True, kw_only=True):
    """A toolbox hung under the tray's edge, ahead of the wheel or behind it. [mm]

    `gap` is its distance from the tray's front (ahead) or tail (behind); `depth` reaches inward. Its door lets
    `down` or lifts `up`. A `wet pocket` is for gear that drips: it drains, its door has no seal, and it opens into
    no toolbox.
    """

    id: Id
    name: Name = "Toolbox"
    side: Literal["left", "right"]
    place: Literal["ahead", "behind"]
    gap: Annotated[Gap, shown("Gap")] = 20.0
    length: Annotated[PositiveMm, shown("Length")]
    height: Annotated[PositiveMm, shown("Height")]
    depth: Annotated[PositiveMm, shown("Depth")]
    sheet: BentSheet = 2.0
    contents: Annotated[Kg, shown("Holds")] = 0.0
    door: Annotated[Literal["down", "up"], shown("Door", "Lets down, or lifts up")] = "down"
    kind: Annotated[Literal["toolbox", "wet pocket"], shown("Is a", "A wet pocket drains")] = "toolbox"  # fmt: skip

    @property
    def holder(self) -> str:
        """The place that goods in it name."""
        return f"tray.box-{self.id}"


class Trundle(Value, frozen=True, kw_only=True):
    """A long drawer under the tray, between the chassis rails, opening at the rear. [mm]

    It `locks` both shut and drawn out. Its `lid` is a table over it while it stands drawn out.
    """

    length: Annotated[PositiveMm, shown("Length")]
    width: Annotated[PositiveMm, shown("Width")]
    height: Annotated[PositiveMm, shown("Height")]
    sheet: BentSheet = 2.0
    contents: Annotated[Kg, shown("Holds")] = 0.0
    locks: Annotated[bool, shown("Locks", "Shut, and drawn out")] = True
    lid: Annotated[bool, shown("Lid", "A table over it while it is drawn out")] = False

    def __post_init__(self) -> None:
        """Refuse a drawer whose slides and sheets leave no box.

        Raises:
            ValueError: Says what is too small.
        """
        if self.width < 120 or self.height < 40:
            raise ValueError("trundle: slides and sheets leave no box; make it wider or higher")


class UnderTank(Value, frozen=True, kw_only=True):
    """A water tank under the tray, `start` behind the tray's front, between the rails. [mm]"""

    start: Annotated[Gap, shown("Start")] = 100.0
    length: Annotated[PositiveMm, shown("Length")]
    width: Annotated[PositiveMm, shown("Width")]
    height: Annotated[PositiveMm, shown("Height")]
    sheet: BentSheet = 2.0
    baffles: Annotated[int, Meta(ge=0, le=20)] = 2

    def __post_init__(self) -> None:
        """Refuse a tank whose sheets leave no room inside.

        Raises:
            ValueError: Says so.
        """
        if min(self.length, self.width, self.height) - 2 * self.sheet < 20:
            raise ValueError(
                "tank: the sheets leave no room inside; make it larger or its sheet thinner"
            )


class Tray(Value, frozen=True, kw_only=True):
    """What the load stands on: a flat tray on a subframe, or a tub's or wagon's own floor. [mm]

    For a tub or wagon (`kind` hold) the floor is the vehicle's own, `floor_z` high; what is made on
    it is a `false_floor` of that height and side `wings` of that width. `rack` is the headboard's
    rack above the headboard, `lift_points` hold chains for lifting the tray off, `filler` is a
    pocket for the fuel filler.
    """

    kind: Literal["tray", "hold"] = "tray"
    floor_z: Gap = 0.0
    false_floor: Annotated[
        Gap, shown("False floor", "Bays go up by it; 0 for none", when=lambda t: t.kind == "hold")
    ] = 0.0
    wings: Annotated[
        Gap, shown("Side wings", "Bays lose it on both sides; 0 for none", when=lambda t: t.kind == "hold")
    ] = 0.0  # fmt: skip
    gap: Annotated[
        Gap, shown("Behind the cab", "Cab back to the tray's front", when=lambda t: t.kind == "tray")
    ] = 50.0  # fmt: skip
    length: Annotated[
        PositiveMm, shown("Tray length", "A full-length canopy goes along", when=lambda t: t.kind == "tray")
    ]  # fmt: skip
    width: Annotated[
        PositiveMm, shown("Tray width", "A full-width canopy goes along", when=lambda t: t.kind == "tray")
    ]  # fmt: skip
    headboard: Annotated[Gap, shown("Headboard", "Above the floor", when=lambda t: t.kind == "tray")] = 900.0  # fmt: skip
    rack: Annotated[Gap, shown("Rack on it", "Above the headboard", when=lambda t: t.kind == "tray")] = 0.0  # fmt: skip
    sides: Annotated[Gap, shown("Drop sides", "0 for none", when=lambda t: t.kind == "tray")] = 0.0
    side_thickness: BentSheet = 3.0
    floor: Annotated[Thickness, shown("Floor sheet", when=lambda t: t.kind == "tray")] = 4.0
    floor_material: str = "5083-H116"
    boards: Annotated[
        Literal["sheet", "planks"], shown("Floor of", "Plate, or planks", when=lambda t: t.kind == "tray")
    ] = "sheet"  # fmt: skip
    rail: str = "100x50x4"
    cross: str = "50x50x3"
    cross_spacing: Annotated[
        float,
        Meta(ge=50, le=5000, description="mm"),
        shown("Cross-members", "At most so far apart", when=lambda t: t.kind == "tray"),
    ] = 400.0
    bar_material: str = "6061-T6"
    mudguards: Annotated[
        bool, shown("Mudguards", "From the tyre's size and travel", when=lambda t: t.kind == "tray")
    ] = True
    wheel_travel: Gap = 90.0
    lift_points: Annotated[int, Meta(ge=0, le=8), shown("Lifting eyes", when=lambda t: t.kind == "tray")] = 4  # fmt: skip
    filler: Annotated[
        bool,
        shown(
            "Filler pocket",
            "So that it takes no toolbox room and fills at full flow",
            when=lambda t: t.kind == "tray",
        ),
    ] = False
    boxes: Annotated[tuple[UnderBox, ...], Meta(max_length=8)] = ()
    trundle: Trundle | None = None
    tank: UnderTank | None = None
    fittings: Annotated[Kg, shown("Lights, fasteners", "What is not drawn")] = 0.0
    arches: Annotated[tuple[Arch, ...], Meta(max_length=8)] = ()

    def holders(self) -> dict[str, str]:
        """What hangs under it and holds goods: the place they name, and what it is called."""
        found = {b.holder: f"{b.name} {b.id}" for b in self.boxes}
        return found | ({TRUNDLE: "Trundle drawer"} if self.trundle is not None else {})

    def __post_init__(self) -> None:
        """Refuse bars whose section cannot be read.

        Raises:
            ValueError: Names the section.
        """
        check_sections("tray", self.rail, self.cross)


Colour = Annotated[str, Meta(pattern=r"^(#[0-9A-Fa-f]{6})?$", description="as #93A48E, or empty")]


class Finish(Value, frozen=True, kw_only=True):
    """Colours of the customer's picture, empty for the usual ones; they mean nothing else."""

    cab: Annotated[
        Colour, shown("Colour, cab", "Of the customer's picture, as #93A48E; empty for the usual")
    ] = ""
    canopy: Annotated[
        Colour, shown("Colour, canopy", "Of the customer's picture, as #93A48E; empty for the usual")
    ] = ""  # fmt: skip
    tray: Annotated[
        Colour, shown("Colour, tray", "Of the customer's picture, as #93A48E; empty for the usual")
    ] = ""
    fronts: Annotated[
        Colour, shown("Colour, drawer fronts", "Of the customer's picture, as #93A48E; empty for the usual")
    ] = ""  # fmt: skip

    def of(self, role: str) -> str:
        """The colour of what is drawn in a role; empty for the usual one."""
        return {
            "cab": self.cab,
            "canopy": self.canopy,
            "tray": self.tray,
            "front": self.fronts,
        }.get(role, "")


class Body(Value, frozen=True, kw_only=True):
    """What is built on the chassis."""

    tray: Tray
    canopy: Canopy | None = None
    rooms: Annotated[tuple[Room, ...], Meta(max_length=12)] = ()
    racks: Annotated[tuple[Rack, ...], Meta(max_length=12)] = ()
    finish: Finish = Finish()
    rule: Annotated[Name, shown("Rule for sizes", "Width, height, rear overhang", quantity="rule")] = "ADR 43"  # fmt: skip

    def __post_init__(self) -> None:
        """Refuse a canopy whose walls are lower than the tub's, and ids used twice.

        Raises:
            ValueError: Names what to change.
        """
        if self.canopy is not None and self.canopy.base >= self.canopy.height:
            raise ValueError(
                "canopy.base is not lower than canopy.height; measure the tub's walls again"
            )
        ids = [b.id for b in self.tray.boxes]
        if len(set(ids)) != len(ids):
            raise ValueError("two boxes under the tray share an id; give each its own")
        ids = [d.id for d in self.doors()] + [b.id for b in self.bays()]
        ids += [r.id for r in self.rooms] + [r.id for r in self.racks]
        for one in ids:
            if ids.count(one) > 1:
                raise ValueError(
                    f"the id '{one}' stands twice among doors, bays, rooms and racks; give each its own"
                )
        walls = [r.id for r in self.racks if r.kind == "rear wall"]
        if walls and (self.canopy is None or self.canopy.kind == "cargo"):
            raise ValueError(
                f"rack {walls[0]}: a rear wall's rails lie on a canopy, and there is none"
            )

    def shells(self) -> tuple[Canopy, ...]:
        """Everything with doors and bays: the canopy, then the other rooms."""
        own = (self.canopy,) if self.canopy is not None else ()
        return (*own, *(r.shell for r in self.rooms))

    def doors(self) -> tuple[Door, ...]:
        """Every door, the canopy's first."""
        return tuple(d for shell in self.shells() for d in shell.doors)

    def bays(self) -> tuple[Bay, ...]:
        """Every bay, the canopy's first."""
        return tuple(b for shell in self.shells() for b in shell.bays)

    def path_of_door(self, key: str) -> str:
        """Where a door's value is in the job."""
        room = next((r for r in self.rooms if any(d.id == key for d in r.shell.doors)), None)
        return (
            f"body.canopy.doors.{key}"
            if room is None
            else f"body.rooms.{room.id}.shell.doors.{key}"
        )

    def path_of_bay(self, key: str) -> str:
        """Where a bay's value is in the job."""
        room = self.room_of(key)
        return (
            f"body.canopy.bays.{key}" if room is None else f"body.rooms.{room.id}.shell.bays.{key}"
        )

    def room(self, key: str) -> Room | None:
        """Find a room by its id."""
        return next((r for r in self.rooms if r.id == key), None)

    def room_of(self, bay: str) -> Room | None:
        """Find the room that a bay is in; none for the canopy's own."""
        return next((r for r in self.rooms if any(b.id == bay for b in r.shell.bays)), None)

    def rack(self, key: str) -> Rack | None:
        """Find a rack by its id."""
        return next((r for r in self.racks if r.id == key), None)
