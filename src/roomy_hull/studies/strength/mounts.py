"""Mounts: what holds each unit in braking, swerving and on bumps, and what its slides do to hand and bolt."""

import math
from collections.abc import Sequence

import msgspec

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.assembly.scaling import Weighed, slide_load
from roomy_hull.assembly.things import AnyThing, Mass, Thing
from roomy_hull.core.capabilities import Held
from roomy_hull.core.mechanics.bolts import bolt_use
from roomy_hull.core.refs import CANOPY, Ref
from roomy_hull.core.units import G
from roomy_hull.job.carried import Carried
from roomy_hull.kit.body.pieces import BodyThing
from roomy_hull.shop.shop import Rules

GRADE = "A2-70"
"""Stainless fasteners, as usual on a tray; the softest of the usual grades."""
INSET = 30.0
"""How far the bolts' middles stand inside the base's edge (common practice). [mm]"""


class Way(msgspec.Struct, frozen=True):
    """One direction of restraint.

    Attributes:
        way: Which way the load wants to go; ``up`` is beyond its weight.
        factor: As a part of weight.
        force: To be held. [N]
        tips: Tipping moment left over after its weight. [N·m]
        shear, tension: On the bolt that carries most; no friction is counted. [N]
        use: Of that bolt, 1 where it is used up; 0 where there are no bolts.
    """

    way: str
    factor: float
    force: float
    tips: float
    shear: float
    tension: float
    use: float


class SlideCheck(msgspec.Struct, frozen=True):
    """A slide at full extension and on a slope.

    Attributes:
        load, rating: Moving mass when full, and what the pair carries. [kg]
        factor: Dynamic factor on the load.
        overhang: How far its middle stands out before the face. [mm]
        moment: That it tips the unit with about its front edge, less what the unit's own weight holds. [N·m]
        tension: On each bolt at the back. [N]
        use: Of such a bolt.
        pull: To draw it out uphill. [N]
        runs: With what it runs away downhill; above 0 it wants a lock. [N]
        locks: Whether it has one.
    """

    load: float
    rating: float
    factor: float
    overhang: float
    moment: float
    tension: float
    use: float
    pull: float
    runs: float
    locks: bool


class MountCheck(msgspec.Struct, frozen=True):
    """One thing, full: a unit, a carried thing, or a piece of the body with all that stands in or on it. [kg, mm]

    `height` is its middle over its base, below what it hangs from; `slide` none where nothing slides.
    """

    id: str
    name: str
    kg: float
    height: float
    held: Held | None
    ways: tuple[Way, ...]
    slide: SlideCheck | None
    ref: Ref

    @property
    def bolts(self) -> int:
        """How many bolts hold it."""
        return self.held.count if self.held is not None and self.held.by == "bolts" else 0

    @property
    def words(self) -> str:
        """By what it is held; empty where nothing holds it or nobody said."""
        return self.held.words if self.held is not None else ""

    def worst(self) -> Way:
        """The direction that uses the bolts most; that of the greatest force without bolts."""
        return max(self.ways, key=lambda w: (w.use, w.force))


def tipping(
    force: float, height: float, weight: float, lever: float, base: float, inset: float
) -> tuple[float, float]:
    """What tips a box about the edge of its base, and the pull in the far row of bolts.

    Args:
        force: Level force at its middle. [N]
        height: Of its middle over the base. [mm]
        weight: That holds it down. [N]
        lever: From its middle to the edge it tips about. [mm]
        base: Length of the base in the force's direction. [mm]
        inset: Of both rows of bolts from the base's edges. [mm]
    Returns:
        Moment left over [N·mm, 0 where its weight holds it], and the pull of the whole far row [N]: M·d/(d² + i²),
        the rows stretched in proportion to their distance from the edge.
    """
    moment = max(0.0, force * height - weight * lever)
    far = max(base - inset, inset)
    return moment, moment * far / (far**2 + inset**2)


def slope_pull(kg: float, degrees: float, rolling: float) -> tuple[float, float]:
    """The pull uphill, and what remains downhill.

    Args:
        kg: Moving mass. [kg]
        rolling: What the slides resist as a part of weight.
    Returns: m·g·(sin θ + μ·cos θ) and m·g·(sin θ - μ·cos θ). [N]
    """
    a = math.radians(degrees)
    along, against = kg * G * math.sin(a), kg * G * rolling * math.cos(a)
    return along + against, along - against


def check(thing: AnyThing, masses: Sequence[Mass], loads: Weighed, r: Rules) -> MountCheck | None:
    """Check one thing at full load.

    Args:
        masses: All that it has to hold. [kg, mm]
    Returns: None for what weighs nothing.
    Restraint factors: Load Restraint Guide (Australia) and EN 12195-1, from memory: 0.8 forward, 0.5
    rearward and sideways, 0.2 up beyond weight. Its weight counts once for tipping, friction not at all. What hangs pulls
    at its bolts with its weight, on a rough road with more of it.
    """
    rows = [(m.kg + loads.moved_by(m), m) for m in masses if m.fill.by != "hung"]
    kg = sum(own for own, _m in rows)
    if kg <= 0:
        return None
    x, y, z = (
        sum(own * m.x for own, m in rows) / kg, sum(own * m.y for own, m in rows) / kg,
        sum(own * m.z for own, m in rows) / kg,
    )  # fmt: skip
    box, held = thing.envelope, thing.capabilities.held
    hung = held is not None and held.hung
    weight, height = kg * G, box.z1 - z if hung else z - box.z0
    wide, deep = box.x1 - box.x0, box.y1 - box.y0
    rests = weight / held.count if held is not None and hung else 0.0
    ways = []
    for way, part, base, lever in (
        ("forward", r.axis_forward, wide, x - box.x0), ("rearward", r.axis_rearward, wide, box.x1 - x),
        ("left", r.axis_sideways, deep, y - box.y0), ("right", r.axis_sideways, deep, box.y1 - y),
    ):  # fmt: skip
        force = part * weight
        moment, row = tipping(
            force, height, 0.0 if hung else weight, lever, base, min(INSET, base / 4)
        )
        ways.append(_way(way, part, force, moment, (force, row, rests), held))
    force = r.axis_up * weight
    ways.append(_way("up", r.axis_up, force, 0.0, (0.0, 0.0 if hung else force, 0.0), held))
    if hung:
        force = r.vertical_dynamic * weight
        ways.append(_way("down", r.vertical_dynamic, force, 0.0, (0.0, force, 0.0), held))
    slide = _slide(thing, kg, loads, r) if isinstance(thing, Thing) else None
    return MountCheck(thing.id, thing.name, kg, height, held, tuple(ways), slide, thing.ref)


def _way(
    way: str, part: float, force: float, moment: float, on: tuple[float, float, float], held: Held | None
) -> Way:  # fmt: skip
    """One direction: what comes on the bolt or tie that carries most.

    Args:
        moment: Left over after its weight. [N·mm]
        on: Level on all of them, pulling at the far half of them (up and down: at all), and at each already. [N]
    """
    level, pull, each = on
    if held is None or not held.count:
        return Way(way, part, force, moment * 1e-3, 0.0, 0.0, 0.0)
    half = max(1, held.count // 2)
    tension = pull / (held.count if way in ("up", "down") else half) + each
    if held.by == "bolts":
        shear = level / held.count
        use = bolt_use(held.size, GRADE, shear, tension)
    else:
        shear = level / half
        use = math.sqrt(2) * max(shear, tension) / held.each
    return Way(way, part, force, moment * 1e-3, shear, tension, use)


def held_by(assembly: Assembly, thing: BodyThing) -> list[Mass]:
    """All that a piece of the body holds, itself and what stands in it or on it."""
    ground = assembly.ground
    if thing.ref == CANOPY:
        return [m for m in assembly.masses() if m.mount == "canopy"]
    if thing.ref.comes_off:
        inside = [
            t for t in assembly.things
            if ground.stands_in(t.bay) == thing.ref or getattr(t.value, "on", "") == thing.id
        ]  # fmt: skip
        return [m for m in ground.masses if m.owner == thing.ref] + [
            m for t in inside for m in t.masses
        ]
    return [m for m in ground.masses if m.of == thing.id]


def _slide(thing: Thing, kg: float, loads: Weighed, r: Rules) -> SlideCheck | None:
    """Check a slide at full extension and on a slope; none where nothing slides."""
    expansion, value = thing.expansion, thing.value
    load, travel = slide_load(thing, loads), expansion.travel
    if isinstance(value, Carried) or load <= 0 or travel <= 0:
        return None
    depth = value.depth
    # Its middle lies half its depth behind the face when closed.
    overhang = travel - depth / 2
    stays = max(0.0, kg - load) * G * depth / 2
    moment = max(0.0, load * G * overhang - stays)
    inset = min(INSET, depth / 4)
    far = max(depth - inset, inset)
    row = moment * far / (far**2 + inset**2)
    tension = row / max(1, value.bolts // 2) if value.bolts else 0.0
    use = bolt_use(value.bolt, GRADE, 0.0, tension) if value.bolts else 0.0
    pull, runs = slope_pull(load, r.slope, r.rolling)
    return SlideCheck(
        load, expansion.slide_rating, r.slide_dynamic, overhang, moment * 1e-3, tension, use, pull,
        max(0.0, runs), bool(getattr(value, "locks", True)),
    )  # fmt: skip


def study(
    assembly: Assembly, loads: Weighed,
    previous: tuple[Assembly, tuple[MountCheck, ...]] | None = None,
) -> tuple[MountCheck, ...]:  # fmt: skip
    """Check every thing.

    Args:
        previous: An earlier study; things that did not change keep their check. Only a memory.
    Returns: In the order of the job, then the pieces of the body.
    """
    checks: dict[Ref, MountCheck] = {}
    things: dict[Ref, Thing] = {}
    if previous is not None:
        checks = {c.ref: c for c in previous[1]}
        things = {t.ref: t for t in previous[0].things}
    found = []
    for thing in assembly.things:
        kept = checks.get(thing.ref) if things.get(thing.ref) is thing else None
        one = kept or check(thing, thing.masses, loads, assembly.shop.rules)
        if one is not None:
            found.append(one)
    for piece in assembly.ground.things:
        one = check(piece, held_by(assembly, piece), loads, assembly.shop.rules)
        if one is not None:
            found.append(one)
    return tuple(found)
