"""SVG: scenes as one page of vector graphics, at true scale where a paper's width allows it."""

import math
from html import escape

from roomy_hull.core.primitives import (
    Disc,
    Lines,
    Outline,
    Panel,
    Point,
    Scene,
    Size,
    Stroke,
    Words,
)
from roomy_hull.core.units import System, show
from roomy_hull.drawing.corners import corners
from roomy_hull.drawing.paper import Paper
from roomy_hull.drawing.style import LIGHT, Style, Theme

WIDTH, MARGIN, HEAD, LINE = 1120.0, 24.0, 30.0, 17.0
"""Page width, margin, room of a title and of a line of notes. [px]"""
ASIDE = 76.0
"""Room beside a drawing for words that begin at its edge. [px]"""
TALLEST = 1400.0
"""A drawing takes no more height than this. [px]"""
LETTER = 0.56
"""Mean width of a letter of the shipped font, as a part of its size; measured on its Latin letters."""


class _Window:
    """From millimetres to pixels of the page, y down."""

    def __init__(self, frame: tuple[float, float, float, float], top: float) -> None:
        h0, k0, h1, k1 = frame
        room = WIDTH - 2 * ASIDE
        self.s = min(room / max(h1 - h0, 1.0), TALLEST / max(k1 - k0, 1.0))
        self.width, self.height = (h1 - h0) * self.s, (k1 - k0) * self.s
        self.ox = ASIDE + (room - self.width) / 2 - h0 * self.s
        self.oy = top + k1 * self.s

    def px(self, p: Point) -> Point:
        """Carry a point of the scene onto the page."""
        return (self.ox + p[0] * self.s, self.oy - p[1] * self.s)


class SvgWriter:
    """Writes strokes in a theme's manner.

    Args:
        system: ``metric`` or ``us``, for sizes.
    """

    def __init__(self, theme: Theme, system: System) -> None:
        self._theme, self._system = theme, system
        self._hatches: dict[str, str] = {}

    def scene(self, scene: Scene, window: _Window) -> list[str]:
        """Write a scene from back to front, one element a stroke or more.

        Args:
            scene: Its strokes. [mm]
        """
        rows: list[str] = []
        for stroke in scene:
            rows += self._stroke(stroke, window)
        return rows

    def _stroke(self, stroke: Stroke, window: _Window) -> list[str]:
        style = self._theme.roles.get(stroke.role, Style(line=self._theme.ink))
        if isinstance(stroke, Panel):
            return self._panel(stroke, style, window)
        if isinstance(stroke, Outline):
            return self._outline(stroke, style, window)
        if isinstance(stroke, Lines):
            d = "".join(f"M{_xy(window.px(a))}L{_xy(window.px(b))}" for a, b in stroke.pieces)
            return [f'<path d="{d}" fill="none"{_pen(style)}/>'] if d else []
        if isinstance(stroke, Disc):
            x, y = window.px(stroke.centre)
            shape = f'<circle cx="{_n(x)}" cy="{_n(y)}" r="{_n(stroke.radius * window.s)}"'
            return [f"{shape}{self._fill(style)}{_pen(style)}/>"]
        if isinstance(stroke, Words):
            return self._words(stroke, style, window)
        return self._size(stroke, style, window)

    def _panel(self, stroke: Panel, style: Style, window: _Window) -> list[str]:
        x, y = window.px((stroke.h0, stroke.k1))
        wide, high = (stroke.h1 - stroke.h0) * window.s, (stroke.k1 - stroke.k0) * window.s
        r = min(stroke.radius * window.s, wide / 2, high / 2)
        round_ = f' rx="{_n(r)}"' if r >= 0.6 else ""
        shape = f'<rect x="{_n(x)}" y="{_n(y)}" width="{_n(wide)}" height="{_n(high)}"{round_}'
        rows = [f"{shape}{self._fill(style)}{_pen(style)}/>"]
        if style.hatch == "cut":
            rows.append(f'{shape} fill="url(#{self._hatch(style.line, "slant")})"/>')
        return rows

    def _outline(self, stroke: Outline, style: Style, window: _Window) -> list[str]:
        d = ""
        for n, (start, corner, stop) in enumerate(corners(stroke, window.px, window.s)):
            d += f"{'L' if n else 'M'}{_xy(start)}"
            if start is not stop:
                d += f"Q{_xy(corner)} {_xy(stop)}"
        if not stroke.closed:
            return [f'<path d="{d}" fill="none"{_pen(style)}/>']
        rows = [f'<path d="{d}Z"{self._fill(style)}{_pen(style)}/>']
        if style.hatch == "cut":
            rows.append(f'<path d="{d}Z" fill="url(#{self._hatch(style.line, "slant")})"/>')
        return rows

    def _words(self, stroke: Words, style: Style, window: _Window) -> list[str]:
        size = stroke.size if stroke.fixed else stroke.size * window.s
        if size < 5:
            return []
        rows = fitted(stroke.text, size, stroke.fit * window.s) if stroke.fit else [stroke.text]
        rows = rows[: stroke.most] if stroke.most else rows
        anchor = {"centre": "middle", "left": "start", "right": "end"}[stroke.anchor]
        x, y = window.px(stroke.at)
        y += stroke.below
        step = size * 1.2
        top = y - (len(rows) - 1) * step / 2 + size * 0.36
        bold = ' font-weight="bold"' if style.bold else ""
        if stroke.upright:
            bold += f' transform="rotate(-90 {_n(x)} {_n(y)})"'
        return [
            f'<text x="{_n(x)}" y="{_n(top + n * step)}" font-size="{_n(size)}" text-anchor="{anchor}"{bold} '
            f'fill="{style.line or self._theme.ink}">{escape(row)}</text>'
            for n, row in enumerate(rows)
        ]

    def _size(self, stroke: Size, style: Style, window: _Window) -> list[str]:
        a, b = window.px(stroke.a), window.px(stroke.b)
        long = math.dist(a, b)
        text = stroke.text or show(
            math.dist(stroke.a, stroke.b), "length", self._system, unit=False
        )
        ink = style.line or self._theme.ink
        rows = [f'<path d="M{_xy(a)}L{_xy(b)}" fill="none"{_pen(style)}/>']
        if long > 18:
            rows += [_arrow(b, a, ink), _arrow(a, b, ink)]
        else:
            rows += [
                f'<circle cx="{_n(p[0])}" cy="{_n(p[1])}" r="2" fill="{ink}"/>' for p in (a, b)
            ]
        wide = len(text) * 13 * LETTER + 8
        x, y = (a[0] + b[0]) / 2, (a[1] + b[1]) / 2
        upright = abs(b[1] - a[1]) > abs(b[0] - a[0])
        turned = upright and style.turn and long > wide + 22
        if not upright and long < wide + 22:
            y += 14.0 if style.turn else -14.0
        elif upright and not turned and long < 33:
            x += (-1 if style.turn else 1) * (wide / 2 + 6)
        turn = f' transform="rotate(-90 {_n(x)} {_n(y)})"' if turned else ""
        return [
            *rows,
            f"<g{turn}>"
            f'<rect x="{_n(x - wide / 2)}" y="{_n(y - 8.5)}" width="{_n(wide)}" height="17" rx="3" '
            f'fill="{self._theme.paper}" fill-opacity="0.88"/>'
            f'<text x="{_n(x)}" y="{_n(y + 4.7)}" font-size="13" font-weight="bold" text-anchor="middle" '
            f'fill="{ink}">{escape(text)}</text></g>',
        ]

    def _fill(self, style: Style) -> str:
        """Write how a shape is filled."""
        if not style.fill:
            return ' fill="none"'
        hatched = style.hatch in {"cross", "slant"}
        paint = f"url(#{self._hatch(style.fill, style.hatch)})" if hatched else style.fill
        clear = f' fill-opacity="{style.alpha / 255:.2f}"' if style.alpha < 255 else ""
        return f' fill="{paint}"{clear}'

    def _hatch(self, colour: str, kind: str) -> str:
        """Name a hatch, and remember it for the definitions."""
        key = f"{kind}-{colour.lstrip('#')}"
        d = "M0,8L8,0" + ("M0,0L8,8" if kind == "cross" else "")
        self._hatches[key] = (
            f'<pattern id="{key}" width="8" height="8" patternUnits="userSpaceOnUse">'
            f'<path d="{d}" stroke="{colour}" stroke-width="1" fill="none"/></pattern>'
        )
        return key

    def hatches(self) -> str:
        """Write the hatches that were used."""
        return "".join(self._hatches.values())


def svg(papers: tuple[Paper, ...], theme: Theme = LIGHT, system: System = "metric") -> str:
    """Write some drawings below each other as one SVG page.

    Args:
        papers: The drawings. [mm]
        system: ``metric`` or ``us``, for sizes.
    Returns: SVG 1.1. Every word of the job is escaped.
    """
    writer = SvgWriter(theme, system)
    rows: list[str] = []
    clips: list[str] = []
    y = MARGIN
    for n, paper in enumerate(papers):
        rows.append(
            f'<text x="{_n(MARGIN)}" y="{_n(y + 14)}" font-size="15" font-weight="bold" fill="{theme.ink}">'
            f"{escape(paper.title)}</text>"
        )
        y += HEAD
        for note in paper.notes.splitlines():
            rows.append(
                f'<text x="{_n(MARGIN)}" y="{_n(y + 4)}" font-size="12" fill="{theme.faint}">{escape(note)}</text>'
            )
            y += LINE
        window = _Window(paper.frame, y)
        # A viewer that knows no clipping then draws beyond the edge, instead of the edge's shape in black.
        clips.append(
            f'<clipPath id="part-{n}"><rect x="4" y="{_n(y)}" width="{_n(WIDTH - 8)}" '
            f'height="{_n(window.height)}"/></clipPath>'
        )
        rows.append(f'<g clip-path="url(#part-{n})">')
        rows += writer.scene(paper.scene, window)
        rows.append("</g>")
        y += window.height + MARGIN
    size = f'width="{_n(WIDTH)}" height="{_n(y)}" viewBox="0 0 {_n(WIDTH)} {_n(y)}"'
    title = escape(" · ".join(p.title for p in papers))
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" {size} font-family="B612, sans-serif">\n'
        f"<title>{title}</title><defs>{''.join(clips)}{writer.hatches()}</defs>\n"
        f'<rect width="{_n(WIDTH)}" height="{_n(y)}" fill="{theme.paper}"/>\n'
        + "\n".join(rows)
        + "\n</svg>\n"
    )


def fitted(text: str, size: float, room: float) -> list[str]:
    """Break words into lines no wider than the room, by the letters' mean width; a wider word is shortened.

    Args:
        size, room: Size of the letters, and width there is. [px]
    """
    most = max(1, int(room / (size * LETTER)))
    rows: list[str] = []
    for word in text.split():
        longer = f"{rows[-1]} {word}" if rows else word
        if rows and len(longer) <= most:
            rows[-1] = longer
        else:
            rows.append(word)
    return [r if len(r) <= most else f"{r[: most - 1]}…" for r in rows if most > 1]


def _pen(style: Style) -> str:
    """Write how a line is drawn."""
    if not style.line:
        return ""
    dash = ""
    if style.dash:
        lengths = " ".join(_n(float(d) * style.width) for d in style.dash.split())
        dash = f' stroke-dasharray="{lengths}"'
    return f' stroke="{style.line}" stroke-width="{_n(style.width)}" stroke-linejoin="round"{dash}'


def _arrow(tail: Point, head: Point, ink: str) -> str:
    """Write a filled arrow head."""
    angle = math.atan2(head[1] - tail[1], head[0] - tail[0])
    wings = [
        (head[0] - 8 * math.cos(angle + turn), head[1] - 8 * math.sin(angle + turn))
        for turn in (0.38, -0.38)
    ]
    return f'<path d="M{_xy(head)}L{_xy(wings[0])}L{_xy(wings[1])}Z" fill="{ink}"/>'


def _xy(p: Point) -> str:
    return f"{_n(p[0])},{_n(p[1])}"


def _n(value: float) -> str:
    """Write a figure of the page to a hundredth of a pixel, without needless zeros."""
    return f"{value:.2f}".rstrip("0").rstrip(".").replace("-0", "0") if abs(value) < 0.005 else (
        f"{value:.2f}".rstrip("0").rstrip(".")
    )  # fmt: skip
