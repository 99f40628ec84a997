"""The page Trip: its picture, what is dragged in it, the answer in words."""

import functools
from collections.abc import Sequence

from roomy_hull.core.card import Field
from roomy_hull.core.primitives import Rect, Scene
from roomy_hull.drawing.scenes import trip as trip_scene
from roomy_hull.job.edits import services as edits
from roomy_hull.session.card_fields import service_fields
from roomy_hull.session.pages.services.words import NOTHING, lasting
from roomy_hull.session.pages.worked import Worked
from roomy_hull.session.session import Session
from roomy_hull.studies.services.trip import Use
from roomy_hull.tables.column import Column

STEP = 0.25
"""Hours driven follow the hand in such steps. [h]"""


class TripModel(Worked[Use]):
    """The trip: its picture, what is dragged in it, what takes how much."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.aspect = 2.0

    def chosen(self) -> int:
        """The chosen day; -1 for none."""
        group, _, n = self._session.look.services.chosen.rpartition(".")
        return int(n) if group == "trip.days" and n.isdecimal() else -1

    def drawn(self, aspect: float) -> tuple[str, tuple[Scene, Rect] | None]:
        """Draw the trip under its title."""
        self.aspect = aspect
        verdict = self._session.sight
        services = verdict.job.services
        found = getattr(verdict, "services", None)
        if found is None or found.trip is None:
            return (
                NOTHING
                if not services.begun
                else "Enter a battery and a day of the trip to live it through."
            ), None
        trip = services.trip
        title = f"{trip.name or 'The trip'}: {len(trip.days)} days from {trip.begin}"
        return title, trip_scene.scene(
            found.trip, trip.days, services.usable, self.stocks(), self.chosen(), aspect
        )

    def stocks(self) -> trip_scene.Stocks:
        """What is left of water and gas at the end of each day."""
        verdict = self._session.known
        s, f = verdict.job.services, verdict.services.fluids
        if f is None:
            return trip_scene.Stocks()
        water: list[float] = []
        if f.usable > 0:
            left = f.usable * s.trip.water
            water = [left / f.usable]
            for need in f.day_litres:
                left = max(0.0, left - need)
                water.append(left / f.usable)
        gas: list[float] = []
        if f.gas_kg > 0:
            whole = f.gas_kg / s.trip.gas if s.trip.gas else 1.0
            kg = f.gas_kg
            gas = [kg / whole]
            for burnt in f.burnt:
                kg = max(0.0, kg - burnt)
                gas.append(kg / whole)
        return trip_scene.Stocks(tuple(water), tuple(gas), self.measured())

    def measured(self) -> tuple[tuple[float, float], ...]:
        """Hour and charge by the monitor, as a part of what one wants to draw."""
        s = self._session.job.services
        wanted = s.usable / s.capacity if s.capacity else 1.0
        return tuple((m.hour, max(0.0, 1 - (1 - m.charge) / wanted)) for m in s.measured)

    def words(self) -> str:
        """The answer in a sentence or two."""
        verdict = self._session.known
        t, s = verdict.services.trip, verdict.job.services
        if t is None:
            return ""
        rows = [f"Engine off, no sun: {lasting(t.still)}. With sun: {lasting(t.still_sun)}."]
        if t.flat_at is not None:
            rows.append(f"Flat on day {t.flat_at // 24 + 1}.")
        rows.append(
            f"{100 * t.flat_chance:.0f} in 100 such trips go flat, by weather and use; the band holds eight of ten."
        )
        spilled = float(t.lived.spilled.sum())
        if spilled > 0.2 * max(float(t.lived.load.sum()), 1.0):
            rows.append(f"{spilled:,.0f} Wh of sun and driving find no room.")
        for shade in verdict.services.shades:
            day = t.lived.panels > 0
            lost = 100 * (1 - float(shade.lit[day].mean())) if day.any() else 0.0
            name = next((x.name for x in s.sources if x.id == shade.id), shade.id)
            if lost >= 1:
                rows.append(f"{name}: {lost:.0f} % of it lies in shade on average.")
        if s.trip.weather.air:
            rows.append(f"Weather by {s.trip.weather.name}.")
        return " ".join(rows) if s.batteries else ""

    def entries(self) -> tuple[Use, ...]:
        """What takes how much, the most first."""
        t, consumers = self._session.known.services.trip, self._session.job.services.consumers
        return t.day_wh if t is not None else tuple(Use(c.id, c.name, 0.0) for c in consumers)

    def key(self, entry: Use) -> str:
        """The id of what uses power."""
        return entry.id

    def fields(self, key: str) -> tuple[Field, ...]:
        """The fields that the card has of what uses power."""
        return service_fields(self._session.job, f"consumers.{key}")

    def columns(self) -> tuple[Column[Use], ...]:
        """What is told of what takes power."""
        return (
            self.column("What takes", "name", lambda u: (u.name, ""), needed=True),
            self.column("Watts", "watts"),
            self.column("Runs, %", "share"),
            self.column("From, h", "begin"),
            self.column("For, h", "hours"),
            Column("Wh a day", lambda u: (f"{u.wh:,.0f}" if u.wh else "", "")),
        )

    def new(self, name: str) -> str:
        """Add what uses power by its name."""
        session = self._session
        made = session.attempt(f"add {name}", lambda: edits.with_consumer(session.job, "", name))
        return session.job.services.consumers[-1].id if made else ""

    def delete(self, some: Sequence[Use]) -> None:
        """Take what uses power out."""
        session = self._session
        known = {c.id for c in session.job.services.consumers}
        for use in some:
            if use.id in known:
                key = f"consumers.{use.id}"
                session.attempt("take out", functools.partial(edits.without, session.job, key))

    def end_near(self, h: float, k: float, reach: float) -> int:
        """The day whose driving ends at a point of the picture; -1 for none. [mm of its own]"""
        days = self._session.job.services.trip.days
        width = trip_scene.wide(len(days), self.aspect)
        for n in range(len(days)):
            _a, low, end, high = trip_scene.drive_box(days, n, width)
            if abs(h - end) <= reach and low - reach <= k <= high + reach:
                return n
        return -1

    def day_at(self, h: float) -> int:
        """The day at a place of the picture; -1 without days."""
        days = self._session.job.services.trip.days
        return (
            trip_scene.hour_at(days, h, trip_scene.wide(len(days), self.aspect))[0] if days else -1
        )

    def hours_to(self, n: int, h: float) -> float:
        """How long a day's driving would be if it ended at a place of the picture. [h]"""
        days = self._session.job.services.trip.days
        width = trip_scene.wide(len(days), self.aspect)
        hour = width / (24 * len(days))
        hours = (h - trip_scene.LEFT) / hour - 24 * n - days[n].drive_from
        return min(24.0 - days[n].drive_from, max(0.0, round(hours / STEP) * STEP))
