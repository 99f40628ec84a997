"""The theme on the screen: the shipped font, Qt's colours, palette and style sheet."""

import functools

from PyQt6.QtGui import QColor, QFont, QFontDatabase, QPalette
from PyQt6.QtWidgets import QApplication

from roomy_hull.core.shipped import shipped
from roomy_hull.drawing.style import Theme

_FONTS = ("B612-Regular.otf", "B612-Bold.otf")


def load_fonts() -> None:
    """Register the shipped fonts, so that the program needs none of the machine's."""
    for name in _FONTS:
        QFontDatabase.addApplicationFontFromData(shipped("fonts", name))


def font(size: float, *, bold: bool = False) -> QFont:
    """The shipped font at a size in pixels; its digits are all of one width."""
    return _font(round(size), bold)


@functools.cache
def _font(size: int, bold: bool) -> QFont:
    """Kept, so that Qt need not match it to a file anew."""
    found = QFont("B612")
    found.setPixelSize(size)
    found.setBold(bold)
    return found


def colour(text: str, alpha: int = 255) -> QColor:
    """A Qt colour."""
    found = QColor(text)
    found.setAlpha(alpha)
    return found


def apply(app: QApplication, theme: Theme) -> None:
    """The whole application a theme's palette, style and font."""
    p = QPalette()
    role = QPalette.ColorRole
    for which, value in (
        (role.Window, theme.window), (role.WindowText, theme.ink), (role.Base, theme.sunk),
        (role.AlternateBase, theme.panel), (role.Text, theme.ink), (role.Button, theme.panel),
        (role.ButtonText, theme.ink), (role.Highlight, theme.accent),
        (role.HighlightedText, theme.accent_ink), (role.ToolTipBase, theme.panel),
        (role.ToolTipText, theme.ink), (role.PlaceholderText, theme.faint),
    ):  # fmt: skip
        p.setColor(which, QColor(value))
    p.setColor(QPalette.ColorGroup.Disabled, role.WindowText, QColor(theme.faint))
    p.setColor(QPalette.ColorGroup.Disabled, role.Text, QColor(theme.faint))
    p.setColor(QPalette.ColorGroup.Disabled, role.ButtonText, QColor(theme.faint))
    # Taken off first: to lay one sheet over another takes Qt four times as long as off and on.
    app.setStyleSheet("")
    app.setPalette(p)
    app.setStyleSheet(_sheet(theme))


def _sheet(t: Theme) -> str:
    """The style sheet: calm, flat, one rule width, focus always visible."""
    return f"""
    QToolTip {{ color: {t.ink}; background: {t.panel}; border: 1px solid {t.rule}; padding: 4px; }}
    QMenuBar {{ background: {t.window}; color: {t.ink}; padding: 2px 6px; }}
    QMenuBar::item {{ padding: 4px 10px; background: transparent; }}
    QMenuBar::item:selected {{ background: {t.accent}; color: {t.accent_ink}; }}
    QMenu {{ background: {t.panel}; color: {t.ink}; border: 1px solid {t.rule}; }}
    QMenu::item {{ padding: 5px 26px 5px 18px; }}
    QMenu::item:selected {{ background: {t.accent}; color: {t.accent_ink}; }}
    QMenu::item:disabled {{ color: {t.faint}; }}
    QLineEdit, QPlainTextEdit, QComboBox {{ background: {t.sunk}; color: {t.ink};
        border: 1px solid {t.rule}; padding: 2px 6px; selection-background-color: {t.accent};
        selection-color: {t.accent_ink}; }}
    QLineEdit:focus, QComboBox:focus, QPlainTextEdit:focus {{ border: 2px solid {t.accent};
        padding: 1px 5px; }}
    QLineEdit[wrong="true"] {{ border: 2px solid {t.stop}; padding: 1px 5px; }}
    QScrollArea, QScrollArea > QWidget > QWidget, QTextBrowser {{ background: {t.panel}; }}
    QTextBrowser {{ color: {t.ink}; border: 1px solid {t.rule}; }}
    QSplitter::handle {{ background: {t.rule}; }}
    QComboBox QAbstractItemView {{ background: {t.panel}; color: {t.ink}; }}
    QPushButton {{ background: {t.panel}; color: {t.ink}; border: 1px solid {t.rule};
        padding: 5px 12px; }}
    QPushButton:hover {{ border-color: {t.accent}; }}
    QPushButton:checked {{ background: {t.accent}; color: {t.accent_ink}; border-color: {t.accent}; }}
    QPushButton:focus {{ border: 2px solid {t.accent}; padding: 4px 11px; }}
    QPushButton:disabled {{ color: {t.faint}; }}
    QListView, QTableView, QTreeView {{ background: {t.panel}; color: {t.ink};
        border: 1px solid {t.rule}; outline: 0; alternate-background-color: {t.window};
        gridline-color: {t.rule}; }}
    QTableView::item:selected, QListView::item:selected {{ background: {t.accent};
        color: {t.accent_ink}; }}
    QHeaderView::section {{ background: {t.window}; color: {t.ink}; border: 0;
        border-bottom: 1px solid {t.rule}; padding: 4px; }}
    QHeaderView::section:vertical {{ padding: 0 4px; }}
    QTableCornerButton::section {{ background: {t.window}; border: 0; }}
    QScrollBar:vertical {{ background: {t.window}; width: 11px; margin: 0; }}
    QScrollBar::handle:vertical {{ background: {t.faint}; min-height: 24px; margin: 2px; }}
    QScrollBar:horizontal {{ background: {t.window}; height: 11px; margin: 0; }}
    QScrollBar::handle:horizontal {{ background: {t.faint}; min-width: 24px; margin: 2px; }}
    QScrollBar::add-line, QScrollBar::sub-line {{ width: 0; height: 0; }}
    QProgressBar {{ border: 1px solid {t.rule}; background: {t.sunk}; color: {t.ink};
        text-align: center; }}
    QProgressBar::chunk {{ background: {t.accent}; }}
    QStatusBar {{ background: {t.window}; color: {t.ink}; }}
    """
