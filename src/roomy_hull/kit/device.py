"""Device: bought things that do not move, from battery to first-aid kit, with the room they want."""

from roomy_hull.core.sheetmetal import Hardware
from roomy_hull.core.solids import Box
from roomy_hull.core.strokes import Disc, Scene, Stroke, Words, line, rectangle
from roomy_hull.job.unit import Device
from roomy_hull.kit.expansion import Expansion, Lump, Solid, Zone

CAUTIONS: dict[str, str] = {
    "battery": "Lithium batteries want their maker's place, fuse and temperature; the fuse protects the cable",
    "inverter": "Mains voltage is wired and tested by a licensed electrician only",
    "water heater": "A gas heater or mains element is fitted by a licensed person only",
    "outlet": "Mains voltage is wired and tested by a licensed electrician only",
}
"""What has to be said once where such a thing is placed."""


def expand(unit: Device, pitch: float) -> Expansion:  # ruff: ignore[unused-function-argument]  # one signature for all kinds
    """Write a device out.

    Parameters
    ----------
    unit : Device
        The device. [mm, kg]
    pitch : float
        Rail pitch of its bay; devices screw to a board. [mm]

    Returns
    -------
    Expansion
        Its solid, its service and vent zones, mass and likeness.
    """
    w, d, h = unit.width, unit.depth, unit.height
    zones = []
    if unit.vent > 0:
        v = unit.vent
        zones += [Zone(Box(-v, 0, 0, w + v, d, h), "vent"), Zone(Box(0, 0, h, w, d, h + v), "vent")]
    if unit.service > 0:
        zones.append(Zone(Box(0, -unit.service, 0, w, 0, h), "service"))
    middle = (w / 2, d / 2, h / 2)
    lumps = [Lump(unit.what, unit.mass, unit.mass_source, middle)]
    if unit.contents:
        lumps.append(Lump("contents", unit.contents, unit.contents_source, middle, "contents"))
    return Expansion(
        (Solid(Box(0, 0, 0, w, d, h), "bought"),), tuple(zones), tuple(lumps),
        (Hardware(unit.name, unit.id),), Box(0, 0, 0, w, d, h), likeness(unit),
    )  # fmt: skip


def likeness(unit: Device) -> Scene:
    """Draw the device as one knows it."""
    w, h = unit.width, unit.height
    s = min(w, h)
    body: list[Stroke] = [rectangle("bought", 0, 0, w, h, s * 0.08)]
    c, m = w / 2, h / 2
    own: dict[str, list[Stroke]] = {
        "battery": [rectangle("bought dark", 0, h * 0.82, w, h, 4), Disc("fitting", (w * 0.2, h * 0.91), s * 0.06),
                    Disc("lamp red", (w * 0.8, h * 0.91), s * 0.06), *_sign("+", w * 0.8, h * 0.66),
                    *_sign("−", w * 0.2, h * 0.66)],
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
