"""What the card says of a thing: what it is and where, and what it is made of."""

from roomy_hull.assembly.things import Thing
from roomy_hull.core.parts import BarPart, Hardware, SheetPart, short_name
from roomy_hull.job.carried import Carried
from roomy_hull.kinds.registry import kind_of


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
        held = f"Holds {placed.contents:g} kg of goods: {names}"
    made = "Made of\n" + "\n".join(rows) if rows else ""
    return "\n\n".join(words for words in (warned, held, made) if words)
