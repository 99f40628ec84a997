"""The store room: what ships, and the user's own units, read when they are first wanted."""

from __future__ import annotations

from pathlib import Path
from typing import TYPE_CHECKING

from roomy_hull.core.errors import JobFileError
from roomy_hull.job.unit import Unit

if TYPE_CHECKING:
    from roomy_hull.kit.stores import Entry


class StoreRoom:
    """What can be placed.

    Parameters
    ----------
    folder : Path
        Of the user's own units.
    """

    def __init__(self, folder: Path) -> None:
        self.folder = folder
        self._own: tuple[Entry, ...] | None = None
        self.trouble = ""

    def entries(self) -> tuple[Entry, ...]:
        """Give everything, the user's own last; `trouble` then names the first file that cannot be used."""
        from roomy_hull.formats import unitfile  # the stores are not to slow the start
        from roomy_hull.kit import stores  # as above

        if self._own is None:
            self._own, troubles = unitfile.own_stores(self.folder)
            self.trouble = troubles[0] if troubles else ""
        return (*stores.entries(), *self._own)

    def keep(self, unit: Unit) -> Path:
        """Keep a unit as an open file.

        Parameters
        ----------
        unit : Unit
            What to keep, without its place.

        Returns
        -------
        Path
            The file.

        Raises
        ------
        JobFileError
            The folder or file cannot be written.
        """
        from roomy_hull.formats import unitfile  # as above

        name = "".join(c if c.isalnum() else "-" for c in unit.name.lower()).strip("-") or unit.id
        path = self.folder / f"{name}{unitfile.SUFFIX}"
        try:
            self.folder.mkdir(parents=True, exist_ok=True)
        except OSError as trouble:
            raise JobFileError(
                f"the folder cannot be made ({trouble.strerror})",
                str(self.folder),
                "Choose another place.",
            ) from None
        unitfile.save(unit, path)
        self._own = None
        return path
