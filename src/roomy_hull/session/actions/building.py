"""Actions of Build and of the brief: the plan, the log, buying, checks, offers, handing over, the workshop's folder."""

from pathlib import Path

from roomy_hull.core.days import day_of, now_words, shifted, today
from roomy_hull.core.errors import UserError
from roomy_hull.formats.photos import taken_in
from roomy_hull.job.edits import building as edits
from roomy_hull.job.edits.releases import come_to
from roomy_hull.job.logs import Entry
from roomy_hull.job.model import Job
from roomy_hull.job.releases import STATES
from roomy_hull.planning.progress import DONE_AS
from roomy_hull.planning.replay import PLANNED, replayed
from roomy_hull.session.actions.entries import figure, is_day, log, who
from roomy_hull.session.session import Session

RECHECK_DAYS = 28
"""When the first 500 km have most likely been driven (common practice). [days]"""
PICTURES = "Pictures (*.jpg *.jpeg *.png *.webp *.gif *.bmp)"


# The plan


def begin(session: Session) -> None:
    """Begin the plan on a day."""
    told = session.asker.name(
        "On which day does the build begin? (YYYY-MM-DD)",
        session.job.plan.begin or today().isoformat(),
    )
    if not told or not is_day(session, told):
        return
    if session.attempt("begin the plan", lambda: edits.planned(session.job, begin=told)):
        session.view.turn_to("Build", "Plan")


def hold(session: Session, *, op: str, day: str, hour: float, person: str = "") -> bool:
    """Hold an operation: not before a moment, and by somebody."""
    build = session.building.of(session.verdict)
    if op not in build.ops:
        session.say("That operation is not there any more.", trouble=True)
        return False
    words = build.ops[op].words
    return session.attempt(
        f"move '{words}'",
        lambda: edits.held(session.job, op, day=day, hour=round(hour, 2), person=person),
    )


def let_go(session: Session) -> None:
    """Let the chosen operation go where the plan puts it."""
    session.attempt("unlock", lambda: edits.let_go(session.job, session.look.build.op))


def held_by_hand(session: Session) -> bool:
    """Enable only where the chosen operation is held by hand."""
    return any(h.op == session.look.build.op for h in session.job.plan.held)


def hours(session: Session) -> None:
    """Say how long the chosen operation takes, whatever the rates say."""
    build = session.building.of(session.verdict)
    value = figure(
        session, "How many hours does it take?", f"{build.hours[session.look.build.op]:.1f}"
    )
    if value is not None:
        session.attempt(
            "say how long it takes",
            lambda: edits.held(session.job, session.look.build.op, hours=value),
        )


def own(session: Session) -> None:
    """Add an operation that no drawing shows."""
    name = session.asker.name("What is to be done that no drawing shows?", "Fetch the slides")
    if name:
        session.attempt(f"plan '{name}'", lambda: edits.own_operation(session.job, name))


def take_order(session: Session, *, order: tuple[str, ...]) -> bool:
    """Take an order that a search found, as one step."""
    return session.attempt("improve the plan", lambda: edits.planned(session.job, order=order))


def from_today(session: Session) -> None:
    """Plan the rest from today on: an entry of the log that says so."""
    log(session, "plan from today", kind="note", words=PLANNED)


# The log


def finished(session: Session, job: Job, entry: Entry) -> Job:
    """The job with an operation finished: logged, and its parts as far as they then are."""
    found = edits.logged(job, entry)
    build = session.building.of(session.verdict)
    op = build.ops.get(entry.op)
    if op is None or op.owner is None or not found.releases or op.kind not in DONE_AS:
        return found
    mark = f"{op.owner.kind}:{op.owner.id}/"
    to = DONE_AS[op.kind]
    keys = tuple(
        p.key for p in found.releases[-1].parts
        if p.key.startswith(mark) and p.sort != "bought" and STATES.index(p.state) < STATES.index(to)
    )  # fmt: skip
    return come_to(found, keys, to) if keys else found


def work(session: Session, *, op: str, spent: float, done: bool) -> bool:
    """Log hours at an operation, and that it is finished."""
    build = session.building.of(session.verdict)
    one = build.ops.get(op)
    if one is None:
        session.say("Choose an operation first.", trouble=True)
        return False
    by = who(session)
    if not by:
        return False

    def make() -> Job:
        entry = edits.entry(now_words(), by, kind="work", op=op, hours=spent, done=done)
        return finished(session, session.job, entry) if done else edits.logged(session.job, entry)

    return session.attempt(f"{'finish' if done else 'work at'} '{one.words}'", make)


def _spent(session: Session, wish: float) -> float | None:
    op = session.building.of(session.verdict).ops.get(session.look.build.op)
    hands = f", by all {op.crew} together" if op is not None and op.crew > 1 else ""
    found = figure(session, f"How many hours were worked at it{hands}?", f"{wish:.1f}")
    return None if found is None else max(0.0, found)


def done(session: Session) -> None:
    """Finish the chosen operation."""
    build = session.building.of(session.verdict)
    op = session.look.build.op
    if op in build.state.done:
        session.say("That is done already; correct its entry in the log.", trouble=True)
        return
    spent = _spent(session, max(0.0, build.worth(op) - build.state.hours.get(op, 0.0)))
    if spent is not None:
        work(session, op=op, spent=spent, done=True)


def log_hours(session: Session) -> None:
    """Log hours at the chosen operation without finishing it."""
    spent = _spent(session, 1.0)
    if spent is not None:
        work(session, op=session.look.build.op, spent=spent, done=False)


def chosen_op(session: Session) -> bool:
    """Enable only where an operation is chosen."""
    return (
        session.look.stage == "Build"
        and session.look.build.op in session.building.of(session.known).ops
    )


def note(session: Session) -> None:
    """Write something down, of the chosen operation."""
    words = session.asker.name("What is to be noted?", "")
    if words:
        log(session, "note", kind="note", op=session.look.build.op, words=words)


def lesson(session: Session) -> None:
    """Write down what the next job should do otherwise."""
    words = session.asker.name("What should the next job do otherwise?", "")
    if words:
        log(session, "a lesson", kind="lesson", op=session.look.build.op, words=words)


def visit(session: Session) -> None:
    """Log a re-check visit: what moved or cracked."""
    km = session.asker.name("At how many kilometres, or when?", "500 km")
    words = session.asker.name("What had moved, loosened or cracked?", "nothing") if km else ""
    by = who(session) if words else ""
    if not by:
        return
    made = edits.entry(now_words(), by, kind="visit", about=km, words=words)
    # The visit that was planned is made: the next one wants a day of its own.
    session.attempt("a visit", lambda: edits.planned(edits.logged(session.job, made), recheck=""))


def recheck(session: Session) -> None:
    """Plan the next re-check visit on a day."""
    over = day_of(replayed(session.job.log).handed_over)
    wish = session.job.plan.recheck or shifted(over or today(), RECHECK_DAYS).isoformat()
    told = session.asker.name("On which day is the re-check visit? (YYYY-MM-DD)", wish)
    if not told or not is_day(session, told):
        return
    session.attempt("plan the re-check", lambda: edits.planned(session.job, recheck=told))


def numbered(session: Session) -> None:
    """Log a serial number, a batch of sheet, or a certificate, of the selection."""
    kinds = ("serial", "batch")
    kind = session.asker.choose(
        "What is the number of?", ("A thing: its serial number", "Sheet or bar: its batch")
    )
    if not kind:
        return
    number = session.asker.name("The number", "")
    thing = session.job.thing(session.selection.key)
    about = (
        thing.name if thing is not None else session.asker.name("Of what?", "") if number else ""
    )
    if number and about:
        log(
            session,
            "a number",
            kind=kinds[0 if kind.startswith("A thing") else 1],
            about=about,
            number=number,
        )


def photo(session: Session) -> None:
    """Copy a photo beside the job and log it, of the chosen operation."""
    path = session.asker.file("A photo of the build", PICTURES, "", to_save=False)
    if path is not None:
        add_photo(session, path=path)


def add_photo(session: Session, *, path: Path, words: str = "") -> bool:
    """Copy one photo and log it."""
    if session.path is None:
        session.say("Save the job first: its photos are kept beside its file.", trouble=True)
        return False
    try:
        taken = taken_in(session.path, path)
    except UserError as trouble:
        session.say(str(trouble), trouble=True)
        return False
    return log(
        session,
        "a photo",
        kind="photo",
        op=session.look.build.op,
        file=taken.file,
        taken=taken.taken,
        words=words or path.stem[:200],
    )


def correct(session: Session) -> None:
    """Strike the chosen entry out by a new one that says why."""
    key = session.look.build.entry
    why = session.asker.name(
        "Why does it not hold? The entry stays, and this stands beside it.", ""
    )
    if why:
        log(session, "correct an entry", kind="note", words=why, corrects=key)


def chosen_entry(session: Session) -> bool:
    """Enable only where an entry of the log is chosen."""
    return any(e.id == session.look.build.entry for e in session.job.log)
