"""Things carried outside the bays."""

from typing import Annotated, Literal

from msgspec import Meta

from roomy_hull.core.refs import Ref
from roomy_hull.core.uncertainty import Source
from roomy_hull.core.value import Id, Kg, Mm, Name, PositiveMm, Value

Mount = Literal["vehicle", "tray", "canopy"]


CarriedPlace = Literal["", "bonnet", "cab", "tub", "cargo", "roof", "under"]
CarriedKind = Literal[
    "spare wheel", "jerry", "tent", "load", "awning", "shower tent", "ladder", "light bar", "aerial",
    "recovery boards", "bull bar", "winch", "steps", "battery", "hitch", "snorkel", "table", "bag", "pole",
]  # fmt: skip


class Carried(Value, frozen=True, kw_only=True):
    """A thing outside the bays: its centre line at x and y, its underside at z. [mm]

    `mount` says with what it stays: a thing on the canopy is gone when the canopy is. `side` is where a
    thing on the wall hangs or which way a tent or awning opens, `hand` the end on which a bracket,
    carrier or awning turns as one faces it, `reach` how far it comes out, `turn` by how many degrees it
    swings (0: it does not), `legs` whether it stands on its own. `place` says in or on what it is carried and
    holds it to that room's bounds; empty where that follows from where it is. `on` names the rack or
    rear wall that it is fixed to, at that one's pitch.
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
    place: CarriedPlace = ""
    on: Annotated[str, Meta(max_length=60)] = ""

    @property
    def ref(self) -> Ref:
        """What its masses and findings belong to."""
        return Ref("carried", self.id)
