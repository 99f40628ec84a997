"""From a folded sheet part to its flat blank: outline, bend lines, holes."""

import msgspec

from roomy_hull.core.mechanics.bends import bend_allowance
from roomy_hull.core.parts import Cutout, Hole, SheetPart

Point = tuple[float, float]


class Bend(msgspec.Struct, frozen=True):
    """A bend's centre line on the flat, its angle and inside radius. [mm, degree]"""

    a: Point
    b: Point
    angle: float
    radius: float


class Blank(msgspec.Struct, frozen=True):
    """A flat blank, its lower left corner at the origin. [mm]"""

    part: SheetPart
    length: float
    width: float
    outline: tuple[Point, ...]
    bends: tuple[Bend, ...]
    holes: tuple[Hole, ...]
    cutouts: tuple[Cutout, ...]


def blank(part: SheetPart) -> Blank:
    """Unfold a sheet part.

    Parameters
    ----------
    part : SheetPart
        The part, by outside sizes. [mm]

    Returns
    -------
    Blank
        Outline counter-clockwise with a square relief wherever two flanges meet, bend centre
        lines, and the base's openings moved onto the flat. Flat length = outside legs + BA -
        2(R+T) at each bend (Machinery's Handbook). [mm]
    """
    left, front = part.flange_flat(part.left), part.flange_flat(part.front)
    length, width = part.developed()
    s = part.setback()
    x0, x1 = left, left + part.length
    y0, y1 = front, front + part.width
    # Each corner in turn, counter-clockwise: where two flanges meet, a notch to both bend starts.
    corners = (
        (part.left > 0 and part.front > 0, (0.0, y0 + s), (x0 + s, y0 + s), (x0 + s, 0.0),
         (0.0, 0.0)),
        (part.right > 0 and part.front > 0, (x1 - s, 0.0), (x1 - s, y0 + s), (length, y0 + s),
         (length, 0.0)),
        (part.right > 0 and part.back > 0, (length, y1 - s), (x1 - s, y1 - s), (x1 - s, width),
         (length, width)),
        (part.left > 0 and part.back > 0, (x0 + s, width), (x0 + s, y1 - s), (0.0, y1 - s),
         (0.0, width - part.slope)),
    )  # fmt: skip
    outline: list[Point] = []
    for notched, first, inner, last, plain in corners:
        outline += [first, inner, last] if notched else [plain]
    return Blank(
        part,
        length,
        width,
        tuple(outline),
        _bends(part, x0, x1, y0, y1),
        tuple(Hole(h.x + x0, h.y + y0, h.diameter) for h in part.holes),
        tuple(Cutout(c.x + x0, c.y + y0, c.length, c.width, c.radius) for c in part.cutouts),
    )


def _bends(part: SheetPart, x0: float, x1: float, y0: float, y1: float) -> tuple[Bend, ...]:
    """Place each bend's centre line: half its allowance inside the base's bend start."""
    r, s = part.radius(), part.setback()
    half = bend_allowance(90, r, part.thickness, part.material.k_factor) / 2
    low_x, high_x = (x0 + s if part.left else x0), (x1 - s if part.right else x1)
    low_y, high_y = (y0 + s if part.front else y0), (y1 - s if part.back else y1)
    found = []
    if part.left > 0:
        x = x0 + s - half
        found.append(Bend((x, low_y), (x, high_y), 90, r))
    if part.right > 0:
        x = x1 - s + half
        found.append(Bend((x, low_y), (x, high_y), 90, r))
    if part.front > 0:
        y = y0 + s - half
        found.append(Bend((low_x, y), (high_x, y), 90, r))
    if part.back > 0:
        y = y1 - s + half
        found.append(Bend((low_x, y), (high_x, y), 90, r))
    return tuple(found)


def least_flange(part: SheetPart) -> float:
    """The least outside flange a common press tool can hold: 4·T + R (common practice). [mm]"""
    return 4 * part.thickness + part.radius()


def hole_to_bend(part: SheetPart) -> float | None:
    """The least distance from a hole's edge to a bend's inside tangent, if there is any. [mm]"""
    gaps = []
    for h in part.holes:
        for flange, at in (
            (part.left, h.x), (part.right, part.length - h.x),
            (part.front, h.y), (part.back, part.width - h.y),
        ):  # fmt: skip
            if flange > 0:
                gaps.append(at - part.setback() - h.diameter / 2)
    return min(gaps) if gaps else None


def fits(one: Blank, size: tuple[float, float], trim: float) -> bool:
    """Say whether a blank lies on a sheet at all."""
    a, b = size[0] - 2 * trim, size[1] - 2 * trim
    straight = one.length <= a and one.width <= b
    return straight or (not one.part.grain and one.width <= a and one.length <= b)
