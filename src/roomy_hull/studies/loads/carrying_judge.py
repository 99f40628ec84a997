"""From what carries the load to findings: springs, chassis, mounts, slides, members, struts, stability."""

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.core.findings import PRACTICE, Finding, Fix
from roomy_hull.core.tables import rules, threads
from roomy_hull.job.unit import Carried
from roomy_hull.studies.loads import weighing as scales
from roomy_hull.studies.loads.axles import WHEELS, LoadResult, weigh
from roomy_hull.studies.loads.carrying import Carrying
from roomy_hull.studies.loads.members import MemberCheck
from roomy_hull.studies.loads.mounts import MountCheck

RESTRAINT = "Load Restraint Guide, EN 12195-1 (0.8 forward, 0.5 other ways, 0.2 up; from memory)"
SURPRISE = 3.0
"""A reading that is off by more sigmas than this wants to be looked at again."""


def judge(assembly: Assembly, loads: LoadResult, found: Carrying) -> list[Finding]:
    """Turn the results into findings.

    Parameters
    ----------
    assembly : Assembly
        The job in vehicle axes.
    loads : LoadResult
        What the scenarios weigh.
    found : Carrying
        What carries it.

    Returns
    -------
    list of Finding
        With what was measured, the limit and its source.
    """
    return [
        *_springs(assembly, loads),
        *_chassis(assembly, found),
        *(f for c in found.mounts for f in _mount(c)),
        *(f for c in found.all_members() for f in _member(c)),
        *_struts(found),
        *_stability(found),
        *_weighings(assembly, loads),
    ]


def _springs(assembly: Assembly, loads: LoadResult) -> list[Finding]:
    """Judge the stance in the scenario that is furthest from level, and the air springs' bounds."""
    vehicle, band = assembly.job.vehicle, rules().level_band
    worst = max(loads.scenarios, key=lambda s: abs(s.stance.tail_low))
    low = worst.stance.tail_low
    found = []
    if abs(low) > band:
        way = "tail low" if low > 0 else "nose low"
        found.append(
            Finding("loads.level", "look", f"{worst.name}: {way}; compare springs on the page Springs",
                    (), abs(low), band, "mm", PRACTICE, "Loads", scenario=worst.id)
        )  # fmt: skip
    s = vehicle.springs
    if s.school == "air":
        high = max(loads.scenarios, key=lambda x: x.stance.pressure)
        if high.stance.pressure >= s.air_most - 1e-6:
            found.append(
                Finding("loads.air", "look", f"{high.name}: air springs at their most pressure",
                        (), high.stance.pressure, s.air_most, "kPa", "the air springs' data sheet",
                        "Loads", scenario=high.id)
            )  # fmt: skip
    return found


def _chassis(assembly: Assembly, found: Carrying) -> list[Finding]:
    """Judge the peak bending behind the cab against the evenly spread rated load."""
    worst = found.chassis.worst()
    if worst.ratio <= 1.0 or assembly.job.vehicle.kind == "wagon":
        return []
    return [
        Finding("loads.chassis", "look",
                f"{worst.name}: the chassis bends more behind the cab than under its rated load spread evenly",
                (), abs(worst.peak) * 1e-3, abs(found.chassis.baseline.peak) * 1e-3, "kN·m",
                f"statics; dynamic factor {found.chassis.factor:g} on both (common practice)", "Loads",
                scenario=worst.scenario)
    ]  # fmt: skip


def _mount(c: MountCheck) -> list[Finding]:
    """Judge a unit's bolts, and its slide in the hand."""
    found = []
    way = c.worst()
    if c.fixed and c.bolts == 0:
        found.append(
            Finding("loads.loose", "look", f"{c.name}: nothing holds it in braking", (c.id,),
                    0.0, way.force, "N", RESTRAINT, "Loads")
        )  # fmt: skip
    elif way.use > 1:
        found.append(
            Finding("loads.mount", "stop", f"{c.name}: its {c.bolts} × {c.bolt} do not hold it going {way.way}",
                    (c.id,), way.use * 100, 100.0, "% of the bolt", RESTRAINT, "Loads")
        )  # fmt: skip
    s = c.slide
    if s is None:
        return found
    r = rules()
    if s.use > 1:
        found.append(
            Finding("loads.mount_out", "stop", f"{c.name}: pulled out, it tears at its rear bolts", (c.id,),
                    s.use * 100, 100.0, "% of the bolt", "statics", "Loads")
        )  # fmt: skip
    if not s.locks and s.runs > 0:
        found.append(
            Finding("loads.lock", "look", f"{c.name}: on a slope it rolls out, or back on your fingers; it has no lock",
                    (c.id,), s.runs, 0.0, "N", f"{r.slope:g}° slope ({PRACTICE})", "Loads")
        )  # fmt: skip
    if s.pull > r.hand_pull:
        found.append(
            Finding("loads.pull", "look", f"{c.name}: heavy to draw out uphill", (c.id,), s.pull,
                    r.hand_pull, "N", f"{r.slope:g}° slope, one hand ({PRACTICE})", "Loads")
        )  # fmt: skip
    return found


def _member(c: MemberCheck) -> list[Finding]:
    """Judge a member's stress against its yield with the usual safety, then its sag."""
    subjects = () if c.owner in ("tray", "canopy") else (c.owner,)
    where = "yield beside a weld" if c.welded else "yield"
    if c.stress > c.allowed:
        bends = c.stress > c.allowed * rules().member_safety
        return [
            Finding("loads.member", "stop" if bends else "look",
                    f"{c.name}: the {c.what} " + ("bends for good" if bends else "has less in reserve than usual"),
                    subjects, c.stress, c.allowed, "MPa",
                    f"{where} over {rules().member_safety:g} ({PRACTICE}); {c.form}", "Loads")
        ]  # fmt: skip
    if c.sag > c.allowed_sag:
        return [
            Finding("loads.sag", "look", f"{c.name}: the {c.what} sags", subjects, c.sag, c.allowed_sag,
                    "mm", f"span/{rules().sag_share:g} ({PRACTICE}); {c.form}", "Loads")
        ]  # fmt: skip
    return []


def _struts(found: Carrying) -> list[Finding]:
    """Judge struts that were entered; a proposal is no flaw."""
    made = []
    r = rules()
    for c in found.struts:
        if c.proposed:
            continue
        if c.trouble:
            made.append(Finding("loads.strut", "stop", f"Door {c.door}: {c.trouble}", (c.door,),
                                source="lengths from the studs", stage="Loads"))  # fmt: skip
        elif not c.stays:
            made.append(
                Finding("loads.strut_falls", "look",
                        f"Door {c.door}: its struts do not hold it open on a slope or in the cold", (c.door,),
                        c.swing[-1].high, 0.0, "N at its edge",
                        f"moments about the hinge; {r.slope:g}° side slope, {r.cold:g} °C ({PRACTICE})", "Loads")
            )  # fmt: skip
        if not c.trouble and max(c.lift, c.draw) > r.hand_pull:
            made.append(
                Finding("loads.strut_heavy", "look", f"Door {c.door}: heavy to lift or to draw down", (c.door,),
                        max(c.lift, c.draw), r.hand_pull, "N", f"one hand ({PRACTICE})", "Loads")
            )  # fmt: skip
    return made


def _stability(found: Carrying) -> list[Finding]:
    """Judge the scenario that stands highest for its track."""
    worst = min(found.stability, key=lambda s: s.factor)
    least = rules().ssf_least
    if worst.factor >= least:
        return []
    return [
        Finding("loads.stability", "look", f"{worst.name}: its centre of mass is high for its track", (),
                worst.factor, least, "T/2h", f"static stability factor (NHTSA); its limit is {PRACTICE}",
                "Loads", scenario=worst.scenario)
    ]  # fmt: skip


def _weighings(assembly: Assembly, loads: LoadResult) -> list[Finding]:
    """Judge what scales said against what was predicted without them."""
    made = []
    for weighing in assembly.job.weighings:
        rows = scales.against(weighing, predicted(assembly, loads, weighing.scenario))
        far = max(rows, key=lambda r: abs(r.sigmas), default=None)
        if far is not None and abs(far.sigmas) > SURPRISE:
            made.append(
                Finding("loads.scales", "look",
                        f"The scales of {weighing.date or weighing.id} say another {far.words} than was reckoned",
                        (weighing.id,), far.read, far.predicted, "kg",
                        f"{SURPRISE:g} sigma of prediction and scale together", "Loads",
                        scenario=weighing.scenario)
            )  # fmt: skip
    return made


def predicted(
    assembly: Assembly, loads: LoadResult, scenario: str
) -> dict[str, tuple[float, float]]:
    """Give what was predicted for a scenario before any weighing.

    Parameters
    ----------
    assembly : Assembly
        For job and scenario.
    loads : LoadResult
        The study.
    scenario : str
        Id of one of the job's.

    Returns
    -------
    dict of str to (float, float)
        Value and doubt of the axles, the gross mass and each wheel. [kg]
    """
    one = next(s for s in assembly.job.scenarios if s.id == scenario)
    s = weigh(assembly.job, one, loads.totals, loads.readings)
    figures = {"front": s.front, "rear": s.rear, "gross": s.gross}
    figures |= dict(zip(WHEELS, s.wheels, strict=True))
    return {key: (f.value, f.doubt) for key, f in figures.items()}


def fixes(assembly: Assembly, finding: Finding) -> tuple[Fix, ...]:
    """Compute the remedies of one finding.

    Parameters
    ----------
    assembly : Assembly
        The job in vehicle axes.
    finding : Finding
        One of `judge`'s.

    Returns
    -------
    tuple of Fix
        Locks on the slides, the next larger bolt, a thicker sheet; empty for the others.
    """
    thing = assembly.thing(finding.subjects[0]) if finding.subjects else None
    if thing is None or isinstance(thing.value, Carried):
        return ()
    value = thing.value
    if finding.code == "loads.lock" and hasattr(value, "locks"):
        return (Fix("Give it slides that lock", thing.id, {"locks": True}),)
    if finding.code in ("loads.mount", "loads.mount_out"):
        sizes = list(threads())
        larger = sizes[sizes.index(value.bolt) + 1 :]
        return (Fix(f"Bolt it with {larger[0]}", thing.id, {"bolt": larger[0]}),) if larger else ()
    if finding.code == "loads.loose":
        return (Fix("Bolt it down with four M8", thing.id, {"bolts": 4, "bolt": "M8"}),)
    if finding.code in ("loads.member", "loads.sag"):
        for field in ("sheet", "board"):
            now = getattr(value, field, None)
            if now is not None:
                thick = next((t for t in SHEETS[field] if t > now + 1e-9), None)
                if thick is not None:
                    return (Fix(f"Use {thick:g} mm instead of {now:g}", thing.id, {field: thick}),)
    return ()


SHEETS = {"sheet": (1.2, 1.6, 2.0, 2.5, 3.0, 4.0, 5.0, 6.0), "board": (9.0, 12.0, 15.0, 18.0, 21.0)}
"""Usual thicknesses (common practice). [mm]"""
