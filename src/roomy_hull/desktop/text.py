"""Text on the screen: Qt takes words that look like mark-up for mark-up; here it is told not to."""

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QLabel

from roomy_hull.session.marks import rich


class Label(QLabel):
    """A label whose words are seen as they are; `show_marked` lets marked ones stand out."""

    def __init__(self, text: str = "") -> None:
        super().__init__()
        self.setTextFormat(Qt.TextFormat.PlainText)
        self.setText(text)

    def show_marked(self, text: str, stop_colour: str = "") -> None:
        """Show words with marks (`session.marks`)."""
        self.setTextFormat(Qt.TextFormat.RichText)
        self.setText(rich(text, stop_colour))


def plain(text: str) -> str:
    """Write words for a tooltip or a question, so that Qt shows every sign of them."""
    return f"<qt>{rich(text)}</qt>" if "<" in text or "&" in text else text
