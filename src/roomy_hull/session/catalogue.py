"""Catalogue: what can be placed, the shipped stores and the user's own units."""

from pathlib import Path

from roomy_hull.core.errors import FileError, UserError
from roomy_hull.core.signal import Signal
from roomy_hull.formats import unitfile
from roomy_hull.formats.atomic import free_name
from roomy_hull.kinds.kind import Offer
from roomy_hull.kinds.placed import Placed
from roomy_hull.kit import catalogue
from roomy_hull.session.messages import Messages


class Catalogue:
    """What can be placed; `changed` tells that the user's own units are others.

    Args:
        folder: Of the user's own units.
        messages: Where a file that cannot be used is told, once.
    """

    def __init__(self, folder: Path, messages: Messages) -> None:
        self.changed = Signal()
        self._folder, self._messages = folder, messages
        self._own: tuple[Offer, ...] | None = None

    def look_in(self, folder: Path) -> None:
        """Have the user's own units lie in another folder."""
        if folder != self._folder:
            self._folder, self._own = folder, None
            self.changed.emit()

    def entries(self) -> tuple[Offer, ...]:
        """List everything in the stores, the user's own last."""
        if self._own is None:
            self._own, troubles = unitfile.own_stores(self._folder)
            if troubles:
                words = f"A file of your own stores cannot be used: {troubles[0]}"
                self._messages.say(words, trouble=True)
        return (*catalogue.entries(), *self._own)

    def entry(self, key: str) -> Offer:
        """Look an entry up by its key."""
        return next(e for e in self.entries() if e.key == key)

    def keep(self, unit: Placed) -> None:
        """Keep a unit in the user's own stores, as an open file; trouble is told."""
        name = (
            "".join(c if c.isalnum() else "-" for c in unit.name.lower())[:40].strip("-") or unit.id
        )
        # Never in place of one that was kept before: that may be another.
        path = free_name(self._folder / f"{name}{unitfile.SUFFIX}")
        try:
            try:
                self._folder.mkdir(parents=True, exist_ok=True)
            except OSError as trouble:
                raise FileError(
                    f"the folder cannot be made ({trouble.strerror})",
                    str(self._folder),
                    "Choose another place.",
                ) from None
            unitfile.save(unit, path)
        except UserError as trouble:
            self._messages.say(f"The unit cannot be kept: {trouble}", trouble=True)
            return
        self._own = None
        self._messages.say(f"{unit.name} is in your stores now: {path}")
        self.changed.emit()
