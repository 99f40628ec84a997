"""Table: a board that pulls out of a slot, or that folds down from upright."""

from typing import Annotated, Literal

from roomy_hull.core.card import shown
from roomy_hull.core.geometry.motion import Motion, Moved, Step
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.parts import Hardware, SheetPart
from roomy_hull.core.poses import FACE, LID, at
from roomy_hull.core.primitives import Disc, Scene, rectangle
from roomy_hull.core.value import Kg
from roomy_hull.kinds.expansion import Expansion, PointMass, Solid, made, pull_out, sheet_masses
from roomy_hull.kinds.kind import Kind, Offer, Site, offer
from roomy_hull.kinds.placed import Locks, Placed, PlainSheet, SheetMaterial


class Table(Placed, frozen=True, kw_only=True, tag_field="kind", tag="table"):
    """A table that pulls out, or that folds down from upright about its lower edge."""

    style: Annotated[Literal["pull-out", "fold-down"], shown("Kind")] = "pull-out"
    sheet: PlainSheet = 3.0
    slide_mass: Annotated[Kg, shown("Runners' mass")] = 2.2
    locks: Locks = True
    material: SheetMaterial = "5052-H32"


def expand(unit: Table, site: Site) -> Expansion:
    """Write a table out.

    Args:
        unit: A pull-out table lies flat, a fold-down one stands upright. [mm]
        site: Rail pitch of its bay, and the shop's materials and rules. [mm]
    """
    w, d, h, t = unit.width, unit.depth, unit.height, unit.sheet
    flat = unit.style == "pull-out"
    hem = min(18.0, (h if flat else d) - 1.0)
    rails = (Box(0, 0, 0, 15, d, h), Box(w - 15, 0, 0, w, d, h))
    parts = (
        SheetPart(f"{unit.name}: board", unit.ref, w - 30, d if flat else h, t, site.material(unit.material),
                  left=hem, right=hem, group="table", poses=(at(15.0, d, h, LID) if flat else at(15.0, 0.0, h, FACE),)),
        Hardware("pair of runners with stops" if flat else "hinge and two stays", unit.ref, fix="bolts",
                 places=rails),
    )  # fmt: skip
    board = made(parts[0], whole=True)[0].box
    motion = (
        pull_out(unit.name, (board,), d * 0.85, locks=unit.locks)
        if flat
        else Motion("", unit.name, (Moved(board),), (Step("fold", 0, 90.0),), unit.locks)
    )
    return Expansion(
        (*(Solid(r, "bought") for r in rails), Solid(board, "made", moves=True)),
        (),
        (*sheet_masses(parts, unit, (w / 2, d / 2, h)),
         PointMass("runners", unit.slide_mass, "data sheet", (w / 2, d / 2, h / 2))),
        parts,
        Box(0, 0, 0, w, d, h),
        elevation(unit),
        travel=d * 0.85 if flat else 0.0,
        motions=(motion,),
        hollow=True,
        plan=(rectangle("front", 15, 0, w - 15, d if flat else h, 8),),
    )  # fmt: skip


def elevation(unit: Table) -> Scene:
    """Draw the table's edge with its grip, or the upright board with its latch."""
    w, h = unit.width, unit.height
    if unit.style == "pull-out":
        return (rectangle("bought dark", 0, 0, 15, h), rectangle("bought dark", w - 15, 0, w, h),
                rectangle("front", 15, 0, w - 15, h, 3),
                rectangle("recess", w * 0.4, h * 0.3, w * 0.6, h * 0.7, 4))  # fmt: skip
    return (rectangle("front", 0, 0, w, h, 8), rectangle("detail", 20, 20, w - 20, h - 20, 6),
            Disc("fitting", (w / 2, h - 26), 9))  # fmt: skip


def offers() -> tuple[Offer, ...]:
    """List the tables in the stores."""
    return (
        offer(Table, "table", "Kitchen", "Pull-out table", (600, 650, 40), "Above a drawer, or by itself"),
        offer(Table, "table-fold", "Kitchen", "Fold-down table", (600, 40, 400), "Folds down in front",
              style="fold-down"),
    )  # fmt: skip


KIND = Kind(Table, expand, offers, rank=20, contents=False, stance="hang", carries=False)
