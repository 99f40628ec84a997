"""From what carries the load to findings: chassis, mounts, slides, members, struts, stability."""

import math

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.assembly.study import Context, Study
from roomy_hull.core.findings import PRACTICE, Finding, Fix
from roomy_hull.core.refs import BODY, Ref
from roomy_hull.core.tables.read import threads
from roomy_hull.core.units import G
from roomy_hull.job.body import TRUNDLE
from roomy_hull.job.carried import Carried
from roomy_hull.kit.body.pieces import part_of
from roomy_hull.shop.shop import Rules
from roomy_hull.studies.strength.carrying import KEY, NEEDS, Carrying, study
from roomy_hull.studies.strength.members import MemberCheck
from roomy_hull.studies.strength.mounts import MountCheck
from roomy_hull.studies.strength.racks import RackCheck

ANSWERED = 1.0
"""What weighs more has to say by what it is held. [kg]"""
RESTRAINT = "Load Restraint Guide, EN 12195-1 (0.8 forward, 0.5 other ways, 0.2 up; from memory)"


def judge(context: Context) -> list[Finding]:
    """Turn the results into findings.

    Args:
        context: The job in vehicle axes, with what carries it.
    Returns: With what was measured, the limit and its source.
    """
    assembly, rules = context.assembly, context.assembly.shop.rules
    found = context.of(KEY)
    return [
        *_chassis(assembly, found),
        *(f for c in found.mounts for f in _mount(c, rules)),
        *(f for c in found.all_members() for f in _member(c, rules)),
        *_struts(found, rules),
        *_stability(found, rules),
        *(f for c in found.racks for f in _rack(c, rules)),
        *_trundle(assembly, rules),
    ]


def _chassis(assembly: Assembly, found: Carrying) -> list[Finding]:
    """Judge the peak bending behind the cab against the evenly spread rated load."""
    worst = found.chassis.worst()
    if worst.ratio <= 1.0 or assembly.job.vehicle.kind == "wagon":
        return []
    return [
        Finding("loads.chassis", "look",
                f"{worst.name}: the chassis bends more behind the cab than under its rated load spread evenly",
                (), abs(worst.peak) * 1e-3, abs(found.chassis.baseline.peak) * 1e-3, "kN·m",
                f"statics; dynamic factor {found.chassis.factor:g} on both (common practice)",
                scenario=worst.scenario)
    ]  # fmt: skip


def _mount(c: MountCheck, r: Rules) -> list[Finding]:
    """Judge a unit's bolts, and its slide in the hand."""
    found = []
    way = c.worst()
    held = c.held
    if held is None:
        if c.kg > ANSWERED:
            found.append(
                Finding("loads.loose", "look", f"{c.name}: nothing holds it in braking; give it bolts or straps", (c.ref,),
                        0.0, way.force, "N", RESTRAINT)
            )  # fmt: skip
    elif held.count < held.least:
        found.append(
            Finding("loads.ties", "stop", f"{c.name}: too few {held.what}s hold it", (c.ref,), held.count, held.least,
                    f"{held.what}s", f"one near each corner, or on each side ({PRACTICE}; its maker decides)")
        )  # fmt: skip
    elif way.use > 1:
        found.append(
            Finding("loads.mount", "stop", f"{c.name}: its {c.words} do not hold it going {way.way}",
                    (c.ref,), way.use * 100, 100.0, f"% of the {held.what or 'bolt'}", RESTRAINT)
        )  # fmt: skip
    s = c.slide
    if s is None:
        return found
    if s.use > 1:
        found.append(
            Finding("loads.mount_out", "stop", f"{c.name}: pulled out, it tears at its rear bolts", (c.ref,),
                    s.use * 100, 100.0, "% of the bolt", "statics")
        )  # fmt: skip
    if not s.locks and s.runs > 0:
        found.append(
            Finding("loads.lock", "look", f"{c.name}: on a slope it rolls out, or back on your fingers; it has no lock",
                    (c.ref,), s.runs, 0.0, "N", f"{r.slope:g}° slope ({PRACTICE})")
        )  # fmt: skip
    if s.pull > r.hand_pull:
        found.append(
            Finding("loads.pull", "look", f"{c.name}: heavy to draw out uphill", (c.ref,), s.pull,
                    r.hand_pull, "N", f"{r.slope:g}° slope, one hand ({PRACTICE})")
        )  # fmt: skip
    return found


def _member(c: MemberCheck, r: Rules) -> list[Finding]:
    """Judge a member's stress against its yield with the usual safety, then its sag."""
    subjects = (c.owner,) if c.owner.is_thing else ()
    where = "yield beside a weld" if c.welded else "yield"
    if c.stress > c.allowed:
        bends = c.stress > c.allowed * r.member_safety
        return [
            Finding("loads.member", "stop" if bends else "look",
                    f"{c.name}: the {c.what} " + ("bends for good" if bends else "has less in reserve than usual"),
                    subjects, c.stress, c.allowed, "MPa",
                    f"{where} over {r.member_safety:g} ({PRACTICE}); {c.form}")
        ]  # fmt: skip
    if c.sag > c.allowed_sag:
        return [
            Finding("loads.sag", "look", f"{c.name}: the {c.what} sags", subjects, c.sag, c.allowed_sag,
                    "mm", f"span/{r.sag_share:g} ({PRACTICE}); {c.form}")
        ]  # fmt: skip
    return []


def _struts(found: Carrying, r: Rules) -> list[Finding]:
    """Judge struts that were entered; a proposal is no flaw."""
    made = []
    for c in found.struts:
        if c.proposed:
            continue
        if c.trouble:
            made.append(Finding("loads.strut", "stop", f"Door {c.door}: {c.trouble}", (Ref("door", c.door),),
                                source="lengths from the studs"))  # fmt: skip
        elif not c.stays:
            made.append(
                Finding("loads.strut_falls", "look",
                        f"Door {c.door}: its struts do not hold it open on a slope or in the cold", (Ref("door", c.door),),
                        c.swing[-1].high, 0.0, "N at its edge",
                        f"moments about the hinge; {r.slope:g}° side slope, {r.cold:g} °C ({PRACTICE})")
            )  # fmt: skip
        if not c.trouble and max(c.lift, c.draw) > r.hand_pull:
            made.append(
                Finding("loads.strut_heavy", "look", f"Door {c.door}: heavy to lift or to draw down", (Ref("door", c.door),),
                        max(c.lift, c.draw), r.hand_pull, "N", f"one hand ({PRACTICE})")
            )  # fmt: skip
    return made


def _trundle(assembly: Assembly, r: Rules) -> list[Finding]:
    """Judge a trundle drawer without locks on a slope: full, it runs away."""
    t = assembly.job.body.tray.trundle
    part = part_of(assembly.ground.tray, "trundle")
    if t is None or part is None or t.locks:
        return []
    held = sum(m.kg for m in assembly.ground.masses if m.of == TRUNDLE)
    angle = math.radians(r.slope)
    runs = held * G * (math.sin(angle) - r.rolling * math.cos(angle))
    if runs <= 0:
        return []
    return [
        Finding("loads.lock", "look", "Trundle drawer: on a slope it rolls out, or back on your fingers; it has no lock",
                (Ref("body part", part.words),), runs, 0.0, "N", f"{r.slope:g}° slope ({PRACTICE})",
                where=(part.box,))
    ]  # fmt: skip


def _rack(c: RackCheck, r: Rules) -> list[Finding]:
    """Judge a rack against its ratings, moving and still, and its bars against their yield."""
    own, made = (c.rack,), []
    for words, code, kg, rating in (
        ("on the road", "rack", c.kg, c.rating), ("standing still", "rack_still", c.still_kg, c.rating_still),
    ):  # fmt: skip
        if rating and kg > rating:
            made.append(
                Finding(f"loads.{code}", "stop", f"{c.name} carries more than its rating {words}", own, kg, rating, "kg",
                        "the rack's rating")
            )  # fmt: skip
    if c.trouble:
        made.append(
            Finding(
                "loads.rack_frame",
                "look",
                f"{c.name}: {c.trouble}",
                own,
                source=c.form,
            )
        )
    worst = c.worst()
    if worst is not None and worst.use > 1:
        bends = worst.stress > c.allowed * r.member_safety
        words = "bends for good" if bends else "has less in reserve than usual"
        made.append(
            Finding("loads.rack_bar", "stop" if bends else "look", f"{c.name}: its {worst.bar} {words}, {worst.words}", own,
                    worst.stress, c.allowed, "MPa", f"yield beside a weld over {r.member_safety:g} ({PRACTICE}); {c.form}")
        )  # fmt: skip
    if (c.kg or c.still_kg) and not c.rating:
        made.append(
            Finding("loads.rack_unrated", "note", f"{c.name}: nobody rated it; its maker or an engineer does", own, c.kg,
                    None, "kg", "roof loads are rated by their maker")
        )  # fmt: skip
    return made


def _stability(found: Carrying, r: Rules) -> list[Finding]:
    """Judge the scenario that stands highest for its track."""
    worst = min(found.stability, key=lambda s: s.factor)
    least = r.ssf_least
    if worst.factor >= least:
        return []
    return [
        Finding("loads.stability", "look", f"{worst.name}: its centre of mass is high for its track", (),
                worst.factor, least, "T/2h", f"static stability factor (NHTSA); its limit is {PRACTICE}",
                scenario=worst.scenario)
    ]  # fmt: skip


def fixes(context: Context, finding: Finding) -> tuple[Fix, ...]:
    """Compute the remedies of one finding.

    Args:
        finding: One of `judge`'s.
    Returns: Locks on the slides, the next larger bolt, a thicker sheet; empty for the others.
    """
    thing = context.assembly.thing(finding.subjects[0]) if finding.subjects else None
    if thing is None or isinstance(thing.value, Carried):
        own: dict[str, float | str] = {"body.tray.trundle.locks": True}
        lock = finding.code == "loads.lock" and thing is None
        return (Fix("Give it slides that lock", BODY, own),) if lock else ()
    value = thing.value
    if finding.code == "loads.lock" and hasattr(value, "locks"):
        return (Fix("Give it slides that lock", thing.ref, {"locks": True}),)
    if finding.code in ("loads.mount", "loads.mount_out"):
        sizes = list(threads())
        larger = sizes[sizes.index(value.bolt) + 1 :]
        return (Fix(f"Bolt it with {larger[0]}", thing.ref, {"bolt": larger[0]}),) if larger else ()
    if finding.code == "loads.loose":
        return (Fix("Bolt it down with four M8", thing.ref, {"bolts": 4, "bolt": "M8"}),)
    if finding.code in ("loads.member", "loads.sag"):
        for field in ("sheet", "board"):
            now = getattr(value, field, None)
            if now is not None:
                thick = next((t for t in SHEETS[field] if t > now + 1e-9), None)
                if thick is not None:
                    return (Fix(f"Use {thick:g} mm instead of {now:g}", thing.ref, {field: thick}),)
    return ()


SHEETS = {"sheet": (1.2, 1.6, 2.0, 2.5, 3.0, 4.0, 5.0, 6.0), "board": (9.0, 12.0, 15.0, 18.0, 21.0)}
"""Usual thicknesses (common practice). [mm]"""


STUDY = Study(KEY, study, needs=NEEDS, judge=judge, codes=("loads.",), fixes=fixes)
