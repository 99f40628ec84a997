"""One run in a real window: the program itself, on a virtual X display, until it is closed."""

import os
import shutil
import subprocess
import sys
from pathlib import Path

import pytest
from PyQt6.QtGui import QImage

RUN = """
import sys
from PyQt6.QtCore import QTimer
from roomy_hull import __main__
from roomy_hull.desktop import application

picture, sys.argv = sys.argv[1], ["roomy-hull", "open", "demo"]
built = application.window_for

def watched(session):
    window = built(session)
    QTimer.singleShot(500, lambda: (window.grab().save(picture), window.close()))
    return window

application.window_for = watched
sys.exit(__main__.main())
"""


@pytest.mark.display
@pytest.mark.skipif(shutil.which("xvfb-run") is None, reason="xvfb is not installed")
def test_the_program_opens_a_real_window_and_closes(tmp_path: Path) -> None:
    env = {k: v for k, v in os.environ.items() if k not in ("QT_QPA_PLATFORM", "DISPLAY")}
    env |= {"XDG_CONFIG_HOME": str(tmp_path / "c"), "XDG_STATE_HOME": str(tmp_path / "s")}
    picture = tmp_path / "window.png"
    done = subprocess.run(
        ["xvfb-run", "--auto-servernum", "--server-args=-screen 0 1280x900x24",
         sys.executable, "-c", RUN, str(picture)],
        capture_output=True, text=True, env=env, timeout=120,
    )  # fmt: skip
    assert done.returncode == 0, done.stderr
    assert "Traceback" not in done.stderr
    image = QImage(str(picture))
    assert (image.width(), image.height()) == (1280, 800)
    shades = {image.pixel(x, y) for x in range(0, 1280, 16) for y in range(0, 800, 16)}
    assert len(shades) > 25
