"""The loads of a verdict as JSON: springs, chassis, mounts, members, struts, stability, brief, weighings."""

from typing import Any

from roomy_hull.core.units import rounded as _r
from roomy_hull.job.vehicle import SPRING_OPTIONS
from roomy_hull.studies.loads import board
from roomy_hull.studies.strength.carrying import Carrying
from roomy_hull.verdict.verdict import Verdict


def loads_json(verdict: Verdict) -> dict[str, Any]:
    """What the pages of Loads show, as built-in objects, documented in docs/formats.md.

    Returns:
        ``worst``, ``springs``, ``brief`` and ``weighings``; with a whole verdict also ``chassis``, ``mounts``,
        ``members``, ``struts`` and ``stability``. [kg, mm, N, N·m, MPa, kPa, Hz, degree]
    """
    worst = board.worst(verdict.loads)
    found: dict[str, Any] = {
        "worst": None if worst is None else {
            "scenario": worst.scenario, "row": worst.key, "use": _r(worst.use, 4), "chance_over": _r(worst.chance, 6),
        },
        "springs": _springs(verdict),
        "brief": _brief(verdict),
        "weighings": _weighings(verdict),
    }  # fmt: skip
    return found | _carrying(verdict.carrying)


def _springs(verdict: Verdict) -> dict[str, Any]:
    """Every option in every scenario."""
    loads = verdict.loads.scenarios
    study = verdict.springs
    return {
        "fitted": verdict.job.vehicle.springs.school,
        "schools": {
            option: {
                "kerb_hz": _r(study.kerb_hz[option]),
                "scenarios": {
                    s.id: {
                        "rear_sag_mm": _r(row.stance.rear_sag), "tail_low_mm": _r(row.stance.tail_low),
                        "rear_hz": _r(row.rear_hz), "pressure_kpa": _r(row.stance.pressure),
                    }
                    for s in loads
                    if (row := study.row(option, s.id))
                },
            }
            for option in SPRING_OPTIONS
        },
    }  # fmt: skip


def _brief(verdict: Verdict) -> dict[str, Any]:
    """The brief's sums."""
    b = verdict.budget
    return {
        "scenario": b.scenario, "left_kg": _r(b.left), "open_kg": {k: _r(v) for k, v in b.open.items()},
        "left_needed_kg": _r(b.left_needed), "left_wanted_kg": _r(b.left_wanted), "left_all_kg": _r(b.left_all),
        "doubt_kg": _r(b.uncertainty),
        "wishes": [
            {"id": r.wish.id, "need": r.wish.need, "allowed_kg": _r(r.allowed),
             "decided_kg": None if r.decided is None else _r(r.decided)}
            for r in b.rows
        ],
    }  # fmt: skip


def _weighings(verdict: Verdict) -> list[dict[str, Any]]:
    """Every weighing against what was predicted without it."""
    return [
        {
            "id": w.id, "scenario": w.scenario, "counts": w.counts,
            "rows": [
                {"what": r.words, "predicted_kg": _r(r.predicted), "doubt_kg": _r(r.uncertainty), "read_kg": _r(r.read),
                 "sigmas": _r(r.sigmas)}
                for r in rows
            ],
        }
        for w, rows in zip(verdict.job.weighings, verdict.weighings, strict=True)
    ]  # fmt: skip


def _carrying(found: Carrying) -> dict[str, Any]:
    """Chassis, mounts, members, struts and stability."""
    c = found.chassis
    return {
        "chassis": {
            "factor": c.factor, "rated_payload_kg": _r(c.payload), "rated_peak_nm": _r(c.baseline.peak),
            "x_mm": [_r(x) for x in c.xs],
            "scenarios": [
                {"id": d.scenario, "peak_nm": _r(d.peak), "peak_x_mm": _r(d.peak_x), "ratio": _r(d.ratio, 4),
                 "over_axle_nm": _r(d.axle), "shear_n": [_r(v, 1) for v in d.shear],
                 "moment_nm": [_r(v, 1) for v in d.moment],
                 "springs": [{"what": p.what, "x_mm": _r(p.x), "n": _r(p.newton, 1)} for p in d.pushes]}
                for d in c.diagrams
            ],
        },
        "mounts": [
            {"id": m.id, "mass_kg": _r(m.kg), "height_mm": _r(m.height), "bolts": m.bolts,
             "bolt": m.held.size if m.held is not None else "", "held_by": m.words,
             "held_to": m.held.to if m.held is not None else "",
             "ways": {w.way: {"n": _r(w.force), "tips_nm": _r(w.tips), "shear_n": _r(w.shear),
                              "tension_n": _r(w.tension), "use": _r(w.use, 4)} for w in m.ways},
             "slide": None if m.slide is None else {
                 "load_kg": _r(m.slide.load), "rating_kg": _r(m.slide.rating), "overhang_mm": _r(m.slide.overhang),
                 "moment_nm": _r(m.slide.moment), "use": _r(m.slide.use, 4), "pull_n": _r(m.slide.pull),
                 "runs_n": _r(m.slide.runs), "locks": m.slide.locks}}
            for m in found.mounts
        ],
        "members": [
            {"owner": m.owner.word, "what": m.what, "load": m.load, "form": m.form, "stress_mpa": _r(m.stress),
             "allowed_mpa": _r(m.allowed), "sag_mm": _r(m.sag), "allowed_sag_mm": _r(m.allowed_sag)}
            for m in found.all_members()
        ],
        "struts": [
            {"door": s.door, "proposed": s.proposed, "leaf_kg": _r(s.mass), "force_n": _r(s.strut.force),
             "count": s.strut.count, "stays": s.stays, "lift_n": _r(s.lift), "draw_n": _r(s.draw),
             "closed_mm": _r(s.closed), "open_mm": _r(s.opened), "trouble": s.trouble,
             "swing": [[_r(i.angle), _r(i.hold), _r(i.low), _r(i.high)] for i in s.swing]}
            for s in found.struts
        ],
        "stability": [
            {"id": s.scenario, "centre_mm": [_r(s.x), _r(s.y), _r(s.height)], "track_mm": _r(s.track),
             "factor": _r(s.factor, 4), "tilt_left": _r(s.tilt_left), "tilt_right": _r(s.tilt_right)}
            for s in found.stability
        ],
    }  # fmt: skip
