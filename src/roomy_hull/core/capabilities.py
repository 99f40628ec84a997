"""Capabilities: what a thing with a place is to everybody else, so that nobody has to ask for its class."""

from typing import Literal

import msgspec

from roomy_hull.core.geometry.frames import Frame
from roomy_hull.core.geometry.motion import Piece, carried
from roomy_hull.core.services.bottles import Bottle

Role = Literal[
    "water", "pump", "tap", "water heater", "hose reel", "gas", "burner", "compressor", "air tank", "battery", "charger",
    "inverter", "power station", "fuse board", "switch panel", "outlet", "extinguisher", "first aid", "fridge", "kitchen",
    "bed", "fuel", "wheel", "lifted",
]  # fmt: skip
"""What a thing does for others: holds water, lets it out, burns gas, feeds what draws power, has people sleep in it …"""
Wanted = Literal["now", "each stop", "each camp", "rarely"]
"""How quickly something has to be at hand."""
PLUMBED: frozenset[Role] = frozenset({
    "water",
    "pump",
    "tap",
    "water heater",
    "hose reel",
    "gas",
    "burner",
    "compressor",
    "air tank",
})
"""Roles to which hoses and pipes lead."""
Point = tuple[float, float, float]


class Vessel(msgspec.Struct, frozen=True):
    """What holds water, in its owner's own directions.

    Attributes:
        litres: What it holds. [l]
        outlet: Where it runs out. [mm]
        hollow: The room inside its walls; nothing where it has none of its own, as a bladder. [mm]
        made: Whether it is welded here, and so pressure-tested.
    """

    litres: float
    outlet: Point
    hollow: Piece | None = None
    made: bool = True


class Held(msgspec.Struct, frozen=True):
    """By what a thing is held down, and to what.

    Attributes:
        by: Bolts that carry shear and pull; ties (tie-downs, straps) that only pull, at half a right angle, and so hold
            each way with half of them.
        count: How many; 0 where nothing holds it.
        size: Of a bolt: ``M8``.
        each: What a tie holds; 0 for bolts. [N]
        to: To what, in words.
        hung: Whether it hangs below what it is held to.
        least: So many it takes at least.
        what: What a tie is: ``tie-down``, ``strap``.
    """

    by: Literal["bolts", "ties"]
    count: int
    size: str = ""
    each: float = 0.0
    to: str = ""
    hung: bool = False
    least: int = 1
    what: str = ""

    @property
    def words(self) -> str:
        """By what, as one says it; empty where nothing holds it."""
        what = self.size if self.by == "bolts" else f"{self.what} of {self.each / 1000:.1f} kN"
        return f"{self.count} × {what}" if self.count else ""


class Capabilities(msgspec.Struct, frozen=True, kw_only=True):
    """What a thing is to everybody else.

    Attributes:
        roles: What it does for others.
        vessel: The water that it holds.
        bottle: The gas bottle that it holds.
        vents: Open area of the vents low to the outside of where that stands. [cm²]
        ignites: Whether it can ignite gas: contacts, relays, motors, flames.
        hurt_by_water: Whether water must not drip onto it.
        looked_at: Whether one looks there when something fails.
        whole: Whether a hand goes to it, not into it.
        cold: Whether its walls are insulated.
        door: What its own door takes of the depth inside. [mm]
        use: How quickly it has to be at hand by itself; empty where its goods say so.
        held: By what it is held down; nothing where nobody said.
        sealed: What of it keeps dust and water out, and is hosed: "every seal" and the like; empty for nothing.
        locks: How many locks it has, each with a key.
        stands: Whether what opens of it is set on the ground: posts, legs, a ladder.
        too_deep: What is let into it and reaches further back than there is room: its name, what it takes, what there
            is. [mm]
    """

    roles: frozenset[Role] = frozenset()
    vessel: Vessel | None = None
    bottle: Bottle | None = None
    vents: float = 0.0
    ignites: bool = False
    hurt_by_water: bool = False
    looked_at: bool = False
    whole: bool = False
    cold: bool = False
    door: float = 0.0
    use: Wanted | Literal[""] = ""
    held: Held | None = None
    sealed: str = ""
    stands: bool = False
    locks: int = 0
    too_deep: tuple[tuple[str, float, float], ...] = ()

    @property
    def plumbed(self) -> bool:
        """Whether hoses or pipes lead to it or from it."""
        return bool(self.roles & PLUMBED)


def placed(known: Capabilities, at: Frame) -> Capabilities:
    """What a thing is to everybody, its points carried into vehicle axes.

    Args:
        at: Its own corner and directions.
    """
    vessel = known.vessel
    if vessel is None:
        return known
    hollow = carried(at, vessel.hollow) if vessel.hollow is not None else None
    there = msgspec.structs.replace(vessel, outlet=at.point(*vessel.outlet), hollow=hollow)
    return msgspec.structs.replace(known, vessel=there)


PLAIN = Capabilities()
"""Nothing to anybody but a mass and a box."""
