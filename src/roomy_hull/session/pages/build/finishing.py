"""The pages Checks, Hand-over and Workshop: their tables and words."""

from collections.abc import Mapping
from datetime import date

from roomy_hull.core.primitives import Rect, Scene
from roomy_hull.drawing.scenes import bars as bar_scene
from roomy_hull.drawing.scenes.bars import Bar
from roomy_hull.formats.book import Book
from roomy_hull.formats.pack import pack
from roomy_hull.formats.workshop import Card
from roomy_hull.planning.checklist import Check
from roomy_hull.planning.lateness import in_days
from roomy_hull.planning.placing import Placed, Task
from roomy_hull.session.pages.build.words import built
from roomy_hull.session.pages.model import PageModel
from roomy_hull.session.session import Session
from roomy_hull.tables.build import said
from roomy_hull.tables.column import Cell
from roomy_hull.verdict.gates import gate


class ChecksModel(PageModel):
    """The check sheets, filled by key or by three large buttons."""

    def checks(self) -> tuple[Check, ...]:
        """Every check."""
        return built(self._session).checks

    def chosen(self) -> Check | None:
        """The chosen one; else the first that is still to do."""
        rows, key = self.checks(), self._session.look.build.check
        found = next((c for c in rows if c.key == key), None)
        if found is not None:
            return found
        state = built(self._session).state
        return next(
            (c for c in rows if state.result(c.key) in ("", "later")), rows[0] if rows else None
        )

    def after(self, key: str) -> str:
        """The next one to do behind a check."""
        rows, state = self.checks(), built(self._session).state
        at = next((n for n, c in enumerate(rows) if c.key == key), -1)
        order = (*rows[at + 1 :], *rows[: at + 1])
        return next((c.key for c in order if not state.result(c.key)), key)

    def words(self) -> str:
        """How many are done, and what is asked of the chosen one."""
        rows, state = self.checks(), built(self._session).state
        done = sum(state.result(c.key) == "done" for c in rows)
        failed = sum(state.result(c.key) == "failed" for c in rows)
        return (
            f"{done} of {len(rows)} done, {failed} failed. A failed check becomes a task of the plan, and "
            "handing over waits for it."
        )

    def question(self) -> str:
        """What to do at the chosen check, large."""
        one = self.chosen()
        if one is None:
            return "There is nothing to check yet."
        want = f" Expected: {one.expect}." if one.expect else ""
        who = f" Only {one.licence} may." if one.licence else ""
        return f"{one.words}.{want}{who}"

    def asked(self) -> str:
        """Which figures are wanted."""
        one = self.chosen()
        return (
            f"{', '.join(one.wants)}{f' [{one.unit}]' if one.unit else ''}"
            if one is not None and one.wants
            else ""
        )


class PackModel:
    """The hand-over pack, page by page, and what still stands in its way."""

    def __init__(self, session: Session) -> None:
        self._session = session
        self._of: tuple[object, object, Book] | None = None
        self.page = 1

    def book(self) -> Book:
        """The pack as it would be written now."""
        session = self._session
        if self._of is None or self._of[0] is not session.known or self._of[1] != session.path:
            self._of = session.known, session.path, pack(session.known, session.path)
        return self._of[2]

    def words(self) -> str:
        """What stands in the way, and what is planned after."""
        state = built(self._session).state
        if state.handed_over:
            n, day = len(state.visits), state.to_visit(self._session.job.plan.recheck)
            since = f" {n} visit{'s' * (n > 1)} since." if n else ""
            if day:
                to_come = f" Re-check planned for {said(day)}."
            else:
                to_come = "" if n else " Plan the re-check: after the first 500 km and at 5,000 km."
            return f"Handed over on {said(state.handed_over)}.{since}{to_come}"
        points = gate("hand over", self._session.known, built(self._session)).words()
        return (
            f"Before it is handed over: {points}."
            if points
            else "Nothing stands in the way of handing it over."
        )


ROLES = ("bar", "bar second", "bar third")
"""Bars of several jobs, told apart by their names and by their fill."""


def short(day: date) -> str:
    """A day for a narrow column: 3 Mar."""
    return f"{day.day} {day:%b}"


def joined(
    placed: Mapping[str, Placed], tasks: Mapping[str, Task]
) -> list[tuple[str, str, float, float]]:
    """Stretches in which somebody is at one job without a break: an operation of it, who, from and to. [min]"""
    rows = sorted((p, one.start, one.finish, k) for k, one in placed.items() for p in one.people)
    found: list[tuple[str, str, float, float]] = []
    for person, start, finish, key in rows:
        last = found[-1] if found else None
        if (
            last is not None
            and last[1] == person
            and tasks[last[0]].job == tasks[key].job
            and start <= last[3] + 1
        ):
            found[-1] = (last[0], person, last[2], float(finish))
        else:
            found.append((key, person, float(start), float(finish)))
    return found


class BoardModel(PageModel):
    """All jobs of the workshop's folder."""

    heads = ("Job", "How far", "Open", "Due", "Ready", "Late", "Because", "Next", "In hand")

    def cards(self) -> tuple[Card, ...]:
        """Every job."""
        board = self._session.building.board
        return board.cards if board is not None else ()

    def cells(self) -> list[list[Cell]]:
        """A row for each."""
        rows: list[list[Cell]] = []
        for c in self.cards():
            late = in_days(c.late) if c.late > 0 else ""
            rows.append([
                (c.name, "bold" if c.path == self._session.path else ""), (c.stage.words, ""),
                (f"{c.stops} stop, {c.looks} look" if c.stage.order != 9 else "", "stop" if c.stops else ""),
                (short(c.due) if c.due is not None else "", ""),
                (short(c.ready) if c.ready is not None else "", "look" if c.late > 0 else ""),
                (late, "look" if c.late > 0 else ""), (c.because or c.trouble, ""), (c.step, ""),
                (c.holder.words() if c.holder is not None else "", ""),
            ])  # fmt: skip
        return rows

    def words(self) -> str:
        """Which folder, how many are late, how near to the bound the plan of all is."""
        board = self._session.building.board
        if board is None:
            return "Choose the folder that holds the jobs of the workshop; its shop file and its lessons are read with them."
        late = [c for c in board.cards if c.late > 0]
        told = f"{board.folder}: {len(board.cards)} jobs, made by {board.shop.name}"
        told += f"; {len(late)} late" if late else "; none late"
        if board.plan is not None:
            told += f". One plan for all, {100 * board.plan.levelled.gap:.1f} % above its bound"
        return told + ". " + " ".join(board.troubles)

    def drawn(self, aspect: float) -> tuple[str, tuple[Scene, Rect] | None]:
        """Draw who is at which job when."""
        board, shop = self._session.building.board, self._session.shop.workshop
        if board is None or board.plan is None:
            return "No job of the folder has its plan begun." if board is not None else "", None
        plan = board.plan
        placed, tasks = plan.levelled.placed, plan.problem.tasks
        names = {c.path.name: c.name for c in board.cards}
        people = [w for w in shop.people if any(w.id in p.people for p in placed.values())]
        at = {w.id: n for n, w in enumerate(people)}
        day = plan.calendar.day_minutes
        lies = bar_scene.sheet(
            len(people), 0.0, float(max(day, plan.levelled.end) + day // 2), aspect
        )
        jobs = list(dict.fromkeys(t.job for t in tasks.values()))
        bars = [
            Bar(
                tasks[k].job,
                at[p],
                a,
                b,
                names.get(tasks[k].job, ""),
                ROLES[jobs.index(tasks[k].job) % len(ROLES)],
            )
            for k, p, a, b in joined(placed, tasks)
            if p in at
        ]
        every = max(1, round(lies.last / day / 9))
        days = [
            (float(n * day), short(d) if n % every == 0 else "")
            for n, d in enumerate(plan.calendar.days[: int(lies.last // day) + 1])
        ]
        return "Who is at which job when", (
            bar_scene.scene(lies, [w.name for w in people], days, bars),
            lies.frame,
        )

    def lessons(self) -> str:
        """What was learnt, the newest first."""
        board = self._session.building.board
        rows = sorted(board.lessons, key=lambda x: x.day, reverse=True) if board is not None else []
        return (
            "\n".join(f"{x.day}, {x.job}: {x.words}" for x in rows[:12])
            or "No lessons are logged yet."
        )
