"""The demo job that ships with the program."""

from roomy_hull.core.shipped import shipped
from roomy_hull.formats.jobfile import loads
from roomy_hull.job.model import Job


def demo_job() -> Job:
    """Read the demo job, the invented Brackwater Bird Survey.

    Returns
    -------
    Job
        The job.
    """
    name = "brackwater.hull.json"
    return loads(shipped("demo", name), name)
