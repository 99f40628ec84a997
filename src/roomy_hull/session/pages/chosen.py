"""What the card shows of what is chosen in Services, Access, Build and the brief: its parameters, and its words."""

from roomy_hull.core.card import Field, fields
from roomy_hull.session.card_fields import access_fields, brief_fields, service_fields, service_key
from roomy_hull.session.pages.access.words import access_words
from roomy_hull.session.pages.build.chosen_words import build_words, wish_words
from roomy_hull.session.pages.services.words import service_words
from roomy_hull.session.pages.table import page
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
        return f"{look.access.chosen} in Access"
    if look.stage == "Build":
        return f"{look.build.op} in Build"
    if at_brief(session):
        return f"{look.brief.wish} in the brief"
    return f"{service_key(session.job, look, session.selection.key)} in {look.stage}"


def chosen_fields(session: Session) -> tuple[Field, ...]:
    """The parameters of what is chosen."""
    job, look = session.job, session.look
    if look.stage == "Access":
        return access_fields(job, look.access.chosen)
    if look.stage == "Build":
        return () if look.build.op else fields(job.plan, "plan.")
    if at_brief(session):
        return brief_fields(job, look.brief.wish)
    return service_fields(job, service_key(job, look, session.selection.key))


def chosen_words(session: Session) -> tuple[str, str, str, str, str]:
    """Title, kind, figure, sum and hint of what is chosen."""
    if session.look.stage == "Access":
        return access_words(session)
    if session.look.stage == "Build":
        return build_words(session)
    if at_brief(session):
        return wish_words(session)
    return service_words(
        session.known, service_key(session.job, session.look, session.selection.key)
    )
