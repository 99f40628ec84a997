"""The check sheets as a table that is worked in: what was measured, and how it came out, is logged as it is typed."""

from collections.abc import Mapping, Sequence
from typing import Any

from roomy_hull.core.errors import UserError
from roomy_hull.core.units import parse
from roomy_hull.job.logs import Result
from roomy_hull.planning.checklist import held_against
from roomy_hull.session.actions import handing
from roomy_hull.session.pages.build.finishing import ChecksModel
from roomy_hull.session.pages.build.words import built
from roomy_hull.tables.build import CHECKS, CheckRow, check_rows
from roomy_hull.tables.column import Cell, Column

RESULTS: dict[str, Result] = {"done": "done", "failed": "failed", "later": "later"}


class CheckSheets(ChecksModel):
    """Every check; a figure or a result that is typed is an entry of the log."""

    def entries(self) -> list[CheckRow]:
        """Every check with its last result."""
        return check_rows(built(self._session))

    def columns(self) -> tuple[Column[CheckRow], ...]:
        """Those of the paper; two of them are filled in."""
        chosen = self.chosen()

        def what(row: CheckRow) -> Cell:
            return (
                row.one.words,
                "bold" if chosen is not None and row.one.key == chosen.key else "",
            )

        kept: dict[str, dict[str, Any]] = {
            "What": {"cell": what},
            "Measured": {"field": "figures"},
            "Result": {"field": "result", "choices": lambda: tuple(RESULTS)},
        }
        return tuple(c._replace(**kept.get(c.header, {})) for c in CHECKS if c.seen)

    def change(self, entry: CheckRow, field: str, text: str) -> None:
        """Log what was measured, or how a check came out."""
        session, one = self._session, entry.one
        old = entry.entry.figures if entry.entry is not None else ()
        if field == "result" and text.strip() not in RESULTS:
            session.say("A check is done, failed or for later.", trouble=True)
            return
        try:
            words = text.removesuffix(one.unit).replace(";", " ").replace(", ", " ").split()
            figures = (
                old
                if field == "result"
                else tuple(float(parse(w, "number", "metric")) for w in words)
            )
        except UserError as trouble:
            session.say(str(trouble), trouble=True)
            return
        judged, said = held_against(one, figures)
        result = RESULTS[text.strip()] if field == "result" else judged
        if not result:
            session.say(
                f"This check wants {', '.join(one.wants) or 'no figures: it is judged by eye'}.",
                trouble=True,
            )
        elif result == "done" and judged == "failed":
            session.say(
                f"By its figures it failed ({said}). Say so, or measure again.", trouble=True
            )
        else:
            session.view.set(build={"check": one.key})
            handing.check(session, result=result, figures=figures, words=said if judged else "")

    def add(self, typed: Mapping[str, str]) -> bool:  # ruff: ignore[unused-method-argument]  # what is checked follows from the job
        """Nothing is added by hand."""
        return False

    def delete(self, some: Sequence[CheckRow]) -> None:
        """Nothing is deleted: an entry of the log is corrected by a later one."""
        self._session.say("What was logged stays: log the check again.", trouble=bool(some))
