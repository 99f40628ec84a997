"""The services as JSON, as words for a terminal, and as tables to work from: circuits, plugs, cables to cut."""

import math
from typing import Any

from roomy_hull.core.errors import InputError
from roomy_hull.core.units import rounded_if_finite as _r
from roomy_hull.drawing.backends.dxf import drawn_dxf
from roomy_hull.drawing.backends.svg import svg
from roomy_hull.drawing.paper import Paper
from roomy_hull.drawing.scenes import circuits as circuit_scene
from roomy_hull.formats.csv_tables import table
from roomy_hull.planning.buying import CORES
from roomy_hull.studies.services.water import SLOPE_WORDS
from roomy_hull.tables.column import lines, record
from roomy_hull.tables.services import CIRCUITS, RUNS, circuit_rows, run_rows
from roomy_hull.verdict.verdict import Verdict


def services_json(verdict: Verdict) -> dict[str, Any]:
    """The services as built-in objects, documented in docs/formats.md.

    Returns:
        ``circuits``, ``trip``, ``water``, ``hot_water``, ``gas``, ``air``, ``runs``, ``shade`` and ``plugs``;
        nothing of what is not entered. [A, V, m, mm², Wh, l, kg]
    """
    found, services = verdict.services, verdict.job.services
    frame: dict[str, Any] = {
        "job": verdict.job.name,
        "volts": services.volts,
        "circuits": [record(CIRCUITS, row) for row in circuit_rows(verdict)],
    }
    if found.trip is not None:
        t, lived = found.trip, found.trip.lived
        frame["trip"] = {
            "name": services.trip.name, "hours": t.hours, "usable_wh": _r(services.usable, 1),
            "lowest_wh": _r(t.lowest, 1), "lowest_hour": t.lowest_at, "flat_hour": t.flat_at,
            "flat_chance": _r(t.flat_chance), "still_h": _r(t.still, 2), "still_with_sun_h": _r(t.still_sun, 2),
            "day_wh": {use.name: _r(sum(u.wh for u in t.day_wh if u.name == use.name), 1) for use in t.day_wh},
            "left_wh": [_r(v, 1) for v in lived.left.tolist()], "load_w": [_r(v, 1) for v in lived.load.tolist()],
            "sun_w": [_r(v, 1) for v in lived.panels.tolist()], "drive_w": [_r(v, 1) for v in lived.drive.tolist()],
            "low_wh": [_r(v, 1) for v in t.low.tolist()], "high_wh": [_r(v, 1) for v in t.high.tolist()],
        }  # fmt: skip
    f = found.fluids
    if f is not None:
        frame["water"] = {
            "day_l": [_r(v, 1) for v in f.day_litres], "dry_at_day": f.dry_at,
            "tanks": [
                {"id": t.id, "holds_l": _r(t.holds, 2), "head_m": _r(t.head), "rate_l_s": _r(t.rate, 4),
                 "ten_litres_s": _r(t.ten_litres, 1), "hose_m": _r(t.hose, 2), "pumped_l_min": _r(t.pumped, 2),
                 "fill_by_bucket_s": _r(t.fill, 0),
                 "usable_l": {w: _r(v, 2) for w, v in zip(SLOPE_WORDS, t.usable, strict=True)}}
                for t in f.tanks
            ],
            "pumped_by_charge_l": _r(f.charge_litres, 1),
        }  # fmt: skip
        if f.hot is not None:
            frame["hot_water"] = {
                "litres": f.hot.litres, "heat_kj": _r(f.hot.heat, 1), "wh": _r(f.hot.wh, 1), "gas_kg": _r(f.hot.gas, 4),
                "minutes": _r(f.hot.minutes, 1),
            }  # fmt: skip
        frame["gas"] = {
            "kg": _r(f.gas_kg), "burnt_kg": [_r(v, 4) for v in f.burnt],
            "hours": _r(f.gas_hours, 2), "out_at_day": f.gas_out,
            "vents_cm2": [{"id": key, "area": _r(a, 1), "least": _r(b, 1)} for key, a, b in f.vents],
        }  # fmt: skip
        frame["air"] = {
            "four_tyres_min": _r(f.tyres_minutes, 1), "four_tyres_ah": _r(f.tyres_ah, 1),
            "levels": [
                {"scenario": x.scenario, "left_kpa": _r(x.left, 1), "right_kpa": _r(x.right, 1), "rises_mm": _r(x.lift, 1),
                 "ahead_left_over_deg": _r(x.ahead, 2), "side_left_over_deg": _r(x.side, 2)}
                for x in f.levels
            ],
        }  # fmt: skip
        frame["runs"] = [record(RUNS, row) for row in run_rows(verdict)]
    frame["shade"] = [
        {"source": x.id, "lit": [_r(v, 4) for v in x.lit.tolist()]} for x in found.shades
    ]
    frame["plugs"] = [
        {"id": p.id, "crossing": p.crossing, "pins": p.pins, "amps": p.amps,
         "dead_without": [c.name for c in found.circuits if c.way is not None and p.crossing in c.way.plugs]}
        for p in services.plugs
    ]  # fmt: skip
    return frame


def services_report(verdict: Verdict) -> str:
    """The services for people.

    Returns: Circuits, the trip, water and gas, a line each.
    Raises:
        InputError: No services are entered.
    """
    found, s = verdict.services, verdict.job.services
    if not s.begun and found.fluids is None:
        raise InputError(
            "no services are entered",
            verdict.job.name,
            "Enter batteries and what uses power; see docs/formats.md.",
        )
    rows = [f"{verdict.job.name}, {s.volts} V"]
    for c in found.circuits:
        rows.append(
            f"  {c.name:<32}{c.amps:>6.1f} A {c.metres:>6.2f} m  {c.section:<9} fuse {c.fuse:>5g} A  drop {c.drop:.2f} V"
            + (f"  !! {c.trouble}" if c.trouble else "")
        )
    t = found.trip
    if t is not None:
        least = f"{t.lowest:,.0f} of {s.usable:,.0f} Wh on day {t.lowest_at // 24 + 1}"
        rows.append(
            f"{s.trip.name or 'Trip'}: least left {least}, {100 * t.flat_chance:.0f} % chance of being flat"
        )
        rows.append(f"  engine off, no sun: {_long(t.still)}; with sun: {_long(t.still_sun)}")
        rows += [f"  {use.name:<32}{use.wh:>8,.0f} Wh a day" for use in t.day_wh]
    if found.fluids is not None:
        f = found.fluids
        rows += [
            f"  {x.name:<32}{x.holds:>6.1f} l, {x.usable[0]:.1f} l run out level, {min(x.usable):.1f} l on the worst slope"
            for x in f.tanks
        ]
        rows += [
            f"  {r.sort:<6}{r.name:<50}{r.way.metres:>6.2f} m of {r.bore:g} mm bore" for r in f.runs
        ]
        if f.hot is not None:
            takes = f"{f.hot.wh:,.0f} Wh" if f.hot.wh else f"{1000 * f.hot.gas:.0f} g of gas"
            rows.append(
                f"  {f.hot.litres:g} l hot: {f.hot.heat:,.0f} kJ, {takes}, {f.hot.minutes:.0f} min"
            )
        if f.tyres_minutes:
            rows.append(f"  four tyres {f.tyres_minutes:.0f} min, {f.tyres_ah:.1f} Ah")
        rows += [
            f"  level, {x.scenario:<16} left {x.left:.0f}, right {x.right:.0f} kPa; left over {x.ahead:+.1f}° ahead, "
            f"{x.side:+.1f}° to the left" for x in f.levels
        ]  # fmt: skip
        if f.gas_kg:
            rows.append(f"  gas {f.gas_kg:g} kg, {f.gas_hours:.1f} h of one burner")
    rows.append("Planning figures: a licensed electrician, a gas fitter and the local code decide.")
    return "\n".join(rows)


def _long(hours: float) -> str:
    """A time in hours, or that it lasts."""
    return f"{hours:.0f} h" if math.isfinite(hours) else "it lasts"


def circuit_table(verdict: Verdict) -> str:
    """The circuit schedule as CSV."""
    return table(lines(CIRCUITS, circuit_rows(verdict)))


def cable_table(verdict: Verdict) -> str:
    """What to cut of which cable as CSV: two cores of every circuit, and the sum of each size."""
    rows: list[list[object]] = [["cable", "circuit", "cores", "m each", "m all"]]
    sums: dict[str, float] = {}
    for c in verdict.services.circuits:
        rows.append([c.section, c.name, CORES, round(c.metres, 2), round(CORES * c.metres, 2)])
        sums[c.section] = sums.get(c.section, 0.0) + CORES * c.metres
    rows += [[section, "all", "", "", round(metres, 2)] for section, metres in sums.items()]
    return table(rows)


def run_table(verdict: Verdict) -> str:
    """Every hose and pipe to cut, as CSV."""
    return table(lines(RUNS, run_rows(verdict)))


def plug_table(verdict: Verdict) -> str:
    """What has to be unplugged to take the canopy off, as CSV."""
    rows: list[list[object]] = [["crossing", "circuit", "pins", "A"]]
    for c in verdict.services.circuits:
        rows += [
            [plug, c.name, 2, round(c.amps, 2)]
            for plug in (c.way.plugs if c.way is not None else ())
        ]
    return table(rows)


def plan_paper(verdict: Verdict) -> Paper:
    """The single-line plan, to be printed and stuck inside the door."""
    names = verdict.assembly.names
    services = verdict.job.services
    scene, frame = circuit_scene.plan(verdict.services.circuits, services, names, "", PLAN_ASPECT)
    title = f"{verdict.job.name}, {services.volts} V: every line is plus and minus"
    return Paper(title, scene, frame, "A licensed electrician and the local code decide.")


def plan_svg(verdict: Verdict) -> str:
    """The single-line plan as SVG."""
    return svg((plan_paper(verdict),))


def plan_dxf(verdict: Verdict) -> str:
    """The single-line plan as DXF: boxes, lines and fuses on the layer PLAN, words on WORDS."""
    return drawn_dxf(plan_paper(verdict).scene)


PLAN_ASPECT = 1.41
"""Of a sheet of paper across."""
FILES = {
    "plan.svg": plan_svg,
    "plan.dxf": plan_dxf,
    "circuits.csv": circuit_table,
    "cables.csv": cable_table,
    "runs.csv": run_table,
    "plugs.csv": plug_table,
}
"""Tables to work from, by their file names."""
