"""From a scene of strokes to a QPainter, in the theme's manner."""

import math

import msgspec
from PyQt6.QtCore import QLineF, QPointF, QRectF, Qt
from PyQt6.QtGui import QBrush, QColor, QPainter, QPainterPath, QPen

from roomy_hull.core.primitives import Disc, Lines, Outline, Panel, Point, Scene, Size, Words
from roomy_hull.core.units import System, show
from roomy_hull.desktop.lettering import lettering
from roomy_hull.desktop.theme import colour
from roomy_hull.drawing.corners import corners
from roomy_hull.drawing.style import Style, Theme

LEAST_NAME = 5
"""A name cut shorter than this is left out. [letters]"""


class Window(msgspec.Struct, frozen=True):
    """From millimetres to pixels: x = ox + h·s, y = oy - k·s."""

    ox: float
    oy: float
    s: float

    def px(self, p: Point) -> QPointF:
        """Carry a point of the scene onto the screen."""
        return QPointF(self.ox + p[0] * self.s, self.oy - p[1] * self.s)

    def xy(self, p: Point) -> Point:
        """Carry a point of the scene onto the screen, as plain figures."""
        return (self.ox + p[0] * self.s, self.oy - p[1] * self.s)

    def mm(self, x: float, y: float) -> Point:
        """Carry a point of the screen into the scene."""
        return ((x - self.ox) / self.s, (self.oy - y) / self.s)


def fit(rect: tuple[float, float, float, float], area: QRectF, *, bottom: bool = False) -> Window:
    """Find the window that shows a rectangle of the scene in an area of the screen.

    Args:
        rect: Rectangle of the scene. [mm]
        area: Area of the screen. [px]
        bottom: Whether the rectangle stands on the area's lower edge rather than in its middle.
    Returns: At true scale, the same for both directions.
    """
    h0, k0, h1, k1 = rect
    s = min(area.width() / max(h1 - h0, 1.0), area.height() / max(k1 - k0, 1.0))
    ox = area.center().x() - (h0 + h1) / 2 * s
    oy = area.bottom() + k0 * s if bottom else area.center().y() + (k0 + k1) / 2 * s
    return Window(ox, oy, s)


class ScenePainter:
    """Paints scenes; keeps pens and brushes by role.

    Args:
        system: ``metric`` or ``us``, for sizes.
    """

    def __init__(self, theme: Theme, system: System) -> None:
        self.theme = theme
        self.system = system
        self._pens: dict[str, tuple[QPen, QBrush, Style]] = {}

    def tools(self, role: str) -> tuple[QPen, QBrush, Style]:
        """Pen and brush of a role; an unknown role is a plain line, not a crash."""
        known = self._pens.get(role)
        if known is not None:
            return known
        style = self.theme.roles.get(role, Style(line=self.theme.ink))
        pen = QPen(Qt.PenStyle.NoPen)
        if style.line:
            pen = QPen(QColor(style.line), style.width)
            pen.setJoinStyle(Qt.PenJoinStyle.RoundJoin)
            pen.setCapStyle(Qt.PenCapStyle.FlatCap)
            if style.dash:
                pen.setDashPattern([float(d) for d in style.dash.split()])
        brush = QBrush(Qt.BrushStyle.NoBrush)
        if style.fill:
            pattern = {
                "": Qt.BrushStyle.SolidPattern, "cut": Qt.BrushStyle.SolidPattern,
                "cross": Qt.BrushStyle.DiagCrossPattern, "slant": Qt.BrushStyle.BDiagPattern,
            }[style.hatch]  # fmt: skip
            brush = QBrush(colour(style.fill, style.alpha), pattern)
        self._pens[role] = (pen, brush, style)
        return self._pens[role]

    def paint(self, painter: QPainter, scene: Scene, window: Window) -> None:
        """Paint a scene from back to front."""
        self._named: list[QRectF] = []
        for stroke in scene:
            if isinstance(stroke, Panel):
                self._panel(painter, stroke, window)
            elif isinstance(stroke, Outline):
                self._outline(painter, stroke, window)
            elif isinstance(stroke, Lines):
                painter.setPen(self.tools(stroke.role)[0])
                pieces = [QLineF(window.px(a), window.px(b)) for a, b in stroke.pieces]
                if pieces:
                    painter.drawLines(pieces[0], *pieces[1:])  # fmt: skip
            elif isinstance(stroke, Disc):
                pen, brush, _ = self.tools(stroke.role)
                painter.setPen(pen)
                painter.setBrush(brush)
                r = stroke.radius * window.s
                painter.drawEllipse(window.px(stroke.centre), r, r)
            elif isinstance(stroke, Words):
                self._words(painter, stroke, window)
            else:
                self._size(painter, stroke, window)

    def _panel(self, painter: QPainter, stroke: Panel, window: Window) -> None:
        pen, brush, style = self.tools(stroke.role)
        s = window.s
        box = QRectF(
            window.ox + stroke.h0 * s, window.oy - stroke.k1 * s,
            (stroke.h1 - stroke.h0) * s, (stroke.k1 - stroke.k0) * s,
        )  # fmt: skip
        painter.setPen(pen)
        painter.setBrush(brush)
        r = min(stroke.radius * s, box.width() / 2, box.height() / 2)
        if r < 0.6:
            painter.drawRect(box)
        else:
            painter.drawRoundedRect(box, r, r)
        if style.hatch == "cut":
            painter.fillRect(box, _hatch(style))

    def _outline(self, painter: QPainter, stroke: Outline, window: Window) -> None:
        pen, brush, style = self.tools(stroke.role)
        painter.setPen(pen)
        path = outline_path(stroke, window)
        if not stroke.closed:
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawPath(path)
            return
        painter.setBrush(brush)
        painter.drawPath(path)
        if style.hatch == "cut":
            painter.fillPath(path, _hatch(style))

    def _words(self, painter: QPainter, stroke: Words, window: Window) -> None:
        pen, _, style = self.tools(stroke.role)
        size = stroke.size if stroke.fixed else stroke.size * window.s
        if size < 5:
            return
        letters = lettering(round(size), style.bold)
        rows = [stroke.text]
        if stroke.fit:
            rows = letters.fitted(stroke.text, stroke.fit * window.s)
            if stroke.most and _tells_nothing(stroke.text, rows):
                return
            rows = rows[: stroke.most] if stroke.most else rows
        at = window.px(stroke.at) + QPointF(0.0, stroke.below)
        painter.setPen(pen)
        if stroke.upright:
            painter.save()
            painter.translate(at)
            painter.rotate(-90)
            at = QPointF(0.0, 0.0)
        top = at.y() - (len(rows) - 1) * letters.height / 2
        if stroke.role == "unit name":
            if any(len(row) < LEAST_NAME and row != stroke.text and "…" in row for row in rows):
                return  # a letter or two tell nothing
            wide = max(letters.width(row) for row in rows) if rows else 0.0
            room = QRectF(
                at.x() - wide / 2, top - letters.height / 2, wide, letters.height * len(rows)
            )
            if any(room.intersects(other) for other in self._named):
                return  # the one on top is named; pointing at the other names it
            self._named.append(room)
        for n, row in enumerate(rows):
            width = letters.width(row)
            shift = {"centre": -width / 2, "left": 0.0, "right": -width}[stroke.anchor]
            y = top + n * letters.height + letters.capital / 2
            letters.draw(painter, QPointF(at.x() + shift, y), row)
        if stroke.upright:
            painter.restore()

    def _size(self, painter: QPainter, stroke: Size, window: Window) -> None:
        pen, _, style = self.tools(stroke.role)
        a, b = window.px(stroke.a), window.px(stroke.b)
        length = math.dist(stroke.a, stroke.b)
        text = stroke.text or show(length, "length", self.system, unit=False)
        painter.setPen(pen)
        painter.drawLine(a, b)
        painter.setBrush(QColor(style.line))
        long = math.hypot(b.x() - a.x(), b.y() - a.y())
        if long > 18:
            _arrow(painter, b, a)
            _arrow(painter, a, b)
        else:
            for p in (a, b):
                painter.drawEllipse(p, 2, 2)
        letters = lettering(13, True)
        box = letters.box(text).adjusted(-4, -1, 4, 1)
        middle = QPointF((a.x() + b.x()) / 2, (a.y() + b.y()) / 2)
        upright = abs(b.y() - a.y()) > abs(b.x() - a.x())
        turned = upright and style.turn and long > box.width() + 22
        if not upright and long < box.width() + 22:
            middle.setY(middle.y() + (box.height() / 2 + 5) * (1 if style.turn else -1))
        elif upright and not turned and long < box.height() + 16:
            middle.setX(
                middle.x() - box.width() / 2 - 6 if style.turn else middle.x() + box.width() / 2 + 6
            )
        painter.save()
        painter.translate(middle)
        if turned:
            painter.rotate(-90)
        box.moveCenter(QPointF(0, 0))
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(colour(self.theme.paper, 225))
        painter.drawRoundedRect(box, 3, 3)
        painter.setPen(QColor(style.line))
        letters.draw(painter, box.topLeft() - letters.box(text).topLeft() + QPointF(4, 1), text)
        painter.restore()


def _tells_nothing(text: str, rows: list[str]) -> bool:
    """Whether so little is left of some words that they would only be a smudge: not even the first word stands."""
    return not rows or not rows[0].startswith(text.split(maxsplit=1)[0])


def _hatch(style: Style) -> QBrush:
    """The hatch of cut aluminium."""
    return QBrush(colour(style.line, 150), Qt.BrushStyle.BDiagPattern)


_painters: dict[tuple[str, str], "ScenePainter"] = {}


def painter_for(theme: Theme, system: System) -> ScenePainter:
    """The painter of a theme, with its pens and brushes."""
    key = (theme.name, system)
    if key not in _painters:
        _painters[key] = ScenePainter(theme, system)
    return _painters[key]


def _arrow(painter: QPainter, tail: QPointF, head: QPointF) -> None:
    """Fill an arrow head."""
    angle = math.atan2(head.y() - tail.y(), head.x() - tail.x())
    path = QPainterPath(head)
    for turn in (0.38, -0.38):
        path.lineTo(head.x() - 8 * math.cos(angle + turn), head.y() - 8 * math.sin(angle + turn))
    path.closeSubpath()
    painter.drawPath(path)


def outline_path(stroke: Outline, window: Window) -> QPainterPath:
    """Build a stroke's path on the screen, its corners rounded."""
    path = QPainterPath()
    if len(stroke.points) < 2:
        return path
    for n, (start, corner, stop) in enumerate(corners(stroke, window.xy, window.s)):
        (path.lineTo if n else path.moveTo)(*start)
        if start is not stop:
            path.quadTo(*corner, *stop)
    if stroke.closed:
        path.closeSubpath()
    return path
