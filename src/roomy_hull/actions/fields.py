"""The few real parameters of each thing, as the card shows them: words, quantity, what they mean."""

import functools

import msgspec

from roomy_hull.core.doubt import RELATIVE_DOUBT
from roomy_hull.core.errors import InputError
from roomy_hull.core.tables import dimension_rules, materials
from roomy_hull.core.units import MM_PER_INCH, Quantity, System, parse, show
from roomy_hull.job import unit as units
from roomy_hull.job.model import Job
from roomy_hull.job.unit import Block, Carried, Unit
from roomy_hull.job.vehicle import Vehicle


class Field(msgspec.Struct, frozen=True):
    """One parameter.

    Attributes
    ----------
    name, words, tip : str
        Field of the value, its words on the card, what it means in the trade.
    quantity : str
        ``length``, ``mass``, ``volume`` or ``number``; ``share`` for a part shown in per cent; ``text``,
        ``choice`` or ``yes``; ``lengths`` for
        several with spaces between, ``boxes`` for those of an own unit.
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


def _mass(name: str, words: str, tip: str = "") -> Field:
    return Field(name, words, "mass", tip)


def _choice(name: str, words: str, tip: str, *choices: str) -> Field:
    return Field(name, words, "choice", tip, choices)


def _yes(name: str, words: str, tip: str = "") -> Field:
    return Field(name, words, "yes", tip)


_BOLTS = (
    Field("bolts", "Bolts", "number", "That hold it in braking and on bumps"),
    _choice("bolt", "Bolt size", "Stainless A2-70 is reckoned with", *units.BoltSize.__args__),  # type: ignore[attr-defined]  # a Literal
)
_LOCKS = _yes("locks", "Slides lock out", "A drawer without a lock rolls back on a slope")
_HINGE = _choice("hinge", "Hinge", "As one faces it", "left", "right")
_SHEET = _length("sheet", "Sheet")
_SLIDE_RATING = _mass("slide_rating", "Slide rating", "Of the pair, from its data sheet")
_SLIDE_MASS = _mass("slide_mass", "Slides' mass", "Of the pair")


@functools.cache
def _own_fields() -> dict[type, tuple[Field, ...]]:
    """Give what each kind has besides place, size and contents."""
    boxed = (
        _length("slide", "Slide thickness", "Each of the pair; common are 12.7 to 19 mm"), _SLIDE_RATING,
        _SLIDE_MASS, _length("carcass", "Carcass sheet"), _length("sheet", "Box sheet"),
        _length("front", "Front sheet"), _material(), _LOCKS, _yes("lockable", "Lock with a key"),
    )  # fmt: skip
    drop = (_choice("slide_style", "Slide", "A drop slide lowers it once it is out", "plain", "drop"),
            _length("drop", "Drops by", "Of a drop slide"))  # fmt: skip
    return {
        units.Drawer: (*boxed, _yes("table", "Table above it", "A board pulls out over the box")),
        units.Stack: (Field("heights", "Fronts, from below", "lengths", "Heights with spaces between"), *boxed),
        units.Fridge: (
            _choice("style", "Kind", "Chest on a slide, upright with a door, or a drawer", "chest", "upright",
                    "drawer"), *drop,
            _choice("hinge", "Lid or door turns", "About this edge, as one faces it", "left", "right", "back"),
            Field("litres", "Volume", "volume"), _mass("mass", "Fridge, empty", "From its data sheet"),
            _length("slide_height", "Slide height", "The fridge stands on it"), _mass("slide_mass", "Slide's mass"),
            _mass("slide_rating", "Slide rating", "From its data sheet"),
            _length("vent", "Vent needs", "Free air in front of the vent"),
            _choice("vent_side", "Vent is at the", "As one faces it", "back", "left", "right"),
            _length("lid_gap", "Above the lid", "Room kept clear"),
            _yes("locks", "Slide locks out", "A slide without a lock rolls back on a slope"),
        ),
        units.Slide: (
            _choice("style", "Slide", "A drop slide lowers its load once it is out", "plain", "drop"),
            _length("drop", "Drops by"), _length("slide_height", "Slide height"), _SLIDE_MASS, _SLIDE_RATING, _LOCKS,
        ),
        units.Shelf: (
            _SHEET, _length("lip", "Lip", "Keeps what lies on it from sliding out"), _length("flange", "Side flange"),
            _yes("slides", "Pulls out"), _SLIDE_RATING, _SLIDE_MASS, _LOCKS, _material(),
        ),
        units.Pocket: (_SHEET, _length("lip", "Front", "Low enough to look and reach over"), _material()),
        units.Partition: (_SHEET, _yes("rail", "Tie-down rail"), _material()),
        units.Pantry: (Field("baskets", "Baskets", "number"), _SHEET, _length("front", "Front sheet"), _SLIDE_RATING,
                       _SLIDE_MASS, _LOCKS, _material()),
        units.Table: (_choice("style", "Kind", "", "pull-out", "fold-down"), _SHEET,
                      _mass("slide_mass", "Runners' mass"), _LOCKS, _material()),
        units.Kitchen: (
            _choice("style", "Kind", "", "pull-out", "drop-down", "flush"),
            _length("leaf_left", "Left leaf", "Folds out, as one faces it; 0 for none"),
            _length("leaf_right", "Right leaf", "Folds out, as one faces it; 0 for none"),
            _choice("cooker", "Cooker", "Gas: a licensed fitter and the local code decide", "none", "burner",
                    "induction"),
            _yes("sink", "Sink"), _yes("tap", "Tap"), _yes("oven", "Oven"), _yes("spice_rack", "Spice rack"),
            _yes("cutlery", "Cutlery tray"), _SHEET, _length("front", "Front sheet"), _SLIDE_RATING, _SLIDE_MASS,
            _LOCKS, _material(),
        ),
        units.FalseFloor: (_length("board", "Board"), Field("hatches", "Hatches", "number"), _material()),
        units.Wing: (_length("board", "Board"), _HINGE, _material()),
        units.Compartment: (
            _choice("use", "For", "", "dog", "crew"), Field("vents", "Open vents, cm²", "number", "Besides the mesh door"),
            _HINGE, _SHEET, _material(),
        ),
        units.Device: (
            _choice("what", "What it is", "", *units.DeviceKind.__args__),  # type: ignore[attr-defined]  # a Literal
            _mass("mass", "Mass", "From its data sheet"),
            _choice("mass_source", "Mass known by", "Decides its doubt", *RELATIVE_DOUBT),
            _length("service", "Room to serve it", "Kept clear in front of it"),
            _length("vent", "Air around it", "At its sides and above"),
            _choice("use", "Wanted", "How quickly it has to be at hand", "now", "each stop", "each camp", "rarely"),
        ),
        units.GasLocker: (_choice("bottle", "Bottle", "Its gas", "2 kg", "4.5 kg", "9 kg"), _HINGE, _SHEET, _material()),
        units.CaseRack: (
            _length("case_width", "Case width"), _length("case_depth", "Case depth"),
            _length("case_height", "Case height"), Field("across", "Cases across", "number"),
            Field("up", "Cases up", "number"), _length("play", "Play", "Around each case"), _SHEET, _material(),
        ),
        units.Tube: (_length("reach", "Drawn out by", "0 for its whole depth"), _SHEET, _material()),
        units.Tank: (
            _choice("style", "Kind", "", "box", "wedge", "bladder", "cans"),
            _length("low", "Front height", "Of a wedge"), Field("cans", "Cans", "number", "Of 20 l"), _SHEET,
            Field("baffles", "Baffles", "number", "Against surge; they cost a little volume"),
            _length("inlet", "Filler", "38 mm takes a bucket"), _material(),
        ),
        units.Own: (
            _mass("mass", "Mass, empty"), _choice("mass_source", "Mass known by", "Decides its doubt", *RELATIVE_DOUBT),
            _length("travel", "Slides out by", "What moves of it"), Field("turn", "Turns by, degrees", "number"), _HINGE,
            _yes("locks", "Locks when open"), Field("blocks", "Boxes", "boxes",
            "u v w width depth height, one box each, ; between; m after one that moves"),
        ),
    }  # fmt: skip


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
        return _carried_fields(thing)
    contents = () if isinstance(thing, units.Tank | units.Table) else _CONTENTS
    return (_NAME, *_PLACE, *_SIZE, *contents, *_own_fields()[type(thing)], *_BOLTS, _NOTE)


def _carried_fields(item: Carried) -> tuple[Field, ...]:
    """Give the parameters of a carried item; those of opening only where it opens."""
    own: tuple[Field, ...] = ()
    if item.kind in ("tent", "awning", "shower tent"):
        own += (_choice("side", "Opens to the", "Or hangs on this side", "left", "right", "rear"),)
    if item.kind in ("awning", "shower tent", "spare wheel", "jerry"):
        reach = "Beside its post" if item.kind in ("spare wheel", "jerry") else "Comes out by"
        own += (_choice("hand", "Hand", "The end about which it turns, as one faces it", "left", "right"),
                _length("reach", reach), Field("turn", "Turns by, degrees", "number", "0 for not at all"))  # fmt: skip
    if item.kind in ("tent", "awning"):
        own += (_yes("legs", "On posts or a ladder"),)
    return (
        _NAME,
        _length("x", "Aft of front axle", "Its middle"),
        _length("y", "Right of centre", "Its middle; left is negative"),
        _length("z", "Above ground", "Its underside"),
        _length("length", "Length", "Along the vehicle"),
        _length("width", "Width", "Across the vehicle"),
        _length("height", "Height"),
        _mass("mass", "Mass", "Empty"),
        _choice("mass_source", "Mass known by", "Decides its doubt", *RELATIVE_DOUBT),
        _mass("contents", "Contents", "Scales with the scenario"),
        *own,
        _choice("mount", "Stays with", "With what it comes off", "vehicle", "tray", "canopy"),
        _yes("on_roof", "On the roof", "Counts against the roof rating"),
    )


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
            if door.strut is not None:
                p = f"{c}doors.{door.id}.strut."
                found += [
                    Field(
                        p + "force",
                        f"Door {door.id}, strut",
                        "number",
                        "N of one when out, at 20 °C",
                    ),
                    _length(p + "body", "… fixed under the hinge", "Its stud on the body"),
                    _length(p + "leaf", "… along the leaf", "Its stud on the leaf, from the hinge"),
                ]
            found.append(_choice(f"{c}doors.{door.id}.hinge", f"Door {door.id}, hinge", "start and end are upright",
                                 "top", "bottom", "start", "end"))  # fmt: skip
    found.append(Field("body.rule", "Rule for sizes", "choice", "Width, height, rear overhang",
                       tuple(dimension_rules())))  # fmt: skip
    return tuple(found)


def shown(field: Field, value: object, system: System) -> str:
    """Write a field's value as the card shows it, without its unit."""
    if field.quantity in ("text", "choice"):
        return str(value)
    if field.quantity == "lengths" and isinstance(value, tuple):
        return "  ".join(_plain_length(float(v), system) for v in value)
    if field.quantity == "boxes" and isinstance(value, tuple):
        return "; ".join(_box_words(b, system) for b in value)
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


def _plain_length(mm: float, system: System) -> str:
    """Write a length without any space in it, for lists of lengths: inches as decimals."""
    return _figure(mm, "length", "metric") if system == "metric" else f"{mm / MM_PER_INCH:.3f}"


def _box_words(box: Block, system: System) -> str:
    """Write one box of an own unit as the card shows it."""
    sizes = (box.u, box.v, box.w, box.width, box.depth, box.height)
    return " ".join(_plain_length(v, system) for v in sizes) + (" m" if box.moves else "")


def _typed_boxes(text: str, system: System) -> tuple[Block, ...]:
    """Read the boxes of an own unit."""
    found = []
    for n, row in enumerate(filter(None, (r.strip() for r in text.split(";"))), 1):
        words = row.split()
        moves = words[-1:] == ["m"]
        words = words[:-1] if moves else words
        if len(words) != 6:
            raise InputError(
                f"box {n} has {len(words)} figures", "Boxes", "Type u v w width depth height."
            )
        sizes = [parse(w, "length", system) for w in words]
        try:
            found.append(msgspec.convert(dict(zip(("u", "v", "w", "width", "depth", "height"), sizes, strict=True))
                                         | {"moves": moves}, Block))  # fmt: skip
        except msgspec.ValidationError as trouble:
            raise InputError(
                f"box {n}: {str(trouble).split(' - at')[0]}", "Boxes", "Sizes are above 0."
            ) from None
    if not found:
        raise InputError("there is no box", "Boxes", "Type u v w width depth height.")
    return tuple(found)


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
    if field.quantity == "lengths":
        rows = text.split(";") if ";" in text else text.split()
        return tuple(parse(word, "length", system) for word in rows if word.strip())
    if field.quantity == "boxes":
        return _typed_boxes(text, system)
    if field.quantity == "share":
        return parse(text.replace("%", ""), "number", system) / 100
    quantity: Quantity = field.quantity  # type: ignore[assignment]  # text and choice are out
    value = parse(text, quantity, system)
    if field.quantity == "number":
        if field.name.startswith("vehicle.springs") or field.name in ("turn", "vents", "growth"):
            return value
        if abs(value - round(value)) > 1e-9:
            raise InputError("a whole number is wanted", place=field.words, remedy="Type 0, 1, 2 …")
        return round(value)
    return value
