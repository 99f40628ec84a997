"""Tables whose cells are fields of the card: written, read and bounded as these are."""

from collections.abc import Callable, Mapping, Sequence
from typing import Generic, TypeVar

from roomy_hull.core.card import Field
from roomy_hull.core.errors import UserError
from roomy_hull.job.edits.resizing import value_at
from roomy_hull.session.actions import editing
from roomy_hull.session.pages.model import PageModel
from roomy_hull.session.typed import shown, typed
from roomy_hull.tables.column import Cell, Column

T = TypeVar("T")


class Worked(PageModel, Generic[T]):
    """Entries of which the card has the fields: a cell is edited by the field's own rules."""

    def key(self, entry: T) -> str:
        """The id of what a row tells of."""
        raise NotImplementedError

    def fields(self, key: str) -> tuple[Field, ...]:
        """The fields that the card has of it."""
        raise NotImplementedError

    def field(self, key: str, name: str) -> Field | None:
        """One of them, by the end of its path; none where it has none such."""
        return next((f for f in self.fields(key) if f.name.rsplit(".", 1)[-1] == name), None)

    def read(self, name: str, text: str) -> str:  # ruff: ignore[unused-method-argument]  # for a table that shows other words
        """What a field holds for the words that the table shows."""
        return text

    def column(
        self, header: str, name: str, cell: Callable[[T], Cell] | None = None, *,
        choices: Callable[[], Sequence[str]] | None = None, typed: Callable[[T], str] | None = None, needed: bool = False,
    ) -> Column[T]:  # fmt: skip
        """A column that is edited as a field of the card.

        Args:
            cell: What stands in it; what the card shows where it is not said.
            choices: What can be chosen; typed freely where it is not said.
            typed: Which of the choices it is; what stands in the cell where it is not said.
            needed: Whether a new entry has to have it.
        """

        def words(entry: T) -> str:
            one = self.field(self.key(entry), name)
            return (
                ""
                if one is None
                else shown(one, value_at(self._session.job, one.name), self._session.look.system)
            )

        return Column(
            header,
            cell or (lambda e: (words(e), "")),
            name,
            typed or (None if choices else words),
            choices,
            needed,
        )

    def change(self, entry: T, field: str, text: str) -> None:
        """Change a field of an entry from what was typed; trouble is told."""
        self._change(self.key(entry), field, text)

    def _change(self, key: str, field: str, text: str) -> None:
        one = self.field(key, field)
        if one is None:
            self._session.say("That follows from the rest: there is nothing to type.", trouble=True)
            return
        try:
            value = typed(one, self.read(field, text), self._session.look.system)
        except UserError as trouble:
            self._session.say(str(trouble), trouble=True)
            return
        editing.set_size(self._session, path=one.name, value=value)

    def new(self, name: str) -> str:
        """Add an entry by its name: its id; empty, and told, where it cannot be."""
        raise NotImplementedError

    def add(self, typed: Mapping[str, str]) -> bool:
        """Add an entry from what was typed, by field, as one step; trouble is told."""
        name, key = typed["name"].strip(), ""

        def make() -> None:
            nonlocal key
            key = self.new(name)
            if key:
                for field, text in typed.items():
                    if field != "name" and text.strip():
                        self._change(key, field, text)

        return self.as_one(f"add {name}", make) and bool(key)
