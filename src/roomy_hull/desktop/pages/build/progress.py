"""The page Progress: the vehicle as it grows, and the operations of what is chosen on it."""

from PyQt6.QtCore import QRectF, Qt
from PyQt6.QtGui import QMouseEvent

from roomy_hull.desktop.ground.scene_painter import fit
from roomy_hull.desktop.page import Picture, SessionPage, choice_row
from roomy_hull.desktop.pages.build.parts import asked, row, words
from roomy_hull.desktop.table_view import Grid
from roomy_hull.drawing.style import Theme
from roomy_hull.session.doing import registry
from roomy_hull.session.pages.build.progress import ProgressModel
from roomy_hull.session.pages.build.words import SHOP_CAUTION
from roomy_hull.session.session import Session

SIDES = (("left", "Left"), ("right", "Right"), ("rear", "From behind"))


class Grown(Picture):
    """The vehicle as far as it has grown; a click chooses a thing."""

    def __init__(self, session: Session, theme: Theme, model: ProgressModel) -> None:
        super().__init__(session, theme, "The vehicle as it grows", model.picture)
        self._model = model

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        """Choose what is under the hand."""
        if event is None or event.button() != Qt.MouseButton.LeftButton:
            return
        area = QRectF(8, 28, self.width() - 16, max(self.height() - 34, 10))
        _title, drawn = self._model.picture(area.width() / area.height())
        if drawn is None:
            return
        h, k = fit(drawn[1], area).mm(event.position().x(), event.position().y())
        key = self._model.at(drawn[0], h, k)
        session = self._session
        session.selection.select(key if session.job.thing(key) is not None else "")
        keys = self._model.keys()
        done = self._model.done()
        session.view.set(
            build={
                "op": next((x for x in keys if x not in done), "") if session.selection.key else ""
            }
        )


class ProgressPage(SessionPage):
    """The picture above, operations below."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.model = ProgressModel(session)
        self.picture = Grown(session, theme, self.model)
        self.words = words()
        self.table = Grid("Operations of what is chosen, or what can be begun", rows_chosen=True)
        self.table.cell_clicked.connect(self._chose)
        sides, self.sides = choice_row(SIDES, "right", lambda k: session.view.set(station=k), self)
        buttons = asked(self, (("Finish it…", "build.done"), ("Log hours…", "build.work"), ("A photo…", "build.photo"),
                               ("A size as built…", "build.deviation"), ("Progress for the "
                                                                         "customer…", "build.progress")))  # fmt: skip
        self.done, self.work = buttons[0], buttons[1]
        self.stack(
            SHOP_CAUTION,
            (sides, 0),
            (self.picture, 7),
            (self.words, 0),
            (row(*buttons), 0),
            (self.table, 4),
        )

    def _chose(self, at: int, _column: int) -> None:
        keys = self.model.keys()
        if 0 <= at < len(keys):
            self.session.view.set(build={"op": keys[at]})

    def fill(self) -> None:
        """Bring words and table up to date."""
        session = self.session
        for key, button in self.sides.items():
            button.setChecked(key == session.look.station)
        self.words.setText(self.model.words())
        self.table.show_rows(self._theme, self.model)
        for button, action in ((self.done, "build.done"), (self.work, "build.work")):
            button.setEnabled(registry().get(action).enabled(session))
        self.picture.update()
