"""Weighing: how much each part should count at first, by what the verdict finds wrong."""

from roomy_hull.arrange.instance import Weights
from roomy_hull.job.arranging import Arranging
from roomy_hull.studies.loads import board
from roomy_hull.verdict.verdict import Verdict

NEARLY = 0.95
"""From so much of its limit on an axle counts twice. [1]"""
CODES: dict[str, tuple[str, ...]] = {
    "balance": ("loads.sides",),
    "low": ("loads.stability", "access.heavy_high"),
    "reach": ("access.reach", "access.sight", "access.out_of_reach", "access.way"),
    "runs": ("services.drop", "services.short_lead"),
}
"""Which findings make a part count twice."""


def suggested(verdict: Verdict) -> Weights:
    """Weights that follow a job's own findings.

    Returns: 2 for what is found wrong or nearly so, 3 for an axle over its limit, else 1.
    """
    worst = board.worst(verdict.loads, ("rear", "front"))
    use = worst.use if worst is not None else 0.0
    axle = 3.0 if use > 1 else 2.0 if use > NEARLY else 1.0
    codes = [f.code for f in verdict.open_findings() if f.severity in ("stop", "look")]
    more = {part: 2.0 for part, some in CODES.items() if any(c.startswith(some) for c in codes)}
    return Weights(axle=axle, **more)


def weights_of(verdict: Verdict, wish: Arranging) -> Weights:
    """The weights that count: those set by hand, else those that follow the findings."""
    w = wish.weights
    if wish.own_weights:
        return Weights(w.axle, w.balance, w.low, w.reach, w.runs, w.room)
    return suggested(verdict)
