"""The ground: elevation above, slice below, tied to each other; things are moved by hand here."""

import msgspec
from PyQt6.QtCore import QPointF, QRectF, QSize, Qt, QVariantAnimation, pyqtSignal
from PyQt6.QtGui import (
    QColor,
    QKeyEvent,
    QMouseEvent,
    QPainter,
    QPaintEvent,
    QResizeEvent,
    QWheelEvent,
)
from PyQt6.QtWidgets import QWidget

from roomy_hull.assembly.things import Thing
from roomy_hull.core.primitives import Scene
from roomy_hull.core.units import show
from roomy_hull.desktop.following import follow
from roomy_hull.desktop.ground.backdrop import Backdrop
from roomy_hull.desktop.ground.drag import Drag
from roomy_hull.desktop.ground.scene_painter import Window, painter_for
from roomy_hull.desktop.ground.walkabout import Walkabout
from roomy_hull.desktop.text import plain
from roomy_hull.desktop.theme import font
from roomy_hull.drawing.paper import Paper
from roomy_hull.drawing.scenes import ground as ground_scene
from roomy_hull.drawing.scenes.around import overall_sizes
from roomy_hull.drawing.scenes.ground import Looks
from roomy_hull.drawing.style import Theme
from roomy_hull.drawing.view import ELEVATION, SLICE, View
from roomy_hull.job.carried import Carried
from roomy_hull.session.actions import editing
from roomy_hull.session.pages.drawing import DrawingModel
from roomy_hull.session.session import Session
from roomy_hull.session.worn import off

HEAD = 26.0
"""Room for a picture's title. [px]"""


class Layout(msgspec.Struct, frozen=True):
    """Where the two pictures are, and how millimetres lie in each."""

    upper: QRectF
    lower: QRectF
    elevation: Window
    cut: Window


class Ground(QWidget):
    """The drawing in the middle of the window; `painted` is told once, when it is first seen."""

    painted = pyqtSignal()

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self._session, self._theme = session, theme
        self.turn_ms = 170
        self._zoom, self._shift, self._sink = 1.0, QPointF(0, 0), 0.0
        self._pan_from: QPointF | None = None
        self._seen = (session.look.station, session.look.whole)
        self._turn = 1.0
        self._animation = QVariantAnimation(self)
        self._animation.valueChanged.connect(self._turned)
        self._unseen = True
        self.model = DrawingModel(session)
        self._backdrops = {True: Backdrop(), False: Backdrop()}
        self.drag = Drag(session)
        self.walkabout = Walkabout(session, theme, self)
        self.setMinimumSize(360, 320)
        self.setMouseTracking(True)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName("Ground: the drawing")
        follow(self, self.update, session.changed, session.selection.changed)
        follow(self, self._look_changed, session.view.changed)

    def sizeHint(self) -> QSize:
        """The usual size."""
        return QSize(720, 640)

    @property
    def theme(self) -> Theme:
        """The colours in use."""
        return self._theme

    @theme.setter
    def theme(self, theme: Theme) -> None:
        self._theme = theme
        self.walkabout.theme = theme
        self.update()

    # Looking

    def _look_changed(self) -> None:
        look = self._session.look
        seen = (look.station, look.whole)
        if seen != self._seen:
            self._face_on()
            if seen[0] != self._seen[0] and self.turn_ms > 0:
                self._animation.stop()
                self._animation.setDuration(self.turn_ms)
                self._animation.setStartValue(0.08)
                self._animation.setEndValue(1.0)
                self._animation.start()
            self._seen = seen
            self._place_walkabout()
        self.update()

    def _turned(self, value: float) -> None:
        self._turn = float(value)
        self.update()

    def layout_now(self) -> Layout:
        """Compute where both pictures are. [px]"""
        look = self._session.look
        upper_mm, lower_mm = ground_scene.frame(
            self._session.sight.assembly, look.station, whole=look.whole, opened=look.opened
        )
        width, height = self.width() - 16.0, self.height() - 2 * HEAD - 10.0
        tall_e, tall_s = upper_mm[3] - upper_mm[1], lower_mm[3] - lower_mm[1]
        s = min(width / (upper_mm[2] - upper_mm[0]), height / (tall_e + tall_s))
        share = tall_e / (tall_e + tall_s)
        upper = QRectF(8, HEAD, width, max(60.0, height * share))
        lower = QRectF(8, upper.bottom() + HEAD, width, max(60.0, height * (1 - share)))
        z = s * self._zoom
        ox = upper.center().x() - (upper_mm[0] + upper_mm[2]) / 2 * z + self._shift.x()
        slack_e = (upper.height() - tall_e * s) / 2
        oy = upper.bottom() - slack_e + upper_mm[1] * s + self._shift.y()
        cy = lower.center().y() + (lower_mm[1] + lower_mm[3]) / 2 * z + self._sink
        return Layout(upper, lower, Window(ox, oy, z), Window(ox, cy, z))

    def views(self) -> tuple[View, View]:
        """How elevation and slice see the vehicle."""
        station = self._session.look.station
        return ELEVATION[station], SLICE[station]

    # Painting

    def paintEvent(self, _event: QPaintEvent | None) -> None:
        """Paint both pictures and what is held, found and chosen."""
        p = QPainter(self)
        p.setRenderHint(QPainter.RenderHint.Antialiasing)
        t, session, look = self._theme, self._session, self._session.look
        p.fillRect(self.rect(), QColor(t.paper))
        where = self.layout_now()
        painter = painter_for(t, look.system)
        looks = Looks(look.opened, look.stature, off(self._session))
        assembly = session.sight.assembly
        self._titles(p, where)
        station = look.station
        for area, window, view in (
            (where.lower, where.cut, SLICE[station]), (where.upper, where.elevation, ELEVATION[station])
        ):  # fmt: skip
            upper = area is where.upper
            back, scene = self.model.layers(
                looks, self.drag.holds if self.drag.active else "", upper=upper
            )
            seen = area.adjusted(-8, 0, 8, 0)
            p.save()
            p.setClipRect(seen)
            if self._turn < 1.0:
                p.translate(area.center().x(), 0)
                p.scale(self._turn, 1.0)
                p.translate(-area.center().x(), 0)
            self._backdrops[upper].paint(p, back, seen, window, painter)
            painter.paint(p, scene, window)
            if upper:
                sizes = overall_sizes(assembly, station, whole=look.whole)
                painter.paint(p, sizes, window)
            painter.paint(p, self._overlay(view, upper), window)
            p.restore()
        if not session.job.units and not self.drag.active:
            self._first_words(p, where)
        if self.hasFocus():
            p.setPen(QColor(t.accent))
            p.setBrush(Qt.BrushStyle.NoBrush)
            p.drawRect(self.rect().adjusted(0, 0, -1, -1))
        if self._unseen:
            self._unseen = False
            self.painted.emit()

    def _first_words(self, p: QPainter, where: Layout) -> None:
        """Say what to do on a side on which nothing stands yet."""
        job, station = self._session.job, self._session.look.station
        sides = {b.bay.side for b in self._session.known.assembly.ground.bays.values()}
        words = "Drag a unit from the stores onto this side."
        if not sides:
            words = self.model.no_bay()
        elif station not in sides:
            words = "Units go in from another side: walk there with ] or the plan above."
        p.setPen(QColor(self._theme.faint))
        if not (job.carried or job.body.racks):
            # Below the title, where no vehicle is drawn.
            p.setFont(font(15))
            room = where.upper.adjusted(12, 26, -where.upper.width() / 2, 0)
            p.drawText(room, Qt.AlignmentFlag.AlignLeft | Qt.TextFlag.TextWordWrap, words)
            return
        # There stands what is carried on the roof: at the end of the line between the pictures.
        p.setFont(font(12))
        left = 36 + p.fontMetrics().horizontalAdvance(self.model.slice_title())
        room = QRectF(left, where.lower.top() - 20, self.width() - 12 - left, 16)
        words = p.fontMetrics().elidedText(words, Qt.TextElideMode.ElideRight, int(room.width()))
        p.drawText(room, Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter, words)

    def _titles(self, p: QPainter, where: Layout) -> None:
        t = self._theme
        p.setPen(QColor(t.ink))
        p.setFont(font(14, bold=True))
        # As much of a long name as there is room for beside the walkabout.
        title = p.fontMetrics().elidedText(
            self.model.title(), Qt.TextElideMode.ElideRight, max(80, self.width() - 210)
        )
        p.drawText(QPointF(12, 19), title)
        p.setFont(font(12))
        p.setPen(QColor(t.faint))
        y = where.lower.top() - 8
        p.drawText(QPointF(12, y), self.model.slice_title())
        p.setPen(QColor(t.rule))
        p.drawLine(
            QPointF(8, where.lower.top() - HEAD),
            QPointF(self.width() - 8, where.lower.top() - HEAD),
        )

    def papers(self) -> tuple[Paper, ...]:
        """Draw both pictures for paper, as they are seen."""
        return self.model.papers()

    def _overlay(self, view: View, upper: bool) -> Scene:
        """Draw what is held, found and chosen over one picture."""
        free = self.drag.free_scene(view) if upper and self.drag.active else ()
        return free + self.model.overlay(
            view, self.drag.holds, dragged=self.drag.active, upper=upper
        )

    # Hands

    def at(self, pos: QPointF) -> tuple[Thing | None, bool]:
        """Find the nearest thing under a point, and whether the point is in the elevation."""
        where = self.layout_now()
        upper = self._upper(pos, where)
        window = where.elevation if upper else where.cut
        view = self.views()[0 if upper else 1]
        h, k = window.mm(pos.x(), pos.y())
        hits = []
        for thing in self._session.sight.assembly.things:
            if upper and not self.model.seen(thing):
                continue
            h0, k0, h1, k1 = view.rect(thing.envelope)
            if h0 <= h <= h1 and k0 <= k <= k1:
                roof = isinstance(thing.value, Carried) and thing.value.on_roof
                hits.append((roof and not upper, -view.nearness(thing.envelope), thing))
        hits.sort(key=lambda hit: hit[:2])
        return (hits[0][2] if hits else None), upper

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        """Select what is under the pointer and take hold of it; elsewhere, hold the picture."""
        if event is None:
            return
        self.setFocus()
        if event.button() == Qt.MouseButton.MiddleButton:
            self._pan_from = event.position()
            return
        if event.button() != Qt.MouseButton.LeftButton:
            return
        thing, upper = self.at(event.position())
        if thing is not None and event.modifiers() & Qt.KeyboardModifier.ControlModifier:
            self._session.selection.add(thing.id)
            return
        if thing is None or thing.id not in self._session.selection.ids():
            self._session.selection.select(thing.id if thing else "")
        if thing is None:
            self._pan_from = event.position()
            return
        where = self.layout_now()
        window = where.elevation if upper else where.cut
        self.drag.press(thing, self.views()[0 if upper else 1],
                        window.mm(event.position().x(), event.position().y()), event.position())  # fmt: skip

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        """Move what is held."""
        if event is None:
            return
        if self._pan_from is not None:
            by = event.position() - self._pan_from
            self._slide(by, upper=self._upper(event.position(), self.layout_now()))
            self._pan_from = event.position()
            self.update()
        elif self.drag.held:
            where = self.layout_now()
            upper = self.drag.view is self.views()[0]
            window = where.elevation if upper else where.cut
            # By the millimetre, and free: nothing falls or catches.
            free = Qt.KeyboardModifier.ShiftModifier | Qt.KeyboardModifier.AltModifier
            fine = bool(event.modifiers() & free)
            self.drag.move(window.mm(event.position().x(), event.position().y()),
                           event.position(), fine=fine)  # fmt: skip
            self.update()
        else:
            thing, _ = self.at(event.position())
            self.setCursor(Qt.CursorShape.OpenHandCursor if thing else Qt.CursorShape.ArrowCursor)
            self.setToolTip(plain(self._tip(thing)) if thing else "")

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        """Let go: one gesture is one step."""
        self._pan_from = None
        if event is not None and event.button() == Qt.MouseButton.LeftButton:
            self.drag.release()
            self.update()

    def mouseDoubleClickEvent(self, event: QMouseEvent | None) -> None:
        """Open or close what is under the pointer."""
        if event is not None:
            thing, _ = self.at(event.position())
            if thing is not None and thing.openings:
                editing.toggle_open(self._session, key=thing.id)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Let go without a step on Escape; it else selects nothing."""
        if event is None:
            return
        if event.key() == Qt.Key.Key_Escape:
            if self.drag.held:
                self.drag.cancel()
            else:
                self._session.selection.select("")
            self.update()
            return
        super().keyPressEvent(event)

    def wheelEvent(self, event: QWheelEvent | None) -> None:
        """Zoom about the pointer."""
        if event is None:
            return
        pos, before = event.position(), self.layout_now()
        zoom = min(8.0, max(1.0, self._zoom * 1.0015 ** event.angleDelta().y()))
        if zoom <= 1.0:
            self._face_on()
        else:
            upper = self._upper(pos, before)
            held = (before.elevation if upper else before.cut).mm(pos.x(), pos.y())
            self._zoom = zoom
            after = self.layout_now()
            self._slide(pos - (after.elevation if upper else after.cut).px(held), upper=upper)
        self.update()
        event.accept()

    def _face_on(self) -> None:
        """Show everything again."""
        self._zoom, self._shift, self._sink = 1.0, QPointF(0, 0), 0.0

    def _slide(self, by: QPointF, *, upper: bool) -> None:
        """Shift both pictures along, and one of them up or down. [px]"""
        self._shift += QPointF(by.x(), by.y() if upper else 0.0)
        self._sink += 0.0 if upper else by.y()

    def _upper(self, pos: QPointF, where: Layout) -> bool:
        """Say whether a point is in the elevation."""
        return pos.y() < where.lower.top() - HEAD

    def resizeEvent(self, _event: QResizeEvent | None) -> None:
        """Keep the walkabout in its corner."""
        self._place_walkabout()

    def _place_walkabout(self) -> None:
        """Put the walkabout where the picture is empty: above the bonnet."""
        station, box = self._session.look.station, self.walkabout
        right = self.width() - box.width() - 8
        if station in ("above", "underneath"):
            box.move(8, round(self.layout_now().lower.top()))
        elif station == "left" and self._session.look.whole:
            box.move(8, 28)
        else:
            box.move(right, 6)

    def _tip(self, thing: Thing) -> str:
        system = self._session.look.system
        a, b, c = thing.expansion.envelope.size()
        kg = sum(m.kg for m in thing.masses)
        sizes = " × ".join(show(v, "length", system, unit=False) for v in (a, b, c))
        unit = "in" if system == "us" else "mm"
        return f"{thing.name}\n{sizes} {unit}, {show(kg, 'mass', system)} when full"

    # From the stores

    def carry(self, key: str, pos: QPointF) -> None:
        """Hold a thing from the stores over the ground."""
        where = self.layout_now()
        self.drag.carry(key, self.views()[0], where.elevation.mm(pos.x(), pos.y()),
                        where.upper.contains(pos))  # fmt: skip
        self.update()

    def drop(self) -> str:
        """Put down what came from the stores; gives its id, or nothing."""
        found = self.drag.drop()
        self.update()
        if found:
            self.setFocus()
        return found
