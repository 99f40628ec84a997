"""Goods in their places, living aboard, and the canopy on its legs."""

import math
from typing import Any

import msgspec
import pytest
from hypothesis import given
from hypothesis import strategies as st

from roomy_hull.core.errors import EditError
from roomy_hull.core.geometry.solids import Box
from roomy_hull.formats.demo import demo_job
from roomy_hull.formats.goods_table import read_goods
from roomy_hull.job.body import Trundle, UnderBox
from roomy_hull.job.edits import goods as edits
from roomy_hull.job.goods import Berth, Dog, Good, Party, Person
from roomy_hull.job.model import Job
from roomy_hull.studies.access.effort import HELD, _lift
from roomy_hull.studies.access.judge import AccessResult
from roomy_hull.studies.access.living import tilt
from roomy_hull.studies.access.off_on import leg_loads, tipping
from roomy_hull.studies.access.reach import Seen
from roomy_hull.studies.access.spaces import Space
from roomy_hull.studies.access.standing import Settled
from roomy_hull.studies.fit.mending import applied
from roomy_hull.verdict.verdict import Verdict, fixes, judge


def space(found: AccessResult, owner: str, part: str = "") -> int:
    return next(
        n for n, s in enumerate(found.spaces) if s.owner == owner and (not part or s.part == part)
    )


def codes(verdict: Verdict) -> list[str]:
    return [
        f.code.removeprefix("access.") for f in verdict.findings if f.code.startswith("access.")
    ]


def with_good(job: Job, **more: Any) -> Job:
    return edits.with_goods(job, [Good(**({"id": "thing", "name": "A thing", "mass": 1.0} | more))])  # type: ignore[arg-type]


# Goods


def test_goods_are_what_a_unit_holds(stocked: Job, stocked_verdict: Verdict) -> None:
    thing = stocked_verdict.assembly.thing("net-drawer")
    assert thing is not None
    assert thing.contents == pytest.approx(16.0) == sum(g.kg for g in thing.goods)
    more = judge(with_good(stocked, mass=10.0, place="net-drawer"))
    a, b = stocked_verdict.loads.scenario("full"), more.loads.scenario("full")
    assert b.gross.value - a.gross.value == pytest.approx(10.0)
    # At half contents half of it is aboard; a slide carries all.
    dry = more.loads.scenario("dry").gross.value - stocked_verdict.loads.scenario("dry").gross.value
    share = next(s.contents for s in stocked.scenarios if s.id == "dry")
    assert dry == pytest.approx(10.0 * share)
    one = more.assembly.thing("net-drawer")
    assert one is not None
    assert one.expansion.slide_load == pytest.approx(thing.expansion.slide_load + 10.0)


def test_a_good_is_aboard_only_where_it_is_said(stocked: Job, stocked_verdict: Verdict) -> None:
    more = judge(with_good(stocked, mass=7.0, place="camp", only=("towing",)))
    for s in stocked.scenarios:
        by = (
            more.loads.scenario(s.id).gross.value - stocked_verdict.loads.scenario(s.id).gross.value
        )
        assert by == pytest.approx(7.0 * s.contents if s.id == "towing" else 0.0, abs=1e-9)


def test_goods_in_the_cab_and_goods_that_are_lost(stocked: Job, stocked_verdict: Verdict) -> None:
    cab = judge(with_good(stocked, mass=12.0, place="cab"))
    a, b = stocked_verdict.loads.scenario("full"), cab.loads.scenario("full")
    assert b.gross.value - a.gross.value == pytest.approx(12.0)
    assert b.front.value - a.front.value > 0.3 * 12
    assert judge(cab.job, stocked_verdict).loads.scenario("full").gross.value == pytest.approx(
        b.gross.value
    )
    lost = judge(with_good(stocked, place="gone"))
    assert "lost" in codes(lost)
    assert lost.loads.scenario("full").gross.value == pytest.approx(a.gross.value)
    assert lost.job.goods[-1].place == "gone"


def test_what_is_wanted_now_takes_one_action_and_nothing_lifted(stocked: Job) -> None:
    assert "moves" not in codes(judge(with_good(stocked, use="now", place="field-lab")))
    assert "moves" in codes(judge(with_good(stocked, use="now", place="net-drawer")))
    assert "moves" in codes(judge(with_good(stocked, use="each stop", place="tools")))
    assert "moves" not in codes(judge(with_good(stocked, use="each camp", place="recovery")))


@pytest.mark.parametrize(
    ("more", "code"),
    [
        ({"length": 900.0, "width": 700.0, "height": 50.0, "place": "net-drawer"}, "size"),
        ({"litres": 200.0, "place": "net-drawer"}, "full"),
        ({"nature": ("wet",), "place": "pantry"}, "nature"),
        ({"nature": ("fuel",), "place": "poles"}, "nature"),
        ({"mass": 15.0, "place": "boards"}, "heavy_high"),
        ({"nature": ("recovery",), "place": "camp"}, "bogged"),
        ({"mass": 45.0, "place": "camp"}, "lift"),
    ],
)
def test_what_is_ill_stowed_is_told(stocked: Job, more: dict[str, Any], code: str) -> None:
    base = {f.key for f in judge(stocked).findings}
    found = [f for f in judge(with_good(stocked, **more)).findings if f.key not in base]
    assert f"access.{code}" in [f.code for f in found], [f.title for f in found]


def test_a_good_moved_nearer_never_takes_more_moves(stocked: Job, stocked_verdict: Verdict) -> None:
    found = stocked_verdict.access
    # In front of what stands before it: a good behind a unit takes at least the moves of one beside.
    deep, front = found.moves[space(found, "battery")], found.moves[space(found, "bird-bags")]
    assert deep.count >= front.count


# Living, the canopy


def test_dogs_beds_and_the_default_party(stocked: Job) -> None:
    party = Party(
        people=(Person(id="a", stature=1900.0),),
        dogs=(Dog(id="d", place="camp"),),
        berths=(Berth(id="b", length=1800.0),),
    )
    found = judge(msgspec.structs.replace(stocked, party=party))
    assert {"dog", "berth"} <= set(codes(found))
    bed = found.access.living.beds[0]
    assert bed.wants == pytest.approx((2000.0, 1900 * 0.259 + 150, 1900 * 0.52 + 50))
    assert bed.short[0] == pytest.approx(200.0)
    nobody = judge(msgspec.structs.replace(stocked, party=Party()))
    assert [s.person for s in nobody.access.seen[0]] == ["short", "tall"]
    with pytest.raises(ValueError, match="stands twice"):
        Party(people=(Person(id="a"), Person(id="a")))


@pytest.mark.parametrize("stature", [0.0, 300.0, 3000.0, math.nan])
def test_people_of_no_stature_are_refused(stature: float) -> None:
    with pytest.raises((msgspec.ValidationError, ValueError)):
        Person(id="x").but(stature=stature)


@given(ahead=st.floats(-8, 8), left=st.floats(-8, 8))
def test_blocks_make_it_level(ahead: float, left: float) -> None:
    job = demo_job("tarn")
    uses = job.services.uses.but(slope_ahead=ahead, slope_left=left)
    job = msgspec.structs.replace(job, services=job.services.but(uses=uses))
    verdict = judge(demo_job("tarn"))
    assembly = msgspec.structs.replace(verdict.assembly, job=job)
    t = tilt(assembly, Settled(0.0, 0.0, job.vehicle.wheelbase))
    fl, fr, rl, rr = t.wheels
    assert min(t.wheels) == pytest.approx(0.0, abs=1e-9)
    # Raised by these blocks, each axle and each side is level.
    v = job.vehicle
    assert rl - fl == pytest.approx(
        v.wheelbase * math.tan(math.radians(ahead)) + (rl - fl - (rr - fr)) / 2, abs=25
    )
    assert fr - fl == pytest.approx(v.track_front * math.tan(math.radians(left)), abs=1e-6)
    assert rr - rl == pytest.approx(v.track_rear * math.tan(math.radians(left)), abs=1e-6)


@given(kg=st.floats(50, 2000), ex=st.floats(-400, 400), ey=st.floats(-300, 300))
def test_what_stands_on_the_legs_balances(kg: float, ex: float, ey: float) -> None:
    feet = (1000.0, -900.0, 3000.0, 900.0)
    a, b, c, d = leg_loads(kg, (2000 + ex, ey), feet)
    assert a + b + c + d == pytest.approx(kg)
    assert 1000 * (a + b) + 3000 * (c + d) == pytest.approx(kg * (2000 + ex))
    assert -900 * (a + c) + 900 * (b + d) == pytest.approx(kg * ey)


def test_tipping_by_statics() -> None:
    # A centre 1 m up over the middle of feet 1.8 m apart tips at atan(0.9).
    assert tipping((2000.0, 0.0, 1000.0), (1000.0, -900.0, 3000.0, 900.0)) == pytest.approx(
        math.degrees(math.atan(0.9))
    )
    assert tipping((2000.0, 1000.0, 1000.0), (1000.0, -900.0, 3000.0, 900.0)) < 0


def test_the_canopy_s_legs_carry_what_it_weighs_and_have_to_be_long_enough(
    stocked: Job, stocked_verdict: Verdict
) -> None:
    off = stocked_verdict.access.off_on
    assert off is not None
    assert sum(kg for _n, kg in off.legs) == pytest.approx(off.loaded)
    masses = [
        m for m in stocked_verdict.assembly.masses() if m.mount == "canopy" and m.fill.by == "fixed"
    ]
    assert off.empty == pytest.approx(sum(m.kg for m in masses))
    canopy = stocked.body.canopy
    assert canopy is not None

    def legged(leg: float) -> list[str]:
        body = stocked.body.but(canopy=canopy.but(jacks=True, leg=leg))
        return codes(judge(msgspec.structs.replace(stocked, body=body)))

    assert "leg_short" in legged(off.least_leg - 10)
    assert "leg_short" not in legged(off.least_leg + 10)
    assert any("Alternator to charger" in step for step in off.steps)
    assert judge(demo_job("tarn")).access.off_on is None


def test_a_unit_taken_away_keeps_its_goods_and_tells(stocked: Job) -> None:
    units = tuple(u for u in stocked.units if u.id != "net-drawer")
    found = judge(msgspec.structs.replace(stocked, units=units))
    lost = [f for f in found.findings if f.code == "access.lost"]
    assert len(lost) == 2
    assert len(found.job.goods) == len(stocked.goods)


def test_another_place_is_offered_and_mends(stocked: Job) -> None:
    found = judge(
        with_good(
            stocked, use="each stop", place="recovery", length=200.0, width=150.0, height=60.0
        )
    )
    flaw = next(f for f in found.findings if f.code == "access.moves")
    offered = fixes(found, flaw)
    assert 0 < len(offered) <= 3
    for fix in offered:
        assert "access.moves" not in [f.code for f in judge(applied(found.job, fix)).findings], (
            fix.words
        )


def test_a_drawer_too_heavy_for_the_weakest_is_told(stocked: Job) -> None:
    weak = Party(people=(Person(id="w", pull=40.0), Person(id="s", pull=400.0)))
    assert "pull" in codes(judge(msgspec.structs.replace(stocked, party=weak)))
    assert "pull" not in codes(judge(stocked))


def test_a_run_through_is_walked(stocked_verdict: Verdict) -> None:
    rounds = stocked_verdict.access.rounds
    assert [r.id for r in rounds] == [r.id for r in stocked_verdict.job.runs]
    assert all(r.metres > 0 and r.actions > 0 for r in rounds)


# Under the tray


def hung(job: Job) -> Job:
    """A toolbox and a trundle drawer under the tray."""
    box = UnderBox(
        id="A", side="left", place="ahead", length=500, height=350, depth=400, contents=20
    )
    tray = job.body.tray.but(
        boxes=(box,), trundle=Trundle(length=1200, width=500, height=180, contents=30)
    )
    return msgspec.structs.replace(job, body=job.body.but(tray=tray))


def held(verdict: Verdict) -> dict[str, float]:
    """What is held under the tray. [kg]"""
    found: dict[str, float] = {}
    for m in verdict.assembly.ground.masses:
        if m.fill.by == "contents":
            found[m.label] = found.get(m.label, 0.0) + m.kg
    return found


def test_goods_under_the_tray_are_reached_and_weighed(stocked: Job) -> None:
    job = hung(stocked)
    plain = judge(job)
    assert held(plain) == {"in toolbox A": 20, "in the trundle drawer": 30}
    job = edits.with_goods(job, [
        Good(id="shackles", name="Shackles", mass=4, count=3, place="tray.box-A", only=(job.scenarios[0].id,)),
        Good(id="tent", name="Tent", mass=14, place="tray.trundle"),
    ])  # fmt: skip
    laden = judge(job, plain)
    assert held(laden) == pytest.approx({"in toolbox A": 12, "in the trundle drawer": 14})
    only = [m.fill.only for m in laden.assembly.ground.masses if m.label == "in toolbox A"]
    assert only == [(job.scenarios[0].id,)]
    # From nothing it is the same, and another mass is not taken from before.
    assert [m.kg for m in judge(job).assembly.masses()] == [m.kg for m in laden.assembly.masses()]
    assert held(judge(edits.changed(job, "tent", mass=20), laden))["in the trundle drawer"] == 20
    found = laden.access
    rows = {s.name: n for n, s in enumerate(found.spaces) if s.owner.startswith("tray.")}
    # The box opens with its door alone; before the drawer the wheel on its arm is swung aside.
    assert [a.what for a in found.moves[rows["Toolbox A"]].actions] == ["tray:box-A"]
    assert [a.what for a in found.moves[rows["Trundle drawer"]].actions] == [
        "spare",
        "tray:trundle",
    ]
    out = found.spaces[rows["Trundle drawer"]]
    assert out.box.x0 - out.rest.x0 == pytest.approx(0.9 * 1200)
    assert all(s.how in ("in reach", "crouching") for n in rows.values() for s in found.seen[n])


def test_a_toolbox_whose_id_ends_as_the_drawer_s_is_still_a_toolbox(stocked: Job) -> None:
    job = hung(stocked)
    boxes = (job.body.tray.boxes[0].but(id="b.trundle"),)
    job = msgspec.structs.replace(job, body=job.body.but(tray=job.body.tray.but(boxes=boxes)))
    rows = {s.owner: s for s in judge(job).access.spaces if s.owner.startswith("tray.")}
    assert set(rows) == {"tray.box-b.trundle", "tray.trundle"}
    assert not rows["tray.box-b.trundle"].top
    assert rows["tray.trundle"].top


def test_a_toolbox_taken_away_loses_nothing(stocked: Job) -> None:
    job = edits.with_goods(
        hung(stocked), [Good(id="tent", name="Tent", mass=14, place="tray.box-A")]
    )
    bare = msgspec.structs.replace(job, body=stocked.body)
    verdict = judge(bare)
    assert bare.goods[-1].place == "tray.box-A"
    assert "lost" in codes(verdict)
    assert held(verdict) == {}
    with pytest.raises(EditError, match=r"there is no 'tray\.box-A'"):
        edits.stowed(stocked, stocked.goods[0].id, "tray.box-A")


def test_a_table_names_a_toolbox(stocked: Job) -> None:
    rows = read_goods(
        "name;kg;place\nShackles;3,2;Toolbox A\nTent;14;trundle drawer\n", hung(stocked)
    )
    assert [g.place for g in rows] == ["tray.box-A", "tray.trundle"]


def niosh(
    out: float, height: float, travel: float, fair: tuple[float, float] = (0.95, 1.0)
) -> float:
    """The revised lifting equation by its manual (DHHS (NIOSH) 94-110), written out anew. [cm, kg]"""
    if out > 63 or not 0 <= height <= 175 or travel > 175:
        return 0.0
    far, up = 25 / max(out, 25), 1 - 0.003 * abs(height - 75)
    return 23 * far * up * (0.82 + 4.5 / max(travel, 25)) * fair[height >= 75]


def test_a_lift_is_as_hard_as_its_harder_end(stocked: Job, stocked_verdict: Verdict) -> None:
    found, ends = stocked_verdict.access.efforts, []
    widths = {g.id: min(g.width, g.length) or 300.0 for g in stocked.goods}
    assert len(found) > 10
    for one in found:
        if one.what not in widths:
            continue
        travel = abs(one.height - HELD)
        origin = niosh(one.out, one.height, travel)
        close = (25.0 if HELD < 25 else 20.0) + widths[one.what] / 20.0
        ends.append((origin, niosh(close, HELD, travel)))
        assert one.most == pytest.approx(min(ends[-1]))
        assert one.index == pytest.approx(one.kg / min(ends[-1]) if min(ends[-1]) else math.inf)
    # Held out as close as it can be it is a lift from nowhere to nowhere: then both ends are as hard.
    assert all(a <= b for a, b in ends)
    assert any(a < b for a, b in ends)


@given(st.floats(250, 620), st.floats(100, 1700), st.floats(100, 800))
def test_lifted_from_where_one_stands_it_is_as_hard_as_its_harder_end(
    out: float, height: float, width: float
) -> None:
    box = Box(0, -500, height - 40, 600, 0, height + 160)
    one = Space("x", "", "Tray", "left", box, box, True, frozenset(), (), ())
    seen = Seen(
        "p", "in reach", 0.0, 1.0, 1.0, (300.0, -500.0 - out, 0.0), (), (300.0, -500.0, height)
    )
    found = _lift("g", "G", 12.0, width, seen, Settled(0.0, 0.0, 3000.0), one)
    close = 20.0 + width / 20.0
    travel = abs(height / 10.0 - HELD)
    ends = niosh(max(out / 10.0, close), height / 10.0, travel), niosh(close, HELD, travel)
    assert found.most == pytest.approx(min(ends))
    assert found.index == pytest.approx(12.0 / min(ends) if min(ends) else math.inf)
