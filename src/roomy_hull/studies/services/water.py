"""Water: what a tank holds, what of it runs out on a slope, by its own weight and through a pump."""

import math

import msgspec

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.assembly.things import Thing
from roomy_hull.core.geometry.clipped import above, tilted
from roomy_hull.core.geometry.motion import Piece, prism
from roomy_hull.core.services import flows
from roomy_hull.kinds.device import Device
from roomy_hull.kinds.tank import Tank, inside, litres
from roomy_hull.studies.services.runs import Run, hose_metres

SLOPES = ((0.0, 0.0), (-5.0, 0.0), (5.0, 0.0), (0.0, 5.0), (0.0, -5.0))
"""Front and left so much higher: level, nose down, nose up, left up, right up. [°]"""
SLOPE_WORDS = ("level", "nose down", "nose up", "left up", "right up")
OUTLET_UP = 12.0
"""An outlet's middle lies so far over the tank's bottom: half of a usual thread (common practice). [mm]"""
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


def inner(thing: Thing, unit: Tank) -> Piece | None:
    """The room inside a welded tank, in vehicle axes; nothing for bladder and cans. [mm]"""
    if thing.place is None or unit.style not in ("box", "wedge"):
        return None
    a, b, c = inside(unit)
    t, frame = unit.sheet, thing.place.frame
    low = c if unit.style == "box" else max(unit.low - 2 * t, 1.0)
    corners = [
        frame.point(unit.u + t, unit.v + t + v, unit.w + t + w)
        for v, w in ((0, 0), (b, 0), (b, c), (0, low))
    ]
    axis = 1 if frame.side == "rear" else 0
    flat = tuple((p[1 - axis], p[2]) for p in corners)
    if sum(p[0] * q[1] - q[0] * p[1] for p, q in zip(flat, (*flat[1:], flat[0]), strict=True)) < 0:
        flat = flat[::-1]
    start = corners[0][axis]
    return prism(axis, flat, start, start + a)


def usable(thing: Thing, unit: Tank) -> tuple[float, ...]:
    """What runs out of a tank on each slope.

    Returns: Above the plane through the outlet, low in the middle of its front; all of a bladder or of cans. [l]
    """
    whole = litres(unit, thing.place.bay.side if thing.place is not None else "left")
    piece = inner(thing, unit)
    if piece is None or thing.place is None:
        return tuple(whole for _ in SLOPES)
    outlet = thing.place.frame.point(
        unit.u + unit.width / 2, unit.v + unit.sheet, unit.w + unit.sheet + OUTLET_UP
    )
    geometric = above(piece, (outlet[0], outlet[1], -1e5), tilted(0, 0))
    share = whole / geometric if geometric > 0 else 0.0
    return tuple(above(piece, outlet, tilted(*slope)) * share for slope in SLOPES)


def water(assembly: Assembly, laid: tuple[Run, ...]) -> tuple[Water, ...]:
    """Every tank of a job.

    Returns: In the job's order.
    """
    u = assembly.job.services.uses
    pump = any(isinstance(t.value, Device) and t.value.what == "pump" for t in assembly.things)
    bucket = flows.bucket_time(BUCKET, BUCKET_BOTTOM, u.inlet / 1000.0)
    found = []
    for thing in assembly.things:
        unit = thing.value
        if not isinstance(unit, Tank):
            continue
        side = thing.place.bay.side if thing.place is not None else "left"
        box = thing.envelope
        head = ((box.z0 + box.z1) / 2 - u.tap) / 1000.0
        floor = (box.x1 - box.x0) * (box.y1 - box.y0) / 1e6
        holds = litres(unit, side)
        bore = u.hose / 1000.0
        hose = hose_metres(assembly, laid, thing.id)
        rate = flows.outflow(head, bore, hose)
        ten = flows.draw_time(min(10.0, holds), floor, head, bore, hose) if head > 0 else math.inf
        pumped = flows.pumped(-head, bore, hose, u.pump_flow, u.pump_kpa) if pump else 0.0
        found.append(Water(thing.id, thing.name, holds, usable(thing, unit), head, rate, ten, hose, pumped,
                           holds / BUCKET * bucket))  # fmt: skip
    return tuple(found)
