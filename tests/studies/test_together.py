"""What can be open together: relations, order, the owner's sets, and the cheapest change."""

import itertools

import msgspec
import numpy as np
import pytest
from tests.builders import again, bare, canopy_of, context, once, with_canopy

from roomy_hull.assembly.assemble import assemble
from roomy_hull.assembly.motions import Opening
from roomy_hull.assembly.study import Study
from roomy_hull.core.findings import Finding
from roomy_hull.core.geometry.near import beside
from roomy_hull.core.graphs import circles, in_order
from roomy_hull.core.refs import Ref
from roomy_hull.job.carried import Carried
from roomy_hull.job.edits import layouts
from roomy_hull.job.edits import units as edits
from roomy_hull.job.edits.resizing import resized
from roomy_hull.job.model import Job, Move, RunThrough, TogetherSet
from roomy_hull.kinds.fridge import Fridge
from roomy_hull.kinds.placed import Placed
from roomy_hull.kit.catalogue import entries
from roomy_hull.studies.fit import together
from roomy_hull.studies.fit.mending import applied
from roomy_hull.studies.fit.plans import most_open, plan
from roomy_hull.studies.fit.run_through import play
from roomy_hull.studies.fit.together import Togetherness
from roomy_hull.verdict.verdict import Verdict, fixes, judge

TOGETHER = Study(together.KEY, together.study)


def found(job: Job) -> Togetherness:
    return together.study(context(assemble(job)))


def hits(verdict: Verdict, code: str) -> list[Finding]:
    return [f for f in verdict.findings if f.code == code]


def with_sets(job: Job, *sets: TogetherSet) -> Job:
    return msgspec.structs.replace(job, sets=sets)


def test_a_unit_waits_for_its_door_and_a_door_for_what_hangs_behind_it(
    demo_verdict: Verdict,
) -> None:
    seen = demo_verdict.together
    assert seen.relation("door:left", "wet-bench") == "x first"
    assert seen.relation("wet-bench", "door:left") == "y first"
    assert seen.needs["door:rear"] == {"spare", "jerry-1"}
    assert seen.relation("galley:2", "galley:1") == "clear"
    # The right leaf of the bench stands where the lower galley drawer comes out.
    assert seen.relation("wet-bench", "galley:1") == "never"
    meeting = seen.meeting("wet-bench", "galley:1")
    assert meeting is not None
    assert meeting.clashes
    bench, drawer = (
        demo_verdict.assembly.opening("wet-bench"),
        demo_verdict.assembly.opening("galley:1"),
    )
    assert bench is not None
    assert drawer is not None
    assert bench.swept_box.common(meeting.where) or drawer.swept_box.common(meeting.where)


def test_relations_are_the_same_from_either_side(demo_verdict: Verdict) -> None:
    swap = {"x first": "y first", "y first": "x first"}
    seen = demo_verdict.together
    keys = [o.id for o in seen.openings]
    for x in keys:
        for y in keys:
            if x != y:
                one = seen.relation(x, y)
                assert seen.relation(y, x) == swap.get(one, one)


def test_memory_never_alters_what_meets_what(demo: Job) -> None:
    job, memory = demo, once(TOGETHER, assemble(demo))
    for key, change in (("wet-bench", {"u": 375.0}), ("spare", {"hand": "left"}), ("sample-fridge", {"hinge": "right"}),
                        ("battery", {"v": 0.0}), ("spare", {"hand": "right"})):  # fmt: skip
        job = edits.changed(job, key, **change)
        there = assemble(job, assemble(demo))
        memory = again(TOGETHER, there, memory)
        seen, fresh = memory.results[together.KEY], found(job)
        assert (seen.shut, seen.opened, seen.needs) == (fresh.shut, fresh.opened, fresh.needs)
        assert (list(seen.shut), list(seen.opened)) == (list(fresh.shut), list(fresh.opened))
        assert {k: set(v) for k, v in seen.still.items()} == {
            k: set(v) for k, v in fresh.still.items()
        }
    gone = edits.removed(job, "spare")
    seen = again(TOGETHER, assemble(gone), memory).results[together.KEY]
    assert not any("spare" in pair for pair in (*seen.shut, *seen.opened))


def test_only_what_changed_is_tested_again(demo: Job) -> None:
    first = assemble(demo)
    seen = once(TOGETHER, first)
    moving = first.shop.rules.moving_gap

    def near(openings: tuple[Opening, ...]) -> list[tuple[Opening, Opening]]:
        pairs = itertools.combinations(openings, 2)
        return [(x, y) for x, y in pairs if not beside(x.swept_box, y.swept_box, moving)]

    assert seen.results[together.KEY].pairs_tested == len(near(tuple(first.openings())))
    there = assemble(edits.changed(demo, "tools", u=500.0), first)
    later = again(TOGETHER, there, seen).results[together.KEY]
    own = [pair for pair in near(tuple(there.openings())) if "tools" in {o.owner for o in pair}]
    assert 0 < later.pairs_tested == len(own)


def test_a_set_gets_an_order_and_what_it_needs_besides(demo_verdict: Verdict) -> None:
    made = plan(demo_verdict.together, ("recovery",))
    assert made.holds
    assert made.order[-1] == "recovery"
    assert set(made.extra) == {"door:rear", "spare", "jerry-1"}
    assert made.order.index("spare") < made.order.index("door:rear")
    broken = plan(demo_verdict.together, ("wet-bench", "galley:1"))
    assert not broken.holds
    assert {broken.conflicts[0][0], broken.conflicts[0][1]} == {"wet-bench", "galley:1"}
    assert plan(demo_verdict.together, ("nothing",)).missing == ("nothing",)


def test_as_much_as_goes_is_opened(demo_verdict: Verdict) -> None:
    keys = tuple(o.id for o in demo_verdict.together.openings if o.side == "left")
    chosen = most_open(demo_verdict.together, keys)
    assert plan(demo_verdict.together, chosen).holds
    left = set(keys) - set(chosen)
    assert left == {"galley:1"}  # the lesser of the two that meet


def test_a_bracket_of_the_wrong_hand_breaks_the_set_and_the_other_hand_is_offered(
    demo: Job,
) -> None:
    wrong = edits.changed(demo, "shower", hand="left")
    verdict = judge(wrong)
    hit = next(f for f in hits(verdict, "move.set") if "washing" in f.words)
    assert hit.severity == "look"
    assert "Shower tent" in hit.title
    assert hit.measured is not None
    assert hit.measured > 0
    conflicts = plan(
        verdict.together, next(s for s in wrong.sets if s.id == "washing").members
    ).conflicts
    assert len({frozenset((x, str(y))) for x, y, _m in conflicts}) == len(conflicts)
    offered = fixes(verdict, hit)
    assert offered[0].words == "Take the right-handed Shower tent"
    assert not hits(judge(applied(wrong, offered[0])), "move.set")


def without_struts(job: Job) -> Job:
    return with_canopy(job, doors=tuple(d.but(strut=None) for d in canopy_of(job).doors))


def test_an_upright_fridge_against_its_neighbour_gets_its_hinge_moved(demo: Job) -> None:
    empty = without_struts(msgspec.structs.replace(demo, units=(), carried=(), sets=(), runs=()))
    fridge = Fridge(
        id="f",
        name="Upright",
        bay="R",
        u=25,
        width=475,
        depth=500,
        height=620,
        style="upright",
        hinge="right",
    )
    place = assemble(empty).ground.bays["R"]
    x, y, z = place.frame.point(-80.0, -415.0, 0.0)
    # A low post outside, ahead of the fridge: below the canopy door's way, within the fridge door's.
    post = Carried(
        id="post", name="Post", x=x, y=y, z=0, length=40, width=60, height=z + 90, mass=3
    )
    job = edits.added(edits.added(empty, fridge), post)
    job = with_sets(job, TogetherSet(id="s", name="Cold", members=("door:right", "f")))
    verdict = judge(job)
    # On the right side the right of whoever faces it is the front end, where the post stands.
    hit = hits(verdict, "move.set")[0]
    assert "Upright meets Post" in hit.title
    offered = fixes(verdict, hit)
    assert offered[0].words == "Hinge Upright at the left"
    assert not hits(judge(applied(job, offered[0])), "move.set")


def test_a_fixed_wheel_behind_the_rear_door_is_a_stop_and_a_hinge_or_place_may_help(
    demo: Job,
) -> None:
    job = edits.changed(demo, "spare", turn=0.0)
    verdict = judge(job)
    hit = next(f for f in hits(verdict, "move.blocked") if f.words[0] == "door:rear")
    assert hit.severity == "stop"
    assert hit.title == "Rear door cannot open: Spare wheel is in its way"
    offered = fixes(verdict, hit)
    assert "Hang Spare wheel on a carrier that swings to the right" in [f.words for f in offered]
    for fix in offered:
        after = judge(applied(job, fix))
        assert not any(f.words[:2] == hit.words[:2] for f in hits(after, "move.blocked")), fix.words


def test_a_drop_slide_that_goes_too_low_reaches_the_ground(demo: Job) -> None:
    verdict = judge(edits.changed(demo, "sample-fridge", drop=1200.0))
    assert "Sample fridge reaches the ground" in [f.title for f in hits(verdict, "move.blocked")]


@pytest.mark.parametrize("deep", [16.0, -5.0])
def test_the_platform_under_a_drop_slides_load_reaches_the_ground_first(
    demo: Job, deep: float
) -> None:
    poses = judge(demo).assembly.thing("sample-fridge").envelope.z0  # type: ignore[union-attr]
    lowered = judge(edits.changed(demo, "sample-fridge", drop=poses + deep))
    hit = [
        f for f in hits(lowered, "move.blocked") if f.title == "Sample fridge reaches the ground"
    ]
    assert [f.measured for f in hit] == ([pytest.approx(deep)] if deep > 0 else [])


def test_a_lid_that_opens_part_of_the_way_is_a_look(demo: Job) -> None:
    verdict = judge(edits.changed(demo, "sample-fridge", slide_style="plain"))
    # One lid, one finding, with all that it meets, each in its place.
    (hit,) = (f for f in hits(verdict, "move.blocked") if "sample-fridge" in f.words)
    met = verdict.together.still["sample-fridge"]
    walls = [what.word for what, m in met if m.clashes]
    assert len(walls) > 1
    assert hit.title == (
        "Sample fridge comes out, but does not open all the way: "
        f"{', '.join(walls)} and Right door are in its way"
    )
    assert hit.severity == "look"
    assert hit.words == ("sample-fridge", *walls, "door:right")
    assert len(hit.where) == len(walls) + 1
    deepest = max(-m.gap for _what, m in met)
    shut, opened = (
        d["sample-fridge", "door:right"] for d in (verdict.together.shut, verdict.together.opened)
    )
    assert hit.measured == pytest.approx(max(deepest, -(opened if opened.late else shut).gap))
    assert "Put Sample fridge on a drop slide" in [f.words for f in fixes(verdict, hit)]


def test_two_that_wait_for_each_other_are_a_stop() -> None:
    assert circles({"a": ("b",), "b": ("c",), "c": ("a",), "d": ("a",)}) == [("a", "b", "c")]
    assert circles({"a": ("b",), "b": ()}) == []
    assert circles({"a": ("a",)}) == [("a",)]
    assert in_order(["c", "b", "a"], {"a": ("b",), "b": ("c",)}) == ["a", "b", "c"]
    assert in_order(["a", "b"], {"a": ("b",), "b": ("a",)}) is None
    assert in_order(["a", "b"], {}) == ["a", "b"]


def test_a_carrier_and_a_tent_that_lock_each_other_are_a_deadlock(demo: Job) -> None:
    bare = msgspec.structs.replace(demo, carried=(), sets=(), runs=())
    one = Carried(id="one", name="One", kind="spare wheel", x=3900, y=-200, z=600, length=200, width=380,
                  height=500, mass=30, turn=100, hand="left", reach=40)  # fmt: skip
    other = one.but(id="other", name="Other", y=260, x=4150, hand="right")
    first = edits.added(edits.added(bare, one), other)
    seen = found(first)
    assert seen.relation("one", "other") in {"clear", "x first", "y first", "never", "near"}
    blocked = one.but(id="wall", name="Wall", x=4150, y=-240, turn=0.0, width=900)
    verdict = judge(edits.added(edits.added(bare, one), blocked))
    assert "Carrier of One cannot open: Wall is in its way" in [
        f.title for f in hits(verdict, "move.blocked")
    ]


def test_the_demo_runs_go_through_and_count_their_actions(demo: Job, demo_verdict: Verdict) -> None:
    v = demo_verdict
    results = {r.id: play(v.assembly, v.together, v.in_out, r) for r in demo.runs}
    assert {k: (r.through, r.actions) for k, r in results.items()} == {
        "camp": (True, 6), "bogged": (True, 4), "work": (True, 2)
    }  # fmt: skip
    assert results["camp"].played[-1].opened == {m.what for m in demo.runs[0].moves}
    assert results["work"].played[-1].canopy is False


@pytest.mark.parametrize(
    ("moves", "at", "says"),
    [
        ((("open", "wet-bench"),), 1, "Left door is in its way, and it is closed"),
        ((("open", "door:rear"),), 1, "Carrier of Spare wheel is in its way"),
        ((("open", "door:left"), ("open", "door:left")), 2, "is open already"),
        ((("close", "door:left"),), 1, "is closed already"),
        ((("open", "door:left"), ("canopy off", "")), 2, "Close Left door before"),
        ((("canopy off", ""), ("open", "tools")), 2, "is not there"),
        ((("canopy on", ""),), 1, "is on already"),
        ((("open", "moon"),), 1, "no 'moon' that opens"),
        ((("take out", "battery"),), 1, "cannot come out before Ringing kit"),
        ((("take out", "bedding"),), 1, "Right door has to be open before"),
        (
            (("open", "door:right"), ("take out", "bedding"), ("take out", "bedding")),
            3,
            "not there any more",
        ),
        ((("take out", "moon"),), 1, "no 'moon' to take out"),
        (
            (("open", "door:left"), ("open", "wet-bench"), ("open", "galley:1")),
            3,
            "Wet bench is in its way",
        ),
        ((("open", "door:left"), ("open", "wet-bench"), ("close", "door:left")), 3, "cannot close"),
    ],
)
def test_a_run_through_stops_at_the_first_conflict(
    demo: Job, demo_verdict: Verdict, moves: tuple[tuple[str, str], ...], at: int, says: str
) -> None:
    run = RunThrough(id="r", name="R", moves=tuple(Move(do=d, what=w) for d, w in moves))  # type: ignore[arg-type]
    v = demo_verdict
    result = play(v.assembly, v.together, v.in_out, run)
    assert not result.through
    assert len(result.played) == at
    assert result.actions == at - 1
    assert says in result.played[-1].words
    job = msgspec.structs.replace(demo, runs=(run,))
    assert hits(judge(job), "move.run")[0].title.startswith("Run-through 'R' stops: ")


def test_a_door_with_another_hinge_sweeps_elsewhere(demo: Job) -> None:
    boxes = {}
    for hinge in ("top", "bottom", "start", "end"):
        job = resized(demo, "body.canopy.doors.left.hinge", hinge)
        opening = assemble(job).opening("door:left")
        assert opening is not None
        boxes[hinge] = opening.opened_box
    rest = assemble(demo).opening("door:left").rest_box  # type: ignore[union-attr]
    assert boxes["top"].z1 > rest.z1
    assert boxes["bottom"].z0 < rest.z0
    assert boxes["start"].x1 < rest.centre()[0]
    assert boxes["end"].x0 > rest.centre()[0]
    assert all(b.y0 < rest.y0 - 500 for b in boxes.values())
    halves = assemble(resized(demo, "body.canopy.doors.left.split", 300.0))
    assert [o.id for o in halves.openings()][:2] == ["door:left", "door:left:half"]


def test_drop_sides_stand_before_the_doors_until_they_are_let_down(demo: Job) -> None:
    job = resized(demo, "body.tray.sides", 280.0)
    seen = judge(job).together
    assert "tray:side-left" in seen.needs["wet-bench"]
    assert seen.relation("tray:side-left", "door:left") in {"clear", "near", "x first"}


def test_sets_of_a_variant_that_lacks_something_say_so(demo: Job) -> None:
    job = edits.removed(layouts.kept(demo, "B"), "wet-bench")
    assert any("'wet-bench', which does not open" in f.title for f in judge(job).findings)


@pytest.mark.parametrize(("gap", "near"), [(4.0, True), (9.0, True), (11.0, False), (-3.0, True)])
def test_what_turns_is_found_before_it_touches(demo: Job, gap: float, near: bool) -> None:
    # A carrier that swings out beside a can: how near it comes is told up to the gap that is wanted.
    spare = Carried(id="spare", name="Spare", kind="spare wheel", x=4200, y=0, z=900, length=270, width=800,
                    height=800, mass=50, turn=90.0, hand="left")  # fmt: skip
    alone = assemble(bare(demo, carried=(spare,)))
    opening = next(o for o in alone.openings() if o.owner == "spare")
    swept = opening.swept_box
    # How far aft it truly reaches: its corners turned by a thousandth of the way at a time.
    (step,), (rest,) = opening.motion.steps, opening.motion.moved
    corner = next(t for t in alone.things if t.id == "spare").envelope
    angles = np.radians(np.linspace(0, step.by, 1001))
    px, py = step.pivot
    reach = max(
        (px + (x - px) * np.cos(angles) - (y - py) * np.sin(angles)).max()
        for x in (rest.box.x0, rest.box.x1)
        for y in (rest.box.y0, rest.box.y1)
    )
    far = corner.x0 + reach
    can = Carried(id="can", name="Can", kind="jerry", x=far + gap + 85, y=(swept.y0 + swept.y1) / 2, z=900,
                  length=170, width=900, height=465, mass=5)  # fmt: skip
    seen = found(bare(demo, carried=(spare, can)))
    met = [m for what, m in seen.still.get("spare", ()) if what == Ref("carried", "can")]
    assert bool(met) == near
    if near:
        # Whether they meet is decided closely; the figure errs on the safe side by the sweep's allowance.
        assert gap - together.ALLOWANCE <= met[0].gap <= gap + 0.05


@pytest.mark.parametrize("high", [60.0, 120.0, 240.0, 300.0])
def test_a_drop_side_beside_the_floor_clears_it_all_the_way_down(demo: Job, high: float) -> None:
    # Hinged at its lower outer edge it never enters the floor; the sweep's own allowance is no clash.
    tray = demo.body.tray.but(sides=high)
    seen = found(msgspec.structs.replace(demo, body=demo.body.but(tray=tray)))
    sides = [o.id for o in seen.openings if o.id.startswith(("tray:side", "tray:tail"))]
    assert len(sides) == 3
    for key in sides:
        assert not [what.word for what, m in seen.still.get(key, ()) if m.clashes]


def test_what_opens_into_a_doors_edge_says_how_far_it_has_to_move_and_offers_it(demo: Job) -> None:
    # An upright fridge whose top is 5 under the roof: its own leaf meets the head, and the right door standing open.
    fridge = next(o.make for o in entries() if o.key == "fridge-upright")
    assert isinstance(fridge, Placed)
    placed = fridge.but(id="f", bay="R", u=300.0, w=270.0)
    verdict = judge(msgspec.structs.replace(demo, units=(placed,), sets=(), runs=()))
    (hit,) = [f for f in verdict.findings if f.code == "move.blocked"]
    assert hit.measured is not None
    assert hit.measured < 30
    fix = fixes(verdict, hit)[0]
    by = placed.w - float(fix.changes["w"])
    assert hit.measured <= by <= hit.measured + verdict.assembly.shop.rules.moving_gap + 1
    lower = judge(edits.changed(verdict.job, "f", **fix.changes))
    assert not [f for f in lower.findings if f.code.startswith("move.")]
