"""A pile of widgets of which one is shown; those beneath take no part in the layout."""

from PyQt6.QtCore import QCoreApplication, QEvent, QSize
from PyQt6.QtGui import QResizeEvent
from PyQt6.QtWidgets import QWidget

LEAST = QSize(360, 300)


def lay_out_now(*widgets: QWidget | None) -> None:
    """Give what is in some widgets its room now: a page turned to next is laid out once, without bars for a moment."""
    for widget in widgets:
        QCoreApplication.sendPostedEvents(widget, QEvent.Type.LayoutRequest.value)


class Pile(QWidget):
    """Widgets on top of each other, each as large as the pile; only the current one is visible.

    Qt's own stacked widget asks every page for its size at each change, hidden ones too; with all pages
    built, their wrapped texts take more time than drawing does.
    """

    def __init__(self) -> None:
        super().__init__()
        self._current: QWidget | None = None

    def add(self, widget: QWidget) -> None:
        """Put a widget in; the first one is shown."""
        widget.setParent(self)
        if self._current is None:
            self._current = widget
            widget.setGeometry(self.rect())
            widget.show()
        else:
            widget.hide()

    def current(self) -> QWidget | None:
        """The one that is shown."""
        return self._current

    def turn_to(self, widget: QWidget) -> None:
        """Show another of its widgets; the focus goes along if it was in the one before."""
        before = self._current
        if before is widget:
            return
        top = self.window()
        at = top.focusWidget() if top is not None else None
        had_focus = (
            before is not None and at is not None and (at is before or before.isAncestorOf(at))
        )
        self._current = widget
        widget.setGeometry(self.rect())
        widget.raise_()
        widget.show()
        if had_focus:
            kept = widget.focusWidget()
            (kept if kept is not None else widget).setFocus()
        if before is not None:
            before.hide()

    def sizeHint(self) -> QSize:
        """What the shown one wishes."""
        return self._current.sizeHint() if self._current is not None else LEAST

    def minimumSizeHint(self) -> QSize:
        """The same for every page, so that the window never grows by turning to one."""
        return LEAST

    def resizeEvent(self, _event: QResizeEvent | None) -> None:
        """Let the shown one fill the pile."""
        if self._current is not None:
            self._current.setGeometry(self.rect())
