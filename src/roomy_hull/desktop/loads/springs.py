"""The page Springs: each school side by side in every scenario; one is fitted, and the drawing sits so."""

from PyQt6.QtWidgets import QHBoxLayout, QLabel, QPushButton, QVBoxLayout

from roomy_hull.actions.workbench import Workbench
from roomy_hull.core.strokes import Rect, Scene
from roomy_hull.core.tables import rules
from roomy_hull.core.units import MM_PER_INCH, show, unit_word
from roomy_hull.desktop.loads.parts import Cell, Grid, LoadsPage, Picture, caution, mm_of
from roomy_hull.desktop.theme import Theme, font
from roomy_hull.drawing import chart
from roomy_hull.drawing.loads_scene import loads_frame, standing
from roomy_hull.job.vehicle import SCHOOLS
from roomy_hull.studies.loads import springs
from roomy_hull.studies.loads.springs import CAUTIONS, SpringStudy, Stance

PSI = 6.894757
"""kPa in a pound on the square inch."""


class SpringsPage(LoadsPage):
    """Stance picture, chart of the tail, table of all schools."""

    def __init__(self, bench: Workbench, theme: Theme) -> None:
        super().__init__(bench, theme)
        self.picture = Picture(bench, theme, "How it sits", self._vehicle)
        self.chart = Picture(bench, theme, "Tail low by school", self._chart)
        self.table = Grid("Schools of springs in every scenario")
        self.words = QLabel()
        self.words.setWordWrap(True)
        self.words.setContentsMargins(10, 2, 10, 2)
        bar, self.buttons = QHBoxLayout(), {}
        bar.setContentsMargins(8, 2, 8, 2)
        bar.addWidget(QLabel("Fit:"))
        for school in SCHOOLS:
            button = QPushButton(school.capitalize())
            button.setCheckable(True)
            button.setToolTip(CAUTIONS[school])
            button.clicked.connect(lambda _on, s=school: self.fit(s))
            self.buttons[school] = button
            bar.addWidget(button)
        bar.addStretch(1)
        above = QHBoxLayout()
        above.setSpacing(2)
        above.addWidget(self.picture, 1)
        above.addWidget(self.chart, 1)
        box = QVBoxLayout(self)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(2)
        box.addLayout(above, 6)
        box.addLayout(bar)
        box.addWidget(self.words)
        box.addWidget(self.table, 5)
        box.addWidget(
            caution(
                "Springs do not raise a rating. Lift, stiffer springs and air springs may want a certificate: the "
                "certifying engineer and the road authority decide."
            )
        )

    def study(self) -> SpringStudy:
        """Compare the schools."""
        loads = self._bench.verdict.loads.scenarios
        return springs.study(
            self._bench.job.vehicle, tuple((s.id, s.front.value, s.rear.value) for s in loads)
        )

    def fit(self, school: str) -> None:
        """Fit a school, as one step."""
        self._bench.set_path("vehicle.springs.school", school)
        self.refresh()

    def _vehicle(self, _aspect: float) -> tuple[str, tuple[Scene, Rect]]:
        bench = self._bench
        assembly = bench.verdict.assembly
        stance: Stance = bench.verdict.loads.scenario(bench.look.scenario).stance
        h0, _k0, h1, k1 = loads_frame(assembly)
        low = show(abs(stance.tail_low), "length", bench.look.system)
        end = "tail low" if stance.tail_low >= 0 else "nose low"
        title = (
            f"{bench.scenario().name}: {low} {end} on {bench.job.vehicle.springs.school} springs"
        )
        return title, (standing(assembly, stance), (h0, -120.0, h1, k1))

    def _chart(self, aspect: float) -> tuple[str, tuple[Scene, Rect]]:
        bench = self._bench
        found = self.study()
        per = MM_PER_INCH if bench.look.system == "us" else 1.0
        ids = [s.id for s in bench.job.scenarios]
        curves = tuple(
            chart.Curve(
                f"curve {n}",
                tuple(
                    (float(i), found.row(school, key).stance.tail_low / per)
                    for i, key in enumerate(ids)
                ),
                school,
                dots=True,
            )
            for n, school in enumerate(SCHOOLS, 1)
        )
        band = rules().level_band / per
        names = tuple((float(i), str(i + 1)) for i in range(len(ids)))
        edge = len(ids) - 1.0
        ring = ((0.0, -band), (edge, -band), (edge, band), (0.0, band))
        drawn = chart.scene(
            chart.Chart("scenario, as in the table", f"tail low, {unit_word('length', bench.look.system)}", curves,
                        (), aspect * 0.92, names, ring, float(ids.index(bench.scenario().id)), 235)
        )  # fmt: skip
        return "How low the tail stands; shaded: level enough", drawn

    def fill(self) -> None:
        """Bring table and words up to date."""
        bench, system = self._bench, self._bench.look.system
        found = self.study()
        fitted = bench.job.vehicle.springs.school
        for school, button in self.buttons.items():
            button.setChecked(school == fitted)
            button.setFont(font(12, bold=school == fitted))
        self.words.setFont(font(12))
        self.words.setText(f"{fitted.capitalize()}: {CAUTIONS[fitted]}")
        band = rules().level_band
        heads = ["Scenario"]
        for _school in SCHOOLS:
            heads += ["Sag", "Tail", "Hz"]
        heads.append("psi" if system == "us" else "kPa")
        top: list[Cell] = [("Rear sag, tail low, bounce", "")]
        kerb: list[Cell] = [("At kerb", "")]
        for school in SCHOOLS:
            top += [(school.capitalize(), "bold"), ("", ""), ("", "")]
            kerb += [("", ""), ("", ""), (f"{found.kerb_hz[school]:.1f}", "")]
        rows: list[list[Cell]] = [[*top, ("level at", "bold")], [*kerb, ("", "")]]
        s = bench.job.vehicle.springs

        for n, scenario in enumerate(bench.job.scenarios, 1):
            row: list[Cell] = [
                (f"{n}  {scenario.name}", "bold" if scenario.id == bench.scenario().id else "")
            ]
            for school in SCHOOLS:
                one = found.row(school, scenario.id)
                low = one.stance.tail_low
                row += [
                    (mm_of(bench, one.stance.rear_sag), ""),
                    (mm_of(bench, low), "look" if abs(low) > band else ""),
                    (f"{one.rear_hz:.1f}", ""),
                ]
            one = found.row("air", scenario.id)
            value = f"{one.wished / (PSI if system == 'us' else 1):,.0f}"
            beyond = not s.air_least <= one.wished <= s.air_most
            row.append((value, "look" if beyond else ""))
            rows.append(row)
        self.table.clearSpans()
        self.table.fill(self._theme, heads, rows, (), widths=(186, *(52,) * 12))
        for n in range(len(SCHOOLS)):
            self.table.setSpan(0, 1 + 3 * n, 1, 3)
