"""The towing trade-off: what each kilogram on the vehicle takes from what may be behind it."""

import msgspec

from roomy_hull.job.model import Job
from roomy_hull.job.vehicle import Vehicle
from roomy_hull.studies.loads.axles import LoadResult
from roomy_hull.studies.loads.governing import governing

BALL_SHARE = 0.1
"""The usual part of a trailer's mass that stands on the ball (common practice)."""


class TowPoint(msgspec.Struct, frozen=True):
    """One scenario: the vehicle without its ball load, the trailer it has, the most it may have.

    `by` names the limit that sets the most. [kg]
    """

    id: str
    name: str
    vehicle: float
    trailer: float
    most: float
    by: str


class Towing(msgspec.Struct, frozen=True):
    """The allowed region as a polygon of (vehicle with ball, trailer), and the scenarios. [kg]"""

    region: tuple[tuple[float, float], ...]
    limits: tuple[tuple[str, float], ...]
    points: tuple[TowPoint, ...]
    ball_share: float


def most_trailer(
    vehicle: Vehicle, solo: float, front: float, rear: float, share: float = BALL_SHARE
) -> tuple[float, str]:  # fmt: skip
    """Find the heaviest trailer that a vehicle of a certain mass may tow.

    Parameters
    ----------
    vehicle : Vehicle
        Ratings and where the ball is. [kg, mm]
    solo, front, rear : float
        The vehicle's mass and axle loads without a trailer. [kg]
    share : float
        The part of the trailer's mass that stands on the ball.

    Returns
    -------
    (float, str)
        The heaviest trailer [kg, never below 0], and which limit sets it: towed, ball, gross
        (solo + ball), combination (solo + trailer, the ball counted once), rear axle (ball at its
        lever) or front axle being left with nothing.
    """
    r = vehicle.ratings
    lever = vehicle.tow.x / vehicle.wheelbase
    found: list[tuple[float, str]] = []
    if r.towed:
        found.append((r.towed, "towed mass"))
    if r.ball and share > 0:
        found.append((r.ball / share, "ball mass"))
    if r.combination:
        found.append((r.combination - solo, "combination mass"))
    if share > 0:
        found.append(((r.gross - solo) / share, "gross mass"))
        found.append(((governing(vehicle, "rear").kg - rear) / (share * lever), "rear axle"))
    if front > governing(vehicle, "front").kg:
        found.append((0.0, "front axle"))
    most, by = min(found)
    return max(0.0, most), by


def study(job: Job, loads: LoadResult, share: float = BALL_SHARE) -> Towing:
    """Draw the towing trade-off of a job.

    Parameters
    ----------
    job : Job
        For ratings and scenarios.
    loads : LoadResult
        What each scenario weighs. [kg]
    share : float
        The part of a trailer's mass on the ball.

    Returns
    -------
    Towing
        The region under gross, combination, towed and ball limits, and each scenario's point. [kg]
    """
    r = job.vehicle.ratings
    kerb = job.vehicle.kerb.front + job.vehicle.kerb.rear
    most_behind = min(
        [v for v in (r.towed, r.ball / share if r.ball else 0.0) if v] or [2 * r.gross]
    )
    train = r.combination or (r.gross + most_behind)
    corners = [(kerb, 0.0), (r.gross, 0.0)]
    # vehicle (ball included) + trailer - ball ≤ combination: the slanted edge.
    on_gross = (train - r.gross) / (1 - share)
    if on_gross >= most_behind:
        corners.append((r.gross, most_behind))
    else:
        corners.append((r.gross, max(0.0, on_gross)))
        knee = train - most_behind * (1 - share)
        corners.append((max(kerb, knee), most_behind))
    corners.append((kerb, most_behind))
    points = []
    for scenario, s in zip(job.scenarios, loads.scenarios, strict=True):
        solo = s.gross.value - scenario.ball
        front, rear = s.front.value, s.rear.value
        if scenario.ball:
            at_rear = scenario.ball * job.vehicle.tow.x / job.vehicle.wheelbase
            rear, front = rear - at_rear, front - (scenario.ball - at_rear)
        most, by = most_trailer(job.vehicle, solo, front, rear, share)
        points.append(TowPoint(scenario.id, scenario.name, solo, scenario.trailer, most, by))
    limits = (
        ("gross", r.gross),
        ("combination", r.combination),
        ("towed", r.towed),
        ("ball", r.ball),
    )
    return Towing(tuple(corners), tuple(x for x in limits if x[1]), tuple(points), share)
