"""A plan as JSON and as tables."""

from typing import Any

from roomy_hull.formats.csv_tables import table
from roomy_hull.planning.judge import names_of
from roomy_hull.planning.lateness import late, waited_for
from roomy_hull.planning.plan import Build, chances_of
from roomy_hull.shop.workshop import Workshop
from roomy_hull.tables.build import BUYING, CHECKS, OPERATIONS, OpRow, buy_rows, check_rows, op_rows
from roomy_hull.tables.column import lines, record
from roomy_hull.verdict.verdict import Verdict


def plan_json(verdict: Verdict, build: Build) -> dict[str, Any]:
    """Tell a plan.

    Returns:
        ``begin``, ``now``, ``end``, ``due``, ``bound_end``, ``gap``, ``ready`` by chance, ``hours``, ``late``,
        ``trouble``, ``path``, ``rates``, ``operations``, ``buying``, ``checks``. [h, days as YYYY-MM-DD]
    """
    shop = verdict.assembly.shop.workshop
    at = build.calendar.at
    begun = bool(verdict.job.plan.begin)
    found = chances_of(build, shop)
    behind = late(build)
    placed = build.levelled.placed
    return {
        "begun": begun,
        "begin": build.calendar.days[0].isoformat(),
        "now": build.now.isoformat(),
        "end": build.end.isoformat() if placed else None,
        "due": verdict.job.plan.due or None,
        "bound_end": at(build.levelled.bound, ends=True).day.isoformat() if placed else None,
        "gap": round(build.levelled.gap, 6),
        "ready": {str(c): at(found.ready(c), ends=True).day.isoformat() for c in (0.5, 0.9)} if found is not None else {},
        "hours": {"left": round(build.left, 3), "worked": round(build.worked, 3)},
        "late": None if behind is None else {
            "days": round(behind.days, 3), "because": waited_for(build, behind.chain, names_of(shop)),
            "chain": [key for key, _c in behind.chain],
        },
        "trouble": build.trouble,
        "path": list(build.path),
        "rates": {k: {"factor": round(t.factor, 4), "doubt": round(t.uncertainty, 4), "from": t.seen}
                  for k, t in build.rates.items() if t.seen},
        "operations": [_operation(build, key) for key in build.ops],
        "buying": [record(BUYING, row) for row in buy_rows(build)],
        "checks": [record(CHECKS, row) for row in check_rows(build)],
    }  # fmt: skip


def _operation(build: Build, key: str) -> dict[str, Any]:
    one = build.levelled.placed.get(key)
    told = record(OPERATIONS, OpRow(build, key, {}))
    if one is not None:
        begin, end = build.begins(key), build.ends(key)
        times = build.times[key]
        told |= {
            "from": begin.day.isoformat(), "from_hour": round(begin.minute / 60, 3), "to": end.day.isoformat(),
            "to_hour": round(end.minute / 60, 3), "people": list(one.people),
            "slack_hours": round(times.slack / 60, 3), "earliest_hour": round(times.start / 60, 3),
            "latest_hour": round(times.late_start / 60, 3), "waited_for": one.cause.kind,
        }  # fmt: skip
    return told


def plan_csv(build: Build, shop: Workshop) -> str:
    """Write a plan's operations as CSV, by when they begin; what is done stands first."""
    return table(lines(OPERATIONS, op_rows(build, shop)))


def buying_csv(build: Build) -> str:
    """Write what is bought as CSV: what, how much, how far it is, wanted, order by, here."""
    return table(lines(BUYING, buy_rows(build)))
