"""The stage Body: tray and canopy with sizes that are typed or dragged on the drawing itself."""

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QColor, QKeyEvent, QMouseEvent, QPainter, QPaintEvent
from PyQt6.QtWidgets import QHBoxLayout, QLineEdit, QMenu, QPushButton, QVBoxLayout, QWidget

from roomy_hull.core.errors import UserError
from roomy_hull.core.units import parse, show
from roomy_hull.desktop.following import follow
from roomy_hull.desktop.ground.backdrop import Backdrop
from roomy_hull.desktop.ground.scene_painter import Window, fit, painter_for
from roomy_hull.desktop.ground.walkabout import WORDS, Walkabout
from roomy_hull.desktop.theme import font
from roomy_hull.drawing.scenes import body_sizes, overlays
from roomy_hull.drawing.scenes import ground as ground_scene
from roomy_hull.drawing.scenes.body_sizes import BodySize, Handle
from roomy_hull.drawing.scenes.ground import Looks
from roomy_hull.drawing.style import Theme
from roomy_hull.drawing.view import ELEVATION, Station
from roomy_hull.job.edits.resizing import resized, value_at
from roomy_hull.session.actions import bodies, editing
from roomy_hull.session.doing import do
from roomy_hull.session.pages.body import BodyModel
from roomy_hull.session.session import Session

GRAB = 13.0
"""How near to a dot the hand must be. [px]"""


class BodyDrawing(QWidget):
    """The elevation with its sizes; click one to type it, drag a dot to change it."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self._session, self._theme = session, theme
        self._backdrop, self._scenes = Backdrop(), ground_scene.Backdrops()
        self._held: Handle | None = None
        self._from = QPointF()
        self._start = 0.0
        self._typing = ""
        self.model = BodyModel(session)
        self.walkabout = Walkabout(session, theme, self)
        self.edit = QLineEdit(self)
        self.edit.hide()
        self.edit.setFixedWidth(120)
        self.edit.setAlignment(Qt.AlignmentFlag.AlignCenter)
        self.edit.returnPressed.connect(self._typed)
        self.edit.editingFinished.connect(self._left)
        self.setMinimumSize(360, 260)
        self.setMouseTracking(True)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName("Body with its sizes")

    @property
    def theme(self) -> Theme:
        """The colours in use."""
        return self._theme

    @theme.setter
    def theme(self, theme: Theme) -> None:
        self._theme = self.walkabout.theme = theme
        self.update()

    def station(self) -> Station:
        """The place that is drawn: where one stands, or the left where no sizes are seen there."""
        here = self._session.look.station
        return here if here in ("left", "right", "rear") else "left"

    def part(self) -> str:
        """The chosen room or rack; empty for tray and canopy."""
        return self._session.look.body.chosen

    def window_now(self) -> Window:
        """How millimetres lie on the screen; held still while a dot is dragged."""
        if self._held is not None:
            return self._still
        h0, k0, h1, k1 = ground_scene.frame(self._session.known.assembly, self.station())[0]
        if self.station() in ("left", "right"):
            h0, h1 = (h0 - 60, h1 + 340) if self.station() == "left" else (h0 - 340, h1 + 60)
        area = QRectF(10, 30, self.width() - 20, self.height() - 40)
        return fit((h0, k0 - 130, h1, k1 + 120), area)

    def paintEvent(self, _event: QPaintEvent | None) -> None:
        """Paint body, sizes and dots."""
        p = QPainter(self)
        p.setRenderHint(QPainter.RenderHint.Antialiasing)
        t, session, station = self._theme, self._session, self.station()
        p.fillRect(self.rect(), QColor(t.paper))
        window, painter = self.window_now(), painter_for(t, session.look.system)
        assembly = session.known.assembly
        self._backdrop.paint(
            p, self._scenes.of(assembly, station, upper=True), QRectF(self.rect()), window, painter
        )
        painter.paint(p, ground_scene.things(assembly, station, Looks()), window)
        shown = tuple(f for f in session.known.open_findings() if f.severity == "stop" and f.where)
        view = ELEVATION[station]
        painter.paint(p, overlays.marks(shown, view), window)
        painter.paint(p, body_sizes.scene(assembly, station, self.part()), window)
        p.setPen(QColor(t.ink))
        p.setFont(font(14, bold=True))
        words = f"{WORDS[station]} · click a size to type it, drag a dot to change it"
        p.drawText(QPointF(12, 20), words)

    def spot(self, size: BodySize) -> QPointF:
        """Where a size's figure stands. [px]"""
        window = self.window_now()
        a, b = window.px(size.a), window.px(size.b)
        return QPointF((a.x() + b.x()) / 2, (a.y() + b.y()) / 2)

    def _at(self, pos: QPointF) -> Handle | BodySize | None:
        """Find the dot or the size under a point."""
        assembly, window = self._session.known.assembly, self.window_now()
        for handle in body_sizes.handles(assembly, self.station(), self.part()):
            if (window.px(handle.at) - pos).manhattanLength() < GRAB:
                return handle
        for size in body_sizes.sizes(assembly, self.station(), self.part()):
            off = self.spot(size) - pos
            if abs(off.x()) < 34 and abs(off.y()) < 13:
                return size
        return None

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        """Take hold of a dot, or begin to type a size."""
        if event is None or event.button() != Qt.MouseButton.LeftButton:
            return
        self.setFocus()
        found = self._at(event.position())
        if isinstance(found, Handle):
            self._still = self.window_now()
            self._held, self._from = found, event.position()
            self._start = float(value_at(self._session.history.settled, found.path))
        elif found is not None:
            self.type_size(found)
        else:
            at = self.window_now().mm(event.position().x(), event.position().y())
            key = self.model.part_at(self.station(), at)
            if key is not None:
                bodies.choose_part(self._session, key=key)

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        """Change the size while a dot is held; everything that depends on it goes along."""
        if event is None:
            return
        if self._held is None:
            found = self._at(event.position())
            shape = (
                Qt.CursorShape.PointingHandCursor
                if found is not None
                else Qt.CursorShape.ArrowCursor
            )
            self.setCursor(shape)
            return
        by = event.position() - self._from
        mm = (by.x() if self._held.axis == 0 else -by.y()) / self._still.s * self._held.factor
        grid = 1.0 if event.modifiers() & Qt.KeyboardModifier.ShiftModifier else 5.0
        value = round((self._start + mm) / grid) * grid
        try:
            self._session.preview(resized(self._session.history.settled, self._held.path, value))
        except UserError as trouble:
            self._session.say(str(trouble), trouble=True)

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        """Let go: one gesture is one step."""
        if event is not None and self._held is not None:
            name = self._held.path.split(".", 1)[1].replace(".", " ")
            self._held = None
            editing.end_gesture(self._session, words=f"change {name}")
            self.update()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Let go without a step on Escape."""
        if event is not None and event.key() == Qt.Key.Key_Escape and self._held is not None:
            self._held = None
            self._session.cancel()
            self.update()
            return
        super().keyPressEvent(event)

    def type_size(self, size: BodySize) -> None:
        """Open a field over a size. [mm or in]"""
        self._typing = size.path
        value = float(value_at(self._session.job, size.path))
        self.edit.setText(
            show(value, "length", self._session.look.system, unit=False).replace(",", "")
        )
        at = self.spot(size)
        self.edit.move(round(at.x() - 60), round(at.y() - self.edit.sizeHint().height() / 2))
        self.edit.show()
        self.edit.selectAll()
        self.edit.setFocus()

    def _typed(self) -> None:
        path, self._typing = self._typing, ""
        if not path:
            return
        try:
            value = parse(self.edit.text(), "length", self._session.look.system)
        except UserError as trouble:
            self._typing = path
            self._session.say(str(trouble), trouble=True)
            return
        if editing.set_size(self._session, path=path, value=value):
            self.edit.hide()
            self.setFocus()
        else:
            self._typing = path

    def _left(self) -> None:
        """Give up what was being typed when the field is left."""
        if not self.edit.hasFocus():
            self._typing = ""
            self.edit.hide()

    def resizeEvent(self, _event: object) -> None:
        """Keep the walkabout in its corner."""
        self.place_walkabout()

    def place_walkabout(self) -> None:
        """Put the walkabout above the bonnet."""
        box = self.walkabout
        box.move(8 if self.station() == "left" else self.width() - box.width() - 8, 30)


class Facts(QWidget):
    """Outline, angles and roof line, as they are now, with their limits."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self._session, self.theme = session, theme
        self.setFixedHeight(150)
        self.setAccessibleName("Outside sizes, angles and roof line")

    def columns(self) -> list[tuple[str, list[tuple[str, str]]]]:
        """Three columns of (words, figure)."""
        session, system = self._session, self._session.look.system
        o = session.known.outline

        def mm(value: float) -> str:
            return show(value, "length", system)

        shown = next((a for a in o.angles if a.scenario == session.scenario().name), o.angles[0])
        limit = f" of {mm(o.overhang_limit)}" if o.overhang_limit else ""
        outside = [
            ("Length", mm(o.length)), ("Width", mm(o.width)), ("Height", mm(o.height)),
            ("Rear overhang", mm(o.overhang) + limit),
        ]  # fmt: skip
        angles = [
            ("Approach", f"{shown.approach:.0f}°"), ("Ramp", f"{shown.ramp:.0f}°"),
            ("Departure", f"{shown.departure:.0f}° at the {shown.departs_at}"),
            ("Belly", f"{mm(shown.clearance)} clear"),
        ]  # fmt: skip
        roof = [(s.name.capitalize(), mm(s.z)) for s in o.roof]
        if o.rack_leg:
            roof.append(("Step that remains", mm(o.rack_step)))
        return [
            ("Outside", outside),
            (f"Angles, {shown.scenario.lower()}", angles),
            ("Roof line", roof),
        ]

    def paintEvent(self, _event: QPaintEvent | None) -> None:
        """Paint the columns."""
        p = QPainter(self)
        t = self.theme
        p.fillRect(self.rect(), QColor(t.panel))
        shares = (0.31, 0.35, 0.34)
        x = 12.0
        for share, (title, rows) in zip(shares, self.columns(), strict=True):
            wide = self.width() * share
            p.setPen(QColor(t.ink))
            p.setFont(font(12, bold=True))
            p.drawText(QRectF(x, 6, wide - 16, 18), Qt.AlignmentFlag.AlignVCenter, title)
            for n, (words, figure) in enumerate(rows):
                y = 28 + n * 22
                p.setFont(font(12))
                p.setPen(QColor(t.faint))
                p.drawText(QRectF(x, y, wide * 0.66, 20), Qt.AlignmentFlag.AlignVCenter, words)
                p.setPen(QColor(t.ink))
                p.setFont(font(13, bold=True))
                left = x + (wide * 0.66 if title == "Roof line" else 96)
                p.drawText(QRectF(left, y, wide, 20), Qt.AlignmentFlag.AlignVCenter, figure)
            x += wide


class PartsBar(QWidget):
    """Above the drawing: tray and canopy, every room and rack; and a menu of what can be added."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self._session, self.model = session, BodyModel(session)
        self._row = QHBoxLayout(self)
        self._row.setContentsMargins(8, 3, 8, 1)
        self._row.setSpacing(4)
        self.buttons: dict[str, QPushButton] = {}
        self._shown: tuple[tuple[str, str], ...] = ()
        self.add = QPushButton("Add…")
        self.add.setFont(font(11))
        self.add.setToolTip("A box, side boxes, a camper, a cab bay; racks, a hoop, a rear wall")
        self.menu = QMenu(self)
        self.menu.setAccessibleName("What can be added to the body")
        self.menu.aboutToShow.connect(self._offer)
        self.add.setMenu(self.menu)
        self.drop = QPushButton("Take away")
        self.drop.setFont(font(11))
        self.drop.clicked.connect(lambda _on: do(session, "body.drop_part"))

    def _offer(self) -> None:
        """Fill the menu with what makes sense on this vehicle."""
        self.menu.clear()
        for action in self.model.can_add():
            one = self.menu.addAction(action.words)
            if one is not None:
                one.setToolTip(action.tip)
                one.triggered.connect(lambda _on, a=action.id: do(self._session, a))

    def refresh(self) -> None:
        """Bring the buttons up to date; laid out anew only where the parts are others."""
        rows = self.model.parts()
        if rows != self._shown:
            self._shown = rows
            while self._row.count():
                item = self._row.takeAt(0)
                widget = item.widget() if item is not None else None
                if widget is not None and widget not in (self.add, self.drop):
                    widget.deleteLater()
            self.buttons = {}
            for key, words in rows:
                button = QPushButton(words)
                button.setCheckable(True)
                button.setFont(font(11))
                button.clicked.connect(lambda _on, k=key: self._pick(k))
                self.buttons[key] = button
                self._row.addWidget(button)
            self._row.addWidget(self.add)
            self._row.addStretch(1)
            self._row.addWidget(self.drop)
        chosen = self.model.chosen()
        for key, button in self.buttons.items():
            button.setChecked(key == chosen)
        self.drop.setVisible(bool(chosen))

    def _pick(self, key: str) -> None:
        bodies.choose_part(self._session, key=key)
        self.refresh()


class BodyStage(QWidget):
    """Drawing above, facts below."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self._theme = theme
        self.drawing = BodyDrawing(session, theme)
        self.facts = Facts(session, theme)
        self.parts = PartsBar(session)
        box = QVBoxLayout(self)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(2)
        box.addWidget(self.parts)
        box.addWidget(self.drawing, 1)
        box.addWidget(self.facts)
        follow(self, self.refresh, session.changed, session.view.changed)

    @property
    def theme(self) -> Theme:
        """The colours in use."""
        return self._theme

    @theme.setter
    def theme(self, theme: Theme) -> None:
        self._theme = self.drawing.theme = self.facts.theme = theme
        self.refresh()

    def refresh(self) -> None:
        """Bring drawing and facts up to date where they are seen."""
        if self.isVisible():
            self.parts.refresh()
            self.drawing.place_walkabout()
            self.drawing.update()
            self.facts.update()

    def showEvent(self, _event: object) -> None:
        """Refresh on being shown."""
        self.refresh()
