"""Any things of the stores in any vehicle of the library: what the search calls a layout fits for the verdict too."""

import random

import pytest

from roomy_hull.arrange.gather import Gathered, gather
from roomy_hull.arrange.greedy import rough
from roomy_hull.arrange.judging import Rules, rule_watch
from roomy_hull.arrange.layouts import as_it_stands, in_cells, placed
from roomy_hull.arrange.objective import broken, value
from roomy_hull.arrange.search import Search
from roomy_hull.formats.vehiclefile import library
from roomy_hull.job.edits import arranging as edits
from roomy_hull.job.model import Job
from roomy_hull.kinds.registry import Unit
from roomy_hull.kit import catalogue
from roomy_hull.kit.body import fitting
from roomy_hull.verdict.verdict import Verdict, judge
from tests.sweeping import bounded, some

PACKED = ("fit.overlap", "fit.outside", "fit.opening", "fit.arch", "fit.body", "fit.unit")
"""Findings of what stands in what: none of them may come of a layout."""
NARROW = ("fit.running", "fit.vent", "fit.pitch", "fit.slots")
"""Findings of what stands too near: none between units, or of a unit and a wall."""


def any_job(seed: int) -> tuple[Job, Verdict]:
    """A vehicle with a body that has bays, and a handful of things that fit somewhere in it by themselves."""
    chance = random.Random(seed)
    while True:
        vehicle = chance.choice(library()).vehicle
        choices = [c for c in fitting.choices(vehicle) if "bare" not in c]  # type: ignore[arg-type]
        if choices:
            job = fitting.begun("Trial", vehicle, chance.choice(choices))  # type: ignore[arg-type]
            if job.body.bays():
                break
    some = [e.make for e in catalogue.entries() if e.use not in ("Outside", "Vehicle")]
    for made in chance.sample(some, chance.randint(3, 8)):
        job = edits.wanted(job, made)
    # What is too large for every bay by itself is left out again.
    of = gather(judge(job), job.arrange, 25.0)
    for item in of.instance.items[: of.instance.count]:
        if not any(item.spots) and len(job.arrange.wanted) > 1:
            job = edits.unwanted(job, item.id)
    return job, judge(job)


def flaws(of: Gathered, job: Job, before: Verdict, codes: tuple[str, ...]) -> list[str]:
    """Findings of some codes about what was arranged, that were not there before."""
    mine = {u.id for u in of.units}
    had = {f.key for f in before.findings}
    return [
        f.title for f in judge(job).findings
        if f.code.startswith(codes) and mine & set(f.things) and f.key not in had
    ]  # fmt: skip


@pytest.mark.parametrize("seed", some(range(36), 9))
def test_layouts_fit_for_the_verdict(seed: int) -> None:
    job, verdict = any_job(seed)
    of = gather(verdict, job.arrange, 25.0 if seed % 2 else 50.0)
    found = Search(of.instance, 3, bounded(2000), thin=False, hard=20_000).run(
        *rule_watch(of.instance, Rules())
    )
    first = rough(of.instance)
    layouts = [at for _, at in found.layouts[:3]] + ([first] if first is not None else [])
    for layout in layouts:
        assert broken(of.instance, layout) == []
        there = placed(of, job, layout)
        assert flaws(of, there, verdict, PACKED) == []
        assert flaws(of, there, verdict, NARROW) == []
        again = as_it_stands(of, there)
        assert again is not None
        assert again.points == pytest.approx(value(of.instance, layout).points, abs=1e-6)


@pytest.mark.parametrize("seed", some(range(100, 112), 4))
def test_a_layout_read_back_is_no_worse_by_more_than_its_steps(seed: int) -> None:
    """A layout of the search, taken into the job, is found again in cells; nothing of it is lost."""
    job, verdict = any_job(seed)
    of = gather(verdict, job.arrange, 50.0)
    layout = rough(of.instance)
    if layout is None:
        return
    there = placed(of, job, layout)
    again = gather(judge(there), there.arrange.but(wanted=()), 50.0)
    back = in_cells(again, there)
    if back is not None:
        assert broken(again.instance, back) == []
        assert {u.id for u in placed(again, there, back).units} == {u.id for u in there.units}


def test_rough_keeps_to_what_may_not_be() -> None:
    job, verdict = any_job(3)
    of = gather(verdict, job.arrange, 50.0)
    first = rough(of.instance)
    assert first is not None
    rules = Rules()
    rules.exact.add(tuple(enumerate(first)))
    other = rough(of.instance, rules)
    assert other != first
    assert rough(of.instance, alive=lambda: False) is None


def test_too_many_of_one_thing_are_given_up_roughly() -> None:
    job, _ = any_job(3)
    low: Unit = catalogue.entry("drawer-low").make
    for _ in range(20):
        job = edits.wanted(job, low)
    of = gather(judge(job), job.arrange, 50.0)
    assert rough(of.instance) is None
