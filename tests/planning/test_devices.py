import threading
import time
from collections.abc import Iterator

import pytest
from hypothesis import given
from hypothesis import strategies as st

from roomy_hull.planning.devices import (
    DeviceError,
    FileChannel,
    Line,
    Reader,
    checksum,
    line,
    parse,
)
from roomy_hull.planning.simulator import Simulator, laser, monitor, scales


@pytest.fixture
def made() -> Iterator[list[Simulator]]:
    found: list[Simulator] = []
    yield found
    for one in found:
        one.close()


def reader(device: Simulator, timeout: float = 0.4) -> Reader:
    return Reader(lambda: FileChannel(device.path), timeout)


def test_a_line_reads_back() -> None:
    assert parse(line("RH1 DIST 1584.5 mm")) == Line("DIST", value=1584.5)
    assert parse(line("RH1 LOAD RL 612.5 kg")) == Line("LOAD", "RL", 612.5)
    assert parse(line("RH1 ERR battery low")) == Line("ERR", words="battery low")
    assert parse(line("RH1 HELLO laser")) == Line("HELLO", words="laser")
    assert (
        checksum("RH1 DIST 1584.5 mm") == line("RH1 DIST 1584.5 mm").decode().split("*")[1].strip()
    )


@pytest.mark.parametrize(
    "raw",
    [b"", b"\n", b"rubbish\n", b"RH1 DIST 1584.5 mm\n", b"RH1 DIST 1584.5 mm *00\n", b"\xff\x00\n",
     line("RH1 DIST 1584.5 in"), line("RH1 DIST nan mm"), line("RH1 DIST -5 mm"), line("RH1 DIST 1e9 mm"),
     line("RH1 LOAD XX 612 kg"), line("RH1 LOAD FL 99999 kg"), line("RH2 DIST 100 mm"), line("RH1")],
)  # fmt: skip
def test_noise_is_no_reading(raw: bytes) -> None:
    assert parse(raw) is None


@given(st.binary(max_size=80))
def test_no_bytes_whatever_upset_the_reader(raw: bytes) -> None:
    found = parse(raw)
    assert found is None or found.kind in ("DIST", "LOAD", "ERR", "HELLO")


@given(st.integers(0, 17), st.integers(1, 255))
def test_one_changed_byte_never_gives_a_wrong_distance(at: int, by: int) -> None:
    raw = line("RH1 DIST 1584.5 mm")
    spoilt = raw[:at] + bytes([raw[at] ^ by]) + raw[at + 1 :]
    found = parse(spoilt)
    assert found is None or found.value == 1584.5


def test_a_distance_is_read_through_noise_and_drop_outs(made: list[Simulator]) -> None:
    made.append(Simulator(laser(lambda: 2140.0), silence=0.2, garbage=0.4, seed=3))
    one = reader(made[0])
    one.tries = 12
    found = [one.distance() for _ in range(12)]
    one.close()
    assert all(abs(v - 2140) < 6 for v in found)
    assert one.noise > 0


def test_four_wheels_are_read(made: list[Simulator]) -> None:
    true = {"FL": 590.0, "FR": 585.0, "RL": 405.0, "RR": 400.0}
    made.append(Simulator(scales(lambda: true), garbage=0.2, seed=5))
    one = reader(made[0])
    one.tries = 8
    found = one.wheels()
    one.close()
    assert {k: pytest.approx(v, abs=6) for k, v in true.items()} == found


def test_silence_ends_in_words(made: list[Simulator]) -> None:
    made.append(Simulator(laser(lambda: 100.0), silence=1.0))
    one = reader(made[0], 0.05)
    start = time.monotonic()
    with pytest.raises(DeviceError, match="silent"):
        one.distance()
    assert time.monotonic() - start < 5
    one.close()


def test_nothing_but_rubbish_ends_in_words(made: list[Simulator]) -> None:
    def rubbish(_chance: object) -> Iterator[bytes]:
        yield b"\x00\xff hello?\n" * 3

    made.append(Simulator(rubbish))
    one = reader(made[0], 0.1)
    with pytest.raises(DeviceError, match="lines that cannot be read"):
        one.distance()
    one.close()


def test_a_line_without_end_fills_no_memory() -> None:
    class Endless:
        def write(self, data: bytes) -> None:
            pass

        def read(self, seconds: float) -> bytes:
            return b"x" * 3000

        def close(self) -> None:
            pass

    one = Reader(Endless, 0.05, 1)
    with pytest.raises(DeviceError):
        one.distance()
    assert len(one._rest) <= 4096


def test_a_missing_pad_is_named(made: list[Simulator]) -> None:
    def three(_chance: object) -> Iterator[bytes]:
        for wheel in ("FL", "FR", "RL"):
            yield line(f"RH1 LOAD {wheel} 500 kg")

    made.append(Simulator(three))
    one = reader(made[0], 0.1)
    with pytest.raises(DeviceError, match="RR"):
        one.wheels()
    one.close()


def test_the_devices_own_error_is_passed_on(made: list[Simulator]) -> None:
    def error(_chance: object) -> Iterator[bytes]:
        yield line("RH1 ERR target too dark")

    made.append(Simulator(error))
    one = reader(made[0])
    with pytest.raises(DeviceError, match="target too dark"):
        one.distance()
    one.close()


def test_there_is_no_such_device() -> None:
    one = Reader(lambda: FileChannel("/no/such/device"), 0.1)
    with pytest.raises(DeviceError, match="cannot be reached"):
        one.distance()


def test_a_broken_link_is_made_again() -> None:
    links: list[int] = []

    class Link:
        def __init__(self) -> None:
            links.append(1)
            self.asked = 0

        def write(self, data: bytes) -> None:
            self.asked += 1

        def read(self, seconds: float) -> bytes:
            if len(links) == 1:
                raise OSError("gone")
            return line("RH1 DIST 777.0 mm")

        def close(self) -> None:
            pass

    assert Reader(Link, 0.3).distance() == 777.0
    assert len(links) == 2


def test_a_simulator_ends_with_its_thread(made: list[Simulator]) -> None:
    one = Simulator(laser(lambda: 1.0))
    one.close()
    assert not [t for t in threading.enumerate() if t is one._thread]


@pytest.mark.parametrize("path", ["\ud800", "/dev/a\0b"])
def test_a_name_that_no_device_can_have_is_one_that_is_not_there(path: str) -> None:
    with pytest.raises(OSError, match="no device can be called"):
        FileChannel(path)


def test_a_battery_monitor_is_read_through_noise() -> None:
    device = Simulator(
        monitor(lambda: (13.21, -6.3, 0.81), sigma=0.0), silence=0.3, garbage=0.3, seed=4
    )
    try:
        found = Reader(lambda: FileChannel(device.path), 0.4, tries=8).battery()
    finally:
        device.close()
    assert (found.value, found.amps, found.charge) == (13.21, -6.3, pytest.approx(0.81))


@pytest.mark.parametrize(
    "text", ["RH1 BATT 13.2 V -6.3 A 101 %", "RH1 BATT 3.0 V 0 A 50 %", "RH1 BATT 13.2 V 2500 A 50 %",
             "RH1 BATT 13.2 V nan A 50 %",
             "RH1 BATT 13.2 -6.3 81"],
)  # fmt: skip
def test_what_no_monitor_can_have_measured_is_noise(text: str) -> None:
    assert parse(line(text)) is None
