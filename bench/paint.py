"""How long one step of a drag takes in the window: new job value, verdict, overlays and paint."""

import json
import os
import statistics
import sys
import tempfile
from pathlib import Path

os.environ["QT_QPA_PLATFORM"] = "offscreen"

from edit import p95
from jobs import busy, crowded, frozen
from pace import paced
from roomy_hull.desktop import application
from roomy_hull.drawing.view import ELEVATION
from roomy_hull.formats.settings import Settings
from roomy_hull.job.edits import units as edits
from roomy_hull.job.model import Job
from roomy_hull.session.beside import Beside
from roomy_hull.session.session import Session


def drag(job: Job, key: str) -> dict[str, float]:
    """Hold a unit and move it to and fro, painting the whole window at every step. [ms]"""
    app = application.application()
    where = Path(tempfile.mkdtemp())
    session = Session(job, Settings(where, where), whole=False)
    session.settle_beside(Beside())  # as the program does
    window = application.window_for(session)
    window.ground.turn_ms = 0
    window.resize(1280, 800)
    window.show()
    window.settle()
    application.rest()  # as the program does soon after
    app.processEvents()
    ground = window.ground
    session.settle()
    thing = session.verdict.assembly.thing(key)
    assert thing is not None
    view = ELEVATION[session.look.station]
    h0, k0, h1, k1 = view.rect(thing.envelope)
    at = ground.layout_now().elevation.px(((h0 + h1) / 2, (k0 + k1) / 2))
    ground.drag.press(thing, view, ground.layout_now().elevation.mm(at.x(), at.y()), at)
    times: list[float] = []
    for n in range(220):
        to = at + type(at)(-6.0 * (n % 12) - 5, 0)
        with paced(times):
            ground.drag.move(ground.layout_now().elevation.mm(to.x(), to.y()), to)
            ground.update()
            app.processEvents()
    ground.drag.cancel()
    session.history.mark_saved()
    window.close()
    return {"median": statistics.median(times[20:]), "p95": p95(times[20:])}


def main() -> None:
    """Print the figures as JSON."""
    demo = frozen()
    clashing = edits.changed(crowded(60), "d1", u=0.0)
    found = {"demo": drag(demo, "sample-fridge"), "units_60": drag(clashing, "d1")}
    found |= {"busy": drag(busy(60), "d1"), "units_300": drag(crowded(300), "d1")}
    json.dump(found, sys.stdout)


if __name__ == "__main__":
    main()
