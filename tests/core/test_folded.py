"""Folded parts: trees of faces unfolded, folded up, and folded back from their blanks alone."""

import math

import msgspec
import numpy as np
import pytest
import shapely
from hypothesis import given
from hypothesis import strategies as st
from tests import bent_shapes
from tests.builders import SHOP
from tests.refolding import folded_back

from roomy_hull.core import folded, shapes
from roomy_hull.core.errors import InputError
from roomy_hull.core.folded import Bend, Cutout, Face, Hole
from roomy_hull.core.geometry.solids import hull
from roomy_hull.core.parts import Pose, SheetPart, mirrored
from roomy_hull.core.poses import around, corners
from roomy_hull.core.poses import folded as boxes_of
from roomy_hull.core.refs import Ref
from roomy_hull.core.shapes import Sheet
from roomy_hull.core.unfolding import unfolded
from roomy_hull.making.flats import blank, flanges, hole_to_bend, overlaps, sizeless

METAL = SHOP.material("5052-H32")
SHEET = Sheet(2.0, METAL.bend_radius_per_t * 2.0)
S = SHEET.radius + SHEET.thickness
legs = st.floats(25, 160)


def part(shape: Face, length: float = 300.0, width: float = 200.0) -> SheetPart:
    return SheetPart("X: part", Ref("unit", "x"), length, width, 2.0, METAL, shape=shape)


def outside(shape: Face) -> tuple[float, ...]:
    return around(p for prism in folded.prisms(shape, 2.0) for p in prism)


SHAPES = {
    "channel": bent_shapes.channel(SHEET, 300, 80, 40), "zed": bent_shapes.zed(SHEET, 300, 40, 60, 30),
    "hat": bent_shapes.hat(SHEET, 300, 25, 50, 90), "hemmed": bent_shapes.hemmed(SHEET, 300, 200, 18),
    "skin": bent_shapes.door_skin(SHEET, 300, 200, 30, 18), "gusset": shapes.gusset(300, 40, 120),
    "triangle": shapes.gusset(300, 0, 120), "wrap": bent_shapes.wedge_wrap(SHEET, 300, 200, 60, 140),
    "welded": shapes.pan(SHEET, 300, 200, (40, 50, 60, 70), corners="welded"),
    "open": shapes.pan(SHEET, 300, 200, (40, 50, 60, 70)),
    "slanted": bent_shapes.profile(SHEET, 300, (60, 90, 40), (35.0, -120.0)),
}  # fmt: skip


@pytest.mark.parametrize("name", SHAPES)
def test_a_flat_has_every_face_once_and_folds_back_to_what_stands(name: str) -> None:
    shape = folded.checked(SHAPES[name], name)
    one = part(shape)
    flat = blank(one)
    outline = shapely.Polygon(flat.outline)
    assert outline.is_valid
    assert outline.area == pytest.approx(one.area())
    assert overlaps(one) == pytest.approx(0, abs=1e-6)
    origin = one.flat().outline
    x, y = -min(p[0] for p in origin), -min(p[1] for p in origin)
    inner = shapely.Polygon(shape.ring).representative_point()
    poses = np.array([p for prism in folded.prisms(shape, 2.0) for p in prism])
    low, high = poses.min(axis=0), poses.max(axis=0)
    for surfaces in folded_back(flat, (inner.x + x, inner.y + y)):
        for points in surfaces:
            moved = points - np.array([x, y, 0.0])
            assert (moved >= low - 0.1).all()
            assert (moved <= high + 0.1).all()
            # Each lies in one of the prisms, which go on to the outside corners.
            assert any(_within(moved, np.array(prism)) for prism in folded.prisms(shape, 2.0))


def _within(points: np.ndarray, prism: np.ndarray) -> bool:
    """Whether points lie in a prism of two equal rings, within a tenth of a millimetre."""
    ring = prism[: len(prism) // 2]
    x = (ring[1] - ring[0]) / np.linalg.norm(ring[1] - ring[0])
    z = prism[len(ring)] - ring[0]
    z = z / np.linalg.norm(z)
    y = np.cross(z, x)
    local = (points - ring[0]) @ np.column_stack([x, y, z])
    shape = shapely.Polygon((ring - ring[0]) @ np.column_stack([x, y])).buffer(0.1)
    heights = local[:, 2]
    return bool(
        heights.min() > -0.1 and heights.max() < 2.1 and all(shape.contains(shapely.Point(p[:2])) for p in local)
    )  # fmt: skip


def test_outside_sizes_are_those_that_were_asked_for() -> None:
    assert outside(SHAPES["channel"])[3:] == pytest.approx((300, 40, 80))
    low = outside(SHAPES["channel"])
    assert [high - a for a, high in zip(low[:3], low[3:], strict=True)] == pytest.approx([
        300,
        40,
        80,
    ])
    zed = outside(SHAPES["zed"])
    # Foot and flange lie on either side of the web: 40 + 30 less the web's sheet.
    assert [b - a for a, b in zip(zed[:3], zed[3:], strict=True)] == pytest.approx([300, 68, 60])
    hat = outside(SHAPES["hat"])
    assert [b - a for a, b in zip(hat[:3], hat[3:], strict=True)] == pytest.approx([
        300,
        25 + 90 + 25 - 4,
        50,
    ])
    hemmed = outside(SHAPES["hemmed"])
    assert [b - a for a, b in zip(hemmed[:3], hemmed[3:], strict=True)] == pytest.approx([
        300,
        200,
        4 + 2 * SHEET.radius,
    ])
    assert outside(SHAPES["skin"]) == pytest.approx((0, 0, 0, 300, 200, 30))
    assert outside(SHAPES["welded"]) == pytest.approx((0, 0, 0, 300, 200, 70))


def test_a_published_bend() -> None:
    # Groover, Fundamentals of Modern Manufacturing (from memory): T 3.2, R 4.75, bend 60 degrees, K 0.33, legs 38 and
    # 25 to the tangent lines, width 44.5: allowance 6.08, blank 69.08.
    t, r, k = 3.2, 4.75, 0.33
    back = folded.setback(60.0, r, t)
    assert back == pytest.approx((r + t) * math.tan(math.radians(30)))
    one = bent_shapes.profile(Sheet(t, r), 44.5, (38 + back, 25 + back), (60.0,))
    flat = unfolded(one, t, k)
    ys = [p[1] for p in flat.outline]
    assert max(ys) - min(ys) == pytest.approx(69.08, abs=0.005)


def test_flanges_and_holes_are_measured_on_every_face() -> None:
    assert sorted(flanges(part(SHAPES["hat"]))) == pytest.approx([25, 50, 50, 90])
    assert flanges(part(SHAPES["hemmed"])) == pytest.approx([18])
    # A hole of 8 in a flange, 30 from the outside corner: 30 - 5 to the tangent line, less its radius.
    flange = Face(shapes.rectangle(300, 55), holes=(Hole(150, 30 - S, 8),))
    assert hole_to_bend(
        part(Face(shapes.rectangle(300, 100), bends=(Bend(2, 90.0, SHEET.radius, flange),)))
    ) == (pytest.approx(30 - S - 4))


def test_what_overlaps_on_the_flat_is_measured() -> None:
    # Two flanges on neighbouring edges, one wider than its edge by 60: they take a square of the flat twice.
    wide = Face(((0, 0), (200, 0), (260, 0), (260, 50), (0, 50)))
    base = Face(shapes.rectangle(200, 200), bends=(
        Bend(0, 90.0, 3.0, wide), Bend(3, 90.0, 3.0, Face(shapes.rectangle(200, 100))),
    ))  # fmt: skip
    assert overlaps(part(base)) == 0
    deep = Face(((0, 0), (200, 0), (260, 0), (260, -30), (280, -30), (280, 50), (0, 50)))
    base = _with_first(base, deep)
    assert overlaps(part(base)) > 100


def _with_first(base: Face, first: Face) -> Face:
    return Face(base.ring, bends=(Bend(0, 90.0, 3.0, first), *base.bends[1:]))


@given(
    legs,
    legs,
    legs,
    legs,
    st.floats(200, 600),
    st.floats(200, 500),
    st.sampled_from(("open", "welded")),
)
def test_a_pan_by_its_short_way_is_a_pan_by_its_faces(
    left: float,
    right: float,
    front: float,
    back: float,
    length: float,
    width: float,
    joint: shapes.Corners,
) -> None:
    one = SheetPart("X: pan", Ref("unit", "x"), length, width, 2.0, METAL, left, right, front, back,
                    corners=joint)  # fmt: skip
    tree = part(one.faces(), length, width)
    assert one.area() == pytest.approx(tree.area())
    assert one.developed() == pytest.approx(tree.developed())
    for quick, face in zip(_sorted(boxes_of(one)), _sorted(boxes_of(tree)), strict=True):
        # Open corners are relieved to the tangent lines, welded ones to a gap.
        assert quick == pytest.approx(face, abs=S + 1e-6)
    assert hull(boxes_of(one)) == pytest.approx(hull(boxes_of(tree)), abs=1e-6)
    assert overlaps(tree) == pytest.approx(0, abs=1e-6)


def _sorted(rows: tuple[tuple[float, ...], ...]) -> list[tuple[float, ...]]:
    return sorted(
        rows, key=lambda b: [round((a + c) / 2 / 12) for a, c in zip(b[:3], b[3:], strict=True)]
    )


def test_a_mirrored_part_stands_in_the_same_room_and_is_cut_the_other_way() -> None:
    one = SheetPart("X: pan", Ref("unit", "x"), 300.0, 200.0, 2.0, METAL, left=40.0, holes=(Hole(30, 50, 8),),
                    cutouts=(Cutout(50, 60, 40, 20),), poses=(Pose((7.0, 8.0, 9.0), "u", "v", "w"),))  # fmt: skip
    other = mirrored(one)
    assert isinstance(other, SheetPart)
    assert (other.left, other.right) == (0, 40)
    assert (other.holes[0].x, other.cutouts[0].x) == (270, 300 - 50 - 40)
    assert other.poses == (Pose((307.0, 8.0, 9.0), "-u", "v", "w"),)
    for kept in (one, _by_faces(one)):
        again = mirrored(kept)
        room, turned = (
            sorted(np.round(around(face), 6).tolist() for face in corners(p, p.poses[0]))  # type: ignore[arg-type, union-attr]
            for p in (kept, again)
        )
        assert room == turned


def _by_faces(one: SheetPart) -> SheetPart:
    return SheetPart(
        one.name, one.owner, 300.0, 200.0, 2.0, METAL, shape=one.faces(), poses=one.poses
    )


def test_a_notch_and_what_is_left_of_it() -> None:
    assert shapely.Polygon(shapes.notched(300, 200, 50, 100, 60)).area == 300 * 200 - 100 * 60
    assert shapely.Polygon(shapes.notched(300, 200, -10, 100, 60)).area == 300 * 200 - 90 * 60
    assert shapely.Polygon(shapes.notched(300, 200, 250, 100, 60)).area == 300 * 200 - 50 * 60
    assert shapes.notched(300, 200, 400, 100, 60) == shapes.rectangle(300, 200)
    assert folded.shoelace(shapes.notched(300, 200, 50, 100, 60)) > 0


def test_cut_outs_at_the_edge_are_notches_of_the_outline() -> None:
    one = SheetPart("X: wall", Ref("unit", "x"), 300.0, 200.0, 2.0, METAL,
                    cutouts=(Cutout(50, 0, 100, 80), Cutout(200, 50, 40, 40)))  # fmt: skip
    flat = blank(one)
    assert len(flat.cutouts) == 1
    assert shapely.Polygon(flat.outline).area == 300 * 200 - 100 * 80


@pytest.mark.parametrize(
    ("shape", "what"),
    [
        (Face(((0, 0), (0, 100), (100, 100), (100, 0))), "no area"),
        (Face(shapes.rectangle(100, 100), bends=(Bend(1, 90, 3, Face(shapes.rectangle(100, 40))),) * 2), "one edge"),
        (Face(shapes.rectangle(100, 100), bends=(Bend(1, 90, 3, Face(shapes.rectangle(90, 40))),)), "begin at its bend"),
    ],
)  # fmt: skip
def test_a_tree_that_is_no_part_is_refused(shape: Face, what: str) -> None:
    with pytest.raises(InputError, match=what):
        folded.checked(shape, "part")


def test_a_pan_narrower_than_its_bends_has_no_size() -> None:
    assert sizeless(SheetPart("X", Ref("unit", "x"), 8.0, 200.0, 2.0, METAL, left=40.0, right=40.0))
    assert not sizeless(
        SheetPart("X", Ref("unit", "x"), 11.0, 200.0, 2.0, METAL, left=40.0, right=40.0)
    )


def test_an_edge_without_length_moves_nothing() -> None:
    root = Face(((0.0, 0.0), (100.0, 0.0), (100.0, 50.0), (100.0, 50.0), (0.0, 50.0)))
    bent = msgspec.structs.replace(
        root, bends=(Bend(0, 90.0, 3.0, Face(shapes.rectangle(100.0, 20.0))),)
    )
    ring = folded.to_corners(bent, None, 2.0)
    assert (100.0, 50.0) in ring
    assert min(y for _x, y in ring) == pytest.approx(-folded.setback(90.0, 3.0, 2.0))
