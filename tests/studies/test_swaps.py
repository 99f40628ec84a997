"""From one set-up to another: order and minutes against an exhaustive search, and on a job."""

import heapq
import itertools
import random

import msgspec
import pytest

from roomy_hull.core.errors import InputError
from roomy_hull.formats.demo import demo_job
from roomy_hull.job.edits import setups as edits
from roomy_hull.job.model import Job
from roomy_hull.job.setups import SetUp
from roomy_hull.verdict.swaps import order_of, swap, swap_rows
from roomy_hull.verdict.verdict import judge

Graph = dict[str, tuple[str, ...]]


def fewest(
    gone: set[str], come: set[str], stay: set[str], leaving: Graph, entering: Graph
) -> int | None:
    """How few moves there are, by searching every state of what is on (Dijkstra); none where there is no way.

    A thing leaves when nothing that is on is in its way, and enters when nothing that is on is.
    """
    start = frozenset(gone | stay)
    end = frozenset(come | stay)
    best = {(start, False): 0}
    heap: list[tuple[int, int, frozenset[str], bool]] = [(0, 0, start, False)]
    count = itertools.count(1)
    while heap:
        cost, _n, on, turned = heapq.heappop(heap)
        if on == end and (turned or not gone):
            return cost
        if best.get((on, turned), 1 << 30) < cost:
            continue
        steps: list[tuple[frozenset[str], bool]] = []
        if not turned:
            # First all goes off that has to; then nothing more leaves.
            steps += [
                (on - {k}, False) for k in on if not set(leaving.get(k, ())) & (on - {k})
            ]  # fmt: skip
            if not on & gone:
                steps.append((on, True))
        else:
            steps += [
                (on | {k}, True) for k in (come | stay) - on if not set(entering.get(k, ())) & on
            ]  # fmt: skip
        for new, side in steps:
            extra = 0 if new == on else 1
            if cost + extra < best.get((new, side), 1 << 30):
                best[new, side] = cost + extra
                heapq.heappush(heap, (cost + extra, next(count), new, side))
    return None


@pytest.mark.parametrize("seed", range(120))
def test_no_order_needs_fewer_moves_than_the_one_that_is_told(seed: int) -> None:
    rng = random.Random(seed)
    things = [f"t{n}" for n in range(rng.randint(2, 7))]
    kinds = {t: rng.choice(("gone", "come", "stay", "stay")) for t in things}
    rank = {t: rng.random() for t in things}
    circular = seed % 5 == 0

    def graph() -> Graph:
        return {
            a: tuple(b for b in things if b != a and rng.random() < 0.35 and (circular or rank[b] > rank[a]))
            for a in things
        }  # fmt: skip

    leaving, entering = graph(), graph()
    gone, come, stay = ({t for t in things if kinds[t] == k} for k in ("gone", "come", "stay"))
    # What blocks has to be there to block.
    leaving = {a: tuple(b for b in v if b in gone | stay) for a, v in leaving.items()}
    entering = {a: tuple(b for b in v if b in come | stay) for a, v in entering.items()}
    out, back, circle = order_of(sorted(gone), sorted(come), sorted(stay), leaving, entering)
    if not gone and not come:
        assert (out, back) == ((), ())
        return
    searched = fewest(gone, come, stay, leaving, entering)
    if circle:
        assert searched is None
        return
    assert searched == len(out) + len(back)
    on = gone | stay
    for k in out:
        assert not set(leaving.get(k, ())) & (on - {k})
        on -= {k}
    assert on == stay - set(out)
    for k in back:
        assert not set(entering.get(k, ())) & on
        on |= {k}
    assert on == come | stay


def with_setups(job: Job) -> Job:
    """The demo with three set-ups; its scenarios are for the long trip, bare work for the bare tray."""
    job = edits.added(job, SetUp(id="x", name="Long trip"))
    job = edits.added(job, SetUp(id="x", name="Weekend", off=("water", "spare")))
    job = edits.added(job, SetUp(id="x", name="Work", canopy=False))
    rows = tuple(
        msgspec.structs.replace(s, setup="long-trip" if s.canopy else "work") for s in job.scenarios
    )
    return msgspec.structs.replace(job, scenarios=rows)


def test_a_swap_of_the_demo(demo: Job) -> None:
    verdict = judge(with_setups(demo))
    found = swap(verdict, "long-trip", "weekend")
    done = [(s.do, s.what) for s in found.steps]
    blocked = verdict.in_out.before("water")
    aside = [k for do, k in done if do == "set aside"]
    assert sorted(aside) == sorted(blocked)
    assert done.index(("take off", "water")) > max(
        (done.index(("set aside", k)) for k in aside), default=-1
    )
    assert [k for do, k in done if do == "put back"] == aside[::-1] or sorted(aside) == sorted(
        k for do, k in done if do == "put back"
    )
    water = next(s for s in found.steps if s.what == "water")
    assert water.tool == "13 mm spanner"  # M8
    assert any("water" in p.lower() for p in water.plugs)
    back = swap(verdict, "weekend", "long-trip")
    assert back.minutes == pytest.approx(found.minutes)
    assert {s.what for s in back.steps if s.do == "put on"} == {"water", "spare"}
    rows = swap_rows(found)
    assert len(rows) == len(found.steps) + 2
    assert float(str(rows[-1][3])) == pytest.approx(found.minutes)


def test_what_is_in_the_canopy_travels_with_it(demo: Job) -> None:
    verdict = judge(with_setups(demo))
    found = swap(verdict, "long-trip", "work")
    assert [(s.do, s.what) for s in found.steps] == [("take off", "canopy")]
    assert found.steps[0].minutes == pytest.approx(15 + 0.5 * len(found.steps[0].plugs))
    assert "Never work under" in found.steps[0].caution


def test_what_two_cannot_carry_goes_in_parts() -> None:
    """The bundles of 420 kg take nine goes of two minutes, half as long again for two; 45 kg take one."""
    job = demo_job("reedholm")
    reed = next(c for c in job.carried if c.id == "reed")
    (step,) = [s for s in swap(judge(job), "fen-camp", "flatbed-work").steps if s.what == "reed"]
    assert (step.kg, step.people) == (420.0, 2)
    assert step.minutes == pytest.approx(9 * 2 * 1.5)
    assert "in parts" in step.caution
    lighter = tuple(reed.but(mass=45.0) if c is reed else c for c in job.carried)
    job = msgspec.structs.replace(job, carried=lighter)
    (step,) = [s for s in swap(judge(job), "fen-camp", "flatbed-work").steps if s.what == "reed"]
    assert (step.minutes, step.people) == (pytest.approx(2 * 1.5), 2)
    assert "two people" in step.caution


def test_unknown_set_ups_are_told(demo: Job) -> None:
    with pytest.raises(InputError, match="no set-up 'x'"):
        swap(judge(demo), "x", "y")
