"""Folding a blank back by its outline and bend lines alone: for tests, with nothing of the program's own folding."""

from collections.abc import Iterator

import numpy as np
import numpy.typing as npt
import shapely
from scipy.spatial.transform import Rotation

from roomy_hull.core.mechanics.bends import bend_allowance
from roomy_hull.core.parts import Pose
from roomy_hull.core.poses import WAYS
from roomy_hull.making.flats import Blank

Array = npt.NDArray[np.float64]


def folded_back(blank: Blank, base: tuple[float, float]) -> Iterator[tuple[Array, Array]]:
    """Fold a blank about its bend lines.

    Args:
        blank: Outline and bend lines. [mm]
        base: A point on what stays where it is.
    Yields: The corners of each flat face, on its outer and on its inner surface, n × 3. [mm]
    """
    t, k = blank.part.thickness, blank.part.material.k_factor
    strips = []
    for b in blank.bends:
        half = bend_allowance(abs(b.angle), b.radius, t, k) / 2
        strips.append(shapely.LineString([b.a, b.b]).buffer(half, cap_style="flat"))
    rest = shapely.Polygon(blank.outline).difference(shapely.union_all(strips))
    faces = list(rest.geoms) if rest.geom_type == "MultiPolygon" else [rest]
    # Slivers where a face is as wide as its bend are no faces.
    faces = [f for f in faces if f.area > 1e-3]
    start = min(range(len(faces)), key=lambda n: faces[n].distance(shapely.Point(base)))
    done = {start: (Rotation.identity(), np.zeros(3))}
    queue = [start]
    while queue:
        at = queue.pop()
        turn, shift = done[at]
        for b, strip in zip(blank.bends, strips, strict=True):
            if (
                strip.distance(faces[at]) > 1e-6
                or strip.intersection(faces[at].buffer(1e-6)).area < 1e-7
            ):
                continue
            for n, face in enumerate(faces):
                if n in done or strip.intersection(face.buffer(1e-6)).area < 1e-7:
                    continue
                done[n] = _beyond(faces[at], face, b, (turn, shift), t, k)  # type: ignore[no-untyped-call]
                queue.append(n)
    assert len(done) == len(faces)
    for n, face in enumerate(faces):
        turn, shift = done[n]
        ring = np.array(face.exterior.coords[:-1])
        yield tuple(
            turn.apply(np.column_stack([ring, np.full(len(ring), z)])) + shift for z in (0.0, t)
        )


def _beyond(one, other, bend, pose, t, k):  # type: ignore[no-untyped-def]  # in the letters of the formula
    """The pose of a face beyond a bend: bent about the axis of its inside radius, the neutral line keeping its length."""
    turn, shift = pose
    a, b = np.array(bend.a), np.array(bend.b)
    along = (b - a) / np.linalg.norm(b - a)
    out = np.array([along[1], -along[0]])
    if out @ (np.array(other.centroid.coords[0]) - a) < 0:
        out = -out
    assert out @ (np.array(one.centroid.coords[0]) - a) < out @ (
        np.array(other.centroid.coords[0]) - a
    )
    length = bend_allowance(abs(bend.angle), bend.radius, t, k)
    up = 1.0 if bend.angle > 0 else -1.0
    start = np.array([*(a - out * length / 2), 0.0])
    centre = start + np.array([0, 0, (t + bend.radius) if up > 0 else -bend.radius])
    out3, axis = np.array([*out, 0.0]), np.cross(np.array([*out, 0.0]), np.array([0, 0, 1.0]))
    # About `axis` a positive turn carries `out` towards up.
    rotation = Rotation.from_rotvec(axis * up * np.radians(abs(bend.angle)))
    # First the strip is taken out, then the face turns about the bend's centre.
    local_shift = centre - rotation.apply(centre) + rotation.apply(-out3 * length)
    return turn * rotation, turn.apply(local_shift) + shift


def right_handed(pose: Pose) -> bool:
    """Say whether a real part can stand so: a folded sheet has no mirror image."""
    (a, p), (b, q), (c, r) = (WAYS[w] for w in (pose.x, pose.y, pose.z))
    even = (a, b, c) in ((0, 1, 2), (1, 2, 0), (2, 0, 1))
    return (p * q * r > 0) == even
