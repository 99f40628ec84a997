"""Binary space partition: convex faces put into an order in which they can be painted from far to near."""

from __future__ import annotations

from typing import TYPE_CHECKING

import msgspec

from roomy_hull.core import lazily

if TYPE_CHECKING:
    import numpy as np
    import numpy.typing as npt

    Array = npt.NDArray[np.float64]
    Flags = npt.NDArray[np.bool_]
else:
    np = lazily.module("numpy")

EPS = 0.02
"""What is nearer to a plane than this lies in it. [mm]"""
TRIES = 7


class Face(msgspec.Struct):
    """A convex face: corners in space, which of its edges are edges of the solid, its plane and looks."""

    corners: Array
    edges: list[bool]
    normal: Array
    offset: float
    item: int


class Node(msgspec.Struct):
    """A plane with the faces that lie in it, and what is in front of it and behind."""

    normal: Array
    offset: float
    faces: list[Face]
    front: Node | None = None
    back: Node | None = None


class _Table:
    """Faces with their corners in one array, so that many are asked at once.

    Rows are filled up by repeating a corner, and rows are kept in reserve.
    """

    def __init__(self, made: list[Face]) -> None:
        self.faces: list[Face] = []
        self._corners = np.zeros((2 * len(made) + 16, max(len(f.corners) for f in made) + 2, 3))
        self._low = np.zeros((len(self._corners), 3))
        self._high = np.zeros((len(self._corners), 3))
        self.add(made)

    def add(self, made: list[Face]) -> None:
        """Add faces at the end."""
        for face in made:
            at, count = len(self.faces), len(face.corners)
            if at == len(self._corners):
                self._corners, self._low, self._high = (
                    np.concatenate([rows, np.zeros_like(rows)])
                    for rows in (self._corners, self._low, self._high)
                )
            if count > self._corners.shape[1]:
                again = np.repeat(self._corners[:, :1], count, axis=1)
                self._corners = np.concatenate([self._corners, again], axis=1)
            self._corners[at, :count], self._corners[at, count:] = face.corners, face.corners[0]
            self._low[at], self._high[at] = face.corners.min(axis=0), face.corners.max(axis=0)
            self.faces.append(face)

    def sides(self, group: list[int], planes: list[int]) -> tuple[Flags, Flags]:
        """Which faces of a group reach in front of the planes of some, and which behind them.

        Args:
            group, planes: Places of faces in the table: n and k.
        Returns: In front, behind. One that does neither lies in the plane.
        """
        normals = np.array([self.faces[i].normal for i in planes])
        offsets = np.array([self.faces[i].offset for i in planes])
        if np.count_nonzero(normals) == len(planes):
            # Planes across the axes, as nearly all are: the box around a face says it.
            axes = abs(normals).argmax(axis=1)
            signs = normals[range(len(planes)), axes]
            one, other = self._low[group][:, axes] * signs, self._high[group][:, axes] * signs
            return np.maximum(one, other) - offsets > EPS, np.minimum(one, other) - offsets < -EPS
        # Not by a matrix product, which sets several threads to work on a moment's arithmetic.
        heights = np.einsum("ncx,kx->nck", self._corners[group], normals) - offsets
        return heights.max(axis=1) > EPS, heights.min(axis=1) < -EPS


def partition(made: list[Face]) -> Node | None:
    """Put faces into a binary space partition.

    Returns: The root; none for no faces. Faces that a plane crosses are cut in two.
    """
    if not made:
        return None
    root: Node | None = None
    table = _Table(made)
    work: list[tuple[list[int], Node | None, str]] = [(list(range(len(made))), None, "")]
    while work:
        group, parent, where = work.pop()
        chosen, above, below = _splitter(table, group)
        plane = table.faces[chosen]
        node = Node(plane.normal, plane.offset, [])
        front: list[int] = []
        back: list[int] = []
        cut: list[Face] = []
        for i, over, under in zip(group, above, below, strict=True):
            face = table.faces[i]
            if over and under:
                front.append(len(table.faces) + len(cut))
                back.append(len(table.faces) + len(cut) + 1)
                cut += _cut(face, plane.normal, plane.offset)
            elif over:
                front.append(i)
            elif under:
                back.append(i)
            else:
                node.faces.append(face)
        table.add(cut)
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


def _splitter(table: _Table, group: list[int]) -> tuple[int, list[bool], list[bool]]:
    """Choose the face whose plane cuts the fewest others and divides them most evenly, out of a few.

    And say which of the group reach in front of it and which behind.
    """
    if len(group) == 1:
        return group[0], [False], [False]
    tries = group[:: max(1, len(group) // TRIES)] if len(group) > 2 else group[:1]
    above, below = table.sides(group, tries)
    cost = 6.0 * (above & below).sum(axis=0) + abs(above.sum(axis=0) - below.sum(axis=0))
    best = int(cost.argmin())
    return tries[best], above[:, best].tolist(), below[:, best].tolist()


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

    Returns: In the order to be painted.
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
