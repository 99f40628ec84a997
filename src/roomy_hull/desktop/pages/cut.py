"""The stage Cut: every blank as a shop drawing, nested sheets, sawn bars, and the files."""

from collections.abc import Callable
from pathlib import Path
from typing import Any

from PyQt6.QtCore import QRectF, Qt, pyqtSignal
from PyQt6.QtGui import QColor, QPainter, QPaintEvent
from PyQt6.QtWidgets import (
    QHBoxLayout,
    QListWidget,
    QListWidgetItem,
    QProgressBar,
    QPushButton,
    QVBoxLayout,
    QWidget,
)

from roomy_hull.core.strokes import Scene
from roomy_hull.core.units import show
from roomy_hull.desktop.following import follow
from roomy_hull.desktop.ground.scene_painter import fit, painter_for
from roomy_hull.desktop.text import Label, plain
from roomy_hull.desktop.theme import font
from roomy_hull.desktop.work import Step, Work
from roomy_hull.drawing.manner import Theme
from roomy_hull.drawing.paper import Paper
from roomy_hull.drawing.scenes import cut as cut_scene
from roomy_hull.formats import cutfiles
from roomy_hull.making.bars import Bar
from roomy_hull.making.cutlist import CutList, cut_list
from roomy_hull.making.flats import Blank, bend_words
from roomy_hull.making.sheets import Sheet
from roomy_hull.session.session import Session

WHAT = Qt.ItemDataRole.UserRole
Shown = Blank | Sheet | tuple[Bar, ...] | None


class CutDrawing(QWidget):
    """Draws what is chosen in the list."""

    def __init__(self, theme: Theme) -> None:
        super().__init__()
        self.theme = theme
        self._shown: Shown = None
        self._title = ""
        self._words = ""
        self.setMinimumSize(300, 240)
        self.setAccessibleName("Shop drawing")

    def show_item(self, item: Shown, title: str, words: str) -> None:
        """Show a blank, a sheet or some bars."""
        self._shown, self._title, self._words = item, title, words
        self.update()

    def _scene(self) -> tuple[Scene, tuple[float, float, float, float]]:
        item = self._shown
        if isinstance(item, Blank):
            return cut_scene.blank_scene(item), cut_scene.blank_frame(item)
        if isinstance(item, Sheet):
            return cut_scene.sheet_scene(item), cut_scene.sheet_frame(item)
        if isinstance(item, tuple):
            return cut_scene.bars_scene(item), cut_scene.bars_frame(item)
        return (), (0, 0, 1, 1)

    def papers(self) -> tuple[Paper, ...]:
        """Draw what is shown for paper."""
        scene, frame = self._scene()
        return (Paper(self._title, scene, frame, self._words),) if scene else ()

    def paintEvent(self, _event: QPaintEvent | None) -> None:  # ruff: ignore[invalid-function-name]  # Qt's name
        """Paint title, notes and drawing."""
        p = QPainter(self)
        p.setRenderHint(QPainter.RenderHint.Antialiasing)
        t = self.theme
        p.fillRect(self.rect(), QColor(t.paper))
        p.setPen(QColor(t.ink))
        p.setFont(font(15, bold=True))
        p.drawText(QRectF(14, 8, self.width() - 28, 24), Qt.AlignmentFlag.AlignVCenter, self._title)
        p.setFont(font(12))
        p.setPen(QColor(t.faint))
        notes = QRectF(14, 32, self.width() - 28, 40)
        p.drawText(notes, Qt.TextFlag.TextWordWrap, self._words)
        scene, frame = self._scene()
        area = QRectF(14, 76, self.width() - 28, self.height() - 90)
        painter_for(t, "metric").paint(p, scene, fit(frame, area))


class CutStage(QWidget):
    """List at the left, drawing at the right, files below."""

    written = pyqtSignal(str)

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self._session, self._theme = session, theme
        self._work: Work | None = None
        self._of: object = None
        self.cut: CutList | None = None
        self.list = QListWidget()
        self.list.setFixedWidth(252)
        self.list.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.list.setSpacing(1)
        self.list.setAccessibleName("Blanks, sheets and bars")
        self.drawing = CutDrawing(theme)
        self.summary = Label()
        self.summary.setWordWrap(True)
        self.progress = QProgressBar()
        self.progress.setRange(0, 100)
        self.cancel_button = QPushButton("Give up")
        self.write_button = QPushButton("Write cut files…")
        self.write_button.setToolTip("DXF blanks, nested sheets, part and saw lists (Ctrl+E)")
        row = QHBoxLayout()
        row.setContentsMargins(10, 4, 10, 6)
        row.addWidget(self.summary, 1)
        for widget in (self.progress, self.cancel_button, self.write_button):
            row.addWidget(widget)
        middle = QHBoxLayout()
        middle.setSpacing(0)
        middle.addWidget(self.list)
        middle.addWidget(self.drawing, 1)
        box = QVBoxLayout(self)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(0)
        box.addLayout(middle, 1)
        box.addLayout(row)
        self.list.currentItemChanged.connect(self._chosen)
        self.cancel_button.clicked.connect(self._give_up)
        self.write_button.clicked.connect(lambda _on: session.do("job.cut"))
        follow(self, self.refresh, session.changed)
        follow(self, self._follow, session.selection.changed)
        self._busy(on=False)
        self.theme = theme

    @property
    def theme(self) -> Theme:
        """The colours in use."""
        return self._theme

    @theme.setter
    def theme(self, theme: Theme) -> None:
        self._theme = self.drawing.theme = theme
        self.list.setFont(font(12))
        self.summary.setFont(font(12))
        self.drawing.update()

    def showEvent(self, _event: object) -> None:  # ruff: ignore[invalid-function-name]  # Qt's name
        """Nest on being shown; nothing is nested for a hidden stage."""
        self.refresh()

    @property
    def idle(self) -> bool:
        """Whether no long work goes on."""
        return self._work is None

    def refresh(self) -> None:
        """Nest again where the job changed and the stage is seen."""
        if not self.isVisible() or self._session.verdict is self._of or self._work is not None:
            return
        self._of = self._session.verdict
        parts, stock = self._session.verdict.assembly.parts(), self._session.shop.stock
        self._start(lambda step: cut_list(parts, stock, step), self._nested, "Nesting")

    def _start(self, job: Callable[[Step], Any], done: Callable[[Any], None], words: str) -> None:
        """Begin long work with its progress bar."""
        self._work = Work(job, self)
        self._work.progressed.connect(self._progressed)
        self._work.done.connect(done)
        self._work.failed.connect(self._failed)
        self._work.given_up.connect(self._gave_up)
        self.progress.setFormat(f"{words} %p %")
        self.progress.setValue(0)
        self._busy(on=True)
        self._work.start()

    def _progressed(self, share: float) -> None:
        # A method, not a lambda: Qt lets go of it when the window goes.
        self.progress.setValue(round(share * 100))

    def _busy(self, *, on: bool) -> None:
        self.progress.setVisible(on)
        self.cancel_button.setVisible(on)
        self.write_button.setEnabled(not on)

    def _give_up(self) -> None:
        if self._work is not None:
            self._work.cancel()

    def _gave_up(self, _nothing: object) -> None:
        self._work = None
        self._busy(on=False)
        self._session.say("Given up; what was there is as it was.")
        if self.cut is None:
            self.drawing.show_item(None, "Nothing to draw", "The nesting was given up.")

    def _failed(self, words: str) -> None:
        self._work = None
        self._busy(on=False)
        self._session.say(words, trouble=True)
        if self.cut is None:
            self.drawing.show_item(None, "Nothing to draw", words)

    def _nested(self, cut: CutList) -> None:
        """Show a finished nesting; if the job changed meanwhile, nest again."""
        self._work = None
        self._busy(on=False)
        self.cut = cut
        self._fill(cut)
        self.refresh()

    def _fill(self, cut: CutList) -> None:
        keep = self.list.currentRow()
        self.list.blockSignals(True)
        self.list.clear()
        self._head(f"Blanks ({sum(b.part.count for b in cut.blanks)})")
        for blank in cut.blanks:
            self._add(f"{blank.part.count} × {blank.part.name}", blank)
        self._head(f"Sheets ({len(cut.nest.sheets)})")
        for n, sheet in enumerate(cut.nest.sheets, 1):
            self._add(
                f"{n}: {sheet.thickness:g} mm {sheet.material.key}, {sheet.used():.0%}",
                sheet,
            )
        self._head(f"Bars ({len(cut.bars.bars)})")
        groups: dict[tuple[str, str], list[Bar]] = {}
        for bar in cut.bars.bars:
            groups.setdefault((bar.section, bar.material.key), []).append(bar)
        for (section, metal), bars in groups.items():
            self._add(f"{len(bars)} × {section} {metal}", tuple(bars))
        self.list.blockSignals(False)
        self.list.setCurrentRow(keep if 0 < keep < self.list.count() else 1)
        self._chosen(self.list.currentItem())
        kg = sum(p.mass() * p.count for p in cut.parts if hasattr(p, "mass"))
        bounds = sum(b for _n, b in cut.nest.bounds.values())
        self.summary.setText(
            f"{len(cut.nest.sheets)} sheets (no nesting needs fewer than {bounds}), "
            f"{len(cut.bars.bars)} bars, {show(kg, 'mass', self._session.look.system)} of metal in the parts. "
            "Bends by the material table: prove with a test bend."
        )

    def _head(self, words: str) -> None:
        item = QListWidgetItem(words)
        item.setFlags(Qt.ItemFlag.NoItemFlags)
        item.setFont(font(12, bold=True))
        self.list.addItem(item)

    def _add(self, words: str, what: Shown) -> None:
        item = QListWidgetItem("  " + words)
        item.setData(WHAT, what)
        item.setToolTip(plain(words))
        self.list.addItem(item)

    def _chosen(self, item: QListWidgetItem | None) -> None:
        what: Shown = item.data(WHAT) if item is not None else None
        if isinstance(what, Blank):
            part = what.part
            bends = f"{bend_words(what)}. " if what.bends else "Flat. "
            words = (
                f"{part.thickness:g} mm {part.material.key}, {part.mass():.2f} kg each. {bends}"
                f"Outside {part.length:g} × {part.width:g}; flat {what.length:.1f} × {what.width:.1f} mm."
            )
            if part.grain:
                words += " Length along the rolling direction."
            self.drawing.show_item(what, f"{part.count} × {part.name}", words)
        elif isinstance(what, Sheet):
            words = (
                f"{what.length:g} × {what.width:g} mm, {len(what.placed)} blanks, "
                f"{what.used():.0%} used, {what.mass():.1f} kg."
            )
            self.drawing.show_item(what, f"{what.thickness:g} mm {what.material.key}", words)
        elif isinstance(what, tuple) and what:
            words = f"{len(what)} stock bars of {what[0].length:g} mm; pieces in sawing order."
            self.drawing.show_item(what, f"{what[0].section} {what[0].material.key}", words)

    def _follow(self) -> None:
        """Show the selected unit's first blank."""
        key = self._session.selection.key
        if not key or not self.isVisible():
            return
        for i in range(self.list.count()):
            item = self.list.item(i)
            what = item.data(WHAT) if item is not None else None
            if isinstance(what, Blank) and what.part.owner.is_thing and what.part.owner.id == key:
                self.list.setCurrentRow(i)
                return

    def write(self, folder: Path) -> None:
        """Write the cut files beside the window."""
        if self._work is not None:
            self._session.say("One moment: the nesting is still at work.", trouble=True)
            return
        parts, stock = self._session.verdict.assembly.parts(), self._session.shop.stock

        def job(step: Step) -> str:
            cut = cut_list(parts, stock, lambda share: step(share * 0.5))
            paths = cutfiles.write(cut, folder, lambda share: step(0.5 + share * 0.5))
            return f"{len(paths)} cut files are written to {folder}"

        self._start(job, self._wrote, "Writing")

    def _wrote(self, words: str) -> None:
        self._work = None
        self._busy(on=False)
        self._session.say(words)
        self.written.emit(words)
        self.refresh()
