"""Frames: straight bars joined stiffly in space, by the direct stiffness method.

Twelve end forces of a bar follow from the six movements of each of its ends (Euler and Bernoulli's beam, St. Venant's
torsion). Forces and moments act at nodes.
"""

from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from roomy_hull.core.errors import InputError
from roomy_hull.core.mechanics.sections import section

Array = NDArray[np.float64]


class BarShape(NamedTuple):
    """A bar's section both ways: area, second moments and moduli about its level and its upright axis, torsion.

    [mm², mm⁴, mm³]
    """

    area: float
    level: float
    level_modulus: float
    upright: float
    upright_modulus: float
    torsion: float


class FrameResult(NamedTuple):
    """What a frame does under its loads.

    Attributes:
        moved: Of every node: along x, y, z [mm], and turned about them [rad].
        forces: At both ends of every bar in its own directions: force along it and across it, moments. [N, N·mm]
        stress: The greatest of axial and bending stress at the corners of either end. [MPa]
        reactions: What the supports give; 0 at free nodes. [N, N·mm]
    """

    moved: Array
    forces: Array
    stress: Array
    reactions: Array


def both_ways(name: str) -> BarShape:
    """The properties of a rectangular tube or flat bar both ways.

    Args:
        name: As `sections.section` takes it, its first side upright. [mm]
    Returns:
        Torsion by Bredt for a tube: 4·A²·t / u of its middle line; for a solid bar a·b³·(1/3 - 0.21·b/a·(1 -
        b⁴/12a⁴)) with b the short side (Roark's formula, from memory). [mm²; mm⁴; mm³]
    Raises:
        InputError: The section cannot be read.
    """
    one = section(name)
    sides = name.split("x")
    other = section("x".join([sides[1], sides[0], *sides[2:]]))
    h, b = float(sides[0]), float(sides[1])
    if len(sides) == 3:
        t = float(sides[2])
        torsion = 4 * ((h - t) * (b - t)) ** 2 * t / (2 * (h + b - 2 * t))
    else:
        a, c = max(h, b), min(h, b)
        torsion = a * c**3 * (1 / 3 - 0.21 * c / a * (1 - c**4 / (12 * a**4)))
    return BarShape(one.area, one.inertia, one.modulus, other.inertia, other.modulus, torsion)


def _own(length: float, e: float, g: float, s: BarShape) -> Array:
    """A bar's stiffness in its own directions: along it, across it level, upright."""
    k = np.zeros((12, 12))
    axial, twist = e * s.area / length, g * s.torsion / length
    for i, j, v in ((0, 6, axial), (3, 9, twist)):
        k[i, i] += v
        k[j, j] += v
        k[i, j] -= v
        k[j, i] -= v
    # In its upright plane (z) it bends about its level axis, in its level plane (y) about its upright one.
    for inertia, (d1, r1, d2, r2), sign in (
        (s.upright, (1, 5, 7, 11), 1.0), (s.level, (2, 4, 8, 10), -1.0),
    ):  # fmt: skip
        a, b, c = (
            12 * e * inertia / length**3,
            6 * e * inertia / length**2,
            2 * e * inertia / length,
        )
        rows = np.array([
            [a, sign * b, -a, sign * b], [sign * b, 2 * c, -sign * b, c],
            [-a, -sign * b, a, -sign * b], [sign * b, c, -sign * b, 2 * c],
        ])  # fmt: skip
        at = np.array([d1, r1, d2, r2])
        k[np.ix_(at, at)] += rows
    return k


def _turn(a: Array, b: Array) -> Array:
    """The directions of a bar: along it, level across it, and up; an upright bar's level one is y. (3, 3)"""
    x = (b - a) / np.linalg.norm(b - a)
    if abs(x[2]) > 1 - 1e-9:
        y = np.array([0.0, 1.0, 0.0])
        return np.stack([x, y, np.cross(x, y)])
    y = np.cross([0.0, 0.0, 1.0], x)
    y /= np.linalg.norm(y)
    return np.stack([x, y, np.cross(x, y)])


class Stiff(NamedTuple):
    """A frame that is ready to be loaded: what `stiff` gives.

    Attributes:
        held: Movements and turns that are held.
        whole: Stiffness of all of it.
        yielding: What its free movements give under forces of one: the inverse of their stiffness.
        bars: Of each bar: its places among all movements, its directions, its own stiffness.
        shape: The section of all bars.
    """

    held: NDArray[np.bool_]
    whole: Array
    yielding: Array
    bars: tuple[tuple[Array, Array, Array], ...]
    shape: BarShape


def stiff(
    nodes: Array, bars: NDArray[np.int64], shape: BarShape, young: float, held: Array, poisson: float = 0.33
) -> Stiff:  # fmt: skip
    """Make a frame of bars of one section and one metal ready to be loaded.

    Args:
        nodes: Where bars meet. [mm]
        shape: The section of all of them, upright in every bar that does not stand.
        young: Modulus of elasticity. [MPa]
        held: Which movements and turns of each node are held.
    Returns: For `under`, once for every way in which it is loaded.
    Raises:
        InputError: The frame is a mechanism, or a bar has no length.
    """
    n, g = len(nodes), young / 2 / (1 + poisson)
    whole = np.zeros((6 * n, 6 * n))
    kept: list[tuple[Array, Array, Array]] = []
    for i, j in bars:
        length = float(np.linalg.norm(nodes[j] - nodes[i]))
        if length < 1e-6:
            raise InputError("a bar of the frame has no length", remedy="Make the frame larger.")
        t = np.zeros((12, 12))
        turn = _turn(nodes[i], nodes[j])
        for q in range(4):
            t[3 * q : 3 * q + 3, 3 * q : 3 * q + 3] = turn
        own = _own(length, young, g, shape)
        at = np.r_[6 * i : 6 * i + 6, 6 * j : 6 * j + 6]
        whole[np.ix_(at, at)] += t.T @ own @ t
        kept.append((at, t, own))
    free = held.ravel() == 0
    try:
        yielding = np.asarray(np.linalg.inv(whole[np.ix_(free, free)]), dtype=np.float64)
    except np.linalg.LinAlgError:
        raise InputError("the frame is a mechanism", remedy="Give it more feet or bars.") from None
    return Stiff(held != 0, whole, yielding, tuple(kept), shape)


def under(frame: Stiff, loads: Array) -> FrameResult:
    """What a frame does under loads.

    Args:
        frame: From `stiff`.
        loads: Forces and moments at each node. [N, N·mm]
    Raises:
        InputError: The frame is a mechanism.
    Direct stiffness method; stress as N/A + M/W both ways at each end, where with forces at nodes only it is greatest.
    """
    free, force = ~frame.held.ravel(), loads.ravel().astype(float)
    moved = np.zeros(len(force))
    moved[free] = frame.yielding @ force[free]
    if not np.all(np.isfinite(moved)) or np.abs(moved).max(initial=0.0) > 1e6:
        raise InputError("the frame is a mechanism", remedy="Give it more feet or bars.")
    forces = np.array([own @ t @ moved[at] for at, t, own in frame.bars])
    ends, s = forces.reshape(-1, 2, 6), frame.shape
    stress = (
        np.abs(ends[:, :, 0]) / s.area + np.abs(ends[:, :, 4]) / s.level_modulus
        + np.abs(ends[:, :, 5]) / s.upright_modulus
    ).max(axis=1)  # fmt: skip
    reactions = (frame.whole @ moved - force).reshape(-1, 6) * frame.held
    return FrameResult(moved.reshape(-1, 6), forces, stress, reactions)


def solve(
    nodes: Array, bars: NDArray[np.int64], shape: BarShape, young: float, held: Array, loads: Array
) -> FrameResult:
    """Solve a frame under one set of loads: `stiff`, then `under`.

    Args:
        nodes, bars, shape, young, held: As `stiff` takes them. [mm, MPa]
        loads: Forces and moments at each node. [N, N·mm]
    """
    return under(stiff(nodes, bars, shape, young, held), loads)
