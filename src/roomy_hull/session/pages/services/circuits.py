"""The page Circuits: the single-line plan, and the schedule."""

from roomy_hull.core.primitives import Rect, Scene
from roomy_hull.drawing.scenes import circuits as circuit_scene
from roomy_hull.session.pages.cells import Cell
from roomy_hull.session.pages.model import PageModel
from roomy_hull.session.pages.services.words import NOTHING, circuit_key
from roomy_hull.studies.services.wiring import breaker, short_circuit


class CircuitsModel(PageModel):
    """Circuits: their plan, and the schedule."""

    heads = ("Circuit", "A", "m", "Cable", "Carries", "Fuse", "Drop, V", "%", "Plug at")

    def keys(self) -> list[str]:
        """What each row chooses."""
        s = self._session.job.services
        return [circuit_key(s, c.id) for c in self._session.known.services.circuits]

    def cells(self) -> list[list[Cell]]:
        """Lay the schedule out."""
        verdict = self._session.known
        volts = verdict.job.services.volts
        rows: list[list[Cell]] = []
        for key, c in zip(self.keys(), verdict.services.circuits, strict=True):
            bold = "bold" if key == self._session.look.service else ""
            bad = c.lost(volts) > c.share + 1e-9
            short = short_circuit(c, verdict.job.services)
            fuse = f"{c.fuse:g} {breaker(short)}" if short else f"{c.fuse:g}"
            rows.append([
                (c.name, bold), (f"{c.amps:.1f}", ""), (f"{c.metres:.2f}", ""), (c.section, "stop" if c.trouble else ""),
                (f"{c.ampacity:.0f}", ""), (fuse, "stop" if c.fuse > c.ampacity + 1e-9 else ""),
                (f"{c.drop:.2f}", "look" if bad else ""), (f"{100 * c.lost(volts):.1f}", "look" if bad else ""),
                (", ".join(c.way.plugs) if c.way is not None else "", ""),
            ])  # fmt: skip
        return rows

    def plan(self, aspect: float) -> tuple[str, tuple[Scene, Rect] | None]:
        """Draw the single-line plan."""
        verdict = self._session.known
        if not verdict.services.circuits:
            return (
                NOTHING
                if not verdict.job.services.begun
                else "No circuit: enter a battery, a fuse board and what uses power.",
                None,
            )
        name = {t.id: t.name for t in verdict.assembly.things}
        chosen = self._session.look.service.rpartition(".")[2]
        drawn = circuit_scene.plan(
            verdict.services.circuits, verdict.job.services, name, chosen, aspect
        )
        return (
            f"{verdict.job.name}, {verdict.job.services.volts} V: every line is plus and minus",
            drawn,
        )
