"""Backdrops kept as pixels: vehicle and body are painted again only when they change."""

import math

from PyQt6.QtCore import QRectF, Qt
from PyQt6.QtGui import QPainter, QPixmap

from roomy_hull.core.primitives import Scene
from roomy_hull.desktop.ground.scene_painter import ScenePainter, Window


class Backdrop:
    """One picture's backdrop."""

    def __init__(self) -> None:
        self._of: tuple[object, ...] = ()
        self._scene: Scene = ()
        self._pixels = QPixmap()

    def paint(
        self, painter: QPainter, scene: Scene, area: QRectF, window: Window, brush: ScenePainter
    ) -> None:  # fmt: skip
        """Paint a backdrop, from memory where nothing changed.

        Args:
            scene: The backdrop; the same tuple for as long as it does not change.
            area: What of it is seen. [px]
        """
        device = painter.device()
        ratio = device.devicePixelRatioF() if device is not None else 1.0
        key = (tuple(area.getRect()), window, brush.theme.name, brush.system, ratio)
        if self._scene is not scene or self._of != key:
            wide, high = (math.ceil(v * ratio) for v in (area.width(), area.height()))
            self._pixels = QPixmap(max(1, wide), max(1, high))
            self._pixels.setDevicePixelRatio(ratio)
            self._pixels.fill(Qt.GlobalColor.transparent)
            inner = QPainter(self._pixels)
            inner.setRenderHint(QPainter.RenderHint.Antialiasing)
            inner.translate(-area.left(), -area.top())
            brush.paint(inner, scene, window)
            inner.end()
            self._scene, self._of = scene, key
        painter.drawPixmap(area.topLeft(), self._pixels)
