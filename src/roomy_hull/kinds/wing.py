"""Wing: the box beside the drawers, where the wheel arch leaves odd room, under a lid."""

from typing import Annotated, Literal, NamedTuple

from roomy_hull.core import shapes
from roomy_hull.core.card import shown
from roomy_hull.core.errors import InputError
from roomy_hull.core.folded import Face
from roomy_hull.core.geometry.motion import Motion, Moved
from roomy_hull.core.geometry.solids import Box, without
from roomy_hull.core.material import Material
from roomy_hull.core.parts import Hardware, Part, SheetPart
from roomy_hull.core.poses import BACK, WALL, at
from roomy_hull.core.primitives import Disc, Scene, line, rectangle
from roomy_hull.core.value import Gap, Thickness
from roomy_hull.kinds.common import hinge_remedies, room_under_board
from roomy_hull.kinds.expansion import Expansion, Solid, lid, made, sheet_masses
from roomy_hull.kinds.kind import Kind, Offer, Site, offer
from roomy_hull.kinds.placed import HingeSide, Placed, SheetMaterial


class Wing(Placed, frozen=True, kw_only=True, tag_field="kind", tag="wing"):
    """The box beside the drawers, over or around a wheel arch, with a lid on top.

    Around an arch, `arch_length` is above 0: boards leave it free from `arch_start` behind the wing's front, as wide
    from the `arch_side` inward and as high as given, and are lined with boards towards the wing's inside. [mm]
    """

    board: Annotated[Thickness, shown("Board")] = 12.0
    hinge: HingeSide = "left"
    material: SheetMaterial = "birch ply"
    arch_side: Annotated[Literal["left", "right"], shown("Arch at its", "As one faces it")] = "left"
    arch_start: Annotated[Gap, shown("Arch from the front")] = 0.0
    arch_length: Annotated[Gap, shown("Arch length", "0: the wing stands over no arch, or on it")] = 0.0  # fmt: skip
    arch_width: Annotated[Gap, shown("Arch width", "With what is to be left free around it")] = 0.0
    arch_height: Annotated[Gap, shown("Arch height")] = 0.0


GAP = 5.0
"""What is left free around a wheel arch (common practice). [mm]"""


class Notch(NamedTuple):
    """The room that a wing leaves to an arch: across (u), inward (v), up; and how wide it is in all. [mm]"""

    low: float
    high: float
    start: float
    end: float
    up: float

    def box(self) -> Box:
        """As a box from the wing's corner. [mm]"""
        return Box(self.low, self.start, 0.0, self.high, self.end, self.up)


def notch(unit: Wing) -> Notch | None:
    """The room left to an arch, or nothing.

    Args:
        unit: The wing. [mm]
    Returns: Through a side or an end where what would be left of it is narrower than two boards.
    Raises:
        InputError: The arch is as high as the wing.
    """
    if min(unit.arch_length, unit.arch_width, unit.arch_height) <= 0:
        return None
    w, d, t = unit.width, unit.depth, unit.board
    if unit.arch_height + 2 * t > unit.height - 1:
        raise InputError(
            f"the wheel arch of {unit.arch_height:g} mm leaves no room under the lid of {unit.name}",
            place=unit.name,
            remedy="Make the wing higher, or stand it on the arch.",
        )
    wide = unit.arch_width if unit.arch_width < w - 3 * t else w
    start, end = unit.arch_start, unit.arch_start + unit.arch_length
    start, end = (start if start > 2 * t else 0.0), (end if end < d - 2 * t else d)
    if start >= d or end <= start:
        return None
    low = 0.0 if unit.arch_side == "left" else w - wide
    return Notch(low, low + wide, start, end, unit.arch_height)


def _boards(unit: Wing, site: Site) -> list[SheetPart]:
    """Lid, sides and ends, cut out over the arch; the boards that line the arch. [mm]"""
    w, d, h, t = unit.width, unit.depth, unit.height, unit.board
    wood, n = site.material(unit.material), notch(unit)
    high, between = h - t, w - 2 * t
    made = [
        SheetPart(f"{unit.name}: lid", unit.ref, w, d, t, wood, role="floor", group="lid", poses=(at(0.0, 0.0, h - t),))
    ]  # fmt: skip
    if n is None:
        return [
            *made,
            SheetPart(f"{unit.name}: side", unit.ref, d, high, t, wood, count=2,
                      poses=(at(0.0, 0.0, 0.0, WALL), at(w - t, 0.0, 0.0, WALL))),
            SheetPart(f"{unit.name}: end", unit.ref, between, high, t, wood, count=2,
                      poses=(at(t, t, 0.0, BACK), at(t, d, 0.0, BACK))),
        ]  # fmt: skip
    for name, u, cut in (("left side", 0.0, n.low <= 0), ("right side", w - t, n.high >= w)):
        ring = (
            shapes.notched(d, high, n.start, n.end - n.start, n.up)
            if cut
            else shapes.rectangle(d, high)
        )
        made.append(
            SheetPart(f"{unit.name}: {name}", unit.ref, d, high, t, wood, shape=Face(ring),
                      poses=(at(u, 0.0, 0.0, WALL),))
        )  # fmt: skip
    for name, v, cut in (("front end", t, n.start <= 0), ("back end", d, n.end >= d)):
        ring = (
            shapes.notched(between, high, n.low - t, n.high - n.low, n.up)
            if cut
            else shapes.rectangle(between, high)
        )
        made.append(
            SheetPart(f"{unit.name}: {name}", unit.ref, between, high, t, wood, shape=Face(ring),
                      poses=(at(t, v, 0.0, BACK),))
        )  # fmt: skip
    return made + _lining(unit, wood, n)


def _lining(unit: Wing, wood: Material, n: Notch) -> list[SheetPart]:
    """The boards about an arch: over it, along it, and across where it ends within the wing. [mm]"""
    w, d, t = unit.width, unit.depth, unit.board
    u0, u1 = max(n.low, t), min(n.high, w - t)
    v0, v1 = max(n.start, t), min(n.end, d - t)
    left, right = n.low > 0, n.high < w
    found = [
        SheetPart(f"{unit.name}: over the arch", unit.ref, u1 - u0, v1 - v0, t, wood, poses=(at(u0, v0, n.up),))
    ]  # fmt: skip
    if left or right:
        found.append(
            SheetPart(f"{unit.name}: along the arch", unit.ref, v1 - v0, n.up + t, t, wood,
                      poses=(at(u1 if right else u0 - t, v0, 0.0, WALL),))
        )  # fmt: skip
    # Across, as wide as the arch with what lines it.
    a, b = u0 - (t if left else 0.0), u1 + (t if right else 0.0)
    ends = [v for v, within in ((v0, n.start > 0), (v1 + t, n.end < d)) if within]
    if ends:
        found.append(
            SheetPart(f"{unit.name}: across the arch", unit.ref, b - a, n.up + t, t, wood, count=len(ends),
                      poses=tuple(at(a, v, 0.0, BACK) for v in ends))
        )  # fmt: skip
    return found


def expand(unit: Wing, site: Site) -> Expansion:
    """Write a wing out.

    Args:
        unit: The wing, by its outside sizes. [mm, kg]
        site: Rail pitch of its bay, and the shop's materials and rules. [mm]
    Returns: Its solids, masses, parts, the motion of its lid, and elevation.
    Raises:
        InputError: It stands around an arch as high as itself.
    """
    w, d, h, t = unit.width, unit.depth, unit.height, unit.board
    parts: tuple[Part, ...] = (
        *_boards(unit, site),
        Hardware(
            "piano hinge, screwed to lid and board",
            unit.ref,
            metres=round(unit.width / 1000, 2),
            links=("", "lid"),
            sort="hinge",
        ),
        Hardware("flush ring for the lid", unit.ref),
    )
    boards = [s for p in parts for s in made(p)]
    top, n = boards[0].box, notch(unit)
    inside = Box(t, t, 0, w - t, d - t, h - t)
    if n is None:
        held = [inside]
    else:
        taken = n.box()
        held = without(
            inside, [Box(taken.x0 - t, taken.y0 - t, 0.0, taken.x1 + t, taken.y1 + t, n.up + t)]
        )
        boards = [Solid(b, s.role) for s in boards for b in without(s.box, [taken])]
    solids = (*boards[1:], boards[0], *(Solid(b, "contents") for b in held))
    motion = Motion(
        "lid", f"Lid of {unit.name}", (Moved(top, "lid"),), (lid(top, unit.hinge, degrees=80.0),)
    )
    return Expansion(
        solids, (), sheet_masses(parts, unit, (w / 2, d / 2, h * 0.4)), parts, Box(0, 0, 0, w, d, h),
        elevation(unit), motions=(motion,), hollow=n is not None,
    )  # fmt: skip


def around(unit: Wing, arch: Box, side: str) -> dict[str, float | str]:
    """What to set so that a wing leaves room to an arch.

    Args:
        unit: The wing. [mm]
        arch: The arch, from the wing's corner. [mm]
        side: Of its bay: on the right one faces u from its end.
    Returns: Its fields; empty where the arch is nearer to neither of its sides, or as high as it is. [mm]
    """
    w, t = unit.width, unit.board
    at_low = arch.x0 <= GAP
    if not at_low and arch.x1 < w - GAP:
        return {}
    wide = (arch.x1 if at_low else w - arch.x0) + GAP
    high = arch.z1 + GAP
    if high + 2 * t > unit.height - 1:
        return {}
    start = max(0.0, arch.y0 - GAP)
    hand = "left" if at_low != (side == "right") else "right"
    return {
        "arch_side": hand, "arch_start": start, "arch_length": arch.y1 + GAP - start, "arch_width": wide,
        "arch_height": high,
    }  # fmt: skip


def elevation(unit: Wing) -> Scene:
    """Draw the wing's end and its lid."""
    w, h, t = unit.width, unit.height, unit.board
    c = 16 if unit.hinge == "left" else w - 16
    return (rectangle("wood", 0, 0, w, h - t, 3), line("detail", (t, 0), (t, h - t)),
            line("detail", (w - t, 0), (w - t, h - t)), rectangle("wood", 0, h - t, w, h, 2),
            Disc("fitting", (c, h - t / 2), 5))  # fmt: skip


def offers() -> tuple[Offer, ...]:
    """List the wings in the stores."""
    return (
        offer(Wing, "wing", "Shelves and walls", "Wing", (220, 820, 260), "The odd room beside the drawers",
              contents=8),
    )  # fmt: skip


KIND = Kind(
    Wing, expand, offers, rank=40, handed=("hinge", "arch_side"), stood_on=True, stored=room_under_board,
    remedies=hinge_remedies, around=around, stance="hang", use="rarely")  # fmt: skip
