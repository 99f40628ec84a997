"""Stand-ins for a laser meter, wheel scales and a battery monitor on a pseudo-terminal, with noise and drop-outs."""

import os
import pty
import random
import select
import threading
import tty
from collections.abc import Callable, Iterator

from roomy_hull.planning.devices import WHEELS, line

Answer = Callable[[random.Random], Iterator[bytes]]


class Simulator:
    """A device at the far end of a pseudo-terminal; `path` is where a reader finds it.

    Args:
        answer: Gives the lines that answer one request.
        silence, garbage: Chance that a request is not answered, and that a line comes damaged.
        seed: Of the chance.
    """

    def __init__(
        self, answer: Answer, *, silence: float = 0.0, garbage: float = 0.0, seed: int = 1
    ) -> None:
        self._answer, self._silence, self._garbage = answer, silence, garbage
        self._chance = random.Random(seed)  # ruff: ignore[suspicious-non-cryptographic-random-usage]  # a stand-in, no secret
        self._master, slave = pty.openpty()
        tty.setraw(slave)
        self.path = os.ttyname(slave)
        # Kept open, so that a reader may come and go.
        self._slave = slave
        self._stop = threading.Event()
        self._thread = threading.Thread(target=self._serve, daemon=True)
        self._thread.start()

    def close(self) -> None:
        """Switch the device off."""
        self._stop.set()
        self._thread.join(2.0)
        for handle in (self._master, self._slave):
            os.close(handle)

    def _serve(self) -> None:
        waiting = b""
        while not self._stop.is_set():
            ready, _, _ = select.select([self._master], [], [], 0.02)
            if not ready:
                continue
            waiting += os.read(self._master, 1024)
            *asked, waiting = waiting.split(b"\n")
            for _ in [a for a in asked if a.strip() == b"MEAS"]:
                if self._chance.random() < self._silence:
                    continue
                for row in self._answer(self._chance):
                    os.write(self._master, self._damaged(row))

    def _damaged(self, row: bytes) -> bytes:
        """Spoil a line now and then: a changed byte, a cut, or noise before it."""
        if self._chance.random() >= self._garbage:
            return row
        how = self._chance.randrange(3)
        at = self._chance.randrange(max(1, len(row) - 2))
        if how == 0:
            return row[:at] + bytes([row[at] ^ 0x15]) + row[at + 1 :]
        if how == 1:
            return row[:at] + b"\n"
        return b"\xff\x00#?\n" + row


def laser(true: Callable[[], float], sigma: float = 0.8) -> Answer:
    """The answers of a laser meter that measures a true distance with noise. [mm]"""

    def answer(chance: random.Random) -> Iterator[bytes]:
        yield line(f"RH1 DIST {true() + chance.gauss(0, sigma):.1f} mm")

    return answer


def scales(true: Callable[[], dict[str, float]], sigma: float = 1.0) -> Answer:
    """The answers of four wheel pads. [kg]"""

    def answer(chance: random.Random) -> Iterator[bytes]:
        loads = true()
        for wheel in WHEELS:
            yield line(f"RH1 LOAD {wheel} {loads[wheel] + chance.gauss(0, sigma):.1f} kg")

    return answer


def monitor(true: Callable[[], tuple[float, float, float]], sigma: float = 0.1) -> Answer:
    """The answers of a battery monitor: volts, amperes with noise (out below 0), charge 0 to 1. [V, A]"""

    def answer(chance: random.Random) -> Iterator[bytes]:
        volts, amps, charge = true()
        yield line(
            f"RH1 BATT {volts:.2f} V {amps + chance.gauss(0, sigma):.2f} A {100 * charge:.1f} %"
        )

    return answer
