"""How long each click takes until the window shows it: every action of the menus that asks nothing, on the demo."""

import json
import os
import statistics
import sys
import tempfile
from pathlib import Path

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")

from PyQt6.QtWidgets import QApplication

from jobs import frozen
from pace import paced
from roomy_hull.desktop import application
from roomy_hull.formats.settings import Settings
from roomy_hull.session.asking import Nobody
from roomy_hull.session.beside import Beside
from roomy_hull.session.doing import do, registry
from roomy_hull.session.pages.table import STAGES
from roomy_hull.session.session import Session

ASKS = (
    "job.", "shop.", "help.", "vehicle.import", "vehicle.export", "unit.keep", "loads.copy", "loads.wish", "loads.write",
    "services.sign",
)  # fmt: skip
"""Beginnings of the ids of actions that ask for something, or end the program."""
ROUNDS = 5


def main() -> None:
    """Print the figures as JSON. [ms of processor]"""
    folder = Path(tempfile.mkdtemp())
    session = Session(frozen(), Settings(folder / "c", folder / "s"), whole=False)
    session.settle_beside(Beside())  # as the program does
    window = application.window_for(session)
    session.asker = Nobody()  # whatever an action asks, nobody answers: a bench has no hands
    window.resize(1280, 800)
    window.ground.turn_ms = 0
    window.show()
    window.settle()
    application.rest()  # as the program does soon after
    for stage in STAGES:
        for page in stage.pages or (None,):
            session.view.turn_to(stage.title, page.title) if page else session.view.set(
                stage=stage.title
            )
            QApplication.processEvents()
    while window.session.cutting.working:
        QApplication.processEvents()
    session.view.turn_to("Fit-out", "Drawing")
    QApplication.processEvents()
    found: dict[str, list[float]] = {}
    for _ in range(ROUNDS):
        for action in registry().all():
            if action.id.startswith(ASKS) or action.id.startswith("stage.cut"):
                continue
            session.selection.select("tools")
            QApplication.processEvents()
            if not action.enabled(session):
                continue
            with paced(found.setdefault(action.id, [])):
                do(session, action.id)
                QApplication.processEvents()
            if session.history.undo_words() and action.menu in (
                "Edit",
                "Unit",
                "Body",
                "Services",
                "Loads",
            ):
                session.undo()
                QApplication.processEvents()
        session.view.turn_to("Fit-out", "Drawing", opened=frozenset())
        QApplication.processEvents()
    session.history.mark_saved()
    window.close()
    rows = {key: statistics.median(times) for key, times in found.items()}
    flat = sorted(t for times in found.values() for t in times)
    json.dump(
        {
            "median": statistics.median(flat),
            "p95": statistics.quantiles(flat, n=20)[-1],
            "count": len(rows),
            "rows": dict(sorted(rows.items(), key=lambda r: -r[1])),
        },
        sys.stdout,
    )


if __name__ == "__main__":
    main()
