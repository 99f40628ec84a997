"""Levelling: hand-worked cases, what may never be broken whatever the network, the bound, absences and crews."""

import itertools
import random
from datetime import date

import pytest
from hypothesis import given
from hypothesis import strategies as st

from roomy_hull.core.errors import InputError
from roomy_hull.planning.calendar import Calendar, When
from roomy_hull.planning.levelling import Levelled, Problem
from roomy_hull.planning.placing import Means, Task, in_turn
from roomy_hull.shop.shop import shipped_shop
from roomy_hull.shop.workshop import Worker

TWO = Means({"p": (), "q": ()}, {})


def task(key: str, minutes: int, who: str, *after: str, **more: object) -> Task:
    """A task for some people, each by a letter."""
    return Task(key, minutes, after, tuple(who), **more)  # type: ignore[arg-type]  # fields of a task


def some(*tasks: Task) -> dict[str, Task]:
    """Tasks by their keys."""
    return {t.key: t for t in tasks}


def test_two_people_worked_by_hand() -> None:
    # Johnson's two machines: the shorter first job goes first; 2 + 4 + 2 = 8 h against 9 the other way round.
    tasks = some(
        task("a", 120, "p"), task("b", 180, "p"), task("c", 240, "q", "a"), task("d", 120, "q", "b")
    )
    problem = Problem(tasks, TWO)
    assert problem.bound == 480
    found = problem.level()
    assert found.end == 480
    assert found.gap == 0
    assert [found.placed[k].start for k in "abcd"] == [0, 120, 120, 360]
    other = in_turn(tasks, ["b", "a", "d", "c"], TWO)
    assert max(p.finish for p in other.values()) == 540


def test_the_cause_of_a_late_beginning_is_named() -> None:
    tasks = some(
        task("a", 60, "p"),
        task("b", 60, "p"),
        task("c", 30, "q", "b"),
        task("d", 10, "q", begins=500),
    )
    found = in_turn(tasks, ["a", "b", "c", "d"], TWO)
    assert found["a"].cause.kind == "nothing"
    assert (found["b"].cause.kind, found["b"].cause.by, found["b"].cause.op) == ("person", "p", "a")
    assert (found["c"].cause.kind, found["c"].cause.op) == ("after", "b")
    assert found["d"].cause.kind == "from"
    bench = Means({"p": (), "q": ()}, {"bench": 1})
    one = in_turn(
        some(task("a", 60, "p", station="bench"), task("b", 60, "q", station="bench")),
        ["a", "b"],
        bench,
    )
    assert (one["b"].start, one["b"].cause.kind, one["b"].cause.by) == (60, "station", "bench")


def test_who_goes_home_goes_on_when_back_and_a_crew_is_whole() -> None:
    away = Means({"p": ((60, 120),), "q": ()}, {})
    found = in_turn(some(task("a", 90, "p"), task("b", 30, "pq", "a", crew=2)), ["a", "b"], away)
    assert (found["a"].start, found["a"].finish) == (0, 150)
    assert (found["b"].start, set(found["b"].people)) == (150, {"p", "q"})
    # Nobody begins while they are away.
    late = in_turn(some(task("c", 10, "p", begins=70)), ["c"], away)
    assert (late["c"].start, late["c"].cause.kind) == (120, "away")


def test_a_wait_takes_time_and_nobody() -> None:
    found = in_turn(some(task("a", 60, "p"), Task("coat", 480, ("a",)), task("b", 60, "p", "coat"), task("x", 400, "p")),
                    ["a", "coat", "b", "x"], TWO)  # fmt: skip
    assert found["coat"].people == ()
    assert found["b"].start == 540
    # What has time is done while one waits.
    assert found["x"].start == 60


def test_what_cannot_be_planned_is_told() -> None:
    for tasks, words in (
        (some(task("a", 1, "z")), "nobody 'z'"), (some(task("a", 1, "p", crew=2)), "takes 2 people"),
        (some(task("a", 1, "p", station="forge")), "no station 'forge'"),
        (some(task("a", 1, "p", "b"), task("b", 1, "p", "a")), "wait for each other"),
    ):  # fmt: skip
        with pytest.raises(InputError, match=words):
            Problem(tasks, TWO)
    assert Problem({}, TWO).level() == Levelled({}, 0, 0, 0)


def network(seed: int, count: int, jobs: int = 1) -> tuple[dict[str, Task], Means]:
    """A network of some size on three people, two of whom are away at times, and three stations."""
    chance = random.Random(seed)
    tasks: dict[str, Task] = {}
    for job in range(jobs):
        for n in range(count):
            after = (
                {f"{job}.{chance.randrange(max(0, n - 8), n)}" for _ in range(chance.randrange(3))}
                if n
                else set()
            )
            who = chance.choice(("abc", "ab", "c", "bc", ""))
            tasks[f"{job}.{n}"] = Task(
                f"{job}.{n}", chance.randrange(10, 300), tuple(sorted(after)), tuple(who),
                2 if len(who) > 1 and chance.random() < 0.1 else 1, chance.choice(("s", "t", "u", "")) if who else "",
                chance.choice((0, 0, 0, 700)), str(job),
            )  # fmt: skip
    off = {"a": ((480, 960),), "b": ((100, 200), (2400, 2880)), "c": ()}
    return tasks, Means(off, {"s": 1, "t": 1, "u": 2})


def held(tasks: dict[str, Task], means: Means, found: Levelled) -> None:
    """Nothing is begun too early, nobody is at two things or at work while away, no station holds more than it can."""
    assert set(found.placed) == set(tasks)
    spans: dict[str, list[tuple[int, int]]] = {}
    for key, one in found.placed.items():
        task, work = tasks[key], one.finish - one.start
        assert one.start >= task.begins
        assert all(found.placed[b].finish <= one.start for b in task.after)
        assert len(one.people) == (task.crew if task.people else 0)
        assert set(one.people) <= set(task.people)
        there = [
            work - sum(max(0, min(b, one.finish) - max(a, one.start)) for a, b in means.people[p])
            for p in one.people
        ] or [work]
        assert max(there) >= task.minutes
        assert min(there) <= task.minutes or len(there) > 1
        for p in one.people:
            assert not any(a <= one.start < b for a, b in means.people[p])
        for line in (*one.people, *([f"{task.station}/{one.lane}"] if task.station else [])):
            spans.setdefault(line, []).append((one.start, one.finish))
        assert one.lane < means.stations.get(task.station, 1)
    for rows in spans.values():
        rows.sort()
        assert all(a[1] <= b[0] for a, b in itertools.pairwise(rows))
    assert found.end == max(p.finish for p in found.placed.values())
    assert found.end >= found.bound


@given(st.integers(0, 10_000), st.integers(1, 40))
def test_no_order_no_capacity_and_no_bound_is_ever_broken(seed: int, count: int) -> None:
    tasks, means = network(seed, count)
    problem = Problem(tasks, means)
    found = problem.level(rounds=4)
    held(tasks, means, found)
    assert found == problem.level(rounds=4)
    # An order that was found before is never made worse.
    assert problem.level(start=found.order).end <= max(found.end, problem.level().end)


@given(st.integers(0, 10_000), st.integers(2, 30))
def test_another_person_never_makes_the_bound_worse(seed: int, count: int) -> None:
    tasks, means = network(seed, count)
    more = {k: t._replace(people=(*t.people, "d")) if t.people else t for k, t in tasks.items()}
    wider = Means({**means.people, "d": ()}, means.stations)
    assert Problem(more, wider).bound <= Problem(tasks, means).bound


def test_eight_jobs_of_eighty_operations_are_near_their_bound() -> None:
    tasks, means = network(5, 80, 8)
    found = Problem(tasks, means).level()
    held(tasks, means, found)
    assert found.gap <= 0.05


def test_the_job_that_is_due_first_goes_first_and_rank_decides() -> None:
    tasks = some(
        *(
            task(f"{j}{n}", 240, "p", *([f"{j}{n - 1}"] if n else []), job=j)
            for j in "xy"
            for n in range(4)
        )
    )
    means = Means({"p": ()}, {})
    first = Problem(tasks, means, {"x": 960, "y": 1920}).level()
    assert first.late == 0
    assert max(first.placed[f"x{n}"].finish for n in range(4)) == 960
    both = Problem(tasks, means, {"x": 960, "y": 960}, {"x": 9, "y": 1}).level(rounds=30)
    assert max(both.placed[f"y{n}"].finish for n in range(4)) == 960
    assert both.late == 960 * 1


def test_a_search_can_be_given_up_and_shortens_what_rules_leave() -> None:
    tasks, means = network(81, 40)
    problem = Problem(tasks, means)
    begun = problem.level()
    asked: list[float] = []
    stopped = problem.level(10_000, lambda share: asked.append(share) or len(asked) < 3)  # type: ignore[func-returns-value]
    assert len(asked) <= 3
    assert stopped.end <= begun.end
    assert problem.level(150).end <= begun.end


def test_working_minutes_and_days() -> None:
    shop = shipped_shop().workshop
    calendar = Calendar(date(2027, 2, 5), shop)  # a Friday
    assert calendar.at(0) == When(date(2027, 2, 5), 0)
    assert calendar.at(480) == When(date(2027, 2, 8), 0)
    assert calendar.at(480, ends=True) == When(date(2027, 2, 5), 480)
    assert calendar.minute(date(2027, 2, 6)) == 480
    assert calendar.minute(date(2027, 2, 8), 1.5) == 570
    assert calendar.minute(date(2020, 1, 1)) == 0
    assert calendar.end_of(date(2027, 2, 7)) == 480
    assert calendar.at(10**9).day == calendar.days[-1]
    part = Worker("p", "P", ("bench",), (1, 2, 3, 4), (("2027-02-09", "2027-02-09"),))
    # Friday is not theirs, on Tuesday they are away.
    assert calendar.off(part)[:2] == ((0, 480), (960, 1440))
    closed = Calendar(date(2027, 2, 5), shop.__class__(**{
        f: getattr(shop, f) for f in shop.__struct_fields__} | {"closed": ("2027-02-08",), "day_hours": 6.0}))  # fmt: skip
    assert closed.at(360) == When(date(2027, 2, 9), 0)
