"""Fit: from flaws to findings, with the fixes that can be computed."""

import math
from typing import TYPE_CHECKING

import msgspec

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.assembly.study import Context, Study
from roomy_hull.assembly.things import Thing
from roomy_hull.core.findings import GEOMETRY, PRACTICE, Finding, Fix, Severity
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.refs import BODY, Ref
from roomy_hull.job.carried import Carried
from roomy_hull.kinds.registry import kind_of
from roomy_hull.kit.body.faces import FaceWay
from roomy_hull.kit.body.pieces import parts_of
from roomy_hull.kit.vehicle_pieces import GUESSED
from roomy_hull.studies.fit import in_out
from roomy_hull.studies.fit.closed import KEY, Flaw, study
from roomy_hull.studies.fit.free_space import free_space
from roomy_hull.studies.fit.in_out import InOut

if TYPE_CHECKING:
    from roomy_hull.studies.fit.passage import Passage

_SIDE_WORDS = {
    "start": "ahead of the bay's start", "end": "past the bay's end",
    "front": "out of the access face", "back": "through the bay's back",
    "floor": "below the bay's floor", "roof": "above the bay's top",
}  # fmt: skip
_FRAME_WORDS = {
    "start": "front post", "end": "rear post", "floor": "sill", "roof": "head",
}  # fmt: skip


def judge(context: Context) -> list[Finding]:
    """Turn the flaws of a fit study into findings.

    Args:
        context: The job in vehicle axes, with the study's result.
    Returns: In the job's order. [mm]
    """
    result = context.of(KEY)
    things = {t.id: t for t in context.assembly.things}
    found = []
    for key, flaws in result.alone.items():
        solid = [f for f in flaws if f.kind == "body" and not f.how]
        found += [_alone(things[key], flaw, context) for flaw in flaws if flaw not in solid]
        if solid:
            found.append(_in_solids(things[key], solid))
    later = (context.results.get(key) for key in ("together", "in and out"))
    if result.crowded or any(getattr(found, "crowded", False) for found in later):
        found.append(
            Finding("fit.crowded", "stop", "So much stands in one place that not every pair of things was judged",
                    tuple(t.ref for t in context.assembly.things[:1]), source=GEOMETRY)
        )  # fmt: skip
    for (a, b), flaws in result.pairs.items():
        found += [_pair(things[a], things[b], flaw) for flaw in flaws]
    return found


def _pair(a: Thing, b: Thing, flaw: Flaw) -> Finding:
    """Word one flaw between two things."""
    names = f"{a.name} and {b.name}"
    if flaw.kind == "overlap":
        return Finding(
            "fit.overlap", "stop", f"{names} overlap", (b.ref, a.ref),
            flaw.amount, 0.0, "mm", GEOMETRY, where=flaw.where,
        )  # fmt: skip
    owner, other = (a, b) if flaw.other == a.ref else (b, a)
    if flaw.kind == "vent":
        title = f"{other.name} stands in the vent of {owner.name}"
        source = "its data sheet"
    elif flaw.kind == "service":
        title = f"{other.name} stands in the way of serving {owner.name}"
        source = "its data sheet"
    else:
        title = f"{owner.name} runs too near to {other.name}"
        source = f"{PRACTICE}, running gap"
    return Finding(
        f"fit.{flaw.kind}", "look", title, (owner.ref, other.ref), flaw.amount, flaw.limit, "mm",
        source, where=flaw.where,
    )  # fmt: skip


FAR = 1e6
"""What is further out than this is in no such room at all. [mm]"""


def _in_solids(thing: Thing, flaws: list[Flaw]) -> Finding:
    """Word all of vehicle and body that a thing stands in: one cause each, one finding."""
    met = [f.other for f in flaws if f.other is not None]
    names = [ref.word for ref in met]
    words = " and ".join([", ".join(names[:-1]), names[-1]] if len(names) > 1 else names)
    return Finding(
        "fit.body", "stop", f"{thing.name} stands in the {words}", (thing.ref, *met),
        max(f.amount for f in flaws), 0.0, "mm", GEOMETRY, where=tuple(b for f in flaws for b in f.where),
    )  # fmt: skip


_RAIL_WORDS = {
    "pitch": "is off the rail pitch",
    "slots": "is too narrow for two slots of the rail: it has no bolt holes",
}


def _worded(flaw: Flaw) -> tuple[Severity, str, str]:
    """The severity, the words behind a thing's name, and the source of a flaw of it by itself."""
    met = _met(flaw)
    if flaw.kind == "opening":
        return (
            "stop",
            f"stands behind the {_FRAME_WORDS.get(flaw.how, '')} and cannot slide out",
            GEOMETRY,
        )
    if flaw.kind == "body" and flaw.how == "guessed":
        return (
            "look",
            f"stands in the {met}",
            GUESSED,
        )
    if flaw.kind in _RAIL_WORDS:
        return "look", _RAIL_WORDS[flaw.kind], f"{PRACTICE}, slotted rails"
    rows: dict[str, tuple[Severity, str, str]] = {
        "outside": ("stop", f"stands {_SIDE_WORDS.get(flaw.how, '')}", GEOMETRY),
        "arch": ("stop", f"stands in the wheel arch ({met})", GEOMETRY),
        "vent": (
            "look",
            f"is too near to the {'wall' if flaw.how else 'wheel arch'}",
            "its data sheet",
        ),
        "running": (
            "look",
            f"runs too near to the {_FRAME_WORDS.get(flaw.how, 'wheel arch')}",
            f"{PRACTICE}, running gap",
        ),
        "place": ("stop", f"stands out of the room it is carried in ({met})", GEOMETRY),
    }
    return rows[flaw.kind]


def _alone(thing: Thing, flaw: Flaw, context: Context) -> Finding:
    """Word one flaw of a thing by itself."""
    name, own = thing.name, (thing.ref,)
    if flaw.kind == "unit":
        return Finding(
            "fit.unit", "stop", f"{name}: {flaw.how}", own, source=GEOMETRY, where=flaw.where
        )
    if flaw.kind == "air":
        return Finding("fit.air", "look", f"{name} has little air for a dog", own, flaw.amount, flaw.limit,
                       "cm²", f"{PRACTICE}, open vents besides the mesh door", where=flaw.where)  # fmt: skip
    if flaw.kind == "opening" and flaw.how == "pass":
        way = _way_in(thing, context)
        if way.how != "not":
            how = way.how.replace("rolled", "rolled over inside")
            return Finding("fit.passage", "note", f"{name} goes in only {how}", own, flaw.amount, 0.0,
                           "mm", "search for a way; try it with a template", where=flaw.where)  # fmt: skip
        words = "does not pass the opening, upright, turned or tilted"
        return Finding("fit.opening", "stop", f"{name} {words}{_LACKS[way.lacks]}", own, way.short or flaw.amount, 0.0,
                       "mm", GEOMETRY, where=flaw.where)  # fmt: skip
    severity, words, source = _worded(flaw)
    title, limit = f"{name} {words}", flaw.limit
    if flaw.kind == "vent":
        title = f"The vent of {name} {words}"
    measured = flaw.amount if flaw.amount < FAR else None
    code = f"fit.{flaw.kind}" + (f".{flaw.how}" if flaw.kind == "outside" else "")
    subjects: tuple[Ref, ...] = (thing.ref,)
    if flaw.kind in ("body", "arch", "place") and flaw.other is not None:
        subjects += (flaw.other,)
    return Finding(code, severity, title, subjects, measured, limit, "mm", source,
                   where=flaw.where)  # fmt: skip


def _met(flaw: Flaw) -> str:
    """Name what a thing stands in."""
    return flaw.other.word if flaw.other is not None else ""


_LACKS = {
    "": "", "width": ": it is too narrow", "height": ": it is too low", "depth": ", and the bay is too shallow to turn in",
}  # fmt: skip


def _way_in(thing: Thing, context: Context) -> "Passage":
    """Search how a unit can be got in past what stands in its bay already when it is fitted, by any of its bay's faces."""
    from roomy_hull.studies.fit.passage import (  # rarely asked, and not to slow the start  # ruff: ignore[import-outside-top-level]  # rarely asked, and not to slow the start
        Passage,
        passage,
    )

    unit, place = thing.value, thing.place
    if place is None or isinstance(unit, Carried):
        return Passage("not")
    e, bay = thing.in_bay, Box(0.0, 0.0, 0.0, *place.size.size())
    inside = _inside_before(thing, context)
    faces = [(FaceWay("inside", 1, -1, place.openings), ""),
             *((way, f", by its {way.face} face") for way in place.also)]  # fmt: skip
    best = Passage("not", math.inf)
    for face, words in faces:
        own, room = face.seen(e, bay), face.seen(bay, bay).size()
        there = tuple(face.seen(i, bay) for i in inside)
        for opening in face.openings:
            # In the empty bay first: what finds no way there needs no closer look.
            found = passage(own.size(), room, opening, own[:3])
            if found.how != "not" and there:
                found = passage(own.size(), room, opening, own[:3], there)
            if found.how != "not":
                return msgspec.structs.replace(found, how=f"{found.how}{words}")
            if found.short < best.short:
                best = found
    return best if best.lacks else Passage("not")


def _inside_before(thing: Thing, context: Context) -> tuple[Box, ...]:
    """The room of those units that are fitted before one in its bay, in the bay's directions. [mm]"""
    blocked: InOut | None = context.results.get(in_out.KEY)
    if blocked is None or thing.place is None:
        return ()
    order = blocked.order.get(thing.place.bay.id, ())
    before = order[: order.index(thing.id)] if thing.id in order else ()
    found = []
    for t in context.assembly.things:
        if t.id in before and not isinstance(t.value, Carried):
            by = (t.value.u, t.value.v, t.value.w)
            found += [b.moved(*by) for b in t.expansion.bulk]
    return tuple(found)


def fixes(context: Context, finding: Finding) -> tuple[Fix, ...]:
    """Compute the remedies of one finding; done when somebody asks, since a drag makes many.

    Args:
        finding: Any finding; those of other studies have no fixes here.
    Returns: What to set, each by itself enough where it is a move. [mm]
    """
    assembly = context.assembly
    things = [t for s in finding.subjects if (t := assembly.thing(s)) is not None]
    if not things:
        return ()
    if finding.code.startswith("fit.outside"):
        return _moves(assembly, (things[0],)) or _inward(things[0])
    if finding.code == "fit.pitch":
        return _on_pitch(things[0])
    if finding.code == "fit.slots" and finding.limit is not None:
        words = f"Make {things[0].name} {finding.limit:.0f} mm wide"
        return (Fix(words, things[0].ref, {"width": finding.limit}),)
    moves: tuple[Fix, ...] = ()
    if finding.code == "fit.opening":
        moves = _into_opening(assembly, things[0])
    if finding.code in (
        "fit.overlap",
        "fit.running",
        "fit.vent",
        "fit.opening",
        "fit.arch",
        "fit.body",
    ):
        moves = moves or _moves(assembly, tuple(things))
    if finding.code == "fit.arch":
        moves = (*_round_the_arch(assembly, things[0]), *moves)
    return moves


def _round_the_arch(assembly: Assembly, thing: Thing) -> tuple[Fix, ...]:
    """Offer to build a unit round the arch that it stands in, where its kind can be."""
    unit, place = thing.value, thing.place
    if place is None or isinstance(unit, Carried):
        return ()
    for arch in parts_of(assembly.ground.tray, "arch"):
        if thing.envelope.shares(arch.box):
            ends = (place.frame.local(*arch.box[:3]), place.frame.local(*arch.box[3:]))
            low, high = (tuple(f(p) for p in zip(*ends, strict=True)) for f in (min, max))
            room = Box(*low, *high).moved(-unit.u, -unit.v, -unit.w)
            changes = kind_of(unit).around(unit, room, place.bay.side)
            if changes:
                return (Fix(f"Build {unit.name} round the wheel arch", unit.ref, changes),)
    return ()


def _moves(assembly: Assembly, candidates: tuple[Thing, ...]) -> tuple[Fix, ...]:
    """Offer the nearest free place along the wall for each of some units."""
    fixes = []
    for thing in candidates:
        unit, place = thing.value, thing.place
        if place is None or isinstance(unit, Carried) or thing.trouble:
            continue
        space = free_space(assembly, thing, place, unit.v)
        u = space.nearest(unit.u, unit.w, place.bay.pitch)
        if u is None or abs(u - unit.u) < 0.01:
            continue
        fixes.append(along_the_wall(thing, u - unit.u))
    return tuple(fixes)


def _into_opening(assembly: Assembly, thing: Thing) -> tuple[Fix, ...]:
    """Offer the least move that brings a unit behind its clear opening, and a bay's floor raised to the sill."""
    unit, place = thing.value, thing.place
    if place is None or isinstance(unit, Carried):
        return ()
    e = thing.in_bay
    u0, w0, u1, w1 = place.opening_for(e)
    pitch = place.bay.pitch
    u, w = unit.u, unit.w
    if e.x0 < u0 - 0.01:
        u += -(-(u0 - e.x0) // pitch) * pitch if pitch > 0 else u0 - e.x0
    elif e.x1 > u1 + 0.01:
        u -= -(-(e.x1 - u1) // pitch) * pitch if pitch > 0 else e.x1 - u1
    w += max(0.0, w0 - e.z0) - max(0.0, e.z1 - w1)
    offered: list[Fix] = []
    if (u, w) != (unit.u, unit.w) and free_space(assembly, thing, place, unit.v).allows(u, w):
        changes: dict[str, float | str] = {}
        words = []
        if u != unit.u:
            offered_u = along_the_wall(thing, u - unit.u)
            changes |= offered_u.changes
            words.append(offered_u.words.removeprefix(f"Move {unit.name} "))
        if w != unit.w:
            changes["w"] = w
            words.append(f"{abs(w - unit.w):.0f} mm {'up' if w > unit.w else 'down'}")
        offered.append(Fix(f"Move {unit.name} {' and '.join(words)}", unit.ref, changes))
    low = w0 - e.z0
    if low > 0.01 and place.bay.height - low > 100:
        path = f"{assembly.job.body.path_of_bay(place.bay.id)}."
        sizes: dict[str, float | str] = {
            path + "sill": place.bay.sill + low,
            path + "height": place.bay.height - low,
        }
        offered.append(
            Fix(f"Raise the floor of bay {place.bay.name} {low:.0f} mm, to its sill", BODY, sizes)
        )
    return tuple(offered)


def along_the_wall(thing: Thing, du: float) -> Fix:
    """Word a move along the wall."""
    unit = thing.value
    side = thing.place.bay.side if thing.place else "left"
    ways = ("to the right", "to the left") if side == "rear" else ("aft", "forward")
    way = ways[0] if du > 0 else ways[1]
    u = getattr(unit, "u", 0.0) + du
    return Fix(f"Move {unit.name} {abs(du):.0f} mm {way}", unit.ref, {"u": u})


def _inward(thing: Thing) -> tuple[Fix, ...]:
    """Offer to push a unit back into its bay, or to make it as small as the bay."""
    unit, place = thing.value, thing.place
    if place is None or isinstance(unit, Carried):
        return ()
    changes: dict[str, float | str] = {}
    for field, size, room in (
        ("u", unit.width, place.size.x1),
        ("v", unit.depth, place.size.y1),
        ("w", unit.height, place.size.z1),
    ):
        at = getattr(unit, field)
        pitch = place.bay.pitch if field == "u" else 0.0
        if size > room:
            name = {"u": "width", "v": "depth", "w": "height"}[field]
            changes[name], changes[field] = room, 0.0
            continue
        inside = min(max(at, 0.0), room - size)
        if inside != at and pitch > 0:
            inside = inside // pitch * pitch
        if inside != at:
            changes[field] = inside
    if not changes:
        return ()
    smaller = any(k in changes for k in ("width", "depth", "height"))
    words = f"Make {unit.name} fit the bay" if smaller else f"Move {unit.name} into its bay"
    return (Fix(words, unit.ref, changes),)


def _on_pitch(thing: Thing) -> tuple[Fix, ...]:
    """Offer the nearest place on the rail pitch."""
    unit, place = thing.value, thing.place
    if place is None or isinstance(unit, Carried):
        return ()
    pitch = place.bay.pitch
    return (along_the_wall(thing, round(unit.u / pitch) * pitch - unit.u),)


STUDY = Study(KEY, study, judge=judge, codes=("fit.",), fixes=fixes)
