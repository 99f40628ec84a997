"""The bar over the drawing: which page of the stage is shown."""

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QButtonGroup, QHBoxLayout, QPushButton, QWidget

from roomy_hull.actions.fitting_out import PAGE_KEYS, PAGES
from roomy_hull.actions.workbench import Workbench
from roomy_hull.desktop.theme import Theme, font

TIPS: dict[str, str] = {
    "Drawing": "Place and move units", "Together": "What can be open at the same time",
    "Run-through": "Play a sequence move by move", "In and out": "In which order units go in and come out",
    "Variants": "Layouts side by side", "Solid": "The job in the round",
}  # fmt: skip


class PageBar(QWidget):
    """One button a page; the keys do the same."""

    def __init__(self, bench: Workbench, theme: Theme) -> None:
        super().__init__()
        self._bench = bench
        row = QHBoxLayout(self)
        row.setContentsMargins(8, 3, 8, 3)
        row.setSpacing(4)
        self._group = QButtonGroup(self)
        self.buttons: dict[str, QPushButton] = {}
        for name, key in zip(PAGES, PAGE_KEYS, strict=True):
            button = QPushButton(name)
            button.setCheckable(True)
            button.setFocusPolicy(Qt.FocusPolicy.TabFocus)
            button.setToolTip(f"{TIPS[name]} ({key})")
            button.clicked.connect(lambda _on, n=name: bench.set_look(page=n))
            self._group.addButton(button)
            self.buttons[name] = button
            row.addWidget(button)
        row.addStretch(1)
        bench.look_changed.connect(self._follow)
        self.theme = theme
        self._follow()

    @property
    def theme(self) -> Theme:
        """The colours in use."""
        return self._theme

    @theme.setter
    def theme(self, theme: Theme) -> None:
        self._theme = theme
        for button in self.buttons.values():
            button.setFont(font(12))
            button.setStyleSheet(
                f"QPushButton {{ padding: 2px 9px; }} QPushButton:checked {{ background: {theme.accent}; "
                f"color: {theme.accent_ink}; border-color: {theme.accent}; }}"
            )

    def _follow(self) -> None:
        self.buttons[self._bench.look.page].setChecked(True)
