"""What pages of Cut share that need the nesting: it is looked for beside the window, with progress, and can be stopped."""

from collections.abc import Callable
from typing import Any

from PyQt6.QtWidgets import QHBoxLayout, QProgressBar, QPushButton

from roomy_hull.desktop.following import follow
from roomy_hull.desktop.page import SessionPage
from roomy_hull.desktop.text import Label
from roomy_hull.desktop.theme import font
from roomy_hull.desktop.work import Step, Work
from roomy_hull.drawing.style import Theme
from roomy_hull.making.cutlist import CutList, cut_of
from roomy_hull.session.session import Session


class NestedPage(SessionPage):
    """A page that shows what is nested; it nests on being shown, and nothing for a hidden page."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self._work: Work | None = None
        self.progress = QProgressBar()
        self.progress.setRange(0, 100)
        self.cancel_button = QPushButton("Give up")
        self.cancel_button.setFont(font(11))
        self.cancel_button.clicked.connect(self._give_up)
        follow(self, self.refresh, session.cutting.changed)

    @property
    def cut(self) -> CutList | None:
        """The cut that is shown."""
        return self._session.cutting.cut

    @property
    def idle(self) -> bool:
        """Whether no long work goes on."""
        return self._work is None

    def _bar(self, *more: Any) -> QHBoxLayout:
        """A row with progress and the button that gives up, after some others."""
        row = QHBoxLayout()
        row.setContentsMargins(10, 2, 10, 4)
        for widget, share in more:
            row.addWidget(widget, share)
        row.addWidget(self.progress)
        row.addWidget(self.cancel_button)
        self._busy(on=False)
        return row

    def refresh(self) -> None:
        """Nest again where the job changed and the page is seen; show what there is."""
        session = self._session
        if not self.isVisible():
            return
        if not session.cutting.is_of(session.known) and not session.cutting.working:
            verdict = session.known

            def done(cut: CutList) -> None:
                session.cutting.put(cut, verdict)

            session.cutting.tried(verdict)
            self._start(lambda step: cut_of(verdict.assembly, step), done, "Nesting")
        super().refresh()

    def _start(self, job: Callable[[Step], Any], done: Callable[[Any], None], words: str) -> None:
        """Begin long work with its progress bar."""
        self._session.cutting.working = True
        self._work = Work(job, self)
        self._done = done
        self._work.progressed.connect(self._progressed)
        self._work.done.connect(self._finished)
        self._work.failed.connect(self._failed)
        self._work.given_up.connect(self._gave_up)
        self.progress.setFormat(f"{words} %p %")
        self.progress.setValue(0)
        self._busy(on=True)
        self._work.start()

    def _progressed(self, share: float) -> None:
        # A method, not a lambda: Qt lets go of it when the window goes.
        self.progress.setValue(round(share * 100))

    def _busy(self, *, on: bool) -> None:
        self.progress.setVisible(on)
        self.cancel_button.setVisible(on)

    def _end(self) -> None:
        self._work = None
        self._session.cutting.working = False
        self._busy(on=False)

    def _finished(self, found: Any) -> None:
        self._end()
        self._done(found)
        # If the job changed meanwhile, nest again.
        self.refresh()

    def _give_up(self) -> None:
        if self._work is not None:
            self._work.cancel()

    def _gave_up(self, _nothing: object) -> None:
        self._end()
        self._session.say("Given up; what was there is as it was.")
        super().refresh()

    def _failed(self, words: str) -> None:
        self._end()
        self._session.say(words, trouble=True)
        super().refresh()


def words_label() -> Label:
    """A line of words over a table."""
    label = Label()
    label.setWordWrap(True)
    label.setFont(font(13))
    label.setContentsMargins(10, 4, 10, 4)
    return label
