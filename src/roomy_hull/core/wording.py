"""Words with figures, as one says them."""


def counted(count: int, one: str, many: str = "") -> str:
    """So many of something: "1 entry", "2 entries"; of several, `many` or `one` with an s."""
    return f"{count:,} {one if count == 1 else many or one + 's'}"
