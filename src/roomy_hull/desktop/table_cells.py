"""What a table shows: words in rows and columns, entries that can be changed, and which rows in which order."""

import re
from collections.abc import Callable, Sequence
from typing import Any

from PyQt6.QtCore import QAbstractTableModel, QModelIndex, QObject, QSortFilterProxyModel, Qt
from PyQt6.QtGui import QColor

from roomy_hull.desktop.text import plain
from roomy_hull.desktop.theme import colour, font
from roomy_hull.drawing.style import LIGHT, Theme
from roomy_hull.tables.column import Cell, Column, Entries

Index = QModelIndex
Role = Qt.ItemDataRole
FIGURE = re.compile(r"[-+]?[\d,]+(\.\d+)?")
NEW = "new entry"
TOLD = {
    Role.DisplayRole,
    Role.EditRole,
    Role.ToolTipRole,
    Role.FontRole,
    Role.ForegroundRole,
    Role.BackgroundRole,
}

Key = tuple[int, float, str]


def order_of(text: str) -> Key:
    """What a cell is sorted by: figures first, by their size, then words; what is empty last."""
    found = FIGURE.match(text)
    if found is not None:
        return (0, float(found[0].replace(",", "")), text)
    return (1, 0.0, text.casefold()) if text else (2, 0.0, "")


class Cells(QAbstractTableModel):
    """Words in rows and columns, each with its severity; entries that can be changed, and a row for a new one."""

    def __init__(self, grid: QObject) -> None:
        super().__init__(grid)
        self.theme: Theme = LIGHT
        self.heads: tuple[str, ...] = ()
        self.names: tuple[str, ...] = ()
        self.rows: Sequence[Sequence[Cell]] = ()
        self.shaded: Callable[[int, int], bool] = lambda _r, _c: False
        self.entries: Entries[Any] | None = None
        self.columns: tuple[Column[Any], ...] = ()
        self.listed: Sequence[Any] = ()
        """What the rows were filled from, where they can be worked in."""
        self._fonts = (font(12), font(12, bold=True))
        self.begun: dict[int, str] = {}
        """What was typed of the new entry, by column."""

    def put(
        self, heads: Sequence[str], rows: Sequence[Sequence[Cell]], names: Sequence[str]
    ) -> None:
        """Show other words; what is chosen stays chosen where the rows are as many as before."""
        same = (
            len(rows) == len(self.rows)
            and len(heads) == len(self.heads)
            and len(names) == len(self.names)
        )
        if not same:
            self.beginResetModel()
        told = tuple(heads) != self.heads
        self.heads, self.rows, self.names = tuple(heads), rows, tuple(names)
        if not same:
            self.endResetModel()
        elif rows:
            self.dataChanged.emit(self.index(0, 0), self.index(self.rowCount() - 1, len(heads) - 1))
            if told:
                self.headerDataChanged.emit(Qt.Orientation.Horizontal, 0, len(heads) - 1)

    @property
    def grows(self) -> bool:
        """Whether the last row takes a new entry: where a column is wanted of it."""
        return self.entries is not None and any(c.needed for c in self.columns)

    def rowCount(self, parent: Index = Index()) -> int:  # ruff: ignore[function-call-in-default-argument]  # Qt's
        """Rows, with that of a new entry."""
        return 0 if parent.isValid() else len(self.rows) + self.grows

    def columnCount(self, parent: Index = Index()) -> int:  # ruff: ignore[function-call-in-default-argument]  # Qt's
        """Columns."""
        return 0 if parent.isValid() else len(self.heads)

    def headerData(self, n: int, way: Qt.Orientation, role: int = Role.DisplayRole) -> object:
        """What stands over a column, or beside a row."""
        names = self.heads if way == Qt.Orientation.Horizontal else self.names
        if role in (Role.DisplayRole, Role.ToolTipRole) and n < len(names):
            return plain(names[n]) if role == Role.ToolTipRole else names[n]
        return None

    def _begun_cell(self, column: int) -> Cell:
        """What stands in the row for a new entry."""
        return (self.begun.get(column, NEW if column == self._first() else ""), "new")

    def _first(self) -> int:
        """The first column that is typed in."""
        return next((n for n, c in enumerate(self.columns) if c.field), 0)

    def data(self, index: Index, role: int = Role.DisplayRole) -> object:
        """Words, colours and weight of a cell."""
        if role not in TOLD or not index.isValid():  # asked of every cell at every painting
            return None
        row, column = index.row(), index.column()
        if row >= self.rowCount() or column >= len(self.heads):
            return None
        text, severity = (
            self.rows[row][column] if row < len(self.rows) else self._begun_cell(column)
        )
        found: object = None
        if role == Role.DisplayRole:
            found = text
        elif role == Role.FontRole:
            found = self._fonts[severity not in {"", "new"}]
        elif role == Role.ForegroundRole:
            if severity in {"stop", "look", "note", "new"}:
                found = QColor(
                    self.theme.faint if severity == "new" else self.theme.severity(severity)
                )
        elif role == Role.BackgroundRole:
            found = colour(self.theme.accent, 40) if self.shaded(row, column) else None
        else:
            found = plain(text) if role == Role.ToolTipRole else self._typed(index)
        return found

    def _typed(self, index: Index) -> str:
        if self.entries is None:
            return ""
        if index.row() >= len(self.rows):
            return self.begun.get(index.column(), "")
        return self.columns[index.column()].words(self.listed[index.row()])

    def flags(self, index: Index) -> Qt.ItemFlag:
        """What can be done with a cell."""
        found = Qt.ItemFlag.ItemIsEnabled | Qt.ItemFlag.ItemIsSelectable
        if self.columns and index.isValid() and self.columns[index.column()].field:
            found |= Qt.ItemFlag.ItemIsEditable
        return found

    def setData(self, index: Index, value: object, role: int = Role.EditRole) -> bool:
        """Change an entry, or begin a new one: it is added once all that it needs is there."""
        entries, text = self.entries, str(value)
        if entries is None or role != Role.EditRole or text == self._typed(index):
            return False
        if index.row() < len(self.rows):
            entries.change(self.listed[index.row()], self.columns[index.column()].field, text)
            return True
        self.begun[index.column()] = text
        if all(self.begun.get(n, "").strip() for n, c in enumerate(self.columns) if c.needed):
            typed = {c.field: self.begun.get(n, "") for n, c in enumerate(self.columns) if c.field}
            if entries.add(typed):
                self.begun = {}
        return True


class Shown(QSortFilterProxyModel):
    """The rows that hold what was typed, in the order of a head; a new entry's row stays last."""

    def __init__(self, source: Cells, grid: QObject) -> None:
        super().__init__(grid)
        self._cells, self.word = source, ""
        self.setSourceModel(source)

    def wanted(self, word: str) -> None:
        """Show rows that hold a word."""
        self.word = word
        self.invalidateFilter()

    def filterAcceptsRow(self, row: int, _parent: Index) -> bool:
        """Whether a row holds what was typed."""
        if not self.word or row >= len(self._cells.rows):
            return True
        return any(self.word in text.casefold() for text, _severity in self._cells.rows[row])

    def lessThan(self, left: Index, right: Index) -> bool:
        """Whether one cell stands before another."""
        last = len(self._cells.rows)
        if last in (left.row(), right.row()):
            return (left.row() != last) == (self.sortOrder() == Qt.SortOrder.AscendingOrder)
        return order_of(str(left.data())) < order_of(str(right.data()))

    def headerData(self, n: int, way: Qt.Orientation, role: int = Role.DisplayRole) -> object:
        """What stands over a column, or beside the row that is shown there."""
        if way == Qt.Orientation.Vertical:
            n = self.mapToSource(self.index(n, 0)).row()
        return self._cells.headerData(n, way, role)
