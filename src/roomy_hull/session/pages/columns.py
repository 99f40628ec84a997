"""Columns of tables: what stands over a column and in its cells, and how a cell is changed; each written once."""

from collections.abc import Callable, Mapping, Sequence
from typing import Generic, NamedTuple, Protocol, TypeVar

from roomy_hull.session.pages.cells import Cell

T = TypeVar("T")


class Column(NamedTuple, Generic[T]):
    """One column of a table.

    Attributes:
        header: What stands over it.
        cell: Words and severity for an entry.
        field: What of the entry is changed in place; empty where nothing is.
        typed: The words as they are typed; those of the cell where it is not said.
        choices: What can be chosen; typed freely where it is not said.
        needed: Whether a new entry has to have it.
    """

    header: str
    cell: Callable[[T], Cell]
    field: str = ""
    typed: Callable[[T], str] | None = None
    choices: Callable[[], Sequence[str]] | None = None
    needed: bool = False

    def words(self, entry: T) -> str:
        """What is edited of an entry."""
        return self.typed(entry) if self.typed is not None else self.cell(entry)[0]


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
    """What stands over the columns."""
    return tuple(c.header for c in columns)


def cells(columns: Sequence[Column[T]], entries: Sequence[T]) -> list[list[Cell]]:
    """Every entry in a row."""
    return [[c.cell(one) for c in columns] for one in entries]
