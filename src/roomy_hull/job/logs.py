"""The log: what was done, found, ordered, tested and signed, entry after entry; what is saved of it stays."""

from typing import Annotated, Literal

from msgspec import Meta

from roomy_hull.core.value import Id, Name, Value

EntryKind = Literal[
    "work", "deviation", "photo", "ordered", "received", "serial", "torque", "batch", "check", "sign", "visit",
    "lesson", "note", "handed over",
]  # fmt: skip
KINDS: tuple[EntryKind, ...] = EntryKind.__args__  # type: ignore[attr-defined]  # a Literal
Result = Literal["", "done", "failed", "later"]
MOST_ENTRIES = 40_000
ROOT = "0" * 32
"""What the first entry of a log follows."""
Link = Annotated[str, Meta(pattern="^[0-9a-f]{32}$")]
Figure = Annotated[float, Meta(ge=-1e6, le=1e6)]


class Entry(Value, frozen=True, kw_only=True):
    """One entry of the log.

    Attributes:
        id: Its own: when it was made, and something by chance, so that two machines never make the same.
        at: By the machine's clock, as YYYY-MM-DDTHH:MM:SS. Entries count in the order in which they stand, whatever it
            says.
        by: Who.
        kind: What it tells of.
        op: Of which operation; empty for none.
        about: Of what: a thing's id, a released part's key, the path of a size, a check's key, what is ordered.
        words: What is to be said of it.
        hours: That were worked. [h]
        done: Whether the operation is finished with it.
        value, was: Of a deviation: as built, and as it was drawn then. [mm, kg, or as the size says]
        figures: What was measured: gaps, torque, volts, kilopascals.
        result: Of a check: done, failed or later.
        file, taken: A photo's name in the job's folder of photos, and the day it was taken.
        number: A serial number, licence, certificate, batch or order.
        corrects: The id of an earlier entry that this one takes the place of; with kind ``note`` it only strikes it
            out.
        follows: The links of the entries that stood last when it was made (`job/chain.py`): one, or two where two
            branches were laid together; empty in entries of older files.
    """

    id: Id
    at: Annotated[str, Meta(max_length=19, pattern=r"^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}:\d{2}$")]
    by: Annotated[str, Meta(max_length=40)] = ""
    kind: EntryKind = "note"
    op: Annotated[str, Meta(max_length=160)] = ""
    about: Annotated[str, Meta(max_length=300)] = ""
    words: Annotated[str, Meta(max_length=2000)] = ""
    hours: Annotated[float, Meta(ge=0, le=2000, description="h")] = 0.0
    done: bool = False
    value: Figure | None = None
    was: Figure | None = None
    figures: Annotated[tuple[Figure, ...], Meta(max_length=40)] = ()
    result: Result = ""
    file: Annotated[str, Meta(max_length=240)] = ""
    taken: Annotated[str, Meta(max_length=19)] = ""
    number: Name = ""
    corrects: Annotated[str, Meta(max_length=60)] = ""
    follows: Annotated[tuple[Link, ...], Meta(max_length=40)] = ()
