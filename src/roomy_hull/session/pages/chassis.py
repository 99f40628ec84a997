"""The page Chassis: shear and bending under the vehicle's own picture, and what changes them."""

from roomy_hull.core.primitives import Rect, Scene
from roomy_hull.core.units import show
from roomy_hull.drawing.scenes.loads import chassis_frame, chassis_scene
from roomy_hull.session.session import Session
from roomy_hull.studies.strength.variations import Variation, variations
from roomy_hull.tables.column import Cell


class ChassisModel:
    """Diagrams of every scenario, and what changes the peak of the chosen one."""

    def __init__(self, session: Session) -> None:
        self._session = session
        self._kept: tuple[object, str, tuple[Variation, ...]] = (None, "", ())

    def choose(self, row: int) -> None:
        """Choose the scenario of a row."""
        self._session.view.set(scenario=self._session.job.scenarios[row].id)

    def drawn(self, _aspect: float) -> tuple[str, tuple[Scene, Rect]]:
        """Draw shear and bending under the vehicle, under their title."""
        session = self._session
        verdict, key = session.known, session.look.scenario
        stance = verdict.loads.scenario(key).stance
        scene = chassis_scene(verdict.assembly, verdict.carrying.chassis, key, stance)
        one = verdict.carrying.chassis.diagram(key)
        title = f"{one.name}: {one.ratio:.0%} of the rated payload spread evenly (dashed); the shaded stretch is judged"
        return title, (scene, chassis_frame(verdict.assembly))

    def variations(self) -> tuple[Variation, ...]:
        """Compute what changes the peak of the chosen scenario; kept while the verdict stays."""
        session = self._session
        verdict, one = session.known, session.scenario()
        if self._kept[0] is not verdict or self._kept[1] != one.id:
            self._kept = verdict, one.id, variations(verdict.assembly, verdict.loads, one)
        return self._kept[2]

    def cells(self) -> list[list[Cell]]:
        """Lay the peaks of all scenarios out as a table."""
        session = self._session
        here, rows = session.scenario().id, []
        for d in session.known.carrying.chassis.diagrams:
            over = "look" if d.ratio > 1 else "bold" if d.scenario == here else ""
            row: list[Cell] = [
                (d.name, "bold" if d.scenario == here else ""), (f"{abs(d.peak) / 1e3:,.1f}", over),
                (f"{d.ratio:.0%}", over), (show(d.peak_x, "length", session.look.system, unit=False), ""),
            ]  # fmt: skip
            rows.append(row)
        return rows

    def effects(self) -> list[list[Cell]]:
        """Lay what changes the chosen scenario's peak out as a table."""
        return [
            [(v.words, ""), (f"{abs(v.peak) / 1e3:,.1f}", ""), (f"{v.ratio:.0%}", "look" if v.ratio > 1 else ""),
             (f"{v.axle / 1e3:,.1f}", ""), (f"{v.point / 1e3:,.1f}", "")]
            for v in self.variations()
        ]  # fmt: skip

    def words(self) -> str:
        """Say how the bending is computed, and what it means here."""
        session = self._session
        result = session.known.carrying.chassis
        payload = show(result.payload, "mass", session.look.system)
        words = (
            f"Bending at {result.factor:g} times gravity (a rough road, common practice), against "
            f"{payload} of rated payload spread evenly. "
        )
        chosen = result.diagram(session.scenario().id)
        first = min(p.x for p in chosen.pushes if p.what != "front springs")
        if session.job.vehicle.kind == "wagon":
            words += "A wagon's whole body carries it: for comparison only, nothing is judged."
        elif chosen.peak_x < first:
            words += (
                "The peak lies ahead of the rear springs, so where they bear does not change it; over the axle, and in "
                "one spring's push, it does."
            )
        return words
