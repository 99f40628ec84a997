"""Unknown: fields of the file that this version does not know, and names of what is not there; kept, and told."""

from roomy_hull.assembly.study import Context, Study, StudyKey
from roomy_hull.core.findings import Finding
from roomy_hull.core.refs import Ref
from roomy_hull.core.value import Value, unknown_fields
from roomy_hull.job.model import Job, Variant

KEY = StudyKey["Rows"]("file")
Rows = tuple[tuple[Value, tuple[str, ...]], ...]


def study(context: Context) -> Rows:
    """List the unknown fields of every part of the job; parts that did not change are taken from before.

    Returns: Each part with the paths of its unknown fields.
    """
    job = context.assembly.job
    parts: tuple[Value, ...] = (job.vehicle, job.body, *job.units, *job.carried, *job.scenarios)
    old: Rows = context.old(KEY) or ()
    if len(old) == len(parts):
        return tuple(
            row if row[0] is part else (part, tuple(unknown_fields(part)))
            for row, part in zip(old, parts, strict=True)
        )
    return tuple((part, tuple(unknown_fields(part))) for part in parts)


def judge(context: Context) -> list[Finding]:
    """Note every unknown field, those of the job itself first."""
    rows = context.of(KEY)
    paths = list(context.assembly.job.extra)
    for part, own in rows:
        name = getattr(part, "id", getattr(part, "name", ""))
        paths += [f"{type(part).__name__.lower()} {name}: {path}" for path in own]
    return [
        Finding("file.unknown", "note", f"The file's field '{path}' is not known; it is kept",
                (Ref("field", path),), source="docs/formats.md")
        for path in paths
    ] + _absent(context.assembly.job)  # fmt: skip


def _absent(job: Job) -> list[Finding]:
    """Look at what names something that neither the job nor a kept layout has: a slip weighs nothing, and nobody is told."""
    layouts: tuple[Job | Variant, ...] = (job, *job.variants)
    things = {u.id for layout in layouts for u in layout.units}
    things |= {c.id for layout in layouts for c in layout.carried}
    known = things | {r.id for r in job.body.rooms} | {r.id for r in job.body.racks}
    doors = {d.id for d in job.body.doors() if d.second}
    party = job.party
    found = [
        Finding("file.absent", "look", f"Scenario '{s.name}' leaves '{key}' at home, but there is no such thing; "
                "correct its id, or take it out of left_behind",
                (Ref("field", f"scenarios {s.id} left_behind {key}"),), source="docs/formats.md", scenario=s.id)
        for s in job.scenarios
        for key in s.left_behind
        if key not in known
    ]  # fmt: skip
    named = [
        (f"setups {s.id} off", f"Set-up '{s.name}' takes off", key, key in known) for s in job.setups for key in s.off
    ] + [
        (f"setups {s.id} second_doors", f"Set-up '{s.name}' hangs the second leaf of", key, key in doors)
        for s in job.setups for key in s.second_doors
    ] + [
        (f"party {b.id} thing", f"The berth '{b.called}' belongs to", b.thing, b.thing in known or not b.thing)
        for b in party.berths
    ] + [
        (f"party {b.id} sleepers", f"In the berth '{b.called}' sleeps", key, any(p.id == key for p in party.people))
        for b in party.berths for key in b.sleepers
    ] + [
        (f"party {d.id} place", f"The dog '{d.called}' travels in", d.place, d.place in things or not d.place)
        for d in party.dogs
    ]  # fmt: skip
    return found + [
        Finding("file.named", "look", f"{words} '{key}', but there is none; correct its id, or take it out",
                (Ref("field", f"{where} {key}"),), source="docs/formats.md")
        for where, words, key, there in named
        if not there
    ]  # fmt: skip


STUDY = Study(KEY, study, judge=judge)
