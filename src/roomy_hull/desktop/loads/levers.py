"""The page Levers: what weighs what, what moving it would do, and the changes that gain most."""

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import (
    QHBoxLayout,
    QLabel,
    QLineEdit,
    QListWidget,
    QListWidgetItem,
    QPushButton,
    QVBoxLayout,
)

from roomy_hull.actions.workbench import Workbench
from roomy_hull.core.errors import UserError
from roomy_hull.core.strokes import Rect, Scene
from roomy_hull.core.units import parse, show
from roomy_hull.desktop.loads.parts import (
    Cell,
    Grid,
    LoadsPage,
    Picture,
    choice_row,
    kg_of,
    mass_word,
)
from roomy_hull.desktop.theme import Theme, font
from roomy_hull.desktop.work import Work
from roomy_hull.drawing.loads_scene import lever_scene, loads_frame, stability_frame
from roomy_hull.studies.loads import ranking
from roomy_hull.studies.loads.ranking import Contribution
from roomy_hull.verdict import improve

WORDS = {"rear": "On the rear axle", "front": "On the front axle", "side": "To one side"}
WAYS = ("forward", "aft", "left", "right")


class LeversPage(LoadsPage):
    """Picture with levers, ranking, what-if, best changes."""

    def __init__(self, bench: Workbench, theme: Theme) -> None:
        super().__init__(bench, theme)
        self.measure = "rear"
        self.chosen = ""
        self.way = "forward"
        self._better: tuple[object, tuple[improve.Better, ...]] = (None, ())
        self._asked: object = None
        self.work: Work | None = None
        self.picture = Picture(bench, theme, "Levers drawn on the vehicle", self._draw)
        self.table = Grid("What weighs what", rows_chosen=True)
        self.table.currentCellChanged.connect(self._picked)
        bar, self.buttons = choice_row(tuple(WORDS.items()), "rear", self.rank_by, self)
        self.by = QLineEdit("300")
        self.by.setFixedWidth(84)
        self.by.setAccessibleName("How far it would move")
        self.by.setToolTip("A figure or a sum")
        self.by.textChanged.connect(lambda _t: self._answer())
        ways, self.ways = choice_row([(w, w) for w in WAYS], "forward", self._go, self)
        ways.insertWidget(0, self.by)
        self.question, self.answer = QLabel(), QLabel()
        for label in (self.question, self.answer):
            label.setWordWrap(True)
            label.setTextInteractionFlags(Qt.TextInteractionFlag.TextSelectableByMouse)
        self.finder = QPushButton("Find the best moves and swaps")
        self.finder.clicked.connect(self.search)
        self.list = QListWidget()
        self.list.setAccessibleName("Changes that gain most; Enter does one")
        self.list.setWordWrap(True)
        self.list.itemActivated.connect(self._do)
        right = QVBoxLayout()
        right.setContentsMargins(8, 2, 8, 4)
        right.setSpacing(4)
        for widget in (self.question,):
            right.addWidget(widget)
        right.addLayout(ways)
        right.addWidget(self.answer)
        self.home = self.ask(
            "Leave it at home in this scenario", "loads.leave", "Again to take it along"
        )
        right.addWidget(self.home)
        right.addWidget(self.finder)
        right.addWidget(self.list, 1)
        left = QVBoxLayout()
        left.setSpacing(0)
        left.addLayout(bar)
        left.addWidget(self.table, 1)
        below = QHBoxLayout()
        below.setSpacing(2)
        below.addLayout(left, 6)
        below.addLayout(right, 5)
        box = QVBoxLayout(self)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(2)
        box.addWidget(self.picture, 5)
        box.addLayout(below, 6)

    # Choosing

    def rank_by(self, measure: str) -> None:
        """Rank by another measure."""
        self.measure = measure
        self.buttons[measure].setChecked(True)
        self.refresh()

    def rows(self) -> tuple[Contribution, ...]:
        """Give what is aboard, the greatest part of the measure first, then what stays at home."""
        verdict, one = self._bench.verdict, self._bench.scenario()
        found = ranking.contributions(verdict.assembly, verdict.loads, one)
        home = tuple(
            Contribution(
                t.id, f"{t.value.name} (at home)", *(0.0, *t.envelope.centre()), 0.0, 0.0, 0.0
            )
            for t in verdict.assembly.things
            if t.id in one.left_behind
        )
        return (*ranking.ranked(found, self.measure), *home)

    def _picked(self, row: int, _c: int, _r: int, _k: int) -> None:
        rows = self.rows()
        if 0 <= row < len(rows):
            self.chosen = rows[row].owner
            if self._bench.job.thing(self.chosen) is not None:
                self._bench.select(self.chosen)
            self.picture.update()
            self._answer()

    def _go(self, way: str) -> None:
        self.way = way
        self._answer()

    # Drawing and words

    def _draw(self, _aspect: float) -> tuple[str, tuple[Scene, Rect]]:
        bench = self._bench
        assembly = bench.verdict.assembly
        scene = lever_scene(assembly, self.rows(), self.chosen, bench.look.system, self.measure)
        frame = stability_frame(assembly) if self.measure == "side" else loads_frame(assembly)
        return f"{WORDS[self.measure]}, {bench.scenario().name}", (scene, frame)

    def fill(self) -> None:
        """Bring the ranking and the answers up to date."""
        bench = self._bench
        rows = self.rows()
        owners = [r.owner for r in rows]
        if bench.selection in owners:
            self.chosen = bench.selection
        if self.chosen not in owners:
            self.chosen = next(
                (o for o in owners if bench.job.thing(o) is not None), owners[0] if owners else ""
            )
        cells: list[list[Cell]] = [
            [(r.name, "bold" if r.owner == self.chosen else ""), (kg_of(bench, r.kg), ""),
             *((kg_of(bench, r.of(m)), "bold" if m == self.measure else "") for m in ("front", "rear", "side"))]
            for r in rows
        ]  # fmt: skip
        word = mass_word(bench)
        blocked = self.table.blockSignals(True)
        self.table.fill(
            self._theme,
            ("What", word, "Front", "Rear", "To right"),
            cells,
            (),
            widths=(0, 54, 54, 54, 62),
        )
        if self.chosen in owners:
            self.table.selectRow(owners.index(self.chosen))
        self.table.blockSignals(blocked)
        short = improve.short_of(bench.verdict)
        if self.work is None:
            self.finder.setText(f"Best moves and swaps for: {WORDS[self.measure].lower()}")
        self.finder.setToolTip(f"Short is the {short.words}")
        if self._better[0] is not bench.job:
            self.list.clear()
        here = bench.job.thing(self.chosen) is not None and bench.selection == self.chosen
        self.home.setEnabled(here)
        self.home.setText(
            "Take it along in this scenario"
            if self.chosen in bench.scenario().left_behind
            else "Leave it at home in this scenario"
        )
        self._answer()

    def _answer(self) -> None:
        """Say what moving or leaving the chosen thing would do."""
        bench, system = self._bench, self._bench.look.system
        one = next((r for r in self.rows() if r.owner == self.chosen), None)
        self.question.setFont(font(13, bold=True))
        self.answer.setFont(font(12))
        if one is None:
            self.question.setText("Choose something in the list.")
            self.answer.setText("")
            return
        self.question.setText(f"What if {one.name} moved by")
        try:
            by = parse(self.by.text(), "length", system)
        except UserError as trouble:
            self.answer.setText(str(trouble))
            return
        dx, dy = {"forward": (-by, 0.0), "aft": (by, 0.0), "left": (0.0, -by), "right": (0.0, by)}[
            self.way
        ]
        loads = bench.verdict.loads
        moved = ranking.if_moved(loads, one, dx, dy)
        off = ranking.if_off(one)
        here = loads.scenario(bench.look.scenario)

        def kg(value: float) -> str:
            return f"{'+' if value > 0 else ''}{show(value, 'mass', system)}"

        def after(value: float) -> str:
            return show(round(value), "mass", system)

        self.answer.setText(
            f"{show(by, 'length', system)} {self.way}: front {kg(moved.front)} to "
            f"{after(here.front.value + moved.front)}, rear {kg(moved.rear)} to "
            f"{after(here.rear.value + moved.rear)}, to the right {kg(moved.side)}.\n"
            f"Came off: front {kg(off.front)}, rear {kg(off.rear)}, gross {kg(off.gross)}, payload left "
            f"{after(here.payload_left.value - off.gross)}."
        )

    def search(self) -> None:
        """Look for the best changes of the job as it is, beside the window; again to give it up."""
        if self.work is not None:
            self.work.cancel()
            return
        bench = self._bench
        verdict, measure, key, system = (
            bench.verdict,
            self.measure,
            bench.scenario().id,
            bench.look.system,
        )
        self._asked = bench.job
        self.work = Work(
            lambda step: improve.better(verdict, measure, key, system, progress=step), self
        )
        self.work.progressed.connect(self._progressed)
        self.work.done.connect(self._found)
        self.work.failed.connect(self._given_up)
        self.list.clear()
        self.work.start()

    def _progressed(self, share: float) -> None:
        self.finder.setText(f"Searching, {share:.0%}; click to give it up")

    def _given_up(self, words: str) -> None:
        self.work = None
        self._bench.say(words)
        self.fill()

    def _found(self, found: object) -> None:
        """Show what was found, unless the job is another by now."""
        self.work = None
        self._better = (self._asked, found)  # type: ignore[assignment]  # what `better` gives
        self.list.clear()
        self.fill()
        if self._asked is not self._bench.job:
            return
        for one in self._better[1]:
            looks = f"; {one.looks:+d} look" if one.looks else ""
            gain = show(one.gain, "mass", self._bench.look.system)
            item = QListWidgetItem(f"−{gain}  {one.words}{looks}")
            item.setFont(font(12))
            item.setToolTip("Double-click or Enter does it; undo takes it back")
            self.list.addItem(item)
        if not self._better[1]:
            self.list.addItem("No move or swap gains half a kilogram without a stop.")

    def _do(self, item: QListWidgetItem) -> None:
        row = self.list.row(item)
        job, found = self._better
        if job is self._bench.job and row < len(found):
            one = found[row]
            self._bench.edit(one.words, one.job)
            self.search()
