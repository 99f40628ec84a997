"""A fuzzer led by coverage at every reader: job, shop, vehicle and unit files, device lines, figures, tyres, sections.

``python bench/fuzz.py READER [SECONDS]`` with ``atheris==3.0.0`` installed by hand (its wheel has 35 MB, so it is not
among the tests' packages). A reader may raise a UserError of few words; whatever else ends the run with the bytes that
did it. ``tests/properties/test_readers.py`` does the same by hypothesis for some seconds.
"""

import copy
import importlib
import json
import math
import sys
import tempfile
from collections.abc import Callable
from pathlib import Path
from typing import Any, get_args

from mutations import leaves
from roomy_hull.core.errors import UserError
from roomy_hull.core.mechanics.sections import section
from roomy_hull.core.tyres import load_of_index, parts_of
from roomy_hull.core.units import Quantity, parse, show
from roomy_hull.formats import jobfile, shopfile, unitfile, vehiclefile
from roomy_hull.formats.demo import demo_job
from roomy_hull.planning.devices import LIMITS, WHEELS
from roomy_hull.planning.devices import parse as parse_line
from roomy_hull.shop.shop import shipped_shop


def job(data: bytes) -> None:
    """A job file: what is read is written and read again as the same."""
    found = jobfile.loads(data)
    assert jobfile.loads(jobfile.dumps(found)) == found


def shop(data: bytes) -> None:
    """A shop file."""
    found = shopfile.loads(data)
    assert shopfile.loads(shopfile.dumps(found)) == found


def vehicle(data: bytes) -> None:
    """A vehicle file."""
    found = vehiclefile.loads(data, "a file")
    assert vehiclefile.loads(vehiclefile.dumps(found), "a file") == found


def unit(data: bytes) -> None:
    """A unit file."""
    unitfile.loads(data, "a file")


def device(data: bytes) -> None:
    """A line of a device: nothing, or a reading within its limits."""
    found = parse_line(data)
    if found is not None and found.kind in LIMITS:
        low, high = LIMITS[found.kind]
        assert low <= found.value <= high
        assert found.kind != "LOAD" or found.wheel in WHEELS


def figure(data: bytes) -> None:
    """A figure as somebody types it, and as it is shown again."""
    text = data[1:].decode("utf-8", "surrogateescape" if data[:1] < b"\x20" else "replace")
    for quantity in get_args(Quantity):
        for system in ("metric", "us"):
            value = parse(text, quantity, system)
            assert math.isfinite(value)
            show(value, quantity, system)


def tyre(data: bytes) -> None:
    """A tyre's designation."""
    assert all(math.isfinite(v) and v > 0 for v in parts_of(data.decode("utf-8", "replace")))
    load_of_index(len(data))


def bar(data: bytes) -> None:
    """A bar's section."""
    found = section(data.decode("utf-8", "replace"))
    assert 0 < found.area < math.inf


def wholes() -> dict[str, list[bytes]]:
    """Whole files of each sort."""
    demo = demo_job()
    with tempfile.TemporaryDirectory() as where:
        units = []
        for thing in demo.units:
            unitfile.save(thing, Path(where) / "u.unit.json")
            units.append((Path(where) / "u.unit.json").read_bytes())
    return {
        "job": [jobfile.dumps(demo_job(n)) for n in ("brackwater", "lowfold", "tarn")],
        "shop": [shopfile.dumps(shipped_shop())],
        "vehicle": [vehiclefile.dumps(demo.vehicle)],
        "unit": units,
        "device": [b"RH1 DIST 1584.5 mm *12\n", b"RH1 LOAD FL 612.5 kg *05\n", b"RH1 ERR low *00\n"],
        "figure": [b" 1986-2*38", b" 12,5 mm", b" 3 1/2 in", b" 75,5 kg", b" 1.234,5"],
        "tyre": [b"265/75R16 116", b"35x12.5R17"],
        "bar": [b"40x40x3", b"50x5"],
    }  # fmt: skip


READERS: dict[str, Callable[[bytes], None]] = {
    "job": job, "shop": shop, "vehicle": vehicle, "unit": unit, "device": device, "figure": figure,
    "tyre": tyre, "bar": bar,
}  # fmt: skip
FRAMES = frozenset({"job", "shop", "vehicle", "unit"})
"""Readers of JSON, whose single values are put out of place too."""


def refused(reader: Callable[[bytes], None], data: bytes) -> bool:
    """Have a reader read; says whether it was refused, which takes a few words.

    Raises:
        AssertionError: It refused without a word, or at length.
    """
    words = ""
    try:
        reader(data)
    except UserError as trouble:
        words = str(trouble)
    assert words == "" or 10 < len(words) < 900, words
    return words != ""


def placed(frame: Any, at: tuple[str | int, ...], value: Any) -> bytes:
    """A file with one value in the place of another."""
    found = copy.deepcopy(frame)
    inner = found
    for step in at[:-1]:
        inner = inner[step]
    inner[at[-1]] = value
    return json.dumps(found).encode()


def main() -> None:
    """Fuzz one reader."""
    name, seconds = sys.argv[1], (*sys.argv, "60", "60")[2]
    atheris = importlib.import_module("atheris")
    atheris.instrument_all()
    reader, whole = READERS[name], wholes()[name]
    frames = [json.loads(w) for w in whole] if name in FRAMES else []
    places = [list(leaves(f)) for f in frames]

    def once(data: bytes) -> None:
        led = atheris.FuzzedDataProvider(data)
        if frames and led.ConsumeBool():
            n = led.ConsumeIntInRange(0, len(frames) - 1)
            at = places[n][led.ConsumeIntInRange(0, len(places[n]) - 1)]
            kind = led.ConsumeIntInRange(0, 4)
            value: Any = (
                led.ConsumeFloat,
                led.ConsumeRegularFloat,
                lambda: led.ConsumeInt(8),
                lambda: led.ConsumeUnicode(40),
                lambda: [led.ConsumeUnicode(3)],
            )[kind]()
            data = placed(frames[n], at, value)
        refused(reader, data)

    folder = Path(tempfile.mkdtemp())
    for n, data in enumerate(whole):
        (folder / str(n)).write_bytes(data)
    atheris.Setup(
        [sys.argv[0], f"-max_total_time={seconds}", "-timeout=5", "-rss_limit_mb=500", str(folder)],
        once,
    )
    atheris.Fuzz()


if __name__ == "__main__":
    main()
