"""The lining of a hold: before the tailgate, round the arches, in pieces that go in and lie on a sheet."""

import functools
import itertools
import math

import pytest
from hypothesis import given
from hypothesis import strategies as st
from tests.builders import SHOP, begun

from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.parts import Hardware, SheetPart
from roomy_hull.job.body import Arch
from roomy_hull.job.edits.resizing import resized
from roomy_hull.job.model import Job
from roomy_hull.kit.body import lining, outfitting
from roomy_hull.kit.body.lining import Setting
from roomy_hull.verdict.verdict import judge

TOPPER, WAGON = begun("pickup", "topper"), begun("wagon", "cargo area")
PLY = 12.0


@functools.cache
def lined(job: str, floor: float, wings: float, *, below: bool = False) -> Job:
    one = {"topper": TOPPER, "wagon": WAGON}.get(job) or begun("pickup", "open tub")
    one = resized(one, "body.tray.false_floor", floor) if floor else one
    one = resized(one, "body.tray.wings", wings) if wings else one
    return outfitting.added(one, "hatch") if below else one


def cut(job: Job) -> dict[str, SheetPart]:
    parts = lining.parts(
        job.vehicle, job.body.tray, SHOP, lining.setting(job.vehicle, job.body, SHOP)
    )
    return {p.name: p for p in parts if isinstance(p, SheetPart)}


def area(part: SheetPart) -> float:
    return part.mass() / part.material.density / part.thickness * 1e9


def test_a_tubs_floor_by_hand() -> None:
    # 1,560 x 1,560 inside, arches 225 wide and 230 high from 620 to 1,400; the leaf is 22 thick, 5 before it.
    made = cut(lined("topper", 120.0, 0.0))
    long = (1560 - 22 - 5 - 2) / 2
    one, two = made["False floor: board"], made["False floor: board 2"]
    assert (one.count, two.count) == (1, 1)
    assert (one.length, one.width) == (pytest.approx(long), 1556)
    # 5 before the arch to the seam; from the seam to 5 behind it: 228 of each side, since the board keeps 2 from the wall.
    assert area(one) == pytest.approx(long * 1556 - 2 * 228 * (2 + long - 615), rel=1e-6)
    assert area(two) == pytest.approx(long * 1556 - 2 * 228 * (1405 - 2 - long), rel=1e-6)
    # Each half on three bearers, two of them side by side under the seam; beside the arches between these.
    whole, short = made["False floor: bearer"], made["False floor: bearer 2"]
    assert (whole.count, whole.length, whole.width) == (3, 1556, 108)
    assert (short.count, short.length) == (3, 1560 - 2 * 230)
    assert "False floor: lid" not in made


def test_a_floor_over_the_arches_is_whole_and_its_bearers_are_notched_over_them() -> None:
    made = cut(lined("topper", 300.0, 0.0))
    assert [made[n].shape for n in made if "board" in n] == [None]
    notched = made["False floor: bearer 2"]
    # 288 high, cut out 235 high and 228 wide at both ends.
    assert area(notched) == pytest.approx(1556 * 288 - 2 * 228 * 235, rel=1e-6)


@pytest.mark.parametrize("wings", [150.0, 240.0])
def test_a_wings_side_is_notched_where_the_arch_is_wider(wings: float) -> None:
    made = cut(lined("topper", 0.0, wings))
    long = 1560 - 22 - 5 - 2
    assert area(made["Wing: side"]) == pytest.approx(long * 318 - 790 * 235, rel=1e-6)
    assert area(made["Wing: top"]) == pytest.approx(long * (wings - 2), rel=1e-6)


def test_an_arch_as_high_as_a_wing_parts_it() -> None:
    job = lined("topper", 0.0, 150.0)
    tray = job.body.tray.but(arches=(Arch(start=620, length=600, width=225, height=340),))
    given_ = Setting(rear=27.0)
    rows = [b for b in lining.boards(tray, 1000.0, given_) if b.side == "left"]
    spans = sorted((b.name, b.box.x0 - 1000, b.box.x1 - 1000) for b in rows)
    ends = [(2, 615), (1225, 1533)]
    assert spans == [(name, *e) for name in ("Wing: side", "Wing: top") for e in ends]


@pytest.mark.parametrize("job", ["topper", "open tub", "wagon"])
@pytest.mark.parametrize(("floor", "wings"), [(120.0, 0.0), (250.0, 0.0), (0.0, 200.0), (150.0, 240.0)])  # fmt: skip
def test_no_lining_stops_a_tailgate_or_is_larger_than_a_sheet(
    job: str, floor: float, wings: float
) -> None:
    verdict = judge(lined(job, floor, wings, below=floor > 0))
    assert [f.code for f in verdict.findings if f.severity == "stop"] == []


def test_lids_and_their_rings_are_there_where_something_is_below() -> None:
    job = lined("wagon", 150.0, 0.0, below=True)
    parts = judge(job).assembly.ground.parts
    lids = sum(
        p.count for p in parts if isinstance(p, SheetPart) and p.name.startswith("False floor: lid")
    )
    rings = [p.count for p in parts if isinstance(p, Hardware) and "ring" in p.name]
    assert lids >= 2
    assert rings == [lids]
    plain = judge(lined("wagon", 150.0, 0.0)).assembly.ground.parts
    assert not [p for p in plain if isinstance(p, Hardware) and "ring" in p.name]


def test_a_board_wider_than_the_door_goes_in_as_strips_on_a_bearer_along() -> None:
    tray = TOPPER.body.tray.but(false_floor=120.0, arches=())
    rows = lining.boards(tray, 0.0, Setting(through=1000.0))
    pieces = [b for b in rows if b.name == "False floor: board"]
    assert [b.box.size()[1] for b in pieces] == [778, 778]
    under = [b.box for b in rows if b.name == "False floor: bearer along"]
    assert {(b.y0, b.y1) for b in under} == {(-PLY, 0.0), (0.0, PLY)}


ARCHES = st.lists(
    st.builds(
        Arch, start=st.integers(0, 900), length=st.integers(50, 900), width=st.integers(20, 350),
        height=st.integers(10, 420), side=st.sampled_from(("left", "right", "both")),
    ),
    max_size=3,
)  # fmt: skip


@given(
    st.integers(700, 2600), st.integers(800, 1700), st.sampled_from((0.0, 12.0, 18.0, 60.0, 150.0, 330.0)),
    st.sampled_from((0.0, 90.0, 240.0)), ARCHES, st.sampled_from((math.inf, 900.0, 620.0)), st.booleans(),
)  # fmt: skip
def test_any_lining_is_cut_as_it_stands_and_is_in_nothings_way(
    length: int, width: int, floor: float, wings: float, arches: list[Arch], through: float, below: bool
) -> None:  # fmt: skip
    tray = WAGON.body.tray.but(
        length=length, width=width, false_floor=floor, wings=wings, arches=tuple(arches)
    )
    x0, top, half = WAGON.vehicle.cab_back + tray.gap, tray.floor_z, width / 2
    hold = Box(x0, -half, top, x0 + length - 20, half, top + max(floor, 330.0))
    room = (Box(x0 + 20, 60 - half, top, hold.x1 - 20, half - 60, top + floor),) if below else ()
    sheets = tuple((max(s) - 20, min(s) - 20) for s in SHOP.stock.sheets)
    given_ = Setting(20.0, through, sheets, room)
    rows = lining.boards(tray, x0, given_)
    parts = lining.parts(WAGON.vehicle, tray, SHOP, given_)
    # What is cut is what stands there.
    stands = sum(math.prod(b.size()) for r in rows for b in r.solids()) / PLY
    flat = sum(area(p) * p.count for p in parts if isinstance(p, SheetPart))
    assert flat == pytest.approx(stands, rel=1e-6, abs=1)
    solids = [(r, b) for r in rows for b in r.solids()]
    for r, b in solids:
        assert b.common(hold) == b, r.name
        assert not r.name.endswith("board") or r.box.size()[1] <= through
        for arch in arches:
            a, high = x0 + arch.start, top + arch.height
            for side, low, high_y in (("left", -half, arch.width - half), ("right", half - arch.width, half)):  # fmt: skip
                if arch.side in (side, "both"):
                    hump = Box(
                        a - 4.9, low - 4.9, top, a + arch.length + 4.9, high_y + 4.9, high + 4.9
                    )
                    assert b.common(hump) is None, (r.name, side)
    for part in parts:
        if isinstance(part, SheetPart):
            long, wide = max(part.developed()), min(part.developed())
            assert any(long <= s[0] + 1e-6 and wide <= s[1] + 1e-6 for s in sheets), part.name
    for (one, some), (other, more) in itertools.combinations(solids, 2):
        met = some.common(more)
        assert met is None or one is other or min(met.size()) < 0.1, (one.name, other.name, met)
