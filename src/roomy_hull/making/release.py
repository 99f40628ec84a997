"""A release compared with what is drawn now: what is stale, what of it can be saved, what it costs."""

from __future__ import annotations

import hashlib
import itertools
from typing import TYPE_CHECKING, Any, Literal

import msgspec

from roomy_hull.core import lazily
from roomy_hull.core.days import today
from roomy_hull.core.errors import InputError
from roomy_hull.core.memo import by_identity
from roomy_hull.core.parts import BarPart, Hardware, Part, SheetPart
from roomy_hull.job.releases import STATES, Release, ReleasedPart, next_revision
from roomy_hull.making.cost import cost
from roomy_hull.making.flats import Blank, blank
from roomy_hull.making.works import Works
from roomy_hull.shop.shop import Prices

if TYPE_CHECKING:
    import shapely
else:
    shapely = lazily.module("shapely")

Verdict = Literal[
    "same", "recut", "drill", "trim", "scrap", "more", "spare", "new", "gone", "built"
]
PLAY = 0.05
"""A new outline may stand out of the old one by this and still be cut from it. [mm]"""


class Change(msgspec.Struct, frozen=True):
    """What became of a part since a release.

    Attributes:
        key: The part's.
        verdict: ``recut``: not yet cut, cut the new one. ``drill`` and ``trim``: the piece that is cut can be reworked.
            ``scrap``: it cannot. ``built``: the log says that it was built so. ``more`` and ``spare``: the same part in
            another number. ``new`` and ``gone``.
        state: How far the released piece had come.
        words: What to do.
        count: For how many pieces.
        cost: Of the new pieces, in the shop's money.
    """

    key: str
    verdict: Verdict
    state: str
    words: str
    count: int
    cost: float = 0.0


@by_identity(most=4096)
def content(part: Part) -> str:
    """A hash of all that is cut, bent and drilled of a part.

    Args:
        part: The part. [mm]
    Returns: The same for parts that are the same to the hundredth of a millimetre, wherever they stand.
    """
    return _hash(part, blank(part) if isinstance(part, SheetPart) else None)


def content_of(flat: Blank) -> str:
    """As `content`, of a part that is unfolded already."""
    return _hash(flat.part, flat)


def _hash(part: Part, flat: Blank | None) -> str:
    rows: list[Any]
    if isinstance(part, SheetPart) and flat is not None:
        rows = [
            "sheet", part.material.key, part.thickness, part.grain, _points(flat), _holes(flat),
            [(_r(c.x), _r(c.y), _r(c.length), _r(c.width), _r(c.radius)) for c in flat.cutouts],
            [(*map(_r, (*b.a, *b.b)), b.angle, _r(b.radius)) for b in flat.bends],
        ]  # fmt: skip
    elif isinstance(part, BarPart):
        holes = [tuple(h) for h in part.drilled]
        rows = ["bar", part.material.key, part.section, _r(part.length), part.cuts(), holes]
    else:
        rows = ["bought", part.name, getattr(part, "metres", 0.0)]
    return hashlib.sha256(msgspec.json.encode(rows)).hexdigest()[:16]


def _r(x: float) -> float:
    return round(x, 2) + 0.0


def _points(flat: Blank) -> list[tuple[float, float]]:
    return [(_r(x), _r(y)) for x, y in flat.outline]


def _holes(flat: Blank) -> list[tuple[float, float, float]]:
    return sorted((_r(h.x), _r(h.y), _r(h.diameter)) for h in flat.holes)


def hash_of_all(works: Works) -> str:
    """A hash of all parts with their counts, whatever they are called and in whatever order they stand."""
    rows = sorted((content(part), getattr(part, "count", 1)) for part in works.parts)
    return hashlib.sha256(msgspec.json.encode(rows)).hexdigest()[:16]


def current(works: Works) -> dict[str, str]:
    """The parts as they are now, by their hashes: of which name and owner; and all of them by theirs."""
    found: dict[str, str] = {hash_of_all(works): "all parts together"}
    for work in works.works:
        for part in work.parts:
            found.setdefault(content(part), f"{part.name} ({work.title})")
    return found


def as_released(works: Works) -> tuple[ReleasedPart, ...]:
    """Every part as it is now, as a release holds it.

    Args:
        works: All parts with the holes of their joints. [mm]
    Returns: Under keys of their own; parts of one name are numbered.
    """
    return tuple(_part(key, part) for key, part in zip(part_keys(works), works.parts, strict=True))


def part_keys(works: Works) -> list[str]:
    """The key of every part in a release, in the order of the parts: what it belongs to and its name, numbered."""
    found: list[str] = []
    seen: dict[str, int] = {}
    for work in works.works:
        for part in work.parts:
            key = f"{work.owner.kind}:{work.owner.id}/{part.name}"
            seen[key] = seen.get(key, 0) + 1
            if seen[key] > 1:
                key = f"{key} #{seen[key]}"
            found.append(key[:300])
    return found


def _part(key: str, part: Part) -> ReleasedPart:
    if isinstance(part, SheetPart):
        flat = blank(part)
        return ReleasedPart(
            key=key, count=part.count, content=_hash(part, flat),
            stock=f"{part.thickness:g} mm {part.material.key}", length=max(0.0, _r(flat.length)),
            outline=tuple(_points(flat)), holes=tuple(_holes(flat)),
            openings=tuple((_r(c.x), _r(c.y), _r(c.length), _r(c.width)) for c in flat.cutouts),
            bends=tuple((_r(b.a[0]), _r(b.a[1]), _r(b.b[0]), _r(b.b[1]), b.angle) for b in flat.bends),
        )  # fmt: skip
    if isinstance(part, BarPart):
        return ReleasedPart(
            key=key, count=part.count, sort="bar", content=_hash(part, None), stock=f"{part.section} {part.material.key}",
            length=_r(part.length),
        )  # fmt: skip
    return ReleasedPart(key=key, count=part.count, sort="bought", content=_hash(part, None))


def changes(
    before: tuple[ReleasedPart, ...], now: tuple[ReleasedPart, ...], prices: dict[str, float] | None = None
) -> tuple[Change, ...]:  # fmt: skip
    """Compare what was released with what is now.

    Args:
        before, now: Of a release, and of the job as it is or of a later release. [mm]
        prices: What one piece of each part costs now, by key.
    Returns: Only what is not the same, in the order of the parts.
    """
    price = prices or {}
    old = {p.key: p for p in before}
    found: list[Change] = []
    for new in now:
        was = old.pop(new.key, None)
        each = price.get(new.key, 0.0)
        if was is None:
            found.append(Change(new.key, "new", "to cut", f"cut {new.count}" if new.sort != "bought" else f"buy {new.count}",
                                new.count, each * new.count))  # fmt: skip
        elif was.content != new.content:
            found.append(_stale(was, new, each))
        elif new.count > was.count:
            more = new.count - was.count
            found.append(Change(new.key, "more", was.state, f"{more} more of the same", more, each * more))  # fmt: skip
        elif new.count < was.count:
            less = was.count - new.count
            found.append(Change(new.key, "spare", was.state, f"{less} left over", less))
    for gone in old.values():
        words = (
            "not cut yet: leave it"
            if gone.state == "to cut"
            else f"{gone.state} already: left over"
        )
        found.append(Change(gone.key, "gone", gone.state, words, gone.count))
    return tuple(found)


def _stale(was: ReleasedPart, new: ReleasedPart, each: float) -> Change:
    """What becomes of a piece whose part has changed."""
    if was.sort == "bought" or new.sort == "bought":
        return Change(new.key, "recut", was.state, "buy the new one", new.count, each * new.count)
    how: Verdict = "recut" if was.state == "to cut" else rework(was, new) or "scrap"
    words = {
        "recut": "not cut yet: cut the new one",
        "drill": f"{was.state} already: drill the new holes",
        "trim": f"{was.state} already: trim it to the new outline",
        "scrap": f"{was.state} already: scrap it and cut the new one",
    }[how]
    count = max(0, new.count - was.count) if how in ("drill", "trim") else new.count
    return Change(new.key, how, was.state, words, new.count, each * count)


def rework(was: ReleasedPart, new: ReleasedPart) -> Literal["", "drill", "trim"]:
    """Whether the new part can be made of the piece that is cut.

    Args:
        was, new: As released and as it is now. [mm]
    Returns:
        ``drill`` where holes come to the same outline, ``trim`` where the new outline lies within the old one and
        nothing that was cut or bent is in the way; empty where it cannot be.
    """
    if was.sort != new.sort or was.stock != new.stock:
        return ""
    if was.sort == "bar":
        return "trim" if new.length <= was.length + PLAY else ""
    if len(was.outline) < 3 or len(new.outline) < 3:
        return ""
    old = shapely.Polygon(was.outline)
    whole = shapely.Polygon(new.outline)
    x0, y0, x1, y1 = (b - a for a, b in zip(whole.bounds, old.bounds, strict=True))
    bent = STATES.index(was.state) >= STATES.index("bent")
    for dx, dy in dict.fromkeys(itertools.product((x0, x1), (y0, y1))):
        moved = shapely.transform(whole, lambda p, by=(dx, dy): p + by)
        if not old.buffer(PLAY).covers(moved):
            continue
        same = moved.symmetric_difference(old).area < PLAY * old.length
        if (bent or was.bends or new.bends) and not _same_bends(was, new, (dx, dy)):
            continue
        if _kept(was, new, moved, (dx, dy)):
            return "drill" if same else "trim"
    return ""


def _same_bends(was: ReleasedPart, new: ReleasedPart, by: tuple[float, float]) -> bool:
    """Whether both have the same bends, once the new one is moved."""

    def rows(p: ReleasedPart, dx: float, dy: float) -> list[tuple[float, ...]]:
        return sorted(
            (round(a + dx, 1), round(b + dy, 1), round(c + dx, 1), round(d + dy, 1), e)
            for a, b, c, d, e in p.bends
        )

    one, other = rows(was, 0.0, 0.0), rows(new, *by)
    return len(one) == len(other) and all(
        max(abs(a - b) for a, b in zip(p, q, strict=True)) < 0.11
        for p, q in zip(one, other, strict=True)
    )


def _kept(was: ReleasedPart, new: ReleasedPart, moved: Any, by: tuple[float, float]) -> bool:
    """Whether every hole and opening of the piece is one of the new part, or falls away with what is trimmed."""
    dx, dy = by
    there = [(x + dx, y + dy, d) for x, y, d in new.holes]
    for hole in was.holes:
        disc = shapely.Point(hole[:2]).buffer(hole[2] / 2)
        if moved.intersects(disc) and not any(
            max(abs(a - b) for a, b in zip(hole, h, strict=True)) < 2 * PLAY for h in there
        ):
            return False
    cut = [shapely.box(x + dx, y + dy, x + dx + a, y + dy + b) for x, y, a, b in new.openings]
    for x, y, a, b in was.openings:
        opening = shapely.box(x, y, x + a, y + b)
        if moved.intersects(opening) and not any(c.buffer(PLAY).covers(opening) for c in cut):
            return False
    return True


def piece_prices(
    works: Works, prices: Prices, rows: tuple[ReleasedPart, ...] = ()
) -> dict[str, float]:
    """What one piece of every part costs, by its key; `rows` are the same parts as released, where they are at hand.

    In the shop's money.
    """
    found = {}
    for part, row in zip(works.parts, rows or as_released(works), strict=True):
        one = msgspec.structs.replace(part, count=1) if not isinstance(part, Hardware) else part
        found[row.key] = cost([one], prices).total
    return found


def stale(
    release: Release | None, works: Works, prices: Prices, built: frozenset[str] = frozenset()
) -> tuple[Change, ...]:
    """What of a release is stale now.

    Args:
        release: The last one; none: then nothing is.
        built: What was built otherwise than drawn and logged so, as ``unit:ID``: its pieces that are cut are as they
            are.
    Returns: From `changes`.
    """
    if release is None:
        return ()
    now = as_released(works)
    if [(p.key, p.content, p.count) for p in now] == [
        (p.key, p.content, p.count) for p in release.parts
    ]:
        return ()
    return tuple(
        msgspec.structs.replace(
            c, verdict="built", words=f"{c.state} already, and logged as built so", cost=0.0
        )
        if c.key.partition("/")[0] in built and c.verdict in ("drill", "trim", "scrap")
        else c
        for c in changes(release.parts, now, piece_prices(works, prices, now))
    )


def drawn_up(
    before: tuple[Release, ...], works: Works, by: str, note: str = "", day: str = ""
) -> Release:
    """Draw a release up, of everything as it is now.

    Args:
        by, note: Initials, and a word on what it is for.
        day: As YYYY-MM-DD; today where none is given.
    Raises:
        InputError: Initials or note are too long, or there are none.
    """
    day = day or today().isoformat()
    made = Release(
        revision=next_revision(before), day=day, by=by.strip(), note=note, parts=as_released(works)
    )
    try:
        return made.but()
    except msgspec.ValidationError:
        raise InputError(
            "a release wants one to eight initials, a day and a note of at most 120 letters",
            "release",
            "Enter your initials.",
        ) from None
