"""The few real parameters of each thing, as the card shows them: words, quantity, what they mean."""

import msgspec

from roomy_hull.core.doubt import RELATIVE_DOUBT
from roomy_hull.core.errors import InputError
from roomy_hull.core.tables import dimension_rules, materials
from roomy_hull.core.units import Quantity, System, parse, show
from roomy_hull.job.model import Job
from roomy_hull.job.unit import Carried, Drawer, Fridge, Shelf, Tank, Unit
from roomy_hull.job.vehicle import Vehicle


class Field(msgspec.Struct, frozen=True):
    """One parameter.

    Attributes
    ----------
    name, words, tip : str
        Field of the value, its words on the card, what it means in the trade.
    quantity : str
        ``length``, ``mass``, ``volume`` or ``number``; ``text``, ``choice`` or ``yes``.
    choices : tuple of str
        What a ``choice`` may be.
    """

    name: str
    words: str
    quantity: str
    tip: str = ""
    choices: tuple[str, ...] = ()


def _length(name: str, words: str, tip: str = "") -> Field:
    return Field(name, words, "length", tip)


_NAME = Field("name", "Name", "text", "What the workshop calls it")
_PLACE = (
    _length("u", "Along the wall", "From the bay's front end (left end at the rear)"),
    _length("v", "Inward", "How far its face stands behind the access face"),
    _length("w", "Up", "Above the bay's floor"),
)
_SIZE = (
    _length("width", "Width", "Outside, along the wall"),
    _length("depth", "Depth", "Outside, inward from the access face"),
    _length("height", "Height", "Outside"),
)
_CONTENTS = (
    Field("contents", "Contents", "mass", "What goes in it, when full"),
    Field("contents_source", "Contents known by", "choice",
          "Weighed ±0.5 %, data sheet ±3 %, geometry ±5 %, estimate ±15 %",
          tuple(RELATIVE_DOUBT)),
)  # fmt: skip
_NOTE = Field("note", "Note", "text", "For the workshop")


def _material() -> Field:
    return Field(
        "material", "Sheet material", "choice", "Decides mass and bends", tuple(materials())
    )


def fields_of(thing: Unit | Carried) -> tuple[Field, ...]:
    """Give the parameters that the card shows for a thing.

    Parameters
    ----------
    thing : Unit or Carried
        What is selected.

    Returns
    -------
    tuple of Field
        In the order shown.
    """
    if isinstance(thing, Carried):
        return (
            _NAME,
            _length("x", "Aft of front axle", "Its middle"),
            _length("y", "Right of centre", "Its middle; left is negative"),
            _length("z", "Above ground", "Its underside"),
            _length("length", "Length", "Along the vehicle"),
            _length("width", "Width", "Across the vehicle"),
            _length("height", "Height"),
            Field("mass", "Mass", "mass", "Empty"),
            Field("mass_source", "Mass known by", "choice", "Decides its doubt", tuple(RELATIVE_DOUBT)),
            Field("contents", "Contents", "mass", "Scales with the scenario"),
            Field("mount", "Stays with", "choice", "With what it comes off",
                  ("vehicle", "tray", "canopy")),
            Field("on_roof", "On the roof", "yes", "Counts against the roof rating"),
        )  # fmt: skip
    own: tuple[Field, ...]
    if isinstance(thing, Drawer):
        own = (
            _length("slide", "Slide thickness", "Each of the pair; common are 12.7 to 19 mm"),
            Field("slide_rating", "Slide rating", "mass", "Of the pair, from its data sheet"),
            Field("slide_mass", "Slides' mass", "mass", "Of the pair"),
            _length("carcass", "Carcass sheet"),
            _length("sheet", "Box sheet"),
            _length("front", "Front sheet"),
            _material(),
            Field(
                "locks", "Slides lock out", "yes", "A drawer without a lock rolls back on a slope"
            ),
        )
    elif isinstance(thing, Fridge):
        own = (
            Field("litres", "Volume", "volume"),
            Field("mass", "Fridge, empty", "mass", "From its data sheet"),
            _length("slide_height", "Slide height", "The fridge stands on it"),
            Field("slide_mass", "Slide's mass", "mass"),
            Field("slide_rating", "Slide rating", "mass", "From its data sheet"),
            _length("vent", "Vent needs", "Free air in front of the vent"),
            Field("vent_side", "Vent is at the", "choice", "Seen from the access face",
                  ("back", "left", "right")),
            _length("lid_gap", "Above the lid", "Room kept clear"),
            Field("locks", "Slide locks out", "yes", "A slide without a lock rolls back on a slope"),
        )  # fmt: skip
    elif isinstance(thing, Shelf):
        own = (
            _length("sheet", "Sheet"),
            _length("lip", "Lip", "Keeps what lies on it from sliding out"),
            _length("flange", "Side flange"),
            _material(),
        )
    else:
        own = (
            _length("sheet", "Sheet"),
            Field("baffles", "Baffles", "number", "Against surge; they cost a little volume"),
            _length("inlet", "Filler", "38 mm takes a bucket"),
            _material(),
        )
    contents = () if isinstance(thing, Tank) else _CONTENTS
    return (_NAME, *_PLACE, *_SIZE, *contents, *own, _NOTE)


def vehicle_fields(vehicle: Vehicle) -> tuple[Field, ...]:
    """Give the parameters of a vehicle, by their paths in the job.

    Parameters
    ----------
    vehicle : Vehicle
        Its kind decides which there are.

    Returns
    -------
    tuple of Field
        In the order shown: what it is, kerb and ratings, sizes.
    """
    v = "vehicle."

    def mass(path: str, words: str, tip: str) -> Field:
        return Field(v + path, words, "mass", tip)

    own = (
        Field(v + "name", "Vehicle", "text", "What the workshop calls it"),
        Field(v + "drive", "Hand of drive", "choice", "The kerb side is the other one", ("left", "right")),
        Field(v + "tyre", "Tyre size", "text", "From the side wall, such as 265/75R16"),
        Field(v + "tyre_load_index", "Load index", "number", "From the side wall; 0 if not read"),
        mass("kerb.front", "Kerb, front axle", "As weighed or published"),
        mass("kerb.rear", "Kerb, rear axle", "As weighed or published"),
        mass("kerb.driver", "… with driver of", "Was a driver aboard? Then it is not counted twice"),
        Field(v + "kerb.fuel", "… with fuel of", "volume", "How much fuel was in it"),
        mass("kerb.tools", "… with tools of", "What else was aboard"),
        Field(v + "kerb.source", "Kerb known by", "choice", "Decides its doubt", tuple(RELATIVE_DOUBT)),
        Field(v + "fuel.litres", "Fuel tank", "volume", "The main tank, full"),
        _length(v + "fuel.x", "… behind front axle", "Its middle"),
        *((Field(v + "long_range.litres", "Long-range tank", "volume", "Full"),
           _length(v + "long_range.x", "… behind front axle", "Its middle")) if vehicle.long_range else ()),
        *(field for n, seat in enumerate(vehicle.seats) for field in (
            _length(f"{v}seats.{n}.x", f"{seat.name.capitalize()}, aft", "Of the front axle"),
            _length(f"{v}seats.{n}.y", f"{seat.name.capitalize()}, right", "Left is negative"),
        )),
        mass("ratings.gross", "Gross rating", "From the plate"),
        mass("ratings.front_axle", "Front axle rating", "The lowest of axle, tyres, wheels, springs governs"),
        mass("ratings.rear_axle", "Rear axle rating", "The lowest of axle, tyres, wheels, springs governs"),
        mass("ratings.wheel", "One wheel", "0 if not given"),
        mass("ratings.front_spring", "Front springs", "0 if not given"),
        mass("ratings.rear_spring", "Rear springs", "0 if not given"),
        mass("ratings.combination", "Combination", "0 if not given"),
        mass("ratings.towed", "Towed", "0 if not given"),
        mass("ratings.ball", "Ball", "0 if not given"),
        mass("ratings.roof", "Roof", "0 if not given"),
        Field(v + "ratings.standard", "Ratings are", "choice", "Upgraded ones want a certificate",
              ("standard", "upgraded")),
        Field(v + "ratings.certificate", "Certificate", "text", "Its number"),
        Field(v + "ratings.signed", "Signed by", "text", "The certifying engineer"),
        Field(v + "springs.front", "Spring, front", "number", "N/mm at one wheel"),
        Field(v + "springs.rear", "Spring, rear", "number", "N/mm at one wheel"),
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
    """Give a field's name as words."""
    return path.replace("hold.", "").replace("_", " ").capitalize()


def body_fields(job: Job) -> tuple[Field, ...]:
    """Give the parameters of tray and canopy, by their paths in the job.

    Parameters
    ----------
    job : Job
        Whose body is meant.

    Returns
    -------
    tuple of Field
        In the order shown.
    """
    t, c = "body.tray.", "body.canopy."
    found: list[Field] = []
    if job.body.tray.kind == "tray":
        found += [
            _length(t + "gap", "Behind the cab", "Cab back to the tray's front"),
            _length(t + "length", "Tray length", "A full-length canopy goes along"),
            _length(t + "width", "Tray width", "A full-width canopy goes along"),
            _length(t + "headboard", "Headboard", "Above the floor"),
            _length(t + "rack", "Rack on it", "Above the headboard"),
            _length(t + "sides", "Drop sides", "0 for none"),
            _length(t + "floor", "Floor sheet"),
            _length(t + "cross_spacing", "Cross-members", "At most so far apart"),
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
            _length(t + "false_floor", "False floor", "Bays go up by it; 0 for none"),
            _length(t + "wings", "Side wings", "Bays lose it on both sides; 0 for none"),
        ]
    found.append(Field(t + "fittings", "Lights, fasteners", "mass", "What is not drawn"))
    for box in job.body.tray.boxes:
        path, name = f"{t}boxes.{box.id}.", f"Box {box.id.replace('-', ' ')}"
        found += [_length(path + n, f"{name}, {n}") for n in ("gap", "length", "height", "depth")]
        found.append(Field(path + "contents", f"{name}, holds", "mass"))
    if job.body.tray.trundle is not None:
        found += [
            _length(f"{t}trundle.{n}", f"Trundle, {n}") for n in ("length", "width", "height")
        ]
        found.append(Field(t + "trundle.contents", "Trundle, holds", "mass"))
    if job.body.tray.tank is not None:
        found += [
            _length(f"{t}tank.{n}", f"Tank, {n}") for n in ("start", "length", "width", "height")
        ]
    canopy = job.body.canopy
    if canopy is not None and canopy.kind != "cargo":
        found += [
            Field(c + "name", "Canopy", "text"),
            _length(c + "start", "Starts", "Behind the tray's front"),
            _length(c + "length", "Length", "Doors and bays go along"),
            _length(c + "width", "Width", "Bays go along"),
            _length(c + "height", "Height", "Doors and bays go along"),
            _length(c + "wall", "Wall", "Frame and lining"),
            _length(c + "roof", "Roof", "Frame and lining"),
            _length(c + "skin", "Skin sheet"),
            _length(c + "insulation", "Roof insulation", "0 for none; 25 mm is common"),
            Field(c + "jacks", "Jack legs", "yes", "Four, to stand it off on. Never work under it"),
            Field(c + "fittings", "Seals, locks, struts", "mass", "What is not drawn"),
        ]
        for door in canopy.doors:
            found.append(_length(f"{c}doors.{door.id}.length", f"Door {door.id}, length"))
            found.append(
                _length(f"{c}doors.{door.id}.split", f"Door {door.id}, let-down", "0 for one leaf")
            )
    found.append(Field("body.rule", "Rule for sizes", "choice", "Width, height, rear overhang",
                       tuple(dimension_rules())))  # fmt: skip
    return tuple(found)


def shown(field: Field, value: object, system: System) -> str:
    """Write a field's value as the card shows it, without its unit."""
    if field.quantity in ("text", "choice"):
        return str(value)
    if field.quantity == "number":
        return f"{float(str(value)):g}"
    quantity: Quantity = field.quantity  # type: ignore[assignment]  # text, choice, yes are out
    number = float(str(value))
    if system == "metric":
        return f"{number:.2f}".rstrip("0").rstrip(".") if number else "0"
    return show(number, quantity, system, unit=False)


def typed(field: Field, text: str, system: System) -> object:
    """Read what was typed into a field.

    Parameters
    ----------
    field : Field
        The field.
    text : str
        A figure or sum for quantities; otherwise the text itself.
    system : str
        ``metric`` or ``us``, for figures without a unit.

    Returns
    -------
    object
        The new value. [mm, kg, l or none]

    Raises
    ------
    InputError
        The text is no figure; or no whole number where one is wanted.
    """
    if field.quantity in ("text", "choice"):
        return text
    quantity: Quantity = field.quantity  # type: ignore[assignment]  # text and choice are out
    value = parse(text, quantity, system)
    if field.quantity == "number":
        if field.name.startswith("vehicle.springs"):
            return value
        if abs(value - round(value)) > 1e-9:
            raise InputError("a whole number is wanted", place=field.words, remedy="Type 0, 1, 2 …")
        return round(value)
    return value
