"""Actions on the selection and on what hangs under the tray; undo and redo."""

import functools
from collections.abc import Callable

import msgspec

from roomy_hull.job.edits import units as edits
from roomy_hull.job.model import Job
from roomy_hull.kit.body import fitting
from roomy_hull.session.actions.editing import nudge, pitch_of_selection
from roomy_hull.session.actions.registry import Action, Check
from roomy_hull.session.finding_room import free_twin
from roomy_hull.session.session import Session

Run = Callable[[Session], None]


def _has_selection(session: Session) -> bool:
    """Enable only where something is selected."""
    return bool(session.selection.key)


def _under(what: str) -> Run:
    def run(session: Session) -> None:
        session.attempt(f"change {what}", lambda: fitting.toggled(session.job, what))

    return run


def _long_range(session: Session) -> None:
    def make() -> Job:
        vehicle = session.job.vehicle
        tank = (
            None
            if vehicle.long_range
            else vehicle.fuel.but(litres=60.0, x=vehicle.wheelbase + 420, y=0.0)
        )
        new = msgspec.structs.replace(vehicle, long_range=tank)
        return msgspec.structs.replace(session.job, vehicle=new)

    session.attempt("change the long-range tank", make)


def _has_tray(session: Session) -> bool:
    """Enable only on a tray."""
    return session.job.body.tray.kind == "tray"


def _delete(session: Session) -> None:
    keys = session.selection.ids()
    thing = session.job.thing(session.selection.key)
    if thing is not None:
        words = thing.name if len(keys) == 1 else f"{len(keys)} things"
        session.edit(f"delete {words}", functools.reduce(edits.removed, keys, session.job))


def _duplicate(session: Session) -> None:
    thing = session.known.assembly.thing(session.selection.key)
    if thing is None:
        return
    value = thing.value
    new_id = edits.free_id(session.job, value.id)
    if thing.place is not None:
        from_space = free_twin(session.known.assembly, thing)
        if from_space is None:
            session.say(
                f"There is no free place for a second {value.name} in this bay.", trouble=True
            )
            return
        copy = value.but(id=new_id, u=from_space[0], w=from_space[1])
    else:
        copy = value.but(id=new_id, y=thing.envelope.y1 + thing.envelope.size()[1] / 2 + 20)
    if session.attempt(f"duplicate {value.name}", lambda: edits.added(session.job, copy)):
        session.selection.select(new_id)


def _mirror(session: Session) -> None:
    thing = session.job.thing(session.selection.key)
    if thing is None:
        return
    keys = session.selection.ids()
    words = thing.name if len(keys) == 1 else f"{len(keys)} things"
    done = session.attempt(
        f"mirror {words}", lambda: functools.reduce(edits.mirrored, keys, session.job)
    )
    placed = session.known.assembly.thing(thing.id)
    if done and placed is not None and placed.place is not None:
        session.view.set(station=placed.place.bay.side)


def _nudge(du: int, dw: int, *, fine: bool = False) -> Run:
    def run(session: Session) -> None:
        step = 1.0 if fine else pitch_of_selection(session)
        up = 1.0 if fine else 5.0
        nudge(session, du * step, dw * up)

    return run


_UNDER: dict[str, str] = {
    "box ahead left": "Toolbox ahead of the left wheel", "box ahead right": "Toolbox ahead of the right wheel",
    "box behind left": "Toolbox behind the left wheel", "box behind right": "Toolbox behind the right wheel",
    "trundle": "Trundle drawer under the tray", "tank": "Water tank under the tray",
}  # fmt: skip


def _cover(choice: str) -> Run:
    def run(session: Session) -> None:
        words = "take the canopy away" if choice == "none" else f"fit a {choice}"
        if (
            session.attempt(words, lambda: fitting.covered(session.job, choice))
            and choice != "none"
        ):
            session.say("Its sizes, doors and bays are a proposal: change them on the stage Body.")

    return run


def _lacks_canopy(kind: str) -> Check:
    """Enable where a vehicle of a kind has no canopy."""
    return lambda s: s.job.body.canopy is None and s.job.vehicle.kind == kind


def actions() -> list[Action]:
    """Declare the actions of this area, in the order of the menu."""
    ground = functools.partial(Action, everywhere=False)
    return [
        Action("edit.undo", "Undo", "Take the last step back", "Edit", lambda s: s.undo(),
               ("Ctrl+Z",), lambda s: bool(s.history.undo_words())),
        Action("edit.redo", "Redo", "Bring the step back", "Edit", lambda s: s.redo(),
               ("Ctrl+Shift+Z", "Ctrl+Y"), lambda s: bool(s.history.redo_words())),
        Action("edit.duplicate", "Duplicate", "A second one in the nearest free place", "Edit",
               _duplicate, ("Ctrl+D",), _has_selection),
        ground("edit.mirror", "Mirror to the other side", "The same place on the other side", "Edit",
               _mirror, ("M",), _has_selection),
        ground("edit.delete", "Delete", "Take it out of the job", "Edit", _delete,
               ("Del", "Backspace"), _has_selection),
        ground("edit.left", "Nudge left one pitch", "One rail pitch", "Edit", _nudge(-1, 0),
               ("Left",), _has_selection),
        ground("edit.right", "Nudge right one pitch", "One rail pitch", "Edit", _nudge(1, 0),
               ("Right",), _has_selection),
        ground("edit.up", "Nudge up 5 mm", "Off the floor", "Edit", _nudge(0, 1), ("Up",),
               _has_selection),
        ground("edit.down", "Nudge down 5 mm", "Towards the floor", "Edit", _nudge(0, -1), ("Down",),
               _has_selection),
        ground("edit.left_fine", "Nudge left 1 mm", "Off the pitch, if need be", "Edit",
               _nudge(-1, 0, fine=True), ("Shift+Left",), _has_selection),
        ground("edit.right_fine", "Nudge right 1 mm", "Off the pitch, if need be", "Edit",
               _nudge(1, 0, fine=True), ("Shift+Right",), _has_selection),
        ground("edit.up_fine", "Nudge up 1 mm", "By the millimetre", "Edit",
               _nudge(0, 1, fine=True), ("Shift+Up",), _has_selection),
        ground("edit.down_fine", "Nudge down 1 mm", "By the millimetre", "Edit",
               _nudge(0, -1, fine=True), ("Shift+Down",), _has_selection),
    ]  # fmt: skip


def body() -> list[Action]:
    """Declare what stands on the tray and hangs under it, and the long-range tank."""
    tip = "A first one to be changed: sizes, doors, bays"
    found = [
        Action("body.full_canopy", "Fit a full canopy", tip, "Body", _cover("full canopy"), (),
               _lacks_canopy("cab-chassis")),
        Action("body.short_canopy", "Fit a canopy across the tray", tip, "Body", _cover("short canopy"), (),
               _lacks_canopy("cab-chassis")),
        Action("body.topper", "Fit a topper", tip, "Body", _cover("topper"), (), _lacks_canopy("pickup")),
        Action("body.no_canopy", "Take the canopy away", "Once no unit stands in it", "Body", _cover("none"), (),
               lambda s: s.job.body.canopy is not None and s.job.vehicle.kind != "wagon"),
    ]  # fmt: skip
    found += [
        Action(f"body.{what.replace(' ', '_')}", _UNDER[what], "Add it where there is room, or take it away",
               "Body", _under(what), (), _has_tray)
        for what in fitting.UNDER
    ]  # fmt: skip
    found.append(
        Action("vehicle.long_range", "Long-range fuel tank", "Add one behind the axle, or take it away", "Body",
               _long_range)
    )  # fmt: skip
    return found
