"""Actions of Build that end a job: buying, checks, signatures, the offer, handing over, the workshop's folder."""

from pathlib import Path
from typing import Any

from roomy_hull.core.days import now_words, today
from roomy_hull.core.errors import UserError
from roomy_hull.job.brief import OfferLine
from roomy_hull.job.edits import building as edits
from roomy_hull.job.logs import Result
from roomy_hull.planning.offer import drawn_up
from roomy_hull.session.actions.entries import is_day, log, who
from roomy_hull.session.actions.files import open_at
from roomy_hull.session.pages.build.finishing import ChecksModel
from roomy_hull.session.pages.build.words import built
from roomy_hull.session.session import Session
from roomy_hull.verdict.gates import gate

# Buying


def bought(session: Session, *, keys: tuple[str, ...], kind: str, day: str = "") -> bool:
    """Log that some things were ordered, to come on a day, or are here."""
    if not keys:
        session.say("Choose rows of the table first.", trouble=True)
        return False
    by = who(session)
    if not by:
        return False
    if day and not is_day(session, day):
        return False
    at = now_words()
    return session.attempt(
        f"{len(keys)} {kind}",
        lambda: edits.logged(
            session.job, *(edits.entry(at, by, kind=kind, about=k, taken=day) for k in keys)
        ),
    )


# Checks


def check(
    session: Session, *, result: Result, figures: tuple[float, ...] = (), words: str = ""
) -> bool:
    """Log how the chosen check came out, and go on to the next."""
    model = ChecksModel(session)
    one = model.chosen()
    if one is None:
        return False
    if result == "done" and one.wants and len(figures) < len(one.wants):
        session.say(f"This check wants figures: {model.asked()}.", trouble=True)
        return False
    if not log(
        session,
        f"check: {result}",
        kind="check",
        about=one.key,
        result=result,
        figures=figures,
        words=words,
    ):
        return False
    session.view.set(build={"check": model.after(one.key)})
    return True


def answer(result: Result) -> Any:
    """What answers the chosen check."""

    def run(session: Session) -> None:
        check(session, result=result)

    return run


def at_checks(session: Session) -> bool:
    """Enable only on the page Checks."""
    return session.look.stage == "Build" and session.look.page("Build") == "Checks"


def sign(session: Session) -> None:
    """Sign for something: who, with which licence, for what."""
    what = session.asker.choose(
        "What is signed for?", ("engineering", "weighing", "build", "acceptance by the customer")
    )
    name = session.asker.name("Who signs?", "") if what else ""
    number = session.asker.name("Licence or certificate, where one is wanted", "-") if name else ""
    if number:
        log(
            session,
            f"signed: {what}",
            kind="sign",
            about=what,
            words=name,
            number=number.strip("-"),
        )


# Offer and handing over


def offer(session: Session, *, lines: tuple[OfferLine, ...]) -> bool:
    """Keep an offer of the job as it stands."""
    by = who(session)
    if not by:
        return False
    made = drawn_up(session.job, lines, session.shop, today(), by)
    return session.attempt(f"offer {made.number}", lambda: edits.offered(session.job, made))


def agree(session: Session) -> None:
    """Take down which options the customer took."""
    if not session.job.offers:
        session.say("Nothing is quoted yet.", trouble=True)
        return
    last = session.job.offers[-1]
    told = session.asker.name(
        f"Options taken, with commas between ({', '.join(last.options) or 'there are none'})",
        ", ".join(last.options) or "-",
    )
    if told:
        taken = tuple(w.strip() for w in told.split(",") if w.strip(" -"))
        session.attempt(
            "the offer is agreed",
            lambda: edits.agreed(session.job, last.number, taken, today().isoformat()),
        )


def hand_over(session: Session) -> None:
    """Hand the vehicle over; not while a stop stands, a check failed, or is still to do."""
    found = gate("hand over", session.verdict, built(session))
    if found.bars:
        session.say(f"It is not handed over: {found.words()}.", trouble=True)
        return
    if found.asks and not session.asker.agree(
        f"Still open: {found.words()}. Hand it over all the same?"
    ):
        return
    log(session, "hand over", kind="handed over", op="job:hand over", words=found.words())


def paper(kind: str) -> Any:
    """What asks for a folder and has a paper written to it."""

    def run(session: Session) -> None:
        bars = gate("pack", session.verdict, built(session)).bars if kind == "pack" else ()
        if bars and not session.asker.agree(
            f"{'; '.join(bars)}. The pack is not to be handed over, and says so. Write it anyway?"
        ):
            return
        folder = session.asker.folder(WORDS[kind])
        if folder is not None:
            session.asker.write_build(kind, folder)

    return run


WORDS = {
    "offer": "Write the quote to", "pack": "Write the hand-over pack to", "lists": "Write today's lists to",
    "checks": "Write the check sheets to", "progress": "Write the progress page to", "board": "Write the board to",
}  # fmt: skip
"""What is written, and what is said when it is asked where to."""


def folder(session: Session) -> None:
    """Choose the workshop's folder."""
    found = session.asker.folder("The workshop's folder, that holds its jobs")
    if found is None:
        return
    session.settings.keep_preferences(workshop=str(found))
    session.catalogue.look_in(session.settings.units_folder())
    try:
        shop = session.settings.shop()
        if shop != session.shop:
            session.set_shop(shop)
    except UserError as trouble:
        session.say(str(trouble), trouble=True)
    session.view.turn_to("Build", "Workshop")
    session.building.forget()


def board_folder(session: Session) -> Path | None:
    """The workshop's folder: the chosen one, else that of the job's file."""
    chosen = session.settings.workshop()
    return chosen or (session.path.parent if session.path is not None else None)


def open_job(session: Session, *, path: Path) -> None:
    """Open a job of the board."""
    open_at(session, path)
