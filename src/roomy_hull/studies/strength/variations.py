"""What overhang, ball and air springs do to the bending of a chassis."""

import msgspec

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.assembly.scaling import Weighed
from roomy_hull.core.refs import Ref
from roomy_hull.job.model import Scenario
from roomy_hull.studies.strength.chassis import Diagram, study


class Variation(msgspec.Struct, frozen=True):
    """What one change would make of the peak and of the moment over the axle. `words` name it. [N·m]

    `point` is the greatest single push of a rear spring on the chassis, the dynamic factor in it. [N]
    """

    words: str
    peak: float
    peak_x: float
    ratio: float
    axle: float
    point: float


def variations(assembly: Assembly, loads: Weighed, scenario: Scenario) -> tuple[Variation, ...]:
    """Say what overhang, ball and air springs do to one scenario's peak.

    Returns:
        As it is, without the ball mass, without what hangs behind the tray, with air springs over the axle, and
        with them 150 mm to either side; each against the same baseline. [N·m]
    """
    vehicle = assembly.job.vehicle
    floor = assembly.ground.floor
    tail = frozenset(
        t.ref for t in assembly.things if (t.envelope.x0 + t.envelope.x1) / 2 > floor.x1 - 1
    )
    plain = study(assembly, loads, (scenario,)).diagrams[0]
    factor = assembly.shop.rules.vertical_dynamic

    def one_of(words: str, d: Diagram) -> Variation:
        point = factor * max(p.newton for p in d.pushes if p.what != "front springs")
        return Variation(words, d.peak, d.peak_x, d.ratio, d.axle, point)

    found = [one_of("As it is", plain)]

    def add(words: str, of: Assembly, trial: Scenario, out: frozenset[Ref] = frozenset()) -> None:
        found.append(one_of(words, study(of, loads, (trial,), out).diagrams[0]))

    if scenario.ball > 0:
        add("Without the ball mass", assembly, msgspec.structs.replace(scenario, ball=0.0))
    elif vehicle.ratings.ball > 0:
        heavy = msgspec.structs.replace(
            scenario, ball=vehicle.ratings.ball, trailer=max(scenario.trailer, vehicle.ratings.ball)
        )
        add("With the ball's rated mass", assembly, heavy)
    if tail:
        add("Without what hangs behind the tray", assembly, scenario, tail)
    for option, shift, words in (
        ("standard", 0.0, "With the standard springs"),
        ("air", 0.0, "Air springs over the axle"),
        ("air", -150.0, "Air springs 150 mm ahead of it"),
        ("air", 150.0, "Air springs 150 mm behind it"),
    ):
        s = vehicle.springs
        if s.school == option and (option != "air" or s.air_x == shift):
            continue
        other = msgspec.structs.replace(s, school=option, air_x=shift)
        job = msgspec.structs.replace(
            assembly.job, vehicle=msgspec.structs.replace(vehicle, springs=other)
        )
        add(words, msgspec.structs.replace(assembly, job=job), scenario)
    return tuple(found)
