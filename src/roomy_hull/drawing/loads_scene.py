"""The vehicle on its axles: what each carries, where the centre of mass is, what weighs where."""

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.core.strokes import Disc, Outline, Rect, Scene, Stroke, Words, line
from roomy_hull.core.units import System, show
from roomy_hull.drawing.ground_scene import elevation, frame
from roomy_hull.drawing.view import ELEVATION
from roomy_hull.studies.loads.axles import Figure, ScenarioLoads


def loads_frame(assembly: Assembly) -> Rect:
    """Give the stretch that shows the vehicle with its axle arrows below. [mm]"""
    h0, _k0, h1, k1 = frame(assembly, "left")[0]
    return (h0, -560.0, h1, k1)


def loads_scene(assembly: Assembly, loads: ScenarioLoads, system: System) -> Scene:
    """Draw the vehicle from its left with what one scenario puts on it.

    Parameters
    ----------
    assembly : Assembly
        The job in vehicle axes.
    loads : ScenarioLoads
        The scenario. [kg, mm]
    system : str
        ``metric`` or ``us``, for the figures.

    Returns
    -------
    Scene
        Side view, an arrow under each axle with its load and limit, and the centre of mass. [mm]
    """
    found: list[Stroke] = list(elevation(assembly, "left"))
    base = assembly.job.vehicle.wheelbase
    for x, figure in ((0.0, loads.front), (base, loads.rear)):
        found += _arrow(x, figure, system)
    h, k = ELEVATION["left"].point(*loads.centre)
    high, aft = show(loads.centre[2], "length", system), show(loads.centre[0], "length", system)
    found += [
        line("centre line", (h, k), (h, -150.0)), Disc("centre", (h, k), 46),
        Disc("centre inner", (h, k), 16), Words("centre words", (h, -215.0), "Centre of mass", 12),
        Words("centre words", (h, -345.0), f"{aft} aft, {high} up", 12),
    ]  # fmt: skip
    return tuple(found)


def _arrow(x: float, figure: Figure, system: System) -> list[Stroke]:
    """Draw the ground's push on one axle, as long as its load is of its limit."""
    limit = figure.limit or figure.value or 1.0
    share = min(1.25, max(0.05, figure.value / limit))
    long = 300.0 * share
    role = "axle over" if figure.value > limit else "axle"
    shaft, head = 34.0, 78.0
    points = (
        (x, -40.0), (x + head, -150.0), (x + shaft, -150.0), (x + shaft, -150.0 - long),
        (x - shaft, -150.0 - long), (x - shaft, -150.0), (x - head, -150.0),
    )  # fmt: skip
    return [
        Outline(role, points),
        Words("axle load", (x + 120, -250.0), show(figure.value, "mass", system), 21, anchor="left"),
        Words("axle name", (x + 120, -420.0), f"limit {show(limit, 'mass', system)}", 12,
              anchor="left"),
    ]  # fmt: skip
