"""What the window asks the person for: files, folders, names, yes or no, actions to find."""

from pathlib import Path
from typing import TYPE_CHECKING

from PyQt6.QtWidgets import QDialog, QFileDialog, QInputDialog, QMainWindow, QMessageBox

from roomy_hull.actions.registry import Registry
from roomy_hull.actions.workbench import Workbench
from roomy_hull.desktop.theme import Theme
from roomy_hull.formats.jobfile import SUFFIX
from roomy_hull.formats.vehiclefile import SUFFIX as VEHICLE_SUFFIX
from roomy_hull.formats.vehiclefile import own_folder
from roomy_hull.job.model import Job

if TYPE_CHECKING:
    from roomy_hull.desktop.stores_panel import StoresPanel

FILES = f"Roomy Hull jobs (*{SUFFIX});;All files (*)"


class Asking(QMainWindow):
    """The asking half of the main window; what it needs of the other half is declared here."""

    bench: Workbench
    registry: Registry
    settled: bool
    stores: "StoresPanel"

    def _theme(self) -> Theme:
        raise NotImplementedError

    def do(self, key: str) -> None:
        """Do an action by its id, if it is enabled."""
        raise NotImplementedError

    def open_path(self) -> Path | None:
        """Ask for a job file to open."""
        name, _ = QFileDialog.getOpenFileName(self, "Open a job", self._folder(), FILES)
        return Path(name) if name else None

    def save_path(self) -> Path | None:
        """Ask for a job file to save to."""
        bench = self.bench
        plain = bench.job.name.lower().replace(" ", "-") or "job"
        start = str(bench.path) if bench.path else str(Path(self._folder()) / f"{plain}{SUFFIX}")
        name, _ = QFileDialog.getSaveFileName(self, "Save the job", start, FILES)
        return Path(name) if name else None

    def folder(self, words: str) -> Path | None:
        """Ask for a folder."""
        name = QFileDialog.getExistingDirectory(self, words, self._folder())
        return Path(name) if name else None

    def _folder(self) -> str:
        recent = self.bench.keeping.recent()
        return str(
            self.bench.path.parent
            if self.bench.path
            else recent[0].parent
            if recent
            else Path.home()
        )

    def may_lose(self) -> bool:
        """Ask what to do with unsaved work; False stops the action."""
        if not self.bench.history.dirty:
            return True
        buttons = QMessageBox.StandardButton
        answer = QMessageBox.question(
            self, "Unsaved work", f"Save the changes to {self.bench.job.name} first?",
            buttons.Save | buttons.Discard | buttons.Cancel, buttons.Save,
        )  # fmt: skip
        if answer == buttons.Save:
            self.do("job.save")
            return not self.bench.history.dirty
        if answer == buttons.Discard:
            self.bench.keeping.drop_autosave()
            return True
        return False

    def new_job(self) -> Job | None:
        """Ask for a vehicle and a first body; nothing where the person changes their mind."""
        from roomy_hull.desktop.new_job import NewJob  # read when wanted, as the stages are

        dialog = NewJob(self._theme(), self)
        return dialog.job() if dialog.exec() == QDialog.DialogCode.Accepted else None

    def vehicle_path(self, *, to_save: bool) -> Path | None:
        """Ask for a vehicle file to import, or to export to."""
        kinds = f"Vehicles (*{VEHICLE_SUFFIX});;All files (*)"
        start = str(own_folder())
        if to_save:
            name, _ = QFileDialog.getSaveFileName(self, "Export the vehicle", start, kinds)
        else:
            name, _ = QFileDialog.getOpenFileName(self, "Import a vehicle", start, kinds)
        return Path(name) if name else None

    def name(self, words: str, wish: str) -> str:
        """Ask for a name; empty where the person changes their mind."""
        text, fine = QInputDialog.getText(self, "Roomy Hull", words, text=wish)
        return text.strip()[:120] if fine else ""

    def chosen_entry(self) -> str:
        """Give the key of what is chosen in the stores; empty for nothing."""
        return self.stores.list.chosen_key() if self.settled else ""

    def agree(self, words: str) -> bool:
        """Ask yes or no."""
        answer = QMessageBox.question(self, "Roomy Hull", words)
        return answer == QMessageBox.StandardButton.Yes

    def show_keys(self) -> None:
        """Show the key sheet."""
        from roomy_hull.desktop.dialogs import KeySheet  # read when wanted, as the stages are

        KeySheet(self.registry, self).exec()

    def find_action(self) -> None:
        """Show the list of all actions to search, and do the chosen one."""
        from roomy_hull.desktop.dialogs import ActionSearch  # as above

        dialog = ActionSearch(self.registry, self.bench, self)
        if dialog.exec() == QDialog.DialogCode.Accepted and dialog.chosen():
            self.do(dialog.chosen())
