"""A verdict in words, as a terminal shows it."""

from roomy_hull.core.findings import Finding
from roomy_hull.studies.loads.axles import ScenarioLoads
from roomy_hull.verdict.verdict import Verdict


def report(verdict: Verdict) -> str:
    """Write a verdict for people.

    Returns: One block per scenario, then the findings with their figures and sources.
    """
    rows = [verdict.job.name, ""]
    for loads in verdict.loads.scenarios:
        rows += _scenario_rows(loads)
    if not verdict.findings:
        rows.append("Nothing is found wrong.")
    rows += [finding_line(f) for f in verdict.findings]
    rows += [
        "",
        f"{verdict.count('stop')} stop, {verdict.count('look')} look. Planning figures: ratings, "
        "certificates and road law decide.",
    ]
    return "\n".join(rows)


def _scenario_rows(loads: ScenarioLoads) -> list[str]:
    """Write one scenario."""
    rows = [loads.name]
    for words, figure in (
        ("front axle", loads.front), ("rear axle", loads.rear), ("gross", loads.gross),
        ("combination", loads.combination), ("left", loads.left), ("right", loads.right),
    ):  # fmt: skip
        if figure is not None:
            limit = f" of {figure.limit:,.0f}" if figure.limit is not None else ""
            rows.append(
                f"  {words:<12}{figure.value:>8,.0f} ± {figure.uncertainty:<3,.0f} kg{limit}"
            )
    payload = loads.payload_left
    rows.append(f"  {'payload left':<12}{payload.value:>8,.0f} ± {payload.uncertainty:<3,.0f} kg")
    return [*rows, ""]


def finding_line(finding: Finding) -> str:
    """Write one finding."""
    figures = " against ".join(f"{v:,.1f}" for v in finding.figures)
    figures = f" [{figures} {finding.unit}]" if figures else ""
    accepted = f" (accepted: {finding.accepted})" if finding.accepted else ""
    if finding.reopened:
        accepted = f" (was accepted: {finding.reopened})"
    return f"{finding.severity.upper():<5} {finding.title}{figures} ({finding.source}){accepted}"
