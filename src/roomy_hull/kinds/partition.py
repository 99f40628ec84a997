"""Partition: an upright wall that keeps loads apart, with a tie-down rail if wanted."""

from typing import Annotated

from roomy_hull.core.card import shown
from roomy_hull.core.folded import Hole
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.parts import Hardware, Part, SheetPart
from roomy_hull.core.poses import WALL, at
from roomy_hull.core.primitives import Disc, Scene, Stroke, rectangle
from roomy_hull.kinds.expansion import Expansion, Solid, made, sheet_masses
from roomy_hull.kinds.kind import Kind, Offer, Site, offer
from roomy_hull.kinds.placed import Placed, PlainSheet, SheetMaterial


class Partition(Placed, frozen=True, kw_only=True, tag_field="kind", tag="partition"):
    """An upright wall; `width` is over its flanges. `rail` adds a tie-down rail along its top."""

    sheet: PlainSheet = 2.0
    rail: Annotated[bool, shown("Tie-down rail")] = True
    material: SheetMaterial = "5052-H32"


RAIL_KG_PER_M = 0.55
"""A light slotted tie-down rail (common practice). [kg/m]"""


def expand(unit: Partition, site: Site) -> Expansion:
    """Write a partition out.

    Args:
        unit: The partition; `width` is over its flanges. [mm]
        site: Rail pitch of its bay, and the shop's materials and rules. [mm]
    """
    w, d, h, t = unit.width, unit.depth, unit.height, unit.sheet
    flange = w if w > t + 0.5 else 0.0
    holes = (
        tuple(
            Hole(20.0 + n * site.pitch, 20.0, 8.5) for n in range(int((d - 40) // site.pitch) + 1)
        )
        if site.pitch > 0
        else ()
    )
    parts: tuple[Part, ...] = (
        SheetPart(f"{unit.name}: wall", unit.ref, d, h, t, site.material(unit.material), front=flange, back=flange,
                  holes=holes[:12], poses=(at(0.0, 0.0, 0.0, WALL),)),
    )  # fmt: skip
    solids = list(made(parts[0]))
    masses = sheet_masses(parts, unit, (w / 2, d / 2, h / 2))
    if unit.rail:
        parts += (
            Hardware(
                f"tie-down rail {d:.0f} mm with two rings",
                unit.ref,
                fix="bolts",
                places=(Box(t, t + 2, h - max(t, 25.0), max(t + 2.0, w), d - t - 2, h - t - 0.0),),
            ),
        )
        solids.append(Solid(Box(0, 0, h - max(t, 25.0), w, d, h), "bought"))
    return Expansion(
        tuple(solids), (), masses, parts, Box(0, 0, 0, w, d, h), elevation(unit), hollow=True
    )


def elevation(unit: Partition) -> Scene:
    """Draw the wall's edge, and its rail's end with a ring."""
    w, h = unit.width, unit.height
    found: list[Stroke] = [
        rectangle("front", 0, 0, max(unit.sheet, 6.0), h),
        rectangle("front", 0, 0, w, 6),
    ]
    if unit.rail:
        found += [rectangle("bought dark", 0, h - 25, w, h, 3), Disc("fitting", (w / 2, h - 12), 7)]
    return tuple(found)


def offers() -> tuple[Offer, ...]:
    """List the partitions in the stores."""
    return (
        offer(Partition, "partition", "Shelves and walls", "Partition", (25, 700, 400),
              "Keeps loads apart; a tie-down rail on top"),
    )  # fmt: skip


KIND = Kind(Partition, expand, offers, rank=20, stance="floor", carries=False, use="rarely")
