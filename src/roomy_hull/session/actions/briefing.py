"""Actions of the brief: wishes, their rank, which way was chosen."""

from typing import Any

from roomy_hull.job.edits import building as edits
from roomy_hull.session.actions import editing
from roomy_hull.session.actions.looking import pages
from roomy_hull.session.actions.registry import Action
from roomy_hull.session.session import Session


def rank(by: int) -> Any:
    """What moves the chosen wish up or down."""

    def run(session: Session) -> None:
        session.attempt(
            "rank a wish", lambda: edits.ranked(session.job, session.look.brief.wish, by)
        )

    return run


def choose_way(session: Session, *, question: str, way: str) -> bool:
    """Take down which way was chosen; the same one again takes it back."""
    old = next((c.way for c in session.job.brief.choices if c.question == question), "")
    return session.attempt(
        "choose a way", lambda: edits.chosen(session.job, question, "" if old == way else way)
    )


def drop_wish(session: Session) -> None:
    """Delete the chosen wish."""
    editing.drop_wish(session, key=session.look.brief.wish)


def new_wish(session: Session) -> None:
    """Add a wish to the brief and choose it."""
    name = session.asker.name("What is wished for?", "")
    if name and editing.add_wish(session, name=name, need="wanted", mass=0.0, x=0.0):
        session.view.turn_to("Survey", "Brief", brief={"wish": session.job.brief.wishes[-1].id})


def _wish(session: Session) -> bool:
    return any(w.id == session.look.brief.wish for w in session.job.brief.wishes)


def actions() -> list[Action]:
    """What the menu Survey offers."""
    return [
        *pages("Survey", "Survey", "survey_page"),
        Action("brief.wish", "Wish for something…", "With its mass, money and reason", "Survey", new_wish),
        Action("brief.up", "Wish up", "The chosen one, in rank", "Survey", rank(-1), ("Alt+Shift+Up",), _wish),
        Action("brief.down", "Wish down", "The chosen one, in rank", "Survey", rank(1), ("Alt+Shift+Down",), _wish),
        Action("brief.drop", "Delete the wish", "The chosen one", "Survey", drop_wish, (), _wish),
    ]  # fmt: skip
