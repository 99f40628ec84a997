"""What stands open, as every view shows it: true outlines, and a unit's own elevation where one faces it."""

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.assembly.motions import Opening
from roomy_hull.assembly.things import Thing
from roomy_hull.core.geometry.motion import PLANE, Piece
from roomy_hull.core.primitives import Outline, Point, Scene, Stroke
from roomy_hull.drawing.view import View, carried_over
from roomy_hull.job.carried import Carried

ROLES: dict[str, str] = {"door": "opened door", "tray": "opened door", "outside": "opened cloth"}


def outline(piece: Piece, view: View) -> tuple[Point, ...]:
    """Project a piece onto a picture: its ring where one looks along it, else its bounding rectangle. [mm]"""
    (h, sh), (k, sk) = view.h, view.k
    if piece.axis not in (h, k):
        a, _b = PLANE[piece.axis]
        return tuple((p * sh, q * sk) if h == a else (q * sh, p * sk) for p, q in piece.ring)
    h0, k0, h1, k1 = view.rect(piece.box)
    return ((h0, k0), (h1, k0), (h1, k1), (h0, k1))


def shown(assembly: Assembly, opened: frozenset[str]) -> list[Opening]:
    """The openings that stand open, doors first."""
    return [o for o in assembly.openings() if o.id in opened]


def opened_things(
    assembly: Assembly, view: View, station: str, opened: frozenset[str], *, plan: bool
) -> Scene:
    """Draw everything that stands open.

    Args:
        plan: Whether the picture is one from above.
    Returns: Strokes from back to front, each with its owner's id as tag. [mm]
    """
    primitives: list[Stroke] = []
    openings = shown(assembly, opened)
    # From above, doors and cloth would hide what is pulled out below them: they come first, and thin.
    over = ("door", "outside")
    for opening in sorted(
        openings, key=lambda o: (plan and o.kind not in over, view.nearness(o.opened_box))
    ):
        role = ROLES.get(opening.kind, "opened")
        if plan and opening.kind in over:
            role = "opened over"
        tag = opening.owner or opening.id
        spread = bool(opening.motion.spread)
        for piece in opening.opened:
            thin = "opened fan" if spread and not piece.square else role
            primitives.append(Outline(thin, outline(piece, view), tag=tag))
        thing = assembly.thing(opening.owner) if opening.owner else None
        if thing is not None and opening.kind == "unit":
            primitives += _elevation(thing, opening, view, station, plan=plan)
    return tuple(primitives)


def _sum(opening: Opening, axis: int, verbs: tuple[str, ...]) -> float:
    """Add up how far an opening slides along an axis of its owner. [mm]"""
    return sum(s.by for s in opening.motion.steps if s.axis == axis and s.verb in verbs)


def _elevation(thing: Thing, opening: Opening, view: View, station: str, *, plan: bool) -> Scene:
    """Draw a unit's elevation where it stands open: its face from in front, its plan from above."""
    unit, place = thing.value, thing.place
    if place is None or isinstance(unit, Carried) or opening.motion.id:
        return ()
    side = place.bay.side
    if plan and thing.expansion.plan and view.near[0] == 2:
        out = _sum(opening, 1, ("slide",))
        at = view.point(*place.frame.point(unit.u, unit.v + out, unit.w))
        inward = -1 if side in ("right", "rear") else 1
        (h, sh), (_k, sk) = view.h, view.k
        if (side == "rear") == (h == 1):  # u runs along the picture, v across it
            return carried_over(thing.expansion.plan, sh, *at, unit.id, sk * inward)
        return carried_over(thing.expansion.plan, sh * inward, *at, unit.id, sk, swap=True)
    if not plan and station == side:
        down = _sum(opening, 2, ("lower", "lift"))
        at = view.point(*place.frame.point(unit.u, unit.v, unit.w + down))
        return carried_over(thing.expansion.elevation, -1 if side == "right" else 1, *at, unit.id)
    return ()
