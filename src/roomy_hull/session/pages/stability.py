"""The page Stability: centre of mass at the loaded attitude, tilt, angles, and the towing trade-off."""

from roomy_hull.core.primitives import Rect, Scene
from roomy_hull.core.units import show
from roomy_hull.drawing.scenes import survey as survey_scene
from roomy_hull.drawing.scenes.loads import stability_frame, stability_scene
from roomy_hull.session.pages.cells import mm_of
from roomy_hull.session.pages.model import PageModel
from roomy_hull.tables.column import Cell


class StabilityModel(PageModel):
    """How steady it stands in every scenario, and what it may tow."""

    heads = (
        "Scenario",
        "Aft",
        "Aside",
        "Up",
        "T/2h",
        "Tips at",
        "Approach",
        "Ramp",
        "Departure",
        "May tow",
    )

    def choose(self, row: int) -> None:
        """Choose the scenario of a row."""
        self._session.view.set(scenario=self._session.job.scenarios[row].id)

    def behind(self, _aspect: float) -> tuple[str, tuple[Scene, Rect]]:
        """Draw the centre of mass from behind, under its title."""
        session, verdict = self._session, self._session.known
        loads = verdict.loads.scenario(session.look.scenario)
        one = next(s for s in verdict.carrying.stability if s.scenario == loads.id)
        scene = stability_scene(verdict.assembly, one, loads, session.look.system)
        title = f"{loads.name}: static stability factor {one.factor:.2f}"
        return title, (scene, stability_frame(verdict.assembly))

    def towing(self, _aspect: float) -> tuple[str, tuple[Scene, Rect]]:
        """Draw the towing trade-off, under its title."""
        session, found = self._session, self._session.known.towing
        shown = next((x for x in found.points if x.id == session.look.scenario), found.points[0])
        most = show(shown.most, "mass", session.look.system)
        drawn = survey_scene.towing_scene(found, session.look.system, shown.id)
        return f"Trailer over vehicle: up to {most} by the {shown.by}", drawn

    def cells(self) -> list[list[Cell]]:
        """Lay all scenarios out as a table."""
        session, verdict = self._session, self._session.known
        least = session.shop.rules.ssf_least
        towed = {p.id: p for p in verdict.towing.points}
        rows: list[list[Cell]] = []
        both = zip(verdict.carrying.stability, verdict.outline.angles[1:], strict=True)
        for n, (s, angles) in enumerate(both, 1):
            bold = "bold" if s.scenario == session.scenario().id else ""
            side = "right" if s.y > 0 else "left"
            rows.append([
                (f"{n}  {s.name}", bold), (mm_of(session, s.x), ""),
                (f"{mm_of(session, abs(s.y))} {side}", ""),
                (mm_of(session, s.height), bold),
                (f"{s.factor:.2f}", "look" if s.factor < least else ""),
                (f"{s.tilt_left:.0f}° / {s.tilt_right:.0f}°", ""), (f"{angles.approach:.0f}°", ""),
                (f"{angles.ramp:.0f}°", ""), (f"{angles.departure:.0f}°", ""),
                (show(round(towed[s.scenario].most), "mass", session.look.system, unit=False), ""),
            ])  # fmt: skip
        return rows
