"""Body segments by stature: heights, arms, how far one leans.

Drillis & Contini (1966), as in Winter, Biomechanics and Motor Control of Human Movement, figure 4.1 (from memory).
"""

import math
from typing import NamedTuple

EYE, SHOULDER, ELBOW, HIP, KNUCKLE = 0.936, 0.818, 0.630, 0.530, 0.44
"""Heights over the ground, of stature; the knuckle lies within 5 % of Bodyspace's men and women (from memory)."""
UPPER_ARM, FOREARM, HAND = 0.186, 0.146, 0.108
"""Lengths, of stature."""
GRIP = 0.5
"""A gripping hand reaches as far as so much of its length (common practice)."""
BREADTH = 0.259
"""Over both shoulders, of stature."""
LEAN = 45.0
"""One leans over a sill so far at most (common practice). [°]"""
TIPTOE = 0.04
"""Heels lift so far, of stature (common practice)."""
CROUCH = 0.28
"""Crouching the hip is so much lower, of stature (common practice)."""
STEP = 350.0
"""Who climbs stands so high: a step, a tyre, a sill (common practice). [mm]"""
DEPTH = 250.0
"""A standing body is so deep (common practice). [mm]"""
TOES = 120.0
"""Before what one stands at, toes and knees keep so far (common practice). [mm]"""


class Figure(NamedTuple):
    """One person as segments.

    Args:
        stature: [mm]
    """

    stature: float

    @property
    def eye(self) -> float:
        """Height of the eyes. [mm]"""
        return EYE * self.stature

    @property
    def shoulder(self) -> float:
        """Height of the shoulders. [mm]"""
        return SHOULDER * self.stature

    @property
    def elbow(self) -> float:
        """Height of the elbows. [mm]"""
        return ELBOW * self.stature

    @property
    def knuckle(self) -> float:
        """Height of the knuckles, arms down. [mm]"""
        return KNUCKLE * self.stature

    @property
    def hip(self) -> float:
        """Height about which one leans. [mm]"""
        return HIP * self.stature

    @property
    def breadth(self) -> float:
        """Over both shoulders. [mm]"""
        return BREADTH * self.stature

    @property
    def arm(self) -> float:
        """From the shoulder to the middle of a gripping hand. [mm]"""
        return (UPPER_ARM + FOREARM + GRIP * HAND) * self.stature

    def leaning(self, height: float, angle: float) -> tuple[float, float]:
        """Where a point of the trunk or head is when one leans.

        Args:
            height: Its height, standing upright: of the shoulder or the eye. [mm]
            angle: From the upright. [°]
        Returns: How far forward of the hip, and its height. [mm]
        """
        along, a = height - self.hip, math.radians(angle)
        return along * math.sin(a), self.hip + along * math.cos(a)
