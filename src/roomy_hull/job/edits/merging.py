"""Merging: two people's edits of one job laid together, part by part, where they do not touch.

Both are held against the version from which they began. What only one of them changed is taken from that one; what both
changed in different ways is a conflict, named by its place. Lists of things with ids are laid together thing by thing,
all other lists as one part.
"""

from typing import Any, NamedTuple

_GONE = object()
"""Stands for what is not there."""


class Merged(NamedTuple):
    """A job file's content laid together, and the places where both sides changed the same part."""

    raw: dict[str, Any]
    conflicts: tuple[str, ...]


def merged(base: dict[str, Any], mine: dict[str, Any], theirs: dict[str, Any]) -> Merged:
    """Lay two versions of a job together.

    Args:
        base, mine, theirs: What both began with, and what became of it: decoded job files.
    """
    conflicts: list[str] = []
    raw = _merge(base, mine, theirs, "", conflicts)
    return Merged(raw, tuple(conflicts))


def _merge(base: Any, mine: Any, theirs: Any, place: str, conflicts: list[str]) -> Any:
    """Lay one part together; a conflict is noted, and mine stands."""
    if theirs in (mine, base):
        return mine
    if mine == base:
        return theirs
    if all(isinstance(x, dict) for x in (base, mine, theirs)):
        found = {}
        for key in (*mine, *(k for k in theirs if k not in mine)):
            a, b, c = (side.get(key, _GONE) for side in (base, mine, theirs))
            value = _merge(a, b, c, f"{place}.{key}" if place else key, conflicts)
            if value is not _GONE:
                found[key] = value
        return found
    if all(_by_id(x) for x in (base, mine, theirs)):
        return _merge_things(base, mine, theirs, place, conflicts)
    conflicts.append(place or "the whole file")
    return mine if mine is not _GONE else theirs


def _by_id(part: Any) -> bool:
    """Say whether a part is a list of things with ids of their own."""
    if not isinstance(part, list) or not all(isinstance(x, dict) and "id" in x for x in part):
        return False
    ids = [x["id"] for x in part]
    return all(isinstance(i, str) for i in ids) and len(set(ids)) == len(ids)


def _merge_things(
    base: list[Any], mine: list[Any], theirs: list[Any], place: str, conflicts: list[str]
) -> list[Any]:
    """Lay lists of things together: in my order, then what is new of theirs."""
    sides = [{x["id"]: x for x in part} for part in (base, mine, theirs)]
    order = [*sides[1], *(k for k in sides[2] if k not in sides[1])]
    found = []
    for key in order:
        a, b, c = (side.get(key, _GONE) for side in sides)
        value = _merge(a, b, c, f"{place}.{key}", conflicts)
        if value is not _GONE:
            found.append(value)
    return found
