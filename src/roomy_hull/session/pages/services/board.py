"""The page Board: a panel seen from the front with its instruments, the depth behind it, what is dragged."""

from roomy_hull.core.primitives import Rect, Scene
from roomy_hull.drawing.scenes import board as scene
from roomy_hull.job.edits.resizing import resized
from roomy_hull.job.model import Job
from roomy_hull.kinds.board import PITCH, Board, Instrument
from roomy_hull.session.pages.model import PageModel
from roomy_hull.tables.column import Cell

NONE = "There is no board yet. Place one from the stores, under Power: its cut-outs are cut with the rest."


class BoardModel(PageModel):
    """The board in hand: the selected one, else the first of the job."""

    heads = ("Instrument", "What", "x", "z", "Hole", "Depth", "Room")

    def board(self) -> Board | None:
        """The board that is shown; none where there is none."""
        job = self._session.sight.job
        own = job.thing(self._session.selection.key)
        if isinstance(own, Board):
            return own
        named = self._session.look.services.chosen.split(".")
        if named[0] == "instruments" and len(named) > 1:
            there = job.thing(named[1])
            if isinstance(there, Board):
                return there
        return next((u for u in job.units if isinstance(u, Board)), None)

    def chosen(self) -> str:
        """Id of the chosen instrument; empty for none."""
        board = self.board()
        head = f"instruments.{board.id}." if board is not None else "-"
        key = self._session.look.services.chosen
        return key.removeprefix(head) if key.startswith(head) else ""

    def key(self, which: str) -> str:
        """What choosing an instrument chooses."""
        board = self.board()
        return f"instruments.{board.id}.{which}" if board is not None and which else ""

    def drawn(self, aspect: float) -> tuple[str, tuple[Scene, Rect] | None]:
        """Draw the board under its title."""
        board = self.board()
        if board is None:
            return NONE, None
        thing = self._session.sight.assembly.thing(board.id)
        wrong = thing.trouble if thing is not None else ""
        title = (
            f"{board.name}: {wrong}"
            if wrong
            else f"{board.name}, {board.width:g} × {board.height:g} mm"
        )
        return title, scene.front(board, self.chosen(), aspect)

    def cells(self) -> list[list[Cell]]:
        """Every instrument in a row."""
        board = self.board()
        if board is None:
            return []
        rows: list[list[Cell]] = []
        for i in board.instruments:
            c, deep = i.cut, i.cut.behind > board.depth
            hole = f"{c.wide:g} × {c.high:g}" if c.high else f"⌀ {c.wide:g}"
            rows.append([
                (i.name or i.id, "bold" if i.id == self.chosen() else ""), (i.what, ""), (f"{i.x:g}", ""), (f"{i.z:g}", ""),
                (hole, ""), (f"{c.behind:g}", "stop" if deep else ""), (f"{board.depth:g}", ""),
            ])  # fmt: skip
        return rows

    def at(self, h: float, k: float) -> str:
        """The instrument at a point of the picture; empty for none. [mm]"""
        board = self.board()
        for i in board.instruments if board is not None else ():
            x0, z0, x1, z1 = i.rim
            if x0 <= h <= x1 and z0 <= k <= z1:
                return i.id
        return ""

    def middle(self, which: str) -> tuple[float, float]:
        """Where an instrument's middle is. [mm]"""
        one = self._one(which)
        return (one.x, one.z) if one is not None else (0.0, 0.0)

    def _one(self, which: str) -> Instrument | None:
        board = self.board()
        return (
            next((i for i in board.instruments if i.id == which), None)
            if board is not None
            else None
        )

    def moved(self, job: Job, which: str, x: float, z: float) -> Job:
        """A job with an instrument moved onto the grid, kept on the panel.

        Args:
            x, z: Where its middle is wanted. [mm]
        """
        board = self.board()
        if board is None:
            return job
        path = f"units.{board.id}.instruments.{which}."
        x = min(max(round(x / PITCH) * PITCH, 0.0), board.width)
        z = min(max(round(z / PITCH) * PITCH, 0.0), board.height)
        return resized(resized(job, path + "x", x), path + "z", z)
