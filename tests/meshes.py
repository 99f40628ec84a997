"""Cut parts as meshes of a reference library (manifold3d), folded up and stood in their places: for tests."""

import manifold3d
import numpy as np

from roomy_hull.core.folded import Bend, Face, places, to_corners
from roomy_hull.core.parts import BarPart, Pose, SheetPart
from roomy_hull.core.poses import carried, folded


def of_part(part: SheetPart | BarPart, pose: Pose) -> manifold3d.Manifold:
    """A part in one of its places: every face of the sheet's thickness less its openings, or a bar's box. [mm]"""
    if isinstance(part, BarPart):
        (box,) = folded(part)
        whole = manifold3d.Manifold.cube(list(box.size()))
    else:
        made = [
            _face(face, before, part.thickness).transform(_matrix(place))
            for face, place, before in places(part.faces(), part.thickness)
        ]
        whole = sum(made[1:], made[0])
    origin = np.array(carried((0.0, 0.0, 0.0), pose))
    axes = [np.array(carried(tuple(row), pose)) - origin for row in np.eye(3)]
    return whole.transform(np.column_stack([*axes, origin]))


def _face(face: Face, before: Bend | None, thickness: float) -> manifold3d.Manifold:
    section = manifold3d.CrossSection([to_corners(face, before, thickness)])
    for c in face.cutouts:
        section -= manifold3d.CrossSection.square([c.length, c.width]).translate([c.x, c.y])
    for h in face.holes:
        section -= manifold3d.CrossSection.circle(h.diameter / 2, 24).translate([h.x, h.y])
    return section.extrude(thickness)


def _matrix(place: tuple[tuple[float, ...], ...]) -> np.ndarray:
    origin, x, y, z = (np.array(v) for v in place)
    return np.column_stack([x, y, z, origin])


def deep(one: manifold3d.Manifold, other: manifold3d.Manifold) -> float:
    """By how much two meshes are in one another: the mean thickness of the thickest piece that they share. [mm]"""
    met = one ^ other
    if met.is_empty():
        return 0.0
    found = 0.0
    for piece in met.decompose():
        low_high = piece.bounding_box()
        sizes = sorted(low_high[n + 3] - low_high[n] for n in range(3))
        if sizes[1] > 1e-6:
            found = max(found, min(sizes[0], piece.volume() / (sizes[1] * sizes[2])))
    return found
