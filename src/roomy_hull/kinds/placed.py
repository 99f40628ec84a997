"""What every unit has: a bay, a place in it, a size, contents, bolts."""

from typing import Annotated, Literal

from msgspec import Meta

from roomy_hull.core.capabilities import Wanted
from roomy_hull.core.card import shown
from roomy_hull.core.refs import Ref
from roomy_hull.core.uncertainty import Source
from roomy_hull.core.value import Id, Kg, Mm, Name, PositiveKg, PositiveMm, Sheet, Thickness, Value

ClassOfUse = Wanted


BoltSize = Literal["M6", "M8", "M10", "M12", "M16"]

SheetMaterial = Annotated[
    str, shown("Sheet material", "Decides mass and bends", quantity="material")
]
Locks = Annotated[bool, shown("Slides lock out", "A drawer without a lock rolls back on a slope")]
SlideRating = Annotated[PositiveKg, shown("Slide rating", "Of the pair, from its data sheet")]
SlideMass = Annotated[Kg, shown("Slides' mass", "Of the pair; 0 takes it from length and rating")]
HingeSide = Annotated[Literal["left", "right"], shown("Hinge", "As one faces it")]
FrontSheet = Annotated[Thickness, shown("Front sheet")]
PlainSheet = Annotated[Sheet, shown("Sheet")]


class Placed(Value, frozen=True, kw_only=True):
    """What every unit has: a bay, a place in it (u along, v inward, w up), a size, contents. [mm]

    `width` lies along u, `depth` along v, `height` along w, all outside sizes. `bolts` hold it to the
    rails or the floor.
    """

    id: Id
    name: Annotated[Name, shown("Name", "What the workshop calls it")]
    bay: Id
    u: Annotated[Mm, shown("Position along", "From the bay's front end (left end at the rear)")] = 0.0  # fmt: skip
    v: Annotated[Mm, shown("Position in depth", "How far its face stands behind the access face")] = 0.0  # fmt: skip
    w: Annotated[Mm, shown("Position in height", "Above the bay's floor")] = 0.0
    width: Annotated[PositiveMm, shown("Width", "Outside, along the wall")]
    depth: Annotated[PositiveMm, shown("Depth", "Outside, inward from the access face")]
    height: Annotated[PositiveMm, shown("Height", "Outside")]
    contents: Annotated[Kg, shown("Contents", "What goes in it, when full")] = 0.0
    contents_source: Annotated[
        Source, shown("Contents known by", "Weighed ±0.5 %, data sheet ±3 %, geometry ±5 %, estimate ±15 %")
    ] = "estimate"  # fmt: skip
    bolt: Annotated[BoltSize, shown("Bolt size", "Stainless A2-70 is assumed")] = "M8"
    bolts: Annotated[int, Meta(ge=0, le=24), shown("Bolts", "That hold it in braking and on bumps")] = 4  # fmt: skip
    note: Annotated[str, Meta(max_length=2000), shown("Note", "For the workshop")] = ""

    @property
    def ref(self) -> Ref:
        """What its parts, masses and findings belong to."""
        return Ref("unit", self.id)


SlideStyle = Literal["plain", "drop"]
