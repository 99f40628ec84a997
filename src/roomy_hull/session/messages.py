"""Messages: what the user is told in passing."""

from roomy_hull.core.signal import Signal


class Messages:
    """The last message, and whether it is trouble; `changed` tells of each."""

    def __init__(self) -> None:
        self.changed = Signal()
        self.text = ""
        self.trouble = False

    def say(self, text: str, *, trouble: bool = False) -> None:
        """Tell the user something."""
        self.text, self.trouble = text[:1].upper() + text[1:], trouble
        self.changed.emit()
