"""The findings: grouped by severity; choosing one turns to where it is, with the fixes at hand."""

import re

from PyQt6.QtCore import QModelIndex, QRectF, QSize, Qt, QTimer
from PyQt6.QtGui import QColor, QFontMetrics, QPainter
from PyQt6.QtWidgets import (
    QDialog,
    QDialogButtonBox,
    QFormLayout,
    QLineEdit,
    QListWidget,
    QListWidgetItem,
    QPushButton,
    QStyledItemDelegate,
    QStyleOptionViewItem,
    QVBoxLayout,
    QWidget,
)

from roomy_hull.core.findings import Finding, Fix
from roomy_hull.core.units import show
from roomy_hull.desktop.following import follow
from roomy_hull.desktop.text import Label
from roomy_hull.desktop.theme import font
from roomy_hull.desktop.widgets.shapes import draw_severity
from roomy_hull.drawing.style import Theme
from roomy_hull.session.actions import editing
from roomy_hull.session.session import Session
from roomy_hull.session.showing import show_finding

ROW = Qt.ItemDataRole.UserRole
HEADS = {"stop": "Stop: mend before cutting", "look": "Look: judge and accept", "note": "Note"}


class FindingDelegate(QStyledItemDelegate):
    """Paints a finding's shape and title, wrapped; or a heading."""

    def __init__(self, theme: Theme, view: QListWidget) -> None:
        super().__init__()
        self.theme, self._view = theme, view

    def _room(self) -> int:
        # As narrow as a scroll bar leaves it, whether there is one yet or not.
        return self._view.width() - 14 - 40

    def sizeHint(self, _o: QStyleOptionViewItem, index: QModelIndex) -> QSize:
        """A row as many lines as its title needs."""
        if index.data(ROW) is None and index.row() + 1 < self._view.count():
            return QSize(100, 25)
        box = QFontMetrics(font(12)).boundingRect(
            0, 0, self._room(), 200, Qt.TextFlag.TextWordWrap, str(index.data())
        )
        return QSize(100, box.height() + 10)

    def paint(
        self, painter: QPainter | None, option: QStyleOptionViewItem, index: QModelIndex
    ) -> None:
        """Paint one row."""
        if painter is None:
            return
        t, rect, finding = self.theme, QRectF(option.rect), index.data(ROW)
        painter.save()
        if finding is None:
            painter.setPen(QColor(t.faint))
            painter.setFont(font(12, bold=True))
            flags = Qt.AlignmentFlag.AlignBottom | Qt.TextFlag.TextWordWrap
            painter.drawText(rect.adjusted(8, 0, -4, -3), flags, str(index.data()))
            painter.restore()
            return
        if index == self._view.currentIndex():
            painter.fillRect(rect, QColor(t.sunk))
            painter.fillRect(QRectF(rect.left(), rect.top(), 4, rect.height()), QColor(t.accent))
        middle = rect.topLeft()
        middle.setX(middle.x() + 18)
        middle.setY(middle.y() + 14)
        draw_severity(painter, finding.severity, middle, 13, t)
        painter.setFont(font(12))
        painter.setPen(QColor(t.faint if finding.accepted else t.ink))
        painter.drawText(
            rect.adjusted(32, 5, -8, 0), Qt.TextFlag.TextWordWrap, str(index.data())
        )  # fmt: skip
        painter.restore()


class AcceptDialog(QDialog):
    """Asks for the reason and initials with which a *look* is accepted."""

    def __init__(self, finding: Finding, parent: QWidget) -> None:
        super().__init__(parent)
        self.setWindowTitle("Accept a look")
        form = QFormLayout(self)
        words = Label(finding.title)
        words.setWordWrap(True)
        self.reason, self.initials = QLineEdit(), QLineEdit()
        self.reason.setMinimumWidth(320)
        self.initials.setMaxLength(8)
        form.addRow(words)
        form.addRow("Reason", self.reason)
        form.addRow("Initials", self.initials)
        buttons = QDialogButtonBox(
            QDialogButtonBox.StandardButton.Ok | QDialogButtonBox.StandardButton.Cancel
        )
        buttons.accepted.connect(self.accept)
        buttons.rejected.connect(self.reject)
        form.addRow(buttons)


MEASURED = {"mm", "kg", "N", "kN·m", "MPa", "l", "°", "%", "% of gross", "% of the bolt"}
"""What is measured in these is told in the row; counts and days stand in the words already."""
MANY, REST_MS = 24, 110
"""A list longer than this is filled anew only when the hand rests for so long. [ms]"""


class FindingsPanel(QWidget):
    """List, and the chosen finding's figures, source and fixes."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self._session, self._theme = session, theme
        self._findings: tuple[Finding, ...] = ()
        self._keys: list[object] | None = None
        self._fixes: tuple[Fix, ...] = ()
        self._system = session.look.system
        box = QVBoxLayout(self)
        box.setContentsMargins(10, 8, 10, 8)
        box.setSpacing(5)
        self.title = Label()
        self.list = QListWidget()
        self.list.setAccessibleName("Findings")
        self.list.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.list.setResizeMode(QListWidget.ResizeMode.Adjust)  # words wrap anew in another width
        self.list.setVerticalScrollMode(QListWidget.ScrollMode.ScrollPerPixel)
        self._delegate = FindingDelegate(theme, self.list)
        self.list.setItemDelegate(self._delegate)
        self.detail = Label()
        self.detail.setWordWrap(True)
        self.detail.setTextInteractionFlags(Qt.TextInteractionFlag.TextSelectableByMouse)
        box.addWidget(self.title)
        box.addWidget(self.list, 1)
        box.addWidget(self.detail)
        self.buttons = [QPushButton() for _ in range(3)]
        for n, button in enumerate(self.buttons):
            button.clicked.connect(lambda _on, i=n: self._fix(i))
            box.addWidget(button)
        self.accept_button = QPushButton("Accept with a reason…")
        self.accept_button.clicked.connect(self._accept)
        box.addWidget(self.accept_button)
        self._later = QTimer(self)
        self._later.setSingleShot(True)
        self._later.setInterval(REST_MS)
        self._later.timeout.connect(self._list_all)
        self.list.currentItemChanged.connect(self._chosen)
        follow(self, self.refresh, session.changed)
        follow(self, self._mark, session.selection.changed)
        follow(self, self._viewed, session.view.changed)
        self.theme = theme
        self.refresh()

    def wanted_height(self) -> int:
        """How high it is with the whole list and what is told of the chosen finding. [px]"""
        rows = sum(max(0, self.list.sizeHintForRow(n)) for n in range(min(self.list.count(), 40)))
        below = (self.detail, *self.buttons, self.accept_button)
        shown = [w.sizeHint().height() + 5 for w in below if not w.isHidden()]
        return self.title.sizeHint().height() + rows + sum(shown) + 40

    @property
    def theme(self) -> Theme:
        """The colours in use."""
        return self._theme

    @theme.setter
    def theme(self, theme: Theme) -> None:
        self._theme = self._delegate.theme = theme
        self.title.setFont(font(14, bold=True))
        self.detail.setFont(font(12))
        port = self.list.viewport()
        if port is not None:
            port.update()

    def refresh(self) -> None:
        """Fill the list where the findings changed."""
        found = self._session.sight.findings
        keys: list[object] = [(f.key, f.title, f.accepted, f.reopened) for f in found]
        keys.append(self._session.sight.complete)
        changed, self._keys = keys != self._keys, keys
        self._findings = found
        if not changed:
            if self._session.job is self._session.history.settled:
                self._refigure()
            self._mark()
            return
        self._count()
        if len(found) > MANY and self._session.job is not self._session.history.settled:
            self._later.start()  # a hand is at work: a long list waits for a moment's rest
            return
        self._later.stop()
        self._list_all()

    def _list_all(self) -> None:
        """Fill the list, and show which one is chosen."""
        self._fill()
        self._mark()

    def _refigure(self) -> None:
        """Write the figures anew of what is told as before, once the hand rests."""
        now = {f.key: f for f in self._findings}
        for n in range(self.list.count()):
            item = self.list.item(n)
            old = item.data(ROW) if item is not None else None
            new = now.get(old.key) if old is not None else None
            if item is not None and new is not None and new is not old:
                item.setData(ROW, new)
                if item.text() != self._row(new):
                    item.setText(self._row(new))

    def _count(self) -> None:
        """Say how many there are."""
        verdict = self._session.sight
        stops, looks = verdict.count("stop"), verdict.count("look")
        counts = f"{stops} stop, {looks} look" if verdict.complete else "being worked out …"
        self.title.setText(f"Findings · {counts}")

    def _fill(self) -> None:
        found, self._system = self._findings, self._session.look.system
        self.list.blockSignals(True)
        self.list.clear()
        severity = ""
        rows = sorted(found, key=lambda f: bool(f.accepted))
        for finding in rows:
            head = "Accepted" if finding.accepted else HEADS[finding.severity]
            if head != severity:
                item = QListWidgetItem(head)
                item.setFlags(Qt.ItemFlag.NoItemFlags)
                self.list.addItem(item)
                severity = head
            item = QListWidgetItem(self._row(finding))
            item.setData(ROW, finding)
            self.list.addItem(item)
        if not rows:
            item = QListWidgetItem("Nothing is found wrong, in any scenario.")
            item.setFlags(Qt.ItemFlag.NoItemFlags)
            self.list.addItem(item)
        self.list.blockSignals(False)

    def _mark(self) -> None:
        """Show which finding is chosen."""
        chosen = self._session.selection.finding
        self.list.blockSignals(True)
        row = -1
        for i in range(self.list.count()):
            item = self.list.item(i)
            data = item.data(ROW) if item is not None else None
            if chosen is not None and data is not None and data.key == chosen.key:
                row = i
        self.list.setCurrentRow(row)
        self.list.blockSignals(False)
        self._detail()

    def _chosen(self, item: QListWidgetItem | None) -> None:
        finding = item.data(ROW) if item is not None else None
        if finding is not None:
            show_finding(self._session, finding)

    def _viewed(self) -> None:
        """Write figures in other units where these were chosen."""
        if self._system != self._session.look.system:
            self._list_all()
        else:
            self._detail()

    def _detail(self) -> None:
        """Say what was measured against what, and offer the fixes."""
        finding = self._session.selection.finding
        resting = (
            self._session.job is self._session.history.settled
        )  # fixes are tried one by one: not in a drag
        fixes = self._fixes = (
            self._session.fixes(finding) if finding is not None and resting else ()
        )
        for n, button in enumerate(self.buttons):
            button.setVisible(n < len(fixes))
            if n < len(fixes):
                button.setText(fixes[n].words)
        open_look = finding is not None and finding.severity == "look" and not finding.accepted
        self.accept_button.setVisible(open_look)
        self.detail.setVisible(finding is not None)
        if finding is None:
            return
        written = [self._figure(v, finding.unit) for v in finding.figures]
        rows = [", limit ".join(["Measured " + written[0], *written[1:]])] if written else []
        if finding.source:
            rows.append(f"Source: {finding.source}")
        if finding.accepted:
            rows.append(f"Accepted: {finding.accepted}")
        if finding.reopened:
            rows.append(f"Was accepted: {finding.reopened}")
        self.detail.setText("\n".join(rows))

    def _row(self, finding: Finding) -> str:
        """What is wrong, by how much, of what limit; whether it had been accepted before."""
        row = finding.title
        told = {float(word) for word in re.findall(r"\d+(?:\.\d+)?", row.replace(",", ""))}
        if (
            finding.unit in MEASURED
            and finding.figures
            and round(abs(finding.figures[0])) not in told
        ):
            row += " · " + ", limit ".join(self._figure(v, finding.unit) for v in finding.figures)
        return row + (" (accepted before)" if finding.reopened else "")

    def _figure(self, value: float, unit: str) -> str:
        system = self._session.look.system
        if unit == "mm":
            return show(value, "length", system)
        if unit == "kg":
            return show(value, "mass", system)
        return f"{value:.1f} {unit}"

    def _fix(self, n: int) -> None:
        if n < len(self._fixes):
            editing.apply(self._session, fix=self._fixes[n])

    def _accept(self) -> None:
        finding = self._session.selection.finding
        if finding is None:
            return
        dialog = AcceptDialog(finding, self)
        if dialog.exec() == QDialog.DialogCode.Accepted:
            editing.accept(
                self._session,
                finding=finding,
                reason=dialog.reason.text(),
                initials=dialog.initials.text(),
            )
