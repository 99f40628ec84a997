"""What is told of operations, of what is bought and of checks."""

from datetime import date
from typing import NamedTuple

from roomy_hull.core.days import day_of, spoken
from roomy_hull.job.logs import Entry
from roomy_hull.planning.buying import Purchase
from roomy_hull.planning.checklist import Check
from roomy_hull.planning.judge import names_of, needed
from roomy_hull.planning.op import Op
from roomy_hull.planning.placing import Placed
from roomy_hull.planning.plan import Build
from roomy_hull.shop.workshop import Workshop
from roomy_hull.tables.column import Column


def said(day: str | date | None) -> str:
    """A day as people say it; the words themselves where they are none."""
    found = day_of(day) if isinstance(day, str) else day
    return spoken(found) if found is not None else str(day or "")


def _iso(day: date | None) -> str | None:
    return day.isoformat() if day is not None else None


class BuyRow(NamedTuple):
    """Something that comes from outside, when it is wanted and by when to order it, and whether a plan is begun."""

    one: Purchase
    wanted: date | None
    order_by: date | None
    now: date
    begun: bool

    @property
    def late(self) -> str:
        """Whether it ought to have been ordered."""
        over = (
            self.one.state == "to order" and self.order_by is not None and self.order_by <= self.now
        )
        return "look" if over and self.begun else ""

    def told(self, day: date | None, *states: str) -> str:
        """A day, where a plan is begun and it is so far."""
        return said(day) if self.begun and self.one.state in states else ""


BUYING: tuple[Column[BuyRow], ...] = (
    Column(key="key", value=lambda r: r.one.key),
    Column("What", csv="what", key="words", value=lambda r: r.one.words),
    Column("How much", csv="how much", key="much", value=lambda r: r.one.much),
    Column("How far", lambda r: (r.one.state, r.late), csv="state", key="state", value=lambda r: r.one.state),
    Column("Wanted", lambda r: (r.told(r.wanted, "to order", "ordered"), ""), csv="wanted", key="wanted",
           value=lambda r: _iso(r.wanted)),
    Column("Order by", lambda r: (r.told(r.order_by, "to order"), r.late), csv="order by", key="order_by",
           value=lambda r: _iso(r.order_by)),
    Column("Here on", lambda r: (r.told(r.one.arrives, "to order", "ordered", "here"), ""), csv="here on", key="here",
           value=lambda r: _iso(r.one.arrives)),
    Column(csv="key", value=lambda r: r.one.key),
)  # fmt: skip
"""Of everything that comes from outside."""


def buy_rows(build: Build, *, begun: bool = True) -> list[BuyRow]:
    """Everything that comes from outside."""
    found = []
    for one in build.buying:
        need = needed(build, one)
        found.append(
            BuyRow(one, need, one.order_by(need) if need is not None else None, build.now, begun)
        )
    return found


class CheckRow(NamedTuple):
    """A check, and its last result."""

    one: Check
    entry: Entry | None

    @property
    def measured(self) -> str:
        """What was found, in words."""
        e = self.entry
        if e is None:
            return ""
        unit = f" {self.one.unit}" if self.one.unit and e.figures else ""
        return (
            ", ".join(f"{x:g}" for x in e.figures) + unit + (f" {e.words}" if e.words else "")
        ).strip()

    @property
    def result(self) -> str:
        """How it came out."""
        return (self.entry.result if self.entry is not None else "") or "to do"


_WEIGHT = {"failed": "stop", "later": "note", "done": ""}
CHECKS: tuple[Column[CheckRow], ...] = (
    Column("Sheet", value=lambda r: r.one.group),
    Column("What", value=lambda r: r.one.words),
    Column("Expected", value=lambda r: r.one.expect),
    Column("Measured", value=lambda r: r.measured),
    Column("Result", lambda r: (r.result, _WEIGHT.get(r.result, "look"))),
    Column("By", value=lambda r: r.entry.by if r.entry is not None else ""),
    Column("On", value=lambda r: r.entry.at[:10] if r.entry is not None else ""),
    Column(key="key", value=lambda r: r.one.key),
    Column(key="sheet", value=lambda r: r.one.group),
    Column(key="words", value=lambda r: r.one.words),
    Column(key="expect", value=lambda r: r.one.expect),
    Column(key="result", value=lambda r: r.entry.result if r.entry is not None else ""),
)
"""Of every check."""


def check_rows(build: Build) -> list[CheckRow]:
    """Every check of a job."""
    return [CheckRow(c, build.state.checks.get(c.key)) for c in build.checks]


class OpRow(NamedTuple):
    """An operation in its plan, its place in it where it has one, and what people and stations are called."""

    build: Build
    key: str
    names: dict[str, str]

    @property
    def one(self) -> Op:
        """What is done."""
        return self.build.ops[self.key]

    @property
    def placed(self) -> Placed | None:
        """Who does it when."""
        return self.build.levelled.placed.get(self.key)

    @property
    def slack(self) -> float | None:
        """How long it can be put off. [h]"""
        return self.build.times[self.key].slack / 60 if self.placed is not None else None


OPERATIONS: tuple[Column[OpRow], ...] = (
    Column(key="key", value=lambda r: r.key),
    Column(csv="operation", key="words", value=lambda r: r.one.words),
    Column(csv="what", key="kind", value=lambda r: r.one.kind),
    Column(key="hours", value=lambda r: round(r.build.hours[r.key], 3)),
    Column(csv="how much", key="much", value=lambda r: r.one.much),
    Column(csv="hours", value=lambda r: round(r.build.hours[r.key], 2)),
    Column(key="trade", value=lambda r: r.one.trade),
    Column(key="station", value=lambda r: r.one.station),
    Column(key="after", value=lambda r: list(r.one.after)),
    Column(key="crew", value=lambda r: r.one.crew),
    Column(key="days", value=lambda r: r.one.days),
    Column(key="worked", value=lambda r: round(r.build.state.hours.get(r.key, 0.0), 3)),
    Column(key="done", value=lambda r: r.build.state.done.get(r.key)),
    Column(
        csv="who",
        value=lambda r: (
            ", ".join(r.names.get(p, p) for p in r.placed.people) if r.placed is not None else ""
        ),
    ),
    Column(csv="where", value=lambda r: r.names.get(r.one.station, "")),
    Column(
        csv="from",
        value=lambda r: _iso(r.build.begins(r.key).day) if r.placed is not None else None,
    ),
    Column(
        csv="to", value=lambda r: _iso(r.build.ends(r.key).day) if r.placed is not None else None
    ),
    Column(csv="slack h", value=lambda r: round(r.slack, 1) if r.slack is not None else None),
    Column(csv="done", value=lambda r: r.build.state.done.get(r.key)),
)
"""Of every operation. [h]"""


def op_rows(build: Build, shop: Workshop) -> list[OpRow]:
    """Every operation by when it begins; what is done stands first."""
    names = names_of(shop)
    return [OpRow(build, key, names) for key in build.finished + build.levelled.order]
