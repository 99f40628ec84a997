"""Refusing: what cannot be arranged at all is said in words, with the place and the remedy."""

from collections.abc import Sequence

from roomy_hull.core.errors import InputError
from roomy_hull.job.arranging import Arranging
from roomy_hull.job.model import Job
from roomy_hull.kinds.registry import Unit

MOST_UNITS = 40
"""More units than this are not arranged at once."""


def to_place(job: Job, wish: Arranging) -> tuple[Unit, ...]:
    """What is to be placed: what is not pinned, then what is wanted besides.

    Returns: In the order of an instance.
    Raises:
        InputError: There is nothing to arrange, no bay, too many units, a bay that is not there, or wishes that
            contradict each other.
    """
    units = (*(u for u in job.units if u.id not in wish.pinned), *wish.wanted)
    if not job.body.bays():
        raise InputError(
            "there is no bay to arrange things in",
            "arrange",
            "Add a canopy, or a room with a bay, first.",
        )
    if not units:
        raise InputError(
            "there is nothing to arrange", "arrange", "Take things from the stores, or unpin some."
        )
    if len(units) > MOST_UNITS:
        raise InputError(f"{len(units)} units are too many to arrange at once", "arrange",
                         f"Pin some where they are, or leave some out: {MOST_UNITS} can be arranged.")  # fmt: skip
    taken = {u.id for u in job.units} | {c.id for c in job.carried}
    for u in wish.wanted:
        if u.id in taken:
            raise InputError(
                f"the id '{u.id}' is in the layout already",
                u.name,
                "Give the new unit an id of its own.",
            )
    _check_pairs(job, units, wish)
    w = wish.weights
    if wish.own_weights and not any((w.axle, w.balance, w.low, w.reach, w.runs, w.room)):
        raise InputError("every weight is nought, so that any layout is as good as another", "arrange",
                         "Give at least one of them a weight.")  # fmt: skip
    return units


def _check_pairs(job: Job, units: Sequence[Unit], wish: Arranging) -> None:
    """Refuse wishes about bays that are not there, and about pairs that contradict each other.

    A wish about something that is not there any more means nothing.
    """
    ids = {u.id for u in units}
    bays = {b.id for b in job.body.bays()}
    for w in wish.bays:
        if w.thing in ids and not set(w.bays) & bays:
            raise InputError(f"no bay is called {' or '.join(w.bays)}", w.thing,
                             f"Use one of: {', '.join(sorted(bays))}.")  # fmt: skip
    near = [frozenset((n.a, n.b)) for n in wish.near]
    apart = [frozenset((a.a, a.b)) for a in wish.apart]
    for pair in apart:
        if pair in near:
            a, b = sorted(pair)
            raise InputError(
                f"'{a}' and '{b}' are to be near each other and apart",
                "arrange",
                "Drop one of the two.",
            )
