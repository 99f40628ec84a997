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


class Placed(Value, frozen=True, kw_only=True):
    """What every unit has: a bay, a place in it (u along, v inward, w up), a size, contents. [mm]

    `width` lies along u, `depth` along v, `height` along w, all outside sizes.
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
    note: Annotated[str, Meta(max_length=2000)] = ""


class Drawer(Placed, frozen=True, kw_only=True, tag_field="kind", tag="drawer"):
    """A made drawer on a pair of slides in a folded carcass that bolts to the rails."""

    carcass: Thickness = 2.0
    sheet: Thickness = 1.6
    front: Thickness = 3.0
    slide: Thickness = 19.0
    slide_rating: PositiveKg = 110.0
    slide_mass: Kg = 4.2
    locks: bool = True
    material: str = "5052-H32"


class Fridge(Placed, frozen=True, kw_only=True, tag_field="kind", tag="fridge"):
    """A bought chest fridge on a bought slide; `height` is over slide and lid."""

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


class Shelf(Placed, frozen=True, kw_only=True, tag_field="kind", tag="shelf"):
    """A folded shelf with a lip in front; `height` is the space kept above it, lip and all."""

    sheet: Thickness = 2.0
    lip: Gap = 40.0
    flange: Gap = 25.0
    material: str = "5052-H32"


class Tank(Placed, frozen=True, kw_only=True, tag_field="kind", tag="tank"):
    """A welded water tank; outside sizes."""

    sheet: Thickness = 2.0
    baffles: Annotated[int, Meta(ge=0, le=20)] = 2
    material: str = "5052-H32"
    inlet: Gap = 38.0


Unit = Drawer | Fridge | Shelf | Tank

Mount = Literal["vehicle", "tray", "canopy"]


class Carried(Value, frozen=True, kw_only=True):
    """A thing outside the bays: its centre line at x and y, its underside at z. [mm]

    `mount` says with what it stays: a thing on the canopy is gone when the canopy is.
    """

    id: Id
    name: Name
    kind: Literal["spare wheel", "jerry", "tent", "load"] = "load"
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
