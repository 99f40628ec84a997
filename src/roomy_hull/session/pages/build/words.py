"""What the pages of Build share: cautions, names, days in words."""

from datetime import date

from roomy_hull.core.days import spoken
from roomy_hull.planning.judge import names_of
from roomy_hull.planning.plan import Build
from roomy_hull.session.session import Session

CAUTION = (
    "Planning figures. Mains, gas and certification are done and signed by licensed people; the rating plates, the "
    "certifying "
    "engineer and local road law decide."
)
SHOP_CAUTION = (
    "Guard eyes, ears and hands; two lift what strains one; nobody under a canopy on its legs."
)
NO_PLAN = "No plan is begun: the days are counted as if it began at once. Begin it, and say when the vehicle is here."


def built(session: Session) -> Build:
    """The plan of the job in hand."""
    return session.building.of(session.known)


def names(session: Session) -> dict[str, str]:
    """What people and stations are called."""
    return names_of(session.shop.workshop)


def on(session: Session, day: date) -> str:
    """A day in words; counted from the first where no plan is begun."""
    if session.job.plan.begin:
        return spoken(day)
    build = built(session)
    return f"day {build.calendar.days.index(day) + 1}" if day in build.calendar.days else "later"
