"""Actions on files: the job's, the vehicle's, the shop's, the demos, cut files and pictures."""

from collections.abc import Callable
from pathlib import Path

import msgspec

from roomy_hull.core.days import now_words
from roomy_hull.core.errors import UserError
from roomy_hull.formats import jobfile, shopfile, vehiclefile
from roomy_hull.formats.demo import DEMOS, demo_job
from roomy_hull.job.edits.building import entry, logged
from roomy_hull.session.actions.registry import Action
from roomy_hull.session.files import ChangedError, lay_together, let_go, open_job, save_job
from roomy_hull.session.session import Session
from roomy_hull.verdict.gates import gate

Run = Callable[[Session], None]
_VEHICLES = f"Vehicles (*{vehiclefile.SUFFIX});;All files (*)"
_SHOPS = f"Shops (*{shopfile.SUFFIX});;All files (*)"


def _try(session: Session, path: Path, what: str, *, anyway: bool = False) -> None:
    """Open or save; trouble is told, and what others made of the file is not written over unasked."""
    try:
        if what == "open":
            open_job(session, path)
        else:
            save_job(session, path, anyway=anyway)
    except ChangedError as trouble:
        _settle(session, path, trouble)
    except UserError as trouble:
        session.say(str(trouble), trouble=True)


COPY, TOGETHER, OVER = "Save a copy…", "Lay both together", "Write over it"


def _settle(session: Session, path: Path, trouble: ChangedError) -> None:
    """Ask what to do about a file that somebody else has changed, and do that."""
    chosen = session.asker.choose(str(trouble), (COPY, TOGETHER, OVER))
    if chosen == COPY:
        _save_as(session)
    elif chosen == OVER:
        _try(session, path, "save", anyway=True)
    elif chosen == TOGETHER:
        try:
            conflicts = lay_together(session, path)
        except UserError as refused:
            session.say(str(refused), trouble=True)
            return
        if conflicts:
            more = f" and {len(conflicts) - 3} more" if len(conflicts) > 3 else ""
            session.say(
                f"Both changed the same parts: {', '.join(conflicts[:3])}{more}. Save a copy instead.",
                trouble=True,
            )
        else:
            _try(session, path, "save")
    else:
        session.say(f"Not saved. {trouble}", trouble=True)


def _open(session: Session) -> None:
    if session.asker.may_lose():
        path = session.asker.open_path()
        if path is not None:
            _try(session, path, "open")


def open_at(session: Session, path: Path) -> None:
    """Open a job whose file is known, unless unsaved work is not to be lost."""
    if session.asker.may_lose():
        _try(session, path, "open")


def _demo(name: str) -> Run:
    def run(session: Session) -> None:
        if session.asker.may_lose():
            session.take(demo_job(name), None)
            session.settings.drop_autosave()
            let_go(session)

    return run


def _new(session: Session) -> None:
    if session.asker.may_lose():
        job = session.asker.new_job()
        if job is not None:
            try:
                session.take(job, None, saved=False)
            except UserError as trouble:
                session.say(str(trouble), trouble=True)
                return
            session.settings.drop_autosave()
            let_go(session)
            session.view.set(stage="Survey")


def _import_vehicle(session: Session) -> None:
    path = session.asker.file(
        "Import a vehicle", _VEHICLES, str(vehiclefile.own_folder()), to_save=False
    )
    if path is not None:
        session.attempt(
            "import a vehicle",
            lambda: msgspec.structs.replace(session.job, vehicle=vehiclefile.load(path)),
        )


def _export_vehicle(session: Session) -> None:
    path = session.asker.file(
        "Export the vehicle", _VEHICLES, str(vehiclefile.own_folder()), to_save=True
    )
    path = None if path is None else _ended(session, path, vehiclefile.SUFFIX)
    if path is None:
        return
    try:
        vehiclefile.save(session.job.vehicle, path)
        session.say(f"The vehicle is written to {path}")
    except UserError as trouble:
        session.say(str(trouble), trouble=True)


def _ended(session: Session, path: Path, suffix: str) -> Path | None:
    """Give a path the ending of its kind; where that names another file, ask before that is replaced."""
    if path.name.endswith((".json", suffix)):
        return path
    # The person was asked about the name as it was typed, not about this one.
    path = path.with_name(path.name + suffix)
    if path.exists() and not session.asker.agree(f"{path.name} is there already. Replace it?"):
        return None
    return path


def _save(session: Session) -> None:
    if session.path is None:
        _save_as(session)
    else:
        _try(session, session.path, "save")


def _save_as(session: Session) -> None:
    path = session.asker.save_path()
    if path is not None:
        named = _ended(session, path, jobfile.SUFFIX)
        if named is not None:
            _try(session, named, "save")


def _cut(session: Session) -> None:
    write_cut(session, "Folder for the cut files")


def write_cut(session: Session, title: str, *, solids: bool = False) -> None:
    """Ask for a folder and write cut files; with stops open only where somebody says so, and it is logged.

    Args:
        solids: Whether every part is written as a solid as well.
    """
    bars = "; ".join(gate("cut", session.verdict).bars)
    if bars and not session.asker.agree(
        f"{bars}. Metal cut by these files may not fit. Write them anyway?"
    ):
        return
    folder = session.asker.folder(title)
    if folder is None:
        return
    session.asker.write_cut(folder, solids=solids)
    if bars:
        words = f"Cut files written although {bars}, to {folder}"
        session.attempt(
            "log the cut",
            lambda: logged(session.job, entry(now_words(), "", kind="note", words=words)),
        )


def _import_shop(session: Session) -> None:
    path = session.asker.file("Take a shop's values", _SHOPS, "", to_save=False)
    if path is None:
        return
    try:
        session.set_shop(shopfile.load(path))
        session.settings.keep_shop(session.shop)
        session.say(f"Materials, stock, prices and rules are those of {session.shop.name} now.")
    except UserError as trouble:
        session.say(str(trouble), trouble=True)


def _export_shop(session: Session) -> None:
    path = session.asker.file("Write the shop's values", _SHOPS, "", to_save=True)
    path = None if path is None else _ended(session, path, shopfile.SUFFIX)
    if path is None:
        return
    try:
        shopfile.save(session.shop, path)
        session.say(
            f"The shop's values are written to {path}; change them there and take them again."
        )
    except UserError as trouble:
        session.say(str(trouble), trouble=True)


def _picture(session: Session) -> None:
    path = session.asker.file(
        "Write what is drawn", "SVG (*.svg);;PDF (*.pdf)", f"{session.job.name}.svg", to_save=True
    )
    if path is not None and path.suffix not in (".svg", ".pdf"):
        path = _ended(session, path, ".svg")
    if path is not None:
        session.asker.write_view(path)


def actions() -> list[Action]:
    """Declare the actions of this area, in the order of the menu."""
    return [
        Action("job.new", "New job…", "Choose a vehicle and a first body", "Job", _new, ("Ctrl+N",)),
        Action("job.open", "Open…", "Open a job file", "Job", _open, ("Ctrl+O",)),
        Action("job.save", "Save", "Write the job; the previous version is kept", "Job", _save, ("Ctrl+S",)),
        Action("job.save_as", "Save as…", "Write the job to another file", "Job", _save_as,
               ("Ctrl+Shift+S",)),
        Action("job.cut", "Write cut files…", "DXF blanks, nested sheets, part and saw lists", "Job",
               _cut, ("Ctrl+E",)),
        Action("job.picture", "Write what is drawn…", "The drawing shown now, as SVG or PDF", "Job", _picture,
               ("Ctrl+P",)),
        Action("shop.import", "Take a shop's values…", "Materials, K factors, stock, prices and rules from a file",
               "Job", _import_shop),
        Action("shop.export", "Write the shop's values…", "To a file, to be changed and taken again", "Job",
               _export_shop),
        Action("job.quit", "Quit", "Close Roomy Hull", "Job", lambda s: s.asker.quit(), ("Ctrl+Q",)),
    ]  # fmt: skip


def demos() -> list[Action]:
    """Declare the demo jobs."""
    return [
        Action(f"job.demo_{key}", f"Demo: {words.split(',')[0]}", f"{words}; invented", "Job", _demo(key))
        for key, words in DEMOS.items()
    ]  # fmt: skip


def vehicles() -> list[Action]:
    """Declare what is done with vehicle files."""
    return [
        Action("vehicle.import", "Import a vehicle…", "Take the vehicle of a file into this job", "Body",
               _import_vehicle),
        Action("vehicle.export", "Export the vehicle…", "Write it to a file, for other jobs", "Body",
               _export_vehicle),
    ]  # fmt: skip
