"""Networks against the textbook and a reference library.

Kelley and Walker, Critical-path planning and scheduling (1959). The project of a plant in fourteen activities is that of
Hillier and Lieberman, Introduction to Operations Research, chapter on project management (from memory): 44 weeks, critical
A B C E F J L N, variance of that path 9, so that 47 weeks are kept with a chance of 0.84.
"""

import math
import random

import networkx
import numpy as np
import pytest

from roomy_hull.core.errors import InputError
from roomy_hull.planning.monte_carlo import Three, by_then, ends, ready
from roomy_hull.planning.network import critical, in_sequence, times
from roomy_hull.planning.placing import Placed, Task

PLANT: dict[str, tuple[tuple[float, float, float], str]] = {
    "A": ((1, 2, 3), ""), "B": ((2, 3.5, 8), "A"), "C": ((6, 9, 18), "B"), "D": ((4, 5.5, 10), "C"),
    "E": ((1, 4.5, 5), "C"), "F": ((4, 4, 10), "E"), "G": ((5, 6.5, 11), "D"), "H": ((5, 8, 17), "EG"),
    "I": ((3, 7.5, 9), "C"), "J": ((3, 9, 9), "FI"), "K": ((4, 4, 4), "J"), "L": ((1, 5.5, 7), "J"),
    "M": ((1, 2, 3), "H"), "N": ((5, 5.5, 9), "KL"),
}  # fmt: skip
AFTER = {k: tuple(before) for k, (_t, before) in PLANT.items()}


def test_the_textbooks_plant_takes_forty_four_weeks_along_its_critical_path() -> None:
    found = times({k: Three(*t).mean for k, (t, _b) in PLANT.items()}, AFTER)
    assert max(t.finish for t in found.values()) == pytest.approx(44)
    assert critical(found, AFTER) == tuple("ABCEFJLN")
    # The book's table of slacks, from memory.
    slack = {k: round(t.slack, 6) for k, t in found.items()}
    assert {k: slack[k] for k in "DGHIKM"} == {"D": 4, "G": 4, "H": 4, "I": 2, "K": 1, "M": 4}
    assert all(slack[k] == 0 for k in "ABCEFJLN")


def test_three_points_have_the_textbooks_means_and_variances() -> None:
    means = {k: Three(*t).mean for k, (t, _b) in PLANT.items()}
    assert means == pytest.approx(
        dict(zip("ABCDEFGHIJKLMN", (2, 4, 10, 6, 4, 5, 7, 9, 7, 8, 4, 5, 2, 6), strict=True))
    )
    assert sum(Three(*PLANT[k][0]).sigma ** 2 for k in "ABCEFJLN") == pytest.approx(9)
    chance = 0.5 * (1 + math.erf((47 - 44) / 3 / math.sqrt(2)))
    assert chance == pytest.approx(0.84, abs=0.005)


@pytest.mark.parametrize(
    "three",
    [Three(1, 2, 3), Three(2, 3.5, 8), Three(0.75, 1.0, 1.75), Three(3, 9, 9), Three(4, 4, 4)],
)
def test_drawn_times_have_the_mean_and_variance_of_the_formula(three: Three) -> None:
    drawn = three.drawn(np.random.default_rng(7), 200_000)
    assert drawn.min() >= three.least
    assert drawn.max() <= three.most
    assert float(drawn.mean()) == pytest.approx(three.mean, rel=3e-3)
    assert float(drawn.var()) == pytest.approx(three.variance, rel=2e-2, abs=1e-12)
    # A sixth of the span is PERT's rule of thumb for the same thing.
    assert three.sigma**2 == pytest.approx(three.variance, rel=0.5, abs=1e-12)


def test_many_lives_of_a_chain_come_to_the_sum_of_its_means_and_variances() -> None:
    tasks = {
        k: Task(k, 600, (() if n == 0 else (str(n - 1),)), ("one",))
        for n, k in enumerate("01234567")
    }
    placed = {k: Placed(k, 600 * n, 600 * n + 600, ("one",), 0, None) for n, k in enumerate(tasks)}  # type: ignore[arg-type]
    spread = Three(0.75, 1.0, 1.75)
    found = ends(tasks, placed, spread, {}, {}, 40_000)[""]
    assert float(found.mean()) == pytest.approx(8 * 600 * spread.mean, rel=2e-3)
    assert float(found.var()) == pytest.approx(8 * 600**2 * spread.variance, rel=0.05)
    assert by_then(found, ready(found, 0.9)) >= 0.9
    assert by_then(found, float(found[0]) - 1) == 0


def test_one_uncertainty_of_a_kind_is_shared_by_all_its_operations() -> None:
    tasks = {
        k: Task(k, 600, (() if n == 0 else (str(n - 1),)), ("one",))
        for n, k in enumerate("01234567")
    }
    placed = {k: Placed(k, 600 * n, 600 * n + 600, ("one",), 0, None) for n, k in enumerate(tasks)}  # type: ignore[arg-type]
    sure = Three(1.0, 1.0, 1.0)
    alone = ends(tasks, placed, sure, dict.fromkeys(tasks, "weld"), {"weld": 0.2}, 40_000)[""]
    # Were they independent, the whole would vary by 0.2 / sqrt(8) only.
    assert float(np.log(alone).std()) == pytest.approx(0.2, rel=0.02)


def test_times_are_those_of_the_longest_path_of_a_reference_library() -> None:
    chance = random.Random(11)
    for _ in range(60):
        count = chance.randrange(1, 60)
        keys = [f"t{n}" for n in range(count)]
        hours = {k: float(chance.randrange(1, 40)) for k in keys}
        after = {
            k: tuple(sorted({keys[chance.randrange(n)] for _ in range(chance.randrange(0, 4))}))
            if n
            else ()
            for n, k in enumerate(keys)
        }
        graph: networkx.DiGraph[str] = networkx.DiGraph()
        graph.add_nodes_from(["begin", *keys])
        for k in keys:
            graph.add_edge("begin", k, weight=0.0)
            for before in after[k]:
                graph.add_edge(before, k, weight=hours[before])
        found = times(hours, after)
        longest = networkx.dag_longest_path_length(
            networkx.DiGraph((a, b, {"weight": w}) for a, b, w in [
                *((a, b, d["weight"]) for a, b, d in graph.edges(data=True)), *((k, "end", hours[k]) for k in keys),
            ])
        )  # fmt: skip
        assert max(t.finish for t in found.values()) == longest
        path = critical(found, after)
        assert sum(hours[k] for k in path) == longest
        order = in_sequence(after)
        assert all(order.index(b) < order.index(k) for k in keys for b in after[k])
        assert set(networkx.topological_sort(graph)) - {"begin"} == set(order)


def test_what_waits_for_itself_is_named_in_its_circle() -> None:
    with pytest.raises(InputError, match="wait for each other: b, c") as told:
        times(dict.fromkeys("abc", 1.0), {"a": (), "b": ("a", "c"), "c": ("b",)})
    assert "Take one" in str(told.value)
    with pytest.raises(InputError, match="'gone', which is not there"):
        in_sequence({"a": ("gone",)})
    assert times({}, {}) == {}
    assert critical({}, {}) == ()
