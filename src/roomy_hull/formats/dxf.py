"""DXF: one file per blank, one per nested sheet; layers CUT, BEND and ETCH, in millimetres."""

from __future__ import annotations

import io
import math
from typing import TYPE_CHECKING

from roomy_hull.core.parts import Cutout
from roomy_hull.making.flats import Blank
from roomy_hull.making.sheets import PlacedBlank, Sheet

if TYPE_CHECKING:
    from ezdxf.document import Drawing
    from ezdxf.layouts.layout import Modelspace

CUT, BEND, ETCH = "CUT", "BEND", "ETCH"
_MM = 4


def blank_dxf(blank: Blank) -> str:
    """Write one blank.

    Parameters
    ----------
    blank : Blank
        The blank, its lower left corner at the origin. [mm]

    Returns
    -------
    str
        DXF text (R2010): closed outline, openings and holes on CUT, bend centre lines on BEND,
        name, bend note and quantity on ETCH.
    """
    doc, space = _new()
    _draw(space, blank, 0.0, 0.0, turned=False)
    return _text(doc)


def sheet_dxf(sheet: Sheet) -> str:
    """Write one nested sheet with all its blanks in place.

    Parameters
    ----------
    sheet : Sheet
        The sheet, its lower left corner at the origin. [mm]

    Returns
    -------
    str
        DXF text; the sheet's own edge is on ETCH, so that it is not cut.
    """
    doc, space = _new()
    edge = [(0, 0), (sheet.length, 0), (sheet.length, sheet.width), (0, sheet.width)]
    space.add_lwpolyline(edge, close=True, dxfattribs={"layer": ETCH})
    for placed in sheet.placed:
        _draw(space, placed.blank, placed.x, placed.y, turned=placed.turned)
    return _text(doc)


def _new() -> tuple[Drawing, Modelspace]:
    """Make an empty drawing in millimetres with our layers."""
    from ezdxf.filemanagement import new  # only here: its import would double the start-up time

    doc = new("R2010", setup=["linetypes"], units=_MM)
    doc.layers.add(CUT, color=7)
    doc.layers.add(BEND, color=5, linetype="DASHED")
    doc.layers.add(ETCH, color=8)
    return doc, doc.modelspace()


def _text(doc: Drawing) -> str:
    """Give a drawing as text."""
    stream = io.StringIO()
    doc.write(stream)
    return stream.getvalue()


def placed_point(blank: Blank, turned: bool, x: float, y: float) -> tuple[float, float]:
    """Turn a blank's own point by a quarter where it lies turned (x to the sheet's width)."""
    return (blank.width - y, x) if turned else (x, y)


def _draw(space: Modelspace, blank: Blank, x: float, y: float, *, turned: bool) -> None:
    """Draw a blank at a place."""
    from ezdxf.enums import TextEntityAlignment  # only here, as in _new

    def at(px: float, py: float) -> tuple[float, float]:
        a, b = placed_point(blank, turned, px, py)
        return (round(x + a, 4), round(y + b, 4))

    space.add_lwpolyline([at(*p) for p in blank.outline], close=True, dxfattribs={"layer": CUT})
    for hole in blank.holes:
        space.add_circle(at(hole.x, hole.y), hole.diameter / 2, dxfattribs={"layer": CUT})
    for opening in blank.cutouts:
        points = [(*at(px, py), bulge) for px, py, bulge in rounded(opening)]
        space.add_lwpolyline(points, format="xyb", close=True, dxfattribs={"layer": CUT})
    for bend in blank.bends:
        space.add_line(at(*bend.a), at(*bend.b), dxfattribs={"layer": BEND})
    part = blank.part
    height = max(4.0, min(14.0, min(blank.length, blank.width) / 12))
    words = [f"{part.name}  x{part.count}", f"{part.thickness:g} {part.material.key}"]
    if blank.bends:
        words.append(f"bend up 90, R {part.radius():g}, {len(blank.bends)} bends")
    for i, row in enumerate(words):
        text = space.add_text(
            row,
            height=height,
            rotation=90 if turned else 0,
            dxfattribs={"layer": ETCH},
        )
        offset = blank.width / 2 - (i - (len(words) - 1) / 2) * height * 1.8
        text.set_placement(at(blank.length / 2, offset), align=TextEntityAlignment.MIDDLE_CENTER)


def rounded(opening: Cutout) -> list[tuple[float, float, float]]:
    """Give a rectangular opening's corners as (x, y, bulge), counter-clockwise. [mm]"""
    x, y, a, b = opening.x, opening.y, opening.length, opening.width
    r = min(opening.radius, a / 2, b / 2)
    if r <= 0:
        return [(x, y, 0), (x + a, y, 0), (x + a, y + b, 0), (x, y + b, 0)]
    q = math.tan(math.pi / 8)
    return [
        (x + r, y, 0), (x + a - r, y, q), (x + a, y + r, 0), (x + a, y + b - r, q),
        (x + a - r, y + b, 0), (x + r, y + b, q), (x, y + b - r, 0), (x, y + r, q),
    ]  # fmt: skip


def name_of(placed: PlacedBlank) -> str:
    """Give a placed blank's name."""
    return placed.blank.part.name
