"""Scenarios, weighings and the brief: added, changed and dropped as pure functions Job → Job."""

from typing import Any, TypeVar

import msgspec

from roomy_hull.core.errors import EditError
from roomy_hull.core.value import Value, refusal
from roomy_hull.job.brief import Wish
from roomy_hull.job.edits.layouts import slug
from roomy_hull.job.model import Job, Scenario, Weighing

Part = TypeVar("Part", bound=Value)
PERSON = 80.0
"""Somebody on a seat who was not weighed (common practice). [kg]"""


def _replace(job: Job, **changes: Any) -> Job:
    """Change the job; what its own checks refuse is told as an edit's trouble."""
    try:
        return msgspec.structs.replace(job, **changes)
    except (msgspec.ValidationError, ValueError) as trouble:
        raise EditError(str(trouble), remedy="The old value is kept.") from None


def _but(value: Part, **changes: Any) -> Part:
    """Change a value; what its fields do not allow is told as an edit's trouble."""
    try:
        return value.but(**changes)
    except (msgspec.ValidationError, ValueError) as trouble:
        raise EditError(refusal(trouble), remedy="Type it again.") from None


def usual(job: Job) -> tuple[Scenario, ...]:
    """The scenarios that a workshop asks for, made for this vehicle.

    Returns:
        Bare tray at work, canopy on and empty, crew of two leaving full, coming home dry, worst rear, towing; one
        that makes no sense here (a canopy that does not come off, no tow rating) is left out.
    """
    vehicle, canopy = job.vehicle, job.body.canopy
    two = (PERSON,) * min(2, len(vehicle.seats))
    whole = (PERSON,) * len(vehicle.seats)
    removable = canopy is not None and canopy.kind == "canopy"
    ball, towed = vehicle.ratings.ball, vehicle.ratings.towed
    combined, gross = vehicle.ratings.combination, vehicle.ratings.gross
    # The ball at its rating, under a trailer that the combination still leaves room for.
    limits = [towed, 10 * ball] + ([combined - gross] if combined > gross else [])
    behind = max(ball, min(limits)) if ball and towed else 0.0
    found = []
    if removable:
        found.append(
            Scenario(
                id="tray",
                name="Bare tray at work",
                people=two[:1],
                water=0,
                contents=0,
                canopy=False,
            )
        )
    found += [
        Scenario(id="empty", name="Canopy on, empty" if removable else "Empty", people=two[:1], water=0, contents=0),
        Scenario(id="full", name="Leaving full", people=two),
        Scenario(id="dry", name="Coming home dry", people=two, fuel=0.15, water=0.05, contents=0.7),
        Scenario(id="rear", name="Worst rear", people=whole, ball=behind and ball, trailer=behind),
    ]  # fmt: skip
    if towed > 0:
        trailer = towed / 2
        on_ball = min(ball or trailer, trailer * 0.1)
        found.append(
            Scenario(
                id="towing",
                name="Towing half its rating",
                people=two,
                trailer=trailer,
                ball=on_ball,
            )
        )
    return tuple(found)


def added(job: Job, scenario: Scenario) -> Job:
    """Add a scenario; its id is made unique from its name.

    Returns: The new job, the scenario last.
    Raises:
        EditError: There are as many as a job may have, or more people than seats.
    """
    if len(job.scenarios) >= 24:
        raise EditError("a job has at most 24 scenarios", remedy="Delete one first.")
    key = slug(scenario.name, {s.id for s in job.scenarios})
    return _replace(job, scenarios=(*job.scenarios, _but(scenario, id=key)))


def copied(job: Job, key: str, name: str) -> Job:
    """Add a copy of a scenario under another name.

    Raises:
        EditError: No such scenario, or too many.
    """
    one = next((s for s in job.scenarios if s.id == key), None)
    if one is None:
        raise EditError(f"there is no scenario '{key}'")
    return added(job, _but(one, name=name))


def dropped(job: Job, key: str) -> Job:
    """Take a scenario away.

    Raises:
        EditError: It is the only one, or a weighing was made in it.
    """
    if len(job.scenarios) == 1:
        raise EditError("a job keeps one scenario at least", remedy="Change this one instead.")
    made = [w.date or w.id for w in job.weighings if w.scenario == key]
    if made:
        raise EditError(
            f"the weighing {made[0]} was made in it",
            remedy="Delete the weighing first, or keep both.",
        )
    return _replace(job, scenarios=tuple(s for s in job.scenarios if s.id != key))


def weighed(job: Job, weighing: Weighing) -> Job:
    """Add what scales said; its id is made unique.

    Args:
        weighing: Readings of wheels or axles. [kg]
    Returns: The new job; its predictions follow where the weighing counts.
    Raises:
        EditError: Nothing was read, or no such scenario.
    """
    if not weighing.axles():
        raise EditError("nothing was read", remedy="Enter one axle at least, or all four wheels.")
    key = slug(weighing.id or "weighing", {w.id for w in job.weighings})
    return _replace(job, weighings=(*job.weighings, _but(weighing, id=key)))


def unweighed(job: Job, key: str) -> Job:
    """Take a weighing away."""
    return _replace(job, weighings=tuple(w for w in job.weighings if w.id != key))


def wished(job: Job, wish: Wish) -> Job:
    """Add something to the brief; its id is made unique from its name.

    Args:
        wish: What is wished for. [kg]
    Raises:
        EditError: There are too many.
    """
    wishes = job.brief.wishes
    if len(wishes) >= 200:
        raise EditError("a brief has at most 200 wishes", remedy="Delete one first.")
    new = _but(wish, id=slug(wish.name, {w.id for w in wishes}))
    return _replace(job, brief=job.brief.but(wishes=(*wishes, new)))


def without_wish(job: Job, key: str) -> Job:
    """Take a wish out of the brief."""
    kept = tuple(w for w in job.brief.wishes if w.id != key)
    return _replace(job, brief=job.brief.but(wishes=kept))
