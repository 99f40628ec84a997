"""Fit, ways in and what can be tried, once more in plain terms and by reference libraries."""

import itertools
import math

import msgspec
import numpy as np
import pytest
import scipy.ndimage
import shapely
from hypothesis import given, settings
from hypothesis import strategies as st
from tests.builders import canopy_of, context, with_canopy
from tests.sweeping import examples

from jobs import any_job
from roomy_hull.assembly.assemble import assemble
from roomy_hull.assembly.motions import closely
from roomy_hull.core.geometry.gaps import apart, clash, nearest
from roomy_hull.core.geometry.solids import Box, hull
from roomy_hull.core.refs import Ref
from roomy_hull.formats.demo import demo_job
from roomy_hull.job.edits import units as edits
from roomy_hull.job.model import Job, Move, RunThrough
from roomy_hull.studies.fit import in_out, mending, together
from roomy_hull.studies.fit import passage as passage_module
from roomy_hull.studies.fit.free_space import FreeSpace
from roomy_hull.studies.fit.run_through import play
from roomy_hull.verdict.verdict import Verdict, fixes, judge


def test_what_turns_keeps_its_gap_to_all_that_is_fixed_but_the_ground(demo: Job) -> None:
    # Things outside are moved about until they pass near to many a piece: each such is told, nearness and all.
    met: set[str] = set()
    for key, by in (
        ("shower", {"y": -75.0}), ("shower", {"y": 0.0}), ("jerry-1", {"x": -645.0, "z": -80.0})
    ):  # fmt: skip
        changes = {field: getattr(demo.thing(key), field) + step for field, step in by.items()}
        assembly = assemble(edits.changed(demo, key, **changes))
        told = together.study(context(assembly)).still
        wanted = assembly.shop.rules.moving_gap
        for x in (o for o in assembly.openings() if o.owner == key and o.turns):
            rows = dict(told.get(x.id, ()))
            for ref, group in itertools.groupby(assembly.ground.fixed, key=lambda f: f.ref):
                fixed, pieces = (
                    next(group),
                    tuple(f.piece for f in assembly.ground.fixed if f.ref == ref),
                )
                gap = nearest(closely(x.motion, x.where), pieces, wanted)[0]
                rest = min(apart(p, q, wanted) for p in x.rest for q in pieces)
                if fixed.role == "ground":
                    assert (fixed.ref in rows) == clash(gap)
                elif 0.0 <= gap < min(wanted, rest - 0.5):
                    met.add(fixed.role)
                    assert gap - together.ALLOWANCE <= rows[fixed.ref].gap <= gap + 1e-6
                elif gap >= wanted:
                    assert fixed.ref not in rows
    assert met >= {"wall", "roof", "hinge"}


def test_what_can_be_tried_on_a_carried_thing_does_what_its_words_say(demo: Job) -> None:
    told = 0
    for item in demo.carried:
        for change in mending._carried_changes(item):
            words = change.fix.words
            if not words.startswith("Move"):
                continue
            told += 1
            ((field, value),) = change.fix.changes.items()
            step = value - getattr(item, field)
            way = words.rsplit(" mm ", 1)[1]
            field_of = {
                "aft": "x",
                "forward": "x",
                "to the right": "y",
                "to the left": "y",
                "up": "z",
            }
            assert field == field_of[way]
            assert (step > 0) == (way in ("aft", "to the right", "up"))
            assert words == f"Move {item.name} {abs(step):.0f} mm {way}"
            # Up is tried before along, and a short way before a long one.
            assert change.price == pytest.approx(
                2.5 + step / 80 if way == "up" else 3 + abs(step) / 100
            )
    assert told > 100


@pytest.mark.parametrize("name", ["lowfold", "tarn"])
def test_a_topper_and_a_cargo_space_do_not_come_off(name: str) -> None:
    job = demo_job(name)
    run = RunThrough(id="off", name="Off", moves=(Move(do="canopy off"),))
    verdict = judge(job)
    last = play(verdict.assembly, verdict.together, verdict.in_out, run).played[-1]
    assert (last.fine, last.words) == (False, "There is no canopy that comes off")


coordinate = st.integers(-3, 12).map(lambda n: n * 25.0)


length = st.sampled_from((25.0, 50.0, 100.0))


@st.composite
def boxes(draw: st.DrawFn) -> Box:
    x, y, z = draw(coordinate), draw(coordinate), draw(coordinate)
    return Box(x, y, z, x + draw(length), y + draw(length), z + draw(length))


@given(boxes(), boxes(), st.sampled_from((0.0, -0.4, 0.4, 1.5, 60.0)))
def test_one_unit_blocks_another_that_it_stands_before_or_rests_on(
    e: Box, other: Box, lift: float
) -> None:
    other = other.moved(0.0, 0.0, lift)
    out = e._replace(y0=min(0.0, e.y0))  # straight out to the face, at nought
    shares = e.common(other) is not None
    before = out.common(other) is not None
    beside = (
        min(e.x1, other.x1) - max(e.x0, other.x0) > 1
        and min(e.y1, other.y1) - max(e.y0, other.y0) > 1
    )
    rests = -0.5 <= other.z0 - e.z1 <= in_out.RESTS and beside
    way = in_out.Ways((e, out), hull((e, out)))
    assert in_out._blocks((e,), way, e, (other,)) == (not shares and (before or rests))


STEP, TURN_BY = 10.0, 3.0


@given(
    st.floats(90, 260), st.floats(90, 260), st.floats(20, 90), st.floats(80, 240),
    st.floats(140, 400), st.floats(160, 400),
)  # fmt: skip
@settings(max_examples=examples(14, 4))
def test_a_way_in_is_one_that_a_search_on_a_grid_finds_too(
    deep: float, tall: float, low: float, high: float, depth: float, height: float
) -> None:
    gap, room = (low, low + high), (depth, max(height, low + high))
    home = (max(0.0, (depth - deep) / 2), 5.0)
    found = passage_module.way_in(passage_module.Flat(deep, tall, gap, room, home, ()))
    # Grown by what half a step moves a corner, and step by step along one axis: each such way is a true one.
    margin = passage_module.PLAY + STEP / 2 + math.hypot(deep, tall) / 2 * math.radians(TURN_BY) / 2
    if way_on_a_grid(deep, tall, gap, room, margin + 3, joined=False):
        assert found
    # With no play at all and every neighbour joined, a grid finds what there is, and more.
    if found and min(room[0] - deep, room[1] - tall) > 2 * STEP:
        assert way_on_a_grid(deep, tall, gap, room, -STEP / 2, joined=True)


def way_on_a_grid(
    deep: float, tall: float, gap: tuple[float, float], room: tuple[float, float],
    grown: float, *, joined: bool,
) -> bool:  # fmt: skip
    """The same search, pose by pose."""
    if min(deep, tall) > gap[1] - gap[0]:
        return False
    wall, reach = passage_module.WALL, math.hypot(deep, tall)
    xs = np.arange(-reach - wall, room[0] + STEP, STEP)
    ys = np.arange(min(gap[0], 0.0) - reach * 0.6, room[1] + reach * 0.6, STEP)
    angles = np.arange(-90.0, 90.0 + TURN_BY / 2, TURN_BY)
    far = 4 * (reach + sum(room))
    walls = shapely.union_all([
        shapely.box(-wall, -far, 0, gap[0]), shapely.box(-wall, gap[1], 0, far), shapely.box(0, -far, far, 0),
        shapely.box(0, room[1], far, far), shapely.box(room[0], -far, far, far),
    ])  # fmt: skip
    shapely.prepare(walls)
    gx, gy = (a.ravel() for a in np.meshgrid(xs, ys, indexing="ij"))
    free = []
    for angle in np.radians(angles):
        c, s = math.cos(angle), math.sin(angle)
        p, q = deep / 2 + grown, tall / 2 + grown
        corners = np.array([
            [c * a - s * b, s * a + c * b] for a, b in ((-p, -q), (p, -q), (p, q), (-p, q))
        ])
        shapes = shapely.polygons(corners[None] + np.stack([gx, gy], axis=1)[:, None])
        free.append(~shapely.intersects(walls, shapes).reshape(len(xs), len(ys)))
    around = np.ones((3, 3, 3)) if joined else None
    parts, _n = scipy.ndimage.label(np.array(free), structure=around)
    start = set(parts[:, xs < -reach / 2 - wall, :].ravel()) - {0}
    upright = parts[int(np.abs(angles).argmin())]
    inside = (gx > deep / 2).reshape(upright.shape) & (gy > 0).reshape(upright.shape)
    return bool(start & (set(upright[inside].ravel()) - {0}))


def test_turning_that_the_bay_is_too_shallow_for_is_refused() -> None:
    # 900 wide through 500 has to go in endways, and turn in 470: its diagonal is over a metre.
    assert passage_module.passage(
        (900.0, 450.0, 300.0), (1500.0, 470.0, 900.0), (500.0, 0.0, 1000.0, 800.0), (300.0, 5.0, 0.0)
    ).how == "not"  # fmt: skip
    # In a bay as deep as its diagonal it turns.
    deep = (
        (900.0, 450.0, 300.0),
        (1500.0, 1020.0, 900.0),
        (500.0, 0.0, 1000.0, 800.0),
        (300.0, 5.0, 0.0),
    )
    assert passage_module.passage(*deep).how == "turned"
    # And not where something stands in the corner that it turns through.
    box = (300.0, 500.0, 0.0, 1200.0, 1000.0, 400.0)
    assert passage_module.passage(*deep, (box,)).how == "not"
    above = (300.0, 500.0, 310.0, 1200.0, 1000.0, 700.0)
    assert passage_module.passage(*deep, (above,)).how == "turned"


def test_what_slides_keeps_its_running_gap_from_posts_and_head(demo: Job) -> None:
    canopy = demo.body.canopy
    assert canopy is not None
    # The right bay is as long as its door; a drawer wants 3 beside it and over it.
    drawer = next(u for u in demo.units if u.id == "tools")
    name, bay = drawer.name, next(b for b in canopy.bays if b.id == "R")

    def told(**changes: float) -> list[tuple[str, float | None]]:
        job = msgspec.structs.replace(demo, units=(drawer.but(**changes),), sets=(), runs=())
        found = [f for f in judge(job).findings if f.code == "fit.running"]
        assert all(f.limit == 3.0 for f in found)
        return [(f.title, f.measured) for f in found]

    assert told(u=3.0) == []
    assert told(u=0.0) == [(f"{name} runs too near to the front post", 0.0)]
    assert told(u=1.0) == [(f"{name} runs too near to the front post", 1.0)]
    end = bay.length - drawer.width
    assert told(u=end - 3.0) == []
    assert told(u=end - 2.0) == [(f"{name} runs too near to the rear post", pytest.approx(2.0))]
    # A door that begins 35 behind the bay's start.
    doors = tuple(
        d.but(start=d.start + 35.0, length=d.length - 35.0) if d.id == "right" else d
        for d in canopy.doors
    )
    demo = msgspec.structs.replace(
        demo,
        body=msgspec.structs.replace(
            demo.body, canopy=msgspec.structs.replace(canopy, doors=doors)
        ),
    )
    assert told(u=38.0) == []
    assert told(u=37.0) == [(f"{name} runs too near to the front post", 2.0)]


def test_every_flaw_between_two_things_is_the_gap_or_the_depth_that_a_tape_would_read(
    judged: Verdict,
) -> None:
    by_id = {t.id: t for t in judged.assembly.things}
    for (one, other), flaws in judged.fit.pairs.items():
        a, b = by_id[one].envelope, by_id[other].envelope
        gaps = [max(b[n] - a[n + 3], a[n] - b[n + 3]) for n in range(3)]
        for flaw in flaws:
            if flaw.kind == "overlap":
                hollow = any(by_id[t].expansion.hollow for t in (one, other))
                if not hollow:
                    assert flaw.amount == pytest.approx(min(-g for g in gaps))
                assert 0 < flaw.amount <= min(-g for g in gaps) + 1e-6
                assert flaw.limit == 0.0
                assert max(gaps) < 0
            else:
                assert 0 <= flaw.amount < flaw.limit
                assert flaw.other in {by_id[one].ref, by_id[other].ref}
                if max(gaps) > 0:
                    assert flaw.amount == pytest.approx(max(gaps), abs=1e-6)
    met = set(judged.fit.pairs)
    for n, one in enumerate(judged.assembly.things):  # type: ignore[assignment]
        for other in judged.assembly.things[n + 1 :]:  # type: ignore[assignment]
            if any(p.common(q) is not None for p in one.bulk for q in other.bulk):  # type: ignore[attr-defined]
                assert (one.id, other.id) in met or (other.id, one.id) in met  # type: ignore[attr-defined]


@pytest.mark.parametrize("deep", [0.4, 25.0, 310.0])
def test_a_carried_thing_in_the_ground_is_told_how_deep(demo: Job, deep: float) -> None:
    item = demo.carried[0]
    low = judge(demo).assembly.thing(item.id).envelope.z0  # type: ignore[union-attr]
    sunk = judge(edits.changed(demo, item.id, z=item.z - low - deep))
    flaws = [f for f in sunk.fit.alone[item.id] if f.other == Ref("body part", "ground")]
    assert [f.amount for f in flaws] == [pytest.approx(deep)]


@given(
    st.floats(0, 400), st.floats(400, 1500),
    st.lists(st.tuples(st.floats(0, 1400), st.floats(30, 500)), max_size=4),
    st.floats(-200, 1700), st.sampled_from((0.0, 25.0, 40.0)),
)  # fmt: skip
def test_the_nearest_free_place_is_the_nearest_of_all_places(
    low: float, high: float, bars: list[tuple[float, float]], u: float, pitch: float
) -> None:
    blocked = tuple((a, -10.0, a + long, 10.0) for a, long in bars)
    space = FreeSpace("B", (low, 0.0, high, 0.0), blocked, (0.0, 0.0, 0.0))
    step = pitch or 5.0
    places = [n * step for n in range(-10, 400) if space.allows(n * step, 0.0)]
    found = space.nearest(u, 0.0, pitch)
    if not places:
        assert found is None
    else:
        assert found in places
        assert abs(found - u) == pytest.approx(min(abs(p - u) for p in places))


@pytest.mark.parametrize("over", [3.0, 13.0, 77.0])
def test_a_unit_past_its_bays_end_is_brought_back_onto_the_last_slot_before_it(
    demo: Job, over: float
) -> None:
    demo = with_canopy(demo, doors=tuple(d.but(strut=None) for d in canopy_of(demo).doors))
    thing = judge(demo).assembly.thing("first-aid")
    assert thing is not None
    assert thing.place is not None
    room, pitch = thing.place.size.x1, thing.place.bay.pitch
    job = edits.changed(demo, "first-aid", u=room - thing.value.width + over)
    verdict = judge(job)
    hit = next(f for f in verdict.findings if f.code == "fit.outside.end")
    assert hit.measured == pytest.approx(over)
    offered = fixes(verdict, hit)
    assert offered
    for fix in offered:
        u = fix.changes["u"]
        assert u % pitch == pytest.approx(0)
        assert 0 <= u <= room - thing.value.width  # type: ignore[operator]
    alone = msgspec.structs.replace(
        job, units=tuple(x for x in job.units if x.id == "first-aid"), sets=(), runs=()
    )
    verdict = judge(alone)
    fix = fixes(verdict, next(f for f in verdict.findings if f.code == "fit.outside.end"))[0]
    assert fix.changes["u"] == pytest.approx((room - thing.value.width) // pitch * pitch)


@pytest.mark.parametrize("seed", [13, 39])
def test_what_stays_of_a_thing_and_what_opens_on_it_are_named_once(seed: int) -> None:
    findings = [f for f in judge(any_job(seed)).findings if f.code in {"move.near", "move.blocked"}]
    assert findings
    for f in findings:
        assert len(set(f.subjects)) == len(f.subjects)
        assert 0 < len(f.where) < len(f.subjects)
