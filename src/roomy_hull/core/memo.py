"""Memo by identity: what was worked out of the very same values is not worked out again."""

import functools
from collections.abc import Callable
from typing import Any, TypeVar

Result = TypeVar("Result")


def by_identity(
    most: int, first: int | None = None
) -> Callable[[Callable[..., Result]], Callable[..., Result]]:
    """Remember a pure function's results by its arguments' identity: hashing large values takes longer than looking.

    Args:
        most: So many results are kept, those asked for last.
        first: So many arguments are told by identity, those behind them by their value; all by identity where none is
            given.
    Returns:
        A decorator. Arguments are given by position, and are held as long as their result, so that no other value
        can take their place.
    """

    def wrap(function: Callable[..., Result]) -> Callable[..., Result]:
        known: dict[tuple[Any, ...], tuple[tuple[Any, ...], Result]] = {}

        @functools.wraps(function)
        def remembered(*values: Any) -> Result:
            key = tuple(map(id, values[:first])) + (values[first:] if first is not None else ())
            row = known.pop(key, None)
            if row is None:
                row = values, function(*values)
                if len(known) >= most:
                    del known[next(iter(known))]
            known[key] = row
            return row[1]

        return remembered

    return wrap
