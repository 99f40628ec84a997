"""The stores: what can be placed, by use, with usual sizes (common practice)."""

import functools
from typing import Any

import msgspec

from roomy_hull.job.unit import (
    Block,
    Carried,
    CarriedKind,
    CaseRack,
    Compartment,
    Device,
    Drawer,
    FalseFloor,
    Fridge,
    GasLocker,
    Kitchen,
    Own,
    Pantry,
    Partition,
    Pocket,
    Shelf,
    Slide,
    Stack,
    Table,
    Tank,
    Tube,
    Unit,
    Wing,
)
from roomy_hull.kit.expansion import Expansion
from roomy_hull.kit.kinds import expand


class Entry(msgspec.Struct, frozen=True):
    """One thing in the stores. `make` is placed as it is, with a new id and place."""

    key: str
    use: str
    make: Unit | Carried
    tip: str


def _unit(kind: type[Any], key: str, group: str, name: str, size: tuple[float, float, float], tip: str,
          **more: Any) -> Entry:  # fmt: skip
    """Give an entry for a unit of a kind, its id the kind's word."""
    word = str(kind.__struct_config__.tag).replace(" ", "-")
    w, d, h = size
    return Entry(
        key,
        group,
        kind(id=more.pop("id", word), name=name, bay="-", width=w, depth=d, height=h, **more),
        tip,
    )


def _device(what: str, name: str, size: tuple[float, float, float], mass: float, tip: str, group: str,
            **more: Any) -> Entry:  # fmt: skip
    """Give an entry for a bought device."""
    key = what.replace(" ", "-")
    return _unit(Device, key, group, name, size, tip, id=key, what=what, mass=mass, **more)


def _carried(key: str, name: str, kind: CarriedKind, size: tuple[float, float, float], mass: float, tip: str,
             **more: Any) -> Entry:  # fmt: skip
    """Give an entry for a thing carried outside."""
    a, b, c = size
    made: dict[str, Any] = {"x": 0.0, "y": 0.0, "z": 900.0} | more
    return Entry(key, "Outside", Carried(id=key, name=name, kind=kind, length=a, width=b, height=c, mass=mass,
                                         **made), tip)  # fmt: skip


_CHEST = "Chest fridge on a slide; needs air at its vents"
_SHELF = "Folded shelf with a lip in front"
_TANK = "Welded tank with baffles; low and ahead of the axle if it can be"
_ROOF: dict[str, Any] = {"z": 1900.0, "mount": "canopy", "on_roof": True}


@functools.cache
def entries() -> tuple[Entry, ...]:
    """Give everything in the stores, in the order shown."""
    return (
        *_cold(),
        *_drawers(),
        *_shelves(),
        *_kitchen(),
        *_water(),
        *_power(),
        *_loads(),
        *_outside(),
    )


def _cold() -> tuple[Entry, ...]:
    return (
        _unit(Fridge, "fridge-40", "Cold", "Fridge 40 l", (400, 660, 500), _CHEST, litres=40, mass=19.5, contents=18),
        _unit(Fridge, "fridge-60", "Cold", "Fridge 60 l", (450, 740, 540), _CHEST, litres=60, mass=24, contents=28),
        _unit(Fridge, "fridge-drop", "Cold", "Drop fridge 60 l", (450, 740, 560),
              "The slide lowers it once it is out: packed without climbing", litres=60, mass=24, contents=28,
              slide_style="drop", drop=350, slide_height=70, slide_mass=29, slide_rating=130),
        _unit(Fridge, "fridge-upright", "Cold", "Upright 85 l", (475, 500, 620),
              "As at home, without a slide; wants room for its door", style="upright", litres=85, mass=22,
              contents=30, slide_mass=0),
        _unit(Fridge, "fridge-drawer", "Cold", "Drawer 50 l", (500, 560, 440),
              "Pulls out by itself, without a slide", style="drawer", litres=50, mass=23, contents=22, slide_mass=0),
        _unit(Slide, "slide", "Cold", "Slide", (450, 740, 400), "For anything that stands on it", contents=30),
        _unit(Slide, "slide-drop", "Cold", "Drop slide", (450, 740, 420), "Out, then down", style="drop",
              slide_height=70, slide_mass=29, contents=30),
    )  # fmt: skip


def _drawers() -> tuple[Entry, ...]:
    return (
        _unit(Drawer, "drawer-low", "Drawers", "Low drawer", (600, 800, 250),
              "Full-length drawer for heavy and bulky goods", contents=35, id="drawer-low"),
        _unit(Drawer, "drawer", "Drawers", "Drawer", (450, 700, 220), "Drawer on a pair of slides", contents=20),
        _unit(Drawer, "drawer-small", "Drawers", "Small drawer", (450, 600, 150), "For small goods, up high",
              contents=8, id="drawer-small"),
        _unit(Drawer, "drawer-table", "Drawers", "Drawer with table", (500, 700, 260),
              "A board pulls out above the box", contents=18, table=True, id="drawer-table"),
        _unit(Drawer, "drawer-locked", "Drawers", "Locked drawer", (450, 700, 160), "A lock with a key in its front",
              contents=10, lockable=True, id="drawer-locked"),
        _unit(Stack, "stack", "Drawers", "Drawer stack", (450, 700, 560), "Different heights in one carcass",
              heights=(240.0, 180.0, 140.0), contents=40),
        _unit(Pantry, "pantry", "Drawers", "Pull-out pantry", (250, 600, 700), "Tall and narrow, reached from both sides",
              contents=22, baskets=3),
        _unit(Pocket, "pocket", "Drawers", "Open pocket", (400, 400, 250),
              "What nobody could see in a high drawer is better here", contents=6),
        _unit(CaseRack, "case-rack", "Drawers", "Case rack", (640, 412, 462), "For equal cases, each drawn out",
              across=2, up=2, case_height=220, case_width=310, contents=24),
        _unit(Tube, "tube", "Drawers", "Long tube", (160, 820, 160), "For poles and rods", contents=5),
    )  # fmt: skip


def _shelves() -> tuple[Entry, ...]:
    return (
        _unit(Shelf, "shelf", "Shelves and walls", "Shelf", (600, 500, 300), _SHELF, contents=15),
        _unit(Shelf, "shelf-long", "Shelves and walls", "Long shelf", (1200, 500, 300), _SHELF, contents=30,
              id="shelf-long"),
        _unit(Shelf, "shelf-sliding", "Shelves and walls", "Sliding shelf", (600, 600, 300),
              "Pulls out; what lies at its back is reached", contents=20, slides=True, id="shelf-sliding"),
        _unit(Partition, "partition", "Shelves and walls", "Partition", (25, 700, 400),
              "Keeps loads apart; a tie-down rail on top"),
        _unit(FalseFloor, "false-floor", "Shelves and walls", "False floor", (900, 800, 120),
              "Hatches over space that nothing else can use", contents=0),
        _unit(Wing, "wing", "Shelves and walls", "Wing", (220, 820, 260), "The odd room beside the drawers",
              contents=8),
        _unit(Compartment, "compartment", "Shelves and walls", "Dog compartment", (600, 700, 600),
              "Mesh door and air vents", contents=25),
        _unit(Own, "own", "Shelves and walls", "Own box", (400, 500, 300),
              "Made from boxes of your own; keep it in the stores by the Unit menu", mass=6, contents=10,
              blocks=(Block(u=0, v=0, w=0, width=400, depth=500, height=300),)),
    )  # fmt: skip


def _kitchen() -> tuple[Entry, ...]:
    return (
        _unit(Kitchen, "kitchen", "Kitchen", "Pull-out kitchen", (600, 750, 300),
              "Slides out; a worktop folds out on each side", contents=14, leaf_left=240, leaf_right=240),
        _unit(Kitchen, "kitchen-drop", "Kitchen", "Drop-down kitchen", (700, 350, 420),
              "Its front folds down to a worktop", style="drop-down", contents=12, sink=False, tap=False),
        _unit(Kitchen, "kitchen-flush", "Kitchen", "Bench kitchen", (650, 650, 260),
              "Flush in a bench, under its lid", style="flush", contents=10, cooker="induction"),
        _unit(Table, "table", "Kitchen", "Pull-out table", (600, 650, 40), "Above a drawer, or by itself"),
        _unit(Table, "table-fold", "Kitchen", "Fold-down table", (600, 40, 400), "Folds down in front",
              style="fold-down"),
        _unit(GasLocker, "gas-locker", "Kitchen", "Gas locker", (270, 300, 510),
              "Sealed inside, vented low to the outside; a licensed gas fitter decides"),
    )  # fmt: skip


def _water() -> tuple[Entry, ...]:
    return (
        _unit(Tank, "tank-60", "Water and air", "Water tank 60 l", (300, 600, 345), _TANK),
        _unit(Tank, "tank-90", "Water and air", "Water tank 90 l", (330, 760, 370), _TANK),
        _unit(Tank, "tank-wedge", "Water and air", "Wedge tank", (500, 350, 400), "Behind seats or against a sloping back",
              style="wedge", low=150.0),
        _unit(Tank, "bladder", "Water and air", "Water bladder 35 l", (220, 700, 280), "In a tray, in odd room",
              style="bladder", baffles=0, id="bladder"),
        _unit(Tank, "cans", "Water and air", "Two water cans", (360, 370, 420), "Feed by gravity; carried to fill",
              style="cans", cans=2, baffles=0, id="cans"),
        _device("pump", "Water pump", (220, 130, 120), 2.1, "With its switch where water is used", "Water and air"),
        _device("water heater", "Water heater", (350, 400, 300), 13, "Fitted by a licensed person",
                "Water and air", vent=30, service=100),
        _device("hose reel", "Hose reel", (300, 180, 300), 5.5, "Air or water", "Water and air"),
        _device("compressor", "Air compressor", (320, 180, 260), 8.5, "Gets hot: wants air", "Water and air", vent=40),
        _device("air tank", "Air tank", (500, 170, 190), 6.5, "Lines to all corners", "Water and air"),
    )  # fmt: skip


def _power() -> tuple[Entry, ...]:
    return (
        _device("battery", "Battery 100 Ah", (330, 175, 220), 12.5, "Its fuse protects the cable", "Power", vent=10,
                service=60),
        _device("charger", "DC charger", (150, 90, 210), 2.0, "From the alternator and the sun", "Power", vent=25),
        _device("inverter", "Inverter 2000 W", (400, 210, 110), 6.5,
                "With leakage protection; wired by a licensed electrician", "Power", vent=40),
        _device("fuse board", "Fuse board", (220, 90, 170), 1.4, "In one place that can be reached", "Power",
                service=150, use="each camp"),
        _device("switch panel", "Switch panel", (200, 60, 90), 0.7, "Lights from both sides", "Power", use="each stop"),
        _device("outlet", "Outlet", (90, 60, 90), 0.3, "Where it is used", "Power", use="each stop"),
    )  # fmt: skip


def _loads() -> tuple[Entry, ...]:
    return (
        _device("extinguisher", "Extinguisher", (110, 110, 340), 2.4, "Right beside the burner, one action away",
                "Safety", use="now"),
        _device("first aid", "First-aid kit", (240, 120, 180), 1.6, "One action away, nothing unloaded", "Safety",
                use="now"),
    )  # fmt: skip


def _outside() -> tuple[Entry, ...]:
    return (
        _carried("spare", "Spare wheel", "spare wheel", (270, 804, 804), 34,
                 "The tyre rests on a ledge, not on its studs"),
        _carried("spare-swing", "Swing-out spare", "spare wheel", (270, 804, 804), 52,
                 "Swings aside, so that the rear door opens", turn=110.0, reach=120.0),
        _carried("jerry", "Jerry can 20 l", "jerry", (170, 345, 465), 4.5, "20 l of diesel in a holder", contents=16.8),
        _carried("ladder", "Ladder", "ladder", (60, 380, 1100), 6.5, "Up to the roof, fixed at the rear"),
        _carried("tent", "Roof tent", "tent", (1450, 1250, 320), 62,
                 "On the canopy's roof rails; mind the roof rating", side="left", **_ROOF),
        _carried("awning", "Awning", "awning", (2000, 130, 120), 17, "Straight out on two posts", side="left",
                 reach=2000.0, mount="canopy", z=1900.0),
        _carried("awning-270", "Awning 270°", "awning", (2100, 160, 170), 24, "Turns about one end, round the corner",
                 side="left", turn=270.0, hand="right", mount="canopy", z=1900.0, legs=False),
        _carried("awning-180", "Awning 180°", "awning", (2000, 150, 160), 19, "Turns about one end", side="left",
                 turn=180.0, hand="right", mount="canopy", z=1900.0, legs=False),
        _carried("shower", "Shower tent", "shower tent", (450, 70, 90), 4.5,
                 "On a folding bracket, left- or right-handed", side="left", reach=950.0, turn=90.0, mount="canopy",
                 z=1900.0),
        _carried("light-bar", "Light bar", "light bar", (70, 1200, 80), 5.5, "Across the roof's edge", **_ROOF),
        _carried("aerial", "Aerial", "aerial", (40, 40, 1100), 0.6, "Mind doors and tent", mount="vehicle"),
        _carried("boards", "Recovery boards", "recovery boards", (1150, 320, 90), 8, "Outside: never above clean gear",
                 **_ROOF),
        _carried("load", "Roof load", "load", (1200, 600, 250), 25, "A load on the roof", **_ROOF),
        _carried("load-long", "Long roof load", "load", (3000, 600, 250), 32, "On rack, headboard and canopy in one line",
                 **_ROOF),
    )  # fmt: skip


def entry(key: str) -> Entry:
    """Look an entry of the shipped stores up.

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


_likenesses: dict[int, tuple[Unit, Expansion]] = {}


def likeness(made: Unit | Carried) -> Expansion | None:
    """Expand a unit of the stores, for its picture and mass; nothing for a carried item."""
    if isinstance(made, Carried):
        return None
    known = _likenesses.get(id(made))
    if known is None or known[0] is not made:
        known = (made, expand(made, 25.0))
        _likenesses[id(made)] = known
    return known[1]


def mass(made: Unit | Carried) -> float:
    """Give the mass of a thing with its usual contents. [kg]"""
    if isinstance(made, Carried):
        return made.mass + made.contents
    found = likeness(made)
    return sum(lump.kg for lump in found.lumps) if found is not None else 0.0
