"""The towing trade-off: what each kilogram on the vehicle takes from what may be behind it."""

import math

import msgspec

from roomy_hull.assembly.scaling import reactions
from roomy_hull.assembly.study import Context, Study, StudyKey
from roomy_hull.job.vehicle import Vehicle
from roomy_hull.studies.loads import axles
from roomy_hull.studies.loads.governing import governing

KEY = StudyKey["Towing"]("towing")
BALL_SHARE = 0.1
"""The usual part of a trailer's mass that stands on the ball (common practice)."""


class TowPoint(msgspec.Struct, frozen=True):
    """One scenario: the vehicle without its ball load, the trailer it has, the most it may have.

    `by` names the limit that sets the most. `region` is what is allowed while the vehicle grows
    from kerb to its gross rating the way it is loaded in this scenario. [kg]
    """

    id: str
    name: str
    vehicle: float
    trailer: float
    most: float
    by: str
    region: tuple[tuple[float, float], ...]


class Towing(msgspec.Struct, frozen=True):
    """The scenarios, and the part of a trailer's mass that stands on the ball."""

    points: tuple[TowPoint, ...]
    ball_share: float


def most_trailer(
    vehicle: Vehicle, solo: float, front: float, rear: float, share: float = BALL_SHARE
) -> tuple[float, str]:  # fmt: skip
    """Find the heaviest trailer that a vehicle of a certain mass may tow.

    Args:
        vehicle: Ratings and where the ball is. [kg, mm]
        solo, front, rear: The vehicle's mass and axle loads without a trailer. [kg]
        share: The part of the trailer's mass that stands on the ball.
    Returns:
        The heaviest trailer [kg, never below 0], and which limit sets it: towed, ball, gross (solo + ball),
        combination (solo + trailer, the ball counted once), rear axle (ball at its lever) or front axle being left with
        nothing.
    """
    found: list[tuple[float, str]] = []
    for name, a, b, limit in _limits(vehicle, solo, front, rear, share):
        left = limit - a * solo
        if b > 0:
            found.append((left / b, name))
        elif left < 0:
            found.append((0.0, name))
    most, by = min(found)
    return max(0.0, most), by


def region(
    vehicle: Vehicle, solo: float, front: float, rear: float, share: float = BALL_SHARE
) -> tuple[tuple[float, float], ...]:  # fmt: skip
    """Every pair of vehicle and trailer mass that keeps all limits.

    Args:
        vehicle: Ratings, kerb masses and where the ball is. [kg, mm]
        solo, front, rear: The vehicle's mass and axle loads in one scenario, without a trailer. Between kerb and this
            mass, and beyond it, each axle's load is taken to grow along a straight line. [kg]
        share: The part of the trailer's mass that stands on the ball.
    Returns:
        Corners of a convex polygon of (vehicle without ball load, trailer), anticlockwise; empty where nothing is
        allowed. Its upper edge at `solo` is what `most_trailer` gives. [kg]
    """
    start, gross = min(vehicle.kerb.front + vehicle.kerb.rear, solo), vehicle.ratings.gross
    most = 2 * gross
    corners = [(start, 0.0), (gross, 0.0), (gross, most), (start, most)]
    for _name, a, b, limit in _limits(vehicle, solo, front, rear, share):
        corners = _kept(corners, a, b, limit)
    return tuple(corners)


def _limits(
    vehicle: Vehicle, solo: float, front: float, rear: float, share: float
) -> list[tuple[str, float, float, float]]:
    """Every limit by name as (a, b, limit): a · vehicle + b · trailer is at most the limit. [kg]"""
    r, kerb = vehicle.ratings, vehicle.kerb
    empty = kerb.front + kerb.rear
    # Where the scenario is as light as the kerb, what is added is shared like the kerb mass.
    added = solo - empty
    grows = (rear - kerb.rear) / added if abs(added) > 1 else kerb.rear / empty
    behind = rear - grows * solo
    before = front - (1 - grows) * solo
    lever = vehicle.tow.x / vehicle.wheelbase
    limits = [("gross mass", 1.0, share, r.gross)] if share > 0 else []
    limits += [
        ("rear axle", grows, share * lever, governing(vehicle, "rear").kg - behind),
        ("front axle", 1 - grows, 0.0, governing(vehicle, "front").kg - before),
    ]
    if r.towed:
        limits.append(("towed mass", 0.0, 1.0, r.towed))
    if r.ball and share > 0:
        limits.append(("ball mass", 0.0, share, r.ball))
    if r.combination:
        limits.append(("combination mass", 1.0, 1.0, r.combination))
    return limits


def _kept(
    corners: list[tuple[float, float]], a: float, b: float, limit: float
) -> list[tuple[float, float]]:
    """The part of a convex polygon where a x + b y is at most a limit."""
    found: list[tuple[float, float]] = []
    over = [a * x + b * y - limit for x, y in corners]
    for n, (here, past) in enumerate(zip(corners, over, strict=True)):
        last, before = corners[n - 1], over[n - 1]
        if (past > 0) != (before > 0):
            t = before / (before - past)
            found.append((last[0] + t * (here[0] - last[0]), last[1] + t * (here[1] - last[1])))
        if past <= 0:
            found.append(here)
    return [c for n, c in enumerate(found) if math.dist(c, found[n - 1]) > 1e-6] if found else []


def study(context: Context, share: float = BALL_SHARE) -> Towing:
    """Draw the towing trade-off of a job.

    Args:
        context: The job's ratings and scenarios, with what each scenario weighs. [kg]
        share: The part of a trailer's mass on the ball.
    Returns: Each scenario's point and its region under gross, combination, towed, ball and axle limits together. [kg]
    """
    job, points = context.assembly.job, []
    loads = context.of(axles.KEY)
    for scenario, s in zip(job.scenarios, loads.scenarios, strict=True):
        solo = s.gross.value - scenario.ball
        # The ball load is taken off where it stands, so that what remains is the vehicle alone.
        ahead, behind = reactions(scenario.ball, job.vehicle.tow.x, job.vehicle.wheelbase)
        rear, front = s.rear.value - behind, s.front.value - ahead
        most, by = most_trailer(job.vehicle, solo, front, rear, share)
        allowed = region(job.vehicle, solo, front, rear, share)
        points.append(
            TowPoint(scenario.id, scenario.name, solo, scenario.trailer, most, by, allowed)
        )
    return Towing(tuple(points), share)


STUDY = Study(KEY, study, needs=(axles.KEY,))
