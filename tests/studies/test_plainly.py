"""Mounts, members and levers computed once more from the masses of the assembly, in plain formulas."""

import math

import msgspec
import pytest
from hypothesis import given
from hypothesis import strategies as st
from tests.builders import SHOP

from roomy_hull.assembly.things import Thing
from roomy_hull.core.findings import Finding
from roomy_hull.core.mechanics.plates import box_plate, plate
from roomy_hull.core.mechanics.sections import section
from roomy_hull.core.parts import SheetPart
from roomy_hull.core.refs import CANOPY, TRAY
from roomy_hull.core.units import G
from roomy_hull.formats.demo import DEMOS, demo_job
from roomy_hull.job.carried import Carried
from roomy_hull.job.model import Job
from roomy_hull.kinds.registry import kind_of
from roomy_hull.studies.loads import axles, ranking
from roomy_hull.studies.loads.weighing import raised_height
from roomy_hull.studies.outline import outline
from roomy_hull.studies.outline.judge import fixes as outline_fixes
from roomy_hull.studies.strength import struts
from roomy_hull.studies.strength.members import MemberCheck
from roomy_hull.studies.strength.variations import variations
from roomy_hull.verdict.verdict import Verdict, judge

STRESS = {"M6": 20.1, "M8": 36.6, "M10": 58.0, "M12": 84.3, "M16": 157.0}


"""ISO 898-1 stress areas. [mm²]"""


def middle(thing: Thing) -> tuple[float, float, float, float]:
    """Mass and centre of mass. [kg, mm]"""
    kg = sum(m.kg for m in thing.masses)
    return (
        kg,
        *(sum(m.kg * getattr(m, axis) for m in thing.masses) / kg for axis in "xyz"),
    )


def test_what_holds_each_thing(judged: Verdict) -> None:
    rules = judged.assembly.shop.rules
    checked = {c.ref: c for c in judged.carrying.mounts}
    heavy = [t for t in judged.assembly.things if sum(m.kg for m in t.masses) > 0]
    body = {t.ref for t in judged.assembly.ground.things}
    assert set(checked) - body == {t.ref for t in heavy}
    for thing in heavy:
        c, box = checked[thing.ref], thing.envelope
        kg, x, y, z = middle(thing)
        assert (c.kg, c.height) == (pytest.approx(kg), pytest.approx(z - box.z0))
        bolts = c.held.count if c.held is not None else 0
        tied = c.held is not None and c.held.by == "ties"
        if not isinstance(thing.value, Carried):
            assert c.bolts == bolts == thing.value.bolts
        levers = {
            "forward": (0.8, x - box.x0, box.x1 - box.x0), "rearward": (0.5, box.x1 - x, box.x1 - box.x0),
            "left": (0.5, y - box.y0, box.y1 - box.y0), "right": (0.5, box.y1 - y, box.y1 - box.y0),
        }  # fmt: skip
        assert [w.way for w in c.ways] == [*levers, "up"]
        for way in c.ways:
            if way.way == "up":
                assert way.force == pytest.approx(0.2 * kg * G)
                assert way.tension == pytest.approx(way.force / bolts if bolts else 0.0)
                continue
            part, lever, base = levers[way.way]
            assert way.force == pytest.approx(part * kg * G)
            tips = max(0.0, kg * G * (part * (z - box.z0) - lever))
            assert way.tips == pytest.approx(tips * 1e-3, abs=1e-9)
            near = min(30.0, base / 4)
            far = max(base - near, near)
            pulled = tips * far / (far * far + near * near) / max(1, bolts // 2)
            carries = max(1, bolts // 2) if tied else bolts
            assert way.shear == pytest.approx(way.force / carries if bolts else 0.0)
            assert way.tension == pytest.approx(pulled if bolts else 0.0, abs=1e-9)
            assert (way.use > 0) == bool(bolts)
        assert c.worst().use == max(w.use for w in c.ways)
        slides = thing.expansion.travel > 0 and not isinstance(thing.value, Carried)
        assert (c.slide is not None) == (slides and thing.expansion.slide_load > 0)
        if c.slide is not None:
            load, depth = thing.expansion.slide_load, thing.value.depth  # type: ignore[union-attr]
            out = thing.expansion.travel - depth / 2
            tips = max(0.0, (load * out - (kg - load) * depth / 2) * G)
            assert c.slide.load == pytest.approx(load)
            assert c.slide.overhang == pytest.approx(out)
            assert c.slide.moment == pytest.approx(tips * 1e-3, abs=1e-9)
            sine, cosine = math.sin(math.radians(10)), math.cos(math.radians(10))
            assert rules.slope == 10
            assert c.slide.pull == pytest.approx(load * G * (sine + rules.rolling * cosine))
            assert c.slide.runs == pytest.approx(load * G * (sine - rules.rolling * cosine))
            near = min(30.0, depth / 4)
            far = max(depth - near, near)
            row = tips * far / (far * far + near * near)
            assert c.slide.tension == pytest.approx(
                row / max(1, bolts // 2) if bolts else 0.0, abs=1e-9
            )


def test_the_sheets_that_carry_contents(judged: Verdict) -> None:
    rules = judged.assembly.shop.rules
    for thing in judged.assembly.things:
        value = thing.value
        if (
            isinstance(value, Carried)
            or thing.trouble
            or kind_of(value).walls(value, "left") is not None
        ):
            continue
        kind = kind_of(value)
        floors = [
            p for p in thing.expansion.parts if isinstance(p, SheetPart) and p.role == "floor"
        ]
        count = sum(p.count for p in floors)
        checks = judged.carrying.members[value.id]
        held = (
            sum(g.mass * g.count for g in judged.job.goods if g.place == value.id) or value.contents
        )
        loaded = floors if held > 0 or kind.stood_on else []
        assert len(checks) == len(loaded)
        for sheet, c in zip(loaded, checks, strict=True):
            even = held / count * G / (sheet.length * sheet.width)
            # Somebody of 100 kg kneels on what may be stood on; that does not bounce.
            kneels = 100 * G / (sheet.length * sheet.width) if kind.stood_on else 0.0
            span = min(sheet.length, kind.bearers) if kind.bearers else sheet.length
            bent = plate if kind.stood_on else box_plate
            young = sheet.material.young_mpa
            stress = bent(
                even * rules.shelf_dynamic + kneels, span, sheet.width, sheet.thickness, young
            )[1]
            sag = bent(even + kneels, span, sheet.width, sheet.thickness, young)[0]
            assert (c.stress, c.sag) == (pytest.approx(stress), pytest.approx(sag))
            assert c.allowed == pytest.approx(sheet.material.yield_mpa / rules.member_safety)
            assert c.allowed_sag == pytest.approx(min(span, sheet.width) / rules.sag_share)


def of(verdict: Verdict, what: str) -> MemberCheck:
    return next(c for c in verdict.carrying.all_members() if c.what == what)


def test_the_bodys_own_members(demo_verdict: Verdict) -> None:
    v = demo_verdict
    assert not v.job.weighings
    rules, tray, canopy = v.assembly.shop.rules, v.job.body.tray, v.job.body.canopy
    assert canopy is not None
    ground = [m.kg for m in v.assembly.ground.masses
              if m.owner == CANOPY or (m.owner == TRAY and m.fill.by == "fixed")]  # fmt: skip
    poses = sum(ground) + sum(
        m.kg
        for t in v.assembly.things
        for m in t.masses
        if m.mount != "vehicle" or t.place is not None
    )
    even = poses * G / (tray.length * tray.width)
    bays = math.ceil(tray.length / tray.cross_spacing)
    spacing = tray.length / bays
    bar = section(tray.cross)
    spread = v.job.vehicle.rail_spread
    over = (tray.width - spread) / 2
    w = even * rules.vertical_dynamic * spacing
    bends = max(w * over**2 / 2, abs(w * spread**2 / 8 - w * over**2 / 2))
    cross = of(v, "cross-member")
    assert cross.span == pytest.approx(over)
    assert cross.stress == pytest.approx(bends / bar.modulus)
    metal = v.assembly.shop.material(tray.bar_material)
    assert cross.allowed == pytest.approx(metal.welded_mpa / rules.member_safety)
    bow = of(v, "roof bow")
    lies = max(
        v.job.vehicle.ratings.roof,
        sum(m.kg for t in v.assembly.things if t.on_roof for m in t.masses),
    )
    bows = max(2, math.ceil(canopy.length / 900) + 1) + 1
    each = lies * G / bows / canopy.width
    bar = section(canopy.frame)
    assert bow.stress == pytest.approx(
        each * rules.shelf_dynamic * canopy.width**2 / 8 / bar.modulus
    )
    young = v.assembly.shop.material(canopy.frame_material).young_mpa
    assert bow.sag == pytest.approx(5 * each * canopy.width**4 / 384 / young / bar.inertia)
    assert bow.allowed_sag == pytest.approx(canopy.width / rules.sag_share)


def test_only_what_lies_over_the_canopy_bends_its_bows(demo: Job) -> None:
    def stress(job: Job) -> float:
        return of(judge(job), "roof bow").stress

    def heavy(**more: object) -> Job:
        carried = tuple(c.but(mass=400.0, **more) if c.id == "punt" else c for c in demo.carried)
        return msgspec.structs.replace(demo, carried=carried)

    rated, roof = stress(demo), demo.vehicle.ratings.roof
    others = sum(c.mass for c in demo.carried if c.on_roof and c.id != "punt")
    assert stress(heavy()) == pytest.approx(rated * (400 + others) / roof)
    # The same over the cab, and lying on a rack, leaves the bows as they are.
    assert stress(heavy(x=1200.0)) == rated
    assert stress(heavy(x=1200.0, on="cab-rack")) == rated


def test_a_tanks_walls_hold_its_water_at_rest_and_in_braking(demo_verdict: Verdict) -> None:
    v = demo_verdict
    value = next(u for u in v.job.units if u.id == "water")
    vessel = kind_of(value).walls(value, "left")
    assert vessel is not None
    rules, metal = v.assembly.shop.rules, v.assembly.shop.material(vessel.material)
    end, side = v.carrying.members["water"]
    rest = 1e-6 * G * vessel.high / 2
    panel = vessel.long / (vessel.baffles + 1)
    moving = rest * rules.shelf_dynamic + 1e-6 * 0.8 * G * panel
    for check, wide in ((end, vessel.wide), (side, panel)):
        assert check.stress == pytest.approx(
            box_plate(moving, wide, vessel.high, vessel.sheet, metal.young_mpa)[1]
        )
        assert check.sag == pytest.approx(
            box_plate(rest, wide, vessel.high, vessel.sheet, metal.young_mpa)[0]
        )
        assert check.welded
        assert check.allowed == pytest.approx(metal.welded_mpa / rules.member_safety)


def test_a_lever_is_at_the_centre_of_what_is_aboard(judged: Verdict) -> None:
    scenario = judged.job.scenarios[0]
    rows = {r.owner: r for r in ranking.contributions(judged.assembly, judged.loads, scenario)}
    for thing in judged.assembly.things:
        scaled = [
            (m.kg * axles.factor(scenario, axles.Share(m.owner, m.fill, m.mount, (), ())), m)
            for m in thing.masses
        ]
        kg = sum(part for part, _m in scaled)
        assert (thing.ref in rows) == (kg != 0)
        if kg:
            row = rows[thing.ref]
            assert row.kg == pytest.approx(kg)
            for axis in "xyz":
                at = sum(part * getattr(m, axis) for part, m in scaled) / kg
                assert getattr(row, axis) == pytest.approx(at)


def test_without_measures_the_belly_is_guessed_between_the_axles(demo: Job) -> None:
    plain = demo.vehicle.but(low=None)
    low = outline.low_points(plain)
    assert low.belly_x == pytest.approx(0.55 * plain.wheelbase)
    assert low.front == pytest.approx(plain.shape.sill - 60)
    assert low.belly == pytest.approx(plain.rail_top - plain.rail_depth - 260)
    assert low.rear == pytest.approx(plain.tow.z - 30)


def test_a_strut_that_falls_is_measured_against_nought_at_its_edge(demo: Job) -> None:
    canopy = demo.body.canopy
    assert canopy is not None
    doors = tuple(d.but(strut=d.strut.but(force=60.0)) if d.strut else d for d in canopy.doors)
    body = demo.body.but(canopy=canopy.but(doors=doors))
    verdict = judge(msgspec.structs.replace(demo, body=body))
    falls = [f for f in verdict.findings if f.code == "loads.strut_falls"]
    assert falls
    by_door = {s.door: s for s in verdict.carrying.struts}
    for f in falls:
        assert (f.measured, f.limit) == (by_door[f.subjects[0].id].swing[-1].high, 0.0)


@given(st.floats(600, 1600), st.floats(1200, 3000), st.floats(2400, 4200), st.floats(200, 900))
def test_a_raised_weighing_finds_the_height_it_was_made_with(
    height: float, kg: float, base: float, lift: float
) -> None:
    # ISO 10392 turned round: the whole tipped by its raised axle, its load found by moments about the other hub.
    hub, aft = 380.0, 0.45 * base
    angle = math.asin(lift / base)
    level = kg * aft / base
    tipped = (
        kg * (aft * math.cos(angle) + (height - hub) * math.sin(angle)) / (base * math.cos(angle))
    )
    assert raised_height(kg, level, tipped, base, lift, hub) == pytest.approx(height)


def test_air_springs_push_with_the_pressure_that_stands_level(demo: Job) -> None:
    vehicle = demo.vehicle.but(springs=demo.vehicle.springs.but(school="air"))
    verdict = judge(msgspec.structs.replace(demo, vehicle=vehicle))
    pushed = 0
    for s in verdict.loads.scenarios:
        up = {p.what: p.newton for p in verdict.carrying.chassis.diagram(s.id).pushes}
        # Both springs, kPa times cm².
        wanted = 2 * s.stance.pressure * vehicle.springs.air_area * 0.1
        pushed += wanted > 0
        assert up.get("air springs", 0.0) == pytest.approx(wanted, rel=0.02)
    assert pushed


@pytest.mark.parametrize("name", sorted(DEMOS))
def test_a_variation_bears_on_one_point_what_its_hardest_rear_spring_pushes(name: str) -> None:
    v = judge(demo_job(name))
    for scenario in v.assembly.job.scenarios:
        as_it_is = variations(v.assembly, v.loads, scenario)[0]
        d = v.carrying.chassis.diagram(scenario.id)
        rear = [p.newton for p in d.pushes if p.x > v.job.vehicle.wheelbase / 2]
        assert as_it_is.point == pytest.approx(v.carrying.chassis.factor * max(rear))
        assert (as_it_is.peak, as_it_is.ratio) == (pytest.approx(d.peak), pytest.approx(d.ratio))


@given(st.floats(3, 40), st.floats(300, 1100), st.floats(70, 120))
def test_proposed_struts_hold_the_leaf_and_stand_where_there_is_room(
    mass: float, height: float, swing: float
) -> None:
    strut = struts.proposal(mass, height, swing, SHOP.rules)
    assert strut.count == 2
    assert strut.force % 50 == 0
    assert 50 <= strut.force <= 5000
    # The body's stud between half and nine tenths of the leaf's height below the hinge, on a tenth of a metre's tenth.
    assert strut.body % 10 == 0
    assert max(160.0, 0.5 * height) <= strut.body <= max(160.0, 0.9 * height)
    assert 40 <= strut.leaf <= max(40.0, 0.3 * height)
    opened, closed = struts.strut_length(strut, swing), struts.strut_length(strut, 0.0)
    if strut.force < 5000 and opened > closed:
        cold = struts.strut_moment(strut, swing, swing, SHOP.rules.cold)
        worst = max(
            struts.leaf_moment(mass, height, swing, lean)
            for lean in (-SHOP.rules.slope, 0.0, SHOP.rules.slope)
        )
        assert cold >= 1.1 * worst * (1 - 1e-9)


def test_hard_points_are_all_that_hangs_behind_the_axle(judged: Verdict) -> None:
    base = judged.job.vehicle.wheelbase
    found = outline.hard_points(judged.assembly)
    assert found[0][0] == "tow bar"
    wanted = [
        p.words
        for p in judged.assembly.ground.tray
        if p.box.x1 > base and p.role not in {"arch", "headboard"}
    ]
    wanted += [
        t.value.name for t in judged.assembly.things
        if isinstance(t.value, Carried) and t.envelope.x1 > base and not t.on_roof
    ]  # fmt: skip
    assert [name for name, _x, _z in found[1:]] == wanted
    assert all(x > base for _name, x, _z in found[1:])


def test_on_slides_that_roll_heavily_nothing_runs_away(demo: Job) -> None:
    stiff = msgspec.structs.replace(SHOP, rules=msgspec.structs.replace(SHOP.rules, rolling=0.4))
    slides = [m.slide for m in judge(demo, shop=stiff).carrying.mounts if m.slide is not None]
    assert slides
    assert all(s.runs == 0.0 for s in slides)


def test_only_what_can_be_shortened_is_offered_to_be(demo: Job) -> None:
    verdict = judge(demo)
    for code in ("outline.departure", "outline.width", "outline.ground", "outline.roof"):
        asked = Finding(code, "look", "Something else")
        assert not [f for f in outline_fixes(verdict.context(), asked) if "tray" in f.words.lower()]
