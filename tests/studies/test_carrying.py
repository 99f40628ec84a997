"""Chassis, mounts, members, struts, springs and brief as a study, and what is found on them."""

import msgspec
import pytest

from plain_beam import Load, moment_at, shear_at
from roomy_hull.assembly import springs
from roomy_hull.assembly.scaling import scale
from roomy_hull.core.findings import Finding
from roomy_hull.core.units import G
from roomy_hull.job.brief import Wish
from roomy_hull.job.edits import scenarios
from roomy_hull.job.edits import units as edits
from roomy_hull.job.model import Job
from roomy_hull.studies.strength import chassis
from roomy_hull.studies.strength.supports import kerb_spread
from roomy_hull.studies.strength.variations import variations
from roomy_hull.verdict.verdict import Verdict, fixes, judge


def on_springs(job: Job, **changes: object) -> Job:
    return msgspec.structs.replace(
        job, vehicle=job.vehicle.but(springs=job.vehicle.springs.but(**changes))
    )


def found(job: Job, code: str) -> list[Finding]:
    return [f for f in judge(job).findings if f.code == f"loads.{code}"]


@pytest.mark.parametrize("option", ["standard", "air"])
@pytest.mark.parametrize(
    ("span", "shift"), [(1100.0, 0.0), (0.0, 0.0), (1100.0, -180.0), (0.0, 140.0)]
)
def test_forces_and_moments_on_the_chassis_balance(
    demo: Job, option: str, span: float, shift: float
) -> None:
    v = judge(on_springs(demo, school=option, leaf_span=span, air_x=shift))
    result = v.carrying.chassis
    for d, loads in zip(result.diagrams, v.loads.scenarios, strict=True):
        assert d.shear[-1] == pytest.approx(0, abs=1e-6)
        assert d.moment[-1] == pytest.approx(0, abs=1e-6)
        s = v.job.vehicle.springs
        up = sum(p.newton for p in d.pushes)
        assert up == pytest.approx((loads.gross.value - s.unsprung_front - s.unsprung_rear) * G)
        about_front = sum(p.newton * p.x for p in d.pushes)
        assert about_front == pytest.approx((loads.rear.value - s.unsprung_rear) * G * 3240)
        # Shear is the slope of the moment wherever neither jumps.
        for i in range(3, len(result.xs) - 1, 17):
            a, b = result.xs[i], result.xs[i + 1]
            if not any(a <= p.x <= b for p in d.pushes):
                slope = (d.moment[i + 1] - d.moment[i]) / (b - a) * 1e3
                low, high = sorted((d.shear[i], d.shear[i + 1]))
                assert low - 60 <= slope <= high + 60


def test_the_diagram_is_the_plain_beam_under_the_same_loads(demo_verdict: Verdict) -> None:
    v = demo_verdict
    result = v.carrying.chassis
    d = result.diagram("full")
    scenario = next(s for s in v.job.scenarios if s.id == "full")
    factor = result.factor * G
    bare = [m.kg for m in v.assembly.ground.masses if m.label.startswith("kerb")]
    loads = [Load(kg * factor, a, b) for kg, a, b in kerb_spread(v.job.vehicle, *bare)]
    rows = chassis._ground_rows(v.assembly, v.loads)
    for thing in v.assembly.things:
        rows += [
            (m, *chassis.extent(m, (thing.envelope.x0, thing.envelope.x1))) for m in thing.masses
        ]
    for m, a, b in rows:
        f = scale(scenario, m.owner, m.fill, m.mount)
        loads.append(Load(m.kg * f * factor, a, b))
    loads += [Load(-p.newton * result.factor, p.x, p.x) for p in d.pushes]
    for i in range(0, len(result.xs), 9):
        x = result.xs[i]
        assert d.moment[i] == pytest.approx(moment_at(tuple(loads), x) * 1e-3, abs=0.01)
        assert d.shear[i] == pytest.approx(shear_at(tuple(loads), x), abs=0.01)


def test_the_bare_vehicle_weighs_on_its_axles_what_it_was_weighed_at(demo: Job) -> None:
    v = demo.vehicle
    rows = kerb_spread(v, v.kerb.front, v.kerb.rear)
    s = v.springs
    assert sum(r[0] for r in rows) == pytest.approx(
        v.kerb.front + v.kerb.rear - s.unsprung_front - s.unsprung_rear
    )
    # From the nose to the cab's back, and from there to the end: not heaped on the axles.
    assert rows[0][1:] == (-v.shape.front, v.cab_back)
    assert rows[1][1] == v.cab_back
    assert rows[1][2] >= v.chassis_end
    moment = sum(kg * (a + b) / 2 for kg, a, b in rows)
    assert moment / v.wheelbase == pytest.approx(v.kerb.rear - s.unsprung_rear)
    assert [r[1] for r in kerb_spread(v, 1900.0, 160.0)] == [0, v.wheelbase]


def test_the_even_payload_is_the_measure(demo: Job) -> None:
    v = judge(demo)
    c = v.carrying.chassis
    assert c.payload == pytest.approx(3500 - 1175 - 805 + 10 * 0.84)
    assert c.baseline.ratio == 1
    assert c.worst().ratio == max(d.ratio for d in c.diagrams)
    assert c.start == demo.vehicle.cab_back
    # A block right behind the cab bends it more, and that is a look.
    assert not found(demo, "chassis")
    heavy = edits.changed(demo, "water", height=372.0)
    heavy = edits.changed(heavy, "sample-fridge", contents=420.0)
    looks = [f for f in judge(heavy).findings if f.code == "loads.chassis"]
    assert [f.severity for f in looks] == ["look"]
    assert looks[0].measured is not None
    assert looks[0].limit is not None
    assert looks[0].measured > looks[0].limit


def test_what_a_ball_and_air_springs_do(demo: Job) -> None:
    v = judge(demo)
    one = next(s for s in demo.scenarios if s.id == "full")
    rows = {r.words: r for r in variations(v.assembly, v.loads, one)}
    plain = rows["As it is"]
    assert rows["With the ball's rated mass"].peak < plain.peak
    assert rows["With the ball's rated mass"].axle < plain.axle
    assert rows["Without what hangs behind the tray"].peak > plain.peak
    air = rows["Air springs over the axle"]
    assert air.peak == pytest.approx(plain.peak)  # ahead of both supports nothing changes
    assert air.axle < plain.axle - 1000
    towing = next(s for s in demo.scenarios if s.id == "towing")
    assert "Without the ball mass" in {r.words for r in variations(v.assembly, v.loads, towing)}


def test_mounts_locks_pulls_and_what_would_mend_them(demo: Job) -> None:
    loose = edits.changed(demo, "tools", locks=False)
    f = found(loose, "lock")
    assert [x.words for x in f] == [("tools",)]
    assert fixes(judge(loose), f[0])[0].changes == {"locks": True}
    heavy = edits.changed(demo, "tools", contents=130.0, slide_rating=400.0)
    pulls = found(heavy, "pull")
    assert [x.words for x in pulls] == [("tools",)]
    assert pulls[0].measured == pytest.approx(137.1 * G * 0.2032, rel=0.02)
    weak = edits.changed(demo, "sample-fridge", contents=2500.0, bolt="M6", bolts=2)
    torn = [x for x in judge(weak).findings if x.code in ("loads.mount", "loads.mount_out")]
    assert torn
    assert all(x.severity == "stop" for x in torn)
    assert fixes(judge(weak), torn[0])[0].changes == {"bolt": "M8"}
    free = edits.changed(demo, "battery", bolts=0)
    assert [x.severity for x in found(free, "loose")] == ["look"]
    assert fixes(judge(free), found(free, "loose")[0])[0].changes["bolts"] == 4


def test_members_give_way_and_thicker_sheet_mends_it(demo: Job) -> None:
    heavy = edits.changed(demo, "bedding", contents=900.0)
    f = found(heavy, "member")
    assert [x.words for x in f] == [("bedding",)]
    assert f[0].measured is not None
    assert f[0].limit == pytest.approx(195 / 1.5)
    assert fixes(judge(heavy), f[0])[0].changes == {"sheet": 2.5}
    thick = edits.changed(heavy, "bedding", sheet=6.0)
    assert not found(thick, "member")
    tank = edits.changed(demo, "water", baffles=0, sheet=0.7)
    walls = found(tank, "member")
    assert walls
    assert walls[0].limit == pytest.approx(90 / 1.5)  # beside its welds
    assert "surge" in next(c.load for c in judge(tank).carrying.members["water"])


def test_every_kind_that_holds_something_has_a_member(demo: Job) -> None:
    from roomy_hull.kinds.registry import kind_of
    from roomy_hull.kit.catalogue import entries

    for entry in entries():
        made = entry.make
        if not hasattr(made, "bay"):
            continue
        job = edits.added(msgspec.structs.replace(demo, units=()), made.but(bay="L", contents=20.0))
        verdict = judge(job)
        key = job.units[0].id
        checks = verdict.carrying.members[key]
        thing = verdict.assembly.thing(key)
        assert thing is not None
        floors = any(getattr(p, "role", "") == "floor" for p in thing.expansion.parts)
        vessel = kind_of(job.units[0]).walls(job.units[0], "left") is not None
        assert bool(checks) == ((floors or vessel) and not thing.trouble)
        for c in checks:
            assert c.stress > 0
            assert c.sag > 0
            assert c.use() == max(c.stress / c.allowed, c.sag / c.allowed_sag)


def test_struts_that_do_not_hold_are_found(demo: Job) -> None:
    canopy = demo.body.canopy
    assert canopy is not None

    def with_strut(**changes: object) -> Job:
        doors = tuple(
            d.but(strut=d.strut.but(**changes)) if d.id == "left" and d.strut else d
            for d in canopy.doors
        )
        new = canopy.but(doors=doors)
        return msgspec.structs.replace(demo, body=demo.body.but(canopy=new))

    assert [f.severity for f in found(with_strut(force=60.0), "strut_falls")] == ["look"]
    assert [f.severity for f in found(with_strut(leaf=480.0), "strut")] == ["stop"]
    assert [f.severity for f in found(with_strut(force=2500.0), "strut_heavy")] == ["look"]
    assert not found(demo, "strut_falls")
    none = msgspec.structs.replace(
        demo,
        body=demo.body.but(canopy=canopy.but(doors=tuple(d.but(strut=None) for d in canopy.doors))),
    )
    carrying = judge(none).carrying
    assert all(s.proposed and s.stays and not s.trouble for s in carrying.struts)


def test_air_at_its_most_and_a_high_centre_are_looks(demo: Job) -> None:
    assert [f.scenario for f in found(on_springs(demo, school="air", air_most=600.0), "air")] == [
        "rear"
    ]
    assert not found(on_springs(demo, school="air", air_most=900.0), "air")
    assert not found(on_springs(demo, school="constant load"), "level")
    tall = msgspec.structs.replace(
        demo, vehicle=demo.vehicle.but(kerb=demo.vehicle.kerb.but(height=860.0))
    )
    assert [f.severity for f in found(tall, "stability")] == ["look"]


def test_the_drawn_stance_follows_the_school(demo: Job) -> None:
    v = judge(on_springs(demo, school="air"))
    for s in v.loads.scenarios:
        found_row = springs.compare(v.job.vehicle, ((s.id, s.front.value, s.rear.value),)).row(
            "air", s.id
        )
        assert msgspec.structs.replace(s.stance, uncertainty=0.0) == found_row.stance
        assert abs(s.stance.tail_low) < 1
    angles = {a.scenario: a.departure for a in v.outline.angles}
    plain = {a.scenario: a.departure for a in judge(demo).outline.angles}
    assert angles["Worst rear"] > plain["Worst rear"] + 0.5


def test_the_brief_says_what_is_left(demo: Job) -> None:
    v = judge(demo)
    b = v.budget
    assert b.scenario == "Worst rear"
    assert b.open == {"needed": 0, "wanted": 105, "later": 82}
    assert b.left == pytest.approx(v.loads.scenario("rear").payload_left.value)
    assert b.left_all == pytest.approx(b.left - 187)
    assert b.uncertainty > v.loads.scenario("rear").payload_left.uncertainty
    job = scenarios.wished(demo, Wish(id="x", name="Anvil", need="needed", mass=200.0, x=3900.0))
    more, after = b.rear_wanted, judge(job).budget
    assert after.left_needed == pytest.approx(b.left - 200)
    assert after.rear_wanted == pytest.approx(more - 200 * 3900 / 3240)
    decided = msgspec.structs.replace(job.brief.wishes[-1], thing="tools")
    with_it = msgspec.structs.replace(job, brief=job.brief.but(wishes=(decided,)))
    one = judge(with_it).budget
    assert one.over["needed"] == pytest.approx(66.5 - 200, abs=0.5)
    assert one.open["needed"] == 0


def test_memory_alters_nothing(demo: Job) -> None:
    first = judge(demo)
    moved = edits.changed(demo, "tools", u=450.0)
    moved = edits.changed(moved, "bedding", contents=40.0)
    assert judge(moved, first).carrying == judge(moved).carrying
