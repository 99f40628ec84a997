"""The walkabout: a small plan of the vehicle with the places to stand."""

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt
from PyQt6.QtGui import QColor, QMouseEvent, QPainter, QPaintEvent, QPixmap, QPolygonF
from PyQt6.QtWidgets import QWidget

from roomy_hull.desktop.following import follow
from roomy_hull.desktop.theme import colour, font
from roomy_hull.drawing.style import Theme
from roomy_hull.drawing.view import Station
from roomy_hull.session.session import Session

WORDS: dict[str, str] = {
    "left": "Left side", "right": "Right side", "rear": "From behind", "front": "From the front",
    "above": "From above", "underneath": "From underneath",
}  # fmt: skip


class Walkabout(QWidget):
    """Click a place to stand there; `[` and `]` step round."""

    def __init__(self, session: Session, theme: Theme, parent: QWidget) -> None:
        super().__init__(parent)
        self._session, self.theme = session, theme
        self._picture: tuple[tuple[str, Station, float], QPixmap] | None = (
            None  # kept by theme, place, density
        )
        self.resize(self.sizeHint())
        self.setAccessibleName("Walkabout: where you stand")
        self.setToolTip("Where you stand. Click a place, or step round with [ and ]")
        follow(self, self.update, session.view.changed)

    def sizeHint(self) -> QSize:
        """The size."""
        return QSize(176, 80)

    def places(self) -> dict[Station, QPointF]:
        """Where each place to stand is drawn. [px]"""
        return {
            "front": QPointF(13, 40), "rear": QPointF(125, 40), "left": QPointF(72, 69),
            "right": QPointF(72, 11), "above": QPointF(157, 24), "underneath": QPointF(157, 57),
        }  # fmt: skip

    def paintEvent(self, _event: QPaintEvent | None) -> None:
        """Draw the plan and the places: once for each place where one stands, for it is painted with the ground."""
        key = (self.theme.name, self._session.look.station, self.devicePixelRatioF())
        if self._picture is None or self._picture[0] != key:
            self._picture = (key, self._drawn())
        QPainter(self).drawPixmap(0, 0, self._picture[1])

    def _drawn(self) -> QPixmap:
        ratio = self.devicePixelRatioF()
        found = QPixmap(self.size() * ratio)
        found.setDevicePixelRatio(ratio)
        found.fill(Qt.GlobalColor.transparent)
        p = QPainter(found)
        p.setRenderHint(QPainter.RenderHint.Antialiasing)
        t = self.theme
        p.setPen(QColor(t.rule))
        p.setBrush(colour(t.panel, 235))
        p.drawRoundedRect(QRectF(0.5, 0.5, self.width() - 1, self.height() - 1), 6, 6)
        p.setPen(QColor(t.faint))
        p.setBrush(QColor(t.window))
        p.drawPolygon(QPolygonF([QPointF(28, 32), QPointF(34, 25), QPointF(58, 25), QPointF(58, 55),
                                 QPointF(34, 55), QPointF(28, 48)]))  # fmt: skip
        p.drawRect(QRectF(60, 24, 49, 32))
        p.setFont(font(10))
        for station, at in self.places().items():
            here = station == self._session.look.station
            p.setPen(QColor(t.accent if here else t.faint))
            p.setBrush(QColor(t.accent) if here else QColor(t.panel))
            p.drawEllipse(at, 9, 9)
            p.setPen(QColor(t.accent_ink if here else t.ink))
            p.drawText(QRectF(at.x() - 12, at.y() - 9, 24, 18), Qt.AlignmentFlag.AlignCenter,
                       {"left": "L", "right": "R", "rear": "B", "front": "F", "above": "▲",
                        "underneath": "▼"}[station])  # fmt: skip
        p.end()
        return found

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        """Stand at the place clicked."""
        if event is None:
            return
        for station, at in self.places().items():
            if (event.position() - at).manhattanLength() < 16:
                self._session.view.set(station=station)
                return
