"""What a rack carries and what its bars say to that, in words."""

import math

from roomy_hull.core.units import show
from roomy_hull.session.marks import strong
from roomy_hull.session.session import Session
from roomy_hull.studies.strength.racks import RackCheck


def rack_words(session: Session, c: RackCheck) -> list[str]:
    """Write out what a rack carries, what it could carry and how hard its bars work.

    Args:
        session: The job in hand; says in which units.
    """
    system = session.look.system

    def kg(value: float) -> str:
        return "more than anything on it" if math.isinf(value) else show(value, "mass", system)

    rows = [f"Carries {kg(c.kg)} on the road, {kg(c.still_kg)} standing still."]
    if c.kg:
        rows.append(
            f"Its bars could carry {kg(c.could)} there on the road, {kg(c.could_still)} still."
        )
    worst = c.worst()
    if worst is not None:
        rows.append(
            f"Hardest: {worst.words}, the {worst.bar} at {worst.stress:.0f} of {c.allowed:.0f} MPa."
        )
    rows.append(
        f"Bars go down {show(c.sag, 'length', system)} at rest. In the wind {c.wind:.2f} m²."
    )
    return rows + ([c.trouble] if c.trouble else [])


def rack_sum(session: Session, c: RackCheck) -> list[str]:
    """Write out every way in which a rack is loaded, after what it carries.

    Args:
        session: The job in hand; says in which units and under which rules.
    """
    rules, system = session.shop.rules, session.look.system
    rows = [
        f"{c.form}; at most {show(c.span, 'length', system)} between its feet.",
        *rack_words(session, c),
    ]
    rows += [
        f"{one.words[:1].upper()}{one.words[1:]}: the {one.bar} at {one.stress:,.1f} of {c.allowed:,.0f} MPa, "
        f"{strong(f'{one.use:.1%}')}"
        for one in c.cases
    ]
    rated = [
        f"{show(value, 'mass', system)} {when}"
        for value, when in ((c.rating, "on the road"), (c.rating_still, "standing still"))
        if value
    ]
    rows.append(f"Rated {' and '.join(rated)}." if rated else "Nobody has rated it.")
    rows.append(
        f"Allowed: yield beside a weld over {rules.member_safety:g}. Bars alone: feet, welds and what it stands on "
        "are judged by an engineer."
    )
    return rows
