"""Actions that log what was built otherwise than drawn: a size, a part's, where a hole is."""

from roomy_hull.assembly.built import can_be
from roomy_hull.core.days import now_words
from roomy_hull.core.errors import UserError
from roomy_hull.core.parts import BarPart, Hardware, SheetPart
from roomy_hull.core.refs import Ref
from roomy_hull.job.edits import building as edits
from roomy_hull.job.edits.resizing import value_at
from roomy_hull.job.model import Job
from roomy_hull.planning.as_built import PARTS, SIZES
from roomy_hull.session.actions.entries import figure, log, who
from roomy_hull.session.session import Session

WHOLE, PART, HOLE = "A size or the mass of the whole", "A part's length or width", "Where a hole is"
SIZE_FIELDS = ("width", "depth", "height", "length", "u", "v", "w", "mass", "x", "y", "z")


def deviation(session: Session) -> None:
    """Log something of the selection as it was built: one of its sizes, a part's, or where a hole is."""
    thing = session.known.assembly.thing(session.selection.key)
    if thing is None:
        session.say("Select the unit or carried thing that was built otherwise.", trouble=True)
        return
    cut = [p for p in thing.expansion.parts if not isinstance(p, Hardware)]
    sort = session.asker.choose("What was built otherwise?", (WHOLE, PART, HOLE)) if cut else WHOLE
    if sort == WHOLE:
        _whole(session, thing.id)
    elif sort:
        _of_part(session, thing.ref, cut, hole=sort == HOLE)


def _whole(session: Session, key: str) -> None:
    """Ask for one size of a thing as it was built."""
    thing = session.job.thing(key)
    fields = tuple(f for f in SIZE_FIELDS if hasattr(thing, f))
    field = session.asker.choose("Which of its sizes?", fields)
    if thing is None or field not in fields:
        return
    value = figure(
        session, f"{thing.name}: {field} as built, in mm or kg", f"{getattr(thing, field):g}"
    )
    if value is not None:
        group = "units" if any(u.id == key for u in session.job.units) else "carried"
        words = session.asker.name("Why? (for whoever reads it later)", "-").strip("- ")
        build_otherwise(session, about=f"{group}.{key}.{field}", value=value, words=words)


def _of_part(session: Session, ref: Ref, cut: list[SheetPart | BarPart], *, hole: bool) -> None:
    """Ask for a part's size, or by how much a hole of it is off."""
    names = tuple(dict.fromkeys(p.name for p in cut))
    name = session.asker.choose("Which of its parts?", names)
    part = next((p for p in cut if p.name == name), None)
    if part is None:
        return
    about = f"{ref.kind}:{ref.id}/{name}"
    if hole:
        off = [
            figure(session, f"By how much is it off, {way}? [mm]", "0")
            for way in ("along", "across")
        ]
        if off[0] is not None and off[1] is not None:
            hole_moved(session, about=about, at=(0.0, 0.0), by=(off[0], off[1]))
        return
    sizes = tuple(s for s in PARTS if can_be(part, s))
    size = session.asker.choose("Which of its sizes?", sizes) if sizes else ""
    if not sizes:
        session.say(
            "The size of a folded part like this follows its unit: log that one's.", trouble=True
        )
    if size in sizes:
        drawn = float(getattr(part, size))
        value = figure(session, f"{name}: {size} as cut [mm]", f"{drawn:g}")
        if value is not None:
            build_otherwise(session, about=about, value=value, sort=size, was=drawn)


def build_otherwise(
    session: Session,
    *,
    about: str,
    value: float,
    sort: str = "",
    words: str = "",
    was: float | None = None,
) -> bool:
    """Log a size as built: a path of the job, or a released part's key with ``length`` or ``width``."""
    by = who(session)
    if not by:
        return False

    def make() -> Job:
        drawn = was
        if not sort and about.startswith(SIZES):
            found = value_at(session.job, about)
            drawn = float(found) if isinstance(found, int | float) else None
            if drawn is None:
                raise UserError(
                    "that is no size of the job",
                    about,
                    "Name it as the file does, such as units.galley.width.",
                )
        elif sort not in PARTS and not sort.startswith("hole"):
            raise UserError("that is no size of a part", about, f"Use {', '.join(PARTS)}.")
        entry = edits.entry(
            now_words(),
            by,
            kind="deviation",
            about=about,
            number=sort,
            value=value,
            was=drawn,
            words=words,
        )
        return edits.logged(session.job, entry)

    return session.attempt("log as built", make)


def hole_moved(
    session: Session,
    *,
    about: str,
    at: tuple[float, float],
    by: tuple[float, float],
    words: str = "",
) -> bool:
    """Log that a hole of a part stands elsewhere than drawn. [mm]"""
    n = sum(
        e.kind == "deviation" and e.about == about and e.number.startswith("hole")
        for e in session.job.log
    )
    return log(
        session,
        "log a hole",
        kind="deviation",
        about=about,
        number=f"hole {n + 1}",
        figures=(*at, *by),
        words=words,
    )
