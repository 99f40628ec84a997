"""What opens, in JSON: relations, sets, run-throughs, order of fitting, variants."""

from typing import Any

from roomy_hull.core.refs import Ref
from roomy_hull.studies.fit.plans import plan
from roomy_hull.studies.fit.run_through import play
from roomy_hull.verdict.compare import columns
from roomy_hull.verdict.verdict import Verdict


def moving_json(verdict: Verdict) -> dict[str, Any]:
    """All that opens as built-in objects, documented in docs/formats.md.

    Returns:
        ``openings``, ``together`` (pairs that are not clear), ``sets``, ``runs``, ``in_and_out`` and ``layouts``.
        [mm, kg, l]
    """
    found = verdict.together
    at = {o.id: n for n, o in enumerate(found.openings)}
    met = {tuple(sorted(p, key=at.__getitem__)) for p in (*found.shut, *found.opened)}
    pairs = []
    for x, y in sorted(met, key=lambda p: (at[p[0]], at[p[1]])):
        relation = found.relation(x, y)
        meeting = found.meeting(x, y)
        if relation != "clear" and meeting is not None:
            first = {"x first": x, "y first": y}.get(relation, "")
            pairs.append({
                "pair": [x, y],
                "relation": "in order" if first else relation,
                "first": first,
                "gap_mm": round(meeting.gap, 2),
                "where_mm": [round(c, 1) for c in meeting.where],
            })
    job = verdict.job
    first_scenario = job.scenarios[0].id
    scenario = "full" if any(s.id == "full" for s in job.scenarios) else first_scenario
    return {
        "openings": [{"id": o.id, "name": o.name, "side": o.side,
                      "open_mm": [round(c, 1) for c in o.opened_box]} for o in found.openings],
        "together": pairs,
        "sets": [_set(verdict, s.id, s.name, s.members) for s in job.sets],
        "runs": [_run(verdict, n) for n in range(len(job.runs))],
        "in_and_out": [
            {"bay": key, "order": list(bay.order), "first_out": {k: list(v) for k, v in bay.blockers.items()}}
            for key, bay in verdict.in_out.bays.items()
        ],
        "layouts": [
            {"name": c.name, "units": c.units, "fittings_kg": round(c.fitted, 2), "gross_kg": round(c.gross[0], 2),
             "front_kg": round(c.front[0], 2), "rear_kg": round(c.rear[0], 2), "right_less_left_kg": round(c.balance, 2),
             "goods_l": round(c.litres, 1), "parts_price": round(c.price, 2), "stops": c.stops, "looks": c.looks}
            for c in columns(verdict, scenario, {})
        ],
    }  # fmt: skip


def _set(verdict: Verdict, key: str, name: str, members: tuple[str, ...]) -> dict[str, Any]:
    """One set with its order, or what breaks it."""
    made = plan(verdict.together, members)
    return {
        "id": key, "name": name, "members": list(members), "holds": made.holds,
        "order": list(made.order) if made.holds else [], "missing": list(made.missing),
        "conflicts": [
            {"pair": [x, y.word if isinstance(y, Ref) else y], "gap_mm": round(m.gap, 2)}
            for x, y, m in made.conflicts
        ],
    }  # fmt: skip


def _run(verdict: Verdict, n: int) -> dict[str, Any]:
    """One run-through, move by move."""
    run = verdict.job.runs[n]
    result = play(verdict.assembly, verdict.together, verdict.in_out, run)
    return {
        "id": run.id, "name": run.name, "through": result.through, "actions": result.actions,
        "moves": [{"words": p.words, "fine": p.fine} for p in result.played],
    }  # fmt: skip
