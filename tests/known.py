"""Jobs of bodies × things, and what every stage answers about each thing: nothing that is placed is unknown to one."""

import functools
import itertools
import json
import random
from collections import Counter
from collections.abc import Sequence

import msgspec

from roomy_hull.core.errors import UserError
from roomy_hull.core.parts import Hardware
from roomy_hull.drawing.scenes.solid import items
from roomy_hull.formats.plan_json import plan_json
from roomy_hull.formats.services_tables import services_json
from roomy_hull.formats.verdict_json import verdict_json
from roomy_hull.formats.workshop import built
from roomy_hull.job.carried import Carried
from roomy_hull.job.edits.resizing import resized
from roomy_hull.job.goods import CAB, NATURES, Berth, Dog, Good, Party
from roomy_hull.job.model import Job
from roomy_hull.job.services import Consumer
from roomy_hull.job.setups import SetUp
from roomy_hull.job.trips import Day
from roomy_hull.kinds.kind import Offer
from roomy_hull.kinds.placed import Placed
from roomy_hull.kit import catalogue
from roomy_hull.kit.body import fitting, outfitting
from roomy_hull.making.works import works_of
from roomy_hull.planning.op import owner_key
from roomy_hull.verdict.verdict import Verdict
from tests.builders import begun

BODIES: tuple[tuple[str, str, tuple[str, ...]], ...] = (
    ("dual cab", "full canopy", ("cab rack",)), ("single cab", "short canopy", ("hoop", "rear wall")),
    ("Fen", "bare tray", ("gap rack", "camper", "side box")), ("single cab", "bare tray", ("dog box", "box")),
    ("Sedge", "open tub", ("tub rack",)), ("Sedge", "topper", ("false floor", "hatch", "cab")),
    ("Plover", "cargo area", ("cab rack",)),
)  # fmt: skip
"""A word of a vehicle's name, what is begun on it, and what is added; those that there are not are left out."""
UNDER = ("box ahead left", "box behind right", "trundle", "tank")
CARRIED_AT = ("", "roof", "rack", "cab", "bonnet", "under")


@functools.cache
def bodies() -> tuple[Job, ...]:
    """Every body of the list that can be begun, with all that hangs under a tray where there is one."""
    found = []
    for word, choice, parts in BODIES:
        try:
            job = begun(word, choice)
        except (StopIteration, UserError):
            continue
        for part in parts:
            try:
                job = (
                    resized(job, "body.tray.false_floor", 200.0)
                    if part == "false floor"
                    else outfitting.added(job, part)
                )
            except UserError:
                continue
        for part in UNDER if job.body.tray.kind == "tray" else ():
            try:
                job = fitting.toggled(job, part)
            except UserError:
                continue
        found.append(job)
    return tuple(found)


def places(job: Job) -> list[str]:
    """Where a unit may stand: every bay there is."""
    return [b.id for b in job.body.bays()]


def stocked(job: Job, turn: int, offers: Sequence[Offer] | None = None) -> Job:
    """A job with every entry of the stores, each in the place that comes to it by turns.

    Args:
        turn: By how many places all are moved on; as many turns as there are places try every entry in each.
    """
    bays = places(job)
    units: list[Placed] = []
    carried: list[Carried] = []
    for n, one in enumerate(offers if offers is not None else catalogue.entries()):
        made: Placed | Carried = msgspec.structs.replace(
            one.make, id=f"{one.key}-{n}", name=f"{one.make.name} {n}"
        )
        if isinstance(made, Carried):
            at = CARRIED_AT[(n + turn) % len(CARRIED_AT)]
            racks = [r.id for r in job.body.racks]
            own = (
                {"on_roof": True}
                if at == "roof"
                else {"on": racks[0]}
                if at == "rack" and racks
                else {}
            )
            if at in ("cab", "bonnet", "under"):
                own = {"place": at}
            carried.append(msgspec.structs.replace(made, x=2500.0 + 10 * n, **own))
        elif bays:
            units.append(
                msgspec.structs.replace(
                    made, bay=bays[(n + turn) % len(bays)], u=20.0, v=0.0, w=0.0
                )
            )
    return msgspec.structs.replace(job, units=tuple(units), carried=tuple(carried))


def parted(job: Job) -> Job:
    """A job in two set-ups, in one of which every second thing and the canopy are off."""
    ids = [u.id for u in job.units] + [c.id for c in job.carried]
    off = tuple(ids[::2])
    rows = (SetUp(id="all", name="All"), SetUp(id="less", name="Less", off=off, canopy=False))
    names = itertools.cycle(("all", "less"))
    scenarios = tuple(msgspec.structs.replace(s, setup=next(names)) for s in job.scenarios)
    return msgspec.structs.replace(job, setups=rows, scenarios=scenarios)


WEIGHTLESS = "weighs nothing: it is the vehicle's own, or of cloth"
LIGHT = "weighs a kilogram or less"
OWN = "is made of the body's parts"


def _tells(name: str, part: str) -> bool:
    """Whether something bought is of a thing under the tray, by its name."""
    return name.lower() in part.lower()


def answers(verdict: Verdict) -> dict[str, dict[str, str]]:
    """What every stage says of each thing: by its id, by question; an empty answer is silence."""
    assembly, build = verdict.assembly, built(verdict)
    told = verdict_json(verdict)
    wet = {t["id"] for t in services_json(verdict).get("water", {"tanks": ()})["tanks"]}
    masses: dict[str, float] = {}
    for m in assembly.masses():
        for key in (m.owner.word, m.of):
            masses[key] = masses.get(key, 0.0) + m.kg
    mounts = {c.ref: c for c in verdict.carrying.mounts}
    loose = {r for f in verdict.findings if f.code == "loads.loose" for r in f.subjects}
    works = {w.owner: w for w in works_of(assembly).works}
    bought = {p.key for p in build.buying}
    drawn = {i.tag for i in items(assembly, frozenset())}
    checks = {c.key for c in build.checks}
    found: dict[str, dict[str, str]] = {}
    for t in assembly.everything:
        known, mount, work = t.capabilities, mounts.get(t.ref), works.get(t.owner)
        kg = mount.kg if mount is not None else masses.get(t.id, 0.0)
        made = work is not None and any(not isinstance(p, Hardware) for p in work.parts)
        rows = {
            "weighed": f"{kg:.1f} kg" if kg > 0 else "" if masses.get(t.id) else WEIGHTLESS,
            "held": LIGHT
            if kg <= 1
            else mount.words or ("named" if t.ref in loose else "")
            if mount
            else "",
            "made or bought": "made" if made else "bought" if f"thing:{t.id}" in bought else "",
            "planned": "planned"
            if any(k.startswith(owner_key(t.owner) + ":") for k in build.ops)
            else "",
            "drawn": "drawn"
            if t.id in drawn
            else OWN
            if t.owner == t.ref or t.ref.kind == "tray piece"
            else "",
            "written": "written"
            if any(i["id"] in (t.id, t.owner.word) for i in told["items"]) or not kg
            else "",
        }
        # What it is by its masses and parts, whatever it says of itself.
        own = [m for m in assembly.masses() if m.owner == t.ref or m.of == t.id]
        under = t.ref.kind == "tray piece"
        words = [
            p.name.lower() for p in (work.parts if work is not None else ())
            if isinstance(p, Hardware) and (t.owner == t.ref or (under and _tells(t.name, p.name)))
        ]  # fmt: skip
        opens = [
            m
            for o in verdict.assembly.openings()
            if o.id.replace(":", ".", 1) == t.id
            for m in o.motion.steps
        ]
        bodied = t.ref.kind in ("canopy", "room", "rack")
        if known.vessel is not None or any(m.fill.by == "water" for m in own):
            rows["litres"] = "known" if t.id in wet else ""
            rows["water tested"] = (
                "on the sheet" if {f"pressure:{t.id}", f"filled:{t.id}"} & checks else ""
            )
        if "gas" in known.roles or any(m.label == "gas" for m in own):
            rows["gas tested"] = "on the sheet" if f"gas:{t.id}" in checks else ""
        if t.moves or (under and any(s.verb == "slide" for s in opens)):
            rows["slides"] = "on the sheet" if f"slope:{t.id}" in checks else ""
        if known.sealed or any("seal" in w for w in words if not bodied):
            rows["sealed"] = "on the sheet" if {f"hose:{t.id}", f"paper:{t.id}"} & checks else ""
        if known.locks or any(
            "lock with key" in w or w.startswith(("round lock", "lock for"))
            for w in words
            if not bodied
        ):
            rows["locked"] = "on the sheet" if f"lock:{t.id}" in checks else ""
        if any(w.startswith("bottle strap") for w in words):
            rows["gas known"] = "known" if known.bottle is not None and known.vents else ""
        found[t.id] = rows
    return found


def by_chance(seed: int) -> Job:
    """A job of any body, with things, goods, set-ups, people, dogs and what draws power, as they fall.

    Args:
        seed: The same seed gives the same job.
    """
    rng = random.Random(seed)  # no secret hangs on it
    job = rng.choice(bodies())
    offers = rng.sample(catalogue.entries(), rng.randint(2, 14))
    job = stocked(job, rng.randrange(12), offers)
    holders = [*job.holders(), CAB, ""]
    goods = tuple(
        Good(id=f"g{n}", name=f"Good {n}", mass=rng.choice((0.2, 3.0, 12.0)), place=rng.choice(holders),
             nature=tuple(rng.sample(NATURES, rng.randint(0, 2))))
        for n in range(rng.randint(0, 6))
    )  # fmt: skip
    units = [u.id for u in job.units]
    dogs = tuple(Dog(id=f"d{n}", place=rng.choice(["", *units])) for n in range(rng.randint(0, 2)))
    berths = tuple(
        Berth(id=f"b{n}", thing=rng.choice(["", *holders[:-2]])) for n in range(rng.randint(0, 1))
    )
    consumers = tuple(
        Consumer(id=f"c{n}", name=f"Consumer {n}", thing=rng.choice(["", *units]), watts=rng.choice((5.0, 60.0, 900.0)),
                 mains=rng.random() < 0.2)
        for n in range(rng.randint(0, 4))
    )  # fmt: skip
    days = (Day(showers=1),) * rng.randint(0, 3)
    services = job.services.but(
        consumers=consumers, trip=job.services.trip.but(days=days, people=rng.randint(0, 4))
    )
    job = msgspec.structs.replace(
        job, goods=goods, party=Party(dogs=dogs, berths=berths), services=services
    )
    return parted(job) if rng.random() < 0.5 else job


def contradictions(verdict: Verdict) -> list[str]:
    """Where two stages or two outputs say different things of one job, and where one says nothing."""
    found = [
        f"{key} is not {what}"
        for key, rows in answers(verdict).items()
        for what, said in rows.items()
        if not said
    ]
    build, s, assembly = built(verdict), verdict.services, verdict.assembly
    told = verdict_json(verdict)
    for part in (told, services_json(verdict), plan_json(verdict, build)):
        json.dumps(part, allow_nan=False)
    water = sum(m.kg for m in assembly.masses() if m.fill.by == "water")
    litres = sum(t.holds for t in s.fluids.tanks) if s.fluids is not None else 0.0
    if abs(water - litres) > 1e-6:
        found.append(f"{water} kg of water, {litres} l")
    for c in s.circuits:
        if f"circuit:{c.id}:wire" not in build.ops:
            found.append(f"nobody wires {c.id}")
    runs = s.fluids.runs if s.fluids is not None else ()
    found += [f"nobody lays {r.id}" for r in runs if f"run:{r.id}" not in build.ops]
    ids = {t.id for t in assembly.everything}
    found += [f"{r.id} leads to {end}" for r in runs for end in r.ends if end and end not in ids]
    for worn in verdict.setups:
        left = set(worn.setup.off) & {t.id for t in worn.assembly.everything}
        found += [f"{key} is off in {worn.setup.id} and there" for key in left]
    parts = Counter(p["name"] for p in told["parts"])
    if parts != Counter(p.name for p in works_of(assembly).parts):
        found.append("parts differ")
    return found
