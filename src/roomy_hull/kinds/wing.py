"""Wing: the box beside the drawers, where the wheel arch leaves odd room, under a lid."""

from typing import Literal

from roomy_hull.core.geometry.motion import Motion, Moved
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.parts import Hardware, SheetPart
from roomy_hull.core.standing import BACK, WALL, at
from roomy_hull.core.strokes import Disc, Scene, line, rectangle
from roomy_hull.core.value import Thickness
from roomy_hull.kinds import card
from roomy_hull.kinds.card import Field
from roomy_hull.kinds.common import hinge_remedies, room_under_board
from roomy_hull.kinds.expansion import Expansion, Solid, lid, made, sheet_masses
from roomy_hull.kinds.kind import Kind, Offer, Site, offer
from roomy_hull.kinds.placed import Placed


class Wing(Placed, frozen=True, kw_only=True, tag_field="kind", tag="wing"):
    """The box beside the drawers, over or around a wheel arch, with a lid on top."""

    board: Thickness = 12.0
    hinge: Literal["left", "right"] = "left"
    material: str = "birch ply"


def expand(unit: Wing, site: Site) -> Expansion:
    """Write a wing out.

    Parameters
    ----------
    unit : Wing
        The wing, by its outside sizes. [mm, kg]
    site : Site
        Rail pitch of its bay, and the shop's materials and rules. [mm]

    Returns
    -------
    Expansion
        Its solids, masses, parts, the motion of its lid, and elevation.
    """
    w, d, h, t = unit.width, unit.depth, unit.height, unit.board
    wood = site.material(unit.material)
    parts = (
        SheetPart(f"{unit.name}: lid", unit.ref, w, d, t, wood, role="floor", stands=(at(0.0, 0.0, h - t),)),
        SheetPart(f"{unit.name}: side", unit.ref, d, h - t, t, wood, count=2,
                  stands=(at(0.0, 0.0, 0.0, WALL), at(w - t, 0.0, 0.0, WALL))),
        SheetPart(f"{unit.name}: end", unit.ref, w - 2 * t, h - t, t, wood, count=2,
                  stands=(at(t, t, 0.0, BACK), at(t, d, 0.0, BACK))),
        Hardware("piano hinge and flush ring for the lid", unit.ref),
    )  # fmt: skip
    boards = [s for p in parts for s in made(p)]
    top = boards[0].box
    solids = (*boards[1:], boards[0], Solid(Box(t, t, 0, w - t, d - t, h - t), "contents"))
    motion = Motion(
        "lid", f"Lid of {unit.name}", (Moved(top, "lid"),), (lid(top, unit.hinge, degrees=80.0),)
    )
    return Expansion(
        solids, (), sheet_masses(parts, unit, (w / 2, d / 2, h * 0.4)), parts, Box(0, 0, 0, w, d, h),
        elevation(unit), motions=(motion,),
    )  # fmt: skip


def elevation(unit: Wing) -> Scene:
    """Draw the wing's end and its lid."""
    w, h, t = unit.width, unit.height, unit.board
    c = 16 if unit.hinge == "left" else w - 16
    return (rectangle("wood", 0, 0, w, h - t, 3), line("detail", (t, 0), (t, h - t)),
            line("detail", (w - t, 0), (w - t, h - t)), rectangle("wood", 0, h - t, w, h, 2),
            Disc("fitting", (c, h - t / 2), 5))  # fmt: skip


def fields() -> tuple[Field, ...]:
    """Describe what the card shows of a wing."""
    return (card.length("board", "Board"), card.HINGE, card.MATERIAL)


def offers() -> tuple[Offer, ...]:
    """List the wings in the stores."""
    return (
        offer(Wing, "wing", "Shelves and walls", "Wing", (220, 820, 260), "The odd room beside the drawers",
              contents=8),
    )  # fmt: skip


KIND = Kind(
    Wing, expand, fields, offers, rank=40, handed=("hinge",), stood_on=True, stored=room_under_board,
    remedies=hinge_remedies,
)  # fmt: skip
