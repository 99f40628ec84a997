"""Lettering: words in one font at one size, laid out once and drawn often.

A drag paints the same forty words at every step, and to lay words out costs Qt as much as to draw them.
"""

import functools
from typing import Any

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QFontMetricsF, QPainter, QStaticText

from roomy_hull.desktop.theme import font

MANY = 1000
"""So many rows are kept for each size; then all are forgotten, for figures change as they are dragged."""


class Lettering:
    """Words in the shipped font.

    Args:
        size: Height of the font. [px]
        bold: Whether it is bold.
    """

    def __init__(self, size: int, bold: bool) -> None:
        self.font = font(size, bold=bold)
        self.metrics = QFontMetricsF(self.font)
        self.height = self.metrics.height()
        self.capital = self.metrics.capHeight()
        self._ascent = self.metrics.ascent()
        self._rows: dict[tuple[str, bool], QStaticText] = {}
        self._widths: dict[str, float] = {}
        self._fitted: dict[tuple[str, int], list[str]] = {}

    def width(self, text: str) -> float:
        """How wide a row is. [px]"""
        found = self._widths.get(text)
        if found is None:
            self._spare(self._widths)
            found = self._widths[text] = self.metrics.horizontalAdvance(text)
        return found

    def box(self, text: str) -> QRectF:
        """The box of a row from its ascent to its descent, from the left end of its base line. [px]"""
        return QRectF(0.0, -self._ascent, self.width(text), self.height)

    def draw(self, painter: QPainter, at: QPointF, text: str) -> None:
        """Draw a row with the painter's pen from the left end of its base line. [px]"""
        turned = painter.transform().isRotating()
        row = self._rows.get((text, turned))
        if row is None:
            self._spare(self._rows)
            row = self._rows[text, turned] = QStaticText(text)
            row.setTextFormat(Qt.TextFormat.PlainText)
        painter.setFont(self.font)
        painter.drawStaticText(QPointF(at.x(), at.y() - self._ascent), row)

    def fitted(self, text: str, room: float) -> list[str]:
        """Break words into rows no wider than the room; a word that is wider is shortened. [px]"""
        key = (text, int(room))
        found = self._fitted.get(key)
        if found is None:
            self._spare(self._fitted)
            found = self._fitted[key] = self._broken(text, int(room))
        return found

    def _broken(self, text: str, room: int) -> list[str]:
        rows: list[str] = []
        for word in text.split():
            longer = f"{rows[-1]} {word}" if rows else word
            if rows and self.width(longer) <= room:
                rows[-1] = longer
            else:
                rows.append(word)
        rows = [
            r if self.width(r) <= room
            else self.metrics.elidedText(r, Qt.TextElideMode.ElideRight, room)
            for r in rows
        ]  # fmt: skip
        return [r for r in rows if len(r) > 1]

    @staticmethod
    def _spare(kept: dict[Any, Any]) -> None:
        """Forget all where there are too many."""
        if len(kept) >= MANY:
            kept.clear()


@functools.cache
def lettering(size: int, bold: bool = False) -> Lettering:
    """The lettering of a size."""
    return Lettering(size, bold)
