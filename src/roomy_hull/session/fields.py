"""The few real parameters of each thing, as the card shows them: words, quantity, what they mean."""

from roomy_hull.core.errors import InputError
from roomy_hull.core.uncertainty import RELATIVE_UNCERTAINTY
from roomy_hull.core.units import Quantity, System, parse, show
from roomy_hull.job.body import TRUNDLE
from roomy_hull.job.carried import Carried
from roomy_hull.job.model import Job
from roomy_hull.job.vehicle import Vehicle
from roomy_hull.kinds.card import Field, choice, length, mass, number, source, yes
from roomy_hull.kinds.own import Group
from roomy_hull.kinds.placed import BoltSize
from roomy_hull.kinds.registry import Unit, kind_of
from roomy_hull.session.box_fields import (
    NONE,
    box_words,
    group_words,
    plain_length,
    typed_boxes,
    typed_groups,
)
from roomy_hull.shop.shop import Shop

_NAME = Field("name", "Name", "text", "What the workshop calls it")
_PLACE = (
    length("u", "Position along", "From the bay's front end (left end at the rear)"),
    length("v", "Position in depth", "How far its face stands behind the access face"),
    length("w", "Position in height", "Above the bay's floor"),
)
_SIZE = (
    length("width", "Width", "Outside, along the wall"),
    length("depth", "Depth", "Outside, inward from the access face"),
    length("height", "Height", "Outside"),
)
_CONTENTS = (
    Field("contents", "Contents", "mass", "What goes in it, when full"),
    source("contents_source", "Contents known by",
           "Weighed ±0.5 %, data sheet ±3 %, geometry ±5 %, estimate ±15 %"),
)  # fmt: skip
_NOTE = Field("note", "Note", "text", "For the workshop")

_BOLTS = (
    number("bolts", "Bolts", "That hold it in braking and on bumps"),
    choice("bolt", "Bolt size", "Stainless A2-70 is assumed", *BoltSize.__args__),  # type: ignore[attr-defined]  # a Literal
)


def fields_of(thing: Unit | Carried) -> tuple[Field, ...]:
    """The parameters that the card shows for a thing.

    Args:
        thing: What is selected.
    Returns: In the order shown.
    """
    if isinstance(thing, Carried):
        return _carried_fields(thing)
    kind = kind_of(thing)
    contents = _CONTENTS if kind.contents else ()
    return (_NAME, *_PLACE, *_SIZE, *contents, *kind.fields(), *_BOLTS, _NOTE)


def _carried_fields(item: Carried) -> tuple[Field, ...]:
    """The parameters of a carried item; those of opening only where it opens."""
    own: tuple[Field, ...] = ()
    if item.kind in ("tent", "awning", "shower tent"):
        own += (choice("side", "Opens to the", "Or hangs on this side", "left", "right", "rear"),)
    if item.kind in ("awning", "shower tent", "spare wheel", "jerry"):
        reach = "Beside its post" if item.kind in ("spare wheel", "jerry") else "Comes out by"
        own += (choice("hand", "Hand", "The end about which it turns, as one faces it", "left", "right"),
                length("reach", reach), number("turn", "Turns by, degrees", "0 for not at all", whole=False))  # fmt: skip
    if item.kind in ("tent", "awning"):
        own += (yes("legs", "On posts or a ladder"),)
    return (
        _NAME,
        length("x", "Aft of front axle", "Its middle"),
        length("y", "Right of centre", "Its middle; left is negative"),
        length("z", "Above ground", "Its underside"),
        length("length", "Length", "Along the vehicle"),
        length("width", "Width", "Across the vehicle"),
        length("height", "Height"),
        mass("mass", "Mass", "Empty"),
        source("mass_source"),
        mass("contents", "Contents", "Scales with the scenario"),
        *own,
        choice("mount", "Stays with", "With what it comes off", "vehicle", "tray", "canopy"),
        yes("on_roof", "On the roof", "Counts against the roof rating"),
    )


def vehicle_fields(vehicle: Vehicle) -> tuple[Field, ...]:
    """The parameters of a vehicle, by their paths in the job.

    Args:
        vehicle: Its kind decides which there are.
    Returns: In the order shown: what it is, kerb and ratings, sizes.
    """
    v = "vehicle."

    def own_mass(path: str, words: str, tip: str) -> Field:
        return mass(v + path, words, tip)

    own = (
        Field(v + "name", "Vehicle", "text", "What the workshop calls it"),
        Field(v + "drive", "Hand of drive", "choice", "The kerb side is the other one", ("left", "right")),
        Field(v + "tyre", "Tyre size", "text", "From the side wall, such as 265/75R16"),
        Field(v + "tyre_load_index", "Load index", "number", "From the side wall; 0 if not read"),
        own_mass("kerb.front", "Kerb, front axle", "As weighed or published"),
        own_mass("kerb.rear", "Kerb, rear axle", "As weighed or published"),
        own_mass("kerb.driver", "… with driver of", "Was a driver aboard? Then it is not counted twice"),
        Field(v + "kerb.fuel", "… with fuel of", "volume", "How much fuel was in it"),
        own_mass("kerb.tools", "… with tools of", "What else was aboard"),
        Field(v + "kerb.source", "Kerb known by", "choice", "Decides its uncertainty", tuple(RELATIVE_UNCERTAINTY)),
        Field(v + "fuel.litres", "Fuel tank", "volume", "The main tank, full"),
        length(v + "fuel.x", "… behind front axle", "Its middle"),
        length(v + "fuel.length", "… length", "Along the vehicle; 0 where nobody measured it: guessed from its volume"),
        length(v + "fuel.width", "… width", "Across; 0 where nobody measured it"),
        length(v + "fuel.height", "… height", "0 where nobody measured it"),
        length(v + "fuel.y", "… to the right", "Its middle, from the centre plane"),
        length(v + "fuel.z", "… above ground", "Its middle"),
        *((Field(v + "long_range.litres", "Long-range tank", "volume", "Full"),
           length(v + "long_range.x", "… behind front axle", "Its middle")) if vehicle.long_range else ()),
        *(field for n, seat in enumerate(vehicle.seats) for field in (
            length(f"{v}seats.{n}.x", f"{seat.name.capitalize()}, aft", "Of the front axle"),
            length(f"{v}seats.{n}.y", f"{seat.name.capitalize()}, right", "Left is negative"),
        )),
        own_mass("ratings.gross", "Gross rating", "From the plate"),
        own_mass("ratings.front_axle", "Front axle rating", "The lowest of axle, tyres, wheels, springs governs"),
        own_mass("ratings.rear_axle", "Rear axle rating", "The lowest of axle, tyres, wheels, springs governs"),
        own_mass("ratings.wheel", "One wheel", "0 if not given"),
        own_mass("ratings.front_spring", "Front springs", "0 if not given"),
        own_mass("ratings.rear_spring", "Rear springs", "0 if not given"),
        own_mass("ratings.combination", "Combination", "0 if not given"),
        own_mass("ratings.towed", "Towed", "0 if not given"),
        own_mass("ratings.ball", "Ball", "0 if not given"),
        own_mass("ratings.roof", "Roof", "0 if not given"),
        Field(v + "ratings.standard", "Ratings are", "choice", "Upgraded ones want a certificate",
              ("standard", "upgraded")),
        Field(v + "ratings.certificate", "Certificate", "text", "Its number"),
        Field(v + "ratings.signed", "Signed by", "text", "The certifying engineer"),
        number(v + "springs.front", "Spring, front", "N/mm at one wheel", whole=False),
        number(v + "springs.rear", "Spring, rear", "N/mm at one wheel", whole=False),
    )  # fmt: skip
    sizes = [
        "wheelbase",
        "track_front",
        "track_rear",
        "cab_back",
        "chassis_end",
        "rail_top",
        "rail_spread",
    ]
    if vehicle.hold is not None:
        sizes = ["wheelbase", "track_front", "track_rear"]
        sizes += [f"hold.{n}" for n in ("start", "floor", "length", "width", "height", "opening_width",
                                        "opening_height", "arch_start", "arch_length", "arch_width",
                                        "arch_height")]  # fmt: skip
    return (*own, *(Field(v + n, _plain(n), "length", "As measured") for n in sizes))


def _plain(path: str) -> str:
    """A field's name as words."""
    return path.replace("hold.", "").replace("_", " ").capitalize()


def body_fields(job: Job) -> tuple[Field, ...]:
    """The parameters of tray and canopy, by their paths in the job.

    Args:
        job: Whose body is meant.
    Returns: In the order shown.
    """
    t, c = "body.tray.", "body.canopy."
    found: list[Field] = []
    if job.body.tray.kind == "tray":
        found += [
            length(t + "gap", "Behind the cab", "Cab back to the tray's front"),
            length(t + "length", "Tray length", "A full-length canopy goes along"),
            length(t + "width", "Tray width", "A full-width canopy goes along"),
            length(t + "headboard", "Headboard", "Above the floor"),
            length(t + "rack", "Rack on it", "Above the headboard"),
            length(t + "sides", "Drop sides", "0 for none"),
            length(t + "floor", "Floor sheet"),
            length(t + "cross_spacing", "Cross-members", "At most so far apart"),
            Field(t + "mudguards", "Mudguards", "yes", "From the tyre's size and travel"),
            Field(t + "lift_points", "Lifting eyes", "number"),
            Field(t + "boards", "Floor of", "choice", "Plate, or planks", ("sheet", "planks")),
            Field(
                t + "filler",
                "Filler pocket",
                "yes",
                "So that it takes no toolbox room and fills at full flow",
            ),
        ]
    else:
        found += [
            length(t + "false_floor", "False floor", "Bays go up by it; 0 for none"),
            length(t + "wings", "Side wings", "Bays lose it on both sides; 0 for none"),
        ]
    found.append(Field(t + "fittings", "Lights, fasteners", "mass", "What is not drawn"))
    listed = {g.place for g in job.goods}  # what goods are listed in is not typed as well
    for box in job.body.tray.boxes:
        path, name = f"{t}boxes.{box.id}.", f"Box {box.id.replace('-', ' ')}"
        found += [length(path + n, f"{name}, {n}") for n in ("gap", "length", "height", "depth")]
        found.append(choice(path + "door", f"{name}, door", "Lets down, or lifts up", "down", "up"))
        found.append(
            choice(path + "kind", f"{name} is a", "A wet pocket drains", "toolbox", "wet pocket")
        )
        if box.holder not in listed:
            found.append(Field(path + "contents", f"{name}, holds", "mass"))
    if job.body.tray.trundle is not None:
        found += [length(f"{t}trundle.{n}", f"Trundle, {n}") for n in ("length", "width", "height")]
        found.append(yes(t + "trundle.locks", "Trundle locks", "Shut, and drawn out"))
        found.append(
            yes(t + "trundle.lid", "Trundle's lid", "A table over it while it is drawn out")
        )
        if TRUNDLE not in listed:
            found.append(Field(t + "trundle.contents", "Trundle, holds", "mass"))
    if job.body.tray.tank is not None:
        found += [
            length(f"{t}tank.{n}", f"Tank, {n}") for n in ("start", "length", "width", "height")
        ]
    canopy = job.body.canopy
    if canopy is not None and canopy.kind != "cargo":
        found += [
            Field(c + "name", "Canopy", "text"),
            length(c + "start", "Starts", "Behind the tray's front"),
            length(c + "length", "Length", "Doors and bays go along"),
            length(c + "width", "Width", "Bays go along"),
            length(c + "height", "Height", "Doors and bays go along"),
            length(c + "wall", "Wall", "Frame and lining"),
            length(c + "roof", "Roof", "Frame and lining"),
            length(c + "skin", "Skin sheet"),
            length(c + "insulation", "Roof insulation", "0 for none; 25 mm is common"),
            Field(c + "jacks", "Jack legs", "yes", "Four, to stand it off on. Never work under it"),
            Field(c + "fittings", "Seals, locks, struts", "mass", "What is not drawn"),
        ]
        for door in canopy.doors:
            found.append(length(f"{c}doors.{door.id}.length", f"Door {door.id}, length"))
            found.append(
                length(f"{c}doors.{door.id}.split", f"Door {door.id}, let-down", "0 for one leaf")
            )
            if door.strut is not None:
                p = f"{c}doors.{door.id}.strut."
                found += [
                    Field(
                        p + "force",
                        f"Door {door.id}, strut",
                        "number",
                        "N of one when out, at 20 °C",
                    ),
                    length(p + "body", "… fixed under the hinge", "Its stud on the body"),
                    length(p + "leaf", "… along the leaf", "Its stud on the leaf, from the hinge"),
                ]
            found.append(choice(f"{c}doors.{door.id}.hinge", f"Door {door.id}, hinge", "start and end are upright",
                                 "top", "bottom", "start", "end"))  # fmt: skip
    found += [
        Field(f"body.finish.{n}", f"Colour, {words}", "text", "Of the customer's picture, as #93A48E; empty for the usual")
        for n, words in (("cab", "cab"), ("canopy", "canopy"), ("tray", "tray"), ("fronts", "drawer fronts"))
    ]  # fmt: skip
    found.append(Field("body.rule", "Rule for sizes", "rule", "Width, height, rear overhang"))  # fmt: skip
    return tuple(found)


def choices_of(field: Field, shop: Shop) -> tuple[str, ...]:
    """List what a field may be, where it is a choice.

    Args:
        field: The field.
    Returns: Empty for a field that is typed.
    """
    if field.quantity == "material":
        return tuple(shop.materials)
    if field.quantity == "rule":
        return tuple(shop.dimension_rules)
    return field.choices


def shown(field: Field, value: object, system: System) -> str:
    """Write a field's value as the card shows it, without its unit."""
    if field.quantity in ("text", "choice", "material", "rule", "words"):
        return " ".join(value) if isinstance(value, tuple) else str(value)
    if isinstance(value, tuple):
        if field.quantity == "lengths":
            return "  ".join(plain_length(float(v), system) for v in value)
        rows = [
            group_words(v, system) if isinstance(v, Group) else box_words(v, system) for v in value
        ]
        return "; ".join(rows) or NONE
    if field.quantity == "number":
        return f"{float(str(value)):g}"
    if field.quantity == "share":
        return f"{float(str(value)) * 100:g}"
    quantity: Quantity = field.quantity  # type: ignore[assignment]  # text, choice, yes are out
    return _figure(float(str(value)), quantity, system)


def _figure(number: float, quantity: Quantity, system: System) -> str:
    """Write a figure of the file in the person's units."""
    if system == "metric":
        return f"{number:.2f}".rstrip("0").rstrip(".") if number else "0"
    return show(number, quantity, system, unit=False)


def typed(field: Field, text: str, system: System) -> object:  # ruff: ignore[too-many-return-statements]  # one return for each quantity
    """Read what was typed into a field.

    Args:
        field: The field.
        text: A figure or sum for quantities; otherwise the text itself.
        system: ``metric`` or ``us``, for figures without a unit.
    Returns: The new value. [mm, kg, l or none]
    Raises:
        InputError: The text is no figure; or no whole number where one is wanted.
    """
    if field.quantity in ("text", "choice", "material", "rule"):
        return text
    if field.quantity == "words":
        return tuple(text.replace(",", " ").split())
    if field.quantity == "lengths":
        rows = [word.strip(", ") for word in (text.split(";") if ";" in text else text.split())]
        return tuple(parse(word, "length", system) for word in rows if word.strip())
    if field.quantity == "groups":
        return typed_groups(text, system)
    if field.quantity == "boxes":
        return typed_boxes(text, system)
    if field.quantity == "share":
        return parse(text.replace("%", ""), "number", system) / 100
    quantity: Quantity = field.quantity  # type: ignore[assignment]  # text and choice are out
    value = parse(text, quantity, system)
    if field.quantity == "number":
        if not field.whole:
            return value
        if abs(value - round(value)) > 1e-9:
            raise InputError("a whole number is wanted", place=field.words, remedy="Type 0, 1, 2 …")
        return round(value)
    return value
