"""How well the vehicle's sizes are known: one sigma of each that its survey determines."""

from roomy_hull.assembly.study import Context, Study
from roomy_hull.core.errors import InputError
from roomy_hull.job.survey import Survey
from roomy_hull.planning.survey import adjust

KEY = "measured"


def sigmas(survey: Survey, kind: str) -> dict[str, float]:
    """One sigma of every size that some readings determine.

    Args:
        survey: The readings. [mm]
    Returns: By measure; empty where there are no readings, or they make no figure. [mm]
    """
    if not survey.readings:
        return {}
    try:
        found = adjust(survey, kind)
    except InputError:
        return {}
    return {key: size.sigma for key, size in found.sizes.items()}


def run(context: Context) -> dict[str, float]:
    """Ask the job's survey."""
    job, before = context.assembly.job, context.before
    if before is not None and before.assembly.job.survey is job.survey:
        old: dict[str, float] | None = context.old(KEY)
        if old is not None and before.assembly.job.vehicle.kind == job.vehicle.kind:
            return old
    return sigmas(job.survey, job.vehicle.kind)


STUDY = Study(KEY, run)
"""What the survey says of the vehicle's sizes."""
