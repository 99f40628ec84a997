"""The log's chain: each entry names what it follows, so that what was changed, taken out or put in later is seen.

It guards against accident, not against forgery: who rewrites every entry after a change makes a chain that holds.
"""

import hashlib
from collections.abc import Sequence
from typing import NamedTuple

import msgspec

from roomy_hull.core.memo import by_identity
from roomy_hull.job.logs import ROOT, Entry

MOST_KEPT = 100_000
"""Of so many entries the digest is remembered: of two logs of the greatest length."""
_DEFAULTS = {
    f.name: f.default for f in msgspec.structs.fields(Entry) if f.name not in ("id", "at", "extra")
}


class Break(NamedTuple):
    """Where a chain does not hold: the entry, and what is wrong."""

    entry: str
    words: str


@by_identity(most=MOST_KEPT)
def digest(entry: Entry) -> str:
    """What an entry holds, its links and fields unknown to this version included, as 32 hexadecimal digits of SHA-256."""
    # Fields that were not given do not count: a later version may have more of them.
    told = {"id": entry.id, "at": entry.at, **entry.extra}
    for name, default in _DEFAULTS.items():
        value = getattr(entry, name)
        if value != default:
            told[name] = value
    return _hash(msgspec.json.encode(told, order="deterministic"))


def _hash(data: bytes) -> str:
    return hashlib.sha256(data).hexdigest()[:32]


def links(log: Sequence[Entry]) -> list[str]:
    """What a later entry names to follow each of a log's: its digest; of one without links, with all before it."""
    found: list[str] = []
    for entry in log:
        own = digest(entry)
        if not entry.follows:
            own = _hash(f"{found[-1] if found else ROOT}{own}".encode())
        found.append(own)
    return found


def heads(log: Sequence[Entry]) -> tuple[str, ...]:
    """What the next entry has to follow: every link that no other entry follows, in their order."""
    if not log:
        return (ROOT,)
    names = links(log)
    followed = {f for entry in log for f in entry.follows}
    # What has no links itself is followed by whatever stands next.
    rows = zip(names, (*log[1:], None), strict=True)
    return tuple(n for n, after in rows if n not in followed and (after is None or after.follows))


def breaks(log: Sequence[Entry]) -> tuple[Break, ...]:
    """Find where a log's chain does not hold.

    Returns:
        Entries that follow what does not stand before them, that name nothing though those before them do, that
        correct what another has corrected, or share an id; none for a log that was only ever added to.
    """
    found: list[Break] = []
    there, linked = {ROOT}, False
    ids: set[str] = set()
    struck: dict[str, str] = {}
    names = links(log)
    for n, (entry, link) in enumerate(zip(log, names, strict=True)):
        lost = [f for f in entry.follows if f not in there]
        if lost:
            before = f"'{log[n - 1].id}'" if n else "the beginning"
            found.append(Break(entry.id, f"what it followed is not there any more: {before} before it was changed, or "
                                         "an entry between them was taken out, put in or moved"))  # fmt: skip
        if linked and not entry.follows:
            found.append(
                Break(entry.id, "it was put in by hand, or by an older version of the program")
            )
        if entry.id in ids:
            found.append(Break(entry.id, "another entry has the same id"))
        if entry.corrects and entry.corrects in struck:
            found.append(
                Break(
                    entry.id,
                    f"'{entry.corrects}' was corrected by '{struck[entry.corrects]}' already",
                )
            )
        elif entry.corrects:
            struck[entry.corrects] = entry.id
        linked = linked or bool(entry.follows)
        if not entry.follows and not linked:
            # What has no links itself goes on from what stands before it: nothing else follows that any more.
            there.discard(names[n - 1] if n else ROOT)
        there.add(link)
        ids.add(entry.id)
    return tuple(found)


def united(
    mine: Sequence[Entry], theirs: Sequence[Entry]
) -> tuple[tuple[Entry, ...], tuple[str, ...]]:
    """Lay two branches of a log together.

    Returns:
        Mine with what only they have behind it, and what cannot stand together: one id with two contents, or two
        corrections of one entry, in words.
    """
    own = {e.id: e for e in mine}
    more = [e for e in theirs if e.id not in own]
    wrong = [
        f"the log's entry '{e.id}' says two things"
        for e in theirs if e.id in own and digest(own[e.id]) != digest(e)
    ]  # fmt: skip
    struck = {e.corrects for e in mine if e.corrects}
    wrong += [f"both correct the log's entry '{e.corrects}'" for e in more if e.corrects in struck]
    return (*mine, *more), tuple(wrong)


def sealed(log: Sequence[Entry], *entries: Entry) -> tuple[Entry, ...]:
    """A log with entries behind it, each naming what it follows."""
    found = list(log)
    follows = heads(log)
    for entry in entries:
        found.append(msgspec.structs.replace(entry, follows=follows))
        follows = (digest(found[-1]),)
    return tuple(found)
