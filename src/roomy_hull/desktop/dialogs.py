"""Dialogs: what actions may ask the person, asked over the window."""

from collections.abc import Callable
from pathlib import Path

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QGuiApplication
from PyQt6.QtWidgets import QDialog, QFileDialog, QInputDialog, QMessageBox

from roomy_hull import __version__
from roomy_hull.desktop.text import plain
from roomy_hull.desktop.window import MainWindow
from roomy_hull.formats.folders import home
from roomy_hull.formats.jobfile import SUFFIX
from roomy_hull.job.model import Job
from roomy_hull.session.doing import do, registry
from roomy_hull.session.session import Session

ABOUT = (
    "Lays out trays, canopies, drawers, fridges, kitchens and tanks within a vehicle, and checks fit, access and loads "
    "before metal is cut. It computes and warns; it never certifies: plates, papers, local codes and licensed people decide."
)
LICENCE = (
    "Free software under the GNU General Public License, version 3 or later; without any warranty."
)
FILES = f"Roomy Hull jobs (*{SUFFIX});;All files (*)"
Writes = Callable[[Path], None]


class Dialogs:
    """Asks the person, and hands long writing to the window that shows its progress.

    Args:
        window: Over which dialogs stand.
        session: The job that is asked about.
    """

    def __init__(self, window: MainWindow, session: Session) -> None:
        self._window, self._session = window, session

    def open_path(self) -> Path | None:
        """Ask for a job file to open."""
        return self.file("Open a job", FILES, self._folder(), to_save=False)

    def save_path(self) -> Path | None:
        """Ask for a job file to save to."""
        session = self._session
        plain = session.job.name.lower().replace(" ", "-") or "job"
        start = str(session.path or Path(self._folder()) / f"{plain}{SUFFIX}")
        return self.file("Save the job", FILES, start, to_save=True)

    def folder(self, words: str) -> Path | None:
        """Ask for a folder."""
        name = QFileDialog.getExistingDirectory(self._window, words, self._folder())
        return Path(name) if name else None

    def file(self, words: str, kinds: str, wish: str, *, to_save: bool) -> Path | None:
        """Ask for a file of some kinds, to read or to write."""
        start = wish if "/" in wish else str(Path(self._folder()) / wish)
        ask = QFileDialog.getSaveFileName if to_save else QFileDialog.getOpenFileName
        name, _ = ask(self._window, words, start, kinds)
        return Path(name) if name else None

    def _folder(self) -> str:
        """Name the folder to begin in: the job's, or that of the last one."""
        session = self._session
        recent = session.settings.recent()
        known = [session.path] if session.path else recent
        return str(known[0].parent if known else home())

    def may_lose(self) -> bool:
        """Ask what to do with unsaved work; False stops the action."""
        session = self._session
        if not session.history.dirty:
            return True
        buttons = QMessageBox.StandardButton
        answer = QMessageBox.question(
            self._window, "Unsaved work", plain(f"Save the changes to {session.job.name} first?"),
            buttons.Save | buttons.Discard | buttons.Cancel, buttons.Save,
        )  # fmt: skip
        if answer == buttons.Save:
            do(session, "job.save")
            return not session.history.dirty
        if answer == buttons.Discard:
            session.settings.drop_autosave()
            return True
        return False

    def new_job(self) -> Job | None:
        """Ask for a vehicle and a first body; nothing where the person changes their mind."""
        from roomy_hull.desktop.widgets.new_job import NewJob  # ruff: ignore[import-outside-top-level]  # not to slow the start

        dialog = NewJob(self._window.theme, self._window, self._session.settings.vehicles_folder())
        return dialog.job() if dialog.exec() == QDialog.DialogCode.Accepted else None

    def name(self, words: str, wish: str) -> str:
        """Ask for a name; empty where the person changes their mind."""
        text, fine = QInputDialog.getText(self._window, "Roomy Hull", plain(words), text=wish)
        return text.strip()[:120] if fine else ""

    def chosen_entry(self) -> str:
        """Look up the key of what is chosen in the stores; empty for nothing."""
        return self._window.stores.list.chosen_key() if self._window.settled else ""

    def agree(self, words: str) -> bool:
        """Ask yes or no."""
        answer = QMessageBox.question(self._window, "Roomy Hull", plain(words))
        return answer == QMessageBox.StandardButton.Yes

    def choose(self, words: str, options: tuple[str, ...]) -> str:
        """Ask which of some ways to go; empty for none of them."""
        box = QMessageBox(self._window)
        box.setWindowTitle("Roomy Hull")
        box.setTextFormat(Qt.TextFormat.PlainText)
        box.setText(words)
        buttons = [(box.addButton(o, QMessageBox.ButtonRole.ActionRole), o) for o in options]
        box.addButton(QMessageBox.StandardButton.Cancel)
        box.exec()
        pressed = box.clickedButton()
        return next((o for button, o in buttons if button is pressed), "")

    def pasted(self) -> str:
        """What text is on the clipboard; empty for none."""
        board = QGuiApplication.clipboard()
        return board.text() if board is not None else ""

    def show_about(self) -> None:
        """Show what this is, and of which version."""
        QMessageBox.about(
            self._window,
            "About Roomy Hull",
            f"<b>Roomy Hull {__version__}</b><p>{ABOUT}</p><p>{LICENCE}</p>",
        )

    def show_keys(self) -> None:
        """Show the key sheet."""
        from roomy_hull.desktop.widgets.dialogs import KeySheet  # ruff: ignore[import-outside-top-level]  # not to slow the start

        KeySheet(registry(), self._window).exec()

    def find_action(self) -> None:
        """Show the list of all actions to search, and do the chosen one."""
        from roomy_hull.desktop.widgets.dialogs import ActionSearch  # ruff: ignore[import-outside-top-level]  # as above

        dialog = ActionSearch(registry(), self._session, self._window)
        if dialog.exec() == QDialog.DialogCode.Accepted and dialog.chosen():
            do(self._session, dialog.chosen())

    def quit(self) -> None:
        """Close the window."""
        self._window.close()

    def write_cut(self, folder: Path, *, solids: bool = False) -> None:
        """Write the cut files in the background, where their progress is seen."""
        self._session.view.turn_to("Cut", "Sheets")
        self._window.stages.cut().write(folder, solids=solids)

    def write_book(self, folder: Path) -> None:
        """Write the book and its labels in the background, where its progress is seen."""
        self._session.view.turn_to("Cut", "Sheets")
        self._window.stages.cut().write_book(folder)

    def write_sheet(self, folder: Path) -> None:
        """Write the load sheet as PDF and CSV."""
        from roomy_hull.desktop.pages.loads import sheet_pdf  # ruff: ignore[import-outside-top-level]  # not to slow the start

        sheet_pdf.write_told(self._session, folder)

    def write_build(self, kind: str, folder: Path) -> None:
        """Write a paper of the build as PDF."""
        from roomy_hull.desktop import build_files  # ruff: ignore[import-outside-top-level]  # not to slow the start

        build_files.write_told(self._session, kind, folder)

    def write_view(self, path: Path) -> None:
        """Write what is drawn as SVG or PDF."""
        from roomy_hull.desktop import papers  # ruff: ignore[import-outside-top-level]  # not to slow the start

        papers.write_told(self._session, self._window.shown(), path)
