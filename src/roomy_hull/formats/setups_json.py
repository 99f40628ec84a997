"""Set-ups, swaps, racks and rooms of a verdict as JSON."""

import math
from typing import Any

from roomy_hull.job.edits.setups import absent
from roomy_hull.verdict.swaps import Swap
from roomy_hull.verdict.verdict import Verdict


def setups_json(verdict: Verdict) -> list[dict[str, Any]]:
    """Every set-up with what is off in it, its scenarios, and what is found in it alone.

    Returns: In the order of the job.
    """
    job = verdict.job
    return [
        {
            "id": s.id, "name": s.name, "canopy": s.canopy, "sides": s.sides, "second_doors": list(s.second_doors),
            "off": sorted(absent(job, s)), "scenarios": [x.id for x in job.scenarios if x.setup == s.id],
            "findings": [f.code for f in verdict.findings if s.id in f.setups],
        }
        for s in job.setups
    ]  # fmt: skip


def swap_json(found: Swap) -> dict[str, Any]:
    """A swap step by step. [min, kg]"""
    return {
        "from": found.start.id, "to": found.end.id, "minutes": found.minutes, "tools": list(found.tools),
        "circle": list(found.circle),
        "steps": [
            {"do": s.do, "what": s.what, "name": s.name, "minutes": s.minutes, "people": s.people, "kg": s.kg,
             "tool": s.tool, "plugs": list(s.plugs), "caution": s.caution}
            for s in found.steps
        ],
    }  # fmt: skip


def racks_json(verdict: Verdict) -> list[dict[str, Any]]:
    """What every rack carries, and what its bars say to that. [kg, MPa, mm, m²]"""

    def told(kg: float) -> float | None:
        return None if math.isinf(kg) else round(kg, 1)

    return [
        {
            "id": c.rack.id, "name": c.name, "carries_kg": round(c.kg, 2), "still_kg": round(c.still_kg, 2),
            "rating_kg": c.rating or None, "rating_still_kg": c.rating_still or None, "could_kg": told(c.could),
            "could_still_kg": told(c.could_still), "allowed_mpa": round(c.allowed, 2),
            "sag_mm": round(c.sag, 3),
            "wind_m2": round(c.wind, 4), "trouble": c.trouble,
            "cases": [{"way": x.words, "bar": x.bar, "mpa": round(x.stress, 3)} for x in c.cases],
        }
        for c in verdict.carrying.racks
    ]  # fmt: skip
