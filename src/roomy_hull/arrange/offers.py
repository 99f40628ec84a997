"""Offers: layouts to choose from, what a run came to, and the sentence that says how good it is."""

from collections.abc import Iterable
from typing import Literal

import msgspec

from roomy_hull.arrange import impossible
from roomy_hull.arrange.objective import Value
from roomy_hull.arrange.search import Found
from roomy_hull.core.findings import Finding
from roomy_hull.job.model import Job

Sort = Literal["best", "clear", "other", "improved", "rough", "as it is"]


class Offer(msgspec.Struct, frozen=True, eq=False):
    """One layout to choose.

    Attributes:
        sort: ``best``, ``clear`` (dearer, but without findings), ``other`` (something else), ``improved`` (bettered
            beyond strips), ``rough`` (one after the other where it costs least) or ``as it is``.
        job: The job with it.
        value: What it is worth, part by part.
        stops, looks: Open findings about what was arranged.
    """

    sort: Sort
    job: Job
    value: Value
    stops: tuple[str, ...]
    looks: tuple[str, ...]


class Arranged(msgspec.Struct, frozen=True, eq=False):
    """What arranging came to.

    Attributes:
        offers: The one to take first; empty where nothing was found.
        words: How good the first is, or why there is none.
        hand: What the job's own layout is worth, where it has everything.
        bound: Nothing built in strips is worth less; infinite below 0 where nothing is proved. [points]
        proved: Whether nothing built in strips is better than the best.
        most: Units a strip may have.
        cell: Width of a cell. [mm]
        reason: Why it does not fit.
        found: The last search.
        judged: Verdicts asked for.
        seconds: In all. [s]
        stopped: Whether somebody ended it.
        too_many: Ids of those that do not go in together.
    """

    offers: tuple[Offer, ...]
    words: str
    hand: Value | None
    bound: float
    proved: bool
    most: int
    cell: float
    reason: impossible.Reason | None
    found: Found | None
    judged: int
    seconds: float
    stopped: bool = False
    too_many: tuple[str, ...] = ()


class Told(msgspec.Struct, frozen=True, eq=False):
    """What is told on the way: what is done, points of the best and the bound, seconds, and the best so far as a job."""

    words: str
    best: float | None
    bound: float | None
    seconds: float
    job: Job | None = None


def offered(sort: Sort, job: Job, worth: Value, findings: Iterable[Finding]) -> Offer:
    """An offer with the titles of what stops it and of what should be looked at."""
    some = tuple(findings)
    stops, looks = (tuple(f.title for f in some if f.severity == s) for s in ("stop", "look"))
    return Offer(sort, job, worth, stops, looks)


LEFT_FOR_LOOKS = 0.15
"""A layout without a finding may be so much dearer than the best and still be put first."""


TOLD = 0.5
"""A larger part says nothing: points may be near nought."""
BEHIND = ", with or without things behind others,"
"""Said of the stacks that were looked at."""


def in_order(offers: list[Offer]) -> list[Offer]:
    """The one to take first: of those not much dearer than the cheapest the one with the fewest findings."""
    if not offers:
        return offers
    least = min(o.value.points for o in offers)
    near = [o for o in offers if o.value.points <= least + LEFT_FOR_LOOKS * abs(least) + 1e-9]
    first = min(near, key=lambda o: (len(o.stops), len(o.looks), o.value.points))
    return [
        first,
        *sorted(
            (o for o in offers if o is not first), key=lambda o: (o.sort == "other", o.value.points)
        ),
    ]


def sentence(
    offers: tuple[Offer, ...], bound: float, most: int, *, proved: bool, behind: str = ""
) -> str:
    """Say how good the first layout is.

    Args:
        offers: The layouts, the first to be taken first.
        bound: Nothing built in strips is worth less. [points]
        proved: Whether nothing built in strips is better than the best of strips.
        behind: `BEHIND` where strips with things behind others were looked at too.
    """
    top = offers[0]
    points = f"{top.value.points:.1f} points"
    if top.sort == "as it is":
        return f"The layout as it is, {points}, was not bettered."
    best = next((o for o in offers if o.sort == "best"), None)
    class_ = f"built in stacks of up to {most}{behind}"
    held = best or top
    left = held.value.points - bound
    if proved:
        about = f"Nothing {class_} is better than {held.value.points:.1f}"
    elif bound > float("-inf"):
        part = left / max(abs(held.value.points), 1e-9)
        share = f", {part:.1%}" if part <= TOLD else ""
        about = f"No layout {class_} is better than {bound:.1f}: at most {left:.1f} points{share} are left"
    else:
        about = "Nothing is proved of it"
    if best is None:
        return f"Best found: {points}. {about}."
    if top is best:
        return f"Best found: {points}. {about}."
    if top.sort == "clear":
        return f"First without a finding: {points}. {about}, findings or not."
    gain = best.value.points - top.value.points
    if gain < 0:
        return f"First: {points}, with fewer findings. {about}."
    more = f"this one crosses the stacks and is {gain:.1f} points better still, without proof"
    return f"Best found: {points}. {about}; {more}."
