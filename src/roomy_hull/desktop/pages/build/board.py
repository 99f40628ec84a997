"""The page Workshop: all jobs of a folder, read beside the window."""

from PyQt6.QtWidgets import QProgressBar, QPushButton

from roomy_hull.desktop.following import follow
from roomy_hull.desktop.page import Picture, SessionPage
from roomy_hull.desktop.pages.build.parts import asked, row, words
from roomy_hull.desktop.table_view import Grid
from roomy_hull.desktop.theme import font
from roomy_hull.desktop.work import Step, Work
from roomy_hull.drawing.style import Theme
from roomy_hull.formats.workshop import Board, board_of
from roomy_hull.session.actions import handing
from roomy_hull.session.actions.handing import board_folder
from roomy_hull.session.pages.build.finishing import BoardModel
from roomy_hull.session.pages.build.words import CAUTION
from roomy_hull.session.session import Session

ROUNDS = 60
"""How often the plan of all jobs is improved while the board is read."""


class BoardPage(SessionPage):
    """Words, the board, what was learnt."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.model = BoardModel(session)
        self.words, self.lessons = words(), words(12)
        self.table = Grid("All jobs of the workshop", rows_chosen=True)
        self.table.cell_opened.connect(self._open)
        self.read = QPushButton("Read it again")
        self.open = QPushButton("Open the chosen job")
        for button, run in (
            (self.read, self.reading),
            (self.open, lambda: self._open(self.table.currentRow(), 0)),
        ):
            button.setFont(font(11))
            button.clicked.connect(lambda _on, r=run: r())
        self.progress = QProgressBar()
        self.progress.setMaximumWidth(180)
        self.progress.setVisible(False)
        self._work: Work | None = None
        buttons = asked(
            self, (("The workshop's folder…", "build.folder"), ("On paper…", "build.board"))
        )
        self.picture = Picture(session, theme, "Who is at which job when", self.model.drawn)
        self.stack(CAUTION, (row(buttons[0], self.read, self.open, buttons[1], self.progress), 0), (self.words, 0),
                   (self.table, 2), (self.picture, 5), (self.lessons, 0))  # fmt: skip
        follow(self, self.refresh, session.building.changed)

    @property
    def idle(self) -> bool:
        """Whether nothing is read."""
        return self._work is None

    def reading(self) -> None:
        """Read the folder beside the window."""
        session = self.session
        folder = board_folder(session)
        if folder is None or self._work is not None:
            return
        shop, memory = session.shop, session.building.memory

        def read(step: Step) -> Board:
            return board_of(folder, shop, memory, step, ROUNDS)

        self._work = Work(read, self)
        self._work.progressed.connect(self._progressed)
        self._work.done.connect(self._got)
        self._work.failed.connect(self._failed)
        self._work.given_up.connect(self._failed)
        self.progress.setVisible(True)
        self.read.setEnabled(False)
        self._work.start()

    def _progressed(self, share: float) -> None:
        self.progress.setValue(round(100 * share))

    def _end(self) -> None:
        self._work = None
        self.progress.setVisible(False)
        self.read.setEnabled(True)

    def _got(self, board: Board) -> None:
        self._end()
        self.session.building.put(board)

    def _failed(self, trouble: object) -> None:
        self._end()
        if trouble:
            self.session.say(str(trouble), trouble=True)

    def _open(self, at: int, _column: int) -> None:
        cards = self.model.cards()
        if 0 <= at < len(cards):
            handing.open_job(self.session, path=cards[at].path)

    def fill(self) -> None:
        """Bring the board up to date; it is read when it is first looked at."""
        session = self.session
        if (
            session.building.board is None
            and self._work is None
            and self.isVisible()
            and board_folder(session) is not None
        ):
            self.reading()
        self.words.setText(self.model.words())
        self.table.show_rows(self._theme, self.model)
        self.lessons.setText(self.model.lessons())
        self.open.setEnabled(bool(self.model.cards()))
