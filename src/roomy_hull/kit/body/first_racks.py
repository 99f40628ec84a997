"""First racks for a body as it stands: proposals to be changed."""

from collections.abc import Callable

from roomy_hull.core.errors import InputError
from roomy_hull.job.body import Body
from roomy_hull.job.model import Job
from roomy_hull.job.racks import Rack
from roomy_hull.job.vehicle import Vehicle
from roomy_hull.kit.body import canopy as canopy_kit
from roomy_hull.kit.body import rooms as room_kit
from roomy_hull.kit.body.subframe import floor_z, front_x

RACKS: dict[str, str] = {
    "tub rack": "Rack over the tub or the tray", "cab rack": "Rack on the cab's roof",
    "gap rack": "Rack between cab and body", "hoop": "Hoop that carries spares",
    "rear wall": "Slotted rails across the canopy's rear",
}  # fmt: skip
"""Racks that can be begun, and their words."""
LEG_STEPS = (110.0, 150.0)
"""In such steps come the legs of a cab's rack (common practice). [mm]"""
APART = 20.0
"""Between a room or a rack and what stands beside it (common practice). [mm]"""


def _tub_rack(vehicle: Vehicle, body: Body, key: str) -> Rack:
    """Over a tub's walls at a tent's height, or over the bare tray on posts."""
    tray, hold = body.tray, vehicle.hold
    if tray.kind == "hold":
        if vehicle.kind != "pickup" or hold is None:
            raise InputError(f"a {vehicle.kind} has no tub to stand a rack on")
        if body.canopy is not None:
            raise InputError("a topper stands on the tub", remedy="Take it away first.")
        return Rack(id=key, name="Tub rack", kind="tub rack", start=60, foot=hold.height, length=tray.length - 120,
                    width=hold.width + 40, height=450.0, bows=3, cross_bars=2)  # fmt: skip
    outer = canopy_kit.outside(vehicle, body)
    if outer is not None:
        raise InputError("a canopy stands on the tray", remedy="Take it away first.")
    high = max(450.0, vehicle.shape.height - floor_z(vehicle, tray))
    return Rack(id=key, name="Tray rack", kind="tub rack", start=60, length=tray.length - 120, width=tray.width - 80,
                height=round(high), bows=3, cross_bars=2)  # fmt: skip


def _cab_rack(vehicle: Vehicle, body: Body, key: str) -> Rack:
    """On the cab's roof, its legs the step that brings it nearest to the headboard's top."""
    shape, tray = vehicle.shape, body.tray
    roof = shape.height - floor_z(vehicle, tray)
    level = tray.headboard + tray.rack - roof if tray.kind == "tray" else LEG_STEPS[0]
    leg = min(LEG_STEPS, key=lambda step: abs(step - level))
    x0 = front_x(vehicle, tray)
    long = shape.roof_rear - shape.roof_front - 60.0
    if long < 300:
        raise InputError(
            f"the cab's roof is {long + 60:.0f} mm long", remedy="Measure the cab's outline again."
        )
    return Rack(id=key, name="Cab rack", kind="cab rack", start=shape.roof_front + 40 - x0, foot=roof, length=long,
                width=min(1300.0, shape.width - 350), height=leg, bows=2, cross_bars=3, section="25x40x3")  # fmt: skip


def _gap_rack(vehicle: Vehicle, body: Body, key: str) -> Rack:
    """Between the cab and what stands on the tray, so that the gap is of use."""
    tray = body.tray
    if tray.kind != "tray":
        raise InputError(f"a {vehicle.kind} has no gap behind its cab")
    outer = canopy_kit.outside(vehicle, body)
    x0 = front_x(vehicle, tray)
    first = [outer.x0] if outer is not None else []
    first += [r.box.x0 for r in room_kit.places(vehicle, body) if not r.room.vehicles_own]
    end = min(first) - x0 - 10 if first else min(400.0, tray.length / 4)
    if end - 10 < 120:
        raise InputError(
            f"between the headboard and what stands behind it there are {max(0.0, end):.0f} mm",
            remedy="Move the canopy or the box back on the stage Body: its start wants 140 mm or more.",
        )
    high = max(300.0, vehicle.shape.height - floor_z(vehicle, tray))
    return Rack(id=key, name="Gap rack", kind="gap rack", start=10, length=end - 10, width=tray.width - 60,
                height=round(high), bows=2, cross_bars=1 if end > 300 else 0)  # fmt: skip


def _hoop(vehicle: Vehicle, body: Body, key: str) -> Rack:
    """A steel hoop behind the canopy, or at the tray's tail, that carries spares."""
    tray = body.tray
    outer = canopy_kit.outside(vehicle, body)
    x0 = front_x(vehicle, tray)
    wide = 50.0
    start = outer.x1 - x0 + APART if outer is not None else tray.length - wide - 10
    if start + wide > tray.length - (tray.side_thickness if tray.sides else 0.0):
        raise InputError(
            f"behind the canopy the tray has {max(0.0, tray.length - start + APART):.0f} mm",
            remedy=f"A hoop wants {wide + APART:.0f}: make the canopy shorter or the tray longer.",
        )
    high = min(950.0, outer.z1 - outer.z0) if outer is not None else 900.0
    return Rack(id=key, name="Hoop", kind="hoop", start=start, length=wide, width=tray.width - 200, height=high, bows=1,
                section="50x50x3", bar_material="mild steel")  # fmt: skip


def _rear_wall(vehicle: Vehicle, body: Body, key: str) -> Rack:
    """Slotted rails across the canopy's rear wall, where no door opens."""
    canopy, outer = body.canopy, canopy_kit.outside(vehicle, body)
    if canopy is None or outer is None or canopy.kind == "cargo":
        raise InputError("there is no canopy whose rear could carry rails", remedy="Fit one first.")
    low = max([
        canopy.base,
        60.0,
        *(d.sill + d.height + 40 for d in canopy.doors if d.side == "rear"),
    ])
    high = canopy.height - canopy.roof - low - 20
    if high < 80:
        raise InputError(
            "a door takes the canopy's rear",
            remedy="Make the rear door lower, or take it away, first.",
        )
    return Rack(id=key, name="Rear wall", kind="rear wall", foot=low, length=40, width=canopy.width - 120,
                height=min(high, 700.0), bows=3 if high > 400 else 2, section="40x20x2.5", pitch=50.0)  # fmt: skip


_RACKS: dict[str, Callable[[Vehicle, Body, str], Rack]] = {
    "tub rack": _tub_rack, "cab rack": _cab_rack, "gap rack": _gap_rack, "hoop": _hoop, "rear wall": _rear_wall,
}  # fmt: skip


def first_rack(job: Job, kind: str, key: str) -> Rack:
    """A first rack of a kind, as large as makes sense there.

    Args:
        kind: One of `RACKS`.
    Returns: To be changed. [mm]
    Raises:
        InputError: This body takes none, or there is no room; says why.
    """
    return _RACKS[kind](job.vehicle, job.body, key)
