"""Set-ups: what is on the vehicle for which use; a scenario names its own."""

from typing import Annotated

from msgspec import Meta

from roomy_hull.core.value import Id, Name, Value


class SetUp(Value, frozen=True, kw_only=True):
    """What is on the vehicle for one use.

    `off` are the units, carried things, rooms and racks that stay at home, and with them what stands in or on them.
    `canopy` and `sides` say whether the canopy and the tray's drop sides are on, `second_doors` on which doors the
    second leaf hangs.
    """

    id: Id
    name: Name
    use: Name = ""
    off: Annotated[tuple[Id, ...], Meta(max_length=400)] = ()
    canopy: bool = True
    sides: bool = True
    second_doors: Annotated[tuple[Id, ...], Meta(max_length=40)] = ()
