"""Racks under what they carry: every bar as a stiff frame, on the road and standing still."""

import itertools
import math

import msgspec
import numpy as np

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.assembly.scaling import Weighed, scale
from roomy_hull.assembly.things import Thing
from roomy_hull.core.errors import InputError
from roomy_hull.core.mechanics import frames
from roomy_hull.core.refs import Ref
from roomy_hull.core.units import G
from roomy_hull.job.carried import Carried
from roomy_hull.job.model import Scenario
from roomy_hull.kit.body.racks import RackPlace
from roomy_hull.shop.shop import Rules
from roomy_hull.studies.strength.rack_net import Net, bars_of, ready

SLEEPER = 80.0
"""Somebody in a tent that stands on a rack, where the job's people are not listed (common practice). [kg]"""


class Context(msgspec.Struct, frozen=True):
    """One way in which a rack is loaded: its words, greatest stress of all bars, which bar, its use of the allowed. [MPa]"""

    words: str
    stress: float
    bar: str
    use: float


class RackCheck(msgspec.Struct, frozen=True):
    """A rack under what it carries.

    Attributes:
        rack: Which.
        name, form: Its name; its bars and how it is computed, in words.
        kg, still_kg: What it carries on the road at most, and standing still with those who sleep on it. [kg]
        rating, rating_still: What it is rated for; 0 where nobody rated it. [kg]
        cases: Down, forward, rearward, sideways, and still.
        allowed: Yield beside a weld over the usual safety. [MPa]
        could, could_still: What it could carry in the same places until a bar reaches that. [kg]
        sag, span: How far its bars go down at rest, and between its feet. [mm]
        wind: Its area and that of what stands on it, as seen from ahead. [m²]
        trouble: Why it could not be computed.
    """

    rack: Ref
    name: str
    form: str
    kg: float
    still_kg: float
    rating: float
    rating_still: float
    cases: tuple[Context, ...]
    allowed: float
    could: float
    could_still: float
    sag: float
    span: float
    wind: float
    trouble: str = ""

    def worst(self) -> Context | None:
        """The way that loads its bars the most; none where nothing could be computed."""
        return max(self.cases, key=lambda c: c.use, default=None)


class _Load(msgspec.Struct, frozen=True):
    """A mass on the nodes that carry it, and how far its centre lies from each. [kg, mm]"""

    kg: float
    nodes: tuple[int, ...]
    arms: tuple[tuple[float, float, float], ...]


def _carriers(place: RackPlace, grid: Net, thing: Thing) -> list[int]:
    """The nodes on which a thing's mass lies: of the bars under it or behind it, else the nearest."""
    box, upright = thing.envelope, place.upright
    names = [m.name for m in place.members]
    wanted = ("rail", "beam", "post") if upright else ("bow", "cross bar", "side rail")
    able = sorted({
        int(i) for piece, bar in zip(grid.pieces, grid.bars, strict=True) if names[bar] in wanted for i in piece
    })  # fmt: skip
    pad = 30.0
    found = []
    for i in able:
        x, y, z = grid.nodes[i]
        if box.y0 - pad <= y <= box.y1 + pad and (
            box.z0 - pad <= z <= box.z1 + pad if upright else box.x0 - pad <= x <= box.x1 + pad
        ):
            found.append(i)
    if len(found) < 2:
        middle = np.array(box.centre())
        axes = [1, 2] if upright else [0, 1]
        found = sorted(able, key=lambda i: float(np.linalg.norm((grid.nodes[i] - middle)[axes])))[
            :4
        ]
    return found


def _loads(place: RackPlace, grid: Net, rows: list[tuple[Thing, float]]) -> list[_Load]:
    """Each thing's mass over the nodes that carry it."""
    found = []
    for thing, kg in rows:
        nodes = _carriers(place, grid, thing)
        centre = np.array(thing.envelope.centre())
        middle = np.mean([grid.nodes[i] for i in nodes], axis=0) if nodes else centre
        arms = tuple(tuple(float(v) for v in centre - middle) for _ in nodes)
        found.append(_Load(kg, tuple(nodes), arms))  # type: ignore[arg-type]  # three of them
    return found


def _forces(
    grid: Net, loads: list[_Load], own: np.ndarray, way: tuple[float, float, float]
) -> np.ndarray:
    """Forces and moments at all nodes in one way: accelerations as parts of weight, along x, y, z."""
    found = np.zeros((len(grid.nodes), 6))
    a = np.array(way) * G
    found[:, :3] += own[:, None] * a
    for one in loads:
        each = one.kg / max(1, len(one.nodes))
        for i, arm in zip(one.nodes, one.arms, strict=True):
            force = each * a
            found[i, :3] += force
            found[i, 3:] += np.cross(np.array(arm), force)
    return found


def ways(r: Rules) -> tuple[tuple[str, tuple[float, float, float]], ...]:
    """In which ways a rack is loaded on the road: words, and parts of weight aft, to the right, up."""
    return (
        ("down on a rough road", (0.0, 0.0, -r.vertical_dynamic)),
        ("forward in braking", (-r.axis_forward, 0.0, -1.0)),
        ("rearward", (r.axis_rearward, 0.0, -1.0)),
        ("to the left", (0.0, -r.axis_sideways, -1.0)),
        ("to the right", (0.0, r.axis_sideways, -1.0)),
    )


def check(assembly: Assembly, place: RackPlace, loads: Weighed) -> RackCheck:
    """Check a rack's bars under what it carries.

    Args:
        assembly: The job in vehicle axes; its scenarios say what is aboard together.
    Returns: On the road with the dynamic factors of the shop's rules, still with those who sleep in a tent on it.
    """
    rack, shop = place.rack, assembly.shop
    r, metal = shop.rules, shop.material(rack.bar_material)
    on = [t for t in assembly.things if isinstance(t.value, Carried) and t.value.on == rack.id]
    rows = max(
        (_aboard(on, s, loads) for s in assembly.job.scenarios), key=lambda rs: sum(kg for _t, kg in rs)
    )  # fmt: skip
    kg = sum(m for _t, m in rows)
    beds = sum(_sleepers(assembly) for t, _m in rows if "bed" in t.capabilities.roles)
    allowed = metal.welded_mpa / r.member_safety
    form = (
        f"{rack.section} {metal.name} welded, {len(place.feet)} feet as "
        f"{'clamps' if place.upright else 'hinges'}; stiff frame"
    )
    wind = sum((b.y1 - b.y0) * (b.z1 - b.z0) for b in place.boxes if _seen(b, place.boxes)) * 1e-6
    wind += sum((b.y1 - b.y0) * (b.z1 - b.z0) for b in (t.envelope for t, _m in rows)) * 1e-6
    base = RackCheck(rack.ref, rack.name, form, kg, kg + beds, rack.rating, rack.rating_still, (), allowed, 0.0,
                     0.0, 0.0, _span(place), wind)  # fmt: skip
    try:
        return _solved(base, place, r, (metal.young_mpa, metal.density), rows, beds)
    except InputError as trouble:
        return msgspec.structs.replace(base, trouble=str(trouble))


def _aboard(on: list[Thing], scenario: Scenario, loads: Weighed) -> list[tuple[Thing, float]]:
    """What of some things is aboard in a scenario. [kg]"""
    rows = []
    for t in on:
        kg = sum(
            (m.kg + loads.moved_by(m)) * scale(scenario, m.owner, m.fill, m.mount) for m in t.masses
        )
        if kg > 0:
            rows.append((t, kg))
    return rows


def _sleepers(assembly: Assembly) -> float:
    """Those who sleep in a tent: the two heaviest of the job's people, or two usual ones. [kg]"""
    people = sorted((kg for s in assembly.job.scenarios for kg in s.people), reverse=True)
    return sum(people[:2]) if len(people) > 1 else 2 * SLEEPER


def _seen(box: object, boxes: tuple[object, ...]) -> bool:
    """Whether a bar is seen from ahead: the first of those of the same outline."""
    key = (box.y0, box.z0, box.y1, box.z1)  # type: ignore[attr-defined]  # a Box
    first = next(b for b in boxes if (b.y0, b.z0, b.y1, b.z1) == key)  # type: ignore[attr-defined]
    return first is box


def _span(place: RackPlace) -> float:
    """The widest distance of neighbouring feet. [mm]"""
    xs = sorted({round(f[0], 1) for f in place.feet})
    ys = sorted({round(f[1], 1) for f in place.feet})
    gaps = [b - a for rows in (xs, ys) for a, b in itertools.pairwise(rows)]
    return max(gaps, default=place.rack.width)


def _solved(
    base: RackCheck, place: RackPlace, r: Rules, metal: tuple[float, float], rows: list[tuple[Thing, float]], beds: float
) -> RackCheck:  # fmt: skip
    """Solve the frame in every way."""
    young, density = metal
    grid, frame = ready(bars_of(place), young)
    shape = frames.both_ways(place.rack.section)
    own = np.zeros(len(grid.nodes))
    for i, j in grid.pieces:
        half = (
            float(np.linalg.norm(grid.nodes[i] - grid.nodes[j])) * shape.area * density * 1e-9 / 2
        )
        own[i] += half
        own[j] += half
    carried = _loads(place, grid, rows)
    tents = [
        (t, beds * m / max(1e-9, sum(k for x, k in rows if _tent(x)))) for t, m in rows if _tent(t)
    ]
    asleep = carried + _loads(place, grid, tents)
    none: list[_Load] = []

    def run(
        loads: list[_Load], bare: np.ndarray, way: tuple[float, float, float]
    ) -> frames.FrameResult:
        return frames.under(frame, _forces(grid, loads, bare, way))

    def context(words: str, found: frames.FrameResult) -> Context:
        n = int(np.argmax(found.stress))
        high = float(found.stress[n])
        return Context(words, high, place.members[grid.bars[n]].name, high / base.allowed)

    cases, could = [], math.inf
    for words, way in ways(r):
        cases.append(context(words, run(carried, own, way)))
        if base.kg > 0:
            could = min(
                could, _could(base, run(none, own, way), run(carried, 0 * own, way), base.kg)
            )
    still = run(asleep, own, (0.0, 0.0, -1.0))
    cases.append(context("standing still", still))
    could_still, down = math.inf, (0.0, 0.0, -1.0)
    if base.still_kg > 0:
        could_still = _could(base, run(none, own, down), run(asleep, 0 * own, down), base.still_kg)
    rest = run(carried, own, (0.0, 0.0, -1.0))
    return msgspec.structs.replace(
        base, cases=tuple(cases), could=could, could_still=could_still, sag=float(max(0.0, -rest.moved[:, 2].min()))
    )  # fmt: skip


def _tent(thing: Thing) -> bool:
    return "bed" in thing.capabilities.roles


def _could(base: RackCheck, bare: frames.FrameResult, load: frames.FrameResult, kg: float) -> float:
    """How much could lie in the same places until a bar reaches the allowed stress; of something. [kg]

    Stresses of the rack's own mass and of what it carries are added by their size, which never tells too much.
    """
    per = load.stress / kg
    room = base.allowed - bare.stress
    rows = [float(a / b) for a, b in zip(room, per, strict=True) if b > 1e-12]
    return max(0.0, min(rows, default=math.inf))


def study(assembly: Assembly, loads: Weighed) -> tuple[RackCheck, ...]:
    """Check every rack of a job.

    Returns: In the order of the job.
    """
    return tuple(check(assembly, place, loads) for place in assembly.ground.racks)
