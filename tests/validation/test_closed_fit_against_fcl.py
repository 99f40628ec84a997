"""Closed fit against FCL, and against the canopy built once more from its plain figures: 20,000 pairs and more.

Bodies and units are drawn by chance. Two units overlap where FCL (python-fcl 0.7) says that their boxes do; a unit
stands in a wall, roof or divider where a cell of it does, cell by cell between all planes there are. None may be
missed that is deeper than half a millimetre, none invented.
"""

import itertools
import random

import fcl
import msgspec
import numpy as np
import numpy.typing as npt
import pytest
from tests.builders import bare, canopy_of, context

from roomy_hull.assembly.assemble import Assembly, assemble
from roomy_hull.core.geometry.solids import Box
from roomy_hull.formats.demo import demo_job
from roomy_hull.job.canopy import Bay, Canopy, Door
from roomy_hull.job.model import Job
from roomy_hull.kinds.own import Block, Own
from roomy_hull.studies.fit import closed

DEMO = demo_job()
FINE = 0.5
"""Deeper than this must be found. [mm]"""
JOBS = 80


def own_unit(rng: random.Random, n: int, canopy: Canopy) -> Own:
    """A unit of one to three boxes, with notches and hollows, anywhere in its bay and a little beyond."""
    w, d, h = rng.randint(60, 500), rng.randint(60, 500), rng.randint(60, 450)
    blocks = [Block(u=0, v=0, w=0, width=w, depth=d, height=rng.choice((h, h * 0.5)))]
    for _ in range(rng.randint(0, 2)):
        a, b, c = rng.uniform(0.2, 0.9) * w, rng.uniform(0.2, 0.9) * d, rng.uniform(0.2, 0.9) * h
        blocks.append(Block(u=rng.uniform(0, w - a), v=rng.uniform(0, d - b), w=rng.uniform(0, h - c),
                            width=a, depth=b, height=c))  # fmt: skip
    moves = rng.random() < 0.5
    blocks = [b.but(moves=moves) for b in blocks]
    return Own(
        id=f"u{n}", name=f"U{n}", bay="L", u=rng.uniform(0, canopy.length - w), v=rng.uniform(0, 500),
        w=rng.uniform(0, canopy.height - h), width=w, depth=d, height=h, blocks=tuple(blocks),
        travel=300.0 if moves else 0.0,
    )  # fmt: skip


def job_of(seed: int) -> Job:
    rng = random.Random(seed)
    length, width, height = rng.randint(1200, 2400), rng.randint(1400, 2000), rng.randint(700, 1100)
    wall, roof = rng.choice((25.0, 35.0, 45.0)), rng.choice((25.0, 40.0))
    gap, sill = rng.randint(60, 200), rng.choice((0, 30, 60))
    half = (length - 2 * wall - gap) / 2 - 40
    door = Door(
        id="a",
        side="left",
        start=wall + 30,
        length=half,
        sill=sill,
        height=height - roof - sill - rng.randint(20, 120),
    )
    doors = (door, door.but(id="b", start=wall + 30 + half + gap))
    bays = (
        Bay(id="L", name="L", side="left", start=0, length=length - 2 * wall, depth=width - 2 * wall, height=height - roof,
            pitch=0),
        Bay(id="R", name="R", side="right", start=0, length=length - 2 * wall, depth=200, height=height - roof, pitch=0),
    )  # fmt: skip
    canopy = Canopy(length=length, width=width, height=height, wall=wall, roof=roof, doors=doors, bays=bays,
                    divider=rng.choice((0.0, 2.0, 12.0)), insulation=rng.choice((0.0, 50.0)))  # fmt: skip
    units = tuple(own_unit(rng, n, canopy) for n in range(24))
    body = DEMO.body.but(canopy=canopy, tray=DEMO.body.tray.but(length=length + 50))
    return msgspec.structs.replace(bare(DEMO), body=body, units=units)


def material(
    job: Job, outside: Box, at: npt.NDArray[np.float64], *, shut: bool
) -> npt.NDArray[np.bool_]:
    """Where the canopy is of metal or foam, from its plain figures: lap 15, gap 5, a leaf's depth 27 (22 in a thin wall)."""
    c = job.body.canopy
    assert c is not None
    x, y, z = (at - np.array(outside[:3])).T
    inner = (x > c.wall) & (x < c.length - c.wall) & (y > c.wall) & (y < c.width - c.wall)
    hung = max(c.roof, c.insulation + c.skin if c.insulation else 0.0, 27.0)
    wall = ~inner & (z < c.height - c.roof)
    deep = 27.0 if c.wall >= 30 else 22.0
    for d in c.doors:
        along = (x > d.start) & (x < d.start + d.length) & (z > d.sill) & (z < d.sill + d.height)
        low = max(d.sill - 15.0, 5.0) - 5.0
        high = min(d.sill + d.height + 15, c.height - c.roof - 5) + 5
        rebate = (x > d.start - 20) & (x < d.start + d.length + 20) & (z > low) & (z < high)
        wall &= ~((y < c.wall) & along) & ~((y < deep) & rebate)
    found = wall | (z > c.height - hung)
    # Two lock cases on each leaf's inside, 110 along, 80 up, 8 deep, 40 from its edges.
    for d in c.doors if shut else ():
        a0, a1, low = d.start - 15, d.start + d.length + 15, max(d.sill - 15.0, 5.0) + 40
        for a in (a0 + 40, a1 - 150):
            found |= (
                (x > a) & (x < a + 110) & (z > low) & (z < low + 80) & (y > deep) & (y < deep + 8)
            )
    if c.divider:
        found |= (
            (abs(y - c.width / 2) < c.divider / 2)
            & (x > c.wall)
            & (x < c.length - c.wall)
            & (z < c.height - c.roof)
        )
    return found & (x > 0) & (x < c.length) & (y > 0) & (y < c.width) & (z > 0) & (z < c.height)


def cells(job: Job, outside: Box, box: Box, *, shut: bool = True) -> bool:
    """Whether a box holds a cell of the canopy's material larger than half a millimetre each way."""
    c = job.body.canopy
    assert c is not None
    hung = max(c.roof, c.insulation + c.skin if c.insulation else 0.0, 27.0)
    deep = 27.0 if c.wall >= 30 else 22.0
    planes = [
        [0, c.wall, c.length - c.wall, c.length,
         *(e for d in c.doors for e in (d.start, d.start + d.length, d.start - 20, d.start + d.length + 20,
                                        d.start + 25, d.start + 135, d.start + d.length - 135, d.start + d.length - 25))],
        [0, deep, deep + 8, c.wall, c.width / 2 - c.divider / 2, c.width / 2 + c.divider / 2, c.width - c.wall, c.width],
        [0, c.height - hung, c.height - c.roof, c.height,
         *(e for d in c.doors for e in (d.sill, d.sill + d.height, max(d.sill - 15.0, 5.0) - 5,
                                        min(d.sill + d.height + 15, c.height - c.roof - 5) + 5,
                                        max(d.sill - 15.0, 5.0) + 40, max(d.sill - 15.0, 5.0) + 120))],
    ]  # fmt: skip
    marks = []
    for axis in range(3):
        inside = sorted({
            p + outside[axis] for p in planes[axis] if box[axis] < p + outside[axis] < box[axis + 3]
        })
        marks.append(np.array([box[axis], *inside, box[axis + 3]]))
    wide = [np.diff(m) > FINE for m in marks]
    middle = [((m[:-1] + m[1:]) / 2)[w] for m, w in zip(marks, wide, strict=True)]
    grid = np.stack([g.ravel() for g in np.meshgrid(*middle, indexing="ij")], axis=1)
    return bool(len(grid) and material(job, outside, grid, shut=shut).any())


def shapes(assembly: Assembly, by: float) -> list[list[fcl.CollisionObject]]:
    """Every unit's boxes for FCL, smaller all round. [mm]"""
    found = []
    for thing in assembly.things:
        row = []
        for s in thing.solids:
            a, b, c = s.size()
            box = fcl.Box(a - 2 * by, b - 2 * by, c - 2 * by)
            row.append(fcl.CollisionObject(box, fcl.Transform(np.array(s.centre()))))
        found.append(row)
    return found


@pytest.mark.parametrize("first", range(0, JOBS, 20))
def test_no_overlap_is_missed_and_none_invented(first: int) -> None:
    asked = met = stood = 0
    for seed in range(first, first + 20):
        job = job_of(seed)
        assembly = assemble(job, opens=False)
        outside = assembly.ground.canopy
        assert outside is not None
        result = closed.study(context(assembly))
        told = {k for k, flaws in result.pairs.items() if any(f.kind == "overlap" for f in flaws)}
        deep, wide = shapes(assembly, FINE / 2), shapes(assembly, -FINE / 2)
        for i, j in itertools.combinations(range(len(assembly.things)), 2):
            asked += 1
            key = (assembly.things[i].id, assembly.things[j].id)
            if _collide(deep[i], deep[j]):
                met += 1
                assert key in told, (seed, key)
            elif key in told:
                assert _collide(wide[i], wide[j]), (seed, key)
        for thing in assembly.things:
            flaws = result.alone.get(thing.id, ())
            if any(f.kind == "outside" for f in flaws):
                continue
            asked += 1
            expected = any(cells(job, outside, s) for s in thing.solids)
            stood += expected
            _agree([f.amount for f in flaws if f.kind == "body"], expected, (seed, thing.id))
            if thing.moves:
                wall = canopy_of(job).wall
                way = thing.envelope._replace(y0=outside.y0 - 1, y1=outside.y0 + wall)
                behind = [f.amount for f in flaws if f.kind == "opening"]
                _agree(behind, cells(job, outside, way, shut=False), (seed, thing.id))
    assert asked > 5400
    assert met > 500
    assert stood > 20


def _agree(told: list[float], expected: bool, where: object) -> None:
    """What is expected is told; what is told and not expected is less than can be asked for."""
    assert told or not expected, where
    assert expected or all(amount <= FINE for amount in told), where


def _collide(some: list[fcl.CollisionObject], others: list[fcl.CollisionObject]) -> bool:
    request = fcl.CollisionRequest()
    return any(fcl.collide(a, b, request, fcl.CollisionResult()) > 0 for a in some for b in others)
