"""The survey's adjustment: every reading used, every size with its doubt, the likeliest mistake named.

Weighted least squares: lengths, and the four corners of a frame or floor in plan, are found so that
the squared residuals over their doubts become least. A reading's standardised residual, its residual
over that residual's own doubt, names what to measure again (Baarda's data snooping).
"""

from __future__ import annotations

import math
from typing import TYPE_CHECKING

import msgspec

from roomy_hull.core import lazily
from roomy_hull.core.errors import InputError
from roomy_hull.core.tables.read import Measure, measures
from roomy_hull.job.edits.resizing import set_at
from roomy_hull.job.survey import Reading, Survey
from roomy_hull.job.vehicle import Vehicle

if TYPE_CHECKING:
    import numpy as np
    import numpy.typing as npt

    Array = npt.NDArray[np.float64]
else:
    np = lazily.module("numpy")

CRITICAL = 3.29
"""A standardised residual beyond this is a mistake with 99.9 % confidence (normal distribution)."""
LASER = 1.5
"""Doubt of one laser reading, its placing included (common practice). [mm]"""

QUAD = ("front", "rear", "left", "right", "diagonal 1", "diagonal 2")
STEPS, EXACT = 60, 1e-7
"""So many steps of Gauss and Newton at most; one shorter than this is the last. [mm]"""
CORNERS = 5
"""Unknowns of the plan: front width, and x and y of both rear corners."""


class Size(msgspec.Struct, frozen=True):
    """An adjusted size and its one-sigma doubt. [mm]"""

    name: str
    value: float
    sigma: float


class Residual(msgspec.Struct, frozen=True):
    """What one reading differs from the adjusted figures.

    `standardised` is the residual over its own doubt, 0 where nothing checks the reading;
    `checked` is the redundancy number, 0 for unchecked to 1 for wholly determined by others.
    """

    measure: str
    number: int
    value: float
    residual: float
    standardised: float
    checked: float


class Plan(msgspec.Struct, frozen=True):
    """The four corners in plan: left front at the origin, x aft, y to the right. [mm]

    Two things make it out of square: `square` is how much further aft the rear end reaches on the
    right than on the left, `skew` how far the middle of the rear end stands to the right of where a
    square from the front end puts it. Each with its doubt; 0 when square.
    """

    corners: tuple[tuple[float, float], ...]
    square: float
    square_sigma: float
    skew: float
    skew_sigma: float


class Adjusted(msgspec.Struct, frozen=True):
    """An adjusted survey.

    `suspects` are the readings most likely wrong, several where no other reading tells them apart;
    `spread` is the
    a-posteriori standard deviation of unit weight, near 1 where the doubts are fair; `redundancy`
    how many readings more than needed there are.
    """

    sizes: dict[str, Size]
    residuals: tuple[Residual, ...]
    plan: Plan | None
    suspects: tuple[int, ...]
    spread: float
    redundancy: int
    missing: tuple[str, ...]


def adjust(survey: Survey, kind: str) -> Adjusted:  # ruff: ignore[too-many-locals]  # a least-squares adjustment in the letters of its formulas
    """Adjust a survey.

    Args:
        survey: The readings. [mm]
    Returns: Sizes with doubt, residuals, the plan where its corners are determined, the suspect.
    Raises:
        InputError: A reading is of no known measure, or the plan's distances make no four-cornered figure.
    Least squares after Gauss; residual covariance Q_v = P⁻¹ - A (AᵀPA)⁻¹ Aᵀ, w = v / √Q_v after
    Baarda (1968), from memory.
    """
    table = {m.key: m for m in measures()[kind]}
    rows = list(survey.readings)
    for row in rows:
        if row.measure not in table:
            raise InputError(
                f"there is no measure '{row.measure}' for a {kind}", remedy="Delete the reading."
            )
    missing = tuple(k for k in table if not survey.of(k))
    names, quad_ready = _unknowns(rows, table)
    used = [n for n, r in enumerate(rows) if _usable(table[r.measure], names, quad_ready)]
    if not used:
        return Adjusted({}, (), None, (), 0.0, 0, missing)
    values = np.array([rows[n].value for n in used])
    sigma = np.array([_sigma(rows[n].sigma, rows[n].by, table[rows[n].measure]) for n in used])
    wanted = [table[rows[n].measure] for n in used]
    x, jacobian = _solve(values, sigma, wanted, names, quad_ready)
    model = _model(x, wanted, names, quad_ready)
    residual = values - model
    normal = (jacobian / sigma[:, None]).T @ (jacobian / sigma[:, None])
    cofactor = np.linalg.pinv(normal)
    own = sigma**2 - np.einsum("ij,jk,ik->i", jacobian, cofactor, jacobian)
    checked = np.clip(own / sigma**2, 0.0, 1.0)
    standard = np.where(checked > 1e-6, residual / np.sqrt(np.maximum(own, 1e-12)), 0.0)
    redundancy = len(used) - len(x)
    spread = (
        math.sqrt(float(np.sum((residual / sigma) ** 2)) / redundancy) if redundancy > 0 else 0.0
    )
    largest = float(np.max(np.abs(standard)))
    suspects = tuple(
        used[i] for i in range(len(used))
        if redundancy > 0 and largest > CRITICAL and abs(standard[i]) > 0.98 * largest
    )  # fmt: skip
    uncertainties = np.sqrt(np.maximum(np.diag(cofactor), 0.0))
    offset = CORNERS if quad_ready else 0
    sizes = {
        name: Size(name, float(x[offset + i]), float(uncertainties[offset + i]))
        for i, name in enumerate(names)
    }
    plan = _plan(x, cofactor) if quad_ready else None
    if quad_ready:
        for key, value, slope in _distances(x):
            uncertainty = math.sqrt(max(0.0, float(slope @ cofactor[:5, :5] @ slope)))
            sizes[key] = Size(key, value, uncertainty)
    numbers: dict[str, int] = {}
    found = []
    for i, n in enumerate(used):
        key = rows[n].measure
        numbers[key] = numbers.get(key, 0) + 1
        found.append(
            Residual(
                key, n, rows[n].value, float(residual[i]), float(standard[i]), float(checked[i])
            )
        )
    return Adjusted(sizes, tuple(found), plan, suspects, spread, redundancy, missing)


def _sigma(own: float, by: str, measure: Measure) -> float:
    """A reading's doubt: its own, the laser's, or the usual one."""
    return own or (LASER if by == "laser" else measure.sigma)


def _unknowns(rows: list[Reading], table: dict[str, Measure]) -> tuple[list[str], bool]:
    """Name the lengths that the readings determine, and say whether they determine the plan."""
    sums = [table[r.measure].sum for r in rows if table[r.measure].sum]
    names = sorted({name for row in sums for name in row})
    while names:
        matrix = np.array([[row.get(n, 0.0) for n in names] for row in sums])
        rank = int(np.linalg.matrix_rank(matrix))
        if rank == len(names):
            break
        # Lengths that only occur together in one sum cannot be told apart: leave those out.
        null = np.linalg.svd(matrix)[2][rank:]
        loose = {n for i, n in enumerate(names) if np.any(np.abs(null[:, i]) > 1e-9)}
        names = [n for n in names if n not in loose]
        sums = [row for row in sums if not set(row) & loose]
    quads = {table[r.measure].quad for r in rows if table[r.measure].quad}
    return names, len(quads) >= CORNERS


def _usable(measure: Measure, names: list[str], quad_ready: bool) -> bool:
    """Say whether a reading takes part."""
    return quad_ready if measure.quad else set(measure.sum) <= set(names)


def _corner_distances(c: Array) -> dict[str, float]:
    """The six distances of the plan from its five unknowns."""
    wf, lx, ly, rx, ry = c
    return {
        "front": abs(float(wf)),
        "rear": math.hypot(rx - lx, ry - ly),
        "left": math.hypot(lx, ly),
        "right": math.hypot(rx, ry - wf),
        "diagonal 1": math.hypot(rx, ry),
        "diagonal 2": math.hypot(lx, ly - wf),
    }


def _model(x: Array, wanted: list[Measure], names: list[str], quad_ready: bool) -> Array:
    """What every reading should be."""
    offset = CORNERS if quad_ready else 0
    quad = _corner_distances(x[:CORNERS]) if quad_ready else {}
    return np.array([
        quad[m.quad] if m.quad else sum(f * x[offset + names.index(n)] for n, f in m.sum.items())
        for m in wanted
    ])


def _solve(
    values: Array, sigma: Array, wanted: list[Measure], names: list[str], quad_ready: bool
) -> tuple[Array, Array]:
    """Find the unknowns, and the derivatives of every reading by them."""
    offset = CORNERS if quad_ready else 0
    start = np.zeros(offset + len(names))
    if quad_ready:
        mean = {
            q: float(
                np.mean([v for v, m in zip(values, wanted, strict=True) if m.quad == q] or [0.0])
            )
            for q in QUAD
        }
        long = mean["left"] or mean["right"] or max(mean.values())
        wide = mean["front"] or mean["rear"] or min(v for v in mean.values() if v)
        start[:CORNERS] = (wide, long, 0.0, long, wide)
    for i, name in enumerate(names):
        alone = [v for v, m in zip(values, wanted, strict=True) if m.sum == {name: 1.0}]
        start[offset + i] = float(np.mean(alone)) if alone else 500.0
    x = start
    for _ in range(STEPS):
        rest = (values - _model(x, wanted, names, quad_ready)) / sigma
        slopes = _derivatives(x, wanted, names, quad_ready) / sigma[:, None]
        step = np.asarray(np.linalg.lstsq(slopes, rest, rcond=None)[0], dtype=np.float64)
        # A step of Gauss and Newton is halved until it does not make matters worse.
        for n in range(20):
            there: Array = x + step / 2**n
            if np.sum(((values - _model(there, wanted, names, quad_ready)) / sigma) ** 2) <= np.sum(
                rest**2
            ):
                x = there
                break
        if float(np.max(np.abs(step))) < EXACT:
            break
    if quad_ready:
        short = _corner_distances(x[:CORNERS])
        if min(short["left"], short["right"], short["front"], short["rear"]) < 50:
            raise InputError(
                "the widths, lengths and diagonals make no four-cornered figure",
                remedy="Measure both diagonals again.",
            )
    return x, _derivatives(x, wanted, names, quad_ready)


def _derivatives(x: Array, wanted: list[Measure], names: list[str], quad_ready: bool) -> Array:
    """The derivatives of every reading by the unknowns."""
    offset = CORNERS if quad_ready else 0
    quad = _slopes(x[:CORNERS]) if quad_ready else {}
    found = np.zeros((len(wanted), len(x)))
    for row, m in zip(found, wanted, strict=True):
        if m.quad:
            row[:CORNERS] = quad[m.quad]
        for name, factor in m.sum.items():
            row[offset + names.index(name)] = factor
    return found


def _slopes(c: Array) -> dict[str, tuple[float, ...]]:
    """The derivatives of the plan's six distances by its five unknowns."""
    wf, lx, ly, rx, ry = (float(v) for v in c)

    def unit(dx: float, dy: float) -> tuple[float, float]:
        length = math.hypot(dx, dy) or 1.0
        return dx / length, dy / length

    (ax, ay), (bx, by), (cx, cy), (dx, dy), (ex, ey) = (
        unit(rx - lx, ry - ly), unit(lx, ly), unit(rx, ry - wf), unit(rx, ry), unit(lx, ly - wf),
    )  # fmt: skip
    return {
        "front": (math.copysign(1.0, wf), 0.0, 0.0, 0.0, 0.0), "rear": (0.0, -ax, -ay, ax, ay),
        "left": (0.0, bx, by, 0.0, 0.0), "right": (-cy, 0.0, 0.0, cx, cy),
        "diagonal 1": (0.0, 0.0, 0.0, dx, dy), "diagonal 2": (-ey, ex, ey, 0.0, 0.0),
    }  # fmt: skip


def _distances(x: Array) -> list[tuple[str, float, Array]]:
    """The plan's six distances with their derivatives by its five unknowns."""
    base, slopes = _corner_distances(x[:CORNERS]), _slopes(x[:CORNERS])
    return [(key, base[key], np.array(slopes[key])) for key in QUAD]


def _plan(x: Array, cofactor: Array) -> Plan:
    """The corners, and by how much they are out of square."""
    wf, lx, ly, rx, ry = (float(v) for v in x[:CORNERS])

    def uncertainty(row: Array) -> float:
        return math.sqrt(max(0.0, float(row @ cofactor[:CORNERS, :CORNERS] @ row)))

    return Plan(
        ((0.0, 0.0), (0.0, wf), (rx, ry), (lx, ly)),
        rx - lx,
        uncertainty(np.array([0.0, -1.0, 0.0, 1.0, 0.0])),
        (ly + ry - wf) / 2,
        uncertainty(np.array([-0.5, 0.0, 0.5, 0.0, 0.5])),
    )


def taken_over(vehicle: Vehicle, adjusted: Adjusted) -> Vehicle:
    """Put adjusted sizes into a vehicle.

    Args:
        vehicle: As it was. [mm]
    Returns: With every size that the survey determines, to half a millimetre; the rest as it was.
    Raises:
        EditError: The sizes make no possible vehicle.
    """
    s = {k: v.value for k, v in adjusted.sizes.items()}
    base = s.get("wheelbase", vehicle.wheelbase)
    new: dict[str, float] = {"wheelbase": base}
    for name in ("track_front", "track_rear"):
        if name in s:
            new[name] = s[name]
    if vehicle.kind == "cab-chassis":
        if "axle_cab" in s:
            new["cab_back"] = base - s["axle_cab"]
        if "axle_end" in s:
            new["chassis_end"] = base + s["axle_end"]
        tops = [v for k, v in s.items() if k.startswith("rail_")]
        if tops:
            new["rail_top"] = sum(tops) / len(tops)
        if "front" in s:
            new["rail_spread"] = (s["front"] + s["rear"]) / 2 - vehicle.rail_width
        if "cab_height" in s:
            new["shape.height"] = s["cab_height"]
        if "tail_clearance" in s and vehicle.low is not None:
            new["low.rear"] = s["tail_clearance"]
    elif vehicle.hold is not None:
        new |= _hold(s)
    for path, value in new.items():
        vehicle = set_at(vehicle, path, round(value * 2) / 2)
    return vehicle


def _hold(s: dict[str, float]) -> dict[str, float]:
    """Name the sizes of a tub or cargo area. The smaller of two counts: what is built must go in."""
    found: dict[str, float] = {}
    if "left" in s:
        found["hold.length"] = min(s["left"], s["right"])
        found["hold.width"] = min(s["front"], s["rear"])
    if "between" in s and "arch_left" in s and "arch_right" in s:
        found["hold.arch_width"] = max(s["arch_left"], s["arch_right"])
    for name, path in (
        ("arch_start", "hold.arch_start"), ("arch_length", "hold.arch_length"),
        ("arch_height", "hold.arch_height"), ("floor_height", "hold.floor"),
        ("wall_height", "hold.height"), ("clear_height", "hold.height"),
        ("tailgate_width", "hold.opening_width"), ("tailgate_height", "hold.opening_height"),
    ):  # fmt: skip
        if name in s:
            found[path] = s[name]
    return found
