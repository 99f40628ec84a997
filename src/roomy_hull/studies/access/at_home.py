"""Living judged: worktops, heads, beds, dogs, standing level, and the canopy on its legs."""

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.core.findings import GEOMETRY, Finding
from roomy_hull.core.refs import CANOPY, Ref
from roomy_hull.job.goods import people
from roomy_hull.kit.body.fittings import BESIDE
from roomy_hull.studies.access.living import HAIR, LEVEL, STOOPS, Living
from roomy_hull.studies.access.off_on import OffOn
from roomy_hull.studies.access.told import finding, ref


def living_found(assembly: Assembly, life: Living) -> list[Finding]:
    """Worktops, heads, beds, dogs, standing level."""
    found: list[Finding] = []
    for key in dict.fromkeys(w.thing for w in life.worktops):
        rows = [w for w in life.worktops if w.thing == key and not w.fine]
        high, low = [w for w in rows if w.below < 0], [w for w in rows if w.below >= 0]
        for bad, words, by, limit in (
            (high, "higher than the elbows of", -min((w.below for w in high), default=0.0), 0.0),
            (low, "so low that one stoops:", max((w.below for w in low), default=0.0), STOOPS),
        ):
            if bad:
                names = ", ".join(_person(assembly, w.person) for w in bad)
                found.append(
                    finding("worktop", "note", f"The worktop of {bad[0].name} is {words} {names}", ref(assembly, key),
                            (by, limit, "mm"), "Grandjean (from memory)")
                )  # fmt: skip
    tallest = max(people(assembly.job.party), key=lambda p: p.stature).stature + HAIR
    edges = sorted((e for e in life.edges if e.height < tallest), key=lambda e: e.height)
    if edges:
        names = ", ".join(e.name for e in edges)
        found.append(
            finding("head", "note", f"At the height of a head hang open: {names}",
                    tuple(Ref("opening", e.opening) for e in edges), (edges[0].height, tallest, "mm"))
        )  # fmt: skip
    for b in life.beds:
        for short, words, n in zip(b.short, ("short", "narrow", "low"), range(3), strict=True):
            if short > 0:
                found.append(
                    finding("berth", "look", f"{b.name} is too {words} for who sleeps there", (Ref("berth", b.id),),
                             (b.has[n], b.wants[n], "mm"))
                )  # fmt: skip
    for k in life.kennels:
        for n, words in enumerate(("short", "narrow", "low")):
            if k.has[n] < k.wants[n] - 0.5:
                found.append(
                    finding("dog", "look", f"The place of {k.name} is too {words}", ref(assembly, k.place),
                             (k.has[n], k.wants[n], "mm"), "IATA live-animal rule (from memory)")
                )  # fmt: skip
    t = life.tilt
    if t is not None and life.beds and max(abs(t.ahead), abs(t.left)) > LEVEL:
        found.append(
            finding("level", "note", "In camp it does not stand level enough to sleep", (),
                     (max(abs(t.ahead), abs(t.left)), LEVEL, "degrees"))
        )  # fmt: skip
    return found


def _person(assembly: Assembly, key: str) -> str:
    one = next((p for p in people(assembly.job.party) if p.id == key), None)
    return one.called if one is not None else key


def off_found(assembly: Assembly, off: OffOn | None) -> list[Finding]:
    """The canopy on its legs."""
    canopy = assembly.job.body.canopy
    if off is None or canopy is None or not canopy.jacks:
        return []
    found = []
    if canopy.leg and canopy.leg < off.least_leg:
        found.append(
            finding("leg_short", "look", "The canopy's legs are too short to lift it off at this ride height", (CANOPY,),
                     (canopy.leg, off.least_leg, "mm"), GEOMETRY)
        )  # fmt: skip
    lifts_off = [name for name, kg in off.legs if kg < 0]
    if lifts_off or off.tips < TIPS:
        found.append(
            finding("tips", "look", "The canopy on its legs, loaded as it is, tips on a slight slope", (CANOPY,),
                     (off.tips, TIPS, "degrees"), "statics")
        )  # fmt: skip
    if off.beside < 0:
        found.append(
            finding("beside", "stop", "The canopy's legs foul what drives out from under it: let them stand further out",
                     (CANOPY,), (off.beside, 0.0, "mm"), GEOMETRY)
        )  # fmt: skip
    elif off.beside < BESIDE:
        found.append(
            finding("beside", "note", "Legs at the canopy's corners leave little room to drive out: set them further out",
                     (CANOPY,), (off.beside, BESIDE, "mm"), GEOMETRY)
        )  # fmt: skip
    return found


TIPS = 8.0
"""On its legs a canopy has to stand on a slope of so much (common practice). [°]"""
