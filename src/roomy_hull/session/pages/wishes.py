"""Wishes in tables: changed where they stand, added below, deleted; the same on every page that lists them."""

from collections.abc import Callable, Sequence
from typing import TypeVar

from roomy_hull.core.card import Field
from roomy_hull.job.brief import NEEDS, Wish
from roomy_hull.session.actions import editing
from roomy_hull.session.card_fields import brief_fields
from roomy_hull.session.pages.worked import Worked
from roomy_hull.tables.column import Cell, Column

T = TypeVar("T")
NOTHING = "not decided"


class Wishes(Worked[T]):
    """Rows that are of a wish each."""

    def wish(self, entry: T) -> Wish:
        """The wish of a row."""
        raise NotImplementedError

    def key(self, entry: T) -> str:
        """The id of a wish."""
        return self.wish(entry).id

    def fields(self, key: str) -> tuple[Field, ...]:
        """The fields that the card has of a wish."""
        return brief_fields(self._session.job, key)

    def named(self, cell: Callable[[T], Cell] | None = None) -> tuple[Column[T], Column[T]]:
        """The columns of what is wished for, and how much it is needed."""
        return (
            self.column("Wish", "name", cell, needed=True),
            self.column("Need", "need", lambda e: (self.wish(e).need, ""), choices=lambda: NEEDS),
        )

    def decided(self, header: str, cell: Callable[[T], Cell]) -> Column[T]:
        """The column of what was decided for it."""
        return self.column(header, "thing", cell, choices=lambda: tuple(self._names().values()))

    def _names(self) -> dict[str, str]:
        """What a wish may have been decided to be: words by id, nothing first."""
        things = self._session.known.assembly.things
        return {"": NOTHING} | {t.id: t.name for t in things}

    def read(self, name: str, text: str) -> str:
        """Of what is copied from a table, the figure without its uncertainty, the thing by its name."""
        if name == "thing":
            return next((key for key, words in self._names().items() if words == text), "")
        return text.partition("±")[0].strip()

    def new(self, name: str) -> str:
        """Add a wish by its name."""
        made = editing.add_wish(self._session, name=name, need="wanted", mass=0.0, x=0.0)
        return self._session.job.brief.wishes[-1].id if made else ""

    def delete(self, some: Sequence[T]) -> None:
        """Delete wishes."""
        for row in some:
            editing.drop_wish(self._session, key=self.key(row))
