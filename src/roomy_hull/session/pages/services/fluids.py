"""The pages Water, and Gas and air: what runs out, what burns, how long; air springs on a slope."""

import math

from roomy_hull.core.primitives import Rect, Scene
from roomy_hull.core.units import show
from roomy_hull.drawing.scenes import tanks as scene
from roomy_hull.session.pages.model import PageModel
from roomy_hull.session.pages.services.words import NOTHING
from roomy_hull.studies.services.water import BUCKET, SLOPE_WORDS
from roomy_hull.tables.column import Cell

TANK_HEADS = (
    "Tank", "Holds", *(f"{w.capitalize()}" for w in SLOPE_WORDS), "Over tap", "10 l take", "Hose, m", "Pump", "By bucket",
)  # fmt: skip
LEVEL_HEADS = ("Scenario", "Left, kPa", "Right, kPa", "Rear rises", "Slope left over")


class WaterModel(PageModel):
    """Water on a slope, at the tap, through a pump, heated."""

    def cells(self) -> list[list[Cell]]:
        """Every tank in a row."""
        f, system = self._session.known.services.fluids, self._session.look.system
        rows: list[list[Cell]] = []
        for t in f.tanks if f is not None else ():
            runs = f"{t.ten_litres / 60:.1f} min" if math.isfinite(t.ten_litres) else "wants a pump"
            rows.append([
                (t.name, ""), (show(t.holds, "volume", system), ""),
                *((show(v, "volume", system), "bold" if v == min(t.usable) else "") for v in t.usable),
                (show(1000 * t.head, "length", system), ""),
                (runs, "look" if t.head <= 0 and not t.pumped else ""), (f"{t.hose:.1f}", ""),
                (f"{show(t.pumped, 'volume', system)}/min" if t.pumped else "none", ""),
                (f"{math.ceil(t.holds / BUCKET)} in {t.fill / 60:.0f} min", ""),
            ])  # fmt: skip
        return rows

    def picture(self, aspect: float) -> tuple[str, tuple[Scene, Rect] | None]:
        """Draw what stays in each tank on each slope."""
        verdict = self._session.known
        f = verdict.services.fluids
        drawn = scene.slopes(verdict.assembly, f.tanks if f is not None else (), aspect)
        return (
            "What stays in the tank below its outlet, level and on 5° of slope" if drawn else ""
        ), drawn

    def words(self) -> list[str]:
        """Water in sentences."""
        verdict, system = self._session.known, self._session.look.system
        s, f = verdict.job.services, verdict.services.fluids
        if f is None:
            return [NOTHING]
        if not f.tanks:
            return ["There is no tank. Place one from the stores, under Water and air."]
        rows = []
        if s.trip.days:
            ends = (
                f"it ends on day {int(f.dry_at) + 1}"
                if f.dry_at is not None
                else f"it lasts all {len(s.trip.days)} days"
            )
            rows.append(
                f"{show(f.usable * s.trip.water, 'volume', system)} run out standing level, the trip takes "
                f"{show(sum(f.day_litres), 'volume', system)}; {ends}."
            )
        if f.charge_litres:
            rows.append(
                f"One charge of the batteries pumps {show(f.charge_litres, 'volume', system)}."
            )
        if f.hot is not None:
            by = f"{f.hot.wh:,.0f} Wh" if f.hot.wh else f"{1000 * f.hot.gas:.0f} g of gas"
            rows.append(
                f"{show(f.hot.litres, 'volume', system)} from {s.uses.hot_from:g} to {s.uses.hot_to:g} °C are "
                f"{f.hot.heat:,.0f} kJ: {by}, {f.hot.minutes:.0f} min."
            )
        return rows


class GasModel(PageModel):
    """Gas and its locker, air for tyres, air springs on the slope of the camp."""

    def words(self) -> list[str]:
        """Gas and air in sentences."""
        verdict = self._session.known
        s, f = verdict.job.services, verdict.services.fluids
        if f is None:
            return [NOTHING]
        rows = []
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
        if not f.vents:
            rows.append("Gas: there is no locker. Place one from the stores, under Kitchen.")
        if f.tyres_minutes:
            ah = f" and {f.tyres_ah:.1f} Ah" if f.tyres_ah else ""
            rows.append(
                f"Air: four tyres from {s.uses.tyres_low:g} to {s.uses.tyres_high:g} kPa in {f.tyres_minutes:.0f} min{ah}, "
                f"with rests: the compressor runs {100 * s.uses.air_duty:.0f} % of the time."
            )
        else:
            rows.append(
                "Air: there is no compressor. Place one from the stores, under Water and air."
            )
        if not f.levels:
            rows.append(
                "Levelling in camp: fit air springs in Loads, page Springs, to have their pressures."
            )
        else:
            rows.append(
                f"Levelling: the ground rises {s.uses.slope_ahead:g}° to the front and {s.uses.slope_left:g}° to the left. "
                "Deflate again before driving."
            )
        return rows

    def cells(self) -> list[list[Cell]]:
        """Pressures for level, scenario by scenario."""
        verdict, system = self._session.known, self._session.look.system
        f = verdict.services.fluids
        names = {x.id: x.name for x in verdict.job.scenarios}
        return [
            [(names.get(x.scenario, x.scenario), ""), (f"{x.left:.0f}", ""), (f"{x.right:.0f}", ""),
             (show(x.lift, "length", system), ""),
             (f"{x.ahead:+.1f}° ahead, {x.side:+.1f}° left", "look" if max(abs(x.ahead), abs(x.side)) > LEVEL else "")]
            for x in (f.levels if f is not None else ())
        ]  # fmt: skip


LEVEL = 1.0
"""One sleeps well on less than this (common practice). [°]"""
