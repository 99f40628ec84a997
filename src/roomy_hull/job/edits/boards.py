"""Edits of boards: instruments put on and taken off."""

from roomy_hull.core.errors import EditError
from roomy_hull.job.edits.layouts import slug
from roomy_hull.job.edits.units import changed
from roomy_hull.job.model import Job
from roomy_hull.kinds.board import CUTS, PITCH, Board, Instrument, InstrumentKind

CLEAR = 18.0
"""A first place keeps so far from the edges, for the bend. [mm]"""


def _board(job: Job, key: str) -> Board:
    """The board of an id.

    Raises:
        EditError: It is none.
    """
    unit = job.thing(key)
    if not isinstance(unit, Board):
        raise EditError(
            "there is no board chosen", "Board", "Place one from the stores, under Power."
        )
    return unit


def with_instrument(job: Job, key: str, what: InstrumentKind) -> Job:
    """Put an instrument on a board.

    Returns: With it in the first free place of the grid, from the upper left.
    Raises:
        EditError: There is no board, or no room on it.
    """
    board = _board(job, key)
    taken = {i.id for i in board.instruments}
    name = slug(what, taken)
    wide, high = CUTS[what].rim
    z = board.height - CLEAR - high / 2
    while z >= CLEAR + high / 2 - 1e-6:
        x = CLEAR + wide / 2
        while x <= board.width - CLEAR - wide / 2 + 1e-6:
            new = Instrument(
                id=name, what=what, x=round(x / PITCH) * PITCH, z=round(z / PITCH) * PITCH
            )
            if not any(new.lies_over(one) for one in board.instruments):
                return changed(job, key, instruments=(*board.instruments, new))
            x += PITCH
        z -= PITCH
    raise EditError(
        f"there is no room for a {what}",
        board.name,
        "Move what is there, or make the board larger.",
    )


def without_instrument(job: Job, key: str, which: str) -> Job:
    """Take an instrument off a board.

    Raises:
        EditError: There is no such instrument.
    """
    board = _board(job, key)
    left = tuple(i for i in board.instruments if i.id != which)
    if len(left) == len(board.instruments):
        raise EditError(f"there is no instrument '{which}'", board.name, "Choose one first.")
    return changed(job, key, instruments=left)
