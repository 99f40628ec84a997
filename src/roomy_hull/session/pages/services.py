"""The pages of Services: the trip as one picture, circuits and their plan, water, gas and air."""

import math

from roomy_hull.core.strokes import Rect, Scene
from roomy_hull.core.units import show
from roomy_hull.drawing.scenes import circuits as circuit_scene
from roomy_hull.drawing.scenes import trip as trip_scene
from roomy_hull.job.services import Consumer, Source
from roomy_hull.session.pages.cells import Cell
from roomy_hull.session.session import Session
from roomy_hull.studies.services.fluids import SLOPE_WORDS
from roomy_hull.studies.services.judge import breaker, short_circuit
from roomy_hull.verdict.verdict import Verdict

NOTHING = "No services are entered yet. In the menu Services, begin from what is placed."
LICENSED = "Planning figures: mains wants a licensed electrician, gas a licensed gas fitter; the local code decides."
CIRCUIT_HEADS = ("Circuit", "A", "m", "Cable", "Carries", "Fuse", "Drop, V", "%", "Plug at")
USE_HEADS = ("What takes", "Wh a day")
TANK_HEADS = (
    "Tank",
    "Holds",
    *(f"{w.capitalize()}" for w in SLOPE_WORDS),
    "Over the tap",
    "10 l take",
)
STEP = 0.25
"""Hours driven follow the hand in such steps. [h]"""


def lasting(hours: float) -> str:
    """A time in words."""
    if not math.isfinite(hours):
        return "for good"
    return f"{hours:.0f} hours" if hours < 72 else f"{hours / 24:.1f} days"


def service_words(verdict: Verdict, key: str) -> tuple[str, str, str, str, str]:
    """What the card says of what is chosen: title, kind, figure, sum, hint.

    Parameters
    ----------
    verdict : Verdict
        The verdict.
    key : str
        As `service_fields.fields` takes it.

    Returns
    -------
    tuple of str
        Five texts.
    """
    s, found = verdict.job.services, verdict.services
    group, _, name = key.rpartition(".")
    if not s.begun:
        return ("Services", "nothing entered yet", "", NOTHING, LICENSED)
    if group in ("consumers", "sources"):
        all_of: tuple[Consumer | Source, ...] = (*s.consumers, *s.sources)
        rows = [x for x in all_of if x.id == name]
        one = next((c for c in found.circuits if c.id == name), None)
        if rows:
            words = ""
            if one is not None:
                words = (f"{one.metres:.2f} m of {one.section}, fuse {one.fuse:g} A; loses {one.drop:.2f} V of "
                         f"{one.share * s.volts:.2f} V allowed.")  # fmt: skip
            amps = (
                f"{one.amps:.1f} A" if one is not None else f"{getattr(rows[0], 'watts', 0.0):g} W"
            )
            return (
                rows[0].name,
                "uses power" if group == "consumers" else "gives power",
                amps,
                words,
                LICENSED,
            )
    if group == "batteries" and name.isdecimal() and int(name) < len(s.batteries):
        b = s.batteries[int(name)]
        thing = verdict.assembly.thing(b.thing)
        title = thing.value.name if thing is not None else b.thing
        return (
            title,
            f"battery, {b.chemistry}",
            f"{b.ah:g} Ah",
            f"{b.ah * b.usable * s.volts:,.0f} Wh are to be drawn.",
            LICENSED,
        )
    t = found.trip
    if group == "trip.days" and name.isdecimal() and int(name) < len(s.trip.days) and t is not None:
        n = int(name)
        day = t.lived.load[24 * n : 24 * n + 24]
        sun, drive = t.lived.panels[24 * n : 24 * n + 24], t.lived.drive[24 * n : 24 * n + 24]
        words = f"Sun offers {sun.sum():,.0f} Wh, driving {drive.sum():,.0f} Wh."
        return (
            f"Day {n + 1}",
            s.trip.name,
            f"{day.sum():,.0f} Wh used",
            words,
            "Drag the end of its driving in the picture.",
        )
    if t is None:
        words = "Enter a battery and a day of the trip to live it through."
        return (s.trip.name or "The trip", "trip and uses", "", words, LICENSED)
    still, sunny = lasting(t.still), lasting(t.still_sun)
    words = (
        f"Full, with the engine off, the batteries last {still} without sun and {sunny} with it."
    )
    return (
        s.trip.name or "The trip",
        "trip and uses",
        f"{t.lowest:,.0f} Wh lowest",
        words,
        LICENSED,
    )


class TripModel:
    """The trip: its picture, what is dragged in it, what takes how much.

    Parameters
    ----------
    session : Session
        The job in hand.
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
        verdict = self._session.verdict
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
        if f.gas_kg > 0 and s.uses.burner > 0:
            per_meal = s.uses.meal_burns / f.gas_hours
            gas = [s.trip.gas]
            for day in s.trip.days:
                gas.append(max(0.0, gas[-1] - day.meals * per_meal * s.trip.gas))
        return trip_scene.Stocks(tuple(water), tuple(gas), self.measured())

    def measured(self) -> tuple[tuple[float, float], ...]:
        """Hour and charge by the monitor, as a part of what one wants to draw."""
        s = self._session.job.services
        wanted = s.usable / s.capacity if s.capacity else 1.0
        return tuple((m.hour, max(0.0, 1 - (1 - m.charge) / wanted)) for m in s.measured)

    def words(self) -> str:
        """The answer in a sentence or two."""
        verdict = self._session.verdict
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
        return " ".join(rows) if s.batteries else ""

    def cells(self) -> list[list[Cell]]:
        """What takes how much a day."""
        t = self._session.verdict.services.trip
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


class CircuitsModel:
    """Circuits: their plan, and the schedule.

    Parameters
    ----------
    session : Session
        The job in hand.
    """

    def __init__(self, session: Session) -> None:
        self._session = session

    def keys(self) -> list[str]:
        """What each row chooses."""
        s = self._session.job.services
        found = []
        for c in self._session.verdict.services.circuits:
            group = (
                "consumers"
                if any(x.id == c.id for x in s.consumers)
                else "sources"
                if any(x.id == c.id for x in s.sources)
                else ""
            )
            found.append(f"{group}.{c.id}" if group else "batteries.0")
        return found

    def cells(self) -> list[list[Cell]]:
        """Lay the schedule out."""
        verdict = self._session.verdict
        volts = verdict.job.services.volts
        rows: list[list[Cell]] = []
        for key, c in zip(self.keys(), verdict.services.circuits, strict=True):
            bold = "bold" if key == self._session.look.service else ""
            bad = c.lost(volts) > c.share + 1e-9
            short = short_circuit(c, verdict.job.services)
            fuse = f"{c.fuse:g} {breaker(short)}" if short else f"{c.fuse:g}"
            rows.append([
                (c.name, bold), (f"{c.amps:.1f}", ""), (f"{c.metres:.2f}", ""), (c.section, "stop" if c.trouble else ""),
                (f"{c.ampacity:.0f}", ""), (fuse, "stop" if c.fuse > c.ampacity + 1e-9 else ""),
                (f"{c.drop:.2f}", "look" if bad else ""), (f"{100 * c.lost(volts):.1f}", "look" if bad else ""),
                (", ".join(c.way.plugs) if c.way is not None else "", ""),
            ])  # fmt: skip
        return rows

    def plan(self, aspect: float) -> tuple[str, tuple[Scene, Rect] | None]:
        """Draw the single-line plan."""
        verdict = self._session.verdict
        if not verdict.services.circuits:
            return (
                NOTHING
                if not verdict.job.services.begun
                else "No circuit: enter a battery, a fuse board and what uses power.",
                None,
            )
        name = {t.id: t.value.name for t in verdict.assembly.things}
        chosen = self._session.look.service.rpartition(".")[2]
        drawn = circuit_scene.plan(
            verdict.services.circuits, verdict.job.services, name, chosen, aspect
        )
        return (
            f"{verdict.job.name}, {verdict.job.services.volts} V: every line is plus and minus",
            drawn,
        )

    def ways(self, _aspect: float) -> tuple[str, tuple[Scene, Rect] | None]:
        """Draw the ways on the vehicle, from the side where one stands."""
        verdict, look = self._session.verdict, self._session.look
        chosen = look.service.rpartition(".")[2]
        station = look.station if look.station in ("left", "right") else "left"
        one = next((c for c in verdict.services.circuits if c.id == chosen), None)
        title = (
            "Ways of the cables"
            if one is None or one.way is None
            else f"{one.name}: {one.metres:.2f} m of {one.section}"
        )
        return title, circuit_scene.ways(
            verdict.assembly, verdict.services.circuits, chosen, station
        )


class FluidsModel:
    """Water on a slope and at the tap, gas, air.

    Parameters
    ----------
    session : Session
        The job in hand.
    """

    def __init__(self, session: Session) -> None:
        self._session = session

    def cells(self) -> list[list[Cell]]:
        """Every tank in a row."""
        f, system = self._session.verdict.services.fluids, self._session.look.system
        rows: list[list[Cell]] = []
        for t in f.tanks if f is not None else ():
            runs = f"{t.ten_litres / 60:.1f} min" if math.isfinite(t.ten_litres) else "wants a pump"
            rows.append([
                (t.name, ""), (show(t.holds, "volume", system), ""),
                *((show(v, "volume", system), "bold" if v == min(t.usable) else "") for v in t.usable),
                (show(1000 * t.head, "length", system), ""), (runs, "look" if t.head <= 0 else ""),
            ])  # fmt: skip
        return rows

    def words(self) -> list[str]:
        """Water, gas and air in sentences."""
        verdict, system = self._session.verdict, self._session.look.system
        s, f = verdict.job.services, verdict.services.fluids
        if f is None:
            return [NOTHING]
        days = len(s.trip.days)
        rows = []
        if f.tanks and days:
            whole = sum(f.day_litres)
            ends = (
                f"it ends on day {int(f.dry_at) + 1}"
                if f.dry_at is not None
                else f"it lasts all {days} days"
            )
            rows.append(
                f"Water: {show(f.usable * s.trip.water, 'volume', system)} run out standing level, the trip takes "
                f"{show(whole, 'volume', system)}; {ends}. Slopes are of 5°, the outlet low in the middle of the "
                "tank's front."
            )
        elif not f.tanks:
            rows.append("Water: there is no tank. Place one from the stores, under Water and air.")
        if f.gas_kg > 0:
            ends = (
                f"it ends on day {int(f.gas_out) + 1}"
                if f.gas_out is not None
                else "it lasts the trip"
            )
            rows.append(
                f"Gas: {f.gas_kg:g} kg burn for {f.gas_hours:.1f} h in one burner of {s.uses.burner:g} kW; {ends}."
            )
        rows += [
            f"Its locker's vents low to the outside have {area:.0f} cm²; at least {least:.0f} cm² are asked "
            "(EN 1949, from memory)."
            for _key, area, least in f.vents
        ]
        if f.tyres_minutes:
            rows.append(
                f"Air: four tyres from {s.uses.tyres_low:g} to {s.uses.tyres_high:g} kPa take {f.tyres_minutes:.0f} min."
            )
        return rows
