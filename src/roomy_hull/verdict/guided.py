"""Guided choices: where practitioners go different ways, what each would do to this job, computed on it."""

from collections.abc import Callable
from typing import NamedTuple

import msgspec

from roomy_hull.core.errors import UserError
from roomy_hull.core.services.bottles import BOTTLES, USUAL_BOTTLE
from roomy_hull.job.edits import units
from roomy_hull.job.model import Job
from roomy_hull.kinds.placed import Placed
from roomy_hull.kinds.registry import kind_of
from roomy_hull.making.ways import both_ways
from roomy_hull.verdict.verdict import Verdict, judge

GAS_KWH = 12.8
"""Heat in a kilogram of propane or butane, gross less what its water takes (common practice). [kWh/kg]"""
FLAME, INDUCTION = 0.45, 0.85
"""What of the heat comes into the pot over a flame, and by induction (common practice)."""
HOB = 2000.0
"""What one induction hob draws at its most (common practice). [W]"""
CELL_KG = 9.0
"""A lithium iron battery of a kilowatt hour (common practice). [kg/kWh]"""
SPARE_BEHIND, SPARE_AHEAD = 150.0, 150.0
"""From the tail, and from the cab's back, to a spare wheel's middle (common practice). [mm]"""


class Fact(NamedTuple):
    """One figure of each way: what it is, in the order of the ways, and which is the better: low, high, or neither."""

    words: str
    values: tuple[float, ...]
    unit: str
    low_is_better: bool | None = True


class Question(NamedTuple):
    """Where two schools differ.

    Attributes:
        key, words: Its own, and what is asked.
        ways: What each does.
        facts: Figures on this job.
        note: What no figure says.
    """

    key: str
    words: str
    ways: tuple[str, ...]
    facts: tuple[Fact, ...]
    note: str


def ask(verdict: Verdict, key: str) -> Question | None:
    """Compute both schools of one question.

    Args:
        verdict: The judged job; what an answer does is judged on variants of it.
        key: One of `ASKED`.
    Returns: None where the job has nothing that it is about, or cannot go one of the ways.
    """
    try:
        return ASKED[key][1](verdict)
    except UserError:
        return None


def questions(verdict: Verdict) -> tuple[Question, ...]:
    """Every question that a job asks, computed; see `ask`."""
    return tuple(q for q in (ask(verdict, key) for key in ASKED) if q is not None)


def _heaviest(verdict: Verdict) -> str:
    return min(verdict.loads.scenarios, key=lambda s: s.payload_left.value).id


def _weighed(verdict: Verdict, *jobs: Job) -> tuple[Fact, ...]:
    """What some variants weigh in the heaviest scenario, and what is found wrong with each."""
    heavy = _heaviest(verdict)
    judged = [verdict if j is verdict.job else judge(j, verdict) for j in jobs]
    rows = [v.loads.scenario(heavy) for v in judged]
    return (
        Fact("All up", tuple(r.gross.value for r in rows), "kg"),
        Fact("Front axle", tuple(r.front.value for r in rows), "kg"),
        Fact("Rear axle", tuple(r.rear.value for r in rows), "kg"),
        Fact("Payload left", tuple(r.payload_left.value for r in rows), "kg", low_is_better=False),
        Fact(
            "Findings to mend", tuple(float(v.count("stop") + v.count("look")) for v in judged), ""
        ),
    )


def _springs(verdict: Verdict) -> Question | None:
    heavy = _heaviest(verdict)
    ways = ("standard", "constant load", "extra leaf", "air")
    try:
        rows = [verdict.springs.row(w, heavy) for w in ways]
    except StopIteration:
        return None
    empty = verdict.springs.kerb_hz
    facts = (
        Fact("Tail low, loaded", tuple(abs(r.stance.tail_low) for r in rows), "mm"),
        Fact("Bounce loaded", tuple(r.rear_hz for r in rows), "Hz", None),
        Fact("Bounce empty", tuple(empty[w] for w in ways), "Hz", None),  # type: ignore[index]  # the options' own words
        Fact("Air for level", tuple(r.stance.pressure for r in rows), "kPa", None),
    )
    return Question(
        "springs",
        "How is the constant load carried?",
        ("standard springs", "constant-load springs", "an extra leaf", "air springs"),
        facts,
        "Heavier springs keep full articulation and are stiff when empty; air is set for load and camp, and bears on "
        "one point of the chassis.",
    )


def _fridge(verdict: Verdict) -> Question | None:
    rows = ((u, kind_of(u).otherwise(u)) for u in verdict.job.units)
    own, other = next(((u, changes) for u, changes in rows if changes), (None, {}))
    if own is None:
        return None
    job = units.changed(verdict.job, own.id, **other)
    pair = (verdict.job, job) if other["style"] == "upright" else (job, verdict.job)
    return Question(
        "fridge",
        f"{own.name}: a chest on a slide, or upright?",
        ("chest on a slide", "upright"),
        _weighed(verdict, *pair),
        "A chest keeps its cold and is dug from above; an upright is like at home, spills its air and wants its "
        "whole door.",
    )


def _doors(verdict: Verdict) -> Question | None:
    canopy = verdict.job.body.canopy
    if canopy is None or canopy.kind != "canopy":
        return None
    sides = [d for d in canopy.doors if d.side != "rear" and d.hinge == "top"]
    if not sides:
        return None

    def with_split(share: float) -> Job:
        doors = tuple(
            msgspec.structs.replace(d, split=d.height * share) if d in sides else d
            for d in canopy.doors
        )
        body = verdict.job.body.but(canopy=canopy.but(doors=doors))
        return msgspec.structs.replace(verdict.job, body=body)

    area = sum(d.length * d.height for d in sides) / 1e6
    facts = (
        *_weighed(verdict, with_split(0.0), with_split(0.4)),
        Fact("Sail of the open leaves", (area, area * 0.6), "m²"),
    )
    return Question(
        "door",
        "Side doors: one flat leaf, or with a half that lets down?",
        ("one flat leaf", "a half lets down"),
        facts,
        "One leaf has one seal and the best access; halves are lighter in the hand and keep dust out.",
    )


def _spare(verdict: Verdict) -> Question | None:
    job = verdict.job
    spares = [c for c in job.carried if c.kind == "spare wheel"]
    if not spares:
        return None
    tail = job.vehicle.cab_back + job.body.tray.gap + job.body.tray.length

    def at(x: float) -> Job:
        found = job
        for one in spares:
            found = units.changed(found, one.id, x=x)
        return found

    ahead = job.vehicle.cab_back + SPARE_AHEAD
    facts = _weighed(verdict, at(ahead), at(tail + SPARE_BEHIND))[1:4]
    return Question(
        "spare",
        "Spare wheels: at the headboard, or on the rear carrier?",
        ("at the headboard", "rear carrier"),
        facts,
        "Ahead the load lies between the axles and is lifted high; behind it is easy to reach. The tyre rests "
        "on a ledge in both.",
    )


def _material(verdict: Verdict) -> Question | None:
    shop = verdict.assembly.shop
    kg, money, hours = [0.0, 0.0], [0.0, 0.0], [0.0, 0.0]
    for thing in verdict.assembly.things:
        if thing.place is None or not isinstance(thing.value, Placed):
            continue
        try:
            rows = both_ways(thing.value, shop, thing.place.bay.pitch, thing.place.bay.side)
        except UserError:
            continue
        for b in rows:
            n = int(b.ply)
            kg[n] += b.kg
            money[n] += b.money
            hours[n] += b.hours
    if not kg[0]:
        return None
    facts = (
        Fact("Mass of the units", tuple(kg), "kg"),
        Fact("Money", tuple(money), "money"),
        Fact("Hours", tuple(hours), "h"),
    )
    return Question(
        "material",
        "Drawers and shelves: folded of metal, or of ply?",
        ("folded of metal", "of ply"),
        facts,
        "Metal stays in shape wet and dry; ply is quiet, warm and made with hand tools.",
    )


def _water(verdict: Verdict) -> Question | None:
    fluids = verdict.services.fluids
    tank = next(iter(fluids.tanks), None) if fluids is not None else None
    if tank is None:
        return None
    day = verdict.services.trip.day_wh if verdict.services.trip is not None else ()
    fed = {c.id: c.thing for c in verdict.job.services.consumers}
    there = {t.id for t in verdict.assembly.doing("pump")}
    pumps = sum(use.wh for use in day if fed.get(use.id) in there)
    facts = (
        Fact(
            "At the tap",
            (tank.pumped or verdict.job.services.uses.pump_flow, 60 * tank.rate),
            "l/min",
            low_is_better=False,
        ),
        Fact("Energy a day", (pumps, 0.0), "Wh"),
    )
    return Question(
        "water",
        f"{tank.name}: by a pump, or by gravity?",
        ("pump and hose", "gravity"),
        facts,
        "A pump gives pressure where it is wanted; gravity has nothing to fail, and wants its tank above the tap.",
    )


def _cooking(verdict: Verdict) -> Question | None:
    job = verdict.job
    uses, trip, people = job.services.uses, job.services.trip, max(1, job.brief.travellers)
    kwh = uses.burner * uses.meal_burns * FLAME
    meals = 2.0
    days = float(len(trip.days)) or job.brief.days
    if not kwh or not days:
        return None
    bottle = next(
        (b for t in verdict.assembly.doing("gas") if (b := t.capabilities.bottle) is not None),
        BOTTLES[USUAL_BOTTLE],
    )
    burnt = kwh * meals / FLAME / GAS_KWH
    electric = kwh * meals / INDUCTION * 1000
    facts = (
        Fact("Taken along for the trip", (bottle.empty + min(bottle.gas, burnt * days), electric / 1000 * CELL_KG), "kg"),
        Fact("Used a day", (burnt * GAS_KWH * 1000, electric), "Wh"),
        Fact(f"From {job.services.volts} V at once", (0.0, HOB / job.services.volts), "A"),
        Fact("Lasts without refill", (bottle.gas / burnt, job.services.usable / electric if electric else 0.0), "days",
             low_is_better=False),
    )  # fmt: skip
    return Question(
        "cooking",
        f"Cooking for {people}: gas, or induction?",
        ("gas", "induction"),
        facts,
        "Gas is light and proven, and wants a sealed locker and a certificate; induction wants a large battery and "
        "an inverter, and no gas is on board.",
    )


def _canopy(verdict: Verdict) -> Question | None:
    canopy, job = verdict.job.body.canopy, verdict.job
    if canopy is None or canopy.kind != "canopy":
        return None
    heavy = _heaviest(verdict)
    off = tuple(
        msgspec.structs.replace(s, canopy=False) if s.id == heavy else s for s in job.scenarios
    )
    bare = judge(msgspec.structs.replace(job, scenarios=off), verdict).loads.scenario(heavy)
    full = verdict.loads.scenario(heavy)
    facts = (
        Fact("Weekday, canopy left at home: may be loaded", (full.payload_left.value, bare.payload_left.value), "kg",
             low_is_better=False),
        Fact("Weekday rear axle", (full.rear.value, bare.rear.value), "kg"),
    )  # fmt: skip
    return Question(
        "canopy",
        "The canopy: for good, or to come off?",
        ("for good", "comes off"),
        facts,
        "One that comes off wants four bolts, legs long enough for the raised vehicle, and every wire on a plug; the "
        "tray then works bare.",
    )


ASKED: dict[str, tuple[str, Callable[[Verdict], Question | None]]] = {
    "springs": ("Springs", _springs), "fridge": ("Fridge", _fridge), "door": ("Side doors", _doors),
    "spare": ("Spare wheels", _spare), "material": ("Metal or ply", _material), "water": ("Water", _water),
    "cooking": ("Cooking", _cooking), "canopy": ("Canopy", _canopy),
}  # fmt: skip
"""Every question by its key: its short name, and what computes it."""
