"""The page Log: what was done, found and built otherwise; photos."""

from pathlib import Path

from roomy_hull.core.wording import counted
from roomy_hull.formats.photos import path_of
from roomy_hull.job.logs import Entry
from roomy_hull.session.pages.build.words import built
from roomy_hull.session.pages.cells import Cell
from roomy_hull.session.pages.model import PageModel

MOST_SHOWN = 2000
"""So many entries stand in the table; the others are in the file and count all the same."""


class LogModel(PageModel):
    """The log, the newest first, and its photos."""

    heads = ("When", "By", "", "Of", "What", "h", "Figure")

    def entries(self) -> list[Entry]:
        """The newest first."""
        return list(reversed(self._session.job.log))[:MOST_SHOWN]

    def keys(self) -> list[str]:
        """The id of each row's entry."""
        return [e.id for e in self.entries()]

    def cells(self) -> list[list[Cell]]:
        """Every entry in a row; what a later one takes the place of says so."""
        build = built(self._session)
        struck, back = build.state.struck, set(build.state.backwards)
        rows: list[list[Cell]] = []
        for e in self.entries():
            bold = "bold" if e.id == self._session.look.entry else ""
            of = build.ops[e.op].words if e.op in build.ops else e.op or e.about
            figure = f"{e.value:g}" + (f" (drawn {e.was:g})" if e.was is not None else "") if e.value is not None else (
                ", ".join(f"{x:g}" for x in e.figures) or e.number)  # fmt: skip
            kind = "work, done" if e.kind == "work" and e.done else f"{e.kind} {e.result}".strip()
            kind = f"{kind}, struck out" if e.id in struck else kind
            rows.append([
                (e.at.replace("T", " ")[:16], "note" if e.id in back else bold), (e.by, ""),
                (kind, "note" if e.id in struck else "look" if e.result == "failed" else ""), (of, ""),
                (e.words or e.file, ""), (f"{e.hours:g}" if e.hours else "", ""), (figure, ""),
            ])  # fmt: skip
        return rows

    def photos(self) -> list[tuple[Entry, Path | None]]:
        """The photos of the chosen operation, or all, the newest first, each with its file where that is there."""
        op = self._session.look.op
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
