"""What is drawn and judged is what is cut: every part of every kind folded up and stood in its place."""

import itertools
import math

import msgspec
import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st
from tests import meshes
from tests.builders import SHOP
from tests.refolding import right_handed
from tests.sweeping import examples

from roomy_hull.core.errors import InputError
from roomy_hull.core.geometry.solids import Box, hull
from roomy_hull.core.parts import BarPart, Hardware, Pose, SheetPart
from roomy_hull.core.poses import (
    WAYS,
    around,
    corners,
    folded,
    standing,
    stood,
)
from roomy_hull.job.carried import Carried
from roomy_hull.kinds import registry
from roomy_hull.kinds.expansion import Expansion
from roomy_hull.kinds.kind import Site
from roomy_hull.kinds.placed import Placed
from roomy_hull.kit.catalogue import entries

NEAR = 1.0
"""So much may drawing, cut list and findings differ. [mm]"""
MADE = [e for e in entries() if not isinstance(e.make, Carried)]


def sized(unit: Placed, shares: tuple[float, float, float]) -> Placed:
    """The unit in another size; a stack's fronts and a rack's cases follow."""
    w, d, h = (
        round(getattr(unit, n) * s)
        for n, s in zip(("width", "depth", "height"), shares, strict=True)
    )
    changes: dict[str, object] = {"width": w, "depth": d, "height": h}
    if hasattr(unit, "heights"):
        changes["heights"] = tuple(x * h / unit.height for x in unit.heights)
    if hasattr(unit, "blocks"):
        changes = {}
    return msgspec.structs.replace(unit, **changes)


@st.composite
def units(draw: st.DrawFn) -> tuple[Placed, str]:
    entry = draw(st.sampled_from(MADE))
    shares = draw(st.tuples(*[st.floats(0.85, 1.6)] * 3))
    try:
        unit = sized(entry.make.but(bay="L"), shares)
        unit = unit.but()
    except ValueError:
        assume(False)
    return unit, draw(st.sampled_from(("left", "right", "rear")))


def _expanded(made: tuple[Placed, str]) -> Expansion:
    unit, side = made
    try:
        return registry.expand(unit, Site(25.0, SHOP, 0.0, side), side)
    except InputError:
        assume(False)
        raise


@given(units())
@settings(max_examples=examples(250, 40))
def test_every_part_stands_within_its_unit_and_is_what_fit_judges(made: tuple[Placed, str]) -> None:
    (unit, side), found = made, _expanded(made)
    poses: list[tuple[str, tuple[Box, ...]]] = []
    for part in found.parts:
        if isinstance(part, Hardware):
            continue
        name = part.name.split(": ")[-1]
        assert len(part.poses) == part.count, part.name
        assert side == "right" or all(right_handed(s) for s in part.poses), part.name
        poses += [(name, boxes) for boxes in standing(part)]
    e = found.envelope
    for name, boxes in poses:
        for b in boxes:
            over = max(e[n] - b[n] for n in range(3)), max(b[n] - e[n] for n in range(3, 6))
            assert max(over) <= NEAR, (name, b, e)
    cut = [b for _n, boxes in poses for b in (*boxes, hull(boxes))]
    for solid in found.solids:
        if solid.role in ("made", "front") and not _bought(unit, solid.role):
            assert any(_same(solid.box, b) for b in cut), (unit.name, solid)


def _bought(unit: Placed, role: str) -> bool:
    """Fronts and frames that are bought whole, and boxes of a user's own."""
    kind = type(unit).__name__
    return kind == "Own" or (kind, role) in {("Compartment", "front"), ("Pantry", "made")}


def _same(a: Box, b: Box) -> bool:
    return all(abs(p - q) <= NEAR for p, q in zip(a, b, strict=True))


@given(units())
@settings(max_examples=examples(150, 40))
def test_no_two_parts_of_a_unit_are_cut_into_one_another(made: tuple[Placed, str]) -> None:
    found = _expanded(made)
    rows = [
        (part, meshes.of_part(part, pose), around(p for face in corners(part, pose) for p in face))
        for part in found.parts if not isinstance(part, Hardware) for pose in part.poses
    ]  # fmt: skip
    for (one, mesh, room), (other, against, beside) in itertools.combinations(rows, 2):
        met = room.common(beside)
        if met is not None and min(met.size()) > NEAR:
            assert meshes.deep(mesh, against) <= NEAR, (one.name, other.name)


@pytest.mark.parametrize("key", ["kitchen", "stack", "tank-wedge", "table", "tube", "case-rack"])
def test_the_sizes_of_the_cut_list_are_those_of_the_drawing(key: str) -> None:
    unit = next(e.make for e in MADE if e.key == key).but(bay="L")
    found = registry.expand(unit, Site(25.0, SHOP), "left")
    parts = {p.name.split(": ")[-1]: p for p in found.parts if isinstance(p, SheetPart)}
    moving = [m.box for motion in found.motions for m in motion.moved]
    if key == "kitchen":
        leaf = parts["left leaf"]
        assert any(_same(hull(standing(leaf)[0]), b) for b in moving)
    elif key == "stack":
        fronts = [p for n, p in parts.items() if n == "front"]
        heights = [
            p.width for p in found.parts if isinstance(p, SheetPart) and p.name.endswith(": front")
        ]
        assert heights == [237, 177, 140]
        assert sum(heights) + 2 * 3 == sum((240, 180, 140))
        assert fronts
    elif key == "tank-wedge":
        end = parts["end, cut on the slope"]
        # 150 high in front and 400 behind, inside the sheets: floor below, above the sloping lid, 2.458 thick upright.
        assert end.shape is not None
        heights = sorted(y for _x, y in end.shape.ring)
        lid = 2 / math.cos(math.atan2(250, 350))
        assert heights == pytest.approx([
            0,
            0,
            150 - lid + 2 * 250 / 350 - 2,
            150 - lid + 348 * 250 / 350 - 2,
        ])
        assert end.area() == pytest.approx(346 * (heights[2] + heights[3]) / 2)


@given(
    st.tuples(*[st.integers(-50, 50)] * 3), st.permutations(["u", "v", "w"]),
    st.tuples(*[st.booleans()] * 3), st.tuples(*[st.integers(1, 90)] * 3),
)  # fmt: skip
def test_a_stand_turns_a_box_as_its_three_directions_say(
    corner: tuple[int, ...], order: list[str], turned: tuple[bool, ...], size: tuple[int, ...]
) -> None:
    words = [("-" if t else "") + w for t, w in zip(turned, order, strict=True)]
    pose = Pose(corner, *words)  # type: ignore[arg-type]
    found = stood(Box(0, 0, 0, *size), pose)
    ends = []
    for n, word in enumerate(words):
        axis, sense = WAYS[word]
        ends.append((axis, corner[axis], corner[axis] + sense * size[n]))
    for axis, a, b in ends:
        assert (found[axis], found[axis + 3]) == (min(a, b), max(a, b))
    # The determinant of the three directions, by hand.
    rows = [[0, 0, 0] for _ in range(3)]
    for n, word in enumerate(words):
        axis, sense = WAYS[word]
        rows[n][axis] = sense
    (a, b, c), (d, e, f), (g, h, i) = rows
    assert right_handed(pose) == (
        a * (e * i - f * h) - b * (d * i - f * g) + c * (d * h - e * g) == 1
    )


def test_a_folded_pan_is_its_base_and_four_walls_and_a_bar_its_section() -> None:
    metal = SHOP.material("5052-H32")
    pan = SheetPart(
        "X: pan",
        registry.KINDS and next(iter(MADE)).make.ref,  # type: ignore[arg-type]
        300,
        200,
        2,
        metal,
        left=40,
        right=40,
        front=30,
        back=0,
    )
    assert folded(pan) == (
        (0, 0, 0, 300, 200, 2), (0, 0, 0, 2, 200, 40), (298, 0, 0, 300, 200, 40), (0, 0, 0, 300, 2, 30),
    )  # fmt: skip
    bar = BarPart("X: bar", pan.owner, "50x30x3", 700, metal)
    assert folded(bar) == ((0, 0, 0, 700, 30, 50),)
