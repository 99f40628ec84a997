"""The pages Sheets and Bars: nested sheets with their bound, sawn bars, and the files."""

from pathlib import Path

import msgspec
from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QHBoxLayout, QListWidget, QPushButton

from roomy_hull.core.primitives import Rect, Scene
from roomy_hull.core.units import exact, show
from roomy_hull.desktop.page import Picture
from roomy_hull.desktop.pages.cutting.base import NestedPage
from roomy_hull.desktop.table_view import Grid
from roomy_hull.desktop.text import Label
from roomy_hull.desktop.theme import font
from roomy_hull.desktop.work import Step
from roomy_hull.drawing.scenes import cut as cut_scene
from roomy_hull.drawing.style import Theme
from roomy_hull.formats import cutfiles
from roomy_hull.making.bars import Bar
from roomy_hull.making.cutlist import CutList, nesting_of, way_of
from roomy_hull.making.sheets import Nest, Sheet
from roomy_hull.making.true_shape import by_shape, hopeful
from roomy_hull.session.doing import do
from roomy_hull.session.pages.cut.words import CAUTION, LOOKING, works
from roomy_hull.session.session import Session
from roomy_hull.tables.column import Cell
from roomy_hull.verdict.marks import marking_now

ROUNDS = 4000
"""So often a nesting is improved at most, unless it is stopped before or reaches its bound."""


class _Listed(NestedPage):
    """A list at the left, a drawing at its right."""

    def __init__(self, session: Session, theme: Theme, what: str) -> None:
        super().__init__(session, theme)
        self.list = QListWidget()
        self.list.setFixedWidth(262)
        self.list.setFont(font(12))
        self.list.setSpacing(1)
        self.list.setAccessibleName(what)
        self.drawing = Picture(session, theme, what, self._picture)
        self.summary = Label()
        self.summary.setWordWrap(True)
        self.summary.setFont(font(12))
        self.list.currentRowChanged.connect(self._chose)

    def _beside(self) -> QHBoxLayout:
        row = QHBoxLayout()
        row.setSpacing(0)
        row.addWidget(self.list)
        row.addWidget(self.drawing, 1)
        return row

    def _picture(self, _ratio: float) -> tuple[str, tuple[Scene, Rect] | None]:
        return LOOKING, None

    def _size(self, mm: float) -> str:
        return exact(mm, self._session.look.system)

    def _chose(self, row: int) -> None:
        if row >= 0 and row != self._session.look.cut.piece:
            self._session.view.set(cut={"piece": row})

    def _fill_list(self, rows: list[str]) -> None:
        keep = min(max(self._session.look.cut.piece, 0), max(len(rows) - 1, 0))
        self.list.blockSignals(True)
        if [self.list.item(n).text() for n in range(self.list.count())] != rows:  # type: ignore[union-attr]  # there are so many
            self.list.clear()
            self.list.addItems(rows)
        self.list.setCurrentRow(keep)
        self.list.blockSignals(False)


class SheetsPage(_Listed):
    """Every nested sheet beside the fewest that could do; improved until stopped; the files."""

    written = pyqtSignal(str)

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme, "Nested sheets")
        self.better_button = QPushButton("Look for better")
        self.better_button.setToolTip(
            "Take sheets apart and pack them again, then lay odd outlines into one another, "
            "until it is stopped or can be no better"
        )
        self.write_button = QPushButton("Write cut files…")
        self.write_button.setToolTip("DXF blanks, nested sheets, all lists (Ctrl+E)")
        for button in (self.better_button, self.write_button):
            button.setFont(font(11))
        self.better_button.clicked.connect(self._better)
        self.write_button.clicked.connect(lambda _on: do(session, "job.cut"))
        row = self._bar((self.summary, 1), (self.better_button, 0), (self.write_button, 0))
        self.stack(CAUTION, (self._beside(), 1), (row, 0))

    def _busy(self, *, on: bool) -> None:
        super()._busy(on=on)
        if hasattr(self, "write_button"):
            self.write_button.setEnabled(not on)
            self.better_button.setEnabled(not on)

    def _sheet(self) -> Sheet | None:
        cut = self.cut
        if cut is None or not cut.nest.sheets:
            return None
        return cut.nest.sheets[min(self._session.look.cut.piece, len(cut.nest.sheets) - 1)]

    def _picture(self, _ratio: float) -> tuple[str, tuple[Scene, Rect] | None]:
        sheet = self._sheet()
        if sheet is None:
            return LOOKING if self._work is not None else "Nothing is cut from sheet", None
        where = "" if sheet.bought else ", an offcut"
        system = self._session.look.system
        sizes = f"{exact(sheet.length, system, places=0)} × {exact(sheet.width, system, places=0)}{where}"
        title = (
            f"{sheet.thickness:g} mm {sheet.material.key}, {sizes}: {len(sheet.placed)} "
            f"blanks, {sheet.used():.0%} used, {show(sheet.mass(), 'mass', self._session.look.system)}"
        )
        return title, (
            cut_scene.sheet_scene(sheet, self._session.look.system),
            cut_scene.sheet_frame(sheet),
        )

    def _rows(self, cut: CutList) -> list[str]:
        return [
            f"{n}: {s.thickness:g} mm {s.material.key}, {s.used():.0%}" for n, s in enumerate(cut.nest.sheets, 1)
        ]  # fmt: skip

    def fill(self) -> None:
        """Bring list and words up to date."""
        cut = self.cut
        if cut is None:
            self.summary.setText(LOOKING if self._work is not None else "")
            return
        self._fill_list(self._rows(cut))
        used = sum(n for n, _b in cut.nest.bounds.values())
        least = sum(b for _n, b in cut.nest.bounds.values())
        open_ = [k for k, (n, b) in cut.nest.bounds.items() if n > b]
        shop = self._session.shop
        odd = not way_of(shop).shear and hopeful(cut.nest, shop.stock)
        at = "no nesting needs fewer" if not open_ else f"no nesting needs fewer than {least}"
        if odd:
            at += " by rectangles; odd outlines may still go into one another"
        kg = sum(p.mass() * p.count for p in cut.parts if hasattr(p, "mass"))
        inside = sum(p.inside >= 0 for s in cut.nest.sheets for p in s.placed)
        more = f", {inside} blanks out of openings" if inside else ""
        self.summary.setText(
            f"{used} sheets bought ({at}){more}, about {cut.nest.price:,.0f}; "
            f"{show(kg, 'mass', self._session.look.system)} of metal in the parts."
        )
        self.better_button.setVisible(bool(open_) or odd)

    def _better(self) -> None:
        """Improve the nesting beside the window, until it is stopped; the best is kept."""
        cut, session = self.cut, self._session
        if cut is None or self._work is not None:
            return
        verdict, shop = session.verdict, session.shop

        def job(step: Step) -> Nest:
            nesting = nesting_of(cut, shop)
            going = True
            for n in range(ROUNDS):
                going = step(n / ROUNDS / 2)
                if nesting.done or not going:
                    break
                nesting.step()
            found = nesting.nest()
            if way_of(shop).shear or not going:
                return found
            return by_shape(found, shop.stock, lambda share: step((1 + share) / 2))

        def done(found: Nest) -> None:
            better = found.price < cut.nest.price - 1e-6 or (
                found.price <= cut.nest.price + 1e-6 and len(found.sheets) < len(cut.nest.sheets)
            )
            session.say(
                "A better nesting is found."
                if better
                else "Nothing better was found; the nesting stays."
            )
            session.cutting.put(
                msgspec.structs.replace(cut, nest=found) if better else cut, verdict
            )

        self.cancel_button.setText("Stop here")
        self._start(job, done, "Packing again")

    def _end(self) -> None:
        super()._end()
        self.cancel_button.setText("Give up")

    def write(self, folder: Path, *, solids: bool = False) -> None:
        """Write the cut files beside the window; with every part and the job in the round, if that is wanted."""
        cut, session = self.cut, self._session
        if self._work is not None or cut is None:
            session.say("One moment: the nesting is still at work.", trouble=True)
            return
        assembly, marking = session.verdict.assembly, marking_now(session.verdict)

        def job(step: Step) -> str:
            paths = cutfiles.write(cut, folder, marking, step, solids=assembly if solids else None)
            told = "; ".join((marking.state, *marking.warnings))
            return f"{len(paths)} cut files are written to {folder} ({told})"

        self._start(job, self._wrote, "Writing")

    def write_book(self, folder: Path) -> None:
        """Write the book and its labels beside the window."""
        cut, session = self.cut, self._session
        if self._work is not None or cut is None:
            session.say("One moment: the nesting is still at work.", trouble=True)
            return
        verdict, system = session.verdict, session.look.system

        def job(step: Step) -> str:
            from roomy_hull.desktop import book  # ruff: ignore[import-outside-top-level]  # not to slow the start

            step(0.0)
            files = book.write_verdict(verdict, folder, cut, system)
            return f"{len(files)} files are written to {folder}: the book and its labels"

        self._start(job, self._wrote, "The book")

    def _wrote(self, words: str) -> None:
        self._session.say(words)
        self.written.emit(words)


ALL = "All bars"
DRILL_HEADS = ("Bar", "Side", "Along", "Across", "Hole")


class BarsPage(_Listed):
    """How bars are sawn beside their bound, and what is drilled into them."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme, "Sawn bars")
        self.table = Grid("Holes of bars")
        self.stack(CAUTION, (self._beside(), 6), (self._bar((self.summary, 1)), 0), (self.table, 4))

    def _groups(self) -> list[tuple[str, tuple[Bar, ...]]]:
        cut = self.cut
        groups: dict[str, list[Bar]] = {}
        for bar in cut.bars.bars if cut is not None else ():
            groups.setdefault(f"{bar.section} {bar.material.key}", []).append(bar)
        every = tuple(bar for bars in groups.values() for bar in bars)
        whole = [(ALL, every)] if len(groups) > 1 else []
        return whole + [(key, tuple(bars)) for key, bars in groups.items()]

    def _rows(self, cut: CutList) -> list[str]:
        rows = []
        for key, bars in self._groups():
            if key == ALL:
                rows.append(f"All {len(bars)} bars")
                continue
            used, bound = cut.bars.bounds[key]
            at = "fewest" if used <= bound else f"bound {bound}"
            rows.append(f"{sum(b.bought for b in bars)} × {key} ({at})")
        return rows

    def _picture(self, _ratio: float) -> tuple[str, tuple[Scene, Rect] | None]:
        groups = self._groups()
        if not groups:
            return LOOKING if self._work is not None else "Nothing is sawn", None
        key, bars = groups[min(self._session.look.cut.piece, len(groups) - 1)]
        whole = exact(bars[0].length, self._session.look.system, unit=True, places=0)
        title = f"{key}: {len(bars)} of {whole}, pieces in sawing order"
        return title, (
            cut_scene.bars_scene(bars, self._session.look.system),
            cut_scene.bars_frame(bars),
        )

    def fill(self) -> None:
        """Bring list, words and holes up to date."""
        cut = self.cut
        if cut is None:
            self.summary.setText(LOOKING if self._work is not None else "")
            return
        self._fill_list(self._rows(cut))
        used = sum(n for n, _b in cut.bars.bounds.values())
        least = sum(b for _n, b in cut.bars.bounds.values())
        self.summary.setText(
            f"{used} bars bought; no plan needs fewer than {least}. Lengths are from the one longest point to the other."
        )
        rows: list[list[Cell]] = []
        for part in (p for w in works(self._session).works for p in w.parts):
            for h in getattr(part, "drilled", ()):
                if hasattr(h, "along"):
                    slot = f" × {self._size(h.length)} slot" if h.length else ""
                    rows.append([(part.name, ""), (h.words, ""), (self._size(h.along), ""), (self._size(h.across), ""),
                                 (f"ø {self._size(h.diameter)}{slot}", "")])  # fmt: skip
        self.table.fill(self._theme, DRILL_HEADS, rows)
