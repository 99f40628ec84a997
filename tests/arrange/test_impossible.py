"""Why it does not fit: the set that is named really cannot be, and without one of it the rest can."""

import itertools
import random

import msgspec
import pytest

from roomy_hull.arrange.impossible import Reason, by_area, reason, too_large, worded
from roomy_hull.arrange.instance import BayRoom, Instance, Item, Spot
from roomy_hull.arrange.objective import broken
from roomy_hull.studies.fit.free_space import FreeSpace
from tests.arrange.small import layouts
from tests.sweeping import some


def stuff(
    sizes: list[tuple[int, float]], bays: list[tuple[int, float]], stance: str = "hang"
) -> Instance:
    """Boxes of some cells and heights, and bays of some cells and heights; everything may go everywhere."""
    rooms = tuple(
        BayRoom(f"b{n}", f"Bay {n}", cells, high, (1.0, 0.0))
        for n, (cells, high) in enumerate(bays)
    )
    items = []
    for n, (cells, high) in enumerate(sizes):
        wide = cells * 100.0 - 3
        spots = tuple(
            Spot(0.0, 0.0, 800.0, 800.0, FreeSpace(b.id, (0.0, 0.0, b.cells * 100.0 - wide, b.height - high), (), (0, 0, 0)),
                 0.0, ((0, ((-1.0, 1e5),)),))
            if b.cells * 100 >= wide and b.height >= high else None
            for b in rooms
        )  # fmt: skip
        items.append(Item(f"u{n}", f"Box {n}", wide, high, cells, 0.0, 0.0, 0.0, 5.0, stance, True, 1.0,  # type: ignore[arg-type]
                          (700.0, 1200.0), spots))  # fmt: skip
    return Instance(100.0, tuple(items), rooms)


def only(instance: Instance, units: tuple[int, ...]) -> Instance:
    """The instance of some of its units."""
    return msgspec.structs.replace(instance, items=tuple(instance.items[n] for n in units))


def fits(instance: Instance) -> bool:
    """Whether there is any layout of strips, by looking at all."""
    return any(not broken(instance, at) for at in layouts(instance))


def test_one_that_is_too_large_for_every_bay_is_named() -> None:
    instance = stuff([(2, 200), (6, 200)], [(5, 500)])
    assert too_large(instance) == (1,)
    why = reason(instance)
    assert why == Reason("large", (1,), (0,))
    words = worded(instance, why)
    assert "Box 1 is too large for every bay" in words
    assert "Make it smaller" in words


def test_more_front_than_bay_is_named_as_such() -> None:
    instance = stuff([(2, 400), (2, 400), (2, 400), (2, 400)], [(4, 500)])
    assert by_area(instance, [0, 1, 2, 3]) == (0,)
    why = reason(instance)
    assert why is not None
    assert why.kind == "area"
    assert why.certain
    assert not fits(only(instance, why.units))
    assert "whichever way they are stacked" in worded(instance, why)


def test_what_fits_by_area_but_not_in_stacks_is_told_of_stacks() -> None:
    """Three of 300 high in a bay of 500: no two stand over one another, and three times two cells are not five."""
    instance = stuff([(2, 300), (2, 300), (2, 300)], [(5, 500)])
    why = reason(instance)
    assert why is not None
    assert (why.kind, why.units, why.certain) == ("strips", (0, 1, 2), False)
    words = worded(instance, why)
    assert "stacks of up to" in words
    assert "Box 0, Box 1 and Box 2" in words


def test_what_fits_has_no_reason() -> None:
    assert reason(stuff([(2, 200), (2, 200), (1, 100)], [(4, 500)])) is None


@pytest.mark.parametrize("seed", some(range(60), 20))
def test_the_set_named_cannot_be_and_one_less_of_it_can(seed: int) -> None:
    chance = random.Random(seed)
    sizes = [
        (chance.randint(1, 3), float(chance.choice((150, 200, 250, 300, 350))))
        for _ in range(chance.randint(4, 5))
    ]
    bays = [(chance.randint(3, 4), 500.0) for _ in range(chance.randint(1, 2))]
    instance = stuff(sizes, bays)
    why = reason(instance, 5)
    if why is None:
        return  # no proof is no promise
    assert not fits(only(instance, why.units))
    assert not fits(instance)
    if len(why.units) > 1:
        fewer = itertools.combinations(why.units, len(why.units) - 1)
        # Without any one of them the same proof fails; as whole boxes the rest nearly always goes in.
        assert any(fits(only(instance, some)) for some in fewer)


def test_a_search_that_is_ended_gives_no_wrong_reason() -> None:
    instance = stuff([(2, 300), (2, 300), (2, 300)], [(5, 500)])
    why = reason(instance, alive=lambda: False)
    assert why is None or not fits(only(instance, why.units))
