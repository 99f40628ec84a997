"""Clear: what has to stay free beside, above, below, before and behind a unit. [mm]"""

from roomy_hull.assembly.things import Thing

EVERY = ("running", "vent", "service")


def sides(thing: Thing, kinds: tuple[str, ...] = EVERY) -> tuple[float, float]:
    """What has to stay clear at a unit's start and end. [mm]"""
    e = thing.expansion.envelope
    zones = [z.box for z in thing.expansion.zones if z.kind in kinds]
    return max([0.0, *(e.x0 - z.x0 for z in zones)]), max([0.0, *(z.x1 - e.x1 for z in zones)])


def ends(thing: Thing) -> tuple[float, float]:
    """What has to stay clear before and behind a unit. [mm]"""
    e = thing.expansion.envelope
    zones = [z.box for z in thing.expansion.zones]
    return max([0.0, *(e.y0 - z.y0 for z in zones)]), max([0.0, *(z.y1 - e.y1 for z in zones)])


def below(thing: Thing, kinds: tuple[str, ...]) -> float:
    """What has to stay clear below a unit. [mm]"""
    e = thing.expansion.envelope
    return max([0.0, *(e.z0 - z.box.z0 for z in thing.expansion.zones if z.kind in kinds)])


def above(thing: Thing) -> float:
    """What has to stay clear above a unit. [mm]"""
    e = thing.expansion.envelope
    return max([0.0, *(z.box.z1 - e.z1 for z in thing.expansion.zones)])
