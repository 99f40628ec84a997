"""Marked words: plain text in which some stand out, turned into rich text at this one place.

Names come from the user and may hold any sign; nobody else writes mark-up, so nothing can be eaten.
"""

_STRONG, _STOP, _END = "\x02", "\x03", "\x04"
_WRITTEN = (
    ("&", "&amp;"),
    ("<", "&lt;"),
    (">", "&gt;"),
    ('"', "&quot;"),
    ("'", "&#x27;"),
    ("\n", "<br>"),
)
"""Signs that rich text takes for its own, and how they are written; the first one first."""


def strong(text: str) -> str:
    """Mark words to stand out."""
    return f"{_STRONG}{text}{_END}"


def stop(text: str) -> str:
    """Mark words to stand out as what is over a limit."""
    return f"{_STOP}{text}{_END}"


def rich(text: str, stop_colour: str = "") -> str:
    """Turn marked words into rich text.

    Args:
        text: Plain words with marks; a line break begins a new line.
        stop_colour: Of what is over a limit, as ``#rrggbb``.
    Returns: HTML in which every sign of the words is seen as it is.
    """
    shade = f' style="color:{stop_colour}"' if stop_colour else ""
    for sign, written in _WRITTEN:
        text = text.replace(sign, written)
    return text.replace(_STRONG, "<b>").replace(_STOP, f"<b{shade}>").replace(_END, "</b>")


def bare(text: str) -> str:
    """Drop the marks: what a file or a plain label shows."""
    return "".join(c for c in text if c not in (_STRONG, _STOP, _END))
