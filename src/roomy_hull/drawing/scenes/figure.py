"""A person drawn as one: legs, trunk, head and arms where they are, seen from any place."""

import math
from typing import NamedTuple

from roomy_hull.core.ergonomics.figure import BREADTH, CROUCH, HIP, LEAN, SHOULDER
from roomy_hull.core.primitives import Disc, Outline, Point, Stroke
from roomy_hull.drawing.view import View

Spot = tuple[float, float, float]


class Body(NamedTuple):
    """Joints of a person in vehicle axes. [mm]"""

    stature: float
    feet: Spot
    hip: Spot
    shoulder: Spot
    head: Spot
    hand: Spot
    facing: tuple[float, float]


def body(stature: float, feet: Spot, shoulder: Spot, hand: Spot) -> Body:
    """Put a person together.

    Args:
        stature: [mm]
        feet, shoulder, hand: Where they stand, where the shoulders are, what the hand holds, in vehicle axes. [mm]
    Returns: The hip over the feet, the head beyond the shoulders along the trunk. [mm]
    """
    upright = SHOULDER * stature
    lifted = max(0.0, shoulder[2] - feet[2] - upright)
    # What the farthest lean does not lower the shoulders by, bent knees do.
    lowest = HIP * stature + (SHOULDER - HIP) * stature * math.cos(math.radians(LEAN))
    bent = CROUCH * stature if shoulder[2] - feet[2] < lowest - 1.0 else 0.0
    hip = (feet[0], feet[1], feet[2] + HIP * stature + lifted - bent)
    way = tuple(s - h for s, h in zip(shoulder, hip, strict=True))
    long = math.dist(shoulder, hip) or 1.0
    more = 0.115 * stature / long
    head = (shoulder[0] + way[0] * more, shoulder[1] + way[1] * more, shoulder[2] + way[2] * more)
    out = (hand[0] - feet[0], hand[1] - feet[1])
    norm = math.hypot(*out) or 1.0
    return Body(
        stature,
        (feet[0], feet[1], feet[2] + lifted),
        hip,
        shoulder,
        head,
        hand,
        (out[0] / norm, out[1] / norm),
    )


def standing(stature: float, feet: Spot, facing: tuple[float, float]) -> Body:
    """Somebody who only stands, hands down. [mm]"""
    shoulder = (feet[0], feet[1], feet[2] + SHOULDER * stature)
    hand = (feet[0] + facing[0] * 60, feet[1] + facing[1] * 60, feet[2] + 0.40 * stature)
    made = body(stature, feet, shoulder, hand)
    return made._replace(facing=facing)


def drawn(one: Body, view: View, tag: str = "") -> list[Stroke]:
    """Draw a person.

    Args:
        one: In vehicle axes. [mm]
    Returns: Limbs of true thickness, the far arm and leg first. [mm]
    """
    s = one.stature
    across = (-one.facing[1], one.facing[0])
    half = BREADTH * s / 2

    def beside(p: Spot, by: float) -> Spot:
        return (p[0] + across[0] * by, p[1] + across[1] * by, p[2])

    def limb(a: Spot, b: Spot, wide: float, narrow: float) -> Outline:
        return Outline(
            "figure",
            _limb(view.point(*a), view.point(*b), wide, narrow),
            radius=narrow * 0.6,
            tag=tag,
        )

    found: list[Stroke] = []
    high = max(one.hip[2] - one.feet[2], 0.1 * s)
    # Thigh and shin keep their length: the lower the hip, the further the knees stand out.
    out = math.sqrt(max((0.265 * s) ** 2 - (high / 2) ** 2, (0.03 * s) ** 2))
    knee_out = (one.facing[0] * out, one.facing[1] * out)
    for sign in (-1, 1):
        hip, foot = beside(one.hip, sign * 0.07 * s), beside(one.feet, sign * 0.085 * s)
        knee = (
            (hip[0] + foot[0]) / 2 + knee_out[0],
            (hip[1] + foot[1]) / 2 + knee_out[1],
            foot[2] + 0.285 * s,
        )
        toe = (
            foot[0] + one.facing[0] * 0.09 * s,
            foot[1] + one.facing[1] * 0.09 * s,
            foot[2] + 0.012 * s,
        )
        heel = (
            foot[0] - one.facing[0] * 0.03 * s,
            foot[1] - one.facing[1] * 0.03 * s,
            foot[2] + 0.02 * s,
        )
        ankle = (foot[0], foot[1], foot[2] + 0.03 * s)
        found += [
            limb(hip, knee, 0.088 * s, 0.07 * s),
            limb(knee, ankle, 0.066 * s, 0.045 * s),
            limb(heel, toe, 0.045 * s, 0.035 * s),
        ]
    for sign in (-1, 1):
        shoulder = beside(one.shoulder, sign * half * 0.86)
        hand = one.hand if sign > 0 else beside(one.hand, -half * 0.5)
        if sign < 0 and math.dist(shoulder, one.hand) > 0.47 * s:
            hand = (
                shoulder[0] + one.facing[0] * 0.1 * s,
                shoulder[1] + one.facing[1] * 0.1 * s,
                shoulder[2] - 0.36 * s,
            )
        elbow = _elbow(shoulder, hand, 0.186 * s, 0.200 * s)
        found += [
            limb(shoulder, elbow, 0.058 * s, 0.048 * s),
            limb(elbow, hand, 0.046 * s, 0.03 * s),
        ]
        found.append(Disc("figure", view.point(*hand), 0.026 * s, tag))
    trunk = [
        beside(one.shoulder, -half * 0.92),
        beside(one.shoulder, half * 0.92),
        beside(one.hip, half * 0.7),
        beside(one.hip, -half * 0.7),
    ]
    flat = [view.point(*p) for p in trunk]
    if _area(flat) < (0.15 * s) ** 2:  # seen from its side: as thick as a body
        found.append(limb(one.shoulder, one.hip, 0.135 * s, 0.125 * s))
    else:
        found.append(Outline("figure", tuple(_wound(flat)), radius=0.045 * s, tag=tag))
    found += [
        limb(one.shoulder, one.head, 0.06 * s, 0.055 * s),
        Disc("figure", view.point(*one.head), 0.062 * s, tag),
    ]
    return found


def _elbow(shoulder: Spot, hand: Spot, upper: float, lower: float) -> Spot:
    """Where the elbow hangs between shoulder and hand. [mm]"""
    far = min(math.dist(shoulder, hand), (upper + lower) * 0.999)
    along = (upper**2 - lower**2 + far**2) / (2 * far) if far > 1 else 0.0
    down = math.sqrt(max(upper**2 - along**2, 0.0))
    t = along / far if far > 1 else 0.0
    x, y, z = (a + (b - a) * t for a, b in zip(shoulder, hand, strict=True))
    return (x, y, z - down)


def _limb(a: Point, b: Point, wide: float, narrow: float) -> tuple[Point, ...]:
    """A tapered piece between two points. [mm]"""
    long = math.dist(a, b)
    if long < 1.0:
        r = wide / 2
        return (
            (a[0] - r, a[1] - r),
            (a[0] + r, a[1] - r),
            (a[0] + r, a[1] + r),
            (a[0] - r, a[1] + r),
        )
    u = ((b[0] - a[0]) / long, (b[1] - a[1]) / long)
    n = (-u[1], u[0])
    a = (a[0] - u[0] * wide * 0.35, a[1] - u[1] * wide * 0.35)
    b = (b[0] + u[0] * narrow * 0.35, b[1] + u[1] * narrow * 0.35)
    w, v = wide / 2, narrow / 2
    return (
        (a[0] - n[0] * w, a[1] - n[1] * w), (b[0] - n[0] * v, b[1] - n[1] * v),
        (b[0] + n[0] * v, b[1] + n[1] * v), (a[0] + n[0] * w, a[1] + n[1] * w),
    )  # fmt: skip


def _area(points: list[Point]) -> float:
    return (
        abs(
            sum(
                p[0] * q[1] - q[0] * p[1]
                for p, q in zip(points, [*points[1:], points[0]], strict=True)
            )
        )
        / 2
    )


def _wound(points: list[Point]) -> list[Point]:
    """Points counter-clockwise."""
    turn = sum(
        p[0] * q[1] - q[0] * p[1] for p, q in zip(points, [*points[1:], points[0]], strict=True)
    )
    return points if turn > 0 else points[::-1]
