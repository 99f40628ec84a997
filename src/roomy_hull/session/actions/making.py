"""Actions of Cut: a part shown, releases, how far parts have come, the book, solids."""

from roomy_hull.core.errors import UserError
from roomy_hull.job.edits import releases as edits
from roomy_hull.job.edits import units
from roomy_hull.job.releases import PartState
from roomy_hull.kinds.placed import Placed
from roomy_hull.making.release import drawn_up
from roomy_hull.making.ways import changes_to, of_wood
from roomy_hull.session.actions.files import write_cut
from roomy_hull.session.actions.looking import pages
from roomy_hull.session.actions.registry import Action
from roomy_hull.session.pages.cut.words import parts, works
from roomy_hull.session.session import Session
from roomy_hull.shop.shop import Shop
from roomy_hull.verdict.gates import gate


def show(session: Session, *, part: int) -> None:
    """Show a part, and select what it belongs to."""
    own = next((w for n, _p, w in parts(session) if n == part), None)
    key = own.owner.id if own is not None and own.owner.is_thing else ""
    session.view.set(cut={"part": part, "bent": -1})
    session.selection.select(key)


def release(session: Session) -> None:
    """Freeze every part as it is now; not while a stop stands."""
    found = gate("release", session.verdict)
    if found.bars:
        session.say(f"Nothing is released: {'; '.join(found.bars)}.", trouble=True)
        return
    first = f"; first, {'; '.join(found.asks[:3])}" if found.asks else ""
    by = session.asker.name(f"Initials of who releases it{first}", "")
    if not by:
        return
    try:
        made = drawn_up(session.job.releases, works(session), by)
    except UserError as trouble:
        session.say(str(trouble), trouble=True)
        return
    if session.attempt(f"release {made.revision}", lambda: edits.released(session.job, made)):
        session.view.turn_to("Cut", "Release", cut={"against": ""})
        session.say(f"Revision {made.revision} is released: {len(made.parts)} parts.")


def take_back(session: Session) -> None:
    """Take the last release back."""
    session.attempt("take the release back", lambda: edits.taken_back(session.job))


def come_to(session: Session, *, keys: tuple[str, ...], state: PartState) -> None:
    """Say how far some parts have come."""
    if not keys:
        session.say("Choose parts in the table first.", trouble=True)
        return
    session.attempt(f"{len(keys)} parts {state}", lambda: edits.come_to(session.job, keys, state))


def solids(session: Session) -> None:
    """Write the cut files with every part and the whole job as STEP and GLB."""
    write_cut(session, "Solids", solids=True)


def book(session: Session) -> None:
    """Write the book and its labels."""
    folder = session.asker.folder("The book")
    if folder is not None:
        session.asker.write_book(folder)


def _selected(session: Session) -> Placed | None:
    """The selected unit, if it can be built in two ways."""
    thing = session.job.thing(session.selection.key)
    return thing if isinstance(thing, Placed) and other_way(thing, session.shop) else None


def other_way(unit: Placed, shop: Shop) -> dict[str, object]:
    """What turns a unit into one of ply, or one of ply into one of metal."""
    return changes_to(unit, shop, ply=not of_wood(unit, shop))


def build_the_other_way(session: Session) -> None:
    """Build the selected unit of ply, or of metal again."""
    unit = _selected(session)
    if unit is None:
        return
    changes = other_way(unit, session.shop)
    words = "of metal" if of_wood(unit, session.shop) else "of ply"
    session.attempt(
        f"build {unit.name} {words}", lambda: units.changed(session.job, unit.id, **changes)
    )


def _two_ways(session: Session) -> bool:
    return _selected(session) is not None


def _released(session: Session) -> bool:
    return bool(session.job.releases)


def actions() -> list[Action]:
    """What the menu Cut offers."""
    menu = "Cut"
    return [
        *pages("Cut", menu, "cut_page"),
        Action("making.release", "Release…", "Freeze every part as it is now, with date and initials", menu, release,
               ("Ctrl+Shift+R",)),
        Action("making.take_back", "Take the release back", "While nothing of it is cut", menu, take_back, (), _released),
        Action("making.other_way", "Build it of ply, or of metal", "The selected unit, with usual thicknesses", menu,
               build_the_other_way, (), _two_ways),
        Action("making.book", "The book…", "Everything to build by, and labels, as PDF", menu, book),
        Action("making.solids", "Solids…", "Cut files, and every part and the whole job as STEP and GLB", menu, solids),
    ]  # fmt: skip
