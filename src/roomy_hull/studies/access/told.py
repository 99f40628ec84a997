"""Findings of the stage Access, each written alike."""

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.core.findings import PRACTICE, Finding, Severity
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.refs import Ref
from roomy_hull.studies.access.spaces import opening_of

Figures = tuple[float | None, float | None, str]


def finding(
    code: str, severity: Severity, title: str, subjects: tuple[Ref, ...] = (), figures: Figures = (None, None, ""),
    source: str = PRACTICE, where: tuple[Box, ...] = (),
) -> Finding:  # fmt: skip
    """A finding of this stage; its figures are what was measured, the limit, the unit."""
    return Finding(f"access.{code}", severity, title, subjects, *figures, source, where)


def ref(assembly: Assembly, key: str) -> tuple[Ref, ...]:
    """The reference of a thing, or of what hangs under the tray, where there is one."""
    thing = assembly.thing(key) if key else None
    if thing is not None:
        return (thing.ref,)
    under = key in assembly.job.body.tray.holders()
    return (Ref("opening", opening_of(key)),) if under else ()
