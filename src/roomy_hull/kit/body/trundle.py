"""The trundle drawer: what is cut and bought for it, and its lid that is a table."""

from roomy_hull.core.capabilities import Capabilities
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.material import Material
from roomy_hull.core.parts import Hardware, Part, Pose, SheetPart
from roomy_hull.core.poses import LID, WALL, at
from roomy_hull.core.refs import TRAY
from roomy_hull.job.body import Trundle
from roomy_hull.kinds.boxes import Sized, open_box
from roomy_hull.shop.shop import Shop

TRUNDLE_SAYS = Capabilities(sealed="its dust seal", locks=1)
"""What it is to everybody else."""
TRUNDLE_FRONT = 3.0
TRUNDLE_SLIDES = 9.0
"""A pair of heavy slides and a lock (common practice). [kg]"""


def trundle_parts(t: Trundle, shop: Shop, place: Box | None = None) -> tuple[Part, ...]:
    """List what is cut and bought for a trundle drawer; where it hangs, if that is given. [mm]"""
    fold, metal = t.height - 10, shop.material(shop.sheet)
    brake, lean = shop.tools.brake, t.sheet
    box: Pose | None = None
    front: tuple[Pose, ...] = ()
    tunnel: Pose | None = None
    slides: tuple[Box, ...] = ()
    if place is not None:
        box = at(place.x0 + lean, place.y0 + 30, place.z0)
        front = (at(place.x1 - TRUNDLE_FRONT, place.y0, place.z0, WALL),)
        tunnel = at(place.x0, place.y1, place.z1, LID)
        low, high = place.z0 + t.height / 2 - 25, place.z0 + t.height / 2 + 25
        near, far = place.x0 + 30, place.x1 - TRUNDLE_FRONT - 2
        slides = (Box(near, place.y0 + lean, low, far, place.y0 + 30, high),
                  Box(near, place.y1 - 30, low, far, place.y1 - lean, high))  # fmt: skip
    long = t.length - TRUNDLE_FRONT
    kind = "slides that lock shut and drawn out" if t.locks else "slides"
    return (
        *open_box("Trundle drawer: box", TRAY, Sized(long - lean, t.width - 60, (fold,) * 4, t.sheet, metal), brake, box,
                  group="trundle"),
        SheetPart("Trundle drawer: front", TRAY, t.width, t.height, TRUNDLE_FRONT, metal, group="trundle", join="bolts",
                  poses=front),
        # Upside down: a roof with its sides and its forward end down.
        *open_box("Trundle drawer: tunnel", TRAY,
                  Sized(long, t.width, (t.height - lean, 0.0, t.height, t.height), lean, metal), brake, tunnel),
        Hardware(f"pair of heavy {kind} for the trundle drawer", TRAY, places=slides, fix="bolts"),
        *_lid(t, metal),
        Hardware("dust seal for the trundle drawer", TRAY, metres=round(2 * (t.width + t.height) / 1000, 2)),
        Hardware("lock for the trundle drawer", TRAY),
    )  # fmt: skip


def _lid(t: Trundle, metal: Material) -> tuple[Part, ...]:
    """A trundle's lid: it lies in the box under the tunnel, and is set on its rim as a table."""
    if not t.lid:
        return ()
    long, wide = (t.length - TRUNDLE_FRONT) * 0.9, t.width - 64
    return (
        SheetPart("Trundle drawer: lid, a table", TRAY, long, wide, 2.0, metal, left=20.0, right=20.0, front=20.0,
                  back=20.0),
        Hardware("rubber foot under the trundle's lid", TRAY, 6),
    )  # fmt: skip
