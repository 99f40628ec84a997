"""The registry: actions as data. Menus, keys, tooltips, key sheet and undo words come from it."""

from collections.abc import Callable
from pathlib import Path
from typing import Protocol

import msgspec

from roomy_hull.actions.workbench import Workbench
from roomy_hull.job.model import Job


class Asker(Protocol):
    """What an action may ask the person at the screen."""

    def open_path(self) -> Path | None:
        """Ask for a job file to open."""

    def save_path(self) -> Path | None:
        """Ask for a job file to save to."""

    def folder(self, words: str) -> Path | None:
        """Ask for a folder."""

    def may_lose(self) -> bool:
        """Ask what to do with unsaved work; False stops the action."""

    def new_job(self) -> Job | None:
        """Ask for a vehicle and a first body; nothing where the person changes their mind."""

    def vehicle_path(self, *, to_save: bool) -> Path | None:
        """Ask for a vehicle file to import, or to export to."""

    def name(self, words: str, wish: str) -> str:
        """Ask for a name; empty where the person changes their mind."""

    def chosen_entry(self) -> str:
        """Give the key of what is chosen in the stores; empty for nothing."""

    def agree(self, words: str) -> bool:
        """Ask yes or no."""

    def show_keys(self) -> None:
        """Show the key sheet."""

    def find_action(self) -> None:
        """Show the list of all actions to search."""

    def quit(self) -> None:
        """Close the window."""

    def write_cut(self, folder: Path) -> None:
        """Write the cut files in the background."""

    def write_sheet(self, folder: Path) -> None:
        """Write the load sheet as PDF and CSV."""


Check = Callable[[Workbench], bool]


def always(_bench: Workbench) -> bool:
    """Enable an action at any time."""
    return True


class Action(msgspec.Struct, frozen=True):
    """One action.

    Attributes
    ----------
    id, words, tip, menu : str
        Stable id, menu words, what it is for, the menu that holds it.
    keys : tuple of str
        Shortcuts in the usual writing, for example ``Ctrl+S``.
    run : callable
        Takes the workbench and somebody to ask.
    enabled : callable
        Takes the workbench.
    everywhere : bool
        Whether its keys work wherever the focus is, or only on the ground.
    """

    id: str
    words: str
    tip: str
    menu: str
    run: Callable[[Workbench, Asker], None]
    keys: tuple[str, ...] = ()
    enabled: Check = always
    everywhere: bool = True


class Registry:
    """All actions, by id, in the order in which they were declared."""

    def __init__(self, actions: tuple[Action, ...]) -> None:
        self._actions = {a.id: a for a in actions}

    def all(self) -> tuple[Action, ...]:
        """Give every action."""
        return tuple(self._actions.values())

    def get(self, key: str) -> Action:
        """Give one action by id."""
        return self._actions[key]

    def menus(self) -> dict[str, list[Action]]:
        """Group the actions by menu."""
        found: dict[str, list[Action]] = {}
        for action in self._actions.values():
            found.setdefault(action.menu, []).append(action)
        return found

    def key_sheet(self) -> list[tuple[str, str, str]]:
        """Give (menu, words, keys) of every action that has a key."""
        return [(a.menu, a.words, ", ".join(a.keys)) for a in self.all() if a.keys]
