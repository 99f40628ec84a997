"""Water: what a tank holds, what of it runs out on a slope, by its own weight and through a pump."""

import math

import msgspec

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.core.capabilities import Vessel
from roomy_hull.core.geometry.clipped import above, tilted
from roomy_hull.core.services import flows
from roomy_hull.studies.services.runs import Run, hose_metres

SLOPES = ((0.0, 0.0), (-5.0, 0.0), (5.0, 0.0), (0.0, 5.0), (0.0, -5.0))
"""Front and left so much higher: level, nose down, nose up, left up, right up. [°]"""
SLOPE_WORDS = ("level", "nose down", "nose up", "left up", "right up")
BUCKET, BUCKET_BOTTOM = 10.0, 0.05
"""A bucket: what it holds, and its bottom (common practice). [l, m²]"""


class Water(msgspec.Struct, frozen=True):
    """One tank: what it holds, what of it runs out on each of `SLOPES`, and how it runs to the tap. [l, m, l/s, s]

    `head` is the level of the half full tank over the tap; negative where it is below. `hose` is how long the hose to
    the tap is, `pumped` what a pump gives there [l/min]; 0 where there is no pump. `fill` is how long it takes to fill
    it by buckets of `BUCKET`, their carrying left out.
    """

    id: str
    name: str
    holds: float
    usable: tuple[float, ...]
    head: float
    rate: float
    ten_litres: float
    hose: float = 0.0
    pumped: float = 0.0
    fill: float = 0.0


def usable(vessel: Vessel) -> tuple[float, ...]:
    """What runs out of a tank on each slope.

    Args:
        vessel: In vehicle axes. [mm, l]
    Returns: Above the plane through the outlet; all where it has no walls of its own, as a bladder or cans. [l]
    """
    whole, piece = vessel.litres, vessel.hollow
    if piece is None:
        return tuple(whole for _ in SLOPES)
    x, y, _z = vessel.outlet
    geometric = above(piece, (x, y, -1e5), tilted(0, 0))
    share = whole / geometric if geometric > 0 else 0.0
    return tuple(above(piece, vessel.outlet, tilted(*slope)) * share for slope in SLOPES)


def water(assembly: Assembly, laid: tuple[Run, ...]) -> tuple[Water, ...]:
    """Every tank of a job.

    Returns: In the job's order, then those of the body.
    """
    u = assembly.job.services.uses
    pump = bool(assembly.doing("pump"))
    bucket = flows.bucket_time(BUCKET, BUCKET_BOTTOM, u.inlet / 1000.0)
    found = []
    for thing in assembly.everything:
        vessel = thing.capabilities.vessel
        if vessel is None:
            continue
        box, holds = thing.envelope, vessel.litres
        head = ((box.z0 + box.z1) / 2 - u.tap) / 1000.0
        floor = (box.x1 - box.x0) * (box.y1 - box.y0) / 1e6
        bore = u.hose / 1000.0
        hose = hose_metres(assembly, laid, thing.id)
        rate = flows.outflow(head, bore, hose)
        ten = flows.draw_time(min(10.0, holds), floor, head, bore, hose) if head > 0 else math.inf
        pumped = flows.pumped(-head, bore, hose, u.pump_flow, u.pump_kpa) if pump else 0.0
        found.append(Water(thing.id, thing.name, holds, usable(vessel), head, rate, ten, hose, pumped,
                           holds / BUCKET * bucket))  # fmt: skip
    return tuple(found)
