"""The few parameters of a scenario and of the springs, as the card shows them in the stage Loads."""

from roomy_hull.job.model import Job
from roomy_hull.job.vehicle import SPRING_OPTIONS, Vehicle
from roomy_hull.kinds.card import Field, number


def scenario_fields(job: Job, key: str) -> tuple[Field, ...]:
    """The parameters of one scenario, by their paths in the job.

    Args:
        key: Id of one of its scenarios.
    Returns: In the order shown: its name, who sits where, how full, canopy, trailer.
    """
    p = f"scenarios.{key}."
    canopy = job.body.canopy
    removable = canopy is not None and canopy.kind == "canopy"
    return (
        Field(p + "name", "Scenario", "text", "What the workshop calls it"),
        *((Field(p + "setup", "Set-up", "choice", "What is on the vehicle; empty for everything",
                 ("", *(s.id for s in job.setups))),) if job.setups else ()),
        *(
            Field(f"{p}people.{n}", seat.name.capitalize(), "mass", "0 where nobody sits there")
            for n, seat in enumerate(job.vehicle.seats)
        ),
        Field(p + "fuel", "Fuel, %", "share", "Of every tank"),
        Field(p + "water", "Water, %", "share", "Of every tank"),
        Field(p + "contents", "Contents, %", "share", "Of what units and boxes hold when full"),
        *((Field(p + "canopy", "Canopy on", "yes", "Off, all that is on it stays at home"),) if removable else ()),
        *((Field(p + "sides", "Drop sides on", "yes"),) if job.body.tray.sides > 0 else ()),
        Field(p + "trailer", "Trailer", "mass", "Its whole mass, what stands on the ball included; 0 for none"),
        Field(p + "ball", "On the ball", "mass", "Usually a tenth of the trailer"),
    )  # fmt: skip


def brief_fields() -> tuple[Field, ...]:
    """The parameters of the brief besides its wishes, by their paths."""
    return (
        Field(
            "brief.purpose",
            "What it is for",
            "text",
            "Work in the week, touring, how far from a town",
        ),
        number("brief.travellers", "Travellers", "People who live in it"),
        number("brief.days", "Days out", "Between towns"),
    )


def spring_fields(vehicle: Vehicle) -> tuple[Field, ...]:
    """The parameters of the springs that matter for the option fitted, by their paths.

    Args:
        vehicle: Its option decides.
    Returns: In the order shown.
    """
    p = "vehicle.springs."
    own = {
        "constant load": (
            Field(p + "constant", "Constant load", "mass", "At which they stand at kerb height"),
            number(p + "constant_rate", "Their rate", "N/mm at one wheel; 0 for the usual 1.25 times", whole=False),
        ),
        "extra leaf": (
            number(p + "leaf_rate", "Leaf adds", "N/mm at one wheel; 0 for the usual 0.3 times", whole=False),
            Field(p + "leaf_lift", "Leaf lifts", "length", "The empty tail"),
        ),
        "air": (
            number(p + "air_area", "Effective area, cm²", "From the air springs' data sheet", whole=False),
            Field(p + "air_height", "Effective height", "length", "Volume over area"),
            Field(p + "air_x", "Behind the axle", "length", "Where they bear on the chassis; ahead is negative"),
            number(p + "air_pressure", "Pressure, kPa", "0: set for level in each scenario", whole=False),
            number(p + "air_least", "Least, kPa", "Never run them below it", whole=False),
            number(p + "air_most", "Most, kPa", "From their data sheet", whole=False),
        ),
    }  # fmt: skip
    return (
        Field(p + "school", "Rear springs", "choice", "What is fitted", SPRING_OPTIONS),
        number(p + "rear", "Rear rate", "N/mm at one wheel, standard", whole=False),
        number(p + "front", "Front rate", "N/mm at one wheel", whole=False),
        *own.get(vehicle.springs.school, ()),
        Field(p + "leaf_span", "Leaf, eye to eye", "length", "0 for coils"),
        Field(
            "vehicle.level_target", "Tail lower by", "length", "What the owner wishes; 0 as at kerb"
        ),
    )
