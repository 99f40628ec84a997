"""How long a change of the tray's length takes until the whole window is up to date and painted."""

import json
import os
import statistics
import sys
import tempfile
from pathlib import Path

os.environ["QT_QPA_PLATFORM"] = "offscreen"

from edit import p95
from jobs import frozen
from pace import paced
from roomy_hull.desktop import application
from roomy_hull.formats.settings import Settings
from roomy_hull.session.actions import editing
from roomy_hull.session.beside import Beside
from roomy_hull.session.session import Session


def main() -> None:
    """Print the figures as JSON."""
    app = application.application()
    where = Path(tempfile.mkdtemp())
    session = Session(frozen(), Settings(where, where), whole=False)
    session.settle_beside(Beside())  # as the program does
    window = application.window_for(session)
    window.resize(1280, 800)
    window.show()
    window.settle()
    application.rest()  # as the program does soon after
    window.session.view.set(stage="Body", station="left")
    app.processEvents()
    times: list[float] = []
    for n in range(120):
        with paced(times):
            editing.set_size(window.session, path="body.tray.length", value=2000.0 + 10 * (n % 20))
            app.processEvents()
    window.session.history.mark_saved()
    window.close()
    json.dump({"median": statistics.median(times[10:]), "p95": p95(times[10:])}, sys.stdout)


if __name__ == "__main__":
    main()
