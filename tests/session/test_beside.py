"""What is long is worked out beside the window: the newest job, the very results, and nothing stale told as current."""

from collections.abc import Iterator

import msgspec
import pytest

from roomy_hull.core.errors import UserError
from roomy_hull.formats.settings import Settings
from roomy_hull.job.edits import units as edits
from roomy_hull.job.model import Job
from roomy_hull.session import beside
from roomy_hull.session.beside import Beside
from roomy_hull.session.session import Session
from roomy_hull.verdict.verdict import judge

LONG = {"access", "build", "gaps", "set-ups"}


@pytest.fixture
def session(stocked: Job, keeping: Settings) -> Iterator[Session]:
    """A session whose long studies are worked out in a process of their own, everything of the demo settled."""
    found = Session(stocked, keeping, whole=False)
    found.settle_beside(Beside())
    found.complete()
    settle(found)
    yield found
    assert found.beside is not None
    found.beside.close()


def settle(session: Session) -> None:
    """Wait until everything is worked out."""
    assert session.beside is not None
    while session.beside.working or session.known.held:
        session.beside.wait()
        session.pump()


def move(session: Session, key: str, by: float) -> Job:
    unit = session.job.thing(key)
    session.edit("Move", edits.changed(session.job, key, u=unit.u + by))  # type: ignore[union-attr]
    return session.job


def test_nothing_known_yet_is_empty_and_marked(stocked: Job, keeping: Settings) -> None:
    session = Session(stocked, keeping, whole=False)
    session.settle_beside(Beside())
    session.complete()
    assert set(session.known.held) == LONG
    assert session.known.access.spaces == ()
    assert session.known.count("stop", "Access") == session.known.count("look", "Access") == 0
    settle(session)
    assert session.known.access.spaces
    assert session.known.findings == judge(stocked).findings
    assert session.beside is not None
    session.beside.close()


def test_a_step_is_quick_and_what_is_long_follows(session: Session) -> None:
    before = session.known
    told = []
    session.changed.connect(lambda: told.append(set(session.known.held)))
    job = move(session, "net-drawer", 25.0)
    assert set(session.known.held) == LONG
    assert session.known.access is before.access
    assert session.known.fit is not before.fit
    settle(session)
    assert told == [LONG, set()]
    fresh = judge(job)
    assert session.known.findings == fresh.findings
    assert session.known.access.seen == fresh.access.seen
    assert session.known.access.moves == fresh.access.moves
    assert session.known.gaps == fresh.gaps
    ours, theirs = session.known.results["build"], fresh.results["build"]
    assert (ours.tasks, ours.levelled) == (theirs.tasks, theirs.levelled)


def test_the_newest_job_wins(session: Session) -> None:
    asked = []
    assert session.beside is not None
    send = session.beside.ask
    session.beside.ask = lambda job, shop, **more: (asked.append(job), send(job, shop, **more))[1]  # type: ignore[func-returns-value, method-assign]
    jobs = [move(session, "net-drawer", by) for by in (25.0, -50.0, 25.0, 50.0)]
    settle(session)
    assert session.known.job is jobs[-1]
    assert session.known.findings == judge(jobs[-1]).findings
    # Of those between the first and the last none was begun.
    assert [asked.index(j) for j in asked if j is jobs[1] or j is jobs[2]] == [1, 2]


def test_another_shop_is_another_question(session: Session) -> None:
    job, shop = move(session, "net-drawer", 25.0), session.shop
    slower = msgspec.structs.replace(
        shop, workshop=msgspec.structs.replace(shop.workshop, rates=msgspec.structs.replace(shop.workshop.rates, weigh=40.0))
    )  # fmt: skip
    session.set_shop(slower)  # while the job is worked out for the one before
    settle(session)
    ours, theirs = session.known.results["build"], judge(job, shop=slower).results["build"]
    assert ours.tasks == theirs.tasks
    assert ours.tasks != judge(job, shop=shop).results["build"].tasks


def test_a_step_back_is_settled_at_once(session: Session) -> None:
    before = session.known
    session.preview(edits.changed(session.job, "net-drawer", u=300.0))
    assert session.known.held
    session.cancel()
    assert session.known is before


def test_who_needs_the_whole_waits_for_it(session: Session) -> None:
    told = []
    session.changed.connect(lambda: told.append(set(session.known.held)))
    job = move(session, "net-drawer", 25.0)
    assert session.verdict.held == {}
    assert session.verdict.job is job
    session.pump()
    assert told == [LONG, set()]
    settle(session)
    assert session.known is session.verdict


def test_a_process_that_ended_is_made_good(session: Session) -> None:
    assert session.beside is not None
    assert session.beside._worker is not None
    session.beside._worker.close()
    job = move(session, "net-drawer", 25.0)
    settle(session)
    assert session.known.findings == judge(job).findings
    job = move(session, "net-drawer", 25.0)
    settle(session)
    assert session.known.findings == judge(job).findings


def test_what_cannot_be_worked_out_is_told(
    session: Session, monkeypatch: pytest.MonkeyPatch
) -> None:
    def refuse(*_values: object, **_more: object) -> None:
        raise UserError("It cannot be judged.")

    move(session, "net-drawer", 25.0)
    assert session.beside is not None
    monkeypatch.setattr(
        session.beside, "taken", lambda: beside.Done(session.job, session.shop, None)
    )
    monkeypatch.setattr("roomy_hull.session.session.judge", refuse)
    session.pump()
    assert session.messages.text == "It cannot be judged."
    assert session.known.held


def test_equal_parts_are_known_again_by_identity(stocked: Job) -> None:
    other = msgspec.json.decode(msgspec.json.encode(stocked), type=Job)
    assert beside.shared(other, stocked) is stocked
    moved = edits.changed(other, "net-drawer", u=325.0)
    found = beside.shared(moved, stocked)
    assert found == moved
    assert found.body is stocked.body
    same = [a is b for a, b in zip(found.units, stocked.units, strict=True)]
    assert same.count(False) == 1
    fewer = edits.removed(moved, "net-drawer")
    assert all(u is stocked.thing(u.id) for u in beside.shared(fewer, stocked).units)
