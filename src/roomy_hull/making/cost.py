"""What the parts cost: metal by mass or by the nest's sheets, cutting, bending, joining, coating, what is bought, hours."""

import math

import msgspec

from roomy_hull.core.mechanics.sections import section_area
from roomy_hull.core.parts import BarPart, Hardware, Part, SheetPart
from roomy_hull.core.refs import Ref
from roomy_hull.making.cutlist import CutList
from roomy_hull.making.flats import Blank, blank
from roomy_hull.making.joints import Joint
from roomy_hull.making.works import Works, fasteners, welded
from roomy_hull.shop.shop import Prices

FIELDS = (
    "sheet", "rest", "bar", "hardware", "cutting", "bending", "welding", "fasteners", "coating", "labour",
)  # fmt: skip
"""What a cost is made of, in the order of a waterfall."""


class Cost(msgspec.Struct, frozen=True):
    """Cost by what it is for, in the shop's own money.

    `rest` is what sheets and bars cost as they are bought beyond the parts cut from them, less what is kept of them.
    """

    sheet: float
    bar: float
    hardware: float
    cutting: float
    bending: float
    rest: float = 0.0
    welding: float = 0.0
    fasteners: float = 0.0
    coating: float = 0.0
    labour: float = 0.0

    @property
    def total(self) -> float:
        """The whole."""
        return sum(float(getattr(self, name)) for name in FIELDS)

    def plus(self, other: "Cost") -> "Cost":
        """Both together."""
        return Cost(**{n: getattr(self, n) + getattr(other, n) for n in FIELDS})


NOTHING = Cost(0.0, 0.0, 0.0, 0.0, 0.0)


class Cut(msgspec.Struct, frozen=True):
    """How much of a blank is cut: metres of outline and openings, and how often it is pierced."""

    metres: float
    pierces: int


def cut_of_blank(flat: Blank) -> Cut:
    """Measure what a blank takes of the cutter.

    Args:
        flat: The blank. [mm]
    Returns: The length of its outline and of every opening; a pierce for each.
    """
    edge = sum(
        math.dist(a, b)
        for a, b in zip(flat.outline, flat.outline[1:] + flat.outline[:1], strict=True)
    )
    edge += sum(math.pi * h.diameter for h in flat.holes)
    edge += sum(2 * (c.length + c.width) for c in flat.cutouts)
    return Cut(edge / 1000, 1 + len(flat.holes) + len(flat.cutouts))


def cost(parts: list[Part], p: Prices) -> Cost:
    """Add up what some parts cost by themselves, without joining them.

    Returns:
        Net metal by mass, the length of every outline and opening and its pierce, every bend, every bought piece
        or metre.
    """
    sheet = bar = hardware = cutting = bending = 0.0
    for part in parts:
        if isinstance(part, SheetPart):
            flat = blank(part)
            cut = cut_of_blank(flat)
            sheet += part.mass() * part.count * p.sheet_per_kg
            cutting += (cut.metres * p.cut_per_m + cut.pierces * p.pierce) * part.count
            bending += len(flat.bends) * part.count * p.bend
        elif isinstance(part, BarPart):
            bar += part.mass() * part.count * p.bar_per_kg
        elif isinstance(part, Hardware):
            hardware += part.count * price_of(part, p)
    return Cost(sheet, bar, hardware, cutting, bending)


def price_of(part: Hardware, p: Prices) -> float:
    """What one of something bought costs: by the metre or the square metre where it is sold so."""
    if part.area:
        return part.area * p.insulation_per_m2
    if not part.metres:
        return p.bolt if part.sort == "bolt" else p.hardware
    per_m = p.hinge_per_m if part.sort == "hinge" else p.seal_per_m
    return part.metres * per_m


def joining(joints: tuple[Joint, ...], p: Prices) -> Cost:
    """What some joints cost: weld by the metre, fasteners by the piece."""
    total = 0.0
    for word, count in fasteners(joints).items():
        total += count * (p.bolt if word.startswith("bolt") else p.rivet)
    return Cost(0.0, 0.0, 0.0, 0.0, 0.0, welding=welded(joints) / 1000 * p.weld_per_m, fasteners=total)  # fmt: skip


def coated(parts: tuple[Part, ...]) -> float:
    """The surface of some sheets that is coated: both faces. [m²]"""
    return sum(
        2e-6 * p.area() * p.count for p in parts if isinstance(p, SheetPart) and not p.material.wood
    )


def hours(parts: tuple[Part, ...], p: Prices) -> float:
    """How long it takes to handle and put together some parts: so many minutes for each piece and each bought thing. [h]"""
    made = sum(x.count for x in parts if not isinstance(x, Hardware))
    got = sum(x.count for x in parts if isinstance(x, Hardware))
    return (made * p.piece_minutes + got * p.bought_minutes) / 60


class Share(msgspec.Struct, frozen=True):
    """What one owner's parts cost, and how long they take. [h]"""

    owner: Ref
    title: str
    cost: Cost
    hours: float


class CostSheet(msgspec.Struct, frozen=True):
    """What a job costs to make: by owner and as a whole.

    `kept` is what the offcuts kept are worth; `hours` those of handling and putting together.
    """

    shares: tuple[Share, ...]
    whole: Cost
    hours: float
    kept: float
    metres: float
    pierces: int
    bends: int
    welded: float
    rivets: int


def bar_prices(cut: CutList, p: Prices) -> tuple[float, float]:
    """What the bars cost that are bought, and what is worth keeping of all bars."""
    bought = kept = 0.0
    for bar in cut.bars.bars:
        a_metre = section_area(bar.section) * bar.material.density * 1e-6 * p.bar_per_kg
        bought += bar.length / 1000 * a_metre if bar.bought else 0.0
        if bar.offcut >= cut.least_offcut:
            kept += bar.offcut / 1000 * a_metre * p.offcut_share
    return bought, kept


def cost_sheet(works: Works, cut: CutList, p: Prices, *, coat: bool = False) -> CostSheet:
    """Add up what a job costs to make.

    Args:
        cut: Its sheets and bars: what they cost beyond their parts is shared by the parts' metal.
    Returns: In the shop's money; the owners' shares add up to the whole.
    """
    alone = [cost(list(w.parts), p) for w in works.works]
    net = sum(c.sheet for c in alone)
    kept = sum(
        a * b * s.thickness * s.material.density * 1e-9 * p.sheet_per_kg * p.offcut_share
        for s in cut.nest.sheets for _x, _y, a, b in s.left
    )  # fmt: skip
    rest = max(0.0, cut.nest.price - kept - net)
    bars = sum(c.bar for c in alone)
    sawn, left = bar_prices(cut, p)
    over = sawn - left - bars
    shares = []
    for w, parts in zip(works.works, alone, strict=True):
        own = parts.plus(joining(w.joints, p))
        time = hours(w.parts, p)
        own = own.plus(
            msgspec.structs.replace(
                NOTHING, rest=(rest * own.sheet / net if net else 0.0) + (over * own.bar / bars if bars else 0.0),
                labour=time * p.hour,
                coating=coated(w.parts) * p.coat_per_m2 if coat else 0.0,
            )
        )  # fmt: skip
        shares.append(Share(w.owner, w.title, own, time))
    whole = NOTHING
    for share in shares:
        whole = whole.plus(share.cost)
    rows = [(cut_of_blank(b), b) for b in cut.blanks]
    return CostSheet(
        tuple(shares), whole, sum(s.hours for s in shares), kept + left,
        sum(c.metres * b.part.count for c, b in rows), sum(c.pierces * b.part.count for c, b in rows),
        sum(len(b.bends) * b.part.count for b in cut.blanks), welded(works.joints) / 1000,
        sum(n for word, n in fasteners(works.joints).items() if word.startswith("rivet")),
    )  # fmt: skip
