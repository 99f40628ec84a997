"""Findings of the stage Services, each written alike."""

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.core.findings import PRACTICE, Finding, Severity
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.refs import Ref


def ref(assembly: Assembly, key: str) -> tuple[Ref, ...]:
    """The reference of a unit, where there is one."""
    thing = assembly.thing(key) if key else None
    return (thing.ref,) if thing is not None else ()


Figures = tuple[float | None, float | None, str]


def finding(
    code: str, severity: Severity, title: str, subjects: tuple[Ref, ...] = (), figures: Figures = (None, None, ""),
    source: str = PRACTICE, where: tuple[Box, ...] = (),
) -> Finding:  # fmt: skip
    """A finding of this stage; its figures are what was measured, the limit, the unit."""
    return Finding(f"services.{code}", severity, title, subjects, *figures, source, where)
