"""The page Log: what was done, found and built otherwise; photos."""

from collections.abc import Mapping, Sequence
from pathlib import Path

from roomy_hull.core.errors import UserError
from roomy_hull.core.units import parse
from roomy_hull.core.wording import counted
from roomy_hull.formats.photos import path_of
from roomy_hull.job.logs import Entry
from roomy_hull.session.actions.entries import log
from roomy_hull.session.doing import do
from roomy_hull.session.pages.build.words import built
from roomy_hull.session.pages.model import PageModel
from roomy_hull.tables.column import Cell, Column

MOST_SHOWN = 2000
"""So many entries stand in the table; the others are in the file and count all the same."""


OWN = {"extra", "id", "at", "by", "follows", "corrects"}
"""What of an entry is its own, and not taken over by what takes its place."""


class LogModel(PageModel):
    """The log, the newest first, and its photos."""

    def entries(self) -> list[Entry]:
        """The newest first."""
        return list(reversed(self._session.job.log))[:MOST_SHOWN]

    def keys(self) -> list[str]:
        """The id of each row's entry."""
        return [e.id for e in self.entries()]

    def columns(self) -> tuple[Column[Entry], ...]:
        """What is told of an entry; what a later one takes the place of says so."""
        build, look = built(self._session), self._session.look
        struck, back = build.state.struck, set(build.state.backwards)

        def when(e: Entry) -> Cell:
            bold = "bold" if e.id == look.build.entry else ""
            return (e.at.replace("T", " ")[:16], "note" if e.id in back else bold)

        def kind(e: Entry) -> Cell:
            words = "work, done" if e.kind == "work" and e.done else f"{e.kind} {e.result}".strip()
            out = e.id in struck
            return (
                f"{words}, struck out" if out else words,
                "note" if out else "look" if e.result == "failed" else "",
            )

        def figure(e: Entry) -> Cell:
            drawn = f" (drawn {e.was:g})" if e.was is not None else ""
            several = ", ".join(f"{x:g}" for x in e.figures) or e.number
            return (f"{e.value:g}{drawn}" if e.value is not None else several, "")

        return (
            Column("When", when),
            Column("By", lambda e: (e.by, "")),
            Column("", kind),
            Column(
                "Of",
                lambda e: (build.ops[e.op].words if e.op in build.ops else e.op or e.about, ""),
            ),
            Column(
                "What", lambda e: (e.words or e.file, ""), "words", lambda e: e.words, needed=True
            ),
            Column("h", lambda e: (f"{e.hours:g}" if e.hours else "", ""), "hours"),
            Column("Figure", figure),
        )

    def change(self, entry: Entry, field: str, text: str) -> None:
        """Have a new entry take the place of one: what was logged stays beside it."""
        if any(e.corrects == entry.id for e in self._session.job.log):
            self._session.say("A later entry took its place: change that one.", trouble=True)
            return
        value = self._value(field, text)
        if value is not None:
            kept = {f: getattr(entry, f) for f in entry.__struct_fields__ if f not in OWN}
            log(self._session, "correct an entry", **{**kept, field: value, "corrects": entry.id})

    def add(self, typed: Mapping[str, str]) -> bool:
        """Log what was typed: work on the chosen operation where hours are given, else a note."""
        hours, op = self._value("hours", typed.get("hours", "")), self._session.look.build.op
        if hours is None:
            return False
        kind = "work" if hours and op else "note"
        return log(self._session, kind, kind=kind, op=op, words=typed["words"].strip(), hours=hours)

    def delete(self, some: Sequence[Entry]) -> None:
        """Strike an entry out by one that says why."""
        for entry in some[:1]:
            self._session.view.set(build={"entry": entry.id})
            do(self._session, "build.correct")

    def _value(self, field: str, text: str) -> object:
        """What was typed in a field; none where it is no figure, which is told."""
        if field != "hours":
            return text.strip()
        try:
            return parse(text or "0", "number", "metric")
        except UserError as trouble:
            self._session.say(str(trouble), trouble=True)
            return None

    def photos(self) -> list[tuple[Entry, Path | None]]:
        """The photos of the chosen operation, or all, the newest first, each with its file where that is there."""
        op = self._session.look.build.op
        state = built(self._session).state
        some = (
            [e for e in state.photos if e.op == op]
            if op and any(e.op == op for e in state.photos)
            else state.photos
        )
        return [(e, path_of(self._session.path, e.file)) for e in reversed(some)]

    def words(self) -> str:
        """What the log comes to."""
        job, state = self._session.job, built(self._session).state
        if not job.log:
            return (
                "Nothing is logged yet. Work, photos, what was built otherwise: each is an entry, and none is "
                "ever changed."
            )
        told = f"{counted(len(job.log), 'entry', 'entries')}, {sum(state.hours.values()):.1f} h, "
        told += counted(len(state.photos), "photo")
        told += f", built otherwise: {len(state.deviations)}" if state.deviations else ""
        lost = sum(p is None for _e, p in self.photos())
        told += f". {counted(lost, 'photo')} missing beside the job" if lost else ""
        return told + ". An entry is corrected by a later one."
