"""Is there a display to open a window on? Asked before Qt, which ends the program where there is none."""

import os
import re
from collections.abc import Mapping

from roomy_hull.core.errors import UserError

REMEDY = "Start it on a desktop, or over a connection that forwards windows; check, cut and sheet need no display."


def check(env: Mapping[str, str]) -> None:
    """Refuse to open a window where there is nothing to open it on.

    Raises:
        UserError: There is no display, or it does not answer.
    """
    if env.get("QT_QPA_PLATFORM", "") not in ("", "xcb", "wayland"):
        return
    display, wayland = env.get("DISPLAY", ""), env.get("WAYLAND_DISPLAY", "")
    if not display and not wayland:
        raise UserError("there is no display to open a window on", "", REMEDY)
    if wayland and os.path.exists(os.path.join(env.get("XDG_RUNTIME_DIR", "/run"), wayland)):
        return
    local = re.fullmatch(r"(?:unix)?:(\d+)(?:\.\d+)?", display)
    if local and not _answers(int(local[1])):
        raise UserError(f"the display {display} does not answer", "", REMEDY)
    if not display:
        raise UserError(f"the display {wayland} does not answer", "", REMEDY)


def _answers(number: int) -> bool:
    """Say whether a display of this machine takes a connection, by its file or by its name alone."""
    import socket  # ruff: ignore[import-outside-top-level]  # only where a window is wanted

    for name in (f"/tmp/.X11-unix/X{number}", f"\0/tmp/.X11-unix/X{number}"):  # ruff: ignore[hardcoded-temp-file]  # its standard place
        with socket.socket(socket.AF_UNIX, socket.SOCK_STREAM) as one:
            one.settimeout(2)
            try:
                one.connect(name)
            except OSError:
                continue
            return True
    return False
