"""Many random edits with undo and redo: does memory stay flat?"""

import gc
import json
import os
import random
import sys
import tempfile
from pathlib import Path

import psutil

from jobs import frozen
from roomy_hull.core.errors import UserError
from roomy_hull.formats.settings import Settings
from roomy_hull.job.carried import Carried
from roomy_hull.job.edits import layouts
from roomy_hull.job.edits import units as edits
from roomy_hull.job.model import Job
from roomy_hull.kinds.placed import Placed
from roomy_hull.session.beside import Beside
from roomy_hull.session.session import Session

EDITS = 800


def chance_edit(job: Job, chance: random.Random) -> Job:  # ruff: ignore[too-many-return-statements]  # one return for each kind of change
    """Make one edit of any kind; a refused one changes nothing."""
    things: tuple[Placed | Carried, ...] = (*job.units, *job.carried)
    thing = chance.choice(things)
    try:  # ruff: ignore[too-many-statements-in-try-clause]  # one return for each kind of change
        match chance.randrange(6):
            case 0:
                return edits.changed(
                    job, thing.id, height=thing.height + chance.choice((-5.0, 5.0))
                )
            case 1:
                return edits.mirrored(job, thing.id)
            case 2 if len(job.units) < 40:
                return edits.added(job, thing)
            case 3 if len(job.units) > 15:
                return edits.removed(job, chance.choice(job.units).id)
            case 4 if thing in job.carried:
                return edits.changed(job, thing.id, hand=chance.choice(("left", "right")))
            case _:
                return layouts.shifted(job, (thing.id,), chance.choice((-25.0, 25.0)), 0.0, 0.0)
    except UserError:
        return job


def used() -> float:
    """The memory in use after a collection. [MB]"""
    gc.collect()
    return float(psutil.Process(os.getpid()).memory_info().rss) / 1e6


def main() -> None:
    """Print the figures as JSON."""
    chance = random.Random(3)
    where = Path(tempfile.mkdtemp())
    session = Session(frozen(), Settings(where, where))
    session.settle_beside(Beside())  # as a window does
    early = 0.0
    for n in range(EDITS):
        session.edit("soak", chance_edit(session.job, chance))
        for _ in range(chance.randrange(3)):
            session.undo()
        if chance.random() < 0.5:
            session.redo()
        session.pump()
        if n == EDITS // 4:
            early = used()
    while session.beside is not None and session.pump():
        session.beside.wait()
    late = used()
    if session.beside is not None:
        session.beside.close()
    found = {"edits": EDITS, "early_mb": early, "late_mb": late, "growth_mb": late - early}
    json.dump(found, sys.stdout)


if __name__ == "__main__":
    main()
