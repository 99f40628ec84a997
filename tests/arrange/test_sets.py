"""Sets of units as numbers: what is alone once, what is alike by count."""

import itertools
import random

import msgspec
import numpy as np
import pytest

from roomy_hull.arrange.instance import Instance, Run
from roomy_hull.arrange.sets import Sets, alike
from tests.arrange.test_impossible import stuff


def boxes(*counts: int) -> Instance:
    """So many boxes of each of some sizes."""
    sizes = [(1 + n % 3, 100.0 + 10 * n) for n, many in enumerate(counts) for _ in range(many)]
    return stuff(sizes, [(6, 500.0)])


def test_boxes_of_one_size_are_a_group_unless_something_names_them() -> None:
    instance = boxes(2, 1, 3)
    assert alike(instance) == [[0, 1], [2], [3, 4, 5]]
    assert alike(instance, [4]) == [[0, 1], [2], [3, 5], [4]]
    joined = msgspec.structs.replace(instance, runs=(Run(0, 3, 1.0),))
    assert alike(joined) == [[0], [1], [2], [3], [4, 5]]


@pytest.mark.parametrize("seed", range(30))
def test_two_sets_go_together_as_their_counts_do(seed: int) -> None:
    chance = random.Random(seed)
    instance = boxes(*(chance.randint(1, 4) for _ in range(chance.randint(1, 5))))
    groups = alike(instance)
    sets = Sets(instance, groups)

    def number(counts: list[int]) -> np.ndarray:
        return np.array(
            [sum(int(sets.one[g[0]]) * k for g, k in zip(groups, counts, strict=True))], np.int64
        )

    for _ in range(40):
        a = [chance.randint(0, len(g)) for g in groups]
        b = [chance.randint(0, len(g)) for g in groups]
        fits = all(x + y <= len(g) for x, y, g in zip(a, b, groups, strict=True))
        assert bool(sets.together(number(a), number(b))[0]) == fits
    assert number([len(g) for g in groups])[0] == sets.full


def test_what_is_missing_of_a_set_completes_it() -> None:
    instance = boxes(3, 1, 2)
    sets = Sets(instance, alike(instance))
    for counts in itertools.product(range(4), range(2), range(3)):
        some = sum(int(sets.one[g[0]]) * k for g, k in zip(sets.groups, counts, strict=True))
        left = int(sets.full) - some
        assert sets.together(np.array([some]), np.array([left]))[0]
        assert bool(sets.within(np.int64(some)))


def test_whole_is_all_of_a_kind() -> None:
    instance = boxes(3, 1)
    sets = Sets(instance, alike(instance))
    mask, value = sets.whole([0, 1, 2])
    for many in range(4):
        assert (many * int(sets.one[0]) & int(mask) == int(value)) == (many == 3)
    assert sets.whole([]) == (0, 0)


def test_too_many_units_for_one_number_are_refused() -> None:
    with pytest.raises(ValueError, match="too many for one number"):
        Sets(boxes(*([1] * 70)), [[n] for n in range(70)])
