import msgspec
import pytest
from tests.builders import context

from reference import axle_loads
from roomy_hull.assembly.assemble import assemble
from roomy_hull.assembly.scaling import reactions, scale
from roomy_hull.core.fill import BALL, CONTENTS, FIXED, FUEL, WATER, Fill
from roomy_hull.core.findings import Finding
from roomy_hull.core.refs import Ref
from roomy_hull.core.units import G
from roomy_hull.job.edits import units as edits
from roomy_hull.job.model import Job, Scenario
from roomy_hull.job.vehicle import Vehicle
from roomy_hull.studies.loads import axles
from roomy_hull.verdict.verdict import Verdict, judge


def with_scenario(demo: Job, **changes: object) -> Job:
    """The demo with its full scenario changed."""
    new = tuple(s.but(**changes) if s.id == "full" else s for s in demo.scenarios)
    return msgspec.structs.replace(demo, scenarios=new)


def with_ratings(demo: Job, **changes: object) -> Job:
    vehicle: Vehicle = demo.vehicle.but(ratings=demo.vehicle.ratings.but(**changes))
    return msgspec.structs.replace(demo, vehicle=vehicle)


def loads_of(verdict: Verdict, code: str, scenario: str = "full") -> list[Finding]:
    return [
        f for f in verdict.findings if f.code == f"loads.{code}" and f.scenario in (scenario, "")
    ]


def test_axles_agree_with_the_plain_reference(demo: Job) -> None:
    found = axles.study(context(assemble(demo))).scenarios
    for loads, (front, rear) in zip(found, axle_loads(demo), strict=True):
        assert loads.front.value == pytest.approx(front)
        assert loads.rear.value == pytest.approx(rear)


def test_one_kilogram_behind_the_rear_axle_lifts_the_front() -> None:
    front, rear = reactions(100, 4000, 3240)
    assert front < 0
    assert front + rear == pytest.approx(100)


def test_sums_hold_in_every_scenario(demo_verdict: Verdict) -> None:
    for s in demo_verdict.loads.scenarios:
        assert s.front.value + s.rear.value == pytest.approx(s.gross.value)
        assert s.left.value + s.right.value == pytest.approx(s.gross.value)
        assert s.payload_left.value == pytest.approx(3500 - s.gross.value)
        assert (
            min(s.front.uncertainty, s.rear.uncertainty, s.gross.uncertainty, s.left.uncertainty)
            > 0
        )


def test_owners_add_up_to_the_axles(demo: Job, demo_verdict: Verdict) -> None:
    for scenario, s in zip(demo.scenarios, demo_verdict.loads.scenarios, strict=True):
        owners = demo_verdict.loads.owners(scenario)
        assert sum(o[0] for o in owners.values()) == pytest.approx(s.gross.value)
        assert sum(o[1] for o in owners.values()) == pytest.approx(s.rear.value)
        assert sum(o[2] for o in owners.values()) == pytest.approx(s.right.value - s.left.value)


def test_fills_scale_what_they_name(demo: Job) -> None:
    full = judge(demo).loads.scenario("full")
    for change, kg in (
        ({"water": 0.0}, 90.0),
        ({"fuel": 0.0}, 80 * 0.84),
        ({"people": (82.0,)}, 74.0),
        ({"left_behind": ("punt",)}, 38.0),
    ):
        less = judge(with_scenario(demo, **change)).loads.scenario("full")
        assert full.gross.value - less.gross.value == pytest.approx(kg, abs=0.6), change
    off = judge(with_scenario(demo, canopy=False)).loads.scenario("full")
    stays = [c.mass + c.contents for c in demo.carried if c.mount != "canopy"]
    tray_and_crew = off.gross.value
    assert tray_and_crew < full.gross.value - 400
    assert sum(stays) == pytest.approx(34 + 4.5 + 16.8 + 0.6)


def test_kerb_figures_with_driver_and_fuel_count_nothing_twice(demo: Job) -> None:
    # Weighed once empty and once with a driver of 80 kg and 50 l aboard, the result is the same.
    seat, tank, base = demo.vehicle.seats[0], demo.vehicle.fuel, demo.vehicle.wheelbase
    bare = demo.vehicle.kerb.but(fuel=0.0)
    rear = bare.rear + (80 * seat.x + 42 * tank.x) / base
    front = bare.front + 122 - (rear - bare.rear)
    with_driver = bare.but(front=front, rear=rear, driver=80.0, fuel=50.0)
    one = judge(msgspec.structs.replace(demo, vehicle=demo.vehicle.but(kerb=bare)))
    other = judge(msgspec.structs.replace(demo, vehicle=demo.vehicle.but(kerb=with_driver)))
    for a, b in zip(one.loads.scenarios, other.loads.scenarios, strict=True):
        assert a.gross.value == pytest.approx(b.gross.value)
        assert a.rear.value == pytest.approx(b.rear.value)


def test_uncertainties_add_as_root_of_squares(demo: Job) -> None:
    heavy = edits.changed(demo, "tools", contents=400.0)
    before, after = judge(demo).loads.scenario("full"), judge(heavy).loads.scenario("full")
    lost = (52 * 0.15) ** 2
    gained = (400 * 0.15) ** 2
    assert after.gross.uncertainty == pytest.approx(
        (before.gross.uncertainty**2 - lost + gained) ** 0.5
    )


def test_the_ball_counts_on_the_vehicle_and_belongs_to_the_trailer(demo: Job) -> None:
    towing = judge(with_scenario(demo, ball=200.0, trailer=2500.0)).loads.scenario("full")
    solo = judge(demo).loads.scenario("full")
    assert towing.gross.value == pytest.approx(solo.gross.value + 200)
    assert towing.combination is not None
    assert towing.combination.value == pytest.approx(solo.gross.value + 2500)
    assert towing.front.value < solo.front.value
    assert solo.combination is None


def test_stance_is_the_added_load_on_two_springs(demo: Job) -> None:
    s = judge(demo).loads.scenario("full")
    springs, kerb = demo.vehicle.springs, demo.vehicle.kerb
    assert s.stance.rear_sag == pytest.approx((s.rear.value - kerb.rear) * G / (2 * springs.rear))
    assert s.stance.tail_low == pytest.approx(s.stance.rear_sag - s.stance.front_sag)


@pytest.mark.parametrize(
    ("ratings", "code"),
    [
        ({"front_axle": 1400.0}, "front"),
        ({"rear_axle": 1600.0}, "rear"),
        ({"gross": 3000.0}, "gross"),
        ({"roof": 30.0}, "roof"),
    ],
)
def test_a_rating_exceeded_is_a_stop(demo: Job, ratings: dict[str, float], code: str) -> None:
    hits = loads_of(judge(with_ratings(demo, **ratings)), code)
    assert [f.severity for f in hits] == ["stop"]
    assert hits[0].measured > hits[0].limit  # type: ignore[operator]
    assert "rating plate" in hits[0].source


def test_a_fair_chance_of_exceeding_is_a_look_that_says_how_fair(demo: Job) -> None:
    gross = judge(demo).loads.scenario("full").gross
    hits = loads_of(judge(with_ratings(demo, gross=gross.value + gross.uncertainty)), "gross")
    assert [f.severity for f in hits] == ["look"]
    assert "16%" in hits[0].title
    assert not loads_of(
        judge(with_ratings(demo, gross=gross.value + 2 * gross.uncertainty)), "gross"
    )


def test_trailer_and_ball_have_their_own_limits(demo: Job) -> None:
    verdict = judge(with_scenario(demo, ball=360.0, trailer=3600.0))
    assert [f.severity for f in loads_of(verdict, "ball")] == ["stop"]
    assert [f.severity for f in loads_of(verdict, "towed")] == ["stop"]
    assert [f.severity for f in loads_of(verdict, "combination")] == ["stop"]


def test_a_rating_that_is_not_given_is_not_checked(demo: Job) -> None:
    job = with_ratings(with_scenario(demo, ball=360.0, trailer=3600.0),
                       combination=0.0, towed=0.0, ball=0.0, roof=0.0)  # fmt: skip
    verdict = judge(job)
    for code in ("ball", "towed", "combination", "roof"):
        assert not loads_of(verdict, code)


def test_sides_and_a_light_front_are_looks(demo: Job) -> None:
    job = demo
    for key in ("sample-fridge", "tools", "camp"):
        job = edits.removed(job, key)
    job = edits.changed(job, "wet-bench", contents=250.0)
    assert [f.severity for f in loads_of(judge(job), "sides")] == ["look"]
    behind = edits.changed(with_scenario(demo, people=(60.0,), fuel=0.0), "spare", mass=1600.0)
    assert {f.severity for f in loads_of(judge(behind), "front_light", "full")} == {"look"}


@pytest.mark.parametrize(("contents", "weight"), [(20.0, []), (52.0, ["look"]), (140.0, ["stop"])])
def test_slides_are_held_against_their_rating(
    demo: Job, contents: float, weight: list[str]
) -> None:
    verdict = judge(edits.changed(demo, "tools", contents=contents))
    assert [f.severity for f in verdict.findings if f.code == "loads.slide"] == weight


def test_the_first_scenario_stands_in_for_an_unknown_one(demo_verdict: Verdict) -> None:
    assert demo_verdict.loads.scenario("nothing") is demo_verdict.loads.scenarios[0]


def test_a_factor_for_every_fill(demo: Job) -> None:
    scenario = Scenario(id="s", name="S", people=(80.0,), fuel=0.5, water=0.25, contents=0.75, ball=90.0,
                        trailer=900.0)  # fmt: skip
    for fill, expected in (
        (FIXED, 1), (FUEL, 0.5), (WATER, 0.25), (CONTENTS, 0.75), (BALL, 90),
        (Fill("person", 0), 80), (Fill("person", 3), 0),
    ):  # fmt: skip
        assert scale(scenario, Ref("unit", "x"), fill, "vehicle") == expected


def test_a_train_is_known_as_its_vehicle_and_as_what_rolls_behind(demo: Job) -> None:
    towing = judge(with_scenario(demo, ball=200.0, trailer=2500.0)).loads.scenario("full")
    assert towing.combination is not None
    # Of the trailer, known to 3 %, its ball weighs on the vehicle and is given.
    behind = 0.03 * (2500.0 - 200.0)
    together = (towing.gross.uncertainty**2 + behind**2) ** 0.5
    assert towing.combination.uncertainty == pytest.approx(together)
