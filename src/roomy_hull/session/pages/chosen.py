"""What the card shows of what is chosen in Services, Access, Build and the brief: its parameters, and its words."""

from roomy_hull.job.carried import Carried
from roomy_hull.job.model import Job
from roomy_hull.kinds.card import Field
from roomy_hull.kinds.placed import Placed
from roomy_hull.session.access_fields import access_fields
from roomy_hull.session.build_fields import (
    brief_page_fields,
    build_words,
    plan_fields,
    wish_words,
)
from roomy_hull.session.fields import fields_of
from roomy_hull.session.pages.access.words import access_words
from roomy_hull.session.pages.services.words import service_words
from roomy_hull.session.pages.table import page
from roomy_hull.session.service_fields import fields, shown_key
from roomy_hull.session.session import Session

STAGES = ("Services", "Access", "Build")


def at_brief(session: Session) -> bool:
    """Whether the brief is looked at."""
    return session.look.stage == "Survey" and page("Survey", session.look).title == "Brief"


def chosen_stage(session: Session) -> bool:
    """Whether the card shows what is chosen in a stage rather than a thing."""
    return session.look.stage in STAGES or at_brief(session)


def chosen_key(session: Session) -> str:
    """What is chosen in the stage, for a card that is laid out anew when it changes."""
    look = session.look
    if look.stage == "Access":
        return f"{look.access} in Access"
    if look.stage == "Build":
        return f"{look.op} in Build"
    if at_brief(session):
        return f"{look.wish} in the brief"
    return f"{shown_key(session.job, look, session.selection.key)} in {look.stage}"


def chosen_fields(session: Session) -> tuple[Field, ...]:
    """The parameters of what is chosen."""
    job, look = session.job, session.look
    if look.stage == "Access":
        return access_fields(job, look.access)
    if look.stage == "Build":
        return () if look.op else plan_fields()
    if at_brief(session):
        return brief_page_fields(job, look.wish)
    return fields(job, shown_key(job, look, session.selection.key))


def unit_fields(job: Job, thing: Placed | Carried) -> tuple[Field, ...]:
    """The parameters of a unit or carried thing; what goods are listed in it is not typed as its contents as well."""
    own = fields_of(thing)
    if isinstance(thing, Carried) and job.body.racks:
        racks = ("", *(r.id for r in job.body.racks))
        own = (
            *own,
            Field(
                "on",
                "Fixed to",
                "choice",
                "A rack or rear wall, at its pitch; empty for none",
                racks,
            ),
        )
    if any(g.place == thing.id for g in job.goods):
        return tuple(f for f in own if f.name not in ("contents", "contents_source"))
    return own


def chosen_words(session: Session) -> tuple[str, str, str, str, str]:
    """Title, kind, figure, sum and hint of what is chosen."""
    if session.look.stage == "Access":
        return access_words(session)
    if session.look.stage == "Build":
        return build_words(session)
    if at_brief(session):
        return wish_words(session)
    return service_words(session.known, shown_key(session.job, session.look, session.selection.key))
