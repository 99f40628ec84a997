"""From older file versions to the newest: one step per version, applied in turn."""

from collections.abc import Callable, Mapping
from typing import Any

from roomy_hull.core.errors import JobFileError
from roomy_hull.job.model import VERSION, WRITTEN_BY

Step = Callable[[dict[str, Any]], dict[str, Any]]

STEPS: dict[int, Step] = {1: lambda raw: raw, 2: lambda raw: raw}
"""Version n to the function that makes version n + 1 of it."""

NEWS: dict[int, str] = {
    1: "Openings of bays now follow from the doors before them, door leaves lap over their openings, walls and "
    "divider are in the way of what they are in the way of, and a canopy's fittings are counted where none are "
    "given, as are slides whose mass is not. No unit was moved: look through the findings.",
}
"""Version n to what means something else since version n + 1."""


def news(version: object) -> tuple[str, ...]:
    """What means something else since a file of some version was written, the oldest first."""
    if not isinstance(version, int):
        return ()
    return tuple(words for since, words in sorted(NEWS.items()) if version <= since)


def to_newest(
    raw: dict[str, Any], steps: Mapping[int, Step] = STEPS, newest: int = VERSION
) -> dict[str, Any]:
    """Bring a decoded file to the newest version.

    Args:
        raw: Decoded JSON object with a ``version``.
    Raises:
        JobFileError: The version is missing, no whole number, newer than this program, or has no step.
    """
    version = raw.get("version")
    if not isinstance(version, int) or isinstance(version, bool) or version < 1:
        raise JobFileError(
            f"the version {version!r} is not a whole number from 1",
            place="version",
            remedy="A job file starts with its format and version; see docs/formats.md.",
        )
    if version > newest:
        by = raw.get(WRITTEN_BY)
        newer = f"Roomy Hull {by}" if isinstance(by, str) and by else "a newer Roomy Hull"
        raise JobFileError(
            f"the file is of version {version}, and this program reads up to {newest}",
            place="version",
            remedy=f"Open it with {newer}; the file was not touched.",
        )
    while version < newest:
        if version not in steps:
            raise JobFileError(f"there is no way from version {version} to {version + 1}")
        raw = {**steps[version](dict(raw)), "version": version + 1}
        version += 1
    return raw
