"""From a Job to its Assembly: every solid, mass and part in vehicle axes, unchanged units reused."""

import functools
import math
from collections.abc import Mapping

import msgspec

from roomy_hull.assembly.body import Ground, ground_of, leaves_hung
from roomy_hull.assembly.built import PartBuilt, altered
from roomy_hull.assembly.motions import Opening, of_carried, of_unit
from roomy_hull.assembly.things import AnyThing, Mass, Thing
from roomy_hull.core.capabilities import PLAIN, Held, Role, placed
from roomy_hull.core.errors import InputError
from roomy_hull.core.fill import CONTENTS
from roomy_hull.core.geometry.frames import Frame
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.parts import Part
from roomy_hull.core.refs import TRAY, VEHICLE, Ref
from roomy_hull.core.uncertainty import uncertainty_of
from roomy_hull.job.body import Tray
from roomy_hull.job.carried import Carried
from roomy_hull.job.goods import CAB, Good
from roomy_hull.job.model import Job
from roomy_hull.kinds.expansion import Expansion, PointMass, Solid, phase_of
from roomy_hull.kinds.kind import Site
from roomy_hull.kinds.placed import Placed
from roomy_hull.kinds.registry import expand, kind_of
from roomy_hull.kit import carried as carried_kit
from roomy_hull.kit.body import undertray
from roomy_hull.kit.body.canopy import BayPlace
from roomy_hull.shop.shop import Shop, shipped_shop


class Assembly(msgspec.Struct, frozen=True, dict=True):
    """The whole job in vehicle axes, and the shop that makes it; `opens` says whether what opens is worked out.

    `built` are parts that were cut to another size than drawn, by the id of their unit.
    """

    job: Job
    shop: Shop
    ground: Ground
    things: tuple[Thing, ...]
    opens: bool = True
    built: Mapping[str, tuple[PartBuilt, ...]] = {}

    def thing(self, key: str | Ref) -> Thing | None:
        """Find a thing by its id, or by a reference to it; none for a reference to anything else."""
        if isinstance(key, Ref):
            if not key.is_thing:
                return None
            key = key.id
        return self._things.get(key)

    @functools.cached_property
    def _things(self) -> dict[str, Thing]:
        return {t.id: t for t in reversed(self.things)}  # of two with one id the first

    @functools.cached_property
    def everything(self) -> tuple[AnyThing, ...]:
        """All that has a place: things, then those of the body."""
        return (*self.things, *self.ground.things)

    def doing(self, *roles: Role) -> list[AnyThing]:
        """List all that has one of some roles, in the order of `everything`."""
        return [t for t in self.everything if not t.capabilities.roles.isdisjoint(roles)]

    def any_thing(self, key: str) -> AnyThing | None:
        """Find whatever has a place by its id, the body's own too."""
        return self._things.get(key) or next((t for t in self.ground.things if t.id == key), None)

    @property
    def names(self) -> dict[str, str]:
        """What everything is called, by its id."""
        return {t.id: t.name for t in self.everything}

    def openings(self) -> list[Opening]:
        """List everything that opens: the body's doors, then each thing's."""
        found = list(self.ground.openings)
        for thing in self.things:
            found += thing.openings
        return found

    def opening(self, key: str) -> Opening | None:
        """Find an opening by its id."""
        return self._openings.get(key)

    @functools.cached_property
    def _openings(self) -> dict[str, Opening]:
        return {o.id: o for o in reversed(self.openings())}

    def masses(self) -> list[Mass]:
        """List all masses: vehicle and body, then each thing's, then the goods in the cab."""
        found = list(self.ground.masses)
        for thing in self.things:
            found += thing.masses
        return found + self.in_cab()

    def in_cab(self) -> list[Mass]:
        """The goods that ride with the people, behind the seats. [mm]"""
        seats = self.job.vehicle.seats
        x = max((s.x for s in seats), default=self.job.vehicle.cab_back - 500.0)
        z = sum(s.z for s in seats) / len(seats) if seats else 900.0
        return [
            Mass(
                VEHICLE,
                g.name,
                g.kg,
                uncertainty_of(g.kg, g.mass_source),
                x,
                0.0,
                z,
                CONTENTS._replace(only=g.only),
            )
            for g in self.job.goods
            if g.place == CAB and g.kg > 0
        ]

    def parts(self) -> list[Part]:
        """List all parts: body, then each thing's."""
        found = list(self.ground.parts)
        for thing in self.things:
            found += thing.expansion.parts
        return found


def assemble(
    job: Job, previous: Assembly | None = None, *, opens: bool = True, shop: Shop | None = None,
    built: Mapping[str, tuple[PartBuilt, ...]] | None = None,
) -> Assembly:  # fmt: skip
    """Expand a job, reusing from an earlier assembly whatever did not change.

    Args:
        previous: An assembly of an earlier value of the job; only a memory, it never alters the result.
        opens: Whether what opens is worked out too; without, for a first quick look.
        shop: Who makes it; the shop of the earlier assembly, or the shipped values, where none is given.
        built: Parts that were cut to another size, by the id of their unit.
    Returns:
        The job in vehicle axes. A unit that cannot be written out becomes a plain block with its trouble named.
        [mm, kg]
    Raises:
        InputError: The shop lacks a material of the body.
    """
    if shop is None:
        shop = previous.shop if previous is not None else shipped_shop()
    if previous is not None and previous.shop is not shop:
        previous = None
    # What a first quick look made knows nothing of what opens; it lends its expansions only.
    old = previous.ground if previous is not None and previous.opens == opens else None
    stowed = by_place(job.goods)
    under = _under(job)
    if (
        previous is not None
        and old is not None
        and previous.job.vehicle is job.vehicle
        and previous.job.body is job.body
        and _under(previous.job) == under
        and leaves_hung(previous.job) == leaves_hung(job)
    ):
        ground = old
    else:
        ground = _with_goods(ground_of(job, shop, old, opens=opens), job.body.tray, under)
    cut = built or {}
    before = {
        t.id: t for t in previous.things if previous.built.get(t.id) == cut.get(t.id)
    } if previous is not None else {}  # fmt: skip
    same_mount = old is not None and old.mounts == ground.mounts
    things = []
    values: tuple[Placed | Carried, ...] = (*job.units, *job.carried)
    twins = _told_apart(values)
    for value in values:
        known = before.get(value.id)
        goods = stowed.get(value.id, ())
        which = twins.get(value.id, "")
        same = (
            known is not None
            and known.value is value
            and known.goods == goods
            and known.which == which
        )
        if known is not None and same and same_mount and _stands(known, ground):
            things.append(known)
        else:
            new = _thing(
                value, ground, shop, known, goods, opens=opens, built=cut.get(value.id, ())
            )
            things.append(msgspec.structs.replace(new, which=which) if which else new)
    return Assembly(job, shop, ground, tuple(things), opens, cut)


def _told_apart(values: tuple[Placed | Carried, ...]) -> dict[str, str]:
    """Which each is of several with one name, by id: the bay or the side it is on where that tells them apart."""
    named: dict[str, list[Placed | Carried]] = {}
    for value in values:
        named.setdefault(value.name, []).append(value)
    found: dict[str, str] = {}
    for twins in named.values():
        if len(twins) > 1:
            words = [_where(value) for value in twins]
            if len(set(words)) < len(words):
                words = [str(n) for n in range(1, len(words) + 1)]
            found |= {value.id: word for value, word in zip(twins, words, strict=True)}
    return found


def _where(value: Placed | Carried) -> str:
    if not isinstance(value, Carried):
        return f"bay {value.bay}"
    middle = carried_kit.box_of(value).centre()[1]
    return "left" if middle < 0 else "right" if middle > 0 else "middle"


def _under(job: Job) -> tuple[Good, ...]:
    """The goods in what hangs under the tray."""
    places = job.body.tray.holders()
    return tuple(g for g in job.goods if g.place in places) if places else ()


def _with_goods(ground: Ground, tray: Tray, under: tuple[Good, ...]) -> Ground:
    """A ground whose toolboxes and trundle drawer hold their goods, instead of what their own figure says."""
    found, held = list(ground.masses), undertray.holding(tray, ground.tray) if under else {}
    for place, goods in by_place(under).items():
        label, box, _own = held[place]
        found = [m for m in found if m.of != place or m.fill != CONTENTS]
        whole = Mass(
            TRAY, label, sum(g.kg for g in goods), 0.0, *box.centre(), CONTENTS, "tray", of=place
        )
        found += _parted((whole,), goods)
    return msgspec.structs.replace(ground, masses=tuple(found)) if under else ground


def _stands(thing: Thing, ground: Ground) -> bool:
    """Say whether a thing's bay is where it was, with the same opening, rails and size."""
    place = thing.place
    if place is None or isinstance(thing.value, Carried):
        return True
    now = ground.bays.get(thing.value.bay)
    return now is place or now == place


def trial_thing(value: Placed | Carried, assembly: Assembly) -> Thing:
    """Expand a unit or carried item on an assembly's ground without adding it to the job.

    Args:
        value: What to try; a unit's bay must exist. [mm]
    """
    known = assembly.thing(value.id)
    return _thing(
        value, assembly.ground, assembly.shop, None, known.goods if known is not None else (),
        built=assembly.built.get(value.id, ()),
    )  # fmt: skip


def _thing(
    value: Placed | Carried, ground: Ground, shop: Shop, before: Thing | None = None, goods: tuple[Good, ...] = (), *,
    opens: bool = True, built: tuple[PartBuilt, ...] = (),
) -> Thing:  # fmt: skip
    """Expand one unit or carried item and place it; one that only moved keeps its expansion."""
    if isinstance(value, Carried):
        return _carried(value, goods, opens=opens)
    place = ground.bays[value.bay]
    trouble = ""
    if before is not None and before.goods == goods and _only_moved(before, value, place):
        expansion, trouble = before.expansion, before.trouble
    else:
        try:
            expansion = expand(
                _loaded(value, goods),
                Site(place.bay.pitch, shop, phase_of(value.u, place.bay.pitch), place.bay.side),
                place.bay.side,
            )
            expansion = altered(expansion, built) if built else expansion
        except InputError as error:
            trouble = f"{error.what}. {error.remedy}"
            expansion = _block(_loaded(value, goods))
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
    ref = value.ref
    masses = tuple(
        Mass(
            ref, point.label, point.kg, uncertainty_of(point.kg, point.source), *at.point(*point.at),
            fill=point.fill, mount=ground.mounts[value.bay],
        )
        for point in expansion.masses
        if point.kg > 0
    )  # fmt: skip
    masses = _parted(masses, goods)
    reach = _around(envelope, zones)
    known = PLAIN if trouble else kind_of(value).says(value, place.bay.side)
    held = Held("bolts", value.bolts, value.bolt, to="its bay") if value.bolts else None
    known = msgspec.structs.replace(known, held=held)
    return Thing(
        value.id, ref, value, expansion, place, envelope, reach, solids, zones, masses,
        trouble, openings, goods, capabilities=placed(known, at),
    )  # fmt: skip


def by_place(goods: tuple[Good, ...]) -> dict[str, tuple[Good, ...]]:
    """Goods by where they are stowed, in the job's order."""
    found: dict[str, list[Good]] = {}
    for good in goods:
        if good.place:
            found.setdefault(good.place, []).append(good)
    return {key: tuple(rows) for key, rows in found.items()}


def _loaded(value: Placed, goods: tuple[Good, ...]) -> Placed:
    """A unit whose contents are its goods, where it has any."""
    return msgspec.structs.replace(value, contents=sum(g.kg for g in goods)) if goods else value


def _parted(masses: tuple[Mass, ...], goods: tuple[Good, ...]) -> tuple[Mass, ...]:
    """Masses with what is held parted into what is always aboard and what is so in some scenarios only.

    Each good has its own doubt; together they are root-sum-square. Where a unit holds its contents in several places,
    each place keeps its part of every good.
    """
    if not goods:
        return masses
    whole = sum(g.kg for g in goods)
    found = [m for m in masses if m.fill.by != "contents"]
    groups: dict[tuple[str, ...], list[Good]] = {}
    for g in goods:
        groups.setdefault(tuple(sorted(g.only)), []).append(g)
    for mass in masses:
        if mass.fill.by != "contents" or whole <= 0:
            continue
        part = mass.kg / whole
        for only, rows in groups.items():
            kg = sum(g.kg for g in rows) * part
            if kg > 0:
                sigma = math.sqrt(
                    sum((uncertainty_of(g.kg, g.mass_source) * part) ** 2 for g in rows)
                )
                fill = mass.fill._replace(only=only)
                found.append(msgspec.structs.replace(mass, kg=kg, sigma=sigma, fill=fill))
    return tuple(found)


def _only_moved(before: Thing, value: Placed, place: BayPlace) -> bool:
    """Say whether a unit is the same as before but for its place on rails of the same pitch."""
    old = before.value
    if isinstance(old, Carried) or before.place is None:
        return False
    here, bay = before.place.bay, place.bay
    if here.pitch != bay.pitch or here.side != bay.side:
        return False
    if kind_of(value).railed and phase_of(old.u, here.pitch) != phase_of(value.u, bay.pitch):
        return False  # its holes lie elsewhere
    there = msgspec.structs.replace(old, bay=value.bay, u=value.u, v=value.v, w=value.w)
    return bool(there == value)


def _around(envelope: Box, zones: tuple[Box, ...]) -> Box:
    """Grow an envelope over some zones."""
    if not zones:
        return envelope
    columns = list(zip(envelope, *zones, strict=True))
    return Box(*(min(c) for c in columns[:3]), *(max(c) for c in columns[3:]))


def _block(unit: Placed) -> Expansion:
    """Stand in for a unit that cannot be written out: its outside box and its contents."""
    box = Box(0, 0, 0, unit.width, unit.depth, unit.height)
    held = PointMass("contents", unit.contents, unit.contents_source, box.centre(), CONTENTS)
    return Expansion((Solid(box, "made"),), (), (held,), (), box, ())


def _carried(item: Carried, goods: tuple[Good, ...] = (), *, opens: bool) -> Thing:
    """Place a carried item as one box."""
    box = carried_kit.box_of(item)
    centre = box.centre()
    masses = [
        Mass(item.ref, item.name, item.mass, uncertainty_of(item.mass, item.mass_source), *centre,
             mount=item.mount)
    ]  # fmt: skip
    held = sum(g.kg for g in goods) if goods else item.contents
    if held:
        masses.append(
            Mass(
                item.ref,
                "contents",
                held,
                uncertainty_of(held, "estimate"),
                *centre,
                fill=CONTENTS,
                mount=item.mount,
            )
        )
    masses = list(_parted(tuple(masses), goods))
    own = Box(0, 0, 0, item.length, item.width, item.height)
    moves = carried_kit.motions(item)
    whole = any(m.box == own for motion in moves for m in motion.moved)
    plates = carried_kit.solids(item)
    solids = tuple(Solid(b, "carried", moves=whole) for b in plates)
    expansion = Expansion(solids, (), (), (), own, (), motions=moves, hollow=len(plates) > 1)
    openings = of_carried(item.id, moves, (box.x0, box.y0, box.z0), item.side) if opens else ()
    return Thing(
        item.id,
        item.ref,
        item,
        expansion,
        None,
        box,
        box,
        tuple(b.moved(box.x0, box.y0, box.z0) for b in plates),
        (),
        tuple(masses),
        "",
        openings,
        goods,
        capabilities=carried_kit.says(item),
    )
