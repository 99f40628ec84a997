"""Offers: layouts that differ in what one sees, the order they come in, and the sentence about them."""

import pytest

from roomy_hull.arrange.choosing import chosen, differ
from roomy_hull.arrange.instance import At
from roomy_hull.arrange.objective import Value
from roomy_hull.arrange.offers import Offer, Sort, in_order, sentence
from roomy_hull.formats.demo import demo_job
from tests.arrange.test_impossible import stuff

JOB = demo_job("tarn")


def offer(sort: Sort, points: float, stops: int = 0, looks: int = 0) -> Offer:
    return Offer(sort, JOB, Value(0, 0, 0, 0, 0, 0, points), ("stop",) * stops, ("look",) * looks)


def test_units_that_are_alike_may_change_places_without_being_another_layout() -> None:
    instance = stuff([(1, 100), (1, 100), (2, 200)], [(4, 500), (4, 500)])
    one = (At(0, 0, 0), At(1, 0, 0), At(0, 1, 0))
    assert differ(instance, one, (At(1, 0, 0), At(0, 0, 0), At(0, 1, 0))) == 0
    assert differ(instance, one, (At(0, 0, 0), At(1, 0, 0), At(1, 1, 0))) == 1
    assert differ(instance, one, (At(0, 1, 200), At(1, 0, 0), At(0, 1, 0))) == 2


def test_what_is_chosen_differs_from_all_that_is_kept() -> None:
    instance = stuff([(1, 100), (1, 150), (2, 200), (1, 50)], [(4, 500), (4, 500)])
    left = tuple(At(0, n, 0) for n in (0, 1, 2, 3))
    nearly = (*left[:3], At(1, 3, 0))
    right = tuple(at._replace(bay=1) for at in left)
    rows = [(1.0, left), (2.0, nearly), (3.0, right)]
    assert [at for _, at in chosen(instance, rows, 4)] == [left, right]
    assert chosen(instance, rows, 1) == [(1.0, left)]
    assert [at for _, at in chosen(instance, rows, 4, have=[left])] == [right]


def test_the_one_with_fewer_findings_is_first_where_it_is_not_much_dearer() -> None:
    rows = in_order([
        offer("best", 100.0, looks=1),
        offer("clear", 110.0),
        offer("other", 101.0, looks=2),
    ])
    assert [o.sort for o in rows] == ["clear", "best", "other"]
    far = in_order([offer("best", 100.0, looks=1), offer("clear", 140.0)])
    assert far[0].sort == "best"
    assert in_order([]) == []


def test_the_sentence_says_what_is_proved_and_what_is_not() -> None:
    best = offer("best", 241.0)
    proved = sentence((best,), 241.0, 4, proved=True)
    assert (
        proved
        == "Best found: 241.0 points. Nothing built in stacks of up to 4 is better than 241.0."
    )
    open_ = sentence((best,), 236.0, 4, proved=False)
    assert (
        "No layout built in stacks of up to 4 is better than 236.0: at most 5.0 points, 2.1% are left."
        in open_
    )
    crossing = sentence((offer("improved", 240.0), best), 241.0, 4, proved=True)
    assert "this one crosses the stacks and is 1.0 points better still, without proof" in crossing
    clear = sentence((offer("clear", 250.0), best), 241.0, 4, proved=True)
    assert clear.startswith("First without a finding: 250.0 points.")
    assert (
        sentence((offer("as it is", 9.0),), 0.0, 4, proved=False)
        == "The layout as it is, 9.0 points, was not bettered."
    )
    alone = sentence((offer("improved", 9.0),), float("-inf"), 4, proved=False)
    assert alone == "Best found: 9.0 points. Nothing is proved of it."
    assert "Nothing is proved of it" in sentence((best,), float("-inf"), 4, proved=False)


def test_without_one_of_the_class_the_bound_is_told_where_it_says_something() -> None:
    held = sentence((offer("improved", 100.0),), 90.0, 4, proved=False)
    assert held.startswith(
        "Best found: 100.0 points. No layout built in stacks of up to 4 is better than 90.0"
    )
    assert held.endswith("at most 10.0 points, 10.0% are left.")
    far = sentence((offer("rough", 10.0),), -90.0, 4, proved=False)
    assert far.endswith("at most 100.0 points are left.")


@pytest.mark.parametrize("points", [0.0, -5.0])
def test_the_sentence_does_without_a_share_of_nothing(points: float) -> None:
    assert "%" not in sentence((offer("best", 0.0),), points - 1, 4, proved=False)
