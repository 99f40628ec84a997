"""What is drawn on the faces of solids in the round: fronts of units, seams and lamps of the vehicle, rims of wheels.

The same strokes as in the elevations, carried into space onto the plane that one looks at there.
"""

import math

import msgspec

from roomy_hull.assembly.motions import Opening
from roomy_hull.assembly.things import Thing
from roomy_hull.core.geometry.motion import Piece
from roomy_hull.core.primitives import Disc, Lines, Outline, Panel, Point, Scene
from roomy_hull.drawing.scenes import vehicle as vehicle_scene
from roomy_hull.job.carried import Carried
from roomy_hull.job.vehicle import Vehicle
from roomy_hull.kinds.registry import kind_of
from roomy_hull.kit.body.canopy import BayPlace

Corner = tuple[float, float, float]
CORNERS = 20
"""Of a disc."""
NEAR = 1.0
"""A face that is no further than this from a drawing's plane bears it. [mm]"""
ON_SIDES = frozenset({"seam", "handle", "trim", "lamp", "lamp red"})
ON_NOSE = frozenset({"trim", "lamp", "plate"})


class Mark(msgspec.Struct, frozen=True):
    """A stroke in space: its role, its corners [mm], and whether it is an area."""

    role: str
    corners: tuple[Corner, ...]
    closed: bool


class Drawn(msgspec.Struct, frozen=True):
    """Marks on a plane across an axis: which one, whether it faces to its far end, and where along it. [mm]"""

    axis: int
    far: bool
    at: float
    marks: tuple[Mark, ...]

    def on(self, normal: Corner, offset: float) -> bool:
        """Say whether a face, by its outward normal and its distance along it, bears them."""
        towards = normal[self.axis] * (1 if self.far else -1)
        return towards > 0.999 and abs(offset - (self.at if self.far else -self.at)) < NEAR


def _shapes(scene: Scene) -> list[tuple[str, list[Point], bool]]:
    """The strokes of a scene as corners; words stay away."""
    found: list[tuple[str, list[Point], bool]] = []
    for s in scene:
        if isinstance(s, Outline):
            found.append((s.role, list(s.points), s.closed))
        elif isinstance(s, Panel):
            found.append((s.role, [(s.h0, s.k0), (s.h1, s.k0), (s.h1, s.k1), (s.h0, s.k1)], True))
        elif isinstance(s, Lines):
            found += [(s.role, list(piece), False) for piece in s.pieces]
        elif isinstance(s, Disc):
            turns = (math.tau * n / CORNERS for n in range(CORNERS))
            h, k = s.centre
            found.append((
                s.role,
                [(h + s.radius * math.cos(t), k + s.radius * math.sin(t)) for t in turns],
                True,
            ))
    return found


def _shift(opening: Opening) -> Corner | None:
    """By how much an opening has gone when it is open; nothing where it also turns. [mm]"""
    if opening.turns:
        return None
    a, b = opening.rest_box, opening.opened_box
    return (b[0] - a[0], b[1] - a[1], b[2] - a[2])


def front(thing: Thing, opened: frozenset[str]) -> Drawn | None:
    """The front of a unit in its bay, closed or pulled out.

    Args:
        thing: A unit; its elevation is what its kind draws.
    Returns: Its strokes on the plane of its foremost face; nothing where it has no front, or that has turned away.
    """
    place, value = thing.place, thing.value
    if place is None or isinstance(value, Carried) or not thing.expansion.elevation:
        return None
    if kind_of(value).open_front:
        return None
    by: Corner | None = (0.0, 0.0, 0.0)
    for opening in thing.openings:
        if opening.id in opened:
            by = _shift(opening)
    return _on_plane(thing, place, by) if by is not None else None


def _on_plane(thing: Thing, place: BayPlace, by: Corner) -> Drawn:
    """A unit's elevation in space, on its foremost plane, moved by so much."""
    e, frame = thing.in_bay, place.frame

    def at(p: Point) -> Corner:
        x, y, z = frame.point(e.x0 + p[0], e.y0, e.z0 + p[1])
        return (x + by[0], y + by[1], z + by[2])

    marks = tuple(
        Mark(role, tuple(at(p) for p in points), closed)
        for role, points, closed in _shapes(thing.expansion.elevation)
    )
    axis = 0 if frame.side == "rear" else 1
    return Drawn(axis, frame.side != "left", at((0.0, 0.0))[axis], marks)


def vehicle(v: Vehicle) -> tuple[Drawn, ...]:
    """What is drawn on a vehicle's sides and nose.

    Returns: Seams, handles and lamps on both sides, lamps and grille in front. [mm]
    """
    half = v.shape.width / 2
    found = []
    seen = tuple(s for s in vehicle_scene.side(v, 1) if s.role in ON_SIDES)
    for y, far in ((-half, False), (half, True)):
        marks = tuple(
            Mark(role, tuple((h, y, k) for h, k in points), closed)
            for role, points, closed in _shapes(seen)
        )
        found.append(Drawn(1, far, y, marks))
    nose = tuple(s for s in vehicle_scene.end(v, rear=False) if s.role in ON_NOSE)
    marks = tuple(
        Mark(role, tuple((-v.shape.front, h, k) for h, k in points), closed)
        for role, points, closed in _shapes(nose)
    )
    found.append(Drawn(0, False, -v.shape.front, marks))
    return tuple(found)


def wheel(piece: Piece, tyre: str) -> tuple[Drawn, ...]:
    """Rim and spokes on both faces of a wheel.

    Args:
        piece: The tyre, a prism along its axle. [mm]
    """
    box, axis = piece.box, piece.axis
    a, b = (n for n in range(3) if n != axis)
    centre = ((box[a] + box[a + 3]) / 2, (box[b] + box[b + 3]) / 2)
    shapes = [s for s in _shapes(tuple(vehicle_scene.wheel(centre, tyre))) if s[0] != "tyre"]
    found = []
    for at, far in ((piece.lo, False), (piece.hi, True)):
        marks = []
        for role, points, closed in shapes:
            corners = []
            for p in points:
                corner = [at, at, at]
                corner[a], corner[b] = p
                corners.append((corner[0], corner[1], corner[2]))
            marks.append(Mark(role, tuple(corners), closed))
        found.append(Drawn(axis, far, at, tuple(marks)))
    return tuple(found)
