"""What the card says of a thing: what it is and where, and what it is made of."""

from roomy_hull.assembly.things import Thing
from roomy_hull.core.parts import BarPart, Hardware, SheetPart, short_name
from roomy_hull.core.units import show
from roomy_hull.job.carried import Carried
from roomy_hull.kinds.registry import kind_of
from roomy_hull.session.session import Session


def kind_words(placed: Thing) -> str:
    """Say what kind of thing it is and where it stands."""
    thing = placed.value
    if isinstance(thing, Carried) or placed.place is None:
        return f"{getattr(thing, 'kind', 'item')}, carried outside"
    kind = kind_of(thing)
    words = f"{kind.words(thing) or kind.name}, {'made' if kind.made else 'bought'}"
    return f"{words} · {placed.place.bay.name} bay"


def made_words(placed: Thing) -> str:
    """List what it is made of."""
    if placed.trouble:
        return f"Cannot be made like this: {placed.trouble}"
    thing = placed.value
    warned = "" if isinstance(thing, Carried) else kind_of(thing).caution(thing)
    rows = []
    for part in placed.expansion.parts:
        short = short_name(part)
        if isinstance(part, SheetPart):
            a, b = part.developed()
            rows.append(f"{part.count} × {short}, {part.thickness:g} mm, blank {a:.0f} × {b:.0f}")
        elif isinstance(part, BarPart):
            rows.append(f"{part.count} × {short}, {part.section}, {part.length:.0f} long")
        elif isinstance(part, Hardware):
            rows.append(f"{part.count} × {short}")
    held = ""
    if placed.goods:
        names = ", ".join(g.name for g in placed.goods[:6]) + (
            " …" if len(placed.goods) > 6 else ""
        )
        held = f"Holds {placed.contents:g} kg of gear: {names}"
    made = "Made of\n" + "\n".join(rows) if rows else ""
    return "\n\n".join(words for words in (warned, held, made) if words)


def mass_words(session: Session, placed: Thing) -> str:
    """Say what the mass consists of and which axle carries it in the chosen scenario."""
    system = session.look.system
    rows = [f"{m.label} {show(m.kg, 'mass', system)}" for m in placed.masses]
    words = "full: " + ", ".join(rows) if len(rows) > 1 else ""
    owners = session.sight.loads.owners(session.scenario())
    kg, rear, side = owners.get(placed.ref, (0.0, 0.0, 0.0))
    heavy = "right" if side > 0 else "left"
    lines = [
        words,
        f"In this scenario it puts {show(kg - rear, 'mass', system)} on the front axle, "
        f"{show(rear, 'mass', system)} on the rear; {show(abs(side), 'mass', system)} to the {heavy}.",
    ]
    return "\n".join(row for row in lines if row)
