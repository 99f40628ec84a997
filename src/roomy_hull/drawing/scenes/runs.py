"""Runs drawn on the vehicle: cables, hoses, pipes and air lines, each sort in a pattern and with a letter of its own."""

import itertools
from collections.abc import Sequence
from typing import Literal, NamedTuple

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.core.primitives import Disc, Outline, Rect, Scene, Stroke, Words
from roomy_hull.drawing.scenes.ground import elevation, frame, slice_scene
from roomy_hull.drawing.view import ELEVATION, SLICE, Station, View
from roomy_hull.job.services import Services
from roomy_hull.studies.services.circuits import Circuit
from roomy_hull.studies.services.runs import Run

Sort = Literal["main", "gives", "uses", "water", "gas", "air"]
SORTS: dict[Sort, tuple[str, str]] = {
    "main": ("M", "from the battery"), "gives": ("S", "gives power"), "uses": ("P", "uses power"),
    "water": ("W", "water"), "gas": ("G", "gas"), "air": ("A", "air"),
}  # fmt: skip
"""Each sort's letter, and what it is."""
Point = tuple[float, float, float]


class Laid(NamedTuple):
    """One run as it is drawn: its sort, its id, its name, its corners. [mm]"""

    sort: Sort
    id: str
    name: str
    points: tuple[Point, ...]

    @property
    def role(self) -> str:
        """What its line means."""
        return f"way {self.sort}"


def laid(circuits: Sequence[Circuit], runs: Sequence[Run], services: Services) -> list[Laid]:
    """Every run that has a way.

    Returns: Cables first, in the job's order.
    """
    gives = {s.id for s in services.sources}
    found = []
    for c in circuits:
        if c.way is not None and len(c.way.points) > 1:
            sort: Sort = (
                "main" if c.id in ("main", "inverter") else "gives" if c.id in gives or c.id.endswith("-out") else "uses"
            )  # fmt: skip
            found.append(Laid(sort, c.id, c.name, c.way.points))
    return found + [Laid(r.sort, r.id, r.name, r.way.points) for r in runs if len(r.way.points) > 1]


def _drawn(view: View, rows: Sequence[Laid], chosen: str) -> list[Stroke]:
    """The runs as one sees them, the chosen one last, a letter on the longest piece of each."""
    primitives: list[Stroke] = []
    letters: list[tuple[float, float, str]] = []
    for one in sorted(rows, key=lambda r: r.id == chosen):
        points = tuple(view.point(*p) for p in one.points)
        own = one.id == chosen
        primitives.append(Outline("way chosen" if own else one.role, points, closed=False))
        if own:
            primitives += [Disc("handle dot", points[0], 26), Disc("handle dot", points[-1], 26)]
        a, b = max(
            itertools.pairwise(points), key=lambda ab: abs(ab[0][0] - ab[1][0]) + abs(ab[0][1] - ab[1][1])
        )  # fmt: skip
        at = ((a[0] + b[0]) / 2, (a[1] + b[1]) / 2)
        letter = SORTS[one.sort][0]
        # One letter of a sort says it for all that lie in the same bundle.
        if not any(w == letter and abs(x - at[0]) + abs(y - at[1]) < APART for x, y, w in letters):
            letters.append((*at, letter))
    for x, y, letter in letters:
        primitives += [Disc("way label", (x, y), 34), Words("way words", (x, y), letter, 11)]
    return primitives


APART = 260.0
"""Letters of one sort keep so far apart. [mm]"""


def _around(
    assembly: Assembly, rows: Sequence[Laid], chosen: str, station: Station, view: View, which: int
) -> Rect:
    """The stretch that is drawn: the bays, and all of the chosen run; the whole vehicle where there are no bays."""
    boxes = [p.frame.box(p.size) for p in assembly.ground.bays.values()]
    points = [p for r in rows if r.id == chosen for p in r.points]
    if not boxes:
        return frame(assembly, station)[which]
    rects = [view.rect(b) for b in boxes] + [(*view.point(*p), *view.point(*p)) for p in points]
    return (
        min(r[0] for r in rects) - MARGIN, min(r[1] for r in rects) - MARGIN,
        max(r[2] for r in rects) + MARGIN, max(r[3] for r in rects) + MARGIN,
    )  # fmt: skip


MARGIN = 160.0
"""Round what is drawn. [mm]"""


def seen(
    assembly: Assembly, rows: Sequence[Laid], chosen: str, station: Station
) -> tuple[Scene, Rect]:
    """Draw the runs in the elevation.

    Args:
        assembly: The job in vehicle axes. [mm]
    Returns: The vehicle with its runs, and the stretch it takes. [mm]
    """
    rect = _around(assembly, rows, chosen, station, ELEVATION[station], 0)
    return (*elevation(assembly, station), *_drawn(ELEVATION[station], rows, chosen)), rect


def cut(
    assembly: Assembly, rows: Sequence[Laid], chosen: str, station: Station
) -> tuple[Scene, Rect]:
    """Draw the runs in the slice: as `seen`, from above."""
    rect = _around(assembly, rows, chosen, station, SLICE[station], 1)
    return (*slice_scene(assembly, station), *_drawn(SLICE[station], rows, chosen)), rect
