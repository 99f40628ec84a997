"""DXF: a scene of what is cut, in millimetres: outlines, what is cut inside them, bends up and down, what is etched."""

from __future__ import annotations

import io
import math
from collections.abc import Mapping
from typing import TYPE_CHECKING

from roomy_hull.core.primitives import (
    Disc,
    Lines,
    Outline,
    Panel,
    Point,
    Scene,
    Size,
    Stroke,
    Words,
)
from roomy_hull.drawing.corners import corners

if TYPE_CHECKING:
    from ezdxf.document import Drawing
    from ezdxf.layouts.layout import Modelspace

CUT, INNER, BEND_UP, BEND_DOWN, ETCH = "CUT", "CUT_INNER", "BEND_UP", "BEND_DOWN", "ETCH"
NOT_CUT = "NOT_CUT"
"""What the file says of itself: neither cut nor etched, nor plotted."""
LAYERS = {
    "blank": CUT, "nested": CUT, "blank hole": INNER, "bend up": BEND_UP, "bend down": BEND_DOWN, "stock": ETCH,
    "etched": ETCH, "mark": NOT_CUT,
}  # fmt: skip
"""By what a stroke means; sizes and other notes of a drawing are not cut, and left out."""
_MM = 4
_QUARTER = math.tan(math.pi / 8)
"""Bulge of a quarter circle."""


DRAWN = {
    "plan box": "PLAN", "plan line": "PLAN", "plan chosen": "PLAN", "plan fuse": "PLAN", "plan joint": "PLAN",
    "chart title": "WORDS", "chart words": "WORDS",
}  # fmt: skip
"""The layers of a diagram, which nobody cuts."""


def drawn_dxf(scene: Scene) -> str:
    """Write a diagram as DXF.

    Args:
        scene: Strokes of `DRAWN`; others are left out. [mm]
    Returns: DXF text (R2010).
    """
    return DxfWriter(DRAWN).text(scene)


class DxfWriter:
    """Writes scenes, one after the other, with one document that is emptied in between.

    Args:
        layers: The layer of each role; `LAYERS` where none are given.
    """

    def __init__(self, layers: Mapping[str, str] | None = None) -> None:
        self._layers = LAYERS if layers is None else layers
        from ezdxf.filemanagement import new  # ruff: ignore[import-outside-top-level]  # its import would double the start-up time

        self._doc: Drawing = new("R2010", setup=["linetypes"], units=_MM)
        self._doc.layers.add(CUT, color=7)
        self._doc.layers.add(INNER, color=3)
        self._doc.layers.add(BEND_UP, color=5, linetype="DASHED")
        self._doc.layers.add(BEND_DOWN, color=1, linetype="DASHDOT")
        self._doc.layers.add(ETCH, color=8)
        for name in sorted(set(self._layers.values()) - {CUT, INNER, BEND_UP, BEND_DOWN, ETCH}):
            self._doc.layers.add(name)
        if NOT_CUT in self._doc.layers:
            self._doc.layers.get(NOT_CUT).dxf.plot = 0
            self._doc.layers.get(NOT_CUT).color = 6
        self._applications = {r.dxf.name for r in self._doc.appids}
        self._first = str(self._doc.entitydb.handles)

    def text(self, scene: Scene) -> str:
        """Write a scene.

        Args:
            scene: Strokes of `LAYERS`; others are left out. [mm]
        Returns: DXF text (R2010), figures to a ten-thousandth of a millimetre.
        """
        doc, space = self._doc, self._doc.modelspace()
        for stroke in scene:
            _draw(space, stroke, self._layers)
        stream = io.StringIO()
        doc.write(stream)
        # Writing adds records of its own. They go with the entities, and numbers begin anew: every file is
        # the same, whatever was written before it.
        space.delete_all_entities()
        for record in [r for r in doc.appids if r.dxf.name not in self._applications]:
            doc.appids.remove(record.dxf.name)
        doc.ezdxf_metadata().discard("WRITTEN_BY_EZDXF")
        doc.entitydb.purge()
        doc.entitydb.handles.reset(self._first)
        return stream.getvalue()


def _draw(space: Modelspace, stroke: Stroke, layers: Mapping[str, str]) -> None:
    """Draw one stroke on its layer."""
    layer = layers.get(stroke.role)
    if layer is None or isinstance(stroke, Size):
        return
    attributes = {"layer": layer}
    if isinstance(stroke, Panel):
        box = (
            (stroke.h0, stroke.k0),
            (stroke.h1, stroke.k0),
            (stroke.h1, stroke.k1),
            (stroke.h0, stroke.k1),
        )
        radius = min(stroke.radius, (stroke.h1 - stroke.h0) / 2, (stroke.k1 - stroke.k0) / 2)
        stroke = Outline(stroke.role, box, radius=radius)
    if isinstance(stroke, Outline) and stroke.closed:
        vertices = polyline(stroke)
        if any(bulge for _x, _y, bulge in vertices):
            space.add_lwpolyline(vertices, format="xyb", close=True, dxfattribs=attributes)
        else:
            flat = [(x, y) for x, y, _bulge in vertices]
            space.add_lwpolyline(flat, close=True, dxfattribs=attributes)
    elif isinstance(stroke, Outline):
        for a, b in zip(stroke.points, stroke.points[1:], strict=False):
            space.add_line(_at(a), _at(b), dxfattribs=attributes)
    elif isinstance(stroke, Lines):
        for a, b in stroke.pieces:
            space.add_line(_at(a), _at(b), dxfattribs=attributes)
    elif isinstance(stroke, Disc):
        space.add_circle(_at(stroke.centre), stroke.radius, dxfattribs=attributes)
    elif isinstance(stroke, Words):
        _write(space, stroke, attributes)


def _write(space: Modelspace, stroke: Words, attributes: dict[str, str]) -> None:
    """Write words about their middle, or from one of their ends."""
    from ezdxf.enums import TextEntityAlignment  # ruff: ignore[import-outside-top-level]  # as above

    text = space.add_text(
        stroke.text, height=stroke.size, rotation=90 if stroke.upright else 0, dxfattribs=attributes
    )
    aligned = {
        "left": TextEntityAlignment.MIDDLE_LEFT, "right": TextEntityAlignment.MIDDLE_RIGHT,
    }.get(stroke.anchor, TextEntityAlignment.MIDDLE_CENTER)  # fmt: skip
    text.set_placement(_at(stroke.at), align=aligned)


def _at(point: Point) -> Point:
    """Round a point to what a cutter can use."""
    return (round(point[0], 4), round(point[1], 4))


def polyline(outline: Outline) -> list[tuple[float, float, float]]:
    """Turn a closed outline into vertices, its round corners into quarter circles.

    Args:
        outline: Its corners at right angles where they are round. [mm]
    Returns:
        x, y and bulge, in the outline's direction, beginning behind its first corner; bulges of a hole that runs
        counter-clockwise are positive. [mm]
    """
    found: list[tuple[float, float, float]] = []
    made = list(corners(outline, lambda p: p, 1.0, least=1e-9))
    for start, _corner, stop in made:
        if start is stop:
            found.append((*_at(stop), 0.0))
        else:
            found += [(*_at(start), _QUARTER), (*_at(stop), 0.0)]
    # A round first corner is begun at the end.
    return [*found[1:], found[0]] if made and made[0][0] is not made[0][2] else found
