"""The few real parameters of a room or a rack, by their paths in the job."""

from roomy_hull.job.canopy import Bay, Door
from roomy_hull.job.model import Job
from roomy_hull.job.racks import Rack
from roomy_hull.job.rooms import Room
from roomy_hull.kinds.card import Field, choice, length, mass, number, source, yes
from roomy_hull.session.fields import body_fields, vehicle_fields


def part_fields(job: Job, key: str) -> tuple[Field, ...]:
    """The parameters of the chosen part of a body.

    Args:
        job: Whose body is meant.
        key: A room's or rack's id; else tray and canopy.
    Returns: In the order shown.
    """
    room, rack = job.body.room(key), job.body.rack(key)
    if room is not None:
        return room_fields(room)
    if rack is not None:
        return rack_fields(rack)
    own, canopy = body_fields(job), job.body.canopy
    if canopy is None:
        return own
    known = {f.name for f in own}
    more = [f for d in canopy.doors for f in door_fields("body.canopy", d)]
    more += [f for b in canopy.bays for f in bay_fields("body.canopy", b)]
    # The rule for sizes stays last.
    return (*own[:-1], *(f for f in more if f.name not in known), own[-1])


def door_fields(path: str, door: Door) -> list[Field]:
    """Size, hinge and leaves of one door."""
    p, name = f"{path}.doors.{door.id}.", f"Door {door.id}"
    found = [length(p + n, f"{name}, {n}") for n in ("start", "length", "sill", "height")]
    found += [
        choice(p + "hinge", f"{name}, hinge", "start and end are upright", "top", "bottom", "start", "end"),
        choice(p + "leaf", f"{name}, leaf", "Of sheet, or a frame with mesh", "sheet", "mesh"),
        Field(p + "second", f"{name}, second leaf", "choice", "Another one kept for this opening", ("", "sheet", "mesh")),
    ]  # fmt: skip
    return found


def bay_fields(path: str, bay: Bay) -> list[Field]:
    """Size of one bay, and at which faces it is reached."""
    p, name = f"{path}.bays.{bay.id}.", f"Bay {bay.id}"
    found = [length(p + n, f"{name}, {n}") for n in ("start", "length", "depth", "sill", "height")]
    found.append(length(p + "pitch", f"{name}, pitch", "Of its slotted rails; 0 for none"))
    found.append(
        Field(p + "also", f"{name}, also from", "words", "Further faces: left right rear top under inside, spaces between")
    )  # fmt: skip
    return found


def room_fields(room: Room) -> tuple[Field, ...]:
    """The parameters of a room beside the canopy: place, size, doors and bays; of a bought one its mass as well."""
    p = f"body.rooms.{room.id}."
    found = [
        Field(p + "shell.name", "Name", "text"),
        length(p + "start", "Starts", "Behind the tray's front; ahead is negative"),
        length(p + "across", "To the right", "Its middle, from the centre plane; left is negative"),
        length(p + "up", "Up", "Its floor above the tray's; below is negative"),
        length(p + "shell.length", "Length"), length(p + "shell.width", "Width"), length(p + "shell.height", "Height"),
    ]  # fmt: skip
    if room.made:
        found += [
            length(p + "shell.wall", "Wall", "Frame and lining"), length(p + "shell.roof", "Roof"),
            length(p + "shell.skin", "Skin sheet"), length(p + "shell.insulation", "Roof insulation", "0 for none"),
        ]  # fmt: skip
    elif room.kind == "camper":
        found += [
            mass(p + "mass", "Mass, empty", "From its plate"), source(p + "mass_source"),
            length(p + "centre_along", "Centre, behind its nose", "From its plate; 0 for its middle"),
            length(p + "centre_up", "Centre, above its floor", "0 for its middle"),
            length(p + "over", "Over the cab by", "The bed's alcove ahead of its front; 0 for none"),
            length(p + "over_up", "… from", "Above its floor"),
            number(p + "tie_downs", "Tie-downs", "To the tray or the chassis, as its maker says"),
        ]  # fmt: skip
    for door in room.shell.doors:
        found += door_fields(f"{p}shell", door)
    for bay in room.shell.bays:
        found += bay_fields(f"{p}shell", bay)
    return tuple(found)


def rack_fields(rack: Rack) -> tuple[Field, ...]:
    """The parameters of a rack: place, size, bars, deck and panels, ratings."""
    p = f"body.racks.{rack.id}."
    found = [Field(p + "name", "Name", "text")]
    wall = rack.kind == "rear wall"
    if not wall:
        found.append(length(p + "start", "Starts", "Behind the tray's front; ahead is negative"))
    found += [
        length(p + "across", "To the right", "Its middle, from the centre plane"),
        length(p + "foot", "Feet at", "Above the tray's floor"),
    ]  # fmt: skip
    if not wall:
        found.append(length(p + "length", "Length"))
    found += [
        length(p + "width", "Width"), length(p + "height", "Height", "From its feet to its top"),
        number(p + "bows", "Rails" if wall else "Bows", "One above the other" if wall else "Cross frames on posts"),
    ]  # fmt: skip
    if rack.kind in ("tub rack", "cab rack", "gap rack"):
        found += [
            number(p + "cross_bars", "Cross bars", "Between two bows"),
            choice(p + "deck", "Deck", "What lies on its bars", "bars", "mesh", "sheet"),
            length(p + "deck_sheet", "… sheet"),
            choice(p + "panels", "Side panels", "They carry cans, a shovel, a case", "none", "left", "right", "both"),
            length(p + "panel_height", "… height"), length(p + "panel_sheet", "… sheet"),
        ]  # fmt: skip
    found += [
        Field(p + "section", "Bars", "text", "Such as 40x40x3, the first side upright"),
        Field(p + "bar_material", "… of", "material"),
        length(p + "pitch", "Pitch", "Of the holes that things are fixed in"),
        mass(p + "rating", "Rated, moving", "By its maker or an engineer; 0 where nobody rated it"),
        mass(p + "rating_still", "Rated, still", "For sleeping on it; 0 where nobody rated it"),
    ]  # fmt: skip
    return tuple(found)


def survey_fields(job: Job) -> tuple[Field, ...]:
    """The parameters of the vehicle, its wheels and its seats."""
    return (*vehicle_fields(job.vehicle), *running_fields(), *seats_fields(job))


def seats_fields(job: Job) -> tuple[Field, ...]:
    """What a seat weighs and whether it is in, for the vehicle's card; the driver's stays."""
    found: list[Field] = []
    for n, seat in enumerate(job.vehicle.seats):
        if n == 0:
            continue
        name = seat.name.capitalize()
        found += [
            yes(f"vehicle.seats.{n}.fitted", f"{name} is in", "Out: its mass comes off; the road authority decides"),
            mass(f"vehicle.seats.{n}.mass", f"{name} weighs", "With its belts and bolts"),
        ]  # fmt: skip
    return tuple(found)


def running_fields() -> tuple[Field, ...]:
    """Wheels as they are and as delivered."""
    w = "vehicle.wheels."
    return (
        length(
            w + "offset",
            "Rim offset",
            "Mounting face outward of the rim's middle; the tracks follow",
        ),
        length(w + "offset_standard", "… as delivered", "For the sheet; changes nothing by itself"),
        Field(
            w + "tyre_standard", "Tyre as delivered", "text", "Empty where it is the one that is on"
        ),
    )
