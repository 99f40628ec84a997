"""The stores: what can be placed, by use, with usual sizes (common practice)."""

import functools

import msgspec

from roomy_hull.job.unit import Carried, Drawer, Fridge, Shelf, Tank, Unit
from roomy_hull.kit.expansion import Expansion
from roomy_hull.kit.kinds import expand


class Entry(msgspec.Struct, frozen=True):
    """One thing in the stores. `make` is placed as it is, with a new id and place."""

    key: str
    use: str
    make: Unit | Carried
    tip: str


@functools.cache
def entries() -> tuple[Entry, ...]:
    """Give everything in the stores, in the order shown."""

    def drawer(key: str, name: str, w: float, d: float, h: float, kg: float, tip: str) -> Entry:
        unit = Drawer(id=key, name=name, bay="-", width=w, depth=d, height=h, contents=kg)
        return Entry(key, "Drawers", unit, tip)

    def shelf(key: str, name: str, w: float, d: float, h: float, kg: float, tip: str) -> Entry:
        unit = Shelf(id=key, name=name, bay="-", width=w, depth=d, height=h, contents=kg)
        return Entry(key, "Shelves", unit, tip)

    return (
        Entry("fridge-40", "Cold", Fridge(
            id="fridge", name="Fridge 40 l", bay="-", width=400, depth=660, height=500,
            litres=40, mass=19.5, contents=18), "Chest fridge on a slide; needs air at its vents"),
        Entry("fridge-60", "Cold", Fridge(
            id="fridge", name="Fridge 60 l", bay="-", width=450, depth=740, height=540,
            litres=60, mass=24, contents=28), "Chest fridge on a slide; needs air at its vents"),
        drawer("drawer-low", "Low drawer", 600, 800, 250, 35,
               "Full-length drawer for heavy and bulky goods"),
        drawer("drawer", "Drawer", 450, 700, 220, 20, "Drawer on a pair of slides"),
        drawer("drawer-small", "Small drawer", 450, 600, 150, 8, "For small goods, up high"),
        shelf("shelf", "Shelf", 600, 500, 300, 15, "Folded shelf with a lip in front"),
        shelf("shelf-long", "Long shelf", 1200, 500, 300, 30, "Folded shelf with a lip in front"),
        Entry("tank-60", "Water", Tank(
            id="tank", name="Water tank 60 l", bay="-", width=300, depth=600, height=345),
            "Welded tank with baffles; low and ahead of the axle if it can be"),
        Entry("tank-90", "Water", Tank(
            id="tank", name="Water tank 90 l", bay="-", width=330, depth=760, height=370),
            "Welded tank with baffles; low and ahead of the axle if it can be"),
        Entry("spare", "Outside", Carried(
            id="spare", name="Spare wheel", kind="spare wheel", x=0, y=0, z=900, length=270,
            width=804, height=804, mass=34), "The tyre rests on a ledge, not on its studs"),
        Entry("jerry", "Outside", Carried(
            id="jerry", name="Jerry can 20 l", kind="jerry", x=0, y=0, z=900, length=170,
            width=345, height=465, mass=4.5, contents=16.8), "20 l of diesel in a holder"),
        Entry("tent", "Outside", Carried(
            id="tent", name="Roof tent", kind="tent", x=0, y=0, z=1900, length=1450, width=1250,
            height=320, mass=62, mount="canopy", on_roof=True),
            "On the canopy's roof rails; mind the roof rating"),
        Entry("load", "Outside", Carried(
            id="load", name="Roof load", kind="load", x=0, y=0, z=1900, length=1200, width=600,
            height=250, mass=25, mount="canopy", on_roof=True), "A load on the roof"),
    )  # fmt: skip


def entry(key: str) -> Entry:
    """Look an entry up.

    Parameters
    ----------
    key : str
        The entry's key.

    Returns
    -------
    Entry
        The entry.
    """
    return next(e for e in entries() if e.key == key)


@functools.cache
def likeness(key: str) -> Expansion | None:
    """Expand an entry's unit, for its picture and mass; nothing for a carried item."""
    made = entry(key).make
    return None if isinstance(made, Carried) else expand(made, 25.0)


def mass(key: str) -> float:
    """Give the mass of an entry with its usual contents. [kg]"""
    made = entry(key).make
    if isinstance(made, Carried):
        return made.mass + made.contents
    return sum(lump.kg for lump in expand(made, 25.0).lumps)
