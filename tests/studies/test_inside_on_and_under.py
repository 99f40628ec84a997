"""Inside, on and under the vehicle: things carried, wheels in their travel, tanks: cases worked by hand."""

import msgspec
import pytest
from tests.builders import bare, bay_of

from roomy_hull.core.findings import Finding
from roomy_hull.formats.demo import demo_job
from roomy_hull.job.body import Arch, Trundle, UnderBox
from roomy_hull.job.carried import Carried
from roomy_hull.job.edits.resizing import resized
from roomy_hull.job.model import Job
from roomy_hull.kinds.device import Device
from roomy_hull.kinds.placed import Placed
from roomy_hull.verdict.verdict import judge

DEMO, TUB = demo_job(), demo_job("lowfold")


def thing(
    x: float, y: float, z: float, size: tuple[float, float, float], place: str = ""
) -> Carried:
    a, b, c = size
    return Carried(id="t", name="Thing", x=x, y=y, z=z, length=a, width=b, height=c, mass=12, mount="vehicle",
                   place=place)  # type: ignore[arg-type]  # fmt: skip


def told(job: Job, *codes: str) -> list[Finding]:
    return [f for f in judge(job).findings if f.code in codes]


def with_thing(job: Job, one: Carried) -> Job:
    return msgspec.structs.replace(bare(job), carried=(one,))


@pytest.mark.parametrize(
    ("job", "one"),
    [
        # Outline of the Marl: nose at -905, bonnet 1,150 high, windscreen at 330, sill 470; cab to 1,660.
        (DEMO, thing(-300, 350, 700, (260, 170, 220))),  # a battery under the bonnet
        (DEMO, thing(1480, 390, 700, (260, 400, 300))),  # a bag on the rear seat
        (TUB, thing(2500, 300, 801, (200, 350, 450))),  # a can in the tub under the topper
        (demo_job("tarn"), thing(3000, 300, 761, (200, 350, 450))),  # a can in the wagon
        (DEMO, thing(-300, 0, 1151, (500, 500, 200))),  # a load on the bonnet
    ],
)
def test_what_is_carried_in_or_on_the_vehicle_is_fine(job: Job, one: Carried) -> None:
    assert told(with_thing(job, one), "fit.body", "fit.place") == []


@pytest.mark.parametrize(
    ("job", "one", "words", "amount"),
    [
        # 1,150 less 900 + 300: through the bonnet by 50 at least; upward out of it is 250.
        (DEMO, thing(-300, 0, 900, (300, 300, 300)), "bonnet", 250),
        (DEMO, thing(1630, 0, 1000, (80, 300, 200)), "cab", 70),
        # Rails 60 wide at ±420, from 660 to 800: a plate at 700 goes through both.
        (DEMO, thing(2600, 0, 700, (300, 1200, 20)), "left chassis rail and right chassis rail", 60),
        # The tub is 1,560 wide inside.
        (TUB, thing(2500, 780, 900, (200, 100, 100)), "tub's right wall", 50),
    ],
)  # fmt: skip
def test_what_goes_through_the_vehicle_stops(
    job: Job, one: Carried, words: str, amount: float
) -> None:
    (hit,) = told(with_thing(job, one), "fit.body")
    assert hit.severity == "stop"
    assert hit.title == f"Thing stands in the {words}"
    assert hit.measured == pytest.approx(amount)


def test_a_thing_in_a_rear_wheel_stops_where_the_wheel_is_and_where_it_comes_to() -> None:
    # The tyre of 803.9 stands at 3,240, its middle at 785 to the side; it rises by 90.
    beside = thing(3240, 785, 820, (200, 100, 40))
    (hit,) = told(with_thing(DEMO, beside), "fit.body")
    assert "right rear wheel" in hit.title
    assert (
        told(
            with_thing(DEMO, msgspec.structs.replace(beside, x=3240.0 + 402 + 101 + 5)), "fit.body"
        )
        == []
    )


def test_a_front_wheel_that_turns_meets_what_one_that_stands_straight_does_not() -> None:
    # Straight, the tyre reaches inward to 790 - 132.5 = 657.5; turned by 35 degrees its edge is at
    # 790 - 402·sin 35 - 132.5·cos 35 = 451.
    near = thing(300, -600, 380, (60, 60, 60))
    (hit,) = told(with_thing(DEMO, near), "fit.body")
    assert "left front wheel" in hit.title
    assert told(with_thing(DEMO, msgspec.structs.replace(near, y=-400.0)), "fit.body") == []


def test_a_place_holds_a_thing_to_its_bounds() -> None:
    seat = thing(1480, 390, 700, (260, 400, 300), "cab")
    assert told(with_thing(DEMO, seat), "fit.place") == []
    (hit,) = told(with_thing(DEMO, msgspec.structs.replace(seat, y=750.0)), "fit.place")
    # Half of 1,870 less the skin of 40 is 895; it reaches to 950.
    assert hit.measured == pytest.approx(55)
    (hit,) = told(with_thing(DEMO, msgspec.structs.replace(seat, place="tub")), "fit.place")
    assert hit.measured is None
    roof = thing(2700, 0, 1914, (900, 900, 200), "roof")
    assert told(with_thing(DEMO, roof), "fit.place") == []
    (hit,) = told(with_thing(DEMO, msgspec.structs.replace(roof, z=1900.0)), "fit.place")
    assert hit.measured == pytest.approx(14)


def flat(job: Job, **changes: object) -> Job:
    tray = job.body.tray.but(**changes)
    return msgspec.structs.replace(bare(job), body=job.body.but(tray=tray, canopy=None))


def on_tyres(job: Job, tyre: str) -> Job:
    return msgspec.structs.replace(job, vehicle=job.vehicle.but(tyre=tyre))


def test_a_tyre_through_the_floor_stops_and_one_that_meets_it_in_its_travel_is_a_look() -> None:
    # 315/75R16 is 878.9 high. With rails at 720 the floor's underside is at 820: 58.9 through it.
    low = msgspec.structs.replace(flat(DEMO), vehicle=DEMO.vehicle.but(rail_top=720.0))
    (hit,) = told(on_tyres(low, "315/75R16"), "outline.wheel")
    assert (hit.severity, hit.measured) == ("stop", pytest.approx(820 - 878.9))
    # 803.9 stands below it, but rises by 90, its guard's 2 above it.
    (hit,) = told(low, "outline.wheel")
    assert (hit.severity, hit.measured, hit.limit) == ("look", pytest.approx(16.1), 92)
    assert told(flat(DEMO), "outline.wheel") == []
    humps = (Arch(start=900, length=1300, width=320, height=120),)
    over = msgspec.structs.replace(flat(DEMO, arches=humps), vehicle=low.vehicle)
    assert told(over, "outline.wheel") == []


def test_a_tyre_outside_the_tray_is_a_look_and_counts_in_the_width() -> None:
    wide = msgspec.structs.replace(flat(DEMO), vehicle=DEMO.vehicle.but(track_rear=1985.0))
    (hit,) = told(wide, "outline.tyre")
    assert hit.measured == pytest.approx(1985 / 2 + 265 / 2 - 1850 / 2)
    assert judge(wide).outline.width == pytest.approx(1985 + 265)
    assert told(flat(DEMO), "outline.tyre") == []


def test_a_toolbox_in_a_guessed_tank_is_a_look_until_the_tank_is_measured() -> None:
    box = UnderBox(id="a", side="left", place="ahead", gap=20, length=400, height=300, depth=400)
    job = flat(DEMO, boxes=(box,))
    (hit,) = told(job, "outline.under")
    assert (hit.severity, hit.source) == (
        "look",
        "its shape is guessed from its volume; measure it in Survey",
    )
    fuel = DEMO.vehicle.fuel.but(length=700, width=380, height=300, y=-300, z=560)
    measured = msgspec.structs.replace(job, vehicle=DEMO.vehicle.but(fuel=fuel))
    # The box reaches inward to -925 + 400 = -525, the tank outward to -490: clear.
    assert told(measured, "outline.under") == []
    near = msgspec.structs.replace(job, vehicle=DEMO.vehicle.but(fuel=fuel.but(y=-350)))
    (hit,) = told(near, "outline.under")
    assert (hit.severity, hit.measured) == ("stop", pytest.approx(15))


def test_the_trundle_still_passes_between_the_rails() -> None:
    job = flat(DEMO, trundle=Trundle(length=600, width=700, height=160))
    assert told(job, "move.blocked") == []


def test_what_hangs_low_reaches_the_ground_when_the_vehicle_has_settled() -> None:
    # Drop sides of 850 under a floor of 954: clear at kerb attitude; laden, the tail comes down by more.
    job = flat(DEMO, sides=850.0)
    heavy = msgspec.structs.replace(
        job, carried=(thing(3300, 0, 905, (900, 900, 400)).but(mass=900, mount="tray"),)
    )
    sag = max(s.stance.rear_sag for s in judge(heavy).loads.scenarios)
    assert sag > 60
    assert told(job, "move.blocked") == told(heavy, "move.blocked")
    hits = told(heavy, "move.low")
    assert {h.severity for h in hits} == {"stop"}
    assert any("Tailboard" in h.title for h in hits)
    side = next(o for o in judge(heavy).together.openings if o.id == "tray:tail")
    deepest = next(h for h in hits if "Tailboard" in h.title)
    assert deepest.measured is not None
    assert deepest.measured > sag - side.swept_box.z0 - 1
    # One that hangs exactly to the ground goes into it; posts stay on it.
    exact = resized(heavy, "body.tray.sides", 850.0 + side.swept_box.z0)
    (low,) = [h for h in told(exact, "move.low") if "Tailboard" in h.title]
    assert low.measured is not None
    assert low.measured > deepest.measured + side.swept_box.z0 - 1
    legs = Carried(id="a", name="Awning", kind="awning", x=2700, y=-985, z=1945, length=2000, width=130, height=120,
                   mass=20, mount="canopy", side="left", reach=2000, legs=True)  # fmt: skip
    poses = msgspec.structs.replace(bare(DEMO), carried=(legs,))
    assert told(poses, "move.low") == []


def test_four_people_alone_bend_the_chassis_less_than_its_rated_payload_does() -> None:
    job = flat(DEMO, fittings=0.0, headboard=0.0)
    full = job.scenarios[2].but(people=(75.0, 75.0, 75.0, 75.0), ball=0.0, trailer=0.0, fuel=0.1)
    chassis = judge(msgspec.structs.replace(job, scenarios=(full,))).carrying.chassis
    assert chassis.diagrams[0].ratio < 1


def test_a_holds_false_floor_and_wings_are_in_the_way_and_hollow_below() -> None:
    job = msgspec.structs.replace(
        bare(TUB),
        body=TUB.body.but(tray=TUB.body.tray.but(false_floor=120.0, wings=200.0, arches=())),
    )
    bay = bay_of(job, "B")
    # The bay begins on the floor, 15 inside the tub's wall; the wings are 200 wide, so 185 of the bay.
    under = Device(
        what="battery",
        mass=9,
        id="d",
        name="Battery",
        bay="B",
        u=400,
        v=50,
        w=0,
        width=250,
        depth=300,
        height=100,
    )
    assert told(with_units(job, under), "fit.body") == []
    (hit,) = told(with_units(job, under.but(height=115.0)), "fit.body")
    assert (hit.title, hit.measured) == (
        "Battery stands in the false floor",
        pytest.approx(115 - 108),
    )
    (hit,) = told(with_units(job, under.but(u=100.0, w=0.0)), "fit.body")
    assert hit.title == "Battery stands in the wing left"
    assert bay.length == 1516


def with_units(job: Job, *units: Placed) -> Job:
    return msgspec.structs.replace(job, units=units)
