"""A rack's bars as a net of nodes and pieces between them: where bars touch they share a node."""

import functools
import itertools
from typing import NamedTuple

import msgspec
import numpy as np

from roomy_hull.core.mechanics import frames
from roomy_hull.core.mechanics.sections import section_height, section_width
from roomy_hull.kit.body.racks import Member, RackPlace

PIECES = 4
"""Every bar is parted into so many pieces at least, so that loads lie where they are."""
ALIKE = 0.5
"""Nodes nearer to one another are one. [mm]"""


class Bars(NamedTuple):
    """What a rack's net is made from: bars, feet, section, and whether its feet are clamps."""

    members: tuple[Member, ...]
    feet: tuple[tuple[float, float, float], ...]
    section: str
    clamped: bool


def bars_of(place: RackPlace) -> Bars:
    """A rack's bars and feet. [mm]"""
    return Bars(place.members, place.feet, place.rack.section, place.upright)


@functools.lru_cache(maxsize=12)
def ready(bars: Bars, young: float) -> tuple["Net", frames.Stiff]:
    """A rack's net, ready to be loaded; kept, since a rack changes less often than what lies on it.

    Args:
        bars: From `bars_of`. [mm]
        young: Modulus of elasticity. [MPa]
    Returns: Nodes and pieces, and the frame made of them.
    Raises:
        InputError: It is a mechanism.
    """
    grid = net(bars)
    return grid, frames.stiff(
        grid.nodes, grid.pieces, frames.both_ways(bars.section), young, grid.held
    )


class Net(msgspec.Struct, frozen=True):
    """A rack's bars as nodes and pieces between them: which bar each piece is of. [mm]"""

    nodes: np.ndarray
    pieces: np.ndarray
    bars: tuple[int, ...]
    held: np.ndarray


def net(bars: Bars) -> Net:
    """A rack as a net of nodes and pieces.

    Args:
        bars: Where they stand. [mm]
    Returns: Bars that touch share a node; feet are hinges, those of a hoop and of a rear wall clamped. [mm]
    """
    reach = 1.2 * max(section_height(bars.section), section_width(bars.section))
    ends = _ends(bars, reach)
    joints = [p for pair in ends for p in pair] + [np.array(f) for f in bars.feet]
    nodes: list[np.ndarray] = []

    def node(p: np.ndarray) -> int:
        for i, q in enumerate(nodes):
            if float(np.linalg.norm(p - q)) < ALIKE:
                return i
        nodes.append(p)
        return len(nodes) - 1

    rows: list[tuple[int, int]] = []
    of: list[int] = []
    for n, (a, b) in enumerate(ends):
        keys = [node(a + t * (b - a)) for t in _spots(a, b, joints, reach)]
        pairs = [(i, j) for i, j in itertools.pairwise(keys) if i != j]
        rows += pairs
        of += [n] * len(pairs)
    held = np.zeros((len(nodes), 6))
    for foot in bars.feet:
        f = np.array(foot)
        i = min(range(len(nodes)), key=lambda k: float(np.linalg.norm(nodes[k] - f)))
        held[i, : 6 if bars.clamped else 3] = 1
    return Net(np.array(nodes), np.array(rows), tuple(of), held)


LEADS = frozenset({"side rail", "beam", "rail"})
"""Bars that go through: the others end on their middle lines."""


def _ends(bars: Bars, reach: float) -> list[tuple[np.ndarray, np.ndarray]]:
    """The ends of every bar's middle line; a bar that ends at one that goes through ends on that one's."""
    through = [(np.array(m.a), np.array(m.b)) for m in bars.members if m.name in LEADS]
    found = []
    for m in bars.members:
        a, b = np.array(m.a), np.array(m.b)
        if m.name not in LEADS:
            a, b = _nearest(a, through, reach), _nearest(b, through, reach)
        found.append((a, b))
    return found


def _spots(a: np.ndarray, b: np.ndarray, joints: list[np.ndarray], reach: float) -> list[float]:
    """Where a bar is parted, as parts of its length: evenly, and where others join it."""
    along, long = b - a, float(np.linalg.norm(b - a))
    if long < ALIKE:
        return []
    spots = {k / PIECES for k in range(PIECES + 1)}
    for p in joints:
        t = float((p - a) @ along) / long**2
        off = float(np.linalg.norm(a + t * along - p))
        if off < ALIKE + reach / 4 and ALIKE < t * long < long - ALIKE:
            spots = {s for s in spots if abs(s - t) * long > ALIKE or s in (0.0, 1.0)} | {t}
    return sorted(spots)


def _nearest(p: np.ndarray, lines: list[tuple[np.ndarray, np.ndarray]], reach: float) -> np.ndarray:
    """The nearest point of the middle lines of bars that a bar's end touches; the end itself where it touches none."""
    best: tuple[float, np.ndarray] = (reach, p)
    for a, b in lines:
        t = min(1.0, max(0.0, float((p - a) @ (b - a)) / float((b - a) @ (b - a))))
        spot = a + t * (b - a)
        off = float(np.linalg.norm(p - spot))
        if off < best[0] - ALIKE:
            best = (off, spot)
    return best[1]
