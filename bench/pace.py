"""Milliseconds at an even pace: processor time, set against a standard piece of work done just before and after.

The machines that this runs on share their processors, and their pace changes by half from one second to
the next. So each time is divided by how much longer than nominal the standard work took around it. The
nominal time is that of the quiet machine on which the marks were set.
"""

import time
from collections.abc import Generator
from contextlib import contextmanager

NOMINAL_MS = 0.42
"""What `_work` takes on the quiet machine. [ms of processor]"""


class _Thing:
    """Something with attributes, as the program's values are."""

    def __init__(self, n: int) -> None:
        self.n, self.box = n, (float(n), n + 1.0, n + 2.0)


_THINGS = [_Thing(n) for n in range(100)]


def _work() -> float:
    """What programs in Python do: attributes, tuples, floats, dictionaries, calls."""
    total = 0.0
    found: dict[tuple[int, int], float] = {}
    for a in _THINGS:
        x0, y0, z0 = a.box
        for b in _THINGS[:14]:
            x1, y1, z1 = b.box
            gap = max(x1 - x0, y1 - y0, z1 - z0)
            if gap > 3.0:
                found[a.n, b.n] = gap
            total += gap
    return total + len(found)


def pace() -> float:
    """How many times its nominal time the standard work takes now."""
    best = 1e9
    for _ in range(2):
        start = time.process_time()
        _work()
        best = min(best, time.process_time() - start)
    return best * 1e3 / NOMINAL_MS


@contextmanager
def paced(times: list[float]) -> Generator[None, None, None]:
    """Add the time of what is done within to a list. [ms of processor at the nominal pace]"""
    before = pace()
    start = time.process_time()
    try:
        yield
    finally:
        spent = time.process_time() - start
        times.append(spent * 1e3 / ((before + pace()) / 2))
