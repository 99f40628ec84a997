"""Boxes and moving groups of an own unit, as the card writes and reads them: one a row, figures with spaces between."""

import msgspec

from roomy_hull.core.errors import InputError
from roomy_hull.core.units import MM_PER_INCH, System, parse
from roomy_hull.kinds.own import Block, Group

NONE = "none"
"""What stands where an own unit has no groups."""
BOX = ("u", "v", "w", "width", "depth", "height")


def plain_length(mm: float, system: System) -> str:
    """Write a length without any space in it, for lists of lengths: inches as decimals."""
    if system == "metric":
        return f"{mm:.2f}".rstrip("0").rstrip(".") if mm else "0"
    return f"{mm / MM_PER_INCH:.3f}"


def box_words(box: Block, system: System) -> str:
    """Write one box of an own unit: its sizes, then m where it moves with the unit's own motion, or its group."""
    sizes = " ".join(plain_length(float(getattr(box, n)), system) for n in BOX)
    return sizes + (f" {box.group}" if box.group else " m" if box.moves else "")


def _rows(text: str) -> list[list[str]]:
    """The rows of a text, each as its words."""
    return [r.split() for r in (row.strip() for row in text.split(";")) if r]


def typed_boxes(text: str, system: System) -> tuple[Block, ...]:
    """Read the boxes of an own unit.

    Args:
        text: ``u v w width depth height``, then m or a group's id; ``;`` between two boxes.
        system: ``metric`` or ``us``.
    Returns: At least one. [mm]
    Raises:
        InputError: Names the box and what it lacks.
    """
    found = []
    for n, row in enumerate(_rows(text), 1):
        words, last = (row[:6], row[6]) if len(row) == 7 else (row, "")
        if len(words) != 6:
            raise InputError(
                f"box {n} has {len(row)} figures", "Boxes", "Type u v w width depth height, then m or a group's id."
            )  # fmt: skip
        made: dict[str, object] = dict(
            zip(BOX, (parse(w, "length", system) for w in words), strict=True)
        )
        made |= {"moves": last == "m", "group": "" if last == "m" else last}
        try:
            found.append(msgspec.convert(made, Block))
        except msgspec.ValidationError as trouble:
            raise InputError(
                f"box {n}: {str(trouble).split(' - at')[0]}", "Boxes", "Sizes are above 0."
            ) from None
    if not found:
        raise InputError("there is no box", "Boxes", "Type u v w width depth height.")
    return tuple(found)


def group_words(group: Group, system: System) -> str:
    """Write one group of an own unit: id, slide, lift, turn, hinge, name."""
    ways = f"{plain_length(group.travel, system)} {plain_length(group.lift, system)}"
    name = f" {group.name}" if group.name else ""
    return f"{group.id} {ways} {group.turn:g} {group.hinge}{name}"


def typed_groups(text: str, system: System) -> tuple[Group, ...]:
    """Read the moving groups of an own unit.

    Args:
        text: ``id travel lift turn hinge``, then its name; ``;`` between two groups; empty for none.
        system: ``metric`` or ``us``.
    Returns: In their order. [mm, degrees]
    Raises:
        InputError: Names the group and what it lacks.
    """
    found: list[Group] = []
    if text.strip() == NONE:
        return ()
    for n, row in enumerate(_rows(text), 1):
        if len(row) < 5:
            raise InputError(
                f"group {n} has {len(row)} words", "Groups", "Type id travel lift turn hinge, such as: lid 0 0 90 back."
            )  # fmt: skip
        made = {
            "id": row[0], "travel": parse(row[1], "length", system), "lift": parse(row[2], "length", system),
            "turn": parse(row[3], "number", system), "hinge": row[4], "name": " ".join(row[5:]),
        }  # fmt: skip
        try:
            found.append(msgspec.convert(made, Group))
        except msgspec.ValidationError as trouble:
            raise InputError(
                f"group {n}: {str(trouble).split(' - at')[0]}",
                "Groups",
                "The hinge is left, right or back.",
            ) from None
    return tuple(found)
