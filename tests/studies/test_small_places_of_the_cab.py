"""Door pockets and a console: where they go, what they weigh, who gets at what is in them, how they are drawn."""

import msgspec
import pytest
from tests.builders import begun, hung

from roomy_hull.core.refs import Ref
from roomy_hull.drawing.scenes.body import carried
from roomy_hull.drawing.view import ELEVATION
from roomy_hull.formats.vehiclefile import library
from roomy_hull.job.goods import Good
from roomy_hull.kit.body import fitting
from roomy_hull.session.pages.access.words import where_words
from roomy_hull.verdict.verdict import judge

FIRST = {v.vehicle.name: fitting.choices(v.vehicle)[0] for v in library()}  # type: ignore[arg-type, union-attr]


@pytest.mark.parametrize("name", FIRST)
def test_they_find_room_in_every_cab(name: str) -> None:
    job = hung(begun(name, FIRST[name]), "door-pocket", "door-pocket", "console", station="left")
    verdict = judge(job)
    assert not [f for f in verdict.findings if f.code.startswith("fit.")]
    left, right, between = (t.envelope for t in verdict.assembly.things)
    assert left.y1 < between.y0 < between.y1 < right.y0
    assert (left.x0, left.y0) == pytest.approx((right.x0, -right.y1))
    # Those who sit in front reach them: not behind the cab, not before the screen.
    for box in (left, right, between):
        assert job.vehicle.shape.windscreen < box.x0 < box.x1 < job.vehicle.cab_back


def test_a_dual_cab_has_four_of_them() -> None:
    job = hung(begun("Marl 2.8 dual", "short canopy"), *("door-pocket",) * 4, station="left")
    assert not [f for f in judge(job).findings if f.code.startswith("fit.")]
    assert len({(c.x, c.y) for c in job.carried}) == 4


def test_what_is_in_a_pocket_is_weighed_there_and_in_the_cab() -> None:
    job = hung(begun("Fen", "bare tray"), "door-pocket", "console", station="left")
    torch = Good(id="torch", name="Torch", mass=3.0, place="door-pocket", use="now")
    before, after = judge(job), judge(msgspec.structs.replace(job, goods=(torch,)))
    own = [m for m in after.assembly.masses() if m.owner == Ref("carried", "door-pocket")]
    pocket = job.carried[0]
    assert sum(m.kg for m in own) == pytest.approx(pocket.mass + 3.0)
    assert all(m.x == pytest.approx(pocket.x) for m in own if m.kg)
    assert sum(m.kg for m in before.assembly.masses()) == pytest.approx(
        sum(m.kg for m in after.assembly.masses()) - 3.0 + pocket.contents
    )
    (row,) = after.access.stowed
    assert (row.where, row.space, row.over("now")) == ("cab", -1, False)
    assert where_words(after, torch, row.space) == "Door pocket"
    assert not [s for s in after.access.spaces if s.owner in ("door-pocket", "console")]


def test_they_are_drawn_behind_the_skin() -> None:
    verdict = judge(hung(begun("Fen", "bare tray"), "door-pocket", station="left"))
    (stroke,) = carried(verdict.assembly.things[0], ELEVATION["left"], "")
    assert stroke.role == "behind skin"
