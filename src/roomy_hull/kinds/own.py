"""Own: a unit that the user made from boxes and keeps in the stores as an open file."""

from typing import Annotated, Literal

from msgspec import Meta

from roomy_hull.core.card import shown
from roomy_hull.core.fill import CONTENTS
from roomy_hull.core.geometry.motion import Motion, Moved, Step
from roomy_hull.core.geometry.solids import Box, hull
from roomy_hull.core.parts import Hardware
from roomy_hull.core.primitives import Scene, rectangle
from roomy_hull.core.uncertainty import MassSource
from roomy_hull.core.value import Gap, Id, Kg, Mm, Name, PositiveMm, Value
from roomy_hull.kinds.common import hinge_remedies
from roomy_hull.kinds.expansion import INWARD, Expansion, PointMass, Solid
from roomy_hull.kinds.kind import Kind, Offer, Site, offer
from roomy_hull.kinds.placed import HingeSide, Placed


class Block(Value, frozen=True, kw_only=True):
    """A box of a user's own unit, from the unit's corner. [mm]"""

    u: Mm
    v: Mm
    w: Mm
    width: PositiveMm
    depth: PositiveMm
    height: PositiveMm
    role: Literal["made", "bought", "front", "space"] = "made"
    moves: bool = False
    group: Annotated[str, Meta(max_length=40)] = ""


class Group(Value, frozen=True, kw_only=True):
    """What moves together of an own unit, besides what its own motion moves: a second drawer, a lid, a leg.

    It slides out by `travel`, lifts by `lift` (a leg goes down below 0), then turns by `turn` degrees about an edge of
    its own boxes: ``left`` and ``right`` are the upright front edges, ``back`` the upper back one, as of a lid.
    """

    id: Id
    name: Name = ""
    travel: Gap = 0.0
    lift: Mm = 0.0
    turn: Annotated[float, Meta(ge=0, le=360, description="degrees")] = 0.0
    hinge: Literal["left", "right", "back"] = "left"
    locks: bool = True


class Own(Placed, frozen=True, kw_only=True, tag_field="kind", tag="own"):
    """A unit of the user's own, made from boxes.

    What moves slides out by `travel`, then turns by `turn` degrees about an upright line at its left or
    right front edge.
    """

    mass: Annotated[Kg, shown("Mass, empty")] = 0.0
    mass_source: MassSource = "estimate"
    travel: Annotated[Gap, shown("Slides out by", "What moves of it")] = 0.0
    turn: Annotated[float, Meta(ge=0, le=360, description="degrees"), shown("Turns by, degrees")] = 0.0  # fmt: skip
    hinge: HingeSide = "left"
    locks: Annotated[bool, shown("Locks when open")] = True
    blocks: Annotated[
        tuple[Block, ...],
        Meta(min_length=1, max_length=200),
        shown(
            "Boxes",
            "u v w width depth height, one box each, ; between; m after one that moves, or a group's id",
            quantity="boxes",
        ),
    ]
    groups: Annotated[
        tuple[Group, ...],
        Meta(max_length=20),
        shown(
            "Groups", "id travel lift turn hinge name, one group each, ; between", quantity="groups"
        ),
    ] = ()

    def __post_init__(self) -> None:
        """Refuse boxes outside the unit's own size, and groups that do not go together.

        Raises:
            ValueError: Names the box and the side.
        """
        for n, b in enumerate(self.blocks, 1):
            for name, at, size, room in (
                ("u", b.u, b.width, self.width),
                ("v", b.v, b.depth, self.depth),
                ("w", b.w, b.height, self.height),
            ):
                if at < -0.01 or at + size > room + 0.01:
                    raise ValueError(
                        f"own unit {self.id}: box {n} stands out of the unit along {name} "
                        f"({at:g} + {size:g}, room 0 to {room:g})"
                    )
        ids = [g.id for g in self.groups]
        for n, b in enumerate(self.blocks, 1):
            if b.group and b.group not in ids:
                raise ValueError(
                    f"own unit {self.id}: box {n} moves with '{b.group}', which is no group of it; "
                    f"use one of: {', '.join(ids) or 'none'}"
                )
        if len(set(ids)) != len(ids):
            raise ValueError(f"own unit {self.id}: two groups share an id; give each its own")


def box_of(block: Block) -> Box:
    """A block's box from the unit's corner. [mm]"""
    return Box(
        block.u, block.v, block.w,
        block.u + block.width, block.v + block.depth, block.w + block.height,
    )  # fmt: skip


def expand(unit: Own, site: Site) -> Expansion:  # ruff: ignore[unused-function-argument]  # every kind is given its site
    """Write a user's own unit out.

    Args:
        unit: Its boxes, mass and motion. [mm, kg, degrees]
        site: Rail pitch of its bay, and the shop's materials and rules. [mm]
    Returns: Its solids, masses, motion if it has one, and elevation.
    """
    w, d, h = unit.width, unit.depth, unit.height
    solids = tuple(Solid(box_of(b), b.role, b.moves or bool(b.group)) for b in unit.blocks)
    middle = (w / 2, d / 2, h / 2)
    moved = tuple(Moved(box_of(b)) for b in unit.blocks if b.moves and not b.group)
    steps: list[Step] = []
    if unit.travel:
        steps.append(Step("slide", INWARD, -unit.travel))
    if unit.turn:
        left = unit.hinge == "left"
        pivot = (
            (min(m.box.x0 for m in moved) if left else max(m.box.x1 for m in moved), -unit.travel)
            if moved
            else (0.0, 0.0)
        )
        steps.append(Step("swing", 2, -unit.turn if left else unit.turn, pivot=pivot))
    own = (Motion("", unit.name, moved, tuple(steps), unit.locks),) if moved and steps else ()
    motions = own + tuple(m for g in unit.groups if (m := _motion(unit, g)) is not None)
    return Expansion(
        solids, (),
        (PointMass(unit.name, unit.mass, unit.mass_source, middle),
         PointMass("contents", unit.contents, unit.contents_source, middle, CONTENTS)),
        (Hardware(unit.name, unit.ref),), Box(0, 0, 0, w, d, h), elevation(unit),
        travel=max([unit.travel if moved else 0.0, *(g.travel for g in unit.groups)]) if motions else 0.0,
        motions=motions, hollow=True,
    )  # fmt: skip


def _motion(unit: Own, group: Group) -> Motion | None:
    """The motion of one group; none where nothing belongs to it or it goes nowhere."""
    boxes = [box_of(b) for b in unit.blocks if b.group == group.id]
    steps: list[Step] = []
    if not boxes:
        return None
    if group.travel:
        steps.append(Step("slide", INWARD, -group.travel))
    if group.lift:
        steps.append(Step("lift" if group.lift > 0 else "lower", 2, group.lift))
    whole = hull(boxes)
    if group.turn:
        if group.hinge == "back":
            pivot = (whole.y1 - group.travel, whole.z1 + group.lift)
            steps.append(Step("fold", 0, -group.turn, pivot=pivot))
        else:
            left = group.hinge == "left"
            pivot = (whole.x0 if left else whole.x1, whole.y0 - group.travel)
            steps.append(Step("swing", 2, -group.turn if left else group.turn, pivot=pivot))
    if not steps:
        return None
    name = group.name or f"{unit.name}: {group.id}"
    return Motion(group.id, name, tuple(Moved(b) for b in boxes), tuple(steps), group.locks)


DRAWN = {"made": "front", "bought": "bought", "front": "front", "space": "space"}
"""As what a box is drawn."""


def elevation(unit: Own) -> Scene:
    """Draw its boxes from the access face, the furthest first."""
    return tuple(
        rectangle(DRAWN[b.role], b.u, b.w, b.u + b.width, b.w + b.height, 4)
        for b in sorted(unit.blocks, key=lambda b: -b.v)
    )


def offers() -> tuple[Offer, ...]:
    """List where a user's own unit begins."""
    return (
        offer(Own, "own", "Shelves and walls", "Own box", (400, 500, 300),
              "Made from boxes of your own; keep it in the stores by the Unit menu", mass=6, contents=10,
              blocks=(Block(u=0, v=0, w=0, width=400, depth=500, height=300),)),
        offer(Own, "own-complete", "Drawers", "Bought drawer system", (600, 500, 260),
              "Complete, with two drawers and a lid that folds up; its boxes and groups are typed on the card", mass=31,
              mass_source="data sheet", contents=40, blocks=(
                  Block(u=0, v=480, w=0, width=600, depth=20, height=240, role="bought"),
                  Block(u=0, v=0, w=0, width=292, depth=470, height=230, role="front", group="left"),
                  Block(u=308, v=0, w=0, width=292, depth=470, height=230, role="front", group="right"),
                  Block(u=0, v=0, w=242, width=600, depth=500, height=18, role="made", group="lid"),
              ), groups=(
                  Group(id="left", name="Left drawer", travel=420), Group(id="right", name="Right drawer", travel=420),
                  Group(id="lid", name="Lid", turn=85, hinge="back"),
              )),
    )  # fmt: skip


KIND = Kind(Own, expand, offers, rank=60, handed=("hinge",), remedies=hinge_remedies)
