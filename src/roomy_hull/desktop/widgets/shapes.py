"""The shapes of the three weights: a stop is an eight-sided block, a look a triangle, a note a dot."""

import math

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QColor, QPainter, QPolygonF

from roomy_hull.drawing.style import Theme


def draw_severity(
    painter: QPainter, severity: str, centre: QPointF, size: float, theme: Theme
) -> None:
    """Draw a severity's shape.

    Args:
        severity: ``stop``, ``look`` or ``note``.
        centre: Its middle. [px]
        size: Its width. [px]
    """
    ink = QColor(theme.severity(severity))
    r = size / 2
    painter.save()
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    painter.setPen(Qt.PenStyle.NoPen)
    painter.setBrush(ink)
    if severity == "stop":
        painter.drawPolygon(QPolygonF([
            QPointF(centre.x() + r * math.cos(math.radians(a)),
                    centre.y() + r * math.sin(math.radians(a)))
            for a in range(22, 382, 45)
        ]))  # fmt: skip
        painter.setBrush(QColor(theme.panel))
        painter.drawRect(QRectF(centre.x() - r * 0.55, centre.y() - r * 0.17, r * 1.1, r * 0.34))
    elif severity == "look":
        painter.drawPolygon(QPolygonF([
            QPointF(centre.x(), centre.y() - r), QPointF(centre.x() + r, centre.y() + r * 0.85),
            QPointF(centre.x() - r, centre.y() + r * 0.85),
        ]))  # fmt: skip
    else:
        painter.drawEllipse(centre, r * 0.6, r * 0.6)
    painter.restore()
