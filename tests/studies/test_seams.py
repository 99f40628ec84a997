"""Seams: what is placed by the body, carried or hung is judged as a unit is, by hand-worked figures."""

import math
from typing import Any

import msgspec
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from tests.builders import begun
from tests.sweeping import examples

from roomy_hull.core.refs import CANOPY
from roomy_hull.core.tyres import overall_diameter
from roomy_hull.core.units import G
from roomy_hull.formats.demo import demo_job
from roomy_hull.formats.workshop import built
from roomy_hull.job.body import UnderTank
from roomy_hull.job.carried import Carried
from roomy_hull.job.edits import setups as setup_edits
from roomy_hull.job.goods import Berth, Dog, Good, Party
from roomy_hull.job.model import Job
from roomy_hull.job.services import Consumer
from roomy_hull.job.setups import SetUp
from roomy_hull.job.trips import Day, Trip
from roomy_hull.kinds.tank import OUTLET_UP
from roomy_hull.kit import catalogue
from roomy_hull.kit.body import fitting
from roomy_hull.verdict.swaps import swap
from roomy_hull.verdict.verdict import Verdict, judge


def codes(verdict: Verdict, *which: str) -> list[str]:
    return [f.code for f in verdict.findings if f.code in which]


def tray_with_tank(**size: Any) -> Job:
    """A bare tray with a water tank under it, and a trip."""
    job = begun("single cab", "bare tray")
    tank = UnderTank(start=400, **({"length": 600.0, "width": 500.0, "height": 200.0} | size))
    body = job.body.but(tray=job.body.tray.but(tank=tank))
    trip = Trip(name="Out", people=2, days=(Day(), Day()))
    return msgspec.structs.replace(job, body=body, services=job.services.but(trip=trip))


@settings(max_examples=examples(60, 6), deadline=None)
@given(st.integers(300, 900), st.integers(200, 700), st.integers(120, 260))
def test_an_under_tray_tank_is_a_tank_to_services(length: int, width: int, height: int) -> None:
    verdict = judge(tray_with_tank(length=length, width=width, height=height))
    assert verdict.services.fluids is not None
    (tank,) = verdict.services.fluids.tanks
    # Inside 2 mm sheet, less two baffles across the vehicle with flanges that lap their welds.
    a, b, c = length - 4, width - 4, height - 4
    assert tank.holds <= a * b * c * 1e-6
    assert tank.holds == pytest.approx(a * b * c * 1e-6, rel=0.04)
    # Standing level all above the outlet runs out.
    assert tank.usable[0] == pytest.approx(tank.holds * (1 - OUTLET_UP / c), rel=1e-6)
    assert min(tank.usable) > 0
    mass = sum(m.kg for m in verdict.assembly.masses() if m.fill.by == "water")
    assert mass == pytest.approx(tank.holds)
    use = verdict.job.services.uses
    box = next(t.envelope for t in verdict.assembly.everything if t.id == tank.id)
    assert tank.head == pytest.approx(((box.z0 + box.z1) / 2 - use.tap) / 1000)
    keys = {k.key for k in built(verdict).checks}
    assert "pressure:tray.tank" in keys
    assert "tray:pressure test" in built(verdict).ops


def test_people_without_a_tank_are_told() -> None:
    job = tray_with_tank()
    assert not codes(judge(job), "services.no_water")
    dry = msgspec.structs.replace(job, body=job.body.but(tray=job.body.tray.but(tank=None)))
    (found,) = [f for f in judge(dry).findings if f.code == "services.no_water"]
    uses, trip = dry.services.uses, dry.services.trip
    assert found.limit == pytest.approx(sum(
        trip.people * uses.drink + d.showers * uses.shower + d.meals * uses.meal for d in trip.days
    ))  # fmt: skip
    nobody = msgspec.structs.replace(dry, services=dry.services.but(trip=trip.but(people=0)))
    assert not codes(judge(nobody), "services.no_water")


def test_a_slide_in_is_held_by_its_tie_downs() -> None:
    job = begun("Fen", "bare tray", "camper")
    room = job.body.rooms[0]
    assert not codes(judge(job), "loads.ties")
    for ties in (0, 1, 3):
        body = job.body.but(rooms=(room.but(tie_downs=ties),))
        (found,) = [
            f
            for f in judge(msgspec.structs.replace(job, body=body)).findings
            if f.code == "loads.ties"
        ]
        assert (found.severity, found.measured, found.limit) == ("stop", ties, 4)
    check = next(c for c in judge(job).carrying.mounts if c.ref == room.ref)
    assert check.kg == pytest.approx(room.mass)
    forward = next(w for w in check.ways if w.way == "forward")
    # Half of four ties at half a right angle hold 0.8 of its weight, each 8 kN.
    assert forward.use == pytest.approx(math.sqrt(2) * 0.8 * room.mass * G / 2 / 8000)
    heavy = job.body.but(rooms=(room.but(mass=8000.0 * 2 / math.sqrt(2) / 0.8 / G + 1),))
    assert codes(judge(msgspec.structs.replace(job, body=heavy)), "loads.mount") == ["loads.mount"]


def test_what_hangs_pulls_at_its_bolts() -> None:
    job = fitting.toggled(begun("single cab", "bare tray"), "box ahead left")
    verdict = judge(job)
    check = next(c for c in verdict.carrying.mounts if c.id.startswith("tray.box"))
    assert check.held is not None
    assert check.held.hung
    rules = verdict.assembly.shop.rules
    kg = sum(m.kg for m in verdict.assembly.masses() if m.of == check.id)
    assert check.kg == pytest.approx(kg)
    down = next(w for w in check.ways if w.way == "down")
    assert down.tension == pytest.approx(rules.vertical_dynamic * kg * G / check.held.count)
    level = next(w for w in check.ways if w.way == "forward")
    assert level.shear == pytest.approx(0.8 * kg * G / check.held.count)
    assert level.tension >= kg * G / check.held.count


def test_a_load_says_by_what_it_is_held() -> None:
    job = begun("single cab", "bare tray")
    load = Carried(
        id="load",
        name="Load",
        kind="load",
        x=2600,
        z=1000,
        length=900,
        width=900,
        height=300,
        mass=60,
    )

    def found(item: Carried) -> list[str]:
        return codes(
            judge(msgspec.structs.replace(job, carried=(item,))),
            "loads.loose",
            "loads.ties",
            "loads.mount",
        )

    assert found(load) == ["loads.loose"]
    assert found(load.but(mass=0.9)) == []
    assert found(load.but(straps=1)) == ["loads.ties"]
    assert found(load.but(straps=2)) == []
    # Two straps of 25 kg hold no 60 kg in braking.
    assert found(load.but(straps=2, strap=25)) == ["loads.mount"]
    assert found(load.but(bolts=4)) == []


def test_a_canopy_is_held_with_all_that_stays_in_it() -> None:
    verdict = judge(demo_job("brackwater"))
    check = next(c for c in verdict.carrying.mounts if c.ref == CANOPY)
    assert check.kg == pytest.approx(
        sum(m.kg for m in verdict.assembly.masses() if m.mount == "canopy")
    )
    assert check.words == "4 × M12"


def with_second_leaf() -> Job:
    """A canopy whose left door has a mesh leaf too, which hangs in one set-up."""
    job = begun("dual cab", "full canopy")
    canopy = job.body.canopy
    assert canopy is not None
    doors = tuple(d.but(second="mesh") if d.id == "left" else d for d in canopy.doors)
    job = msgspec.structs.replace(job, body=job.body.but(canopy=canopy.but(doors=doors)))
    rows = (SetUp(id="sheet", name="Sheet"), SetUp(id="mesh", name="Mesh", second_doors=("left",)))
    scenarios = tuple(
        msgspec.structs.replace(job.scenarios[-1], id=key, name=key, setup=key)
        for key in ("sheet", "mesh")
    )
    return msgspec.structs.replace(job, setups=rows, scenarios=scenarios)


def test_two_set_ups_that_differ_in_a_leaf_differ_in_kilograms() -> None:
    verdict = judge(with_second_leaf())
    one, other = (verdict.loads.scenario(k).gross.value for k in ("sheet", "mesh"))
    canopy = verdict.job.body.canopy
    assert canopy is not None
    leaf = next(
        p for p in verdict.assembly.parts() if p.name == "Canopy: door left second leaf of mesh"
    )
    hole = leaf.cutouts[-1]  # type: ignore[union-attr]
    skin = verdict.assembly.shop.material(canopy.skin_material)
    cut = hole.length * hole.width * canopy.skin * skin.density * 1e-9
    mesh = (hole.length + 40) * (hole.width + 40) * 1e-6 * 2.2
    assert other - one == pytest.approx(mesh - cut, abs=0.05)
    same = verdict.within("mesh").assembly
    assert sum(m.kg for m in same.masses() if m.fill.by == "hung") == 0


def test_dogs_that_share_a_place_share_its_width_and_its_air() -> None:
    job = begun("dual cab", "full canopy")
    room = next(o.make for o in catalogue.entries() if o.key == "compartment")
    bay = job.body.bays()[0]
    unit = msgspec.structs.replace(
        room, id="room", bay=bay.id, width=900.0, depth=650.0, vents=600.0
    )
    dog = Dog(id="rex", name="Rex", a=550, b=250, c=160, d=500, place="room")
    one = msgspec.structs.replace(job, units=(unit,), party=Party(dogs=(dog,)))
    assert not codes(judge(one), "access.dog", "fit.air")
    two = msgspec.structs.replace(one, party=Party(dogs=(dog, dog.but(id="bo", name="Bo"))))
    found = [f for f in judge(two).findings if f.code == "access.dog"]
    assert found
    # 650 deep less door and two sheets, less what the other dog wants: 2 C.
    assert {(f.measured, f.limit) for f in found} == {(650.0 - 25 - 4 - 320, 320.0)}
    (air,) = [f for f in judge(two).findings if f.code == "fit.air"]
    assert (air.measured, air.limit) == (600.0, 1000.0)


def test_a_dog_stays_at_home_with_its_place() -> None:
    job = begun("dual cab", "full canopy")
    room = next(o.make for o in catalogue.entries() if o.key == "compartment")
    unit = msgspec.structs.replace(room, id="room", bay=job.body.bays()[0].id, width=300.0)
    dog = Dog(id="rex", name="Rex", place="room")
    job = msgspec.structs.replace(job, units=(unit,), party=Party(dogs=(dog,)))
    assert setup_edits.worn(job, SetUp(id="off", name="Off", off=("room",))).party.dogs == ()
    assert setup_edits.worn(job, SetUp(id="on", name="On")).party is job.party


@pytest.mark.parametrize(
    ("place", "with_bed", "told"),
    [("cab", False, "look"), ("drawer-low", False, "look"), ("drawer-low", True, "stop"), ("gas-locker", True, ""),
     ("", False, "")],
)  # fmt: skip
def test_fuel_in_something_closed_is_told(place: str, with_bed: bool, told: str) -> None:
    job = begun("dual cab", "full canopy")
    bay = job.body.bays()[0].id
    units = tuple(
        msgspec.structs.replace(o.make, id=o.key, bay=bay)
        for o in catalogue.entries() if o.key in ("drawer-low", "gas-locker", "compartment")
    )  # fmt: skip
    can = Good(id="can", name="Stove fuel", mass=2, nature=("fuel",), place=place)
    party = Party(berths=(Berth(id="bed", thing="compartment"),)) if with_bed else Party()
    verdict = judge(msgspec.structs.replace(job, units=units, goods=(can,), party=party))
    assert [f.severity for f in verdict.findings if f.code == "access.fumes"] == (
        [told] if told else []
    )


def test_what_is_named_and_not_there_is_told() -> None:
    job = begun("dual cab", "full canopy")
    party = Party(
        berths=(Berth(id="bed", thing="nest", sleepers=("nobody",)),),
        dogs=(Dog(id="rex", place="den"),),
    )
    setups = (SetUp(id="a", name="A", off=("ghost",), second_doors=("left",)),)
    verdict = judge(msgspec.structs.replace(job, party=party, setups=setups))
    titles = [f.title for f in verdict.findings if f.code == "file.named"]
    assert len(titles) == 5
    for word in ("nest", "nobody", "den", "ghost", "left"):
        assert any(f"'{word}'" in t for t in titles)


def test_a_consumer_without_a_place_is_told() -> None:
    job = begun("dual cab", "full canopy")
    lamp = Consumer(id="lamp", name="Lamp", watts=5)
    for one, told in ((lamp, ["services.nowhere"]), (lamp.but(z=1500), [])):
        services = job.services.but(consumers=(one,))
        assert (
            codes(judge(msgspec.structs.replace(job, services=services)), "services.nowhere")
            == told
        )


def test_legs_that_foul_are_a_stop_until_they_stand_further_out() -> None:
    job = begun("dual cab", "full canopy")
    canopy = job.body.canopy
    assert canopy is not None
    clear = judge(job).access.off_on
    assert clear is not None
    assert clear.beside >= 50
    near = msgspec.structs.replace(job, body=job.body.but(canopy=canopy.but(leg_out=0.0)))
    (found,) = [f for f in judge(near).findings if f.code == "access.beside"]
    tyres = job.vehicle.track_rear + float(job.vehicle.tyre.split("/")[0])
    by_hand = (canopy.width + 10 - max(job.body.tray.width, tyres)) / 2
    assert (found.severity, found.measured) == ("stop", pytest.approx(by_hand))


def test_a_swap_with_the_canopy_tells_its_mass() -> None:
    job = begun("dual cab", "full canopy")
    rows = (SetUp(id="on", name="On"), SetUp(id="off", name="Off", canopy=False))
    verdict = judge(msgspec.structs.replace(job, setups=rows))
    (step,) = [s for s in swap(verdict, "on", "off").steps if s.what == "canopy"]
    assert step.kg == pytest.approx(
        sum(m.kg for m in verdict.assembly.masses() if m.mount == "canopy"), abs=0.06
    )


def test_nothing_stands_where_somebody_sits() -> None:
    job = begun("dual cab", "full canopy")
    seat = job.vehicle.seats[1]
    box = Carried(id="box", name="Box", kind="load", x=seat.x, y=seat.y, z=seat.z, length=300, width=300, height=300,
                  mass=5, bolts=2, place="cab", mount="vehicle")  # fmt: skip

    def found(item: Carried, people: float, **more: object) -> list[tuple[str, float | None]]:
        scenarios = tuple(
            msgspec.structs.replace(s, people=(80.0, people), **more) for s in job.scenarios
        )
        verdict = judge(msgspec.structs.replace(job, carried=(item,), scenarios=scenarios))
        return [(f.severity, f.measured) for f in verdict.findings if f.code == "body.seat"]

    assert found(box, 75) == [("stop", 300.0)]
    assert found(box, 0) == [("look", 300.0)]
    assert found(box, 75, left_behind=("box",)) == [("look", 300.0)]
    assert found(box.but(y=seat.y - 340), 75) == [("stop", 10.0)]
    assert found(box.but(z=seat.z + 800), 75) == []


@pytest.mark.parametrize("by", [-15.0, 15.0])
def test_one_volume_beside_a_wheel_is_judged_alike_hung_or_carried(by: float) -> None:
    job = begun("single cab", "bare tray")
    tray, base = job.body.tray, job.vehicle.wheelbase
    hung = UnderTank(start=10, length=300, width=tray.width, height=200)
    body = job.body.but(tray=tray.but(tank=hung, mudguards=False, wheel_travel=90))
    first = judge(msgspec.structs.replace(job, body=body))
    box = next(t.envelope for t in first.assembly.everything if t.id == "tray.tank")
    radius = float(overall_diameter(job.vehicle.tyre)) / 2
    # At the axle's height, and all the way up its travel, the wheel's room ends half the travel ahead of its tyre.
    assert box.z0 < radius + 90 < box.z1 or box.z0 > radius
    reach = next(
        p.piece.box.x0
        for p in first.assembly.ground.rooms
        if p.role == "wheel" and "rear" in p.ref.id
    )
    assert reach == pytest.approx(base - radius - 45)
    high = min(radius + 90, box.z1) - 1
    assert high > radius or box.z0 <= radius
    start = hung.start + (reach - box.x1) + by
    one = msgspec.structs.replace(
        job, body=body.but(tray=body.tray.but(tank=msgspec.structs.replace(hung, start=start)))
    )
    load = Carried(id="load", name="Load", kind="load", x=box.centre()[0] + start - hung.start, y=0, z=box.z0,
                   length=300, width=tray.width, height=200, mass=5, bolts=4)  # fmt: skip
    other = msgspec.structs.replace(
        job, body=body.but(tray=body.tray.but(tank=None)), carried=(load,)
    )
    tank = [f for f in judge(one).findings if f.code == "outline.under" and "wheel" in f.title]
    carried = [f for f in judge(other).findings if f.code == "fit.body" and "wheel" in f.title]
    assert bool(tank) == bool(carried) == (by > 0 and box.z0 < radius + 90)
