"""The page Joints: how parts go together."""

from PyQt6.QtWidgets import QComboBox, QHBoxLayout

from roomy_hull.desktop.page import Picture, SessionPage
from roomy_hull.desktop.pages.cutting.base import words_label
from roomy_hull.desktop.table_view import Grid
from roomy_hull.desktop.theme import font
from roomy_hull.drawing.style import Theme
from roomy_hull.session.pages.cut.joints import JointsModel
from roomy_hull.session.pages.cut.words import CAUTION
from roomy_hull.session.session import Session


class JointsPage(SessionPage):
    """What is chosen drawn apart, and how its parts are joined."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.model = JointsModel(session)
        self.choice = QComboBox()
        self.choice.setFont(font(12))
        self.choice.setAccessibleName("What is put together")
        self.choice.activated.connect(self._chose)
        self.words = words_label()
        self.picture = Picture(session, theme, "Drawn apart", self.model.picture)
        self.table = Grid("Joints")
        top = QHBoxLayout()
        top.setContentsMargins(8, 4, 8, 0)
        top.addWidget(self.choice)
        top.addWidget(self.words, 1)
        middle = QHBoxLayout()
        middle.setSpacing(0)
        middle.addWidget(self.picture, 4)
        middle.addWidget(self.table, 6)
        self.stack(CAUTION, (top, 0), (middle, 1))

    def _chose(self, _row: int) -> None:
        title = self.choice.currentText()
        self._session.selection.select(self.model.owner(title))
        self._session.view.set(cut={"part": self.model.first(title), "bent": -1})

    def fill(self) -> None:
        """Bring choice, words and table up to date."""
        titles = self.model.titles()
        self.choice.blockSignals(True)
        if [self.choice.itemText(n) for n in range(self.choice.count())] != titles:
            self.choice.clear()
            self.choice.addItems(titles)
        self.choice.setCurrentText(self.model.chosen())
        self.choice.blockSignals(False)
        self.words.setText(self.model.words())
        self.table.show_rows(self._theme, self.model)
