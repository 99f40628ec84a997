"""What every unit has: a bay, a place in it, a size, contents, bolts."""

from typing import Annotated, Literal

from msgspec import Meta

from roomy_hull.core.refs import Ref
from roomy_hull.core.uncertainty import Source
from roomy_hull.core.value import Id, Kg, Mm, Name, PositiveMm, Value

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

    @property
    def ref(self) -> Ref:
        """What its parts, masses and findings belong to."""
        return Ref("unit", self.id)


SlideStyle = Literal["plain", "drop"]
