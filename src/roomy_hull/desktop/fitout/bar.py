"""The bar over a stage: which of its pages is shown."""

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QButtonGroup, QHBoxLayout, QPushButton, QWidget

from roomy_hull.actions.fitting_out import PAGE_KEYS, PAGES
from roomy_hull.actions.loading import LOADS_KEYS, LOADS_PAGES
from roomy_hull.actions.workbench import Workbench
from roomy_hull.desktop.theme import Theme, font

TIPS: dict[str, str] = {
    "Drawing": "Place and move units", "Together": "What can be open at the same time",
    "Run-through": "Play a sequence move by move", "In and out": "In which order units go in and come out",
    "Variants": "Layouts side by side", "Solid": "The job in the round",
    "Board": "Every scenario against every limit", "Levers": "What weighs what, and what moving it would do",
    "Budget": "The brief: wanted, needed, decided", "Springs": "How it stands by each school of springs",
    "Chassis": "Shear and bending of the rails", "Strength": "Mounts, slides, members and gas struts",
    "Stability": "Centre of mass, tilt, angles, towing", "Sheet": "Weighings, and the sheet to print",
}  # fmt: skip
BARS: dict[str, tuple[tuple[str, ...], tuple[str, ...]]] = {
    "page": (PAGES, PAGE_KEYS), "loads_page": (LOADS_PAGES, LOADS_KEYS),
}  # fmt: skip
"""By the field of the look: the pages and their keys."""


class PageBar(QWidget):
    """One button a page; the keys do the same. `field` is the field of the look that it sets."""

    def __init__(self, bench: Workbench, theme: Theme, field: str = "page") -> None:
        super().__init__()
        self._bench, self._field = bench, field
        row = QHBoxLayout(self)
        row.setContentsMargins(8, 3, 8, 3)
        row.setSpacing(4)
        self._group = QButtonGroup(self)
        self.buttons: dict[str, QPushButton] = {}
        for name, key in zip(*BARS[field], strict=True):
            button = QPushButton(name)
            button.setCheckable(True)
            button.setFocusPolicy(Qt.FocusPolicy.TabFocus)
            button.setToolTip(f"{TIPS[name]} ({key})")
            button.clicked.connect(lambda _on, n=name: bench.set_look(**{field: n}))
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
        self.buttons[getattr(self._bench.look, self._field)].setChecked(True)
