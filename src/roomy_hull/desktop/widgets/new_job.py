"""A new job: choose a vehicle from the library, and what to begin on it."""

from pathlib import Path

from PyQt6.QtCore import QRectF, QSize, Qt
from PyQt6.QtGui import QColor, QPainter, QPaintEvent
from PyQt6.QtWidgets import (
    QDialog,
    QDialogButtonBox,
    QFormLayout,
    QHBoxLayout,
    QLineEdit,
    QListWidget,
    QListWidgetItem,
    QVBoxLayout,
    QWidget,
)

from roomy_hull.assembly.assemble import assemble
from roomy_hull.core.errors import UserError
from roomy_hull.desktop.ground.scene_painter import fit, painter_for
from roomy_hull.desktop.text import Label
from roomy_hull.desktop.theme import font
from roomy_hull.desktop.widgets.chooser import Chooser
from roomy_hull.drawing.scenes.ground import elevation, frame
from roomy_hull.drawing.style import Theme
from roomy_hull.formats.vehiclefile import library, own_folder
from roomy_hull.job.model import Job
from roomy_hull.kit.body.fitting import begun, choices

ENTRY = Qt.ItemDataRole.UserRole


class Elevation(QWidget):
    """The job that would begin, seen from its left."""

    def __init__(self, theme: Theme) -> None:
        super().__init__()
        self._theme = theme
        self._job: Job | None = None
        self.words = ""

    def sizeHint(self) -> QSize:
        """The usual size."""
        return QSize(460, 250)

    def show_job(self, job: Job | None, words: str = "") -> None:
        """Show a job, or why there is none."""
        self._job, self.words = job, words
        self.update()

    def paintEvent(self, _event: QPaintEvent | None) -> None:
        """Paint the vehicle with its first body."""
        p = QPainter(self)
        p.setRenderHint(QPainter.RenderHint.Antialiasing)
        p.fillRect(self.rect(), QColor(self._theme.paper))
        if self._job is None:
            p.setPen(QColor(self._theme.stop))
            p.setFont(font(13))
            p.drawText(self.rect().adjusted(12, 12, -12, -12), Qt.TextFlag.TextWordWrap, self.words)
            return
        assembly = assemble(self._job)
        window = fit(
            frame(assembly, "left")[0], QRectF(8, 8, self.width() - 16, self.height() - 16)
        )
        painter_for(self._theme, "metric").paint(p, elevation(assembly, "left"), window)


class NewJob(QDialog):
    """Vehicles at the left, elevation and choices at the right."""

    def __init__(
        self, theme: Theme, parent: QWidget | None = None, own: Path | None = None
    ) -> None:
        super().__init__(parent)
        self.setWindowTitle("New job")
        self.resize(820, 470)
        self.list = QListWidget()
        self.list.setFixedWidth(290)
        self.list.setAccessibleName("Vehicles")
        for entry in library(own):
            words = (
                entry.vehicle.name
                if entry.vehicle is not None
                else f"{entry.path.name}: cannot be used"
            )
            item = QListWidgetItem(words)
            item.setData(ENTRY, entry)
            item.setToolTip(entry.trouble or str(entry.path))
            self.list.addItem(item)
        self.picture = Elevation(theme)
        self.name = QLineEdit("New job")
        self.name.setAccessibleName("Name of the job")
        self.body = Chooser()
        self.body.setAccessibleName("First body")
        hint = Label(
            "Every size is a proposal: measure the vehicle in Survey, change tray and canopy in Body. "
            f"Vehicles of your own go into {own_folder()}."
        )
        hint.setWordWrap(True)
        hint.setFont(font(11))
        form = QFormLayout()
        form.addRow("Name", self.name)
        form.addRow("Begin with", self.body)
        self.buttons = QDialogButtonBox(
            QDialogButtonBox.StandardButton.Ok | QDialogButtonBox.StandardButton.Cancel
        )
        self.buttons.accepted.connect(self.accept)
        self.buttons.rejected.connect(self.reject)
        right = QVBoxLayout()
        right.addWidget(self.picture, 1)
        right.addLayout(form)
        right.addWidget(hint)
        right.addWidget(self.buttons)
        box = QHBoxLayout(self)
        box.addWidget(self.list)
        box.addLayout(right, 1)
        self.list.currentItemChanged.connect(lambda _a, _b: self._chosen())
        self.body.currentTextChanged.connect(lambda _text: self._show())
        self.list.setCurrentRow(0)
        self.name.setFocus()
        self.name.selectAll()

    def _chosen(self) -> None:
        item = self.list.currentItem()
        vehicle = item.data(ENTRY).vehicle if item is not None else None
        self.body.blockSignals(True)
        self.body.clear()
        if vehicle is not None:
            self.body.addItems([c.capitalize() for c in choices(vehicle)])
        self.body.blockSignals(False)
        self._show()

    def job(self) -> Job | None:
        """The job that begins; none where the vehicle cannot be used."""
        item = self.list.currentItem()
        vehicle = item.data(ENTRY).vehicle if item is not None else None
        if vehicle is None:
            return None
        return begun(
            self.name.text().strip() or "New job", vehicle, self.body.currentText().lower()
        )

    def _show(self) -> None:
        item = self.list.currentItem()
        try:
            job = self.job()
            self.picture.show_job(job, item.data(ENTRY).trouble if item is not None else "")
        except UserError as trouble:
            job = None
            self.picture.show_job(None, str(trouble))
        ok = self.buttons.button(QDialogButtonBox.StandardButton.Ok)
        if ok is not None:
            ok.setEnabled(job is not None)
