"""Scales: every weighing against what was predicted without it."""

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.assembly.study import Context, Study, StudyKey
from roomy_hull.core.findings import Finding
from roomy_hull.core.refs import Ref
from roomy_hull.studies.loads import axles
from roomy_hull.studies.loads.axles import LoadResult, weigh
from roomy_hull.studies.loads.readings import WHEELS
from roomy_hull.studies.loads.weighing import Against, against

KEY = StudyKey["tuple[tuple[Against, ...], ...]"]("weighings")
SURPRISE = 3.0
"""A reading that is off by more sigmas than this wants to be looked at again."""


def predicted(
    assembly: Assembly, loads: LoadResult, scenario: str
) -> dict[str, tuple[float, float]]:
    """What was predicted for a scenario before any weighing.

    Returns: Value and doubt of the axles, the gross mass and each wheel. [kg]
    """
    one = next(s for s in assembly.job.scenarios if s.id == scenario)
    s = weigh(assembly.job, one, loads.totals, loads.readings)
    figures = {"front": s.front, "rear": s.rear, "gross": s.gross}
    figures |= dict(zip(WHEELS, s.wheels, strict=True))
    return {key: (f.value, f.uncertainty) for key, f in figures.items()}


def compared(context: Context) -> tuple[tuple[Against, ...], ...]:
    """Set every weighing of the job against its prediction.

    Returns: In the order of the job's weighings. [kg]
    """
    loads = context.of(axles.KEY)
    return tuple(
        against(w, predicted(context.assembly, loads, w.scenario))
        for w in context.assembly.job.weighings
    )


def judge(context: Context) -> list[Finding]:
    """Judge what scales said against what was predicted without them."""
    assembly, made = context.assembly, []
    for weighing, rows in zip(assembly.job.weighings, context.results[KEY], strict=True):
        far = max(rows, key=lambda r: abs(r.sigmas), default=None)
        if far is not None and abs(far.sigmas) > SURPRISE:
            made.append(
                Finding("loads.scales", "look",
                        f"The scales of {weighing.date or weighing.id} say another {far.words} than was predicted",
                        (Ref("weighing", weighing.id),), far.read, far.predicted, "kg",
                        f"{SURPRISE:g} sigma of prediction and scale together",
                        scenario=weighing.scenario)
            )  # fmt: skip
    return made


STUDY = Study(KEY, compared, needs=(axles.KEY,), judge=judge, codes=("loads.scales",))
