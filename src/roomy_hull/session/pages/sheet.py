"""The page Sheet: what scales said against what was predicted, and the load sheet's text."""

import html

from roomy_hull.core.units import parse, show
from roomy_hull.formats.load_sheet import build
from roomy_hull.job.edits import scenarios
from roomy_hull.job.model import Job, Weighing
from roomy_hull.session.actions import editing
from roomy_hull.session.pages.cells import kg_of, mass_word
from roomy_hull.session.session import Session
from roomy_hull.studies.loads.weighing import raised_height
from roomy_hull.tables.column import Cell

READ = ("front left", "front right", "rear left", "rear right", "front", "rear")


class SheetModel:
    """The weighings, which of them is chosen, and the sheet."""

    heads = ("", "Predicted", "Read", "More by", "Sigma")

    def __init__(self, session: Session) -> None:
        self._session = session
        self.at = 0

    def head(self) -> str:
        """Say which scenario a new weighing is of."""
        session = self._session
        return f"Weighed in '{session.scenario().name}', {mass_word(session)}"

    def lines(self) -> list[str]:
        """List the weighings, one line each."""
        session = self._session
        return [
            f"{w.date or w.id}  {w.place}  {session.known.loads.scenario(w.scenario).name}"
            for w in session.job.weighings
        ]

    def weighing(self) -> Weighing | None:
        """Find the chosen weighing."""
        found = self._session.job.weighings
        return found[self.at] if 0 <= self.at < len(found) else None

    def enter(self, typed: dict[str, str]) -> bool:
        """Enter what the scales said in the chosen scenario, as one step; trouble is told.

        Args:
            typed: By the scale read, and ``date``, ``place``, ``scale``, ``raised_by``, ``raised_kg``.
        """
        session, system = self._session, self._session.look.system

        def make() -> Job:
            def kg(key: str) -> float:
                text = typed[key].strip()
                return parse(text, "mass", system) if text else 0.0

            raised = typed["raised_by"].strip()
            new = Weighing(id="weighing", scenario=session.scenario().id).but(
                **{key.replace(" ", "_"): kg(key) for key in READ},
                scale=kg("scale") or 5.0, date=typed["date"].strip()[:20],
                place=typed["place"].strip()[:120], raised="front",
                raised_by=parse(raised, "length", system) if raised else 0.0,
                raised_kg=kg("raised_kg"),
            )  # fmt: skip
            return scenarios.weighed(session.job, new)

        done = bool(editing.add_weighing(session, make=make))
        if done:
            self.at = len(session.job.weighings) - 1
        return done

    def count(self, *, counts: bool) -> None:
        """Have predictions follow the chosen weighing, or not."""
        one = self.weighing()
        if one is not None:
            editing.set_size(self._session, path=f"weighings.{one.id}.counts", value=counts)

    def drop(self) -> None:
        """Delete the chosen weighing."""
        one = self.weighing()
        if one is not None:
            editing.drop_weighing(self._session, key=one.id)

    def cells(self) -> list[list[Cell]]:
        """Lay the chosen weighing out against the prediction without any."""
        session = self._session
        if self.weighing() is None:
            return []
        return [
            [(r.words.capitalize(), ""), (f"{kg_of(session, r.predicted)} ± {kg_of(session, r.uncertainty)}", ""),
             (kg_of(session, r.read), "bold"), (kg_of(session, r.difference), ""),
             (f"{r.sigmas:+.1f}", "look" if abs(r.sigmas) > 3 else "")]
            for r in session.known.weighings[self.at]
        ]  # fmt: skip

    def words(self) -> str:
        """Say whether predictions follow the chosen weighing, and what it says of height."""
        session, one = self._session, self.weighing()
        if one is None:
            return "Enter what scales say: four wheels, or the axles. Predictions then follow it."
        words = "Predicted without any weighing. "
        words += "All pages follow it now." if one.counts else "It does not count now."
        height = self.raised_height(one)
        if height:
            system = session.look.system
            drawn = session.known.loads.scenario(one.scenario).centre[2]
            words += (
                f" Raised-axle weighing: centre of mass {show(height, 'length', system)} up, computed "
                f"{show(drawn, 'length', system)}."
            )
        return words

    def raised_height(self, one: Weighing) -> float:
        """Compute the height of the centre of mass by a raised-axle weighing, 0 where there was none. [mm]"""
        axles = one.axles()
        if one.raised_by <= 0 or one.raised_kg <= 0 or len(axles) < 2:
            return 0.0
        vehicle = self._session.job.vehicle
        lower = axles["rear" if one.raised == "front" else "front"]
        return raised_height(
            sum(axles.values()), lower, one.raised_kg, vehicle.wheelbase, one.raised_by, vehicle.axle_height(),
        )  # fmt: skip

    def text(self, rule_colour: str) -> str:
        """Write the sheet as rich text, as it will be on paper but for its pictures.

        Args:
            rule_colour: Of the tables' lines, as ``#rrggbb``.
        Returns: HTML; every word of the job is escaped.
        """
        sheet, say = build(self._session.known, self._session.look.system), html.escape
        parts = [f"<h2>{say(sheet.title)}</h2><p>{say(sheet.subtitle)}</p>"]
        for s in sheet.sections:
            if s.picture:
                parts.append(f"<p><i>Picture: {say(s.title.lower())}</i></p>")
                continue
            parts.append(f"<h3>{say(s.title)}</h3>" + "".join(f"<p>{say(w)}</p>" for w in s.words))
            if s.heads:
                heads = "".join(f"<th align='left'>{say(h)}</th>" for h in s.heads)
                rows = "".join(
                    "<tr>" + "".join(f"<td>{say(c)}</td>" for c in r) + "</tr>" for r in s.rows
                )
                style = (
                    f"border='1' style='border-color:{rule_colour}' cellpadding='3' cellspacing='0'"
                )
                parts.append(f"<table {style}><tr>{heads}</tr>{rows}</table>")
        return "".join(parts)
