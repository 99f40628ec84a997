"""The page Plan: bars on a calendar, what is dragged in it, what is late and why, today's list."""

from roomy_hull.core.primitives import Rect, Scene
from roomy_hull.drawing.scenes import bars as bar_scene
from roomy_hull.drawing.scenes.bars import Bar
from roomy_hull.formats.build_papers import on_day
from roomy_hull.planning.lateness import told
from roomy_hull.planning.placing import Placed, in_turn
from roomy_hull.planning.plan import Build, means_of
from roomy_hull.session.pages.build.words import NO_PLAN, built, names, on
from roomy_hull.session.session import Session
from roomy_hull.tables.column import Cell

ROWS: tuple[tuple[str, str], ...] = (
    ("person", "By person"),
    ("station", "By station"),
    ("thing", "By thing"),
)
"""What the rows can be."""
TODAY_HEADS = ("Who", "What", "h", "Where")
WAITING = "Away, waiting"
QUARTER = 15
"""A bar is put down on a quarter of an hour. [min]"""
SHOWN = 8.0
"""So many working days are seen at first. [days]"""


class PlanModel:
    """Bars and rows of the plan, what is dragged, its words."""

    def __init__(self, session: Session) -> None:
        self._session = session
        self.first = -1.0
        self.days = SHOWN
        self.aspect = 2.0
        self._held: tuple[str, int, str] | None = None
        self._moved: tuple[object, dict[str, Placed]] | None = None

    # How it lies

    def rows(self) -> list[tuple[str, str]]:
        """Key and name of every row that has a bar."""
        build, shop = built(self._session), self._session.shop.workshop
        placed = self.placed()
        by = self._session.look.build.bars
        if by == "person":
            used = {p for one in placed.values() for p in one.people}
            rows = [(w.id, w.name) for w in shop.people if w.id in used]
        elif by == "station":
            places = {(build.ops[k].station, one.lane) for k, one in placed.items()}
            rows = [
                (f"{s.id}/{n}", s.name if s.count == 1 else f"{s.name} {n + 1}")
                for s in shop.stations for n in range(s.count) if (s.id, n) in places
            ]  # fmt: skip
        else:
            owners = dict.fromkeys(
                self._owner(k) for k in sorted(placed, key=lambda k: placed[k].start)
            )
            rows = [(o, self._called(o)) for o in owners]
        if by != "thing" and any(not one.people for one in placed.values()):
            rows.append(("", WAITING))
        return rows

    def _owner(self, key: str) -> str:
        op = built(self._session).ops[key]
        return op.owner.id or op.owner.kind if op.owner is not None else "job"

    def _called(self, owner: str) -> str:
        thing = self._session.known.assembly.thing(owner)
        return (
            thing.name
            if thing is not None
            else {"job": "The whole job"}.get(owner, owner.capitalize())
        )

    def placed(self) -> dict[str, Placed]:
        """Every operation in its place; while one is dragged, with what follows moved along."""
        build = built(self._session)
        if self._held is None:
            return build.levelled.placed
        key = (build, self._held)
        if self._moved is None or self._moved[0] != key:
            op, minute, person = self._held
            task = build.tasks[op]
            people = (person,) if person in task.people else task.people
            tasks = build.tasks | {
                op: task._replace(
                    begins=max(minute, build.calendar.minute(build.now)), people=people
                )
            }
            order = self._order(build, op, minute)
            self._moved = (
                key,
                in_turn(tasks, order, means_of(self._session.shop.workshop, build.calendar)),
            )
        return self._moved[1]

    @staticmethod
    def _order(build: Build, op: str, minute: int) -> list[str]:
        """The order of the plan with one operation, and all that comes after it, at another time."""
        placed = build.levelled.placed
        start = {k: float(p.start) for k, p in placed.items()}
        start[op] = float(minute)
        found: list[str] = []
        done: set[str] = set()
        for key in sorted(placed, key=lambda k: (start[k], placed[k].finish)):
            stack = [key]
            while stack:
                one = stack[-1]
                wait = [b for b in build.tasks[one].after if b not in done and b in placed]
                if one in done or not wait:
                    stack.pop()
                    if one not in done:
                        done.add(one)
                        found.append(one)
                else:
                    stack += wait
        return found

    def lies(self, aspect: float) -> bar_scene.Sheet:
        """How the bars lie in a place of some proportion."""
        build = built(self._session)
        day = build.calendar.day_minutes
        first = self.first if self.first >= 0 else float(build.calendar.minute(build.now))
        return bar_scene.sheet(len(self.rows()), first, first + self.days * day, aspect)

    def zoom(self, by: float, at: float) -> None:
        """Show more or fewer days, with one moment staying where it is. [min]"""
        lies = self.lies(self.aspect)
        day = built(self._session).calendar.day_minutes
        days = min(120.0, max(1.0, self.days * by))
        share = (at - lies.first) / (lies.last - lies.first)
        self.days = days
        self.first = max(0.0, at - share * days * day)

    def scroll(self, days: float) -> None:
        """Look at a later or an earlier stretch. [days]"""
        lies = self.lies(self.aspect)
        self.first = max(0.0, lies.first + days * built(self._session).calendar.day_minutes)

    def whole(self) -> None:
        """Show the whole plan."""
        build = built(self._session)
        day = build.calendar.day_minutes
        self.first = float(build.calendar.minute(build.now))
        self.days = max(2.0, (build.levelled.end - self.first) / day + 0.4)

    # What is drawn

    def drawn(self, aspect: float) -> tuple[str, tuple[Scene, Rect] | None]:
        """Draw the plan under its title."""
        self.aspect = aspect
        session = self._session
        build = built(session)
        if build.trouble:
            return f"It cannot be planned: {build.trouble}", None
        if not build.levelled.placed:
            return "Everything is done.", None
        lies, rows = self.lies(aspect), self.rows()
        at = {key: n for n, (key, _name) in enumerate(rows)}
        held = {h.op for h in session.job.plan.held}
        bars = [
            b for key, one in self.placed().items() for b in self._bars(build, key, one, at, held)
        ]
        days = self._days(build, lies)
        now = float(build.calendar.minute(build.now)) if session.job.plan.begin else None
        due = float(build.due) if build.due is not None else None
        done, whole = len(build.finished), len(build.ops)
        title = f"{done} of {whole} operations done, {build.left:.0f} h to do; ready {on(session, build.end)}"
        return title, (
            bar_scene.scene(lies, [n for _k, n in rows], days, bars, now, due),
            lies.frame,
        )

    def _bars(
        self, build: Build, key: str, one: Placed, at: dict[str, int], held: set[str]
    ) -> list[Bar]:
        by, op = self._session.look.build.bars, build.ops[key]
        if by == "person":
            rows = list(one.people) or [""]
        elif by == "station":
            rows = [f"{op.station}/{one.lane}" if one.people and op.station else ""]
        else:
            rows = [self._owner(key)]
        role = "bar wait" if not one.people else "bar tight" if key in build.path else "bar"
        if key == self._session.look.build.op:
            role = "bar chosen"
        return [
            Bar(key, at[r], one.start, one.finish, op.words, role, key in held)
            for r in rows
            if r in at
        ]

    def _days(self, build: Build, lies: bar_scene.Sheet) -> list[tuple[float, str]]:
        """Where the days that are seen begin, with as many names as there is room for."""
        minutes = build.calendar.day_minutes
        begin, end = int(lies.first // minutes), int(lies.last // minutes) + 1
        every = max(1, round((end - begin) / 10))
        found = []
        for n in range(begin, min(end + 1, len(build.calendar.days))):
            words = on(self._session, build.calendar.days[n])
            if self.days > 6:
                words = " ".join(words.split()[:2]) + (
                    f" {words.split()[2][:3]}" if len(words.split()) > 2 else ""
                )
            found.append((float(n * minutes), words if (n - begin) % every == 0 else ""))
        return found

    def words(self) -> str:
        """When it is ready, how sure that is, what is late and why."""
        session = self._session
        build = built(session)
        if build.trouble or not build.levelled.placed:
            return build.trouble
        rows = [] if session.job.plan.begin else [NO_PLAN]
        chance = session.building.chances(session.known)
        if chance is not None:
            half, sure = (build.calendar.at(chance.ready(c), ends=True).day for c in (0.5, 0.9))
            rows.append(
                f"Ready by {on(session, half)} as often as not, by {on(session, sure)} nine times in ten."
            )
            if build.due is not None:
                rows.append(f"In time with a chance of {100 * chance.by(build.due):.0f} %.")
        bound = build.calendar.at(build.levelled.bound, ends=True).day
        rows.append(
            f"No plan on these people ends before {on(session, bound)} (gap {100 * build.levelled.gap:.1f} %)."
        )
        behind = told(build, names(session))
        if behind:
            rows.append(f"{behind}.")
        tuned = [
            f"{k} {t.factor:.2f} ± {t.uncertainty:.2f}" for k, t in build.rates.items() if t.seen
        ]
        if not self.today():
            first = build.levelled.order[0]
            rows.append(
                f"Nothing can be done on {on(session, build.now)}; what comes first is '{build.ops[first].words}' "
                f"on {on(session, build.begins(first).day)}."
            )
        if tuned:
            rows.append(f"Rates by the log: {', '.join(tuned[:5])}.")
        return " ".join(rows)

    def today(self) -> list[list[Cell]]:
        """What everybody does on the plan's day."""
        build = built(self._session)
        called, found = names(self._session), []
        for person, keys in on_day(build, build.now).items():
            for key in keys:
                op = build.ops[key]
                bold = "bold" if key == self._session.look.build.op else ""
                row: list[Cell] = [(called.get(person, person), ""), (op.words, bold), (f"{build.hours[key]:.1f}", ""),
                                   (called.get(op.station, "").removeprefix("the "), "")]  # fmt: skip
                found.append(row)
        return found

    def today_keys(self) -> list[str]:
        """The operation of each row of today's list."""
        build = built(self._session)
        return [k for keys in on_day(build, build.now).values() for k in keys]

    # What is dragged

    def bar_at(self, h: float, k: float) -> str:
        """The operation whose bar is at a place of the drawing; empty for none."""
        lies = self.lies(self.aspect)
        row = lies.row_at(k)
        rows = self.rows()
        if not 0 <= row < len(rows):
            return ""
        build = built(self._session)
        at = {key: n for n, (key, _name) in enumerate(rows)}
        found = [
            b for key, one in self.placed().items() for b in self._bars(build, key, one, at, set())
            if b.row == row and b.start <= h <= b.finish
        ]  # fmt: skip
        return found[0].key if found else ""

    def hold(self, op: str, minute: float, k: float) -> None:
        """Have an operation follow the hand: to a moment, and to the row of whom it is held over."""
        row, rows = self.lies(self.aspect).row_at(k), self.rows()
        person = (
            rows[row][0]
            if self._session.look.build.bars == "person" and 0 <= row < len(rows)
            else ""
        )
        self._held = (op, max(0, round(minute / QUARTER) * QUARTER), person)

    def let_go(self) -> tuple[str, str, float, str] | None:
        """End the drag: operation, day, hour of the day and person that it was put to; none where it lies as it lay."""
        if self._held is None:
            return None
        (op, minute, person), self._held = self._held, None
        build = built(self._session)
        was = build.levelled.placed[op]
        if minute == round(was.start / QUARTER) * QUARTER and (not person or person in was.people):
            # A hand that trembles in a click moves nothing.
            return None
        when = build.calendar.at(minute)
        people = build.tasks[op].people
        return (
            op,
            when.day.isoformat(),
            when.minute / 60,
            person if person in people and len(people) > 1 else "",
        )

    def cancel(self) -> None:
        """Put the operation back where it was."""
        self._held = None

    @property
    def dragged(self) -> bool:
        """Whether an operation follows the hand."""
        return self._held is not None
