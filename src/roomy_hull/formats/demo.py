"""The demo jobs that ship with the program, all of them invented."""

from roomy_hull.core.errors import JobFileError
from roomy_hull.core.shipped import shipped
from roomy_hull.formats.jobfile import loads
from roomy_hull.job.model import Job

DEMOS = {
    "brackwater": "Brackwater Bird Survey, a dual cab with tray and canopy",
    "lowfold": "Lowfold Piano Tuning, a pickup with a topper",
    "tarn": "Tarn Seed Bank, a wagon",
    "reedholm": "Reedholm Fen Works, a flatbed with a slide-in camper and side boxes",
}
"""Name of each demo job's file, and what it shows. The first is *the* demo job."""


def demo_job(name: str = "brackwater") -> Job:
    """Read a demo job.

    Args:
        name: A key of `DEMOS`.
    Raises:
        JobFileError: There is no such demo job; the message lists those there are.
    """
    if name not in DEMOS:
        raise JobFileError(
            f"there is no demo job '{name}'", "", f"Choose one of {', '.join(DEMOS)}."
        )
    file = f"{name}.hull.json"
    return loads(shipped("demo", file), file)
