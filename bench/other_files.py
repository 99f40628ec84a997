"""Vehicle, unit, preference and autosave files damaged by chance: used, refused in words, or set aside and told.

``python bench/other_files.py [COUNT] [SEED]``: as many of each sort; prints what went wrong. A short form is in
``tests/properties/test_damaged_files.py``.
"""

import contextlib
import copy
import json
import random
import sys
import tempfile
import time
from collections.abc import Callable
from pathlib import Path

import msgspec

from mutations import SLOW, mutated
from roomy_hull.core.errors import UserError
from roomy_hull.desktop.application import session_for
from roomy_hull.formats import unitfile, vehiclefile
from roomy_hull.formats.demo import demo_job
from roomy_hull.formats.settings import Settings
from roomy_hull.kit.body.fitting import begun, choices
from roomy_hull.verdict.verdict import glance

Attack = Callable[[Path, bytes], str]


def torn(data: bytes, rng: random.Random) -> bytes:
    """Damage a file's bytes: cut short, bytes changed, a stretch doubled, nested deep, or another coding."""
    at = rng.randrange(len(data))
    to = min(len(data), at + rng.randrange(1, 40))
    filled = data[:at] + bytes(rng.randrange(256) for _ in range(to - at)) + data[to:]
    figure = rng.choice((b"1e999", b"NaN", b"-0", b"9" * 400))
    coded = data.decode("utf-8").encode(rng.choice(("utf-16", "utf-32", "utf-8-sig")))
    deep = data[:at] + b"[" * rng.choice((1, 600, 100000)) + data[at:]
    ways = (data[:at], filled, data[:to] + data[at:], deep, coded, data.replace(b"0", figure, 1))
    return rng.choice((*ways, data[:at] + b"\x00" + data[at:]))


def vehicle(folder: Path, data: bytes) -> str:
    """A vehicle of one's own: in the library, and begun with."""
    own = folder / "vehicles"
    own.mkdir(exist_ok=True)
    path = own / "one.vehicle.json"
    path.write_bytes(data)
    vehiclefile.library(own)
    found = vehiclefile.load(path)
    for choice in choices(found):
        with contextlib.suppress(UserError):
            glance(begun("A new job", found, choice))
    return "" if vehiclefile.loads(vehiclefile.dumps(found), "") == found else "not as read"


def unit(folder: Path, data: bytes) -> str:
    """A unit of one's own: in the stores, and placed."""
    own = folder / "units"
    own.mkdir(exist_ok=True)
    path = own / "one.unit.json"
    path.write_bytes(data)
    unitfile.own_stores(own)
    found = unitfile.load(path)
    job = demo_job()
    glance(msgspec.structs.replace(job, units=(*job.units, found.but(id="one-more", bay="L"))))
    return ""


def preferences(folder: Path, data: bytes) -> str:
    """Preferences at a start."""
    keeping = Settings(folder / "config", folder / "state")
    keeping.config.mkdir(exist_ok=True)
    (keeping.config / "preferences.json").write_bytes(data)
    session_for(None, keeping)
    keeping.add_recent(folder / "a.hull.json")
    for left in keeping.config.glob("*.damaged*"):
        left.unlink()
    return ""


def autosave(folder: Path, data: bytes) -> str:
    """Work left behind by a run that ended."""
    keeping = Settings(folder / "config", folder / "state")
    keeping.state.mkdir(exist_ok=True)
    file = keeping.state / "autosave-1-1.json"
    file.write_bytes(data)
    left = keeping.left_behind()
    aside = list(keeping.state.glob("*.damaged*"))
    if len(left) + len(aside) != 1:
        return f"{len(left)} offered, {len(aside)} set aside"
    if aside and aside[0].read_bytes() != data:
        return "what was set aside is not what was found"
    if not aside and not keeping.troubles:
        glance(keeping.recover(left[0]))
    for file in (*aside, *(r.file for r in left)):
        file.unlink()
    return ""


def samples() -> dict[str, tuple[Attack, list[bytes]]]:
    """Each sort of file: what is done with one, and some that are whole."""
    jobs = [demo_job(n) for n in ("brackwater", "lowfold", "tarn")]
    with tempfile.TemporaryDirectory() as where:
        folder = Path(where)
        keeping = Settings(folder / "config", folder / "state")
        keeping.keep_preferences(
            dark=True, system="us", welcomed=True, recent=[str(folder / "a"), "b"], split=[3, 4]
        )
        settings = (keeping.config / "preferences.json").read_bytes()
        works, units = [], []
        for job in jobs:
            keeping.autosave(job, folder / "x.hull.json")
            works.append(next(keeping.state.glob("autosave-*.json")).read_bytes())
        for thing in jobs[0].units:
            unitfile.save(thing, folder / "u.unit.json")
            units.append((folder / "u.unit.json").read_bytes())
    return {
        "vehicle": (vehicle, [vehiclefile.dumps(j.vehicle) for j in jobs]),
        "unit": (unit, units),
        "preferences": (preferences, [settings]),
        "autosave": (autosave, works),
    }


def damaged(data: bytes, rng: random.Random) -> bytes:
    """Damage a file by its bytes or by its values."""
    if rng.random() < 0.3:
        return torn(data, rng)
    frame = copy.deepcopy(json.loads(data))
    mutated(frame, rng)
    return json.dumps(frame).encode()


def attacked(attack: Attack, folder: Path, data: bytes) -> tuple[str, bool]:
    """What went wrong with one file, and whether it was refused."""
    refused = False
    start = time.process_time()
    try:
        wrong = attack(folder, data)
    except UserError as trouble:
        words = str(trouble)
        wrong = "" if 10 < len(words) < 900 else f"refused in {len(words)} letters"
        refused = True
    except Exception as fault:  # every fault is a find
        wrong = f"{type(fault).__name__}: {str(fault)[:120]}"
    took = time.process_time() - start
    return wrong or (f"{took:.1f} s" if took > SLOW else ""), refused


def main() -> None:
    """Damage, and tell what went wrong."""
    count, seed = (int(a) for a in (sys.argv[1:] + ["300", "1"][len(sys.argv) - 1 :])[:2])
    rng = random.Random(seed)
    for name, (attack, whole) in samples().items():
        refusals = 0
        with tempfile.TemporaryDirectory() as where:
            for n in range(count):
                data = damaged(rng.choice(whole), rng)
                wrong, refused = attacked(attack, Path(where), data)
                refusals += refused
                if wrong:
                    print(f"{name} {n}: {wrong}  <- {data[:200]!r}", flush=True)
        print(f"{name}: {count} files, {refusals} refused", flush=True)


if __name__ == "__main__":
    main()
