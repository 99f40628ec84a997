"""The registry of studies: one line each. What needs another's result runs after it."""

from roomy_hull.assembly.study import Study
from roomy_hull.making import judge as making
from roomy_hull.studies.fit import in_out, moving
from roomy_hull.studies.fit import judge as closed
from roomy_hull.studies.loads import budget, scales, spring_options, towing
from roomy_hull.studies.loads import judge as loads
from roomy_hull.studies.outline import judge as outline
from roomy_hull.studies.strength import judge as strength
from roomy_hull.verdict import unknown

STUDIES: tuple[Study, ...] = (
    closed.STUDY,
    moving.STUDY,
    in_out.STUDY,
    loads.STUDY,
    spring_options.STUDY,
    towing.STUDY,
    budget.STUDY,
    strength.STUDY,
    scales.STUDY,
    outline.STUDY,
    making.STUDY,
    unknown.STUDY,
)
"""In the order in which their findings are told."""


def in_turn(studies: tuple[Study, ...] = STUDIES) -> tuple[Study, ...]:
    """Order studies so that each runs after those whose results it needs.

    Parameters
    ----------
    studies : tuple of Study
        Any studies; the order of those that need nothing of each other stays.

    Returns
    -------
    tuple of Study
        The same studies.

    Raises
    ------
    ValueError
        A study needs one that is not there, or two need each other: a fault of the program.
    """
    left, done, order = list(studies), set[str](), list[Study]()
    while left:
        ready = next((s for s in left if done.issuperset(s.needs)), None)
        if ready is None:
            names = ", ".join(f"{s.key} needs {', '.join(s.needs)}" for s in left)
            raise ValueError(f"these studies cannot run: {names}")
        left.remove(ready)
        done.add(ready.key)
        order.append(ready)
    return tuple(order)
