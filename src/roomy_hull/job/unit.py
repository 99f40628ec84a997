"""Units in bays, and carried items outside them."""

from typing import Annotated, Literal

from msgspec import Meta

from roomy_hull.core.doubt import Source
from roomy_hull.job.value import (
    Gap,
    Id,
    Kg,
    Litres,
    Mm,
    Name,
    PositiveKg,
    PositiveMm,
    Thickness,
    Value,
)

ClassOfUse = Literal["now", "each stop", "each camp", "rarely"]
BoltSize = Literal["M6", "M8", "M10", "M12", "M16"]


class Placed(Value, frozen=True, kw_only=True):
    """What every unit has: a bay, a place in it (u along, v inward, w up), a size, contents. [mm]

    `width` lies along u, `depth` along v, `height` along w, all outside sizes. `bolts` hold it to the
    rails or the floor.
    """

    id: Id
    name: Name
    bay: Id
    u: Mm = 0.0
    v: Mm = 0.0
    w: Mm = 0.0
    width: PositiveMm
    depth: PositiveMm
    height: PositiveMm
    contents: Kg = 0.0
    contents_source: Source = "estimate"
    bolt: BoltSize = "M8"
    bolts: Annotated[int, Meta(ge=0, le=24)] = 4
    note: Annotated[str, Meta(max_length=2000)] = ""


SlideStyle = Literal["plain", "drop"]


class Drawer(Placed, frozen=True, kw_only=True, tag_field="kind", tag="drawer"):
    """A made drawer on a pair of slides in a folded carcass that bolts to the rails.

    `table` is a board that pulls out above the box; `lockable` a lock with a key in the front.
    """

    carcass: Thickness = 2.0
    sheet: Thickness = 1.6
    front: Thickness = 3.0
    slide: Thickness = 19.0
    slide_rating: PositiveKg = 110.0
    slide_mass: Kg = 4.2
    locks: bool = True
    lockable: bool = False
    table: bool = False
    material: str = "5052-H32"


class Stack(Placed, frozen=True, kw_only=True, tag_field="kind", tag="stack"):
    """Drawers one above another in one carcass; `heights` are their fronts', from the lowest up. [mm]"""

    heights: Annotated[tuple[PositiveMm, ...], Meta(min_length=2, max_length=8)]
    carcass: Thickness = 2.0
    sheet: Thickness = 1.6
    front: Thickness = 3.0
    slide: Thickness = 19.0
    slide_rating: PositiveKg = 110.0
    slide_mass: Kg = 4.2
    locks: bool = True
    lockable: bool = False
    material: str = "5052-H32"

    def __post_init__(self) -> None:
        """Refuse fronts that are higher together than the stack.

        Raises
        ------
        ValueError
            Says by how much.
        """
        over = sum(self.heights) - self.height
        if over > 0.01:
            raise ValueError(f"stack {self.id}: its fronts are {over:g} mm higher than its height")


class Fridge(Placed, frozen=True, kw_only=True, tag_field="kind", tag="fridge"):
    """A bought fridge: a chest on a slide, an upright with a door, or a drawer fridge.

    `height` is over slide and lid. `hinge` is where lid or door turns, seen from the access face;
    `slide_style` drop lowers the chest by `drop` once it is out.
    """

    style: Literal["chest", "upright", "drawer"] = "chest"
    slide_style: SlideStyle = "plain"
    drop: Gap = 350.0
    hinge: Literal["back", "left", "right"] = "left"
    litres: Litres = 60.0
    mass: PositiveKg = 24.0
    mass_source: Source = "data sheet"
    slide_height: Gap = 50.0
    slide_mass: Kg = 17.0
    slide_rating: PositiveKg = 150.0
    vent: Gap = 40.0
    vent_side: Literal["back", "left", "right"] = "back"
    lid_gap: Gap = 10.0
    locks: bool = True


class Slide(Placed, frozen=True, kw_only=True, tag_field="kind", tag="slide"):
    """A bought slide with a platform for whatever stands on it; `height` is the room kept over it all.

    A drop slide lowers its load by `drop` once it is out.
    """

    style: SlideStyle = "plain"
    drop: Gap = 350.0
    slide_height: Gap = 50.0
    slide_mass: Kg = 17.0
    slide_rating: PositiveKg = 150.0
    locks: bool = True


class Shelf(Placed, frozen=True, kw_only=True, tag_field="kind", tag="shelf"):
    """A folded shelf with a lip in front; `height` is the space kept above it. `slides` makes it pull out."""

    sheet: Thickness = 2.0
    lip: Gap = 40.0
    flange: Gap = 25.0
    slides: bool = False
    slide_rating: PositiveKg = 60.0
    slide_mass: Kg = 2.6
    locks: bool = True
    material: str = "5052-H32"


class Pocket(Placed, frozen=True, kw_only=True, tag_field="kind", tag="pocket"):
    """An open folded box with a low front, for what is wanted without opening anything."""

    sheet: Thickness = 1.6
    lip: Gap = 90.0
    material: str = "5052-H32"


class Partition(Placed, frozen=True, kw_only=True, tag_field="kind", tag="partition"):
    """An upright wall; `width` is over its flanges. `rail` adds a tie-down rail along its top."""

    sheet: Thickness = 2.0
    rail: bool = True
    material: str = "5052-H32"


class Pantry(Placed, frozen=True, kw_only=True, tag_field="kind", tag="pantry"):
    """A tall narrow pull-out with baskets, reached from both sides when it is out."""

    baskets: Annotated[int, Meta(ge=1, le=8)] = 3
    sheet: Thickness = 1.6
    front: Thickness = 3.0
    slide_rating: PositiveKg = 60.0
    slide_mass: Kg = 3.4
    locks: bool = True
    material: str = "5052-H32"


class Table(Placed, frozen=True, kw_only=True, tag_field="kind", tag="table"):
    """A table that pulls out, or that folds down from upright about its lower edge."""

    style: Literal["pull-out", "fold-down"] = "pull-out"
    sheet: Thickness = 3.0
    slide_mass: Kg = 2.2
    locks: bool = True
    material: str = "5052-H32"


class Kitchen(Placed, frozen=True, kw_only=True, tag_field="kind", tag="kitchen"):
    """A galley that pulls out, drops down from upright, or lies flush in a bench under its lid.

    The pull-out one has a worktop folding out on each side, `leaf_left` and `leaf_right` wide.
    """

    style: Literal["pull-out", "drop-down", "flush"] = "pull-out"
    leaf_left: Gap = 350.0
    leaf_right: Gap = 350.0
    cooker: Literal["none", "burner", "induction"] = "burner"
    sink: bool = True
    tap: bool = True
    oven: bool = False
    spice_rack: bool = True
    cutlery: bool = True
    sheet: Thickness = 1.6
    front: Thickness = 3.0
    slide_rating: PositiveKg = 110.0
    slide_mass: Kg = 7.5
    locks: bool = True
    material: str = "5052-H32"


class FalseFloor(Placed, frozen=True, kw_only=True, tag_field="kind", tag="false floor"):
    """A raised floor with hatches over dead space; batteries and fuses often go under it."""

    board: Thickness = 12.0
    hatches: Annotated[int, Meta(ge=0, le=6)] = 2
    material: str = "birch ply"


class Wing(Placed, frozen=True, kw_only=True, tag_field="kind", tag="wing"):
    """The box beside the drawers, over or around a wheel arch, with a lid on top."""

    board: Thickness = 12.0
    hinge: Literal["left", "right"] = "left"
    material: str = "birch ply"


class Compartment(Placed, frozen=True, kw_only=True, tag_field="kind", tag="compartment"):
    """Room for a dog or for crew gear behind a mesh door; `vents` is the open area of its air vents. [cm²]"""

    use: Literal["dog", "crew"] = "dog"
    vents: Annotated[float, Meta(ge=0, le=20000, description="cm²")] = 600.0
    hinge: Literal["left", "right"] = "left"
    sheet: Thickness = 2.0
    material: str = "5052-H32"


DeviceKind = Literal[
    "battery", "charger", "inverter", "fuse board", "switch panel", "outlet", "pump",
    "water heater", "extinguisher", "first aid", "compressor", "air tank", "hose reel",
]  # fmt: skip


class Device(Placed, frozen=True, kw_only=True, tag_field="kind", tag="device"):
    """A bought thing that does not move. `service` is the room in front of it, `vent` that around it."""

    what: DeviceKind
    mass: PositiveKg
    mass_source: Source = "data sheet"
    service: Gap = 0.0
    vent: Gap = 0.0
    use: ClassOfUse = "rarely"


class GasLocker(Placed, frozen=True, kw_only=True, tag_field="kind", tag="gas locker"):
    """The place of a gas bottle: sealed from the inside, vented low to the outside, its own door."""

    bottle: Literal["2 kg", "4.5 kg", "9 kg"] = "4.5 kg"
    hinge: Literal["left", "right"] = "left"
    sheet: Thickness = 2.0
    material: str = "5052-H32"


class CaseRack(Placed, frozen=True, kw_only=True, tag_field="kind", tag="case rack"):
    """A rack for equal cases, so many across and up; they pull out over low stops. [mm]"""

    case_width: PositiveMm = 300.0
    case_depth: PositiveMm = 400.0
    case_height: PositiveMm = 220.0
    across: Annotated[int, Meta(ge=1, le=8)] = 2
    up: Annotated[int, Meta(ge=1, le=8)] = 1
    play: Gap = 6.0
    sheet: Thickness = 2.0
    material: str = "5052-H32"

    def __post_init__(self) -> None:
        """Refuse a rack that its cases do not fit into.

        Raises
        ------
        ValueError
            Says which size is short and what it has to be.
        """
        for name, have, want in self.needs():
            if have < want - 0.01:
                raise ValueError(
                    f"case rack {self.id}: {name} {have:g} does not take the cases; it wants {want:g}"
                )

    def needs(self) -> tuple[tuple[str, float, float], ...]:
        """Give each outside size beside what the cases want, with play and sheets. [mm]"""
        t = self.sheet
        return (
            (
                "width",
                self.width,
                self.across * (self.case_width + self.play) + (self.across + 1) * t,
            ),
            ("depth", self.depth, self.case_depth + self.play + t),
            ("height", self.height, self.up * (self.case_height + self.play + t)),
        )


class Tube(Placed, frozen=True, kw_only=True, tag_field="kind", tag="tube"):
    """A tube or slot for long things; they are drawn out at the access face. `width` is its diameter."""

    reach: Gap = 0.0
    sheet: Thickness = 2.0
    material: str = "5052-H32"


class Tank(Placed, frozen=True, kw_only=True, tag_field="kind", tag="tank"):
    """Water: a welded box or wedge, a bladder in a tray, or loose cans; outside sizes.

    A wedge is `height` high at the back and `low` at the front; `cans` stand side by side.
    """

    style: Literal["box", "wedge", "bladder", "cans"] = "box"
    low: Gap = 150.0
    cans: Annotated[int, Meta(ge=1, le=8)] = 2
    sheet: Thickness = 2.0
    baffles: Annotated[int, Meta(ge=0, le=20)] = 2
    material: str = "5052-H32"
    inlet: Gap = 38.0


class Block(Value, frozen=True, kw_only=True):
    """A box of a user's own unit, from the unit's corner. [mm]"""

    u: Mm
    v: Mm
    w: Mm
    width: PositiveMm
    depth: PositiveMm
    height: PositiveMm
    role: Literal["made", "bought", "front", "space"] = "made"
    moves: bool = False


class Own(Placed, frozen=True, kw_only=True, tag_field="kind", tag="own"):
    """A unit of the user's own, made from boxes.

    What moves slides out by `travel`, then turns by `turn` degrees about an upright line at its left or
    right front edge.
    """

    blocks: Annotated[tuple[Block, ...], Meta(min_length=1, max_length=200)]
    mass: Kg = 0.0
    mass_source: Source = "estimate"
    travel: Gap = 0.0
    turn: Annotated[float, Meta(ge=0, le=360, description="degrees")] = 0.0
    hinge: Literal["left", "right"] = "left"
    locks: bool = True

    def __post_init__(self) -> None:
        """Refuse boxes outside the unit's own size.

        Raises
        ------
        ValueError
            Names the box and the side.
        """
        for n, b in enumerate(self.blocks, 1):
            for name, at, size, room in (
                ("u", b.u, b.width, self.width),
                ("v", b.v, b.depth, self.depth),
                ("w", b.w, b.height, self.height),
            ):
                if at < -0.01 or at + size > room + 0.01:
                    raise ValueError(
                        f"own unit {self.id}: box {n} stands out of the unit along {name} "
                        f"({at:g} + {size:g}, room 0 to {room:g})"
                    )


Unit = (
    Drawer | Stack | Fridge | Slide | Shelf | Pocket | Partition | Pantry | Table | Kitchen | FalseFloor
    | Wing | Compartment | Device | GasLocker | CaseRack | Tube | Tank | Own
)  # fmt: skip

Mount = Literal["vehicle", "tray", "canopy"]


CarriedKind = Literal[
    "spare wheel", "jerry", "tent", "load", "awning", "shower tent", "ladder", "light bar", "aerial",
    "recovery boards",
]  # fmt: skip


class Carried(Value, frozen=True, kw_only=True):
    """A thing outside the bays: its centre line at x and y, its underside at z. [mm]

    `mount` says with what it stays: a thing on the canopy is gone when the canopy is. `side` is where a
    thing on the wall hangs or which way a tent or awning opens, `hand` the end on which a bracket,
    carrier or awning turns as one faces it, `reach` how far it comes out, `turn` by how many degrees it
    swings (0: it does not), `legs` whether it stands on its own.
    """

    id: Id
    name: Name
    kind: CarriedKind = "load"
    x: Mm
    y: Mm = 0.0
    z: Mm
    length: PositiveMm
    width: PositiveMm
    height: PositiveMm
    mass: Kg
    mass_source: Source = "data sheet"
    contents: Kg = 0.0
    mount: Mount = "tray"
    on_roof: bool = False
    side: Literal["left", "right", "rear"] = "rear"
    hand: Literal["left", "right"] = "left"
    reach: Annotated[float, Meta(ge=0, le=4000, description="mm")] = 0.0
    turn: Annotated[float, Meta(ge=0, le=360, description="degrees")] = 0.0
    legs: bool = True
