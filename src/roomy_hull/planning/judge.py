"""Building judged: what is late and why, what has to be ordered, checks that failed, what was built otherwise."""

from datetime import date

from roomy_hull.assembly.study import Context, Study, StudyKey
from roomy_hull.core.days import day_of, spoken
from roomy_hull.core.findings import PRACTICE, Finding
from roomy_hull.core.parts import Hardware
from roomy_hull.core.refs import CANOPY, TRAY, Ref
from roomy_hull.core.wording import counted
from roomy_hull.job.chain import breaks
from roomy_hull.job.logs import Entry
from roomy_hull.planning.as_built import as_built
from roomy_hull.planning.buying import Purchase
from roomy_hull.planning.lateness import late, told
from roomy_hull.planning.op import owner_key
from roomy_hull.planning.operations import unknown_in
from roomy_hull.planning.plan import Build, build_of
from roomy_hull.planning.replay import replayed
from roomy_hull.shop.workshop import Workshop

KEY = StudyKey["Build | None"]("build")
PLAY = 0.6
"""A bolt or rivet finds the hole of the other part if that is off by no more than this (common practice). [mm]"""


def run(context: Context) -> Build | None:
    """Plan the job, where a plan is begun."""
    return build_of(context) if context.assembly.job.plan.begin else None


def names_of(shop: Workshop) -> dict[str, str]:
    """What people and stations are called, by their ids."""
    return {w.id: w.name for w in shop.people} | {
        s.id: f"the {s.name.lower()}" for s in shop.stations
    }


def judge(context: Context) -> list[Finding]:
    """List what is found of the building.

    Args:
        context: The judged job, its log and its plan in it.
    Returns: Of the log in any case, of the plan where it is begun.
    """
    found = _built(context)
    build = context.of(KEY)
    if build is None:
        return found
    for name, key in unknown_in(context.assembly.job.plan.own, build.ops):
        words = f"'{name}' is planned before or after '{key}', which is not there: it stands without that"
        found.append(_finding("build.unknown", "look", words))
    if build.trouble:
        return [*found, _finding("build.trouble", "look", f"It cannot be planned: {build.trouble}")]
    return [
        *found,
        *_late(context, build),
        *_ordering(context, build),
        *_failed(build),
        *_vehicle(context, build),
    ]


def _finding(code: str, severity: str, title: str, refs: tuple[Ref, ...] = (), measured: float | None = None,
             limit: float | None = None, unit: str = "", source: str = PRACTICE) -> Finding:  # fmt: skip
    return Finding(code, severity, title, refs, measured, limit, unit, source)  # type: ignore[arg-type]


def _late(context: Context, build: Build) -> list[Finding]:
    found = late(build)
    if found is None:
        return []
    why = told(build, names_of(context.assembly.shop.workshop))
    return [_finding(
        "build.late", "look", f"Ready on {spoken(build.end)}, {why}",
        (), found.days, 0.0, "days", "the plan, by its operations and the shop's people and stations",
    )]  # fmt: skip


GROUPS = {
    "sheet": "Metal", "bar": "Metal", "hardware": "Bought parts", "thing": "Bought things", "services": "Cable and hose",
}  # fmt: skip
"""What is told together, by how keys of what is bought begin."""


def _ordering(context: Context, build: Build) -> list[Finding]:
    """What has to be ordered before the plan goes on, sort by sort, and what did not come when it was said."""
    found = []
    groups: dict[str, list[tuple[date, Purchase]]] = {}
    overdue: list[Purchase] = []
    for one in build.buying:
        need = needed(build, one)
        if one.received is not None or need is None:
            continue
        if one.ordered is None:
            if one.order_by(need) <= build.now:
                groups.setdefault(GROUPS[one.key.partition(":")[0]], []).append((need, one))
        elif one.arrives is not None and one.arrives <= build.now and one.ordered < build.now:
            overdue.append(one)
    if overdue:
        more = f" and {len(overdue) - 1} more" if len(overdue) > 1 else ""
        found.append(_finding(
            "build.missing", "look", f"{overdue[0].words}{more} should be here by now: ask after it",
            tuple(r for p in overdue for r in _of_purchase(context, p.key)), float(len(overdue)), 0.0, "things",
        ))  # fmt: skip
    for group, rows in groups.items():
        rows.sort(key=lambda r: r[1].order_by(r[0]))
        need, first = rows[0]
        more = f" and {len(rows) - 1} more" if len(rows) > 1 else ""
        found.append(_finding(
            "build.order", "look",
            f"{group} to order now: {first.words}{more}; wanted on {spoken(need)}, {first.lead:g} days to come",
            tuple(r for _n, p in rows for r in _of_purchase(context, p.key)),
            float((build.now - first.order_by(need)).days), 0.0, "days",
        ))  # fmt: skip
    return found


def needed(build: Build, one: Purchase) -> date | None:
    """When something bought is wanted: as soon as what comes before its first operation can be done; none where never."""
    keys = [k for k in one.ops if k in build.times]
    return build.calendar.at(min(_without(build, k) for k in keys)).day if keys else None


def _without(build: Build, key: str) -> int:
    """When an operation could be begun at the earliest if everything bought were here. [min]"""
    first = build.calendar.minute(build.now)
    task = build.tasks[key]
    return max([first, *(int(build.times[k].finish) for k in task.after if k in build.times)])


def _of_purchase(context: Context, key: str) -> tuple[Ref, ...]:
    thing = context.assembly.thing(key.removeprefix("thing:")) if key.startswith("thing:") else None
    return (thing.ref,) if thing is not None else ()


def _failed(build: Build) -> list[Finding]:
    found = []
    for c in build.checks:
        if build.state.result(c.key) == "failed":
            said = build.state.checks[c.key].words
            refs = (c.owner,) if c.owner is not None and c.owner.is_thing else ()
            found.append(
                _finding(
                    "build.failed",
                    "look",
                    f"Failed: {c.words}" + (f" ({said})" if said else ""),
                    refs,
                )
            )
    return found


def _vehicle(context: Context, build: Build) -> list[Finding]:
    """Whether the vehicle is here as long as it is worked at."""
    leaves = day_of(context.assembly.job.plan.vehicle_to)
    keys = [k for k in build.levelled.placed if k in build.ops and build.ops[k].station == "bay"]
    if leaves is None or not keys:
        return []
    last = max(keys, key=lambda k: build.levelled.placed[k].finish)
    ends: date = build.ends(last).day
    if ends <= leaves:
        return []
    return [_finding(
        "build.vehicle", "look",
        f"The vehicle leaves on {spoken(leaves)}; work at it goes on to {spoken(ends)} ({build.ops[last].words.lower()})",
        (), float((ends - leaves).days), 0.0, "days", "the plan",
    )]  # fmt: skip


def _built(context: Context) -> list[Finding]:
    """What the log says was built otherwise: what cannot be placed any more, holes that no longer meet, a clock set back."""
    job = context.assembly.job
    if not job.log:
        return []
    state = replayed(job.log)
    found = [
        _finding("build.deviation", "look", f"Logged as built, and no longer to be placed: {entry.about} ({trouble})")
        for entry, trouble in as_built(job).lost
    ]  # fmt: skip
    found += [f for entry in state.deviations.values() for f in _hole(context, entry)]
    for entry in state.deviations.values():
        if entry.value is not None:
            by = f", drawn as {entry.was:g}" if entry.was is not None else ""
            sort = f", {entry.number}" if entry.number else ""
            found.append(_finding("build.as_built", "note",
                                  f"As built: {entry.about}{sort} is {entry.value:g}{by} ({entry.by or 'nobody named'}, "
                                  f"{entry.at[:10]})", _owner(context, entry.about), entry.value,
                                   entry.was, "mm"))  # fmt: skip
    found += [
        _finding("build.log", "look", f"The log was changed outside of the program at '{b.entry}': {b.words}")
        for b in breaks(job.log)
    ]  # fmt: skip
    if state.backwards:
        found.append(_finding(
            "build.clock", "note",
            f"The clock stood earlier than before at {counted(len(state.backwards), 'entry', 'entries')} of the log; "
            "they count in their order",
        ))  # fmt: skip
    return found


def _owner(context: Context, about: str) -> tuple[Ref, ...]:
    """What a deviation is of: the unit or carried item in its path or its part's key."""
    head = about.removeprefix("units.").removeprefix("carried.").removeprefix("unit:")
    thing = context.assembly.thing(head.partition("/")[0].partition(".")[0])
    if thing is not None:
        return (thing.ref,)
    return (
        (CANOPY,)
        if about.startswith(("canopy", "body.canopy"))
        else (TRAY,)
        if about.startswith("tray")
        else ()
    )


def _hole(context: Context, entry: Entry) -> list[Finding]:
    """A hole that stands elsewhere than drawn: the part that is joined through it has to be drilled to match."""
    if not entry.number.startswith("hole") or len(entry.figures) < 2:
        return []
    off = (entry.figures[-2] ** 2 + entry.figures[-1] ** 2) ** 0.5
    if off <= PLAY:
        return []
    owner, _, part = entry.about.partition("/")
    others = sorted({
        (j.other if j.one == part else j.one)
        for w in _works(context) if owner_key(w.owner) == owner or f"{w.owner.kind}:{w.owner.id}" == owner
        for j in w.joints if part in (j.one, j.other) and j.one != j.other and j.fastener
    })  # fmt: skip
    told = (
        f"drill {', '.join(others[:3])} to match"
        if others
        else "nothing of ours is joined through it"
    )
    return [_finding("build.hole", "look" if others else "note",
                     f"{part or entry.about}: a hole stands {off:.1f} mm from where it was drawn; {told}",
                     _owner(context, entry.about), off, PLAY, "mm")]  # fmt: skip


def _works(context: Context):  # type: ignore[no-untyped-def]  # the works' own
    from roomy_hull.making.works import works_of  # ruff: ignore[import-outside-top-level]  # a hole is seldom moved

    return tuple(
        w
        for w in works_of(context.assembly).works
        if not all(isinstance(p, Hardware) for p in w.parts)
    )


STUDY = Study(
    KEY, run, ("in and out", "services"), judge=judge, codes=("build.",), settles=True,
    shown_with=lambda job: (job.plan, job.log),
)  # fmt: skip
"""The building of the job."""
