"""A board drawn for its layout: the panel from the front on its grid, and below it the depth behind."""

from roomy_hull.core.primitives import Lines, Rect, Scene, Size, Stroke, Words, rectangle
from roomy_hull.kinds.board import Board, instrument

GRID = 25.0
"""Lines of the grid that are drawn; instruments stand on every fifth part of it. [mm]"""
AROUND = 45.0
BELOW = 70.0


def front(board: Board, chosen: str, aspect: float) -> tuple[Scene, Rect]:
    """Draw a board.

    Args:
        board: With its instruments. [mm]
    Returns:
        Its front, its lower left corner the origin; below it what stands behind, seen from above. What is too deep
        is drawn as trouble. [mm]
    """
    w, h, d = board.width, board.height, board.depth
    primitives: list[Stroke] = [rectangle("front", 0, 0, w, h, 6)]
    upright = tuple(
        ((n * GRID, 0.0), (n * GRID, h)) for n in range(1, int(w / GRID) + 1) if n * GRID < w
    )
    level = tuple(
        ((0.0, n * GRID), (w, n * GRID)) for n in range(1, int(h / GRID) + 1) if n * GRID < h
    )
    primitives.append(Lines("chart grid", upright + level))
    for i in board.instruments:
        primitives += instrument(i)
        if i.id == chosen:
            x0, z0, x1, z1 = i.rim
            primitives.append(rectangle("selected", x0 - 3, z0 - 3, x1 + 3, z1 + 3, 4))
            primitives += [
                Size("size", (0.0, -18.0), (i.x, -18.0)),
                Size("size", (-18.0, 0.0), (-18.0, i.z)),
            ]
    top = -BELOW
    primitives += [
        rectangle("inside plan", 0, top - d, w, top), rectangle("cut", 0, top - board.sheet, w, top),
        Words("chart words", (0, top + 12), "behind the panel, seen from above", 11, anchor="left"),
        Size("size", (w + 18, top - d), (w + 18, top)),
    ]  # fmt: skip
    for i in board.instruments:
        x0, _z0, x1, _z1 = i.hole
        deep = i.cut.behind > d + 1e-6
        primitives.append(
            rectangle("trouble" if deep else "bought", x0, top - i.cut.behind, x1, top)
        )
    primitives += [Size("size", (0, h + 20), (w, h + 20)), Size("size", (w + 18, 0), (w + 18, h))]
    low = top - max([d, *(i.cut.behind for i in board.instruments)])
    rect = (-AROUND, low - AROUND, w + AROUND + 20, h + AROUND)
    # As wide as its place: else a narrow board would be drawn in its middle only as high as it is wide.
    need = (rect[3] - rect[1]) * aspect - (rect[2] - rect[0])
    if need > 0:
        rect = (rect[0] - need / 2, rect[1], rect[2] + need / 2, rect[3])
    return tuple(primitives), rect
