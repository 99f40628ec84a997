"""Columns of tables: what stands over a column and in its cells, in every output, and how it is changed; written once."""

from collections.abc import Callable, Mapping, Sequence
from typing import Any, Generic, NamedTuple, Protocol, TypeVar

T = TypeVar("T")
Cell = tuple[str, str]
"""Words of a cell, and its severity: ``stop``, ``look``, ``note``, ``bold`` or nothing."""


class Column(NamedTuple, Generic[T]):
    """One column of a table.

    Attributes:
        header: What stands over it on the screen and on paper; in files only where it has neither this nor a cell.
        cell: Words and severity for an entry; its value where it is not said.
        field: What of the entry is changed in place; empty where nothing is.
        typed: The words as they are typed; those of the cell where it is not said.
        choices: What can be chosen; typed freely where it is not said.
        needed: Whether a new entry has to have it.
        csv, key: What stands over it in CSV, its key in JSON; empty where it is not in there.
        value: What files say of an entry: words, or a figure in the file's unit, rounded.
    """

    header: str = ""
    cell: Callable[[T], Cell] | None = None
    field: str = ""
    typed: Callable[[T], str] | None = None
    choices: Callable[[], Sequence[str]] | None = None
    needed: bool = False
    csv: str = ""
    key: str = ""
    value: Callable[[T], object] = str

    @property
    def seen(self) -> bool:
        """Whether it stands on the screen and on paper."""
        return bool(self.header) or self.cell is not None

    def words(self, entry: T) -> str:
        """What is edited of an entry."""
        return self.typed(entry) if self.typed is not None else self.shown(entry)[0]

    def shown(self, entry: T) -> Cell:
        """Words and severity for an entry."""
        return self.cell(entry) if self.cell is not None else (str(self.value(entry)), "")


class Rows(Protocol):
    """What a table shows that is only looked at."""

    @property
    def heads(self) -> tuple[str, ...]:
        """What stands over the columns."""

    def cells(self) -> list[list[Cell]]:
        """The rows."""


class Entries(Protocol[T]):
    """What a table shows that can be worked in: entries, changed, added and deleted where they stand."""

    def columns(self) -> tuple[Column[T], ...]:
        """Its columns."""

    def entries(self) -> Sequence[T]:
        """What stands in its rows."""

    def change(self, entry: T, field: str, text: str) -> None:
        """Change a field of an entry from what was typed; trouble is told."""

    def add(self, typed: Mapping[str, str]) -> bool:
        """Add an entry from what was typed, by field; trouble is told."""

    def delete(self, some: Sequence[T]) -> None:
        """Delete entries."""

    def as_one(self, words: str, make: Callable[[], None]) -> bool:
        """Do several edits as one step of the history, and whether it stands."""


def heads(columns: Sequence[Column[T]]) -> tuple[str, ...]:
    """What stands over the columns of the screen."""
    return tuple(c.header for c in columns if c.seen)


def cells(
    columns: Sequence[Column[T]], entries: Sequence[T], bold: Callable[[T], bool] | None = None
) -> list[list[Cell]]:
    """Every entry in a row of the screen; the first cell of those that are chosen stands bold."""
    rows = [[c.shown(one) for c in columns if c.seen] for one in entries]
    for row, one in zip(rows, entries, strict=True):
        if bold is not None and bold(one):
            row[0] = (row[0][0], "bold")
    return rows


def lines(columns: Sequence[Column[T]], entries: Sequence[T]) -> list[list[object]]:
    """Every entry in a line of CSV, below what stands over the columns; nothing stands for what is not known."""
    told = [c for c in columns if c.csv]
    rows = [["" if (v := c.value(one)) is None else v for c in told] for one in entries]
    return [[c.csv for c in told], *rows]


def record(columns: Sequence[Column[T]], entry: T) -> dict[str, Any]:
    """An entry as JSON has it."""
    return {c.key: c.value(entry) for c in columns if c.key}


def told(columns: Sequence[Column[T]], entries: Sequence[T]) -> tuple[tuple[str, ...], ...]:
    """Every entry in a row of a paper: the words of the screen."""
    return tuple(tuple(words for words, _ in row) for row in cells(columns, entries))
