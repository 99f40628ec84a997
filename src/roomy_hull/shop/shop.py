"""The shop: its materials, stock, prices, tools and rules, as one value that is handed down.

What a workshop does not set stays as shipped. Nothing looks a table up by itself: an assembly is made
with a shop, and everything computed from it follows that shop.
"""

import functools
from pathlib import Path
from typing import TypeVar

import msgspec

from roomy_hull.core.errors import InputError
from roomy_hull.core.material import Material
from roomy_hull.core.mechanics.bends import FittedK, TestBend, fit_k
from roomy_hull.shop.tools import Tools
from roomy_hull.shop.workshop import Workshop

TABLES = Path(__file__).parent / "tables"
T = TypeVar("T")


class Offcut(msgspec.Struct, frozen=True):
    """A piece of sheet, or a length of bar, that is left in the shop: used before anything is bought. [mm]

    Of a sheet `what` is its material and `section` its thickness in words, such as ``2``; of a bar its section.
    """

    material: str
    section: str
    length: float
    width: float = 0.0
    count: int = 1


class SheetPrice(msgspec.Struct, frozen=True):
    """What a sheet of one size costs, where not by its mass. [mm, money]"""

    material: str
    thickness: float
    length: float
    width: float
    price: float


class Stock(msgspec.Struct, frozen=True):
    """What the shop buys and has: sheet sizes, bar length, saw kerf, edge trim, offcuts. [mm]

    `least_offcut` is what of a sheet is kept, by its shorter side; of a bar, by its length.
    """

    sheets: tuple[tuple[float, float], ...]
    bar_length: float
    kerf: float
    trim: float
    source: str
    offcuts: tuple[Offcut, ...] = ()
    prices: tuple[SheetPrice, ...] = ()
    least_offcut: float = 150.0


class Rules(msgspec.Struct, frozen=True):
    """Starting values of the trade, adjustable, never hard limits.

    Attributes:
        running_gap, moving_gap: Beside what stands and beside what turns. [mm]
        slide_dynamic, shelf_dynamic, vertical_dynamic: By what a load counts more on a rough road: on slides, on
            shelves and floors, on the chassis.
        side_imbalance, front_loss: Parts of gross and of the front axle's kerb load from which a look is worth it.
        member_safety, sag_share: Yield over stress, and span over sag, that members should keep.
        slope, rolling: The slope on which things are opened [degree], and what slides resist as a part of weight.
        level_band, ssf_least: How far from level is a look [mm]; least static stability factor.
        axis_forward, axis_rearward, axis_sideways, axis_up: Restraint as parts of weight, the last beyond weight.
        hand_pull: What one hand may have to pull. [N]
        cold: The cold morning on which a gas strut still has to hold. [°C]
    """

    running_gap: float
    moving_gap: float
    slide_dynamic: float
    side_imbalance: float
    front_loss: float
    vertical_dynamic: float
    shelf_dynamic: float
    member_safety: float
    sag_share: float
    slope: float
    rolling: float
    level_band: float
    ssf_least: float
    axis_forward: float
    axis_rearward: float
    axis_sideways: float
    axis_up: float
    hand_pull: float
    cold: float
    source: str


class DimensionRule(msgspec.Struct, frozen=True):
    """One authority's limits on a vehicle's outside; 0 where it sets none. [mm]

    `overhang_share` is the rear overhang as a part of the wheelbase, `overhang` its absolute limit.
    """

    name: str
    width: float
    height: float
    overhang: float
    overhang_share: float
    source: str


class Prices(msgspec.Struct, frozen=True):
    """What a shop pays and charges, in its own money; starting values, to be replaced.

    `offcut_share` is what a kept offcut is worth, as a part of its metal's price; `piece_minutes` and
    `bought_minutes` how long one piece or one bought thing takes to handle and fit.
    """

    sheet_per_kg: float
    bar_per_kg: float
    hardware: float
    cut_per_m: float
    bend: float
    insulation_per_m2: float
    source: str
    hour: float = 0.0
    pierce: float = 0.0
    weld_per_m: float = 0.0
    coat_per_m2: float = 0.0
    rivet: float = 0.0
    bolt: float = 0.0
    seal_per_m: float = 0.0
    hinge_per_m: float = 0.0
    offcut_share: float = 0.0
    piece_minutes: float = 0.0
    bought_minutes: float = 0.0


class Shop(msgspec.Struct, frozen=True):
    """One workshop.

    Attributes:
        name: What it calls itself.
        materials: By key.
        stock: Sheets and bars it buys. [mm]
        prices: In its own money.
        rules: Gaps, factors and limits from which a look is worth it.
        dimension_rules: Rules of the region on outside dimensions, by key. [mm]
        tools: What it cuts, bends, saws and joins with.
        workshop: Its people, stations, working days and rates.
        test_bends: What it has bent and measured: they give K where they are.
        sheet, bar, ply: Keys of the materials it takes where a job does not say.
    """

    name: str
    materials: dict[str, Material]
    stock: Stock
    prices: Prices
    rules: Rules
    dimension_rules: dict[str, DimensionRule]
    tools: Tools
    workshop: Workshop
    test_bends: tuple[TestBend, ...] = ()
    sheet: str = "5052-H32"
    bar: str = "6060-T5"
    ply: str = "birch ply"

    def material(self, key: str) -> Material:
        """Look a material up.

        Args:
            key: For example ``5052-H32``.
        Raises:
            InputError: No such material; the message lists those there are.
        """
        return _with_tests(_found(self.materials, key, "material"), self.test_bends)

    def dimension_rule(self, key: str) -> DimensionRule:
        """Look a rule on outside dimensions up.

        Args:
            key: For example ``ADR 43``.
        Raises:
            InputError: No such rule; the message lists those there are.
        """
        return _found(self.dimension_rules, key, "rule")


@functools.lru_cache(maxsize=256)
def _with_tests(metal: Material, rows: tuple[TestBend, ...]) -> Material:
    """A material with the K factors that test bends of it give, by thickness."""
    if not rows:
        return metal
    by_sheet: dict[float, list[TestBend]] = {}
    for row in rows:
        if row.material == metal.key:
            by_sheet.setdefault(row.thickness, []).append(row)
    tested: dict[float, FittedK] = {t: fit_k(group) for t, group in by_sheet.items()}
    if not tested:
        return metal
    return msgspec.structs.replace(
        metal, tested=tuple((t, f.k, f.uncertainty) for t, f in sorted(tested.items()))
    )


def _found(table: dict[str, T], key: str, what: str) -> T:
    """Find a table's row, or say which rows there are."""
    try:
        return table[key]
    except KeyError:
        raise InputError(
            f"there is no {what} '{key}'", remedy=f"Use one of {', '.join(table)}."
        ) from None


def _table(name: str) -> bytes:
    """Read one shipped table's file."""
    return (TABLES / f"{name}.json").read_bytes()


@functools.cache
def shipped_shop() -> Shop:
    """Read the shop as shipped: usual values of the trade, each table naming its source.

    Returns:
        Where every workshop begins. Materials: EN 485, EN 1999 and common practice, from memory; stock, prices and
        rules: common practice.
    """
    rows = msgspec.json.decode(_table("materials"))
    materials = {key: Material(key, **row) for key, row in rows.items()}
    return Shop(
        "Shipped values",
        materials,
        msgspec.json.decode(_table("stock"), type=Stock),
        msgspec.json.decode(_table("prices"), type=Prices),
        msgspec.json.decode(_table("rules"), type=Rules),
        msgspec.json.decode(_table("dimension_rules"), type=dict[str, DimensionRule]),
        msgspec.json.decode(_table("tools"), type=Tools),
        msgspec.json.decode(_table("workshop"), type=Workshop),
    )
