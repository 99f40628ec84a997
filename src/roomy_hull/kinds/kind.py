"""Kind: everything the program knows of one kind of unit, as one record in one file."""

from collections.abc import Callable
from typing import Any, Literal

import msgspec

from roomy_hull.core.capabilities import PLAIN, Capabilities
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.material import Material
from roomy_hull.kinds.expansion import Expansion
from roomy_hull.kinds.placed import ClassOfUse, Placed
from roomy_hull.shop.shop import Shop

Use = Literal[
    "Cold", "Drawers", "Shelves and walls", "Kitchen", "Water and air", "Power", "Safety", "Outside", "Vehicle",
    "Your own",
]  # fmt: skip
USES: tuple[Use, ...] = (
    "Cold", "Drawers", "Shelves and walls", "Kitchen", "Water and air", "Power", "Safety", "Outside", "Vehicle",
)  # fmt: skip
"""Uses in the order of the stores."""


class Site(msgspec.Struct, frozen=True):
    """Where a unit is built in: its bay's rail pitch, the shop that makes it, how far past a slot it begins. [mm]

    `side` is that of its bay: at the rear, inward is along the vehicle, and tanks surge that way.
    """

    pitch: float
    shop: Shop
    phase: float = 0.0
    side: str = "left"

    def loose(self) -> "Site":
        """The same shop without rails to bolt to."""
        return Site(0.0, self.shop, 0.0, self.side)

    def material(self, key: str) -> Material:
        """Look a material of the shop up.

        Args:
            key: For example ``5052-H32``.
        Raises:
            InputError: The shop has none such.
        """
        return self.shop.material(key)


Stance = Literal["floor", "rest", "hang"]
"""Stands on the bay's floor, or on that or on a unit under both its ends, or hangs at any height."""


class Offer(msgspec.Struct, frozen=True):
    """One entry of the stores: its key, its use, what is placed (with a new id and place), a tip."""

    key: str
    use: Use
    make: Any
    tip: str


class Walls(msgspec.Struct, frozen=True):
    """A welded tank's walls between their welds: length along the vehicle, width across it, height; sheet. [mm]"""

    long: float
    wide: float
    high: float
    material: str
    sheet: float
    baffles: int


class Remedy(msgspec.Struct, frozen=True):
    """A change of a unit that may let something open: what it costs in the workshop, words, fields."""

    price: float
    words: str
    changes: dict[str, float | str]


def _none(_unit: Any, _side: str = "") -> None:
    return None


def _plain(_unit: Any, _side: str = "") -> Capabilities:
    return PLAIN


def _nothing(_unit: Any) -> float:
    return 0.0


def _unchanged(_unit: Any) -> dict[str, object]:
    return {}


def _unsaid(_unit: Any) -> str:
    return ""


def no_remedies(_unit: Any) -> tuple[Remedy, ...]:
    """Offer nothing."""
    return ()


def _not_around(_unit: Any, _room: Box, _side: str) -> dict[str, float | str]:
    return {}


class Kind(msgspec.Struct, frozen=True):
    """One kind of unit.

    Attributes:
        value: Its value in the job file; the tag is its word there.
        expand: Unit, `Site` → `Expansion`: its solids, masses, parts, motions and elevation. Raises `InputError` where
            its sizes leave nothing inside it.
        offers: → its entries in the stores.
        rank: Where it stands among the kinds of a use in the stores.
        railed: Whether its own base is drilled for the slots of its bay's rails.
        made: Whether the workshop makes it; else it is bought.
        contents: Whether it holds goods.
        handed: Fields that say ``left`` or ``right`` as one faces it.
        paired: Fields that change places when it is mirrored.
        turned: Unit → further changes when it is mirrored.
        article: Whether it stays the same article when it is mirrored, as a bought fridge does.
        open_front: Whether one looks into it while it is closed.
        stood_on: Whether its floor lies loose on supports, and somebody may kneel on it.
        bearers: How far its floor spans between supports at most; 0 for its whole size. [mm]
        hangs: Whether it is screwed to a wall at any height, as a charger is, and need not stand on anything.
        stance: Where it may stand when units are arranged: ``floor``, ``rest`` or ``hang``.
        carries: Whether another unit may rest on it.
        use: How quickly it has to be at hand, where neither it nor its goods say so.
        says: Unit, side of its bay → what it is to everybody else, in its own directions.
        walls: Unit, side of its bay → `Walls` where it is a welded tank, else nothing.
        stored: Unit → room for goods. [l]
        air: Unit → (open vents, vents wanted) where it needs air for an animal, else nothing. [cm²]
        caution: Unit → what has to be said once where it is placed; empty for most.
        words: Unit → what it is, where the kind alone does not say it.
        remedies: Unit → changes worth trying where something cannot open.
        otherwise: Unit → fields that make it one of the other school, ``style`` among them; nothing where there is none.
        around: Unit, a box from its corner [mm], side of its bay → what to set so that it leaves that room free.
    """

    value: type[Placed]
    expand: Callable[[Any, Site], Expansion]
    offers: Callable[[], tuple[Offer, ...]]
    rank: int = 100
    railed: bool = False
    made: bool = True
    contents: bool = True
    handed: tuple[str, ...] = ()
    paired: tuple[tuple[str, str], ...] = ()
    turned: Callable[[Any], dict[str, object]] = _unchanged
    article: bool = False
    open_front: bool = False
    stood_on: bool = False
    bearers: float = 0.0
    hangs: bool = False
    stance: Stance = "rest"
    carries: bool = True
    use: ClassOfUse = "each camp"
    says: Callable[[Any, str], Capabilities] = _plain
    walls: Callable[[Any, str], Walls | None] = _none
    stored: Callable[[Any], float] = _nothing
    air: Callable[[Any], tuple[float, float] | None] = _none
    caution: Callable[[Any], str] = _unsaid
    words: Callable[[Any], str] = _unsaid
    remedies: Callable[[Any], tuple[Remedy, ...]] = no_remedies
    otherwise: Callable[[Any], dict[str, Any]] = _unchanged
    around: Callable[[Any, Box, str], dict[str, float | str]] = _not_around

    @property
    def name(self) -> str:
        """Its word in the file."""
        return str(self.value.__struct_config__.tag)


def offer(
    value: type[Any], key: str, use: Use, name: str, size: tuple[float, float, float], tip: str, /,
    **more: Any,
) -> Offer:  # fmt: skip
    """Describe an entry of the stores.

    Args:
        size: Width, depth and height. [mm]
        **more: Other fields of the value; its id is the kind's word unless given.
    """
    word = str(value.__struct_config__.tag).replace(" ", "-")
    w, d, h = size
    made = value(id=more.pop("id", word), name=name, bay="-", width=w, depth=d, height=h, **more)
    return Offer(key, use, made, tip)
