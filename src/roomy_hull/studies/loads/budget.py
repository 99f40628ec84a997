"""The mass budget of the brief: what is wished, what is decided, and what the rating leaves."""

import math

import msgspec

from roomy_hull.assembly.scaling import reactions
from roomy_hull.assembly.study import Context, Study, StudyKey
from roomy_hull.core.uncertainty import uncertainty_of
from roomy_hull.job.brief import NEEDS, Need, Wish
from roomy_hull.studies.loads import axles

KEY = StudyKey["Budget"]("budget")


class BudgetRow(msgspec.Struct, frozen=True):
    """One wish: what was allowed for it, what it came to where it is decided, and its axle loads. [kg]

    `decided` is none where nothing stands for it yet.
    """

    wish: Wish
    allowed: float
    uncertainty: float
    decided: float | None
    front: float
    rear: float


class Budget(msgspec.Struct, frozen=True):
    """The budget in the scenario that is heaviest.

    Attributes:
        rows: Every wish.
        scenario: Name of the heaviest scenario.
        left: Payload left there as the job stands. [kg]
        doubt: Of what would be left with all needed and wanted. [kg]
        open: Still to come, by ``needed``, ``wanted`` and ``later``. [kg]
        over: What decided things came to beyond what was allowed for them, by need. [kg]
        left_needed, left_wanted, left_all: Left once the needed is there too, then the wanted, then what is for later.
            [kg]
        rear_wanted: What the rear axle has left once needed and wanted are there, at their places. [kg]
    """

    rows: tuple[BudgetRow, ...]
    scenario: str
    left: float
    uncertainty: float
    open: dict[Need, float]
    over: dict[Need, float]
    left_needed: float
    left_wanted: float
    left_all: float
    rear_wanted: float


def study(context: Context) -> Budget:
    """Hold the brief against what the rating leaves.

    Args:
        context: The job, with what its scenarios weigh; a wish is decided where its `thing` is one of the job's.
    Returns: In the scenario with the least payload left. [kg]
    """
    assembly, job = context.assembly, context.assembly.job
    result = context.of(axles.KEY)
    heavy = min(result.scenarios, key=lambda s: s.payload_left.value)
    full = {t.id: sum(m.kg + result.moved_by(m) for m in t.masses) for t in assembly.things}
    base = job.vehicle.wheelbase
    rows = []
    still = dict.fromkeys(NEEDS, 0.0)
    over = dict.fromkeys(NEEDS, 0.0)
    variance, rear = heavy.payload_left.uncertainty**2, 0.0
    for wish in job.brief.wishes:
        decided = full.get(wish.thing)
        uncertainty = uncertainty_of(wish.mass, wish.mass_source)
        ahead, behind = reactions(wish.mass, wish.x, base)
        rows.append(BudgetRow(wish, wish.mass, uncertainty, decided, ahead, behind))
        if decided is None:
            still[wish.need] += wish.mass
            if wish.need != "later":
                variance += uncertainty**2
                rear += behind
        else:
            over[wish.need] += decided - wish.mass
    left = heavy.payload_left.value
    needed = left - still["needed"]
    wanted = needed - still["wanted"]
    room = (heavy.rear.limit or math.inf) - heavy.rear.value - rear
    return Budget(
        tuple(rows), heavy.name, left, math.sqrt(variance), still, over, needed, wanted,
        wanted - still["later"], room,
    )  # fmt: skip


STUDY = Study(KEY, study, needs=(axles.KEY,))
