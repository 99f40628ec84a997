"""A run in hand: a process of its own that can be stopped at once, and a page model that says what it found."""

import os
import signal
import time

import msgspec
import pytest
from tests.builders import begun

from roomy_hull.arrange.objective import Value
from roomy_hull.arrange.offers import Arranged, Offer, Told
from roomy_hull.arrange.reasons import Reason
from roomy_hull.formats.demo import demo_job
from roomy_hull.formats.settings import Settings
from roomy_hull.job.edits import units as unit_edits
from roomy_hull.session.actions import arranging
from roomy_hull.session.arranging import ArrangeRun
from roomy_hull.session.doing import do
from roomy_hull.session.pages.arranging import ArrangeModel
from roomy_hull.session.session import Session
from roomy_hull.shop.shop import shipped_shop

JOB = demo_job("tarn")


def until(run: ArrangeRun, seconds: float = 60.0) -> None:
    """Wait for a run to end, as the page does."""
    end = time.monotonic() + seconds
    while run.pump():
        assert time.monotonic() < end, "the run did not end"
        time.sleep(0.01)


@pytest.fixture
def run():  # type: ignore[no-untyped-def]  # a generator
    made = ArrangeRun()
    yield made
    made.close()


@pytest.fixture
def wagon(keeping: Settings):  # type: ignore[no-untyped-def]  # a generator of sessions
    made = Session(JOB, keeping)
    yield made
    made.arranging.close()


def worth(points: float, **parts: float) -> Value:
    return Value(
        **(
            {"axle": 0.0, "balance": 0.0, "low": 0.0, "reach": 0.0, "runs": 0.0, "room": 0.0}
            | parts
        ),
        points=points,
    )


def found(session: Session, *offers: Offer) -> Arranged:
    """A run's end, as the process sends it."""
    return Arranged(offers, "Best found.", worth(50.0), 40.0, True, 4, 25.0, None, None, 3, 1.0)


def offered(session: Session, points: float, u: float = 700.0) -> Offer:
    job = unit_edits.changed(session.job, "cold", u=u)
    return Offer("best", job, worth(points, axle=12.0), (), ())


def test_a_run_tells_its_course_and_ends_with_layouts(run: ArrangeRun) -> None:
    heard: list[int] = []
    run.changed.connect(lambda: heard.append(1))
    run.start(JOB, shipped_shop(), 4.0, 25.0)
    assert run.working
    until(run)
    assert run.trouble == ""
    assert run.result is not None
    assert run.result.offers
    assert run.trace
    assert [t[0] for t in run.trace] == sorted(t[0] for t in run.trace)
    assert heard


def test_stopped_the_process_is_gone_and_the_best_stays(run: ArrangeRun) -> None:
    run.start(JOB, shipped_shop(), 60.0, 25.0)
    end = time.monotonic() + 60
    while run.told is None or run.told.job is None:
        run.pump()
        assert time.monotonic() < end
        time.sleep(0.01)
    process = run._worker
    run.stop()
    assert not run.working
    assert process is not None
    assert not process.alive
    assert run.told is not None
    assert run.told.job is not None
    run.start(JOB, shipped_shop(), 3.0, 25.0)
    until(run)
    assert run.result is not None


def test_the_process_serves_one_run_after_another(run: ArrangeRun) -> None:
    run.warm()
    process = run._worker
    for _ in range(2):
        run.start(JOB, shipped_shop(), 1.0, 50.0)
        until(run)
    assert run._worker is process


def test_what_cannot_be_arranged_comes_back_in_words(run: ArrangeRun) -> None:
    pinned = msgspec.structs.replace(
        JOB, arrange=JOB.arrange.but(pinned=tuple(u.id for u in JOB.units))
    )
    run.start(pinned, shipped_shop(), 3.0, 25.0)
    until(run)
    assert "nothing to arrange" in run.trouble
    assert run.result is None


def test_a_process_that_dies_is_told(run: ArrangeRun) -> None:
    run.start(JOB, shipped_shop(), 60.0, 25.0)
    assert run._worker is not None
    os.kill(run._worker.pid, signal.SIGKILL)
    until(run)
    assert "start it again" in run.trouble


def test_why_is_asked_of_the_same_process(run: ArrangeRun) -> None:
    run.ask_why(JOB, shipped_shop(), "cold", 25.0)
    assert run.asking
    assert not run.working
    until(run)
    assert isinstance(run.reasons["cold"], Reason)


def test_another_job_in_hand_forgets_what_was_found(wagon: Session) -> None:
    wagon.arranging._take("done", found(wagon, offered(wagon, 45.0)))
    wagon.take(demo_job("lowfold"), None)
    assert wagon.arranging.result is None


def test_begin_refuses_at_once_what_cannot_be(keeping: Settings) -> None:
    session = Session(begun("Fen", "bare tray"), keeping)
    assert do(session, "arrange.go") is False
    assert "no bay" in session.messages.text
    assert session.look.page("Fit-out") == "Arrange"


def test_rows_say_where_things_are_and_may_go(wagon: Session) -> None:
    model = ArrangeModel(wagon)
    arranging.want(wagon, entry="drawer")
    arranging.pin(wagon, things=["cold"], on=True)
    rows = dict(zip(model.things(), model.rows(), strict=True))
    assert [c[0] for c in rows["drawer"]] == ["Drawer", "to come", "anywhere", "drop"]
    assert [c[0] for c in rows["cold"]][1:] == ["Tailgate", "", "pinned"]


def test_cells_do_what_they_say(wagon: Session) -> None:
    model = ArrangeModel(wagon)
    key = arranging.want(wagon, entry="drawer")
    row = model.things().index(key)
    model.press(row, 2)
    assert wagon.job.arrange.bays[0].bays == ("B",)
    model.press(row, 2)
    assert wagon.job.arrange.bays == ()
    model.press(row, 3)
    assert wagon.job.arrange.wanted == ()
    cold = model.things().index("cold")
    model.press(cold, 3)
    assert wagon.job.arrange.pinned == ("cold",)
    model.press(cold, 3)
    assert wagon.job.arrange.pinned == ()
    model.press(cold, 0)
    assert wagon.selection.key == "cold"
    model.press(99, 0)


def test_what_goes_into_no_bay_is_not_wanted(wagon: Session) -> None:
    assert arranging.want(wagon, entry="tent") == ""
    assert "goes into no bay" in wagon.messages.text
    assert wagon.job.arrange.wanted == ()


def test_weights_are_told_in_words_and_undone(wagon: Session) -> None:
    model = ArrangeModel(wagon)
    assert model.weight_words("axle") == "usual"
    arranging.weigh(wagon, part="axle", weight=4.0)
    assert model.weight_words("axle") == "above all"
    assert wagon.job.arrange.own_weights
    wagon.undo()
    assert model.weight_words("axle") == "usual"
    arranging.weigh(wagon, part="axle", weight=0.0)
    do(wagon, "arrange.follow")
    assert not wagon.job.arrange.own_weights


def test_the_numbers_follow_the_run_and_then_the_layout(wagon: Session) -> None:
    model, run = ArrangeModel(wagon), wagon.arranging
    assert model.numbers() == (None, None)
    run._take("told", Told("filling the bays", 48.0, 40.0, 1.0))
    assert model.numbers() == (48.0, 40.0)
    run._take("done", found(wagon, offered(wagon, 45.0), offered(wagon, 46.0, 725.0)))
    assert model.numbers() == (45.0, 40.0)
    model.choose(1)
    assert model.numbers() == (46.0, 40.0)
    assert model.job().thing("cold").u == 725.0  # type: ignore[union-attr]
    assert [row[1][0] for row in model.offer_rows()] == ["45.0", "46.0"]
    assert model.figures("axle") == "0 → 12 kg"


def test_taking_is_one_step_and_stands_beside_what_there_was(wagon: Session) -> None:
    run = wagon.arranging
    run.of = wagon.job
    before = wagon.job
    run._take("done", found(wagon, offered(wagon, 45.0), offered(wagon, 46.0, 725.0)))
    assert do(wagon, "arrange.take")
    assert wagon.job.thing("cold").u == 700.0  # type: ignore[union-attr]
    assert [v.name for v in wagon.job.variants] == [before.layout, "Arranged otherwise"]
    wagon.undo()
    assert wagon.job == before


def test_a_job_changed_meanwhile_is_told_and_nothing_is_overwritten(wagon: Session) -> None:
    model, run = ArrangeModel(wagon), wagon.arranging
    run.of = wagon.job
    run._task = "arrange"
    wagon.edit("move", unit_edits.changed(wagon.job, "water", u=1050.0))
    assert "the run goes on with what it began with" in model.words()
    run._take("done", found(wagon, offered(wagon, 45.0)))
    there = wagon.job
    assert do(wagon, "arrange.take") is False
    assert wagon.job is there
    assert "changed since" in wagon.messages.text


def test_stopped_the_best_so_far_can_be_taken(wagon: Session) -> None:
    model, run = ArrangeModel(wagon), wagon.arranging
    run.of = wagon.job
    job = unit_edits.changed(wagon.job, "cold", u=700.0)
    run._take("told", Told("filling the bays", 48.0, 40.0, 1.0, job))
    assert "Stopped" in model.words()
    assert model.job() is job
    assert do(wagon, "arrange.take")
    assert wagon.job.thing("cold").u == 700.0  # type: ignore[union-attr]


def test_pairs_are_kept_apart_or_near(wagon: Session) -> None:
    model = ArrangeModel(wagon)
    arranging.near(wagon, a="cold", b="battery")
    assert "Cold drawer 40 l near House battery" in model.wishes()
    arranging.near(wagon, a="cold", b="battery")
    assert "near" not in model.wishes()

    class Says:
        def name(self, _words: str, _wish: str) -> str:
            return self.text

        text = "150"

    wagon.asker = Says()  # type: ignore[assignment]
    arranging.apart(wagon, a="cold", b="battery")
    assert "150 mm apart" in model.wishes()
    Says.text = "wide"
    arranging.apart(wagon, a="cold", b="water")
    assert wagon.messages.trouble
    do(wagon, "arrange.gas")
    assert "gas" not in model.wishes()


def test_what_to_do_first_is_said(keeping: Settings) -> None:
    empty = Session(begun("Fen", "full canopy"), keeping)
    model = ArrangeModel(empty)
    assert "Take what has to go in from the stores" in model.words()
    bare = Session(begun("Fen", "bare tray"), keeping)
    assert "add a canopy" in ArrangeModel(bare).words()


def test_the_side_and_what_is_pinned_are_drawn(wagon: Session) -> None:
    model = ArrangeModel(wagon)
    assert model.sides() == ["rear"]
    do(wagon, "arrange.pin_all")
    assert model.pinned() == {u.id for u in JOB.units}
    do(wagon, "arrange.pin_all")
    assert model.pinned() == frozenset()
    wagon.selection.select("cold")
    do(wagon, "arrange.pin")
    assert model.pinned() == {"cold"}
