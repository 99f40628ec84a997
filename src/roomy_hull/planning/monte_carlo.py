"""How sure a plan's end is: every operation has a least, a usual and a most, every kind of work one doubt in common."""

from collections.abc import Mapping
from typing import NamedTuple

import numpy as np

from roomy_hull.planning.placing import Placed, Task

SAMPLES, SEED = 2000, 1959


class Three(NamedTuple):
    """The least, the usual and the most that something takes."""

    least: float
    usual: float
    most: float

    @property
    def mean(self) -> float:
        """(least + 4 usual + most) / 6: PERT (Malcolm, Roseboom, Clark and Fazar 1959), exact for its β."""
        return (self.least + 4 * self.usual + self.most) / 6

    @property
    def sigma(self) -> float:
        """PERT's rule of thumb: a sixth of the span."""
        return (self.most - self.least) / 6

    @property
    def variance(self) -> float:
        """Of the β that is drawn from: (mean - least)(most - mean) / 7."""
        return (self.mean - self.least) * (self.most - self.mean) / 7

    @property
    def shape(self) -> tuple[float, float]:
        """The two exponents of its β: 1 + 4 (usual - least) / span, and the like from above."""
        span = self.most - self.least
        if span <= 0:
            return 1.0, 1.0
        return 1 + 4 * (self.usual - self.least) / span, 1 + 4 * (self.most - self.usual) / span

    def drawn(self, chance: np.random.Generator, count: int) -> np.ndarray:
        """Draw some. Their mean and variance are `mean` and `variance`."""
        a, b = self.shape
        return self.least + (self.most - self.least) * chance.beta(a, b, count)


def ends(
    tasks: Mapping[str, Task], placed: Mapping[str, Placed], spread: Three, kinds: Mapping[str, str],
    uncertainties: Mapping[str, float], count: int = SAMPLES, seed: int = SEED,
) -> dict[str, np.ndarray]:  # fmt: skip
    """Live a plan many times over, everybody keeping their order, and see when each job is ended.

    Args:
        tasks, placed: The operations and their places. [min]
        spread: What an operation takes, as parts of what is usual.
        kinds: The kind of work of each operation: all of a kind share its doubt.
        uncertainties: One sigma of each kind's rate, as a part.
        count, seed: How often, and from where chance begins: the same seed gives the same.
    Returns:
        By job, the working minute of its end, in ascending order. [min] Absences that lie in an operation as
        planned lengthen it in proportion.
    """
    chance = np.random.default_rng(seed)
    common = {
        kind: np.exp(chance.normal(0.0, uncertainties.get(kind, 0.0), count)) for kind in sorted(set(kinds.values()))
    }  # fmt: skip
    line: dict[str, np.ndarray] = {}
    done: dict[str, np.ndarray] = {}
    found: dict[str, np.ndarray] = {}
    for key in sorted(placed, key=lambda k: (placed[k].start, placed[k].finish)):
        one, task = placed[key], tasks[key]
        begin = np.full(count, float(task.begins))
        held = [done[b] for b in task.after if b in done]
        lines = [*one.people, *([f"{task.station}/{one.lane}"] if task.station else [])]
        held += [line[x] for x in lines if x in line]
        for other in held:
            begin = np.maximum(begin, other)
        share = spread.drawn(chance, count)
        if key in kinds:
            share *= common[kinds[key]]
        done[key] = begin + (one.finish - one.start) * share
        for x in lines:
            line[x] = done[key]
        known = found.get(task.job)
        found[task.job] = done[key] if known is None else np.maximum(known, done[key])
    return {job: np.sort(x) for job, x in found.items()}


def by_then(sorted_ends: np.ndarray, minute: float) -> float:
    """The chance that all is ended by a moment."""
    return float(np.searchsorted(sorted_ends, minute, side="right")) / max(1, len(sorted_ends))


def ready(sorted_ends: np.ndarray, chance: float) -> int:
    """The moment by which all is ended with some chance. [min]"""
    n = min(len(sorted_ends) - 1, int(np.ceil(chance * len(sorted_ends))) - 1)
    return int(np.ceil(sorted_ends[max(0, n)]))
