"""Making: can these parts be bent, drilled, and cut from the stock?"""

from roomy_hull.assembly.study import Context, Study, StudyKey
from roomy_hull.core.findings import PRACTICE, Finding
from roomy_hull.core.parts import BarPart, Part, SheetPart
from roomy_hull.core.refs import Ref
from roomy_hull.making.bending import plan_bends
from roomy_hull.making.flats import (
    flanges,
    hole_to_bend,
    least_flange,
    lies_on,
    overlaps,
    sizeless,
    wanted_to_bend,
)
from roomy_hull.shop.shop import Stock
from roomy_hull.shop.tools import Brake

KEY = StudyKey["dict[Ref | None, tuple[Finding, ...]]"]("making")


def flaws(parts: tuple[Part, ...], stock: Stock, brake: Brake | None = None) -> tuple[Finding, ...]:
    """Judge whether some parts can be made.

    Args:
        parts: Parts of one owner. [mm]
        stock: What the shop buys. [mm]
        brake: What it bends on; None to leave the order of bends aside.
    Returns:
        Blanks and bars larger than the stock (stop); flanges too short for the press, holes too near a bend, no
        order in which it can be bent (look). [mm]
    """
    found: list[Finding] = []
    for part in parts:
        if isinstance(part, SheetPart):
            found += _sheet(part, stock, brake)
        elif isinstance(part, BarPart) and part.length > stock.bar_length:
            found.append(
                Finding("making.bar_stock", "stop", f"{part.name} is longer than the stock bar",
                        (part.owner,), part.length, stock.bar_length, "mm",
                        "the shop's stock list")
            )  # fmt: skip
    return tuple(found)


def _sheet(part: SheetPart, shop: Stock, brake: Brake | None) -> list[Finding]:
    """Judge one sheet part."""
    if sizeless(part):
        return [
            Finding("making.nothing", "stop", f"{part.name} has no size left", (part.owner,),
                    min(part.length, part.width), 0.0, "mm", "its sizes and sheets")
        ]  # fmt: skip
    found = []
    bent, least = flanges(part), least_flange(part)
    if bent and min(bent) < least - 1e-9:
        found.append(
            Finding("making.flange", "look", f"{part.name}: a flange is too short to bend",
                    (part.owner,), min(bent), least, "mm", f"{PRACTICE}, 4·T + R")
        )  # fmt: skip
    twice = overlaps(part)
    if twice > 1:
        found.append(
            Finding("making.overlap", "stop", f"{part.name}: its faces overlap on the flat",
                    (part.owner,), twice, 0.0, "mm²", "the flat itself")
        )  # fmt: skip
    gap, wanted = hole_to_bend(part), wanted_to_bend(part)
    if gap is not None and gap < wanted - 1e-9:
        found.append(
            Finding("making.hole", "look", f"{part.name}: a hole is too near a bend",
                    (part.owner,), gap, wanted, "mm", f"{PRACTICE}, 2·T + R")
        )  # fmt: skip
    if brake is not None and not found:
        bends = plan_bends(part, brake)
        if bends.fault:
            found.append(
                Finding("making.bend", "look", f"{part.name}: {bends.fault}", (part.owner,), bends.measured, bends.limit,
                        bends.unit, f"the shop's brake. {bends.remedy}")
            )  # fmt: skip
    flat = part.developed()
    if not any(lies_on(flat, size, shop.trim, grain=part.grain) for size in shop.sheets):
        long = max(flat)
        largest = max(max(s) for s in shop.sheets) - 2 * shop.trim
        short = min(flat)
        widest = max(min(s) for s in shop.sheets) - 2 * shop.trim
        measured, limit = (long, largest) if long > largest else (short, widest)
        found.append(
            Finding("making.sheet_stock", "stop", f"{part.name} is larger than every stock sheet",
                    (part.owner,), measured, limit, "mm", "the shop's stock list")
        )  # fmt: skip
    return found


def study(context: Context) -> dict[Ref | None, tuple[Finding, ...]]:
    """Judge the making of body and things.

    Args:
        context: The job in vehicle axes; what did not change is taken from before.
    Returns: By thing, the body's under none.
    """
    assembly, before = context.assembly, context.before
    stock, brake = assembly.shop.stock, assembly.shop.tools.brake
    old: dict[Ref | None, tuple[Finding, ...]] = context.old(KEY) or {}
    earlier = before.assembly if before is not None else None
    known = {t.ref: t for t in earlier.things} if earlier is not None else {}
    found: dict[Ref | None, tuple[Finding, ...]] = {}
    same_body = earlier is not None and earlier.ground is assembly.ground
    found[None] = (
        old[None] if same_body and None in old else flaws(assembly.ground.parts, stock, brake)
    )
    for thing in assembly.things:
        kept = known.get(thing.ref)
        if kept is not None and kept.expansion is thing.expansion and thing.ref in old:
            found[thing.ref] = old[thing.ref]
        else:
            found[thing.ref] = flaws(thing.expansion.parts, stock, brake)
    return found


def judge(context: Context) -> list[Finding]:
    """List what cannot be made, the body's first."""
    return [f for rows in context.results[KEY].values() for f in rows]


STUDY = Study(KEY, study, judge=judge, codes=("making.",))
