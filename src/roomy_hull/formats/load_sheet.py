"""The load sheet: everything a customer and a certifying engineer need to follow the weights, as tables."""

from collections.abc import Callable

from roomy_hull.assembly import springs
from roomy_hull.core.days import today
from roomy_hull.core.uncertainty import RELATIVE_UNCERTAINTY, source_of
from roomy_hull.core.units import System, show, unit_word
from roomy_hull.formats.sheet_parts import LoadSheet, Section
from roomy_hull.studies.loads import axles, board
from roomy_hull.studies.loads.governing import governing
from roomy_hull.studies.loads.readings import WHEELS
from roomy_hull.verdict.verdict import Verdict

CAUTIONS = (
    "Planning figures, computed from masses and places as entered and drawn. They certify nothing.",
    "The rating plate, the vehicle-certification engineer and the road authority decide what the vehicle may "
    "weigh and tow. Upgraded ratings hold with their certificate only.",
    "Weigh the finished vehicle on a certified scale, axle by axle, and enter what it says.",
    "Restraint, chassis and roof loads are checked against common factors; whoever builds and whoever "
    "certifies answers for the real parts. Gas and mains belong to licensed trades.",
    "Never work or stand under a jacked canopy or vehicle.",
)


def build(verdict: Verdict, system: System = "metric", day: str = "") -> LoadSheet:
    """Build the sheet of a judged job.

    Args:
        system: ``metric`` or ``us``, for its figures.
        day: Date on it; today's where empty.
    Returns:
        Vehicle, assumptions, axle tables with pictures, masses with sources, springs, chassis, mounts, stability,
        towing, findings, weighings, cautions, and a place for weighed values and signatures.
    """
    job = verdict.job
    day = day or today().isoformat()

    def kg(value: float) -> str:
        return show(round(value), "mass", system, unit=False)

    def mm(value: float) -> str:
        return show(value, "length", system, unit=False)

    word, length = unit_word("mass", system), unit_word("length", system)
    parts: tuple[Section, ...] = (
        _vehicle(verdict, kg, mm, word, length), _assumptions(verdict),
        Section("The vehicle on its axles", picture="axles"), _axles(verdict, kg, word), _sides(verdict, kg, word),
        Section("What weighs what on the rear axle", picture="levers"), _masses(verdict, kg, mm, word, length),
        _springs(verdict, mm, length), Section("Shear and bending of the chassis", picture="chassis"),
        _chassis(verdict, mm, length), _mounts(verdict, kg, word), _stability(verdict, mm, length),
        _towing(verdict, kg, word), _budget(verdict, kg, word), _findings(verdict), _weighings(verdict, kg, word),
        Section("Cautions", CAUTIONS), _to_fill(verdict, word),
    )  # fmt: skip
    kept = tuple(s for s in parts if s.words or s.rows or s.picture)
    return LoadSheet(
        f"Load sheet: {job.name}", f"{job.vehicle.name}, layout {job.layout}, {day}", kept
    )


Write = Callable[[float], str]


def _vehicle(verdict: Verdict, kg: Write, mm: Write, word: str, length: str) -> Section:
    """Vehicle, kerb masses and ratings as entered."""
    v, r, k = verdict.job.vehicle, verdict.job.vehicle.ratings, verdict.job.vehicle.kerb
    rows = [
        ("Wheelbase", f"{mm(v.wheelbase)} {length}"), ("Tracks", f"{mm(v.track_front)}, {mm(v.track_rear)} {length}"),
        ("Tyres", f"{v.tyre}" + (f", load index {v.tyre_load_index}" if v.tyre_load_index else "")),
        ("Kerb axle masses", f"{kg(k.front)} + {kg(k.rear)} {word}, {k.source}"),
        ("… with aboard", f"driver {kg(k.driver)} {word}, fuel {k.fuel:g} l, tools {kg(k.tools)} {word}"),
        ("Gross rating", f"{kg(r.gross)} {word}"),
        *((f"{end.capitalize()} axle", f"{kg(governing(v, end).kg)} {word}, by its {governing(v, end).by}")
          for end in ("front", "rear")),
        ("Combination, towed, ball, roof",
         ", ".join(kg(x) if x else "not given" for x in (r.combination, r.towed, r.ball, r.roof)) + f" {word}"),
        ("Ratings are", r.standard + (f"; certificate: {r.certificate or 'none entered'}; signed: {r.signed or 'nobody'}"
                                      if r.standard == "upgraded" else "")),
        ("Springs", f"{v.springs.front:g} and {v.springs.rear:g} N/mm at one wheel, rear {v.springs.school}"),
    ]  # fmt: skip
    return Section("Vehicle and ratings", (), ("", "as entered"), tuple(rows))


def _assumptions(verdict: Verdict) -> Section:
    """Say how it is computed."""
    r, v = verdict.assembly.shop.rules, verdict.job.vehicle
    uncertainties = ", ".join(f"{k} {s:.1%}" for k, s in RELATIVE_UNCERTAINTY.items())
    words = (
        "Rear axle = sum of mass times distance from the front axle, over the wheelbase; the front carries the "
        "rest. A mass behind the rear axle lifts the front.",
        f"Sides: what leans is shared by roll stiffness, {springs.roll_front(v):.0%} at the front, on a chassis "
        "that does not twist.",
        f"Every mass has a one-sigma uncertainty by its source: {uncertainties}. Uncertainties add as "
        "root of squares; chances are "
        "those of a normal distribution.",
        "What was aboard at the kerb weighing is taken off where it sat, so that nothing counts twice. Ball mass "
        "counts on the vehicle and is part of the trailer.",
        f"Fuel {v.fuel.density:g} kg/l, water 1 kg/l. Sag = load beyond kerb over both spring rates.",
        f"Dynamic factors: chassis {r.vertical_dynamic:g}, slides {r.slide_dynamic:g}, shelves and floors "
        f"{r.shelf_dynamic:g} (common practice). Restraint 0.8 g forward, 0.5 g other ways, 0.2 g up beyond weight "
        "(Load Restraint Guide, EN 12195-1; from memory).",
    )
    return Section("How it is computed", words)


def _axles(verdict: Verdict, kg: Write, word: str) -> Section:
    """Every scenario against every limit."""
    keys = [k for k, _ in board.ROWS if k not in ("left", "right", "level") and k not in WHEELS]
    names = dict(board.ROWS)
    rows = []
    for s in verdict.loads.scenarios:
        row = [s.name]
        for key in keys:
            figure = board.cell(s, key)
            if figure is None:
                row.append("–")
                continue
            odds = board.chance(figure)
            text = kg(figure.value) + (
                f" ± {kg(figure.uncertainty)}" if figure.uncertainty > 0.05 else ""
            )
            row.append(text + (f" ({odds:.0%} over)" if odds >= 0.005 and key != "payload" else ""))
        rows.append(tuple(row))
    limits = [
        next(
            (f.limit for s in verdict.loads.scenarios if (f := board.cell(s, k)) and f.limit), None
        )
        for k in keys
    ]
    rows.append(("Limit", *(kg(x) if x else "" for x in limits)))
    worst = board.worst(verdict.loads)
    words: tuple[str, ...] = ()
    if worst is not None:
        name = verdict.loads.scenario(worst.scenario).name
        words = (
            f"The worst cell governs: {names[worst.key].lower()} in '{name}', {worst.use:.0%} of its limit.",
        )
    return Section(
        f"Axles, gross and trailer, {word}",
        words,
        ("Scenario", *(names[k] for k in keys)),
        tuple(rows),
    )


def _sides(verdict: Verdict, kg: Write, word: str) -> Section:
    """Sides and wheels."""
    limit = axles.tyre_limit(verdict.job.vehicle)
    rows = []
    for s in verdict.loads.scenarios:
        lean = (s.right.value - s.left.value) / max(s.gross.value, 1e-9)
        side = "right" if lean > 0 else "left"
        rows.append((s.name, f"{kg(s.left.value)} ± {kg(s.left.uncertainty)}",
                     f"{kg(s.right.value)} ± {kg(s.right.uncertainty)}",
                     f"{side} {abs(lean):.1%}", *(f"{kg(w.value)} ± {kg(w.uncertainty)}" for w in s.wheels)))  # fmt: skip
    words = (
        (f"One wheel may carry {kg(limit)} {word}.",)
        if limit
        else ("No tyre load index was entered.",)
    )
    heads = (
        "Scenario",
        "Left",
        "Right",
        "Heavier",
        "Front left",
        "Front right",
        "Rear left",
        "Rear right",
    )
    return Section(f"Sides and wheels, {word}", words, heads, tuple(rows))


def _masses(verdict: Verdict, kg: Write, mm: Write, word: str, length: str) -> Section:
    """List every mass with its place and its source."""
    names = {t.ref: t.name for t in verdict.assembly.things}
    rows = []
    for m in verdict.assembly.masses():
        if m.fill.entered:
            continue
        name = names.get(m.owner, m.owner.word.capitalize())
        own = m.kg + verdict.loads.moved_by(m)
        what = name if m.label in ("", name) else f"{name}: {m.label}"
        fill = "" if m.fill.by in ("fixed", "hung") else f"when full ({m.fill.by})"
        rows.append((what, f"{own:,.1f}" if word == "kg" else kg(own), f"{m.sigma:,.1f}", source_of(m.kg, m.sigma),
                     mm(m.x), mm(m.y), mm(m.z), fill))  # fmt: skip
    heads = ("What", word, "± kg", "known by", "aft", "right", "up", "")
    words = (
        f"Places in {length}: aft of the front axle, right of the middle, over level ground at kerb attitude.",
    )
    return Section("Masses, places and sources", words, heads, tuple(rows))


def _springs(verdict: Verdict, mm: Write, length: str) -> Section:
    """The stance in every scenario, all options side by side."""
    loads = verdict.loads.scenarios
    found = verdict.springs
    fitted = verdict.job.vehicle.springs.school
    rows = []
    for s in loads:
        row = [s.name, mm(s.stance.front_sag), mm(s.stance.rear_sag), mm(s.stance.tail_low)]
        row += [mm(found.row(k, s.id).stance.tail_low) for k in springs.CAUTIONS]
        row.append(f"{found.row(fitted, s.id).rear_hz:.1f}")
        rows.append(tuple(row))
    heads = (
        "Scenario",
        "Front sag",
        "Rear sag",
        "Tail low",
        *(f"on {k}" for k in springs.CAUTIONS),
        "Rear, Hz",
    )
    return Section(
        f"Springs and stance, {length}",
        (f"Fitted: {fitted}. {springs.CAUTIONS[fitted]}",),
        heads,
        tuple(rows),
    )


def _chassis(verdict: Verdict, mm: Write, length: str) -> Section:
    """The peaks of bending."""
    c = verdict.carrying.chassis
    rows = tuple(
        (d.name, f"{abs(d.peak) / 1e3:,.1f}", mm(d.peak_x), f"{d.ratio:.0%}")
        for d in (*c.diagrams, c.baseline)
    )
    words = (
        f"Vehicle as a beam on its springs, {c.factor:g} times gravity; compared with the rated payload spread "
        "evenly over the tray. The rails' own strength is not judged.",
    )
    return Section(
        "Peak bending behind the cab",
        words,
        ("Scenario", "kN·m", f"aft of front axle, {length}", "of rated"),
        rows,
    )


def _mounts(verdict: Verdict, kg: Write, word: str) -> Section:
    """What has to be held, the heaviest first."""
    rows = []
    for m in sorted(verdict.carrying.mounts, key=lambda m: -m.kg)[:24]:
        forward = next(w for w in m.ways if w.way == "forward")
        held = m.words or "nobody said"
        use = f"{m.worst().use:.0%}" if m.words else ""
        rows.append((m.name, kg(m.kg), f"{forward.force:,.0f}", f"{forward.tips:,.0f}", held, use))
    heads = ("What", f"full, {word}", "forward, N", "tips, N·m", "held by", "used")
    return Section("Restraint of the heaviest", (), heads, tuple(rows))


def _stability(verdict: Verdict, mm: Write, length: str) -> Section:
    """The centre of mass, factor and angles."""
    rows = tuple(
        (s.name, mm(s.x), mm(s.y), mm(s.height), f"{s.factor:.2f}", f"{s.tilt_left:.0f}° / {s.tilt_right:.0f}°",
         f"{a.approach:.0f}°", f"{a.ramp:.0f}°", f"{a.departure:.0f}° ({a.departs_at})")
        for s, a in zip(verdict.carrying.stability, verdict.outline.angles[1:], strict=True)
    )  # fmt: skip
    heads = (
        "Scenario",
        "aft",
        "right",
        "up",
        "T/2h",
        "tips left / right",
        "approach",
        "ramp",
        "departure",
    )
    words = (
        "Static: an upper bound. On its springs and tyres a vehicle tips earlier, and moving it earlier still.",
    )
    return Section(f"Centre of mass and angles, loaded, {length}", words, heads, rows)


def _towing(verdict: Verdict, kg: Write, word: str) -> Section:
    """What may be towed in every scenario."""
    found = verdict.towing
    rows = tuple((p.name, kg(p.vehicle), kg(p.trailer), kg(p.most), p.by) for p in found.points)
    words = (f"With {found.ball_share:.0%} of the trailer on the ball.",)
    heads = ("Scenario", f"vehicle, {word}", f"trailer, {word}", f"may tow, {word}", "set by")
    return Section("Towing", words, heads, rows)


def _budget(verdict: Verdict, kg: Write, word: str) -> Section:
    """The brief against what is left."""
    brief = verdict.job.brief
    if not brief.wishes:
        return Section("")
    found = verdict.budget
    rows = tuple(
        (
            r.wish.name,
            r.wish.need,
            kg(r.allowed),
            "not decided" if r.decided is None else kg(r.decided),
        )
        for r in found.rows
    )
    words = (
        *((brief.purpose,) if brief.purpose else ()),
        f"In '{found.scenario}' {kg(found.left)} {word} are left; with all that is needed and wanted "
        f"{kg(found.left_wanted)} ± {kg(found.uncertainty)} {word}.",
    )
    return Section("The brief", words, ("Wish", "", f"allowed, {word}", f"came to, {word}"), rows)


def _findings(verdict: Verdict) -> Section:
    """List what is found on loads, accepted looks with their reason."""
    rows = tuple(
        (f.severity, f.title, " / ".join(f"{v:,.1f}" for v in f.figures) + f" {f.unit}" * bool(f.figures),
         f.accepted or "open", f.source)
        for f in verdict.findings
        if f.code.startswith("loads.")
    )  # fmt: skip
    if not rows:
        return Section("Findings on loads", ("Nothing is found wrong.",))
    return Section(
        "Findings on loads", (), ("", "what", "measured / limit", "accepted", "source"), rows
    )


def _weighings(verdict: Verdict, kg: Write, word: str) -> Section:
    """Set what scales said against what was predicted without them."""
    rows = []
    for w, compared in zip(verdict.job.weighings, verdict.weighings, strict=True):
        name = verdict.loads.scenario(w.scenario).name
        for row in compared:
            rows.append((w.date or w.id, w.place, name, row.words, f"{kg(row.predicted)} ± {kg(row.uncertainty)}",
                         kg(row.read),
                         f"{row.difference:+,.0f}", f"{row.sigmas:+.1f}", "yes" if w.counts else "no"))  # fmt: skip
    if not rows:
        return Section("")
    heads = (
        "date",
        "place",
        "scenario",
        "",
        f"predicted, {word}",
        "read",
        "more by, kg",
        "sigma",
        "counts",
    )
    words = (
        ("All tables above follow the weighings that count.",)
        if any(w.counts for w in verdict.job.weighings)
        else ()
    )
    return Section("Weighings", words, heads, tuple(rows))


def _to_fill(verdict: Verdict, word: str) -> Section:
    """Leave room for weighed values and signatures."""
    blank = "........"
    rows = tuple((s.name, *(blank,) * 6) for s in verdict.loads.scenarios)
    rows += (("Place, date, scale", *("",) * 6), ("Builder: name, signature", *("",) * 6),
             ("Certifying engineer: name, number, signature", *("",) * 6), ("Customer: received", *("",) * 6))  # fmt: skip
    heads = (
        f"Weighed, {word}",
        "Front left",
        "Front right",
        "Rear left",
        "Rear right",
        "Front axle",
        "Rear axle",
    )
    return Section("To be weighed and signed", (), heads, rows)
