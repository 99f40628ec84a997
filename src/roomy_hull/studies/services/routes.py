"""Routes: the way of a cable or hose through the body, along the edges of the bays and the rails of the chassis."""

from __future__ import annotations

import heapq
import itertools
import math
from typing import NamedTuple

import msgspec

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.assembly.things import AnyThing
from roomy_hull.core.geometry.solids import Box

Point = tuple[float, float, float]
END_SLACK = 150.0
"""What is left over at each end of a run, to be cut and crimped (common practice). [mm]"""
SWING_SLACK = 1.1
"""A lead that goes along with a slide is so much longer than the way (common practice)."""
FEET = 6
"""So many edges of its bay a place is joined to, the nearest ones."""
THROUGH = 200.0
"""Edges of two bays that are no further apart are joined through a hole in what is between. [mm]"""


class Way(msgspec.Struct, frozen=True):
    """A way from one place to another.

    Attributes:
        points: Its corners in vehicle axes. [mm]
        metres: How long to cut it, slack at the ends and for what moves included. [m]
        plugs: The crossings at which it has to come apart when the canopy comes off.
    """

    points: tuple[Point, ...]
    metres: float
    plugs: tuple[str, ...]


class _Node(NamedTuple):
    at: Point
    zone: str


class Network:
    """Where runs may lie: corners and edges of the bays, the roof's edges, the chassis, the engine bay.

    Args:
        assembly: The job in vehicle axes. [mm]
    """

    def __init__(self, assembly: Assembly) -> None:
        self._assembly = assembly
        self._nodes: list[_Node] = []
        self._links: list[tuple[int, int, float]] = []
        self._edges: dict[str, list[tuple[int, int]]] = {}
        canopy = assembly.job.body.canopy
        self._off = canopy is not None and canopy.kind == "canopy"
        inner = "canopy" if canopy is not None else "tray"
        for key, place in assembly.ground.bays.items():
            self._box(key, place.frame.box(place.size), inner)
        if assembly.ground.canopy is not None and canopy is not None:
            self._box(
                "roof", assembly.ground.canopy._replace(z0=assembly.ground.canopy.z1 - 40), inner
            )
        self.engine = self._vehicle()
        self._join()
        self._known: dict[int, tuple[list[float], list[int]]] = {}

    def _add(self, at: Point, zone: str) -> int:
        self._nodes.append(_Node(at, zone))
        return len(self._nodes) - 1

    def _link(self, a: int, b: int) -> None:
        self._links.append((a, b, max(_far(self._nodes[a].at, self._nodes[b].at), 1.0)))

    def _box(self, key: str, box: Box, zone: str) -> None:
        """The corners and edges of a box."""
        corners = list(itertools.product(*zip(box[:3], box[3:], strict=True)))
        first = len(self._nodes)
        for x, y, z in corners:
            self._add((x, y, z), zone)
        edges = [
            (first + a, first + b)
            for a, b in itertools.combinations(range(8), 2)
            if sum(p != q for p, q in zip(corners[a], corners[b], strict=True)) <= 1
        ]
        self._edges[key] = edges
        for a, b in edges:
            self._link(a, b)

    def _vehicle(self) -> int:
        """The starter battery in the engine bay, and both rails from there to the rear."""
        v = self._assembly.job.vehicle
        side = 1.0 if v.drive == "left" else -1.0
        engine = self._add(
            (-v.shape.front / 2, side * v.shape.width / 4, v.shape.bonnet - 250.0), "vehicle"
        )
        last = []
        for y in (-v.rail_spread / 2, v.rail_spread / 2):
            before = engine
            for x in (0.0, v.cab_back, v.chassis_end):
                node = self._add((x, y, v.rail_top), "vehicle")
                self._link(before, node)
                before = node
                last.append(node)
        return engine

    def _join(self) -> None:
        """Join what lies near, then what would else stand alone, by the shortest way."""
        groups = [sorted({n for edge in edges for n in edge}) for edges in self._edges.values()]
        count = len(self._nodes)
        taken = {n for group in groups for n in group}
        groups.append([n for n in range(count) if n not in taken])
        whole = [groups[0]] if groups else []
        for a, b in itertools.combinations(groups, 2):
            if not a or not b:
                continue
            far, i, j = min(
                (_far(self._nodes[i].at, self._nodes[j].at), i, j) for i in a for j in b
            )
            if far <= THROUGH:
                self._link(i, j)
        reached = set(whole[0]) if whole else set()
        left = [g for g in groups[1:] if g]
        while left:
            rows = [
                (_far(self._nodes[i].at, self._nodes[j].at), i, j, n)
                for n, group in enumerate(left)
                for i in reached
                for j in group
            ]
            if not rows:
                reached |= set(left.pop(0))
                continue
            far, i, j, n = min(rows)
            if far > THROUGH:
                self._link(i, j)
            reached |= set(left.pop(n))

    def port(self, at: Point, bay: str = "") -> int:
        """A place of its own, joined to the nearest edges of its bay, or of all there is.

        Args:
            at: Where. [mm]
            bay: The bay it is in; empty for none.
        """
        edges = self._edges.get(bay) or [e for rows in self._edges.values() for e in rows]
        near = []
        for a, b in edges:
            on = _nearest(at, self._nodes[a].at, self._nodes[b].at)
            near.append((_far(at, on), on, a, b))
        near.sort(key=lambda row: row[0])
        zone = self._nodes[near[0][2]].zone if near else "vehicle"
        node = self._add(at, zone)
        if not near:
            self._link(node, self.engine)
        for _d, on, a, b in near[: FEET if bay in self._edges else 1]:
            foot = self._add(on, self._nodes[a].zone)
            for end in (node, a, b):
                self._link(foot, end)
        self._known = {}
        return node

    def of(self, thing: AnyThing) -> int:
        """The place of a thing: the middle of it. [mm]"""
        x, y, z = thing.envelope.centre()
        return self.port((x, y, z), thing.bay)

    def way(self, a: int, b: int, slack: float = 0.0) -> Way:
        """The shortest way between two places.

        Args:
            slack: Further length for what moves. [mm]
        """
        if a not in self._known:
            self._known[a] = self._from(a)
        far, before = self._known[a]
        chain = [b]
        while chain[-1] != a and before[chain[-1]] >= 0:
            chain.append(before[chain[-1]])
        chain.reverse()
        zones = [self._nodes[n].zone for n in chain]
        plugs = []
        for one, other in itertools.pairwise(zones):
            if one != other and self._off:
                plugs.append(" | ".join(sorted((one, other), reverse=True)))
        points = tuple(self._nodes[n].at for n in chain)
        return Way(points, (far[b] + 2 * END_SLACK + slack) / 1000.0, tuple(plugs))

    def _from(self, a: int) -> tuple[list[float], list[int]]:
        """Distances from a node to all, and what lies before each (Dijkstra, 1959).

        Ten lines of our own: SciPy's graphs take longer to read than the window to open; the tests hold it against them.
        """
        beside: list[list[tuple[int, float]]] = [[] for _ in self._nodes]
        for one, other, long in self._links:
            beside[one].append((other, long))
            beside[other].append((one, long))
        far, before = [math.inf] * len(self._nodes), [-1] * len(self._nodes)
        far[a] = 0.0
        reached = [(0.0, a)]
        while reached:
            long, node = heapq.heappop(reached)
            if long > far[node]:
                continue
            for other, step in beside[node]:
                if long + step < far[other]:
                    far[other], before[other] = long + step, node
                    heapq.heappush(reached, (long + step, other))
        return far, before


def _far(a: Point, b: Point) -> float:
    """How far it is along the axes, as runs are laid. [mm]"""
    return abs(a[0] - b[0]) + abs(a[1] - b[1]) + abs(a[2] - b[2])


def _nearest(p: Point, a: Point, b: Point) -> Point:
    """The point of a box's edge, along an axis from its lower to its upper end, nearest to another. [mm]"""
    return (min(max(p[0], a[0]), b[0]), min(max(p[1], a[1]), b[1]), min(max(p[2], a[2]), b[2]))


def moving_slack(thing: AnyThing) -> float:
    """By how much a lead has to follow what opens: the way of its middle from closed to open. [mm]"""
    found = 0.0
    for opening in thing.openings:
        if opening.turns and not any(s.verb == "lower" for s in opening.motion.steps):
            continue
        a, b = opening.rest_box, opening.opened_box
        found = max(found, math.dist((a[0], a[1], a[2]), (b[0], b[1], b[2])))
    return found * SWING_SLACK
