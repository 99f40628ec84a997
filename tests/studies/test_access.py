"""Access: spaces as they open, the fewest moves, reach and sight against sampling."""

import itertools
import math
from collections import deque
from typing import Any

import fcl
import msgspec
import numpy as np
import pytest
import trimesh
from hypothesis import given, settings
from hypothesis import strategies as st
from tests.sweeping import examples

from roomy_hull.core.ergonomics.figure import Figure
from roomy_hull.core.geometry.rays import blocked, hidden, skinned
from roomy_hull.core.geometry.solids import Box
from roomy_hull.formats.demo import demo_job
from roomy_hull.job.edits import layouts
from roomy_hull.job.model import Job
from roomy_hull.studies.access import moves as moving
from roomy_hull.studies.access import reach
from roomy_hull.studies.access.judge import AccessResult
from roomy_hull.studies.access.looking import looked
from roomy_hull.studies.access.spaces import Space
from roomy_hull.studies.access.standing import Obstacles, Settled, Surroundings, outsides, places
from roomy_hull.verdict.verdict import Verdict, judge

DEMOS = ("", "lowfold", "tarn")


def verdict_of(name: str) -> Verdict:
    return judge(demo_job(name) if name else demo_job())


@pytest.fixture(scope="module")
def verdicts() -> dict[str, Verdict]:
    return {name: verdict_of(name) for name in DEMOS}


def space(found: AccessResult, owner: str, part: str = "") -> int:
    return next(
        n for n, s in enumerate(found.spaces) if s.owner == owner and (not part or s.part == part)
    )


def codes(verdict: Verdict) -> list[str]:
    return [
        f.code.removeprefix("access.") for f in verdict.findings if f.code.startswith("access.")
    ]


# Rays


def meets(a: Any, b: Any, low: Any, high: Any) -> bool:
    """Whether a straight wire between two points meets a box, by a collision library (FCL)."""
    way = b - a
    long = float(np.linalg.norm(way))
    turn = trimesh.geometry.align_vectors([0, 0, 1], way / long)[:3, :3]  # type: ignore[no-untyped-call]
    wire = fcl.CollisionObject(fcl.Cylinder(1e-3, long), fcl.Transform(turn, (a + b) / 2))
    box = fcl.CollisionObject(fcl.Box(*(high - low)), fcl.Transform((low + high) / 2))
    return bool(fcl.collide(wire, box, fcl.CollisionRequest(), fcl.CollisionResult()))


@given(
    st.lists(
        st.tuples(*[st.floats(-500, 500)] * 3, *[st.floats(5, 400)] * 3), min_size=1, max_size=6
    ),
    st.integers(0, 1000),
)
def test_what_a_ray_meets_is_what_a_mesh_library_says(
    rows: list[tuple[float, ...]], seed: int
) -> None:
    boxes = np.array([(x, y, z, x + a, y + b, z + c) for x, y, z, a, b, c in rows])
    rng = np.random.default_rng(seed)
    a, b = rng.uniform(-800, 800, (40, 3)), rng.uniform(-800, 800, (40, 3))
    mine = blocked(a, b, *skinned(boxes))
    theirs = np.array([
        any(meets(p, q, row[:3] + 0.05, row[3:] - 0.05) for row in boxes)
        for p, q in zip(a, b, strict=True)
    ])
    # A ray that grazes an edge may go either way: those that are told apart by half a millimetre agree.
    wide = blocked(a, b, *skinned(boxes + np.array([-1, -1, -1, 1, 1, 1])))
    close = blocked(a, b, *skinned(boxes + np.array([1, 1, 1, -1, -1, -1])))
    sure = wide == close
    assert (theirs[sure] == mine[sure]).all()
    # Eye by eye and point by point it is the same, whatever is left out before.
    table = hidden(a[:9], b[:7], *skinned(boxes))
    each = [blocked(np.repeat(eye[None], 7, axis=0), b[:7], *skinned(boxes)) for eye in a[:9]]
    assert (table == np.array(each)).all()


# Moves


def exhaustive(found: Any, goal: frozenset[str], keys: list[str]) -> int | None:
    """Over every state of some openings, by the rules of a run-through: an independent search."""

    def free(one: str, state: frozenset[str]) -> bool:
        for other in (o.id for o in found.openings):
            if other == one:
                continue
            meeting = (found.opened if other in state else found.shut).get((one, other))
            if meeting is not None and meeting.clashes:
                return False
        return not any(m.clashes and not w.is_thing for w, m in found.still.get(one, ()))

    far = {frozenset(): 0}  # type: ignore[var-annotated]
    queue = deque([frozenset[str]()])
    while queue:
        state = queue.popleft()
        if goal <= state:
            return far[state]
        for one in keys:
            new = state ^ {one}
            if new not in far and free(one, state):
                far[new] = far[state] + 1
                queue.append(new)
    return None


@pytest.mark.parametrize("name", ["lowfold", "tarn"])
def test_the_fewest_moves_are_those_of_an_exhaustive_search(
    verdicts: dict[str, Verdict], name: str
) -> None:
    found = verdicts[name].together
    keys = [o.id for o in found.openings][:12]
    opener = moving.Opener(found)  # type: ignore[arg-type]
    for key in keys:
        ours = opener.fewest(frozenset({key}))
        theirs = exhaustive(found, frozenset({key}), keys)
        assert (len(ours) if ours is not None else None) == theirs, key


class _Hit:
    clashes = True


class _Openings(msgspec.Struct):
    openings: tuple[Any, ...]
    shut: dict[tuple[str, str], Any]
    opened: dict[tuple[str, str], Any]
    still: dict[str, tuple[tuple[Any, Any], ...]]
    needs: dict[str, frozenset[str]]


class _Named(msgspec.Struct):
    id: str


PAIRS = st.tuples(st.integers(0, 5), st.integers(0, 5))


@given(
    st.sets(PAIRS, max_size=9), st.sets(PAIRS, max_size=6),
    st.integers(0, 5),
)  # fmt: skip
@settings(max_examples=examples(150, 50))
def test_fewest_moves_in_random_jobs(
    shut: set[tuple[int, int]], opened: set[tuple[int, int]], goal: int
) -> None:
    names = "abcdef"
    hit = _Hit()
    found = _Openings(
        tuple(_Named(n) for n in names), {(names[a], names[b]): hit for a, b in shut if a != b},
        {(names[a], names[b]): hit for a, b in opened if a != b}, {},
        {names[a]: frozenset(names[b] for x, b in shut if x == a and b != a) for a, _b in shut},
    )  # fmt: skip
    opener = moving.Opener(found)
    ours = opener.fewest(frozenset(names[goal]))
    theirs = exhaustive(found, frozenset(names[goal]), list(names))
    if theirs is not None and ours is not None:
        assert len(ours) >= theirs
    if ours is None:
        # What nothing relevant lets happen, nothing else does: closing or opening the rest frees nothing.
        assert theirs is None or any(names[goal] == p[0] for p in found.opened)
    else:
        state: frozenset[str] = frozenset()
        for action in ours:
            assert opener._free(action.what, state)
            state ^= {action.what}
        assert names[goal] in state


def test_moves_by_hand_on_the_demo(verdicts: dict[str, Verdict]) -> None:
    found = verdicts[""].access
    way = found.moves[space(found, "net-drawer")]
    assert [(a.do, a.what) for a in way.actions] == [("open", "door:left"), ("open", "net-drawer")]
    # A drawer that locks is unlocked; the rear door waits for both carriers; the battery lies behind a drawer.
    assert [a.do for a in found.moves[space(found, "tools")].actions] == ["open", "unlock", "open"]
    assert {a.what for a in found.moves[space(found, "recovery")].actions} == {
        "jerry-1",
        "spare",
        "door:rear",
        "recovery",
    }
    assert [(a.do, a.what) for a in found.moves[space(found, "battery")].actions][-1] == (
        "lift aside",
        "bird-bags",
    )
    assert found.moves[space(found, "first-aid")].count == 1
    assert found.moves[space(found, "punt")].actions[0].do == "climb"


def test_who_walks_round_walks_further(verdicts: dict[str, Verdict]) -> None:
    assembly = verdicts[""].assembly
    at, around = moving.stations(assembly)
    assert moving.walked(assembly, []) == 0
    for side in ("left", "rear", "right"):
        one = moving.walked(assembly, [side])
        assert moving.walked(assembly, [side, side]) == pytest.approx(one)
        assert one <= around / 2000
    assert at["driver"] != at["left"]
    # Right-hand drive: its driver is nearer to the right.
    assert moving.walked(assembly, ["right"]) < moving.walked(assembly, ["left"])


# Reach and sight


@pytest.mark.parametrize("name", DEMOS)
def test_taller_people_never_reach_less_high(verdicts: dict[str, Verdict], name: str) -> None:
    for n in (1400, 1600, 1800, 2000):
        more, less = Figure(n + 100), Figure(n)
        assert more.shoulder + more.arm > less.shoulder + less.arm
    found = verdicts[name].access
    assert all(0 <= s.reached <= 1 and 0 <= s.seen <= 1 for row in found.seen for s in row)


def one_box(
    z: float, deep: float = 400.0, high: float = 200.0
) -> tuple[Space, Surroundings, Settled]:
    """A drawer that stands out of a wall at y = -900, in nothing else's way."""
    box = Box(2000, -900 - deep, z, 2600, -900, z + high)
    w = 2.0
    walls = (
        box._replace(x1=box.x0 + w), box._replace(x0=box.x1 - w), box._replace(y1=box.y0 + w),
        box._replace(y0=box.y1 - w), box._replace(z1=box.z0 + 0.9),
    )  # fmt: skip
    one = Space("d", "", "Drawer", "left", box, box.moved(0, deep, 0), True, frozenset(), (), walls)
    return (
        one,
        Surroundings(np.zeros((0, 6)), np.array([tuple(b) for b in walls])),
        Settled(0.0, 0.0, 3000.0),
    )


@pytest.mark.parametrize("rim", [900.0, 1200.0, 1350.0, 1450.0, 1550.0])
def test_sight_over_a_rim_is_what_lines_by_hand_say(rim: float, stocked_verdict: Verdict) -> None:
    # From beside or before it: an eye at height E a distance D from the rim sees the floor from (h/(E - rim))·D behind it.
    one, about, settled = one_box(rim - 200.0)
    figure = Figure(1530.0)
    feet = places(one, figure, about, settled, outsides(stocked_verdict.assembly))
    seen = reach.look(one, "x", figure, feet, about)
    best = 0.0
    points = reach.floor_points(one, 1.0)
    for foot, angle in itertools.product(feet, reach.LEANS):
        forward, up = figure.leaning(figure.eye, angle)
        way = np.array([2300.0, -1100.0]) - foot[:2]
        way /= max(np.linalg.norm(way), 1.0)
        eye = np.array([*(foot[:2] + way * forward), foot[2] + up])
        if eye[2] <= rim:
            continue
        # Where the line to each point crosses the rim's height: inside the rim's rectangle, or the eye is over it.
        t = (rim - points[:, 2]) / (eye[2] - points[:, 2])
        cross = points[:, :2] + (eye[:2] - points[:, :2]) * t[:, None]
        b = one.box
        clear = (
            (cross[:, 0] > b.x0 + 2)
            & (cross[:, 0] < b.x1 - 2)
            & (cross[:, 1] > b.y0 + 2)
            & (cross[:, 1] < b.y1 - 2)
        )
        best = max(best, clear.mean())
    assert seen.seen == pytest.approx(best, abs=0.04)


@pytest.mark.parametrize("floor", [1500.0, 1800.0, 2100.0, 2600.0])
@pytest.mark.parametrize("stature", [1500.0, 1720.0, 1900.0])
def test_an_arm_is_as_long_as_it_is(floor: float, stature: float, stocked_verdict: Verdict) -> None:
    # Nothing is in the way but the drawer itself: what is short is short of the nearest shoulder that one can have.
    one, about, settled = one_box(floor)
    figure = Figure(stature)
    feet = places(one, figure, about, settled, outsides(stocked_verdict.assembly))
    seen = reach.look(one, "x", figure, feet, about)
    hand = np.array([2300.0, -1100.0, floor + reach.HAND])
    # Winter's segments: upper arm, forearm and half of a gripping hand; shoulders and hips over the ground.
    arm, shoulder, hip = 0.386 * stature, 0.818 * stature, 0.530 * stature
    nearest = math.inf
    for foot, lean in itertools.product(feet, (0.0, 15.0, 30.0, 45.0)):
        way = (hand - foot)[:2] / max(1.0, math.dist(hand[:2], foot[:2]))
        over = (shoulder - hip) * np.array([
            *(math.sin(math.radians(lean)) * way),
            math.cos(math.radians(lean)),
        ])
        nearest = min(nearest, math.dist(hand, foot + np.array([0.0, 0.0, hip]) + over))
    if seen.how == "in reach":
        assert nearest <= arm + 1e-6
        assert seen.short == 0.0
        assert math.dist(seen.shoulder, seen.hand) <= arm + 1e-6
    else:
        assert seen.short == pytest.approx(max(0.0, nearest - arm), abs=0.5)


def test_nobody_sees_into_a_drawer_over_their_eyes(stocked_verdict: Verdict) -> None:
    for rim, sees in ((1000.0, True), (1700.0, False)):
        one, about, settled = one_box(rim - 200.0)
        figure = Figure(1530.0)
        seen = reach.look(
            one,
            "x",
            figure,
            places(one, figure, about, settled, outsides(stocked_verdict.assembly)),
            about,
        )
        assert (seen.seen > 0.9) is sees


@pytest.mark.parametrize("name", DEMOS)
def test_reach_against_brute_force_with_a_mesh_library(
    verdicts: dict[str, Verdict], name: str
) -> None:
    verdict = verdicts[name]
    found, checked = verdict.access, 0
    obstacles = Obstacles(verdict.assembly)
    for one, row in list(zip(found.spaces, found.seen, strict=True))[::3]:
        about = obstacles.about(one)
        solid = [b for b in about.solid if (b[3:] - b[:3] > 1.5).all()]
        for seen in row:
            if seen.how != "in reach":
                continue
            stature = next(p.stature for p in verdict.job.party.people if p.id == seen.person)
            shoulder, hand = np.array(seen.shoulder), np.array(seen.hand)
            assert np.linalg.norm(shoulder - hand) <= Figure(stature).arm + 1e-6
            over = hand.copy()
            if one.top:
                over[2] = max(one.box.z1 + reach.OVER_RIM, hand[2])
            else:
                axis, sign = moving.reach_from(one.side)
                over[axis] = (
                    one.box[axis + 3] if sign > 0 else one.box[axis]
                ) + sign * reach.OVER_RIM

            def clear(a: Any, b: Any, solid: Any = solid) -> bool:
                return not any(meets(a, b, r[:3] + 1.0, r[3:] - 1.0) for r in solid)

            bent = (
                np.linalg.norm(over - shoulder) + np.linalg.norm(hand - over)
                <= Figure(stature).arm + 1e-6
            )
            assert clear(shoulder, hand) or (
                bent and clear(shoulder, over) and clear(over, hand)
            ), (one.name, seen.person)
            checked += 1
    assert checked > 1


def test_what_did_not_change_is_taken_from_before(stocked: Job) -> None:
    # Judged anew: what is remembered of a verdict of long ago may have made room for others.
    before = judge(stocked)
    moved = judge(layouts.shifted(stocked, ("camp",), 0.0, 0.0, 1.0), before)
    same = [a is b for a, b in zip(moved.access.seen, before.access.seen, strict=True)]
    assert same.count(True) > 10
    assert same.count(False) > 0
    looked.cache_clear()
    anew = judge(moved.job)
    assert moved.access.seen == anew.access.seen
    assert moved.access.moves == anew.access.moves


def test_while_a_hand_moves_access_rests(stocked: Job, stocked_verdict: Verdict) -> None:
    job = layouts.shifted(stocked, ("bird-bags",), 25.0, 0.0, 0.0)
    held = judge(job, stocked_verdict, moving=True)
    assert held.access is stocked_verdict.access
    assert codes(held) == codes(stocked_verdict)
    assert judge(job, held).access.seen == judge(job).access.seen
