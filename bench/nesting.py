"""Nests and bars against their bounds and a general packer; the cut list, flats and a release from nothing."""

import json
import random
import statistics
import sys
import time
from collections.abc import Callable

import rectpack

from jobs import frozen
from pace import paced
from roomy_hull.assembly.assemble import assemble
from roomy_hull.core.parts import SheetPart
from roomy_hull.core.refs import Ref
from roomy_hull.making.bounds import fewest_bins
from roomy_hull.making.cutlist import cut_list, cut_of
from roomy_hull.making.cutting_stock import fewest, first_fit
from roomy_hull.making.flats import blank
from roomy_hull.making.packing import Piece, Search, guillotine, skyline
from roomy_hull.making.release import drawn_up, stale
from roomy_hull.making.works import works_of
from roomy_hull.shop.shop import shipped_shop

KERF, TRIM, SECONDS = 3.0, 10.0, 20.0
SHEETS = ((2440, 1220), (3000, 1500))


def sets(count: int = 24) -> list[tuple[list[Piece], tuple[int, int]]]:
    """Rectangles of 60 and 120 pieces on both sheets, some kept from turning by their grain, in tenths of a millimetre."""
    found = []
    for k in range(count):
        chance = random.Random(1000 + k)
        size = SHEETS[(k // 2) % 2]
        room = (int((size[0] - 2 * TRIM + KERF) * 10), int((size[1] - 2 * TRIM + KERF) * 10))
        pieces = []
        for n in range(60 if k % 2 == 0 else 120):
            a = chance.uniform(80, 1100 if n % 5 == 0 else 700)
            b = chance.uniform(60, 500)
            wide, high = (int((x + KERF) * 10 + 0.999) for x in (a, b))
            pieces.append(Piece(n, wide, high, chance.random() > 0.2))
        found.append((pieces, room))
    return found


def packed(pieces: list[Piece], room: tuple[int, int], *, shear: bool) -> int:
    """The best of the general packer's rules and orders, pieces with a grain turned by its own means: not at all."""
    rules = (
        (rectpack.GuillotineBssfSas, rectpack.GuillotineBafLas, rectpack.GuillotineBssfMinas) if shear
        else (rectpack.MaxRectsBssf, rectpack.MaxRectsBaf, rectpack.MaxRectsBl, rectpack.SkylineMwf)
    )  # fmt: skip
    best = len(pieces)
    for rule in rules:
        for order in (rectpack.SORT_LSIDE, rectpack.SORT_AREA, rectpack.SORT_SSIDE):
            packer = rectpack.newPacker(
                rotation=all(p.turns for p in pieces), pack_algo=rule, sort_algo=order
            )
            for p in pieces:
                packer.add_rect(p.wide, p.high, rid=p.number)
            packer.add_bin(*room, count=len(pieces))
            packer.pack()
            if sum(len(b) for b in packer) == len(pieces):
                best = min(best, len(packer))
    return best


def nests(*, shear: bool) -> dict[str, object]:
    """How many sets reach their bound, and whether the general packer is ever better."""
    at, worse, over, seconds = 0, 0, [], []
    for pieces, room in sets():
        bound = fewest_bins(
            [(float(p.wide), float(p.high), p.turns) for p in pieces],
            (float(room[0]), float(room[1])),
        )
        start = time.process_time()
        search = Search(pieces, room, guillotine if shear else skyline, bound)
        while not search.done and time.process_time() - start < SECONDS:
            search.step()
        seconds.append(time.process_time() - start)
        at += search.done
        over.append(len(search.bins) - bound)
        worse += len(search.bins) > packed(pieces, room, shear=shear)
    return {
        "sets": 24,
        "at_bound": at,
        "worse_than_packer": worse,
        "most_over": max(over),
        "median_s": statistics.median(seconds),
    }


def bars() -> dict[str, object]:
    """Forty random sets of bars, and how many are over the bound of the linear programme."""
    chance, over, plain, seconds = random.Random(1), 0, 0, []
    for _ in range(40):
        kinds = [chance.randint(150, 3200) for _ in range(chance.choice([10, 20, 40]))]
        lengths = [float(chance.choice(kinds)) for _ in range(chance.choice([60, 150, 300]))]
        start = time.perf_counter()
        found = fewest(lengths, 6500, 3)
        seconds.append(time.perf_counter() - start)
        over += len(found.rows) > found.bound
        plain += len(first_fit(lengths, 6500, 3)) > found.bound
    return {
        "sets": 40,
        "over": over,
        "first_fit_over": plain,
        "median_s": statistics.median(seconds),
        "worst_s": max(seconds),
    }


def timed(make: Callable[[], object], times: int = 7) -> float:
    """The median of several runs at an even pace. [ms]"""
    found: list[float] = []
    for _ in range(times):
        with paced(found):
            make()
    return statistics.median(found)


def main() -> None:
    """Print the figures as JSON."""
    assembly = assemble(frozen())
    shop = shipped_shop()
    cut_of(assembly)  # what is read once
    metal = shop.material("5052-H32")
    chance = random.Random(2)
    many = [
        SheetPart("p", Ref("unit", "x"), chance.uniform(200, 900), chance.uniform(200, 900), 2.0, metal,
                  left=50.0, right=50.0, front=30.0, back=30.0)
        for _ in range(300)
    ]  # fmt: skip
    works = works_of(assembly)
    release = drawn_up((), works, "AB")
    parts = list(assembly.parts())
    json.dump(
        {
            "free": nests(shear=False), "shear": nests(shear=True), "bars": bars(),
            "cut_ms": timed(lambda: cut_list(parts, shop.stock)),
            "unfold_ms": timed(lambda: [blank(p) for p in many]),
            "release_ms": timed(lambda: stale(release, works, shop.prices)),
        },
        sys.stdout,
    )  # fmt: skip


if __name__ == "__main__":
    main()
