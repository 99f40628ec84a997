"""Tables of the trade, as data files that name their sources, read once."""

import functools
from pathlib import Path

import msgspec

from roomy_hull.core.errors import InputError


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
    """

    name: str
    density: float
    yield_mpa: float
    welded_mpa: float
    k_factor: float
    bend_radius_per_t: float
    source: str


class Stock(msgspec.Struct, frozen=True):
    """What the shop buys: sheet sizes, bar length, saw kerf and edge trim. [mm]"""

    sheets: tuple[tuple[float, float], ...]
    bar_length: float
    kerf: float
    trim: float
    source: str


class Rules(msgspec.Struct, frozen=True):
    """Starting values of the trade, adjustable, never hard limits."""

    running_gap: float
    slide_dynamic: float
    side_imbalance: float
    front_loss: float
    source: str


def _read(name: str) -> bytes:
    """Read one table's file."""
    return (Path(__file__).parent / name).read_bytes()


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
    try:
        return materials()[key]
    except KeyError:
        raise InputError(
            f"there is no material '{key}'", remedy=f"Use one of {', '.join(materials())}."
        ) from None
