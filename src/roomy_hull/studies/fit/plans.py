"""Plans: in which order some openings can be opened so that all stay open, and how many can."""

import msgspec

from roomy_hull.core.graphs import in_order
from roomy_hull.core.refs import Ref
from roomy_hull.studies.fit.together import Meeting, Togetherness


class Plan(msgspec.Struct, frozen=True):
    """How a set of openings can be opened together.

    `order` is empty where they cannot; `extra` are those that have to be opened besides; `conflicts` are
    (x, y or what stays) with their meeting.
    """

    order: tuple[str, ...]
    extra: tuple[str, ...]
    conflicts: tuple[tuple[str, str | Ref, Meeting], ...]
    missing: tuple[str, ...] = ()

    @property
    def holds(self) -> bool:
        """Whether all can be open together."""
        return bool(self.order) and not self.conflicts and not self.missing


def plan(found: Togetherness, members: tuple[str, ...]) -> Plan:  # ruff: ignore[complex-structure, too-many-branches]  # one search with its ways of failing
    """Find an order in which some openings can be opened and all stay open.

    Returns: The order, with what has to be opened besides; or the conflicts.
    """
    known = {o.id for o in found.openings}
    missing = tuple(m for m in members if m not in known)
    needs = found.needs
    wanted = [m for m in members if m in known]
    queue, everything = list(wanted), set(wanted)
    conflicts: list[tuple[str, str | Ref, Meeting]] = []
    while queue:
        x = queue.pop()
        for y in sorted(needs.get(x, ())):
            if y not in everything:
                everything.add(y)
                queue.append(y)
    after: dict[str, set[str]] = {}
    ordered = [o.id for o in found.openings if o.id in everything]
    at = {x: i for i, x in enumerate(ordered)}
    # Those that do not meet are clear of each other.
    met: dict[str, set[int]] = {}
    for pairs in (found.shut, found.opened):
        for x, y in pairs:
            if x in at and y in at:
                first, second = sorted((at[x], at[y]))
                met.setdefault(ordered[first], set()).add(second)
    for x in ordered:
        for name, meeting in found.still.get(x, ()):
            if meeting.clashes:
                conflicts.append((x, name, meeting))
        for y in (ordered[j] for j in sorted(met.get(x, ()))):
            relation = found.relation(x, y)
            if relation == "never":
                worst = found.meeting(x, y)
                if worst is not None:
                    conflicts.append((x, y, worst))
            elif relation == "x first":
                after.setdefault(x, set()).add(y)
            elif relation == "y first":
                after.setdefault(y, set()).add(x)
    order = in_order(ordered, after)
    if order is None and not conflicts:
        pair = next((x, y) for x, ys in after.items() for y in ys)
        worst = found.meeting(*pair)
        if worst is not None:
            conflicts.append((*pair, worst))
    extra = tuple(x for x in ordered if x not in wanted)
    return Plan(tuple(order or ()), extra, tuple(conflicts), missing)


def most_open(found: Togetherness, wished: tuple[str, ...]) -> tuple[str, ...]:
    """As many of some openings as can be open together, taken in their order.

    Args:
        wished: Ids of openings, the most wanted first.
    Returns: Those that hold together, with what they need; what can never open is left out.
    """
    chosen: tuple[str, ...] = ()
    for one in wished:
        if one in chosen:
            continue
        trial = plan(found, (*chosen, one))
        if trial.holds:
            chosen = trial.order
    return chosen
