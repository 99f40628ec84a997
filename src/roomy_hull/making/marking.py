"""What every file that is cut by carries: of which job and revision it is, and what was still open as it was written."""

import msgspec

from roomy_hull.job.model import Job
from roomy_hull.making.flats import Blank
from roomy_hull.making.release import content_of, hash_of_all, stale
from roomy_hull.making.works import Works
from roomy_hull.shop.shop import Prices


class Marking(msgspec.Struct, frozen=True):
    """What files say of themselves.

    Attributes:
        job: Its name.
        revision: Of the last release; empty where nothing was released.
        changed: So many parts have changed since.
        stops: So many stop findings were open.
        whole: The hash of all parts together, for lists that are of all of them.
    """

    job: str
    revision: str = ""
    changed: int = 0
    stops: int = 0
    whole: str = ""

    @property
    def state(self) -> str:
        """The revision in words."""
        return f"revision {self.revision}" if self.revision else "not released"

    @property
    def warnings(self) -> tuple[str, ...]:
        """What has to be seen before anything is cut by it; nothing where all is as it should be."""
        found = [f"STOPS OPEN: {self.stops}"] if self.stops else []
        if self.revision and self.changed:
            parts = "part has" if self.changed == 1 else "parts have"
            found.append(f"{self.changed} {parts} changed since revision {self.revision}")
        return tuple(found)

    @property
    def lines(self) -> tuple[str, ...]:
        """All of it, the warnings first."""
        return (*self.warnings, f"{self.job}, {self.state}")


def hashes(blanks: tuple[Blank, ...]) -> tuple[str, ...]:
    """The hashes of the parts that some blanks are of, each once, in their order."""
    return tuple(dict.fromkeys(content_of(b) for b in blanks))


def marking_of(
    job: Job, works: Works, prices: Prices, built: frozenset[str], stops: int
) -> Marking:
    """What files of a job as it stands say of themselves.

    Args:
        built: What was built otherwise and logged so, as `stale` takes it.
    """
    last = job.releases[-1] if job.releases else None
    changed = stale(last, works, prices, built)
    return Marking(
        job.name, last.revision if last is not None else "", len(changed), stops, hash_of_all(works)
    )
