"""Loads: from weighed scenarios to findings."""

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.assembly.scaling import slide_load
from roomy_hull.assembly.study import Context, Study
from roomy_hull.core.findings import PRACTICE, Finding
from roomy_hull.job.model import Scenario
from roomy_hull.shop.shop import Rules
from roomy_hull.studies.loads import board
from roomy_hull.studies.loads.axles import KEY, Figure, LoadResult, ScenarioLoads, study
from roomy_hull.studies.loads.governing import governing
from roomy_hull.studies.loads.readings import WHEELS

RATING = "the vehicle's rating plate, as entered"


def judge(context: Context) -> list[Finding]:
    """Turn weighed scenarios into findings.

    Args:
        context: The job in vehicle axes, with what the scenarios weigh.
    Returns:
        Ratings exceeded or nearly so, balance, front axle relief, ball, trailer and roof limits, slides beyond
        their rating. [kg]
    """
    assembly, found = context.assembly, list[Finding]()
    result = context.of(KEY)
    sources = {end: _governed(assembly, end) for end in ("front", "rear")}
    for scenario, loads in zip(assembly.job.scenarios, result.scenarios, strict=True):
        for code, words, figure in (
            ("front", "the front axle", loads.front),
            ("rear", "the rear axle", loads.rear),
            ("gross", "the gross mass", loads.gross),
            ("combination", "the combination mass", loads.combination),
            ("roof", "the roof", loads.roof),
        ):
            if figure is not None and figure.limit is not None:
                found += _against(code, words, figure, scenario, sources.get(code, RATING))
        found += _wheels(loads, scenario)
        found += _balance(loads, result, assembly.shop.rules)
        found += _towing(assembly, scenario)
    found += _slides(assembly, result)
    found += _springs(assembly, result)
    return found


def _governed(assembly: Assembly, end: str) -> str:
    """Say which rating governs an axle."""
    found = governing(assembly.job.vehicle, end)
    return RATING if found.by == "axle" else f"{found.by}, the lowest of the axle's ratings"


def _against(
    code: str, words: str, figure: Figure, scenario: Scenario, source: str
) -> list[Finding]:
    """Set one figure against its limit: over is a stop, a fair chance of it a look."""
    severity, limit = board.severity_of(figure), figure.limit
    if severity == "stop":
        return [
            Finding(f"loads.{code}", "stop", f"{scenario.name}: {words} is over its limit",
                    (), figure.value, limit, "kg", source,
                    scenario=scenario.id)
        ]  # fmt: skip
    if severity == "look":
        return [
            Finding(f"loads.{code}", "look",
                    f"{scenario.name}: {board.chance(figure):.0%} chance that {words} is over its limit",
                    (), figure.value, limit, "kg",
                    f"{source}; normal distribution of the masses' uncertainty",
                    scenario=scenario.id, uncertainty=figure.uncertainty, rising=True)
        ]  # fmt: skip
    return []


def _wheels(loads: ScenarioLoads, scenario: Scenario) -> list[Finding]:
    """Judge the wheel that carries most against its tyre and its own rating."""
    name, figure = max(zip(WHEELS, loads.wheels, strict=True), key=lambda w: w[1].value)
    if figure.limit is None:
        return []
    source = "tyre load index (ETRTO, from memory) or the wheel's rating, the lower"
    return _against("wheel", f"the {name} wheel", figure, scenario, source)


def _balance(loads: ScenarioLoads, result: LoadResult, limits: Rules) -> list[Finding]:
    """Judge the sides against each other, and the front axle against its kerb load."""
    found = []
    gross = max(loads.gross.value, 1e-9)
    lean = abs(loads.right.value - loads.left.value) / gross
    if lean > limits.side_imbalance:
        heavy = "right" if loads.right.value > loads.left.value else "left"
        found.append(
            Finding("loads.sides", "look", f"{loads.name}: the {heavy} side is the heavier",
                    (), lean * 100, limits.side_imbalance * 100, "% of gross",
                    PRACTICE, scenario=loads.id)
        )  # fmt: skip
    lost = (result.kerb_front - loads.front.value) / max(result.kerb_front, 1e-9)
    if lost > limits.front_loss:
        found.append(
            Finding("loads.front_light", "look",
                    f"{loads.name}: the build lifts the front axle below its kerb load",
                    (), loads.front.value, result.kerb_front * (1 - limits.front_loss), "kg",
                    PRACTICE, scenario=loads.id, uncertainty=loads.front.uncertainty)
        )  # fmt: skip
    return found


def _towing(assembly: Assembly, scenario: Scenario) -> list[Finding]:
    """Judge ball and trailer against their ratings."""
    ratings = assembly.job.vehicle.ratings
    found = []
    for code, words, value, limit in (
        ("ball", "the ball mass", scenario.ball, ratings.ball),
        ("towed", "the trailer", scenario.trailer, ratings.towed),
    ):
        if limit > 0 and value > limit:
            found.append(
                Finding(f"loads.{code}", "stop", f"{scenario.name}: {words} is over its limit",
                        (), value, limit, "kg", RATING, scenario=scenario.id)
            )  # fmt: skip
    return found


def _slides(assembly: Assembly, result: LoadResult) -> list[Finding]:
    """Judge each pair of slides: moving mass times the dynamic factor against the rating."""
    factor = assembly.shop.rules.slide_dynamic
    found = []
    for thing in assembly.things:
        rating, load = thing.expansion.slide_rating, slide_load(thing, result)
        if rating > 0 and load * factor > rating:
            over = load > rating
            found.append(
                Finding("loads.slide", "stop" if over else "look",
                        f"{thing.name}: its slides are "
                        + ("overloaded" if over else "short of strength on rough roads"),
                        (thing.ref,), load * factor, rating, "kg",
                        f"the slide's data sheet; dynamic factor {factor:g} (common practice)", where=(thing.envelope,))
            )  # fmt: skip
    return found


def _springs(assembly: Assembly, loads: LoadResult) -> list[Finding]:
    """Judge the stance in the scenario that is furthest from level, and the air springs' bounds."""
    vehicle, band = assembly.job.vehicle, assembly.shop.rules.level_band
    worst = max(loads.scenarios, key=lambda s: abs(s.stance.tail_low))
    low = worst.stance.tail_low
    found = []
    if abs(low) > band:
        way = "tail low" if low > 0 else "nose low"
        found.append(
            Finding("loads.level", "look", f"{worst.name}: {way}; compare springs on the page Springs",
                    (), abs(low), band, "mm", PRACTICE, scenario=worst.id, uncertainty=worst.stance.uncertainty)
        )  # fmt: skip
    s = vehicle.springs
    if s.school == "air":
        high = max(loads.scenarios, key=lambda x: x.stance.pressure)
        if high.stance.pressure >= s.air_most - 1e-6:
            found.append(
                Finding("loads.air", "look", f"{high.name}: air springs at their most pressure",
                        (), high.stance.pressure, s.air_most, "kPa", "the air springs' data sheet", scenario=high.id)
            )  # fmt: skip
    return found


STUDY = Study(KEY, study, judge=judge, codes=("loads.",))
