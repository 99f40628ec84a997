import msgspec
import pytest
from tests.builders import again, bare, bay_of, context, once

from jobs import crowded
from reference import conflicts
from roomy_hull.assembly.assemble import assemble
from roomy_hull.assembly.study import Study
from roomy_hull.core.findings import Finding
from roomy_hull.core.parts import SheetPart
from roomy_hull.core.refs import Ref
from roomy_hull.job.body import Arch
from roomy_hull.job.carried import Carried
from roomy_hull.job.edits import units as edits
from roomy_hull.job.model import Job
from roomy_hull.kinds.pocket import Pocket
from roomy_hull.studies.fit import closed
from roomy_hull.studies.fit import judge as fits
from roomy_hull.verdict.verdict import Verdict, fixes, judge

CLOSED = Study(closed.KEY, closed.study)


def found(verdict: Verdict, code: str) -> list[Finding]:
    return [f for f in verdict.findings if f.code == code]


def codes(job: Job) -> set[str]:
    return {f.code for f in judge(job).findings if f.code.startswith("fit")}


def test_the_demo_fits(demo: Job) -> None:
    assert codes(demo) == set()


def test_an_overlap_is_a_stop_with_the_shortest_way_out_as_its_measure(demo: Job) -> None:
    # The fridge ends at 25 + 447 = 472, the tools begin at 475; 50 mm aft it stands 47 mm inside.
    verdict = judge(edits.changed(demo, "sample-fridge", u=75.0))
    overlaps = found(verdict, "fit.overlap")
    assert {o.words for o in overlaps} == {
        ("tools", "sample-fridge"), ("optics", "sample-fridge"), ("bird-bags", "sample-fridge"),
        ("battery", "sample-fridge"),
    }  # fmt: skip
    assert {o.severity for o in overlaps} == {"stop"}
    assert overlaps[0].measured == pytest.approx(47)
    assert overlaps[0].where[0].size()[0] == pytest.approx(47, abs=7)


@pytest.mark.parametrize(
    ("key", "changes", "code", "measured"),
    [
        ("sample-fridge", {"u": -5.0}, "fit.outside.start", 5),
        ("camp", {"u": 1025.0}, "fit.outside.end", 22),
        ("tools", {"v": -12.0}, "fit.outside.front", 12),
        ("tools", {"v": 60.0}, "fit.outside.back", 20),
        ("water", {"w": -3.0}, "fit.outside.floor", 3),
        ("bedding", {"w": 500.0}, "fit.outside.roof", 85),
        # The strut beside the door's clear opening is 22 thick, from the bay's very front.
        ("sample-fridge", {"u": 0.0}, "fit.body", 22),
        ("sample-fridge", {"w": 350.0}, "fit.opening", 10),
        ("sample-fridge", {"u": 30.0}, "fit.pitch", 5),
        ("sample-fridge", {"depth": 850.0}, "fit.vent", 10),
    ],
)
def test_each_flaw_is_measured(
    demo: Job, key: str, changes: dict[str, float], code: str, measured: float
) -> None:
    verdict = judge(edits.changed(demo, key, **changes))
    hits = [f for f in found(verdict, code) if f.words[0] == key]
    assert hits, {f.code for f in verdict.findings}
    assert hits[0].measured == pytest.approx(measured)
    assert hits[0].source
    assert hits[0].where


def test_running_too_near_is_a_look_that_names_the_gap_left(demo: Job) -> None:
    verdict = judge(edits.changed(demo, "optics", w=261.0))
    hit = next(f for f in found(verdict, "fit.running") if "optics" in f.words)
    assert hit.severity == "look"
    assert hit.measured == pytest.approx(1)
    assert hit.limit == 3


def test_something_in_a_vent_names_whose_vent(demo: Job) -> None:
    job = edits.changed(demo, "sample-fridge", vent_side="right")
    verdict = judge(job)
    hit = next(f for f in found(verdict, "fit.vent"))
    assert hit.words[0] == "sample-fridge"
    assert "vent of Sample fridge" in hit.title
    # On the right side the right of whoever faces it is forward: the wall is 25 mm away there.
    assert hit.measured == pytest.approx(25)
    assert hit.limit == 40


def test_a_shelf_that_passes_the_opening_on_its_side_only(demo: Job) -> None:
    canopy = demo.body.canopy
    assert canopy is not None
    bays = tuple(
        msgspec.structs.replace(b, margin_bottom=250, margin_top=250) if b.id == "L" else b
        for b in canopy.bays
    )
    body = msgspec.structs.replace(demo.body, canopy=msgspec.structs.replace(canopy, bays=bays))
    verdict = judge(msgspec.structs.replace(demo, body=body))
    assert any("behind the sill" in f.title for f in found(verdict, "fit.opening"))
    # 440 high under a head of 395: it goes in lying on its side, 200 high, and is stood up inside.
    (hit,) = found(verdict, "fit.passage")
    assert hit.title == "Sample trays goes in only rolled over inside"
    assert hit.measured == pytest.approx(440 - 395)


def test_an_arch_is_in_the_way(demo: Job) -> None:
    flat = msgspec.structs.replace(
        demo.body.tray, arches=(Arch(start=560, length=300, width=300, height=150, side="right"),)
    )
    job = msgspec.structs.replace(demo, body=msgspec.structs.replace(demo.body, tray=flat))
    hits = found(judge(job), "fit.arch")
    assert {f.words[0] for f in hits} == {"tools"}
    assert fixes(judge(job), hits[0]) == ()
    # Without the neighbours there is room behind the arch.
    for key in ("camp", "bedding", "bird-bags", "optics"):
        job = edits.removed(job, key)
    offered = fixes(judge(job), found(judge(job), "fit.arch")[0])
    assert [f.words for f in offered] == ["Move Tool drawer 350 mm aft"]
    # At 325 mm it would clear the arch, but run against it.
    job = edits.changed(job, "tools", u=800.0)
    assert [f.title for f in found(judge(job), "fit.running")] == [
        "Tool drawer runs too near to the wheel arch"
    ]


@pytest.mark.parametrize(
    ("changes", "where"),
    [
        ({"x": 1640.0, "z": 900.0}, "cab"),
        ({"x": 2700.0, "z": 1000.0}, "divider"),
        ({"x": 3905.0, "z": -30.0}, "ground"),
    ],
)
def test_a_carried_item_stands_in_nothing(demo: Job, changes: dict[str, float], where: str) -> None:
    hits = found(judge(edits.changed(demo, "spare", **changes)), "fit.body")
    assert where in {f.words[1] for f in hits}


def test_two_carried_items_overlap_too(demo: Job) -> None:
    job = edits.changed(demo, "jerry-1", y=100.0)
    assert [f.words for f in found(judge(job), "fit.overlap")] == [("jerry-1", "spare")]


def test_a_fix_removes_its_finding(demo: Job) -> None:
    for key, changes in (
        ("sample-fridge", {"u": 75.0}), ("sample-fridge", {"u": 30.0}), ("camp", {"u": 1025.0}),
        ("bedding", {"w": 500.0}), ("bedding", {"height": 990.0}), ("sample-fridge", {"u": 0.0}),
    ):  # fmt: skip
        verdict = judge(edits.changed(demo, key, **changes))
        first = next(f for f in verdict.findings if f.code.startswith("fit"))
        offered = [f for f in fixes(verdict, first) if f.subject == Ref("unit", key)]
        assert offered, (key, first.title)
        mended = judge(edits.changed(verdict.job, key, **offered[0].changes))
        assert first.key not in {f.key for f in mended.findings}, first.title


def test_a_move_says_by_how_much_and_which_way(demo: Job) -> None:
    verdict = judge(edits.changed(demo, "sample-fridge", u=75.0))
    words = {f.words for finding in verdict.findings for f in fixes(verdict, finding)}
    assert "Move Sample fridge 50 mm forward" in words


def test_findings_of_other_studies_have_no_fit_fixes(demo: Job) -> None:
    verdict = judge(demo)
    assert len(verdict.findings) > 2
    assert not any(fits.fixes(verdict.context(), f) for f in verdict.findings)


@pytest.mark.parametrize("gap", [3.0, 1.0, -6.0])
def test_the_study_agrees_with_the_plain_reference(gap: float) -> None:
    job = crowded(60, gap=gap)
    overlaps, zones = conflicts(job)
    result = closed.study(context(assemble(job)))
    assert {k for k, v in result.pairs.items() if v[0].kind == "overlap"} == overlaps
    assert {k for k, v in result.pairs.items() if v[0].kind != "overlap"} == zones
    assert bool(overlaps) == (gap < 0)
    assert bool(zones) == (0 < gap < 3)


def test_many_changes_at_once_are_found_as_well_as_few() -> None:
    job = crowded(60)
    first = once(CLOSED, assemble(job))
    shifted = msgspec.structs.replace(
        job, units=tuple(u.but(u=u.u + 25) if n % 2 else u for n, u in enumerate(job.units))
    )
    assembly = assemble(shifted, first.assembly)
    remembered = again(CLOSED, assembly, first).results[closed.KEY]
    assert remembered.pairs == once(CLOSED, assembly).results[closed.KEY].pairs


def test_a_unit_of_the_same_name_in_another_order_keeps_its_flaws(demo: Job) -> None:
    job = edits.changed(demo, "sample-fridge", u=75.0)
    verdict = judge(job)
    turned = msgspec.structs.replace(job, units=job.units[::-1])
    other = judge(turned, verdict)
    assert {frozenset(f.words) for f in found(other, "fit.overlap")} == {
        frozenset(f.words) for f in found(verdict, "fit.overlap")
    }
    assert set(other.findings) == set(judge(turned).findings)


def test_the_whole_stores_carried_list_is_judged(demo: Job) -> None:
    tent = Carried(id="tent", name="Tent", kind="tent", x=2700, z=1700, length=1400, width=1200,
                   height=300, mass=60, mount="canopy", on_roof=True)  # fmt: skip
    hits = found(judge(edits.added(demo, tent)), "fit.body")
    assert [f.words for f in hits] == [("tent", "canopy roof", "divider")]


@pytest.mark.parametrize(
    ("side", "u", "lost"), [("right", 1600.0 - 447 - 10, 30), ("left", 12.0, 28)]
)
def test_a_vent_wants_its_room_before_the_end_of_the_bay_too(
    demo: Job, side: str, u: float, lost: float
) -> None:
    bay = bay_of(demo, "L")
    fridge = next(x for x in demo.units if x.id == "sample-fridge")
    unit = fridge.but(bay="L", u=u if side == "left" else bay.length - fridge.width - 10, v=0.0, w=0.0,
                      vent_side=side, vent=40.0)  # fmt: skip
    verdict = judge(bare(demo, unit))
    hits = found(verdict, "fit.vent")
    assert len(hits) == 1
    assert hits[0].measured == pytest.approx(40 - lost)
    assert hits[0].limit == 40
    clear = judge(bare(demo, unit.but(u=300.0)))
    assert not found(clear, "fit.vent")


@pytest.mark.parametrize("gap", [0.5, 2.9, 3.1])
def test_what_runs_is_found_beside_it_before_they_touch(demo: Job, gap: float) -> None:
    drawer = next(x for x in demo.units if x.id == "tools")
    one = drawer.but(bay="R", u=25.0, v=0.0, w=0.0)
    other = drawer.but(id="other", bay="R", u=25.0 + drawer.width + gap, v=0.0, w=0.0)
    hits = found(judge(bare(demo, one, other)), "fit.running")
    assert {round(h.measured or 0, 6) for h in hits} == ({gap} if gap < 3 else set())


def test_holes_are_drilled_where_the_rails_slots_are(demo: Job) -> None:
    def holes(job: Job) -> set[float]:
        thing = next(t for t in assemble(job).things if t.id == "tools")
        carcass = next(p for p in thing.expansion.parts if isinstance(p, SheetPart) and p.holes)
        unit = job.thing("tools")
        # On the right side the sheet lies the other way round: from its end.
        return {round((carcass.length - h.x + unit.u) % 25, 6) % 25 for h in carcass.holes}  # type: ignore[union-attr]

    before = assemble(demo)
    for u in (500.0, 507.0, 512.5, 524.9):
        job = edits.changed(demo, "tools", u=u, width=447.0)
        assert holes(job) <= {0.0, 24.9, 0.1} if u == 524.9 else holes(job) == {0.0}
        # A memory of where it stood before never leaves the old holes in.
        assert assemble(job, before).thing("tools") == assemble(job).thing("tools")
        before = assemble(job, before)


def test_a_base_too_narrow_for_two_slots_says_so_and_how_wide_it_has_to_be(demo: Job) -> None:
    slim = edits.added(demo, Pocket(id="slim", name="Slim", bay="L", u=0.0, v=0.0, w=0.0, width=60.0, depth=300.0,
                                    height=200.0))  # fmt: skip
    (hit,) = [f for f in judge(slim).findings if f.code == "fit.slots"]
    assert (hit.severity, hit.measured, hit.limit) == ("look", 60.0, 70.0)
    (fix,) = fixes(judge(slim), hit)
    assert not [
        f
        for f in judge(edits.changed(slim, "slim", **fix.changes)).findings
        if f.code == "fit.slots"
    ]
    assert not [f for f in judge(demo).findings if f.code == "fit.slots"]
