"""The works: a job's parts as they are made, with the holes of their joints, owner by owner."""

import functools
from collections import Counter
from collections.abc import Sequence

import msgspec

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.core.parts import Hardware, Part, SheetPart
from roomy_hull.core.refs import CANOPY, TRAY, Ref
from roomy_hull.making.flats import hole_to_bend, wanted_to_bend
from roomy_hull.making.joints import Joined, Joint, joined
from roomy_hull.shop.tools import Joining


class Work(msgspec.Struct, frozen=True):
    """What belongs together: its owner, its words, its parts with their holes, its joints, what nothing holds.

    `pattern` is the same one for all owners whose parts are alike but for their names: what is counted of the one is
    counted of all.
    """

    owner: Ref
    title: str
    parts: tuple[Part, ...]
    joints: tuple[Joint, ...]
    alone: tuple[str, ...]
    pattern: Joined


class Works(msgspec.Struct, frozen=True):
    """Everything that is made for a job, the body first."""

    works: tuple[Work, ...]

    @property
    def parts(self) -> tuple[Part, ...]:
        """All parts, in the order of their owners."""
        return tuple(p for w in self.works for p in w.parts)

    @property
    def joints(self) -> tuple[Joint, ...]:
        """All joints."""
        return tuple(j for w in self.works for j in w.joints)


NOBODY = Ref("unit")


@functools.lru_cache(maxsize=1024)
def _pattern(parts: tuple[Part, ...], shop: Joining) -> Joined:
    return joined(parts, shop)


@functools.lru_cache(maxsize=512)
def _work(owner: Ref, title: str, parts: tuple[Part, ...], shop: Joining) -> Work:
    """Join the parts of one owner, always the very same; of owners alike but for names the first only is worked out."""
    plain = tuple(
        msgspec.structs.replace(p, owner=NOBODY, name=p.name if isinstance(p, Hardware) else str(n))
        for n, p in enumerate(parts)
    )  # fmt: skip
    pattern = _pattern(plain, shop)
    made = []
    for n, part in zip(pattern.of, pattern.parts, strict=True):
        own = parts[n]
        if isinstance(own, Hardware) or isinstance(part, Hardware):
            made.append(own)
            continue
        name = own.name + part.name.removeprefix(str(n))
        made.append(
            msgspec.structs.replace(
                own, name=name, count=part.count, poses=part.poses, drilled=part.drilled
            )
        )
    joints = tuple(
        msgspec.structs.replace(
            j, owner=owner, one=parts[j.pieces[0][0]].name, other=parts[j.pieces[1][0]].name
        )
        for j in pattern.joints
    )
    return Work(
        owner,
        title,
        tuple(made),
        joints,
        tuple(sorted({parts[n].name for n in pattern.alone})),
        pattern,
    )


def works_of(assembly: Assembly) -> Works:
    """Join the parts of every owner.

    Returns: The tray's and the canopy's, then each thing's that has parts.
    """
    global _LAST  # ruff: ignore[global-statement]  # the parts of the job in hand, known by themselves: hashing them all is long
    if _LAST is not None and _LAST[0] is assembly:
        return _LAST[1]
    shop = assembly.shop.tools.joining
    rows: list[tuple[Ref, str, tuple[Part, ...]]] = []
    for ref, title in _body(assembly):
        rows.append((ref, title, tuple(p for p in assembly.ground.parts if p.owner == ref)))
    rows += [(t.ref, t.name, t.expansion.parts) for t in assembly.things if t.expansion.parts]
    titles = Counter(title for _ref, title, _parts in rows)
    rows = [(r, f"{t} ({r.id})" if titles[t] > 1 and r.id else t, parts) for r, t, parts in rows]
    known = {} if _LAST is None or _LAST[2] is not shop else _LAST[3]
    given: dict[Ref, tuple[tuple[Part, ...], Work]] = {}
    for ref, title, parts in rows:
        old = known.get(ref)
        if old is not None and old[1].title == title and _same(old[0], parts):
            given[ref] = old
            continue
        given[ref] = parts, _work(ref, title, parts, shop)
    found = Works(tuple(work for _parts, work in given.values()))
    _LAST = (assembly, found, shop, given)
    return found


_LAST: tuple[Assembly, Works, Joining, dict[Ref, tuple[tuple[Part, ...], Work]]] | None = None
"""The works that were last asked for; only a memory, it never alters a result."""


def _same(one: tuple[Part, ...], other: tuple[Part, ...]) -> bool:
    """Whether two rows of parts are the very same ones."""
    return len(one) == len(other) and all(a is b for a, b in zip(one, other, strict=True))


def questions(works: Works) -> tuple[str, ...]:
    """What a workshop would ask before it cuts: what nothing holds, fasteners' holes too near a bend.

    Args:
        works: Parts with the holes of their joints. [mm]
    Returns: In words; none where nothing is open.
    """
    found = [f"nothing holds {name}" for w in works.works for name in w.alone]
    for part in works.parts:
        if not isinstance(part, SheetPart) or not part.drilled:
            continue
        gap, wanted = hole_to_bend(part), wanted_to_bend(part)
        if gap is not None and gap < wanted - 0.01:
            found.append(
                f"{part.name} has a fastener's hole {gap:.1f} mm from a bend, {wanted:.1f} are wanted: make its flange "
                "wider, or drill it after bending"
            )
    return tuple(found)


def _body(assembly: Assembly) -> list[tuple[Ref, str]]:
    """The owners of a body's parts, in their order, and what each is called."""
    refs = list(dict.fromkeys(p.owner for p in assembly.ground.parts))
    names = {t.ref: t.name for t in assembly.ground.things} | {TRAY: "Tray", CANOPY: "Canopy"}
    return [(ref, names.get(ref, ref.kind.capitalize())) for ref in refs]


def numbered(parts: Sequence[Part]) -> dict[int, int]:
    """The number of every part, by its identity: as it stands in the part list, from 1."""
    return {id(p): n for n, p in enumerate(parts, 1)}


def fasteners(joints: tuple[Joint, ...]) -> dict[str, int]:
    """Count fasteners by what they are.

    Returns: Such as ``rivet 4.8``; what is bored for something bought is not one.
    """
    found: dict[str, int] = {}
    for j in joints:
        if j.fastener:
            found[j.fastener] = found.get(j.fastener, 0) + len(j.spots)
    return dict(sorted(found.items()))


def welded(joints: tuple[Joint, ...]) -> float:
    """What is welded of some joints' seams. [mm]"""
    return sum(j.welded for j in joints)


def bought(parts: tuple[Part, ...]) -> tuple[Hardware, ...]:
    """What of some parts is bought."""
    return tuple(p for p in parts if isinstance(p, Hardware))
