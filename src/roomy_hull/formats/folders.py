"""The user's folders, as the desktop standard names them.

XDG Base Directory Specification 0.8; `tests/formats/test_folders.py` holds it against a library for it, which
by itself would take as long to read as a twentieth of the start.
"""

import os
from pathlib import Path

NAME = "roomy-hull"


def _base(variable: str, usual: str) -> Path:
    """The folder that a variable names, where it names one as the standard wants it: from the root on."""
    named = os.environ.get(variable, "").strip()
    return Path(named) if os.path.isabs(named) else home() / usual


def home() -> Path:
    """Name the user's own folder; one among the passing files where the machine knows of none."""
    found = os.path.expanduser("~")
    return Path(found) if os.path.isabs(found) else Path(f"/tmp/roomy-hull-{os.getuid()}")  # ruff: ignore[hardcoded-temp-file]  # better there than nowhere


def config() -> Path:
    """Name the folder of preferences."""
    return _base("XDG_CONFIG_HOME", ".config") / NAME


def state() -> Path:
    """Name the folder of work set aside."""
    return _base("XDG_STATE_HOME", ".local/state") / NAME


def data(name: str) -> Path:
    """Name one of the folders of the user's own things."""
    return _base("XDG_DATA_HOME", ".local/share") / NAME / name
