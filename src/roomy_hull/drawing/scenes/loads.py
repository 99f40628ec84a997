"""The vehicle on its axles: what each carries, where the centre of mass is, levers, and how it stands."""

import math

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.assembly.springs import Stance
from roomy_hull.core.primitives import Disc, Outline, Rect, Scene, Stroke, Words, line
from roomy_hull.core.refs import VEHICLE, Ref
from roomy_hull.core.units import System, show
from roomy_hull.drawing.scenes.attitude import settled, settled_point
from roomy_hull.drawing.scenes.ground import elevation, frame
from roomy_hull.drawing.view import ELEVATION, Station
from roomy_hull.studies.loads.axles import Figure, ScenarioLoads
from roomy_hull.studies.loads.ranking import Contribution
from roomy_hull.studies.strength.chassis import ChassisResult
from roomy_hull.studies.strength.stability import Stability


def loads_frame(assembly: Assembly) -> Rect:
    """The stretch that shows the vehicle with its axle arrows below. [mm]"""
    h0, _k0, h1, k1 = frame(assembly, "left")[0]
    return (h0, -620.0, h1, k1)


def standing(assembly: Assembly, stance: Stance) -> Scene:
    """Draw the vehicle from its left as it sits on its springs. [mm]"""
    return settled(
        elevation(assembly, "left"), assembly.job.vehicle, stance.front_sag, stance.rear_sag
    )


def loads_scene(assembly: Assembly, loads: ScenarioLoads, system: System) -> Scene:
    """Draw the vehicle from its left with what one scenario puts on it.

    Args:
        loads: The scenario. [kg, mm]
        system: ``metric`` or ``us``, for the figures.
    Returns:
        Side view at the loaded attitude, an arrow under each axle with its load and limit, and the centre of mass.
        [mm]
    """
    found: list[Stroke] = list(standing(assembly, loads.stance))
    vehicle = assembly.job.vehicle
    for x, figure, aft in ((0.0, loads.front, True), (vehicle.wheelbase, loads.rear, False)):
        found += _arrow(x, figure, system, aft)
    h, _k = ELEVATION["left"].point(*loads.centre)
    k = centre_height(assembly, loads)
    found += [
        line("centre line", (h, k), (h, -120.0)),
        Disc("centre", (h, k), 46),
        Disc("centre inner", (h, k), 16),
    ]
    return tuple(found)


def centre_height(assembly: Assembly, loads: ScenarioLoads) -> float:
    """The height of the centre of mass over level ground, the ends settled. [mm]"""
    s = loads.stance
    return settled_point(
        assembly.job.vehicle, s.front_sag, s.rear_sag, loads.centre[0], loads.centre[2]
    )


def _arrow(x: float, figure: Figure, system: System, aft: bool) -> list[Stroke]:
    """Draw the ground's push on one axle, as long as its load is of its limit; words to one side."""
    limit = figure.limit or figure.value or 1.0
    share = min(1.25, max(0.05, figure.value / limit))
    long = 300.0 * share
    role = "axle over" if figure.value > limit else "axle"
    shaft, head = 34.0, 78.0
    points = (
        (x, -40.0), (x + head, -150.0), (x + shaft, -150.0), (x + shaft, -150.0 - long),
        (x - shaft, -150.0 - long), (x - shaft, -150.0), (x - head, -150.0),
    )  # fmt: skip
    at, anchor = (x + 130, "left") if aft else (x - 130, "right")
    return [
        Outline(role, points),
        Words("axle load", (at, -225.0), show(figure.value, "mass", system), 19, anchor=anchor),
        Words(
            "axle name",
            (at, -225.0),
            f"limit {show(limit, 'mass', system)}",
            12,
            anchor=anchor,
            below=18,
        ),
    ]


def lever_scene(
    assembly: Assembly,
    rows: tuple[Contribution, ...],
    chosen: Ref | None,
    system: System,
    measure: str,
) -> Scene:
    """Draw every mass as a disc of its weight, and the lever of the chosen one.

    Args:
        system: ``metric`` or ``us``.
        measure: ``rear``, ``front`` or ``side``.
    Returns: From the left; from behind for the sides. [mm]
    """
    view = ELEVATION["rear" if measure == "side" else "left"]
    station: Station = "rear" if measure == "side" else "left"
    found: list[Stroke] = list(elevation(assembly, station))
    base = assembly.job.vehicle.wheelbase
    for c in rows:
        if c.owner == VEHICLE or c.kg <= 0:
            continue
        h, k = view.point(c.x, c.y, c.z)
        role = "lever chosen" if c.owner == chosen else "lever mass"
        found.append(Disc(role, (h, k), 9.0 * math.sqrt(c.kg)))
    one = next((c for c in rows if c.owner == chosen), None)
    if one is None:
        return tuple(found)
    h, k = view.point(one.x, one.y, one.z)
    if measure == "side":
        pivot, low = 0.0, -90.0
        words = (
            f"{show(abs(one.y), 'length', system)} {'right' if one.y > 0 else 'left'} of the middle"
        )
    else:
        pivot, low = (0.0, -90.0) if measure == "rear" else (base, -90.0)
        other = "front" if measure == "rear" else "rear"
        words = f"{show(abs(one.x - pivot), 'length', system)} from the {other} axle"
    found += [
        line("lever line", (h, k), (h, low)), line("lever line", (pivot, low), (h, low)),
        Disc("centre", (pivot, low), 34), Disc("lever chosen", (h, low), 26),
        Words("centre words", ((pivot + h) / 2, low - 140), words, 12),
        Words("axle load", ((pivot + h) / 2, low - 140),
              f"{show(one.kg, 'mass', system)} puts {show(one.of(measure), 'mass', system)} "
              + {"rear": "on the rear axle", "front": "on the front axle", "side": "to the right"}[measure], 15,
              below=17),
    ]  # fmt: skip
    return tuple(found)


def chassis_frame(assembly: Assembly) -> Rect:
    """The stretch of vehicle and diagrams. [mm]"""
    h0, _k0, h1, k1 = frame(assembly, "left")[0]
    return (h0, -2420.0, h1, k1)


MOMENT_Y, SHEAR_Y = -860.0, -1900.0
"""Where the middles of both diagrams lie under the ground. [mm]"""
HALF = 440.0
"""Half the height of a diagram. [mm]"""


def chassis_scene(
    assembly: Assembly, result: ChassisResult, scenario: str, stance: Stance
) -> Scene:
    """Draw bending and shear under the vehicle's own picture.

    Args:
        result: All scenarios. [N, N·m]
        scenario: Id of the one that is drawn full; the others are thin.
    Returns:
        Vehicle, spring forces, moment (sagging below its line, as the rails bend) with the evenly spread rated
        load dashed, and shear. [mm]
    """
    found: list[Stroke] = list(standing(assembly, stance))
    chosen = result.diagram(scenario)
    everything = (*result.diagrams, result.baseline)
    most_v = max(max(abs(v) for v in d.shear) for d in everything) or 1.0
    x0, x1 = result.xs[0], result.xs[-1]
    for low, high in ((result.start, result.end),):
        for y in (MOMENT_Y, SHEAR_Y):
            found.append(
                Outline("chassis judged", ((low, y - HALF), (high, y - HALF), (high, y + HALF), (low, y + HALF)))
            )  # fmt: skip
    for push in chosen.pushes:
        if push.newton > 0:
            found += _push(push.x, push.newton / most_v)
    for middle, words, pick, sign in (
        (MOMENT_Y, "bending", "moment", -1.0),
        (SHEAR_Y, "shear", "shear", 1.0),
    ):
        # A rail that sags is drawn below its line; the whole range fills the diagram's height.
        values = [sign * v for d in everything for v in getattr(d, pick)]
        low, high = min(0.0, *values), max(0.0, *values)
        scale = 2 * HALF * 0.96 / max(high - low, 1e-9)
        y = middle - (high + low) / 2 * scale
        scale *= sign
        found.append(line("chart zero", (x0, y), (x1, y)))
        for d in result.diagrams:
            if d is not chosen:
                found.append(_trace("curve thin", result.xs, getattr(d, pick), y, scale))
        here = getattr(chosen, pick)
        ring = (
            (x0, y),
            *((x, y + v * scale) for x, v in zip(result.xs, here, strict=True)),
            (x1, y),
        )
        found.append(Outline("chart band", ring))
        found.append(_trace("curve base", result.xs, getattr(result.baseline, pick), y, scale))
        found.append(_trace("curve 1", result.xs, here, y, scale))
        found.append(Words("chart title", (x0 - 60, y), words, 12, anchor="right"))
        if pick == "moment":
            at = (chosen.peak_x, y + chosen.peak * scale)
            found += [
                Disc("curve 1 dot", at, 30),
                Words(
                    "axle load",
                    (chosen.peak_x, at[1] + (150 if chosen.peak > 0 else -170)),
                    f"{abs(chosen.peak) / 1e3:,.1f} kN·m",
                    13,
                ),
            ]
    for x, words in ((0.0, "front axle"), (assembly.job.vehicle.wheelbase, "rear axle")):
        found.append(line("lever", (x, -60.0), (x, SHEAR_Y - HALF)))
        found.append(Words("chart words", (x, SHEAR_Y - HALF - 45), words, 11))
    return tuple(found)


def _trace(
    role: str, xs: tuple[float, ...], values: tuple[float, ...], y: float, scale: float
) -> Stroke:
    return line(role, *((x, y + v * scale) for x, v in zip(xs, values, strict=True)))


def _push(x: float, share: float) -> list[Stroke]:
    """Draw one spring's push on the chassis as an arrow from the ground line. [mm]"""
    long = 90.0 + 160.0 * min(1.0, share)
    top = -40.0
    points = ((x, top), (x + 42, top - 70), (x + 14, top - 70), (x + 14, top - long),
              (x - 14, top - long), (x - 14, top - 70), (x - 42, top - 70))  # fmt: skip
    return [Outline("axle", points)]


def stability_scene(
    assembly: Assembly, one: Stability, loads: ScenarioLoads, system: System
) -> Scene:
    """Draw the vehicle from behind with its centre of mass and the lines over which it would tip.

    Args:
        system: ``metric`` or ``us``.
    Returns: From behind, let down by the rear's sag. [mm]
    """
    sag = loads.stance.rear_sag
    found: list[Stroke] = list(elevation(assembly, "rear"))
    half = one.track / 2
    centre = (one.y, one.height)
    for side in (-1.0, 1.0):
        foot = (side * half, 0.0)
        found.append(line("lever line", centre, foot))
    degree = (one.tilt_left, one.tilt_right)
    found += [
        line("centre line", centre, (one.y, -70.0)), Disc("centre", centre, 40), Disc("centre inner", centre, 14),
        Words("axle load", (-half, -120.0), f"{degree[0]:.0f}°", 19),
        Words("axle load", (half, -120.0), f"{degree[1]:.0f}°", 19),
        Words("centre words", (-half, -120.0), "tips left", 12, below=17),
        Words("centre words", (half, -120.0), "tips right", 12, below=17),
        Words("centre words", (0.0, -120.0), f"{show(one.height, 'length', system)} up, "
              f"{show(abs(one.y), 'length', system)} {'right' if one.y > 0 else 'left'}", 12, below=34),
        Words("centre words", (0.0, -120.0), f"rear settles {show(sag, 'length', system)} from kerb", 12, below=50),
    ]  # fmt: skip
    return tuple(found)


def stability_frame(assembly: Assembly) -> Rect:
    """The stretch of the picture from behind. [mm]"""
    h0, _k0, h1, k1 = frame(assembly, "rear")[0]
    return (h0, -560.0, h1, k1)
