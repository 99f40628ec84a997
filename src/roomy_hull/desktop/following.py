"""Following: a widget listens to the session for as long as Qt has it."""

from collections.abc import Callable
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from PyQt6.QtWidgets import QWidget

    from roomy_hull.core.signal import Signal


def follow(widget: "QWidget", listener: Callable[[], None], *signals: "Signal") -> None:
    """Have a listener called on some signals until a widget is destroyed.

    A window's objects go when Qt says so, not when the last reference does: without this an edit made
    after a window was closed would reach widgets that are gone.
    """
    for signal in signals:
        widget.destroyed.connect(signal.connect(listener).end)
