"""Actions of Access: goods listed, stowed and packed; the party; who is asked; moves played."""

from collections.abc import Callable
from pathlib import Path

from roomy_hull.core.errors import UserError
from roomy_hull.core.wording import counted
from roomy_hull.formats.access_tables import write_papers
from roomy_hull.formats.atomic import write_whole
from roomy_hull.formats.goods_table import goods_text, packing_list, read_goods, unread
from roomy_hull.job.edits import goods as edits
from roomy_hull.job.goods import people
from roomy_hull.job.model import Job
from roomy_hull.session.actions.looking import pages
from roomy_hull.session.actions.registry import Action
from roomy_hull.session.session import Session


def _chosen(session: Session) -> str:
    """Id of the chosen good; empty for none."""
    key = session.look.access.chosen
    return key.removeprefix("goods.") if key.startswith("goods.") else ""


def _has_goods(session: Session) -> bool:
    return bool(session.job.goods)


def add(session: Session) -> None:
    """Add a good by its name, in the selected unit."""
    name = session.asker.name("What is it?", "")
    if not name:
        return
    place = session.selection.key if session.job.thing(session.selection.key) is not None else ""
    if session.attempt(f"add {name}", lambda: edits.with_good(session.job, name, place)):
        session.view.set(stage="Access", access={"chosen": f"goods.{session.job.goods[-1].id}"})


def paste(session: Session) -> None:
    """Add the goods of a table on the clipboard."""
    _take(session, session.asker.pasted, "the clipboard")


def read(session: Session) -> None:
    """Add the goods of a table in a file."""
    path = session.asker.file("Goods", "Tables (*.csv *.txt *.tsv)", "", to_save=False)
    if path is not None:
        _take(session, lambda: goods_text(path), path.name)


def _take(session: Session, given: Callable[[], str], name: str) -> None:
    """Add the goods of a table, and tell what of it was not read."""
    try:
        text = given()
        new = read_goods(text, session.job, name)
    except UserError as trouble:
        session.say(str(trouble), trouble=True)
        return
    if session.attempt(
        f"add {counted(len(new), 'item')}", lambda: edits.with_goods(session.job, new)
    ):
        left = unread(text)
        words = f" Not read: the columns {', '.join(left)}." if left else ""
        session.say(f"Added {counted(len(new), 'item')} from {name}.{words}")


def pack(session: Session) -> None:
    """Write the packing list of the chosen scenario."""
    scenario = session.scenario()
    path = session.asker.file(
        "Packing list", "Tables (*.csv)", f"packing-{scenario.id}.csv", to_save=True
    )
    if path is None:
        return
    try:
        write_whole(path, packing_list(session.job, scenario).encode(), named=True)
    except UserError as trouble:
        session.say(str(trouble), trouble=True)
        return
    session.say(f"Written to {path}")


def papers(session: Session) -> None:
    """Write the packing lists, the map of each side, and the sheet for taking the canopy off."""
    folder: Path | None = session.asker.folder("Where to write the papers of Access")
    if folder is None:
        return
    try:
        names = write_papers(session.verdict, folder)
    except UserError as trouble:
        session.say(str(trouble), trouble=True)
        return
    session.say(f"{len(names)} files are written to {folder}")


def remove(session: Session) -> None:
    """Take the chosen good off the list, or somebody out of the party."""
    key = session.look.access.chosen
    group = key.partition(".")[0]
    if group == "goods":
        session.attempt("take off the list", lambda: edits.without(session.job, _chosen(session)))
    else:
        session.attempt("take out of the party", lambda: edits.without_of_party(session.job, key))
    session.view.set(access={"chosen": ""})


def _may_remove(session: Session) -> bool:
    return session.look.access.chosen.partition(".")[0] in (
        "goods",
        "people",
        "dogs",
        "berths",
    )


def _new(session: Session, words: str, group: str) -> None:
    """Add to the party, and choose it."""

    def berth(job: Job) -> Job:
        return edits.with_berth(job, session.selection.key)

    make = {"people": edits.with_person, "dogs": edits.with_dog, "berths": berth}[group]
    if session.attempt(words, lambda: make(session.job)):
        session.view.turn_to(
            "Access",
            "Living",
            access={"chosen": f"{group}.{getattr(session.job.party, group)[-1].id}"},
        )


def choose(session: Session, *, key: str) -> None:
    """Choose something of Access: the card shows it, the drawing turns to it."""
    changes: dict[str, object] = {"access": {"chosen": key, "played": -1}}
    good = next((n for n, g in enumerate(session.job.goods) if f"goods.{g.id}" == key), -1)
    rows = session.verdict.access
    if 0 <= good < len(rows.stowed) and rows.stowed[good].space >= 0:
        side = rows.spaces[rows.stowed[good].space].side
        if side in ("left", "right", "rear"):
            changes["station"] = side
    session.selection.clear()
    session.view.set(**changes)


def stow(session: Session, *, key: str, place: str, part: str = "") -> bool:
    """Put a good somewhere, as one step."""
    name = next((g.name for g in session.job.goods if g.id == key), key)
    return session.attempt(f"stow {name}", lambda: edits.stowed(session.job, key, place, part))


def play(session: Session, *, to: int) -> None:
    """Show the moves to something after so many of them."""
    session.view.set(access={"played": max(0, to)})


def ask(session: Session, *, person: str) -> None:
    """Ask for somebody of the party."""
    session.view.set(access={"person": person})


def _next_person(session: Session) -> None:
    """Ask for the next of the party."""
    rows = [p.id for p in people(session.job.party)]
    n = rows.index(session.look.access.person) if session.look.access.person in rows else 0
    session.view.set(access={"person": rows[(n + 1) % len(rows)]})


def _everything_now(session: Session) -> None:
    """Have everything that is wanted now stand out, or nothing any more."""
    order = ("", "now", "each stop", "each camp", "rarely")
    session.view.set(
        access={"urgent": order[(order.index(session.look.access.urgent) + 1) % len(order)]}
    )


def actions() -> list[Action]:
    """Declare the actions of this area, in the order of the menu."""
    menu = "Access"
    return [
        *pages("Access", menu, "access_page"),
        Action("access.add", "Add item…", "Into the selected unit, or not stowed yet", menu, add, ("Ctrl+Shift+G",)),
        Action("access.paste", "Paste items", "A table on the clipboard: name, kg, number", menu, paste),
        Action("access.read", "Items from a file…", "A table: name, kg, number, place, wanted", menu, read),
        Action("access.remove", "Take it off the list", "Or out of the party", menu, remove, (), _may_remove),
        Action("access.urgent", "What is wanted now stands out", "Then each stop, each camp, rarely, nothing", menu,
               _everything_now, (), _has_goods),
        Action("access.person", "Ask the next of the party", "Whose reach and sight are drawn", menu, _next_person),
        Action("access.add_person", "Add somebody", "To the party", menu, lambda s: _new(s, "add somebody", "people")),
        Action("access.add_dog", "Add a dog", "With its measures", menu, lambda s: _new(s, "add a dog", "dogs")),
        Action("access.add_berth", "Add a berth", "Where some sleep", menu, lambda s: _new(s, "add a berth", "berths")),
        Action("access.pack", "Packing list…", "Of the chosen scenario, as CSV", menu, pack, (), _has_goods),
        Action("access.papers", "Papers of Access…", "Packing lists, where is what, the canopy off and on", menu, papers),
    ]  # fmt: skip
