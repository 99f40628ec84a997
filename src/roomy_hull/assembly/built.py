"""Parts that were cut to another size than they were drawn: their solids and their mass follow."""

from collections.abc import Sequence
from typing import NamedTuple

import msgspec

from roomy_hull.core.fill import FIXED
from roomy_hull.core.geometry.solids import Box, hull
from roomy_hull.core.parts import Hardware, Part, SheetPart
from roomy_hull.core.poses import standing
from roomy_hull.kinds.expansion import Expansion, Solid, part_mass


class PartBuilt(NamedTuple):
    """A unit's part as it was cut: its name, which of its sizes, and what that came to. [mm]"""

    part: str
    size: str
    value: float


def can_be(part: Part, size: str) -> bool:
    """Whether one size of a part can be built otherwise by itself: of a pan or a plate both, of a bar its length."""
    if isinstance(part, Hardware):
        return False
    return part.shape is None if isinstance(part, SheetPart) else size == "length"


def altered(made: Expansion, built: Sequence[PartBuilt]) -> Expansion:
    """An expansion with some parts as they were cut.

    Args:
        made: As drawn. [mm, kg]
    Returns:
        Parts, solids, envelope and mass follow; each part keeps its corner, its far edge is where it was cut. The
        same expansion where none of its parts is one of them.
    """
    solids, masses = list(made.solids), list(made.masses)
    parts = list(made.parts)
    for one in built:
        for n, part in enumerate(parts):
            if part.name != one.part.partition(" #")[0] or not can_be(part, one.size):
                continue
            new = msgspec.structs.replace(part, **{one.size: one.value})
            solids = _moved(solids, part, new)
            parts[n] = new
    if all(a is b for a, b in zip(parts, made.parts, strict=True)):
        return made
    more = part_mass(tuple(parts)) - part_mass(made.parts)
    # The mass that was computed from the parts, whatever it is called.
    own = next(
        (n for n, m in enumerate(masses) if m.source == "geometry" and m.fill == FIXED), None
    )
    if own is not None:
        masses[own] = msgspec.structs.replace(masses[own], kg=max(0.0, masses[own].kg + more))
    envelope = hull([s.box for s in solids]) if solids else made.envelope
    return msgspec.structs.replace(
        made, parts=tuple(parts), solids=tuple(solids), masses=tuple(masses), envelope=envelope
    )


def _moved(solids: list[Solid], old: Part, new: Part) -> list[Solid]:
    """Solids with those of one part as it was cut; what stands otherwise than its part stays."""
    if isinstance(old, Hardware) or isinstance(new, Hardware):
        return solids
    pairs: dict[Box, Box] = {}
    for was, now in zip(standing(old), standing(new), strict=True):
        pairs |= dict(zip(was, now, strict=False))
        pairs[hull(was)] = hull(now)
    return [msgspec.structs.replace(s, box=pairs[s.box]) if s.box in pairs else s for s in solids]
