"""Small plans against every order there is: the search reaches the shortest, and no bound is above it."""

import itertools
import random

import pytest

from roomy_hull.planning.levelling import Problem
from roomy_hull.planning.placing import Means, Task, in_turn


def small(seed: int) -> tuple[dict[str, Task], Means]:
    """Up to six operations on two people and two places."""
    chance = random.Random(seed)
    tasks: dict[str, Task] = {}
    for n in range(chance.randrange(3, 7)):
        after = {f"t{chance.randrange(n)}" for _ in range(chance.randrange(2))} if n else set()
        who = chance.choice(("a", "b", "ab", "ab", ""))
        tasks[f"t{n}"] = Task(
            f"t{n}", chance.choice((10, 20, 35, 50, 80)), tuple(sorted(after)), tuple(who),
            2 if who == "ab" and chance.random() < 0.2 else 1, chance.choice(("s", "", "")) if who else "",
            chance.choice((0, 0, 0, 40)),
        )  # fmt: skip
    off = {"a": ((60, 90),) if chance.random() < 0.3 else (), "b": ()}
    return tasks, Means(off, {"s": 1})


def shortest(tasks: dict[str, Task], means: Means) -> int:
    """The end of the best of all orders: the serial scheme reaches a shortest plan from one of them (Kolisch 1996)."""
    best = 1 << 60
    for order in itertools.permutations(tasks):
        seen: set[str] = set()
        if all(not (set(tasks[k].after) - seen) and not seen.add(k) for k in order):  # type: ignore[func-returns-value]
            best = min(best, max(p.finish for p in in_turn(tasks, order, means).values()))
    return best


@pytest.mark.parametrize("seed", range(60))
def test_the_search_reaches_the_shortest_of_all_orders(seed: int) -> None:
    tasks, means = small(seed)
    problem = Problem(tasks, means)
    best = shortest(tasks, means)
    assert problem.bound <= best
    found = problem.level(rounds=150)
    assert found.end == best


def test_the_bound_is_reached_in_most_of_them() -> None:
    gaps = []
    for seed in range(60):
        tasks, means = small(seed)
        gaps.append(shortest(tasks, means) / Problem(tasks, means).bound - 1)
    assert sum(g < 1e-9 for g in gaps) >= 40


def test_several_orders_of_one_plan_end_alike_when_nothing_is_shared() -> None:
    tasks = {f"t{n}": Task(f"t{n}", 10 * (n + 1), (), (f"p{n}",)) for n in range(5)}
    means = Means({f"p{n}": () for n in range(5)}, {})
    ends = {
        max(p.finish for p in in_turn(tasks, order, means).values())
        for order in itertools.permutations(tasks)
    }
    assert ends == {50}
    assert Problem(tasks, means).bound == 50
