"""Mudguards: clear of the tyre at its stop, inside the tray's edge, hung from the frame, judged as they are cut."""

import math
import random

import msgspec
import pytest
import shapely
from tests.sweeping import examples

from roomy_hull.core.mechanics.bends import bend_allowance
from roomy_hull.core.parts import BarPart, SheetPart
from roomy_hull.core.tyres import overall_diameter, parts_of
from roomy_hull.job.body import Tray
from roomy_hull.job.model import Job
from roomy_hull.job.vehicle import Vehicle
from roomy_hull.kit.body import mudguards, subframe, tray
from roomy_hull.making.bending import plan_bends
from roomy_hull.making.flats import blank
from roomy_hull.making.joints import joined
from roomy_hull.shop.shop import shipped_shop
from roomy_hull.verdict.verdict import fixes, judge

SHOP = shipped_shop()


def of(vehicle: Vehicle, body: Tray) -> list[SheetPart]:
    made = mudguards.parts(vehicle, body, SHOP, subframe.own_parts(vehicle, body, SHOP))
    return [p for p in made if isinstance(p, SheetPart)]


def by_chance(demo: Job, seed: int) -> tuple[Vehicle, Tray]:
    """A tray on some tyres; its rail is high or low."""
    rng = random.Random(seed)
    tyre = rng.choice(("205/65R16", "245/70R17", "265/75R16", "295/70R17", "285/70R17"))
    vehicle = demo.vehicle.but(tyre=tyre, track_rear=rng.uniform(1450, 1700))
    body = demo.body.tray.but(
        width=rng.choice((1700.0, 1800.0, 1900.0, 2050.0)), wheel_travel=rng.choice((0.0, 40.0, 75.0, 110.0)),
        cross_spacing=rng.uniform(300, 600), rail=rng.choice(("100x50x4", "150x50x4", "200x50x4")),
    )  # fmt: skip
    return vehicle, body


def test_the_strip_is_as_long_as_a_hand_reckons(demo: Job) -> None:
    (strip,) = [p for p in of(demo.vehicle, demo.body.tray) if "strip" in p.name]
    # Half a twelve-sided ring, its outside 2 mm over the tyre with its travel: five whole sides and two halves, six
    # bends of 30 degrees. From each side go (R + T) tan 15 at each bend, the bend's own arc comes back.
    metal = strip.material
    outside = overall_diameter(demo.vehicle.tyre) / 2 + demo.body.tray.wheel_travel + 2
    side, gone = (
        2 * outside * math.tan(math.radians(15)),
        (metal.bend_radius_per_t * 2 + 2) * math.tan(math.radians(15)),
    )
    arc = bend_allowance(30.0, metal.bend_radius_per_t * 2, 2, metal.k(2))
    long, wide = sorted(strip.developed(), reverse=True)
    assert long == pytest.approx(6 * side - 12 * gone + 6 * arc)
    # From 30 beside the tyre's inside to the tray's edge less 5, since the tyre reaches nearly as far.
    section, track = parts_of(demo.vehicle.tyre)[0], demo.vehicle.track_rear
    assert wide == pytest.approx(demo.body.tray.width / 2 - 5 - (track / 2 - section / 2 - 30))
    assert strip.count == 2


@pytest.mark.parametrize("seed", range(examples(8, 2)))
def test_any_guard_clears_the_tyre_stays_inside_and_hangs(demo: Job, seed: int) -> None:
    vehicle, body = by_chance(demo, seed)
    made = of(vehicle, body)
    radius = overall_diameter(vehicle.tyre) / 2
    room = shapely.Point(vehicle.wheelbase, radius).buffer(radius + body.wheel_travel, 256)
    edge = vehicle.track_rear / 2 + parts_of(vehicle.tyre)[0] / 2
    for piece in mudguards.pieces(made):
        assert shapely.Polygon(piece.ring).intersection(room).area < 1.0
        assert max(abs(piece.lo), abs(piece.hi)) <= max(edge, body.width / 2 - 5) + 1e-6
    for part in made:
        assert plan_bends(part, SHOP.tools.brake).fault == ""
        assert len(blank(part).bends) == (6 if "strip" in part.name else 1)
    whole = tray.parts(vehicle, body, SHOP)
    found = joined(whole, SHOP.tools.joining)
    names = {whole[n].name for n in found.alone}
    hung = [p for p in made if "bracket" in p.name]
    # What hangs is held by bolts at both ends; where no bracket finds its place, it is said that nothing holds it.
    assert ("Tray: mudguard strip" in names) == (not hung)
    for bracket in hung:
        with_ = {
            j.other if j.one == bracket.name else j.one: j.method for j in found.joints
            if bracket.name in (j.one, j.other)
        }  # fmt: skip
        assert with_ == {"Tray: mudguard strip": "bolts", "Tray: cross-member beside rail": "bolts"}
        assert bracket.name not in names


def test_most_guards_find_their_brackets(demo: Job) -> None:
    hung = [sum("bracket" in p.name for p in of(*by_chance(demo, seed))) for seed in range(40)]
    assert sum(n == 2 for n in hung) > 20


def test_a_tyre_that_meets_the_frame_before_its_stop_is_told_with_what_it_meets(demo: Job) -> None:
    def on(rail: str, travel: float) -> Job:
        body = demo.body.tray.but(rail=rail, wheel_travel=travel)
        return msgspec.structs.replace(demo, body=msgspec.structs.replace(demo.body, tray=body))

    assert not {f.code for f in judge(on("150x50x4", 90)).findings} & {
        "outline.wheel",
        "outline.guard",
    }
    low = judge(on("100x50x4", 90))
    (wheel,) = [f for f in low.findings if f.code == "outline.wheel"]
    # The coaming runs over the tyre's top; its underside is a cross-member's height under the floor's.
    radius = overall_diameter(demo.vehicle.tyre) / 2
    bars = [
        p for p in low.assembly.ground.parts if isinstance(p, BarPart) and p.name == "Tray: coaming"
    ]
    assert bars
    assert wheel.measured == pytest.approx(demo.vehicle.rail_top + 100 - 50 - 2 * radius)
    assert wheel.limit == 92
    assert "coaming" in wheel.title
    # The guard cannot be where the frame is.
    stands = [f.title for f in low.findings if f.code == "outline.guard"]
    assert any("left mudguard stands in the tray's" in t for t in stands)
    # Both are mended by the lowest rail that is high enough.
    for one in [f for f in low.findings if f.code in ("outline.wheel", "outline.guard")]:
        (fix,) = fixes(low, one)
        assert fix.changes == {"body.tray.rail": "150x50x4"}
    through = judge(on("50x50x3", 90))
    (wheel,) = [f for f in through.findings if f.code == "outline.wheel"]
    assert wheel.severity == "stop"
