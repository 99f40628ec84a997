"""The job in the round: coloured prisms, and their faces cut into an order that paints right from anywhere.

Faces are put into a binary space partition (Fuchs, Kedem & Naylor, 1980): each face's plane divides the
others, and those that it crosses are cut. Walked from the far side to the near one, every view comes out
right, see-through and crossing parts too.
"""

from __future__ import annotations

import itertools
import math
from typing import TYPE_CHECKING

import msgspec

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.assembly.things import Thing
from roomy_hull.core import lazily
from roomy_hull.core.geometry.motion import PLANE, Piece, block, round_piece
from roomy_hull.core.geometry.solids import Box, hull
from roomy_hull.drawing.scenes import on_faces, vehicle_solid
from roomy_hull.drawing.scenes.on_faces import Drawn
from roomy_hull.drawing.scenes.partition import Face, Node, far_to_near
from roomy_hull.job.carried import Carried
from roomy_hull.kinds.registry import kind_of

if TYPE_CHECKING:
    import numpy as np
    import numpy.typing as npt

    Array = npt.NDArray[np.float64]
else:
    np = lazily.module("numpy")


class Item(msgspec.Struct, frozen=True):
    """A prism with its role (a colour of the theme), how solid it looks (0 to 1), whose it is.

    And what is drawn on its faces; the edges of a `smooth` one are only seen where no other goes on in its plane.
    """

    piece: Piece
    role: str
    solid: float = 1.0
    tag: str = ""
    name: str = ""
    drawn: tuple[Drawn, ...] = ()
    smooth: bool = False


def items(assembly: Assembly, opened: frozenset[str]) -> list[Item]:
    """Everything in the job as prisms.

    Args:
        assembly: The job in vehicle axes. [mm]
    """
    found = _vehicle(assembly) + _body(assembly)
    for opening in assembly.ground.openings:
        is_open = opening.id in opened
        pieces = opening.opened if is_open else opening.rest
        found += [
            Item(p, "canopy", 0.8 if is_open else 0.22, opening.id, opening.name) for p in pieces
        ]
    for thing in assembly.things:
        found += _thing(thing, opened, assembly.job.vehicle.tyre)
    return found


def _vehicle(assembly: Assembly) -> list[Item]:
    """The vehicle as one knows it, its wheels, its chassis, and its shadow."""
    vehicle = assembly.job.vehicle
    s, half = vehicle.shape, vehicle.shape.width / 2
    ends = (max(vehicle.chassis_end, s.rear), *(p.box.x1 for p in assembly.ground.tray))
    shade = vehicle_solid.shadow(Box(-s.front, -half, 0.0, max(ends), half, 0.0))
    found = [Item(p.piece, p.role, p.solid, name=p.words) for p in shade]
    drawn = on_faces.vehicle(vehicle)
    for p in vehicle_solid.parts(vehicle):
        skin = p.role == "cab" and p.solid >= 1
        found.append(
            Item(p.piece, p.role, p.solid, name=p.words, drawn=drawn if skin else (), smooth=skin)
        )
    for still in assembly.ground.fixed:
        if still.role == "wheel":
            rims = on_faces.wheel(still.piece, vehicle.tyre)
            found.append(Item(still.piece, "tyre", name=still.ref.id, drawn=rims))
    frame = [(y, -1) for y in (-vehicle.rail_spread / 2, vehicle.rail_spread / 2)]
    if vehicle.kind == "cab-chassis":
        for y, _ in frame:
            rail = Box(
                0.0,
                y - 30,
                vehicle.rail_top - vehicle.rail_depth,
                vehicle.chassis_end,
                y + 30,
                vehicle.rail_top,
            )
            found.append(Item(block(rail), "steel", name="chassis rail"))
    return found


def _body(assembly: Assembly) -> list[Item]:
    """Tray and canopy: what never moves of them, as it is judged."""
    ground, body = assembly.ground, assembly.job.body
    shown = (p for p in ground.tray if p.role not in ("side", "tail", "trundle"))
    found = [Item(block(p.box), "tray", name=p.words) for p in shown]
    box = ground.canopy
    outside = {"rack": "steel", "mudguard": "tray"}
    found += [
        Item(still.piece, outside[still.role], name=still.ref.id)
        for still in ground.fixed
        if still.role in outside
    ]
    found += [
        Item(still.piece, "canopy", 0.5, name=still.ref.id)
        for still in ground.fixed
        if still.role == "alcove"
    ]
    if (box is None or body.canopy is None) and not ground.rooms_there:
        return found
    # See-through where one wants to look in: the roof, and the wall ahead of the bays.
    see = {"roof": 0.3, "wall": 0.85}
    for still in ground.fixed:
        if still.ref.kind == "canopy piece" and still.role != "alcove":
            solid = 0.5 if still.side == "front" else see.get(still.role, 1.0)
            found.append(Item(still.piece, "canopy", solid, name=still.ref.id))
    if box is not None and body.canopy is not None and body.canopy.base:
        low = box.z0 + body.canopy.base
        for y in (box.y0, box.y1 - 30):
            wall = Box(box.x0, y, box.z0, box.x1, y + 30, low)
            found.append(Item(block(wall), "cab", 0.4, name="tub wall"))
    return found


def _thing(thing: Thing, opened: frozenset[str], tyre: str) -> list[Item]:
    """A unit or carried thing: one block while it is closed, its true boxes where it is open."""
    value, name = thing.value, thing.name
    if isinstance(value, Carried):
        role = {"spare wheel": "tyre", "jerry": "jerry", "tent": "canvas", "awning": "canvas"}.get(
            value.kind, "load"
        )
        found = []
        if not any(o.id in opened and thing.expansion.solids[0].moves for o in thing.openings):
            whole = block(thing.envelope)
            if value.kind == "spare wheel":
                e = thing.envelope
                centre = ((e.y0 + e.y1) / 2, (e.z0 + e.z1) / 2)
                whole = round_piece(0, centre, (e.z1 - e.z0) / 2, e.x0, e.x1)
            rims = on_faces.wheel(whole, tyre) if value.kind == "spare wheel" else ()
            found.append(Item(whole, role, tag=thing.id, name=name, drawn=rims))
        for o in thing.openings:
            if o.id in opened:
                found += [Item(p, role, 0.45 if value.kind in ("tent", "awning", "shower tent") else 1.0, thing.id, name)
                          for p in o.opened]  # fmt: skip
        return found
    is_open = any(o.id in opened for o in thing.openings)
    face = on_faces.front(thing, opened)
    drawn = (face,) if face is not None else ()
    if not is_open and not kind_of(value).open_front:
        return [Item(block(thing.envelope), _role(thing), tag=thing.id, name=name, drawn=drawn)]
    found = []
    for solid, box in zip(thing.expansion.solids, thing.solids, strict=True):
        if not solid.moves or not thing.openings:
            see = 0.35 if solid.role == "contents" else 1.0
            found.append(Item(block(box), _by_role(solid.role), see, thing.id, name))
    for o in thing.openings:
        pieces = o.opened if o.id in opened else o.rest
        found += [Item(p, _role(thing), 1.0, thing.id, name, drawn) for p in pieces]
    return found


def _by_role(role: str) -> str:
    """The colour role of a solid."""
    return {
        "made": "front",
        "front": "front",
        "bought": "bought",
        "tank": "water",
        "contents": "load",
    }.get(role, "front")


def _role(thing: Thing) -> str:
    """The colour role of a whole unit: that of its largest solid."""
    largest = max(thing.expansion.solids, key=lambda s: s.box.volume(), default=None)
    if largest is None or largest.role in ("contents", "made", "front"):
        return "front"
    return _by_role(largest.role)


# Faces


def faces(found: list[Item]) -> list[Face]:
    """The faces of prisms, their normals outwards. [mm]"""
    made: list[Face] = []
    skins: list[Face] = []
    for n, item in enumerate(found):
        piece = item.piece
        ring = piece.ring
        low = np.zeros((len(ring), 3))
        low[:, PLANE[piece.axis]] = ring
        high = low.copy()
        low[:, piece.axis], high[:, piece.axis] = piece.lo, piece.hi
        centre = (low.mean(axis=0) + high.mean(axis=0)) / 2
        count = len(ring)
        sides = [
            np.array([low[i], low[(i + 1) % count], high[(i + 1) % count], high[i]])
            for i in range(count)
        ]
        for face in (low, high, *sides):
            corners = face
            (a0, a1, a2), (b0, b1, b2) = (corners[1:3] - corners[0]).tolist()
            normal = np.array([a1 * b2 - a2 * b1, a2 * b0 - a0 * b2, a0 * b1 - a1 * b0])
            long = math.sqrt(float(normal @ normal))
            if long < 1e-6:
                continue
            normal /= long
            if float(normal @ (corners[0] - centre)) < 0:
                corners, normal = corners[::-1], -normal
            made.append(Face(corners, [True] * len(corners), normal, float(normal @ corners[0]), n))
            if item.smooth:
                skins.append(made[-1])
    inner = join(skins)
    return [face for face in made if id(face) not in inner]


ALONG = 0.5
"""What is nearer to an edge than this lies on it. [mm]"""


def join(skins: list[Face]) -> set[int]:
    """Have no edge where one face goes on in the plane of another, and find those that lie between two solids.

    Args:
        skins: Those of one skin, of any number of solids; their corners and edges are changed. [mm]
    Returns: The identities of the faces that lie wholly on another which looks the other way.
    """
    planes: dict[tuple[int, ...], list[Face]] = {}
    for face in skins:
        key = (*(round(v * 1e3) for v in face.normal.tolist()), round(face.offset))
        planes.setdefault(key, []).append(face)
    inner: set[int] = set()
    for key, group in planes.items():
        other_way = planes.get(tuple(-k for k in key), [])
        inner |= {id(face) for face in group if any(_covers(o, face) for o in other_way)}
        if len(group) > 1:
            _divide(group)
            _hide(group)
    return inner


def _covers(one: Face, other: Face) -> bool:
    """Say whether the box around a face holds another in its plane."""
    low, high = one.corners.min(axis=0) - ALONG, one.corners.max(axis=0) + ALONG
    return bool(((other.corners >= low) & (other.corners <= high)).all())


def _divide(group: list[Face]) -> None:
    """Give the faces of a plane further corners where others' corners lie on their edges."""
    points = np.concatenate([face.corners for face in group])
    begin = points[:, None]
    end = np.concatenate([np.roll(face.corners, -1, axis=0) for face in group])[:, None]
    # Every edge by every corner.
    long = np.sqrt(((end - begin) ** 2).sum(axis=2))
    from_a, to_b = (np.sqrt(((points - e) ** 2).sum(axis=2)) for e in (begin, end))
    on = (from_a > ALONG) & (to_b > ALONG) & (from_a + to_b < long + 1e-3)
    at = 0
    for face in group:
        edges = range(at, at + len(face.corners))
        at = edges.stop
        if on[edges].any():
            corners: list[Array] = []
            for e in edges:
                between = {round(float(from_a[e, n]), 1): points[n] for n in np.flatnonzero(on[e])}
                corners += [points[e], *(between[t] for t in sorted(between))]
            face.corners, face.edges = np.array(corners), [True] * len(corners)


def _hide(group: list[Face]) -> None:
    """Hide the edges that two faces of a plane share."""
    seen: dict[tuple[tuple[int, ...], tuple[int, ...]], list[tuple[Face, int]]] = {}
    for face in group:
        whole = [tuple(c) for c in np.round(face.corners * 4).astype(int).tolist()]
        for n, a in enumerate(whole):
            b = whole[(n + 1) % len(whole)]
            seen.setdefault((min(a, b), max(a, b)), []).append((face, n))
    for rows in seen.values():
        if len(rows) > 1:
            for face, n in rows:
                face.edges[n] = False


def directions(yaw: float, pitch: float) -> tuple[Array, Array, Array]:
    """The picture's right, up and towards-the-eye directions for an orthographic view.

    Args:
        yaw, pitch: Where the eye is: round the vehicle from behind, and above the horizon. [degrees]
    """
    a, b = math.radians(yaw), math.radians(pitch)
    eye = np.array([math.cos(b) * math.cos(a), math.cos(b) * math.sin(a), math.sin(b)])
    right = np.array([-math.sin(a), math.cos(a), 0.0])
    return right, np.cross(eye, right), eye


def bounds(
    found: list[Item], yaw: float, pitch: float
) -> tuple[tuple[float, float], tuple[float, float]]:
    """Around everything, closed and open, as it is seen: least and greatest right and up. [mm]"""
    around = hull(item.piece.box for item in found)
    right, up, _eye = directions(yaw, pitch)
    corners = np.array(list(itertools.product(*zip(around[:3], around[3:], strict=True))))
    flat = corners @ np.array([right, up]).T
    (h0, k0), (h1, k1) = flat.min(axis=0).tolist(), flat.max(axis=0).tolist()
    return (h0, k0), (h1, k1)


def flattened(
    shapes: list[tuple[tuple[float, float, float], ...]], yaw: float, pitch: float
) -> list[list[list[float]]]:
    """Lay shapes in space flat, as an eye far away sees them.

    Args:
        shapes: Their corners. [mm]
        yaw, pitch: Where the eye is. [°]
    Returns: The corners of each. [mm]
    """
    right, up, _eye = directions(yaw, pitch)
    ends = list(itertools.accumulate(len(s) for s in shapes))
    rows = np.array([c for s in shapes for c in s])
    flat = (rows @ np.array([right, up]).T).tolist() if len(rows) else []
    return [flat[a:b] for a, b in itertools.pairwise([0, *ends])]


class Seen(msgspec.Struct, frozen=True):
    """A face as it is seen: how far it faces the eye and the light (cosines), its corners right and up. [mm]"""

    face: Face
    facing: float
    lit: float
    corners: list[list[float]]


def seen(root: Node, yaw: float, pitch: float, light: tuple[float, float, float]) -> list[Seen]:
    """What an eye far away sees, the far faces first.

    Args:
        yaw, pitch: Where the eye is. [°]
    """
    right, up, eye = directions(yaw, pitch)
    towards = np.array(light) / math.sqrt(sum(c * c for c in light))
    ordered = far_to_near(root, eye)
    normals = np.array([face.normal for face in ordered])
    # All corners of all faces in one go.
    flat = (np.concatenate([face.corners for face in ordered]) @ np.array([right, up]).T).tolist()
    found, end = [], 0
    for face, facing, lit in zip(
        ordered, (normals @ eye).tolist(), (normals @ towards).tolist(), strict=True
    ):
        start, end = end, end + len(face.corners)
        found.append(Seen(face, facing, lit, flat[start:end]))
    return found
