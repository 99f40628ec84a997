"""Running gear and seats: what other wheels, tyres and fewer seats mean, and who decides about them."""

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.core.findings import PRACTICE, Finding, Severity
from roomy_hull.core.refs import VEHICLE
from roomy_hull.core.tyres import overall_diameter, parts_of

LEAST_INSIDE = 25.0
"""Between a tyre's inner wall and the chassis rail (common practice). [mm]"""
AUTHORITY = "the local road authority and a certifying engineer decide"


def judge(assembly: Assembly) -> list[Finding]:
    """Judge wheels against the chassis, and tell what was changed of the vehicle as delivered.

    Returns: Tyres near the rails; another track or tyre than delivered; seats taken out.
    """
    v = assembly.job.vehicle
    found: list[Finding] = []

    def tell(
        code: str,
        severity: Severity,
        title: str,
        figures: tuple[float | None, float | None, str],
        source: str,
    ) -> None:
        found.append(Finding(code, severity, title, (VEHICLE,), *figures, source))

    inside = v.track_rear / 2 - parts_of(v.tyre)[0] / 2 - (v.rail_spread + v.rail_width) / 2
    if v.kind == "cab-chassis" and inside < LEAST_INSIDE:
        tell("outline.inside", "look", "The rear tyres stand near the chassis rails: a larger track, or narrower tyres",
             (inside, LEAST_INSIDE, "mm"), PRACTICE)  # fmt: skip
    w = v.wheels
    by = 2 * (w.offset_standard - w.offset)
    if abs(by) > 0.5:
        words = "wider" if by > 0 else "narrower"
        tell("survey.track", "note", f"The rims make the track {abs(by):.0f} mm {words} than delivered",
             (abs(by), None, "mm"), AUTHORITY)  # fmt: skip
    if w.tyre_standard and w.tyre_standard != v.tyre:
        grown = overall_diameter(v.tyre) - overall_diameter(w.tyre_standard)
        words = "larger" if grown > 0 else "smaller"
        tell("survey.tyre", "note", f"The tyres are {abs(grown):.0f} mm {words} across than delivered: speedometer, spare "
             "and its ledge go along", (abs(grown), None, "mm"), AUTHORITY)  # fmt: skip
    gone = [s for s in v.seats if not s.fitted]
    if gone:
        tell("survey.seats", "note", f"{len(gone)} of {len(v.seats)} seats are taken out: fewer seats on the papers",
             (sum(s.mass for s in gone), None, "kg off the kerb mass"), AUTHORITY)  # fmt: skip
    for s in gone:
        if s.mass <= 0:
            tell("survey.seat_mass", "look", f"The {s.name} is taken out; nobody said what it weighs: it still counts",
                 (None, None, ""), "weigh it with belts and bolts")  # fmt: skip
    return found
