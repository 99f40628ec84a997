"""Compare: the variants of a layout side by side, and what an exchange of sides would do."""

import msgspec

from roomy_hull.core.findings import Finding
from roomy_hull.job.edits import layouts
from roomy_hull.job.edits import units as edits
from roomy_hull.job.model import Job
from roomy_hull.kinds.registry import kind_of
from roomy_hull.making.cost import cost
from roomy_hull.verdict.verdict import Verdict, judge


class Column(msgspec.Struct, frozen=True):
    """One layout in figures, in the chosen scenario.

    Attributes:
        id, name: Empty id for the layout in hand.
        units: How many units it has.
        fitted: Mass of units and carried things, empty. [kg]
        gross, front, rear: Mean and one-sigma doubt. [kg]
        payload: Left of the gross rating. [kg]
        balance: Right side less left side. [kg]
        litres: Room for goods. [l]
        price: Parts of units, in the shop's own money.
        stops, looks: Open findings.
        verdict: What it rests on.
    """

    id: str
    name: str
    units: int
    fitted: float
    gross: tuple[float, float]
    front: tuple[float, float]
    rear: tuple[float, float]
    payload: float
    balance: float
    litres: float
    price: float
    stops: int
    looks: int
    verdict: Verdict


def column(verdict: Verdict, scenario: str, key: str = "") -> Column:
    """Put one judged layout in figures.

    Args:
        key: Id of the variant, empty for the layout in hand.
    """
    job, loads = verdict.job, verdict.loads.scenario(scenario)
    parts = [p for t in verdict.assembly.things for p in t.expansion.parts]
    fitted = sum(m.kg for t in verdict.assembly.things for m in t.masses if m.fill.by == "fixed")
    return Column(
        key, job.layout, len(job.units), fitted,
        (loads.gross.value, loads.gross.uncertainty), (loads.front.value, loads.front.uncertainty),
        (loads.rear.value, loads.rear.uncertainty), loads.payload_left.value,
        loads.right.value - loads.left.value, sum(kind_of(u).stored(u) for u in job.units),
        cost(parts, verdict.assembly.shop.prices).total, verdict.count("stop"), verdict.count("look"), verdict,
    )  # fmt: skip


def columns(verdict: Verdict, scenario: str, known: dict[str, Verdict]) -> list[Column]:
    """Put the layout in hand and every variant in figures.

    Args:
        known: Verdicts on variants from an earlier call, by id; brought up to date here.
    Returns: The layout in hand first.
    """
    found = [column(verdict, scenario)]
    for variant in verdict.job.variants:
        job = layouts.as_job(verdict.job, variant)
        before = known.get(variant.id)
        same = before is not None and before.job == job
        known[variant.id] = before if before is not None and same else judge(job, before)
        found.append(column(known[variant.id], scenario, variant.id))
    return found


class Exchange(msgspec.Struct, frozen=True):
    """What would come of moving things to the other side."""

    job: Job
    new: tuple[Finding, ...]
    gone: tuple[Finding, ...]
    balance: float

    @property
    def works(self) -> bool:
        """Whether no new stop would come of it."""
        return not any(f.severity == "stop" for f in self.new)


def other_side(verdict: Verdict, keys: tuple[str, ...], scenario: str) -> Exchange:
    """Try some things, or both whole sides, on the other side.

    Args:
        keys: Ids of units and carried things; none for an exchange of both sides.
    Returns: The job as it would be, the findings that would come and go, and the right side less the left. [kg]
    Raises:
        EditError: A bay has no counterpart.
    """
    job = verdict.job
    if keys:
        for key in keys:
            job = edits.mirrored(job, key)
    else:
        job = layouts.exchanged(job)
    there = judge(job, verdict)
    before = {f.key for f in verdict.findings}
    after = {f.key for f in there.findings}
    loads = there.loads.scenario(scenario)
    return Exchange(
        job,
        tuple(f for f in there.open_findings() if f.key not in before),
        tuple(f for f in verdict.open_findings() if f.key not in after),
        loads.right.value - loads.left.value,
    )
