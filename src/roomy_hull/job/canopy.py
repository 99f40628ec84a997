"""The canopy with its doors and bays; a topper, a cargo space and every other box with doors is one too."""

from typing import Annotated, Literal

from msgspec import Meta

from roomy_hull.core.card import shown
from roomy_hull.core.errors import InputError
from roomy_hull.core.mechanics.sections import section_area
from roomy_hull.core.value import BentSheet, Gap, Id, Kg, Name, PositiveMm, Thickness, Value

Access = Literal["left", "right", "rear"]


def check_sections(owner: str, *sections: str) -> None:
    """Refuse bars whose section cannot be read.

    Args:
        *sections: Such as ``25x25x3``.
    Raises:
        ValueError: Names owner and section.
    """
    try:
        for section in sections:
            section_area(section)
    except InputError as trouble:
        raise ValueError(f"{owner}: {trouble}") from None


class Strut(Value, frozen=True, kw_only=True):
    """A door's gas struts. [N, mm]

    `force` is one strut's when it is out, at 20 °C; pushed in it grows by the part `growth`. `body` is
    how far its fixed stud lies below the hinge, `inset` how far inward of the leaf; `leaf` how far its
    other stud lies from the hinge along the leaf.
    """

    force: Annotated[float, Meta(ge=1, le=5000, description="N"), shown("Strut", "N of one when out, at 20 °C")]  # fmt: skip
    count: Annotated[int, Meta(ge=1, le=4)] = 2
    body: Annotated[PositiveMm, shown("… fixed under the hinge", "Its stud on the body")]
    leaf: Annotated[PositiveMm, shown("… along the leaf", "Its stud on the leaf, from the hinge")]
    inset: Gap = 25.0
    growth: Annotated[float, Meta(ge=0, le=1, description="0 to 1")] = 0.25


class Door(Value, frozen=True, kw_only=True):
    """A door; sizes of the clear opening from the canopy's front (left end at the rear) and floor. [mm]

    `split` is the height of a half that lets down from its lower edge; 0 for one flat door. `hinge` is
    the edge about which it turns (`start` and `end` are upright edges), `swing` how far. [degrees] `leaf` is
    of sheet, or a frame with mesh; `second` is another leaf kept for the same opening.
    """

    id: Id
    side: Access
    start: Annotated[Gap, shown("Start")]
    length: Annotated[PositiveMm, shown("Length")]
    sill: Annotated[Gap, shown("Sill")] = 0.0
    height: Annotated[PositiveMm, shown("Height")]
    split: Annotated[Gap, shown("Let-down", "0 for one leaf")] = 0.0
    hinge: Annotated[
        Literal["top", "bottom", "start", "end"], shown("Hinge", "start and end are upright")
    ] = "top"
    swing: Annotated[float, Meta(ge=1, le=270, description="degrees")] = 100.0
    strut: Strut | None = None
    leaf: Annotated[Literal["sheet", "mesh"], shown("Leaf", "Of sheet, or a frame with mesh")] = "sheet"  # fmt: skip
    second: Annotated[
        Literal["", "sheet", "mesh"], shown("Second leaf", "Another one kept for this opening")
    ] = ""

    def __post_init__(self) -> None:
        """Refuse struts that are fixed outside the leaf.

        Raises:
            ValueError: Names the door.
        """
        if self.strut is not None and self.strut.leaf > self.height:
            raise ValueError(f"door {self.id}: its strut's stud lies beyond the leaf's edge")
        if self.second == self.leaf:
            raise ValueError(
                f"door {self.id}: its second leaf is as its first; make one of them of mesh, or leave the second out"
            )


Face = Literal["left", "right", "rear", "top", "under", "inside"]
LEAST_PITCH = 5.0
"""No slots stand nearer than this. [mm]"""


class Bay(Value, frozen=True, kw_only=True):
    """A space for units: u aft along the wall (to the right at the rear), v inward, w up. [mm]

    `margin_…` say by how much the opening is smaller than the bay. `pitch` is the rail pitch;
    0 where there is no slotted rail. `also` are further faces at which it is reached: a window of a topper, a lid,
    a hatch from below, from inside the cab.
    """

    id: Id
    name: Name
    side: Access
    start: Annotated[Gap, shown("Start")]
    length: Annotated[PositiveMm, shown("Length")]
    depth: Annotated[PositiveMm, shown("Depth")]
    sill: Annotated[Gap, shown("Sill")] = 0.0
    height: Annotated[PositiveMm, shown("Height")]
    margin_start: Gap = 0.0
    margin_end: Gap = 0.0
    margin_bottom: Gap = 0.0
    margin_top: Gap = 0.0
    pitch: Annotated[Gap, shown("Pitch", "Of its slotted rails; 0 for none")] = 25.0
    also: Annotated[
        tuple[Face, ...],
        Meta(max_length=5),
        shown("Also from", "Further faces: left right rear top under inside, spaces between"),
    ] = ()

    def __post_init__(self) -> None:
        """Refuse an opening without size.

        Raises:
            ValueError: The margins leave no opening.
        """
        if self.side in self.also or len(set(self.also)) != len(self.also):
            raise ValueError(f"bay {self.id}: a face is named twice; name each once")
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
    the roof, `jacks` are four legs to stand it off on, `leg_out` how far beyond its corners, `leg` how long these are
    drawn out at most, from the ground to their sockets' feet; 0 where nobody measured them.
    """

    kind: Literal["canopy", "topper", "cargo"] = "canopy"
    base: Gap = 0.0
    name: Annotated[Name, shown("Name")] = "Canopy"
    start: Annotated[Gap, shown("Starts", "Behind the tray's front")] = 0.0
    length: Annotated[PositiveMm, shown("Length", "Doors and bays go along")]
    width: Annotated[PositiveMm, shown("Width", "Bays go along")]
    height: Annotated[PositiveMm, shown("Height", "Doors and bays go along")]
    wall: Annotated[Thickness, shown("Wall", "Frame and lining")] = 35.0
    roof: Annotated[Thickness, shown("Roof", "Frame and lining")] = 30.0
    skin: Annotated[BentSheet, shown("Skin sheet")] = 2.0
    skin_material: str = "5052-H32"
    frame: str = "25x25x3"
    frame_material: str = "6060-T5"
    divider: Gap = 2.0
    insulation: Annotated[Gap, shown("Roof insulation", "0 for none; 25 mm is common")] = 0.0
    jacks: Annotated[bool, shown("Jack legs", "Four, to stand it off on. Never work under it")] = False  # fmt: skip
    leg: Gap = 0.0
    leg_out: Annotated[
        Gap,
        shown("Legs stand out by", "Their brackets, beyond the corners", when=lambda c: c.jacks),
    ] = 0.0
    fittings: Annotated[Kg, shown("Seals, locks, struts", "What is not drawn")] = 0.0
    doors: Annotated[tuple[Door, ...], Meta(max_length=12)] = ()
    bays: Annotated[tuple[Bay, ...], Meta(max_length=24)] = ()

    def __post_init__(self) -> None:
        """Refuse doors wider than their wall and ids used twice.

        Raises:
            ValueError: A door does not fit its wall, the canopy has no room inside, an id stands twice, or a bar's
                section cannot be read.
        """
        check_sections("canopy", self.frame)
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
