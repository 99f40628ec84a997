"""The page Release: revisions, what is stale, how far every part has come."""

from roomy_hull.job.model import Job
from roomy_hull.job.releases import STATES, Release, ReleasedPart
from roomy_hull.making.release import Change, as_released, changes, piece_prices, stale
from roomy_hull.planning.as_built import owners
from roomy_hull.planning.progress import last_release
from roomy_hull.session.pages.cut.words import works
from roomy_hull.session.session import Session
from roomy_hull.tables.column import Cell
from roomy_hull.verdict.gates import gate
from roomy_hull.verdict.verdict import Verdict

SEVERITY = {"scrap": "stop", "built": "note"}
"""How much what became of a part weighs; all else is a look."""


class ReleaseModel:
    """The revisions, what of the last one is stale, and how far each part has come."""

    heads = ("Part", "Pcs", "Of", "State", "What became of it", "Cost")

    def __init__(self, session: Session) -> None:
        self._session = session
        self._of: tuple[tuple[Verdict, Release | None], tuple[Change, ...]] | None = None
        self._last: tuple[Job, Release | None] | None = None

    def last(self) -> Release | None:
        """The last release."""
        job = self._session.job
        if self._last is None or self._last[0] is not job:
            self._last = job, last_release(job)
        return self._last[1]

    def against(self) -> Release | None:
        """The one with which is compared: the chosen one, else the last."""
        look = self._session.look
        return next(
            (r for r in self._session.job.releases[:-1] if r.revision == look.cut.against),
            self.last(),
        )

    def changes(self) -> tuple[Change, ...]:
        """What is stale, remembered while the job is the same: of the last release now, or between an older one and it."""
        key = (self._session.known, self.against())
        if self._of is None or any(a is not b for a, b in zip(self._of[0], key, strict=True)):
            self._of = key, self._changes()
        return self._of[1]

    def _changes(self) -> tuple[Change, ...]:
        last, old, made = self.last(), self.against(), works(self._session)
        if last is None or old is None:
            return ()
        if old is last:
            return stale(last, made, self._session.shop.prices, owners(self._session.job))
        return changes(old.parts, last.parts, piece_prices(made, self._session.shop.prices))

    def _rows(self) -> tuple[list[ReleasedPart], dict[str, Change]]:
        found = {c.key: c for c in self.changes()}
        old = self.against()
        parts = list(old.parts) if old is not None else []
        known = {p.key for p in parts}
        last = self.last()
        now = (
            last.parts
            if last is not None and old is not last
            else as_released(works(self._session))
        )
        parts += [p for p in now if p.key in found and p.key not in known]
        order = {p.key: n for n, p in enumerate(parts)}
        return sorted(parts, key=lambda p: (p.key not in found, order[p.key])), found

    def cells(self) -> list[list[Cell]]:
        """Every released part, what is stale first."""
        parts, found = self._rows()
        rows: list[list[Cell]] = []
        for p in parts:
            c = found.get(p.key)
            severity = "" if c is None else SEVERITY.get(c.verdict, "look")
            rows.append([
                (p.name, severity), (str(p.count), ""), (p.stock or "bought", ""),
                (p.state if p.sort != "bought" else "", ""), ("" if c is None else c.words, severity),
                ("" if c is None or not c.cost else f"{c.cost:,.0f}", ""),
            ])  # fmt: skip
        return rows

    def keys(self) -> list[str]:
        """The key of each row's part."""
        return [p.key for p in self._rows()[0]]

    def words(self) -> str:
        """Which revision stands, what has changed since, how far the parts have come."""
        last, old = self.last(), self.against()
        if last is None or old is None:
            found = gate("release", self._session.known)
            wait = f" {'; '.join(found.bars)}: they come first." if found.bars else ""
            wait += f" First, {'; '.join(found.asks[:3])}." if found.asks else ""
            return f"Nothing is released yet. A release freezes every part with date and initials.{wait}"
        rows = self.changes()
        cut = [p for p in last.parts if p.sort != "bought"]
        come = ", ".join(
            f"{sum(p.state == s for p in cut)} {s}"
            for s in STATES
            if any(p.state == s for p in cut)
        )
        said = f"Revision {last.revision} of {last.day} by {last.by}: {come}. "
        if old is not last:
            return (
                said + f"Between {old.revision} and {last.revision} {len(rows)} parts have changed."
            )
        if not rows:
            return said + "Nothing has changed since."
        money = sum(c.cost for c in rows)
        scrap = sum(c.verdict == "scrap" for c in rows)
        more = f"{scrap} of them to be scrapped, about {money:,.0f} of new parts."
        return f"{said}{len(rows)} parts have changed since, {more}"
