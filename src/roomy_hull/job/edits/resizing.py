"""Sizes of vehicle and body: one value set by its path, and what depends on it re-flowed."""

import math
from collections.abc import Callable
from typing import Any

import msgspec

from roomy_hull.core.errors import EditError
from roomy_hull.core.value import Value, refusal
from roomy_hull.job.body import Body
from roomy_hull.job.canopy import Bay, Door
from roomy_hull.job.edits.running import rim_offset
from roomy_hull.job.model import Job

Part = Door | Bay

FULL = 80.0
"""A canopy that reaches this near to the tray's end or edge hangs on it. [mm]"""
LEAST = 60.0
"""What is re-flowed never becomes smaller. [mm]"""


def set_at(value: Any, path: str, new: Any) -> Any:
    """Set one field by its path.

    Args:
        path: Field names with dots between; a part of a tuple by its id or number, for example
            ``body.canopy.doors.left.length``.
    Returns: A copy; everything off the path is shared.
    Raises:
        EditError: There is no such field, or the value is not allowed there.
    """
    head, _, rest = path.partition(".")
    if isinstance(value, tuple):
        if head.isdigit() and not rest and _figures(value):
            # A list of figures, such as the masses on the seats, grows by zeros.
            filled = [*value, *([0.0] * (int(head) + 1 - len(value)))]
            return (*filled[: int(head)], new, *filled[int(head) + 1 :])
        n, rest = _part_of(value, path)
        if n is None:
            raise EditError(f"there is no '{head}'", place=path)
        inner = set_at(value[n], rest, new) if rest else new
        return (*value[:n], inner, *value[n + 1 :])
    if not isinstance(value, Value) or head not in value.__struct_fields__:
        raise EditError(f"there is no field '{head}'", place=path)
    try:
        inner = getattr(value, head)
        if rest and isinstance(inner, tuple) and (_figures(inner) or not _part_of(inner, rest)[1]):
            # A whole item of a list is converted and checked with its list.
            return value.but(**{head: set_at(inner, rest, new)})
        if rest:
            # Only the last value is converted and checked anew; what is beside the path is shared.
            return msgspec.structs.replace(value, **{head: set_at(inner, rest, new)})
        return value.but(**{head: new})
    except (msgspec.ValidationError, ValueError) as trouble:
        raise EditError(refusal(trouble), place=path, remedy="The old value is kept.") from None


def _part_of(value: tuple[Any, ...], path: str) -> tuple[int | None, str]:
    """Find which part of a tuple a path goes on with, and what follows: by its id, which may hold dots, else by number."""
    named = []
    for n, item in enumerate(value):
        key = getattr(item, "id", None)
        if key is not None and (path == key or path.startswith(f"{key}.")):
            rest = path[len(key) + 1 :]
            # Of two ids that fit, that after which a field follows; else the longer one.
            goes_on = rest.partition(".")[0] in getattr(item, "__struct_fields__", ())
            named.append((goes_on, len(key), -n, rest))
    if named:
        _goes_on, _long, n, rest = max(named)
        return -n, rest
    head, _, rest = path.partition(".")
    return (int(head), rest) if head.isdecimal() and int(head) < len(value) else (None, "")


def _figures(values: tuple[Any, ...]) -> bool:
    """Say whether a tuple holds figures only, or nothing."""
    return all(isinstance(v, int | float) for v in values)


def value_at(value: Any, path: str) -> Any:
    """The value at a path.

    Args:
        path: As `set_at` takes it.
    Returns: The value; none where something on the way is none.
    Raises:
        EditError: There is no such field.
    """
    left = path
    while left and value is not None:
        step, _, rest = left.partition(".")
        if isinstance(value, tuple) and step.isdecimal() and _figures(value):
            value = value[int(step)] if int(step) < len(value) else 0.0
        elif isinstance(value, tuple):
            n, rest = _part_of(value, left)
            value = value[n] if n is not None else None
        elif step in getattr(value, "__struct_fields__", ()):
            value = getattr(value, step)
        else:
            raise EditError(f"there is no field '{step}'", place=path)
        left = rest
    return value


KEPT = ("log", "offers", "releases")
"""Beginnings of the paths of what only grows."""


def resized(job: Job, path: str, new: Any) -> Job:
    """Set a size of vehicle or body and re-flow what depends on it.

    Units keep their places; one that then stands outside its bay becomes a finding.

    Args:
        path: A path that begins with ``vehicle.``, ``body.``, ``scenarios.``, ``brief.`` or ``weighings.``.
        new: The new value. [mm or as the field says]
    Returns: The new job; the same job where nothing changes.
    Raises:
        EditError: There is no such field, the value is not allowed, or a door or bay would vanish.
    """
    if path.startswith(KEPT):
        raise EditError(
            "what is logged, offered or released is not changed",
            path,
            "Add an entry that corrects it.",
        )
    if value_at(job, path) == new:
        return job
    if path == "vehicle.wheels.offset":
        return rim_offset(job, new)
    flow = FLOWS.get(path)
    canopy = job.body.canopy
    if flow is None or (canopy is None and path.startswith("body.canopy.")):
        changed: Job = set_at(job, path, new)
        return changed
    least = 0.0 if path in ("body.tray.false_floor", "body.tray.wings") else None
    by = _figure(new, path, least) - float(value_at(job, path))
    try:
        body = flow(job.body, by)
        if path.startswith("body.tray."):
            body = set_at(body, path.removeprefix("body."), new)
        # The whole is validated once more, with every bound of every field.
        body = body.but(tray=body.tray, canopy=body.canopy)
    except (msgspec.ValidationError, ValueError) as trouble:
        raise EditError(
            refusal(trouble),
            place=path,
            remedy="The old value is kept.",
        ) from None
    return msgspec.structs.replace(job, body=body)


def _figure(value: Any, path: str, least: float | None) -> float:
    """Refuse a size that is no figure."""
    if isinstance(value, bool) or not isinstance(value, int | float) or not math.isfinite(value):
        raise EditError("expected a figure", place=path, remedy="The old value is kept.")
    if (value <= 0) if least is None else value < least:
        raise EditError("expected a figure > 0", place=path, remedy="The old value is kept.")
    return float(value)


def _tray_length(body: Body, by: float) -> Body:
    """Keep a full-length canopy's distance to the tail."""
    canopy = body.canopy
    if canopy is None or body.tray.length - canopy.start - canopy.length > FULL:
        return body
    return _canopy_length(body, by)


def _tray_width(body: Body, by: float) -> Body:
    """Keep a full-width canopy's distance to the edges."""
    if body.canopy is None or body.tray.width - body.canopy.width > 2 * FULL:
        return body
    return _canopy_width(body, by)


def _canopy_length(body: Body, by: float) -> Body:
    """Keep side doors and bays that reach past the middle at their distance to the rear wall."""
    middle = body.canopy.length / 2 if body.canopy is not None else 0.0

    def flow(one: Part) -> dict[str, float]:
        reaches = one.side != "rear" and one.start + one.length > middle
        return {"length": one.length + by} if reaches else {}

    return _flowed(body, {"length": by}, flow)


def _canopy_width(body: Body, by: float) -> Body:
    """Share the new width between the side bays; widen what opens at the rear."""

    def flow(one: Part) -> dict[str, float]:
        if one.side == "rear":
            return {"length": one.length + by}
        return {"depth": one.depth + by / 2} if isinstance(one, Bay) else {}

    return _flowed(body, {"width": by}, flow)


def _canopy_height(body: Body, by: float) -> Body:
    """Keep doors and bays at their distance to the roof."""
    return _flowed(body, {"height": by}, lambda one: {"height": one.height + by})


def _false_floor(body: Body, by: float) -> Body:
    """Raise every bay by the false floor; its top stays where it was."""
    return _flowed(
        body, {}, lambda one: {"sill": one.sill + by, "height": one.height - by}, doors=False
    )


def _wings(body: Body, by: float) -> Body:
    """Take the wings' room off what opens at the rear, on both sides."""
    # The tailgate's opening stays where it is, and the bay's follows from it.
    return _flowed(
        body, {}, lambda one: {"start": one.start + by, "length": one.length - 2 * by}, doors=False
    )


def _flowed(
    body: Body,
    grows: dict[str, float],
    flow: Callable[[Part], dict[str, float]],
    *,
    doors: bool = True,
) -> Body:
    """Grow the canopy and everything that depends on it in one step, so that it is always whole."""
    canopy = body.canopy
    if canopy is None:
        # An open tub has no bays that could give way.
        return body
    sizes = {name: getattr(canopy, name) + by for name, by in grows.items()}
    for size in sizes.values():
        _grown("the canopy", size)
    leaves = tuple(_changed(d, flow(d)) for d in canopy.doors) if doors else canopy.doors
    bays = tuple(_changed(b, flow(b)) for b in canopy.bays)
    new = msgspec.structs.replace(canopy, **sizes, doors=leaves, bays=bays)
    return msgspec.structs.replace(body, canopy=new)


def _changed(one: Any, sizes: dict[str, float]) -> Any:
    """A door or bay its new sizes."""
    for name, size in sizes.items():
        if name in ("length", "depth", "height"):
            _grown(f"'{one.id}'", size)
    return msgspec.structs.replace(one, **sizes) if sizes else one


def _grown(name: str, size: float) -> None:
    """Refuse a size that leaves nothing."""
    if size < LEAST:
        raise ValueError(
            f"{name} would become {size:.0f} mm; make the canopy larger, or take it away"
        )


FLOWS: dict[str, Callable[[Body, float], Body]] = {
    "body.tray.length": _tray_length,
    "body.tray.width": _tray_width,
    "body.canopy.length": _canopy_length,
    "body.canopy.width": _canopy_width,
    "body.canopy.height": _canopy_height,
    "body.tray.false_floor": _false_floor,
    "body.tray.wings": _wings,
}
"""What re-flows when a size changes."""
