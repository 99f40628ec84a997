"""The ground's two pictures: the elevation from where one stands, and the slice that explains it."""

import msgspec

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.assembly.body import Ground
from roomy_hull.assembly.things import Thing
from roomy_hull.core.geometry.solids import Box, hull
from roomy_hull.core.primitives import (
    Rect,
    Scene,
    Stroke,
    Words,
    rectangle,
)
from roomy_hull.drawing.scenes import body as body_scene
from roomy_hull.drawing.scenes import opened as opened_scene
from roomy_hull.drawing.scenes import outfit
from roomy_hull.drawing.scenes import vehicle as vehicle_scene
from roomy_hull.drawing.scenes.around import ground_line, person
from roomy_hull.drawing.view import ELEVATION, SLICE, Station, View, carried_over
from roomy_hull.job.carried import Carried
from roomy_hull.kit.body.pieces import parts_of

END_DEPTH = 1500.0
"""How much of the body's depth the slice shows from either end. [mm]"""


class Looks(msgspec.Struct, frozen=True):
    """What the viewer wants to see: open units, a person's stature (0 for nobody) [mm], and what is off in the set-up."""

    opened: frozenset[str] = frozenset()
    stature: float = 0.0
    off: frozenset[str] = frozenset()


def frame(
    assembly: Assembly,
    station: Station,
    *,
    whole: bool = True,
    opened: frozenset[str] = frozenset(),
) -> tuple[Rect, Rect]:
    """The stretch that elevation and slice show.

    Args:
        whole: The whole vehicle, or close up to the canopy's side.
        opened: Ids of openings that stand open; the close-up's slice makes room for them.
    Returns: (h0, k0, h1, k1) of the elevation and of the slice, with one common h. [mm]
    """
    near = _near_hull(assembly, station)
    if not whole and near is not None and station in ("left", "right", "rear"):
        return _close_up(assembly, station, near, opened)
    canopy = assembly.ground.canopy
    shape = assembly.job.vehicle.shape
    boxes = [assembly.ground.floor, *(t.envelope for t in assembly.things)]
    boxes += [o.opened_box for o in opened_scene.shown(assembly, opened)]
    if canopy is not None:
        boxes.append(canopy.moved(0, 0, 210))
    for room in assembly.ground.rooms_there:
        boxes.append(room.box)
        boxes += [room.alcove] if room.alcove is not None else []
    boxes += [r.box for r in assembly.ground.racks]
    half = max(shape.width / 2 + 60, *(max(-b.y0, b.y1) for b in boxes))
    top = max([b.z1 for b in boxes] + [shape.height])
    x1 = max([b.x1 for b in boxes] + [assembly.job.vehicle.tow.x])
    x0 = min([-shape.front] + [b.x0 for b in boxes])
    box = Box(x0 - 90, -half - 40, -230, x1 + 90, half + 40, top + 50)
    if station in ("rear", "front"):
        box = Box(box.x0, -half - 500, -90, box.x1, half + 500, top + 50)
    elevation, cut = ELEVATION[station].rect(box), SLICE[station].rect(box)
    if station in ("rear", "front"):
        cut = (cut[0], cut[1], cut[2], cut[1] + END_DEPTH)
    return elevation, cut


def _near_hull(assembly: Assembly, station: Station) -> Box | None:
    """Around the canopy and the rooms that are reached from where one stands. [mm]"""
    ground = assembly.ground
    boxes = [ground.canopy] if ground.canopy is not None else []
    boxes += [
        r.box for r in ground.rooms_there
        if any(b.side == station or station in b.also for b in r.room.shell.bays)
    ]  # fmt: skip
    return hull(boxes) if boxes else None


def _close_up(
    assembly: Assembly, station: Station, canopy: Box, opened: frozenset[str]
) -> tuple[Rect, Rect]:
    """Frame the canopy's side, and in the slice the near half with what stands open."""
    # Awnings and tents reach too far: they may run out of the picture, so that the units stay large.
    boxes = [
        o.opened_box for o in opened_scene.shown(assembly, opened)
        if o.side == station and o.kind != "outside"
    ]  # fmt: skip
    low, top = canopy.z0 - 190, canopy.z1 + 300
    out = 90.0
    for b in boxes:
        reach = {"left": canopy.y0 - b.y0, "right": b.y1 - canopy.y1, "rear": b.x1 - canopy.x1}[
            station
        ]
        out, low, top = max(out, reach + 60), min(low, b.z0 - 60), max(top, b.z1 + 60)
    if station == "rear":
        depth = max((p.bay.depth for p in assembly.ground.bays.values() if p.bay.side == "rear"),
                    default=500.0)  # fmt: skip
        box = Box(
            canopy.x1 - depth - 250, canopy.y0 - 120, low, canopy.x1 + out, canopy.y1 + 120, top
        )
    elif station == "left":
        box = Box(canopy.x0 - 120, canopy.y0 - out, low, canopy.x1 + 120, 60, top)
    else:
        box = Box(canopy.x0 - 120, -60, low, canopy.x1 + 120, canopy.y1 + out, top)
    return ELEVATION[station].rect(box), SLICE[station].rect(box)


def elevation(assembly: Assembly, station: Station, looks: Looks = Looks()) -> Scene:  # ruff: ignore[function-call-in-default-argument]  # frozen
    """Draw what one sees from a place.

    Returns: Strokes from back to front; those of a unit carry its id as tag. [mm]
    """
    return backdrop(assembly, station) + things(assembly, station, looks)


def things(assembly: Assembly, station: Station, looks: Looks) -> Scene:
    """Draw what stands in front of the backdrop from a place: units, carried items, a person.

    Returns: Strokes from back to front; those of a unit carry its id as tag. [mm]
    """
    view = ELEVATION[station]
    if station in ("above", "underneath"):
        return tuple(_plan_things(assembly, view, looks))
    primitives = [*outfit.ghosts(assembly, view, looks.off), *body_scene.rack(assembly, view)]
    # What is off lies behind all that is there.
    for thing in sorted(_by_nearness(assembly, view), key=lambda t: t.id not in looks.off):
        if thing.id in looks.off:
            if thing.place is None or thing.place.bay.side == station:
                primitives.append(rectangle("space", *view.rect(thing.envelope), 6, thing.id))
        elif isinstance(thing.value, Carried) and thing.value.kind in outfit.VEHICLE_KINDS:
            primitives += outfit.fitted(thing.value, view, view.rect(thing.envelope))
        elif isinstance(thing.value, Carried):
            primitives += body_scene.carried(thing, view, assembly.job.vehicle.tyre)
        elif thing.place is not None and thing.place.bay.side == station:
            primitives += _front_of(thing, view, gone=_leaves_its_place(thing, looks.opened))
    primitives += opened_scene.opened_things(assembly, view, station, looks.opened, plan=False)
    if station == "front":
        primitives += vehicle_scene.end(assembly.job.vehicle, rear=False)
    if looks.stature > 0:
        primitives += person(assembly, view, looks.stature)
    return tuple(primitives)


def backdrop(assembly: Assembly, station: Station) -> Scene:
    """Draw ground line, vehicle and body from a place.

    Returns: Strokes from back to front. [mm]
    """
    return tuple(_draw_backdrop(assembly, station))


class Backdrops:
    """Backdrops of both pictures, kept for as long as vehicle and body do not change."""

    def __init__(self) -> None:
        self._ground: Ground | None = None
        self._scenes: dict[tuple[Station, bool], Scene] = {}

    def of(self, assembly: Assembly, station: Station, *, upper: bool) -> Scene:
        """Draw the elevation's or the slice's backdrop from a place, or give the one drawn before.

        Args:
            upper: The elevation's; else the slice's.
        Returns: The very same for as long as vehicle and body stay. [mm]
        """
        if self._ground is not assembly.ground:
            self._ground, self._scenes = assembly.ground, {}
        key = (station, upper)
        if key not in self._scenes:
            draw = backdrop if upper else slice_backdrop
            self._scenes[key] = draw(assembly, station)
        return self._scenes[key]


def _draw_backdrop(assembly: Assembly, station: Station) -> list[Stroke]:
    """Draw ground line, vehicle and body for one station."""
    view, vehicle = ELEVATION[station], assembly.job.vehicle
    primitives: list[Stroke] = []
    if station in ("above", "underneath"):
        primitives += vehicle_scene.plan(vehicle, view)
        primitives += _plan_body(assembly, view)
        return primitives
    primitives += ground_line(frame(assembly, station)[0])
    primitives += body_scene.between_rails(assembly.ground, view)
    if station in ("left", "right"):
        primitives += vehicle_scene.side(vehicle, view.h[1])
    elif station == "rear":
        primitives += vehicle_scene.end(vehicle, rear=True)
    primitives += body_scene.tray(assembly, view)
    primitives += body_scene.canopy(assembly, view, station)
    primitives += outfit.rooms(assembly, view, station)
    primitives += outfit.racks(assembly, view)
    primitives += body_scene.bays(assembly.ground, view, station)
    return primitives


def _by_nearness(assembly: Assembly, view: View) -> list[Thing]:
    """Order things from far to near."""
    return sorted(assembly.things, key=lambda t: view.nearness(t.envelope))


def _leaves_its_place(thing: Thing, opened: frozenset[str]) -> bool:
    """Say whether a unit stands lower than its place because it is open."""
    return any(
        o.id in opened and any(s.verb == "lower" for s in o.motion.steps) for o in thing.openings
    )


def _front_of(thing: Thing, view: View, *, gone: bool = False) -> Scene:
    """Draw a unit's elevation in its place, or its empty place where it has been let down."""
    if gone:
        return (rectangle("space", *view.rect(thing.envelope), 6, thing.id),)
    h0, k0, h1, _k1 = view.rect(thing.envelope)
    side = thing.place.bay.side if thing.place is not None else "left"
    sign = -1 if side == "right" else 1
    elevation = thing.expansion.elevation
    if not elevation:
        return (rectangle("trouble", *view.rect(thing.envelope), tag=thing.id),)
    return carried_over(elevation, sign, h0 if sign > 0 else h1, k0, thing.id)


def slice_scene(assembly: Assembly, station: Station, looks: Looks = Looks()) -> Scene:  # ruff: ignore[function-call-in-default-argument]  # frozen
    """Draw the stretch under the elevation, seen from above, or from the side for a plan.

    Returns: Strokes; those of a unit carry its id as tag. [mm]
    """
    return slice_backdrop(assembly, station) + slice_things(assembly, station, looks)


def slice_backdrop(assembly: Assembly, station: Station) -> Scene:
    """Draw vehicle and body as the slice shows them. [mm]"""
    if station in ("above", "underneath"):
        return backdrop(assembly, "left")
    return tuple(_draw_slice(assembly, station))


def _draw_slice(assembly: Assembly, station: Station) -> list[Stroke]:
    """Draw the cab and the cut-open body."""
    view = SLICE[station]
    primitives = list(vehicle_scene.plan(assembly.job.vehicle, view))
    return primitives + _plan_body(assembly, view)


def slice_things(assembly: Assembly, station: Station, looks: Looks) -> Scene:
    """Draw units and carried items as the slice shows them. [mm]"""
    if station in ("above", "underneath"):
        return things(assembly, "left", Looks())
    return tuple(_plan_things(assembly, SLICE[station], looks))


def _plan_body(assembly: Assembly, view: View) -> list[Stroke]:
    """Draw tray and canopy cut open from above: floor, walls hatched, bays."""
    ground = assembly.ground
    found: list[Stroke] = [rectangle("tray plan", *view.rect(ground.floor), 6)]
    found += [
        rectangle("cut", *view.rect(p.box))
        for p in parts_of(ground.tray, "headboard", "arch")
        if p.role == "arch" or not p.id  # not the feet of its posts
    ]
    found += outfit.plan_rooms(assembly, view)
    box, clear = ground.canopy, ground.inside
    canopy = assembly.job.body.canopy
    if box is not None and clear is not None and canopy is not None:
        found += outfit.plan_canopy(ground, canopy, view, box, clear)
    for place in ground.bays.values():
        rect = view.rect(place.frame.box(place.size))
        found.append(rectangle("bay plan", *rect, tag=f"bay:{place.bay.id}"))
    return found + outfit.racks(assembly, view)


def _plan_things(assembly: Assembly, view: View, looks: Looks) -> list[Stroke]:
    """Draw units and carried items from above, the lowest first; open ones stand out dashed."""
    found: list[Stroke] = outfit.ghosts(assembly, view, looks.off)
    for thing in sorted(assembly.things, key=lambda t: (t.id not in looks.off, t.envelope.z1)):
        item = thing.value
        if item.id in looks.off:
            found.append(rectangle("space", *view.rect(thing.envelope), 4, item.id))
            continue
        if isinstance(item, Carried):
            if item.on_roof:
                found.append(rectangle("overhead", *view.rect(thing.envelope), 40, item.id))
            elif item.kind in outfit.VEHICLE_KINDS:
                found += outfit.fitted(item, view, view.rect(thing.envelope))
            else:
                found += body_scene.carried(thing, view, assembly.job.vehicle.tyre)
            continue
        rect = view.rect(thing.envelope)
        out = thing.moves and any(o.id in looks.opened and not o.motion.id for o in thing.openings)
        found.append(rectangle("space" if out else "unit plan", *rect, 4, item.id))
        if thing.place is not None:
            edge = thing.expansion.envelope.moved(item.u, item.v, item.w)
            front = Box(edge.x0, edge.y0, edge.z0, edge.x1, edge.y0 + 16, edge.z1)
            found.append(
                rectangle("unit face", *view.rect(thing.place.frame.box(front)), 0, item.id)
            )
    found += opened_scene.opened_things(assembly, view, "", looks.opened, plan=True)
    return found + _names(assembly, view, looks.off)


def _names(assembly: Assembly, view: View, off: frozenset[str]) -> list[Stroke]:
    """Write the name on each unit that nothing covers from above."""
    found: list[Stroke] = []
    units = [t for t in assembly.things if not isinstance(t.value, Carried) and t.id not in off]
    units.sort(
        key=lambda t: -t.envelope.z1
    )  # where two names would lie on one another, the upper one's stands
    boxes = sorted((t.envelope for t in units), key=lambda b: -b.z0)
    for thing in units:
        e = thing.envelope
        cx, cy, low = (e.x0 + e.x1) / 2, (e.y0 + e.y1) / 2, e.z1 - 1
        covered = False
        for o in boxes:
            if o[2] < low:
                break
            if o[0] < cx < o[3] and o[1] < cy < o[4] and o is not e:
                covered = True
                break
        if not covered:
            h0, k0, h1, k1 = view.rect(e)
            at = ((h0 + h1) / 2, (k0 + k1) / 2)
            found.append(Words("unit name", at, thing.name, 10.5, fit=h1 - h0 - 16,
                               tag=thing.id))  # fmt: skip
    return found
