"""In and out: what blocks what, the order of fitting, and ways through an opening."""

import msgspec
import pytest
from tests.builders import again, context, once

from roomy_hull.assembly.assemble import assemble
from roomy_hull.job.edits import units as edits
from roomy_hull.job.model import Job
from roomy_hull.kinds.device import Device
from roomy_hull.kinds.drawer import Drawer
from roomy_hull.kinds.own import Block, Own
from roomy_hull.kinds.pocket import Pocket
from roomy_hull.studies.fit import in_out
from roomy_hull.studies.fit.in_out import InOut
from roomy_hull.studies.fit.passage import PLAY, passage
from roomy_hull.verdict.verdict import judge


def found(job: Job) -> InOut:
    return in_out.study(context(assemble(job)))


def test_what_stands_in_front_or_rests_on_a_unit_comes_out_first(demo: Job) -> None:
    seen = found(demo)
    assert set(seen.blockers("battery")) == {"bird-bags", "fuses", "first-aid"}
    assert seen.blockers("wet-bench") == ("net-drawer",)
    assert seen.before("wet-bench") == ("field-lab", "net-drawer")
    assert seen.before("sample-fridge") == ()
    assert seen.before("poles") == ("optics-cases", "gas")


def test_the_order_of_fitting_is_the_order_of_taking_out_turned_round(demo: Job) -> None:
    seen = found(demo)
    for order in seen.order.values():
        for n, key in enumerate(order):
            assert set(seen.before(key)) <= set(order[n + 1 :])
    assert {k for o in seen.order.values() for k in o} == {u.id for u in demo.units}


def test_memory_never_alters_it_and_unchanged_bays_are_kept(demo: Job) -> None:
    memory, job = once(in_out.STUDY, assemble(demo)), demo
    for key, change in (("net-drawer", {"w": 340.0}), ("battery", {"v": 400.0}), ("bird-bags", {"v": 90.0}),
                        ("waders", {"u": 50.0}), ("battery", {"bay": "B", "v": 0.0})):  # fmt: skip
        job = edits.changed(job, key, **change)
        memory = again(in_out.STUDY, assemble(job, assemble(demo)), memory)
        seen = memory.results[in_out.KEY]
        assert {k: (b.blockers, b.order, b.circles) for k, b in seen.bays.items()} == {
            k: (b.blockers, b.order, b.circles) for k, b in found(job).bays.items()
        }
    base = assemble(demo)
    first = once(in_out.STUDY, base)
    second = again(in_out.STUDY, assemble(edits.changed(demo, "waders", u=50.0), base), first)
    old, new = first.results[in_out.KEY], second.results[in_out.KEY]
    assert new.bays["L"] is old.bays["L"]
    assert new.bays["B"] is not old.bays["B"]


def test_two_that_block_each_other_are_a_stop(demo: Job) -> None:
    bare = msgspec.structs.replace(demo, units=(), sets=(), runs=())
    canopy = demo.body.canopy
    assert canopy is not None
    # The opening begins 400 along the wall: what stands ahead of it is first pushed aft.
    bays = tuple(b.but(margin_start=400.0) if b.id == "R" else b for b in canopy.bays)
    body = msgspec.structs.replace(demo.body, canopy=msgspec.structs.replace(canopy, bays=bays))
    bare = msgspec.structs.replace(bare, body=body)
    pusher = Pocket(id="a", name="Ahead", bay="R", u=0, v=300, width=380, depth=300, height=300)
    middle = Device(
        id="b",
        name="Behind",
        bay="R",
        u=500,
        v=350,
        width=200,
        depth=200,
        height=200,
        what="battery",
        mass=9,
    )
    lid = Drawer(
        id="c", name="On both", bay="R", u=200, v=300, w=303, width=500, depth=300, height=200
    )
    job = edits.added(edits.added(edits.added(bare, pusher), middle), lid)
    assert found(job).blockers("a") == ("b", "c")
    front = Pocket(id="d", name="Front", bay="R", u=500, v=0, width=300, depth=300, height=250)
    high = Device(
        id="e",
        name="High",
        bay="R",
        u=520,
        v=40,
        w=255,
        width=900,
        depth=500,
        height=40,
        what="charger",
        mass=2,
    )
    circle = edits.added(edits.added(job, front), high)
    seen = found(circle)
    assert "d" in seen.blockers("b")
    # Something long on top, and a unit below it that has to go up over the sill: each waits for the other.
    sill = tuple(b.but(margin_bottom=300.0) if b.id == "R" else b for b in bays)
    deep = msgspec.structs.replace(circle, body=msgspec.structs.replace(
        body, canopy=msgspec.structs.replace(canopy, bays=sill)))  # fmt: skip
    shelf = edits.changed(deep, "e", v=0.0, depth=600.0)
    assert found(shelf).blockers("d")
    low = edits.added(
        bare, Pocket(id="p", name="Low", bay="R", u=450, v=0, width=300, depth=300, height=200)
    )
    both = edits.added(
        low,
        Pocket(id="q", name="Left of it", bay="R", u=100, v=0, width=300, depth=300, height=200),
    )
    assert found(both).blockers("q") == ("p",)
    assert found(both).circles == ()


@pytest.mark.parametrize(("skirt", "blocked"), [(0.0, ()), (120.0, ()), (300.0, ("b",))])
def test_a_bridge_is_lifted_over_what_it_stands_around(
    demo: Job, skirt: float, blocked: tuple[str, ...]
) -> None:
    # A deck of 20 on two ends, closed in front and behind as far up as the skirts; a battery of 100 between.
    def block(u: float, v: float, w: float, width: float, depth: float, height: float) -> Block:
        return Block(u=u, v=v, w=w, width=width, depth=depth, height=height)

    blocks = [
        block(0, 0, 0, 20, 400, 300),
        block(580, 0, 0, 20, 400, 300),
        block(0, 0, 300, 600, 400, 20),
    ]
    if skirt:
        blocks += [block(20, 0, 0, 560, 20, skirt), block(20, 380, 0, 560, 20, skirt)]
    bridge = Own(
        id="a",
        name="Bridge",
        bay="R",
        u=100,
        width=600,
        depth=400,
        height=320,
        blocks=tuple(blocks),
    )
    battery = Device(
        id="b", name="Battery", bay="R", u=300, v=100, width=200, depth=200, height=100 if skirt < 300 else 290,
        what="battery", mass=9,
    )  # fmt: skip
    job = msgspec.structs.replace(demo, units=(bridge, battery), sets=(), runs=())
    in_out = judge(job).in_out
    assert in_out.blockers("a") == ()
    # A skirt in front is taken out before what stands behind it.
    assert in_out.blockers("b") == (("a",) if skirt else ())
    assert in_out.circles == ()
    if blocked:
        # Under the roof there is no room to lift it over a battery as high as the skirts.
        low = msgspec.structs.replace(
            demo, units=(bridge.but(w=560.0), battery.but(w=560.0)), sets=(), runs=()
        )
        assert judge(low).in_out.circles == (("a", "b"),)


def test_a_circle_is_found_and_told(demo: Job) -> None:
    canopy = demo.body.canopy
    assert canopy is not None
    bays = tuple(
        b.but(margin_start=500.0, margin_end=500.0) if b.id == "R" else b for b in canopy.bays
    )
    body = msgspec.structs.replace(demo.body, canopy=msgspec.structs.replace(canopy, bays=bays))
    bare = msgspec.structs.replace(demo, units=(), sets=(), runs=(), body=body)
    # Each has to pass through the other's place to come to the opening in the middle.
    one = Pocket(id="a", name="Front end", bay="R", u=250, v=0, width=490, depth=300, height=200)
    other = Pocket(id="b", name="Rear end", bay="R", u=750, v=0, width=490, depth=300, height=200)
    verdict = judge(edits.added(edits.added(bare, one), other))
    assert verdict.in_out.circles == (("a", "b"),)
    hit = next(f for f in verdict.findings if f.code == "out.circle")
    assert hit.severity == "stop"
    assert hit.title == "Front end and Rear end each have to come out before the other"
    assert verdict.in_out.order["R"] == ()


@pytest.mark.parametrize(
    ("size", "bay", "opening", "how"),
    [
        ((400, 300, 500), (1500, 900, 900), (0, 0, 1500, 600), "upright"),
        # 700 high under a head of 600: on its back it is 300, and inside there is room to stand it up.
        ((400, 300, 700), (1500, 900, 900), (0, 0, 1500, 600), "tilted"),
        # As high as the bay but for its play: it cannot be stood up, its diagonal is longer.
        ((400, 500, 890), (1500, 560, 900), (0, 0, 1500, 600), "not"),
        # Wider than the opening, but its depth is not: in sideways, then turned.
        ((700, 300, 400), (1500, 900, 900), (0, 0, 500, 600), "turned"),
        ((700, 650, 400), (1500, 900, 900), (0, 0, 500, 600), "not"),
        # Too large for the bay itself.
        ((400, 300, 950), (1500, 900, 900), (0, 0, 1500, 600), "not"),
    ],
)
def test_ways_through_an_opening(
    size: tuple[float, float, float], bay: tuple[float, float, float],
    opening: tuple[float, float, float, float], how: str,
) -> None:  # fmt: skip
    made = passage(size, bay, opening)
    assert made.how == how
    assert (made.short > 0) == (how == "not")


@pytest.mark.parametrize(
    ("size", "bay", "opening", "how", "lacks"),
    [
        # A long box, narrow enough endways: in a bay of 350 it cannot be turned, in one as deep as itself it can.
        ((1200, 300, 300), (1300, 350, 900), (100, 0, 500, 900), "not", "depth"),
        ((1200, 300, 300), (1300, 1300, 900), (100, 0, 500, 900), "turned", ""),
        # On end through a narrow door, and laid over behind it: its diagonal of 949 passes under 1,000, not under 950.
        ((900, 200, 300), (1000, 220, 1000), (0, 0, 400, 950), "rolled", ""),
        ((900, 200, 300), (1000, 220, 950), (0, 0, 400, 950), "not", "depth"),
        # Deep and low, through a slot: on end and flat, back down on to its side, and over.
        ((900, 700, 200), (1000, 1100, 1200), (0, 0, 250, 760), "tilted, then rolled", ""),
        # Ten millimetres too high whichever way it lies.
        ((300, 900, 200), (320, 1000, 1000), (0, 0, 320, 190), "not", "height"),
    ],
)
def test_ways_with_a_turn_about_one_axis_after_the_other(
    size: tuple[float, float, float], bay: tuple[float, float, float],
    opening: tuple[float, float, float, float], how: str, lacks: str,
) -> None:  # fmt: skip
    made = passage(size, bay, opening, (10.0, 5.0, 0.0))
    assert (made.how, made.lacks) == (how, lacks)
    # Seen in a mirror it is the same.
    other = (bay[0] - opening[2], opening[1], bay[0] - opening[0], opening[3])
    assert passage(size, bay, other, (bay[0] - 10.0 - size[0], 5.0, 0.0)).how == how


def test_what_stands_inside_leaves_less_room_to_turn_in() -> None:
    size, bay, opening, home = (
        (900.0, 200.0, 300.0),
        (1000.0, 500.0, 1000.0),
        (0.0, 0.0, 400.0, 950.0),
        (50.0, 5.0, 0.0),
    )
    back = (0.0, 250.0, 0.0, 1000.0, 500.0, 1000.0)
    assert passage(size, bay, opening, home, (back,)).how == "rolled"
    low = (0.0, 0.0, 900.0, 1000.0, 250.0, 1000.0)
    assert passage(size, bay, opening, home, (back, low)).how == "not"


def test_a_long_box_behind_a_narrow_door_is_a_stop_that_says_why(demo: Job) -> None:
    canopy = demo.body.canopy
    assert canopy is not None
    doors = tuple(
        d.but(start=d.start + 400, length=500.0) if d.id == "right" else d for d in canopy.doors
    )
    body = msgspec.structs.replace(demo.body, canopy=msgspec.structs.replace(canopy, doors=doors))
    long = Pocket(id="long", name="Long pocket", bay="R", u=100, width=1400, depth=450, height=300)
    job = msgspec.structs.replace(demo, body=body, units=(long,), sets=(), runs=())
    hit = next(f for f in judge(job).findings if f.code == "fit.opening")
    assert hit.severity == "stop"
    assert "too shallow to turn in" in hit.title
    assert hit.measured == pytest.approx(1400 - 500)


def test_a_narrower_opening_never_lets_more_through() -> None:
    order = ["not", "tilted", "upright"]
    seen = [
        order.index(
            passage((400.0, 320.0, 700.0), (1500.0, 900.0, 900.0), (0.0, 0.0, 1500.0, head)).how
        )
        for head in (300.0, 322.0, 320 + 3 * PLAY + 12, 500.0, 690.0, 701.0)
    ]
    assert seen == sorted(seen)
    assert (seen[0], seen[-1]) == (0, 2)
    assert seen[2] >= 1


def test_a_unit_that_goes_in_tilted_is_a_note_not_a_stop(demo: Job) -> None:
    canopy = demo.body.canopy
    assert canopy is not None
    bays = tuple(b.but(margin_top=300.0) if b.id == "R" else b for b in canopy.bays)
    body = msgspec.structs.replace(demo.body, canopy=msgspec.structs.replace(canopy, bays=bays))
    tall = Pocket(id="tall", name="Tall pocket", bay="R", u=100, width=300, depth=250, height=700)
    job = msgspec.structs.replace(demo, body=body, units=(tall,), sets=(), runs=())
    hit = next(f for f in judge(job).findings if "tall" in f.words)
    assert (hit.code, hit.severity, hit.title) == (
        "fit.passage",
        "note",
        "Tall pocket goes in only tilted",
    )
