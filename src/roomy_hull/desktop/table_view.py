"""The one table: sorted by its heads, filtered by typing, copied as a spreadsheet takes it, worked in where it can be."""

import math
from collections.abc import Callable, Sequence
from typing import Any

from PyQt6.QtCore import (
    QAbstractItemModel,
    QEvent,
    QPersistentModelIndex,
    QRect,
    Qt,
    QTimer,
    pyqtSignal,
)
from PyQt6.QtGui import QGuiApplication, QKeyEvent, QKeySequence, QResizeEvent
from PyQt6.QtWidgets import (
    QAbstractItemView,
    QComboBox,
    QHeaderView,
    QLineEdit,
    QStyledItemDelegate,
    QStyleOptionViewItem,
    QTableView,
    QWidget,
)

from roomy_hull.desktop.lettering import lettering
from roomy_hull.desktop.table_cells import FIGURE, Cells, Index, Role, Shown
from roomy_hull.desktop.text import Label
from roomy_hull.drawing.style import Theme
from roomy_hull.formats.csv_tables import safe
from roomy_hull.tables.column import Cell, Entries, Rows, cells, heads

MEASURED = 200
"""Columns fit the words of so many rows."""
PAD, ARROW, LEAST = 10, 16, 34
"""Round a cell's words, for the arrow of a sorted head, and the least a column has. [px]"""
HOW = (
    "Double-click or Enter changes a cell; the last row takes a new entry; rows of a spreadsheet can be pasted; "
    "Del deletes."
)
"""What is said below a table that can be worked in."""


class InPlace(QStyledItemDelegate):
    """Edits a cell where it stands: words are typed, of choices one is chosen."""

    def __init__(self, grid: "Grid") -> None:
        super().__init__(grid)
        self._grid = grid

    def createEditor(
        self, parent: QWidget | None, _o: QStyleOptionViewItem, index: Index
    ) -> QWidget | None:
        """A line, or a box to choose from."""
        choices = self._grid.cells.columns[index.column()].choices
        if choices is None:
            line = QLineEdit(parent)
            line.setFrame(False)
            return line
        box = QComboBox(parent)
        box.addItems(list(choices()))
        box.activated.connect(lambda _n: self._done(box))
        return box

    def _done(self, box: QComboBox) -> None:
        self.commitData.emit(box)
        self.closeEditor.emit(box)

    def setEditorData(self, editor: QWidget | None, index: Index) -> None:
        """Begin with what there is."""
        text = str(index.data(Role.EditRole) or "")
        if isinstance(editor, QComboBox):
            editor.setCurrentIndex(editor.findText(text))  # none, where it is none of these
            editor.showPopup()
        elif isinstance(editor, QLineEdit):
            editor.setText(text)
            editor.selectAll()

    def setModelData(
        self, editor: QWidget | None, model: QAbstractItemModel | None, index: Index
    ) -> None:
        """Take what was typed or chosen."""
        if isinstance(editor, QComboBox) and editor.currentIndex() < 0:
            return
        if model is not None and isinstance(editor, QComboBox | QLineEdit):
            text = editor.currentText() if isinstance(editor, QComboBox) else editor.text()
            there = QPersistentModelIndex(index)
            # Once the editor is gone: what is changed may fill the table anew.
            QTimer.singleShot(0, lambda: model.setData(Index(there), text, Role.EditRole))


WIDTHS: dict[str, int] = {}
"""Columns that a hand drew wider or narrower, by the table's name and the column's head. [px]"""


class Grid(QTableView):
    """A table. Rows and columns that it tells and takes are those of what it was filled with, however it is sorted."""

    cell_clicked = pyqtSignal(int, int)
    cell_opened = pyqtSignal(int, int)
    cell_taken = pyqtSignal(int, int, int, int)

    def __init__(self, words: str, *, rows_chosen: bool = False, sortable: bool = True) -> None:
        super().__init__()
        self.setAccessibleName(words)
        self.cells = Cells(self)
        self.shown = Shown(self.cells, self)
        self.setModel(self.shown)
        self.setItemDelegate(InPlace(self))
        self.setEditTriggers(QAbstractItemView.EditTrigger.NoEditTriggers)
        self.setVerticalScrollMode(QAbstractItemView.ScrollMode.ScrollPerPixel)
        self.setHorizontalScrollMode(QAbstractItemView.ScrollMode.ScrollPerPixel)
        self.setWordWrap(False)
        if rows_chosen:
            self.setSelectionBehavior(QAbstractItemView.SelectionBehavior.SelectRows)
            self.setSelectionMode(QAbstractItemView.SelectionMode.SingleSelection)
        else:
            self.setSelectionMode(QAbstractItemView.SelectionMode.NoSelection)
        down, across = self.verticalHeader(), self.horizontalHeader()
        if down is None or across is None:
            raise RuntimeError("a table without heads")
        self._down, self._across = down, across
        self._down.setSectionResizeMode(QHeaderView.ResizeMode.Fixed)
        self._down.setDefaultSectionSize(22)
        self._down.setMinimumSectionSize(18)
        self._across.setFixedHeight(24)
        self._across.setMinimumSectionSize(20)
        self._across.setDefaultAlignment(Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter)
        self._across.setSortIndicator(-1, Qt.SortOrder.AscendingOrder)
        self._across.setSortIndicatorClearable(True)
        self.setSortingEnabled(sortable)
        self._across.sectionResized.connect(self._drawn)
        self._across.sortIndicatorChanged.connect(lambda _n, _way: self._fit())
        self._fitting = False
        self._said = Label()
        self._said.setParent(self)
        self._said.hide()
        self.clicked.connect(lambda i: self._told(self.cell_clicked, i))
        self.doubleClicked.connect(lambda i: self._told(self.cell_opened, i))

    def row_height(self, px: int) -> None:
        """Make the rows lower or higher than usual."""
        self._down.setDefaultSectionSize(px)

    # Filling

    def fill(
        self,
        theme: Theme,
        heads: Sequence[str],
        rows: Sequence[Sequence[Cell]],
        names: Sequence[str] = (),
        shaded: Callable[[int, int], bool] = lambda _r, _c: False,
    ) -> None:
        """Fill the table.

        Args:
            names: Row heads; none where empty.
            shaded: Whether the cell of a row and column is shaded as chosen.
        """
        self.cells.theme, self.cells.shaded = theme, shaded
        self.cells.put(heads, rows, names)
        self._down.setVisible(bool(names))
        self._fit()

    def show_rows(self, theme: Theme, rows: Rows) -> None:
        """Fill the table with what a page's model tells."""
        self.fill(theme, rows.heads, rows.cells())

    def work_on(self, theme: Theme, entries: Entries[Any]) -> None:
        """Fill the table with entries that are changed, added and deleted in it."""
        model = self.cells
        if model.entries is not entries:
            model.entries = entries
            self.setEditTriggers(
                QAbstractItemView.EditTrigger.DoubleClicked
                | QAbstractItemView.EditTrigger.EditKeyPressed
            )
        model.columns, model.listed = entries.columns(), entries.entries()
        self.fill(theme, heads(model.columns), cells(model.columns, model.listed))

    # Columns

    def _fit(self) -> None:
        """Give every column what its words need; what is left over goes to words, what lacks is taken from the widest."""
        view, port = self.cells, self.viewport()
        if port is None or not view.heads:
            return
        usual, heavy = lettering(12), lettering(12, bold=True)
        above = self._across.fontMetrics()
        wants, wordy, order = [], [], self._across.sortIndicatorSection()
        for n, head in enumerate(view.heads):
            texts = [row[n] for row in view.rows[:MEASURED]]
            widest = math.ceil(max(((heavy if s else usual).width(t) for t, s in texts), default=0))
            over = above.horizontalAdvance(head) + PAD + ARROW * (n == order)
            wants.append(max(widest + PAD, over, LEAST))
            wordy.append(any(t and not FIGURE.match(t) for t, _s in texts))
        own = [WIDTHS.get(self._key(n), 0) for n in range(len(wants))]
        room = port.width() - sum(own)
        free = [n for n, width in enumerate(own) if not width]
        found = dict(
            zip(
                free,
                shared_out([wants[n] for n in free], [wordy[n] for n in free], room),
                strict=True,
            )
        )
        self._fitting = True
        for n, width in enumerate(own):
            self.setColumnWidth(n, width or found[n])
        self._fitting = False

    def _key(self, n: int) -> str:
        return f"{self.accessibleName()}/{self.cells.heads[n]}"

    def _drawn(self, n: int, _old: int, new: int) -> None:
        """Remember the width that a hand gave a column."""
        if (
            not self._fitting
            and n < len(self.cells.heads)
            and QGuiApplication.mouseButtons() != Qt.MouseButton.NoButton
        ):
            WIDTHS[self._key(n)] = new

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        """Fit the columns anew."""
        super().resizeEvent(event)
        self._fit()
        self._tell()

    # Rows as they were filled

    def _told(self, signal: Any, index: Index) -> None:
        """Tell of a cell, but of the row for a new entry."""
        row, column = self._at(index)
        if row < self.rowCount():
            signal.emit(row, column)

    def _at(self, index: Index) -> tuple[int, int]:
        source = self.shown.mapToSource(index)
        return source.row(), source.column()

    def _order(self) -> list[int]:
        """The rows as they are shown, that for a new entry with them."""
        return [self._at(self.shown.index(n, 0))[0] for n in range(self.shown.rowCount())]

    def rowCount(self) -> int:
        """How many rows it was filled with."""
        return len(self.cells.rows)

    def columnCount(self) -> int:
        """How many columns it has."""
        return len(self.cells.heads)

    def index_of(self, row: int, column: int) -> Index:
        """Where a cell is shown; invalid where it is filtered out."""
        return self.shown.mapFromSource(self.cells.index(row, column))

    def text_at(self, row: int, column: int) -> str:
        """The words of a cell."""
        return str(self.cells.index(row, column).data() or "")

    def rect_of(self, row: int, column: int) -> QRect:
        """Where a cell is on the screen, scrolled to if need be."""
        index = self.index_of(row, column)
        self.scrollTo(index)
        return self.visualRect(index)

    def row_at(self, point: Any) -> int:
        """The row under a point; -1 for none."""
        index = self.indexAt(point)
        row = self._at(index)[0] if index.isValid() else -1
        return row if row < self.rowCount() else -1

    def currentRow(self) -> int:
        """The row that is in hand; -1 for none."""
        index = self.currentIndex()
        return self._at(index)[0] if index.isValid() else -1

    def chosen_rows(self) -> list[int]:
        """The rows that are chosen, in their order."""
        found = {self._at(i)[0] for i in self.selectedIndexes()}
        return sorted(n for n in found if n < self.rowCount())

    def selectRow(self, row: int) -> None:
        """Choose a row."""
        index = self.index_of(row, 0)
        if index.isValid():
            super().selectRow(index.row())

    def currentChanged(self, current: Index, previous: Index) -> None:
        """Tell that another cell is in hand."""
        super().currentChanged(current, previous)
        row, column = self._at(current)
        self.cell_taken.emit(row if row < self.rowCount() else -1, column, *self._at(previous))

    # Keys

    def event(self, event: QEvent | None) -> bool:
        """Take the keys that are its own before a shortcut of the window does."""
        if (
            event is not None
            and event.type() == QEvent.Type.ShortcutOverride
            and isinstance(event, QKeyEvent)
            and (self._own(event))
        ):
            event.accept()
            return True
        return super().event(event)

    def _own(self, event: QKeyEvent) -> bool:
        if event.matches(QKeySequence.StandardKey.Copy) or event.matches(
            QKeySequence.StandardKey.Paste
        ):
            return True
        if self.shown.word and event.key() in (Qt.Key.Key_Escape, Qt.Key.Key_Backspace):
            return True
        if event.key() == Qt.Key.Key_Delete and self.cells.entries is not None:
            return True
        return bool(_letters(event))

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Copy, paste, delete, edit, or show only what holds the letters that are typed."""
        if event is None:
            return
        if event.matches(QKeySequence.StandardKey.Copy):
            self.copy()
        elif event.matches(QKeySequence.StandardKey.Paste):
            self.paste()
        elif event.key() == Qt.Key.Key_Delete and self.cells.entries is not None:
            self.delete_chosen()
        elif self.shown.word and event.key() in (Qt.Key.Key_Escape, Qt.Key.Key_Backspace):
            self.filter("" if event.key() == Qt.Key.Key_Escape else self.shown.word[:-1])
        elif self.cells.entries is not None and event.key() in (
            Qt.Key.Key_Return,
            Qt.Key.Key_Enter,
        ):
            # The key that ended an edit comes here too.
            ready = self.state() != QAbstractItemView.State.EditingState
            if ready and self.currentIndex().flags() & Qt.ItemFlag.ItemIsEditable:
                self.edit(self.currentIndex())
        elif _letters(event):
            self.filter(self.shown.word + event.text().casefold())
        else:
            super().keyPressEvent(event)

    def filter(self, word: str) -> None:
        """Show only the rows that hold a word."""
        self.shown.wanted(word)
        self._tell()

    def _tell(self) -> None:
        """Say that not all rows are shown, and how all are again."""
        self._said.setVisible(bool(self.shown.word))
        if self.shown.word:
            self._said.setText(f" Rows with “{self.shown.word}” · Esc shows all ")
            self._said.setStyleSheet(
                f"background: {self.cells.theme.accent}; color: {self.cells.theme.accent_ink};"
            )
            self._said.adjustSize()
            self._said.move(
                self.width() - self._said.width() - 4, self.height() - self._said.height() - 4
            )

    # Copy, paste, delete

    def copy(self) -> None:
        """Put what is chosen, or else all that is shown, on the clipboard: with its heads, parted by tabs."""
        board = QGuiApplication.clipboard()
        if board is None:
            return
        shown, many = self._order(), self.chosen_rows()
        chosen = set(many if len(many) > 1 else shown)
        rows = [self.cells.rows[n] for n in shown if n in chosen and n < self.rowCount()]
        lines = [self.cells.heads, *([_copied(text) for text, _severity in row] for row in rows)]
        board.setText("\n".join("\t".join(line) for line in lines))

    def paste(self) -> None:
        """Write what is on the clipboard over what stands from the cell in hand on; what is left becomes new entries."""
        board, model, index = QGuiApplication.clipboard(), self.cells, self.currentIndex()
        if board is None or model.entries is None:
            return
        lines = [line.split("\t") for line in board.text().splitlines() if line.strip()]
        if lines and tuple(lines[0]) == model.heads:
            del lines[0]
        at = index.row() if index.isValid() else self.shown.rowCount() - 1
        whole = bool(lines) and len(lines[0]) >= len(model.heads)
        first = 0 if whole or not index.isValid() else index.column()
        new = [self.rowCount()] * len(lines)
        rows = [*self._order()[at:], *new][: len(lines)]
        model.entries.as_one(f"paste {len(lines)} rows", lambda: self._written(lines, rows, first))

    def _written(self, lines: list[list[str]], rows: list[int], first: int) -> None:
        """Write lines over rows, from a column on; what says what is there already changes nothing."""
        model, entries = self.cells, self.cells.entries
        if entries is None:
            return
        old, columns = model.listed, model.columns
        shown = [[_copied(text) for text, _severity in row] for row in model.rows]
        for row, line in zip(rows, lines, strict=True):
            there = shown[row] if row < len(old) else [""] * len(columns)
            typed = {
                column.field: text.strip()
                for column, text, known in zip(columns[first:], line, there[first:], strict=False)
                if column.field and text.strip() != known
            }
            if row < len(old):
                for field, text in typed.items():
                    entries.change(old[row], field, text)
            elif typed and not entries.add(typed):
                break

    def delete_chosen(self) -> None:
        """Delete the entries that are chosen, or the one in hand."""
        entries = self.cells.entries
        if entries is not None:
            rows = self.chosen_rows() or [
                n for n in (self.currentRow(),) if 0 <= n < self.rowCount()
            ]
            known = self.cells.listed
            entries.as_one(
                f"delete {len(rows)} rows", lambda: entries.delete([known[n] for n in rows])
            )


def _letters(event: QKeyEvent) -> str:
    """What is typed of words and figures, without a key that does something else held down."""
    free = event.modifiers() & ~(
        Qt.KeyboardModifier.ShiftModifier | Qt.KeyboardModifier.KeypadModifier
    )
    text = event.text()
    return (
        text if free == Qt.KeyboardModifier.NoModifier and len(text) == 1 and text.isalnum() else ""
    )


def _copied(text: str) -> str:
    """A cell as a spreadsheet takes it: a figure without its commas, words that it does not run."""
    return text.replace(",", "") if FIGURE.fullmatch(text) else str(safe(text))


def shared_out(wants: Sequence[int], wordy: Sequence[bool], room: int) -> list[int]:
    """How wide columns are in some room.

    Args:
        wants: What each needs. [px]
        wordy: Which hold words: these get what is left over, and give way where there is too little.
        room: What there is. [px]
    Returns: Widths; of what gives way the widest first, down to one width, and none below its least. [px]
    """
    found, spare = list(wants), room - sum(wants)
    if spare >= 0:
        takers = [n for n, words in enumerate(wordy) if words] or list(range(len(wants)))[-1:]
        for k, n in enumerate(takers):
            found[n] += spare // len(takers) + (k < spare % len(takers))
        return found
    kept = sum(w for w, words in zip(wants, wordy, strict=True) if not words)
    if any(wordy) and room - kept >= LEAST * sum(wordy):
        rest = iter(
            _capped([w for w, words in zip(wants, wordy, strict=True) if words], room - kept)
        )
        return [next(rest) if words else w for w, words in zip(wants, wordy, strict=True)]
    return _capped(wants, room)


def _capped(wants: Sequence[int], room: int) -> list[int]:
    """The widest give way down to one width, so that all go into some room. [px]"""
    low, high = LEAST, max(wants, default=LEAST)
    while high - low > 1:
        middle = (low + high) // 2
        low, high = (middle, high) if sum(min(w, middle) for w in wants) <= room else (low, middle)
    return [min(w, low) for w in wants]
