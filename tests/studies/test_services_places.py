"""Services: shade on the roof, hoses, plugs, lights, boards, camp slopes, hot water, what keeps a trip from going flat."""

import math
from typing import Any

import msgspec
import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from shapely.geometry import MultiPoint, box
from shapely.ops import unary_union

from roomy_hull.core.services import flows, sun
from roomy_hull.formats.demo import demo_job
from roomy_hull.job.edits import layouts
from roomy_hull.job.edits import services as edits
from roomy_hull.job.edits.resizing import resized
from roomy_hull.job.model import Job
from roomy_hull.job.services import Battery, Consumer, Inverter, Plug, Services, Source, Wire
from roomy_hull.job.trips import Day, Skies, Trip
from roomy_hull.kinds.device import KIND as DEVICE
from roomy_hull.studies.services import places
from roomy_hull.studies.services import trip as trips
from roomy_hull.studies.services.balance import live
from roomy_hull.studies.services.levelling import level
from roomy_hull.studies.services.remedy import ways_out
from roomy_hull.studies.services.shade import panel, shades
from roomy_hull.studies.services.weather import driving, weather
from roomy_hull.verdict.verdict import Verdict, judge


def with_services(job: Job, **changes: Any) -> Job:
    return msgspec.structs.replace(job, services=job.services.but(**changes))


def codes(verdict: Verdict) -> list[str]:
    return [
        f.code.removeprefix("services.") for f in verdict.findings if f.code.startswith("services.")
    ]


def consumers(job: Job, key: str, **changes: Any) -> tuple[Consumer, ...]:
    return tuple(c.but(**changes) if c.id == key else c for c in job.services.consumers)


# Shade


@given(
    azimuth=st.floats(0, 360), zenith=st.floats(5, 80), nose=st.floats(0, 360),
    walls=st.lists(st.tuples(st.floats(-3000, 3000), st.floats(-3000, 3000), st.floats(100, 1500), st.floats(100, 1500),
                             st.floats(50, 900)), min_size=1, max_size=4),
)  # fmt: skip
def test_shade_is_the_shadow_that_geometry_casts(
    azimuth: float, zenith: float, nose: float, walls: list[tuple[float, ...]]
) -> None:
    # A box's shadow on a level plane is the hull of its lower and its shifted upper corners (Shapely cuts and joins them).
    n = 60
    grid = (np.arange(n) + 0.5) / n
    points = np.array([(1000 * a, 600 * b, 0.0) for a in grid for b in grid])
    way = sun.towards(np.array([zenith]), np.array([azimuth]), nose)
    boxes = np.array([(x, y, 0.0, x + a, y + b, h) for x, y, a, b, h in walls])
    # The nose at azimuth N points along -x: the sun's azimuth less N turns from there to the right, which is +y.
    turn = math.radians(azimuth - nose)
    shift = math.tan(math.radians(zenith))
    dx, dy = math.cos(turn) * shift, -math.sin(turn) * shift
    shadow = unary_union([
        MultiPoint([(cx + dx * z, cy + dy * z) for cx in (x, x + a) for cy in (y, y + b) for z in (0.0, h)]).convex_hull
        for x, y, a, b, h in walls
    ])  # fmt: skip
    expected = shadow.intersection(box(0, 0, 1000, 600)).area / 600000
    assert float(sun.unlit(points, boxes, way)[0]) == pytest.approx(expected, abs=0.03)


def test_what_stands_beside_the_panel_takes_its_low_sun(demo: Job, demo_verdict: Verdict) -> None:
    (one,) = demo_verdict.services.shades
    assert 0 < one.lit.min() < one.lit.max() == 1.0
    bare = msgspec.structs.replace(demo, carried=())
    clear = judge(bare)
    assert clear.services.shades == ()
    open_, shaded = clear.services.trip, demo_verdict.services.trip
    assert open_ is not None
    assert shaded is not None
    assert (open_.lived.panels >= shaded.lived.panels - 1e-9).all()
    assert open_.lived.panels.sum() > 1.05 * shaded.lived.panels.sum()
    # Nothing else moved: the same shade is the same object, and the trip with it.
    again = judge(layouts.shifted(demo, ("battery",), 25.0, 0.0, 0.0), demo_verdict)
    assert again.services.shades[0] is one
    assert again.services.trip is demo_verdict.services.trip


def test_a_panel_has_the_size_of_its_watts_or_its_own(demo_verdict: Verdict) -> None:
    usual = panel(demo_verdict.assembly, Source(id="p", name="p", kind="sun", watts=200))
    assert usual.long * usual.wide == pytest.approx(1e6)  # 200 W/m² (common practice)
    own = panel(demo_verdict.assembly, demo_verdict.job.services.sources[1])
    assert (own.long, own.wide, own.x, own.y) == (1900, 420, 2650, -690)
    assert (
        shades(demo_verdict.assembly, demo_verdict.services.shades)[0]
        is demo_verdict.services.shades[0]
    )


# Trip


def test_mains_charges_from_six_in_the_evening(demo: Job) -> None:
    # Common practice: 3,600 Wh in 10 to 15 h want 240 to 360 W; 25 A at 12 V are 300 W and take 12 h.
    s = Services(
        batteries=(Battery(thing="b", ah=300, usable=1.0),),
        sources=(Source(id="m", name="m", kind="mains", amps=25),),
        trip=Trip(days=(Day(plugged=13.0), Day()), charge=0.0),
    )
    given_ = driving(s)
    assert given_[:18].sum() == 0
    assert given_[18:24] == pytest.approx(300.0)
    assert given_.sum() == pytest.approx(13 * 300)
    lived = live(s, np.zeros(48), given_, np.zeros(48), np.full(48, 20.0), 0.0)
    full = int((lived.left > 3600 - 1e-6).argmax())
    assert full - 18 == math.ceil(12 / 0.97) - 1  # what is stored of it (common practice)
    assert edits.with_mains(demo).services.sources[-1].charger == "charger"


def test_each_battery_is_charged_within_its_own_bounds_and_its_own_amperes() -> None:
    s = Services(
        batteries=(
            Battery(thing="a", ah=100, takes=20.0),
            Battery(thing="b", ah=100, coldest=-20.0, hottest=40.0),
        )
    )
    offer, none = np.full(4, 5000.0), np.zeros(4)
    lived = live(s, none, offer, none, np.array([-5.0, 20.0, 45.0, 55.0]), 0.0)
    # In the frost only the second, with half its Ah; then both; in the heat only the first; then neither.
    assert lived.charged == pytest.approx([600.0, 600.0 + 240.0, 240.0, 0.0])


def test_hot_water_by_electricity_and_by_gas(demo: Job) -> None:
    # 6 l from 15 to 60 °C are 1,130 kJ, which are 314 Wh.
    heat = flows.warming(6, 45)
    assert heat == pytest.approx(1130, abs=1)
    uses = demo.services.uses.but(hot_by="electricity", hot_efficiency=1.0, hot_watts=300.0)
    warm = judge(with_services(demo, uses=uses))
    f = warm.services.fluids
    assert f is not None
    assert f.hot is not None
    assert f.hot.wh == pytest.approx(heat / 3.6)
    assert f.hot.minutes == pytest.approx(heat * 1000 / 300 / 60)
    load = trips.hot_water(warm.job.services).reshape(-1, 24)
    assert load.sum(axis=1) == pytest.approx([
        d.showers * heat / 3.6 for d in demo.services.trip.days
    ])
    assert load.max() <= 300.0
    assert load[:, :18].sum() == 0
    gas = judge(with_services(demo, uses=uses.but(hot_by="gas"))).services.fluids
    base = judge(demo).services.fluids
    assert gas is not None
    assert base is not None
    assert gas.hot is not None
    more = np.array(gas.burnt) - np.array(base.burnt)
    assert more == pytest.approx([d.showers * heat / 46350 for d in demo.services.trip.days])


def test_weather_of_one_s_own_takes_the_place_of_the_sky(demo: Job) -> None:
    own = Skies(
        name="mine", level=(500.0,) * 30, beam=(0.0,) * 30, diffuse=(500.0,) * 30, air=(31.0,) * 30
    )
    s = edits.with_weather(demo, own).services
    sky, clear = weather(s), weather(demo.services)
    # A level panel sees all of it: 200 W by 0.5 of a full sun and by what is left of its rating.
    assert sky.panels[:30] == pytest.approx(200 * 0.5 * 0.8)
    assert sky.air[:30] == pytest.approx(31.0)
    assert sky.panels[30:] == pytest.approx(clear.panels[30:])
    found = codes(judge(msgspec.structs.replace(demo, services=s)))
    assert "weather_ends" in found
    with pytest.raises(ValueError, match=r"level, beam, diffuse and air"):
        Skies(level=(1.0,), air=())


def test_what_keeps_a_trip_from_going_flat_does(demo: Job, demo_verdict: Verdict) -> None:
    s = demo.services.but(batteries=(demo.services.batteries[0].but(ah=110.0),))
    ways = ways_out(s)
    assert len(ways) > 2
    assert list(ways) == sorted(ways, key=lambda w: (w.money, w.kg))
    job = msgspec.structs.replace(demo, services=s)
    flat = judge(job)
    finding = next(f for f in flat.findings if f.code in ("services.flat", "services.flat_chance"))
    for way in ways_out(s, flat.services.shades):
        mended = job
        for path, value in way.changes.items():
            mended = resized(mended, path, value)
        assert not {"flat", "flat_chance"} & set(codes(judge(mended))), way.words
    assert finding.stage == "Services"
    assert "services.flat" not in [f.code for f in demo_verdict.findings]


# Places


def test_plugs_have_pins_and_amperes_for_what_crosses(demo: Job) -> None:
    assert "plug" in codes(judge(with_services(demo, plugs=())))
    assert "plug" in codes(judge(with_services(demo, plugs=(Plug(id="p", pins=1),))))
    assert "plug" in codes(
        judge(with_services(demo, plugs=(Plug(id="p", crossing="vehicle | tray"),)))
    )
    assert "plug_amps" in codes(judge(with_services(demo, plugs=(Plug(id="p", amps=30),))))
    assert not {"plug", "plug_amps"} & set(codes(judge(demo)))


def test_lights_outlets_fuses_and_leads(demo: Job) -> None:
    def found(**changes: Any) -> list[str]:
        return codes(judge(with_services(demo, consumers=consumers(demo, "light-left", **changes))))

    assert found() == []
    assert found(switches=("fuses",)) == ["switch"]
    assert found(switches=("fuses", "fuses")) == ["switch"]
    assert found(switches=("fuses", "nowhere")) == ["unknown"]
    assert found(serves="right") == ["side"]
    assert found(wire=Wire(careful=False, fused=False)) == ["unfused"]
    assert found(wire=Wire(careful=False, fuse_at=450)) == ["fuse_far"]
    assert found(wire=Wire(careful=False, metres=1.0)) == ["short_lead"]
    lab = codes(judge(with_services(demo, consumers=consumers(demo, "lab-outlet", serves="right"))))
    assert lab == ["side"]


def test_a_power_station_is_battery_and_inverter_in_one(demo: Job) -> None:
    make = next(o.make for o in DEVICE.offers() if o.key == "power-station").but(
        bay="B", u=825.0, w=475.0
    )
    units = tuple(u for u in demo.units if u.id not in ("battery", "charger", "fuses"))
    job = edits.begun(msgspec.structs.replace(demo, units=(*units, make), services=Services()))
    assert (job.services.batteries[0].thing, job.services.inverter.thing) == ("power-station",) * 2
    ids = [c.id for c in judge(job).services.circuits]
    assert "inverter" not in ids
    assert "alternator" in ids
    assert job.services.inverter == Inverter(thing="power-station")


def test_places_of_faults_are_counted(demo: Job) -> None:
    assert "places" not in codes(judge(demo))
    far = msgspec.structs.replace(demo, units=tuple(
        u.but(bay="B", u=825.0, v=0.0, w=480.0) if u.id == "charger" else u for u in demo.units))  # fmt: skip
    assert "places" in codes(judge(far))


def test_a_hose_over_electrics_is_told(demo_verdict: Verdict) -> None:
    fluids = demo_verdict.services.fluids
    assert fluids is not None
    under = demo_verdict.assembly.thing("battery")
    assert under is not None
    x, y, _z = under.envelope.centre()
    run = fluids.runs[0]
    for dz, told in ((200.0, True), (-400.0, False)):
        z = under.envelope.z1 + dz
        way = msgspec.structs.replace(run.way, points=((x - 500, y, z), (x + 500, y, z)))
        found = places.hoses_over(demo_verdict.assembly, (msgspec.structs.replace(run, way=way),))
        assert ("services.hose_over" in {f.code for f in found}) is told


def test_hoses_lead_from_tank_over_pump_to_the_tap(demo: Job, demo_verdict: Verdict) -> None:
    fluids = demo_verdict.services.fluids
    assert fluids is not None
    assert [(r.sort, r.ends) for r in fluids.runs] == [
        ("water", ("water", "wet-bench")),
        ("gas", ("gas", "wet-bench")),
    ]
    pump = next(o.make for o in DEVICE.offers() if o.key == "pump").but(
        bay="L", u=225.0, v=500.0, w=400.0
    )
    with_pump = judge(msgspec.structs.replace(demo, units=(*demo.units, pump)))
    more = with_pump.services.fluids
    assert more is not None
    assert [r.ends for r in more.runs if r.sort == "water"] == [
        ("water", "pump"),
        ("pump", "wet-bench"),
    ]
    tank = more.tanks[0]
    assert tank.hose == pytest.approx(sum(r.way.metres for r in more.runs if r.sort == "water"))
    # What the pump gives is where its line meets height, speed and friction.
    bore, flow = demo.services.uses.hose / 1000, tank.pumped
    speed = flow / 60000 / (math.pi / 4 * bore**2)
    loss = (
        1
        + 1.5
        + flows.friction(speed * bore / flows.VISCOSITY, flows.HOSE / bore) * tank.hose / bore
    )
    rest = 240e3 * (1 - flow / 10) - 1000 * (9.80665 * -tank.head + loss * speed**2 / 2)
    assert rest == pytest.approx(0, abs=20)
    assert flows.pumped(30.0, bore, 2.0, 10.0, 240.0) == 0  # higher than it can press
    # What was taken from before is what comes out anew.
    assert judge(with_pump.job, demo_verdict).services.fluids == more


@given(ahead=st.floats(-4, 4), left=st.floats(-4, 4), rear=st.floats(1200, 2400))
def test_air_springs_level_what_they_can(ahead: float, left: float, rear: float) -> None:
    vehicle = demo_job().vehicle
    vehicle = vehicle.but(springs=vehicle.springs.but(school="air"))
    s = vehicle.springs
    found = level(vehicle, "x", rear, 10.0, (ahead, left))
    assert s.air_least <= min(found.left, found.right)
    assert max(found.left, found.right) <= s.air_most
    within = (
        s.air_least < min(found.left, found.right) and max(found.left, found.right) < s.air_most
    )
    if within:
        assert abs(found.ahead) < 0.02
        assert abs(found.side) < 0.02
    # Mirrored ground, mirrored pressures.
    other = level(vehicle, "x", rear, 10.0, (ahead, -left))
    assert (other.left, other.right) == pytest.approx((found.right, found.left))
    # The couple of the two springs turns the roll stiffness of both axles through the slope.
    couple = (found.right - found.left) * 1e-3 * s.air_area * 100 * vehicle.track_rear / 2
    stiff = (s.front * vehicle.track_front**2 + s.rear * vehicle.track_rear**2) / 2
    assert math.degrees(couple / stiff) == pytest.approx(left - found.side, abs=1e-6)


def test_tyres_come_from_the_air_tank_first_and_the_compressor_rests(demo: Job) -> None:
    offers = {o.key: o.make for o in DEVICE.offers()}
    compressor = offers["compressor"].but(bay="B", u=825.0, w=475.0)
    tank = offers["air-tank"].but(bay="B", u=825.0, w=600.0)
    alone = judge(msgspec.structs.replace(demo, units=(*demo.units, compressor))).services.fluids
    both = judge(
        msgspec.structs.replace(demo, units=(*demo.units, compressor, tank))
    ).services.fluids
    assert alone is not None
    assert both is not None
    u = demo.services.uses
    volume = math.pi / 4 * 164**2 * 494 / 1e6  # the walls left out
    saved = volume * (u.air_tank_kpa - u.tyres_high) / 101.325 / u.free_air / u.air_duty
    assert alone.tyres_minutes - both.tyres_minutes == pytest.approx(saved)
    assert (
        len([r for r in both.runs if r.sort == "air"]) == 5
    )  # from the compressor, and to four corners


AWG_MM2 = {18: 0.823, 16: 1.31, 14: 2.08, 12: 3.31, 10: 5.26, 8: 8.37, 6: 13.3, 4: 21.2, 2: 33.6}
"""Copper of the sizes in NBS Handbook 100, Copper Wire Tables (from memory). [mm²]"""


def test_cables_by_american_sizes(demo: Job) -> None:
    plain = judge(demo).services.circuits
    found = judge(
        msgspec.structs.replace(demo, services=demo.services.but(gauges="AWG"))
    ).services.circuits
    assert len(found) == len(plain) > 5
    for metric, own in zip(plain, found, strict=True):
        assert own.section.startswith("AWG ")
        number = own.section.removeprefix("AWG ")
        if "/" not in number and int(number) in AWG_MM2:
            assert own.area == pytest.approx(AWG_MM2[int(number)], rel=0.005)
        # Neither is thinner than what the current and the voltage ask for.
        assert own.fuse == metric.fuse
        assert own.drop <= own.share * demo.services.volts + 1e-9
        assert own.ampacity >= min(own.fuse, metric.ampacity) - 1e-9


@pytest.mark.parametrize("share", [0.25, 0.5, 1.0])
def test_a_compressor_that_rests_takes_longer_and_no_more_charge(demo: Job, share: float) -> None:
    one = {o.key: o.make for o in DEVICE.offers()}["compressor"].but(bay="B", u=825.0, w=475.0)
    use = Consumer(id="air", name="Air", thing=one.id, watts=300.0)
    rows = (*demo.services.consumers, use)

    def air(duty: float) -> Any:
        services = demo.services.but(consumers=rows, uses=demo.services.uses.but(air_duty=duty))
        job = msgspec.structs.replace(demo, units=(*demo.units, one), services=services)
        return judge(job).services.fluids

    whole, resting = air(1.0), air(share)
    assert resting.tyres_minutes == pytest.approx(whole.tyres_minutes / share)
    # As long as it runs it draws what it draws: watts and minutes of running over the voltage.
    drawn = 300.0 * whole.tyres_minutes / 60.0 / demo.services.volts
    assert whole.tyres_ah == resting.tyres_ah == pytest.approx(drawn)
