"""From a Job to its Assembly: every solid, mass and part in vehicle axes, unchanged units reused."""

import msgspec

from roomy_hull.assembly.openings import Opening, fixed, of_body, of_carried, of_unit
from roomy_hull.core.doubt import doubt_of
from roomy_hull.core.errors import InputError
from roomy_hull.core.frames import Frame
from roomy_hull.core.motion import Piece
from roomy_hull.core.sheetmetal import Part
from roomy_hull.core.solids import Box
from roomy_hull.job.model import Job
from roomy_hull.job.unit import Carried, Unit
from roomy_hull.kit import canopy as canopy_kit
from roomy_hull.kit import outside
from roomy_hull.kit import tray as tray_kit
from roomy_hull.kit.canopy import BayPlace
from roomy_hull.kit.expansion import Expansion, Lump, Solid, Zone
from roomy_hull.kit.kinds import expand


class Mass(msgspec.Struct, frozen=True):
    """One mass in vehicle axes.

    `fill` is what scales it: ``fixed``, ``contents``, ``water``, ``fuel``, ``ball`` or
    ``person 0`` …; `mount` is what it leaves with: ``vehicle``, ``tray`` or ``canopy``.
    For people and the ball, `kg` is 1 and the scenario holds the mass.
    """

    owner: str
    label: str
    kg: float
    sigma: float
    x: float
    y: float
    z: float
    fill: str = "fixed"
    mount: str = "vehicle"


class Thing(msgspec.Struct, frozen=True):
    """A unit or carried item in vehicle axes.

    Attributes
    ----------
    id : str
        The id of the unit or carried item.
    value : Unit or Carried
        What the job says.
    expansion : Expansion
        The thing in its own frame; a carried item is a plain box.
    place : BayPlace or None
        Its bay; none for a carried item.
    envelope, reach : Box
        Around its solids, and around solids and keep-clear zones together.
    solids, zones
        Boxes in vehicle axes, in the order of the expansion.
    masses : tuple of Mass
        Its masses.
    trouble : str
        Why it could not be written out (it is then a plain block), else empty.
    openings : tuple of Opening
        What opens on it.
    """

    id: str
    value: Unit | Carried
    expansion: Expansion
    place: BayPlace | None
    envelope: Box
    reach: Box
    solids: tuple[Box, ...]
    zones: tuple[Box, ...]
    masses: tuple[Mass, ...]
    trouble: str = ""
    openings: tuple[Opening, ...] = ()

    @property
    def moves(self) -> bool:
        """Whether any of it slides."""
        return self.expansion.travel > 0

    @property
    def still(self) -> tuple[Box, ...]:
        """Those of its solids that stay where they are. [mm]"""
        pairs = zip(self.expansion.solids, self.solids, strict=True)
        if not self.openings:
            return self.solids
        return tuple(box for solid, box in pairs if not solid.moves)


class Ground(msgspec.Struct, frozen=True):
    """What the things stand on: bays, body solids, and the masses of vehicle and body.

    `unit_mount` is what the units come off with: the canopy, or never where it is the vehicle's own.
    """

    bays: dict[str, BayPlace]
    tray: dict[str, Box]
    canopy: Box | None
    inside: Box | None
    cab: Box
    masses: tuple[Mass, ...]
    parts: tuple[Part, ...]
    unit_mount: str
    openings: tuple[Opening, ...] = ()
    fixed: tuple[tuple[str, Piece], ...] = ()


class Assembly(msgspec.Struct, frozen=True):
    """The whole job in vehicle axes."""

    job: Job
    ground: Ground
    things: tuple[Thing, ...]

    def thing(self, key: str) -> Thing | None:
        """Find a thing by its id."""
        return next((t for t in self.things if t.id == key), None)

    def openings(self) -> list[Opening]:
        """Give everything that opens: the body's doors, then each thing's."""
        found = list(self.ground.openings)
        for thing in self.things:
            found += thing.openings
        return found

    def opening(self, key: str) -> Opening | None:
        """Find an opening by its id."""
        return next((o for o in self.openings() if o.id == key), None)

    def names(self) -> dict[str, str]:
        """Give the name of every opening and every thing, by id."""
        found = {o.id: o.name for o in self.openings()}
        return found | {t.id: t.value.name for t in self.things}

    def masses(self) -> list[Mass]:
        """Give all masses: vehicle and body, then each thing's."""
        found = list(self.ground.masses)
        for thing in self.things:
            found += thing.masses
        return found

    def parts(self) -> list[Part]:
        """Give all parts: body, then each thing's."""
        found = list(self.ground.parts)
        for thing in self.things:
            found += thing.expansion.parts
        return found


def assemble(job: Job, previous: Assembly | None = None, *, opens: bool = True) -> Assembly:
    """Expand a job, reusing from an earlier assembly whatever did not change.

    Parameters
    ----------
    job : Job
        The job.
    previous : Assembly or None
        An assembly of an earlier value of the job; only a memory, it never alters the result.
    opens : bool
        Whether what opens is worked out too; without, for a first quick look.

    Returns
    -------
    Assembly
        The job in vehicle axes. A unit that cannot be written out becomes a plain block with
        its trouble named. [mm, kg]
    """
    same_ground = (
        previous is not None
        and previous.job.vehicle is job.vehicle
        and previous.job.body is job.body
    )
    ground = previous.ground if previous is not None and same_ground else _ground(job, opens=opens)
    known = (
        {id(t.value): t for t in previous.things} if previous is not None and same_ground else {}
    )
    before = {t.id: t for t in previous.things} if previous is not None else {}
    things = tuple(
        known.get(id(value)) or _thing(value, ground, before.get(value.id), opens=opens)
        for value in (*job.units, *job.carried)
    )
    return Assembly(job, ground, things)


def trial_thing(value: Unit | Carried, assembly: Assembly) -> Thing:
    """Expand a unit or carried item on an assembly's ground without adding it to the job.

    Parameters
    ----------
    value : Unit or Carried
        What to try; a unit's bay must exist. [mm]
    assembly : Assembly
        Whose bays are used.

    Returns
    -------
    Thing
        The thing in vehicle axes.
    """
    return _thing(value, assembly.ground)


def _thing(
    value: Unit | Carried, ground: Ground, before: Thing | None = None, *, opens: bool = True
) -> Thing:
    """Expand one unit or carried item and place it; one that only moved keeps its expansion."""
    if isinstance(value, Carried):
        return _carried(value, opens=opens)
    place = ground.bays[value.bay]
    trouble = ""
    if before is not None and _only_moved(before, value, place):
        expansion, trouble = before.expansion, before.trouble
    else:
        try:
            expansion = expand(value, place.bay.pitch, place.bay.side)
        except InputError as error:
            trouble = f"{error.what}. {error.remedy}"
            expansion = _block(value)
    frame = place.frame
    at = Frame(*frame.point(value.u, value.v, value.w), frame.side)
    solids = tuple(at.box(s.box) for s in expansion.solids)
    zones = tuple(at.box(z.box) for z in expansion.zones)
    openings: tuple[Opening, ...] = ()
    try:
        openings = of_unit(value.id, expansion.motions, at) if opens else ()
    except InputError as error:
        trouble = trouble or f"{error.what}. {error.remedy}"
    envelope = at.box(expansion.envelope)
    masses = tuple(
        Mass(
            value.id, lump.label, lump.kg, doubt_of(lump.kg, lump.source), *at.point(*lump.at),
            fill=lump.fill, mount=ground.unit_mount,
        )
        for lump in expansion.lumps
        if lump.kg > 0
    )  # fmt: skip
    reach = _around(envelope, zones)
    return Thing(
        value.id, value, expansion, place, envelope, reach, solids, zones, masses,
        trouble, openings,
    )  # fmt: skip


def _only_moved(before: Thing, value: Unit, place: BayPlace) -> bool:
    """Say whether a unit is the same as before but for its place on rails of the same pitch."""
    old = before.value
    if isinstance(old, Carried) or before.place is None:
        return False
    here, bay = before.place.bay, place.bay
    if here.pitch != bay.pitch or (here.side == "right") != (bay.side == "right"):
        return False
    there = msgspec.structs.replace(old, bay=value.bay, u=value.u, v=value.v, w=value.w)
    return bool(there == value)


def _around(envelope: Box, zones: tuple[Box, ...]) -> Box:
    """Grow an envelope over some zones."""
    if not zones:
        return envelope
    columns = list(zip(envelope, *zones, strict=True))
    return Box(*(min(c) for c in columns[:3]), *(max(c) for c in columns[3:]))


def _block(unit: Unit) -> Expansion:
    """Stand in for a unit that cannot be written out: its outside box and its contents."""
    box = Box(0, 0, 0, unit.width, unit.depth, unit.height)
    lump = Lump("contents", unit.contents, unit.contents_source, box.centre(), "contents")
    return Expansion((Solid(box, "made"),), (), (lump,), (), box, ())


def _carried(item: Carried, *, opens: bool) -> Thing:
    """Place a carried item as one box."""
    box = outside.box_of(item)
    centre = box.centre()
    masses = [
        Mass(item.id, item.name, item.mass, doubt_of(item.mass, item.mass_source), *centre,
             mount=item.mount)
    ]  # fmt: skip
    if item.contents:
        masses.append(
            Mass(item.id, "contents", item.contents, doubt_of(item.contents, "estimate"), *centre,
                 fill="contents", mount=item.mount)
        )  # fmt: skip
    own = Box(0, 0, 0, item.length, item.width, item.height)
    moves = outside.motions(item)
    whole = any(m.box == own for motion in moves for m in motion.moved)
    expansion = Expansion((Solid(own, "carried", moves=whole),), (), (), (), own, (), motions=moves)
    openings = of_carried(item.id, moves, (box.x0, box.y0, box.z0), item.side) if opens else ()
    return Thing(item.id, item, expansion, None, box, box, (box,), (), tuple(masses), "", openings)


def _ground(job: Job, *, opens: bool) -> Ground:
    """Place vehicle and body, and take from the kerb masses what was aboard at the weighing."""
    vehicle, body = job.vehicle, job.body
    canopy = body.canopy
    parts: tuple[Part, ...] = tray_kit.parts(body.tray, vehicle.tyre)
    masses = _kerb(job)
    masses += _lumps("tray", tray_kit.lumps(vehicle, body.tray), "tray")
    if canopy is not None:
        parts += canopy_kit.parts(canopy)
        masses += _lumps("canopy", canopy_kit.lumps(vehicle, body), "canopy")
    shape = vehicle.shape
    cab = Box(-shape.front, -shape.width / 2, shape.sill,
              vehicle.cab_back, shape.width / 2, shape.height)  # fmt: skip
    solids, outer = tray_kit.solids(vehicle, body.tray), canopy_kit.outside(vehicle, body)
    return Ground(
        canopy_kit.bays(vehicle, body),
        solids,
        outer,
        canopy_kit.inside(vehicle, body),
        cab,
        tuple(masses),
        parts,
        "canopy" if canopy is None or canopy.kind == "canopy" else "vehicle",
        of_body(body, outer, solids) if opens else (),
        fixed(vehicle, body, cab, solids, outer),
    )


def _lumps(owner: str, lumps: tuple[Lump, ...], mount: str) -> list[Mass]:
    """Turn lumps that are already in vehicle axes into masses."""
    return [
        Mass(owner, lp.label, lp.kg, doubt_of(lp.kg, lp.source), *lp.at, lp.fill, mount)
        for lp in lumps
    ]


def _kerb(job: Job) -> list[Mass]:
    """Give the bare vehicle at its two axles, its fuel, its seats and its ball.

    Driver, fuel and tools that were aboard at the weighing are taken off where they sat, so that no
    scenario counts them twice.
    """
    vehicle = job.vehicle
    kerb, tank, base = vehicle.kerb, vehicle.fuel, vehicle.wheelbase
    seat = vehicle.seats[0]
    aboard = (
        (kerb.driver, seat.x), (kerb.fuel * tank.density, tank.x), (kerb.tools, kerb.tools_x)
    )  # fmt: skip
    rear = kerb.rear - sum(kg * x / base for kg, x in aboard)
    front = kerb.front - sum(kg * (1 - x / base) for kg, x in aboard)
    z = kerb.height
    found = [
        Mass("vehicle", "kerb, front axle", front, doubt_of(front, kerb.source), 0.0, 0.0, z),
        Mass("vehicle", "kerb, rear axle", rear, doubt_of(rear, kerb.source), base, 0.0, z),
    ]
    for one in (tank, vehicle.long_range):
        if one is not None:
            full = one.litres * one.density
            found.append(Mass("vehicle", "fuel", full, doubt_of(full, "data sheet"), one.x, one.y,
                              one.z, "fuel"))  # fmt: skip
    for i, place in enumerate(vehicle.seats):
        found.append(Mass("vehicle", place.name, 1.0, 0.05, place.x, place.y, place.z,
                          f"person {i}"))  # fmt: skip
    found.append(Mass("trailer", "ball mass", 1.0, 0.05, vehicle.tow.x, 0.0, vehicle.tow.z, "ball"))
    return found


def expanded_zones(thing: Thing) -> tuple[tuple[Zone, Box], ...]:
    """Give a thing's zones with their boxes in vehicle axes."""
    return tuple(zip(thing.expansion.zones, thing.zones, strict=True))
