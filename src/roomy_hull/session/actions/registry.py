"""The registry: actions as data. Menus, keys, tooltips, key sheet and undo words come from it."""

from __future__ import annotations

from collections.abc import Callable
from typing import TYPE_CHECKING, Any

import msgspec

if TYPE_CHECKING:
    from roomy_hull.session.session import Session

Check = Callable[["Session"], bool]


def always(_session: Session) -> bool:
    """Enable an action at any time."""
    return True


class Action(msgspec.Struct, frozen=True):
    """One action.

    Attributes:
        id, words, tip: Stable id, its words in the menu, what it is for.
        menu: The menu that holds it; empty for one that takes something, and so is done by a widget.
        run: Takes the session, and by name what the action takes.
        keys: Shortcuts in the usual writing, for example ``Ctrl+S``.
        enabled: Takes the session.
        everywhere: Whether its keys work wherever the focus is, or only on the ground.
    """

    id: str
    words: str
    tip: str
    menu: str
    run: Callable[..., Any]
    keys: tuple[str, ...] = ()
    enabled: Check = always
    everywhere: bool = True


MENUS = (
    "Job",
    "Edit",
    "View",
    "Survey",
    "Body",
    "Unit",
    "Services",
    "Loads",
    "Access",
    "Cut",
    "Build",
    "Stage",
    "Help",
)
"""Titles of the menus, in their order; the window shows them before any action is read."""


class Registry:
    """All actions, by id, in the order in which they were declared."""

    def __init__(self, actions: tuple[Action, ...]) -> None:
        self._actions = {a.id: a for a in actions}

    def all(self) -> tuple[Action, ...]:
        """List every action that stands in a menu."""
        return tuple(a for a in self._actions.values() if a.menu)

    def get(self, key: str) -> Action:
        """Look one action up by id."""
        return self._actions[key]

    def menus(self) -> dict[str, list[Action]]:
        """Group the actions by menu."""
        found: dict[str, list[Action]] = {title: [] for title in MENUS}
        for action in self.all():
            found[action.menu].append(action)
        return found

    def key_sheet(self) -> list[tuple[str, str, str]]:
        """List (menu, words, keys) of every action that has a key."""
        return [(a.menu, a.words, ", ".join(a.keys)) for a in self.all() if a.keys]
