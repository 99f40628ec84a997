"""Any rack, room and set-up: parts stand as judged, left and right are alike, nothing crashes, nothing is weighed twice."""

import itertools
from collections.abc import Iterable

import msgspec
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from tests.builders import SHOP, begun, hung
from tests.refolding import right_handed
from tests.sweeping import examples

from roomy_hull.core.errors import UserError
from roomy_hull.core.geometry.solids import TOUCH, Box
from roomy_hull.core.parts import BarPart, Hardware
from roomy_hull.core.poses import standing
from roomy_hull.job.edits import setups as edits
from roomy_hull.job.model import Job
from roomy_hull.job.racks import Rack
from roomy_hull.job.setups import SetUp
from roomy_hull.kit.body import outfitting
from roomy_hull.kit.body import racks as kit
from roomy_hull.kit.body.racks import BOLT_IN
from roomy_hull.making.joints import joined
from roomy_hull.verdict.swaps import swap
from roomy_hull.verdict.verdict import judge

FLATBED = begun("Fen", "bare tray")
CANOPY = begun("Marl 2.8 dual", "short canopy")


def _made(**fields: object) -> Rack | None:
    """A rack, or none where its own rules refuse it."""
    try:
        return Rack(**fields)  # type: ignore[arg-type]
    except ValueError:
        return None


racks = st.builds(
    _made,
    id=st.just("r"),
    kind=st.sampled_from(["tub rack", "cab rack", "gap rack", "hoop", "rear wall"]),
    start=st.floats(-300, 800), across=st.floats(-200, 200), foot=st.floats(0, 900),
    length=st.floats(320, 3000), width=st.floats(300, 2200), height=st.floats(320, 1600),
    bows=st.integers(2, 6), cross_bars=st.integers(0, 6),
    section=st.sampled_from(["40x40x3", "50x30x2", "25x40x3", "30x30"]),
    deck=st.sampled_from(["bars", "mesh", "sheet"]), panels=st.sampled_from(["none", "left", "right", "both"]),
    panel_height=st.floats(80, 300), pitch=st.floats(15, 400),
).filter(bool)  # fmt: skip


def with_racks(job: Job, *found: Rack) -> Job:
    return msgspec.structs.replace(job, body=job.body.but(racks=found))


def alike(some: Iterable[Box], others: Iterable[Box]) -> bool:
    """Whether two lists hold the same boxes, in whatever order; lengths are cut to a thousandth. [mm]"""
    left = list(others)
    for box in some:
        same = next(
            (o for o in left if max(abs(a - b) for a, b in zip(box, o, strict=True)) < 0.002), None
        )
        if same is None:
            return False
        left.remove(same)
    return not left


@given(racks)
def test_any_racks_parts_stand_as_it_is_judged(rack: Rack) -> None:
    job = CANOPY if rack.kind == "rear wall" else FLATBED
    there = kit.place(job.vehicle, job.body, rack)
    parts = kit.parts(job.vehicle, job.body, rack, SHOP)
    stood = [
        (p, b) for p in parts if not isinstance(p, Hardware) for boxes in standing(p) for b in boxes
    ]
    # Mesh is bought, and lies on the bars.
    mesh = rack.deck == "mesh" and not there.upright
    boxes = [b for n, b in enumerate(there.boxes) if not (mesh and n == len(there.members))]
    assert alike((b for _p, b in stood), boxes)
    for p, b in stood:
        assert min(b.size()) > 0
        assert all(a <= c + 1e-6 for a, c in zip(there.box[:3], b[:3], strict=True)), p.name
        assert all(right_handed(s) for s in p.poses if not hasattr(p, "section"))
    # Bars meet, and none lies in another.
    bars = [b for p, b in stood if hasattr(p, "section")]
    for n, a in enumerate(bars):
        for b in bars[n + 1 :]:
            met = a.common(b)
            assert met is None or min(met.size()) <= TOUCH, (a, b)
    kg = sum(m.kg for m in kit.masses(job.vehicle, job.body, rack, parts))
    assert kg >= sum(p.mass() * len(p.poses) for p in parts if not isinstance(p, Hardware))


@given(racks, st.sampled_from(["tent", "boards", "load"]))
@settings(max_examples=examples(15, 5))
def test_any_rack_with_a_load_is_judged(rack: Rack, load: str) -> None:
    job = with_racks(CANOPY if rack.kind == "rear wall" else FLATBED, rack)
    job = hung(job, "spare" if rack.kind in ("hoop", "rear wall") else load)
    verdict = judge(job)
    (check,) = verdict.carrying.racks
    assert check.trouble or (check.cases and all(c.stress >= 0 for c in check.cases))
    if job.carried[0].on:
        # What was placed by the program lies on it; where the rack is smaller than the thing it hangs over.
        assert not [f for f in verdict.findings if f.code == "body.rack_pitch"]
    assert check.could >= 0


@given(st.floats(-400, 400), st.sampled_from(["box", "camper", "side box"]))
@settings(max_examples=examples(20, 5))
def test_a_room_across_the_centre_loads_the_sides_the_other_way(across: float, kind: str) -> None:
    job = outfitting.added(FLATBED, kind)
    room = job.body.rooms[0]

    def at(y: float) -> Job:
        rooms = (msgspec.structs.replace(room, across=y),)
        return msgspec.structs.replace(job, body=job.body.but(rooms=rooms))

    a, b = (judge(at(y)).assembly.ground.masses for y in (across, -across))
    for one, other in zip(a, b, strict=True):
        if one.owner == room.ref and kind != "side box":
            assert one.kg == pytest.approx(other.kg)
            assert one.x == pytest.approx(other.x)
    left, right = (sum(m.kg * m.y for m in rows if m.owner == room.ref) for rows in (a, b))
    whole = sum(m.kg for m in a if m.owner == room.ref)
    assert left - right == pytest.approx(2 * across * whole, abs=1e-6 * max(1.0, whole))


@given(st.data())
@settings(max_examples=examples(20, 5))
def test_any_set_ups_are_judged_and_swapped(data: st.DataObject) -> None:
    parts = data.draw(
        st.lists(
            st.sampled_from(["box", "side box", "hoop", "gap rack", "cab rack"]),
            max_size=3,
            unique=True,
        )
    )
    job = FLATBED
    for part in parts:
        try:
            job = outfitting.added(job, part)
        except UserError:
            continue
    job = hung(job, "spare", "jerry", "steps")
    things = (
        [c.id for c in job.carried]
        + [r.id for r in job.body.rooms]
        + [r.id for r in job.body.racks]
    )
    for name in ("One", "Two"):
        off = data.draw(st.lists(st.sampled_from(things), unique=True))
        job = edits.added(
            job, SetUp(id="x", name=name, off=tuple(off), sides=data.draw(st.booleans()))
        )
    rows = tuple(msgspec.structs.replace(s, setup="one") for s in job.scenarios)
    job = msgspec.structs.replace(job, scenarios=rows)
    verdict = judge(job)
    gone = edits.absent(job, job.setups[0])
    aboard = sum(
        m.kg for m in verdict.assembly.masses()
        if m.owner.comes_off and m.owner.id not in gone and m.fill.by == "fixed"
    )  # fmt: skip
    bare = judge(msgspec.structs.replace(edits.worn(job, job.setups[0]), setups=(), scenarios=tuple(
        msgspec.structs.replace(s, setup="") for s in job.scenarios
    )))  # fmt: skip
    assert aboard == pytest.approx(
        sum(m.kg for m in bare.assembly.masses() if m.owner.comes_off and m.fill.by == "fixed")
    )
    for a, b in zip(verdict.loads.scenarios, bare.loads.scenarios, strict=True):
        assert a.gross.value == pytest.approx(b.gross.value)
    found = swap(verdict, "one", "two")
    other = edits.absent(job, job.setups[1])
    assert {s.what for s in found.steps if s.do == "put on"} - {"sides"} == gone - other
    assert {s.what for s in found.steps if s.do == "take off"} - {"sides"} == other - gone


@given(racks.filter(lambda r: r.kind == "rear wall"))  # type: ignore[arg-type]
def test_any_rear_walls_rails_are_bolted_through_both_walls(rack: Rack) -> None:
    own = kit.parts(CANOPY.vehicle, CANOPY.body, rack, SHOP)
    made = joined(own, SHOP.tools.joining)
    assert made.alone == ()
    for p in (p for p in made.parts if isinstance(p, BarPart)):
        rear = sorted(h.along for h in p.drilled if h.side == "low high")
        front = sorted(h.along for h in p.drilled if h.side == "far high")
        assert 2 <= len(front) <= 3
        assert set(front) <= set(rear)
        assert BOLT_IN - 0.01 <= front[0] < front[-1] <= p.length - BOLT_IN + 0.01
        assert min(b - a for a, b in itertools.pairwise(rear)) > kit.BORE
