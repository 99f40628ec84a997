"""Generated things to arrange: bays cut into columns and rows, so that a layout is known to exist; sizes then shrunk."""

import random
from typing import NamedTuple

import msgspec
import numpy as np

from roomy_hull.arrange.instance import Apart, BayRoom, Instance, Item, Run, Spot
from roomy_hull.studies.fit.free_space import FreeSpace

HIGH = 900
"""Every bay's height. [mm]"""
FLOOR, SIDE, TRACK, WHEELBASE = 870.0, 900.0, 1570.0, 3240.0
DEEP, DEEP_REAR, WIDE_REAR = 860, 390, 1700
GRAIN = 30
"""Heights are whole steps of this. [mm]"""


class Sort(NamedTuple):
    """A sort of thing: mass from and to, class of use, height of its middle from and to, stance, whether it carries."""

    kg: tuple[float, float]
    use: float
    band: tuple[float, float]
    stance: str
    carries: bool


SORTS: dict[str, Sort] = {
    "bench": Sort((35, 55), 1.0, (750, 1250), "rest", True), "cold": Sort((45, 75), 2.0, (800, 1250), "floor", False),
    "water": Sort((60, 100), 0.15, (0, 3000), "floor", True), "power": Sort((20, 24), 0.15, (0, 3000), "hang", False),
    "board": Sort((1, 2), 1.0, (1100, 1600), "hang", False), "gas": Sort((8, 14), 1.0, (700, 1300), "hang", False),
    "drawer": Sort((18, 62), 2.0, (850, 1350), "rest", True), "shelf": Sort((8, 20), 1.0, (900, 1450), "hang", True),
    "kit": Sort((1.5, 2.5), 3.0, (1000, 1500), "hang", False),
}  # fmt: skip


class Block(msgspec.Struct):
    """A piece of a bay that one unit takes: its bay, width in cells, height in grains, whether it stands on the floor."""

    bay: str
    cells: int
    high: int
    low: bool


def cut(chance: random.Random, many: int, sides: list[tuple[str, int]]) -> list[Block]:
    """Cut bays into a number of blocks, at most four to a column."""
    while True:
        columns: list[list[Block]] = []
        for bay, cells in sides:
            left = cells
            while left > 0:
                wide = min(left, chance.randint(7, 14))
                wide = left if left - wide < 6 else wide
                columns.append([Block(bay, wide, HIGH // GRAIN, True)])
                left -= wide
        tries = 0
        while sum(map(len, columns)) < many and tries < 3000:
            tries += 1
            column = chance.choice(columns)
            block = chance.choice(column)
            if len(column) < 4 and block.high >= 13 and chance.random() < 0.8:
                upper = chance.randint(6, block.high - 6)
                block.high -= upper
                column.append(Block(block.bay, block.cells, upper, False))
            elif len(column) < 4 and block.cells >= 8 and block.high <= 13 and not block.low:
                right = chance.randint(3, block.cells - 3)
                block.cells -= right
                column.append(Block(block.bay, right, block.high, False))
        blocks = [b for c in columns for b in c]
        if len(blocks) == many:
            return blocks


def shrunk(chance: random.Random, blocks: list[Block], fill: float, whole: int) -> None:
    """Make blocks smaller, here and there, until they fill a part of the bays."""
    while sum(b.cells * b.high for b in blocks) > fill * whole:
        block = chance.choice(blocks)
        if chance.random() < 0.5 and block.cells > 4:
            block.cells -= 1
        elif block.high > 6:
            block.high -= 1


def named(chance: random.Random, blocks: list[Block]) -> list[str]:
    """Give every block a sort: one bench, one fridge, one tank at most on the floor, small things the small ones."""
    sorts = [""] * len(blocks)
    floor = [n for n, b in enumerate(blocks) if b.low and b.bay != "B"]
    chance.shuffle(floor)
    for word, n in zip(("bench", "cold", "water"), floor, strict=False):
        sorts[n] = word
    small = sorted(
        (n for n, b in enumerate(blocks) if not b.low),
        key=lambda n: blocks[n].cells * blocks[n].high,
    )
    for word, n in zip(
        ("power", "board", "kit", "gas") if len(blocks) >= 14 else ("power", "gas"),
        small,
        strict=False,
    ):
        sorts[n] = word
    return [
        s or ("drawer" if blocks[n].low or chance.random() < 0.5 else "shelf")
        for n, s in enumerate(sorts)
    ]


def context(
    seed: int, many: int, length: int, fill: float, *, rear: bool, cell: int = 50
) -> Instance:
    """One case.

    Args:
        seed: Of the chance.
        many: How many units.
        length: Of the side bays. [mm]
        fill: Which part of the bays' faces the units take. [1]
        rear: Whether there is a bay at the rear.
        cell: Width of a cell. [mm]
    Returns: Of which a layout exists.
    """
    chance = random.Random(1000 * seed + many)
    sides = [("L", length // 50), ("R", length // 50), *([("B", WIDE_REAR // 50)] if rear else [])]
    blocks = cut(chance, many, sides)
    shrunk(chance, blocks, fill, sum(c for _, c in sides) * HIGH // GRAIN)
    sorts = named(chance, blocks)
    bays = tuple(
        BayRoom(b, b, cells * 50 // cell, float(HIGH), (0.0, 1.0) if b == "B" else (1.0, 0.0))
        for b, cells in sides
    )
    items = tuple(
        _item(chance, f"{sorts[n]}-{n}", SORTS[sorts[n]], block, sides, cell)
        for n, block in enumerate(blocks)
    )
    at = {word: sorts.index(word) for word in sorts}
    runs = [(a, b, w) for a, b, w in (("power", "board", 3.0), ("power", "cold", 2.0), ("water", "bench", 2.0),
                                      ("gas", "bench", 2.0)) if a in at and b in at]  # fmt: skip
    both = {"gas", "power"} <= set(at)
    # Only where they were cut from different bays, so that the layout it was cut from stays one.
    away = both and blocks[at["gas"]].bay != blocks[at["power"]].bay
    aparts = (Apart(at["gas"], at["power"], 300.0),) if away else ()
    made = Instance(
        float(cell), items, bays, tuple(Run(at[a], at[b], w) for a, b, w in runs), (), aparts,
        per_x=1 / WHEELBASE, per_y=2 / TRACK, lean=-23.7, z_from=FLOOR,
    )  # fmt: skip
    return msgspec.structs.replace(made, items=tuple(_hooked(made, n) for n in range(many)))


def _item(
    chance: random.Random,
    name: str,
    sort: Sort,
    block: Block,
    sides: list[tuple[str, int]],
    cell: int,
) -> Item:
    """One unit that takes a block; some may be on one side only."""
    width, height = (
        float(block.cells * 50 - chance.choice((3, 3, 3, 12, 27))),
        float(block.high * GRAIN),
    )
    deep = chance.randrange(240, 371, 10) if block.bay == "B" else chance.randrange(500, 821, 20)
    fixed = name.startswith("bench") or chance.random() < 0.3
    spots: list[Spot | None] = []
    for b, cells in sides:
        if (fixed and b != block.bay) or deep > (DEEP_REAR if b == "B" else DEEP):
            spots.append(None)
            continue
        x, y = width / 2, (SIDE - deep / 2) * (-1 if b == "L" else 1)
        if b == "B":
            x, y = sides[0][1] * 50 + 450.0 - deep / 2, width / 2 - WIDE_REAR / 2
        free = FreeSpace(b, (0.0, 0.0, cells * 50 - width, HIGH - height), (), (0.0, 0.0, 0.0))
        middle = FLOOR + height / 2
        spots.append(Spot(x, y, middle, middle, free, 0.0, ((0, ((-1.0, 1e5),)),)))
    kg = round(chance.uniform(*sort.kg), 1)
    # What was cut above something hangs, so that the layout it was cut from stays one.
    stance = "hang" if sort.stance == "rest" and not block.low else sort.stance
    return Item(name, name, width, height, -(-int(width) // cell), 0.0, 0.0, 0.0, kg, stance, sort.carries,  # type: ignore[arg-type]
                sort.use, sort.band, tuple(spots))  # fmt: skip


def _hooked(instance: Instance, n: int) -> Item:
    """A unit with the height worth hanging it at."""
    item = instance.items[n]
    if item.stance != "hang":
        return item
    bay = next(b for b, s in enumerate(item.spots) if s is not None)
    levels = np.arange(0, HIGH - int(item.height) + 1, GRAIN)
    return msgspec.structs.replace(
        item, hooks=(int(levels[int(instance.level_cost(n, bay, levels).argmin())]),)
    )


CASES: tuple[tuple[int, int, int, float, bool], ...] = tuple(
    (seed, many, length, fill, rear)
    for seed, (many, length, fill, rear) in enumerate((
        (10, 1500, 0.70, False), (10, 1500, 0.80, True), (10, 1800, 0.85, False), (10, 1800, 0.90, False),
        (12, 1500, 0.72, True), (12, 1800, 0.80, False), (12, 2100, 0.85, False), (12, 2100, 0.90, True),
        (14, 1500, 0.72, True), (14, 1500, 0.90, True), (14, 1800, 0.78, False), (14, 1800, 0.86, False),
        (14, 2100, 0.80, True), (14, 2100, 0.91, False), (16, 1500, 0.75, True), (16, 1800, 0.82, False),
        (16, 2100, 0.88, True), (16, 2700, 0.90, False), (18, 1500, 0.75, True), (18, 1800, 0.80, True),
        (18, 2100, 0.87, True), (18, 2100, 0.90, False), (18, 2700, 0.85, True), (20, 1800, 0.74, True),
        (20, 2100, 0.82, True), (20, 2700, 0.88, False), (22, 1800, 0.72, True), (22, 2100, 0.80, True),
        (22, 2100, 0.87, True), (22, 2700, 0.91, True),
    ), start=1)
)  # fmt: skip
"""Thirty cases: seed, units, length of the sides, fill, and whether there is a bay at the rear."""
