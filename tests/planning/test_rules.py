"""The plan's rules: nothing before its day, runs of busy time, and how many orders are tried."""

import random

import numpy as np
import pytest

from roomy_hull.planning.levelling import MOST_PLACED, Problem
from roomy_hull.planning.monte_carlo import Three, ends
from roomy_hull.planning.placing import Means, Placed, Task, _Line, in_turn


def test_no_life_of_a_plan_begins_before_its_day() -> None:
    for day in (700, 1200):
        tasks = {"a": Task("a", 60, (), ("p",), begins=day), "b": Task("b", 60, ("a",), ("p",))}
        placed = in_turn(tasks, ["a", "b"], Means({"p": ()}, {}))
        assert np.allclose(ends(tasks, placed, Three(1.0, 1.0, 1.0), {}, {}, 50)[""], day + 120)


@pytest.mark.parametrize("seed", range(40))
def test_the_first_free_time_is_that_of_a_minute_by_minute_search(seed: int) -> None:
    chance = random.Random(seed)
    off, at = [], 0
    for _ in range(chance.randrange(4)):
        at += chance.randrange(20, 60)
        off.append((at, at + chance.randrange(5, 40)))
        at = off[-1][1]
    line = _Line(tuple(off))
    away = {m for a, b in off for m in range(a, b)}
    busy: set[int] = set()

    def by_minutes(start: int, minutes: int) -> tuple[int, int]:
        while True:
            left, m = minutes, start
            while left and m not in busy and not (m == start and m in away):
                left -= m not in away
                m += 1
            if not left:
                return start, m
            start += 1

    for n in range(14):
        start, minutes = chance.randrange(200), chance.randrange(1, 30)
        begin, end, _why = line.earliest(start, minutes)
        assert (begin, end) == by_minutes(start, minutes)
        line.take(begin, end, str(n))
        assert not busy & set(range(begin, end))
        busy |= set(range(begin, end))


def network(count: int) -> Problem:
    chance = random.Random(count)
    tasks = {
        f"t{n}": Task(
            f"t{n}",
            chance.randrange(10, 90),
            tuple({f"t{chance.randrange(n)}"} if n else ()),
            ("p", "q"),
        )
        for n in range(count)
    }
    return Problem(tasks, Means({"p": (), "q": ()}, {}))


@pytest.mark.parametrize("count", [30, 400])
def test_a_small_network_is_tried_in_every_order_and_a_large_one_in_some(
    count: int, monkeypatch: pytest.MonkeyPatch
) -> None:
    problem = network(count)
    monkeypatch.setattr(problem, "_least", lambda _placed: False)
    tried: list[list[str]] = []
    settled = problem.settled

    def noted(order: list[str]) -> dict[str, Placed]:
        tried.append(order)
        return settled(order)

    monkeypatch.setattr(problem, "settled", noted)
    best = problem.level()
    orders = {tuple(problem.by(p)) for p in problem.rules().values()}
    assert len(tried) == len({tuple(o) for o in tried})
    assert (len(tried) == len(orders)) == (count == 30)
    assert 3 * count * (len(tried) - 1) + count <= max(MOST_PLACED, count)
    assert best.end == min(max(p.finish for p in settled(o).values()) for o in tried)
