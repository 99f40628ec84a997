"""Leaves: what is cut and bought for a canopy's doors, and what it weighs."""

from roomy_hull.core.material import Material
from roomy_hull.core.parts import BarPart, Hardware, Part, SheetPart
from roomy_hull.core.refs import CANOPY
from roomy_hull.job.body import Canopy, Door
from roomy_hull.kit.body import sides
from roomy_hull.kit.body.sides import DoorPlace
from roomy_hull.shop.shop import Shop

SEAL_KG_PER_M, HINGE_KG_PER_M, LOCK_KG, STRUT_KG = 0.35, 0.9, 0.9, 0.45
"""A door seal and a hinge by the metre, a lock, a gas strut (common practice). [kg/m, kg]"""


def door_parts(canopy: Canopy, door: Door, shop: Shop) -> tuple[Part, ...]:
    """List what is cut and bought for one door: each leaf with its frame, the jambs around them, hardware.

    Parameters
    ----------
    canopy : Canopy
        Whose door. [mm]
    door : Door
        One of its doors.
    shop : Shop
        Its materials.

    Returns
    -------
    tuple of Part
        A leaf is a folded skin with a frame of bars inside; a let-down half is a leaf of its own. The
        vehicle's own tailgate is not made.
    """
    skin, metal = shop.material(canopy.skin_material), shop.material(canopy.frame_material)
    place = sides.placed(canopy, door)
    thick, section = sides.depth(canopy)
    bar = thick - canopy.skin
    fold = min(sides.RETURN, thick)
    made: list[Part] = []
    words = {
        "": " upper half" if len(place.made) > 1 else "",
        "half": " let-down half",
    }
    for leaf in place.made:
        long, high = leaf.size()
        name = f"Canopy: door {door.id}{words[leaf.key]}"
        made.append(
            SheetPart(name, CANOPY, long, high, canopy.skin, skin, left=fold, right=fold, front=fold,
                      back=fold, role="leaf")
        )  # fmt: skip
        if section:
            # Rails from return to return, stiles between them.
            inner = long - 2 * canopy.skin, high - 2 * canopy.skin - 2 * bar
            made += [
                BarPart(f"{name} rail", CANOPY, section, inner[0], metal, 2, role="leaf"),
                BarPart(f"{name} stile", CANOPY, section, inner[1], metal, 2, role="leaf"),
            ]
    if place.made:
        made += _jambs(canopy, place, skin)
        made.append(
            Hardware(
                f"hinge, {seal_length(place) / 1000:.1f} m of seal, two locks and two gas struts for door {door.id}",
                CANOPY,
            )
        )
    return tuple(made)


def seal_length(place: DoorPlace) -> float:
    """Around every made leaf. [mm]"""
    return sum(2 * sum(leaf.size()) for leaf in place.made)


LEAST_LEG = 12.0
"""A jamb's leg narrower than this cannot be bent; the seal sits on the opening's edge there. [mm]"""


def _jambs(canopy: Canopy, place: DoorPlace, skin: Material) -> list[Part]:
    """The angles around a rebate: their base is its depth, their leg what the leaf laps on. [mm]"""
    thick = sides.depth(canopy)[0]
    a0, z0, a1, z1 = place.rebate
    c0, s0, c1, s1 = place.clear
    gate = place.clear[1] < canopy.base  # below a topper's door lies the tailgate
    rows = [("head", a1 - a0, z1 - s1), ("sill", a1 - a0, 0.0 if gate else s0 - z0)]
    upright = z1 - z0 - sum(leg for _n, _l, leg in rows if leg >= LEAST_LEG)
    rows += [("front post", upright, c0 - a0), ("rear post", upright, a1 - c1)]
    return [
        SheetPart(f"Canopy: door {place.door.id} jamb, {name}", CANOPY, long, thick, canopy.skin, skin,
                  back=leg, role="jamb")
        for name, long, leg in rows if leg >= LEAST_LEG
    ]  # fmt: skip


def door_mass(canopy: Canopy, door: Door, shop: Shop) -> float:
    """Sum the mass of what swings of a door: its leaf, or both its halves. [kg]"""
    parts = (p for p in door_parts(canopy, door, shop) if isinstance(p, SheetPart | BarPart))
    return sum(p.mass() * p.count for p in parts if p.role == "leaf")


def hardware_mass(canopy: Canopy) -> float:
    """What seals, hinges, locks and struts of all doors weigh: by the metre and by the piece.

    Parameters
    ----------
    canopy : Canopy
        Whose doors. [mm]

    Returns
    -------
    float
        A strut where the job names it, else two; two locks a leaf. [kg]
    """
    found = 0.0
    for place in sides.doors(canopy):
        if not place.made:
            continue
        struts = place.door.strut.count if place.door.strut is not None else 2
        found += seal_length(place) / 1000 * SEAL_KG_PER_M + struts * STRUT_KG
        for leaf in place.made:
            long = leaf.size()[0 if leaf.hinge in ("top", "bottom") else 1]
            found += long / 1000 * HINGE_KG_PER_M + 2 * LOCK_KG
    return found
