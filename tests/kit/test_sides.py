"""A canopy's side as one thing: what is cut, what swings and what stands in the way agree."""

import msgspec
import numpy as np
import pytest
import shapely
from hypothesis import given, settings
from hypothesis import strategies as st
from tests.builders import SHOP, canopy_of
from tests.sweeping import examples

from roomy_hull.core.geometry.regions import left_of
from roomy_hull.core.geometry.solids import Box, without
from roomy_hull.core.parts import SheetPart
from roomy_hull.formats.demo import demo_job
from roomy_hull.job.body import Body, Tray
from roomy_hull.job.canopy import Canopy, Door
from roomy_hull.kit.body import leaves, shell, sides
from roomy_hull.kit.body.doors import canopy_doors

VEHICLE = demo_job().vehicle


@st.composite
def canopies(draw: st.DrawFn) -> Canopy:
    """Canopies with doors of every sort; some walls too thin for a frame, some doors from the very floor."""
    length, width = draw(st.integers(700, 2600)), draw(st.integers(1300, 2300))
    height, wall = (
        draw(st.integers(500, 1400)),
        draw(st.sampled_from((15.0, 25.0, 28.0, 35.0, 50.0))),
    )
    base = draw(st.sampled_from((0.0, 0.0, 350.0)))
    doors = []
    for side, long in (("left", length), ("right", length), ("rear", width)):
        if draw(st.booleans()):
            start, sill = draw(st.integers(0, 120)), draw(st.sampled_from((0, 10, 20, 30, 80)))
            high = draw(st.integers(200, height - 30 - sill))
            doors.append(
                Door(id=side, side=side, start=start, length=long - start - draw(st.integers(0, 150)), sill=sill,  # type: ignore[arg-type]
                     height=high, split=draw(st.sampled_from((0, high // 3 if high >= 360 else 0))))
            )  # fmt: skip
    return Canopy(kind="topper" if base else "canopy", base=base, length=length, width=width, height=height,
                  wall=wall, doors=tuple(doors))  # fmt: skip


@given(canopies())
def test_a_leaf_swings_as_large_and_as_deep_as_it_is_cut(canopy: Canopy) -> None:
    outside = Box(0.0, -canopy.width / 2, 0.0, canopy.length, canopy.width / 2, canopy.height)
    shut = {key: motion.moved[0].box for key, _side, motion in canopy_doors(canopy, outside)}
    thick = sides.depth(canopy)[0]
    for door in canopy.doors:
        place = sides.placed(canopy, door)
        cut = [
            p
            for p in leaves.door_parts(canopy, door, SHOP)
            if isinstance(p, SheetPart) and p.left > 0
        ]
        made = [leaf for leaf in place.leaves if leaf.made]
        assert len(cut) == len(made)
        for part, leaf in zip(cut, made, strict=True):
            a, b, c = shut[f"door:{door.id}:{leaf.key}" if leaf.key else f"door:{door.id}"].size()
            long, deep = (b, a) if door.side == "rear" else (a, b)
            assert (part.length, part.width) == pytest.approx((long, c))
            assert deep == pytest.approx(thick)
            assert part.left <= thick
            # It laps over its clear opening wherever the wall has room for that.
            assert leaf.rect[0] == pytest.approx(max(place.clear[0] - sides.LAP, sides.PANEL_GAP))


@given(canopies())
def test_walls_leave_every_leaf_its_gap_and_every_opening_clear(canopy: Canopy) -> None:
    outside = Box(0.0, -canopy.width / 2, 0.0, canopy.length, canopy.width / 2, canopy.height)
    walls = [box for _side, box in sides.walls(canopy, outside)]
    shut = [motion.moved[0].box for _key, _side, motion in canopy_doors(canopy, outside)]
    for place in sides.doors(canopy):
        hole = sides.stood(outside, place.door.side, place.clear, 0.0, canopy.wall)
        inset = hole if place.door.start >= canopy.wall else None
        for wall in walls:
            assert not any(wall.common(leaf) for leaf in shut)
            if (
                inset is not None
                and place.door.start + place.door.length
                <= sides.wall_length(canopy, place.door.side) - canopy.wall
            ):
                assert wall.common(inset) is None


@given(canopies())
def test_what_is_cut_out_of_a_wall_is_what_its_solids_leave_open_outside(canopy: Canopy) -> None:
    # The outer layer of the side walls, against the sheet with its cut-outs, area by area.
    outside = Box(0.0, -canopy.width / 2, 0.0, canopy.length, canopy.width / 2, canopy.height)
    sheets = {p.name: p for p in shell.parts(canopy, SHOP)}
    for side in ("left", "right"):
        sheet = sheets[f"Canopy: {side} wall"]
        assert isinstance(sheet, SheetPart)
        top = canopy.height - canopy.roof - canopy.base
        # The left wall's sheet is seen from inside, from the rear.
        cut = shapely.union_all([
            shapely.box(a, c.y, a + c.length, c.y + c.width)
            for c in sheet.cutouts
            for a in [canopy.length - c.x - c.length if side == "left" else c.x]
        ])
        face = shapely.box(0, 0, canopy.length, top)
        y = outside.y0 + 1.9 if side == "left" else outside.y1 - 1.9  # in the sheet, 2 thick
        poses = shapely.union_all([
            shapely.box(b.x0, b.z0 - canopy.base, b.x1, b.z1 - canopy.base)
            for s, b in sides.walls(canopy, outside) if s == side and b.y0 < y < b.y1
        ])  # fmt: skip
        assert poses.difference(face.difference(cut)).area < 1
        assert face.difference(cut).difference(poses).area < 1


rects = st.tuples(
    *[st.integers(-2, 12).map(lambda n: n * 50.0)] * 2,
    *[st.integers(1, 8).map(lambda n: n * 50.0)] * 2,
)


@given(st.lists(rects, max_size=6))
def test_what_holes_leave_of_a_face_is_that_of_a_reference_library(
    rows: list[tuple[float, ...]],
) -> None:
    holes = [(a, b, a + c, b + d) for a, b, c, d in rows]
    found = [shapely.box(*r) for r in left_of((0.0, 0.0, 500.0, 400.0), holes)]
    wanted = shapely.box(0, 0, 500, 400).difference(
        shapely.union_all([shapely.box(*h) for h in holes])
    )
    assert shapely.union_all(found).symmetric_difference(wanted).area < 1e-6
    assert sum(f.area for f in found) == pytest.approx(wanted.area)


@given(st.lists(st.tuples(*[st.integers(-2, 9)] * 3, *[st.integers(1, 8)] * 3), max_size=4))
@settings(max_examples=examples(60, 12))
def test_what_boxes_leave_of_another_is_counted_cell_by_cell(rows: list[tuple[int, ...]]) -> None:
    grid = np.ones((10, 8, 6), dtype=bool)
    holes = []
    for x, y, z, a, b, c in rows:
        holes.append(Box(x, y, z, x + a, y + b, z + c))
        grid[max(x, 0) : max(x + a, 0), max(y, 0) : max(y + b, 0), max(z, 0) : max(z + c, 0)] = (
            False
        )
    again = np.zeros_like(grid, dtype=int)
    for piece in without(Box(0, 0, 0, 10, 8, 6), holes):
        x0, y0, z0, x1, y1, z1 = (int(v) for v in piece)
        again[x0:x1, y0:y1, z0:z1] += 1
    assert (again == grid).all()


def test_the_shell_weighs_where_it_is() -> None:
    # By hand: one opening in the left wall alone moves the shell to the right by its sheet times half the width.
    plain = msgspec.structs.replace(canopy_of(demo_job()), doors=(), bays=())
    door = Door(id="left", side="left", start=400, length=1000, sill=100, height=600)
    holed = msgspec.structs.replace(plain, doors=(door,))

    def shell_of(one: Canopy) -> tuple[float, float]:
        body = Body(tray=Tray(length=2050, width=1850), canopy=one)
        found = next(m for m in shell.masses(VEHICLE, body, SHOP) if m.label == "shell")
        return found.kg, found.at[1]

    kg, y = shell_of(plain)
    assert y == pytest.approx(0.0)
    less, right = shell_of(holed)
    sheet = (
        1040 * 640 * 2.0 * 2680e-9
    )  # the rebate: the opening, lap and gap all round; its corners are rounded
    assert kg - less == pytest.approx(
        sheet, abs=0.05 + 2 * 0.75
    )  # a post more on either side of the door
    assert right * less == pytest.approx(sheet * (1830 - 2) / 2, rel=0.01)


def test_a_thin_wall_takes_a_pan_without_a_frame_and_a_thick_one_a_framed_leaf() -> None:
    canopy = canopy_of(demo_job())
    assert sides.depth(canopy) == (27.0, "25x25x2")
    assert sides.depth(msgspec.structs.replace(canopy, wall=25.0)) == (22.0, "20x20x2")
    assert sides.depth(msgspec.structs.replace(canopy, wall=15.0)) == (12.0, "")


def test_a_tubs_tailgate_is_the_vehicles_own_and_only_the_hatch_above_it_is_cut() -> None:
    topper = canopy_of(demo_job("lowfold"))
    place = sides.doors(topper)[0]
    hatch, gate = place.leaves
    assert (hatch.made, gate.made, gate.key) == (True, False, "half")
    assert hatch.rect[1] == topper.base
    assert gate.rect[3] < topper.base
    cut = [
        p
        for p in leaves.door_parts(topper, place.door, SHOP)
        if isinstance(p, SheetPart) and p.left > 0
    ]
    assert [(p.length, p.width) for p in cut] == [(1400, 385)]
