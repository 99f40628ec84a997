"""Running gear: other wheels and a moved axle, with everything that follows from them."""

from typing import Any, Literal

import msgspec

from roomy_hull.core.errors import EditError
from roomy_hull.core.value import refusal
from roomy_hull.job.model import Job
from roomy_hull.job.vehicle import Kerb, Vehicle

MOST_MOVED = 400.0
"""Nobody moves an axle further without another chassis. [mm]"""


def rim_offset(job: Job, new: float) -> Job:
    """Fit rims of another offset: each wheel stands that much further out or in.

    Args:
        new: How far the mounting face lies outward of the rim's middle. [mm]
    Returns: Both tracks changed by twice the difference: a smaller offset makes them wider.
    Raises:
        EditError: The figure is no offset, or leaves no track.

    The hub stays where it is, and the rim's middle lies `offset` inward of the mounting face on each side.
    """
    vehicle = job.vehicle
    if isinstance(new, bool) or not isinstance(new, int | float):
        raise EditError("expected a figure", "vehicle.wheels.offset", "The old value is kept.")
    by = 2 * (vehicle.wheels.offset - float(new))
    return _with(
        job, "vehicle.wheels.offset",
        track_front=vehicle.track_front + by, track_rear=vehicle.track_rear + by,
        wheels=msgspec.structs.replace(vehicle.wheels, offset=float(new)),
    )  # fmt: skip


def axle_moved(job: Job, end: Literal["front", "rear"], by: float) -> Job:
    """Move an axle along the vehicle; the wheelbase follows, and what is measured from the front axle with it.

    Args:
        end: ``front`` is moved forward, ``rear`` aft.
        by: How far; the other way below 0. [mm]
    Returns:
        The kerb mass stays where it is in the vehicle and is shared anew by statics of two supports; body, things
        and seats keep their places in it.
    Raises:
        EditError: It is no distance, too far, or leaves no vehicle.
    """
    if isinstance(by, bool) or not isinstance(by, int | float) or not abs(by) <= MOST_MOVED:
        raise EditError(
            f"an axle is moved by {MOST_MOVED:g} mm at most",
            "vehicle.wheelbase",
            "Type the way in mm.",
        )
    vehicle = job.vehicle
    kerb, base = vehicle.kerb, vehicle.wheelbase
    whole = kerb.front + kerb.rear
    centre = kerb.rear * base / whole
    shift = by if end == "front" else 0.0
    rear = whole * (centre + shift) / (base + by)
    shared: dict[str, Any] = {"front": whole - rear, "rear": rear, "tools_x": kerb.tools_x + shift}
    try:
        # Figures that leave an axle nothing are told as such.
        new = msgspec.convert({**_plain(kerb), **shared}, Kerb, from_attributes=True)
    except (msgspec.ValidationError, ValueError) as trouble:
        raise EditError(refusal(trouble), "vehicle.kerb", "The old value is kept.") from None
    moved = _with(
        job,
        "vehicle.wheelbase",
        wheelbase=base + by,
        kerb=new,
        **(_shifted(vehicle, by) if shift else {}),
    )
    if not shift:
        return moved
    services = moved.services
    return msgspec.structs.replace(
        moved,
        carried=tuple(msgspec.structs.replace(c, x=c.x + by) for c in moved.carried),
        services=msgspec.structs.replace(
            services,
            consumers=tuple(c if c.thing else msgspec.structs.replace(c, x=c.x + by) for c in services.consumers),
            sources=tuple(s if s.thing else msgspec.structs.replace(s, x=s.x + by) for s in services.sources),
        ),
    )  # fmt: skip


def _plain(value: Any) -> dict[str, Any]:
    """A value's own fields."""
    return {name: getattr(value, name) for name in value.__struct_fields__}


def _shifted(vehicle: Vehicle, by: float) -> dict[str, Any]:
    """Everything of a vehicle that is measured from the front axle, once that lies further forward."""
    shape, rep = vehicle.shape, msgspec.structs.replace

    def tank(one: Any) -> Any:
        return rep(one, x=one.x + by) if one is not None else None

    return {
        "seats": tuple(rep(s, x=s.x + by) for s in vehicle.seats),
        "fuel": tank(vehicle.fuel), "long_range": tank(vehicle.long_range), "tow": tank(vehicle.tow),
        "low": rep(vehicle.low, belly_x=vehicle.low.belly_x + by) if vehicle.low is not None else None,
        "hold": rep(vehicle.hold, start=vehicle.hold.start + by) if vehicle.hold is not None else None,
        "cab_back": vehicle.cab_back + by, "chassis_end": vehicle.chassis_end + by,
        "shape": rep(
            shape, front=shape.front - by, windscreen=shape.windscreen + by, roof_front=shape.roof_front + by,
            roof_rear=shape.roof_rear + by, doors=tuple(d + by for d in shape.doors),
            rear=shape.rear + by if shape.rear else 0.0,
        ),
    }  # fmt: skip


def _with(job: Job, path: str, **changes: Any) -> Job:
    """A job whose vehicle is changed, validated as a whole."""
    try:
        return msgspec.structs.replace(job, vehicle=job.vehicle.but(**changes))
    except (msgspec.ValidationError, ValueError) as trouble:
        raise EditError(refusal(trouble), path, "The old value is kept.") from None
