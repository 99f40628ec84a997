"""Sweeps and gaps: closed forms, every sampled pose inside, and the stated margin."""

import math

import numpy as np
import pytest
import shapely
from hypothesis import assume, given, settings
from hypothesis import strategies as st
from tests.sweeping import examples

from roomy_hull.core.errors import InputError
from roomy_hull.core.geometry.frames import Frame
from roomy_hull.core.geometry.gaps import apart, clash, clipped, nearest, shared
from roomy_hull.core.geometry.hull import convex_hull
from roomy_hull.core.geometry.motion import (
    FINE,
    MARGIN,
    Motion,
    Moved,
    Piece,
    Step,
    block,
    carried,
    prism,
    round_piece,
    shifted,
    slid,
    sweep_of,
    swung,
    turned,
)
from roomy_hull.core.geometry.solids import Box

sizes = st.floats(5, 900)
places = st.floats(-900, 900)
angles = st.floats(-270, 270).filter(lambda a: abs(a) > 1)


def inside(ring: tuple[tuple[float, float], ...], p: tuple[float, float], by: float = 1e-6) -> bool:
    """Say whether a point lies in a counter-clockwise ring."""
    return all(
        (q[0] - o[0]) * (p[1] - o[1]) - (q[1] - o[1]) * (p[0] - o[0]) >= -by
        for o, q in zip(ring, (*ring[1:], ring[0]), strict=True)
    )


def out_of_box(p: tuple[float, float], box: Box) -> float:
    """How far a point lies outside a box in the plane of x and y, negative inside."""
    dx, dy = max(box.x0 - p[0], p[0] - box.x1), max(box.y0 - p[1], p[1] - box.y1)
    return math.hypot(max(dx, 0), max(dy, 0)) if max(dx, dy) > 0 else max(dx, dy)


def area(ring: tuple[tuple[float, float], ...]) -> float:
    return (
        sum(p[0] * q[1] - q[0] * p[1] for p, q in zip(ring, (*ring[1:], ring[0]), strict=True)) / 2
    )


def at(piece: Piece, degrees: float, pivot: tuple[float, float]) -> list[tuple[float, float]]:
    """Points all over a turned piece: corners, middles of edges, centre."""
    ring = turned(piece, 2, pivot, degrees).ring
    middles = [
        ((p[0] + q[0]) / 2, (p[1] + q[1]) / 2)
        for p, q in zip(ring, (*ring[1:], ring[0]), strict=True)
    ]
    centre = (sum(p[0] for p in ring) / len(ring), sum(p[1] for p in ring) / len(ring))
    return [*ring, *middles, centre]


@given(sizes, sizes, places, places, places, places, angles, st.floats(0, 1))
def test_a_swing_holds_every_sampled_pose(
    a: float, b: float, x: float, y: float, px: float, py: float, degrees: float, share: float
) -> None:
    piece, pivot = block(Box(x, y, 0, x + a, y + b, 10)), (px, py)
    swept = [p.ring for p in swung(piece, 2, pivot, degrees)]
    for p in at(piece, degrees * share, pivot):
        assert any(inside(ring, p, 1e-4) for ring in swept)


near = st.sampled_from([0.0, 3.0, 5.0]) | places
hairs = st.sampled_from([0.0, 4e-16, -4e-16, 1e-15, -1e-14, 1e-13])


@given(st.lists(st.tuples(near, near, hairs, hairs), min_size=2, max_size=5))
def test_a_hull_loses_no_tip_between_points_in_almost_one_place(
    made: list[tuple[float, float, float, float]],
) -> None:
    points = [p for x, y, dx, dy in made for p in ((x, y), (x + dx, y + dy), (x - dy, y + dx))]
    true = shapely.convex_hull(shapely.MultiPoint(points))
    ours = shapely.convex_hull(shapely.MultiPoint(convex_hull(points)))
    assert shapely.hausdorff_distance(true, ours) < 1e-5


def test_a_leaf_hung_a_hair_from_its_face_keeps_its_far_edge() -> None:
    for hair in (0.0, 5.735585708816498e-15, 1e-13, 1e-9):
        swept = [p.ring for p in swung(block(Box(0, 0, 0, 5, 5, 10)), 2, (3.0, hair), 3.0)]
        assert any(inside(ring, (2.5, 5.0), 1e-9) for ring in swept)


@given(sizes, sizes, places, places, angles)
def test_a_swing_exceeds_the_truth_by_no_more_than_its_margin(
    a: float, b: float, x: float, y: float, degrees: float
) -> None:
    box, pivot = Box(x, y, 0, x + a, y + b, 10), (0.0, 0.0)
    for piece in swung(block(box), 2, pivot, degrees)[::7]:
        for corner in piece.ring:
            # The nearest of finely sampled poses; half a sample's way is the error of sampling.
            count = 700
            fine = math.radians(abs(degrees)) / count * math.hypot(*corner) / 2 + 1e-6
            far = min(
                out_of_box(turned_point(corner, -math.radians(degrees) * n / count), box)
                for n in range(count + 1)
            )
            assert far <= MARGIN + fine


def turned_point(p: tuple[float, float], angle: float) -> tuple[float, float]:
    c, s = math.cos(angle), math.sin(angle)
    return (p[0] * c - p[1] * s, p[0] * s + p[1] * c)


def test_a_thin_leaf_sweeps_a_sector() -> None:
    # A leaf of no thickness about its end sweeps πr²·angle/360: circumscribed, so a little more.
    leaf = block(Box(0, 0, 0, 1000, 1e-3, 700))
    pieces = swung(leaf, 2, (0, 0), 90)
    swept = sum(area(p.ring) for p in pieces)
    true = math.pi * 1000**2 / 4
    assert true <= swept <= true * 1.0012
    assert max(math.hypot(*c) for p in pieces for c in p.ring) <= 1000 + MARGIN


def test_slides_are_exact() -> None:
    drawer = block(Box(0, 0, 0, 400, 600, 200))
    assert slid(drawer, 1, -500).box == Box(0, -500, 0, 400, 600, 200)
    # A prism that stands askew keeps its ring along its own axis, and becomes a hexagon across it.
    askew = turned(block(Box(0, 0, 0, 100, 20, 50)), 2, (0, 0), 30)
    along, across = slid(askew, 2, 80), slid(askew, 0, 300)
    assert (along.lo, along.hi, along.ring) == (0, 130, askew.ring)
    wide = askew.box.y1 - askew.box.y0
    assert area(across.ring) == pytest.approx(area(askew.ring) + 300 * wide)


def test_quarter_turns_keep_a_box_a_box() -> None:
    piece = turned(block(Box(0, 0, 0, 300, 20, 400)), 0, (0.0, 0.0), 90)
    assert piece.square
    assert piece.box == Box(0, -400, 0, 300, 0, 20)


def test_a_chain_goes_step_by_step() -> None:
    lid = Moved(Box(0, 0, 90, 400, 600, 100), "lid")
    chest = Moved(Box(0, 0, 0, 400, 600, 90), "chest")
    motion = Motion("", "Fridge", (chest, lid), (
        Step("slide", 1, -600, ("chest", "lid")), Step("lower", 2, -300, ("chest", "lid")),
        Step("fold", 1, 90, ("lid",), (0.0, -200.0))))  # fmt: skip
    found = sweep_of(motion)
    assert [p.box for p in found.rest] == [chest.box, lid.box]
    assert found.opened[0].box == Box(0, -600, -300, 400, 0, -210)
    # The lid stands up at the left, its thickness to the left of the hinge.
    assert found.opened[1].box == Box(-0, -600, -200, 10, 0, 200)
    assert {p.box for p in found.swept if p.square} >= {
        Box(0, -600, 0, 400, 600, 90),
        Box(0, -600, -300, 400, 0, 90),
    }
    assert sweep_of(motion) is found


def test_cloth_covers_what_its_arm_swept_and_posts_stand_only_when_open() -> None:
    arm, post = Box(0, 0, 0, 2000, 60, 30), Box(-2000, 0, -1900, -1960, 40, 0)
    motion = Motion(
        "", "Awning", (Moved(arm),), (Step("swing", 2, -180),), spread=("",), added=(post,)
    )
    found = sweep_of(motion)
    assert len(found.opened) == len(found.swept)
    assert post in {p.box for p in found.opened}
    assert post not in {p.box for p in found.rest}


@pytest.mark.parametrize(
    ("steps", "says"),
    [
        ((Step("slide", 1, 0.0),), "never ends"),
        ((Step("swing", 2, math.inf),), "never ends"),
        ((Step("slide", 1, math.nan),), "never ends"),
        ((Step("swing", 2, 400.0),), "400 degrees"),
        ((Step("lift", 2, 30000.0),), "30000 mm"),
        ((Step("slide", 1, 5.0),) * 9, "9 steps"),
    ],
)
def test_a_motion_without_end_is_refused_and_named(steps: tuple[Step, ...], says: str) -> None:
    with pytest.raises(InputError, match=says) as caught:
        sweep_of(Motion("", "Odd lid", (Moved(Box(0, 0, 0, 1, 1, 1)),), steps))
    assert caught.value.place == "Odd lid"
    assert caught.value.remedy


# How far apart


@given(places, places, places, st.floats(0, 360), st.sampled_from([0, 1, 2]))
def test_a_gap_is_the_same_from_either_side(
    x: float, y: float, z: float, degrees: float, axis: int
) -> None:
    one = turned(block(Box(0, 0, 0, 300, 200, 100)), axis, (50, 20), degrees)
    other = turned(block(Box(x, y, z, x + 150, y + 250, z + 90)), 2, (x, y), degrees / 2)
    a, b = apart(one, other, 1e9), apart(other, one, 1e9)
    assert a == pytest.approx(b, abs=1e-6)
    assert clash(a) == clash(b)


def test_gaps_of_known_pairs() -> None:
    box = block(Box(0, 0, 0, 100, 100, 100))
    assert apart(box, shifted(box, 0, 130), 99) == 30
    assert apart(box, shifted(box, 2, 95), 99) == -5
    # A square of 30 turned by half a quarter about its middle, 35 from the box's side: its tip is 15·√2 nearer.
    tip = turned(block(Box(120, 50, 0, 150, 80, 100)), 2, (135, 65), 45)
    assert apart(box, tip, 99) == pytest.approx(35 - 15 * math.sqrt(2))
    # The same beside the box's edge: the gap lies along the diagonal, between the edge and the square's flat side.
    aside = turned(block(Box(120, 120, 0, 150, 150, 100)), 2, (135, 135), 45)
    assert apart(box, aside, 99) == pytest.approx(35 * math.sqrt(2) - 15)

    # Prisms along different axes, crossing edge to edge: the gap lies along the cross product.
    one = turned(block(Box(-500, -5, -5, 500, 5, 5)), 0, (0, 0), 45)
    other = turned(block(Box(-5, -500, 40, 5, 500, 50)), 1, (0, 45), 45)
    assert apart(one, other, 99) == pytest.approx(45 - 2 * math.hypot(5, 5))


@pytest.mark.parametrize("towards", [-1, 1])
def test_every_side_of_a_prism_separates(towards: int) -> None:
    # A wedge whose long side looks down and back: from there only that side's normal tells them apart.
    wedge = prism(1, ((0.0, 0.0), (100.0, 100.0), (0.0, 100.0)), 0.0, 50.0)
    below = block(Box(60, 0, -40, 100, 50, 20))
    gap = apart(wedge, below, 99)
    assert gap == pytest.approx((60 - 20) / math.sqrt(2))
    mirrored = prism(1, ((0.0, 0.0), (0.0, 100.0), (-100.0, 100.0)), 0.0, 50.0)
    behind = block(Box(-100, 0, -40, -60, 50, 20))
    assert apart(mirrored, behind, 99) == pytest.approx(gap)
    # Two rings along one axis, each of which alone cannot tell them apart.
    other = turned(block(Box(70, 0, -80, 130, 50, -20)), 1, (100, -50), 45.0 * towards)
    both = [apart(wedge, other, 999), apart(other, wedge, 999)]
    assert both[0] == pytest.approx(both[1])
    assert both[0] == pytest.approx((100 + 50) / math.sqrt(2) - 30)


@settings(max_examples=examples(25, 6))
@given(st.floats(5, 350), st.floats(-400, 400), st.floats(-400, 400), st.sampled_from([-1, 1]))
def test_a_swing_is_the_union_of_its_poses_and_no_more(
    degrees: float, px: float, py: float, sign: int
) -> None:
    # A pivot on an edge itself may leave a sliver of under 1 mm2 at the corner beside it.
    assume(min(abs(px), abs(px - 300), abs(py), abs(py - 40)) > 2)
    piece, pivot = block(Box(0, 0, 0, 300, 40, 10)), (px, py)
    pieces = swung(piece, 2, pivot, sign * degrees)
    swept = shapely.union_all([shapely.Polygon(p.ring) for p in pieces])
    for k in range(37):
        pose = turned(piece, 2, pivot, sign * degrees * k / 36)
        ring = pose.ring if not pose.square else block(pose.box, 2).ring
        assert shapely.Polygon(ring).difference(swept.buffer(1e-6)).area < 1e-3
    # A corner of the swept room lies as far from the truth as, turned back by its best angle, from the piece.
    back = -sign * np.radians(np.linspace(0, degrees, 20_001))
    for x, y in shapely.get_coordinates(swept):
        h = px + (x - px) * np.cos(back) - (y - py) * np.sin(back)
        k = py + (x - px) * np.sin(back) + (y - py) * np.cos(back)
        out = np.hypot(
            np.maximum(np.maximum(-h, h - 300), 0), np.maximum(np.maximum(-k, k - 40), 0)
        )
        assert out.min() <= 1.4 * MARGIN


def test_a_wheel_is_taken_around_not_within() -> None:
    wheel = round_piece(1, (0.0, 400.0), 400.0, -130.0, 130.0)
    assert min(math.dist(p, (0, 400)) for p in wheel.ring) >= 400
    assert max(math.dist(p, (0, 400)) for p in wheel.ring) <= 400 * 1.009


tenths = st.integers(-990, 990).map(lambda n: n / 10)


@given(st.lists(st.tuples(tenths, tenths), min_size=3, max_size=20))
def test_a_hull_holds_its_points(points: list[tuple[float, float]]) -> None:
    ring = convex_hull(points)
    if len(ring) > 2 and area(ring) > 1e-3:
        assert all(inside(ring, p, 1e-3) for p in points)


def test_what_two_share_lies_in_both() -> None:
    one = prism(2, ((0, 0), (100, 0), (0, 100)), 0, 50)
    other = block(Box(40, 40, 20, 200, 200, 90))
    found = shared(one, other)
    assert found == Box(40, 40, 20, 60, 60, 50)
    assert clipped(one.ring, ((200, 200), (210, 200), (200, 210))) == ()
    gap, i, j = nearest((one,), (shifted(other, 2, 500), other), 5)
    assert (i, j) == (0, 1)
    assert gap < 0
    assert nearest((one,), (shifted(other, 2, 500),), 5)[1] == -1


@pytest.mark.parametrize("side", ["left", "right", "rear"])
@given(st.floats(0, 90), st.sampled_from([0, 1, 2]))
def test_a_piece_is_carried_like_its_points(side: str, degrees: float, axis: int) -> None:
    frame = Frame(1000.0, 200.0, 800.0, side)  # type: ignore[arg-type]
    piece = turned(block(Box(10, 20, 30, 210, 320, 130)), axis, (40, 50), degrees)
    there = carried(frame, piece)
    assert area(there.ring) == pytest.approx(area(piece.ring))
    corners = {tuple(round(c, 6) for c in frame.point(*p)) for p in corner_points(piece)}
    assert {tuple(round(c, 6) for c in p) for p in corner_points(there)} == corners


def corner_points(piece: Piece) -> list[tuple[float, float, float]]:
    a, b = {0: (1, 2), 1: (0, 2), 2: (0, 1)}[piece.axis]
    found = []
    for end in (piece.lo, piece.hi):
        for p in piece.ring:
            c = [0.0] * 3
            c[piece.axis], c[a], c[b] = end, p[0], p[1]
            found.append((c[0], c[1], c[2]))
    return found


@given(
    st.floats(1.5, 60), st.floats(40, 900), st.floats(-40, 40), st.floats(-40, 40),
    st.sampled_from((-170.0, -90.0, 45.0, 180.0)),
    st.floats(5, 300), st.floats(5, 300), st.floats(-400, 400), st.floats(-400, 400),
)  # fmt: skip
def test_a_swing_followed_closely_meets_what_some_pose_of_it_meets_and_nothing_else(
    thick: float, tall: float, px: float, py: float, degrees: float, a: float, b: float, x: float, y: float,
) -> None:  # fmt: skip
    leaf, other = block(Box(0, 0, 0, thick, tall, 50)), block(Box(x, y, 10, x + a, y + b, 40))
    swept = tuple(swung(leaf, 2, (px, py), degrees, FINE))
    gap = nearest(swept, (other,), 30.0)[0]
    poses = [turned(leaf, 2, (px, py), degrees * n / 720) for n in range(721)]
    least = min(apart(p, other, 30.0) for p in poses)
    if least >= 0:
        assert not clash(gap)
    if gap >= 0:
        assert least >= -1e-6
    if 0 < least < 25 and gap < 25:
        # As near as the pose that comes nearest, but for what lies between two poses.
        far = max(math.dist(p, (px, py)) for p in leaf.ring)
        plan = shapely.box(x, y, x + a, y + b)  # both stand at one height
        assert (
            gap <= min(shapely.Polygon(p.ring).distance(plan) for p in poses if not p.square) + 1e-6
        )
        assert gap >= least - far * math.radians(abs(degrees)) / 720 - 1.4 * FINE
