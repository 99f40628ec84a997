"""What the real verdict teaches the search: each rule forbids what was found, and what would bring the same again."""

import msgspec
import pytest

from roomy_hull.arrange.gather import Gathered, gather
from roomy_hull.arrange.instance import At, Layout
from roomy_hull.arrange.judging import Judge, Rules, rule_watch
from roomy_hull.arrange.search import Search
from roomy_hull.core.findings import Finding
from roomy_hull.core.refs import Ref
from roomy_hull.formats.demo import demo_job
from roomy_hull.job.arranging import Arranging
from roomy_hull.kit import catalogue
from roomy_hull.verdict.verdict import Verdict, judge
from tests.builders import bare


@pytest.fixture(scope="module")
def three() -> Verdict:
    """Three drawers of 497 mm in the wagon's bay."""
    drawer = catalogue.entry("drawer").make
    units = [
        drawer.but(id=f"d{n}", bay="B", u=100.0, width=497.0, depth=700.0, height=200.0)
        for n in range(3)
    ]
    return judge(bare(demo_job("tarn"), *units, goods=()))


@pytest.fixture(scope="module")
def of(three: Verdict) -> Gathered:
    return gather(three, Arranging(), 25.0)


def test_an_overlap_forbids_just_the_distances_that_overlap(three: Verdict, of: Gathered) -> None:
    """Drawers of 20 cells: less than 20 apart they overlap, at 20 they stand side by side."""
    judge_of = Judge(three, of)
    layout: Layout = (At(0, 6, 0), At(0, 16, 0), At(0, 6, 400))
    found = judge_of.judge(layout)
    assert [f.code for f in found.stops] == ["fit.overlap"]
    judge_of.learn(layout, found.stops)
    apart = judge_of.rules.bars[0, 1, 0, 0, 0]
    assert apart == {10}
    assert judge_of.rules.forbid(layout)
    assert not judge_of.rules.forbid((At(0, 6, 0), At(0, 26, 0), At(0, 6, 400)))


def test_what_stands_out_of_its_bay_does_so_wherever_it_does(three: Verdict, of: Gathered) -> None:
    judge_of = Judge(three, of)
    layout: Layout = (At(0, 40, 0), At(0, 6, 0), At(0, 6, 400))
    found = judge_of.judge(layout)
    assert "fit.outside.end" in {f.code for f in found.stops}
    judge_of.learn(layout, found.stops)
    assert (0, 0, 40, 0) in judge_of.rules.nowhere
    assert judge_of.rules.forbid(layout)


def test_what_needs_more_than_it_names_forbids_the_bay_as_it_is(
    three: Verdict, of: Gathered
) -> None:
    judge_of = Judge(three, of)
    layout: Layout = (At(0, 6, 0), At(0, 27, 0), At(0, 6, 400))
    strange = Finding("move.deadlock", "stop", "Nothing opens", (Ref("unit", "d0"),))
    judge_of.learn(layout, [strange])
    assert judge_of.rules.forbid(layout)
    other: Layout = (At(0, 7, 0), At(0, 27, 0), At(0, 6, 400))
    assert not judge_of.rules.forbid(other)


def test_three_that_are_named_may_not_be_just_there(three: Verdict, of: Gathered) -> None:
    judge_of = Judge(three, of)
    layout: Layout = (At(0, 6, 0), At(0, 27, 0), At(0, 6, 400))
    all_of_them = Finding(
        "fit.circle", "stop", "Round and round", tuple(Ref("unit", f"d{n}") for n in range(3))
    )
    judge_of.learn(layout, [all_of_them])
    assert judge_of.rules.exact == {((0, layout[0]), (1, layout[1]), (2, layout[2]))}


def test_an_opening_counts_as_the_unit_it_is_of(three: Verdict, of: Gathered) -> None:
    judge_of = Judge(three, of)
    finding = Finding(
        "move.blocked", "stop", "Stuck", (Ref("opening", "d1:1"), Ref("body part", "wall"))
    )
    assert judge_of.concerned(finding) == [1]
    assert judge_of.concerned(Finding("loads.rear", "stop", "Heavy")) == []


def test_avoiding_forbids_a_height_of_a_bay(of: Gathered, three: Verdict) -> None:
    judge_of, rules = Judge(three, of), Rules()
    layout: Layout = (At(0, 6, 0), At(0, 27, 0), At(0, 6, 203))
    judge_of.avoid(rules, layout, [Finding("access.reach", "look", "Far", (Ref("unit", "d2"),))])
    assert {cell for _, _, cell, _ in rules.nowhere} == set(range(of.instance.bays[0].cells))
    both = Finding("services.ignition", "look", "Sparks", (Ref("unit", "d0"), Ref("unit", "d1")))
    judge_of.avoid(rules, layout, [both])
    assert rules.forbid(layout)
    assert len(judge_of.rules) == 0


def test_layouts_after_learning_keep_what_was_learned(three: Verdict, of: Gathered) -> None:
    first = Search(of.instance, 4).run()
    best = first.layouts[0][1]
    judge_of = Judge(three, of)
    judge_of.learn(
        best, [Finding("fit.overlap", "stop", "Made up", (Ref("unit", "d0"), Ref("unit", "d1")))]
    )
    watch, clashes = rule_watch(of.instance, judge_of.rules)
    again = Search(of.instance, 4).run(watch, clashes, None, judge_of.rules.nowhere)
    assert again.layouts[0][0] >= first.layouts[0][0] - 1e-9
    assert not any(judge_of.rules.forbid(at) for _, at in again.layouts)


def test_a_copy_of_rules_is_its_own() -> None:
    rules = Rules()
    other = rules.copy()
    other.nowhere.add((0, 0, 0, 0))
    other.exact.add(((0, At(0, 0, 0)),))
    assert len(rules) == 0
    assert len(other) == 2


def test_a_layout_is_judged_once(three: Verdict, of: Gathered) -> None:
    judge_of = Judge(three, of)
    layout: Layout = (At(0, 6, 0), At(0, 27, 0), At(0, 6, 400))
    assert judge_of.judge(layout) is judge_of.judge(layout)
    assert judge_of.asked == 1
    assert msgspec.structs.asdict(judge_of.judge(layout))["stops"] == ()
