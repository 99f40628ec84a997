"""Edits of building: the log grows, operations are held by hand, wishes get their rank, offers are kept."""

import secrets
from typing import Any

import msgspec

from roomy_hull.core.errors import EditError
from roomy_hull.core.value import refusal
from roomy_hull.job.brief import Choice, Offer
from roomy_hull.job.chain import sealed
from roomy_hull.job.edits.layouts import slug
from roomy_hull.job.logs import MOST_ENTRIES, Entry
from roomy_hull.job.model import Job
from roomy_hull.job.plans import Extra, Held, Plan


def entry(at: str, by: str, **fields: Any) -> Entry:
    """Make an entry, with an id that no other machine makes.

    Args:
        at, by: When, as YYYY-MM-DDTHH:MM:SS, and who.
    Raises:
        EditError: A field is too long or out of its bounds.
    """
    key = f"{at.replace('-', '').replace(':', '')}-{secrets.token_hex(4)}"
    try:
        return Entry(id=key, at=at, by=by, **fields).but()
    except msgspec.ValidationError as trouble:
        raise EditError(refusal(trouble), "log", "Nothing is logged.") from None


def logged(job: Job, *entries: Entry) -> Job:
    """Add entries to the log, behind all others.

    Returns: With a longer log; nothing else of it changes.
    Raises:
        EditError: The log is full, or an entry corrects one that is not there or was corrected before.
    """
    if len(job.log) + len(entries) > MOST_ENTRIES:
        raise EditError(
            f"a log holds {MOST_ENTRIES:,} entries", "log", "Begin a new job for what follows."
        )
    known = {e.id for e in job.log}
    struck = {e.corrects for e in job.log if e.corrects}
    for one in entries:
        if one.corrects and one.corrects not in known:
            raise EditError(
                f"there is no entry '{one.corrects}'", "log", "Choose one of the log's."
            )
        if one.corrects in struck:
            raise EditError(
                "that entry was corrected before", "log", "Correct the one that took its place."
            )
    return msgspec.structs.replace(job, log=sealed(job.log, *entries))


def held(job: Job, op: str, **changes: Any) -> Job:
    """Hold an operation by hand: not before a day, by somebody, for so many hours.

    Args:
        **changes: Of `Held`: ``day``, ``hour``, ``person``, ``hours``.
    Raises:
        EditError: A value is not allowed.
    """
    old = next((h for h in job.plan.held if h.op == op), Held(op=op))
    try:
        new = old.but(**changes)
        rest = tuple(h for h in job.plan.held if h.op != op)
        empty = not (new.day or new.person or new.hours)
        plan = job.plan.but(held=rest if empty else (*rest, new))
    except (msgspec.ValidationError, ValueError) as trouble:
        raise EditError(refusal(trouble), "plan.held", "The plan stays as it was.") from None
    return msgspec.structs.replace(job, plan=plan)


def let_go(job: Job, op: str) -> Job:
    """Let an operation go where the plan puts it; the same job where it is not held."""
    rest = tuple(h for h in job.plan.held if h.op != op)
    if len(rest) == len(job.plan.held):
        return job
    return msgspec.structs.replace(job, plan=msgspec.structs.replace(job.plan, held=rest))


def planned(job: Job, **changes: Any) -> Job:
    """Change the plan's own values, such as ``begin`` and ``due``.

    Raises:
        EditError: A value is not allowed.
    """
    try:
        plan: Plan = job.plan.but(**changes)
    except (msgspec.ValidationError, ValueError) as trouble:
        raise EditError(refusal(trouble), "plan", "Write days as YYYY-MM-DD.") from None
    return msgspec.structs.replace(job, plan=plan)


def own_operation(job: Job, name: str, hours: float = 1.0, days: float = 0.0) -> Job:
    """Add an operation that no drawing shows, before the finishing list.

    Raises:
        EditError: It has no name, or the plan is full.
    """
    if not name.strip():
        raise EditError("an operation wants a name", "plan", "Say what is done.")
    key = slug(name, {x.id for x in job.plan.own}, "own")
    return planned(
        job, own=(*job.plan.own, Extra(id=key, name=name.strip()[:120], hours=hours, days=days))
    )


def ranked(job: Job, wish: str, by: int) -> Job:
    """Move a wish up or down in the brief; the same job where it is first or last already."""
    rows = list(job.brief.wishes)
    at = next((n for n, w in enumerate(rows) if w.id == wish), -1)
    to = min(len(rows) - 1, max(0, at + by))
    if at < 0 or to == at:
        return job
    rows.insert(to, rows.pop(at))
    return msgspec.structs.replace(
        job, brief=msgspec.structs.replace(job.brief, wishes=tuple(rows))
    )


def chosen(job: Job, question: str, way: str, reason: str = "") -> Job:
    """Take down which way was chosen; an empty way takes the choice back.

    Raises:
        EditError: A word is too long.
    """
    rest = tuple(c for c in job.brief.choices if c.question != question)
    try:
        new = (Choice(question=question, way=way, reason=reason).but(),) if way else ()
        brief = job.brief.but(choices=(*rest, *new))
    except msgspec.ValidationError as trouble:
        raise EditError(refusal(trouble), "brief.choices", "Say it shorter.") from None
    return msgspec.structs.replace(job, brief=brief)


def offered(job: Job, offer: Offer) -> Job:
    """Keep an offer behind those that were made before.

    Raises:
        EditError: Its number was given before, or there is nothing in it.
    """
    if any(o.number == offer.number for o in job.offers):
        raise EditError(
            f"the offer {offer.number} is there already", "offers", "Take the next number."
        )
    if not offer.lines:
        raise EditError("there is nothing to offer", "offers", "Place something first.")
    return msgspec.structs.replace(job, offers=(*job.offers, offer))


def agreed(job: Job, number: str, taken: tuple[str, ...], day: str) -> Job:
    """Take down which options of an offer the customer took, and when.

    Raises:
        EditError: There is no such offer or option.
    """
    found = next((o for o in job.offers if o.number == number), None)
    if found is None:
        raise EditError(
            f"there is no offer {number}", "offers", "Choose one of those that were made."
        )
    missing = set(taken) - set(found.options)
    if missing:
        raise EditError(
            f"the offer has no option '{min(missing)}'",
            "offers",
            f"It has {', '.join(found.options) or 'none'}.",
        )
    new = msgspec.structs.replace(found, taken=taken, agreed=day)
    return msgspec.structs.replace(job, offers=tuple(new if o is found else o for o in job.offers))
