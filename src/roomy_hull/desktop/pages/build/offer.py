"""The page Offer: what it costs now, beside what was offered."""

from PyQt6.QtWidgets import QPushButton

from roomy_hull.desktop.pages.build.parts import asked, row, words
from roomy_hull.desktop.pages.cutting.base import NestedPage
from roomy_hull.desktop.table_view import Grid
from roomy_hull.desktop.theme import font
from roomy_hull.drawing.style import Theme
from roomy_hull.session.actions import handing
from roomy_hull.session.pages.build.quote import OfferModel
from roomy_hull.session.pages.build.words import CAUTION
from roomy_hull.session.session import Session


class OfferPage(NestedPage):
    """Words, the lines, what is made of them; it nests first, since sheets cost what they are cut from."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.model = OfferModel(session)
        self.words = words(14)
        self.table = Grid("What it costs, line by line")
        self.make = QPushButton("Quote it as it stands")
        self.make.setFont(font(11))
        self.make.clicked.connect(lambda _on: self._offer())
        buttons = asked(
            self, (("Write the last quote…", "build.write_offer"), ("It is agreed…", "build.agree"))
        )
        self.more = buttons
        self.stack(
            CAUTION, (row(self.make, *buttons), 0), (self._bar((self.words, 1)), 0), (self.table, 1)
        )

    def _offer(self) -> None:
        lines = self.model.lines()
        if lines is None:
            self.session.say("The nesting is still at work.", trouble=True)
            return
        handing.offer(self.session, lines=lines)

    def fill(self) -> None:
        """Bring words and lines up to date."""
        self.words.setText(self.model.words())
        self.table.show_rows(self._theme, self.model)
        self.make.setEnabled(self.model.lines() is not None)
        for button in self.more:
            button.setEnabled(bool(self.session.job.offers))
