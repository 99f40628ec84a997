"""Device: bought things that do not move, from battery to first-aid kit, with the room they want."""

from typing import Annotated, Any, Literal

from roomy_hull.core.capabilities import Capabilities
from roomy_hull.core.card import shown
from roomy_hull.core.fill import CONTENTS
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.parts import Hardware
from roomy_hull.core.primitives import Disc, Scene, Stroke, Words, line, rectangle
from roomy_hull.core.uncertainty import MassSource
from roomy_hull.core.value import Gap, PositiveKg
from roomy_hull.kinds.expansion import Expansion, PointMass, Solid, Zone
from roomy_hull.kinds.kind import Kind, Offer, Site, Use, offer
from roomy_hull.kinds.placed import ClassOfUse, Placed

DeviceKind = Literal[
    "battery", "charger", "inverter", "fuse board", "switch panel", "outlet", "pump",
    "water heater", "extinguisher", "first aid", "compressor", "air tank", "hose reel",
    "power station",
]  # fmt: skip


class Device(Placed, frozen=True, kw_only=True, tag_field="kind", tag="device"):
    """A bought thing that does not move. `service` is the room in front of it, `vent` that around it."""

    what: Annotated[DeviceKind, shown("Description")]
    mass: Annotated[PositiveKg, shown("Mass", "From its data sheet")]
    mass_source: MassSource = "data sheet"
    service: Annotated[Gap, shown("Room to serve it", "Kept clear in front of it")] = 0.0
    vent: Annotated[Gap, shown("Air around it", "At its sides and above")] = 0.0
    use: Annotated[ClassOfUse, shown("Wanted", "How quickly it has to be at hand")] = "rarely"


CAUTIONS: dict[str, str] = {
    "battery": "Lithium batteries want their maker's place, fuse and temperature; the fuse protects the cable",
    "inverter": "Mains voltage is wired and tested by a licensed electrician only",
    "water heater": "A gas heater or mains element is fitted by a licensed person only",
    "power station": "Lithium batteries want their maker's place and temperature; its mains outlets are not to be wired on",
    "outlet": "Mains voltage is wired and tested by a licensed electrician only",
}
"""What has to be said once where such a thing is placed."""


def expand(unit: Device, site: Site) -> Expansion:  # ruff: ignore[unused-function-argument]  # every kind is given its site
    """Write a device out.

    Args:
        unit: The device. [mm, kg]
        site: Rail pitch of its bay, and the shop's materials and rules. [mm]
    Returns: Its solid, its service and vent zones, mass and elevation.
    """
    w, d, h = unit.width, unit.depth, unit.height
    zones = []
    if unit.vent > 0:
        v = unit.vent
        zones += [Zone(Box(-v, 0, 0, w + v, d, h), "vent"), Zone(Box(0, 0, h, w, d, h + v), "vent")]
    if unit.service > 0:
        zones.append(Zone(Box(0, -unit.service, 0, w, 0, h), "service"))
    middle = (w / 2, d / 2, h / 2)
    masses = [PointMass(unit.what, unit.mass, unit.mass_source, middle)]
    if unit.contents:
        masses.append(PointMass("contents", unit.contents, unit.contents_source, middle, CONTENTS))
    return Expansion(
        (Solid(Box(0, 0, 0, w, d, h), "bought"),), tuple(zones), tuple(masses),
        (Hardware(unit.name, unit.ref),), Box(0, 0, 0, w, d, h), elevation(unit),
    )  # fmt: skip


def elevation(unit: Device) -> Scene:
    """Draw the device as one knows it."""
    w, h = unit.width, unit.height
    s = min(w, h)
    body: list[Stroke] = [rectangle("bought", 0, 0, w, h, s * 0.08)]
    c, m = w / 2, h / 2
    own: dict[str, list[Stroke]] = {
        "battery": [rectangle("bought dark", 0, h * 0.82, w, h, 4), Disc("fitting", (w * 0.2, h * 0.91), s * 0.06),
                    Disc("lamp red", (w * 0.8, h * 0.91), s * 0.06), *_sign("+", w * 0.8, h * 0.66),
                    *_sign("−", w * 0.2, h * 0.66)],
        "power station": [rectangle("screen", w * 0.3, h * 0.6, w * 0.7, h * 0.85, 4),
                          *(Disc("bought dark", (w * (0.2 + 0.2 * n), h * 0.3), s * 0.07) for n in range(4)),
                          rectangle("steel", w * 0.1, h * 0.93, w * 0.9, h, 6)],
        "charger": _fins(w, h), "inverter": [*_fins(w, h), rectangle("screen", w * 0.6, h * 0.55, w * 0.9, h * 0.85, 4)],
        "fuse board": [rectangle("detail", w * (0.1 + 0.14 * n), h * 0.3, w * (0.2 + 0.14 * n), h * 0.7, 2)
                       for n in range(6)],
        "switch panel": [rectangle("recess", w * (0.08 + 0.22 * n), h * 0.25, w * (0.24 + 0.22 * n), h * 0.75, 4)
                         for n in range(4)],
        "outlet": [Disc("bought dark", (c, m), s * 0.34), Disc("screen", (c - s * 0.12, m), s * 0.05),
                   Disc("screen", (c + s * 0.12, m), s * 0.05)],
        "pump": [Disc("bought dark", (w * 0.72, m), s * 0.32), rectangle("steel", w * 0.08, h * 0.25, w * 0.6, h * 0.75, 8)],
        "water heater": [Disc("bought dark", (c, m), s * 0.42), Disc("bought", (c, m), s * 0.3), *_sign("°C", c, m)],
        "extinguisher": [rectangle("lamp red", w * 0.15, 0, w * 0.85, h * 0.8, s * 0.3),
                         rectangle("bought dark", w * 0.35, h * 0.8, w * 0.65, h, 4)],
        "first aid": [rectangle("plate", 0, 0, w, h, s * 0.1),
                      rectangle("lamp green", c - s * 0.3, m - s * 0.09, c + s * 0.3, m + s * 0.09),
                      rectangle("lamp green", c - s * 0.09, m - s * 0.3, c + s * 0.09, m + s * 0.3)],
        "compressor": [*_fins(w * 0.6, h), Disc("bought dark", (w * 0.8, m), s * 0.25)],
        "air tank": [rectangle("steel", 0, h * 0.1, w, h, s * 0.4),
                     rectangle("bought dark", w * 0.15, 0, w * 0.25, h * 0.15),
                     rectangle("bought dark", w * 0.75, 0, w * 0.85, h * 0.15)],
        "hose reel": [Disc("bought dark", (c, m), s * 0.46), Disc("bought", (c, m), s * 0.36),
                      Disc("bought dark", (c, m), s * 0.26),
                      Disc("bought", (c, m), s * 0.1)],
    }  # fmt: skip
    return tuple(body + own[unit.what])


def _fins(w: float, h: float) -> list[Stroke]:
    """Draw cooling fins. [mm]"""
    return [
        line("detail", (w * (0.08 + 0.1 * n), h * 0.12), (w * (0.08 + 0.1 * n), h * 0.88))
        for n in range(5)
    ]


def _sign(text: str, h: float, k: float) -> list[Stroke]:
    """Write a sign of a few letters at a point."""
    return [Words("detail words", (h, k), text, 46.0, fixed=False)]


def _offer(what: str, name: str, size: tuple[float, float, float], mass: float, tip: str, group: Use, /,
           **more: Any) -> Offer:  # fmt: skip
    """Describe one device in the stores."""
    key = what.replace(" ", "-")
    return offer(Device, key, group, name, size, tip, id=key, what=what, mass=mass, **more)


def offers() -> tuple[Offer, ...]:
    """List the devices in the stores."""
    return (
        _offer("pump", "Water pump", (220, 130, 120), 2.1, "With its switch where water is used", "Water and air"),
        _offer("water heater", "Water heater", (350, 400, 300), 13, "Fitted by a licensed person",
               "Water and air", vent=30, service=100),
        _offer("hose reel", "Hose reel", (300, 180, 300), 5.5, "Air or water", "Water and air"),
        _offer("compressor", "Air compressor", (320, 180, 260), 8.5, "Gets hot: wants air", "Water and air", vent=40),
        _offer("air tank", "Air tank", (500, 170, 190), 6.5, "Lines to all corners", "Water and air"),
        _offer("battery", "Battery 100 Ah", (330, 175, 220), 12.5, "Its fuse protects the cable", "Power", vent=10,
               service=60),
        _offer("charger", "DC charger", (150, 90, 210), 2.0, "From the alternator and the sun", "Power", vent=25),
        _offer("inverter", "Inverter 2000 W", (400, 210, 110), 6.5,
               "With leakage protection; wired by a licensed electrician", "Power", vent=40),
        _offer("power station", "Power station 1000 Wh", (330, 230, 260), 12.0,
               "Battery, inverter and charger bought whole", "Power", vent=40, use="each camp"),
        _offer("fuse board", "Fuse board", (220, 90, 170), 1.4, "In one place that can be reached", "Power",
               service=150, use="each camp"),
        _offer("switch panel", "Switch panel", (200, 60, 90), 0.7, "Lights from both sides", "Power",
               use="each stop"),
        _offer("outlet", "Outlet", (90, 60, 90), 0.3, "Where it is used", "Power", use="each stop"),
        _offer("extinguisher", "Extinguisher", (110, 110, 340), 2.4, "Right beside the burner, one action away",
               "Safety", use="now"),
        _offer("first aid", "First-aid kit", (240, 120, 180), 1.6, "One action away, nothing unloaded", "Safety",
               use="now"),
    )  # fmt: skip


def caution(unit: Device) -> str:
    """Say what has to be said once where such a thing is placed."""
    return CAUTIONS[unit.what] + "." if unit.what in CAUTIONS else ""


HURT: frozenset[DeviceKind] = frozenset({
    "battery", "charger", "inverter", "power station", "fuse board", "switch panel", "outlet", "compressor",
})  # fmt: skip
"""What water must not drip onto."""
IGNITE = HURT | {"pump", "water heater"}
"""What can ignite gas: contacts, relays, motors, flames."""
LOOKED_AT: frozenset[DeviceKind] = frozenset({
    "battery",
    "charger",
    "inverter",
    "power station",
    "fuse board",
})
"""Where one looks when something fails."""


def says(unit: Device, _side: str = "") -> Capabilities:
    """What it is to everybody else: what its own word says."""
    return Capabilities(
        roles=frozenset({unit.what}), ignites=unit.what in IGNITE, hurt_by_water=unit.what in HURT,
        looked_at=unit.what in LOOKED_AT, whole=True, use=unit.use,
    )  # fmt: skip


KIND = Kind(
    Device,
    expand,
    offers,
    rank=20,
    made=False,
    hangs=True,
    says=says,
    caution=caution,
    words=lambda unit: str(unit.what),
    stance="hang",
    carries=False,
)
