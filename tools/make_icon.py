"""Render the icon's SVG into the PNG that the window uses."""

import sys
from pathlib import Path

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QGuiApplication, QImage, QPainter
from PyQt6.QtSvg import QSvgRenderer

FOLDER = Path(__file__).parent.parent / "src/roomy_hull/resources"


def main() -> int:
    """Write icon.png beside icon.svg."""
    app = QGuiApplication(["icon", "-platform", "offscreen"])
    image = QImage(128, 128, QImage.Format.Format_ARGB32)
    image.fill(Qt.GlobalColor.transparent)
    painter = QPainter(image)
    QSvgRenderer(str(FOLDER / "icon.svg")).render(painter)
    painter.end()
    del app
    return 0 if image.save(str(FOLDER / "icon.png")) else 1


if __name__ == "__main__":
    sys.exit(main())
