"""Bar lengths on stock bars: first fit, longest first, beside its lower bound."""

import math

import msgspec

from roomy_hull.core.errors import InputError
from roomy_hull.core.material import Material
from roomy_hull.core.parts import BarPart, Part


class Bar(msgspec.Struct, frozen=True):
    """One stock bar and what is sawn from it, in order: name, length, how its ends are cut. [mm]"""

    section: str
    material: Material
    length: float
    pieces: tuple[tuple[str, float, str], ...]
    offcut: float


class BarPlan(msgspec.Struct, frozen=True):
    """All bars, and for each section the bars used beside the lower bound by length."""

    bars: tuple[Bar, ...]
    bounds: dict[str, tuple[int, int]]


def plan(parts: list[Part], stock_length: float, kerf: float) -> BarPlan:
    """Saw bar parts from stock bars, first fit with the longest first.

    Parameters
    ----------
    parts : list of Part
        All parts; only bar parts count. [mm]
    stock_length, kerf : float
        Stock bar and saw kerf. [mm]

    Returns
    -------
    BarPlan
        Bars and bounds; each piece takes its length and one kerf.

    Raises
    ------
    InputError
        A piece is longer than the stock bar.
    """
    groups: dict[tuple[str, str], list[tuple[str, float, str]]] = {}
    materials: dict[str, Material] = {}
    for part in parts:
        if isinstance(part, BarPart):
            if part.length > stock_length:
                raise InputError(
                    f"a piece of {part.length:.0f} mm is longer than the stock bar",
                    place=part.name,
                    remedy=f"Join it, or buy bars longer than {stock_length:.0f} mm.",
                )
            materials[part.material.key] = part.material
            groups.setdefault((part.section, part.material.key), []).extend(
                [(part.name, part.length, part.cuts())] * part.count
            )
    bars: list[Bar] = []
    bounds: dict[str, tuple[int, int]] = {}
    for (section, metal), pieces in sorted(groups.items()):
        rows = first_fit([p[1] for p in pieces], stock_length, kerf)
        for row in rows:
            cut = tuple(pieces[i] for i in row)
            rest = stock_length - sum(p[1] + kerf for p in cut)
            bars.append(Bar(section, materials[metal], stock_length, cut, max(0.0, rest)))
        need = sum(p[1] + kerf for p in pieces) / (stock_length + kerf)
        bounds[f"{section} {metal}"] = (len(rows), math.ceil(need - 1e-9))
    return BarPlan(tuple(bars), bounds)


def first_fit(lengths: list[float], stock_length: float, kerf: float) -> list[list[int]]:
    """Assign lengths to bars, longest first, each to the first bar with room.

    Parameters
    ----------
    lengths : list of float
        Pieces, none longer than the bar. [mm]
    stock_length, kerf : float
        Bar length and saw kerf; the last piece of a bar may use its end. [mm]

    Returns
    -------
    list of list of int
        For each bar, the indices of its pieces.
    """
    order = sorted(range(len(lengths)), key=lambda i: -lengths[i])
    rows: list[list[int]] = []
    rest: list[float] = []
    for i in order:
        for n, room in enumerate(rest):
            if lengths[i] <= room + 1e-9:
                rows[n].append(i)
                rest[n] = room - lengths[i] - kerf
                break
        else:
            rows.append([i])
            rest.append(stock_length - lengths[i] - kerf)
    return rows
