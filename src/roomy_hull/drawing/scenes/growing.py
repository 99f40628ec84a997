"""The vehicle as it grows: every part where it stands, drawn by how far it has come in the shop."""

from collections.abc import Mapping

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.assembly.things import Thing
from roomy_hull.core.geometry.frames import Frame
from roomy_hull.core.geometry.solids import Box, hull
from roomy_hull.core.parts import Hardware
from roomy_hull.core.poses import standing
from roomy_hull.core.primitives import Rect, Scene, Stroke, Words, rectangle
from roomy_hull.core.refs import CANOPY, Ref
from roomy_hull.drawing.scenes import vehicle as vehicle_scene
from roomy_hull.drawing.scenes.around import ground_line
from roomy_hull.drawing.scenes.ground import frame
from roomy_hull.drawing.view import ELEVATION, Station, View
from roomy_hull.job.releases import STATES, PartState
from roomy_hull.making.works import Work, Works


def growing(
    assembly: Assembly, works: Works, states: Mapping[tuple[Ref, str], PartState], fitted: frozenset[str],
    station: Station, chosen: str = "",
) -> Scene:  # fmt: skip
    """Draw how far a build has come.

    Args:
        states: How far each owner's part has come, by its name.
        fitted: Ids of bought and carried things that are in their places.
        station: Where one stands: left, right or rear.
    Returns: The vehicle, then every part from far to near. [mm]
    """
    view, vehicle = ELEVATION[station], assembly.job.vehicle
    found: list[Stroke] = [*ground_line(frame(assembly, station)[0])]
    if station in ("left", "right"):
        found += vehicle_scene.side(vehicle, view.h[1])
    else:
        found += vehicle_scene.end(vehicle, rear=station == "rear")
    # The body stands behind what is in it, whatever is nearer to the eye: its doors are open, so to speak.
    rows: list[tuple[tuple[bool, float], str, Box, str]] = []
    for work in works.works:
        own = assembly.thing(work.owner)
        if own is not None and not _seen(own, station):
            continue
        for name, box, role in pieces(assembly, work):
            state = states.get((work.owner, name), "to cut")
            # A door's leaf hides nothing of what stands behind it.
            word = "grown leaf" if role == "leaf" and state != "to cut" else f"grown {state}"
            rows.append((
                (own is not None or role == "leaf", view.nearness(box)),
                word,
                box,
                work.owner.id or work.owner.kind,
            ))
    made = {w.owner for w in works.works if any(not isinstance(p, Hardware) for p in w.parts)}
    for thing in assembly.things:
        if thing.ref not in made and _seen(thing, station):
            role = "grown fitted" if thing.id in fitted else "grown to cut"
            rows.append(((True, view.nearness(thing.envelope)), role, thing.envelope, thing.id))
    rows.sort(key=lambda r: r[0])
    found += [_panel(view, role, box, tag) for _near, role, box, tag in rows]
    picked = assembly.thing(chosen)
    if picked is not None:
        found.append(_panel(view, "grown chosen", picked.envelope, chosen))
    return tuple(found)


def _seen(thing: Thing, station: Station) -> bool:
    """Whether a thing is reached from where one stands; what is carried outside is seen from everywhere."""
    return thing.place is None or thing.place.bay.side == station


def _panel(view: View, role: str, box: Box, tag: str) -> Stroke:
    return rectangle(role, *view.rect(box), tag=tag)


def pieces(assembly: Assembly, work: Work) -> list[tuple[str, Box, str]]:
    """The parts of one owner where they stand: name, the box around it in vehicle axes, what it is for. [mm]"""
    ground = assembly.ground
    thing = assembly.thing(work.owner)
    found: list[tuple[str, Box, str]] = []
    at: Frame | None = None
    shift = (0.0, 0.0, 0.0)
    if thing is not None and thing.place is not None:
        place = thing.place.frame
        corner = (getattr(thing.value, n, 0.0) for n in "uvw")
        at = Frame(*place.point(*corner), place.side)
    elif work.owner == CANOPY and ground.canopy is not None:
        shift = ground.canopy[:3]
    for part in work.parts:
        if isinstance(part, Hardware):
            continue
        for boxes in standing(part):
            whole = hull(list(boxes))
            found.append((
                part.name,
                at.box(whole) if at is not None else whole.moved(*shift),
                part.role,
            ))
    return found


LOW = 330.0
"""Room under the ground for what the fills mean. [mm]"""


def grown_frame(assembly: Assembly, station: Station) -> Rect:
    """The stretch that is shown, with room for what the fills mean. [mm]"""
    h0, k0, h1, k1 = frame(assembly, station)[0]
    return (h0, k0 - LOW, h1, k1)


def legend(shown: Rect) -> Scene:
    """What the fills mean: a sample of each state with its name, along the lower edge.

    Args:
        shown: The stretch that is shown. [mm]
    Returns: A small box and a word for each state. [mm]
    """
    h0, k0, h1, _k1 = shown
    step, high = (h1 - h0) / len(STATES), LOW * 0.5
    found: list[Stroke] = []
    for n, state in enumerate(STATES):
        x = h0 + (n + 0.1) * step
        found.append(rectangle(f"grown {state}", x, k0 + 40, x + 1.6 * high, k0 + 40 + high))
        found.append(
            Words(
                "chart words", (x + 1.6 * high + 50, k0 + 40 + high / 2), state, 11.0, anchor="left"
            )
        )
    return tuple(found)
