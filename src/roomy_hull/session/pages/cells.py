"""Figures in the chosen units, as every page writes them."""

from roomy_hull.core.units import KG_PER_POUND, show, unit_word
from roomy_hull.session.session import Session


def kg_of(session: Session, value: float) -> str:
    """Write a mass in whole kilograms or pounds, without its unit."""
    text = f"{value / KG_PER_POUND if session.look.system == 'us' else value:,.0f}"
    return "0" if text == "-0" else text


def mm_of(session: Session, value: float) -> str:
    """Write a length in whole millimetres, or in inches to 1/16, without its unit."""
    system = session.look.system
    return show(round(value) if system == "metric" else value, "length", system, unit=False)


def mass_word(session: Session) -> str:
    """Write kg or lb."""
    return unit_word("mass", session.look.system)
