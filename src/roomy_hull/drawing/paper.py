"""A paper: one drawing with its title and the stretch that it shows, for whatever writes or paints it."""

import msgspec

from roomy_hull.core.primitives import Rect, Scene


class Paper(msgspec.Struct, frozen=True):
    """One drawing.

    Attributes:
        title: What it shows.
        scene: Its strokes, from back to front. [mm]
        frame: The stretch of the scene that is seen. [mm]
        notes: What stands under the title.
    """

    title: str
    scene: Scene
    frame: Rect
    notes: str = ""
