"""The page Runs: every cable, hose and pipe on the vehicle, and how long to cut it."""

from roomy_hull.core.primitives import Rect, Scene
from roomy_hull.drawing.scenes import runs as scene
from roomy_hull.drawing.view import Station
from roomy_hull.session.pages.model import PageModel
from roomy_hull.session.pages.services.words import NOTHING, circuit_key
from roomy_hull.tables.column import Cell


class RunsModel(PageModel):
    """The runs of a job, one chosen."""

    heads = ("", "Run", "m", "Of", "Comes apart")

    def rows(self) -> list[scene.Laid]:
        """Every run as it is drawn. [mm]"""
        verdict = self._session.known
        f = verdict.services.fluids
        return scene.laid(
            verdict.services.circuits, f.runs if f is not None else (), verdict.job.services
        )

    def keys(self) -> list[str]:
        """What each row of the table chooses."""
        s = self._session.job.services
        return [
            circuit_key(s, r.id) if r.sort in ("main", "gives", "uses") else f"runs.{r.id}" for r in self.rows()
        ]  # fmt: skip

    def chosen(self) -> str:
        """Id of the chosen run; empty for none."""
        key = self._session.look.services.chosen
        return (
            next((r.id for r, k in zip(self.rows(), self.keys(), strict=True) if k == key), "")
            if key
            else ""
        )

    def legend(self) -> str:
        """Which letter is what, of those that are laid."""
        used = {r.sort for r in self.rows()}
        return "    ".join(
            f"{letter}: {words}" for key, (letter, words) in scene.SORTS.items() if key in used
        )

    def cells(self) -> list[list[Cell]]:
        """Every run in a row: its letter, its name, its length, of what it is, where it comes apart."""
        verdict, chosen = self._session.known, self.chosen()
        circuits = {c.id: c for c in verdict.services.circuits}
        f = verdict.services.fluids
        hoses = {r.id: r for r in (f.runs if f is not None else ())}
        rows: list[list[Cell]] = []
        for r in self.rows():
            bold = "bold" if r.id == chosen else ""
            one = circuits.get(r.id)
            if one is not None:
                metres, of = one.metres, f"2 × {one.section}"
                plugs = one.way.plugs if one.way is not None else ()
            else:
                hose = hoses[r.id]
                metres, of, plugs = hose.way.metres, f"{hose.bore:g} mm bore", hose.way.plugs
            rows.append([
                (scene.SORTS[r.sort][0], ""), (r.name, bold), (f"{metres:.2f}", ""), (of, ""), (", ".join(plugs), ""),
            ])  # fmt: skip
        return rows

    def _station(self) -> Station:
        station = self._session.look.station
        return station if station in ("left", "right", "rear") else "left"

    def elevation(self, _aspect: float) -> tuple[str, tuple[Scene, Rect] | None]:
        """Draw the runs from where one stands."""
        verdict, rows, chosen = self._session.known, self.rows(), self.chosen()
        if not rows:
            return (NOTHING if not verdict.job.services.begun else "Nothing is laid yet."), None
        one = next((r for r in rows if r.id == chosen), None)
        title = (
            f"Runs from the {self._station()}: choose one in the table" if one is None else one.name
        )
        return title, scene.seen(verdict.assembly, rows, chosen, self._station())

    def slice(self, _aspect: float) -> tuple[str, tuple[Scene, Rect] | None]:
        """Draw the same stretch from above."""
        rows = self.rows()
        if not rows:
            return "", None
        return "The same from above", scene.cut(
            self._session.known.assembly, rows, self.chosen(), self._station()
        )
