"""Folded parts: a tree of flat faces joined by bends, unfolded on the flat and folded up in space.

A face is what stays flat: it ends at the tangent lines of its bends. Its ring is counter-clockwise as seen from
the side to which a bend of a positive angle turns up; the sheet's outer surface is at z = 0 and its inner one a
sheet's thickness above. A bend stands at one edge of its face; the face beyond it has that edge as its first one,
from its own origin along x, and grows along y.
"""

import math
from typing import NamedTuple

import msgspec

from roomy_hull.core.errors import InputError
from roomy_hull.core.mechanics.bends import bend_allowance

Point = tuple[float, float]
Vector = tuple[float, float, float]


class Hole(msgspec.Struct, frozen=True):
    """A round hole in a face, in the face's directions. [mm]"""

    x: float
    y: float
    diameter: float


class Cutout(msgspec.Struct, frozen=True):
    """A rectangular opening in a face, from its lower left corner. [mm]"""

    x: float
    y: float
    length: float
    width: float
    radius: float = 0.0


class Face(msgspec.Struct, frozen=True):
    """A flat face with what is bent on to it.

    Attributes:
        ring: Its outline, counter-clockwise. [mm]
        holes, cutouts: Its openings.
        bends: What goes on beyond its edges, each at an edge of its own.
    """

    ring: tuple[Point, ...]
    holes: tuple[Hole, ...] = ()
    cutouts: tuple[Cutout, ...] = ()
    bends: tuple["Bend", ...] = ()


class Bend(msgspec.Struct, frozen=True):
    """A bend from one face to the next.

    Attributes:
        edge: The edge of the face before it: from that corner of its ring to the next.
        angle: By how much the sheet is bent: up where it is positive; 180 for a hem. [degrees]
        radius: Inside radius. [mm]
        face: What lies beyond it.
    """

    edge: int
    angle: float
    radius: float
    face: Face


class Place(NamedTuple):
    """Where a face lies: its origin and its three directions, in the root's. [mm]"""

    origin: Vector
    x: Vector
    y: Vector
    z: Vector

    def at(self, p: Point, z: float = 0.0) -> Vector:
        """Carry a point of the face, some height above its outer surface. [mm]"""
        o, a, b, c = self
        return (
            o[0] + a[0] * p[0] + b[0] * p[1] + c[0] * z,
            o[1] + a[1] * p[0] + b[1] * p[1] + c[1] * z,
            o[2] + a[2] * p[0] + b[2] * p[1] + c[2] * z,
        )


ROOT = Place((0.0, 0.0, 0.0), (1.0, 0.0, 0.0), (0.0, 1.0, 0.0), (0.0, 0.0, 1.0))


def setback(angle: float, radius: float, thickness: float) -> float:
    """How far a bend's tangent line lies from the outside corner, or for a hem from its outermost line.

    Args:
        angle: By how much the sheet is bent. [degrees]
        radius, thickness: Inside radius and sheet. [mm]
    Returns: (R + T) tan(A/2) up to a right angle; beyond it, R + T to the bend's outermost line. [mm]
    """
    turn = min(abs(angle), 90.0)
    return (radius + thickness) * math.tan(math.radians(turn) / 2)


def ends_of(face: Face, bend: Bend) -> tuple[Point, Point]:
    """The edge of a face at which a bend stands. [mm]"""
    return face.ring[bend.edge], face.ring[(bend.edge + 1) % len(face.ring)]


def beyond(place: Place, face: Face, bend: Bend, thickness: float, k: float | None) -> Place:
    """The place of the face beyond a bend.

    Args:
        place, face: The face before it, and where that lies.
        thickness: Of the sheet. [mm]
        k: The neutral line's part of the thickness: then flat; none: folded up.
    """
    p, q = ends_of(face, bend)
    long = math.dist(p, q)
    back = ((p[0] - q[0]) / long, (p[1] - q[1]) / long)  # the next face's x, from q to p
    out = (-back[1], back[0])  # its y while it is flat
    turn, r = math.radians(abs(bend.angle)), bend.radius
    if k is not None:
        across, up = bend_allowance(abs(bend.angle), r, thickness, k), 0.0
        c, s = 1.0, 0.0
    else:
        c, s = math.cos(turn), math.sin(turn)
        if bend.angle > 0:
            across, up = (r + thickness) * s, (r + thickness) * (1 - c)
        else:
            across, up, s = r * s, r * (c - 1), -s
    origin = place.at((q[0] + out[0] * across, q[1] + out[1] * across), up)
    x = _direction(place, back)
    flat_out = _direction(place, out)
    y = tuple(flat_out[n] * c + place.z[n] * s for n in range(3))
    z = tuple(place.z[n] * c - flat_out[n] * s for n in range(3))
    return Place(origin, x, y, z)  # type: ignore[arg-type]  # three each


def _direction(place: Place, d: Point) -> Vector:
    """A direction of a face in the root's."""
    return tuple(place.x[n] * d[0] + place.y[n] * d[1] for n in range(3))  # type: ignore[return-value]


class Placed(NamedTuple):
    """A face in its place, with the bend that leads to it; none for the root."""

    face: Face
    place: Place
    before: Bend | None


def places(
    root: Face, thickness: float, place: Place = ROOT, before: Bend | None = None
) -> list[Placed]:
    """Every face of a part folded up, the root first.

    Args:
        thickness: Of the sheet. [mm]
    Returns: In the order of the tree.
    """
    found = [Placed(root, place, before)]
    for bend in root.bends:
        found += places(bend.face, thickness, beyond(place, root, bend, thickness, None), bend)
    return found


def with_holes(root: Face, drilled: tuple[tuple[int, Hole], ...]) -> Face:
    """A part with more holes in its faces.

    Args:
        drilled: In which face, as `places` counts them, and where in it. [mm]
    """
    by_face: dict[int, list[Hole]] = {}
    for number, hole in drilled:
        by_face.setdefault(number, []).append(hole)
    count = 0

    def walk(face: Face) -> Face:
        nonlocal count
        holes = (*face.holes, *by_face.get(count, ()))
        count += 1
        bends = tuple(Bend(b.edge, b.angle, b.radius, walk(b.face)) for b in face.bends)
        return Face(face.ring, holes, face.cutouts, bends)

    return walk(root)


def shoelace(ring: tuple[Point, ...]) -> float:
    """The area in a ring, positive counter-clockwise. [mm²]"""
    return 0.5 * sum(
        a[0] * b[1] - b[0] * a[1] for a, b in zip(ring, ring[1:] + ring[:1], strict=True)
    )


def prisms(root: Face, thickness: float) -> list[list[Vector]]:
    """A part folded up: each face as the corners of a prism of the sheet's thickness, out to its bends' corners.

    Args:
        thickness: Of the sheet. [mm]
    Returns:
        The outer ring of each face, then its inner one: at a bend the face goes on to the outside corner, so that
        these hold all the sheet there is. [mm]
    """
    return [
        [at.place.at(p, z) for z in (0.0, thickness) for p in to_corners(at.face, at.before, thickness)]
        for at in places(root, thickness)
    ]  # fmt: skip


def to_corners(face: Face, before: Bend | None, thickness: float) -> list[Point]:
    """A face's ring, each edge with a bend moved out to the outside corner.

    Args:
        before: The bend that leads to it, at its first edge.
        thickness: Of the sheet. [mm]
    Returns: Straight out from each such edge; where two meet, out to both. [mm]
    """
    count = len(face.ring)
    out = [0.0] * count
    for bend in face.bends:
        out[bend.edge] = setback(bend.angle, bend.radius, thickness)
    if before is not None:
        out[0] = setback(before.angle, before.radius, thickness)
    if not any(out):
        return list(face.ring)
    found: list[Point] = []
    for n, p in enumerate(face.ring):
        (ax, ay), (bx, by) = face.ring[n - 1], face.ring[(n + 1) % count]
        d, e = _unit(p[0] - ax, p[1] - ay), _unit(bx - p[0], by - p[1])
        turn = d[0] * e[1] - d[1] * e[0]
        i, j = out[n - 1], out[n]
        if i and j and abs(turn) > 1e-9:
            # Along each edge by what the other one is moved out.
            found.append((p[0] + (d[0] * j - e[0] * i) / turn, p[1] + (d[1] * j - e[1] * i) / turn))
            continue
        found += [(p[0] + d[1] * i, p[1] - d[0] * i)] if i else []
        found.append(p)
        found += [(p[0] + e[1] * j, p[1] - e[0] * j)] if j else []
    return found


def _unit(x: float, y: float) -> Point:
    # Two corners in one place have no direction between them: what is so small is told elsewhere.
    long = math.hypot(x, y) or 1.0
    return (x / long, y / long)


def mirrored(face: Face, about: float) -> Face:
    """A part's mirror image along x: what it is bent of lies the other way round.

    Args:
        about: Its length: x becomes this less x. [mm]
    """
    count = len(face.ring)
    # Round the other way, and still from the edge at which it stands.
    order = [1, 0, *range(count - 1, 1, -1)]
    ring = tuple((about - face.ring[n][0], face.ring[n][1]) for n in order)
    bends = []
    for bend in face.bends:
        long = math.dist(*ends_of(face, bend))
        bends.append(
            Bend(order.index((bend.edge + 1) % count), bend.angle, bend.radius, mirrored(bend.face, long))
        )  # fmt: skip
    return Face(ring, *mirrored_openings(face.holes, face.cutouts, about), tuple(bends))


def mirrored_openings(
    holes: tuple[Hole, ...], cutouts: tuple[Cutout, ...], about: float
) -> tuple[tuple[Hole, ...], tuple[Cutout, ...]]:
    """Openings in a face's mirror image along x, where x becomes `about` less x. [mm]"""
    return (
        tuple(Hole(about - h.x, h.y, h.diameter) for h in holes),
        tuple(Cutout(about - c.x - c.length, c.y, c.length, c.width, c.radius) for c in cutouts),
    )


def checked(root: Face, name: str) -> Face:
    """Refuse a tree that is no part.

    Raises:
        InputError: A ring is no ring or is clockwise, two bends stand at one edge, or a face does not begin at its
            bend.
    """
    for face, _place, _before in places(root, 1.0):
        if len(face.ring) < 3 or shoelace(face.ring) <= 0:
            raise InputError("a face has no area", name, "Make what it belongs to larger.")
        edges = [b.edge for b in face.bends]
        if len(set(edges)) < len(edges) or not all(0 <= e < len(face.ring) for e in edges):
            raise InputError("two bends stand at one edge", name, "Give each an edge of its own.")
        for bend in face.bends:
            long = math.dist(*ends_of(face, bend))
            first, second = bend.face.ring[:2]
            if math.dist(first, (0.0, 0.0)) > 1e-6 or math.dist(second, (long, 0.0)) > 1e-6:
                raise InputError("a face does not begin at its bend", name, "Begin its ring there.")
    return root
