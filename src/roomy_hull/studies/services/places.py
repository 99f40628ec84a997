"""Places judged: what is near gas, what lies under water, what is reached when something fails, which side it serves."""

import itertools

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.assembly.study import Context
from roomy_hull.assembly.things import AnyThing, Thing
from roomy_hull.core.findings import GEOMETRY, PRACTICE, Finding
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.refs import Ref
from roomy_hull.studies.services.fluids import Fluids
from roomy_hull.studies.services.runs import Run
from roomy_hull.studies.services.told import finding, ref

IN_OUT = "in and out"
FROM_GAS = 300.0
"""They keep so far from a gas locker's opening or vents (common practice; the local gas code decides). [mm]"""
FEW_OUT = 3
"""So many things may have to come out before a place of faults (common practice)."""


def _sparks(assembly: Assembly) -> list[AnyThing]:
    """What can ignite gas."""
    lit = {c.thing for c in assembly.job.services.consumers if c.ignites}
    return [t for t in assembly.everything if t.capabilities.ignites or t.id in lit]


def gap(a: Box, b: Box) -> float:
    """How far two boxes are apart, straight. [mm]"""
    away = [max(a[i] - b[i + 3], b[i] - a[i + 3], 0.0) for i in range(3)]
    return float(sum(c * c for c in away) ** 0.5)


def gas(assembly: Assembly, found_of: Fluids | None) -> list[Finding]:
    """Gas lockers: their vents, and what stands near them."""
    found = []
    for locker, spark in itertools.product(assembly.doing("gas"), _sparks(assembly)):
        far = gap(locker.envelope, spark.envelope)
        if far < FROM_GAS:
            found.append(
                finding("ignition", "look", f"{spark.name} can ignite gas beside {locker.name}",
                         (spark.ref, locker.ref), (far, FROM_GAS, "mm"), f"{PRACTICE}; the local gas code decides",
                         (spark.envelope, locker.envelope))
            )  # fmt: skip
    if found_of is not None:
        for key, area, least in found_of.vents:
            if area < least - 0.05:
                found.append(
                    finding("vent", "stop", "The gas locker's vents low to the outside are too small",
                             ref(assembly, key), (area, least, "cm²"), "EN 1949 (from memory)")
                )  # fmt: skip
    return found


def under_water(assembly: Assembly) -> list[Finding]:
    """Electrics under a tank."""
    found = []
    devices = [t for t in assembly.everything if t.capabilities.hurt_by_water]
    for tank, device in itertools.product(assembly.doing("water"), devices):
        a, b = tank.envelope, device.envelope
        if (
            min(a.x1, b.x1) > max(a.x0, b.x0)
            and min(a.y1, b.y1) > max(a.y0, b.y0)
            and b.z1 <= a.z0 + 1
        ):
            found.append(
                finding("water_over", "look", f"{tank.name} leaks onto {device.name}",
                         (device.ref, tank.ref), source=GEOMETRY, where=(b, a))
            )  # fmt: skip
    return found


def reached(context: Context) -> list[Finding]:
    """What has to come out before a place of faults is reached."""
    found = []
    for thing in context.assembly.things:
        if thing.capabilities.looked_at:
            out = context.results[IN_OUT].before(thing.id)
            if len(out) > FEW_OUT:
                found.append(
                    finding("reach", "look", f"{len(out)} things come out before {thing.name} is reached",
                             (thing.ref,), (len(out), FEW_OUT, "things"), GEOMETRY)
                )  # fmt: skip
    return found


def served(assembly: Assembly) -> list[Finding]:
    """Outlets, switches and lights that are not on the side that they serve."""
    found = []
    for c in assembly.job.services.consumers:
        if not c.serves:
            continue
        thing = assembly.thing(c.thing) if c.thing else None
        if thing is not None and thing.place is not None:
            side: str = thing.place.bay.side
        else:
            y = thing.envelope.centre()[1] if thing is not None else c.y
            side = "right" if y > 0 else "left"
            if c.serves == "rear":
                continue  # what stands free has no wall to be on
        if side != c.serves:
            found.append(
                finding("side", "look", f"{c.name} is on the {side}, and serves the {c.serves}",
                        (thing.ref,) if thing is not None else (Ref("field", f"services consumer {c.id}"),))
            )  # fmt: skip
    return found


def boards(assembly: Assembly) -> list[Finding]:
    """Instruments that reach further back than there is room behind their board."""
    return [
        finding("board_deep", "stop", f"{name} reaches further back than the room behind {t.name}",
                (t.ref,), (takes, there, "mm"), "the device's data sheet", (t.envelope,))
        for t in assembly.everything
        for name, takes, there in t.capabilities.too_deep
    ]  # fmt: skip


def faults(assembly: Assembly) -> list[Finding]:
    """How many places there are to look when something fails."""
    bays: dict[str, list[Thing]] = {}
    for t in assembly.things:
        if t.place is not None and t.capabilities.looked_at:
            bays.setdefault(t.place.bay.id, []).append(t)
    if len(bays) < 2:
        return []
    return [
        finding("places", "note", f"When something fails there are {len(bays)} places to look: {', '.join(bays)}",
                tuple(t.ref for some in bays.values() for t in some), (len(bays), 1, "places"), PRACTICE)
    ]  # fmt: skip


def hoses_over(assembly: Assembly, laid: tuple[Run, ...]) -> list[Finding]:
    """Water hoses that pass above electrics or a gas locker."""
    below = [
        t for t in assembly.everything if t.capabilities.hurt_by_water or "gas" in t.capabilities.roles
    ]  # fmt: skip
    found = []
    for run, thing in itertools.product(laid, below):
        if run.sort != "water" or thing.id in run.ends:
            continue
        box = thing.envelope
        for a, b in itertools.pairwise(run.way.points):
            over = min(a[2], b[2]) >= box.z1 - 1
            if over and crosses(box, a, b):
                found.append(
                    finding("hose_over", "look", f"The hose {run.name} passes above {thing.name}",
                            (thing.ref,), source=GEOMETRY, where=(box,))
                )  # fmt: skip
                break
    return found


def crosses(box: Box, a: tuple[float, float, float], b: tuple[float, float, float]) -> bool:
    """Whether a straight piece passes over a box, seen from above (Liang & Barsky, 1984). [mm]"""
    begin, end = 0.0, 1.0
    for axis in (0, 1):
        low, high, way = box[axis], box[axis + 3], b[axis] - a[axis]
        if abs(way) < 1e-9:
            if not low < a[axis] < high:
                return False
            continue
        one, other = sorted(((low - a[axis]) / way, (high - a[axis]) / way))
        begin, end = max(begin, one), min(end, other)
    return begin < end - 1e-9 or (begin <= end and a == b)
