"""Actions of the stage Survey: readings taken and deleted, the vehicle weighed, sizes taken over."""

import math

import msgspec

from roomy_hull.core.errors import InputError, UserError
from roomy_hull.job.model import Job
from roomy_hull.job.survey import Reading
from roomy_hull.planning.survey import Adjusted, adjust, taken_over
from roomy_hull.session.session import Session


def adjusted(session: Session) -> Adjusted | None:
    """Adjust the survey; none where the readings make no figure, and that is told."""
    try:
        return adjust(session.job.survey, session.job.vehicle.kind)
    except UserError as trouble:
        session.say(str(trouble), trouble=True)
        return None


def add_reading(session: Session, *, measure: str, value: float, by: str) -> bool:
    """Take one reading as one step; refused where it is no length. [mm]"""

    def make() -> Job:
        if not (value > 0 and math.isfinite(value)):
            raise InputError("a reading is a length above 0", measure, "Measure again.")
        reading = Reading(measure=measure, value=value, by="laser" if by == "laser" else "tape")
        survey = session.job.survey.but(readings=(*session.job.survey.readings, reading))
        return msgspec.structs.replace(session.job, survey=survey)

    return session.attempt("take a reading", make)


def drop_readings(session: Session, *, measure: str) -> None:
    """Delete every reading of one measure."""
    kept = tuple(r for r in session.job.survey.readings if r.measure != measure)
    if len(kept) != len(session.job.survey.readings):
        survey = session.job.survey.but(readings=kept)
        session.edit("delete readings", msgspec.structs.replace(session.job, survey=survey))


def weigh(session: Session, *, wheels: dict[str, float]) -> None:
    """Take the kerb axle masses from four wheel scales, as one step. [kg]"""
    front, rear = wheels["FL"] + wheels["FR"], wheels["RL"] + wheels["RR"]

    def make() -> Job:
        kerb = session.job.vehicle.kerb.but(front=front, rear=rear, source="weighed")
        vehicle = msgspec.structs.replace(session.job.vehicle, kerb=kerb)
        return msgspec.structs.replace(session.job, vehicle=vehicle)

    if session.attempt("weigh the vehicle", make):
        session.say(
            f"Front axle {front:.0f} kg, rear axle {rear:.0f} kg. Enter driver, fuel and tools that "
            "were aboard, so that nothing counts twice."
        )


def take_survey(session: Session) -> None:
    """Put every size that the survey determines into the vehicle, as one step."""
    found = adjusted(session)
    if found is None:
        return

    def make() -> Job:
        vehicle = taken_over(session.job.vehicle, found)
        return msgspec.structs.replace(session.job, vehicle=vehicle)

    if session.attempt("put the survey into the vehicle", make):
        words = f"{len(found.sizes)} sizes are put into the vehicle."
        if found.suspects:
            words += (
                " Readings contradict each other: measure the marked ones again before cutting."
            )
        session.say(words, trouble=bool(found.suspects))
