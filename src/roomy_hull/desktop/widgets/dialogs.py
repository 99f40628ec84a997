"""The small windows: key sheet, search of all actions."""

from PyQt6.QtCore import QEvent, QObject, Qt
from PyQt6.QtGui import QKeyEvent
from PyQt6.QtWidgets import (
    QAbstractItemView,
    QDialog,
    QHeaderView,
    QLineEdit,
    QListWidget,
    QListWidgetItem,
    QTableWidget,
    QTableWidgetItem,
    QVBoxLayout,
    QWidget,
)

from roomy_hull.desktop.theme import font
from roomy_hull.session.actions.registry import Registry
from roomy_hull.session.session import Session


class KeySheet(QDialog):
    """Every key at a glance, made from the registry."""

    def __init__(self, registry: Registry, parent: QWidget) -> None:
        super().__init__(parent)
        self.setWindowTitle("Key sheet")
        self.resize(560, 620)
        rows = registry.key_sheet()
        table = QTableWidget(len(rows), 3)
        table.setHorizontalHeaderLabels(["Keys", "Does", "Menu"])
        table.setEditTriggers(QAbstractItemView.EditTrigger.NoEditTriggers)
        down, across = table.verticalHeader(), table.horizontalHeader()
        if down is not None and across is not None:
            down.setVisible(False)
            across.setSectionResizeMode(1, QHeaderView.ResizeMode.Stretch)
            across.setSectionResizeMode(0, QHeaderView.ResizeMode.ResizeToContents)
        for n, (menu, words, keys) in enumerate(rows):
            for column, text in enumerate((keys, words, menu)):
                item = QTableWidgetItem(text)
                if column == 0:
                    item.setFont(font(13, bold=True))
                table.setItem(n, column, item)
        box = QVBoxLayout(self)
        box.addWidget(table)


class ActionSearch(QDialog):
    """Type a few words, press Enter, and the action is done."""

    def __init__(self, registry: Registry, session: Session, parent: QWidget) -> None:
        super().__init__(parent)
        self.setWindowTitle("Find an action")
        self.resize(460, 420)
        self._registry, self._session = registry, session
        self.field, self.list = QLineEdit(), QListWidget()
        self.field.setPlaceholderText("For example: mirror")
        self.field.installEventFilter(self)
        self.field.textChanged.connect(self._fill)
        self.list.itemActivated.connect(lambda _item: self.accept())
        box = QVBoxLayout(self)
        box.addWidget(self.field)
        box.addWidget(self.list)
        self._fill("")

    def _fill(self, text: str) -> None:
        words = text.lower().split()
        self.list.clear()
        for action in self._registry.all():
            if not action.enabled(self._session):
                continue
            if all(w in f"{action.menu} {action.words} {action.tip}".lower() for w in words):
                keys = f"   {action.keys[0]}" if action.keys else ""
                item = QListWidgetItem(f"{action.words}{keys}\n    {action.tip}")
                item.setData(Qt.ItemDataRole.UserRole, action.id)
                self.list.addItem(item)
        self.list.setCurrentRow(0)

    def chosen(self) -> str:
        """The id of the chosen action, or nothing."""
        item = self.list.currentItem()
        return str(item.data(Qt.ItemDataRole.UserRole)) if item is not None else ""

    def eventFilter(self, _watched: QObject | None, event: QEvent | None) -> bool:
        """Move in the list with the arrow keys while typing."""
        if isinstance(event, QKeyEvent) and event.type() == QEvent.Type.KeyPress:
            step = {Qt.Key.Key_Down: 1, Qt.Key.Key_Up: -1}.get(Qt.Key(event.key()))
            if step is not None and self.list.count():
                self.list.setCurrentRow((self.list.currentRow() + step) % self.list.count())
                return True
            if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
                self.accept()
                return True
        return False
