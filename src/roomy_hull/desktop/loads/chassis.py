"""The page Chassis: shear and bending under the vehicle's own picture, and what changes them."""

from PyQt6.QtWidgets import QHBoxLayout, QLabel, QVBoxLayout

from roomy_hull.actions.workbench import Workbench
from roomy_hull.core.strokes import Rect, Scene
from roomy_hull.core.units import show
from roomy_hull.desktop.loads.parts import Cell, Grid, LoadsPage, Picture, caution
from roomy_hull.desktop.theme import Theme, font
from roomy_hull.drawing.loads_scene import chassis_frame, chassis_scene
from roomy_hull.studies.loads import chassis


class ChassisPage(LoadsPage):
    """Diagrams above, scenarios and variations below."""

    def __init__(self, bench: Workbench, theme: Theme) -> None:
        super().__init__(bench, theme)
        self._kept: tuple[object, str, tuple[chassis.Variation, ...]] = (None, "", ())
        self.picture = Picture(bench, theme, "Shear and bending of the chassis", self._draw)
        self.words = QLabel()
        self.words.setWordWrap(True)
        self.words.setContentsMargins(10, 2, 10, 2)
        self.table = Grid("Peak bending by scenario", rows_chosen=True)
        self.table.cellClicked.connect(self._clicked)
        self.effects = Grid("What overhang, ball and air springs do to it")
        below = QHBoxLayout()
        below.setSpacing(2)
        below.addWidget(self.table, 9)
        below.addWidget(self.effects, 10)
        box = QVBoxLayout(self)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(2)
        box.addWidget(self.picture, 13)
        box.addWidget(self.words)
        box.addLayout(below, 6)
        box.addWidget(
            caution(
                "The rails' own strength is not judged: the dashed line is the rated payload spread evenly over the "
                "tray, and the ratio says how this build compares with it. Repairs, extensions and drilling of a "
                "chassis belong to the certifying engineer."
            )
        )

    def _clicked(self, row: int, _column: int) -> None:
        self._bench.set_look(scenario=self._bench.job.scenarios[row].id)

    def _draw(self, _aspect: float) -> tuple[str, tuple[Scene, Rect] | None]:
        bench = self._bench
        verdict = bench.verdict
        if verdict.carrying is None:
            return "", None
        stance = verdict.loads.scenario(bench.look.scenario).stance
        scene = chassis_scene(
            verdict.assembly, verdict.carrying.chassis, bench.look.scenario, stance
        )
        one = verdict.carrying.chassis.diagram(bench.look.scenario)
        title = f"{one.name}: {one.ratio:.0%} of the rated payload spread evenly (dashed); the shaded stretch is judged"
        return title, (scene, chassis_frame(verdict.assembly))

    def variations(self) -> tuple[chassis.Variation, ...]:
        """Give what changes the peak of the chosen scenario; kept while the job stays."""
        bench = self._bench
        key = bench.scenario().id
        if self._kept[0] is not bench.job or self._kept[1] != key:
            found = chassis.variations(bench.verdict.assembly, bench.scenario())
            self._kept = (bench.job, key, found)
        return self._kept[2]

    def fill(self) -> None:
        """Bring both tables up to date."""
        bench, system = self._bench, self._bench.look.system
        carrying = bench.verdict.carrying
        if carrying is None:
            return
        result = carrying.chassis
        here = bench.scenario().id
        rows: list[list[Cell]] = []
        for d in result.diagrams:
            over = "look" if d.ratio > 1 else "bold" if d.scenario == here else ""
            rows.append([
                (d.name, "bold" if d.scenario == here else ""), (f"{abs(d.peak) / 1e3:,.1f}", over),
                (f"{d.ratio:.0%}", over), (show(d.peak_x, "length", system, unit=False), ""),
            ])  # fmt: skip
        self.table.fill(self._theme, ("Scenario", "Peak, kN·m", "Of rated", "Aft of axle"), rows, (),
                        widths=(0, 72, 60, 78))  # fmt: skip
        cells: list[list[Cell]] = [
            [(v.words, ""), (f"{abs(v.peak) / 1e3:,.1f}", ""), (f"{v.ratio:.0%}", "look" if v.ratio > 1 else ""),
             (f"{v.axle / 1e3:,.1f}", ""), (f"{v.point / 1e3:,.1f}", "")]
            for v in self.variations()
        ]  # fmt: skip
        self.effects.fill(self._theme, ("In this scenario", "Peak", "Of rated", "Over axle", "One spring, kN"),
                          cells, (), widths=(0, 42, 62, 68, 102))  # fmt: skip
        self.words.setFont(font(12))
        words = (
            f"Bending at {result.factor:g} times gravity (a rough road, common practice), against "
            f"{show(result.payload, 'mass', system)} of rated payload spread evenly. "
        )
        chosen = result.diagram(here)
        first = min(p.x for p in chosen.pushes if p.what != "front springs")
        if bench.job.vehicle.kind == "wagon":
            words += "A wagon's whole body carries it: for comparison only, nothing is judged."
        elif chosen.peak_x < first:
            words += (
                "The peak lies ahead of the rear springs, so where they bear does not change it; over the axle, and in "
                "one spring's push, it does."
            )
        self.words.setText(words)
