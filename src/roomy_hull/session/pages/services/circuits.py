"""The page Circuits: the single-line plan, and the schedule."""

from roomy_hull.core.primitives import Rect, Scene
from roomy_hull.drawing.scenes import circuits as circuit_scene
from roomy_hull.session.pages.model import PageModel
from roomy_hull.session.pages.services.words import NOTHING, circuit_key
from roomy_hull.tables.column import Cell, cells, heads
from roomy_hull.tables.services import CIRCUITS, circuit_rows


class CircuitsModel(PageModel):
    """Circuits: their plan, and the schedule."""

    heads = heads(CIRCUITS)

    def keys(self) -> list[str]:
        """What each row chooses."""
        s = self._session.job.services
        return [circuit_key(s, c.id) for c in self._session.known.services.circuits]

    def cells(self) -> list[list[Cell]]:
        """Lay the schedule out."""
        verdict, chosen = self._session.known, self._session.look.services.chosen
        services = verdict.job.services
        return cells(
            CIRCUITS, circuit_rows(verdict), lambda r: circuit_key(services, r.one.id) == chosen
        )

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
        name = verdict.assembly.names
        chosen = self._session.look.services.chosen.rpartition(".")[2]
        drawn = circuit_scene.plan(
            verdict.services.circuits, verdict.job.services, name, chosen, aspect
        )
        return (
            f"{verdict.job.name}, {verdict.job.services.volts} V: every line is plus and minus",
            drawn,
        )
