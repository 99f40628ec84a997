"""What weighs what: each thing's part of the axles and sides, and what would come of moving it."""

import msgspec

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.core.refs import CANOPY, TRAILER, TRAY, VEHICLE, Ref
from roomy_hull.job.model import Scenario
from roomy_hull.studies.loads import axles
from roomy_hull.studies.loads.axles import LoadResult
from roomy_hull.studies.loads.readings import value_of


class Contribution(msgspec.Struct, frozen=True):
    """One owner's part in a scenario. [kg, mm]

    `x` and `y` are where its mass is; `side` is right less left.
    """

    owner: Ref
    name: str
    kg: float
    x: float
    y: float
    z: float
    front: float
    rear: float
    side: float

    def of(self, measure: str) -> float:
        """Its part of ``rear``, ``front`` or ``side``. [kg]"""
        found: float = getattr(self, measure)
        return found


def contributions(
    assembly: Assembly, result: LoadResult, scenario: Scenario
) -> tuple[Contribution, ...]:
    """Every owner's part of front, rear and sides.

    Returns: Of all that is aboard, weighings in it; together they are the scenario's loads. [kg]
    """
    names = {t.ref: t.name for t in assembly.things}
    names |= {
        VEHICLE: "Vehicle, fuel, people",
        TRAY: "Tray",
        CANOPY: "Canopy",
        TRAILER: "Ball mass",
    }
    sums: dict[Ref, list[float]] = {}
    for group in result.shares.values():
        for share in group:
            f = axles.factor(scenario, share)
            if f and share.owner is not None:
                row = sums.setdefault(share.owner, [0.0] * 4)
                own = result.sums_of(share)
                for i in range(4):
                    row[i] += f * own[i]
    r = result.readings
    found = []
    for owner, row in sums.items():
        kg = row[0]
        if kg == 0:
            continue
        lean = value_of(r.right, row) - value_of(r.left, row)
        found.append(
            Contribution(
                owner, names.get(owner, owner.word), kg, row[1] / kg, row[2] / kg, row[3] / kg,
                value_of(r.front, row), value_of(r.rear, row), lean,
            )
        )  # fmt: skip
    return tuple(found)


def ranked(rows: tuple[Contribution, ...], measure: str) -> tuple[Contribution, ...]:
    """Order contributions by their part of ``rear``, ``front`` or ``side``, the greatest first."""
    return tuple(sorted(rows, key=lambda c: -abs(c.of(measure))))


class Change(msgspec.Struct, frozen=True):
    """What a change would do. [kg]"""

    front: float
    rear: float
    gross: float
    side: float


def if_moved(result: LoadResult, one: Contribution, dx: float, dy: float = 0.0) -> Change:
    """Say what moving a thing would do.

    Args:
        dx, dy: How far aft and to the right; forward and to the left are negative. [mm]
    Returns: rear += m·Δx/L, front -= the same; the sides by the lean. [kg]
    """
    r = result.readings
    delta = (0.0, one.kg * dx, one.kg * dy)
    return Change(
        value_of(r.front, delta),
        value_of(r.rear, delta),
        0.0,
        value_of(r.right, delta) - value_of(r.left, delta),
    )


def if_off(one: Contribution) -> Change:
    """Say what leaving a thing at home would do. [kg]"""
    return Change(-one.front, -one.rear, -one.kg, -one.side)
