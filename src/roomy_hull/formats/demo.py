"""The demo job that ships with the program."""

from importlib import resources

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
    data = resources.files("roomy_hull.resources").joinpath("demo", name).read_bytes()
    return loads(data, name)
