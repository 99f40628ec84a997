"""A plain-Python judge of fit and loads, all pairs and no memory: the mark to be faster than.

It shares the kit's expansions and the frames, and nothing of the studies, so that tests can also
hold the studies against it.
"""

from roomy_hull.core.fill import Fill
from roomy_hull.core.geometry.frames import Frame
from roomy_hull.core.geometry.solids import Box
from roomy_hull.job.model import Job, Scenario
from roomy_hull.kinds.kind import Site
from roomy_hull.kinds.registry import expand
from roomy_hull.kit.body import canopy, shell, tray
from roomy_hull.shop.shop import shipped_shop

SHOP = shipped_shop()
TOUCH = 0.05


def overlap(a: Box, b: Box) -> bool:
    """Say whether two boxes share room."""
    return (
        a[0] < b[3] - TOUCH and b[0] < a[3] - TOUCH and a[1] < b[4] - TOUCH
        and b[1] < a[4] - TOUCH and a[2] < b[5] - TOUCH and b[2] < a[5] - TOUCH
    )  # fmt: skip


def placed(job: Job) -> list[tuple[str, list[Box], list[Box]]]:
    """Expand every unit and carried item anew: (id, solids and envelope, zones)."""
    bays = canopy.bays(job.vehicle, job.body)
    found = []
    for unit in job.units:
        bay = bays[unit.bay]
        expansion = expand(unit, Site(bay.bay.pitch, SHOP), bay.bay.side)
        at = Frame(*bay.frame.point(unit.u, unit.v, unit.w), bay.frame.side)
        solids = [at.box(s.box) for s in expansion.solids] + [at.box(expansion.envelope)]
        found.append((unit.id, solids, [at.box(z.box) for z in expansion.zones]))
    for item in job.carried:
        box = Box(
            item.x - item.length / 2, item.y - item.width / 2, item.z,
            item.x + item.length / 2, item.y + item.width / 2, item.z + item.height,
        )  # fmt: skip
        found.append((item.id, [box], []))
    return found


def conflicts(job: Job) -> tuple[set[tuple[str, str]], set[tuple[str, str]]]:
    """The pairs that overlap, and the pairs of which one stands in the other's zone."""
    things = placed(job)
    overlaps, zones = set(), set()
    for i, (a, a_solids, a_zones) in enumerate(things):
        for b, b_solids, b_zones in things[i + 1 :]:
            if any(overlap(p, q) for p in a_solids for q in b_solids):
                overlaps.add((a, b))
            elif any(overlap(z, q) for z in a_zones for q in b_solids[-1:]) or any(
                overlap(z, p) for z in b_zones for p in a_solids[-1:]
            ):
                zones.add((a, b))
    return overlaps, zones


def _factor(scenario: Scenario, fill: Fill) -> float:
    """A scenario's factor on contents, water or a fixed mass."""
    return {"contents": scenario.contents, "water": scenario.water}.get(fill.by, 1.0)


def axle_loads(job: Job) -> list[tuple[float, float]]:
    """(front, rear) of every scenario, mass by mass. [kg]"""
    vehicle, body = job.vehicle, job.body
    bays = canopy.bays(vehicle, body)
    found = []
    for scenario in job.scenarios:
        masses: list[tuple[float, float]] = []
        kerb, tank = vehicle.kerb, vehicle.fuel
        masses += [(kerb.front, 0.0), (kerb.rear, vehicle.wheelbase)]
        masses.append(((tank.litres * scenario.fuel - kerb.fuel) * tank.density, tank.x))
        masses.append((-kerb.driver, vehicle.seats[0].x))
        masses += [(kg, seat.x) for kg, seat in zip(scenario.people, vehicle.seats, strict=False)]
        masses.append((scenario.ball, vehicle.tow.x))
        masses += [(point.kg, point.at[0]) for point in tray.masses(vehicle, body.tray, SHOP)]
        if scenario.canopy:
            masses += [(point.kg, point.at[0]) for point in shell.masses(vehicle, body, SHOP)]
            for unit in job.units:
                if unit.id in scenario.left_behind:
                    continue
                bay = bays[unit.bay]
                at = Frame(*bay.frame.point(unit.u, unit.v, unit.w), bay.frame.side)
                for point in expand(unit, Site(bay.bay.pitch, SHOP), bay.bay.side).masses:
                    masses.append((
                        point.kg * _factor(scenario, point.fill),
                        at.point(*point.at)[0],
                    ))
        for item in job.carried:
            if item.id in scenario.left_behind or (item.mount == "canopy" and not scenario.canopy):
                continue
            masses.append((item.mass + item.contents * scenario.contents, item.x))
        rear = sum(kg * x for kg, x in masses) / vehicle.wheelbase
        found.append((sum(kg for kg, _x in masses) - rear, rear))
    return found


def judge(job: Job) -> tuple[set[tuple[str, str]], set[tuple[str, str]], list[tuple[float, float]]]:
    """Judge a job from nothing."""
    return (*conflicts(job), axle_loads(job))
