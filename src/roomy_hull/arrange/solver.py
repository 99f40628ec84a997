"""Solver: a linear programme solver that says nothing."""

import os
import sys
from typing import Any

import numpy as np

from roomy_hull.core import lazily

highspy: Any = lazily.module("highspy")


def silent() -> Any:
    """A new solver, of one thread, that writes nothing; its greeting on being made is kept off the standard output."""
    sys.stdout.flush()
    try:
        kept, away = os.dup(1), os.open(os.devnull, os.O_WRONLY)
    except OSError:
        kept = away = -1
    try:
        if kept >= 0:
            os.dup2(away, 1)
        found = highspy.Highs()
        found.silent()
    finally:
        if kept >= 0:
            os.dup2(kept, 1)
            os.close(kept)
            os.close(away)
    for option, what in (("threads", 1), ("random_seed", 1)):
        found.setOptionValue(option, what)
    return found


def row(solver: Any, low: float, high: float) -> None:
    """Add a row without columns yet."""
    solver.addRow(low, high, 0, np.zeros(0, np.int32), np.zeros(0))


def column(solver: Any, cost: float, rows: list[int], values: list[float]) -> None:
    """Add a column of 0 or more."""
    solver.addCol(
        float(cost),
        0.0,
        highspy.kHighsInf,
        len(rows),
        np.array(rows, np.int32),
        np.array(values, float),
    )
