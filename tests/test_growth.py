"""Work is counted, not timed: after one move only what rests on it is worked out again, and growth stays even."""

from collections import Counter
from collections.abc import Callable
from typing import Any

import pytest

from jobs import crowded, frozen
from roomy_hull.job.edits import units as edits
from roomy_hull.job.model import Job
from roomy_hull.making import works
from roomy_hull.planning import levelling, placing
from roomy_hull.studies.access import looking
from roomy_hull.verdict.verdict import Verdict, judge


@pytest.fixture
def counted(monkeypatch: pytest.MonkeyPatch) -> Counter[str]:
    """How often what is long is done: spaces looked at, operations placed, bounds, parts joined."""
    found: Counter[str] = Counter()

    def count(owner: Any, name: str, word: str) -> None:
        real: Callable[..., Any] = getattr(owner, name)

        def call(*values: Any, **more: Any) -> Any:
            found[word] += 1
            return real(*values, **more)

        monkeypatch.setattr(owner, name, call)

    count(looking, "look", "looks")
    count(placing.Board, "place", "placed")
    count(levelling.Problem, "level", "plans")
    count(works, "joined", "joined")
    looking.looked.cache_clear()
    works._work.cache_clear()
    works._pattern.cache_clear()
    return found


def moved(job: Job, verdict: Verdict, key: str, by: float) -> Verdict:
    unit = job.thing(key)
    return judge(edits.changed(job, key, u=unit.u + by), verdict)  # type: ignore[union-attr]


def test_a_move_looks_at_few_spaces_and_joins_nothing(counted: Counter[str]) -> None:
    job = crowded(60)
    verdict = judge(job)
    spaces, people = len(verdict.access.spaces), len(verdict.access.seen[0])
    assert counted["looks"] == spaces * people
    counted.clear()
    after = moved(job, verdict, "d7", -25.0)
    assert len(after.access.spaces) == spaces
    assert counted["looks"] <= 4 * people
    assert counted["joined"] == 0
    assert counted["plans"] <= 2
    assert moved(
        job, verdict, "d50", -25.0
    )  # in a corner of the rear, where everybody reaches past it
    assert counted["looks"] <= (4 + spaces / 4) * people
    # Three orders at most are tried on so many operations, each placed forth, back and forth.
    assert counted["placed"] <= 2 * (levelling.MOST_PLACED + 3 * len(after.results["build"].tasks))


def test_what_changes_nothing_is_worked_out_of_nothing(counted: Counter[str]) -> None:
    job = frozen()
    verdict = judge(job)
    counted.clear()
    renamed = judge(edits.changed(job, "net-drawer", note="Nets of 10 mm"), verdict)
    assert renamed.access.moves == verdict.access.moves
    assert not counted


def test_while_a_hand_moves_nothing_long_is_done(counted: Counter[str]) -> None:
    job = crowded(60)
    verdict = judge(job)
    counted.clear()
    unit = job.thing("d30")
    held = judge(edits.changed(job, "d30", u=unit.u - 25.0), verdict, moving=True)  # type: ignore[union-attr]
    assert set(held.held) == {"access", "build", "gaps", "set-ups"}
    assert not counted


def test_parts_that_are_alike_are_joined_once(counted: Counter[str]) -> None:
    verdict = judge(crowded(60))
    made = works.works_of(verdict.assembly).works
    assert len(made) > 60
    # Sixty drawers are one pattern; tray, canopy and what else there is are others.
    assert counted["joined"] == len({id(w.pattern) for w in made}) < 10
    names = {p.name for w in made for p in w.parts}
    assert {"Drawer 3: front", "Drawer 59: front"} <= names
    drawer = next(w for w in made if w.title == "Drawer 59")
    assert all(
        j.owner == drawer.owner and j.one.startswith(("Drawer 59", "pair")) for j in drawer.joints
    )


def test_work_grows_no_faster_than_the_job(counted: Counter[str]) -> None:
    done = {}
    for units in (20, 60, 180):
        counted.clear()
        verdict = judge(crowded(units))
        done[units] = counted["looks"], counted["placed"] / len(verdict.results["build"].tasks)
    looks, rounds = zip(*done.values(), strict=True)
    assert (looks[2] - looks[1]) / 120 == pytest.approx((looks[1] - looks[0]) / 40)
    assert (
        rounds[0] >= rounds[1] >= rounds[2]
    )  # each operation is placed no more often in a large plan
