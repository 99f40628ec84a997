"""A whole run on real jobs: every layout offered passes the verdict, none is dearer than the one in hand."""

import msgspec
import pytest

from roomy_hull.arrange.arranger import arrange
from roomy_hull.arrange.offers import Arranged, Told
from roomy_hull.arrange.reasons import why_here
from roomy_hull.core.errors import InputError
from roomy_hull.formats.arrange_json import arrange_json, arrange_rows
from roomy_hull.formats.demo import DEMOS, demo_job
from roomy_hull.job.arranging import Arranging, Weights
from roomy_hull.job.edits import arranging as edits
from roomy_hull.job.edits import layouts as layout_edits
from roomy_hull.job.model import Job
from roomy_hull.kit import catalogue
from roomy_hull.verdict.verdict import Verdict, judge
from tests.builders import begun
from tests.sweeping import AGES, bounded, some


@pytest.fixture(scope="module")
def seed_bank() -> Verdict:
    return judge(demo_job("tarn"))


@pytest.fixture(scope="module")
def run(seed_bank: Verdict) -> Arranged:
    """The wagon arranged anew, in the rails' own steps."""
    return arrange(seed_bank, Arranging(), AGES, 25.0, bounded(1500))


def stops(job: Job, before: Verdict) -> set[object]:
    """Stops of a job, judged from nothing, that were not there before."""
    had = {f.key for f in before.findings if f.severity == "stop"}
    return {f.key for f in judge(job).findings if f.severity == "stop" and f.key not in had}


def test_every_offer_passes_the_verdict_from_nothing(seed_bank: Verdict, run: Arranged) -> None:
    assert run.offers
    for offer in run.offers:
        assert stops(offer.job, seed_bank) == set()
        assert offer.stops == ()
        assert sorted(u.id for u in offer.job.units) == sorted(u.id for u in seed_bank.job.units)


def test_it_is_better_than_by_hand_and_says_how_good(run: Arranged) -> None:
    assert run.hand is not None
    assert run.offers[0].value.points < run.hand.points
    assert run.proved
    assert f"{run.offers[0].value.points:.1f} points" in run.words
    best = next(o for o in run.offers if o.sort == "best")
    assert run.bound == pytest.approx(best.value.points, abs=1e-4)


def test_the_others_are_other_layouts(run: Arranged) -> None:
    places = [frozenset((u.id, u.bay, u.u, u.v, u.w) for u in o.job.units) for o in run.offers]
    assert len(set(places)) == len(places)


def test_json_and_table_say_the_same(run: Arranged) -> None:
    told = arrange_json(run)
    rows = arrange_rows(run)
    assert [row[1] for row in rows[1:]] == [x["sort"] for x in told["layouts"]]
    assert told["proved"] is True
    assert told["layouts"][0]["worth"]["points"] == pytest.approx(
        run.offers[0].value.points, abs=1e-3
    )
    assert {u["id"] for u in told["layouts"][0]["units"]} == {u.id for u in run.offers[0].job.units}


@pytest.mark.parametrize("name", some(list(DEMOS), 2))
def test_a_demo_is_never_made_worse(name: str) -> None:
    verdict = judge(demo_job(name))
    found = arrange(verdict, Arranging(), AGES, 25.0, bounded(500))
    assert found.hand is not None
    assert min(o.value.points for o in found.offers) <= found.hand.points + 1e-6
    assert stops(found.offers[0].job, verdict) == set()


@pytest.mark.parametrize("part", some(["axle", "balance", "low", "reach", "runs", "room"], 3))
def test_whatever_counts_most_the_layout_is_no_worse_than_by_hand(
    seed_bank: Verdict, part: str
) -> None:
    wish = Arranging(own_weights=True, weights=Weights(**{part: 4.0}))  # type: ignore[arg-type]
    found = arrange(seed_bank, wish, AGES, 25.0, bounded(400))
    assert found.hand is not None
    assert min(o.value.points for o in found.offers) <= found.hand.points + 1e-6


def test_it_can_be_ended_at_any_time_and_keeps_the_best(seed_bank: Verdict) -> None:
    heard: list[Told] = []

    def until_found(told: Told) -> bool:
        heard.append(told)
        return told.best is None

    found = arrange(seed_bank, Arranging(), 60.0, 25.0, until_found)
    assert found.stopped
    assert any(t.best is not None for t in heard)
    assert found.offers
    at_once = arrange(seed_bank, Arranging(), 60.0, 25.0, lambda _t: False)
    assert at_once.stopped
    assert not at_once.proved


def test_what_is_told_on_the_way_gets_better_only(seed_bank: Verdict) -> None:
    heard: list[Told] = []

    def hear(told: Told) -> bool:
        heard.append(told)
        return len(heard) < 1000

    arrange(seed_bank, Arranging(), AGES, 25.0, hear)
    assert [t.seconds for t in heard] == sorted(t.seconds for t in heard)
    assert any(t.job is not None and len(t.job.units) == len(seed_bank.job.units) for t in heard)


def test_new_things_find_a_place(seed_bank: Verdict) -> None:
    job = seed_bank.job
    for key in ("outlet", "fuse-board"):
        job = edits.wanted(job, catalogue.entry(key).make)
    found = arrange(judge(job), job.arrange, AGES, 25.0, bounded(400))
    assert found.hand is None
    assert {"outlet", "fuse-board"} <= {u.id for u in found.offers[0].job.units}
    done = edits.taken(job, [o.job for o in found.offers], 0)
    assert done.arrange.wanted == ()
    assert next(v.name for v in done.variants) == job.layout


def test_too_much_is_refused_with_the_things_that_are_too_much(seed_bank: Verdict) -> None:
    job = seed_bank.job
    for _ in range(4):
        job = edits.wanted(job, catalogue.entry("drawer-low").make)
    found = arrange(judge(job), job.arrange, AGES, 25.0)
    assert found.offers == ()
    assert found.reason is not None
    assert set(found.too_many) <= {u.id for u in (*job.units, *job.arrange.wanted)}
    assert "do not go together" in found.words or "cannot stand together" in found.words
    told = arrange_json(found)
    assert told["does_not_fit"]["things"] == list(found.too_many)
    assert told["layouts"] == []


def test_one_larger_than_every_bay_is_named(seed_bank: Verdict) -> None:
    job = edits.wanted(
        seed_bank.job, catalogue.entry("shelf").make.but(name="Ladder rack", width=3000.0)
    )
    found = arrange(judge(job), job.arrange, AGES)
    assert found.words.startswith("Ladder rack is too large for every bay")
    assert found.too_many == ("shelf",)


def test_a_new_job_is_laid_out_from_the_stores_without_a_finding() -> None:
    """A dual cab with a canopy, ten things from the stores: what is offered first has no finding about them."""
    job = begun("Marl", "full canopy")
    for key in ("fridge-drawer", "drawer", "drawer-small", "shelf", "tank-60", "battery", "charger", "fuse-board",
                "extinguisher", "first-aid"):  # fmt: skip
        job = edits.wanted(job, catalogue.entry(key).make)
    verdict = judge(job)
    found = arrange(verdict, job.arrange, AGES, progress=bounded(300))
    assert found.offers, found.words
    assert found.offers[0].stops == ()
    assert found.offers[0].looks == ()
    assert stops(found.offers[0].job, verdict) == set()


def test_why_a_thing_is_there(seed_bank: Verdict, run: Arranged) -> None:
    best = next(o for o in run.offers if o.sort == "best")
    verdict = judge(best.job)
    why = why_here(verdict, Arranging(), "cold", 25.0)
    assert why.thing == "cold"
    assert why.words.startswith("Cold drawer 40 l: elsewhere in its bay")
    assert why.loses is not None
    assert why.loses >= -0.3
    with pytest.raises(InputError, match="no unit 'ghost'"):
        why_here(verdict, Arranging(), "ghost", 25.0)
    with pytest.raises(InputError, match="pinned"):
        why_here(verdict, Arranging(pinned=("cold",)), "cold", 25.0)


def test_why_a_thing_is_in_its_bay() -> None:
    verdict = judge(demo_job("reedholm"))
    why = why_here(verdict, Arranging(), "extinguisher")
    assert "in another bay" in why.words
    assert set(why.parts) == {"axle", "balance", "low", "reach", "runs", "room"}


def test_a_layout_with_findings_is_not_the_only_one() -> None:
    """On the flatbed the best has the extinguisher out of reach: another one is put first, and both are told."""
    found = arrange(judge(demo_job("reedholm")), Arranging(), AGES, 25.0, bounded(2500))
    assert found.offers[0].looks == ()
    assert min(o.value.points for o in found.offers) <= found.offers[0].value.points


def test_variants_beyond_twelve_are_left_out(seed_bank: Verdict, run: Arranged) -> None:
    job = seed_bank.job
    for n in range(11):
        job = layout_edits.kept(job, f"Try {n}")
        job = msgspec.structs.replace(
            job, units=tuple(u.but(note=str(n)) if u.id == "cold" else u for u in job.units)
        )
    done = edits.taken(job, [o.job for o in run.offers], 0)
    assert len(done.variants) == 12
    assert done.units == run.offers[0].job.units
