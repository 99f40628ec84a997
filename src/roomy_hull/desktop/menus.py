"""Menus and keys, made of the registry; nothing is declared here."""

from collections.abc import Callable
from pathlib import Path

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QAction, QKeySequence
from PyQt6.QtWidgets import QMainWindow, QMenu, QWidget

from roomy_hull.desktop.text import plain
from roomy_hull.session.actions.registry import MENUS, Action
from roomy_hull.session.doing import do, registry
from roomy_hull.session.session import Session


class Menus:
    """The window's menus and keys.

    Titles stand at once; actions and keys are made by `fill`, when the window stands or a menu is
    first opened.

    Args:
        window: Whose menu bar is used.
        ground: Where keys work that do not work everywhere.
        session: Holds the actions, does them, and says what is enabled.
        open_recent: Opens a recent job.
    """

    def __init__(
        self,
        window: QMainWindow,
        ground: QWidget,
        session: Session,
        open_recent: Callable[[Path], None],
    ) -> None:
        self._window, self._ground = window, ground
        self._session, self._open_recent = session, open_recent
        self.actions: dict[str, QAction] = {}
        self._menus: dict[str, QMenu] = {}
        bar = window.menuBar()
        for title in MENUS:
            menu = bar.addMenu(title) if bar is not None else None
            if menu is not None:
                self._menus[title] = menu
                menu.setToolTipsVisible(True)
                menu.aboutToShow.connect(self._show)
                menu.aboutToHide.connect(self._hide)

    def fill(self) -> None:
        """Make actions and keys, once."""
        if self.actions:
            return
        for title, actions in registry().menus().items():
            menu = self._menus[title]
            for action in actions:
                self.actions[action.id] = self._action(action)
                menu.addAction(self.actions[action.id])
                if action.id == "job.open":
                    self.recent = QMenu("Recent jobs", self._window)
                    self.recent.aboutToShow.connect(self._fill_recent)
                    menu.addMenu(self.recent)

    def _action(self, action: Action) -> QAction:
        found = QAction(action.words, self._window)
        found.setToolTip(action.tip)
        found.setShortcuts([QKeySequence(k) for k in action.keys])
        found.triggered.connect(lambda _on=False, a=action: do(self._session, a.id))
        if not action.everywhere:
            found.setShortcutContext(Qt.ShortcutContext.WidgetWithChildrenShortcut)
            self._ground.addAction(found)
        else:
            self._window.addAction(found)
        return found

    def _show(self) -> None:
        """Show what can be done now, and what undo and redo would do."""
        self.fill()
        for action in registry().all():
            self.actions[action.id].setEnabled(action.enabled(self._session))
        history = self._session.history
        self.actions["edit.undo"].setText(f"Undo {history.undo_words()}".strip())
        self.actions["edit.redo"].setText(f"Redo {history.redo_words()}".strip())

    def _hide(self) -> None:
        """Let every key work again; an action that cannot be done is not done."""
        for action in self.actions.values():
            action.setEnabled(True)

    def _fill_recent(self) -> None:
        self.recent.clear()
        for path in self._session.settings.recent():
            entry = self.recent.addAction(path.name)
            if entry is not None:
                entry.setToolTip(plain(str(path)))
                entry.triggered.connect(lambda _on=False, p=path: self._open_recent(p))
        if self.recent.isEmpty():
            none = self.recent.addAction("None yet")
            if none is not None:
                none.setEnabled(False)
