"""The page Strength: mounts, slides, members and struts, the most used first, each with its sum."""

import msgspec
from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QHBoxLayout, QLabel, QPushButton, QScrollArea, QVBoxLayout

from roomy_hull.actions.workbench import Workbench
from roomy_hull.core.strokes import Rect, Scene
from roomy_hull.core.tables import rules
from roomy_hull.core.units import show
from roomy_hull.desktop.loads.parts import Cell, Grid, LoadsPage, Picture, caution, choice_row
from roomy_hull.desktop.theme import Theme, font
from roomy_hull.drawing import chart
from roomy_hull.studies.loads.carrying import Carrying
from roomy_hull.studies.loads.members import MemberCheck
from roomy_hull.studies.loads.mounts import GRADE, MountCheck
from roomy_hull.studies.loads.struts import StrutCheck

Check = MountCheck | MemberCheck | StrutCheck


class Row(msgspec.Struct, frozen=True):
    """One check in the list: which kind, of what, in words, how far it is used."""

    kind: str
    owner: str
    name: str
    words: str
    use: float
    check: Check


def rows_of(found: Carrying) -> list[Row]:
    """List every check, the most used first.

    Parameters
    ----------
    found : Carrying
        The study.

    Returns
    -------
    list of Row
        Mounts, slides, members and struts.
    """
    rows: list[Row] = []
    for m in found.mounts:
        way = m.worst()
        words = (
            f"{m.bolts} × {m.bolt}, {way.way}" if m.bolts else f"hold {way.force:,.0f} N {way.way}"
        )
        rows.append(Row("Mount", m.id, m.name, words, way.use, m))
        if m.slide is not None:
            s = m.slide
            rows.append(
                Row("Slide", m.id, m.name, f"{s.load:.0f} kg × {s.factor:g} of {s.rating:.0f}",
                    s.load * s.factor / s.rating if s.rating else s.use, m)
            )  # fmt: skip
    for c in found.all_members():
        rows.append(Row("Member", c.owner, c.name, c.what, c.use(), c))
    hand = rules().hand_pull
    for d in found.struts:
        use = 1.01 if not d.stays or d.trouble else max(d.lift, d.draw) / hand
        words = "proposed" if d.proposed else f"{d.strut.count} × {d.strut.force:.0f} N"
        rows.append(Row("Strut", "canopy", f"Door {d.door}", words, use, d))
    return sorted(rows, key=lambda r: -r.use)


class StrengthPage(LoadsPage):
    """List of checks at the left, the chosen one's sum at the right."""

    def __init__(self, bench: Workbench, theme: Theme) -> None:
        super().__init__(bench, theme)
        self.at = 0
        self.kind = ""
        self.table = Grid("Everything that carries, the most used first", rows_chosen=True)
        self.table.currentCellChanged.connect(self._picked)
        self.words = QLabel()
        self.words.setWordWrap(True)
        self.words.setContentsMargins(12, 10, 12, 6)
        self.words.setAlignment(Qt.AlignmentFlag.AlignTop)
        self.picture = Picture(bench, theme, "The door over its swing", self._draw)
        self.put = QPushButton("Put these struts into the job")
        self.put.clicked.connect(self._put)
        scroll = QScrollArea()
        scroll.setWidgetResizable(True)
        scroll.setWidget(self.words)
        right = QVBoxLayout()
        right.setSpacing(2)
        right.addWidget(scroll, 3)
        right.addWidget(self.picture, 5)
        right.addWidget(self.put)
        kinds = [("", "All"), *((k, f"{k}s") for k in ("Mount", "Slide", "Member", "Strut"))]
        bar, self.buttons = choice_row(kinds, "", self.only, self)
        left = QVBoxLayout()
        left.setSpacing(0)
        left.addLayout(bar)
        left.addWidget(self.table, 1)
        middle = QHBoxLayout()
        middle.setSpacing(2)
        middle.addLayout(left, 6)
        middle.addLayout(right, 5)
        box = QVBoxLayout(self)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(2)
        box.addLayout(middle, 1)
        box.addWidget(
            caution(
                "Bolts alone are reckoned with: rail, rivet nut and sheet around them may give way first. Barriers, "
                "seats and anything people rely on in a crash belong to the certifying engineer."
            )
        )

    def rows(self) -> list[Row]:
        """Give the checks that are listed."""
        found = self._bench.verdict.carrying
        rows = rows_of(found) if found is not None else []
        return [r for r in rows if self.kind in ("", r.kind)]

    def only(self, kind: str) -> None:
        """List one kind of check, or all."""
        self.kind, self.at = kind, 0
        self.refresh()

    def _picked(self, row: int, _c: int, _r: int, _k: int) -> None:
        rows = self.rows()
        if not 0 <= row < len(rows):
            return
        self.at = row
        if self._bench.job.thing(rows[row].owner) is not None:
            self._bench.select(rows[row].owner)
        self._tell()

    def fill(self) -> None:
        """Bring the list and the sum up to date."""
        for kind, button in self.buttons.items():
            button.setChecked(kind == self.kind)
        rows = self.rows()
        self.at = min(self.at, max(0, len(rows) - 1))
        cells: list[list[Cell]] = []
        for r in rows:
            weight = "stop" if r.use > 1 and r.kind != "Strut" else "look" if r.use > 1 else ""
            use = f"{r.use:.0%}" if r.use or r.kind != "Mount" else "–"
            cells.append([(r.kind, ""), (r.name, weight), (r.words, ""), (use, weight)])
        blocked = self.table.blockSignals(True)
        self.table.fill(self._theme, ("", "What", "", "Used"), cells, (), widths=(66, 0, 0, 56))
        if rows:
            self.table.selectRow(self.at)
        self.table.blockSignals(blocked)
        self._tell()

    def chosen(self) -> Row | None:
        """Give the chosen check."""
        rows = self.rows()
        return rows[self.at] if rows else None

    def _tell(self) -> None:
        """Write the chosen check's sum."""
        row = self.chosen()
        strut = row is not None and isinstance(row.check, StrutCheck)
        self.picture.setVisible(strut)
        self.put.setVisible(
            bool(
                strut
                and row is not None
                and isinstance(row.check, StrutCheck)
                and row.check.proposed
            )
        )
        self.words.setFont(font(12))
        if row is None:
            self.words.setText("Nothing here carries anything yet. Place units in Fit-out.")
            return
        self.words.setText("<br>".join(self.sum_of(row)))
        self.picture.update()

    def sum_of(self, row: Row) -> list[str]:
        """Write out how one check comes about, line by line."""
        system = self._bench.look.system

        def mm(value: float) -> str:
            return show(value, "length", system)

        c = row.check
        lines = [f"<b>{row.kind}: {row.name}</b>"]
        if isinstance(c, MemberCheck):
            where = "beside its weld" if c.welded else "away from welds"
            lines += [
                f"{c.what.capitalize()}: {c.form}.",
                f"Load: {c.load}.",
                f"Stress <b>{c.stress:,.0f}</b> of {c.allowed:,.0f} MPa (yield {where} over {rules().member_safety:g}).",
                f"Sag at rest <b>{c.sag:,.1f}</b> of {c.allowed_sag:,.1f} mm (span/{rules().sag_share:g}).",
            ]
        elif isinstance(c, StrutCheck):
            s = c.strut
            lines += [
                f"Leaf {show(c.mass, 'mass', system)}, {mm(c.height)} high; {s.count} struts of {s.force:.0f} N"
                + (" <b>(a proposal)</b>" if c.proposed else ""),
                f"Studs: {mm(s.body)} under the hinge on the body, {mm(s.leaf)} along the leaf; "
                f"{mm(c.closed)} closed, {mm(c.opened)} open.",
                f"{c.trouble[:1].upper()}{c.trouble[1:]}." if c.trouble else
                f"{'Stays open' if c.stays else 'Does <b>not</b> stay open'} on a side slope of {rules().slope:g}° and at "
                f"{rules().cold:g} °C.",
                f"At most {c.lift:,.0f} N to lift and {c.draw:,.0f} N to draw down, at its edge.",
            ]  # fmt: skip
        elif row.kind == "Slide" and c.slide is not None:
            s2 = c.slide
            lines += [
                f"Moving {show(s2.load, 'mass', system)} × {s2.factor:g} on a rough road, rated "
                f"{show(s2.rating, 'mass', system)}.",
                f"Fully out its middle stands {mm(s2.overhang)} before the face: {s2.moment:,.0f} N·m to be held at the "
                f"back, {s2.tension:,.0f} N a bolt ({s2.use:.1%}).",
                f"On a slope of {rules().slope:g}°: {s2.pull:,.0f} N to draw it out uphill (one hand: "
                f"{rules().hand_pull:g} N); downhill it runs with {s2.runs:,.0f} N, "
                + ("its lock holds it." if s2.locks else "<b>and it has no lock.</b>"),
            ]  # fmt: skip
        else:
            lines.append(
                f"{show(c.kg, 'mass', system)} full, its middle {mm(c.height)} over its base"
                + (
                    f"; {c.bolts} × {c.bolt} {GRADE}."
                    if c.bolts
                    else "; its carrier or straps have to hold:"
                )
            )
            for way in c.ways:
                tips = f", tips with {way.tips:,.0f} N·m" if way.tips else ""
                use = (
                    f": {way.shear:,.0f} N shear, {way.tension:,.0f} N pull a bolt, <b>{way.use:.1%}</b>"
                    if c.bolts
                    else ""
                )
                lines.append(
                    f"{way.way.capitalize()} {way.factor:g} g, {way.force:,.0f} N{tips}{use}"
                )
            lines.append(
                "Factors: Load Restraint Guide, EN 12195-1 (from memory). No friction counted."
            )
        return lines

    def _draw(self, aspect: float) -> tuple[str, tuple[Scene, Rect] | None]:
        row = self.chosen()
        if row is None or not isinstance(row.check, StrutCheck):
            return "", None
        swing = row.check.swing
        ring = [(i.angle, i.high) for i in swing] + [(i.angle, i.low) for i in reversed(swing)]
        hand = rules().hand_pull
        levels = (
            (chart.Level(hand, f"one hand {hand:g} N"),)
            if max(i.high for i in swing) > hand * 0.6
            else ()
        )
        drawn = chart.scene(
            chart.Chart("door, degrees from closed", "N at its edge: above 0 it wants to fall",
                        (chart.Curve("curve 1", tuple((i.angle, i.hold) for i in swing), "level"),), levels,
                        aspect * 0.92, band=tuple(ring), room=80)
        )  # fmt: skip
        return "Over the swing; shaded: slope both ways and cold", drawn

    def _put(self) -> None:
        row = self.chosen()
        if row is not None and isinstance(row.check, StrutCheck):
            self._bench.set_path(f"body.canopy.doors.{row.check.door}.strut", row.check.strut)
