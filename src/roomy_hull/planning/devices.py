"""Measuring devices: their lines, and a reader that bears with silence, noise and broken links.

The protocol, one ASCII line each, ended by a line break (docs/formats.md):

``RH1 DIST 1584.5 mm *12``   one distance of a laser meter
``RH1 LOAD FL 612.5 kg *05`` one wheel of a set of scales (FL, FR, RL, RR)
``RH1 BATT 13.2 V -6.3 A 81 % *2B`` a battery monitor: volts, amperes out below 0, charge
``RH1 ERR text *HH``         the device says what is wrong
``RH1 HELLO name *HH``       the device says who it is

``*HH`` is the exclusive-or of all bytes before the blank in front of it, in hexadecimal. The reader
sends ``MEAS`` and waits for the line that answers.
"""

import math
import time
from collections.abc import Callable
from typing import Protocol

import msgspec

from roomy_hull.core.errors import UserError

WHEELS = ("FL", "FR", "RL", "RR")
LIMITS = {"DIST": (20.0, 60000.0), "LOAD": (0.0, 20000.0), "BATT": (4.0, 80.0)}
"""What a reading may be at all. [mm, kg, V]"""
MOST_AMPS = 2000.0
"""No monitor of ours reads more, either way. [A]"""


class DeviceError(UserError):
    """A device that cannot be read."""


class Line(msgspec.Struct, frozen=True):
    """One line of a device: what it is, for which wheel, the value or the words; of a monitor amperes and charge too."""

    kind: str
    wheel: str = ""
    value: float = 0.0
    words: str = ""
    amps: float = 0.0
    charge: float = 0.0


class Channel(Protocol):
    """Something that bytes come from and go to."""

    def write(self, data: bytes) -> None:
        """Send bytes; raises OSError on a broken link."""

    def read(self, seconds: float) -> bytes:
        """The bytes that came within a time, none on silence; raises OSError when broken."""

    def close(self) -> None:
        """End."""


def checksum(text: str) -> str:
    """The exclusive-or of a text's bytes as two hexadecimal digits."""
    total = 0
    for byte in text.encode("ascii", "replace"):
        total ^= byte
    return f"{total:02X}"


def line(text: str) -> bytes:
    """A line of the protocol with its checksum.

    Args:
        text: What stands before the checksum.
    """
    return f"{text} *{checksum(text)}\n".encode("ascii", "replace")


def parse(raw: bytes) -> Line | None:  # ruff: ignore[too-many-return-statements]  # one return for each kind of line
    """Read one line.

    Args:
        raw: The line, with or without its line break.
    Returns: What it says; none where it is noise: no such line, a wrong checksum, an impossible value.
    """
    try:
        text = raw.decode("ascii").strip()
    except UnicodeDecodeError:
        return None
    body, star, given = text.rpartition(" *")
    if not star or checksum(body) != given:
        return None
    words = body.split()
    if len(words) < 2 or words[0] != "RH1":
        return None
    if words[1] in ("ERR", "HELLO"):
        return Line(words[1], words=" ".join(words[2:]))
    try:
        if words[1] == "DIST" and len(words) == 4 and words[3] == "mm":
            return _value(Line("DIST", value=float(words[2])))
        if words[1] == "LOAD" and len(words) == 5 and words[2] in WHEELS and words[4] == "kg":
            return _value(Line("LOAD", words[2], float(words[3])))
        if words[1] == "BATT" and len(words) == 8 and words[3::2] == ["V", "A", "%"]:
            return _battery(*(float(w) for w in words[2::2]))
    except ValueError:
        return None
    return None


def _battery(volts: float, amps: float, charge: float) -> Line | None:
    """A monitor's reading, where such a thing can have measured it."""
    if not (abs(amps) <= MOST_AMPS and 0 <= charge <= 100):
        return None
    return _value(Line("BATT", value=volts, amps=amps, charge=charge / 100.0))


def _value(found: Line) -> Line | None:
    """Drop a value that no such device can have measured."""
    low, high = LIMITS[found.kind]
    return found if math.isfinite(found.value) and low <= found.value <= high else None


class FileChannel:
    """A serial device or pseudo-terminal by its path.

    Args:
        path: For example ``/dev/ttyUSB0``.
        speed: Of the line; USB and radio take any. [baud]
    """

    def __init__(self, path: str, speed: int = 9600) -> None:
        from serial import Serial  # ruff: ignore[import-outside-top-level]  # only where there is a device

        try:
            self._port = Serial(path, speed, timeout=0, write_timeout=2.0)
        except ValueError:  # a NUL or half a character in its name
            raise FileNotFoundError(f"no device can be called {path!a}") from None

    def write(self, data: bytes) -> None:
        """Send bytes; raises OSError on a broken link."""
        self._port.write(data)

    def read(self, seconds: float) -> bytes:
        """What came within a time, none on silence; raises OSError on a broken link."""
        self._port.timeout = seconds
        first: bytes = self._port.read(1)
        return first + self._port.read(self._port.in_waiting) if first else b""

    def close(self) -> None:
        """End."""
        self._port.close()


class Reader:
    """Reads one device, reconnecting when the link breaks.

    Args:
        connect: Opens the channel; raises OSError where there is none.
        timeout: How long to wait for one answer. [s]
        tries: How often to ask, or to connect, before giving up.
    """

    def __init__(
        self, connect: Callable[[], Channel], timeout: float = 2.0, tries: int = 3
    ) -> None:
        self._connect, self.timeout, self.tries = connect, timeout, tries
        self._channel: Channel | None = None
        self._rest = b""
        self.noise = 0

    def close(self) -> None:
        """End."""
        if self._channel is not None:
            self._channel.close()
        self._channel, self._rest = None, b""

    def distance(self) -> float:
        """Take one distance.

        Returns: What the laser meter answered. [mm]
        Raises:
            DeviceError: No link, silence, nothing but noise, or the device's own error.
        """
        return self._ask("DIST").value

    def wheels(self) -> dict[str, float]:
        """Take one load of each wheel.

        Returns: FL, FR, RL and RR. [kg]
        Raises:
            DeviceError: No link, silence, a wheel that is missing, or the device's own error.
        """
        found: dict[str, float] = {}
        for _ in range(self.tries):
            found |= self._collect()
            if set(found) == set(WHEELS):
                return {w: found[w] for w in WHEELS}
        missing = ", ".join(w for w in WHEELS if w not in found)
        raise DeviceError(
            f"the scales did not answer for {missing}",
            "wheel scales",
            "Check that pad and weigh again.",
        )

    def battery(self) -> Line:
        """Take one reading of a battery monitor.

        Returns: Volts, amperes (out below 0), and charge 0 to 1.
        Raises:
            DeviceError: No link, silence, nothing but noise, or the device's own error.
        """
        return self._ask("BATT")

    def _collect(self) -> dict[str, float]:
        """Ask once and gather wheels until all are there or the time is up."""
        found: dict[str, float] = {}
        end = time.monotonic() + self.timeout
        self._send()
        while time.monotonic() < end and set(found) != set(WHEELS):
            for one in self._lines(end - time.monotonic()):
                self._own_error(one)
                if one.kind == "LOAD":
                    found[one.wheel] = one.value
        return found

    def _ask(self, kind: str) -> Line:
        """Ask until a line of a kind answers."""
        for _ in range(self.tries):
            self._send()
            end = time.monotonic() + self.timeout
            while time.monotonic() < end:
                for one in self._lines(end - time.monotonic()):
                    self._own_error(one)
                    if one.kind == kind:
                        return one
        if self.noise:
            raise DeviceError(
                f"the device sent {self.noise} lines that cannot be read", "device",
                "Check its cable and that nothing else talks on it.",
            )  # fmt: skip
        raise DeviceError(
            f"the device was silent for {self.timeout * self.tries:.0f} s", "device",
            "Wake it, bring it nearer, and measure again.",
        )  # fmt: skip

    @staticmethod
    def _own_error(one: Line) -> None:
        if one.kind == "ERR":
            raise DeviceError(f"the device says: {one.words}", "device", "Measure again.")

    def _open(self) -> Channel:
        """Connect, if there is no link; several times before giving up."""
        if self._channel is not None:
            return self._channel
        trouble = ""
        for attempt in range(self.tries):
            try:
                self._channel = self._connect()
            except OSError as error:
                trouble = error.strerror or str(error)
                time.sleep(min(0.2 * (attempt + 1), self.timeout / 4))
            else:
                self._rest = b""
                return self._channel
        raise DeviceError(
            f"the device cannot be reached ({trouble})",
            "device",
            "Switch it on and check its name.",
        )

    def _send(self) -> None:
        """Ask for a measurement, on a new link where the old one broke."""
        for _ in range(2):
            try:
                self._open().write(b"MEAS\n")
            except OSError:
                self.close()
            else:
                return
        raise DeviceError("the link broke while asking", "device", "Check the cable.")

    def _lines(self, seconds: float) -> list[Line]:
        """The readable lines that came; noise is counted and passed over."""
        try:
            data = self._open().read(max(0.0, min(seconds, 0.2)))
        except OSError:
            self.close()
            self._send()
            return []
        self._rest += data
        *whole, self._rest = self._rest.split(b"\n")
        # A device that never ends its line is noise, not memory.
        if len(self._rest) > 4096:
            self._rest, self.noise = b"", self.noise + 1
        found = []
        for raw in whole:
            one = parse(raw)
            if one is not None:
                found.append(one)
            elif raw.strip():
                self.noise += 1
        return found
