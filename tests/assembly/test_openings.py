"""Openings: their ids, where they stand, what is fixed around them, and what memory keeps."""

import msgspec
import pytest
from tests.builders import expand

from roomy_hull.assembly.assemble import assemble
from roomy_hull.core.geometry.motion import Moved, Step
from roomy_hull.core.geometry.solids import hull
from roomy_hull.formats.demo import demo_job
from roomy_hull.job.body import Trundle, UnderBox
from roomy_hull.job.edits import units as edits
from roomy_hull.job.edits.resizing import resized
from roomy_hull.job.model import Job
from roomy_hull.kit import catalogue as stores
from roomy_hull.kit.body import doors
from roomy_hull.verdict.verdict import judge


def with_tray(job: Job, **changes: object) -> Job:
    tray = job.body.tray.but(**changes)
    return msgspec.structs.replace(job, body=msgspec.structs.replace(job.body, tray=tray))


def test_ids_tell_whose_and_which(demo: Job) -> None:
    found = {o.id: o for o in assemble(demo).openings()}
    assert list(found)[:3] == ["door:left", "door:right", "door:rear"]
    assert found["galley:2"].owner == "galley"
    assert found["galley:2"].name == "Galley drawers 2"
    assert found["gas:door"].turns
    assert not found["tools"].turns
    assert found["awning"].kind == "outside"
    assert found["door:left"].owner == ""
    assert {o.side for o in found.values()} == {"left", "right", "rear"}


def test_boxes_hold_their_pieces_and_the_way_holds_both_ends(demo: Job) -> None:
    for name in ("brackwater", "lowfold", "tarn"):
        for o in assemble(demo_job(name)).openings():
            assert o.rest_box == hull(p.box for p in o.rest)
            assert o.opened_box == hull(p.box for p in o.opened)
            for box in (o.rest_box, o.opened_box):
                assert all(a <= b + 1e-6 for a, b in zip(o.swept_box[:3], box[:3], strict=True)), (
                    o.id
                )
                assert all(a >= b - 1e-6 for a, b in zip(o.swept_box[3:], box[3:], strict=True)), (
                    o.id
                )


def test_units_come_out_at_their_side(demo: Job) -> None:
    canopy = assemble(demo).ground.canopy
    assert canopy is not None
    for o in assemble(demo).openings():
        if o.kind == "unit":
            out = {"left": canopy.y0 - o.opened_box.y0, "right": o.opened_box.y1 - canopy.y1,
                   "rear": o.opened_box.x1 - canopy.x1}[o.side]  # fmt: skip
            assert out > 50, o.id


def test_a_unit_that_only_moved_carries_its_motions_along(demo: Job) -> None:
    first = assemble(demo)
    moved = assemble(edits.changed(demo, "tools", u=500.0), first)
    a, b = first.opening("tools"), moved.opening("tools")
    assert a is not None
    assert b is not None
    assert b.motion is a.motion
    assert b.opened_box == a.opened_box.moved(25)
    assert moved.opening("camp") is first.opening("camp")


def test_without_what_opens_the_rest_is_the_same(demo: Job) -> None:
    quick, whole = assemble(demo, opens=False), assemble(demo)
    assert quick.openings() == []
    assert [t.envelope for t in quick.things] == [t.envelope for t in whole.things]
    assert quick.masses() == whole.masses()


def test_what_never_moves_leaves_out_what_opens(demo: Job) -> None:
    job = with_tray(demo, sides=250.0, trundle=Trundle(length=900, width=600, height=200))
    ground = assemble(job).ground
    names = [p.ref.id for p in ground.fixed]
    assert {
        "ground",
        "cab",
        "floor",
        "headboard",
        "left rear wheel",
        "right front wheel",
        "canopy roof",
    } <= set(names)
    assert not {"side left", "tail", "trundle drawer"} & set(names)
    assert {"tray:side-left", "tray:side-right", "tray:tail", "tray:trundle"} <= {
        o.id for o in ground.openings
    }
    assert ground.fixed[0].piece.hi == 0


def test_the_trundle_drawer_waits_for_the_tail_or_passes_below_it(demo: Job) -> None:
    job = with_tray(demo, trundle=Trundle(length=650, width=560, height=160))
    job = edits.removed(edits.removed(job, "spare"), "jerry-1")
    verdict = judge(msgspec.structs.replace(job, sets=(), runs=()))
    trundle = verdict.assembly.opening("tray:trundle")
    assert trundle is not None
    assert trundle.opened_box.x1 == pytest.approx(trundle.rest_box.x1 + 0.9 * 650)
    assert not [
        f for f in verdict.findings if f.code == "move.blocked" and "tray:trundle" in f.words
    ]


def test_a_toolbox_door_lets_down_clear_of_the_ground(demo: Job) -> None:
    box = UnderBox(id="ahead-left", side="left", place="ahead", length=500, height=350, depth=400)
    verdict = judge(with_tray(demo, boxes=(box,)))
    opening = verdict.assembly.opening("tray:box-ahead-left")
    assert opening is not None
    assert opening.opened_box.z0 > 0
    assert opening.opened_box.y0 < opening.rest_box.y0 - 250


@pytest.mark.parametrize("side", ["left", "right", "rear"])
@pytest.mark.parametrize(
    ("hinge", "degrees"), [("top", 90), ("bottom", 90), ("start", 90), ("end", 90)]
)
def test_a_leaf_turned_by_a_quarter_stands_straight_out(
    demo: Job, side: str, hinge: str, degrees: float
) -> None:
    job = resized(demo, f"body.canopy.doors.{side}.hinge", hinge)
    job = resized(job, f"body.canopy.doors.{side}.swing", degrees)
    opening = assemble(job).opening(f"door:{side}")
    assert opening is not None
    rest, wide = opening.rest_box, opening.opened_box
    reach = (
        rest.z1 - rest.z0
        if hinge in ("top", "bottom")
        else max(rest.x1 - rest.x0, rest.y1 - rest.y0)
    )
    out = {"left": rest.y1 - wide.y0, "right": wide.y1 - rest.y0, "rear": wide.x1 - rest.x0}[side]
    thick = 30.0
    assert reach <= out <= reach + 2 * thick + 3 * doors.PANEL_GAP  # type: ignore[attr-defined]
    if hinge == "bottom":
        # Level, it lies below its sill.
        assert wide.z1 < rest.z0


def test_a_thing_keeps_apart_what_stays_and_what_moves(demo: Job) -> None:
    there = assemble(demo)
    tools, shelf = there.thing("tools"), there.thing("sample-shelf")
    assert tools is not None
    assert shelf is not None
    assert 0 < len(tools.still) < len(tools.solids)
    assert shelf.still == shelf.solids
    spare = there.thing("spare")
    assert spare is not None
    assert spare.still == ()


def test_an_endless_motion_is_told_and_the_unit_kept(
    demo: Job, monkeypatch: pytest.MonkeyPatch
) -> None:
    made = stores.entry("pantry").make
    assert not hasattr(made, "x")
    job = edits.added(
        msgspec.structs.replace(demo, units=(), sets=(), runs=()), made.but(bay="R", u=100.0)
    )
    plain = expand(job.units[0])
    odd = msgspec.structs.replace(
        plain.motions[0], moved=(Moved(plain.envelope),), steps=(Step("slide", 1, 0.0),)
    )
    broken = msgspec.structs.replace(plain, motions=(odd,))
    monkeypatch.setattr("roomy_hull.assembly.assemble.expand", lambda *_a: broken)
    verdict = judge(job)
    hit = next(f for f in verdict.findings if f.code == "fit.unit")
    assert "the step 'slide' never ends" in hit.title
    assert verdict.assembly.things[0].openings == ()
