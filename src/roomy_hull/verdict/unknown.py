"""Unknown: fields of the file that this version does not know; they are kept, and told."""

from roomy_hull.assembly.study import Case, Study
from roomy_hull.core.findings import Finding
from roomy_hull.core.refs import Ref
from roomy_hull.core.value import Value, unknown_fields

KEY = "file"
Rows = tuple[tuple[Value, tuple[str, ...]], ...]


def study(case: Case) -> Rows:
    """List the unknown fields of every part of the job; parts that did not change are taken from before.

    Parameters
    ----------
    case : Case
        The job.

    Returns
    -------
    tuple of (Value, tuple of str)
        Each part with the paths of its unknown fields.
    """
    job = case.assembly.job
    parts: tuple[Value, ...] = (job.vehicle, job.body, *job.units, *job.carried, *job.scenarios)
    old: Rows = case.old(KEY) or ()
    if len(old) == len(parts):
        return tuple(
            row if row[0] is part else (part, tuple(unknown_fields(part)))
            for row, part in zip(old, parts, strict=True)
        )
    return tuple((part, tuple(unknown_fields(part))) for part in parts)


def judge(case: Case) -> list[Finding]:
    """Note every unknown field, those of the job itself first."""
    rows: Rows = case.results[KEY]
    paths = list(case.assembly.job.extra)
    for part, own in rows:
        name = getattr(part, "id", getattr(part, "name", ""))
        paths += [f"{type(part).__name__.lower()} {name}: {path}" for path in own]
    return [
        Finding("file.unknown", "note", f"The file's field '{path}' is not known; it is kept",
                (Ref("field", path),), source="docs/formats.md", stage="Survey")
        for path in paths
    ]  # fmt: skip


STUDY = Study(KEY, study, judge=judge)
