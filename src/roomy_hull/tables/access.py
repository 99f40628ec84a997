"""What is told of lifts, and of goods with the way to them."""

import math
from typing import NamedTuple

from roomy_hull.core.units import System, show
from roomy_hull.core.units import rounded_if_finite as _r
from roomy_hull.job.goods import Good, people
from roomy_hull.studies.access.effort import Effort
from roomy_hull.studies.access.moves import words
from roomy_hull.studies.access.spaces import Space
from roomy_hull.studies.access.stowing import Stowed
from roomy_hull.tables.column import Column
from roomy_hull.verdict.verdict import Verdict


class LiftRow(NamedTuple):
    """A lift, what its person is called, and the units of the screen."""

    one: Effort
    person: str
    system: System = "metric"


def index_words(index: float) -> str:
    """A lifting index in words."""
    return f"{index:.1f}" if math.isfinite(index) else "beyond bounds"


def _strain(row: LiftRow) -> str:
    return "look" if row.one.index > 3 else "note" if row.one.index > 1 else ""


LIFTS: tuple[Column[LiftRow], ...] = (
    Column("What", lambda r: (r.one.name, ""), key="what", value=lambda r: r.one.what),
    Column("Who", lambda r: (r.person, ""), key="person", value=lambda r: r.one.person),
    Column("Mass", lambda r: (show(r.one.kg, "mass", r.system), ""), key="kg", value=lambda r: _r(r.one.kg, 2)),
    Column("Hands out, cm", lambda r: (f"{r.one.out:.0f}" if r.one.out < 1e6 else "no place", ""), key="out_cm",
           value=lambda r: _r(r.one.out, 1)),
    Column("Hands high, cm", lambda r: (f"{r.one.height:.0f}", ""), key="height_cm", value=lambda r: _r(r.one.height, 1)),
    Column("Limit", lambda r: (show(r.one.most, "mass", r.system), ""), key="limit_kg", value=lambda r: _r(r.one.most, 2)),
    Column("Index", lambda r: (index_words(r.one.index), _strain(r)), key="index", value=lambda r: _r(r.one.index, 3)),
)  # fmt: skip
"""Of every lift of every person. [kg, cm]"""


def lift_rows(verdict: Verdict, system: System = "metric") -> list[LiftRow]:
    """Every lift of a job."""
    names = {p.id: p.called for p in people(verdict.job.party)}
    return [LiftRow(e, names.get(e.person, e.person), system) for e in verdict.access.efforts]


class GoodRow(NamedTuple):
    """A good, where it is, its space and its worst lift."""

    good: Good
    stowed: Stowed
    space: Space | None
    worst: float
    how: str

    @property
    def actions(self) -> int | None:
        """The fewest to have it in the hand."""
        way = self.stowed.moves
        return way.count if way is not None and way.possible else None


GOODS: tuple[Column[GoodRow], ...] = (
    Column(key="id", value=lambda r: r.good.id),
    Column(csv="good", key="name", value=lambda r: r.good.name),
    Column(csv="pieces", value=lambda r: r.good.count),
    Column(csv="kg", value=lambda r: round(r.good.kg, 2)),
    Column(key="kg", value=lambda r: _r(r.good.kg, 3)),
    Column(key="place", value=lambda r: r.good.place),
    Column(key="part", value=lambda r: r.good.part),
    Column(csv="wanted", key="use", value=lambda r: r.good.use),
    Column(csv="where", value=lambda r: r.space.name if r.space is not None else r.stowed.where),
    Column(key="where", value=lambda r: r.stowed.where),
    Column(key="space", value=lambda r: r.stowed.space if r.space is not None else None),
    Column(csv="side", value=lambda r: r.space.side if r.space is not None else ""),
    Column(csv="actions", key="actions", value=lambda r: r.actions),
    Column(csv="how", value=lambda r: r.how),
    Column(
        csv="lifting index", value=lambda r: round(r.worst, 2) if 0 < r.worst < math.inf else None
    ),
    Column(key="over_its_class", value=lambda r: r.stowed.over(r.good.use)),
)
"""Of every good, with the way to it. [kg]"""


def good_rows(verdict: Verdict) -> list[GoodRow]:
    """Every good of a job."""
    found, worst = verdict.access, dict[str, float]()
    for e in found.efforts:
        worst[e.what] = max(worst.get(e.what, 0.0), e.index)
    rows = []
    for good, one in zip(verdict.job.goods, found.stowed, strict=True):
        how = (
            "; ".join(words(verdict.assembly, a) for a in one.moves.actions)
            if one.moves is not None
            else ""
        )
        space = found.spaces[one.space] if one.space >= 0 else None
        rows.append(GoodRow(good, one, space, worst.get(good.id, 0.0), how))
    return rows
