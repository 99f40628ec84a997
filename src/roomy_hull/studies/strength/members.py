"""Members: shelves, drawer floors, boards, tank walls, cross-members and roof bows under their loads."""

import math

import msgspec

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.assembly.scaling import Weighed
from roomy_hull.assembly.things import Thing
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.material import Material
from roomy_hull.core.mechanics import beams
from roomy_hull.core.mechanics.plates import box_plate, plate
from roomy_hull.core.mechanics.sections import section
from roomy_hull.core.parts import SheetPart, short_name
from roomy_hull.core.refs import CANOPY, TRAY, Ref
from roomy_hull.core.units import G
from roomy_hull.job.canopy import Canopy
from roomy_hull.job.carried import Carried
from roomy_hull.kinds import tank
from roomy_hull.kinds.registry import kind_of
from roomy_hull.kit.body import frame
from roomy_hull.kit.body.lining import BEARERS
from roomy_hull.kit.body.undertray import as_tank
from roomy_hull.shop.shop import Rules, Shop

WATER = 1e-6
"""Density of water. [kg/mm³]"""
FOOT = 100.0
"""What a false floor or a wing's lid has to carry besides: somebody kneeling or stepping on it (common
practice). [kg]"""


class MemberCheck(msgspec.Struct, frozen=True):
    """One member under its load.

    Attributes:
        owner: What it belongs to.
        name, what: The owner's name, and which member.
        load: The load in words.
        form: The formula in words.
        span: Short side of a plate, or between supports. [mm]
        stress, allowed: With the dynamic factor, and what yield over the safety allows. [MPa]
        sag, allowed_sag: At rest, and span over the usual share. [mm]
        welded: Whether the yield beside a weld was taken.
    """

    owner: Ref
    name: str
    what: str
    load: str
    form: str
    span: float
    stress: float
    allowed: float
    sag: float
    allowed_sag: float
    welded: bool = False

    def use(self) -> float:
        """The greater of stress and sag over what is allowed."""
        return max(self.stress / self.allowed, self.sag / max(self.allowed_sag, 1e-9))


def _sheet_check(  # ruff: ignore[too-many-arguments]  # a member in the letters of its formulas
    owner: Ref, name: str, what: str, sheet: tuple[Material, float], sides: tuple[float, float],
    load: tuple[float, float, str], r: Rules, *, welded: bool = False, loose: bool = False,
) -> MemberCheck:  # fmt: skip
    """Check one plate: (material, thickness), sides, (pressure moving, at rest [MPa], words)."""
    metal, thickness = sheet
    moving, rest, words = load
    bent = plate if loose else box_plate
    _, stress = bent(moving, *sides, thickness, metal.young_mpa)
    sag, _ = bent(rest, *sides, thickness, metal.young_mpa)
    allowed = (metal.welded_mpa if welded else metal.yield_mpa) / r.member_safety
    short = min(sides)
    edges = "lying on its supports" if loose else "its edges kept straight by folds or welds"
    form = f"plate {sides[0]:,.0f} × {sides[1]:,.0f} × {thickness:g}, {metal.name}, {edges}"
    return MemberCheck(
        owner, name, what, words, form, short, stress, allowed, sag, short / r.sag_share, welded,
    )  # fmt: skip


def _floor(thing: Thing, loads: Weighed, r: Rules) -> list[MemberCheck]:
    """Check the sheets that carry a unit's contents."""
    value = thing.value
    if isinstance(value, Carried):
        return []
    kind = kind_of(value)
    sheets = [
        p for p in thing.expansion.parts if isinstance(p, SheetPart) and p.role == "floor"
    ]  # fmt: skip
    count = sum(p.count for p in sheets)
    held = thing.contents + sum(loads.moved_by(m) for m in thing.masses if m.fill.by == "contents")
    found = []
    for sheet in sheets:
        kg = held / count
        area = sheet.length * sheet.width
        rest = kg * G / area
        words = f"{kg:,.0f} kg × {r.shelf_dynamic:g} on a rough road"
        span = min(sheet.length, kind.bearers) if kind.bearers else sheet.length
        if kind.stood_on:
            rest += FOOT * G / area
            words = f"{kg:,.0f} kg × {r.shelf_dynamic:g} and {FOOT:g} kg of somebody kneeling on it"
            moving = kg * G / area * r.shelf_dynamic + FOOT * G / area
        else:
            moving = rest * r.shelf_dynamic
        if rest <= 0:
            continue
        found.append(
            _sheet_check(thing.ref, thing.name, short_name(sheet), (sheet.material, sheet.thickness),
                         (span, sheet.width), (moving, rest, words), r, loose=kind.stood_on)
        )  # fmt: skip
    return found


def head(height: float, length: float, baffles: int, r: Rules) -> tuple[float, float]:
    """The water's mean pressure on a tank wall, moving and at rest.

    Args:
        height: Of the water. [mm]
        length: Of the tank in the direction of surge. [mm]
    Returns:
        Half of ρ·g·h times the dynamic factor, and ρ·0.8·g·l of the water between two baffles that the wall stops
        in braking; and half of ρ·g·h alone. [MPa]
    """
    rest = WATER * G * height / 2
    surge = WATER * r.axis_forward * G * length / (baffles + 1)
    return rest * r.shelf_dynamic + surge, rest


def tank_walls(
    owner: Ref, name: str, size: tuple[float, float, float], sheet: tuple[Material, float], baffles: int,
    r: Rules,
) -> list[MemberCheck]:  # fmt: skip
    """Check the walls of a welded tank.

    Args:
        size: Length across which the baffles stand, width, height. [mm]
        sheet: Material and thickness. [mm]
    Returns: The end, and the side between two baffles; yields beside a weld.
    """
    long, wide, high = size
    moving, rest = head(high, long, baffles, r)
    words = f"water {high:,.0f} mm high, surge between {baffles} baffles"
    panel = long / (baffles + 1)
    return [
        _sheet_check(
            owner, name, "tank end", sheet, (wide, high), (moving, rest, words), r, welded=True
        ),
        _sheet_check(
            owner,
            name,
            "tank side between baffles",
            sheet,
            (panel, high),
            (moving, rest, words),
            r,
            welded=True,
        ),
    ]


def check(thing: Thing, loads: Weighed, shop: Shop) -> tuple[MemberCheck, ...]:
    """Check what carries in one unit.

    Returns: Empty for what is bought or carried outside.
    """
    value = thing.value
    if isinstance(value, Carried) or thing.trouble:
        return ()
    v = kind_of(value).walls(value, thing.place.bay.side if thing.place is not None else "left")
    if v is not None:
        sheet = (shop.material(v.material), v.sheet)
        walls = tank_walls(
            thing.ref, thing.name, (v.long, v.wide, v.high), sheet, v.baffles, shop.rules
        )
        return tuple(walls)
    return tuple(_floor(thing, loads, shop.rules))


def _floor_load(assembly: Assembly, loads: Weighed) -> float:
    """What stands on the tray's floor, full, the canopy included. [kg]"""
    ground, tray = assembly.ground, assembly.job.body.tray
    kg = sum(
        m.kg + loads.moved_by(m) for m in ground.masses
        if (m.owner.kind in ("canopy", "room") and m.fill.by != "hung") or (m.owner == TRAY and m.fill.by == "fixed")
    )  # fmt: skip
    return kg + sum(
        m.kg + loads.moved_by(m)
        for t in assembly.things
        for m in t.masses
        if m.mount != "vehicle" or (t.place is not None and tray.kind == "hold")
    )


def body(assembly: Assembly, loads: Weighed) -> tuple[MemberCheck, ...]:
    """Check the body's own members: floor, cross-members, roof bows, false floor, tank under the tray."""
    job, shop, r = assembly.job, assembly.shop, assembly.shop.rules
    tray, vehicle = job.body.tray, job.vehicle
    found: list[MemberCheck] = []
    kg = _floor_load(assembly, loads)
    rest = kg * G / (tray.length * tray.width)
    moving = rest * r.vertical_dynamic
    words = f"{kg:,.0f} kg over the tray × {r.vertical_dynamic:g} on a rough road"
    if tray.kind == "tray":
        bays = max(1, math.ceil(tray.length / tray.cross_spacing))
        spacing = tray.length / bays
        if tray.boards == "sheet":
            found.append(
                _sheet_check(TRAY, "Tray", "floor between cross-members",
                             (shop.material(tray.floor_material), tray.floor), (spacing, tray.width),
                             (moving, rest, words), r)
            )  # fmt: skip
        found.append(_cross_member(assembly, spacing, moving, rest, words))
    elif tray.false_floor > 0:
        board = (shop.material(shop.ply), 12.0)
        between = tray.width - 2 * tray.wings
        sides = (min(tray.length, BEARERS), between)
        found.append(_sheet_check(TRAY, "False floor", "board between bearers", board, sides,
                                  (moving, rest, words), r, loose=True))  # fmt: skip
    under = as_tank(tray)
    v = tank.walls(under) if under is not None else None
    if v is not None:
        metal = (shop.material(shop.sheet), v.sheet)
        found += tank_walls(TRAY, "Under-tray tank", (v.long, v.wide, v.high), metal, v.baffles, r)
    canopy = job.body.canopy
    if canopy is not None and canopy.kind != "cargo":
        found.append(_roof_bow(assembly, loads, canopy, vehicle.ratings.roof))
    return tuple(found)


def _cross_member(
    assembly: Assembly, spacing: float, moving: float, rest: float, words: str
) -> MemberCheck:
    """Check a cross-member: it lies on both subframe rails and hangs over them to the tray's edges."""
    tray, spread = assembly.job.body.tray, assembly.job.vehicle.rail_spread
    shop, r = assembly.shop, assembly.shop.rules
    bar, metal = section(tray.cross), shop.material(tray.bar_material)
    over = max(0.0, (tray.width - spread) / 2)
    w, w0 = moving * spacing, rest * spacing
    worst = max(abs(m) for m in beams.overhang_moments(w, spread, over))
    tip = abs(beams.overhang_tip(w0, spread, over, metal.young_mpa, bar.inertia))
    form = f"{tray.cross} {metal.name}, {spread:,.0f} between the rails and {over:,.0f} over each, welded"
    return MemberCheck(
        TRAY, "Tray", "cross-member", words, form, over, worst / bar.modulus,
        metal.welded_mpa / r.member_safety, tip, over / r.sag_share, True,
    )  # fmt: skip


def _on_canopy(thing: Thing, canopy: Box | None) -> bool:
    """Whether the canopy's own roof carries a thing: it lies over it, and is fixed to no rack. [mm]"""
    item = thing.value
    if canopy is None or not isinstance(item, Carried) or not item.on_roof or item.on:
        return False
    x, y, _z = thing.envelope.centre()
    return canopy.x0 <= x <= canopy.x1 and canopy.y0 <= y <= canopy.y1


def _roof_bow(assembly: Assembly, loads: Weighed, canopy: Canopy, rating: float) -> MemberCheck:
    """Check a roof bow under the greater of what lies on the canopy's roof and the roof's rating."""
    shop, r = assembly.shop, assembly.shop.rules
    on_roof = sum(
        m.kg + loads.moved_by(m)
        for t in assembly.things
        if _on_canopy(t, assembly.ground.canopy)
        for m in t.masses
    )
    kg = max(on_roof, rating)
    bows = frame.bow_count(canopy)
    # A bow lies on its first side.
    first, second, *wall = canopy.frame.split("x")
    lying = "x".join((second, first, *wall))
    bar, metal = section(lying), shop.material(canopy.frame_material)
    rest = kg * G / bows / canopy.width
    words = f"{kg:,.0f} kg on {bows} bows × {r.shelf_dynamic:g} on a rough road"
    stress = beams.span_moment(rest * r.shelf_dynamic, canopy.width) / bar.modulus
    sag = beams.span_deflection(rest, canopy.width, metal.young_mpa, bar.inertia)
    form = f"{lying} {metal.name} over {canopy.width:,.0f}, simply supported, its welds at the ends"
    return MemberCheck(
        CANOPY, canopy.name, "roof bow", words, form, canopy.width, stress,
        metal.yield_mpa / r.member_safety, sag, canopy.width / r.sag_share,
    )  # fmt: skip


def study(
    assembly: Assembly, loads: Weighed,
    previous: tuple[Assembly, dict[str, tuple[MemberCheck, ...]]] | None = None,
) -> dict[str, tuple[MemberCheck, ...]]:  # fmt: skip
    """Check every member.

    Args:
        previous: An earlier study; things that only moved keep their checks. Only a memory.
    Returns: By thing; the body's under an empty key.
    """
    known = {t.id: t for t in previous[0].things} if previous is not None else {}
    found: dict[str, tuple[MemberCheck, ...]] = {"": body(assembly, loads)}
    for thing in assembly.things:
        before = known.get(thing.id)
        if previous is not None and before is not None and before.expansion is thing.expansion:
            found[thing.id] = previous[1][thing.id]
        else:
            found[thing.id] = check(thing, loads, assembly.shop)
    return found
