"""Buying: what a job needs from outside, when it has to be here, by when it has to be ordered, what is on its way."""

from datetime import date
from typing import Any

import msgspec

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.assembly.study import Context
from roomy_hull.core.days import day_of, shifted
from roomy_hull.core.memo import by_identity
from roomy_hull.core.parts import BarPart, Hardware, SheetPart
from roomy_hull.core.wording import counted
from roomy_hull.making.joints import Joined
from roomy_hull.making.works import Works
from roomy_hull.planning.op import Op
from roomy_hull.planning.operations import bought_key, is_made
from roomy_hull.planning.replay import State
from roomy_hull.shop.workshop import LeadDays


class Purchase(msgspec.Struct, frozen=True):
    """Something that has to come from outside.

    Attributes:
        key: Its own, as the log names it.
        words, much: What, and how much of it.
        lead: How long it takes to come. [calendar days]
        ops: Operations that cannot be begun without it.
        ordered, arrives, received: The day on which it was ordered; that on which it is here, or could be if it were
            ordered now; that on which it came.
    """

    key: str
    words: str
    much: str
    lead: float
    ops: tuple[str, ...] = ()
    ordered: date | None = None
    arrives: date | None = None
    received: date | None = None

    @property
    def state(self) -> str:
        """How far it is."""
        if self.received is not None:
            return "here"
        return "ordered" if self.ordered is not None else "to order"

    def order_by(self, needed: date) -> date:
        """The last day on which it can be ordered to be here on another."""
        return shifted(needed, -self.lead)


def purchases(
    context: Context, works: Works, ops: dict[str, Op], state: State, now: date, lead: LeadDays
) -> tuple[Purchase, ...]:
    """List what a job needs from outside.

    Args:
        context: The judged job, with its circuits and runs.
        lead: How long things take to come. [calendar days]
    Returns:
        Metal, bought pieces, bought things, what is carried outside, cable and hose; only what an operation waits
        for.
    """
    rows = (
        _metal(works, lead)
        | _hardware(works, lead)
        | _things(context.assembly, lead)
        | {
            key: (SERVICES[key], much, lead.hardware)
            for key, much in services_amounts(context.results["services"]).items()
        }
    )
    waiting: dict[str, list[str]] = {}
    for op in ops.values():
        for key in op.needs:
            waiting.setdefault(key, []).append(op.key)
    return tuple(
        _known(Purchase(key, words, much, days, tuple(waiting[key])), state, now)
        for key, (words, much, days) in rows.items()
        if key in waiting
    )


Row = dict[str, tuple[str, str, float]]


def _metal(works: Works, lead: LeadDays) -> Row:
    area: dict[str, tuple[str, float]] = {}
    length: dict[str, tuple[str, float]] = {}
    for work in works.works:
        for into, key, words, much in _metal_of(work.pattern):
            rows = area if into == "sheet" else length
            rows[key] = words, rows.get(key, ("", 0.0))[1] + much
    found = {k: (w, f"{a:.2f} m² net", lead.sheet) for k, (w, a) in area.items()}
    return found | {k: (w, f"{m:.1f} m net", lead.bar) for k, (w, m) in length.items()}


@by_identity(1024)
def _metal_of(made: Joined) -> tuple[tuple[str, str, str, float], ...]:
    """Of every cut part: sheet or bar, its key, words, and how much. [m², m]"""
    found = []
    for part in made.parts:
        if isinstance(part, SheetPart):
            words = f"Sheet {part.thickness:g} mm {part.material.key}"
            found.append(("sheet", bought_key(part), words, part.area() * part.count / 1e6))
        elif isinstance(part, BarPart):
            words = f"Bar {part.section} {part.material.key}"
            found.append(("bar", bought_key(part), words, part.length * part.count / 1000))
    return tuple(found)


def _hardware(works: Works, lead: LeadDays) -> Row:
    found: dict[str, tuple[str, int, float]] = {}
    for work in works.works:
        if all(isinstance(p, Hardware) for p in work.parts):
            continue  # a bought thing comes with its own
        for part in work.parts:
            if isinstance(part, Hardware):
                key = bought_key(part)
                name, count, metres = found.get(key, (part.name, 0, 0.0))
                found[key] = name, count + part.count, metres + part.metres * part.count
    return {
        k: (name[:1].upper() + name[1:], f"{metres:.1f} m" if metres else f"{count}", lead.hardware)
        for k, (name, count, metres) in found.items()
    }


def _things(assembly: Assembly, lead: LeadDays) -> Row:
    carried = {c.id for c in assembly.job.carried}
    return {
        f"thing:{t.id}": (t.name, "1", lead.outside if t.id in carried else lead.bought)
        for t in assembly.things
        if not is_made(t)
    } | {
        f"thing:{r.room.id}": (r.room.name, "1", lead.bought)
        for r in assembly.ground.rooms_there
        if not r.room.made and r.mount != "vehicle"
    }


SERVICES = {
    "services:cable": "Cable, fuses and lugs", "services:hose": "Hose and fittings", "services:gas": "Gas pipe and fittings",
}  # fmt: skip


CORES = 2
"""Single cores in every run: there and back."""


def services_amounts(services: Any) -> dict[str, str]:
    """How much of cable, hose and pipe a job takes, as the schedule of circuits and runs says: by what is bought."""
    found: dict[str, str] = {}
    if services.circuits:
        fuses = sum(c.fuse > 0 for c in services.circuits)
        metres = sum(c.metres for c in services.circuits)
        core, open_ = CORES * metres, sum(c.metres == 0 for c in services.circuits)
        found["services:cable"] = (
            f"{metres:.1f} m of run, {core:.1f} m of core, {counted(fuses, 'fuse')}"
            + (f"; {counted(open_, 'circuit')} more of unknown length" if open_ else "")
        )
    runs = services.fluids.runs if services.fluids is not None else ()
    for key, gas in (("services:hose", False), ("services:gas", True)):
        rows = [r.way.metres for r in runs if (r.sort == "gas") == gas]
        if rows:
            found[key] = f"{sum(rows):.1f} m"
    return found


def _known(one: Purchase, state: State, now: date) -> Purchase:
    """What the log says of it; what is not ordered would come as if it were ordered now."""
    got, sent = state.received.get(one.key), state.ordered.get(one.key)
    ordered = day_of(sent.at) if sent is not None else None
    received = day_of(got.at) if got is not None else None
    if received is not None:
        arrives: date | None = received
    elif ordered is not None:
        # What was promised stands in the entry; else the usual time.
        said = day_of(sent.taken) if sent is not None else None
        arrives = max(said or shifted(ordered, one.lead), now)
    else:
        arrives = shifted(now, one.lead)
    return msgspec.structs.replace(one, ordered=ordered, arrives=arrives, received=received)
