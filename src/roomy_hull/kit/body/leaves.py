"""Leaves: what is cut and bought for a canopy's doors, and what it weighs."""

from roomy_hull.core.folded import Cutout
from roomy_hull.core.geometry.regions import Rect
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.material import Material
from roomy_hull.core.parts import BarPart, Hardware, Part, Pose, SheetPart
from roomy_hull.core.poses import carried
from roomy_hull.core.refs import CANOPY
from roomy_hull.job.canopy import Canopy, Door
from roomy_hull.kit.body import frame, sides
from roomy_hull.kit.body.fittings import lock_rects
from roomy_hull.kit.body.sides import DoorPlace, Leaf
from roomy_hull.shop.shop import Shop

SEAL_KG_PER_M, HINGE_KG_PER_M, LOCK_KG, STRUT_KG = 0.35, 0.9, 0.9, 0.45
"""A door seal and a hinge by the metre, a lock, a gas strut (common practice). [kg/m, kg]"""


def door_parts(canopy: Canopy, door: Door, shop: Shop) -> tuple[Part, ...]:
    """List what is cut and bought for one door: each leaf with its frame, the jambs around them, hardware.

    Args:
        canopy: Whose door. [mm]
    Returns:
        A leaf is a folded skin with a frame of bars inside; a let-down half is a leaf of its own. The vehicle's
        own tailgate is not made.
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
        corner = frame.seen(door.side, leaf.rect[0], long), leaf.rect[1]
        pose = frame.from_inside(canopy, door.side, *corner)
        made.append(
            SheetPart(name, CANOPY, long, high, canopy.skin, skin, left=fold, right=fold, front=fold,
                      back=fold, cutouts=_cut(leaf, door.side, door.leaf), role="leaf", group=name, join="welded",
                      poses=(pose,))
        )  # fmt: skip
        if door.leaf == "mesh":
            made.append(_mesh(name, leaf, door.side))
        if section:
            # Rails from return to return, stiles between them.
            t = canopy.skin
            inner = long - 2 * t, high - 2 * t - 2 * bar
            made += [
                BarPart(f"{name} rail", CANOPY, section, inner[0], metal, 2, role="leaf", group=name,
                        poses=tuple(beyond(pose, t, y, t) for y in (t, high - t - bar))),
                BarPart(f"{name} stile", CANOPY, section, inner[1], metal, 2, role="leaf", group=name,
                        poses=tuple(beyond(pose, x, t + bar, t, upright=True) for x in (t + bar, long - t))),
            ]  # fmt: skip
        if door.second:
            # Kept for the same opening: it is cut and hinged alike, and stands nowhere while the other hangs.
            other = f"{name} second leaf of {door.second}"
            made.append(
                SheetPart(other, CANOPY, long, high, canopy.skin, skin, left=fold, right=fold, front=fold, back=fold,
                          cutouts=_cut(leaf, door.side, door.second), join="welded")
            )  # fmt: skip
            if section:
                made += [
                    BarPart(f"{other} rail", CANOPY, section, inner[0], metal, 2),
                    BarPart(f"{other} stile", CANOPY, section, inner[1], metal, 2),
                ]
            if door.second == "mesh":
                made.append(_mesh(other, leaf, door.side))
            made.append(
                Hardware(f"lift-off hinge pins for {other.removeprefix('Canopy: ')}", CANOPY, 3)
            )
    if place.made:
        made += _jambs(canopy, place, skin)
        made += _door_hardware(canopy, place, words)
    return tuple(made)


MESH_KG_PER_M2 = 2.2
"""Woven or expanded mesh of a door (common practice). [kg/m²]"""
MESH_EDGE, MESH_PAST = 60.0, 30.0
"""What of a leaf's sheet is left around its mesh, and beyond a lock's opening (common practice). [mm]"""


def _cut(leaf: Leaf, side: str, kind: str) -> tuple[Cutout, ...]:
    """The openings of a leaf's skin: those of its locks, and that of its mesh where there is room for one."""
    locks = _lock_openings(leaf, side)
    if kind != "mesh":
        return locks
    long, high = leaf.size()
    x0, y0, x1, y1 = MESH_EDGE, MESH_EDGE, long - MESH_EDGE, high - MESH_EDGE
    for c in locks:
        # Past the lock at the edge to which it is nearest.
        gaps = {"x0": c.x, "y0": c.y, "x1": long - c.x - c.length, "y1": high - c.y - c.width}
        if leaf.hinge in ("top", "bottom"):
            gaps = {k: v for k, v in gaps.items() if k in ("y0", "y1")}
        else:
            gaps = {k: v for k, v in gaps.items() if k in ("x0", "x1")}
        edge = min(gaps, key=lambda k: gaps[k])
        x0 = max(x0, c.x + c.length + MESH_PAST) if edge == "x0" else x0
        x1 = min(x1, c.x - MESH_PAST) if edge == "x1" else x1
        y0 = max(y0, c.y + c.width + MESH_PAST) if edge == "y0" else y0
        y1 = min(y1, c.y - MESH_PAST) if edge == "y1" else y1
    if x1 - x0 < MESH_EDGE or y1 - y0 < MESH_EDGE:
        return locks
    return (*locks, Cutout(x0, y0, x1 - x0, y1 - y0, 20.0))


def mesh_mass(leaf: Leaf, side: str) -> float:
    """What the mesh of a leaf weighs. [kg]"""
    hole = _mesh_hole(leaf, side)
    return (
        (hole.length + 40) * (hole.width + 40) * 1e-6 * MESH_KG_PER_M2 if hole is not None else 0.0
    )


def _mesh_hole(leaf: Leaf, side: str) -> Cutout | None:
    cuts = _cut(leaf, side, "mesh")
    return cuts[-1] if len(cuts) > len(_lock_openings(leaf, side)) else None


def _mesh(name: str, leaf: Leaf, side: str) -> Hardware:
    """The mesh of a leaf, as large as its opening and a rivet's edge more."""
    hole = _mesh_hole(leaf, side)
    size = f"{hole.length + 40:.0f} × {hole.width + 40:.0f}" if hole is not None else "small"
    return Hardware(f"mesh {size} for {name.removeprefix('Canopy: ')}, riveted on inside", CANOPY)


LOCK_CUT = (92.0, 62.0)
"""The opening for a lock's paddle in a leaf's skin: along, up (common practice). [mm]"""


def _locks(leaf: Leaf) -> list[Rect]:
    """The openings for a leaf's locks, in the middle of their cases, in the wall's directions. [mm]"""
    along, up = LOCK_CUT
    found = []
    for a0, z0, a1, z1 in lock_rects(leaf):
        c, m = (a0 + a1) / 2, (z0 + z1) / 2
        found.append((c - along / 2, m - up / 2, c + along / 2, m + up / 2))
    return found


def _lock_openings(leaf: Leaf, side: str) -> tuple[Cutout, ...]:
    """Those openings as one sees the leaf from inside, from its lower left corner. [mm]"""
    a0, z0, a1, _z1 = leaf.rect
    return tuple(
        Cutout(b1 - a0 - (b1 - b0) if side in ("right", "front") else a1 - b1, c0 - z0, b1 - b0, c1 - c0, 8.0)
        for b0, c0, b1, c1 in _locks(leaf)
    )  # fmt: skip


def _door_hardware(canopy: Canopy, place: DoorPlace, words: dict[str, str]) -> list[Hardware]:
    """What is bought for a door: hinge and seal by the metre, locks in their openings, gas struts with their studs."""
    door, found = place.door, []
    for leaf in place.made:
        group = f"Canopy: door {door.id}{words[leaf.key]}"
        long = leaf.size()[0 if leaf.hinge in ("top", "bottom") else 1]
        rows = _locks(leaf)
        found.append(
            Hardware(f"continuous hinge for door {door.id}{words[leaf.key]}", CANOPY, metres=round(long / 1000, 2),
                     links=("", group), sort="hinge")
        )  # fmt: skip
        if rows:
            places = tuple(
                _in_canopy(canopy, door.side, row, 0.0, canopy.skin + LOCK_DEEP) for row in rows
            )
            found.append(
                Hardware(f"paddle lock for door {door.id}{words[leaf.key]}", CANOPY, len(rows), fix="clamped",
                         opening=True, places=places)
            )  # fmt: skip
    found.append(
        Hardware(f"seal for door {door.id}", CANOPY, metres=round(seal_length(place) / 1000, 2))
    )
    if door.strut is not None or any(leaf.hinge == "top" for leaf in place.made):
        count = door.strut.count if door.strut is not None else 2
        found.append(Hardware(f"gas strut with two ball studs for door {door.id}", CANOPY, count))
    return found


LOCK_DEEP = 20.0


def _in_canopy(canopy: Canopy, side: str, rect: Rect, near: float, far: float) -> Box:
    """A box on a wall from its outside inward, in the canopy's directions. [mm]"""
    return sides.stood(
        Box(0.0, 0.0, 0.0, canopy.length, canopy.width, canopy.height), side, rect, near, far
    )


def of_door(part: SheetPart | BarPart, door: Door) -> bool:
    """Whether a part is one of `door_parts` of a door: an id holds no space, what follows it does."""
    own = f"Canopy: door {door.id}"
    return part.role in ("leaf", "jamb") and (part.name == own or part.name.startswith(f"{own} "))


def seal_length(place: DoorPlace) -> float:
    """Around every made leaf. [mm]"""
    return sum(2 * sum(leaf.size()) for leaf in place.made)


LEAST_LEG = 12.0
"""A jamb's leg narrower than this cannot be bent; the seal sits on the opening's edge there. [mm]"""


def _jambs(  # ruff: ignore[too-many-locals]  # four angles and what each leaves the others
    canopy: Canopy, place: DoorPlace, skin: Material
) -> list[Part]:
    """The angles around a rebate: their base lies around it, their leg, on which the leaf laps, behind it. [mm]

    They begin behind the wall's sheet. Head and sill run past the posts, which stand between them.
    """
    t, side = canopy.skin, place.door.side
    a0, z0, a1, z1 = place.rebate
    c0, s0, c1, s1 = place.clear
    gate = place.clear[1] < canopy.base  # below a topper's door lies the tailgate
    legs = {
        "head": z1 - s1,
        "sill": 0.0 if gate else s0 - z0,
        "front post": c0 - a0,
        "rear post": a1 - c1,
    }
    legs = {name: leg for name, leg in legs.items() if leg >= LEAST_LEG}
    # What each takes outside the rebate, and of its height.
    sheet = {
        name: t if name in legs else 0.0 for name in ("head", "sill", "front post", "rear post")
    }
    below, above = (legs[n] + t if n in legs else 0.0 for n in ("sill", "head"))
    wide = a1 - a0 + sheet["front post"] + sheet["rear post"]
    tall = z1 - z0 + sheet["sill"] + sheet["head"]
    x = frame.seen(side, a0 - sheet["front post"], wide)
    corner = frame.from_inside(canopy, side, x, z0 - sheet["sill"], t)
    # As one sees them from inside, left and rear walls run the other way.
    first = "rear post" if side in ("left", "rear") else "front post"
    found: list[Part] = []
    for name, leg in legs.items():
        lying = name in ("head", "sill")
        long = wide if lying else tall - below - above
        at_ = {"head": (0.0, tall), "sill": (0.0, 0.0), first: (0.0, below)}.get(
            name, (wide, below)
        )
        pose = _jamb_stand(
            corner, at_, name if lying else "left" if name == first else "right", long
        )
        found.append(
            SheetPart(f"Canopy: door {place.door.id} jamb, {name}", CANOPY, long, sides.depth(canopy)[0], t, skin,
                      back=leg + t, role="jamb", poses=(pose,))
        )  # fmt: skip
    return found


def _jamb_stand(corner: Pose, at_: tuple[float, float], which: str, long: float) -> Pose:
    """How an angle stands around a rebate: its base from the outside inward, its leg inside it. [mm]"""
    x, y = at_
    spot = beyond(corner, x, y, 0.0)
    back = {"u": "-u", "v": "-v", "w": "-w"}
    ox, oy, oz = corner.x, corner.y, corner.z
    turned = {n: back.get(n, n[-1]) for n in (ox, oy)}
    # Its width runs inward; its leg goes to the middle of the opening.
    if which == "sill":
        return beyond(spot, long, 0.0, 0.0)._replace(x=turned[ox], y=oz, z=oy)
    if which == "head":
        return spot._replace(x=ox, y=oz, z=turned[oy])
    if which == "left":
        return spot._replace(x=oy, y=oz, z=ox)
    return beyond(spot, 0.0, long, 0.0)._replace(x=turned[oy], y=oz, z=turned[ox])


def beyond(pose: Pose, x: float, y: float, z: float, *, upright: bool = False) -> Pose:
    """A stand some way along another's directions; upright, its x lies along the other's y. [mm]"""
    spot = pose._replace(at=carried((x, y, z), pose))
    if not upright:
        return spot
    return spot._replace(x=pose.y, y=pose.x.removeprefix("-") if pose.x[0] == "-" else f"-{pose.x}")


def door_mass(canopy: Canopy, door: Door, shop: Shop) -> float:
    """Sum the mass of what swings of a door: its leaf, or both its halves. [kg]"""
    parts = (p for p in door_parts(canopy, door, shop) if isinstance(p, SheetPart | BarPart))
    sheet = sum(p.mass() * p.count for p in parts if p.role == "leaf")
    return sheet + meshes(sides.placed(canopy, door))


def meshes(place: DoorPlace) -> float:
    """What the meshes of a door's leaves weigh; 0 where they are of sheet. [kg]"""
    if place.door.leaf != "mesh":
        return 0.0
    return sum(mesh_mass(leaf, place.door.side) for leaf in place.made)


def hardware_mass(canopy: Canopy) -> float:
    """What seals, hinges, locks and struts of all doors weigh: by the metre and by the piece.

    Args:
        canopy: Whose doors. [mm]
    Returns: A strut where the job names it, else two; two locks a leaf. [kg]
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
