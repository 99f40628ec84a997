"""How a tank looks from in front."""

from typing import Any

from roomy_hull.core.primitives import Disc, Outline, Scene, Stroke, line, rectangle


def tank_face(unit: Any, low: float) -> Scene:
    """Draw a tank's face: shell, sight gauge, waves, filler, straps; a wedge's as high in front as it is there. [mm]"""
    w, h = unit.width, unit.height
    if unit.style == "cans":
        return _cans(unit)
    primitives: list[Stroke] = [rectangle("tank", 0, 0, w, h, 10)]
    if unit.style == "wedge":
        primitives.append(line("detail", (6, low), (w - 6, low)))
        h = low
    level = h * 0.86
    wave = [(0.0, level)]
    steps = 8
    for i in range(1, steps + 1):
        wave.append((w * i / steps, level + (7 if i % 2 else -7) * (0 < i < steps)))
    primitives.append(Outline("water", (*wave, (w, 0.0), (0.0, 0.0)), radius=8))
    for share in (0.16, 0.84):
        primitives.append(rectangle("bought dark", w * share - 9, 0, w * share + 9, h))
    primitives.append(rectangle("screen", w * 0.5 - 7, h * 0.15, w * 0.5 + 7, h * 0.8, 6))
    for i in range(5):
        k = h * (0.2 + 0.13 * i)
        primitives.append(line("detail", (w * 0.5 + 9, k), (w * 0.5 + 22, k)))
    primitives.append(Disc("fitting", (w * 0.3, h - 26), 13))
    return tuple(primitives)


def _cans(unit: Any) -> Scene:
    """Draw the cans side by side with their grips."""
    each, h = unit.width / unit.cans, unit.height
    found: list[Stroke] = []
    for n in range(unit.cans):
        a, b = n * each + 3, (n + 1) * each - 3
        found += [rectangle("water", a, 0, b, h - 40, 18), rectangle("detail", a + 12, 20, b - 12, h - 60, 14),
                  rectangle("bought dark", a + (b - a) * 0.3, h - 40, b - (b - a) * 0.3, h, 8)]  # fmt: skip
    found.append(rectangle("front", 0, 0, unit.width, 60, 3))
    return tuple(found)
