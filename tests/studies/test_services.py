"""Services: circuits that follow the layout, a trip whose energy adds up, water, gas, and what is found wrong."""

import itertools
import math
from typing import Any

import msgspec
import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.sparse import csr_array
from scipy.sparse.csgraph import dijkstra
from tests.handbooks import peukert_hours

from roomy_hull.core.services import cables
from roomy_hull.formats.demo import demo_job
from roomy_hull.job.edits import layouts
from roomy_hull.job.model import Job
from roomy_hull.job.services import (
    Battery,
    Consumer,
    Inverter,
    Services,
    Signature,
    Source,
    Wire,
)
from roomy_hull.job.trips import Day, Trip
from roomy_hull.kinds.tank import OUTLET_UP, Tank, inside
from roomy_hull.studies.services import balance, weather
from roomy_hull.studies.services import trip as trips
from roomy_hull.studies.services.circuits import Circuit, Need, sized
from roomy_hull.studies.services.fluids import _ends
from roomy_hull.studies.services.routes import END_SLACK, Network
from roomy_hull.studies.services.wiring import breaker, short_circuit
from roomy_hull.verdict.verdict import Verdict, judge

HOURS = st.integers(0, 24).map(float)
PARTS = st.floats(0, 1)


def with_services(job: Job, **changes: Any) -> Job:
    return msgspec.structs.replace(job, services=job.services.but(**changes))


def codes(verdict: Verdict) -> list[str]:
    return [f.code for f in verdict.findings if f.code.startswith("services.")]


def circuit(verdict: Verdict, key: str) -> Circuit:
    return next(c for c in verdict.services.circuits if c.id == key)


# Circuits


def test_moving_the_battery_changes_lengths_drops_and_sizes(
    demo: Job, demo_verdict: Verdict
) -> None:
    there = circuit(demo_verdict, "main")
    moved = judge(layouts.shifted(demo, ("battery",), 400.0, 0.0, 0.0), demo_verdict)
    here = circuit(moved, "main")
    assert here.metres != there.metres
    assert here.drop / here.metres * here.area == pytest.approx(
        there.drop / there.metres * there.area
    )
    # What was taken from before is what comes out anew.
    assert moved.services.circuits == judge(moved.job).services.circuits
    assert moved.services.trip is demo_verdict.services.trip


def test_a_way_is_no_shorter_than_straight_and_leads_from_end_to_end(demo_verdict: Verdict) -> None:
    for one in demo_verdict.services.circuits:
        assert one.way is not None, one.name
        points = one.way.points
        for key, at in zip(one.ends, (points[0], points[-1]), strict=True):
            thing = demo_verdict.assembly.thing(key) if key else None
            if thing is not None:
                assert at == pytest.approx(thing.envelope.centre())
        straight = sum(abs(a - b) for a, b in zip(points[0], points[-1], strict=True))
        laid = sum(
            sum(abs(a - b) for a, b in zip(p, q, strict=True))
            for p, q in itertools.pairwise(points)
        )
        assert laid >= straight - 1e-6
        assert one.metres >= laid / 1000


def test_a_lead_that_goes_along_with_a_slide_is_as_much_longer(
    demo: Job, demo_verdict: Verdict
) -> None:
    fridge = demo_verdict.assembly.thing("sample-fridge")
    assert fridge is not None
    slide = max(
        math.dist(o.rest_box[:3], o.opened_box[:3])
        for o in fridge.openings
        if not o.turns or len(o.motion.steps) > 1
    )
    assert slide > 300
    one = circuit(demo_verdict, "sample-fridge")
    assert one.way is not None
    points = one.way.points
    laid = sum(
        sum(abs(a - b) for a, b in zip(p, q, strict=True)) for p, q in itertools.pairwise(points)
    )
    assert one.metres * 1000 - laid > slide


def test_only_what_leaves_the_canopy_comes_apart(demo_verdict: Verdict) -> None:
    apart = {c.id for c in demo_verdict.services.circuits if c.way is not None and c.way.plugs}
    assert apart == {"alternator"}
    assert not any(
        c.way.plugs for c in judge(demo_job("tarn")).services.circuits if c.way is not None
    )


@given(amps=st.floats(0.5, 80), metres=st.floats(0.2, 8), more=st.floats(0.01, 5))
def test_a_longer_cable_never_loses_less_and_is_never_thinner(
    amps: float, metres: float, more: float
) -> None:
    need = Need("x", "X", ("a", "b"), amps)
    near, far = (sized(need, Wire(metres=m), None, 12.0) for m in (metres, metres + more))
    assert far.area >= near.area
    given_one = [
        sized(need, Wire(metres=m, area=10), None, 12.0).drop for m in (metres, metres + more)
    ]
    assert given_one[1] > given_one[0]
    if not near.trouble:
        assert near.drop <= near.share * 12 + 1e-9
        assert near.fuse <= near.ampacity
        assert near.fuse >= cables.CONTINUOUS * amps - 1e-9


def test_what_is_given_by_hand_is_judged(demo: Job) -> None:
    def given_wire(**wire: Any) -> list[str]:
        consumers = tuple(
            c.but(wire=Wire(**wire)) if c.id == "lab-outlet" else c for c in demo.services.consumers
        )
        return codes(judge(with_services(demo, consumers=consumers)))

    assert given_wire() == []
    assert given_wire(area=1.0) == ["services.drop"]
    assert given_wire(area=2.5, fuse=40.0) == ["services.fuse", "services.drop"]
    assert given_wire(fuse=7.5) == ["services.fuse_small"]
    far = tuple(
        c.but(watts=900.0, wire=Wire(metres=60.0)) if c.id == "lab-outlet" else c
        for c in demo.services.consumers
    )
    assert "services.cable" in codes(judge(with_services(demo, consumers=far)))


# The trip


@st.composite
def tours(draw: st.DrawFn) -> Services:
    days = draw(st.lists(st.builds(
        Day, drive_from=HOURS, drive=st.floats(0, 12), cloud=PARTS, warm=st.floats(-10, 45), cool=st.floats(-25, 20),
    ), min_size=1, max_size=4))  # fmt: skip
    consumers = draw(st.lists(st.builds(
        Consumer, id=st.just("c"), name=st.just("C"), watts=st.floats(0, 400), share=PARTS, begin=HOURS, hours=HOURS,
        idle=st.floats(0, 5), mains=st.booleans(), day_wh=st.sampled_from((0.0, 400.0)), warm_kg=st.floats(0, 8),
    ), max_size=4))  # fmt: skip
    return Services(
        batteries=(Battery(thing="b", ah=draw(st.floats(20, 400)), usable=draw(st.floats(0.2, 1)),
                           chemistry=draw(st.sampled_from(("lithium iron", "AGM", "lead-acid")))),),
        consumers=tuple(c.but(id=f"c{n}") for n, c in enumerate(consumers)),
        sources=(Source(id="a", name="A", amps=draw(st.floats(0, 60))),
                 Source(id="s", name="S", kind="sun", watts=draw(st.floats(0, 400)), amps=20, tilt=draw(st.floats(0, 60)))),
        trip=Trip(begin="2026-06-20", latitude=draw(st.floats(-90, 90)), longitude=draw(st.floats(-180, 180)),
                  charge=draw(PARTS), days=tuple(days)),
    )  # fmt: skip


@given(services=tours())
def test_energy_adds_up_in_every_hour_of_any_trip(services: Services) -> None:
    found = trips.trip(services)
    assert found is not None
    lived = found.lived
    before = np.concatenate([[services.usable * services.trip.charge], lived.left[:-1]])
    drawn = (
        lived.load - lived.unserved - (lived.drive + lived.panels - lived.charged - lived.spilled)
    )
    good = balance.STORED[services.batteries[0].chemistry]
    change = lived.left - before
    least = 1e-9 * max(1.0, services.usable) + 1e-9
    assert change == pytest.approx(good * lived.charged - lived.given, abs=least)
    assert (lived.given >= drawn - least).all()
    if services.batteries[0].chemistry == "lithium iron":
        assert lived.given == pytest.approx(drawn, abs=least)
    for row in (lived.charged, lived.spilled, lived.unserved, lived.left, lived.load, lived.panels):
        assert (row >= -1e-9).all()
    assert (lived.left <= services.usable + 1e-9).all()
    assert (found.low <= found.high + 1e-9).all()
    assert found.lowest == pytest.approx(lived.left.min())
    # Nothing is charged while something is missing.
    assert (np.minimum(lived.charged, lived.unserved) < 1e-9).all()


def test_more_sun_or_driving_never_leaves_less(demo: Job) -> None:
    base = trips.trip(demo.services)
    more = demo.services.but(
        sources=tuple(s.but(watts=s.watts * 2, amps=s.amps * 2) for s in demo.services.sources)
    )
    better = trips.trip(more)
    assert base is not None
    assert better is not None
    assert (better.lived.left >= base.lived.left - 1e-9).all()


def test_how_long_a_fridge_runs_by_hand() -> None:
    # 100 Ah at 12 V, nine tenths of it, 45 W for ever: 24 h.
    one = Consumer(id="f", name="F", watts=45, begin=0, hours=24)
    services = Services(
        batteries=(Battery(thing="b"),), consumers=(one,), trip=Trip(days=(Day(), Day()))
    )
    found = trips.trip(services)
    assert found is not None
    assert found.still == pytest.approx(24.0)
    assert found.flat_at == 24
    assert found.day_wh == (("f", "F", pytest.approx(1080.0)),)
    through = trips.trip(
        services.but(consumers=(one.but(mains=True),), inverter=Inverter(efficiency=0.9, idle=10))
    )
    assert through is not None
    assert through.still == pytest.approx(1080 / (45 / 0.9 + 10))
    # As long without sun by going through the hours.
    hours = np.full(24, 45.0)
    assert trips.lasts(services, hours, np.full(24, 1e-12)) == pytest.approx(24.0, abs=1e-6)


def test_lead_lasts_as_peukert_says() -> None:
    # 100 Ah rated over 20 h, 10 A at 12 V for ever, k 1.2: 8.706 h of the whole of it.
    one = Consumer(id="f", name="F", watts=120, begin=0, hours=24)
    lead = Battery(thing="b", chemistry="lead-acid", usable=1.0)
    services = Services(batteries=(lead,), consumers=(one,), trip=Trip(days=(Day(),)))
    found = trips.trip(services)
    assert found is not None
    assert found.still == pytest.approx(peukert_hours(100, 20, 10, 1.2))
    assert found.still == pytest.approx(8.706, abs=1e-3)
    assert found.flat_at == 8
    hours = np.full(24, 120.0)
    assert trips.lasts(services, hours, np.full(24, 1e-9)) == pytest.approx(found.still, abs=0.01)
    # Slower than rated it gives what is written on it, not more.
    slow = trips.trip(services.but(consumers=(one.but(watts=30),)))
    assert slow is not None
    assert slow.still == pytest.approx(40.0)


def test_a_fridge_takes_its_data_sheet_s_figure_at_its_air_and_more_in_the_heat() -> None:
    one = Consumer(id="f", name="F", day_wh=480, rated_air=25, box=4)
    rows = [float(trips.fridge(one, np.full(24, t)).sum()) for t in (4.0, 15.0, 25.0, 32.0, 40.0)]
    assert rows[2] == pytest.approx(480)
    assert rows[0] == 0.0
    assert rows == sorted(rows)
    # Heat leaks in by the difference, and the COP falls by it: more than in proportion.
    assert rows[4] / rows[2] > 36 / 21
    warm = one.but(warm_kg=5)
    # 5 kg·3.7 kJ/kgK·21 K over the COP.
    cop = trips.CARNOT * (4 - 10 + 273.15) / (21 + 20)
    assert float(trips.fridge(warm, np.full(24, 25.0)).sum()) - 480 == pytest.approx(
        5 * 3.7 * 21 / 3.6 / cop
    )


def test_the_clock_s_air_is_coolest_at_five_and_warmest_at_fifteen(demo: Job) -> None:
    air = weather.weather(demo.services).air[:24]
    assert int(air.argmin()) in (4, 5)
    assert int(air.argmax()) in (14, 15)
    day = demo.services.trip.days[0]
    assert float(air.max()) == pytest.approx(day.warm, abs=0.3)
    assert float(air.min()) == pytest.approx(day.cool, abs=0.3)


@pytest.mark.parametrize(("latitude", "dark"), [(0.0, 12), (90.0, 0), (-90.0, 24)])
def test_a_place_at_the_pole_has_its_day(latitude: float, dark: int) -> None:
    services = Services(
        sources=(Source(id="s", name="S", kind="sun", watts=100.0, amps=0.0),),
        trip=Trip(begin="2026-06-21", latitude=latitude, days=(Day(cloud=0.0),)),
    )
    got = weather.weather(services).panels
    assert int((got < 1e-6).sum()) == pytest.approx(dark, abs=1)


# What is found wrong


def test_nothing_is_found_where_nothing_is_entered(demo: Job) -> None:
    verdict = judge(msgspec.structs.replace(demo, services=Services()))
    assert codes(verdict) == []
    assert verdict.services.circuits == ()
    assert verdict.services.trip is None


def test_what_ends_before_the_trip_is_told(demo: Job) -> None:
    trip, uses = demo.services.trip, demo.services.uses
    assert codes(judge(with_services(demo, sources=()))) == ["services.flat"]
    assert codes(judge(with_services(demo, uses=uses.but(drink=20.0)))) == ["services.dry"]
    assert codes(judge(with_services(demo, uses=uses.but(meal_burns=6.0)))) == ["services.gas_out"]
    cold = trip.but(days=tuple(d.but(cool=-6.0, warm=8.0) for d in trip.days))
    assert "services.cold" in codes(judge(with_services(demo, trip=cold)))


def test_signatures_and_names_that_there_are_not(demo: Job) -> None:
    assert codes(judge(with_services(demo, signatures=()))) == ["services.sign"]
    mains = with_services(demo, inverter=Inverter(thing="no-such"))
    assert codes(judge(mains)) == ["services.unknown", "services.sign"]
    signed = with_services(
        mains, signatures=(*demo.services.signatures, Signature(what="mains", name="E. Lark"))
    )
    assert codes(judge(signed)) == ["services.unknown"]


def test_the_inverter_is_held_against_what_runs_through_it(demo: Job) -> None:
    oven = Consumer(id="oven", name="Oven", z=900, watts=1500, begin=17, hours=0.2, mains=True)
    kettle = Consumer(
        id="kettle", name="Kettle", z=900, watts=1200, begin=17.5, hours=0.1, mains=True
    )
    signed = (*demo.services.signatures, Signature(what="mains", name="E. Lark"))
    job = with_services(demo, consumers=(*demo.services.consumers, oven), signatures=signed, inverter=Inverter(watts=2000),
                        batteries=(demo.services.batteries[0].but(ah=800),))  # fmt: skip
    assert codes(judge(job)) == []
    both = with_services(job, consumers=(*job.services.consumers, kettle.but(begin=17)))
    found = next(f for f in judge(both).findings if f.code == "services.inverter")
    assert (found.measured, found.limit) == (2700.0, 2000.0)
    later = with_services(job, consumers=(*job.services.consumers, kettle.but(begin=19)))
    assert codes(judge(later)) == []
    assert codes(judge(with_services(job, inverter=Inverter(leakage=False)))) == [
        "services.leakage"
    ]


def test_what_breaks_the_batteries_short_circuit(demo: Job, demo_verdict: Verdict) -> None:
    main = circuit(demo_verdict, "main")
    # 13.2 V over 4 mOhm and twice 200 mm of 10 mm2: 0.69 mOhm.
    by_hand = 13.2 / (4e-3 + 2 * 0.2 * 0.017241 / 10)
    assert short_circuit(main, demo.services) == pytest.approx(by_hand)
    assert breaker(by_hand) == "class T"
    assert short_circuit(circuit(demo_verdict, "sample-fridge"), demo.services) == 0.0
    assert [breaker(a) for a in (0.0, 1000.0, 1500.0, 3e4)] == ["blade", "blade", "bolt", ""]
    strong = demo.services.batteries[0].but(resistance=0.1)
    many = with_services(demo, batteries=(strong, strong, strong))
    assert "services.short" in codes(judge(many))


def test_sparks_beside_gas_and_electrics_under_water(demo: Job) -> None:
    gas, battery = demo.thing("gas"), demo.thing("battery")
    assert gas is not None
    assert battery is not None
    beside = battery.but(bay="B", u=gas.u + gas.width + 20, v=0.0, w=gas.w)  # type: ignore[union-attr]  # a unit
    near = msgspec.structs.replace(
        demo, units=tuple(beside if u.id == "battery" else u for u in demo.units)
    )
    found = next(f for f in judge(near).findings if f.code == "services.ignition")
    assert found.measured == pytest.approx(20.0, abs=1.0)
    assert [s.id for s in found.subjects] == ["battery", "gas"]
    tank = demo.thing("water")
    assert tank is not None
    below = battery.but(bay=tank.bay, u=tank.u + 10, v=tank.v + 10, w=0.0)  # type: ignore[union-attr]  # a unit
    over = tank.but(w=400.0)
    wet = msgspec.structs.replace(
        demo, units=tuple({"battery": below, "water": over}.get(u.id, u) for u in demo.units)
    )
    assert "services.water_over" in codes(judge(wet))


# Water


def test_usable_water_is_what_lies_over_the_outlet(demo_verdict: Verdict) -> None:
    fluids = demo_verdict.services.fluids
    assert fluids is not None
    (tank,) = fluids.tanks
    assert 0 < min(tank.usable) < tank.usable[0] < tank.holds
    assert max(tank.usable) <= tank.holds + 1e-9
    # Level, only what lies under the outlet stays: its height over that of the room inside.
    unit = demo_verdict.job.thing("water")
    assert isinstance(unit, Tank)
    assert unit.style == "box"
    assert tank.usable[0] / tank.holds == pytest.approx(1 - OUTLET_UP / inside(unit)[2])
    # Nose up and nose down are alike for an outlet in the middle.
    assert tank.usable[1] == pytest.approx(tank.usable[2], rel=1e-6)


def test_the_day_on_which_something_ends_is_counted_by_its_use() -> None:
    assert _ends(10.0, [4.0, 4.0, 4.0]) == pytest.approx(2.5)
    assert _ends(12.0, [4.0, 4.0, 4.0]) is None
    assert _ends(0.0, [4.0]) == 0.0


def test_ways_are_the_shortest_by_another_s_algorithm(demo_verdict: Verdict) -> None:
    net = Network(demo_verdict.assembly)
    ports = [net.of(t) for t in demo_verdict.assembly.things[:12]] + [net.engine]
    n = len(net._nodes)
    rows, columns, weights = zip(*net._links, strict=True)
    graph = csr_array((weights, (rows, columns)), shape=(n, n))
    for a in ports:
        known = dijkstra(graph, directed=False, indices=a)
        for b in ports:
            assert (net.way(a, b).metres - 2 * END_SLACK / 1000) * 1000 == pytest.approx(known[b])
            assert net.way(a, b).metres == pytest.approx(net.way(b, a).metres)
