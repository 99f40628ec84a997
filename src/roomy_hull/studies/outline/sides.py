"""The canopy's sides: doors that leave no post between them, that reach into the roof, bays without a door."""

import itertools

import msgspec

from roomy_hull.assembly.body import Ground, Shell
from roomy_hull.assembly.study import Context, Study, StudyKey
from roomy_hull.core.findings import GEOMETRY, PRACTICE, Finding, Fix, Severity
from roomy_hull.core.geometry.solids import Box, hull
from roomy_hull.core.mechanics.sections import section_height
from roomy_hull.core.refs import BODY, CANOPY, Ref
from roomy_hull.job.canopy import Canopy
from roomy_hull.kit.body import frame, sides
from roomy_hull.kit.body.sides import DoorPlace

KEY = StudyKey["tuple[Flaw, ...]"]("sides")


class Flaw(msgspec.Struct, frozen=True):
    """One thing wrong with a side.

    `kind` is ``leaves``, ``post``, ``corner``, ``roof``, ``frame``, ``bows``, ``rail``, ``bay`` or ``also``; `measured`
    and `limit` in mm; `doors` the ids of doors, or of the bay, with the face at which it should be open.
    """

    kind: str
    measured: float
    limit: float
    doors: tuple[str, ...]
    where: tuple[Box, ...]


def study(context: Context) -> tuple[Flaw, ...]:
    """Judge the sides of a canopy.

    Args:
        context: The job in vehicle axes. [mm]
    Returns: In the order of doors, then bays.
    """
    found: list[Flaw] = []
    for shell in context.assembly.ground.shells:
        found += _of_shell(context.assembly.ground, shell)
    return tuple(found)


def _of_shell(ground: Ground, shell: Shell) -> list[Flaw]:
    """Judge the sides of the canopy, or of one room."""
    canopy, box = shell.value, shell.box
    found: list[Flaw] = []
    places = sides.doors(canopy)
    for place in places:
        over = place.clear[3] - (canopy.height - canopy.roof)
        if over > 0.5 and canopy.kind != "cargo":
            found.append(Flaw("roof", over, 0.0, (place.door.id,), (_shut(canopy, box, place),)))
        corner = _corner(canopy, place)
        if corner is not None:
            found.append(Flaw("corner", *corner, (place.door.id,), (_shut(canopy, box, place),)))
    found += _frame(canopy, box, places)
    for one, other in itertools.combinations(places, 2):
        found += _between(canopy, box, one, other)
    for own in canopy.bays:
        bay = ground.bays[own.id]
        # The vehicle's own doors and lids are not drawn: a bay in the cab or under a lid is reached by them.
        if bay.doorless and not (shell.own and shell.ref != CANOPY):
            found.append(Flaw("bay", 0.0, 0.0, (own.id,), (bay.frame.box(bay.size),)))
        found += [
            Flaw("also", 0.0, 0.0, (own.id, way.face), (bay.frame.box(bay.size),))
            for way in bay.also
            if not way.openings
        ]
    return found


def _frame(canopy: Canopy, box: Box, places: tuple[DoorPlace, ...]) -> list[Flaw]:
    """Judge whether walls, roof and door heads leave the frame's bars their room."""
    if canopy.kind == "cargo":
        return []
    found: list[Flaw] = []
    for kind, room, needed in (
        ("frame", canopy.wall, frame.depth(canopy)), ("bows", canopy.roof, frame.hung(canopy))
    ):  # fmt: skip
        if room < needed - 0.01:
            found.append(Flaw(kind, room, needed, (canopy.frame,), (box,)))
    # The rail over a side's door lies under the roof's sheet, a jamb's sheet above the rebate.
    under = canopy.height - canopy.skin - section_height(canopy.frame) - canopy.skin
    for place in places:
        over = place.rebate[3] - under
        if place.door.side in ("left", "right") and place.made and over > 0.01:
            found.append(Flaw("rail", place.door.height, place.door.height - over, (place.door.id,),
                              (_shut(canopy, box, place),)))  # fmt: skip
    return found


def _corner(canopy: Canopy, place: DoorPlace) -> tuple[float, float] | None:
    """How far a made rebate is from the wall's nearer end, and how much a corner post needs; none where that fits."""
    if not place.made:
        return None
    post = min(canopy.wall, section_height(canopy.frame) + canopy.skin)
    near = min(place.rebate[0], sides.wall_length(canopy, place.door.side) - place.rebate[2])
    return (near, post) if near < post - 0.01 else None


def _shut(canopy: Canopy, box: Box, place: DoorPlace) -> Box:
    """The room of a door's leaves, shut, in vehicle axes. [mm]"""
    thick = sides.depth(canopy)[0]
    return hull(
        sides.stood(box, place.door.side, leaf.rect, 0.0, thick) for leaf in place.leaves
    ) if place.leaves else sides.stood(box, place.door.side, place.clear, 0.0, thick)  # fmt: skip


def _between(canopy: Canopy, box: Box, one: DoorPlace, other: DoorPlace) -> list[Flaw]:
    """Judge two doors: leaves that overlap, on one wall or about a corner, or that leave no post between them."""
    a, b = _shut(canopy, box, one), _shut(canopy, box, other)
    ids = (one.door.id, other.door.id)
    met = a.common(b)
    same = one.door.side == other.door.side
    apart = _post(one.clear, other.clear) if same else 0.0
    needed = 2 * (sides.LAP + sides.PANEL_GAP)
    if met is not None:
        return [
            Flaw(
                "leaves", apart if same else -min(met.size()), needed if same else 0.0, ids, (met,)
            )
        ]
    if same and 0 <= apart < needed - 0.01 and _beside(one.rebate, other.rebate):
        return [Flaw("post", apart, needed, ids, (a, b))]
    return []


def _post(one: tuple[float, ...], other: tuple[float, ...]) -> float:
    """How much wall stands between two clear openings, negative where they overlap. [mm]"""
    return max(
        one[0] - other[2], other[0] - one[2], one[1] - other[3], other[1] - one[3],
    )  # fmt: skip


def _beside(one: tuple[float, ...], other: tuple[float, ...]) -> bool:
    """Say whether two rebates run into each other."""
    return _post(one, other) < -0.01


def judge(context: Context) -> list[Finding]:
    """Word what is wrong with the sides.

    Args:
        context: The job in vehicle axes, with this study's result.
    Returns: In the order of the flaws. [mm]
    """
    found: list[Finding] = []
    flaws = context.of(KEY)
    for flaw in flaws:
        if flaw.kind == "also":
            key, face = flaw.doors
            name = context.assembly.ground.bays[key].bay.name
            found.append(
                Finding("side.also", "look", f"No door opens into the bay {name} at the {face}, where it should be open too",
                        (Ref("bay", key),), source=GEOMETRY, where=flaw.where)
            )  # fmt: skip
            continue
        if flaw.kind == "bay":
            name = context.assembly.ground.bays[flaw.doors[0]].bay.name
            found.append(
                Finding("side.bay", "stop", f"No door opens into the bay {name}", (Ref("bay", flaw.doors[0]),),
                        source=GEOMETRY, where=flaw.where)
            )  # fmt: skip
            continue
        refs: tuple[Ref, ...] = tuple(Ref("opening", f"door:{d}") for d in flaw.doors)
        if flaw.kind in ("frame", "bows"):
            shell = next((s for s in context.assembly.ground.shells if s.box in flaw.where), None)
            refs = (shell.ref if shell is not None else CANOPY,)
            canopy_frame = flaw.doors[0]
            words = (
                f"The frame of {canopy_frame} stands out of the wall into the bays" if flaw.kind == "frame"
                else f"The roof's bows of {canopy_frame} hang lower than the roof is deep"
            )  # fmt: skip
        elif flaw.kind == "rail":
            words = f"Door {flaw.doors[0]} leaves the rail above it no room"
        elif flaw.kind == "roof":
            words = f"Door {flaw.doors[0]} reaches into the roof"
        elif flaw.kind == "corner":
            words = f"The rebate of door {flaw.doors[0]} leaves no room for the corner post"
        elif flaw.kind == "post":
            words = f"Between doors {flaw.doors[0]} and {flaw.doors[1]} their rebates leave no post"
        else:
            words = f"Doors {flaw.doors[0]} and {flaw.doors[1]} overlap: their leaves lap over what is between them"
        source = (
            f"{PRACTICE}, lap and gap of a leaf" if flaw.kind in ("post", "corner") else GEOMETRY
        )
        severity: Severity = "stop" if flaw.kind in ("roof", "leaves") else "look"
        found.append(
            Finding(f"side.{flaw.kind}", severity, words, refs, flaw.measured, flaw.limit, "mm", source,
                    where=flaw.where)
        )  # fmt: skip
    return found


def fixes(context: Context, finding: Finding) -> tuple[Fix, ...]:
    """Compute the remedies of what is wrong with a side.

    Args:
        finding: Any finding; those of other studies have none here.
    Returns: Sizes of doors to set, by path. [mm]
    """
    shells = context.assembly.ground.shells
    of_door = {f"door:{d.id}": s for s in shells for d in s.value.doors}
    one = finding.subjects[0] if finding.subjects else CANOPY
    shell = of_door.get(one.id) or next((s for s in shells if s.ref == one), None)
    if shell is None or finding.measured is None or finding.limit is None:
        return ()
    places = {f"door:{d.door.id}": d for d in sides.doors(shell.value)}
    path = shell.path
    doors = [places[s.id].door for s in finding.subjects if s.id in places]
    if finding.code == "side.roof" and doors:
        door = doors[0]
        high = door.height - finding.measured - sides.LAP - sides.PANEL_GAP
        return (
            Fix(
                f"Make door {door.id} {high:.0f} mm high",
                BODY,
                {f"{path}.doors.{door.id}.height": high},
            ),
        )
    if finding.code in ("side.frame", "side.bows"):
        name = "wall" if finding.code == "side.frame" else "roof"
        return (
            Fix(f"Make the {name} {finding.limit:g} mm deep", BODY, {f"{path}.{name}": finding.limit}),
        )  # fmt: skip
    if finding.code == "side.rail" and doors:
        door, high = doors[0], finding.limit
        return (
            Fix(f"Make door {door.id} {high:g} mm high", BODY,
                {f"{path}.doors.{door.id}.height": high}),
        ) if high > 100 else ()  # fmt: skip
    if finding.code not in ("side.leaves", "side.post") or len(doors) != 2 or finding.limit <= 0:
        return ()
    first, second = sorted(doors, key=lambda d: d.start)
    short = finding.limit - (second.start - first.start - first.length)
    offered = []
    for door, start in ((first, first.start), (second, second.start + short)):
        long = door.length - short
        if short > 0 and long > 100:
            changes: dict[str, float | str] = {f"{path}.doors.{door.id}.length": long}
            if start != door.start:
                changes[f"{path}.doors.{door.id}.start"] = start
            offered.append(Fix(f"Make door {door.id} {short:.0f} mm shorter", BODY, changes))
    return tuple(offered)


STUDY = Study(KEY, study, judge=judge, codes=("side.",), fixes=fixes)
