"""What is told of circuits, of hoses and pipes, and of plugs."""

from typing import NamedTuple

from roomy_hull.core.units import rounded_if_finite as _r
from roomy_hull.job.services import Services
from roomy_hull.studies.services.circuits import Circuit
from roomy_hull.studies.services.runs import Run
from roomy_hull.studies.services.wiring import breaker, short_circuit
from roomy_hull.tables.column import Column
from roomy_hull.verdict.verdict import Verdict


class CircuitRow(NamedTuple):
    """A circuit, with what its figures are held against, and what units are called."""

    one: Circuit
    services: Services
    names: dict[str, str]

    @property
    def lost(self) -> float:
        """Which part of the voltage is lost."""
        return self.one.lost(self.services.volts)

    @property
    def short(self) -> float:
        """What flows when it is shorted. [A]"""
        return short_circuit(self.one, self.services)

    @property
    def plugs(self) -> list[str]:
        """Where it comes apart."""
        return list(self.one.way.plugs) if self.one.way is not None else []

    def end(self, n: int) -> str:
        """What one of its ends is called."""
        return self.names.get(self.one.ends[n], self.one.ends[n])

    def over(self, *, drop: bool) -> str:
        """How bad it is that more is lost than may be, or that the fuse lets more through than the cable carries."""
        if drop:
            return "look" if self.lost > self.one.share + 1e-9 else ""
        return "stop" if self.one.fuse > self.one.ampacity + 1e-9 else ""


def _fuse(row: CircuitRow) -> str:
    return f"{row.one.fuse:g} {breaker(row.short)}" if row.short else f"{row.one.fuse:g}"


CIRCUITS: tuple[Column[CircuitRow], ...] = (
    Column(key="id", value=lambda r: r.one.id),
    Column("Circuit", csv="circuit", key="name", value=lambda r: r.one.name),
    Column(key="ends", value=lambda r: list(r.one.ends)),
    Column(csv="from", value=lambda r: r.end(0)),
    Column(csv="to", value=lambda r: r.end(1)),
    Column("A", lambda r: (f"{r.one.amps:.1f}", ""), csv="A", key="amps", value=lambda r: _r(r.one.amps, 2)),
    Column("m", lambda r: (f"{r.one.metres:.2f}", ""), csv="m one way", key="metres", value=lambda r: _r(r.one.metres, 2)),
    Column("Cable", lambda r: (r.one.section, "stop" if r.one.trouble else ""), csv="cable", key="cable",
           value=lambda r: r.one.section),
    Column(key="area_mm2", value=lambda r: _r(r.one.area, 2)),
    Column("Carries", lambda r: (f"{r.one.ampacity:.0f}", ""), csv="carries A", key="ampacity_a",
           value=lambda r: _r(r.one.ampacity, 1)),
    Column("Fuse", lambda r: (_fuse(r), r.over(drop=False)), csv="fuse A", key="fuse_a", value=lambda r: _r(r.one.fuse, 1)),
    Column(key="short_circuit_a", value=lambda r: _r(r.short, 0)),
    Column(csv="fuse sort", key="fuse_sort", value=lambda r: breaker(r.short)),
    Column("Drop, V", lambda r: (f"{r.one.drop:.2f}", r.over(drop=True)), csv="drop V", key="drop_v",
           value=lambda r: _r(r.one.drop)),
    Column("%", lambda r: (f"{100 * r.lost:.1f}", r.over(drop=True)), csv="drop %", value=lambda r: round(100 * r.lost, 1)),
    Column(key="drop_share", value=lambda r: _r(r.lost, 4)),
    Column(csv="most %", value=lambda r: round(100 * r.one.share)),
    Column(key="drop_most", value=lambda r: r.one.share),
    Column("Plug at", lambda r: (", ".join(r.plugs), ""), csv="plugs", value=lambda r: "; ".join(r.plugs)),
    Column(key="plugs", value=lambda r: r.plugs),
    Column(key="way_mm", value=lambda r: [[_r(v, 0) for v in p] for p in r.one.way.points] if r.one.way is not None else []),
    Column(key="trouble", value=lambda r: r.one.trouble),
)  # fmt: skip
"""Of every circuit. [A, m, mm², V]"""


class RunRow(NamedTuple):
    """A hose or pipe, and what units are called."""

    one: Run
    names: dict[str, str]


RUNS: tuple[Column[RunRow], ...] = (
    Column(key="id", value=lambda r: r.one.id),
    Column(csv="sort", key="sort", value=lambda r: r.one.sort),
    Column(csv="run", key="name", value=lambda r: r.one.name),
    Column(key="ends", value=lambda r: list(r.one.ends)),
    Column(csv="from", value=lambda r: r.names.get(r.one.ends[0], r.one.ends[0])),
    Column(csv="to", value=lambda r: r.names.get(r.one.ends[1], r.one.ends[1])),
    Column(key="metres", value=lambda r: _r(r.one.way.metres, 2)),
    Column(csv="bore mm", key="bore_mm", value=lambda r: r.one.bore),
    Column(csv="m", value=lambda r: round(r.one.way.metres, 2)),
    Column(csv="couplings", value=lambda r: "; ".join(r.one.way.plugs)),
    Column(key="couplings", value=lambda r: list(r.one.way.plugs)),
    Column(key="way_mm", value=lambda r: [[_r(v, 0) for v in p] for p in r.one.way.points]),
)
"""Of every hose and pipe. [m, mm]"""


def circuit_rows(verdict: Verdict) -> list[CircuitRow]:
    """Every circuit of a job."""
    services, names = verdict.job.services, verdict.assembly.names
    return [CircuitRow(c, services, names) for c in verdict.services.circuits]


def run_rows(verdict: Verdict) -> list[RunRow]:
    """Every hose and pipe of a job."""
    fluids, names = verdict.services.fluids, verdict.assembly.names
    return [RunRow(r, names) for r in (fluids.runs if fluids is not None else ())]
