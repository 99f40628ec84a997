"""The workshop's people, stations, working days and rates: who can do what where, and how long it usually takes."""

from typing import Literal

import msgspec

Trade = Literal["metal", "bench", "fitting", "electrics", "mains", "gas", "certifying"]
LICENSED: tuple[Trade, ...] = ("mains", "gas", "certifying")
"""Trades that want a licence or an authority; nobody else may be planned for them."""


class Worker(msgspec.Struct, frozen=True):
    """Somebody who works: their trades and working days (1 is Monday).

    Attributes:
        id, name: What logs call them, and what the screen does.
        trades: What they may be planned for.
        days: Their days of the week.
        away: First and last day of each absence, as YYYY-MM-DD.
        outside: Whether they come for the hours that they are needed.
    """

    id: str
    name: str
    trades: tuple[Trade, ...]
    days: tuple[int, ...] = (1, 2, 3, 4, 5)
    away: tuple[tuple[str, str], ...] = ()
    outside: bool = False


class Station(msgspec.Struct, frozen=True):
    """A place of work, and how many can work there at once."""

    id: str
    name: str
    count: int = 1


class Rates(msgspec.Struct, frozen=True):
    """Hours that one of each takes: a metre cut, a pierce, a bend, a circuit … [h]"""

    cut_m: float
    pierce: float
    saw_piece: float
    deburr_m: float
    bend: float
    drill_hole: float
    weld_m: float
    dress_m: float
    rivet: float
    bolt: float
    screw: float
    piece: float
    bought_piece: float
    coat_m2: float
    insulate_m2: float
    fit_made: float
    fit_bought: float
    fit_outside: float
    mount_body: float
    receive: float
    circuit: float
    cable_m: float
    hose_run: float
    hose_m: float
    gas_line: float
    test: float
    hose_test: float
    weigh: float
    engineer: float
    finish: float
    wash: float
    hand_over: float


class LeadDays(msgspec.Struct, frozen=True):
    """How long things take to come, from the day they are ordered. [calendar days]"""

    sheet: float
    bar: float
    hardware: float
    bought: float
    outside: float


class Workshop(msgspec.Struct, frozen=True):
    """How a shop works.

    Attributes:
        people, stations: Who, and where.
        day_hours: Of a working day. [h]
        days: Days of the week on which it is open; 1 is Monday.
        closed: Days on which it is not, as YYYY-MM-DD.
        rates: Hours for one of each.
        coat_days: Working days that powder coating takes, there and back.
        lead_days: Of what is ordered.
        fastest, slowest: The least and the most that an operation takes, as parts of what is usual.
        rate_doubt: One sigma of a rate before anything is logged, as a part of it.
        margin, tax: On costs, and on what is offered, as parts.
        valid_days: How long an offer stands.
    """

    people: tuple[Worker, ...]
    stations: tuple[Station, ...]
    day_hours: float
    days: tuple[int, ...]
    closed: tuple[str, ...]
    rates: Rates
    coat_days: float
    lead_days: LeadDays
    fastest: float
    slowest: float
    rate_doubt: float
    margin: float
    tax: float
    valid_days: float
    source: str

    def worker(self, key: str) -> Worker | None:
        """Look somebody up."""
        return next((w for w in self.people if w.id == key), None)

    def station(self, key: str) -> Station | None:
        """Look a place of work up."""
        return next((s for s in self.stations if s.id == key), None)
