"""Fridge: a bought chest on a slide, an upright, or a drawer fridge, with room for its air."""

from typing import Annotated, Any, Literal

from roomy_hull.core.capabilities import Capabilities
from roomy_hull.core.card import shown
from roomy_hull.core.fill import CONTENTS
from roomy_hull.core.geometry.motion import Motion, Moved
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.parts import Hardware
from roomy_hull.core.primitives import Disc, Scene, Stroke, line, rectangle
from roomy_hull.core.uncertainty import Source
from roomy_hull.core.value import Gap, Kg, Litres, PositiveKg
from roomy_hull.kinds.common import hinge_remedies
from roomy_hull.kinds.expansion import Expansion, PointMass, Solid, Zone, lid, pull_out, side_door
from roomy_hull.kinds.kind import Kind, Offer, Remedy, Site, offer
from roomy_hull.kinds.placed import Placed, SlideStyle
from roomy_hull.kinds.slide import platform, travel, way_out


class Fridge(Placed, frozen=True, kw_only=True, tag_field="kind", tag="fridge"):
    """A bought fridge: a chest on a slide, an upright with a door, or a drawer fridge.

    `height` is over slide and lid. `hinge` is where lid or door turns, seen from the access face;
    `slide_style` drop lowers the chest by `drop` once it is out.
    """

    style: Annotated[
        Literal["chest", "upright", "drawer"], shown("Kind", "Chest on a slide, upright with a door, or a drawer")
    ] = "chest"  # fmt: skip
    slide_style: Annotated[SlideStyle, shown("Slide", "A drop slide lowers it once it is out")] = "plain"  # fmt: skip
    drop: Annotated[Gap, shown("Drops by", "Of a drop slide")] = 350.0
    hinge: Annotated[
        Literal["back", "left", "right"], shown("Lid or door turns", "About this edge, as one faces it")
    ] = "left"  # fmt: skip
    litres: Annotated[Litres, shown("Volume")] = 60.0
    mass: Annotated[PositiveKg, shown("Fridge, empty", "From its data sheet")] = 24.0
    mass_source: Source = "data sheet"
    slide_height: Annotated[Gap, shown("Slide height", "The fridge stands on it")] = 50.0
    slide_mass: Annotated[Kg, shown("Slide's mass")] = 17.0
    slide_rating: Annotated[PositiveKg, shown("Slide rating", "From its data sheet")] = 150.0
    vent: Annotated[Gap, shown("Vent needs", "Free air in front of the vent")] = 40.0
    vent_side: Annotated[Literal["back", "left", "right"], shown("Vent is at the", "As one faces it")] = "back"  # fmt: skip
    lid_gap: Annotated[Gap, shown("Above the lid", "Room kept clear")] = 10.0
    locks: Annotated[bool, shown("Slide locks out", "A slide without a lock rolls back on a slope")] = True  # fmt: skip


def expand(unit: Fridge, site: Site) -> Expansion:
    """Write a fridge on its slide out.

    Args:
        unit: The fridge; `height` runs from under the slide to the top of the lid. [mm, kg]
        site: Rail pitch of its bay, and the shop's materials and rules. [mm]
    """
    w, d, h = unit.width, unit.depth, unit.height
    s = foot(unit)
    gap = site.shop.rules.running_gap
    vents = {
        "back": Box(0, d, s, w, d + unit.vent, h * 0.7),
        "left": Box(-unit.vent, d * 0.3, s, 0, d, h * 0.7),
        "right": Box(w, d * 0.3, s, w + unit.vent, d, h * 0.7),
    }
    zones = [Zone(Box(-gap, 0, 0, w + gap, d, h), "running")]
    if unit.vent > 0:
        zones.append(Zone(vents[unit.vent_side], "vent"))
    if unit.lid_gap > 0 and unit.style == "chest":
        zones.append(Zone(Box(0, 0, h, w, d, h + unit.lid_gap), "running"))
    body = (w / 2, d / 2, s + (h - s) * 0.42)
    inside = (w / 2, d / 2, s + (h - s) * 0.5)
    chest = unit.style == "chest"
    masses = [
        PointMass("fridge", unit.mass, unit.mass_source, body),
        PointMass("contents", unit.contents, unit.contents_source, inside, CONTENTS),
    ]
    parts = [Hardware(f"{unit.style} fridge, {unit.litres:g} l", unit.ref)]
    solids = [Solid(Box(6, 10, s, w - 6, d, h), "bought", moves=unit.style != "upright")]
    if chest:
        masses.insert(1, PointMass("slide", unit.slide_mass, "data sheet", (w / 2, d / 2, s / 2)))
        drops = "drop slide" if unit.slide_style == "drop" else "fridge slide"
        parts.append(Hardware(f"{drops}, {unit.slide_rating:g} kg", unit.ref))
    # Its slide, or the feet it stands on.
    solids.insert(0, Solid(Box(0, 0, 0, w, d, s), "bought"))
    carried = unit.mass + unit.contents
    return Expansion(
        tuple(solids),
        tuple(zones),
        tuple(masses),
        tuple(parts),
        Box(0, 0, 0, w, d, h),
        elevation(unit),
        travel={
            "chest": travel(unit, unit.slide_style == "drop"),
            "drawer": d * 0.85,
            "upright": 0.0,
        }[unit.style],
        slide_rating=unit.slide_rating if chest else 0.0,
        slide_load=carried + unit.slide_mass / 2 if chest else 0.0,
        motions=motions(unit),
        plan=plan(unit),
    )


def foot(unit: Fridge) -> float:
    """How high a fridge stands above its base: on its slide, or on its feet. [mm]"""
    return min(unit.slide_height, unit.height * 0.5) if unit.style == "chest" else 12.0


def motions(unit: Fridge) -> tuple[Motion, ...]:
    """What opens: chest (out, down, lid up), door or drawer. [mm]"""
    w, d, h, s = unit.width, unit.depth, unit.height, foot(unit)
    if unit.style == "upright":
        hinge = "right" if unit.hinge == "right" else "left"
        return (side_door(unit.name, Box(6, 10, s, w - 6, 60, h), hinge, 110.0, ""),)
    if unit.style == "drawer":
        return (pull_out(unit.name, (Box(6, 10, s, w - 6, d, h),), d * 0.85, locks=unit.locks),)
    split = h - (h - s) * 0.17
    chest, top = Box(6, 10, s, w - 6, d, split), Box(6, 10, split, w - 6, d, h)
    drops = unit.slide_style == "drop"
    out = way_out(unit, drops, "chest", "lid")
    sunk = -unit.drop if drops else 0.0
    up = lid(top.moved(0, 0, sunk), unit.hinge, travel(unit, drops))
    below = platform(unit, w, s, "chest") if drops else ()
    goes = (Moved(chest, "chest"), Moved(top, "lid"), *below)
    return (Motion("", unit.name, goes, (*out, up), unit.locks),)


def plan(unit: Fridge) -> Scene:
    """Draw the fridge from above, open: the chest's basket, or the body of the others."""
    w, d = unit.width, unit.depth
    found: list[Stroke] = [rectangle("bought", 6, 10, w - 6, d, 26)]
    if unit.style == "chest":
        found.append(rectangle("screen", 40, 50, w - 40, d * 0.62, 14))
        found += [line("detail", (40, 50 + (d * 0.62 - 50) * n / 4), (w - 40, 50 + (d * 0.62 - 50) * n / 4))
                  for n in (1, 2, 3)]  # fmt: skip
        found.append(rectangle("bought dark", w * 0.2, d * 0.7, w * 0.8, d - 40, 8))
    elif unit.style == "drawer":
        found.append(rectangle("screen", 40, 50, w - 40, d - 60, 14))
    return tuple(found)


def elevation(unit: Fridge) -> Scene:
    """Draw the fridge as one faces it: slide with its handle, body, lid, door or drawers, grille, display."""
    w, h = unit.width, unit.height
    s = foot(unit)
    if unit.style != "chest":
        return _front(unit, s)
    lid_low = h - (h - s) * 0.17
    primitives: list[Stroke] = [
        rectangle("bought dark", 0, 0, w, s),
        rectangle("detail", w * 0.3, s * 0.25, w * 0.7, s * 0.6, s * 0.15),
        rectangle("bought", 6, s, w - 6, h, 26),
        line("detail", (6, lid_low), (w - 6, lid_low)),
        rectangle("bought dark", w * 0.36, lid_low - 14, w * 0.64, lid_low + 16, 5),
    ]
    top = s + (lid_low - s) * 0.5
    primitives += _grille(w * 0.14, s + 26, w * 0.46, top)
    primitives.append(rectangle("screen", w * 0.6, top - 6, w * 0.86, top + 26, 4))
    primitives.append(Disc("fitting", (w * 0.73, top - 28), 8))
    return tuple(primitives)


def _grille(h0: float, k0: float, h1: float, k1: float) -> list[Stroke]:
    """Draw the lines of an air grille."""
    return [
        line("detail", (h0, k0 + n * (k1 - k0) / 4), (h1, k0 + n * (k1 - k0) / 4)) for n in range(5)
    ]


def _front(unit: Fridge, s: float) -> Scene:
    """Draw an upright fridge's door with its handle, or the fronts of a drawer fridge."""
    w, h = unit.width, unit.height
    primitives: list[Stroke] = [rectangle("bought", 6, s, w - 6, h, 12)]
    if unit.style == "upright":
        c = w - 40 if unit.hinge != "right" else 40
        primitives += [rectangle("bought dark", c - 9, h * 0.4, c + 9, h * 0.8, 8),
                    rectangle("screen", w * 0.35, h - 60, w * 0.65, h - 36, 4),
                    line("detail", (6, s + 70), (w - 6, s + 70))]  # fmt: skip
        primitives += _grille(40, s + 14, w - 40, s + 56)
    else:
        middle = s + (h - s) * 0.5
        primitives += [line("detail", (6, middle), (w - 6, middle)),
                    rectangle("bought dark", w * 0.25, middle - 34, w * 0.75, middle - 16, 8),
                    rectangle("bought dark", w * 0.25, h - 40, w * 0.75, h - 22, 8)]  # fmt: skip
    return tuple(primitives)


_CHEST = "Chest fridge on a slide; needs air at its vents"


def offers() -> tuple[Offer, ...]:
    """List the fridges in the stores."""
    return (
        offer(Fridge, "fridge-40", "Cold", "Fridge 40 l", (400, 660, 500), _CHEST, litres=40, mass=19.5, contents=18),
        offer(Fridge, "fridge-60", "Cold", "Fridge 60 l", (450, 740, 540), _CHEST, litres=60, mass=24, contents=28),
        offer(Fridge, "fridge-drop", "Cold", "Drop fridge 60 l", (450, 740, 560),
              "The slide lowers it once it is out: packed without climbing", litres=60, mass=24, contents=28,
              slide_style="drop", drop=350, slide_height=70, slide_mass=29, slide_rating=130),
        offer(Fridge, "fridge-upright", "Cold", "Upright 85 l", (475, 500, 620),
              "As at home, without a slide; wants room for its door", style="upright", litres=85, mass=22,
              contents=30, slide_mass=0),
        offer(Fridge, "fridge-drawer", "Cold", "Drawer fridge 50 l", (500, 560, 440),
              "Pulls out by itself, without a slide", style="drawer", litres=50, mass=23, contents=22, slide_mass=0),
    )  # fmt: skip


def remedies(unit: Fridge) -> tuple[Remedy, ...]:
    """List what may let its lid or door open: another hinge, or a drop slide."""
    edges = ("left", "right") if unit.style == "upright" else ("back", "left", "right")
    found = hinge_remedies(unit, edges)
    if unit.style == "chest" and unit.slide_style == "plain":
        found += (Remedy(3.5, f"Put {unit.name} on a drop slide", {"slide_style": "drop"}),)
    return found


def stored(unit: Fridge) -> float:
    """Take its volume from the data sheet. [l]"""
    return unit.litres


SLIDE_KG = 18.0
"""A locking fridge slide (common practice). [kg]"""


def otherwise(unit: Fridge) -> dict[str, Any]:
    """A chest on a slide of usual mass instead of an upright one, which slides not, or the other way."""
    to = {"chest": "upright", "upright": "chest"}.get(unit.style, "")
    return {"style": to, "slide_mass": SLIDE_KG if to == "chest" else 0.0} if to else {}


def says(_unit: Fridge, _side: str = "") -> Capabilities:
    """What it is to everybody else: insulated walls, and a compressor whose relay can ignite gas."""
    return Capabilities(roles=frozenset({"fridge"}), ignites=True, cold=True)


KIND = Kind(
    Fridge, expand, offers, rank=10, made=False, handed=("hinge", "vent_side"), article=True,
    stored=stored, remedies=remedies, stance="floor", carries=False, use="each stop",
    says=says, otherwise=otherwise,
)  # fmt: skip
