"""Access as JSON, as words for a terminal, and as papers: packing lists, where is what, the canopy off and on."""

from pathlib import Path
from typing import Any

from roomy_hull.core.units import rounded_if_finite as _r
from roomy_hull.drawing.backends.svg import svg
from roomy_hull.drawing.paper import Paper
from roomy_hull.drawing.scenes import access as scene
from roomy_hull.drawing.view import Station
from roomy_hull.formats.atomic import write_whole
from roomy_hull.formats.csv_tables import table
from roomy_hull.formats.goods_table import packing_list
from roomy_hull.job.goods import people
from roomy_hull.tables.access import GOODS, LIFTS, good_rows, index_words, lift_rows
from roomy_hull.tables.column import lines, record
from roomy_hull.verdict.verdict import Verdict

SIDES: tuple[Station, ...] = ("left", "right", "rear")


def access_json(verdict: Verdict) -> dict[str, Any]:
    """Access as built-in objects, documented in docs/formats.md.

    Returns:
        ``people``, ``spaces`` with their moves, reach and sight, ``goods``, ``lifts``, ``living``, ``canopy``.
        [mm, kg]
    """
    found, job = verdict.access, verdict.job
    life, off = found.living, found.off_on
    return {
        "job": job.name,
        "settled_mm": {"front": found.settled.front, "rear": found.settled.rear},
        "people": [{"id": p.id, "name": p.name, "stature_mm": p.stature} for p in people(job.party)],
        "spaces": [
            {
                "owner": s.owner, "part": s.part, "name": s.name, "side": s.side, "from_above": s.top,
                "box_mm": [_r(v, 1) for v in s.box], "needs": sorted(s.needs),
                "actions": [{"do": a.do, "what": a.what} for a in way.actions], "possible": way.possible,
                "walked_m": _r(way.metres, 2),
                "seen_by": [
                    {"person": one.person, "how": one.how, "short_mm": _r(one.short, 1), "reached": _r(one.reached, 3),
                     "seen": _r(one.seen, 3)}
                    for one in seen
                ],
            }
            for s, way, seen in zip(found.spaces, found.moves, found.seen, strict=True)
        ],
        "goods": [record(GOODS, row) for row in good_rows(verdict)],
        "filled": [
            {"space": f.space, "takes_l": _r(f.takes, 2), "holds_l": _r(f.holds, 2)} for f in found.filled
        ],
        "lifts": [record(LIFTS, row) for row in lift_rows(verdict)],
        "rounds": [
            {"run": r.id, "name": r.name, "actions": r.actions, "walked_m": _r(r.metres, 2)} for r in found.rounds
        ],
        "living": {
            "worktops": [{"thing": w.thing, "person": w.person, "height_mm": _r(w.height, 1),
                          "below_elbow_mm": _r(w.below, 1)} for w in life.worktops],
            "edges": [{"opening": e.opening, "height_mm": _r(e.height, 1)} for e in life.edges],
            "beds": [{"id": b.id, "has_mm": list(b.has), "wants_mm": [_r(v, 1) for v in b.wants]} for b in life.beds],
            "dogs": [{"id": k.dog, "has_mm": [_r(v, 1) for v in k.has], "wants_mm": [_r(v, 1) for v in k.wants]}
                     for k in life.kennels],
            "tilt": None if life.tilt is None else {
                "ahead_deg": _r(life.tilt.ahead, 3), "left_deg": _r(life.tilt.left, 3),
                "blocks_mm": [_r(v, 1) for v in life.tilt.wheels],
            },
        },
        "canopy": None if off is None else {
            "empty_kg": _r(off.empty, 1), "loaded_kg": _r(off.loaded, 1), "centre_mm": [_r(v, 1) for v in off.centre],
            "legs_kg": {name: _r(kg, 1) for name, kg in off.legs}, "tips_deg": _r(off.tips, 2),
            "least_leg_mm": _r(off.least_leg, 1), "beside_mm": _r(off.beside, 1), "steps": list(off.steps),
        },
    }  # fmt: skip


def access_report(verdict: Verdict) -> str:
    """Access for people: every space and good in a line, then lifts, living, the canopy."""
    found, job = verdict.access, verdict.job
    names = {p.id: p.called for p in people(job.party)}
    rows = [job.name]
    for s, way, seen in zip(found.spaces, found.moves, found.seen, strict=True):
        how = "; ".join(f"{names[o.person]} {o.how}, sees {100 * o.seen:.0f} %" for o in seen)
        rows.append(f"  {s.name:<26}{way.said:<11} {how}")
    for g, row in zip(job.goods, found.stowed, strict=True):
        moves = (
            ""
            if row.moves is None
            else f"{row.moves.count} actions"
            if row.moves.possible
            else "no way"
        )
        where = found.spaces[row.space].name if row.space >= 0 else row.where
        late = "  !! more than its class allows" if row.over(g.use) else ""
        rows.append(f"  {g.name:<30}{g.kg:>7.1f} kg  {g.use:<10} {where:<24} {moves}{late}")
    for e in sorted(found.efforts, key=lambda e: -e.index)[:12]:
        rows.append(
            f"  lift {e.name:<26}{e.kg:>6.1f} kg  {names[e.person]:<18} index {index_words(e.index)}"
        )
    rows += [f"  {r.name}: {r.actions} actions, {r.metres:.0f} m walked" for r in found.rounds]
    off = found.off_on
    if off is not None:
        legs = ", ".join(f"{name} {kg:.0f}" for name, kg in off.legs)
        rows.append(
            f"  canopy {off.loaded:.0f} kg on its legs: {legs} kg; tips at {off.tips:.0f}°; legs from {off.least_leg:.0f} mm"
        )
    rows.append(
        "Planning figures: lift with two what is a strain; never work under a canopy on its legs."
    )
    return "\n".join(rows)


def goods_table(verdict: Verdict) -> str:
    """Every good with where it is, its moves and its worst lift, as CSV."""
    return table(lines(GOODS, good_rows(verdict)))


def maps(verdict: Verdict) -> dict[str, str]:
    """Where is what, a drawing a side, as SVG by file name."""
    found, job = verdict.access, verdict.job
    rows: dict[str, str] = {}
    for side in SIDES:
        if any(s.side == side for s in found.spaces):
            drawn, frame = scene.where_is_what(
                verdict.assembly, job.goods, found.stowed, found.spaces, side
            )
            paper = Paper(f"{job.name}: where is what, {side}", drawn, frame)
            rows[f"where-is-what-{side}.svg"] = svg((paper,))
    return rows


def canopy_sheet(verdict: Verdict) -> str:
    """How the canopy comes off, to hang in the shed."""
    off = verdict.access.off_on
    if off is None:
        return ""
    rows = [f"{verdict.job.name}: canopy off and on", ""]
    rows += [f"{n + 1}. {step}" for n, step in enumerate(off.steps)]
    rows += [
        "", f"Mass: {off.empty:.0f} kg empty, {off.loaded:.0f} kg at its fullest.",
        "On each leg, full: " + ", ".join(f"{name} {kg:.0f} kg" for name, kg in off.legs) + ".",
        f"Legs of at least {off.least_leg:.0f} mm to their sockets at this ride height. {off.beside:.0f} mm left beside.",
        f"It tips at {off.tips:.0f} degrees of slope: level, firm ground only. Nobody under it, ever.",
    ]  # fmt: skip
    return "\n".join(rows) + "\n"


def write_papers(verdict: Verdict, folder: Path) -> list[Path]:
    """Write every paper of Access.

    Returns: ``goods.csv``, a packing list for each scenario, a map of each side, ``canopy-off.txt``.
    Raises:
        UserError: The folder cannot be written.
    """
    files = {"goods.csv": goods_table(verdict), **maps(verdict)}
    files |= {
        f"packing-{s.id}.csv": packing_list(verdict.job, s) for s in verdict.assembly.job.scenarios
    }
    if verdict.access.off_on is not None:
        files["canopy-off.txt"] = canopy_sheet(verdict)
    written = []
    for name, text in files.items():
        write_whole(folder / name, text.encode())
        written.append(folder / name)
    return written
