"""The page Stability: centre of mass at the loaded attitude, tilt, angles, and the towing trade-off."""

from PyQt6.QtWidgets import QHBoxLayout, QVBoxLayout

from roomy_hull.actions.workbench import Workbench
from roomy_hull.core.strokes import Rect, Scene
from roomy_hull.core.tables import rules
from roomy_hull.core.units import show
from roomy_hull.desktop.loads.parts import Cell, Grid, LoadsPage, Picture, caution, mm_of
from roomy_hull.desktop.theme import Theme
from roomy_hull.drawing import survey_scene
from roomy_hull.drawing.loads_scene import stability_frame, stability_scene
from roomy_hull.studies.loads import towing
from roomy_hull.studies.loads.stability import WORDS


class StabilityPage(LoadsPage):
    """From behind and towing above, all scenarios below."""

    def __init__(self, bench: Workbench, theme: Theme) -> None:
        super().__init__(bench, theme)
        self.picture = Picture(bench, theme, "Centre of mass from behind", self._behind)
        self.towing = Picture(bench, theme, "Towing", self._towing)
        self.table = Grid("Stability and clearances in every scenario", rows_chosen=True)
        self.table.cellClicked.connect(self._clicked)
        above = QHBoxLayout()
        above.setSpacing(2)
        above.addWidget(self.picture, 5)
        above.addWidget(self.towing, 6)
        box = QVBoxLayout(self)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(2)
        box.addLayout(above, 7)
        box.addWidget(self.table, 5)
        box.addWidget(caution(WORDS + " Ratings and road law decide what may be towed."))

    def _clicked(self, row: int, _column: int) -> None:
        self._bench.set_look(scenario=self._bench.job.scenarios[row].id)

    def _behind(self, _aspect: float) -> tuple[str, tuple[Scene, Rect] | None]:
        bench = self._bench
        verdict = bench.verdict
        if verdict.carrying is None:
            return "", None
        loads = verdict.loads.scenario(bench.look.scenario)
        one = next(s for s in verdict.carrying.stability if s.scenario == loads.id)
        scene = stability_scene(verdict.assembly, one, loads, bench.look.system)
        return f"{loads.name}: static stability factor {one.factor:.2f}", (
            scene,
            stability_frame(verdict.assembly),
        )

    def _towing(self, _aspect: float) -> tuple[str, tuple[Scene, Rect]]:
        bench = self._bench
        found = towing.study(bench.job, bench.verdict.loads)
        shown = next((x for x in found.points if x.id == bench.look.scenario), found.points[0])
        most = show(shown.most, "mass", bench.look.system)
        drawn = survey_scene.towing_scene(found, bench.look.system, shown.id)
        return f"Trailer over vehicle: up to {most} by the {shown.by}", drawn

    def fill(self) -> None:
        """Bring the table up to date."""
        bench, system = self._bench, self._bench.look.system
        verdict = bench.verdict
        if verdict.carrying is None:
            return
        least = rules().ssf_least
        towed = {p.id: p for p in towing.study(bench.job, verdict.loads).points}
        rows: list[list[Cell]] = []

        both = zip(verdict.carrying.stability, verdict.outline.angles[1:], strict=True)
        for n, (s, angles) in enumerate(both, 1):
            bold = "bold" if s.scenario == bench.scenario().id else ""
            side = "right" if s.y > 0 else "left"
            rows.append([
                (f"{n}  {s.name}", bold), (mm_of(bench, s.x), ""),
                (f"{mm_of(bench, abs(s.y))} {side}", ""),
                (mm_of(bench, s.height), bold),
                (f"{s.factor:.2f}", "look" if s.factor < least else ""),
                (f"{s.tilt_left:.0f}° / {s.tilt_right:.0f}°", ""), (f"{angles.approach:.0f}°", ""),
                (f"{angles.ramp:.0f}°", ""), (f"{angles.departure:.0f}°", ""),
                (show(round(towed[s.scenario].most), "mass", system, unit=False), ""),
            ])  # fmt: skip
        self.table.fill(
            self._theme,
            ("Scenario", "Aft", "Aside", "Up", "T/2h", "Tips at", "Approach", "Ramp", "Departure",
             "May tow"),
            rows, (), widths=(178,),
        )  # fmt: skip
