"""A wing built round a wheel arch: its boards as meshes, what it leaves free, and the fix that builds it so."""

import manifold3d
import msgspec
import pytest
from hypothesis import given
from hypothesis import strategies as st
from tests import meshes
from tests.builders import SHOP

from roomy_hull.core.errors import InputError
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.parts import SheetPart
from roomy_hull.formats.demo import demo_job
from roomy_hull.job.model import Job
from roomy_hull.kinds import registry
from roomy_hull.kinds.kind import Site
from roomy_hull.kinds.wing import GAP, Wing, around, notch
from roomy_hull.studies.fit.mending import applied
from roomy_hull.verdict.verdict import fixes, judge

SITE = Site(0.0, SHOP)
WING = Wing(id="w", name="Wing", bay="B", width=400.0, depth=1200.0, height=400.0)


def mesh(box: Box) -> manifold3d.Manifold:
    return manifold3d.Manifold.cube(list(box.size())).translate(list(box[:3]))


@given(
    st.integers(-20, 700), st.integers(50, 900), st.integers(20, 450), st.integers(20, 350),
    st.sampled_from(("left", "right")),
)  # fmt: skip
def test_boards_and_what_is_judged_are_one_and_leave_the_arch_free(
    start: int, long: int, wide: int, high: int, side: str
) -> None:
    wing = WING.but(
        arch_side=side,
        arch_start=max(0, start),
        arch_length=long,
        arch_width=wide,
        arch_height=high,
    )
    found = registry.expand(wing, SITE)
    taken = notch(wing)
    assert taken is not None
    boards = [
        (p, meshes.of_part(p, s)) for p in found.parts if isinstance(p, SheetPart) for s in p.poses
    ]  # fmt: skip
    arch = mesh(Box(0 if side == "left" else 400 - min(wide, 400), max(0, start), 0,
                    min(wide, 400) if side == "left" else 400, min(1200, max(0, start) + long), high))  # fmt: skip
    cut = sum((m for _p, m in boards[1:]), boards[0][1])
    for n, (one, mine) in enumerate(boards):
        assert (mine ^ arch).volume() < 1, one.name
        for other, theirs in boards[n + 1 :]:
            assert meshes.deep(mine, theirs) < 0.01, (one.name, other.name)
    judged = [mesh(s.box) for s in found.solids if s.role == "made"]
    drawn = sum(judged[1:], judged[0])
    assert (cut - drawn).volume() + (drawn - cut).volume() < 1
    held = [mesh(s.box) for s in found.solids if s.role == "contents"]
    for goods in held:
        assert (goods ^ cut).volume() < 1
        assert (goods ^ arch).volume() < 1


def test_an_arch_as_high_as_the_wing_is_refused_in_words() -> None:
    tall = WING.but(arch_length=300, arch_width=100, arch_height=390)
    with pytest.raises(InputError, match="no room under the lid"):
        registry.expand(tall, SITE)


def over_the_arch() -> Job:
    """The pickup of the demo with one wing on the floor, over the left arch: 620 to 1400 behind the front, 225 wide."""
    job = demo_job("lowfold")
    wing = Wing(id="w", name="Wing", bay="B", u=0, v=15, w=0, width=400, depth=1400, height=400)
    return msgspec.structs.replace(job, units=(wing,), sets=(), runs=())


def test_what_stands_in_an_arch_is_built_round_it_by_a_fix() -> None:
    verdict = judge(over_the_arch())
    hit = next(f for f in verdict.findings if f.code == "fit.arch")
    fix = fixes(verdict, hit)[0]
    assert fix.words == "Build Wing round the wheel arch"
    # From the tailgate: the hold is 1560 long, the bay begins 22 inside it, the wing 15 further.
    assert fix.changes == {
        "arch_side": "left", "arch_start": 1560 - 22 - 1400 - 15 - GAP, "arch_length": 780 + 2 * GAP,
        "arch_width": 225 - 22 + GAP, "arch_height": 230 + GAP,
    }  # fmt: skip
    mended = judge(applied(verdict.job, fix))
    assert not [f for f in mended.findings if f.code.startswith("fit.")]


def test_an_arch_is_on_the_other_hand_where_one_faces_the_bay_from_the_other_side() -> None:
    arch = Box(-30, 200, -5, 150, 700, 200)
    assert around(WING, arch, "rear")["arch_side"] == "left"
    assert around(WING, arch, "right")["arch_side"] == "right"
    assert around(WING, arch.moved(100, 0), "rear") == {}
    assert around(WING, arch._replace(z1=390), "rear") == {}
