"""Body parts: what tray, chassis and what hangs under them consist of, each known by its role and side."""

from typing import Literal

import msgspec

from roomy_hull.core.capabilities import PLAIN, Capabilities
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.refs import Ref

BodyRole = Literal[
    "floor", "rail", "headboard", "side", "tail", "arch", "box", "trundle", "tank",
    "wheel", "chassis rail", "rear axle", "fuel tank", "false floor", "wing", "coaming",
]  # fmt: skip
Hand = Literal["left", "right"]
OPENS: frozenset[BodyRole] = frozenset({"side", "tail", "box", "trundle"})
"""Roles that open, and so are no part of what never moves."""
UNDER: frozenset[BodyRole] = frozenset({"box", "trundle", "tank"})
"""Roles that hang under the tray."""


class BodyPart(msgspec.Struct, frozen=True):
    """One solid of the body or of the chassis below it.

    Attributes:
        role: What it is.
        box: In vehicle axes. [mm]
        side: ``left`` or ``right`` where there is one on each side.
        id: Which one, where there may be several: a toolbox's id, an arch's number, ``long-range``.
    """

    role: BodyRole
    box: Box
    side: Hand | Literal[""] = ""
    id: str = ""

    @property
    def ref(self) -> Ref:
        """What findings of a piece of the tray say."""
        return Ref("tray piece", self.words)

    @property
    def words(self) -> str:
        """What findings and the screen call it."""
        fixed = {"trundle": "trundle drawer", "tank": "under-tray tank"}
        if self.role in ("rail", "side", "wing", "coaming"):
            return f"{self.role} {self.side}"
        if self.role == "arch":
            return f"arch {self.id} {self.side}"
        if self.role == "box":
            return f"box {self.id}"
        if self.role in ("wheel", "chassis rail"):
            return f"{self.side} {self.role}"
        if self.role == "fuel tank" and self.id:
            return f"{self.id} fuel tank"
        return fixed.get(self.role, self.role)


BodyParts = tuple[BodyPart, ...]


class BodyThing(msgspec.Struct, frozen=True):
    """A piece of the body that is a thing to everybody else: what it is, and where it stands, in vehicle axes.

    Attributes:
        id: Its place, as goods name it: ``tray.tank``.
        ref: What findings say of it.
        owner: What its parts belong to.
        envelope: Around it. [mm]
        moves: Whether any of it slides.
    """

    id: str
    ref: Ref
    owner: Ref
    name: str
    envelope: Box
    capabilities: Capabilities = PLAIN
    moves: bool = False

    @property
    def bay(self) -> str:
        """It stands in none."""
        return ""

    @property
    def openings(self) -> tuple[()]:
        """No lead follows what of it opens."""
        return ()


def part_of(parts: BodyParts, role: BodyRole, side: str = "", key: str = "") -> BodyPart | None:
    """Find the first part of a role, of a side or an id where these are given; none where there is none."""
    return next(
        (p for p in parts if p.role == role and side in ("", p.side) and key in ("", p.id)), None
    )


def parts_of(parts: BodyParts, *roles: BodyRole) -> BodyParts:
    """Select the parts of some roles, in their order."""
    return tuple(p for p in parts if p.role in roles)
