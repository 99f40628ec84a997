"""What the card says of the body, or of the chosen room or rack."""

from roomy_hull.core.refs import CANOPY, TRAY
from roomy_hull.core.units import show
from roomy_hull.job.racks import Rack
from roomy_hull.job.rooms import Room
from roomy_hull.making.cost import cost
from roomy_hull.session.pages.rack_words import rack_words
from roomy_hull.session.session import Session

ROOM_WORDS = {
    "box": "box on the tray, made", "dog box": "dog box, made", "side box": "side box, made", "camper": "slide-in, bought",
    "cab": "room in the cab", "hatch": "hold under a lid",
}  # fmt: skip


def body_words(session: Session) -> tuple[str, str, str, str, str]:
    """Title, kind, figure, sum and what it is made of.

    Args:
        session: The job in hand, and which part of its body is chosen.
    """
    body, key = session.job.body, session.look.body.chosen
    room, rack = body.room(key), body.rack(key)
    if room is not None:
        return _room(session, room)
    if rack is not None:
        return _rack(session, rack)
    return _whole(session)


def _whole(session: Session) -> tuple[str, str, str, str, str]:
    """Tray and canopy."""
    system = session.look.system
    ground = session.known.assembly.ground
    masses = [m for m in ground.masses if m.owner in (TRAY, CANOPY) and m.fill.by == "fixed"]
    kg = sum(m.kg for m in masses)
    tray = sum(m.kg for m in masses if m.owner == TRAY)
    price = cost([p for p in ground.parts if p.owner in (TRAY, CANOPY)], session.shop.prices)
    title = "Tray and canopy" if session.job.body.tray.kind == "tray" else "Fit-out space"
    total = (
        f"Tray {show(tray, 'mass', system)}, canopy {show(kg - tray, 'mass', system)}. Parts about "
        f"{price.total:,.0f} at starting prices, in the shop's own money."
    )
    rows = [
        f"{m.owner.word.capitalize()}: {m.label} {show(m.kg, 'mass', system)}"
        for m in masses
        if m.kg
    ]
    rows.append(
        f"\nSheet {price.sheet:,.0f}, bar {price.bar:,.0f}, bought {price.hardware:,.0f}, cutting "
        f"{price.cutting:,.0f}, bending {price.bending:,.0f}"
    )
    return (
        title,
        session.job.vehicle.name,
        f"{show(kg, 'mass', system)} as drawn",
        total,
        "\n".join(rows),
    )


def _own(session: Session, ref: object) -> tuple[float, str]:
    """What a part of the body weighs, and what its parts cost."""
    ground = session.known.assembly.ground
    kg = sum(m.kg for m in ground.masses if m.owner == ref and m.fill.by == "fixed")
    price = cost([p for p in ground.parts if p.owner == ref], session.shop.prices)
    return kg, f"Parts about {price.total:,.0f} at starting prices, in the shop's own money."


def _room(session: Session, room: Room) -> tuple[str, str, str, str, str]:
    """A room beside the canopy."""
    system = session.look.system
    kg, price = _own(session, room.ref)
    inside = [u for u in session.job.units if any(b.id == u.bay for b in room.shell.bays)]
    loads = [m.kg for t in session.known.assembly.things if t.value in inside for m in t.masses]
    words = f"{len(inside)} units in it, {show(sum(loads), 'mass', system)} with what they hold."
    if room.made:
        words += f" {price}"
    hints = {
        "cab": "Seats that make room for it are taken out on the stage Survey: their mass comes off there. Fewer seats "
        "want the road authority's consent.",
        "camper": "Its maker says how it is tied down and jacked. Nobody under it on its jacks; gas and sleeping places "
        "are certified by others.",
        "hatch": "Units in it come out through its lid from above.",
    }  # fmt: skip
    hint = hints.get(
        room.kind, "It comes off in a set-up that leaves it off: stage Fit-out, page Set-ups."
    )
    return room.name, ROOM_WORDS[room.kind], f"{show(kg, 'mass', system)} empty", words, hint


def _rack(session: Session, rack: Rack) -> tuple[str, str, str, str, str]:
    """A rack: what it weighs, carries and could carry."""
    system = session.look.system
    kg, price = _own(session, rack.ref)
    found = next((c for c in session.known.carrying.racks if c.rack == rack.ref), None)
    rows = rack_words(session, found) if found is not None else []
    rows.append(
        "\nPlanning figures of its bars alone: feet, welds and what it stands on are judged by an engineer, and its "
        "rating is its maker's."
    )
    return (
        rack.name,
        f"{rack.kind}, made",
        f"{show(kg, 'mass', system)} empty",
        price,
        "\n".join(rows),
    )
