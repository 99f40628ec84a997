"""The page Off and on: the canopy on its legs, and what is done in order."""

from PyQt6.QtCore import Qt

from roomy_hull.desktop.page import Picture, SessionPage
from roomy_hull.desktop.text import Label
from roomy_hull.desktop.theme import font
from roomy_hull.drawing.style import Theme
from roomy_hull.session.pages.access.off_on import OffOnModel
from roomy_hull.session.pages.access.words import CAUTION
from roomy_hull.session.session import Session


class OffOnPage(SessionPage):
    """The picture above the steps."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.model = OffOnModel(session)
        self.picture = Picture(session, theme, "The canopy on its legs", self.model.picture)
        self.words = Label()
        self.words.setWordWrap(True)
        self.words.setFont(font(13))
        self.words.setContentsMargins(12, 6, 12, 6)
        self.words.setAlignment(Qt.AlignmentFlag.AlignTop)
        self.stack(CAUTION, (self.picture, 5), (self.words, 5))

    def fill(self) -> None:
        """Bring the words up to date."""
        self.words.setText("\n".join([self.model.words(), *self.model.steps()]))
