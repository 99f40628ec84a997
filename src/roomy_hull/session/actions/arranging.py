"""Actions of arranging: what has to go in, what stays, what counts, the run, and what is taken of it."""

from collections.abc import Sequence

from roomy_hull.arrange.refusing import to_place
from roomy_hull.arrange.weighing import weights_of
from roomy_hull.core.errors import InputError
from roomy_hull.core.units import parse
from roomy_hull.job.carried import Carried
from roomy_hull.job.edits import arranging as edits
from roomy_hull.job.model import Job
from roomy_hull.session.actions.registry import Action
from roomy_hull.session.session import Session

PAGE = ("Fit-out", "Arrange")


def can_begin(session: Session) -> bool:
    """Whether no run goes on."""
    return not session.arranging.working


def _working(session: Session) -> bool:
    return session.arranging.working


def go(session: Session) -> bool:
    """Begin to arrange; the page that shows it is turned to. What is refused at once is told in words."""
    run = session.arranging
    try:
        to_place(session.job, session.job.arrange)
    except InputError as trouble:
        session.view.turn_to(*PAGE)
        session.say(str(trouble), trouble=True)
        return False
    session.view.turn_to(*PAGE)
    run.start(session.job, session.shop, run.seconds, run.pitch)
    session.say("")
    return True


def stop(session: Session) -> None:
    """End the run at once; the best so far stays, and can be taken."""
    session.arranging.stop()


def want(session: Session, *, entry: str) -> str:
    """Want a thing of the stores arranged; the answer is its id, empty where it goes into no bay."""
    made = session.catalogue.entry(entry).make
    if isinstance(made, Carried):
        session.say(f"{made.name} goes into no bay: place it on the page Drawing.", trouble=True)
        return ""
    if not session.attempt(f"want {made.name}", lambda: edits.wanted(session.job, made)):
        return ""
    return str(session.job.arrange.wanted[-1].id)


def drop(session: Session, *, thing: str) -> None:
    """Want a thing no more."""
    session.attempt("want it no more", lambda: edits.unwanted(session.job, thing))


def pin(session: Session, *, things: Sequence[str], on: bool) -> None:
    """Pin units where they are, or let them go."""
    words = "pin where it is" if on else "unpin"
    session.attempt(words, lambda: edits.pinned(session.job, tuple(things), on=on))


def pin_selected(session: Session) -> None:
    """Pin what is selected, or let it go where all of it is pinned."""
    some = _selected(session)
    if some:
        pin(session, things=some, on=not set(some) <= set(session.job.arrange.pinned))


def pin_all(session: Session) -> None:
    """Pin everything that is placed, or let all of it go where all is pinned."""
    every = [u.id for u in session.job.units]
    pin(session, things=every, on=not set(every) <= set(session.job.arrange.pinned))


def bays(session: Session, *, thing: str, only: Sequence[str]) -> None:
    """Say in which bays a thing may go; in any where none is named."""
    session.attempt("say where it may go", lambda: edits.in_bays(session.job, thing, tuple(only)))


def weigh(session: Session, *, part: str, weight: float) -> None:
    """Set how much a part counts."""
    now = weights_of(session.verdict, session.job.arrange)._asdict()
    if now[part] != weight or not session.job.arrange.own_weights:
        session.attempt(f"weigh {part}", lambda: edits.weighed(session.job, now, **{part: weight}))


def follow(session: Session) -> None:
    """Have the weights follow the findings again."""
    session.attempt("let the findings weigh", lambda: edits.follow_findings(session.job))


def axle(session: Session, *, which: str) -> None:
    """Say which axle should have less."""
    session.attempt("say which axle", lambda: edits.axle(session.job, which))


def gas(session: Session) -> None:
    """Keep gas away from what can ignite it, or not."""
    on = not session.job.arrange.gas
    session.attempt(
        "keep gas away" if on else "let gas be anywhere", lambda: edits.gas(session.job, on=on)
    )


def apart(session: Session, *, a: str, b: str) -> None:
    """Ask how far two things are to be kept apart."""
    text = session.asker.name(
        "So much wall between them where they share a bay; 0 for none", "300 mm"
    )
    if not text:
        return
    try:
        gap = parse(text, "length", session.look.system)
    except InputError as trouble:
        session.say(str(trouble), trouble=True)
        return
    session.attempt("keep apart", lambda: edits.apart(session.job, a, b, gap))


def near(session: Session, *, a: str, b: str) -> None:
    """Want two things near each other, or no longer."""
    on = not any({w.a, w.b} == {a, b} for w in session.job.arrange.near)
    session.attempt(
        "keep near" if on else "need not be near", lambda: edits.near(session.job, a, b, on=on)
    )


def offers(session: Session) -> tuple[Job, ...]:
    """The job with every layout that is offered; with the best so far where the run was stopped."""
    run = session.arranging
    if run.result is not None:
        return tuple(o.job for o in run.result.offers)
    return (
        (run.told.job,)
        if run.told is not None and run.told.job is not None and not run.working
        else ()
    )


def take(session: Session) -> bool:
    """Take the chosen layout in hand, as one step; the one there was and the others stand beside it in Variants."""
    run, found = session.arranging, offers(session)
    if not 0 <= run.chosen < len(found) or run.of is None:
        session.say("There is no layout to take yet: arrange first.", trouble=True)
        return False
    now, then = session.job, run.of
    if now.units != then.units or now.body != then.body:
        session.say("The job was changed since: these layouts are of how it was. Arrange anew, or undo the change.",
                    trouble=True)  # fmt: skip
        return False
    if found[run.chosen].units == now.units:
        session.say("That is the layout in hand.")
        return False
    done = session.attempt("take the arranged layout", lambda: edits.taken(now, found, run.chosen))
    if done:
        run.taken(session.job)
        session.say("Taken. The layout there was, and the others, stand in Variants.")
    return done


def why(session: Session, *, thing: str) -> None:
    """Ask why a thing is where it is in the layout in hand."""
    run = session.arranging
    if run.working:
        session.say("It can be asked when the run is over.")
        return
    run.ask_why(session.job, session.shop, thing, run.pitch)


def _why_selected(session: Session) -> None:
    some = _selected(session)
    if some:
        session.view.turn_to(*PAGE)
        why(session, thing=some[0])


def _selected(session: Session) -> list[str]:
    """Ids of the selected units."""
    units = {u.id for u in session.job.units}
    return [k for k in session.selection.ids() if k in units]


def _any_unit(session: Session) -> bool:
    return bool(_selected(session))


def actions() -> tuple[Action, ...]:
    """Declare the actions of the menu Unit that arrange."""
    return (
        Action("arrange.go", "Arrange it for me", "Bay, place and height for everything that is not pinned, with a proof",
               "Unit", go, ("Ctrl+Alt+A",), can_begin),
        Action("arrange.stop", "Stop arranging", "At once; the best so far stays to be taken", "Unit", stop,
               ("Ctrl+Alt+X",), _working),
        Action("arrange.take", "Take the arranged layout", "One step; the others stand beside it in Variants", "Unit", take,
               ("Ctrl+Alt+T",), lambda s: bool(offers(s))),
        Action("arrange.pin", "Pin where it is, or unpin", "What is pinned is not moved by arranging", "Unit",
               pin_selected, ("Ctrl+Alt+P",), _any_unit),
        Action("arrange.pin_all", "Pin everything, or nothing", "Then unpin what may move", "Unit", pin_all, (),
               lambda s: bool(s.job.units)),
        Action("arrange.why_here", "Why is it here?", "What the best layout would lose with it elsewhere", "Unit",
               _why_selected, ("Ctrl+Alt+W",), _any_unit),
        Action("arrange.gas", "Keep gas away from what can ignite it, or not",
               "In one bay, 300 mm of wall (common practice)", "Unit", gas),
        Action("arrange.follow", "Let the findings say what counts", "Instead of weights set by hand", "Unit", follow, (),
               lambda s: s.job.arrange.own_weights),
    )  # fmt: skip
