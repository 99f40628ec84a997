"""The registry of studies: one line each. What needs another's result runs after it."""

import importlib

from roomy_hull.assembly.study import Study

NAMES = (
    "studies.fit.judge",
    "studies.fit.moving",
    "studies.fit.in_out",
    "studies.loads.judge",
    "studies.loads.spring_options",
    "studies.loads.towing",
    "studies.loads.budget",
    "studies.strength.judge",
    "studies.loads.scales",
    "studies.outline.judge",
    "making.judge",
    "verdict.unknown",
)
"""Where each study is, one line each, in the order in which their findings are told."""


def _study(name: str) -> Study:
    """The record of one study."""
    found: Study = importlib.import_module(f"roomy_hull.{name}").STUDY
    return found


STUDIES: tuple[Study, ...] = tuple(_study(name) for name in NAMES)
"""In the order in which their findings are told."""


def in_turn(studies: tuple[Study, ...] = STUDIES) -> tuple[Study, ...]:
    """Order studies so that each runs after those whose results it needs.

    Parameters
    ----------
    studies : tuple of Study
        Any studies; the order of those that need nothing of each other stays.

    Returns
    -------
    tuple of Study
        The same studies.

    Raises
    ------
    ValueError
        A study needs one that is not there, or two need each other: a fault of the program.
    """
    left, done, order = list(studies), set[str](), list[Study]()
    while left:
        ready = next((s for s in left if done.issuperset(s.needs)), None)
        if ready is None:
            names = ", ".join(f"{s.key} needs {', '.join(s.needs)}" for s in left)
            raise ValueError(f"these studies cannot run: {names}")
        left.remove(ready)
        done.add(ready.key)
        order.append(ready)
    return tuple(order)
