"""The body: a tray, and at most one canopy with its doors and bays."""

from typing import Annotated, Literal

from msgspec import Meta

from roomy_hull.core.errors import InputError
from roomy_hull.core.mechanics.sections import section_area
from roomy_hull.core.value import BentSheet, Gap, Id, Kg, Mm, Name, PositiveMm, Thickness, Value

Access = Literal["left", "right", "rear"]
TRUNDLE = "tray.trundle"
"""The place that goods in the trundle drawer name."""


def _check_sections(owner: str, *sections: str) -> None:
    """Refuse bars whose section cannot be read, naming what they belong to."""
    try:
        for section in sections:
            section_area(section)
    except InputError as trouble:
        raise ValueError(f"{owner}: {trouble}") from None


class Arch(Value, frozen=True, kw_only=True):
    """A hump in the tray over a wheel, on one side or both, rising from the floor. [mm]"""

    start: Mm
    length: PositiveMm
    width: PositiveMm
    height: PositiveMm
    side: Literal["left", "right", "both"] = "both"


class UnderBox(Value, frozen=True, kw_only=True):
    """A toolbox hung under the tray's edge, ahead of the wheel or behind it. [mm]

    `gap` is its distance from the tray's front (ahead) or tail (behind); `depth` reaches inward.
    """

    id: Id
    name: Name = "Toolbox"
    side: Literal["left", "right"]
    place: Literal["ahead", "behind"]
    gap: Gap = 20.0
    length: PositiveMm
    height: PositiveMm
    depth: PositiveMm
    sheet: BentSheet = 2.0
    contents: Kg = 0.0

    @property
    def holder(self) -> str:
        """The place that goods in it name."""
        return f"tray.box-{self.id}"


class Trundle(Value, frozen=True, kw_only=True):
    """A long drawer under the tray, between the chassis rails, opening at the rear. [mm]"""

    length: PositiveMm
    width: PositiveMm
    height: PositiveMm
    sheet: BentSheet = 2.0
    contents: Kg = 0.0

    def __post_init__(self) -> None:
        """Refuse a drawer whose slides and sheets leave no box.

        Raises
        ------
        ValueError
            Says what is too small.
        """
        if self.width < 120 or self.height < 40:
            raise ValueError("trundle: slides and sheets leave no box; make it wider or higher")


class UnderTank(Value, frozen=True, kw_only=True):
    """A water tank under the tray, `start` behind the tray's front, between the rails. [mm]"""

    start: Gap = 100.0
    length: PositiveMm
    width: PositiveMm
    height: PositiveMm
    sheet: BentSheet = 2.0
    baffles: Annotated[int, Meta(ge=0, le=20)] = 2

    def __post_init__(self) -> None:
        """Refuse a tank whose sheets leave no room inside.

        Raises
        ------
        ValueError
            Says so.
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
    boards: Literal["sheet", "planks"] = "sheet"
    filler: bool = False
    false_floor: Gap = 0.0
    wings: Gap = 0.0
    mudguards: bool = True
    wheel_travel: Gap = 90.0
    rack: Gap = 0.0
    lift_points: Annotated[int, Meta(ge=0, le=8)] = 4
    boxes: Annotated[tuple[UnderBox, ...], Meta(max_length=8)] = ()
    trundle: Trundle | None = None
    tank: UnderTank | None = None
    gap: Gap = 50.0
    length: PositiveMm
    width: PositiveMm
    floor: Thickness = 4.0
    floor_material: str = "5083-H116"
    rail: str = "100x50x4"
    cross: str = "50x50x3"
    cross_spacing: Annotated[float, Meta(ge=50, le=5000, description="mm")] = 400.0
    bar_material: str = "6061-T6"
    headboard: Gap = 900.0
    sides: Gap = 0.0
    side_thickness: BentSheet = 3.0
    fittings: Kg = 0.0
    arches: Annotated[tuple[Arch, ...], Meta(max_length=8)] = ()

    def holders(self) -> dict[str, str]:
        """What hangs under it and holds goods: the place they name, and what it is called."""
        found = {b.holder: f"{b.name} {b.id}" for b in self.boxes}
        return found | ({TRUNDLE: "Trundle drawer"} if self.trundle is not None else {})

    def __post_init__(self) -> None:
        """Refuse bars whose section cannot be read.

        Raises
        ------
        ValueError
            Names the section.
        """
        _check_sections("tray", self.rail, self.cross)


class Strut(Value, frozen=True, kw_only=True):
    """A door's gas struts. [N, mm]

    `force` is one strut's when it is out, at 20 °C; pushed in it grows by the part `growth`. `body` is
    how far its fixed stud lies below the hinge, `inset` how far inward of the leaf; `leaf` how far its
    other stud lies from the hinge along the leaf.
    """

    force: Annotated[float, Meta(ge=1, le=5000, description="N")]
    count: Annotated[int, Meta(ge=1, le=4)] = 2
    body: PositiveMm
    leaf: PositiveMm
    inset: Gap = 25.0
    growth: Annotated[float, Meta(ge=0, le=1, description="0 to 1")] = 0.25


class Door(Value, frozen=True, kw_only=True):
    """A door; sizes of the clear opening from the canopy's front (left end at the rear) and floor. [mm]

    `split` is the height of a half that lets down from its lower edge; 0 for one flat door. `hinge` is
    the edge about which it turns (`start` and `end` are upright edges), `swing` how far. [degrees]
    """

    id: Id
    side: Access
    start: Gap
    length: PositiveMm
    sill: Gap = 0.0
    height: PositiveMm
    split: Gap = 0.0
    hinge: Literal["top", "bottom", "start", "end"] = "top"
    swing: Annotated[float, Meta(ge=1, le=270, description="degrees")] = 100.0
    strut: Strut | None = None

    def __post_init__(self) -> None:
        """Refuse struts that are fixed outside the leaf.

        Raises
        ------
        ValueError
            Names the door.
        """
        if self.strut is not None and self.strut.leaf > self.height:
            raise ValueError(f"door {self.id}: its strut's stud lies beyond the leaf's edge")


LEAST_PITCH = 5.0
"""No slots stand nearer than this. [mm]"""


class Bay(Value, frozen=True, kw_only=True):
    """A space for units: u aft along the wall (to the right at the rear), v inward, w up. [mm]

    `margin_…` say by how much the opening is smaller than the bay. `pitch` is the rail pitch;
    0 where there is no slotted rail.
    """

    id: Id
    name: Name
    side: Access
    start: Gap
    length: PositiveMm
    depth: PositiveMm
    sill: Gap = 0.0
    height: PositiveMm
    margin_start: Gap = 0.0
    margin_end: Gap = 0.0
    margin_bottom: Gap = 0.0
    margin_top: Gap = 0.0
    pitch: Gap = 25.0

    def __post_init__(self) -> None:
        """Refuse an opening without size.

        Raises
        ------
        ValueError
            The margins leave no opening.
        """
        if 0 < self.pitch < LEAST_PITCH:
            raise ValueError(
                f"bay {self.id}: pitch {self.pitch:g} is below {LEAST_PITCH:g}; 0 is for no slotted rail"
            )
        if self.margin_start + self.margin_end >= self.length:
            raise ValueError(f"bay {self.id}: margin_start and margin_end leave no opening")
        if self.margin_bottom + self.margin_top >= self.height:
            raise ValueError(f"bay {self.id}: margin_bottom and margin_top leave no opening")


LEAST_LEAF = 120.0
"""A door's leaf, or half of one, that is smaller has no room for two bars, a hinge and a lock. [mm]"""


class Canopy(Value, frozen=True, kw_only=True):
    """What stands on the floor and holds the bays. Outside sizes. [mm]

    A ``canopy`` is removable; a ``topper`` stands on a tub's walls, `base` high, which are the
    vehicle's own; a ``cargo`` space is a wagon's own and nothing of it is made. `insulation` lines
    the roof, `jacks` are four legs to stand it off on, `leg` how long these are drawn out at most, from the ground to
    their sockets' feet; 0 where nobody measured them.
    """

    kind: Literal["canopy", "topper", "cargo"] = "canopy"
    base: Gap = 0.0
    insulation: Gap = 0.0
    jacks: bool = False
    leg: Gap = 0.0
    name: Name = "Canopy"
    start: Gap = 0.0
    length: PositiveMm
    width: PositiveMm
    height: PositiveMm
    wall: Thickness = 35.0
    roof: Thickness = 30.0
    skin: BentSheet = 2.0
    skin_material: str = "5052-H32"
    frame: str = "25x25x3"
    frame_material: str = "6060-T5"
    divider: Gap = 2.0
    fittings: Kg = 0.0
    doors: Annotated[tuple[Door, ...], Meta(max_length=12)] = ()
    bays: Annotated[tuple[Bay, ...], Meta(max_length=24)] = ()

    def __post_init__(self) -> None:
        """Refuse doors wider than their wall and ids used twice.

        Raises
        ------
        ValueError
            A door does not fit its wall, the canopy has no room inside, an id stands twice, or a
            bar's section cannot be read.
        """
        _check_sections("canopy", self.frame)
        if 2 * self.wall >= min(self.width, self.length) or self.roof >= self.height:
            raise ValueError("the canopy's walls leave no room inside")
        for door in self.doors:
            wall = self.width if door.side == "rear" else self.length
            if door.start + door.length > wall:
                raise ValueError(
                    f"door {door.id}: start {door.start:g} + length {door.length:g} is more than "
                    f"its wall of {wall:g}; make the door shorter or the canopy longer"
                )
            if door.sill + door.height > self.height:
                raise ValueError(
                    f"door {door.id}: sill {door.sill:g} + height {door.height:g} is more than "
                    f"the canopy's height {self.height:g}"
                )
            if min(door.length, door.height) < LEAST_LEAF:
                raise ValueError(
                    f"door {door.id}: {door.length:g} × {door.height:g} holds no frame; "
                    f"make it {LEAST_LEAF:g} or more each way"
                )
            if door.split and not LEAST_LEAF <= door.split <= door.height - LEAST_LEAF:
                raise ValueError(
                    f"door {door.id}: split {door.split:g} leaves a half that holds no frame; make both "
                    f"halves {LEAST_LEAF:g} or higher, or the split 0 for one leaf"
                )
        ids = [d.id for d in self.doors] + [b.id for b in self.bays]
        for one in ids:
            if ids.count(one) > 1:
                raise ValueError(f"the id '{one}' stands twice among doors and bays")


class Body(Value, frozen=True, kw_only=True):
    """What is built on the chassis."""

    tray: Tray
    canopy: Canopy | None = None
    rule: Name = "ADR 43"

    def __post_init__(self) -> None:
        """Refuse a canopy whose walls are lower than the tub's, and ids used twice.

        Raises
        ------
        ValueError
            Names what to change.
        """
        if self.canopy is not None and self.canopy.base >= self.canopy.height:
            raise ValueError(
                "canopy.base is not lower than canopy.height; measure the tub's walls again"
            )
        ids = [b.id for b in self.tray.boxes]
        if len(set(ids)) != len(ids):
            raise ValueError("two boxes under the tray share an id; give each its own")
