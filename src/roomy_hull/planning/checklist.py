"""Check sheets: what is tested before a vehicle is handed over, made from what the job has."""

from collections.abc import Callable, Sequence

import msgspec

from roomy_hull.assembly.study import Context
from roomy_hull.core.refs import Ref
from roomy_hull.core.wording import counted
from roomy_hull.job.logs import Result
from roomy_hull.making.works import Works, fasteners

TORQUE: dict[str, float] = {"M6": 7.5, "M8": 18.0, "M10": 36.0, "M12": 62.0, "M16": 150.0}
"""Tightening of stainless A2-70 bolts, lubricated (common practice, from memory; the fastener's own sheet decides). [N·m]"""
GAP_SPREAD = 2.0
"""The gaps around a door differ by no more than this (common practice). [mm]"""
DROP_MORE = 0.15
"""A circuit may lose so much more than was predicted before it is looked at again (common practice). [V]"""
HELD = 0.98
"""A pressure test holds at least this part of its pressure over ten minutes (common practice). """


class Check(msgspec.Struct, frozen=True):
    """One item of a check sheet.

    Attributes:
        key, group, words: Its own, its sheet, what is done.
        wants: What is measured, each a figure.
        unit: Of the figures.
        expect: What should come of it.
        limit: The figure behind `expect`, in `unit`.
        rule: How figures are held against it: ``spread``, ``drop``, ``holds``, ``least``, or empty for by eye.
        owner: What it is of.
        licence: Who may do it, where that wants a licence.
    """

    key: str
    group: str
    words: str
    wants: tuple[str, ...] = ()
    unit: str = ""
    expect: str = ""
    limit: float | None = None
    rule: str = ""
    owner: Ref | None = None
    licence: str = ""


def _spread(figures: Sequence[float], limit: float) -> tuple[Result, str]:
    wide = max(figures) - min(figures)
    return ("done" if wide <= limit else "failed"), f"spread {wide:.1f}"


def _drop(figures: Sequence[float], limit: float) -> tuple[Result, str]:
    lost = figures[0] - figures[-1]
    return (
        "done" if lost <= limit + DROP_MORE else "failed"
    ), f"{lost:.2f} lost, {limit:.2f} predicted"


def _holds(figures: Sequence[float], limit: float) -> tuple[Result, str]:
    if figures[0] <= 0:
        return "failed", "no pressure"
    kept = figures[-1] / figures[0]
    return ("done" if kept >= limit else "failed"), f"{100 * kept:.1f} % held"


def _least(figures: Sequence[float], limit: float) -> tuple[Result, str]:
    return ("done" if min(figures) >= limit else "failed"), f"{min(figures):g} of {limit:g}"


RULES: dict[str, Callable[[Sequence[float], float], tuple[Result, str]]] = {
    "spread": _spread, "drop": _drop, "holds": _holds, "least": _least,
}  # fmt: skip


def held_against(check: Check, figures: Sequence[float]) -> tuple[Result, str]:
    """Hold what was measured against what is expected.

    Returns: ``done`` or ``failed``, and the figure in words; nothing where figures are missing or it is judged by eye.
    """
    rule = RULES.get(check.rule)
    if rule is None or check.limit is None or len(figures) < len(check.wants):
        return "", ""
    return rule(figures, check.limit)


def checks_of(context: Context, works: Works) -> tuple[Check, ...]:
    """Make the check sheets of a job.

    Args:
        context: The judged job: its doors, circuits, tanks, what slides.
    Returns: Sheet by sheet; only what the job has.
    """
    return (
        *_doors(context), *_wiring(context), *_wet(context), *_gas(context), *_moving(context), *_tight(context, works),
        *_whole(context),
    )  # fmt: skip


def _doors(context: Context) -> list[Check]:
    """Gaps of every leaf that can hang, every seal, every lock."""
    job = context.assembly.job
    own = {d.id for s in context.assembly.ground.shells if s.own for d in s.value.doors}
    found: list[Check] = []
    for door in job.body.doors():
        ref, leaves = Ref("door", door.id), [x for x in (door.leaf, door.second) if x]
        for n, leaf in enumerate(leaves):
            key = f"{door.id}:{leaf}" if n else door.id
            which = f"the door {door.id}" + (f", its leaf of {leaf}" if len(leaves) > 1 else "")
            found.append(Check(
                f"gaps:{key}", "Doors", f"Gaps of {which}", ("front", "rear", "top", "bottom"), "mm",
                f"even within {GAP_SPREAD:g}", GAP_SPREAD, "spread", ref,
            ))  # fmt: skip
            if leaf != "mesh":  # what is open to the air keeps nothing out
                found.append(Check(f"hose:{key}", "Hose test", f"Hose {which}, every seal, five minutes", (), "",
                                   "dry inside", owner=ref))  # fmt: skip
        if door.id in own:  # the vehicle's key, or that of what was bought
            continue
        found.append(Check(f"lock:{door.id}", "Keys", f"The door {door.id}: every lock with its key; note the key's number",
                           (), "", "locks, key handed over", owner=ref))  # fmt: skip
    for thing in context.assembly.everything:
        known = thing.capabilities
        if known.sealed and thing.bay:
            found.append(Check(f"paper:{thing.id}", "Hose test",
                               f"{thing.name}: close {known.sealed} on a strip of paper, all round", (), "",
                               "holds the paper everywhere", owner=thing.ref))  # fmt: skip
        elif known.sealed:
            found.append(Check(f"hose:{thing.id}", "Hose test", f"Hose {thing.name}, {known.sealed}, five minutes", (), "",
                               "dry inside", owner=thing.ref))  # fmt: skip
        if known.locks:
            found.append(Check(f"lock:{thing.id}", "Keys",
                               f"{thing.name}: {counted(known.locks, 'lock')} with the key; note the key's number", (), "",
                               "locks, key handed over", owner=thing.ref))  # fmt: skip
    if job.body.tray.kind == "tray":
        found.append(Check("wade", "Hose test", "Mark the wading height on both sides; look at every seal below it", (), "",
                           "marked"))  # fmt: skip
    return sorted(found, key=lambda c: ("Doors", "Hose test", "Keys").index(c.group))


def _wiring(context: Context) -> list[Check]:
    found: list[Check] = []
    services, job = context.results["services"], context.assembly.job
    for c in services.circuits:
        found.append(Check(
            f"circuit:{c.id}", "Electrics", f"{c.name}: polarity, fuse {c.fuse:g} A, under load",
            ("at the source", "at its end"), "V", f"loses {c.drop:.2f} V or less", c.drop, "drop",
        ))  # fmt: skip
    if job.services.inverter.thing or any(s.kind == "mains" for s in job.services.sources):
        found.append(Check("mains:leakage", "Electrics", "Trip the leakage protection; test every outlet", (), "",
                           "trips at once", licence="a licensed electrician"))  # fmt: skip
    found += [
        Check(f"light:{c.id}", "Lights", f"{c.name}, from every switch", (), "", "lights")
        for c in job.services.consumers
        if c.light
    ]
    return found


def _wet(context: Context) -> list[Check]:
    """What is welded here is closed and tested; what was bought closed is filled and looked at."""
    return [
        Check(f"pressure:{t.id}", "Water", f"{t.name}: fill, pump up, close, wait ten minutes", ("at first", "after"), "kPa",
              f"holds {100 * HELD:.0f} %", HELD, "holds", t.ref)
        if vessel.made
        else Check(f"filled:{t.id}", "Water", f"{t.name}: fill, look at cap, outlet and hose", (), "", "dry outside",
                   owner=t.ref)
        for t in context.assembly.everything
        if (vessel := t.capabilities.vessel) is not None
    ]  # fmt: skip


def _gas(context: Context) -> list[Check]:
    return [
        Check(f"gas:{t.id}", "Gas", f"Leak test of {t.name} and its line; certificate", ("at first", "after"), "kPa",
              "no loss at all", 1.0, "holds", t.ref, "a licensed gas fitter")
        for t in context.assembly.doing("gas")
    ]  # fmt: skip


def _moving(context: Context) -> list[Check]:
    slope = context.assembly.shop.rules.slope
    return [
        Check(f"slope:{t.id}", "Slides and locks",
              f"{t.name}: full load, on a slope of {slope:g} degrees, out and in", (), "", "locks both ways",
              owner=t.ref)
        for t in context.assembly.everything
        if t.moves
    ]  # fmt: skip


def _tight(context: Context, works: Works) -> list[Check]:
    found: list[Check] = []
    for work in works.works:
        sizes = [w.partition(" ")[2] for w in fasteners(work.joints) if w.startswith("bolt")]
        for size in sizes:
            want = TORQUE.get(size)
            if want is not None:
                found.append(Check(f"torque:{work.owner.word}:{size}", "Torque", f"{work.title}: {size} bolts", ("least",),
                                   "N·m", f"{want:g}", want, "least", work.owner))  # fmt: skip
    for unit in context.assembly.job.units:
        want = TORQUE.get(unit.bolt)
        if unit.bolts and want is not None:
            found.append(Check(f"torque:{unit.id}:mounts", "Torque", f"{unit.name}: its {unit.bolts} mounts, {unit.bolt}",
                               ("least",), "N·m", f"{want:g}", want, "least", unit.ref))  # fmt: skip
    return found


def _whole(context: Context) -> list[Check]:
    job = context.assembly.job
    found = [
        Check("lamps", "Vehicle", "Every lamp of vehicle and tray, plate lamp, reversing", (), "", "all light"),
        Check("weighed", "Vehicle", "Weighed, all axles, the load sheet beside it", (), "", "within the ratings"),
        Check("level", "Vehicle", "Stands level, doors shut with one hand", (), "", "level"),
        Check("extinguisher", "Vehicle", "Extinguisher and first-aid kit in their places, in date", (), "", "there"),
        Check("clean", "Vehicle", "Swarf out, washed, photographed", (), "", "clean"),
    ]  # fmt: skip
    if job.vehicle.ratings.standard == "upgraded":
        found.append(Check("certified", "Vehicle", "Upgraded ratings: the certifying engineer's paper is here", (), "",
                           "signed", licence="a vehicle-certification engineer"))  # fmt: skip
    return found
