"""What an operation is: its kind of work, how much of it there is, who may do it, where, after what."""

from collections.abc import Iterable
from typing import Literal, NamedTuple

import msgspec

from roomy_hull.core.refs import Ref
from roomy_hull.shop.workshop import Rates, Trade

Kind = Literal[
    "cut", "saw", "deburr", "bend", "drill", "weld", "dress", "prepare", "coat", "insulate", "assemble", "pressure test",
    "receive", "mount", "fit", "wire", "mains", "plumb", "gas", "test", "weigh", "engineer", "finish", "wash",
    "hand over", "extra", "rework",
]  # fmt: skip


class About(NamedTuple):
    """What goes for a kind of work: its words, who may do it, where."""

    words: str
    trade: Trade | Literal[""]
    station: str


KINDS: dict[Kind, About] = {
    "cut": About("Cut", "metal", "cutter"), "saw": About("Saw", "metal", "saw"),
    "deburr": About("Deburr", "metal", "bench"), "bend": About("Bend", "metal", "brake"),
    "drill": About("Drill", "metal", "bench"), "weld": About("Weld", "metal", "welding"),
    "dress": About("Dress welds", "metal", "bench"), "prepare": About("Clean and pack for coating", "bench", "bench"),
    "coat": About("Away for coating", "", ""), "insulate": About("Insulate", "bench", "bench"),
    "assemble": About("Assemble", "bench", "bench"), "pressure test": About("Pressure test", "bench", "bench"),
    "receive": About("Take the vehicle in", "fitting", "bay"), "mount": About("Mount", "fitting", "bay"),
    "fit": About("Fit", "fitting", "bay"), "wire": About("Wire", "electrics", "bay"),
    "mains": About("Wire mains", "mains", "bay"), "plumb": About("Plumb", "fitting", "bay"),
    "gas": About("Gas line", "gas", "bay"), "test": About("Test", "fitting", "bay"),
    "weigh": About("Weigh", "fitting", "bay"), "engineer": About("Certify", "certifying", "bay"),
    "finish": About("Finish", "bench", "bay"), "wash": About("Wash and clean", "bench", "bay"),
    "hand over": About("Hand over", "fitting", "bay"), "extra": About("", "bench", ""),
    "rework": About("Put right", "bench", "bay"),
}  # fmt: skip


class Op(msgspec.Struct, frozen=True):
    """One operation.

    Attributes:
        key: What it belongs to and what it is, such as ``unit:galley:weld``.
        kind: The kind of work.
        words: What is done to what.
        owner: What it belongs to; none where it is of the whole job.
        amounts: How much of what: keys of `Rates`.
        hours: From its beginning to its end, by the shop's own rates. [h]
        trade, station: Who may do it, and where.
        after: Operations that come before it.
        crew: How many people it takes at once. Logged hours are those of all of them together.
        days: Working days that it waits for others, without a hand of the shop.
        needs: What has to be here: keys of what is bought.
    """

    key: str
    kind: Kind
    words: str
    owner: Ref | None = None
    amounts: tuple[tuple[str, float], ...] = ()
    hours: float = 0.0
    trade: str = ""
    station: str = ""
    after: tuple[str, ...] = ()
    crew: int = 1
    days: float = 0.0
    needs: tuple[str, ...] = ()

    @property
    def licensed(self) -> bool:
        """Whether only somebody with a licence or an authority may do it."""
        return self.trade in ("mains", "gas", "certifying")

    @property
    def much(self) -> str:
        """How much of it there is, in words."""
        return ", ".join(_said(key, amount) for key, amount in self.amounts if amount)


UNITS: dict[str, str] = {
    "cut_m": "{:.1f} m cut", "pierce": "{:.0f} pierces", "saw_piece": "{:.0f} pieces", "deburr_m": "{:.1f} m of edge",
    "bend": "{:.0f} bends", "drill_hole": "{:.0f} holes", "weld_m": "{:.2f} m of weld", "dress_m": "{:.2f} m",
    "rivet": "{:.0f} rivets", "bolt": "{:.0f} bolts", "screw": "{:.0f} screws", "piece": "{:.0f} parts",
    "bought_piece": "{:.0f} bought pieces", "coat_m2": "{:.1f} m²", "insulate_m2": "{:.1f} m²",
    "circuit": "{:.0f} circuit", "cable_m": "{:.1f} m of cable", "hose_run": "{:.0f} run", "hose_m": "{:.1f} m of hose",
    "gas_line": "{:.0f} line",
}  # fmt: skip


def _said(key: str, amount: float) -> str:
    words = UNITS.get(key, "")
    return words.format(amount) if words else ""


def owner_key(ref: Ref) -> str:
    """What an operation's key begins with, for what it belongs to."""
    return f"{ref.kind}:{ref.id}" if ref.id else ref.kind


def hours_of(amounts: Iterable[tuple[str, float]], rates: Rates) -> float:
    """Hours of some amounts at the shop's rates. [h]"""
    return sum(amount * float(getattr(rates, key)) for key, amount in amounts)
