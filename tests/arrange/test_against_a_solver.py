"""Against a constraint solver that knows nothing of stacks: units as rectangles anywhere.

OR-Tools' CP-SAT (Apache-2.0) is the reference; its model is `bench/arranging_reference.py`. Whole millimetres and
thousandths of a point are what it counts in.
"""

import random

import pytest

from arranging_cases import CASES, context
from arranging_reference import solve
from roomy_hull.arrange.impossible import reason
from roomy_hull.arrange.judging import Rules, rule_watch
from roomy_hull.arrange.objective import broken, value
from roomy_hull.arrange.search import Search
from tests.arrange.test_impossible import stuff
from tests.sweeping import some

COUNTS = 0.3
"""What rounding to whole millimetres may come to in these cases. [points]"""
BEYOND = 0.035
"""Layouts that cross the stacks are better by so much at most in the thirty cases of the benchmark."""


@pytest.mark.parametrize("number", some([0, 1, 2, 3, 4, 7], 2))
def test_nothing_anywhere_is_much_better_than_the_best_of_stacks(number: int) -> None:
    seed, many, length, fill, rear = CASES[number]
    instance = context(seed, many, length, fill, rear=rear)
    found = Search(instance, 4).run(*rule_watch(instance, Rules()))
    assert found.proved
    best, layout = found.layouts[0]
    there = solve(instance, 20.0, start=layout)
    assert there.layout is not None
    assert broken(instance, there.layout) == []
    assert value(instance, there.layout).points == pytest.approx(there.points, abs=COUNTS)
    # The solver is given the layout to begin with: it never ends with a worse one, and no stack beats its bound.
    assert there.points <= best + COUNTS
    assert best >= there.bound - COUNTS
    assert there.points >= best * (1 - BEYOND) - COUNTS


@pytest.mark.parametrize("seed", some(range(24), 6))
def test_what_cannot_stand_together_does_so_for_the_solver_too(seed: int) -> None:
    """A proof by area is a proof for any layout; one by stacks is told as such, and may be wrong for others."""
    chance = random.Random(seed)
    sizes = [
        (chance.randint(1, 3), float(chance.choice((150, 200, 250, 300, 350))))
        for _ in range(chance.randint(4, 7))
    ]
    instance = stuff(sizes, [(chance.randint(3, 5), 500.0) for _ in range(chance.randint(1, 2))])
    why = reason(instance, 5)
    there = solve(instance, 10.0)
    if why is not None and why.certain:
        assert there.status == "INFEASIBLE"
    if why is None:
        assert there.layout is not None
