"""The cut as JSON: parts with their flats and bend orders, joints, gaps, cost, releases."""

from typing import Any

from roomy_hull.core.parts import BarPart, Hardware, Part
from roomy_hull.core.units import rounded as _r
from roomy_hull.making.bending import BendPlan
from roomy_hull.making.cost import FIELDS, Cost, cost_sheet
from roomy_hull.making.cutlist import CutList
from roomy_hull.making.flats import Blank
from roomy_hull.making.gaps import worth
from roomy_hull.making.release import stale
from roomy_hull.making.works import Works, fasteners, welded
from roomy_hull.planning.as_built import owners
from roomy_hull.planning.progress import last_release
from roomy_hull.tables.column import record
from roomy_hull.tables.making import BENDS, DRILLED, GAPS, JOINTS, DrillRow, GapRow, bend_rows
from roomy_hull.verdict.verdict import Verdict


def making_json(verdict: Verdict, works: Works, cut: CutList) -> dict[str, Any]:
    """Everything of the stage Cut.

    Returns:
        ``parts``, ``sheets``, ``bars``, ``groups``, ``joints``, ``gaps``, ``measure_again``, ``cost``,
        ``releases``, ``stale``. [mm, kg, degree, kN]
    """
    shop, job = verdict.assembly.shop, verdict.job
    gaps = verdict.gaps
    flats = {id(b.part): b for b in cut.blanks}
    money = cost_sheet(works, cut, shop.prices)
    last = last_release(job)
    return {
        "parts": [
            _part(p, flats.get(id(p)), cut) | {"owner": w.title} for w in works.works for p in w.parts
        ],
        "not_held": [name for w in works.works for name in w.alone],
        "sheets": [
            {
                "material": s.material.key, "thickness_mm": s.thickness, "size_mm": [s.length, s.width],
                "bought": s.bought, "price": _r(s.price), "used": _r(s.used()),
                "left_mm": [[_r(v) for v in rest] for rest in s.left],
                "blanks": [
                    {"part": p.blank.part.name, "x_mm": _r(p.x), "y_mm": _r(p.y), "turned": p.turned, "about": p.about,
                     "in_opening_of": p.inside if p.inside >= 0 else None}
                    for p in s.placed
                ],
            }
            for s in cut.nest.sheets
        ],
        "bars": [
            {"section": b.section, "material": b.material.key, "length_mm": b.length, "bought": b.bought,
             "pieces": [[name, _r(length), ends or "square"] for name, length, ends in b.pieces], "offcut_mm": _r(b.offcut)}
            for b in cut.bars.bars
        ],
        "groups": {
            name: {"used": used, "bound": bound}
            for name, (used, bound) in (cut.nest.bounds | cut.bars.bounds).items()
        },
        "joints": [record(JOINTS, j) for j in works.joints],
        "welded_m": _r(welded(works.joints) / 1000),
        "fasteners": fasteners(works.joints),
        "gaps": [record(GAPS, GapRow(g)) for g in gaps],
        "measure_again": [
            {"measure": w.measure, "words": w.words, "sigma_mm": _r(w.sigma), "saves": _r(w.saves)} for w in worth(gaps)
        ],
        "cost": {
            "whole": _cost(money.whole), "kept_offcuts": _r(money.kept), "hours": _r(money.hours),
            "by_owner": {s.title: _cost(s.cost) for s in money.shares},
        },
        "releases": [
            {"revision": r.revision, "day": r.day, "by": r.by, "note": r.note, "parts": len(r.parts)} for r in job.releases
        ],
        "stale": [
            {"part": c.key, "verdict": c.verdict, "state": c.state, "do": c.words, "count": c.count, "cost": _r(c.cost)}
            for c in stale(last, works, shop.prices, owners(verdict.job))
        ],
    }  # fmt: skip


def _cost(c: Cost) -> dict[str, float]:
    return {name: _r(getattr(c, name)) for name in FIELDS} | {"total": _r(c.total)}


def _part(part: Part, flat: Blank | None, cut: CutList) -> dict[str, Any]:
    """One part with what is cut, bent, sawn or drilled of it."""
    row: dict[str, Any] = {"name": part.name, "count": part.count}
    if isinstance(part, Hardware):
        return row | {"sort": "bought"} | ({"metres": part.metres} if part.metres else {})
    row |= {"material": part.material.key, "mass_kg": _r(part.mass())}
    if isinstance(part, BarPart):
        return row | {
            "sort": "bar", "section": part.section, "length_mm": _r(part.length), "ends": part.cuts() or "square",
            "holes": [record(DRILLED, DrillRow(part, h)) for h in part.drilled],
        }  # fmt: skip
    if flat is None:
        return row | {"sort": "sheet"}
    return row | {
        "sort": "sheet", "thickness_mm": part.thickness, "flat_mm": [_r(flat.length), _r(flat.width)],
        "k": _r(part.material.k(part.thickness)), "k_doubt": _r(part.material.k_doubt(part.thickness)),
        "outline": [[_r(x), _r(y)] for x, y in flat.outline],
        "holes": [[_r(h.x), _r(h.y), _r(h.diameter)] for h in flat.holes],
        "openings": [[_r(c.x), _r(c.y), _r(c.length), _r(c.width), _r(c.radius)] for c in flat.cutouts],
        "bends": bends_json(flat, cut.bends(flat)),
    }  # fmt: skip


def bends_json(flat: Blank, plan: BendPlan) -> dict[str, Any]:
    """The bends of a blank in the order in which they are made, or why there is none.

    Args:
        flat: The blank. [mm]
    Returns: ``order``; ``trouble`` with the remedy where it cannot be bent. [mm, degree, kN]
    """
    if plan.fault:
        return {
            "trouble": plan.fault, "measured": _r(plan.measured), "limit": _r(plan.limit), "unit": plan.unit,
            "remedy": plan.remedy,
        }  # fmt: skip
    return {"order": [record(BENDS, row) for row in bend_rows(flat, plan)]}
