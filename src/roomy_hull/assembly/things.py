"""Masses and things: a unit or carried item as it stands in vehicle axes."""

from typing import Literal

import msgspec

from roomy_hull.assembly.motions import Opening
from roomy_hull.core.capabilities import PLAIN, Capabilities
from roomy_hull.core.fill import FIXED, Fill
from roomy_hull.core.geometry.gaps import apart, clash
from roomy_hull.core.geometry.motion import Piece, block, carried, shifted
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.refs import Ref
from roomy_hull.job.carried import Carried
from roomy_hull.job.goods import Good
from roomy_hull.kinds.expansion import Expansion, Zone
from roomy_hull.kinds.placed import Placed
from roomy_hull.kit.body.canopy import BayPlace
from roomy_hull.kit.body.pieces import BodyThing

MassMount = Literal["vehicle", "tray", "canopy", "sides"]
"""What a mass leaves with: as carried things, or with the tray's drop sides."""


class Mass(msgspec.Struct, frozen=True):
    """One mass in vehicle axes.

    Attributes:
        owner: What it belongs to.
        label: What it is, for people.
        kg, sigma: Mass and its one-sigma doubt; 1 for people and the ball, whose mass the scenario holds. [kg]
        x, y, z: Its centre. [mm]
        fill: What scales it in a scenario.
        mount: What it leaves with: ``vehicle``, ``tray``, ``canopy``, or ``sides``.
        bare: Whether it is the bare vehicle's own, as weighed at kerb.
        of: Which part of a body it is, or is in, by the place that goods name: ``tray.trundle``; empty for most.
    """

    owner: Ref
    label: str
    kg: float
    sigma: float
    x: float
    y: float
    z: float
    fill: Fill = FIXED
    mount: MassMount = "vehicle"
    bare: bool = False
    of: str = ""


class Thing(msgspec.Struct, frozen=True):
    """A unit or carried item in vehicle axes.

    Attributes:
        id: The id of the unit or carried item.
        ref: What findings and masses belong to.
        value: What the job says.
        expansion: The thing in its own frame; a carried item is a plain box.
        place: Its bay; none for a carried item.
        envelope, reach: Around its solids, and around solids and keep-clear zones together.
        solids, zones: Boxes in vehicle axes, in the order of the expansion.
        masses: Its masses.
        trouble: Why it could not be written out (it is then a plain block), else empty.
        openings: What opens on it.
        goods: What is carried in it.
        which: Which it is of several with one name, else empty.
        capabilities: What it is to everybody else, in vehicle axes. [mm]
    """

    id: str
    ref: Ref
    value: Placed | Carried
    expansion: Expansion
    place: BayPlace | None
    envelope: Box
    reach: Box
    solids: tuple[Box, ...]
    zones: tuple[Box, ...]
    masses: tuple[Mass, ...]
    trouble: str = ""
    openings: tuple[Opening, ...] = ()
    goods: tuple[Good, ...] = ()
    which: str = ""
    capabilities: Capabilities = PLAIN

    @property
    def bay(self) -> str:
        """The id of its bay; empty for what is carried."""
        return self.place.bay.id if self.place is not None else ""

    @property
    def owner(self) -> Ref:
        """What its parts belong to."""
        return self.ref

    @property
    def name(self) -> str:
        """What it is called; of several that are called the same, with the word that tells it apart."""
        return f"{self.value.name} ({self.which})" if self.which else self.value.name

    @property
    def contents(self) -> float:
        """What it holds when full: its goods together where there are any, else its own figure. [kg]"""
        return sum(g.kg for g in self.goods) if self.goods else self.value.contents

    @property
    def on_roof(self) -> bool:
        """Whether it counts as roof load."""
        return isinstance(self.value, Carried) and self.value.on_roof

    @property
    def moves(self) -> bool:
        """Whether any of it slides."""
        return self.expansion.travel > 0

    @property
    def in_bay(self) -> Box:
        """A unit's envelope in its bay's directions, a carried thing's in the vehicle's. [mm]"""
        unit = self.value
        if isinstance(unit, Carried):
            return self.envelope
        return self.expansion.envelope.moved(unit.u, unit.v, unit.w)

    @property
    def bulk(self) -> tuple[Box, ...]:
        """The room that is its own, in vehicle axes: its solids where it is hollow, else its envelope. [mm]"""
        return self.solids if self.expansion.hollow else (self.envelope,)

    @property
    def pieces(self) -> tuple[Piece, ...]:
        """The room that is its own, in vehicle axes, exact where its solids are only about a slant. [mm]"""
        unit = self.value
        if not self.expansion.exact or self.place is None or isinstance(unit, Carried):
            return tuple(block(b) for b in self.bulk)
        found = self.expansion.exact
        for axis, by in enumerate((unit.u, unit.v, unit.w)):
            found = tuple(shifted(p, axis, by) for p in found)
        return tuple(carried(self.place.frame, p) for p in found)

    def meets(self, others: tuple[Piece, ...]) -> bool:
        """Whether it shares room with some pieces in vehicle axes: exact, where boxes only say that it may."""
        return any(clash(apart(p, q)) for p in self.pieces for q in others)

    @property
    def still(self) -> tuple[Box, ...]:
        """Those of its solids that stay where they are. [mm]"""
        pairs = zip(self.expansion.solids, self.solids, strict=True)
        if not self.openings:
            return self.solids
        return tuple(box for solid, box in pairs if not solid.moves)

    def zoned(self) -> tuple[tuple[Zone, Box], ...]:
        """Pair its zones with their boxes in vehicle axes. [mm]"""
        return tuple(zip(self.expansion.zones, self.zones, strict=True))


AnyThing = Thing | BodyThing
"""Everything with a place: units, what is carried, and pieces of the body that are things to others."""
