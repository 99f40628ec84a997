"""Starting the window: fonts, theme, the first job, recovery, and what happens on our own faults."""

import contextlib
import gc
import sys
import time
import types
from pathlib import Path

from PyQt6.QtCore import QObject, Qt, QTimer, pyqtSignal
from PyQt6.QtGui import QIcon, QPixmap
from PyQt6.QtWidgets import QApplication, QMessageBox

from roomy_hull.core import lazily
from roomy_hull.core.errors import UserError
from roomy_hull.core.shipped import shipped
from roomy_hull.desktop import theme as themes
from roomy_hull.desktop.dialogs import Dialogs
from roomy_hull.desktop.table_view import WIDTHS
from roomy_hull.desktop.window import MainWindow
from roomy_hull.drawing import style
from roomy_hull.formats import shopfile
from roomy_hull.formats.atomic import read_whole
from roomy_hull.formats.demo import demo_job
from roomy_hull.formats.jobfile import read
from roomy_hull.formats.settings import Settings
from roomy_hull.session.beside import Beside
from roomy_hull.session.doing import do
from roomy_hull.session.files import hold, recover, set_aside
from roomy_hull.session.session import Session
from roomy_hull.shop.shop import shipped_shop

REST_MS = 250

_kept: list[QApplication] = []
"""Holds the application for as long as the program runs; Qt does not."""


def application() -> QApplication:
    """The one QApplication, made ready with our fonts."""
    app = QApplication.instance()
    if isinstance(app, QApplication):
        return app
    QApplication.setAttribute(Qt.ApplicationAttribute.AA_DontShowIconsInMenus)
    # Named here rather than by setStyle, which would read every name of QStyle at start-up.
    app = QApplication(["roomy-hull", "-style", "Fusion"])
    app.setApplicationName("roomy-hull")
    app.setApplicationDisplayName("Roomy Hull")
    app.setDesktopFileName("roomy-hull")
    themes.load_fonts()
    app.setFont(themes.font(13))
    _kept.append(app)
    return app


def window_for(session: Session) -> MainWindow:
    """Build the window for a session, themed by its look."""
    app = application()
    window = MainWindow(session)
    session.asker = Dialogs(window, session)
    # The style sheet comes last: each widget is then polished once.
    themes.apply(app, style.DARK if session.look.dark else style.LIGHT)
    return window


def rest() -> None:
    """Do what can wait until the window is complete: garbage, and what the first drag needs."""
    gc.freeze()
    gc.enable()
    lazily.module("numpy").arange(1)
    # Qt looks at all its plugins before it reads a first picture.
    icon = QPixmap()
    icon.loadFromData(shipped("icon.png"))
    QApplication.setWindowIcon(QIcon(icon))


def session_for(path: Path | None, settings: Settings, own: Path | None = None) -> Session:
    """Put a job on a session: the file's, or the demo's where there is none.

    Args:
        own: Shop file; else that which is kept, or the shipped values.
    Raises:
        JobFileError: The file cannot be used.
    """
    data = read_whole(path) if path is not None else b""
    job, news = read(data, path.name) if path is not None else (demo_job(), ())
    trouble = ""
    if own is not None:
        shop = shopfile.load(own)
    else:
        try:
            shop = settings.shop()
        except UserError as found:
            shop, trouble = shipped_shop(), f"Your shop's values are not used: {found}"
    session = Session(job, settings, path, shop=shop, whole=False)
    if trouble:
        session.say(trouble, trouble=True)
    if path is not None:
        settings.add_recent(path)
        words = " ".join(w for w in (*news, hold(session, path, data, job.log)) if w)
        if words:
            session.say(words)
    known = settings.preferences()
    drawn = known.get("widths")
    if isinstance(drawn, dict):
        WIDTHS.update({key: px for key, px in drawn.items() if isinstance(px, int)})
    for words in settings.troubles:
        session.say(words, trouble=True)
    session.view.set(
        dark=known.get("dark") is True, system="us" if known.get("system") == "us" else "metric"
    )
    return session


def offer_recovery(session: Session, window: MainWindow) -> None:
    """Offer the work of runs that ended without saving, one after the other."""
    for left in session.settings.left_behind():
        when = time.strftime("%Y-%m-%d %H:%M", time.localtime(left.when))
        buttons = QMessageBox.StandardButton
        answer = QMessageBox.question(
            window, "Recover work",
            f"An earlier run ended before “{left.name}” was saved ({when}). Recover it?\n\n"
            "Yes opens it. No deletes it. Cancel keeps it for next time.",
            buttons.Yes | buttons.No | buttons.Cancel, buttons.Yes,
        )  # fmt: skip
        if answer == buttons.Yes:
            try:
                recover(session, left)
            except UserError as trouble:
                session.say(str(trouble), trouble=True)
                continue
            return
        if answer == buttons.No:
            session.settings.discard(left)


def catch_faults(session: Session, window: MainWindow) -> None:
    """Keep the work and tell the person when the program itself fails; no traceback is shown."""
    folder = session.settings.state
    told = Fault(window)
    told.happened.connect(lambda: _tell_fault(session))

    def on_fault(
        kind: type[BaseException], fault: BaseException, trace: types.TracebackType | None
    ) -> None:
        if issubclass(kind, KeyboardInterrupt):
            window.close()
            return
        import traceback  # ruff: ignore[import-outside-top-level]  # read at a fault only, not at every start

        with contextlib.suppress(OSError, ValueError):
            folder.mkdir(parents=True, exist_ok=True)
            with (folder / "roomy-hull.log").open(
                "a", encoding="utf-8", errors="backslashreplace"
            ) as log:
                log.write(time.strftime("%Y-%m-%d %H:%M:%S\n"))
                traceback.print_exception(kind, fault, trace, file=log)
        # Told in the window's own thread, whichever this one is.
        with contextlib.suppress(RuntimeError):
            told.happened.emit()

    sys.excepthook = on_fault


class Fault(QObject):
    """Carries word of a fault to the window's thread."""

    happened = pyqtSignal()


def _tell_fault(session: Session) -> None:
    """Keep the work and tell the person; a fault in doing so is only noted as kept or not."""
    kept = "Your work is kept"
    try:
        session.cancel()
        set_aside(session)
    except Exception:  # whatever it was: a fault is being told already
        kept = "Save your work under another name"
    session.say(
        f"Something went wrong inside the program. {kept}; the fault is noted in "
        f"{session.settings.state / 'roomy-hull.log'}.",
        trouble=True,
    )


def welcome(session: Session, window: MainWindow) -> None:
    """Offer what one can begin with, then point at where things are; once for each person.

    Args:
        session: The job in hand; what is chosen takes its place.
    """
    from roomy_hull.desktop.widgets.welcome import Tour, Welcome  # ruff: ignore[import-outside-top-level]  # seen once

    window.settle()
    dialog = Welcome(window.theme, window)
    dialog.exec()
    session.settings.keep_preferences(welcomed=True)
    if dialog.chosen:
        do(session, dialog.chosen)
    Tour(window, window.theme)


def run(path: Path | None, shop: Path | None = None, *, beside: Beside, first: bool = False) -> int:
    """Open the window and stay until it is closed.

    Args:
        path: Job file, or the demo job where there is none.
        shop: Shop file; else that which is kept.
        beside: The process beside the window, on its way already.
        first: Whether no job was named: then somebody who starts for the first time is asked what to begin with.
    Raises:
        JobFileError: The file cannot be used.
    """
    settings = Settings()
    session = session_for(path, settings, shop)
    session.settle_beside(beside)
    app = application()
    window = window_for(session)
    catch_faults(session, window)
    window.show()
    QTimer.singleShot(REST_MS, rest)
    offer_recovery(session, window)
    if first and session.settings.preferences().get("welcomed") is not True:
        QTimer.singleShot(REST_MS, lambda: welcome(session, window))
    code = int(app.exec())
    if WIDTHS:
        settings.keep_preferences(widths=WIDTHS)
    return code
