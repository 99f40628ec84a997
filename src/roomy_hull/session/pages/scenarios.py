"""The page Scenarios: who and what is aboard in each, changed where it stands, beside what it comes to."""

import functools
from collections.abc import Sequence

from roomy_hull.core.card import Field
from roomy_hull.job.edits import scenarios
from roomy_hull.job.model import Scenario
from roomy_hull.session.card_fields import scenario_fields
from roomy_hull.session.pages.cells import kg_of
from roomy_hull.session.pages.worked import Worked
from roomy_hull.studies.loads import board
from roomy_hull.tables.column import Cell, Column


class ScenariosModel(Worked[Scenario]):
    """The scenarios of a job beside one another."""

    def entries(self) -> Sequence[Scenario]:
        """Every scenario."""
        return self._session.job.scenarios

    def key(self, entry: Scenario) -> str:
        """The id of a scenario."""
        return entry.id

    def fields(self, key: str) -> tuple[Field, ...]:
        """The fields that the card has of a scenario."""
        return scenario_fields(self._session.job, key)

    def columns(self) -> tuple[Column[Scenario], ...]:
        """What is told of a scenario: its people, how full it is, what it comes to."""
        session, known = self._session, self._session.known.loads
        have = {f.name.rsplit(".", 1)[-1] for f in self.fields(session.job.scenarios[0].id)}

        def name(one: Scenario) -> Cell:
            return (one.name, "bold" if one.id == session.look.scenario else "")

        def figure(what: str) -> Column[Scenario]:
            def cell(one: Scenario) -> Cell:
                load = next((x for x in known.scenarios if x.id == one.id), None)
                found = board.cell(load, what) if load is not None else None
                return (
                    (kg_of(session, found.value), board.severity_of(found))
                    if found is not None
                    else ("", "")
                )

            return Column(what.capitalize(), cell)

        # A seat that stays empty in all of them is on the card only.
        taken = [
            any(s.people[n : n + 1] != (0.0,) and s.people[n:] for s in session.job.scenarios)
            for n in range(9)
        ]
        seats = [
            self.column(seat.name.capitalize(), str(n))
            for n, seat in enumerate(session.job.vehicle.seats)
            if taken[n]
        ]
        shares = [self.column(f"{w.capitalize()}, %", w) for w in ("fuel", "water", "contents")]
        onboard = [
            self.column(words, w, choices=lambda: ("yes", "no"))
            for w, words in (("canopy", "Canopy"), ("sides", "Sides")) if w in have
        ]  # fmt: skip
        towed = [self.column(w, f) for f, w in (("trailer", "Trailer"), ("ball", "Ball"))]
        return (
            self.column("Scenario", "name", name, needed=True), *seats, *shares, *onboard, *towed,
            figure("front"), figure("rear"), figure("gross"),
        )  # fmt: skip

    def new(self, name: str) -> str:
        """Add a scenario by its name: as the chosen one is."""
        session = self._session
        made = session.attempt(
            f"add scenario {name}",
            lambda: scenarios.copied(session.job, session.scenario().id, name),
        )
        return session.job.scenarios[-1].id if made else ""

    def delete(self, some: Sequence[Scenario]) -> None:
        """Delete scenarios."""
        for one in some:
            make = functools.partial(scenarios.dropped, self._session.job, one.id)
            self._session.attempt(f"delete scenario {one.name}", make)
        self._session.view.set(scenario=self._session.scenario().id)

    def choose(self, row: int) -> None:
        """Choose a scenario: everything is shown in it."""
        self._session.view.set(scenario=self.entries()[row].id)
