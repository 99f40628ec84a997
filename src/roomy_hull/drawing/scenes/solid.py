"""The job in the round: coloured prisms, and their faces cut into an order that paints right from anywhere.

Faces are put into a binary space partition (Fuchs, Kedem & Naylor, 1980): each face's plane divides the
others, and those that it crosses are cut. Walked from the far side to the near one, every view comes out
right, see-through and crossing parts too.
"""

from __future__ import annotations

import math
from typing import TYPE_CHECKING, Any

import msgspec

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.assembly.things import Thing
from roomy_hull.core import lazily
from roomy_hull.core.geometry.motion import PLANE, Piece, block, prism, round_piece
from roomy_hull.core.geometry.solids import Box
from roomy_hull.job.carried import Carried
from roomy_hull.kinds.registry import kind_of

if TYPE_CHECKING:
    import numpy as np
    import numpy.typing as npt

    Array = npt.NDArray[np.float64]
else:
    np = lazily.module("numpy")

EPS = 0.02
"""What is nearer to a plane than this lies in it. [mm]"""
TRIES = 7


class Item(msgspec.Struct, frozen=True):
    """A prism with its role (a colour of the theme), how solid it looks (0 to 1), and whose it is."""

    piece: Piece
    role: str
    solid: float = 1.0
    tag: str = ""
    name: str = ""


def items(assembly: Assembly, opened: frozenset[str]) -> list[Item]:
    """Everything in the job as prisms.

    Parameters
    ----------
    assembly : Assembly
        The job in vehicle axes. [mm]
    opened : frozenset of str
        Ids of openings that stand open.

    Returns
    -------
    list of Item
        Vehicle, body, doors, units, carried things.
    """
    found = _vehicle(assembly) + _body(assembly)
    for opening in assembly.ground.openings:
        is_open = opening.id in opened
        pieces = opening.opened if is_open else opening.rest
        found += [
            Item(p, "canopy", 0.8 if is_open else 0.22, opening.id, opening.name) for p in pieces
        ]
    for thing in assembly.things:
        found += _thing(thing, opened)
    return found


def _vehicle(assembly: Assembly) -> list[Item]:
    """Cab and wheels."""
    vehicle = assembly.job.vehicle
    s, half = vehicle.shape, vehicle.shape.width / 2
    nose = Box(-s.front, -half, s.sill, s.windscreen, half, s.bonnet)
    lower = Box(s.windscreen, -half, s.sill, vehicle.cab_back, half, s.belt)
    roof = (
        (s.windscreen, s.belt),
        (vehicle.cab_back, s.belt),
        (s.roof_rear, s.height),
        (s.roof_front, s.height),
    )
    found = [Item(block(nose), "cab", name="bonnet"), Item(block(lower), "cab", name="cab")]
    if s.roof_rear > s.roof_front and s.height > s.belt:
        found.append(Item(prism(1, roof, -half + 70, half - 70), "glass", name="cab roof"))
    for still in assembly.ground.fixed:
        if still.role == "wheel":
            found.append(Item(still.piece, "tyre", name=still.ref.id))
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
    """Tray, and canopy as posts, rails and a see-through roof."""
    ground, body = assembly.ground, assembly.job.body
    shown = (p for p in ground.tray if p.role not in ("side", "tail", "trundle"))
    found = [Item(block(p.box), "tray", name=p.words) for p in shown]
    box = ground.canopy
    if box is None or body.canopy is None:
        return found
    low = box.z0 + body.canopy.base
    post = 35.0
    for x in (box.x0, box.x1 - post):
        for y in (box.y0, box.y1 - post):
            found.append(
                Item(
                    block(Box(x, y, low, x + post, y + post, box.z1)), "canopy", name="canopy post"
                )
            )
    top = Box(box.x0, box.y0, box.z1 - 25, box.x1, box.y1, box.z1)
    front = Box(box.x0, box.y0, low, box.x0 + 20, box.y1, box.z1 - 25)
    found += [
        Item(block(top), "canopy", 0.3, name="canopy roof"),
        Item(block(front), "canopy", 0.5, name="canopy front"),
    ]
    if body.canopy.base:
        for y in (box.y0, box.y1 - 30):
            wall = Box(box.x0, y, box.z0, box.x1, y + 30, low)
            found.append(Item(block(wall), "cab", 0.4, name="tub wall"))
    return found


def _thing(thing: Thing, opened: frozenset[str]) -> list[Item]:
    """A unit or carried thing: one block while it is closed, its true boxes where it is open."""
    value, name = thing.value, thing.value.name
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
            found.append(Item(whole, role, tag=thing.id, name=name))
        for o in thing.openings:
            if o.id in opened:
                found += [Item(p, role, 0.45 if value.kind in ("tent", "awning", "shower tent") else 1.0, thing.id, name)
                          for p in o.opened]  # fmt: skip
        return found
    is_open = any(o.id in opened for o in thing.openings)
    if not is_open and not kind_of(value).open_front:
        return [Item(block(thing.envelope), _role(thing), tag=thing.id, name=name)]
    found = []
    for solid, box in zip(thing.expansion.solids, thing.solids, strict=True):
        if not solid.moves or not thing.openings:
            see = 0.35 if solid.role == "contents" else 1.0
            found.append(Item(block(box), _by_role(solid.role), see, thing.id, name))
    for o in thing.openings:
        pieces = o.opened if o.id in opened else o.rest
        found += [Item(p, _role(thing), 1.0, thing.id, name) for p in pieces]
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


class Face(msgspec.Struct):
    """A convex face: corners in space, which of its edges are edges of the solid, its plane and looks."""

    corners: Array
    edges: list[bool]
    normal: Array
    offset: float
    item: int


def faces(found: list[Item]) -> list[Face]:
    """The faces of prisms, their normals outwards. [mm]"""
    made: list[Face] = []
    for n, item in enumerate(found):
        piece = item.piece
        a, b = PLANE[piece.axis]
        ring = piece.ring
        low, high = np.zeros((len(ring), 3)), np.zeros((len(ring), 3))
        low[:, a], low[:, b], low[:, piece.axis] = (
            [p[0] for p in ring],
            [p[1] for p in ring],
            piece.lo,
        )
        high[:, :] = low
        high[:, piece.axis] = piece.hi
        centre = (low.mean(axis=0) + high.mean(axis=0)) / 2
        count = len(ring)
        sides = [
            np.array([low[i], low[(i + 1) % count], high[(i + 1) % count], high[i]])
            for i in range(count)
        ]
        for face in (low, high, *sides):
            corners = face
            normal = np.cross(corners[1] - corners[0], corners[2] - corners[0])
            long = float(np.linalg.norm(normal))
            if long < 1e-6:
                continue
            normal /= long
            if float(normal @ (corners[0] - centre)) < 0:
                corners, normal = corners[::-1], -normal
            made.append(Face(corners, [True] * len(corners), normal, float(normal @ corners[0]), n))
    return made


class Node(msgspec.Struct):
    """A plane with the faces that lie in it, and what is in front of it and behind."""

    normal: Array
    offset: float
    faces: list[Face]
    front: Node | None = None
    back: Node | None = None


def partition(made: list[Face]) -> Node | None:
    """Put faces into a binary space partition.

    Parameters
    ----------
    made : list of Face
        Any faces.

    Returns
    -------
    Node or None
        The root; none for no faces. Faces that a plane crosses are cut in two.
    """
    if not made:
        return None
    root: Node | None = None
    work: list[tuple[list[Face], Node | None, str]] = [(made, None, "")]
    while work:
        group, parent, where = work.pop()
        corners, mask = _packed(group)
        chosen = _splitter(group, corners, mask)
        normal, offset = group[chosen].normal, group[chosen].offset
        heights = corners @ normal - offset
        above = np.where(mask, heights, -np.inf).max(axis=1) > EPS
        below = np.where(mask, heights, np.inf).min(axis=1) < -EPS
        node = Node(normal, offset, [])
        front: list[Face] = []
        back: list[Face] = []
        for i, face in enumerate(group):
            if above[i] and below[i]:
                one, other = _cut(face, normal, offset)
                front.append(one)
                back.append(other)
            elif above[i]:
                front.append(face)
            elif below[i]:
                back.append(face)
            else:
                node.faces.append(face)
        if parent is None:
            root = node
        elif where == "front":
            parent.front = node
        else:
            parent.back = node
        if front:
            work.append((front, node, "front"))
        if back:
            work.append((back, node, "back"))
    return root


def _packed(group: list[Face]) -> tuple[Array, Any]:
    """Pack the corners of faces into one array, and say which places are filled."""
    most = max(len(f.corners) for f in group)
    corners = np.zeros((len(group), most, 3))
    mask = np.zeros((len(group), most), dtype=bool)
    for i, face in enumerate(group):
        k = len(face.corners)
        corners[i, :k], mask[i, :k] = face.corners, True
    return corners, mask


def _splitter(group: list[Face], corners: Array, mask: Any) -> int:
    """Choose the face whose plane cuts the fewest others and divides them most evenly, out of a few."""
    if len(group) < 3:
        return 0
    step = max(1, len(group) // TRIES)
    best, at = math.inf, 0
    for i in range(0, len(group), step):
        heights = corners @ group[i].normal - group[i].offset
        above = np.where(mask, heights, -np.inf).max(axis=1) > EPS
        below = np.where(mask, heights, np.inf).min(axis=1) < -EPS
        cost = 6.0 * float((above & below).sum()) + abs(float(above.sum()) - float(below.sum()))
        if cost < best:
            best, at = cost, i
    return at


def _cut(face: Face, normal: Array, offset: float) -> tuple[Face, Face]:
    """Cut a face along a plane into its part in front and its part behind."""
    heights = face.corners @ normal - offset
    parts: tuple[list[Array], list[Array]] = ([], [])
    edges: tuple[list[bool], list[bool]] = ([], [])
    count = len(face.corners)
    for i in range(count):
        j = (i + 1) % count
        p, q, h, g = face.corners[i], face.corners[j], heights[i], heights[j]
        for side, sign in ((0, 1), (1, -1)):
            if sign * h >= -EPS:
                parts[side].append(p)
                # The edge stays one of the solid unless it leaves this side here, along the cut.
                edges[side].append(face.edges[i] if sign * g >= -EPS or sign * h > EPS else False)
        if (h > EPS and g < -EPS) or (h < -EPS and g > EPS):
            middle = p + (q - p) * (h / (h - g))
            for side, sign in ((0, 1), (1, -1)):
                parts[side].append(middle)
                edges[side].append(face.edges[i] if sign * g > 0 else False)
    made = [Face(np.array(parts[s]), edges[s], face.normal, face.offset, face.item) for s in (0, 1)]
    return made[0], made[1]


def far_to_near(root: Node | None, towards: Array) -> list[Face]:
    """Walk a partition from the far side to the near one.

    Parameters
    ----------
    root : Node or None
        The partition.
    towards : array of 3
        Direction towards the eye.

    Returns
    -------
    list of Face
        In the order to be painted.
    """
    found: list[Face] = []
    work: list[Node | list[Face]] = [root] if root is not None else []
    while work:
        node = work.pop()
        if isinstance(node, list):
            found += node
            continue
        near_side = float(node.normal @ towards) > 0
        near, far = (node.front, node.back) if near_side else (node.back, node.front)
        if near is not None:
            work.append(near)
        work.append(node.faces)
        if far is not None:
            work.append(far)
    return found


def directions(yaw: float, pitch: float) -> tuple[Array, Array, Array]:
    """The picture's right, up and towards-the-eye directions for an orthographic view.

    Parameters
    ----------
    yaw, pitch : float
        Where the eye is: round the vehicle from behind, and above the horizon. [degrees]

    Returns
    -------
    (array, array, array)
        Three unit vectors in vehicle axes.
    """
    a, b = math.radians(yaw), math.radians(pitch)
    eye = np.array([math.cos(b) * math.cos(a), math.cos(b) * math.sin(a), math.sin(b)])
    right = np.array([-math.sin(a), math.cos(a), 0.0])
    return right, np.cross(eye, right), eye
