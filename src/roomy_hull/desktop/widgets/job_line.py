"""The job line: the stages in the order of the work, with what each has found."""

import msgspec
from PyQt6.QtCore import QPointF, QRectF, QSize, Qt
from PyQt6.QtGui import QColor, QKeyEvent, QMouseEvent, QPainter, QPaintEvent
from PyQt6.QtWidgets import QSizePolicy, QWidget

from roomy_hull.desktop.following import follow
from roomy_hull.desktop.theme import colour, font
from roomy_hull.desktop.widgets.shapes import draw_severity
from roomy_hull.drawing.style import Theme
from roomy_hull.session.pages.table import STAGES, Stage
from roomy_hull.session.session import Session


class JobLine(QWidget):
    """A line of stations down the left edge; click one, or use the arrow keys."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self._session, self.theme = session, theme
        self.setFixedWidth(98)
        self.setSizePolicy(QSizePolicy.Policy.Fixed, QSizePolicy.Policy.Expanding)
        self.setFocusPolicy(Qt.FocusPolicy.TabFocus)
        self.setAccessibleName("Job line: stages of the work")
        self._tally = session.sight.tally
        follow(self, self._counted, session.changed)
        follow(self, self.update, session.view.changed)

    def _counted(self) -> None:
        """Paint again where the counts changed; a drag makes many verdicts with the same ones."""
        if self._session.sight.tally != self._tally:
            self._tally = self._session.sight.tally
            self.update()

    def sizeHint(self) -> QSize:
        """The usual size."""
        return QSize(98, 560)

    def _row(self, n: int) -> QRectF:
        """The place of one stage."""
        step = min(72.0, (self.height() - 20) / len(STAGES))
        return QRectF(0, 10 + n * step, self.width(), step)

    def paintEvent(self, _event: QPaintEvent | None) -> None:
        """Draw the line, its stations, and the counts."""
        p = QPainter(self)
        p.setRenderHint(QPainter.RenderHint.Antialiasing)
        t = self.theme
        p.fillRect(self.rect(), QColor(t.window))
        x = 17.0
        first, last = self._row(0).center().y(), self._row(len(STAGES) - 1).center().y()
        p.setPen(QColor(t.rule))
        p.drawLine(QPointF(x, first), QPointF(x, last))
        for n, stage in enumerate(STAGES):
            self._draw_stage(p, n, stage, x)
        if self.hasFocus():
            p.setPen(QColor(t.accent))
            p.setBrush(Qt.BrushStyle.NoBrush)
            p.drawRect(self.rect().adjusted(1, 1, -2, -2))

    def _draw_stage(self, p: QPainter, n: int, stage: Stage, x: float) -> None:
        name = stage.title
        t, row = self.theme, self._row(n)
        here = self._session.look.stage == name
        if here:
            p.fillRect(row.adjusted(0, 3, 0, -3), colour(t.accent))
        ink = QColor(t.accent_ink if here else t.ink)
        p.setPen(ink)
        p.setBrush(ink)
        p.drawEllipse(QPointF(x, row.center().y()), 5, 5)
        p.setFont(font(13, bold=here))
        stops = self._session.sight.count("stop", name)
        looks = self._session.sight.count("look", name)
        lift = 8 if stops or looks else 0
        p.drawText(
            row.adjusted(30, -lift, -2, -lift),
            Qt.AlignmentFlag.AlignVCenter | Qt.AlignmentFlag.AlignLeft,
            name,
        )
        left = 36.0
        p.setFont(font(12, bold=True))
        shown = t if not here else _on_accent(t)
        for severity, number in (("stop", stops), ("look", looks)):
            if number:
                y = row.center().y() + 12
                draw_severity(p, severity, QPointF(left, y), 12, shown)
                p.setPen(ink)
                p.drawText(QPointF(left + 10, y + 4.5), str(number))
                left += 21 + p.fontMetrics().horizontalAdvance(str(number))

    def _go(self, n: int) -> None:
        self._session.view.set(stage=STAGES[n % len(STAGES)].title)

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        """Go to the stage clicked."""
        if event is not None:
            for n in range(len(STAGES)):
                if self._row(n).contains(event.position()):
                    self._go(n)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Step with the arrow keys."""
        if event is None:
            return
        at = [s.title for s in STAGES].index(self._session.look.stage)
        if event.key() == Qt.Key.Key_Down:
            self._go(at + 1)
        elif event.key() == Qt.Key.Key_Up:
            self._go(at - 1)
        else:
            super().keyPressEvent(event)


def _on_accent(theme: Theme) -> Theme:
    """The theme's weights in the colour that reads on the accent."""
    return msgspec.structs.replace(
        theme,
        stop=theme.accent_ink,
        look=theme.accent_ink,
        note=theme.accent_ink,
        panel=theme.accent,
    )
