"""Small things to arrange, and every layout of them by plain enumeration: nothing is merged, thinned or priced."""

import itertools
import math
import random
from collections.abc import Iterator

import msgspec

from roomy_hull.arrange.instance import (
    Apart,
    At,
    BayRoom,
    Form,
    Instance,
    Item,
    Layout,
    Run,
    Spot,
    Tie,
    Weights,
)
from roomy_hull.studies.fit.free_space import FreeSpace

CELL = 100.0
FLOOR = 800.0


def small(seed: int) -> Instance:
    """Four to six units for one or two bays of a few cells, with whatever rules chance gives them."""
    chance = random.Random(seed)
    many = chance.choice((4, 4, 5, 5, 5, 6))
    high = chance.choice((500, 700))
    rear = chance.random() < 0.4
    bays = [BayRoom("L", "Left", chance.randint(4, 6), float(high), (1.0, 0.0))]
    if chance.random() < 0.8:
        along = (0.0, 1.0) if rear else (1.0, 0.0)
        bays.append(
            BayRoom(
                "R", "Other", chance.randint(4, 6), float(high - chance.choice((0, 0, 100))), along
            )
        )
    weights = Weights(  # type: ignore[call-arg]
        *(chance.choice((0.0, 0.5, 1.0, 1.0, 2.0)) for _ in range(5)), chance.choice((1.0, 2.0))
    )
    items = [_item(chance, n, bays) for n in range(many)]
    if chance.random() < 0.4:
        # Two or three of the same, which may change places.
        for n in range(1, chance.choice((2, 2, 3))):
            items[n] = msgspec.structs.replace(items[0], id=f"u{n}", name=f"Unit {n}")
    runs = tuple(
        Run(*sorted(chance.sample(range(many), 2)), chance.choice((1.0, 3.0)))  # type: ignore[call-arg]
        for _ in range(chance.randint(0, 2))
    )
    ties = (Tie(chance.randrange(many), 250.0, 100.0, 2.0),) if chance.random() < 0.3 else ()
    aparts = (
        (Apart(*sorted(chance.sample(range(many), 2)), 100.0),) if chance.random() < 0.3 else ()  # type: ignore[call-arg]
    )
    made = Instance(CELL, tuple(items), tuple(bays), runs, ties, aparts, weights, 1 / 3000, 0.0, 2 / 1600,
                    chance.uniform(-20, 20), FLOOR)  # fmt: skip
    if chance.random() < 0.3:
        made = _with_rider(chance, made)
    return made


def _item(chance: random.Random, n: int, bays: list[BayRoom]) -> Item:
    cells = chance.randint(1, 3)
    height = float(chance.choice((150, 200, 250, 300)))
    width = cells * CELL - chance.choice((3.0, 20.0))
    stance = chance.choice(("floor", "rest", "hang", "hang"))
    above = chance.choice((0.0, 0.0, 3.0))
    only = chance.choice(bays).id if chance.random() < 0.2 else ""
    spots: list[Spot | None] = []
    for bay in bays:
        if only and bay.id != only:
            spots.append(None)
            continue
        blocked = ((CELL * 0.5, -1.0, CELL * 1.5, 60.0),) if chance.random() < 0.15 else ()
        free = FreeSpace(
            bay.id,
            (0.0, 0.0, bay.origin + bay.cells * CELL - width, bay.height - height),
            blocked,
            (0.0, 0.0, 0.0),
        )
        across = 700.0 if bay.id == "L" else -700.0
        x, y = (1500.0, -400.0) if bay.along[1] else (1000.0, across)
        feet = ((0, ((-1.0, 1e5),)),) if not blocked else ((0, ((-1.0, 1e5),)), (60, ((0.0, 1e5),)))
        spots.append(Spot(x + width / 2 * bay.along[0], y + width / 2 * bay.along[1], FLOOR + height / 2,
                          FLOOR + height / 2, free, 0.0, feet))  # fmt: skip
    hooks = (
        tuple(sorted(chance.sample((100, 180, 260), chance.randint(0, 1))))
        if stance == "hang"
        else ()
    )
    return Item(f"u{n}", f"Unit {n}", width, height, cells, 0.0, above, 0.0, chance.uniform(2, 40), stance,  # type: ignore[arg-type]
                chance.random() < 0.7, chance.choice((0.15, 1.0, 3.0)), (1000.0, 1250.0), tuple(spots), hooks,
                depth=400.0)  # fmt: skip


def _with_rider(chance: random.Random, made: Instance) -> Instance:
    """Let one unit stand behind another one too."""
    pairs = [
        (h, r) for h in range(made.count) for r in range(made.count)
        if h != r and made.items[r].stance == "hang" and made.items[r].height <= made.items[h].height
        and made.items[r].width <= made.items[h].width
    ]  # fmt: skip
    if not pairs:
        return made
    h, r = chance.choice(pairs)
    own = made.items[r]
    spots = tuple(
        None if s is None else msgspec.structs.replace(s, y=s.y * 0.5, v=450.0, feet=())
        for s in own.spots
    )
    twin = msgspec.structs.replace(own, spots=spots, unit=r, hooks=(), carries=False)
    return msgspec.structs.replace(
        made, items=(*made.items, twin), behind=(Form(h, (len(made.items),)),)
    )


Placed = tuple[int, int, int]
"""A form, its cell from the strip's start, its height."""


def strips(  # ruff: ignore[complex-structure]  # plain enumeration, nested as the class says
    instance: Instance,
) -> Iterator[tuple[int, int, tuple[Placed, ...]]]:
    """Every strip: units as bits, cells, and its forms; built as the class says, one form after the other."""
    forms = instance.forms()
    widest, tallest = max(b.cells for b in instance.bays), int(max(b.height for b in instance.bays))
    bits = [sum(1 << instance.unit(i) for i in (f.item, *f.riders)) for f in forms]

    def top_at(done: list[Placed], cell: int) -> tuple[int, int]:
        """The highest point over a cell, and the form that has it; 0 and -1 over none."""
        best, who = 0, -1
        for f, at, level in done:
            item = instance.items[forms[f].item]
            if at <= cell < at + item.cells:
                high = level + math.ceil(item.height + item.above - 1e-6)
                if high > best:
                    best, who = high, f
        return best, who

    def levels(done: list[Placed], f: int, at: int) -> set[int]:
        item = instance.items[forms[f].item]
        tops = [top_at(done, c) for c in range(at, at + item.cells)]
        base = max(t for t, _ in tops)
        found: set[int] = set()
        if item.stance == "hang":
            found.add(base)
            found |= {h for h in item.hooks if h > base}
            return found
        ends = (tops[0], tops[-1])
        if (
            item.stance == "rest"
            and base > 0
            and all(t == base and w >= 0 and instance.items[forms[w].item].carries for t, w in ends)
        ):
            found.add(base)
        feet = {lvl for s in item.spots if s is not None for lvl, _ in s.feet}
        return found | {h for h in feet if h >= base}

    def closed(done: list[Placed]) -> int:
        """The strip's cells, where every cut inside it crosses a form; else 0."""
        spans = [(at, at + instance.items[forms[f].item].cells) for f, at, _ in done]
        end = max(b for _, b in spans)
        return end if all(any(a < cut < b for a, b in spans) for cut in range(1, end)) else 0

    def grow(mask: int, done: list[Placed]) -> Iterator[tuple[int, int, tuple[Placed, ...]]]:
        if done and (cells := closed(done)):
            yield mask, cells, tuple(done)
        for f, form in enumerate(forms):
            if mask & bits[f]:
                continue
            item = instance.items[form.item]
            for at in {0, *(a + instance.items[forms[g].item].cells for g, a, _ in done)}:
                if at + item.cells > widest:
                    continue
                for level in levels(done, f, at):
                    if level + item.height > tallest + 0.05 or (
                        done and (level, at) <= (done[-1][2], done[-1][1])
                    ):
                        continue
                    yield from grow(mask | bits[f], [*done, (f, at, level)])

    yield from grow(0, [])


def layouts(instance: Instance) -> Iterator[Layout]:  # ruff: ignore[complex-structure]  # as above
    """Every layout of strips, whether or not it breaks a rule: place is looked at here, rules are left to others."""
    forms = instance.forms()
    every = list(strips(instance))
    full = (1 << instance.count) - 1

    def fits(bay: int, start: int, cells: int, placed: tuple[Placed, ...]) -> bool:
        if start + cells > instance.bays[bay].cells:
            return False
        for f, at, level in placed:
            for i in (forms[f].item, *forms[f].riders):
                spot = instance.items[i].spots[bay]
                if spot is None or not spot.free.allows(
                    instance.u(i, bay, start + at), float(level)
                ):
                    return False
        return True

    def fill(
        bay: int, start: int, mask: int, found: dict[int, At]
    ) -> Iterator[tuple[int, dict[int, At]]]:
        yield mask, found
        for cell in range(start, instance.bays[bay].cells):
            for units, cells, placed in every:
                if units & mask or not fits(bay, cell, cells, placed):
                    continue
                more = dict(found)
                for f, at, level in placed:
                    more[instance.unit(forms[f].item)] = At(bay, cell + at, level)
                    for r in forms[f].riders:
                        more[instance.unit(r)] = At(bay, cell + at, level, r)
                yield from fill(bay, cell + cells, mask | units, more)

    by_bay: list[dict[int, list[dict[int, At]]]] = []
    for bay in range(len(instance.bays)):
        by_mask: dict[int, list[dict[int, At]]] = {}
        for mask, found in fill(bay, 0, 0, {}):
            by_mask.setdefault(mask, []).append(found)
        by_bay.append(by_mask)
    if len(by_bay) == 1:
        by_bay.append({0: [{}]})
    for mask, some in by_bay[0].items():
        for one, other in itertools.product(some, by_bay[1].get(full & ~mask, [])):
            both = one | other
            yield tuple(both[n] for n in range(instance.count))
