"""Outline: from sizes to findings, on the stages Survey and Body."""

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.assembly.study import Context, Study
from roomy_hull.core.findings import GEOMETRY, PRACTICE, Finding, Fix
from roomy_hull.core.refs import BODY, CANOPY, TRAY, VEHICLE, Ref
from roomy_hull.job.rooms import Room
from roomy_hull.kit.body import mudguards
from roomy_hull.kit.body.canopy import BayPlace
from roomy_hull.kit.vehicle_pieces import GUESSED
from roomy_hull.studies.outline import running
from roomy_hull.studies.outline.outline import KEY, LOADS, Outline, study

LEAST_DEPARTURE = 15.0
"""Below this a loaded vehicle's tail strikes in ditches (common practice). [degree]"""
LEAST_BAY = 60.0
"""A bay smaller than this is not offered as a remedy. [mm]"""


def judge(context: Context) -> list[Finding]:
    """Turn an outline into findings.

    Returns: Limits of the chosen rule, clearances, conflicts under the tray, doubtful ratings. [mm]
    """
    assembly = context.assembly
    result = context.of(KEY)
    rule = assembly.shop.dimension_rule(assembly.job.body.rule)
    found: list[Finding] = []
    for code, words, value, limit in (
        ("overhang", "the rear overhang", result.overhang, result.overhang_limit),
        ("width", "the overall width", result.width, rule.width),
        ("height", "the overall height", result.height, rule.height),
    ):
        if limit > 0 and value > limit + 0.5:
            found.append(
                Finding(f"outline.{code}", "stop", f"{words.capitalize()} is over the limit of {rule.name}",
                        (TRAY,), value, limit, "mm", rule.source)
            )  # fmt: skip
    for one in result.conflicts:
        found.append(
            Finding(f"outline.{one.kind}", "look" if one.guessed else "stop", f"The {one.name} stands in the {one.other}",
                    (Ref("body part", one.name), Ref("body part", one.other)), one.amount, 0.0, "mm",
                    GUESSED if one.guessed else GEOMETRY, where=(one.where,))
        )  # fmt: skip
    found += _canopy(result)
    found += _rooms(assembly)
    found += _proud(assembly)
    found += _wheels(result)
    found += _bays(assembly)
    gap = assembly.job.vehicle.clearance_behind_cab
    if assembly.job.body.tray.kind == "tray" and result.behind_cab < gap - 0.5:
        found.append(
            Finding("outline.cab", "stop", "The tray stands too near to the cab, which moves",
                    (TRAY,), result.behind_cab, gap, "mm", "the vehicle's body builder's guide, as entered")
        )  # fmt: skip
    worst = min(result.angles, key=lambda a: a.departure)
    if worst.departure < LEAST_DEPARTURE:
        found.append(
            Finding("outline.departure", "look",
                    f"{worst.scenario}: the departure angle is small, at the {worst.departs_at}",
                    (Ref("body part", worst.departs_at),), worst.departure, LEAST_DEPARTURE, "°", PRACTICE)
        )  # fmt: skip
    return found + _ratings(assembly) + running.judge(assembly)


def _canopy(result: Outline) -> list[Finding]:
    """Judge the canopy against the tray it stands on."""
    found = []
    for code, words, over in (
        ("tail", "past the tray's end", result.beyond_tail),
        ("edge", "past the tray's edges", result.beyond_edge),
    ):
        if over > 0.5:
            found.append(
                Finding(f"outline.{code}", "stop", f"The canopy stands {words}", (CANOPY,), over, 0.0,
                        "mm", GEOMETRY)
            )  # fmt: skip
    return found


def _wheels(result: Outline) -> list[Finding]:
    """Judge the rear tyres against the tray above and beside them."""
    room, found = result.wheel, []
    if room is None:
        return []
    wheels = (Ref("body part", "left rear wheel"), Ref("body part", "right rear wheel"))
    if room.above < room.needed - 0.5:
        through = room.above < -0.5
        title = (
            f"The rear tyres stand through the tray's {room.met}" if through
            else f"The rear tyres and their guards meet the tray's {room.met} before the axle's stop"
        )  # fmt: skip
        found.append(
            Finding("outline.wheel", "stop" if through else "look", title, wheels, room.above, room.needed, "mm",
                    GEOMETRY if through else f"{GEOMETRY}; the wheel travel as entered")
        )  # fmt: skip
    if room.outside > 0.5:
        found.append(
            Finding("outline.tyre", "look", "The rear tyres stand out of the tray that should cover them", wheels,
                    room.outside, 0.0, "mm", f"{PRACTICE}; the local road authority decides")
        )  # fmt: skip
    return found


def _past(assembly: Assembly, place: BayPlace) -> tuple[tuple[str, float], ...]:
    """By how much a bay's length, depth and height reach past the inside of what it is in. [mm]"""
    shell = assembly.ground.shell_of(place.bay.id)
    if shell is None:
        return ()
    inside = shell.inside
    corner = place.frame.point(place.size.x1, place.size.y1, place.size.z1)
    x, y, z = corner
    side = place.bay.side
    if side == "rear":
        along, inward = y - inside.y1, inside.x0 - x
    else:
        along, inward = x - inside.x1, y - inside.y1 if side == "left" else inside.y0 - y
    return (("length", along), ("depth", inward), ("height", z - inside.z1))


def _rooms(assembly: Assembly) -> list[Finding]:
    """Judge the made rooms against the tray they stand on: within its edges, and on its floor."""
    if assembly.job.body.tray.kind != "tray":
        return []
    found, floor = [], assembly.ground.floor
    for one in assembly.ground.rooms_there:
        if not one.room.made:
            continue
        b = one.box
        for code, words, over in (
            ("tail", "past the tray's front", floor.x0 - b.x0), ("tail", "past the tray's end", b.x1 - floor.x1),
            ("edge", "past the tray's edges", max(floor.y0 - b.y0, b.y1 - floor.y1)),
            ("floats", "over the tray's floor, on nothing", b.z0 - floor.z1),
        ):  # fmt: skip
            if over > 0.5:
                found.append(
                    Finding(f"outline.{code}", "stop", f"{one.room.name} stands {words}", (one.room.ref,), over, 0.0,
                            "mm", GEOMETRY, where=(b,))
                )  # fmt: skip
    return found


def _back_on(length: float, width: float, room: Room) -> dict[str, tuple[Fix, ...]]:
    """What brings a room back on to a tray of a size, by the finding; nothing where it is larger. [mm]"""
    shell, path = room.shell, f"body.rooms.{room.id}"
    found: dict[str, tuple[Fix, ...]] = {}
    start = min(max(0.0, room.start), length - shell.length)
    if start >= 0:
        found["outline.tail"] = (
            Fix(f"Set {room.name} {abs(start - room.start):.0f} mm "
                f"{'back' if start > room.start else 'forward'}", BODY, {f"{path}.start": start}),
        )  # fmt: skip
    play = (width - shell.width) / 2
    if play >= 0:
        across = min(max(room.across, -play), play)
        found["outline.edge"] = (
            Fix(f"Set {room.name} {abs(across - room.across):.0f} mm inward", BODY, {f"{path}.across": across}),
        )  # fmt: skip
    found["outline.floats"] = (Fix(f"Set {room.name} on the floor", BODY, {f"{path}.up": 0.0}),)
    return found


PROUD, TALL = 75.0, 400.0
"""How far a body stands wider than the cab on a side, and higher than its roof, before it is worth a look (common
practice). [mm]"""


def _proud(assembly: Assembly) -> list[Finding]:
    """Judge how far what is made stands out of the cab's silhouette: it is met by branches, wind and gateways."""
    if assembly.job.body.tray.kind != "tray":
        return []
    shape, ground = assembly.job.vehicle.shape, assembly.ground
    made = [(CANOPY, "canopy", ground.canopy)] if ground.canopy is not None else []
    made += [(r.room.ref, r.room.name, r.box) for r in ground.rooms_there if r.room.made]
    made.append((TRAY, "tray", ground.floor))
    found = []
    for ref, name, box in made:
        wide = max(box.y1, -box.y0) - shape.width / 2
        high = box.z1 - shape.height
        for over, limit, words in (
            (wide, PROUD, "wider than the cab: its front corners stand out beside it"),
            (high, TALL, "higher than the cab: its front upper corners stand out over it"),
        ):
            if over > limit:
                found.append(
                    Finding("outline.proud", "look", f"The {name} is {words}" if ref in (CANOPY, TRAY)
                            else f"{name} is {words}", (ref,), over, limit, "mm", PRACTICE, where=(box,))
                )  # fmt: skip
    return found


def _out_words(assembly: Assembly, place: BayPlace, size: str) -> str:
    """Out of what a bay reaches, in words."""
    shell = assembly.ground.shell_of(place.bay.id)
    word = "canopy" if shell is None or shell.ref == CANOPY else shell.value.name
    return f"The bay {place.bay.name} reaches out of the {word} by its {size}"


def _bays(assembly: Assembly) -> list[Finding]:
    """Judge the bays against the canopy's inside: what is outside cannot be built."""
    found = []
    for place in assembly.ground.bays.values():
        size, over = max(_past(assembly, place), key=lambda row: row[1])
        if over > 0.5:
            found.append(
                Finding("outline.bay", "stop", _out_words(assembly, place, size),
                        (Ref("bay", place.bay.id),), over, 0.0, "mm", GEOMETRY,
                        where=(place.frame.box(place.size),))
            )  # fmt: skip
    return found


def _ratings(assembly: Assembly) -> list[Finding]:
    """Judge what was entered of the vehicle."""
    vehicle = assembly.job.vehicle
    r, found = vehicle.ratings, []
    if r.standard == "upgraded" and not (r.certificate and r.signed):
        found.append(
            Finding("survey.certificate", "look",
                    "Upgraded ratings want a certificate and the name of who signed it", (VEHICLE,),
                    source="the certifying engineer decides")
        )  # fmt: skip
    axles = r.front_axle + r.rear_axle
    if axles < r.gross:
        found.append(
            Finding("survey.axles", "look", "The two axle ratings together are below the gross rating",
                    (VEHICLE,), axles, r.gross, "kg", "the rating plate; read it again")
        )  # fmt: skip
    return found


def fixes(context: Context, finding: Finding) -> tuple[Fix, ...]:
    """Compute the remedies of one outline finding.

    Args:
        finding: Any finding; those of other studies have none here.
    Returns: Sizes of the body to set, by path; empty where none helps by itself. [mm]
    """
    assembly, body = context.assembly, context.assembly.job.body
    canopy, tray = body.canopy, body.tray
    room = next((r for r in body.rooms if r.ref in finding.subjects), None)
    if room is not None:
        return _back_on(tray.length, tray.width, room).get(finding.code, ())
    if finding.code in ("outline.tail", "outline.edge") and canopy is not None:
        name, most, word = "length", tray.length - canopy.start, "long"
        if finding.code == "outline.edge":
            name, most, word = "width", tray.width, "wide"
        change: dict[str, float | str] = {f"body.canopy.{name}": most}
        return (Fix(f"Make the canopy {most:.0f} mm {word}", BODY, change),)
    shell = assembly.ground.shell_of(finding.subjects[0].id) if finding.subjects else None
    if finding.code == "outline.bay" and shell is not None:
        place = assembly.ground.bays[finding.subjects[0].id]
        sizes = {
            f"{shell.path}.bays.{place.bay.id}.{name}": getattr(place.bay, name) - over
            for name, over in _past(assembly, place)
            if over > 0.5
        }
        if min(sizes.values()) > LEAST_BAY:
            return (Fix(f"Make the bay {place.bay.name} as large as there is room", BODY, sizes),)
    return _of_tray(assembly, finding)


def _of_tray(assembly: Assembly, finding: Finding) -> tuple[Fix, ...]:
    """The remedies of a finding about the tray itself."""
    tray = assembly.job.body.tray
    if finding.code in ("outline.wheel", "outline.guard"):
        rail = mudguards.rail_for(assembly.job.vehicle, tray)
        if rail is not None and rail != tray.rail:
            return (Fix(f"Take rails of {rail}", BODY, {"body.tray.rail": rail}),)
    if finding.code == "outline.cab":
        gap = tray.gap + (finding.limit or 0.0) - (finding.measured or 0.0)
        return (Fix(f"Move the tray {gap - tray.gap:.0f} mm aft", BODY, {"body.tray.gap": gap}),)
    if finding.code == "outline.overhang":
        over = (finding.measured or 0.0) - (finding.limit or 0.0)
        if tray.kind == "tray" and tray.length - over > 300:
            shorter: dict[str, float | str] = {"body.tray.length": tray.length - over}
            return (Fix(f"Make the tray {over:.0f} mm shorter", BODY, shorter),)
    return ()


STUDY = Study(KEY, study, needs=(LOADS,), judge=judge, codes=("outline.", "survey."), fixes=fixes)
