"""Properties of fit-outs: larger bays, mirrored jobs, damaged units of every kind, sampled motions."""

import copy
import json
import math

import msgspec
import pytest
from hypothesis import given
from hypothesis import strategies as st
from tests.builders import context, expand
from tests.core.test_motion import inside

from roomy_hull.assembly.assemble import assemble
from roomy_hull.core.errors import UserError
from roomy_hull.core.geometry.motion import sweep_of
from roomy_hull.formats.demo import demo_job
from roomy_hull.formats.jobfile import dumps, loads
from roomy_hull.formats.verdict_json import verdict_json
from roomy_hull.job.carried import Carried
from roomy_hull.job.edits import layouts
from roomy_hull.job.edits import units as edits
from roomy_hull.job.model import Job
from roomy_hull.kinds.own import Own
from roomy_hull.kit import catalogue as stores
from roomy_hull.studies.fit import together
from roomy_hull.studies.fit.free_space import free_space
from roomy_hull.studies.fit.passage import passage
from roomy_hull.verdict.verdict import judge

DEMO = demo_job()
MADE = [e.make for e in stores.entries()]
UNITS = [m for m in MADE if not isinstance(m, Carried)]
OUTSIDE = [m for m in MADE if isinstance(m, Carried)]
EMPTY = msgspec.structs.replace(DEMO, units=(), carried=(), sets=(), runs=())
WRONG = (0, -1, 0.001, 37.0, 9999, 1e9, math.inf, "", "left", None, True, [], {}, "back", "chest")  # type: ignore[var-annotated]


def with_bay(job: Job, key: str, **grown: float) -> Job:
    """A job with one bay of other sizes."""
    canopy = job.body.canopy
    assert canopy is not None
    bays = tuple(
        b.but(**{n: getattr(b, n) + by for n, by in grown.items()}) if b.id == key else b
        for b in canopy.bays
    )
    body = msgspec.structs.replace(job.body, canopy=msgspec.structs.replace(canopy, bays=bays))
    return msgspec.structs.replace(job, body=body)


def flaws(job: Job, key: str) -> set[str]:
    """The codes of a unit's own fit findings."""
    return {
        f.code for f in judge(job).findings if f.words[:1] == (key,) and f.code.startswith("fit")
    }


@given(
    st.sampled_from(UNITS),
    st.floats(0, 300),
    st.floats(0, 200),
    st.floats(0, 200),
    st.integers(0, 40),
    st.floats(0, 500),
)
def test_a_unit_that_fits_still_fits_in_a_larger_bay(
    made: object, longer: float, deeper: float, higher: float, n: int, w: float
) -> None:
    unit = made.but(id="u", bay="R", u=25.0 * n, w=w)  # type: ignore[attr-defined]
    small = edits.added(EMPTY, unit)
    large = with_bay(small, "R", length=longer, depth=deeper, height=higher)
    before = flaws(small, "u")
    # What stands outside of its bay is not asked for opening and body as well.
    if not any(code.startswith("fit.outside") for code in before):
        assert flaws(large, "u") <= before


@given(st.sampled_from(UNITS), st.floats(0, 300), st.floats(0, 200))
def test_free_places_of_a_larger_bay_hold_those_of_a_smaller(
    made: object, longer: float, higher: float
) -> None:
    spaces = []
    for job in (EMPTY, with_bay(EMPTY, "R", length=longer, height=higher)):
        assembly = assemble(edits.added(job, made.but(id="u", bay="R")))  # type: ignore[attr-defined]
        thing = assembly.thing("u")
        assert thing is not None
        assert thing.place is not None
        spaces.append(free_space(assembly, thing, thing.place))
    small, large = spaces
    for cell in small.cells():
        assert large.allows(cell[0], cell[1])
        assert large.allows(cell[2], cell[3])


@given(
    st.tuples(*[st.floats(100, 900)] * 3), st.tuples(*[st.floats(300, 1200)] * 3),
    st.floats(100, 1200), st.floats(100, 1200), st.floats(0, 150),
)  # fmt: skip
def test_a_larger_opening_never_refuses_what_a_smaller_lets_through(
    size: tuple[float, ...], bay: tuple[float, ...], wide: float, high: float, more: float
) -> None:
    wide, high = min(wide, bay[0]), min(high, bay[2])
    rank = {"not": 0, "turned": 1, "tilted": 1, "upright": 2}
    small = passage(size, bay, (0.0, 0.0, wide, high))
    large = passage(size, bay, (0.0, 0.0, min(wide + more, bay[0]), min(high + more, bay[2])))
    if small.how != "not":
        assert large.how != "not"
    assert rank[small.how] < 2 or large.how == "upright"


@given(st.sampled_from([u for u in UNITS if expand(u, 25.0).motions]), st.data())
def test_every_sampled_pose_of_every_kind_lies_in_its_sweep(
    unit: object, data: st.DataObject
) -> None:
    from sampling import poses

    motion = data.draw(st.sampled_from(expand(unit, 25.0).motions))  # type: ignore[arg-type]
    moments = poses(motion, 9)
    swept = sweep_of(motion).swept
    for row in data.draw(st.sampled_from(moments)):
        points, moves = row
        if not moves:
            continue
        for share in ((0, 0, 0), (1, 0, 0), (0, 1, 0), (0, 0, 1), (1, 1, 1), (0.5, 0.5, 0.5)):
            p = points[0] + sum(s * (points[n + 1] - points[0]) for n, s in enumerate(share))
            assert any(holds(piece, p) for piece in swept)


def holds(piece: object, p: object) -> bool:
    """Say whether a point lies in a prism."""
    a, b = {0: (1, 2), 1: (0, 2), 2: (0, 1)}[piece.axis]  # type: ignore[attr-defined]
    along = piece.lo - 1e-6 <= p[piece.axis] <= piece.hi + 1e-6  # type: ignore[attr-defined,index]
    return along and inside(piece.ring, (p[a], p[b]), 1e-3)  # type: ignore[attr-defined,index]


def test_a_mirrored_job_has_the_mirrored_table() -> None:
    mirrored = layouts.exchanged(msgspec.structs.replace(DEMO, carried=(), sets=(), runs=()))
    plain = together.study(
        context(assemble(msgspec.structs.replace(DEMO, carried=(), sets=(), runs=())))
    )
    other = together.study(context(assemble(mirrored)))
    doors = {"door:left": "door:right", "door:right": "door:left"}
    # The bought fridge stays the same article, so its lid turns the other way; all else is an image.
    keys = [o.id for o in plain.openings if o.id != "sample-fridge"]
    for x in keys:
        for y in keys:
            if x != y:
                there = other.relation(doors.get(x, x), doors.get(y, y))
                assert there == plain.relation(x, y), (x, y)


@given(st.sampled_from(MADE), st.data())
def test_a_damaged_unit_of_any_kind_is_judged_or_refused_in_words(
    made: object, data: st.DataObject
) -> None:
    thing = made.but(id="odd") if isinstance(made, Carried) else made.but(id="odd", bay="L")  # type: ignore[attr-defined]
    raw = json.loads(dumps(edits.added(DEMO, thing)))
    mine = next(t for t in (*raw["units"], *raw["carried"]) if t["id"] == "odd")
    for _ in range(data.draw(st.integers(1, 3))):
        name = data.draw(st.sampled_from([k for k in mine if k not in ("id", "kind")]))
        value = data.draw(st.sampled_from(WRONG))
        old = mine[name]
        mine[name] = (
            old * value
            if isinstance(old, float) and isinstance(value, float)
            else copy.deepcopy(value)
        )
    text = json.dumps(raw).replace("Infinity", "1e999")
    try:
        verdict = judge(loads(text.encode(), "odd.hull.json"))
    except UserError as trouble:
        words = str(trouble)
    else:
        words = f"odd.hull.json {json.dumps(verdict_json(verdict), allow_nan=False)}"
    assert "odd.hull.json" in words
    assert "Traceback" not in words


@pytest.mark.parametrize("item", OUTSIDE, ids=lambda i: i.name)
def test_what_hangs_outside_is_mirrored_with_its_way(item: Carried) -> None:
    one = edits.added(EMPTY, item.but(id="x", y=-1100.0))
    other = edits.mirrored(one, "x")
    a, b = (assemble(job).thing("x") for job in (one, other))
    assert a is not None
    assert b is not None
    for p, q in zip(a.openings, b.openings, strict=True):
        assert p.swept_box.y0 == pytest.approx(-q.swept_box.y1)
        assert p.swept_box.y1 == pytest.approx(-q.swept_box.y0)
        assert (p.swept_box.x0, p.swept_box.z1) == (
            pytest.approx(q.swept_box.x0),
            pytest.approx(q.swept_box.z1),
        )


def test_a_dogs_compartment_wants_air() -> None:
    crate = stores.entry("compartment").make.but(id="dog", bay="L")
    for vents, told in ((600.0, False), (120.0, True)):
        found = [
            f
            for f in judge(edits.added(EMPTY, crate.but(vents=vents))).findings
            if f.code == "fit.air"
        ]
        assert bool(found) == told
        if told:
            assert (found[0].measured, found[0].limit, found[0].unit) == (120, 500, "cm²")
    assert not [
        f
        for f in judge(edits.added(EMPTY, crate.but(vents=120.0, use="crew"))).findings
        if f.code == "fit.air"
    ]


def test_a_motion_that_cannot_be_is_told_on_its_unit() -> None:
    unit = next(u for u in UNITS if isinstance(u, Own))
    block = unit.blocks[0].but(moves=True)
    job = edits.added(EMPTY, unit.but(id="own", bay="L", blocks=(block,), travel=200.0, turn=90.0))
    assert assemble(job).opening("own") is not None
    assert not [f for f in judge(job).findings if f.code == "fit.unit"]
