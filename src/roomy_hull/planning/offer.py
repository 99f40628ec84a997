"""The offer: from parts, operations and what is bought to lines with options, margin and tax."""

import hashlib
from collections.abc import Iterable, Mapping
from datetime import date
from typing import NamedTuple

import msgspec

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.core.days import shifted
from roomy_hull.core.refs import Ref
from roomy_hull.job.brief import Offer, OfferLine
from roomy_hull.job.model import Job
from roomy_hull.making.cost import Cost, CostSheet
from roomy_hull.planning.buying import SERVICES, Purchase
from roomy_hull.planning.op import KINDS, Op
from roomy_hull.planning.operations import is_made
from roomy_hull.planning.plan import Build
from roomy_hull.shop.shop import Shop

PRICED = frozenset({"cut", "bend", "weld", "coat"})
"""Kinds of work that the shop's prices hold already, by the metre, the bend, the square metre."""
OUTSIDE = {
    "mains": "Licensed electrician",
    "gas": "Licensed gas fitter",
    "certifying": "Certifying engineer",
}


class Change(NamedTuple):
    """A line that is another than it was offered: its words, its option, then and now."""

    words: str
    option: str
    then: float
    now: float


def lines_of(
    assembly: Assembly, build: Build, sheet: CostSheet, *, coated: bool
) -> tuple[OfferLine, ...]:
    """Count a job up as it stands.

    Args:
        build: Its operations, what they take [h], what has to be bought.
        coated: Whether the parts are coated.
    Returns:
        Of the base, then of each option in the order of the wishes: metal, bought parts, work by the metre, hours
        by kind of work, outside work, bought things. Before margin and tax, in the shop's money.
    """
    job, shop = assembly.job, assembly.shop
    option = {w.thing: w.option for w in job.brief.wishes if w.thing and w.option}
    names = ["", *dict.fromkeys(w.option for w in job.brief.wishes if w.option)]

    def of(ref: Ref | None) -> str:
        return option.get(ref.id, "") if ref is not None and ref.is_thing else ""

    found: list[OfferLine] = []
    for name in names:
        shares = [s.cost for s in sheet.shares if of(s.owner) == name]
        found += _parts(name, shares, coated=coated)
        found += _work(
            name, {k: op for k, op in build.ops.items() if of(op.owner) == name}, build.hours, shop
        )
        found += _bought(name, assembly, option, () if name else build.buying)
    return tuple(found)


def _parts(option: str, shares: list[Cost], *, coated: bool) -> list[OfferLine]:
    def line(words: str, *fields: str) -> OfferLine:
        money = sum(float(getattr(s, f)) for s in shares for f in fields)
        return OfferLine(words=words, option=option, price=round(money, 2))

    rows = [
        line("Sheet and bar", "sheet", "rest", "bar"), line("Hardware and fasteners", "hardware", "fasteners"),
        line("Cutting, bending and welding", "cutting", "bending", "welding"),
    ]  # fmt: skip
    if coated:
        rows.append(line("Powder coating", "coating"))
    return [r for r in rows if r.price > 0]


def _work(
    option: str, ops: Mapping[str, Op], hours: Mapping[str, float], shop: Shop
) -> list[OfferLine]:
    groups: dict[str, float] = {}
    for key, op in ops.items():
        if op.kind in PRICED or not op.trade:
            continue
        words = OUTSIDE.get(op.trade) or GROUPS.get(op.kind, KINDS[op.kind].words or "Other work")
        groups[words] = groups.get(words, 0.0) + hours[key] * op.crew
    return [
        OfferLine(
            words=words,
            option=option,
            amount=round(h, 1),
            unit="h",
            price=round(h * shop.prices.hour, 2),
        )
        for words, h in groups.items()
        if round(h, 1) > 0
    ]


GROUPS: dict[str, str] = {
    "saw": "Sawing, drilling, deburring, dressing", "drill": "Sawing, drilling, deburring, dressing",
    "deburr": "Sawing, drilling, deburring, dressing", "dress": "Sawing, drilling, deburring, dressing",
    "prepare": "Preparing for coating", "insulate": "Assembling", "assemble": "Assembling",
    "pressure test": "Testing and weighing", "test": "Testing and weighing", "weigh": "Testing and weighing",
    "receive": "Mounting and fitting", "mount": "Mounting and fitting", "fit": "Mounting and fitting",
    "wire": "Wiring", "plumb": "Plumbing", "finish": "Finishing and cleaning", "wash": "Finishing and cleaning",
    "hand over": "Finishing and cleaning", "rework": "Finishing and cleaning",
}  # fmt: skip


def _bought(
    option: str, assembly: Assembly, options: Mapping[str, str], buying: Iterable[Purchase]
) -> list[OfferLine]:
    """Bought things and priced wishes, as the brief says; things without a price in one line, at nothing.

    Args:
        buying: Cable, hose and pipe are of those without a price.
    """
    rooms = {r.room.id for r in assembly.ground.rooms_there}
    price = {w.thing: w.price for w in assembly.job.brief.wishes if w.thing}
    rows, open_ = [], [f"{p.words.lower()} {p.much}" for p in buying if p.key in SERVICES]
    open_ += [p.words for p in buying if p.key.removeprefix("thing:") in rooms]
    for thing in assembly.things:
        if is_made(thing) or options.get(thing.id, "") != option:
            continue
        money = price.get(thing.id, 0.0)
        if money:
            rows.append(OfferLine(words=thing.name, option=option, price=money))
        else:
            open_.append(thing.name)
    here = {t.id for t in assembly.things}
    rows += [
        OfferLine(words=w.name, option=option, price=w.price)
        for w in assembly.job.brief.wishes
        if w.thing not in here and w.option == option and w.price and w.need != "later"
    ]
    if open_:
        told = f"{OPEN}: {', '.join(open_)}"
        rows.append(OfferLine(words=told if len(told) <= 300 else told[:299] + "…", option=option))
    return rows


OPEN = "Supplied by the customer, or their price is open"


def content_of(lines: tuple[OfferLine, ...]) -> str:
    """A hash of all lines, by which it is known whether anything has changed."""
    rows = [(x.words, x.option, round(x.amount, 2), x.unit, round(x.price, 2)) for x in lines]
    return hashlib.sha256(msgspec.json.encode(rows)).hexdigest()[:16]


def drawn_up(job: Job, lines: tuple[OfferLine, ...], shop: Shop, day: date, by: str) -> Offer:
    """Draw an offer up.

    Args:
        job: The job, with the offers made before.
        lines: From `lines_of`.
    """
    own = shop.workshop
    until = shifted(day, own.valid_days)
    return Offer(
        number=f"{day.year}-{len(job.offers) + 1}", day=day.isoformat(), until=until.isoformat(), by=by,
        margin=own.margin, tax=own.tax, lines=lines, content=content_of(lines),
    ).but()  # fmt: skip


def changes(offer: Offer, lines: tuple[OfferLine, ...]) -> tuple[Change, ...]:
    """What has changed since an offer was made, line by line, before margin and tax."""
    then = {(x.option, x.words): x.price for x in offer.lines}
    now = {(x.option, x.words): x.price for x in lines}
    return tuple(
        Change(words, option, then.get((option, words), 0.0), now.get((option, words), 0.0))
        for option, words in dict.fromkeys([*then, *now])
        if abs(then.get((option, words), 0.0) - now.get((option, words), 0.0)) >= 0.005
    )
