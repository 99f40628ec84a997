"""The log replayed: what its entries come to, in the order in which they stand."""

import msgspec

from roomy_hull.job.logs import Entry, Result


class State(msgspec.Struct, frozen=True):
    """What a log comes to.

    Attributes:
        hours: Worked by operation. [h]
        done: Operations that are finished, and the day on which they were.
        deviations: The last word on each size, hole or part that was built otherwise, by what it is about and of what
            sort it is.
        checks: The last word on every check.
        ordered, received: What is on its way, and what is here.
        photos, lessons, visits, signed, noted: As they stand, what was struck out left away.
        struck: Ids of entries whose place a later one takes.
        last: The day of the last entry; empty where there is none.
        backwards: Ids of entries whose clock stood earlier than that of one before them.
        handed_over: The day on which it was handed over; empty before.
    """

    hours: dict[str, float]
    done: dict[str, str]
    deviations: dict[tuple[str, str], Entry]
    checks: dict[str, Entry]
    ordered: dict[str, Entry]
    received: dict[str, Entry]
    photos: tuple[Entry, ...]
    lessons: tuple[Entry, ...]
    visits: tuple[Entry, ...]
    signed: tuple[Entry, ...]
    noted: tuple[Entry, ...]
    struck: frozenset[str]
    last: str
    backwards: tuple[str, ...]
    handed_over: str

    @property
    def learnt(self) -> tuple[Entry, ...]:
        """Lessons, and what re-check visits found, in the order of their days."""
        found = (e for e in self.visits if e.words.strip().lower().rstrip(".") not in NOTHING)
        return tuple(sorted((*self.lessons, *found), key=lambda e: e.at))

    def to_visit(self, planned: str) -> str:
        """The day of a visit that is planned and was not made yet; empty where none is."""
        made = max((e.at[:10] for e in self.visits), default="")
        return planned if planned > made else ""

    def result(self, check: str) -> Result:
        """How a check came out; empty where it is still to do."""
        found = self.checks.get(check)
        return found.result if found is not None else ""


NOTHING = ("", "nothing", "none", "no", "all fine", "-")
"""Words of a visit that found nothing."""
PLANNED = "planned from here"
"""The words of an entry that only brings the plan to a day."""


def replayed(log: tuple[Entry, ...]) -> State:
    """Replay a log.

    Returns: The same for the same entries, whatever the clock says; remembered for the logs last asked for.
    """
    global _KEPT  # ruff: ignore[global-statement]  # a log of thousands has no quick hash: the last one is known by itself
    if _KEPT is None or _KEPT[0] is not log:
        _KEPT = log, _replayed(log)
    return _KEPT[1]


_KEPT: tuple[tuple[Entry, ...], State] | None = None


def _replayed(log: tuple[Entry, ...]) -> State:
    struck = frozenset(e.corrects for e in log if e.corrects)
    found = State({}, {}, {}, {}, {}, {}, (), (), (), (), (), struck, "", (), "")
    listed: dict[str, list[Entry]] = {k: [] for k in ("photo", "lesson", "visit", "sign", "note")}
    by_key = {"check": found.checks, "ordered": found.ordered, "received": found.received}
    backwards: list[str] = []
    latest, over = "", ""
    corrected: set[str] = set()
    for entry in log:
        # Moments as files hold them order as words do.
        if entry.at < latest:
            backwards.append(entry.id)
        latest = max(latest, entry.at)
        if entry.id in struck or (entry.corrects and entry.corrects in corrected):
            continue  # of two corrections of one entry the first stands
        corrected.add(entry.corrects)
        kind = entry.kind
        if kind == "work":
            if entry.hours:
                found.hours[entry.op] = found.hours.get(entry.op, 0.0) + entry.hours
            if entry.done:
                found.done[entry.op] = entry.at[:10]
        elif kind == "deviation":
            found.deviations[entry.about, entry.number] = entry
        elif kind in by_key:
            by_key[kind][entry.about] = entry
        elif kind == "handed over":
            over = entry.at[:10]
            if entry.op:
                found.done[entry.op] = over
        else:
            listed.get(kind, listed["note"]).append(entry)
    return msgspec.structs.replace(
        found, photos=tuple(listed["photo"]), lessons=tuple(listed["lesson"]), visits=tuple(listed["visit"]),
        signed=tuple(listed["sign"]), noted=tuple(listed["note"]), last=latest[:10], backwards=tuple(backwards),
        handed_over=over,
    )  # fmt: skip
