"""Time from the process's start to a painted window, and peak memory: demo against empty window."""

import compileall
import json
import os
import statistics
import subprocess
import sys
import tempfile
import time

EMPTY = """
import time
from PyQt6.QtCore import QTimer
from PyQt6.QtWidgets import QApplication, QWidget
class Window(QWidget):
    def paintEvent(self, event):
        print(time.monotonic())
        QTimer.singleShot(0, app.quit)
app = QApplication(["empty"])
window = Window()
window.resize(1280, 800)
window.show()
app.exec()
"""

DEMO = """
import resource, sys, time
from roomy_hull import __main__
from PyQt6.QtCore import QTimer
from PyQt6.QtWidgets import QApplication
from roomy_hull.desktop.ground.ground import Ground
painted = Ground.paintEvent
def once(self, event):
    painted(self, event)
    if Ground.paintEvent is once:
        print(time.monotonic())
        Ground.paintEvent = painted
        QTimer.singleShot(0, watch)
def watch():
    whole = [w for w in QApplication.topLevelWidgets() if getattr(w, "settled", False)]
    if not whole:
        QTimer.singleShot(1, watch)
        return
    whole[0].repaint()
    print(time.monotonic())
    rest(whole[0])
def rest(window):
    if window.session.sight.held or not window.session.sight.complete:
        QTimer.singleShot(1, lambda: rest(window))
        return
    window.repaint()
    print(time.monotonic())
    QTimer.singleShot(300, QApplication.quit)
Ground.paintEvent = once
sys.argv = ["roomy-hull", "open", "demo"]
__main__.main()
print(resource.getrusage(resource.RUSAGE_SELF).ru_maxrss)
"""

WORK = """
import resource, tempfile
from pathlib import Path
from roomy_hull.desktop import shots
shots.write(None, Path(tempfile.mkdtemp()))
print(resource.getrusage(resource.RUSAGE_SELF).ru_maxrss)
"""


def once(code: str, platform: str) -> tuple[float, float, float, float]:
    """Run one process; give the times until it was painted, complete and settled [s], and its memory [MB]."""
    with tempfile.TemporaryDirectory() as own:  # nothing of an earlier run asks to be recovered
        env = {
            **os.environ,
            "QT_QPA_PLATFORM": platform,
            "QT_LOGGING_RULES": "*=false",
            "XDG_CONFIG_HOME": own,
            "XDG_STATE_HOME": own,
        }
        start = time.monotonic()
        done = subprocess.run(
            [sys.executable, "-c", code], env=env, capture_output=True, text=True, check=True
        )
    said = done.stdout.split()
    times = [float(t) - start for t in said[:3]]
    return times[0], times[1 % len(times)], times[2 % len(times)], float(said[-1]) / 1024


def compare(platform: str) -> dict[str, float]:
    """Start both in turn, seven times after a warm-up."""
    for code in (EMPTY, DEMO):
        once(code, platform)
    empty, demo, complete, settled, memory = [], [], [], [], 0.0
    for _ in range(7):
        empty.append(once(EMPTY, platform)[0])
        seconds, whole, rest, peak = once(DEMO, platform)
        demo.append(seconds)
        complete.append(whole)
        settled.append(rest)
        memory = max(memory, peak)
    return {
        "empty": statistics.median(empty),
        "demo": statistics.median(demo),
        "complete": statistics.median(complete),
        "complete_ratio": statistics.median(c / e for c, e in zip(complete, empty, strict=True)),
        "settled": statistics.median(settled),
        "settled_ratio": statistics.median(s / e for s, e in zip(settled, empty, strict=True)),
        "ratio": statistics.median(d / e for d, e in zip(demo, empty, strict=True)),
        "memory_mb": memory,
    }


def main() -> None:
    """Print the figures as JSON; the real window needs a display (`bench/run` starts one)."""
    compileall.compile_dir("src", quiet=1)
    found: dict[str, object] = {"offscreen": compare("offscreen")}
    if os.environ.get("DISPLAY"):
        found["window"] = compare("xcb")
    found["memory_all_views_mb"] = once("print(0)\n" + WORK, "offscreen")[3]
    json.dump(found, sys.stdout)


if __name__ == "__main__":
    main()
