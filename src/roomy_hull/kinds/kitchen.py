"""Kitchen: a galley that pulls out with fold-out worktops, drops down, or lies flush in a bench."""

from typing import Annotated, Literal

from roomy_hull.core.capabilities import Capabilities, Role
from roomy_hull.core.card import shown
from roomy_hull.core.folded import Cutout
from roomy_hull.core.geometry.motion import Motion, Moved, Step
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.parts import Hardware, Part, SheetPart, short_name
from roomy_hull.core.poses import FACE, LID, Turned, at
from roomy_hull.core.primitives import Disc, Scene, Stroke, line, rectangle
from roomy_hull.core.value import Gap
from roomy_hull.kinds import boxes
from roomy_hull.kinds.common import slides_mass
from roomy_hull.kinds.expansion import (
    INWARD,
    Expansion,
    PointMass,
    Solid,
    Zone,
    lid,
    made,
    part_mass,
    pull,
    sheet_masses,
)
from roomy_hull.kinds.kind import Kind, Offer, Site, offer
from roomy_hull.kinds.placed import (
    FrontSheet,
    Locks,
    Placed,
    PlainSheet,
    SheetMaterial,
    SlideMass,
    SlideRating,
)


class Kitchen(Placed, frozen=True, kw_only=True, tag_field="kind", tag="kitchen"):
    """A galley that pulls out, drops down from upright, or lies flush in a bench under its lid.

    The pull-out one has a worktop folding out on each side, `leaf_left` and `leaf_right` wide.
    """

    style: Annotated[Literal["pull-out", "drop-down", "flush"], shown("Kind")] = "pull-out"
    leaf_left: Annotated[Gap, shown("Left leaf", "Folds out, as one faces it; 0 for none")] = 350.0
    leaf_right: Annotated[Gap, shown("Right leaf", "Folds out, as one faces it; 0 for none")] = 350.0  # fmt: skip
    cooker: Annotated[
        Literal["none", "burner", "induction"], shown("Cooker", "Gas: a licensed fitter and the local code decide")
    ] = "burner"  # fmt: skip
    sink: Annotated[bool, shown("Sink")] = True
    tap: Annotated[bool, shown("Tap")] = True
    oven: Annotated[bool, shown("Oven")] = False
    spice_rack: Annotated[bool, shown("Spice rack")] = True
    cutlery: Annotated[bool, shown("Cutlery tray")] = True
    sheet: PlainSheet = 1.6
    front: FrontSheet = 3.0
    slide_rating: SlideRating = 110.0
    slide_mass: SlideMass = 0.0
    locks: Locks = True
    material: SheetMaterial = "5052-H32"


WALL_CLEAR = 80.0
LEAF = 20.0
"""Thickness of a folded worktop leaf (common practice). [mm]"""
FITTINGS: dict[str, tuple[str, float]] = {
    "burner": ("two-flame gas burner", 3.2), "induction": ("portable induction plate", 2.9),
    "sink": ("folded sink with trap", 1.8), "tap": ("fold-down tap", 0.7), "oven": ("12 V oven", 5.5),
    "spice_rack": ("spice rack", 0.6), "cutlery": ("cutlery tray", 0.9),
}  # fmt: skip
"""What is bought for a galley, and its usual mass (common practice). [kg]"""

CARCASS = 2.0
"""The sheet of a kitchen's carcass (common practice). [mm]"""
RIM = 45.0
"""What of a worktop is left beside a sink or cooker (common practice). [mm]"""


def fitted(unit: Kitchen) -> list[str]:
    """Name what is built in, in a fixed order."""
    found = [] if unit.cooker == "none" else [unit.cooker]
    return found + [n for n in ("sink", "tap", "oven", "spice_rack", "cutlery") if getattr(unit, n)]


def parts(unit: Kitchen, site: Site) -> tuple[Part, ...]:
    """What is cut and bought: box, worktop, leaves, front, fittings. [mm]"""
    w, d, t = unit.width, unit.depth, unit.sheet
    h, f = max(60.0, unit.height - LEAF - 10), face_depth(unit)
    metal = site.material(unit.material)
    hem = f if unit.style == "drop-down" else 0.0
    drops, flush = unit.style == "drop-down", unit.style == "flush"
    box = boxes.open_box(
        f"{unit.name}: box", unit.ref, boxes.Sized(w - 40, d - f - 25, (h,) * 4, t, metal), site.shop.tools.brake,
        at(20.0, f, 10.0), group="" if drops else "box", role="floor",
    )  # fmt: skip
    listed: list[Part] = [
        SheetPart(f"{unit.name}: front", unit.ref, w, unit.height, unit.front, metal, left=hem, right=hem, front=hem,
                  back=hem, group="front" if drops else "box", join="bolts",
                  poses=(at(0.0, 0.0, unit.height, FACE),)),
        *box,
        SheetPart(f"{unit.name}: worktop", unit.ref, w - 40, d - f - 25, 2.0, metal, left=LEAF, right=LEAF,
                  cutouts=openings(unit), group="lid" if flush else "" if drops else "box", join="welded",
                  poses=(at(20.0, d - 25, unit.height, LID),)),
        *boxes.carcass(f"{unit.name}: carcass", unit.ref, boxes.Carcass(w, d, unit.height, f, CARCASS, metal),
                       site, tie=False),
    ]  # fmt: skip
    if drops:
        listed.append(Hardware("hinge and two stays for the front", unit.ref, links=("", "front")))
    if flush:
        listed.append(Hardware("hinge and stay for the lid", unit.ref, links=("box", "lid")))
    for side, leaf in (("left", unit.leaf_left), ("right", unit.leaf_right)):
        if unit.style == "pull-out" and leaf:
            listed += [
                _leaf(unit, site, side, leaf),
                Hardware(
                    f"hinge and stay for the {side} leaf", unit.ref, links=("box", f"{side} leaf")
                ),
            ]
    for name in fitted(unit):
        place = sunk(unit).get(name)
        listed.append(
            Hardware(FITTINGS[name][0], unit.ref) if place is None
            else Hardware(FITTINGS[name][0], unit.ref, fix="clamped", opening=True, places=(place,))
        )  # fmt: skip
    slides = "pair of locking slides" if not drops else "pair of rests the box is bolted to"
    listed.append(
        Hardware(
            f"{slides}, {unit.slide_rating:g} kg", unit.ref, places=slide_places(unit), fix="bolts"
        )
    )
    return tuple(listed)


def slide_places(unit: Kitchen) -> tuple[Box, Box]:
    """Where its slides lie, between the carcass's sides and the box. [mm]"""
    w, low, high = unit.width, unit.height / 2 - 22, unit.height / 2 + 22
    near, far = face_depth(unit) + 2.0, unit.depth - 25.0
    return Box(CARCASS, near, low, 20.0, far, high), Box(
        w - 20.0, near, low, w - CARCASS, far, high
    )


def sunk(unit: Kitchen) -> dict[str, Box]:
    """What stands in an opening of the worktop: sink and cooker, each in the room of its bowl or body. [mm]

    None where the worktop has no room for both with a hand's breadth around them.
    """
    w, d, h = unit.width - 40, unit.depth - face_depth(unit) - 25, unit.height
    wanted = [n for n in ("sink", "burner", "induction") if n in fitted(unit)]
    if not wanted or h < 120:
        return {}
    room = (w - RIM * (len(wanted) + 1)) / len(wanted)
    deep = min(d - 2 * RIM, 400.0)
    if min(room, deep) < 120:
        return {}
    long = min(room, 420.0)
    found: dict[str, Box] = {}
    for n, name in enumerate(wanted):
        u0 = 20 + RIM + n * (room + RIM) + (room - long) / 2
        v0 = face_depth(unit) + (d - deep) / 2
        down = 90.0 if name == "sink" else 60.0
        found[name] = Box(u0 + 1, v0 + 1, h - min(down, h / 2), u0 + long - 1, v0 + deep - 1, h + 2)
    return found


def openings(unit: Kitchen) -> tuple[Cutout, ...]:
    """What is cut out of the worktop, in its own directions: it lies with its y towards the front. [mm]"""
    back = unit.depth - 25
    return tuple(
        Cutout(b.x0 - 21, back - b.y1 - 1, b.x1 - b.x0 + 2, b.y1 - b.y0 + 2, 20.0) for b in sunk(unit).values()
    )  # fmt: skip


def face_depth(unit: Kitchen) -> float:
    """How deep the front is: a front that folds down to a worktop has returns. [mm]"""
    return max(40.0, unit.front) if unit.style == "drop-down" else unit.front


def _leaf(unit: Kitchen, site: Site, side: str, wide: float) -> SheetPart:
    """A worktop leaf, hanging inside the box's side; behind it stays clear of the wall when it is out. [mm]"""
    hang = min(wide, unit.height - 2 * LEAF)
    v0, v1 = unit.front + 30, unit.depth - 25 - WALL_CLEAR
    low = unit.height - LEAF - hang
    left, t = side == "left", unit.sheet
    pose = at(20 + t, v1, low, HUNG_LEFT) if left else at(unit.width - 20 - t, v0, low, HUNG_RIGHT)
    return SheetPart(f"{unit.name}: {side} leaf", unit.ref, hang, v1 - v0, 2.0, site.material(unit.material), front=LEAF,
                     back=LEAF, group=f"{side} leaf", poses=(pose,))  # fmt: skip


HUNG_LEFT, HUNG_RIGHT = Turned("w", "-v", "u"), Turned("w", "v", "-u")
"""How a leaf hangs inside the left and the right side of the box, its returns inward."""


def expand(unit: Kitchen, site: Site) -> Expansion:
    """Write a kitchen out.

    Args:
        unit: The kitchen. [mm, kg]
        site: Rail pitch of its bay, and the shop's materials and rules. [mm]
    """
    slides = slides_mass(unit.slide_mass, unit.depth, unit.slide_rating)
    w, d, h, f = unit.width, unit.depth, unit.height, face_depth(unit)
    listed = parts(unit, site)
    gap = site.shop.rules.running_gap
    by_name: dict[str, list[Part]] = {}
    for p in listed:
        by_name.setdefault(short_name(p).split(",")[0], []).append(p)
    face, box, top = (boxes.room_of(tuple(by_name[n])) for n in ("front", "box", "worktop"))
    stays = tuple(by_name["carcass"])
    leaves = {
        short_name(p).split()[0]: made(p, whole=True)[0].box
        for p in listed
        if isinstance(p, SheetPart) and short_name(p).endswith(" leaf")
    }
    rails = (
        *(s for p in stays for s in made(p)),
        *(Solid(b, "bought") for b in slide_places(unit)),
    )
    out = unit.style != "drop-down"
    solids: tuple[Solid, ...] = (
        *rails, Solid(box, "made", moves=out), Solid(top, "made", moves=out), Solid(face, "front", moves=True)
    )  # fmt: skip
    travel = d - f - 25
    fittings = sum(FITTINGS[n][1] for n in fitted(unit))
    motion = _motion(unit, box, top, face, leaves, travel)
    travel = travel if out else 0.0
    return Expansion(
        solids,
        (Zone(Box(-gap, 0, -gap, w + gap, f, h + gap), "running"),),
        (
            *sheet_masses(listed, unit, (w / 2, d / 2, h * 0.4)),
            PointMass(
                "slides",
                slides,
                "data sheet",
                (w / 2, d / 2, h / 2),
            ),
            PointMass("burner, sink and fittings", fittings, "data sheet", (w / 2, d / 2, h * 0.8)),
        ),
        listed,
        Box(0, 0, 0, w, d, h),
        elevation(unit),
        travel=travel,
        slide_rating=unit.slide_rating if travel else 0.0,
        slide_load=part_mass(listed) - part_mass(stays) + unit.contents + fittings + slides / 2
        if travel
        else 0.0,
        motions=(motion,),
        plan=plan(unit),
    )


def _motion(
    unit: Kitchen, box: Box, top: Box, face: Box, leaves: dict[str, Box], travel: float
) -> Motion:  # fmt: skip
    """How the kitchen comes out, by its style. [mm]"""
    h = unit.height
    if unit.style == "drop-down":
        return Motion("", unit.name, (Moved(face),), (Step("fold", 0, 90.0),), unit.locks)
    moved = [Moved(box, "box"), Moved(face, "box")]
    if unit.style == "flush":
        out = Step("slide", INWARD, -travel, ("box", "lid"))
        return Motion(
            "", unit.name, (*moved, Moved(top, "lid")), (out, lid(top, "back", travel)), unit.locks
        )
    moved.append(Moved(top, "box"))
    steps = [Step("slide", INWARD, -travel, ("box", "left", "right"))]
    for side, leaf in leaves.items():
        left = side == "left"
        moved.append(Moved(leaf, side))
        pivot = (leaf.x0 if left else leaf.x1, h - LEAF)
        # Hanging inside the side of the box, it turns up and out until level with the worktop's lower face.
        steps.append(Step("fold", 1, -90.0 if left else 90.0, (side,), pivot))
    return Motion("", unit.name, tuple(moved), tuple(steps), unit.locks)


def elevation(unit: Kitchen) -> Scene:
    """Draw the kitchen's front: panel, pull, worktop edge, the folded leaves' edges."""
    w, h = unit.width, unit.height
    found: list[Stroke] = [
        rectangle("front", 0, 0, w, h, 4),
        rectangle("bought dark", 20, h - 14, w - 20, h - 4, 3),
    ]
    if unit.style == "drop-down":
        found += [rectangle("detail", 24, 24, w - 24, h - 34, 8), Disc("fitting", (40, h - 44), 9),
                  Disc("fitting", (w - 40, h - 44), 9)]  # fmt: skip
    else:
        found += pull(w, h - 20)
    if unit.oven:
        found.append(rectangle("screen", w * 0.56, h * 0.16, w * 0.92, h * 0.56, 8))
    if unit.cutlery:
        found += [rectangle("detail", w * 0.06, h * 0.12, w * 0.46, h * 0.34, 4),
                  line("detail", (w * 0.2, h * 0.23), (w * 0.32, h * 0.23))]  # fmt: skip
    found.append(Disc("fitting", (w - 24, h - 44), 9))
    return tuple(found)


def plan(unit: Kitchen) -> Scene:
    """Draw the worktop from above as it stands open: sink, tap, flames, rack, and the leaves."""
    w, d = unit.width, unit.depth
    found: list[Stroke] = []
    if unit.style == "pull-out":
        hang = max(0.0, unit.height - LEAF - 20)
        for wide, at in ((unit.leaf_left, -1), (unit.leaf_right, 1)):
            across = min(wide, hang)
            if across > 0:
                h0 = 20 + unit.sheet - across if at < 0 else w - 20 - unit.sheet
                found.append(
                    rectangle("front", h0, unit.front + 30, h0 + across, d - 25 - WALL_CLEAR, 6)
                )
    found.append(rectangle("bought", 20, unit.front, w - 20, d - 25, 8))
    middle = w / 2
    if unit.sink:
        found += [rectangle("screen", 50, d * 0.2, middle - 20, d * 0.62, 30),
                  Disc("fitting", ((50 + middle - 20) / 2, d * 0.41), 16)]  # fmt: skip
    if unit.tap:
        found += [Disc("fitting", (middle * 0.55, d * 0.72), 16),
                  line("steel line", (middle * 0.55, d * 0.72), (middle * 0.55, d * 0.5))]  # fmt: skip
    if unit.cooker != "none":
        radius = min(w * 0.15, d * 0.15)
        for k in (0.28, 0.62):
            centre = (middle + (w - 40) * 0.24, d * k)
            found += [Disc("bought dark", centre, radius), Disc("bought", centre, radius * 0.72),
                      Disc("bought dark", centre, radius * 0.35)]  # fmt: skip
    if unit.spice_rack:
        found += [
            Disc("fitting", (60 + n * 46, d - 58), 15) for n in range(int((w - 120) // 46) + 1)
        ]
    found.append(rectangle("unit face", 0, 0, w, 14))
    return tuple(found)


def offers() -> tuple[Offer, ...]:
    """List the kitchens in the stores."""
    return (
        offer(Kitchen, "kitchen", "Kitchen", "Pull-out kitchen", (600, 750, 300),
              "Slides out; a worktop folds out on each side", contents=14, leaf_left=240, leaf_right=240),
        offer(Kitchen, "kitchen-drop", "Kitchen", "Drop-down kitchen", (700, 350, 420),
              "Its front folds down to a worktop", style="drop-down", contents=12, sink=False, tap=False),
        offer(Kitchen, "kitchen-flush", "Kitchen", "Bench kitchen", (650, 650, 260),
              "Flush in a bench, under its lid", style="flush", contents=10, cooker="induction"),
    )  # fmt: skip


def stored(unit: Kitchen) -> float:
    """Compute half of its inside: the rest is worktop and fittings. [l]"""
    w, d, h = (max(0.0, side - 60) for side in (unit.width, unit.depth, unit.height))
    return w * d * h * 0.5 * 1e-6


def caution(unit: Kitchen) -> str:
    """Say what gas asks for."""
    if unit.cooker != "burner":
        return ""
    return "Gas is connected and tested by a licensed gas fitter. Keep an extinguisher beside it."


def says(unit: Kitchen, _side: str = "") -> Capabilities:
    """What it is to everybody else: one cooks on it, water runs into its sink, its burner burns gas."""
    own: dict[Role, bool] = {"kitchen": True, "tap": unit.tap, "burner": unit.cooker == "burner"}
    return Capabilities(
        roles=frozenset(role for role, there in own.items() if there), ignites=own["burner"]
    )


KIND = Kind(
    Kitchen, expand, offers, rank=10, paired=(("leaf_left", "leaf_right"),), stored=stored,
    caution=caution, says=says,
)  # fmt: skip
