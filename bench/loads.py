"""The full loads study of a large job, against a plain reference; chances against random draws; the strip."""

import json
import math
import os
import statistics
import sys
import tempfile
from pathlib import Path

os.environ["QT_QPA_PLATFORM"] = "offscreen"

import msgspec
import numpy as np

from edit import p95
from jobs import crowded, frozen
from pace import paced
from roomy_hull.assembly.assemble import Assembly, assemble
from roomy_hull.assembly.study import Context
from roomy_hull.core.uncertainty import chance_over
from roomy_hull.desktop import application
from roomy_hull.formats.settings import Settings
from roomy_hull.job.edits import units as edits
from roomy_hull.job.model import Job
from roomy_hull.session.session import Session
from roomy_hull.studies.loads import axles, board
from roomy_hull.studies.loads.readings import readings
from roomy_hull.verdict.registry import LINES, in_turn, studies
from roomy_hull.verdict.verdict import judge


def many(units: int, scenarios: int) -> Job:
    """A crowded job with so many scenarios, each filled otherwise."""
    job = crowded(units)
    listed = tuple(
        job.scenarios[n % len(job.scenarios)].but(
            id=f"s{n}", name=f"S {n}", water=(n % 5) / 4, contents=0.4 + (n % 4) / 5
        )
        for n in range(scenarios)
    )
    return msgspec.structs.replace(job, scenarios=listed)


LOADS = ("studies.loads.", "studies.strength.")
STUDIED = in_turn(
    tuple(s for line, s in zip(LINES, studies(), strict=True) if line.module.startswith(LOADS))
)


def study(assembly: Assembly) -> None:
    """Study all of the loads and what carries them, as a verdict does, nothing remembered."""
    context = Context(assembly, {}, None)
    for one in STUDIED:
        context.results[one.key] = one.run(context)


def plainly(assembly: Assembly) -> float:
    """Compute axles, wheels and bending mass by mass, point by point, in plain Python: the reference."""
    job = assembly.job
    how = readings(job.vehicle)
    masses = assembly.masses()
    total = 0.0
    for scenario in job.scenarios:
        factors = [
            axles.factor(scenario, axles.Share(m.owner, m.fill, m.mount, (), ())) for m in masses
        ]
        for reading in (how.front, how.rear, how.gross, how.left, how.right, *how.wheels):
            value = variance = 0.0
            for m, f in zip(masses, factors, strict=True):
                part = reading[0] + reading[1] * m.x + reading[2] * m.y
                value += f * m.kg * part
                variance += (f * m.sigma * part) ** 2
            total += value + math.sqrt(variance)
        for x in range(-900, 4500, 25):
            shear = bend = 0.0
            for m, f in zip(masses, factors, strict=True):
                if m.x <= x:
                    shear += f * m.kg
                    bend += f * m.kg * (x - m.x)
            total += shear + bend
    return total


def draws(count: int) -> dict[str, float]:
    """Set chances of being over against random draws; the worst difference in standard errors."""
    verdict = judge(frozen())
    scenario = verdict.job.scenarios[2]
    chance = np.random.default_rng(5)
    worst = 0.0
    for row in ("front", "rear", "gross", "rear left"):
        a, b, c = verdict.loads.readings.of(row)
        total = np.zeros(count)
        for m in verdict.assembly.masses():
            f = axles.factor(scenario, axles.Share(m.owner, m.fill, m.mount, (), ()))
            if f:
                total += f * chance.normal(m.kg, m.sigma, count) * (a + b * m.x + c * m.y)
        figure = board.cell(verdict.loads.scenario(scenario.id), row)
        assert figure is not None
        for sigmas in (-1.5, -0.5, 0.0, 0.8, 1.7, 2.4):
            limit = figure.value + sigmas * figure.uncertainty
            p = chance_over(figure.value, figure.uncertainty, limit)
            error = math.sqrt(p * (1 - p) / count)
            worst = max(worst, abs(float((total > limit).mean()) - p) / error)
    return {"draws": count, "worst": worst}


def strip(job: Job, key: str) -> dict[str, float]:
    """Time from a new job value to the painted weigh strip. [ms]"""
    app = application.application()
    where = Path(tempfile.mkdtemp())
    window = application.window_for(Session(job, Settings(where, where)))
    window.resize(1280, 800)
    window.show()
    window.settle()
    application.rest()  # as the program does soon after
    app.processEvents()
    unit = job.thing(key)
    assert unit is not None
    times: list[float] = []
    for n in range(160):
        new = edits.changed(job, key, u=unit.u + 1.0 + n % 20)  # type: ignore[union-attr]
        with paced(times):
            window.session.preview(new)
            window.strip.scale.repaint()
    window.session.cancel()
    window.session.history.mark_saved()
    window.close()
    return {"median": statistics.median(times[20:]), "p95": p95(times[20:])}


def main() -> None:
    """Print the figures as JSON."""
    assembly = assemble(many(300, 12))
    times: list[float] = []
    for _ in range(15):
        with paced(times):
            study(assembly)
    plain: list[float] = []
    for _ in range(2):
        with paced(plain):
            plainly(assembly)
    json.dump(
        {
            "study": {"median": statistics.median(times[3:]), "p95": max(times[3:])},
            "plain": min(plain), "ratio": min(plain) / statistics.median(times[3:]),
            "chances": draws(1_000_000), "strip": strip(frozen(), "sample-fridge"),
            "strip_60": strip(crowded(60), "d1"),
        },
        sys.stdout,
    )  # fmt: skip


if __name__ == "__main__":
    main()
