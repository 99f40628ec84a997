"""Things carried outside the bays."""

from typing import Annotated, Literal

from msgspec import Meta

from roomy_hull.core.card import shown
from roomy_hull.core.refs import Ref
from roomy_hull.core.uncertainty import MassSource
from roomy_hull.core.value import Id, Kg, Mm, Name, PositiveKg, PositiveMm, Value
from roomy_hull.kinds.placed import BoltSize

Mount = Literal["vehicle", "tray", "canopy"]
HUNG = ("awning", "shower tent", "spare wheel", "jerry")
"""What turns or comes out at a hand."""


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
    name: Annotated[Name, shown("Name", "What the workshop calls it")]
    kind: CarriedKind = "load"
    x: Annotated[Mm, shown("Aft of front axle", "Its middle")]
    y: Annotated[Mm, shown("Right of centre", "Its middle; left is negative")] = 0.0
    z: Annotated[Mm, shown("Above ground", "Its underside")]
    length: Annotated[PositiveMm, shown("Length", "Along the vehicle")]
    width: Annotated[PositiveMm, shown("Width", "Across the vehicle")]
    height: Annotated[PositiveMm, shown("Height")]
    mass: Annotated[Kg, shown("Mass", "Empty")]
    mass_source: MassSource = "data sheet"
    contents: Annotated[Kg, shown("Contents", "Scales with the scenario")] = 0.0
    mount: Annotated[Mount, shown("Stays with", "With what it comes off")] = "tray"
    on_roof: Annotated[bool, shown("On the roof", "Counts against the roof rating")] = False
    side: Annotated[
        Literal["left", "right", "rear"],
        shown(
            "Opens to the",
            "Or hangs on this side",
            when=lambda c: c.kind in ("tent", "awning", "shower tent"),
        ),
    ] = "rear"
    hand: Annotated[
        Literal["left", "right"],
        shown(
            "Hand", "The end about which it turns, as one faces it", when=lambda c: c.kind in HUNG
        ),
    ] = "left"
    reach: Annotated[
        float,
        Meta(ge=0, le=4000, description="mm"),
        shown(
            "Comes out by",
            when=lambda c: c.kind in HUNG,
            said=lambda c: (
                "Comes out by" if c.kind in ("awning", "shower tent") else "Beside its post"
            ),
        ),
    ] = 0.0
    turn: Annotated[
        float,
        Meta(ge=0, le=360, description="degrees"),
        shown("Turns by, degrees", "0 for not at all", when=lambda c: c.kind in HUNG),
    ] = 0.0
    legs: Annotated[bool, shown("On posts or a ladder", when=lambda c: c.kind in ("tent", "awning"))] = True  # fmt: skip
    place: CarriedPlace = ""
    on: Annotated[
        str, Meta(max_length=60), shown("Fixed to", "A rack or rear wall, at its pitch; empty for none", quantity="rack")
    ] = ""  # fmt: skip
    bolts: Annotated[
        int, Meta(ge=0, le=24), shown("Bolts", "That hold it; 0 for as many as its kind usually has")
    ] = 0  # fmt: skip
    bolt: Annotated[BoltSize, shown("Bolt size", "Stainless A2-70", when=lambda c: c.bolts > 0)] = "M8"  # fmt: skip
    straps: Annotated[int, Meta(ge=0, le=12), shown("Straps", "That hold it instead of bolts")] = 0
    strap: Annotated[
        PositiveKg, shown("Each strap holds", "Its lashing capacity", when=lambda c: c.straps > 0)
    ] = 250.0  # fmt: skip

    @property
    def ref(self) -> Ref:
        """What its masses and findings belong to."""
        return Ref("carried", self.id)
