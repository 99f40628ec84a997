"""Lettering: what is kept for speed draws and measures as Qt does without it."""

import pytest
from PyQt6.QtCore import QPointF
from PyQt6.QtGui import QColor, QFontMetricsF, QImage, QPainter

from roomy_hull.desktop.lettering import MANY, Lettering
from roomy_hull.desktop.theme import font


def drawn(way: str, text: str) -> QImage:
    image = QImage(320, 60, QImage.Format.Format_ARGB32)
    image.fill(QColor("white"))
    painter = QPainter(image)
    painter.setPen(QColor("black"))
    if way == "kept":
        letters = Lettering(14, True)
        for _ in range(2):  # the second time from what is kept
            image.fill(QColor("white"))
            letters.draw(painter, QPointF(12.0, 34.0), text)
    else:
        painter.setFont(font(14, bold=True))
        painter.drawText(QPointF(12.0, 34.0), text)
    painter.end()
    return image


@pytest.mark.parametrize("text", ["Sample fridge", "1986-2*38 mm", "<b>not bold</b> & plain"])
def test_a_kept_row_looks_as_one_drawn_anew(qapp: object, text: str) -> None:
    assert drawn("kept", text) == drawn("anew", text)


def test_rows_are_no_wider_than_their_room_and_lose_no_word(qapp: object) -> None:
    letters, metrics = Lettering(12, False), QFontMetricsF(font(12))
    text = "Wet bench that is also the galley, kerb side"
    for room in (60.0, 90.0, 200.0, 400.0):
        rows = letters.fitted(text, room)
        assert all(metrics.horizontalAdvance(row) <= room for row in rows)
        assert " ".join(rows) == text
    assert letters.fitted("Unbreakable-and-far-too-long", 60.0)[0].endswith("…")


def test_what_is_kept_stays_small(qapp: object) -> None:
    letters = Lettering(11, False)
    wide = {str(n): letters.width(f"{n} mm") for n in range(3 * MANY)}
    assert len(letters._widths) <= MANY
    assert letters.width("7 mm") == wide["7"]
