"""The search against every layout there is: the same optimum, the same 'there is none', a bound that never lies."""

import functools
import itertools
import random
from collections.abc import Iterator
from typing import NamedTuple

import msgspec
import numpy as np
import pytest

from roomy_hull.arrange.instance import PARTS, At, Instance, Layout
from roomy_hull.arrange.judging import Rules, rule_watch, wished_bars
from roomy_hull.arrange.master import Master, Prices
from roomy_hull.arrange.objective import broken, value
from roomy_hull.arrange.places import Places
from roomy_hull.arrange.search import Found, Progress, Search
from roomy_hull.arrange.strips import list_strips
from roomy_hull.arrange.watching import Watch
from tests.arrange.small import layouts, small
from tests.sweeping import some

SLOW = {11, 24, 27, 73, 75, 144, 147, 158, 202}
"""Seeds whose layouts are too many to be counted in a few seconds."""
SEEDS = [s for s in range(215) if s not in SLOW][:205]


def watch_of(instance: Instance) -> Watch:
    bars = tuple(wished_bars(instance))
    return Watch(tuple(sorted({i for b in bars for i in (b.a, b.b)})), bars)


def searched(instance: Instance, most: int = 6) -> Found:
    return Search(instance, most).run(watch_of(instance))


Row = tuple[float, Layout]


class All(NamedTuple):
    """Every layout of a case that breaks no rule, told shortly: how many, the cheapest three, the dearest."""

    count: int  # type: ignore[assignment]
    cheapest: tuple[Row, ...]
    dearest: Row | None

    @property
    def least(self) -> float:
        """Points of the cheapest."""
        return self.cheapest[0][0]


def allowed(seed: int) -> Iterator[Row]:
    """Every layout of a case that breaks no rule, with its points."""
    instance = small(seed)
    return (
        (value(instance, at).points, at) for at in layouts(instance) if not broken(instance, at)
    )


@functools.cache
def told(seed: int) -> All:
    """All layouts of a case, not kept."""
    count, few, most = 0, list[Row](), None
    for row in allowed(seed):
        count += 1
        few = sorted([*few, row])[:3]
        most = row if most is None else max(most, row)
    return All(count, tuple(few), most)


@pytest.mark.parametrize("seed", some(SEEDS, 24))
def test_the_optimum_is_that_of_every_layout(seed: int) -> None:
    every, found = told(seed), searched(small(seed))
    if not every.count:
        assert not found.layouts
        return
    least = every.least
    assert found.layouts[0][0] == pytest.approx(least, abs=1e-6)
    assert found.proved
    assert found.bound <= least + 1e-6


@pytest.mark.parametrize("seed", some(SEEDS[:60], 10))
def test_what_is_kept_is_worth_what_it_says_and_breaks_no_rule(seed: int) -> None:
    instance, found = small(seed), searched(small(seed))
    points = [p for p, _ in found.layouts]
    assert points == sorted(points)
    assert len({at for _, at in found.layouts}) == len(found.layouts)
    for worth, layout in found.layouts:
        assert not broken(instance, layout)
        assert value(instance, layout).points == pytest.approx(worth, abs=1e-6)


@pytest.mark.parametrize("seed", some(SEEDS[:40], 8))
def test_the_bound_never_falls_and_never_passes_the_best(seed: int) -> None:
    heard: list[Progress] = []

    def note(p: Progress) -> bool:
        heard.append(p)
        return True

    instance = small(seed)
    Search(instance, 6, note).run(watch_of(instance))
    bounds = [p.bound for p in heard if p.bound is not None]
    assert bounds == sorted(bounds)
    if told(seed).count:
        assert all(b <= told(seed).least + 1e-6 for b in bounds)


@pytest.mark.parametrize("seed", some(SEEDS[:40], 8))
def test_the_bound_holds_for_any_prices(seed: int) -> None:
    instance, every = small(seed), told(seed)
    strips = list_strips(instance, Places(instance), 6)
    if not every.count or not len(strips):
        return
    least, chance = every.least, np.random.default_rng(seed)
    master = Master(instance, strips)
    for _ in range(10):
        lean = chance.uniform(0, 0.5, 2) * instance.weights.points()["balance"]
        runs = np.array([
            chance.uniform(0, 0.5, 4) * instance.weights.points()["runs"] * r.weight
            for r in instance.runs
        ]).reshape(-1, 4)
        prices = Prices(
            chance.normal(0, 30, instance.count), [chance.normal(0, 10, b.cells) for b in instance.bays],
            (float(lean[0]), float(lean[1])), -float(chance.uniform(0, 5)), runs,
        )  # fmt: skip
        assert master.bound(prices).value <= least + 1e-6


@pytest.mark.parametrize("seed", some(SEEDS[40:110], 10))
def test_rules_take_layouts_away_and_leave_the_best_of_the_others(seed: int) -> None:
    """Rules as the verdict teaches them, drawn by chance from layouts that there are."""
    instance, chance = small(seed), random.Random(seed)
    if told(seed).count < 3:
        return
    rules = Rules()
    for _, layout in told(seed).cheapest:
        a, b = chance.sample(range(instance.count), 2)
        p, q = layout[a], layout[b]
        kind = chance.choice(("nowhere", "bar", "exact"))
        if kind == "nowhere":
            rules.nowhere.add((p.item if p.item >= 0 else a, p.bay, p.cell, p.level))
        elif kind == "bar" and p.bay == q.bay and p.item < 0 and q.item < 0:
            rules.bars[a, b, p.bay, p.level, q.level] = frozenset({
                q.cell - p.cell,
                q.cell - p.cell + 1,
            })
        else:
            rules.exact.add(((a, p), (b, q)))
    left = min(
        (points for points, layout in allowed(seed) if not rules.forbid(layout)), default=None
    )
    watch, clashes = rule_watch(instance, rules)
    found = Search(instance, 6).run(watch, clashes, None, rules.nowhere)
    assert not any(rules.forbid(at) for _, at in found.layouts)
    if left is not None:
        assert found.layouts[0][0] == pytest.approx(left, abs=1e-6)
    else:
        assert not found.layouts


@pytest.mark.parametrize(("seed", "part"), some(list(itertools.product(SEEDS[:24], PARTS)), 30))
def test_a_weight_raised_never_worsens_its_own_figure(seed: int, part: str) -> None:
    instance = small(seed)
    low = instance.weights._replace(**{part: 0.5})
    figures = []
    for weights in (low, low._replace(**{part: 3.0})):
        found = searched(msgspec.structs.replace(instance, weights=weights))
        if not found.layouts:
            return
        figures.append(
            getattr(value(instance, found.layouts[0][1]), part) * (-1 if part == "room" else 1)
        )
    assert figures[1] <= figures[0] + 1e-6


def mirrored(instance: Instance) -> Instance:
    """The same with left and right changed."""
    items = tuple(
        msgspec.structs.replace(
            item,
            spots=tuple(
                None if s is None else msgspec.structs.replace(s, y=-s.y)
                for s in reversed(item.spots)
            ),
        )
        for item in instance.items
    )
    ties = tuple(msgspec.structs.replace(t, y=-t.y) for t in instance.ties)
    return msgspec.structs.replace(
        instance, items=items, bays=tuple(reversed(instance.bays)), lean=-instance.lean, ties=ties
    )


@pytest.mark.parametrize(
    "seed", [s for s in SEEDS[:80] if all(b.along[0] for b in small(s).bays)][:30]
)
def test_mirrored_wishes_give_mirrored_layouts_of_equal_value(seed: int) -> None:
    one, other = searched(small(seed)), searched(mirrored(small(seed)))
    assert bool(one.layouts) == bool(other.layouts)
    if not one.layouts:
        return
    assert other.layouts[0][0] == pytest.approx(one.layouts[0][0], abs=1e-6)
    last = len(small(seed).bays) - 1
    turned = tuple(at._replace(bay=last - at.bay) for at in one.layouts[0][1])
    assert value(mirrored(small(seed)), turned).points == pytest.approx(one.layouts[0][0], abs=1e-6)


@pytest.mark.parametrize("seed", some(SEEDS[:12], 4))
def test_a_layout_to_begin_with_is_never_made_worse(seed: int) -> None:
    instance, every = small(seed), told(seed)
    if every.dearest is None:
        return
    start = every.dearest[1]
    found = Search(instance, 6).run(watch_of(instance), known=start)
    assert found.layouts[0][0] == pytest.approx(every.least, abs=1e-6)
    ended = Search(instance, 6, lambda _p: False).run(watch_of(instance), known=start)
    assert ended.stopped
    assert ended.layouts[0] == (value(instance, start).points, start)
    assert not ended.proved or ended.bound <= every.least + 1e-6


def test_what_is_ended_at_once_says_so_and_proves_nothing() -> None:
    found = Search(small(3), 6, lambda _p: False).run()
    assert found.stopped
    assert not found.proved
    assert found.layouts == ()


@pytest.mark.parametrize("seed", some(SEEDS[:30], 8))
def test_ended_anywhere_the_bound_still_holds(seed: int) -> None:
    instance, every, chance = small(seed), told(seed), random.Random(seed)
    if not every.count:
        return
    left = [chance.randint(1, 12)]

    def going(_p: Progress) -> bool:
        left[0] -= 1
        return left[0] > 0

    found = Search(instance, 6, going).run(watch_of(instance))
    if found.complete:
        assert found.bound <= every.least + 1e-6
    for worth, layout in found.layouts:
        assert worth >= every.least - 1e-6
        assert not broken(instance, layout)


def test_the_same_is_found_each_time() -> None:
    assert searched(small(8)).layouts == searched(small(8)).layouts


def test_broken_rules_are_named() -> None:
    """A layout with everything on one heap breaks whatever there is."""
    instance = small(0)
    heap = tuple(At(0, 0, 0) for _ in range(instance.count))
    assert {"overlap"} <= {kind for kind, _ in broken(instance, heap)}
    away = tuple(At(0, 50, 0) for _ in range(instance.count))
    assert [kind for kind, _ in broken(instance, away)].count("place") == instance.count
