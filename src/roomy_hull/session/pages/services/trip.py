"""The page Trip: its picture, what is dragged in it, the answer in words."""

from roomy_hull.core.strokes import Rect, Scene
from roomy_hull.drawing.scenes import trip as trip_scene
from roomy_hull.session.pages.cells import Cell
from roomy_hull.session.pages.services.words import NOTHING, lasting
from roomy_hull.session.session import Session

USE_HEADS = ("What takes", "Wh a day")
STEP = 0.25
"""Hours driven follow the hand in such steps. [h]"""


class TripModel:
    """The trip: its picture, what is dragged in it, what takes how much.

    Args:
        session: The job in hand.
    """

    def __init__(self, session: Session) -> None:
        self._session = session
        self.aspect = 2.0

    def chosen(self) -> int:
        """The chosen day; -1 for none."""
        group, _, n = self._session.look.service.rpartition(".")
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

    def cells(self) -> list[list[Cell]]:
        """What takes how much a day."""
        t = self._session.known.services.trip
        return [
            [(name, ""), (f"{wh:,.0f}", "")] for name, wh in (t.day_wh if t is not None else ())
        ]

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
