"""The page Solid: the job in the round, turned with the mouse, with things open or closed."""

import math
from pathlib import Path

from PyQt6.QtCore import QPointF, QRectF, Qt, QTimer
from PyQt6.QtGui import (
    QBrush,
    QColor,
    QKeyEvent,
    QMouseEvent,
    QPainter,
    QPainterPath,
    QPaintEvent,
    QPen,
    QPolygonF,
    QWheelEvent,
)
from PyQt6.QtWidgets import QFileDialog, QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from roomy_hull.core.errors import UserError
from roomy_hull.desktop.following import follow
from roomy_hull.desktop.text import Label
from roomy_hull.desktop.theme import font
from roomy_hull.drawing.scenes.on_faces import Drawn
from roomy_hull.drawing.scenes.partition import Face, Node, partition
from roomy_hull.drawing.scenes.solid import Item, bounds, faces, flattened, items, seen
from roomy_hull.drawing.style import Theme
from roomy_hull.formats import solid3d
from roomy_hull.session.actions import editing
from roomy_hull.session.doing import do
from roomy_hull.session.pages.services.runs import RunsModel
from roomy_hull.session.session import Session
from roomy_hull.session.worn import in_setup

SETTLE_MS = 160
"""After a change, so long is waited before the picture is built anew."""
LIGHT = (0.45, -0.35, 0.82)


def shaded(text: str, shade: float, solid: float) -> QColor:
    """A colour in less light, and as solid as it looks (0 to 1)."""
    base = QColor(text)
    return QColor.fromRgbF(base.redF() * shade, base.greenF() * shade, base.blueF() * shade, solid)


class SolidView(QWidget):
    """The picture. Drag to turn, wheel to come nearer, double-click to open or close."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self._session, self.theme = session, theme
        self.yaw, self.pitch, self.zoom = 38.0, 24.0, 1.0
        self._from: QPointF | None = None
        self._turning = False
        self._items: list[Item] = []
        self._shades: list[Item] = []
        self._root: Node | None = None
        self._built: tuple[object, frozenset[str]] | None = None
        self._hits: list[tuple[QPolygonF, str]] = []
        self._flat: dict[int, list[QPolygonF]] = {}
        self._place = (0.0, 0.0, 1.0)
        self._model = RunsModel(session)
        self.runs = False
        self._wait = QTimer(self)
        self._wait.setSingleShot(True)
        self._wait.setInterval(SETTLE_MS)
        self._wait.timeout.connect(self._settled)
        self.setMinimumSize(360, 300)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName("Solid: the job in the round")
        follow(self, self._changed, session.changed, session.view.changed)
        follow(self, self.update, session.selection.changed)

    def _changed(self) -> None:
        if self.isVisible():
            self._wait.start()

    def _settled(self) -> None:
        # Left meanwhile, it is built when it is seen again.
        if self.isVisible():
            self.build()

    def build(self) -> None:
        """Cut the faces into their order anew, where job or openings changed."""
        assembly, opened = in_setup(self._session).assembly, self._session.look.opened
        if self._built is None or self._built[0] is not assembly or self._built[1] != opened:
            found = items(assembly, opened)
            # Under everything, the shadow needs no place in the order.
            self._shades = [i for i in found if i.role == "shadow"]
            self._items = [i for i in found if i.role != "shadow"]
            self._root = partition(faces(self._items))
            self._built = (assembly, opened)
        self.update()

    def showEvent(self, _event: object) -> None:
        """Build on being shown."""
        self.build()

    def _fill(self, role: str) -> str:
        """The colour of what is drawn in a role: the job's own, or the theme's."""
        return self._session.job.body.finish.of(role) or self.theme.roles[role].fill

    def paintEvent(self, _event: QPaintEvent | None) -> None:
        """Paint the faces from the far side to the near one."""
        p = QPainter(self)
        p.fillRect(self.rect(), QColor(self.theme.paper))
        if self._root is None:
            return
        # No smoothing while it turns: that is what costs.
        p.setRenderHint(QPainter.RenderHint.Antialiasing, not self._turning)
        (h0, k0), scale = self._framing()
        self._hits = []
        selected = set(self._session.selection.ids())
        edge = QPen(QColor(self.theme.roles["front"].line))
        edge.setWidthF(0.8)
        chosen = QPen(QColor(self.theme.accent))
        chosen.setWidthF(2.0)
        h0, k0 = self.width() / 2 - h0 * scale, self.height() / 2 + k0 * scale
        self._place, self._flat = (h0, k0, scale), {}
        self._paint_shadow(p)
        for one in seen(self._root, self.yaw, self.pitch, LIGHT):
            face = one.face
            item = self._items[face.item]
            if one.facing <= 0 and item.solid >= 1:
                continue
            points = [QPointF(h0 + h * scale, k0 - k * scale) for h, k in one.corners]
            shade = 0.62 + 0.38 * max(0.0, one.lit)
            fill = shaded(self._fill(item.role), shade, item.solid)
            # A line of the fill's own colour closes the hair between two parts of a cut face.
            p.setPen(QPen(fill, 1.0) if item.solid >= 1 else Qt.PenStyle.NoPen)
            p.setBrush(QBrush(fill))
            shape = QPolygonF(points)
            p.drawPolygon(shape)
            if item.drawn:
                self._paint_drawn(p, face, item, shape, shade)
            p.setPen(chosen if item.tag in selected else edge)
            for i, real in enumerate(face.edges):
                if real:
                    p.drawLine(points[i], points[(i + 1) % len(points)])
            if one.facing > 0 and item.tag:
                self._hits.append((shape, item.tag))
        if self.runs:
            self._paint_runs(p)
        p.setPen(QColor(self.theme.faint))
        p.setFont(font(11))
        p.drawText(QRectF(10, self.height() - 22, self.width() - 20, 18), Qt.AlignmentFlag.AlignLeft,
                   "Drag to turn, wheel to come nearer. Double-click opens or closes.")  # fmt: skip

    def _paint_shadow(self, p: QPainter) -> None:
        """Paint the shadow on the ground, where one sees the ground from above."""
        if self.pitch <= 0:
            return
        h0, k0, scale = self._place
        p.setPen(Qt.PenStyle.NoPen)
        boxes = [item.piece.box for item in self._shades]
        sheets = [
            tuple((x, y, b.z1) for x, y in ((b.x0, b.y0), (b.x1, b.y0), (b.x1, b.y1), (b.x0, b.y1)))
            for b in boxes
        ]
        for item, flat in zip(self._shades, flattened(sheets, self.yaw, self.pitch), strict=True):
            p.setBrush(shaded(self._fill(item.role), 1.0, item.solid))
            p.drawPolygon(QPolygonF([QPointF(h0 + h * scale, k0 - k * scale) for h, k in flat]))

    def _paint_runs(self, p: QPainter) -> None:
        """Paint cables, hoses and pipes over everything, as if one saw through it."""
        h0, k0, scale = self._place
        p.setBrush(Qt.BrushStyle.NoBrush)
        rows = self._model.rows()
        chosen = self._model.chosen()
        for one, flat in zip(
            rows, flattened([r.points for r in rows], self.yaw, self.pitch), strict=True
        ):
            style = self.theme.roles["way chosen" if one.id == chosen else one.role]
            pen = QPen(QColor(style.line), style.width)
            if style.dash:
                pen.setDashPattern([float(v) for v in style.dash.split()])
            p.setPen(pen)
            p.drawPolyline(QPolygonF([QPointF(h0 + h * scale, k0 - k * scale) for h, k in flat]))

    def _paint_drawn(
        self, p: QPainter, face: Face, item: Item, shape: QPolygonF, shade: float
    ) -> None:
        """Paint what is drawn on a face, or on a part that is left of it."""
        n0, n1, n2 = face.normal.tolist()
        for drawn in item.drawn:
            if not drawn.on((n0, n1, n2), face.offset):
                continue
            p.save()
            path = QPainterPath()
            path.addPolygon(shape)
            p.setClipPath(path)
            for mark, points in zip(drawn.marks, self._laid(drawn), strict=True):
                style = self.theme.roles[mark.role]
                line = QPen(QColor(style.line)) if style.line else QPen(Qt.PenStyle.NoPen)
                line.setWidthF(0.7)
                p.setPen(line)
                p.setBrush(Qt.BrushStyle.NoBrush)
                if not mark.closed:
                    p.drawPolyline(points)
                    continue
                if style.fill:
                    p.setBrush(shaded(style.fill, shade, item.solid * style.alpha / 255))
                p.drawPolygon(points)
            p.restore()

    def _laid(self, drawn: Drawn) -> list[QPolygonF]:
        """What is drawn on a face as it is seen now, laid out once for all parts of the face. [px]"""
        if id(drawn) not in self._flat:
            h0, k0, scale = self._place
            self._flat[id(drawn)] = [
                QPolygonF([QPointF(h0 + h * scale, k0 - k * scale) for h, k in flat])
                for flat in flattened([m.corners for m in drawn.marks], self.yaw, self.pitch)
            ]
        return self._flat[id(drawn)]

    def _framing(self) -> tuple[tuple[float, float], float]:
        """Fit everything that is closed or open into the widget: its middle [mm] and the scale [px/mm]."""
        (left, low), (right, high) = bounds(self._items, self.yaw, self.pitch)
        fits = min((self.width() - 30) / (right - left), (self.height() - 50) / (high - low))
        return ((left + right) / 2, (low + high) / 2), fits * self.zoom

    def tag_at(self, pos: QPointF) -> str:
        """What is nearest under a point; empty for nothing."""
        for shape, tag in reversed(self._hits):
            if shape.containsPoint(pos, Qt.FillRule.OddEvenFill):
                return tag
        return ""

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        """Take hold, and select what is there."""
        if event is not None and event.button() == Qt.MouseButton.LeftButton:
            self._from = event.position()
            tag = self.tag_at(event.position())
            self._session.selection.select(tag if self._session.job.thing(tag) is not None else "")

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        """Turn."""
        if event is not None and self._from is not None:
            by = event.position() - self._from
            self._from, self._turning = event.position(), True
            self.turn(-by.x() * 0.4, by.y() * 0.4)

    def mouseReleaseEvent(self, _event: QMouseEvent | None) -> None:
        """Let go, and paint smoothly again."""
        self._from, self._turning = None, False
        self.update()

    def mouseDoubleClickEvent(self, event: QMouseEvent | None) -> None:
        """Open or close what is under the pointer."""
        if event is not None:
            tag = self.tag_at(event.position())
            if tag:
                editing.toggle_open(self._session, key=tag)

    def wheelEvent(self, event: QWheelEvent | None) -> None:
        """Come nearer or go back."""
        if event is not None:
            self.zoom = min(6.0, max(0.5, self.zoom * 1.0015 ** event.angleDelta().y()))
            self.update()
            event.accept()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Turn with the arrow keys."""
        step = {
            Qt.Key.Key_Left: (-10, 0),
            Qt.Key.Key_Right: (10, 0),
            Qt.Key.Key_Up: (0, 8),
            Qt.Key.Key_Down: (0, -8),
        }
        if event is not None and Qt.Key(event.key()) in step:
            self.turn(*step[Qt.Key(event.key())])
            return
        super().keyPressEvent(event)

    def turn(self, yaw: float, pitch: float) -> None:
        """Turn the picture. [degrees]"""
        self.yaw = math.fmod(self.yaw + yaw, 360.0)
        self.pitch = min(89.0, max(-20.0, self.pitch + pitch))
        self.update()


class SolidPage(QWidget):
    """The picture with its few buttons."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self._session = session
        self.view = SolidView(session, theme)
        self.setFocusProxy(self.view)
        self.open_all = QPushButton("Open or close")
        self.runs = QPushButton("Cables and hoses")
        self.runs.setCheckable(True)
        self.runs.setToolTip("Every run, seen through what is before it")
        self.runs.toggled.connect(self._runs)
        self.picture, self.file = QPushButton("Save as PNG…"), QPushButton("Save as GLB…")
        self._note = Label("Simple solids at true size. GLB opens in any glTF viewer.")
        row = QHBoxLayout()
        row.setContentsMargins(8, 0, 8, 4)
        row.addWidget(self._note, 1)
        for button in (self.runs, self.open_all, self.picture, self.file):
            row.addWidget(button)
        box = QVBoxLayout(self)
        box.setContentsMargins(0, 0, 0, 0)
        box.addWidget(self.view, 1)
        box.addLayout(row)
        self.open_all.clicked.connect(lambda _on: do(session, "look.open_all"))
        self.picture.clicked.connect(lambda _on: self._ask(".png"))
        self.file.clicked.connect(lambda _on: self._ask(".glb"))
        self.theme = theme

    @property
    def theme(self) -> Theme:
        """The colours in use."""
        return self.view.theme

    @theme.setter
    def theme(self, theme: Theme) -> None:
        self.view.theme = theme
        self._note.setFont(font(11))
        self._note.setStyleSheet(f"color: {theme.faint}")
        self.view.update()

    def _runs(self, on: bool) -> None:
        self.view.runs = on
        self.view.update()

    def _ask(self, suffix: str) -> None:
        name, _ = QFileDialog.getSaveFileName(
            self, "Save the picture", f"job{suffix}", f"*{suffix}"
        )
        if name:
            self.save(Path(name).with_suffix(suffix))

    def save(self, path: Path) -> None:
        """Write the picture as PNG, or the job as GLB, by the file's suffix."""
        session = self._session
        try:
            if path.suffix == ".glb":
                solid3d.write(in_setup(session).assembly, path, session.look.opened)
            elif not self.view.grab().save(str(path)):
                session.say(f"{path} cannot be written; choose another place.", trouble=True)
                return
        except UserError as trouble:
            session.say(str(trouble), trouble=True)
            return
        session.say(f"Written to {path}")
