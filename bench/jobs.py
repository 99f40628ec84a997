"""Made-up jobs of a wished size, for benchmarks and tests."""

import random
from pathlib import Path
from typing import Any

import msgspec

from roomy_hull.core.errors import UserError
from roomy_hull.formats import jobfile
from roomy_hull.formats.demo import demo_job
from roomy_hull.job.carried import Carried
from roomy_hull.job.edits import scenarios
from roomy_hull.job.edits import units as edits
from roomy_hull.job.edits.resizing import resized, value_at
from roomy_hull.job.model import Job, Scenario, Weighing
from roomy_hull.kinds.case_rack import CaseRack
from roomy_hull.kinds.drawer import Drawer
from roomy_hull.kinds.fridge import Fridge
from roomy_hull.kinds.placed import Placed
from roomy_hull.kinds.registry import Unit
from roomy_hull.kinds.stack import Stack
from roomy_hull.kit import catalogue as stores


def frozen() -> Job:
    """The first demo as it was when the marks were set: demos grow, and marks are to be held against the same job."""
    return jobfile.load(Path(__file__).parent / "frozen/brackwater.hull.json")


def crowded(units: int, *, gap: float = 3.0) -> Job:
    """The demo vehicle with a number of drawers spread over its three bays.

    Args:
        units: How many, at most 1,000.
        gap: Clear gap between neighbours. [mm]
    Returns: Without conflicts as long as the gap is 3 mm or more.
    """
    demo = frozen()
    canopy = demo.body.canopy
    assert canopy is not None
    open_bays = tuple(
        msgspec.structs.replace(b, margin_start=0.0, margin_top=0.0, sill=0.0) for b in canopy.bays
    )
    across, up = next(
        size for size in ((5, 4), (10, 10), (20, 17)) if units <= 3 * size[0] * size[1]
    )
    if across == 20:  # beyond 300, bays of twice the size of any canopy's
        open_bays = tuple(
            msgspec.structs.replace(b, length=3000.0, height=1600.0) for b in open_bays
        )
    body = msgspec.structs.replace(
        demo.body, canopy=msgspec.structs.replace(canopy, bays=open_bays)
    )
    made = []
    for n in range(units):
        bay, rest = ("L", "R", "B")[n % 3], n // 3
        column, row = rest % across, rest // across
        # A pitch of its own per drawer, so that every place lies on the rail pitch.
        step, high = (275.0, 222.5) if across == 5 else (150.0, 92.5)
        made.append(
            Drawer(
                id=f"d{n}",
                name=f"Drawer {n}",
                bay=bay,
                u=column * step,
                w=row * high,
                width=step - gap,
                depth=380.0,
                carcass=1.5,
                height=high - gap,
                contents=2.0,
            )
        )
    assert across * up * 3 >= units
    return msgspec.structs.replace(demo, body=body, units=tuple(made))


def busy(units: int) -> Job:
    """A job of units with several motions each: racks of four cases, stacks of two, chest fridges.

    Args:
        units: How many, at most 60; at 60 the job has 150 motions, doors and carried things included.
    Returns: The demo vehicle with drop sides; its units stand clear of each other when closed.
    """
    plain = crowded(units)
    made: list[Unit] = []
    for n, d in enumerate(plain.units):
        at: dict[str, Any] = {"id": d.id, "name": f"Unit {n}", "bay": d.bay, "u": d.u, "w": d.w, "width": d.width,
              "depth": d.depth, "height": d.height, "contents": 2.0}  # fmt: skip
        kind = (n // 3 + n) % 3  # every bay gets all three
        if kind == 0:
            made.append(
                CaseRack(**at, case_width=122.0, case_depth=340.0, case_height=98.0, across=2, up=2)
            )
        elif kind == 1:
            made.append(Stack(**at, heights=(109.0, 109.0), carcass=1.5))
        else:
            made.append(Fridge(**at, slide_height=40.0, vent=0.0, lid_gap=0.0))
    tray = msgspec.structs.replace(plain.body.tray, sides=60.0)
    body = msgspec.structs.replace(plain.body, tray=tray)
    return msgspec.structs.replace(plain, body=body, units=tuple(made), sets=(), runs=())


STOCK = ("brackwater", "lowfold", "tarn")
"""The demos that jobs made by chance begin from: each has a canopy or a room of its own to fill."""


def any_job(seed: int) -> Job:
    """A job made by chance from one of the demos: units, things outside, body, scenarios, weighings.

    Args:
        seed: The same seed gives the same job.
    Returns: Valid, though much of it may clash.
    """
    rng = random.Random(seed)  # no secret hangs on it
    job = demo_job(rng.choice(STOCK))
    for n in range(rng.randint(4, 14)):
        try:
            job = _by_chance(job, rng, n)
        except UserError:
            continue
    return msgspec.structs.replace(job, name=f"Made by chance, {seed}")


def _by_chance(job: Job, rng: random.Random, n: int) -> Job:  # ruff: ignore[too-many-return-statements]  # one return for each kind of change
    """Change a job somehow; what cannot be is refused."""
    things: tuple[Placed | Carried, ...] = (*job.units, *job.carried)
    keys = [t.id for t in things]
    what = rng.choice((
        "add",
        "add",
        "move",
        "mirror",
        "size",
        "fill",
        "drop",
        "body",
        "scenario",
        "weigh",
        "carry",
    ))
    key = rng.choice(keys)
    thing = job.thing(key)
    if what == "add":
        made = rng.choice([e.make for e in stores.entries() if not isinstance(e.make, Carried)])
        bays = [b.id for b in job.body.canopy.bays] if job.body.canopy else []
        at = {"u": float(rng.randrange(0, 1200, 25)), "w": float(rng.choice((0, 0, 150, 300)))}
        return edits.added(job, made.but(bay=rng.choice(bays), **at))
    if what == "carry":
        made = rng.choice([e.make for e in stores.entries() if isinstance(e.make, Carried)])
        return edits.added(
            job, made.but(x=float(rng.randint(1000, 5000)), y=float(rng.randint(-900, 900)))
        )
    if what == "move":
        fields = ("x", "z") if isinstance(thing, Carried) else ("u", "w")
        by = {f: getattr(thing, f) + rng.choice((-50.0, 25.0, 40.0, 125.0)) for f in fields[:1]}
        return edits.changed(job, key, **by)
    if what == "mirror":
        return edits.mirrored(job, key)
    if what == "size":
        return edits.changed(job, key, height=thing.height * rng.uniform(0.8, 1.2))  # type: ignore[union-attr]
    if what == "fill":
        return edits.changed(job, key, contents=rng.uniform(0, 90))
    if what == "drop":
        return edits.removed(job, key)
    if what == "body":
        path = rng.choice(("body.tray.length", "body.canopy.height", "body.canopy.length", "vehicle.springs.rear",
                           "body.tray.headboard", "vehicle.kerb.rear"))  # fmt: skip
        return resized(job, path, float(value_at(job, path)) * rng.uniform(0.95, 1.08))
    if what == "scenario":
        one = Scenario(id=f"s{n}", name=f"Chance {n}", people=(80.0,), fuel=rng.random(), water=rng.random(),
                       contents=rng.random(), left_behind=(key,), trailer=1500.0, ball=rng.uniform(50, 150))  # fmt: skip
        return scenarios.added(job, one)
    first = job.scenarios[0].id
    one_read = Weighing(
        id=f"w{n}",
        scenario=first,
        front=1300.0 + rng.random() * 100,
        rear=1500.0 + rng.random() * 200,
    )
    return msgspec.structs.replace(job, weighings=(*job.weighings, one_read))
