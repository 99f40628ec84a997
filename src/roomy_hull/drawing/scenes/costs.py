"""A waterfall of what a job costs: each kind of cost on top of those before it, the whole at the end."""

from roomy_hull.core.primitives import Rect, Scene, Stroke, Words, line, rectangle
from roomy_hull.making.cost import FIELDS, Cost

NAMES = {
    "sheet": "sheet in the parts", "rest": "rest of the sheets", "bar": "bar", "hardware": "bought",
    "cutting": "cutting", "bending": "bending", "welding": "welding", "fasteners": "fasteners", "coating": "coating",
    "labour": "handling, fitting",
}  # fmt: skip
WIDE = 1000.0
LEFT = 200.0
"""Room for the words at its left. [mm of its own]"""


def waterfall(cost: Cost, ratio: float) -> tuple[Scene, Rect]:
    """Draw a cost.

    Returns: One bar for each kind that costs something, from the top down, and the whole. [mm of its own]
    """
    rows = [(NAMES[n], getattr(cost, n)) for n in FIELDS if getattr(cost, n) > 0.5]
    total = max(cost.total, 1e-9)
    high = WIDE / max(ratio, 0.4)
    step = high / (len(rows) + 1.6)
    scale = (WIDE - LEFT - 130.0) / total
    found: list[Stroke] = []
    x, size = LEFT, min(step * 0.42, 26.0)
    for n, (name, value) in enumerate([*rows, ("the whole", total)]):
        y = high - (n + 1) * step
        whole = n == len(rows)
        start = LEFT if whole else x
        end = start + value * scale
        found.append(rectangle("axle" if whole else "nested", start, y, end, y + step * 0.62))
        found.append(
            Words(
                "chart words", (LEFT - 14, y + step * 0.31), name, size, fixed=False, anchor="right"
            )
        )
        found.append(
            Words(
                "chart words",
                (end + 12, y + step * 0.31),
                f"{value:,.0f}",
                size,
                fixed=False,
                anchor="left",
            )
        )
        if not whole:
            found.append(line("extension", (end, y), (end, y - step * 0.38)))
            x = end
    return tuple(found), (0.0, 0.0, WIDE, high)
