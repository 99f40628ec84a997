"""Spring options: every way of carrying the load, side by side in every scenario."""

from roomy_hull.assembly.springs import SpringStudy, compare
from roomy_hull.assembly.study import Context, Study, StudyKey
from roomy_hull.studies.loads import axles

KEY = StudyKey["SpringStudy"]("springs")


def study(context: Context) -> SpringStudy:
    """Compare the options in every scenario.

    Returns: Stance, pressure and bounce by option and scenario. [mm, kPa, Hz]
    """
    loads = context.of(axles.KEY)
    rows = tuple((s.id, s.front.value, s.rear.value) for s in loads.scenarios)
    return compare(context.assembly.job.vehicle, rows)


STUDY = Study(KEY, study, needs=(axles.KEY,))
