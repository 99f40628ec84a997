"""Parts in the round as files: STEP and GLB of each as it is folded, and of the whole job as it stands."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.core import lazily
from roomy_hull.core.parts import BarPart, Part, SheetPart
from roomy_hull.core.refs import CANOPY
from roomy_hull.formats import step
from roomy_hull.formats.step import ALUMINIUM, Body, Colour
from roomy_hull.making.polyhedra import Facet, Polyhedron, placed, standing

if TYPE_CHECKING:
    import numpy as np
    import shapely
    import trimesh
else:
    np = lazily.module("numpy")
    shapely = lazily.module("shapely")
    trimesh = lazily.module("trimesh")

WOOD: Colour = (0.80, 0.66, 0.45)


def body(part: SheetPart | BarPart) -> Body:
    """One part as it is folded or sawn, in its own directions."""
    return Body(part.name, tuple(standing(part)), WOOD if part.material.wood else ALUMINIUM)


def step_of(part: SheetPart | BarPart, words: str = "") -> str:
    """One part as STEP, with what the file says of itself. [mm]"""
    return step.text([body(part)], f"{part.name}; {words}" if words else part.name)


def whole_bodies(assembly: Assembly) -> list[Body]:
    """Every part of a job where it stands, in vehicle axes, without the holes of its fasteners.

    Returns: The tray's and the canopy's, then each thing's; what has no place is left out. [mm]
    """
    found: list[Body] = []
    ground = assembly.ground
    corner = ground.canopy[:3] if ground.canopy is not None else (0.0, 0.0, 0.0)
    for part in ground.parts:
        offset = corner if part.owner == CANOPY else (0.0, 0.0, 0.0)
        if part.owner.of_body:
            found += _placed(part, lambda p, o=offset: (p[0] + o[0], p[1] + o[1], p[2] + o[2]))
    for thing in assembly.things:
        place = thing.place
        if place is None:
            continue
        u, v, w = (getattr(thing.value, n, 0.0) for n in "uvw")
        frame = place.frame
        for part in thing.expansion.parts:
            found += _placed(part, lambda p, f=frame, a=u, b=v, c=w: f.point(p[0] + a, p[1] + b, p[2] + c))  # fmt: skip
    return found


def _placed(part: Part, at: Any) -> list[Body]:
    """A part in each of its places, its points carried on."""
    if not isinstance(part, SheetPart | BarPart):
        return []
    found = []
    for pose in part.poses:
        solids = []
        for solid in standing(part, pose):
            solids.append(placed(solid, at))
        found.append(Body(part.name, tuple(solids), WOOD if part.material.wood else ALUMINIUM))
    return found


def glb(bodies: list[Body], words: tuple[str, ...] = ()) -> bytes:
    """Some solids as GLB, in metres, y up.

    Args:
        bodies: With their names and colours. [mm]
        words: What the file says of itself, among its extras.
    Returns: Khronos glTF 2.0, one mesh for each body.
    """
    library: Any = trimesh
    scene = library.Scene(metadata={"says": "; ".join(words)} if words else None)
    axes = np.array([[1, 0, 0, 0], [0, 0, 1, 0], [0, -1, 0, 0], [0, 0, 0, 1]], dtype=float)
    for n, one in enumerate(bodies):
        if not one.solids:
            continue
        whole = library.util.concatenate([mesh(s) for s in one.solids])
        material = library.visual.material.PBRMaterial(
            name=one.name, baseColorFactor=[*(round(255 * c) for c in one.colour), 255], metallicFactor=0.3,
            roughnessFactor=0.6,
        )  # fmt: skip
        whole.visual = library.visual.TextureVisuals(material=material)
        name = f"{n} {one.name}"
        scene.add_geometry(whole, node_name=name, geom_name=name, transform=axes)
    data: bytes = scene.export(file_type="glb")
    return data


def mesh(solid: Polyhedron) -> Any:
    """A solid as triangles, in metres.

    Args:
        solid: Closed. [mm]
    Returns: Its outside; its volume is the solid's. [m]
    """
    corners: list[Any] = []
    for facet in solid.facets:
        corners += _triangles(facet)
    rows = np.array(corners).reshape(-1, 3) / 1000.0
    return trimesh.Trimesh(rows, np.arange(len(rows)).reshape(-1, 3), process=True)


def _triangles(facet: Facet) -> list[Any]:
    """A facet as triangles, counter-clockwise from outside."""
    ring = np.array(facet.outer)
    e1 = ring[1] - ring[0]
    e1 /= np.linalg.norm(e1)
    normal = np.zeros(3)
    for a, b in zip(ring, np.roll(ring, -1, axis=0), strict=True):
        normal += np.cross(a - ring[0], b - ring[0])
    normal /= np.linalg.norm(normal) or 1.0
    e2 = np.cross(normal, e1)
    plane = np.column_stack([e1, e2])
    flat = shapely.Polygon((ring - ring[0]) @ plane, [(np.array(r) - ring[0]) @ plane for r in facet.inner])  # fmt: skip
    found: list[Any] = []
    for triangle in shapely.constrained_delaunay_triangles(flat).geoms:
        three = np.array(shapely.geometry.polygon.orient(triangle).exterior.coords[:3])
        found += list(ring[0] + three @ plane.T)
    return found
