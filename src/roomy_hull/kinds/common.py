"""What several kinds have in common: room inside sheets, and hinges at another edge."""

from typing import Any

from roomy_hull.kinds.kind import Remedy


def room_inside(unit: Any) -> float:
    """Compute the room within a folded box's sheets.

    Args:
        unit: A unit with a `sheet`. [mm]
    Returns: Volume. [l]
    """
    t: float = unit.sheet
    w, d, h = max(0.0, unit.width - 2 * t), max(0.0, unit.depth - t), max(0.0, unit.height - t)
    found: float = w * d * h * 1e-6
    return found


def room_under_board(unit: Any) -> float:
    """Compute the room below a board.

    Args:
        unit: A unit with a `board`. [mm]
    Returns: Volume. [l]
    """
    t: float = unit.board
    w, d, h = max(0.0, unit.width - 2 * t), max(0.0, unit.depth - 2 * t), max(0.0, unit.height - t)
    found: float = w * d * h * 1e-6
    return found


def hinge_remedies(unit: Any, edges: tuple[str, ...] = ("left", "right")) -> tuple[Remedy, ...]:
    """List the other edges at which a lid or door could turn.

    Args:
        unit: A unit with a `hinge`.
    """
    return tuple(
        Remedy(1.0, f"Hinge {unit.name} at the {edge}", {"hinge": edge})
        for edge in edges
        if edge != unit.hinge
    )


SLIDE_BARE, SLIDE_BY_RATING = 2.0, 0.0364
"""A pair of slides by its length, and by length and rating (common practice). [kg/m, kg/m per kg]"""


def slides_mass(typed: float, length: float, rating: float) -> float:
    """What a pair of slides weighs.

    Args:
        typed: From its data sheet; 0 where nobody looked it up. [kg]
        length: Of the slides. [mm]
        rating: Of the pair. [kg]
    Returns: As typed, or by length and rating: 110 kg and 700 mm give 4.2, 227 kg and 1 m give 10.3. [kg]
    """
    return typed or length / 1000 * (SLIDE_BARE + SLIDE_BY_RATING * rating)
