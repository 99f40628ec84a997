"""Tables of the trade, as data files that name their sources, read once."""

import functools
from pathlib import Path
from typing import TypeVar

import msgspec

from roomy_hull.core.errors import InputError

T = TypeVar("T")


class Material(msgspec.Struct, frozen=True):
    """A sheet or bar material.

    Attributes
    ----------
    density : float
        [kg/m³]
    yield_mpa, welded_mpa : float
        Yield strength away from and beside a weld. [MPa]
    k_factor : float
        Neutral line in a bend as a fraction of the thickness; a shop's test bend replaces it.
    bend_radius_per_t : float
        Least usual inside bend radius as a multiple of the thickness.
    young_mpa : float
        Modulus of elasticity. [MPa]
    """

    name: str
    density: float
    yield_mpa: float
    welded_mpa: float
    k_factor: float
    bend_radius_per_t: float
    young_mpa: float
    source: str


class Stock(msgspec.Struct, frozen=True):
    """What the shop buys: sheet sizes, bar length, saw kerf and edge trim. [mm]"""

    sheets: tuple[tuple[float, float], ...]
    bar_length: float
    kerf: float
    trim: float
    source: str


class Rules(msgspec.Struct, frozen=True):
    """Starting values of the trade, adjustable, never hard limits.

    Attributes
    ----------
    running_gap, moving_gap : float
        Beside what stands and beside what turns. [mm]
    slide_dynamic, shelf_dynamic, vertical_dynamic : float
        By what a load counts more on a rough road: on slides, on shelves and floors, on the chassis.
    side_imbalance, front_loss : float
        Parts of gross and of the front axle's kerb load from which a look is worth it.
    member_safety, sag_share : float
        Yield over stress, and span over sag, that members should keep.
    slope, rolling : float
        The slope on which things are opened [degree], and what slides resist as a part of weight.
    level_band, ssf_least : float
        How far from level is a look [mm]; least static stability factor.
    axis_forward, axis_rearward, axis_sideways, axis_up : float
        Restraint as parts of weight, the last beyond weight.
    hand_pull : float
        What one hand may have to pull. [N]
    cold : float
        The cold morning on which a gas strut still has to hold. [°C]
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


def _read(name: str) -> bytes:
    """Read one table's file."""
    return (Path(__file__).parent / name).read_bytes()


def _found(table: dict[str, T], key: str, what: str) -> T:
    """Give a table's row, or say which rows there are."""
    try:
        return table[key]
    except KeyError:
        raise InputError(
            f"there is no {what} '{key}'", remedy=f"Use one of {', '.join(table)}."
        ) from None


@functools.cache
def materials() -> dict[str, Material]:
    """Give all materials by key. Source: EN 485, EN 1999 and common practice, from memory."""
    return msgspec.json.decode(_read("materials.json"), type=dict[str, Material])


@functools.cache
def stock() -> Stock:
    """Give the usual stock: sheet sizes, bar length, kerf and trim (common practice)."""
    return msgspec.json.decode(_read("stock.json"), type=Stock)


@functools.cache
def rules() -> Rules:
    """Give the starting values for gaps and balance (common practice)."""
    return msgspec.json.decode(_read("rules.json"), type=Rules)


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
    """What a shop pays and charges, in its own money; starting values, to be replaced."""

    sheet_per_kg: float
    bar_per_kg: float
    hardware: float
    cut_per_m: float
    bend: float
    insulation_per_m2: float
    source: str


@functools.cache
def dimension_rules() -> dict[str, DimensionRule]:
    """Give the selectable rules on outside dimensions."""
    return msgspec.json.decode(_read("dimension_rules.json"), type=dict[str, DimensionRule])


@functools.cache
def prices() -> Prices:
    """Give the starting prices (common practice)."""
    return msgspec.json.decode(_read("prices.json"), type=Prices)


class Measure(msgspec.Struct, frozen=True):
    """One measure to take.

    Attributes
    ----------
    key, words, how : str
        Its key, what it is, how to take it.
    sigma : float
        Usual one-sigma doubt of one reading with a tape (common practice). [mm]
    sum : dict of str to float
        The lengths it is a sum of, with their signs; empty for a distance of the plan.
    quad : str
        Which distance of the plan's four corners it is; empty for a sum.
    """

    key: str
    words: str
    how: str
    sigma: float
    sum: dict[str, float] = {}
    quad: str = ""


@functools.cache
def measures() -> dict[str, tuple[Measure, ...]]:
    """Give the guided measure list of each kind of vehicle (common practice)."""
    return msgspec.json.decode(_read("measures.json"), type=dict[str, tuple[Measure, ...]])


class Thread(msgspec.Struct, frozen=True):
    """A metric coarse thread. [mm]"""

    diameter: float
    pitch: float


@functools.cache
def threads() -> dict[str, Thread]:
    """Give the usual threads by name (ISO 261 coarse pitches)."""
    return msgspec.json.decode(_read("bolts.json"), type=dict[str, Thread])


def thread(key: str) -> Thread:
    """Look a thread up.

    Parameters
    ----------
    key : str
        For example ``M8``.

    Returns
    -------
    Thread
        Its row.

    Raises
    ------
    InputError
        No such bolt; the message lists those there are.
    """
    return _found(threads(), key, "bolt")


def dimension_rule(key: str) -> DimensionRule:
    """Look a rule on outside dimensions up.

    Parameters
    ----------
    key : str
        For example ``ADR 43``.

    Returns
    -------
    DimensionRule
        Its row.

    Raises
    ------
    InputError
        No such rule; the message lists those there are.
    """
    return _found(dimension_rules(), key, "rule")


def material(key: str) -> Material:
    """Look a material up.

    Parameters
    ----------
    key : str
        For example ``5052-H32``.

    Returns
    -------
    Material
        Its row.

    Raises
    ------
    InputError
        No such material; the message lists those there are.
    """
    return _found(materials(), key, "material")
