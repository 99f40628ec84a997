"""What the card shows of what is chosen, in its order: fields of the job's own values, by their paths in it.

How each is written, read and bounded stands beside the field itself; here is only which of them are shown together.
"""

from collections.abc import Callable, Iterable

import msgspec

from roomy_hull.core.card import Field, FieldKind, fields
from roomy_hull.job.body import TRUNDLE
from roomy_hull.job.canopy import Canopy
from roomy_hull.job.carried import Carried
from roomy_hull.job.goods import CAB
from roomy_hull.job.model import Job
from roomy_hull.job.rooms import Room
from roomy_hull.kinds.registry import Unit, kind_of
from roomy_hull.session.view_state import ViewState
from roomy_hull.shop.shop import Shop

_LAST = ("bolt", "bolts", "note")
_HOLDS = ("contents", "contents_source")


_CHOICES: dict[FieldKind, Callable[[Job, Shop], Iterable[str]]] = {
    "material": lambda _job, shop: shop.materials,
    "rule": lambda _job, shop: shop.dimension_rules,
    "holder": lambda job, _shop: ("", CAB, *job.holders()),
    "unit": lambda job, _shop: ("", *(u.id for u in job.units)),
    "board": lambda job, _shop: (u.id for u in job.units if kind_of(u).says(u, "").whole),
    "thing": lambda job, _shop: ("", *(u.id for u in job.units), *(c.id for c in job.carried)),
    "rack": lambda job, _shop: ("", *(r.id for r in job.body.racks)),
    "set-up": lambda job, _shop: ("", *(s.id for s in job.setups)),
}


def choices_of(field: Field, job: Job, shop: Shop) -> tuple[str, ...]:
    """List what a field may be, where it is a choice; empty for a field that is typed."""
    found = _CHOICES.get(field.quantity)
    return tuple(found(job, shop)) if found is not None else field.choices


def thing_fields(job: Job, thing: Unit | Carried) -> tuple[Field, ...]:
    """Of a unit or a carried thing; what goods are listed in it is not typed as its contents as well."""
    skip = _HOLDS if any(g.place == thing.id for g in job.goods) else ()
    if isinstance(thing, Carried):
        return fields(thing, skip=skip if job.body.racks else (*skip, "on"))
    every = fields(thing, skip=skip if kind_of(thing).contents else _HOLDS)
    # How it is held comes last.
    return (*(f for f in every if f.name not in _LAST), *(f for f in every if f.name in _LAST))


def survey_fields(job: Job) -> tuple[Field, ...]:
    """The vehicle, its kerb and ratings, its tanks, seats and wheels."""
    v, path = job.vehicle, "vehicle."
    seats = [
        f for n, seat in enumerate(v.seats)
        # The driver's seat stays where it is.
        for f in fields(seat, f"{path}seats.{n}.", f"{seat.name.capitalize()},", skip=() if n else ("mass", "fitted"))
    ]  # fmt: skip
    long_range: tuple[Field, ...] = ()
    if v.long_range is not None:
        shape = ("length", "width", "height", "y", "z")
        tank, *rest = fields(v.long_range, f"{path}long_range.", skip=shape)
        long_range = (msgspec.structs.replace(tank, words="Long-range tank"), *rest)
    return (
        *fields(v, path, skip=("level_target",)),
        *fields(v.kerb, f"{path}kerb."),
        *fields(v.ratings, f"{path}ratings."),
        *fields(v.springs, f"{path}springs.", only=("front", "rear")),
        *fields(v.fuel, f"{path}fuel."),
        *long_range,
        *seats,
        *(fields(v.hold, f"{path}hold.") if v.hold is not None else ()),
        *fields(v.wheels, f"{path}wheels."),
    )


def part_fields(job: Job, key: str) -> tuple[Field, ...]:
    """The chosen part of a body: a room or a rack by its id; else tray and canopy."""
    room, rack = job.body.room(key), job.body.rack(key)
    if room is not None:
        return room_fields(room)
    if rack is not None:
        return fields(rack, f"body.racks.{rack.id}.")
    body, canopy = job.body, job.body.canopy
    own = canopy is not None and canopy.kind != "cargo"
    return (
        *_tray(job),
        *(fields(canopy, "body.canopy.") if own else ()),
        *(_ways("body.canopy", canopy) if canopy is not None else ()),
        *fields(body.finish, "body.finish."),
        *fields(body, "body."),
    )


def _tray(job: Job) -> tuple[Field, ...]:
    """The tray and what hangs under it; what goods are listed in is not typed as well."""
    tray, path, listed = job.body.tray, "body.tray.", {g.place for g in job.goods}
    found = [*fields(tray, path)]
    for box in tray.boxes:
        skip = _HOLDS if box.holder in listed else ()
        found += fields(
            box, f"{path}boxes.{box.id}.", f"Box {box.id.replace('-', ' ')},", skip=skip
        )
    if tray.trundle is not None:
        skip = _HOLDS if TRUNDLE in listed else ()
        found += fields(tray.trundle, f"{path}trundle.", "Trundle,", skip=skip)
    if tray.tank is not None:
        found += fields(tray.tank, f"{path}tank.", "Tank,")
    return tuple(found)


def _ways(path: str, shell: Canopy) -> tuple[Field, ...]:
    """Doors, with their struts, and bays."""
    found: list[Field] = []
    for door in shell.doors:
        who, at = f"Door {door.id},", f"{path}.doors.{door.id}."
        found += fields(door, at, who)
        if door.strut is not None:
            found += fields(door.strut, f"{at}strut.", who)
    for bay in shell.bays:
        found += fields(bay, f"{path}.bays.{bay.id}.", f"Bay {bay.id},")
    return tuple(found)


def room_fields(room: Room) -> tuple[Field, ...]:
    """A room beside the canopy: place, size, doors and bays; of a bought one its mass as well."""
    p = f"body.rooms.{room.id}."
    walls = () if room.made else ("wall", "roof", "skin", "insulation")
    return (
        *fields(room, p),
        *fields(room.shell, f"{p}shell.", skip=("start", "jacks", "leg_out", "fittings", *walls)),
        *_ways(f"{p}shell", room.shell),
    )


def scenario_fields(job: Job, scenario: str) -> tuple[Field, ...]:
    """A scenario, and who sits where in it."""
    one = next(s for s in job.scenarios if s.id == scenario)
    canopy, p = job.body.canopy, f"scenarios.{scenario}."
    skip = ["setup"] if not job.setups else []
    skip += ["canopy"] if canopy is None or canopy.kind != "canopy" else []
    skip += ["sides"] if job.body.tray.sides <= 0 else []
    name, *rest = fields(one, p, skip=tuple(skip))
    seats = [
        Field(f"{p}people.{n}", seat.name.capitalize(), "mass", "0 where nobody sits there")
        for n, seat in enumerate(job.vehicle.seats)
    ]
    return (name, *seats, *rest)


def load_fields(job: Job, scenario: str, *, brief: bool) -> tuple[Field, ...]:
    """A scenario and the springs; first the brief where that is looked at."""
    return (
        *(fields(job.brief, "brief.", only=("purpose", "travellers", "days")) if brief else ()),
        *scenario_fields(job, scenario),
        *fields(job.vehicle.springs, "vehicle.springs."),
        *fields(job.vehicle, "vehicle.", only=("level_target",)),
    )


def brief_fields(job: Job, wish: str) -> tuple[Field, ...]:
    """What the vehicle is for; of a chosen wish its own."""
    one = next((w for w in job.brief.wishes if w.id == wish), None)
    if one is None:
        return fields(job.brief, "brief.")
    so_far = ", ".join(dict.fromkeys(w.option for w in job.brief.wishes if w.option)) or "none"
    return tuple(
        msgspec.structs.replace(f, tip=f"{f.tip}. So far: {so_far}")
        if f.name.endswith(".option")
        else f
        for f in fields(one, f"brief.wishes.{wish}.")
    )


_PARTY = {
    "goods": "goods",
    "people": "party.people",
    "dogs": "party.dogs",
    "berths": "party.berths",
}


def access_fields(job: Job, key: str) -> tuple[Field, ...]:
    """What is chosen in Access: ``goods.ID``, ``people.ID``, ``dogs.ID`` or ``berths.ID``; else nothing."""
    group, _, name = key.partition(".")
    rows = job.goods if group == "goods" else getattr(job.party, group, ())
    one = next((x for x in rows if x.id == name), None)
    return fields(one, f"{_PARTY[group]}.{name}.") if one is not None else ()


_PLACES = {"Water": "water", "Gas and air": "gas", "Board": "board", "Signatures": "signatures"}
_GROUPS = {"Board": "instruments.", "Signatures": "signatures."}
_WATER = ("drink", "shower", "meal", "tap", "hose", "hose_metres", "inlet", "pump_flow", "pump_kpa",
          "hot_by", "hot_litres", "hot_from", "hot_to", "hot_watts", "hot_efficiency")  # fmt: skip


def service_key(job: Job, look: ViewState, selected: str) -> str:
    """What of the services the card shows.

    Returns: As `service_fields` takes it: what is chosen, or is done by the unit; pages with figures of their own have
        these.
    """
    page = look.page("Services")
    if page in _PLACES:
        head = _GROUPS.get(page)
        return (
            look.services.chosen
            if head is not None and look.services.chosen.startswith(head)
            else _PLACES[page]
        )
    chosen = (
        "" if look.services.chosen.startswith(tuple(_GROUPS.values())) else look.services.chosen
    )
    return key_of(job, selected) or chosen


def key_of(job: Job, thing: str) -> str:
    """What a unit is among the services, by its path there; empty where it is nothing of them."""
    s = job.services
    battery = next((n for n, b in enumerate(s.batteries) if b.thing == thing), None)
    if not thing or battery is not None:
        return f"batteries.{battery}" if thing else ""
    use = next((c.id for c in s.consumers if c.thing == thing), "")
    gives = next((x.id for x in s.sources if thing in (x.charger, x.thing)), "")
    return f"consumers.{use}" if use else f"sources.{gives}" if gives else ""


def service_fields(job: Job, key: str) -> tuple[Field, ...]:  # ruff: ignore[too-many-return-statements]  # one for each sort
    """What is chosen among the services.

    Args:
        key: ``consumers.ID``, ``sources.ID``, ``plugs.ID``, ``batteries.N``, ``trip.days.N``, ``instruments.UNIT.ID``,
            ``signatures.WHAT``, ``runs.ID``, ``inverter``, ``water``, ``gas``, ``board``; else the trip's.
    """
    s, p = job.services, "services."
    group, _, name = key.rpartition(".") if key.startswith("trip.") else key.partition(".")
    match group:
        case "board" | "runs":
            return ()
        case "signatures":
            n = next((n for n, x in enumerate(s.signatures) if x.what == name), None)
            return fields(s.signatures[n], f"{p}signatures.{n}.") if n is not None else ()
        case "water":
            return fields(s.uses, f"{p}uses.", only=_WATER)
        case "gas":
            return fields(s.uses, f"{p}uses.", skip=_WATER)
        case "inverter":
            return (
                *fields(s.inverter, f"{p}inverter."),
                *fields(s.inverter.wire, f"{p}inverter.wire."),
            )
        case "consumers" | "sources" | "plugs" | "batteries" | "trip.days":
            rows = s.trip.days if group == "trip.days" else getattr(s, group)
            one = next((x for n, x in enumerate(rows) if getattr(x, "id", str(n)) == name), None)
            if one is not None:
                wire = fields(one.wire, f"{p}{key}.wire.") if hasattr(one, "wire") else ()
                return (*fields(one, f"{p}{key}."), *wire)
        case "instruments":
            unit, _, which = name.partition(".")
            there = next(
                (i for i in getattr(job.thing(unit), "instruments", ()) if i.id == which), None
            )
            if there is not None:
                return fields(there, f"units.{unit}.instruments.{which}.")
        case _:
            pass
    return (
        *fields(s.trip, f"{p}trip."),
        *fields(s.uses, f"{p}uses.", only=_WATER[:3]),
        *fields(s, p),
    )
