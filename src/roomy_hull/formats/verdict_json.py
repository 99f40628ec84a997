"""The verdict as JSON, ``roomy-hull-verdict/1``: every number that the window shows."""

from typing import Any

from roomy_hull.core.errors import InputError
from roomy_hull.core.findings import Finding
from roomy_hull.core.parts import BarPart, Hardware, Part, SheetPart
from roomy_hull.core.refs import Ref
from roomy_hull.core.uncertainty import chance_over
from roomy_hull.core.units import rounded as _r
from roomy_hull.formats.loads_json import loads_json
from roomy_hull.formats.moving_json import moving_json
from roomy_hull.formats.setups_json import racks_json, setups_json
from roomy_hull.making.cost import cost
from roomy_hull.making.cutlist import cut_of
from roomy_hull.making.works import works_of
from roomy_hull.planning.survey import adjust
from roomy_hull.studies.loads.axles import Figure, ScenarioLoads
from roomy_hull.studies.loads.governing import governing
from roomy_hull.studies.loads.readings import WHEELS
from roomy_hull.verdict.registry import studies
from roomy_hull.verdict.verdict import Verdict, fixes

FORMAT = "roomy-hull-verdict/1"


def verdict_json(verdict: Verdict) -> dict[str, Any]:
    """A verdict as built-in objects, documented in docs/formats.md.

    Returns: Frame with format, job, scenarios, findings, items and parts. [kg, mm]
    """
    assembly = verdict.assembly
    items: list[dict[str, Any]] = []
    rows: dict[Ref, list[tuple[float, float, float, float, float]]] = {}
    for m in assembly.masses():
        if not m.fill.entered and m.fill.by != "hung":
            kg = m.kg + verdict.loads.moved_by(m)
            rows.setdefault(m.owner, []).append((kg, m.sigma, m.x, m.y, m.z))
    things = {t.ref: t for t in assembly.things}
    for owner, masses in rows.items():
        kg = sum(r[0] for r in masses)
        centre = [sum(r[0] * r[i] for r in masses) / kg if kg else 0.0 for i in (2, 3, 4)]
        thing = things.get(owner)
        items.append({
            "id": owner.word,
            "name": thing.name if thing else owner.word,
            "mass_kg": _r(kg),
            "doubt_kg": _r(sum(r[1] ** 2 for r in masses) ** 0.5),
            "centre_mm": [_r(c) for c in centre],
            "solids": [[_r(c) for c in box] for box in thing.solids] if thing else [],
        })
    context = verdict.context()
    own = {k: v for study in studies() for k, v in study.to_json(context).items()}
    return own | {
        "format": FORMAT,
        "job": verdict.job.name,
        "scenarios": [
            _scenario(loads, verdict.loads.owners(scenario))
            for scenario, loads in zip(
                verdict.assembly.job.scenarios, verdict.loads.scenarios, strict=True
            )
        ],
        "findings": [
            _finding(f, verdict, mended=m)
            for f, m in zip(verdict.findings, _mended(verdict.findings), strict=True)
        ],
        "items": items,
        "parts": [_part(p) for p in works_of(assembly).parts],
        "outline": _outline(verdict),
        "setups": setups_json(verdict),
        "racks": racks_json(verdict),
        "towing": _towing(verdict),
        "body": _body(verdict),
        "moving": moving_json(verdict),
        "loads": loads_json(verdict),
    }


def cut_json(verdict: Verdict) -> dict[str, Any]:
    """What the parts need of the stock: sheets and bars, each group beside its lower bound.

    Returns:
        ``sheets`` and ``bars``, with ``groups`` that name used and bound; ``trouble`` alone where a part is larger
        than the stock. [mm, kg]
    """
    try:
        cut = cut_of(verdict.assembly)
    except InputError as trouble:
        return {"trouble": str(trouble)}
    return {
        "sheets": [
            {
                "material": s.material.key, "thickness_mm": s.thickness,
                "size_mm": [s.length, s.width], "used": round(s.used(), 4), "mass_kg": _r(s.mass()),
                "blanks": [p.blank.part.name for p in s.placed],
            }
            for s in cut.nest.sheets
        ],
        "bars": [
            {
                "section": b.section, "material": b.material.key, "length_mm": b.length,
                "pieces": [[name, _r(length)] for name, length, _ends in b.pieces], "offcut_mm": _r(b.offcut),
            }
            for b in cut.bars.bars
        ],
        "groups": {
            name: {"used": used, "bound": bound}
            for name, (used, bound) in (cut.nest.bounds | cut.bars.bounds).items()
        },
        "metal_kg": _r(sum(p.mass() * p.count for p in cut.parts if not isinstance(p, Hardware))),
    }  # fmt: skip


def survey_json(verdict: Verdict) -> dict[str, Any]:
    """The adjusted survey: sizes with doubt, residuals, the plan, and what to measure again.

    Args:
        verdict: The verdict on the job whose survey it is.
    Returns:
        ``sizes``, ``readings``, ``square``, ``spread``, ``redundancy``, ``missing``; ``trouble`` alone where the
        readings make no figure. [mm]
    """
    job = verdict.job
    try:
        found = adjust(job.survey, job.vehicle.kind)
    except InputError as trouble:
        return {"trouble": str(trouble)}
    plan = found.plan
    return {
        "sizes": {k: {"value": _r(s.value), "doubt": _r(s.sigma)} for k, s in found.sizes.items()},
        "readings": [
            {
                "measure": r.measure, "value": _r(r.value), "residual": _r(r.residual),
                "standardised": _r(r.standardised), "checked": _r(r.checked),
                "suspect": r.number in found.suspects,
            }
            for r in found.residuals
        ],
        "square": None if plan is None else {"value": _r(plan.square), "doubt": _r(plan.square_sigma)},
        "skew": None if plan is None else {"value": _r(plan.skew), "doubt": _r(plan.skew_sigma)},
        "spread": _r(found.spread),
        "redundancy": found.redundancy,
        "missing": list(found.missing),
    }  # fmt: skip


def _outline(verdict: Verdict) -> dict[str, Any]:
    """Outside sizes, angles and roof line."""
    o = verdict.outline
    return {
        "length_mm": _r(o.length), "width_mm": _r(o.width), "height_mm": _r(o.height),
        "overhang_mm": _r(o.overhang), "overhang_limit_mm": _r(o.overhang_limit) or None,
        "angles": [
            {
                "scenario": a.scenario, "approach_deg": _r(a.approach), "ramp_deg": _r(a.ramp),
                "departure_deg": _r(a.departure), "departs_at": a.departs_at,
                "belly_mm": _r(a.clearance),
            }
            for a in o.angles
        ],
        "roof_line": [{"name": s.name, "z_mm": _r(s.z)} for s in o.roof],
        "rack_leg_mm": _r(o.rack_leg), "roof_step_mm": _r(o.rack_step),
    }  # fmt: skip


def _towing(verdict: Verdict) -> dict[str, Any]:
    """What governs each axle, and how much may be towed in each scenario."""
    vehicle = verdict.job.vehicle
    found = verdict.towing
    axles = {end: governing(vehicle, end) for end in ("front", "rear")}
    return {
        "axles": {end: {"limit_kg": _r(g.kg), "by": g.by} for end, g in axles.items()},
        "ball_share": found.ball_share,
        "scenarios": [
            {"id": p.id, "vehicle_kg": _r(p.vehicle), "trailer_kg": _r(p.trailer),
             "most_kg": _r(p.most), "by": p.by,
             "region_kg": [[_r(a), _r(b)] for a, b in p.region]}
            for p in found.points
        ],
    }  # fmt: skip


def _body(verdict: Verdict) -> dict[str, Any]:
    """The body's masses and the cost of its parts."""
    ground = verdict.assembly.ground
    price = cost(list(ground.parts), verdict.assembly.shop.prices)
    return {
        "masses": [
            {"owner": m.owner.word, "label": m.label, "mass_kg": _r(m.kg)}
            for m in ground.masses
            if m.owner.of_body
        ],
        "cost": {
            "sheet": _r(price.sheet), "bar": _r(price.bar), "hardware": _r(price.hardware),
            "cutting": _r(price.cutting), "bending": _r(price.bending), "total": _r(price.total),
        },
    }  # fmt: skip


def _figure(figure: Figure) -> dict[str, Any]:
    """One figure with doubt, limit and the chance of exceeding it."""
    chance = None
    if figure.limit is not None:
        chance = round(chance_over(figure.value, figure.uncertainty, figure.limit), 6)
    return {
        "value": _r(figure.value),
        "doubt": _r(figure.uncertainty),
        "limit": figure.limit,
        "chance_over": chance,
    }


def _scenario(
    loads: ScenarioLoads, owners: dict[Ref, tuple[float, float, float]]
) -> dict[str, Any]:
    """One scenario's figures."""
    payload = _figure(loads.payload_left)
    payload["chance_below"] = round(1 - (payload.pop("chance_over") or 0.0), 6)
    return {
        "id": loads.id,
        "name": loads.name,
        "front_kg": _figure(loads.front),
        "rear_kg": _figure(loads.rear),
        "gross_kg": _figure(loads.gross),
        "left_kg": _figure(loads.left),
        "right_kg": _figure(loads.right),
        "payload_left_kg": payload,
        "combination_kg": _figure(loads.combination) if loads.combination else None,
        "roof_kg": _figure(loads.roof),
        "ball_kg": _figure(loads.ball) if loads.ball else None,
        "trailer_kg": _figure(loads.trailer) if loads.trailer else None,
        "wheels_kg": {w: _figure(f) for w, f in zip(WHEELS, loads.wheels, strict=True)},
        "pressure_kpa": _r(loads.stance.pressure),
        "front_sag_mm": _r(loads.stance.front_sag),
        "rear_sag_mm": _r(loads.stance.rear_sag),
        "tail_low_mm": _r(loads.stance.tail_low),
        "centre_mm": [_r(c) for c in loads.centre],
        "owners": {
            owner.word: {
                "mass_kg": _r(kg),
                "rear_kg": _r(rear),
                "right_less_left_kg": _r(side),
            }
            for owner, (kg, rear, side) in owners.items()
        },
    }


MOST_MENDED, MOST_TRIED = 24, 4
"""For so many findings the fixes are computed, the first ones, and for so many of what moves, where each change has to
be tried. More stand with null; the window computes those of the finding that is chosen."""


def _mended(findings: tuple[Finding, ...]) -> list[bool]:
    """Say for which findings the fixes are computed."""
    found, tried = [], 0
    for n, finding in enumerate(findings):
        moves = finding.code.startswith("move.")
        tried += moves
        found.append(n < MOST_MENDED and not (moves and tried > MOST_TRIED))
    return found


def _finding(finding: Finding, verdict: Verdict, *, mended: bool) -> dict[str, Any]:
    """One finding, with its fixes or without."""
    return {
        "code": finding.code,
        "weight": finding.severity,
        "title": finding.title,
        "subjects": list(finding.words),
        "measured": None if finding.measured is None else _r(finding.measured),
        "limit": None if finding.limit is None else _r(finding.limit),
        "unit": finding.unit,
        "source": finding.source,
        "stage": finding.stage,
        "scenario": finding.scenario,
        "accepted": finding.accepted,
        "reopened": finding.reopened,
        "setups": list(finding.setups),
        "where_mm": [[_r(c) for c in box] for box in finding.where],
        "fixes": [
            {"words": f.words, "subject": f.subject.word, "changes": f.changes}
            for f in fixes(verdict, finding)
        ] if mended else None,
    }  # fmt: skip


def _part(part: Part) -> dict[str, Any]:
    """One part."""
    frame: dict[str, Any] = {"name": part.name, "owner": part.owner.word, "count": part.count}
    if isinstance(part, SheetPart):
        length, width = part.developed()
        frame |= {
            "kind": "sheet", "material": part.material.key, "thickness_mm": part.thickness,
            "blank_mm": [_r(length), _r(width)], "mass_kg": _r(part.mass()),
        }  # fmt: skip
    elif isinstance(part, BarPart):
        frame |= {
            "kind": "bar", "material": part.material.key, "section": part.section,
            "length_mm": _r(part.length), "mass_kg": _r(part.mass()),
        }  # fmt: skip
    else:
        frame |= {"kind": "bought"}
    return frame
