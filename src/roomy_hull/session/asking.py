"""Asking: what an action may ask the person at the screen."""

from pathlib import Path
from typing import Protocol

from roomy_hull.job.model import Job


class Asker(Protocol):
    """What an action may ask the person at the screen."""

    def open_path(self) -> Path | None:
        """Ask for a job file to open."""

    def save_path(self) -> Path | None:
        """Ask for a job file to save to."""

    def folder(self, words: str) -> Path | None:
        """Ask for a folder."""

    def file(self, words: str, kinds: str, wish: str, *, to_save: bool) -> Path | None:
        """Ask for a file of some kinds, to read or to write."""

    def may_lose(self) -> bool:
        """Ask what to do with unsaved work; False stops the action."""

    def new_job(self) -> Job | None:
        """Ask for a vehicle and a first body; nothing where the person changes their mind."""

    def name(self, words: str, wish: str) -> str:
        """Ask for a name; empty where the person changes their mind."""

    def chosen_entry(self) -> str:
        """The key of what is chosen in the stores; empty for nothing."""

    def agree(self, words: str) -> bool:
        """Ask yes or no."""

    def choose(self, words: str, options: tuple[str, ...]) -> str:
        """Ask which of some ways to go; empty for none of them."""

    def pasted(self) -> str:
        """What text is on the clipboard; empty for none."""

    def show_about(self) -> None:
        """Show what this is, and of which version."""

    def show_keys(self) -> None:
        """Show the key sheet."""

    def find_action(self) -> None:
        """Show the list of all actions to search."""

    def quit(self) -> None:
        """Close the window."""

    def write_cut(self, folder: Path, *, solids: bool = False) -> None:
        """Write the cut files in the background."""

    def write_sheet(self, folder: Path) -> None:
        """Write the load sheet as PDF and CSV."""

    def write_book(self, folder: Path) -> None:
        """Write the book and its labels as PDF in the background."""

    def write_build(self, kind: str, folder: Path) -> None:
        """Write a paper of the build as PDF: ``offer``, ``pack``, ``lists``, ``checks``, ``progress``, ``board``."""

    def write_view(self, path: Path) -> None:
        """Write what is drawn as SVG or PDF."""


class Nobody:
    """Stands in where nobody can be asked: nothing is chosen, nothing is agreed to."""

    def open_path(self) -> Path | None:
        """Choose no file."""
        return None

    def save_path(self) -> Path | None:
        """Choose no file."""
        return None

    def folder(self, _words: str) -> Path | None:
        """Choose no folder."""
        return None

    def file(self, _words: str, _kinds: str, _wish: str, *, to_save: bool) -> Path | None:  # ruff: ignore[unused-method-argument]
        """Choose no file."""
        return None

    def may_lose(self) -> bool:
        """Keep unsaved work."""
        return False

    def new_job(self) -> Job | None:
        """Choose no vehicle."""
        return None

    def name(self, _words: str, _wish: str) -> str:
        """No name."""
        return ""

    def chosen_entry(self) -> str:
        """Choose nothing."""
        return ""

    def agree(self, _words: str) -> bool:
        """Agree to nothing."""
        return False

    def choose(self, _words: str, _options: tuple[str, ...]) -> str:
        """Choose nothing."""
        return ""

    def pasted(self) -> str:
        """Nothing."""
        return ""

    def show_about(self) -> None:
        """Show nothing."""

    def show_keys(self) -> None:
        """Show nothing."""

    def find_action(self) -> None:
        """Show nothing."""

    def quit(self) -> None:
        """Close nothing."""

    def write_cut(self, _folder: Path, *, solids: bool = False) -> None:
        """Write nothing."""

    def write_sheet(self, _folder: Path) -> None:
        """Write nothing."""

    def write_book(self, _folder: Path) -> None:
        """Write nothing."""

    def write_build(self, _kind: str, _folder: Path) -> None:
        """Write nothing."""

    def write_view(self, _path: Path) -> None:
        """Write nothing."""
