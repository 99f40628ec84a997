"""A canopy's sheets, bars, leaves and jambs, each cut part stood in its place: none in another, all where it is judged."""

import itertools

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from tests.builders import SHOP
from tests.refolding import right_handed
from tests.sweeping import examples

from roomy_hull.core.geometry.regions import left_of
from roomy_hull.core.geometry.solids import Box, hull, without
from roomy_hull.core.parts import BarPart, Hardware, SheetPart
from roomy_hull.core.poses import FLAT, folded, standing, stood
from roomy_hull.job.canopy import Canopy, Door
from roomy_hull.kit.body import canopy as canopy_kit
from roomy_hull.kit.body import frame, shell, sides
from roomy_hull.kit.body.doors import canopy_doors

NEAR = 1.0
"""So much may drawing, cut list and findings differ. [mm]"""
SECTIONS = {15.0: "30x10x2", 25.0: "25x20x2", 35.0: "30x30x3", 50.0: "40x40x3"}


@st.composite
def canopies(draw: st.DrawFn) -> Canopy:
    """Canopies whose frame has room in walls and roof; some doors from the very floor, some toppers, some split."""
    length, width = draw(st.integers(700, 2600)), draw(st.integers(1300, 2300))
    height, wall = draw(st.integers(500, 1400)), draw(st.sampled_from(sorted(SECTIONS)))
    base, roof = draw(st.sampled_from((0.0, 0.0, 350.0))), draw(st.sampled_from((46.0, 60.0)))
    post = frame.depth(Canopy(length=1000, width=1000, height=1000, frame=SECTIONS[wall])) + 24
    doors = []
    for side, long in (("left", length), ("right", length), ("rear", width)):
        if draw(st.booleans()):
            start, sill = (
                post + draw(st.integers(0, 120)),
                draw(st.sampled_from((0, 10, 30, 52, 80))),
            )
            high = draw(st.integers(200, height - int(roof) - sill))
            after = post + draw(st.integers(0, 150))
            doors.append(
                Door(id=side, side=side, start=start, length=long - start - after, sill=sill,  # type: ignore[arg-type]
                     height=high, split=draw(st.sampled_from((0, high // 3 if high >= 360 else 0))))
            )  # fmt: skip
    return Canopy(kind="topper" if base else "canopy", base=base, length=length, width=width, height=height,
                  wall=wall, roof=roof, frame=SECTIONS[wall], insulation=draw(st.sampled_from((0.0, 25.0))),
                  doors=tuple(doors))  # fmt: skip


def boxes(part: SheetPart | BarPart) -> list[list[Box]]:
    """A part's boxes in each of its places, a wall's sheet less what is cut out of it."""
    if isinstance(part, SheetPart) and part.cutouts:
        holes = [(c.x, c.y, c.x + c.length, c.y + c.width) for c in part.cutouts]
        left = left_of((0.0, 0.0, part.length, part.width), holes)
        flat = [Box(a, b, 0.0, c, d, part.thickness) for a, b, c, d in left]
        flat += folded(part)[1:]  # its flanges
        return [[stood(b, s) for b in flat] for s in part.poses]
    return [list(row) for row in standing(part)]


def placed(canopy: Canopy) -> list[tuple[SheetPart | BarPart, list[Box]]]:
    found = []
    for part in shell.parts(canopy, SHOP):
        if not isinstance(part, Hardware):
            assert len(part.poses) == part.count, part.name
            assert all(right_handed(s) for s in part.poses), part.name
            found += [(part, row) for row in boxes(part)]
    return found


@given(canopies())
@settings(max_examples=examples(120, 15))
def test_every_part_lies_in_the_canopy_and_none_in_another(canopy: Canopy) -> None:
    whole = Box(0, 0, 0, canopy.length, canopy.width, canopy.height)
    rows = placed(canopy)
    for part, row in rows:
        for b in row:
            over = max(
                *(whole[n] - b[n] for n in range(3)), *(b[n] - whole[n] for n in range(3, 6))
            )
            assert over <= 0.01, (part.name, b)
    for (one, some), (other, others) in itertools.combinations(rows, 2):
        for a, b in itertools.product(some, others):
            met = a.common(b)
            assert met is None or min(met.size()) <= NEAR, (one.name, other.name, met)


@given(canopies())
@settings(max_examples=examples(120, 15))
def test_leaves_swing_as_they_are_cut_and_what_stands_still_is_judged(canopy: Canopy) -> None:
    whole = Box(0, 0, 0, canopy.length, canopy.width, canopy.height)
    shut = {key: motion.moved[0].box for key, _side, motion in canopy_doors(canopy, whole)}
    solid = [p.box for p in canopy_kit.solids(canopy, whole)]
    rows = placed(canopy)
    for place in sides.doors(canopy):
        for leaf in place.made:
            key = f"door:{place.door.id}" + (f":{leaf.key}" if leaf.key else "")
            of_it = [
                b for part, row in rows for b in row
                if part.role == "leaf" and part.name.startswith(f"Canopy: door {place.door.id}")
                and ("half" not in part.name or ("let-down" in part.name) == bool(leaf.key))
            ]  # fmt: skip
            drawn = shut[key]
            assert hull(of_it) == pytest.approx(drawn, abs=NEAR) or len(place.made) > 1
    for part, row in rows:
        if part.role == "leaf":
            continue
        for b in row:
            left = [r for r in without(b, solid) if min(r.size()) > 0.1]
            assert not left, (part.name, b, left)


def test_the_demo_frame_by_hand() -> None:
    # 2000 x 1830 x 960, skin 2, 30 x 30 x 3: one door of 1500 from 60 a side, its rebate 40 to 1580.
    canopy = Canopy(length=2000, width=1830, height=960, roof=36, frame="30x30x3", doors=(
        Door(id="a", side="left", start=60, length=1500, sill=30, height=870),
        Door(id="b", side="right", start=60, length=1500, sill=60, height=840),
    ))  # fmt: skip
    rows = [
        p for p in shell.parts(canopy, SHOP) if isinstance(p, BarPart) and p.role in ("", "bow")
    ]
    found = {(p.name.removeprefix("Canopy: "), p.section): (p.length, p.count) for p in rows}
    # Posts: 2..32 before the rebate with its jamb at 38, none fits twice; after 1582 two up to 1998.
    assert frame.posts(canopy, "left") == [2, 1582, 1968]
    upright = 960 - 2 - 30 - 30
    assert found["post", "30x30x3"] == (upright, 6)
    assert found["cant rail", "30x30x3"] == (1996, 2)
    # The left sill is cut where the door's rebate, 10 - 2 high, lies over it; the right one's is 38 high: it goes through.
    lengths = sorted((p.length, p.count) for p in rows if p.name == "Canopy: sill")
    assert lengths == [(36, 1), (1998 - 1582, 1), (1996, 1)]
    assert found["threshold", "8x30"] == (1544, 1)
    assert found["roof bow", "30x30x3"] == (1830 - 4 - 60, 5)
    assert found["end sill", "30x30x3"] == (1766, 2)


def test_walls_are_cut_as_one_sees_them_from_inside() -> None:
    canopy = Canopy(length=2000, width=1800, height=960, doors=tuple(
        Door(id=s, side=s, start=100, length=600, sill=100, height=500) for s in ("left", "right", "rear")
    ))  # fmt: skip
    walls = {
        p.name.split()[1]: p for p in shell.parts(canopy, SHOP)
        if isinstance(p, SheetPart) and p.role == "wall"
    }  # fmt: skip
    # The rebate runs from 80 to 720 from the front, or from the left as one stands behind the vehicle.
    assert walls["right"].cutouts[0].x == 80
    assert walls["left"].cutouts[0].x == 2000 - 720
    assert walls["rear"].cutouts[0].x == 1796 - (720 - 2)
    for side, wall in walls.items():
        assert wall.poses[0][1:4] == frame.INWARD[side] != FLAT
