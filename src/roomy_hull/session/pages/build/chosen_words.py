"""What the card says of what is chosen in Build, and of the brief."""

from roomy_hull.core.days import day_of, spoken
from roomy_hull.core.units import show
from roomy_hull.planning.judge import names_of
from roomy_hull.planning.lateness import why
from roomy_hull.session.session import Session


def build_words(session: Session) -> tuple[str, str, str, str, str]:
    """Title, kind, figure, sum and hint of what is chosen in Build."""
    build, look, job = session.building.of(session.known), session.look, session.job
    op = build.ops.get(look.build.op)
    if op is None:
        left = f"{build.left:.0f} h to do"
        done = len(build.finished)
        told = f"{len(build.ops)} operations, {done} done, {build.worked:.1f} h logged."
        return (
            job.name,
            "the plan",
            left,
            told,
            "Click a bar, a part or a row to see what it is and why it stands there.",
        )
    called = names_of(session.shop.workshop)
    kind = f"{op.kind}{', licensed' if op.licensed else ''}"
    rows = [op.much] if op.much else []
    worked = build.state.hours.get(op.key, 0.0)
    if worked:
        rows.append(f"{worked:.1f} h worked.")
    if op.key in build.state.done:
        day = day_of(build.state.done[op.key])
        rows.append(f"Done on {spoken(day) if day is not None else build.state.done[op.key]}.")
    one = build.levelled.placed.get(op.key)
    if one is not None:
        begin, end = build.begins(op.key), build.ends(op.key)
        who = ", ".join(called.get(p, p) for p in one.people) or "nobody of the shop"
        when = (
            f"{spoken(begin.day)} to {spoken(end.day)}"
            if begin.day != end.day
            else spoken(begin.day)
        )
        rows.append(f"{who}, {when}, from hour {begin.minute / 60:.1f}.")
        rows.append(
            f"Float {build.times[op.key].slack / 60:.1f} h."
            if op.key not in build.path
            else "On the critical path."
        )
        rows.append(_waits(session, op.key))
    hint = "Drag its bar, or log what was done. " + (
        "Only somebody with a licence does it." if op.licensed else ""
    )
    return (
        op.words,
        kind,
        f"{build.hours[op.key]:.1f} h{f' × {op.crew}' if op.crew > 1 else ''}"
        if not op.days
        else f"{op.days:g} days",
        "\n".join(r for r in rows if r),
        hint,
    )


def _waits(session: Session, key: str) -> str:
    """What its beginning waits for."""
    build = session.building.of(session.known)
    called = names_of(session.shop.workshop)
    _key, cause = why(build, key)[0]
    before = build.ops[cause.op].words if cause.op in build.ops else ""
    words = {
        "after": f"It waits for: {before}.", "person": f"It waits for {called.get(cause.by, cause.by)} ({before}).",
        "station": f"It waits for {called.get(cause.by, cause.by)} ({before}).",
        "away": f"{called.get(cause.by, cause.by)} is away before.",
    }  # fmt: skip
    if cause.kind == "from":
        needs = [p for p in build.buying if p.key in build.ops[key].needs and p.received is None]
        last = max(
            needs,
            key=lambda p: p.arrives.isoformat() if p.arrives is not None else "",
            default=None,
        )
        if last is not None and last.arrives is not None:
            return f"It waits for {last.words}, here on {spoken(last.arrives)}."
        return "It waits for its day."
    return words.get(cause.kind, "")


def wish_words(session: Session) -> tuple[str, str, str, str, str]:
    """Title, kind, figure, sum and hint of the brief, or of its chosen wish."""
    brief, budget = session.job.brief, session.known.budget
    system = session.look.system
    wish = next((w for w in brief.wishes if w.id == session.look.brief.wish), None)
    if wish is None:
        left = show(round(budget.left_wanted), "mass", system)
        return (session.job.name, "the brief", f"{left} left", "With all that is needed and wanted, in "
                                                               f"'{budget.scenario}'.",
                "Choose a wish for its own figures; again for the brief's.")  # fmt: skip
    row = next(r for r in budget.rows if r.wish.id == wish.id)
    kg = row.decided if row.decided is not None else row.allowed
    told = (
        f"Came to {show(kg, 'mass', system)}, {show(row.allowed, 'mass', system)} was allowed."
        if row.decided is not None
        else "Not decided yet."
    )
    return wish.name, f"wish, {wish.need}", show(kg, "mass", system), told, wish.reason
