"""The scenario board: every scenario against every limit, the worst cell, and the sum behind each figure."""

import math

import msgspec

from roomy_hull.assembly import springs
from roomy_hull.assembly.assemble import Assembly
from roomy_hull.assembly.scaling import scale
from roomy_hull.core.refs import CANOPY, TRAILER, TRAY, VEHICLE, Ref
from roomy_hull.core.uncertainty import chance_over
from roomy_hull.core.units import G
from roomy_hull.job.model import Scenario
from roomy_hull.job.vehicle import Vehicle
from roomy_hull.studies.loads import axles
from roomy_hull.studies.loads.axles import Figure, LoadResult, ScenarioLoads
from roomy_hull.studies.loads.governing import governing
from roomy_hull.studies.loads.readings import WHEELS, value_of

ROWS: tuple[tuple[str, str], ...] = (
    ("front", "Front axle"), ("rear", "Rear axle"), ("gross", "Gross"), ("payload", "Payload left"),
    *((w, f"Wheel {w}") for w in WHEELS), ("left", "Left side"), ("right", "Right side"),
    ("roof", "On the roof"), ("ball", "Ball"), ("trailer", "Trailer"), ("combination", "Combination"),
    ("level", "Tail low"),
)  # fmt: skip
"""Key and words of every row; masses in kg, the last in mm."""
LIMITED = ("front", "rear", "gross", *WHEELS, "roof", "ball", "trailer", "combination")
"""Rows that have a limit of their own; the payload left is the gross mass once more."""
LOOK_CHANCE = 0.05
"""From this chance of exceeding a rating on, a load within it is worth a look."""


def cell(loads: ScenarioLoads, key: str) -> Figure | None:
    """One figure of a scenario.

    Returns: None where the scenario has none such, as a ball mass without a trailer. [kg; level in mm]
    """
    if key in WHEELS:
        return loads.wheels[WHEELS.index(key)]
    if key == "level":
        return Figure(loads.stance.tail_low, loads.stance.uncertainty)
    found: Figure | None = getattr(loads, "payload_left" if key == "payload" else key)
    return found


def chance(figure: Figure | None) -> float:
    """The chance that a figure is over its limit; 0 without a limit."""
    if figure is None or figure.limit is None:
        return 0.0
    return chance_over(figure.value, figure.uncertainty, figure.limit)


def severity_of(figure: Figure | None) -> str:
    """``stop`` over the limit, ``look`` where there is a fair chance of it, else nothing."""
    if figure is None or figure.limit is None:
        return ""
    if figure.value > figure.limit:
        return "stop"
    return "look" if chance(figure) >= LOOK_CHANCE else ""


def room(loads: ScenarioLoads) -> tuple[float, str] | None:
    """What may still be loaded at the most: the least that any limit leaves, and whose it is, by its row.

    Returns: Below 0 where a limit is passed; nothing where no limit is entered. [kg]
    """
    found = ((key, cell(loads, key)) for key in LIMITED)
    left = [(f.limit - f.value, key) for key, f in found if f is not None and f.limit is not None]
    return min(left) if left else None


class Worst(msgspec.Struct, frozen=True):
    """The cell that governs: scenario, row, figure, chance of being over, and use of the limit."""

    scenario: str
    key: str
    figure: Figure
    chance: float
    use: float


def worst(result: LoadResult, keys: tuple[str, ...] = LIMITED) -> Worst | None:
    """Find the cell that governs the whole board.

    Returns:
        The one with the greatest chance of being over its limit, to a thousandth; of equals the one that uses its
        limit most. None where nothing has a limit.
    """
    found = [
        Worst(s.id, key, figure, chance(figure), figure.value / figure.limit)
        for s in result.scenarios
        for key in keys
        if (figure := cell(s, key)) is not None and figure.limit
    ]
    return max(found, key=lambda w: (round(w.chance, 3), w.use), default=None)


class Line(msgspec.Struct, frozen=True):
    """One term of a sum: what, its mass in the scenario, where, its part, what it comes to.

    Attributes:
        owner: What it belongs to; none for a rating or a sum.
        words: What it is.
        kg: Mass in this scenario. [kg]
        at: Where that matters: aft of the front axle, or right of the centre plane. [mm]
        part: The factor by which it counts.
        amount, doubt: What it adds, and its one-sigma doubt. [unit of the sum]
    """

    owner: Ref | None
    words: str
    kg: float
    at: float
    part: float
    amount: float
    uncertainty: float


class Why(msgspec.Struct, frozen=True):
    """The sum behind a figure; the amounts of its lines add up to `total`.

    `rule` says how it is computed, `limit` where its limit comes from, `unit` is that of the sum.
    """

    title: str
    rule: str
    lines: tuple[Line, ...]
    total: float
    uncertainty: float
    unit: str
    limit: str


def why(assembly: Assembly, result: LoadResult, scenario: Scenario, key: str) -> Why:
    """The sum behind one figure of the board.

    Returns: Its lines, the heaviest first; their amounts add up to the figure. [kg, or mm for level]
    """
    loads = result.scenario(scenario.id)
    vehicle, title = assembly.job.vehicle, f"{dict(ROWS)[key]}: {scenario.name}"
    limit = _limit_words(vehicle, key)
    if key == "level":
        return _level(vehicle, loads, title)
    if key in ("ball", "trailer"):
        figure = cell(loads, key) or Figure(0.0, 0.0)
        words = "as entered in the scenario"
        line = Line(
            TRAILER, words, figure.value, vehicle.tow.x, 1.0, figure.value, figure.uncertainty
        )
        return Why(
            title, "Entered, not computed.", (line,), figure.value, figure.uncertainty, "kg", limit
        )
    part = {"payload": "gross", "combination": "gross"}.get(key, key)
    sign = -1.0 if key == "payload" else 1.0
    lines = _lines(assembly, result, scenario, part, sign)
    if key == "payload":
        gross = vehicle.ratings.gross
        lines.insert(0, Line(None, "Gross rating", gross, 0.0, 1.0, gross, 0.0))
    if key == "combination":
        behind = scenario.trailer - scenario.ball
        uncertainty = axles.TRAILER_UNCERTAINTY * behind
        lines.append(Line(TRAILER, "Trailer less ball mass", behind, 0.0, 1.0, behind, uncertainty))
    total = math.fsum(line.amount for line in lines)
    figure = cell(loads, key) or Figure(total, 0.0)
    return Why(title, _rule(vehicle, key), tuple(lines), total, figure.uncertainty, "kg", limit)


def _lines(
    assembly: Assembly, result: LoadResult, scenario: Scenario, part: str, sign: float
) -> list[Line]:
    """List every mass aboard with what it adds to one figure, the greatest first."""
    names = {t.ref: t.name for t in assembly.things}
    names |= {VEHICLE: "Vehicle", TRAY: "Tray", CANOPY: "Canopy", TRAILER: "Trailer"}
    roof = {t.ref for t in assembly.things if t.on_roof}
    sideways = part in ("left", "right")
    found: list[Line] = []
    for m in assembly.masses():
        f = scale(scenario, m.owner, m.fill, m.mount)
        if part == "roof":
            times = 1.0 if m.owner in roof else 0.0
        else:
            a, b, c = result.readings.of(part)
            times = a + b * m.x + c * m.y
        if f == 0 or (part == "roof" and times == 0):
            continue
        times *= sign
        name = names.get(m.owner, m.owner.word)
        words = name if m.label in ("", name) else f"{name}: {m.label}"
        found.append(
            Line(m.owner, words, f * m.kg, m.y if sideways else m.x, times, f * m.kg * times,
                 abs(f * m.sigma * times))
        )  # fmt: skip
    found.sort(key=lambda line: -abs(line.amount))
    moved = result.scenario(scenario.id).found
    if part != "roof" and any(moved):
        amount = sign * value_of(result.readings.of(part), moved)
        found.append(Line(None, "Found at the scales", moved[0], 0.0, 1.0, amount, 0.0))
    return found


def _rule(vehicle: Vehicle, key: str) -> str:
    """Say how a figure is computed."""
    base = f"{vehicle.wheelbase:,.0f}"
    phi = springs.roll_front(vehicle)
    lean = f"the front takes {phi:.0%} of what leans to one side, by its springs and track"
    return {
        "front": f"Each mass times (1 - x / wheelbase {base}); behind the rear axle it lifts.",
        "rear": f"Each mass times x / wheelbase {base}, x aft of the front axle.",
        "gross": "The sum of all masses aboard, the ball mass among them.",
        "payload": "The gross rating less every mass aboard.",
        "combination": "All aboard, and the trailer without the ball mass, which is aboard already.",
        "left": f"Half of each mass less its lean to the right; {lean}.",
        "right": f"Half of each mass and its lean to the right; {lean}.",
        "roof": "Everything that counts as roof load.",
    }.get(key, f"Half of the axle's part of each mass, more or less by its lean; {lean}.")


def _limit_words(vehicle: Vehicle, key: str) -> str:
    """Say where a row's limit comes from."""
    r = vehicle.ratings
    if key in ("front", "rear"):
        found = governing(vehicle, key)
        others = "; ".join(f"{name} {kg:,.0f}" for name, kg in found.given if name != found.by)
        return f"{found.kg:,.0f} kg by its {found.by}" + (f" (also {others})" if others else "")
    if key in WHEELS:
        limit = axles.tyre_limit(vehicle)
        index = vehicle.tyre_load_index
        if limit is None:
            return "none: enter the tyre's load index"
        by = "the wheel" if limit == r.wheel else f"load index {index} (ETRTO, from memory)"
        return f"{limit:,.0f} kg by {by}"
    value = {"gross": r.gross, "payload": r.gross, "roof": r.roof, "ball": r.ball, "trailer": r.towed,
             "combination": r.combination}.get(key, 0.0)  # fmt: skip
    return f"{value:,.0f} kg, the rating as entered" if value else "none entered"


def _level(vehicle: Vehicle, loads: ScenarioLoads, title: str) -> Why:
    """How the stance comes about: force beyond kerb over the springs' rates."""
    s = vehicle.springs
    stance = loads.stance
    behind = springs.rear_spring(vehicle, s.school, loads.rear.value, stance.front_sag)
    front = loads.front.value - vehicle.kerb.front
    rear = loads.rear.value - vehicle.kerb.rear
    plain = rear * G / (2 * s.rear)
    lines = [
        Line(
            None,
            "Rear axle beyond kerb, on the standard springs",
            rear,
            0.0,
            G / (2 * s.rear),
            plain,
            0.0,
        )
    ]
    if s.school != "standard":
        words = f"What {s.school} springs hold up"
        if stance.pressure:
            words += f" at {stance.pressure:.0f} kPa"
        lines.append(Line(None, words, 0.0, 0.0, 1.0, behind.sag - plain, 0.0))
    lines += [
        Line(
            None, "Front axle beyond kerb", front, 0.0, -G / (2 * s.front), -stance.front_sag, 0.0
        ),
        Line(None, "Owner's target", 0.0, 0.0, -1.0, 0.0 - vehicle.level_target, 0.0),
    ]
    rule = (
        f"Sag of the rear less sag of the front and the target; {s.rear:g} and {s.front:g} N/mm at one "
        "wheel."
    )
    return Why(
        title, rule, tuple(lines), stance.tail_low, stance.uncertainty, "mm", "common practice"
    )


class SweepPoint(msgspec.Struct, frozen=True):
    """One fill of a sweep, 0 to 1, with its figures. [kg]"""

    fill: float
    front: Figure
    rear: Figure
    gross: Figure


SWEEPS = ("water", "fuel", "both")


def sweep(
    assembly: Assembly, result: LoadResult, scenario: Scenario, what: str, steps: int = 20
) -> tuple[SweepPoint, ...]:
    """Follow the axles while water, fuel or both run from full to empty.

    Args:
        scenario: Everything else stays as in it.
        what: ``water``, ``fuel`` or ``both``.
        steps: How many steps, 1 or more.
    Returns: From full to empty. [kg]
    """
    points = []
    for n in range(steps, -1, -1):
        fill = n / steps
        change = {name: fill for name in ("water", "fuel") if what in (name, "both")}
        trial = msgspec.structs.replace(scenario, **change)
        s = axles.weigh(assembly.job, trial, result.totals, result.readings, result.evidence)
        points.append(SweepPoint(fill, s.front, s.rear, s.gross))
    return tuple(points)
