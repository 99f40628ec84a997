"""The registry of studies: one line each. What needs another's result runs after it."""

import functools
import importlib
from typing import NamedTuple

from roomy_hull.assembly.study import Study


class Line(NamedTuple):
    """Where a study is, and whether the first quick look includes it; it is read when it is first run."""

    module: str
    glance: bool = False


LINES = (
    Line("studies.fit.judge"),
    Line("studies.fit.moving"),
    Line("studies.fit.in_out"),
    Line("studies.fit.bodies"),
    Line("studies.loads.judge", glance=True),
    Line("studies.loads.spring_options"),
    Line("studies.loads.towing"),
    Line("studies.loads.budget"),
    Line("studies.strength.judge"),
    Line("studies.loads.scales"),
    Line("studies.outline.sides"),
    Line("studies.outline.judge"),
    Line("studies.services.judge"),
    Line("studies.access.judge"),
    Line("verdict.setups"),
    Line("making.judge"),
    Line("planning.measured"),
    Line("making.gaps"),
    Line("planning.judge"),
    Line("verdict.unknown"),
)
"""In the order in which their findings are told."""


@functools.cache
def studies(*, glance: bool = False) -> tuple[Study, ...]:
    """Read the studies.

    Args:
        glance: Only those of the first quick look.
    Returns: In the order in which their findings are told.
    """
    return tuple(
        importlib.import_module(f"roomy_hull.{line.module}").STUDY
        for line in LINES
        if line.glance or not glance
    )


@functools.cache
def to_run(*, glance: bool = False) -> tuple[Study, ...]:
    """The studies, each after those whose results it needs."""
    return in_turn(studies(glance=glance))


def in_turn(some: tuple[Study, ...]) -> tuple[Study, ...]:
    """Order studies so that each runs after those whose results it needs.

    Args:
        some: Any studies; the order of those that need nothing of each other stays.
    Raises:
        ValueError: A study needs one that is not there, or two need each other: a fault of the program.
    """
    left, done, order = list(some), set[str](), list[Study]()
    while left:
        ready = next((s for s in left if done.issuperset(s.needs)), None)
        if ready is None:
            names = ", ".join(f"{s.key} needs {', '.join(s.needs)}" for s in left)
            raise ValueError(f"these studies cannot run: {names}")
        left.remove(ready)
        done.add(ready.key)
        order.append(ready)
    return tuple(order)
