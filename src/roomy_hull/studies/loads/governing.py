"""Which rating governs an axle: the lowest of axle, tyres, wheels and springs."""

import msgspec

from roomy_hull.core.tyres import load_of_index
from roomy_hull.job.vehicle import Vehicle


class Governing(msgspec.Struct, frozen=True):
    """An axle's limit and what sets it, with all that were given. [kg]"""

    kg: float
    by: str
    given: tuple[tuple[str, float], ...]


def governing(vehicle: Vehicle, axle: str) -> Governing:
    """Find what an axle may carry.

    Args:
        vehicle: Its ratings and tyres; a rating of 0 was not given.
        axle: ``front`` or ``rear``.
    Returns: The lowest of the axle's rating, two tyres by load index, two wheels, its springs. [kg]
    """
    r = vehicle.ratings
    own, spring = (
        (r.front_axle, r.front_spring) if axle == "front" else (r.rear_axle, r.rear_spring)
    )
    given = [("axle", own)]
    if vehicle.tyre_load_index:
        given.append((f"two tyres of load index {vehicle.tyre_load_index}",
                      2 * load_of_index(vehicle.tyre_load_index)))  # fmt: skip
    if r.wheel:
        given.append(("two wheels", 2 * r.wheel))
    if spring:
        given.append(("springs", spring))
    by, kg = min(given, key=lambda row: row[1])
    return Governing(kg, by, tuple(given))
