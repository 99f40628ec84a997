"""What several pages of Cut say and know."""

from roomy_hull.core.parts import Hardware, Part
from roomy_hull.making.works import Work, Works, works_of
from roomy_hull.session.session import Session

CAUTION = (
    "Figures for planning: prove bends with a test bend, sizes on the vehicle. Edges, hot work and lifting hurt "
    "people."
)
LOOKING = "The nesting is at work…"


def works(session: Session) -> Works:
    """The parts of the job in hand with the holes of their joints; remembered for what did not change."""
    return works_of(session.known.assembly)


def parts(session: Session) -> list[tuple[int, Part, Work]]:
    """Every part that is cut or sawn, with its number in the part list and whose it is."""
    found: list[tuple[int, Part, Work]] = []
    number = 0
    for work in works(session).works:
        for part in work.parts:
            number += 1
            if not isinstance(part, Hardware):
                found.append((number, part, work))
    return found


def chosen_work(session: Session) -> Work | None:
    """What is selected, if it is made; else whose part is shown; else the first."""
    made = works(session)
    key = session.selection.key
    own = next((w for w in made.works if key and w.owner.is_thing and w.owner.id == key), None)
    if own is not None:
        return own
    number = 0
    for work in made.works:
        number += len(work.parts)
        if 0 < session.look.cut.part <= number:
            return work
    return made.works[0] if made.works else None
