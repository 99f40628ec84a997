"""The workshop's folder: its jobs, its shop, what it has learnt; and the board of all jobs."""

from collections.abc import Callable
from datetime import date
from pathlib import Path
from typing import NamedTuple

from roomy_hull.core.days import today
from roomy_hull.core.errors import FileError, UserError
from roomy_hull.formats import jobfile, shopfile
from roomy_hull.formats.atomic import read_whole
from roomy_hull.formats.locks import Holder, Lock
from roomy_hull.job.model import Job
from roomy_hull.planning.judge import KEY, names_of
from roomy_hull.planning.lateness import late, waited_for
from roomy_hull.planning.plan import Build, build_of
from roomy_hull.planning.several import Together, together
from roomy_hull.shop.shop import Shop
from roomy_hull.verdict.verdict import Verdict, judge

MOST_JOBS = 200
Step = Callable[[float], bool]


class Stage(NamedTuple):
    """How far a job is, in words and in the order of the work."""

    order: int
    words: str


class Card(NamedTuple):
    """One job on the board.

    Attributes:
        path: Its file.
        name, customer: Of the job.
        stage: How far it is.
        stops, looks: Findings that are open.
        due, ready: When it is due, and when it is ended in the plan of all jobs.
        late: By how many working days. [days]
        because: What it waits for most, where it is late.
        step: What comes next.
        holder: Who has it open.
        trouble: Why it cannot be used; empty where it can.
    """

    path: Path
    name: str
    customer: str = ""
    stage: Stage = Stage(0, "")
    stops: int = 0
    looks: int = 0
    due: date | None = None
    ready: date | None = None
    late: float = 0.0
    because: str = ""
    step: str = ""
    holder: Holder | None = None
    trouble: str = ""


class Lesson(NamedTuple):
    """Something that a job has taught: of which job, the day, in words."""

    job: str
    day: str
    words: str


class Board(NamedTuple):
    """All jobs of a folder, the shop that makes them, one plan of all, and what was learnt."""

    folder: Path
    shop: Shop
    cards: tuple[Card, ...]
    plan: Together | None
    lessons: tuple[Lesson, ...]
    troubles: tuple[str, ...]


Memory = dict[Path, tuple[bytes, Verdict, Build]]
"""Jobs that were judged before, by their file and what it held."""


def shop_of(folder: Path, usual: Shop) -> Shop:
    """The shop of a folder: that of its first shop file, else the usual one.

    Raises:
        FileError: Its shop file cannot be used.
    """
    found = shopfile.in_folder(folder)
    return shopfile.load(found) if found is not None else usual


def jobs_in(folder: Path) -> tuple[Path, ...]:
    """The job files of a folder, in the order of their names.

    Raises:
        FileError: It is no folder, or cannot be read.
    """
    if not folder.is_dir():
        raise FileError(
            "there is no such folder", str(folder), "Choose the folder that holds the jobs."
        )
    try:
        return tuple(
            sorted(
                p
                for p in folder.iterdir()
                if p.name.endswith(jobfile.SUFFIX) and not p.name.startswith(".")
            )
        )
    except OSError as trouble:
        raise FileError(
            f"the folder cannot be read ({trouble.strerror})", str(folder), "Ask for access to it."
        ) from None


def board_of(
    folder: Path,
    usual: Shop,
    memory: Memory | None = None,
    step: Step | None = None,
    rounds: int = 0,
) -> Board:
    """Read a workshop's folder.

    Args:
        usual: Who makes them where the folder holds no shop.
        memory: Jobs judged before; files that did not change are not judged again.
        step: Told how far it is; False ends the reading where it is.
    Returns: Every job, those that cannot be used with why; the plan of those that are begun, on the same people.
    Raises:
        FileError: The folder or its shop cannot be used.
    """
    known = memory if memory is not None else {}
    every = jobs_in(folder)
    paths = every[:MOST_JOBS]
    shop = shop_of(folder, usual)
    cards: list[Card] = []
    begun: dict[str, tuple[Verdict, Build]] = {}
    lessons: list[Lesson] = []
    for n, path in enumerate(paths):
        if step is not None and not step(0.8 * n / len(paths)):
            break
        try:
            verdict, build = _judged(path, shop, known)
        except UserError as trouble:
            cards.append(
                Card(path, path.name, trouble=str(trouble), stage=Stage(9, "cannot be read"))
            )
            continue
        job = verdict.job
        cards.append(_card(path, verdict, build))
        lessons += [Lesson(job.name, e.at[:10], e.words) for e in build.state.learnt]
        if job.plan.begin and not build.state.handed_over:
            begun[path.name] = (verdict, build)
    troubles: tuple[str, ...] = ()
    if len(every) > len(paths):
        troubles += (
            f"{len(every)} jobs are in the folder, and the first {MOST_JOBS} are shown: move old ones to another",
        )
    plan = None
    try:
        plan = together(
            {k: (v.assembly, b) for k, (v, b) in begun.items()}, shop.workshop, rounds, step
        )
    except UserError as trouble:
        troubles += (str(trouble),)
    if plan is not None:
        cards = [_planned(c, plan, begun, shop) for c in cards]
    cards.sort(key=lambda c: (c.stage.order == 8, c.due or date.max, c.name))
    return Board(folder, shop, tuple(cards), plan, tuple(lessons), troubles)


def _judged(path: Path, shop: Shop, known: Memory) -> tuple[Verdict, Build]:
    """Judge one job, unless its file holds what it held."""
    data = read_whole(path)
    old = known.get(path)
    if old is not None and old[0] == data and old[1].assembly.shop is shop:
        return old[1], old[2]
    verdict = judge(jobfile.loads(data, path.name), old[1] if old is not None else None, shop=shop)
    build = built(verdict)
    known[path] = (data, verdict, build)
    return verdict, build


def built(verdict: Verdict) -> Build:
    """The plan of a judged job: the one that was judged, or one made now where none is begun."""
    found: Build | None = verdict.results[KEY]
    return found if found is not None else build_of(verdict.context())


def stage_of(job: Job, build: Build) -> Stage:
    """How far a job is."""
    state = build.state
    if state.handed_over:
        return Stage(8, f"handed over {state.handed_over}")
    done = len(build.finished)
    if done or build.worked:
        return Stage(
            6, f"in the shop, {100 * done / max(1, len(build.ops)):.0f} % of its operations done"
        )
    if job.plan.begin:
        return Stage(5, "planned")
    if job.releases:
        return Stage(4, f"released as {job.releases[-1].revision}")
    if job.offers:
        last = job.offers[-1]
        return Stage(
            3, f"offer {last.number} agreed" if last.agreed else f"offer {last.number} is out"
        )
    return Stage(2, "laid out") if job.units else Stage(1, "brief")


def next_step(job: Job, build: Build) -> str:
    """What comes next with a job."""
    state = build.state
    if state.handed_over:
        day = state.to_visit(job.plan.recheck)
        if day:
            return f"re-check visit ({day}{', overdue' if day < today().isoformat() else ''})"
        return "" if state.visits else "plan the re-check visit"
    if build.levelled.placed and job.plan.begin:
        first = build.levelled.order[0]
        return f"{build.ops[first].words} ({build.begins(first).day.isoformat()})"
    if job.offers and not job.offers[-1].agreed:
        return "have the quote agreed"
    return "begin its plan" if job.units else "lay it out"


def _card(path: Path, verdict: Verdict, build: Build) -> Card:
    job = verdict.job
    due = build.calendar.at(build.due, ends=True).day if build.due is not None else None
    return Card(
        path, job.name, job.brief.customer, stage_of(job, build), verdict.count("stop"), verdict.count("look"), due,
        build.end if build.levelled.placed and job.plan.begin else None, 0.0, build.trouble, next_step(job, build),
        Lock.to(path).holder(),
    )  # fmt: skip


def _planned(
    card: Card, plan: Together, begun: dict[str, tuple[Verdict, Build]], shop: Shop
) -> Card:
    """A card with its end in the plan of all, and why it is late."""
    key = card.path.name
    if key not in begun:
        return card
    behind = plan.late(key)
    because = card.because
    if behind > 0:
        others = plan.held_up_by(key)
        build = begun[key][1]
        alone = late(build)
        if alone is not None:
            because = waited_for(build, alone.chain, names_of(shop.workshop))
        elif others:
            worst = max(others, key=lambda k: others[k])
            name = begun[worst][0].job.name
            because = f"people and stations are at {name} first"
        else:
            because = "there is more work than people"
    return card._replace(ready=plan.end(key), late=behind, because=because)
