"""The job as an open 3D file for the customer: GLB (Khronos glTF 2.0), in metres, y up as glTF asks."""

from pathlib import Path
from typing import TYPE_CHECKING, Any

import numpy as np

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.core import lazily
from roomy_hull.core.geometry.motion import PLANE, Piece
from roomy_hull.drawing.scenes.solid import Item, items
from roomy_hull.formats.atomic import write_whole

if TYPE_CHECKING:
    import trimesh
else:
    trimesh = lazily.module("trimesh")

COLOURS: dict[str, tuple[int, int, int]] = {
    "cab": (147, 164, 142), "glass": (201, 217, 223), "tyre": (58, 64, 69), "steel": (114, 124, 131),
    "tray": (200, 206, 210), "canopy": (221, 225, 228), "front": (226, 229, 231), "bought": (238, 236, 228),
    "water": (95, 155, 184), "load": (192, 163, 107), "jerry": (138, 143, 82), "canvas": (176, 161, 132),
}  # fmt: skip
AXES = np.array([[1, 0, 0, 0], [0, 0, 1, 0], [0, -1, 0, 0], [0, 0, 0, 1]], dtype=float)
"""From vehicle axes (x aft, y right, z up) to glTF's (y up), a rotation."""


def mesh(piece: Piece) -> Any:
    """A prism as a closed mesh, in metres and vehicle axes.

    Args:
        piece: A convex prism. [mm]
    Returns: Its outside, normals outwards; its volume is the prism's. [m]
    """
    a, b = PLANE[piece.axis]
    count = len(piece.ring)
    corners = np.zeros((2 * count, 3))
    for half, at in ((0, piece.lo), (1, piece.hi)):
        rows = slice(half * count, (half + 1) * count)
        corners[rows, a], corners[rows, b] = [p[0] for p in piece.ring], [p[1] for p in piece.ring]
        corners[rows, piece.axis] = at
    triangles = []
    for i in range(1, count - 1):
        triangles += [(0, i + 1, i), (count, count + i, count + i + 1)]
    for i in range(count):
        j = (i + 1) % count
        triangles += [(i, j, count + j), (i, count + j, count + i)]
    made = trimesh.Trimesh(corners / 1000.0, triangles, process=False)
    if made.volume < 0:
        made.invert()
    return made


def scene(assembly: Assembly, opened: frozenset[str]) -> Any:
    """The whole job as a scene of named, coloured meshes."""
    made = trimesh.Scene()
    for n, item in enumerate(i for i in items(assembly, opened) if i.role != "shadow"):
        body = mesh(item.piece)
        look: Any = trimesh.visual.TextureVisuals
        body.visual = look(material=_material(item, assembly.job.body.finish.of(item.role)))
        made.add_geometry(
            body, node_name=f"{n} {item.name}", geom_name=f"{n} {item.name}", transform=AXES
        )
    return made


def _material(item: Item, own: str = "") -> Any:
    """An item's material in the job's own colour or the usual one, blended where it is see-through."""
    rgb = COLOURS.get(item.role, COLOURS["front"])
    if own:
        rgb = (int(own[1:3], 16), int(own[3:5], 16), int(own[5:7], 16))
    shade = [*rgb, round(255 * item.solid)]
    material: Any = trimesh.visual.material.PBRMaterial
    return material(
        name=item.role, baseColorFactor=shade, metallicFactor=0.1, roughnessFactor=0.7,
        alphaMode="OPAQUE" if item.solid >= 1 else "BLEND",
    )  # fmt: skip


def write(assembly: Assembly, path: Path, opened: frozenset[str] = frozenset()) -> None:
    """Write a job as GLB.

    Raises:
        FileError: The place cannot be written.
    """
    write_whole(path, scene(assembly, opened).export(file_type="glb"))
