"""The few parameters of the services, as the card shows them in the stage Services."""

from collections.abc import Callable

from roomy_hull.job.model import Job
from roomy_hull.job.services import Chemistry, Consumer, Crossing
from roomy_hull.kinds.board import CUTS, Board
from roomy_hull.kinds.card import Field, choice, number, yes
from roomy_hull.kinds.device import Device
from roomy_hull.session.view_state import ViewState

CHEMISTRIES: tuple[str, ...] = Chemistry.__args__  # type: ignore[attr-defined]  # a Literal
CROSSINGS: tuple[str, ...] = Crossing.__args__  # type: ignore[attr-defined]  # as above
P = "services."


def _figure(name: str, words: str, tip: str) -> Field:
    """A figure with a point."""
    return number(name, words, tip, whole=False)


def _wire(path: str) -> tuple[Field, ...]:
    """What may be given of a circuit by hand."""
    return (
        _figure(f"{path}.wire.metres", "Length, m", "0 for the way through the body"),
        _figure(f"{path}.wire.area", "Cable, mm²", "0 for the smallest that does"),
        _figure(f"{path}.wire.fuse", "Fuse, A", "0 for the smallest that carries it"),
        yes(
            f"{path}.wire.careful",
            "Voltage-drop sensitive",
            "3 % of the voltage may be lost; else 10 %",
        ),
        yes(f"{path}.wire.fused", "Has a fuse", "The fuse protects the cable"),
        Field(
            f"{path}.wire.fuse_at",
            "Fuse from its source",
            "length",
            "Within 200 mm (common practice)",
        ),
    )


def trip_fields(job: Job) -> tuple[Field, ...]:
    """Of the whole trip and what is used on it."""
    t, u = P + "trip.", P + "uses."
    return (
        Field(t + "name", "Trip", "text", "What it is called"),
        Field(t + "begin", "First day", "text", "Year, month, day: 2026-03-01"),
        _figure(t + "latitude", "Latitude, °", "North; south of the equator below 0"),
        _figure(t + "longitude", "Longitude, °", "East; west of Greenwich below 0"),
        number(t + "people", "People", "Who drink, wash and eat"),
        Field(t + "charge", "Charge at first, %", "share", "Of what one wants to draw"),
        Field(t + "water", "Water at first, %", "share", "Of the tanks"),
        Field(t + "gas", "Gas at first, %", "share", "Of the bottles"),
        Field(u + "drink", "Drink a head", "volume", "A day; 7.5 to 15 l for all uses (Sphere, from memory)"),
        Field(u + "shower", "A shower", "volume", "Each"),
        Field(u + "meal", "A meal", "volume", "With its washing up"),
        _figure(t + "nose", "Nose points to, °", "From north over east, in camp: decides what shades the panels"),
        choice(P + "gauges", "Cables by", "Which sizes the schedule chooses among", "metric", "AWG"),
        choice(P + "board", "Fuse board", "The unit that holds the fuses",
               *(u.id for u in job.units if isinstance(u, Device | Board))),
    )  # fmt: skip


def water_fields() -> tuple[Field, ...]:
    """Of water: where it runs, through what, how it is heated."""
    u = P + "uses."
    return (
        Field(
            u + "drink",
            "Drink a head",
            "volume",
            "A day; 7.5 to 15 l for all uses (Sphere, from memory)",
        ),
        Field(u + "shower", "A shower", "volume", "Each"),
        Field(u + "meal", "A meal", "volume", "With its washing up"),
        Field(
            u + "tap", "Tap height", "length", "Over the ground, where it runs by its own weight"
        ),
        Field(u + "hose", "Hose bore", "length", "Inside"),
        _figure(u + "hose_metres", "Hose length, m", "0 for its way through the body"),
        _figure(u + "pump_flow", "Pump open, l/min", "From its data sheet"),
        _figure(u + "pump_kpa", "Pump shuts off, kPa", "From its data sheet"),
        Field(u + "inlet", "Bucket inlet bore", "length", "38 mm is usual"),
        choice(u + "hot_by", "Hot water by", "", "", "electricity", "gas"),
        Field(u + "hot_litres", "Heated at a time", "volume"),
        _figure(u + "hot_from", "From, °C", "As it comes"),
        _figure(u + "hot_to", "To, °C", "Above 60 °C it scalds"),
        _figure(u + "hot_watts", "Heater, W", "Where it is electric"),
        Field(u + "hot_efficiency", "Gets into it, %", "share", "Of the heat"),
    )


def gas_fields() -> tuple[Field, ...]:
    """Of gas and air, and the slope of the camp."""
    u = P + "uses."
    return (
        _figure(u + "burner", "Burner, kW", "From its plate"),
        _figure(u + "meal_burns", "Burns a meal, h", "How long"),
        _figure(u + "free_air", "Free air, l/min", "Of the compressor, at pressure"),
        Field(u + "air_duty", "May run, %", "share", "Of the time, from its data sheet"),
        _figure(u + "air_tank_kpa", "Air tank, kPa", "Where it stops filling"),
        _figure(u + "tyres_low", "Tyres from, kPa", "On sand or track"),
        _figure(u + "tyres_high", "Tyres to, kPa", "On the road"),
        _figure(u + "slope_ahead", "Ground up ahead, °", "In camp; below 0 it falls"),
        _figure(u + "slope_left", "Ground up left, °", "In camp; below 0 it falls"),
    )


def instrument_fields(key: str) -> tuple[Field, ...]:
    """Of one instrument on a board: ``UNIT.ID``."""
    unit, _, which = key.partition(".")
    p = f"units.{unit}.instruments.{which}."
    return (
        Field(p + "name", "What it says", "text"),
        choice(p + "what", "Description", "Decides its hole", *CUTS),
        Field(p + "x", "From the left", "length", "Its middle"),
        Field(p + "z", "From below", "length", "Its middle"),
        Field(p + "wide", "Hole wide", "length", "0 for the usual one; measure the one in hand"),
        Field(p + "high", "Hole high", "length", "0 for round"),
        Field(p + "behind", "Deep behind", "length", "0 for the usual"),
    )


def plug_fields(path: str) -> tuple[Field, ...]:
    """Of one plug."""
    return (
        Field(path + ".name", "Description", "text"),
        choice(path + ".crossing", "Where", "", *CROSSINGS),
        number(path + ".pins", "Pins", "Two for each circuit"),
        _figure(path + ".amps", "Each carries, A", "From its data sheet"),
    )


def signature_fields(job: Job, what: str) -> tuple[Field, ...]:
    """Of one signature, where there is one."""
    n = next((n for n, x in enumerate(job.services.signatures) if x.what == what), -1)
    p = f"{P}signatures.{n}."
    return (
        Field(p + "name", "Signed by", "text"),
        Field(p + "date", "On", "text"),
        Field(p + "number", "Licence", "text", "Or certificate"),
    ) if n >= 0 else ()  # fmt: skip


def inverter_fields() -> tuple[Field, ...]:
    """Of the inverter."""
    p = P + "inverter"
    return (
        _figure(p + ".watts", "Watts", "That it gives"),
        Field(p + ".efficiency", "Gives, %", "share", "Of what it takes"),
        _figure(p + ".idle", "Idle, W", "While it is on"),
        yes(p + ".leakage", "Leakage protection", "Built in"),
        *_wire(p),
    )


def day_fields(n: int) -> tuple[Field, ...]:
    """Of one day."""
    p = f"{P}trip.days.{n}."
    return (
        _figure(p + "drive_from", "Drive from, h", "By the sun's own time"),
        _figure(p + "drive", "Drive, h", "Or drag the bar's end in the picture"),
        _figure(
            p + "plugged", "On mains, h", "From six in the evening, where there is a mains charger"
        ),
        Field(p + "cloud", "Cloud, %", "share", "Of the sky"),
        _figure(p + "warm", "Warmest, °C", "At three in the afternoon"),
        _figure(p + "cool", "Coolest, °C", "At five in the morning"),
        number(p + "showers", "Showers", "That day"),
        number(p + "meals", "Meals", "Cooked that day"),
    )


def key_of(job: Job, thing: str) -> str:
    """What a unit is among the services, by its path there; empty where it is nothing of them.

    Args:
        thing: Id of a unit.
    Returns: As `fields` takes it.
    """
    s = job.services
    if not thing:
        return ""
    for n, battery in enumerate(s.batteries):
        if battery.thing == thing:
            return f"batteries.{n}"
    use = next((c.id for c in s.consumers if c.thing == thing), "")
    gives = next((x.id for x in s.sources if thing in (x.charger, x.thing)), "")
    return f"consumers.{use}" if use else f"sources.{gives}" if gives else ""


def _switches(path: str, one: Consumer) -> tuple[Field, ...]:
    """What switches a light."""
    return (
        (
            Field(
                path + ".switches", "Switched by", "words", "Ids of switch panels, boards or units"
            ),
        )
        if one.light
        else ()
    )


def _has(job: Job, key: str) -> bool:
    """Whether there is such an instrument."""
    unit, _, which = key.partition(".")
    return any(i.id == which for i in getattr(job.thing(unit), "instruments", ()))


OWN = {"Water": "water", "Gas and air": "gas", "Board": "board", "Signatures": "signatures"}
"""What the card shows on a page of which nothing is chosen."""
HEADS = {"Board": "instruments.", "Signatures": "signatures."}


def shown_key(job: Job, look: ViewState, selected: str) -> str:
    """What of the services the card shows.

    Args:
        look: Its page and what is chosen.
        selected: Id of the selected unit.
    Returns: As `fields` takes it: what is chosen, or is done by the unit; pages with figures of their own have these.
    """
    page = look.page("Services")
    if page in OWN:
        head = HEADS.get(page)
        return look.service if head is not None and look.service.startswith(head) else OWN[page]
    chosen = "" if look.service.startswith(tuple(HEADS.values())) else look.service
    return key_of(job, selected) or chosen


def _battery(_job: Job, path: str, _name: str) -> tuple[Field, ...]:
    """Of a battery."""
    return (
        choice(path + ".chemistry", "Kind", "Decides how it takes its charge", *CHEMISTRIES),
        _figure(path + ".ah", "Ah", "From its data sheet"),
        Field(
            path + ".usable",
            "Wanted of it, %",
            "share",
            "What one wants to draw: 50 of lead, 90 of lithium",
        ),
        _figure(path + ".resistance", "Inside, mΩ", "Decides its short-circuit current"),
        _figure(path + ".coldest", "Charged from, °C", "Lithium takes no charge below freezing"),
        _figure(path + ".hottest", "Charged to, °C", "From its data sheet"),
        _figure(path + ".takes", "Takes, A", "At most; 0 for what its kind usually takes"),
    )


def _consumer(job: Job, path: str, name: str) -> tuple[Field, ...]:
    """Of what uses power."""
    one = next(c for c in job.services.consumers if c.id == name)
    cold = (
        _figure(path + ".day_wh", "A day, Wh", "From its data sheet, at the air below"),
        _figure(path + ".rated_air", "... in air of, °C", "From its data sheet"),
        _figure(path + ".box", "Box, °C", "What it is set to"),
        _figure(path + ".warm_kg", "Put in warm, kg", "Every day"),
    ) if one.day_wh else ()  # fmt: skip
    place = () if one.thing else tuple(
        Field(f"{path}.{axis}", words, "length", "Where it is") for axis, words in
        (("x", "Aft of front axle"), ("y", "To the right"), ("z", "Over the ground"))
    )  # fmt: skip
    return (
        Field(path + ".name", "Description", "text"),
        _figure(path + ".watts", "Watts", "While it runs"),
        *cold,
        Field(path + ".share", "Runs, % of the time", "share", "Within its hours"),
        _figure(path + ".begin", "From, h", "Of the day"),
        _figure(path + ".hours", "For, h", "A day"),
        _figure(path + ".idle", "Idle, W", "Always"),
        yes(
            path + ".mains",
            "Through the inverter",
            "Mains voltage is wired by a licensed electrician",
        ),
        yes(path + ".light", "A light", "Switched from both ends of what it lights"),
        *(_switches(path, one)),
        choice(
            path + ".serves",
            "Serves the side",
            "Where it has to be",
            "",
            "left",
            "right",
            "rear",
        ),
        *place,
        *_wire(path),
    )


def _source(job: Job, path: str, name: str) -> tuple[Field, ...]:
    """Of what gives power."""
    sun = next(x for x in job.services.sources if x.id == name).kind == "sun"
    panel = (
        _figure(path + ".watts", "Panel, W", "Its rating"),
        _figure(path + ".tilt", "Tilt, °", "From the level"),
        _figure(path + ".facing", "Facing, °", "From north over east"),
        Field(path + ".x", "Middle aft of axle", "length", "0 for the roof's middle"),
        Field(path + ".y", "Middle to the right", "length", "0 for the roof's middle"),
        Field(path + ".long", "Long", "length", "0 by its watts"),
        Field(path + ".wide", "Wide", "length", "0 by its watts"),
        yes(path + ".shaded", "Count the shade", "Of what stands beside it on the roof"),
    ) if sun else ()  # fmt: skip
    return (
        Field(path + ".name", "Description", "text"),
        _figure(path + ".amps", "Charger, A", "Its limit; 0 for none"),
        *panel,
        *_wire(path),
    )


_Of = Callable[[Job, str, str], tuple[Field, ...]]
SORTS: dict[str, tuple[Callable[[Job, str], bool], _Of]] = {
    "consumers": (lambda job, name: any(c.id == name for c in job.services.consumers), _consumer),
    "sources": (lambda job, name: any(x.id == name for x in job.services.sources), _source),
    "plugs": (lambda job, name: any(p.id == name for p in job.services.plugs), lambda _j, path, _n: plug_fields(path)),
    "batteries": (lambda job, name: name.isdecimal() and int(name) < len(job.services.batteries), _battery),
    "trip.days": (lambda job, name: name.isdecimal() and int(name) < len(job.services.trip.days),
                  lambda _j, _p, name: day_fields(int(name))),
    "instruments": (_has, lambda _j, _p, name: instrument_fields(name)),
    "signatures": (lambda _j, _n: True, lambda job, _p, name: signature_fields(job, name)),
    "runs": (lambda _j, _n: True, lambda _j, _p, _n: ()),
}  # fmt: skip
"""Each sort of thing among the services: whether there is such a one, and its parameters."""
PAGES: dict[str, Callable[[], tuple[Field, ...]]] = {
    "water": water_fields, "gas": gas_fields, "inverter": inverter_fields, "board": tuple, "signatures": tuple,
}  # fmt: skip


def fields(job: Job, key: str) -> tuple[Field, ...]:
    """The parameters of what is chosen among the services.

    Args:
        key: ``consumers.ID``, ``sources.ID``, ``plugs.ID``, ``batteries.N``, ``trip.days.N``, ``instruments.UNIT.ID``,
            ``signatures.WHAT``, ``runs.ID``, or one of `PAGES`; else the trip's.
    Returns: By their paths in the job, in the order shown.
    """
    if key in PAGES:
        return PAGES[key]()
    for group, (there, of) in SORTS.items():
        name = key.removeprefix(f"{group}.")
        if name != key and there(job, name):
            return of(job, P + key, name)
    return trip_fields(job)
