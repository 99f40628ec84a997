"""Instance: what has to go where, in cells and figures."""

import math
from typing import NamedTuple

import msgspec
import numpy as np
from numpy.typing import NDArray

from roomy_hull.kinds.kind import Stance
from roomy_hull.studies.fit.free_space import FreeSpace

Floats = NDArray[np.float64]


Ints = NDArray[np.int64]


PARTS = ("axle", "balance", "low", "reach", "runs", "room")
"""What is weighed, in the order in which it is shown."""


POINTS: dict[str, float] = {
    "axle": 1.0,
    "balance": 0.5,
    "low": 0.3,
    "reach": 1.0,
    "runs": 1.0,
    "room": 0.02,
}
"""Points of one kg on the axle, one kg between the sides, one kg·m of height, 100 mm out of reach at use 1, one m of run
at weight 1, one mm of free wall. Set by judgement: a point is worth a kg on the axle."""


CARRIER = 12.0
"""What stands on something may be so far above it, for running gaps. [mm]"""


class Weights(NamedTuple):
    """How much each part counts, as a multiple of its usual points; 0 for not at all."""

    axle: float = 1.0
    balance: float = 1.0
    low: float = 1.0
    reach: float = 1.0
    runs: float = 1.0
    room: float = 1.0

    def points(self) -> dict[str, float]:
        """Points for one unit of each part."""
        return {name: getattr(self, name) * POINTS[name] for name in PARTS}


class Spot(msgspec.Struct, frozen=True):
    """A unit in one bay at u = w = 0: its centre of mass and the middle of its box in vehicle axes. [mm]

    `free` are the places open to it beside what stays, at the depth `v`; `feet` are heights at which it needs no unit
    under it: height and the stretches of u in which something is under both its ends.
    """

    x: float
    y: float
    z: float
    middle: float
    free: FreeSpace
    v: float = 0.0
    feet: tuple[tuple[int, tuple[tuple[float, float], ...]], ...] = ()

    def stands(self, u: float, level: float) -> bool:
        """Whether it needs no unit under it there. [mm]"""
        return any(
            at == level and any(a - 0.1 <= u <= b + 0.1 for a, b in stretches)
            for at, stretches in self.feet
        )


class Form(NamedTuple):
    """A unit by itself, or with others behind it that are shallow enough: index of its item, and of theirs.

    `bays` are those that are deep enough for it; all where empty.
    """

    item: int
    riders: tuple[int, ...] = ()
    bays: tuple[int, ...] = ()


class Item(msgspec.Struct, frozen=True):
    """Something to be placed, or the same unit behind another one.

    Attributes:
        id, name: As in the job.
        width, height: Outside. [mm]
        cells, shift: How many cells its block takes, and how far inside the block it begins. [1, mm]
        above, below: What has to stay clear over it, and under it where something stands there. [mm]
        kg: In the scenario that is weighed. [kg]
        stance: ``floor``, ``rest`` (on the floor or on a unit under both ends) or ``hang`` (at any height).
        carries: Whether something may rest on it.
        use: How much its reach counts.
        band: Heights between which its middle is at hand, above ground. [mm]
        spots: One for each bay; none where it may not go.
        hooks: Heights worth hanging it at, besides on what is below. [mm]
        unit: Which unit it is; below 0 for its own place in the list.
        depth, front, back: Outside, and what has to stay clear before and behind it. [mm]
    """

    id: str
    name: str
    width: float
    height: float
    cells: int
    shift: float
    above: float
    below: float
    kg: float
    stance: Stance
    carries: bool
    use: float
    band: tuple[float, float]
    spots: tuple[Spot | None, ...]
    hooks: tuple[int, ...] = ()
    unit: int = -1
    depth: float = 0.0
    front: float = 0.0
    back: float = 0.0


class BayRoom(msgspec.Struct, frozen=True):
    """A bay as cells along its wall; `along` is how x and y change with u. `height` is its clear height. [mm]

    `origin` is where its first cell begins: what stands already may be on steps that do not begin at the bay's start.
    """

    id: str
    name: str
    cells: int
    height: float
    along: tuple[float, float]
    origin: float = 0.0


class Run(msgspec.Struct, frozen=True):
    """Two units that a cable or hose joins, and how much a metre of it counts."""

    a: int
    b: int
    weight: float


class Tie(msgspec.Struct, frozen=True):
    """A run from a unit to something that stays where it is, at (x, y). [mm]"""

    a: int
    x: float
    y: float
    weight: float


class Apart(msgspec.Struct, frozen=True):
    """Two units between which so much wall stays free where they are in one bay. [mm]"""

    a: int
    b: int
    gap: float


class At(NamedTuple):
    """Where one unit is: index of the bay, first cell of its block, height above the bay's floor. [mm]

    `item` is the item that it is there, where it stands behind another unit; below 0 for the unit's own.
    """

    bay: int
    cell: int
    level: int
    item: int = -1


Layout = tuple[At, ...]
"""One place for every unit, in the instance's order."""


class Instance(msgspec.Struct, frozen=True, eq=False):
    """Everything that the search knows.

    Attributes:
        cell: Width of a cell. [mm]
        behind: Units with others behind them. The items of those come after all units' own.
        items, bays, runs, ties, aparts: What goes where, and what belongs to or away from what.
        weights: How much each part counts.
        per_x, x_from: Kilograms on the axle for one kg·mm, and the x from which it counts; below 0 where the front axle
            is short.
        per_y, lean: Right less left for one kg·mm across [kg], and that of everything else. [kg]
        z_from: The lowest bay's floor. [mm]
    """

    cell: float
    items: tuple[Item, ...]
    bays: tuple[BayRoom, ...]
    runs: tuple[Run, ...] = ()
    ties: tuple[Tie, ...] = ()
    aparts: tuple[Apart, ...] = ()
    weights: Weights = Weights()
    per_x: float = 1 / 3200
    x_from: float = 0.0
    per_y: float = 2 / 1570
    lean: float = 0.0
    z_from: float = 800.0
    behind: tuple[Form, ...] = ()

    @property
    def count(self) -> int:
        """How many units there are."""
        return sum(item.unit < 0 for item in self.items)

    def unit(self, i: int) -> int:
        """Which unit an item is."""
        return self.items[i].unit if self.items[i].unit >= 0 else i

    def bays_of(self, unit: int) -> frozenset[int]:
        """The bays that a unit may be in, by itself or behind another."""
        return frozenset(
            b
            for i, item in enumerate(self.items)
            if self.unit(i) == unit
            for b, spot in enumerate(item.spots)
            if spot is not None
        )

    def forms(self) -> list[Form]:
        """Every unit by itself, then those with others behind them."""
        return [*(Form(i) for i in range(self.count)), *self.behind]

    def u(self, i: int, bay: int, cell: int) -> float:
        """Where an item begins along the wall of a bay. [mm]"""
        return self.bays[bay].origin + cell * self.cell + self.items[i].shift

    def spot(self, i: int, bay: int) -> Spot:
        """A unit's figures in a bay where it may go."""
        found = self.items[i].spots[bay]
        if found is None:
            raise ValueError(f"{self.items[i].id} cannot be in {self.bays[bay].id}")
        return found

    def level_cost(self, i: int, bay: int, levels: NDArray[np.integer] | int) -> Floats:
        """Points of a unit's height: heavy low, and reach. [points]"""
        item, spot, points = self.items[i], self.spot(i, bay), self.weights.points()
        w = np.asarray(levels, float)
        middle = spot.middle + w
        out = np.maximum(0.0, np.maximum(item.band[0] - middle, middle - item.band[1]))
        low = points["low"] * item.kg * (spot.z + w - self.z_from) / 1000
        return np.asarray(low + points["reach"] * item.use * out / 100)


def which(unit: int, at: At) -> int:
    """The item that a unit is where it stands."""
    return at.item if at.item >= 0 else unit


def ceiling(item: Item) -> int:
    """Its height and what has to stay clear above it, in whole mm. [mm]"""
    return math.ceil(item.height + item.above - 1e-6)
