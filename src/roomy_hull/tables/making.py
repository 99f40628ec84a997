"""What is told of bends, joints, drilled bars and gaps."""

from typing import NamedTuple

from roomy_hull.core.parts import BarHole, BarPart
from roomy_hull.core.unfolding import BendLine
from roomy_hull.core.units import System, exact
from roomy_hull.core.units import rounded as _r
from roomy_hull.making.bending import BendPlan, Step
from roomy_hull.making.cutlist import CutList
from roomy_hull.making.flats import Blank
from roomy_hull.making.gap import Gap
from roomy_hull.making.joints import Joint
from roomy_hull.tables.column import Column


class BendRow(NamedTuple):
    """A bend as it is made: of which part, as which one, where it lies on the flat; how sizes are written."""

    part: str
    number: int
    step: Step
    line: BendLine
    system: System = "metric"


BENDS: tuple[Column[BendRow], ...] = (
    Column(csv="part", value=lambda r: r.part),
    Column("Bend", csv="step", value=lambda r: r.number),
    Column(csv="from x mm", value=lambda r: f"{r.line.a[0]:.2f}"),
    Column(csv="from y mm", value=lambda r: f"{r.line.a[1]:.2f}"),
    Column(csv="to x mm", value=lambda r: f"{r.line.b[0]:.2f}"),
    Column(csv="to y mm", value=lambda r: f"{r.line.b[1]:.2f}"),
    Column(key="from_mm", value=lambda r: [_r(v) for v in r.line.a]),
    Column(key="to_mm", value=lambda r: [_r(v) for v in r.line.b]),
    Column("Way", lambda r: (("up" if r.step.angle > 0 else "down") + (", turned over" if r.step.flipped else ""), ""),
           csv="way", value=lambda r: "up" if r.step.angle > 0 else "down"),
    Column("Angle", lambda r: (f"{abs(r.step.angle):g}°", ""), csv="angle", value=lambda r: f"{abs(r.step.angle):g}"),
    Column(key="angle_deg", value=lambda r: r.step.angle),
    Column("R", lambda r: (exact(r.step.radius, r.system), ""), csv="radius mm", value=lambda r: f"{r.step.radius:g}"),
    Column(key="radius_mm", value=lambda r: _r(r.step.radius)),
    Column("Long", lambda r: (exact(r.step.length, r.system), ""), csv="length mm", value=lambda r: f"{r.step.length:.1f}"),
    Column(key="length_mm", value=lambda r: _r(r.step.length)),
    Column(csv="turned over", value=lambda r: "yes" if r.step.flipped else ""),
    Column(key="flipped", value=lambda r: r.step.flipped),
    Column("Die", lambda r: (f"V {r.step.die:g}", ""), csv="die mm", value=lambda r: f"{r.step.die:g}"),
    Column(key="die_mm", value=lambda r: r.step.die),
    Column("kN", lambda r: (f"{r.step.force:.1f}", ""), csv="force kN", value=lambda r: f"{r.step.force:.2f}"),
    Column(key="force_kN", value=lambda r: _r(r.step.force)),
    Column("Punch", lambda r: (" + ".join(f"{x:g}" for x in r.step.punch) or "any", ""), csv="punch mm",
           value=lambda r: " + ".join(f"{x:g}" for x in r.step.punch)),
    Column(key="punch_mm", value=lambda r: list(r.step.punch)),
)  # fmt: skip
"""Of every bend in the order in which they are made. [mm, degree, kN]"""


def bend_rows(flat: Blank, plan: BendPlan, system: System = "metric") -> list[BendRow]:
    """The bends of a blank in the order in which they are made."""
    return [
        BendRow(flat.part.name, n, s, flat.bends[s.bend], system)
        for n, s in enumerate(plan.steps, 1)
    ]


JOINTS: tuple[Column[Joint], ...] = (
    Column(csv="one", key="one", value=lambda j: j.one),
    Column(csv="other", key="other", value=lambda j: j.other),
    Column(csv="how", key="method", value=lambda j: j.method),
    Column(csv="length mm", value=lambda j: f"{j.length:.1f}"),
    Column(key="length_mm", value=lambda j: _r(j.length)),
    Column(csv="weld mm", value=lambda j: f"{j.welded:.1f}"),
    Column(key="welded_mm", value=lambda j: _r(j.welded)),
    Column(csv="throat mm", value=lambda j: f"{j.throat:g}" if j.throat else ""),
    Column(csv="fastener", key="fastener", value=lambda j: j.fastener),
    Column(csv="count", value=lambda j: len(j.spots) if j.fastener else ""),
    Column(key="count", value=lambda j: len(j.spots) if j.fastener else 0),
    Column(csv="hole mm", value=lambda j: f"{j.hole:g}" if j.hole else ""),
    Column(key="hole_mm", value=lambda j: _r(j.hole)),
)
"""Of every joint. [mm]"""


class DrillRow(NamedTuple):
    """A hole of a bar."""

    part: BarPart
    hole: BarHole


DRILLED: tuple[Column[DrillRow], ...] = (
    Column(csv="bar", value=lambda r: r.part.name),
    Column(csv="section", value=lambda r: r.part.section),
    Column(csv="side", key="side", value=lambda r: r.hole.words),
    Column(csv="along mm", value=lambda r: f"{r.hole.along:.2f}"),
    Column(key="along_mm", value=lambda r: _r(r.hole.along)),
    Column(csv="across mm", value=lambda r: f"{r.hole.across:.2f}"),
    Column(key="across_mm", value=lambda r: _r(r.hole.across)),
    Column(csv="diameter mm", value=lambda r: f"{r.hole.diameter:g}"),
    Column(key="diameter_mm", value=lambda r: _r(r.hole.diameter)),
    Column(csv="slot mm", value=lambda r: f"{r.hole.length:g}" if r.hole.length else ""),
    Column(key="slot_mm", value=lambda r: _r(r.hole.length)),
)
"""Of every hole of every bar: on which side, how far along and across. [mm]"""


def drill_rows(cut: CutList) -> list[DrillRow]:
    """Every hole of every bar."""
    return [DrillRow(p, h) for p in cut.parts if isinstance(p, BarPart) for h in p.drilled]


class GapRow(NamedTuple):
    """A gap, and how sizes are written."""

    one: Gap
    system: System = "metric"

    @property
    def mostly(self) -> str:
        """What makes it most uncertain."""
        most = max(self.one.chain.links, key=lambda x: abs(x.sense) * x.sigma)
        return f"{most.name} (± {exact(most.sigma, self.system)})"


def _chain(r: GapRow) -> list[dict[str, object]]:
    return [
        {"size": x.name, "sigma_mm": _r(x.sigma), "sense": _r(x.sense), "measure": x.measure}
        for x in r.one.chain.links
    ]


GAPS: tuple[Column[GapRow], ...] = (
    Column("Gap", key="gap", value=lambda r: r.one.title),
    Column("As drawn", lambda r: (exact(r.one.chain.nominal, r.system), ""), key="nominal_mm",
           value=lambda r: _r(r.one.chain.nominal)),
    Column("One sigma", lambda r: (f"± {exact(r.one.chain.sigma, r.system)}", ""), key="sigma_mm",
           value=lambda r: _r(r.one.chain.sigma)),
    Column("Worst case", lambda r: (exact(r.one.chain.worst, r.system), ""), key="worst_mm",
           value=lambda r: _r(r.one.chain.worst)),
    Column("Binds", lambda r: (r.one.binds(), "look" if r.one.likely else ""), key="binds",
           value=lambda r: float(f"{r.one.chain.chance:.3g}")),
    Column("Mostly by", lambda r: (r.mostly, "")),
    Column(key="chain", value=_chain),
)  # fmt: skip
"""Of every narrow gap. [mm]"""
