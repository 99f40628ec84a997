"""The few parameters of the services, as the card shows them in the stage Services."""

from roomy_hull.job.model import Job
from roomy_hull.job.services import Chemistry
from roomy_hull.kinds.card import Field, choice, number, yes
from roomy_hull.kinds.device import Device

CHEMISTRIES: tuple[str, ...] = Chemistry.__args__  # type: ignore[attr-defined]  # a Literal
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
        yes(f"{path}.wire.careful", "Minds a drop", "3 % of the voltage may be lost; else 10 %"),
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
        Field(u + "tap", "Tap height", "length", "Over the ground, where it runs by its own weight"),
        _figure(u + "burner", "Burner, kW", "From its plate"),
        _figure(u + "meal_burns", "Burns a meal, h", "How long"),
        choice(P + "board", "Fuse board", "The unit that holds the fuses",
               *(u.id for u in job.units if isinstance(u, Device))),
    )  # fmt: skip


def day_fields(n: int) -> tuple[Field, ...]:
    """Of one day."""
    p = f"{P}trip.days.{n}."
    return (
        _figure(p + "drive_from", "Drive from, h", "By the sun's own time"),
        _figure(p + "drive", "Drive, h", "Or drag the bar's end in the picture"),
        Field(p + "cloud", "Cloud, %", "share", "Of the sky"),
        _figure(p + "warm", "Warmest, °C", "At three in the afternoon"),
        _figure(p + "cool", "Coolest, °C", "At five in the morning"),
        number(p + "showers", "Showers", "That day"),
        number(p + "meals", "Meals", "Cooked that day"),
    )


def key_of(job: Job, thing: str) -> str:
    """What a unit is among the services, by its path there; empty where it is nothing of them.

    Parameters
    ----------
    job : Job
        The job.
    thing : str
        Id of a unit.

    Returns
    -------
    str
        As `fields` takes it.
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


def fields(job: Job, key: str) -> tuple[Field, ...]:
    """The parameters of what is chosen among the services.

    Parameters
    ----------
    job : Job
        The job.
    key : str
        ``consumers.ID``, ``sources.ID``, ``batteries.N``, ``inverter`` or ``trip.days.N``; else the trip's.

    Returns
    -------
    tuple of Field
        By their paths in the job, in the order shown.
    """
    s, path = job.services, P + key
    group, _, name = key.rpartition(".")
    if group == "trip.days" and name.isdecimal() and int(name) < len(s.trip.days):
        return day_fields(int(name))
    if group == "batteries" and name.isdecimal() and int(name) < len(s.batteries):
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
            _figure(
                path + ".coldest", "Charged from, °C", "Lithium takes no charge below freezing"
            ),
        )
    if group == "consumers" and any(c.id == name for c in s.consumers):
        one = next(c for c in s.consumers if c.id == name)
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
            Field(path + ".name", "What it is", "text"),
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
            *place,
            *_wire(path),
        )
    if group == "sources" and any(x.id == name for x in s.sources):
        sun = next(x for x in s.sources if x.id == name).kind == "sun"
        panel = (
            _figure(path + ".watts", "Panel, W", "Its rating"),
            _figure(path + ".tilt", "Tilt, °", "From the level"),
            _figure(path + ".facing", "Facing, °", "From north over east"),
        ) if sun else ()  # fmt: skip
        return (
            Field(path + ".name", "What it is", "text"),
            _figure(path + ".amps", "Charger, A", "Its limit; 0 for none"),
            *panel,
            *_wire(path),
        )
    return trip_fields(job)
