"""Releases: what is the same, what is stale and what of it can be saved; costs that add up."""

import msgspec
import pytest
from hypothesis import given
from hypothesis import strategies as st
from tests.builders import SHOP, canopy_of, with_canopy

from roomy_hull.assembly.assemble import assemble
from roomy_hull.core.errors import EditError, InputError
from roomy_hull.core.folded import Cutout, Hole
from roomy_hull.core.mechanics.sections import section_area
from roomy_hull.core.parts import BarPart, Hardware, SheetPart
from roomy_hull.core.refs import Ref
from roomy_hull.formats import jobfile
from roomy_hull.formats.workshop import built
from roomy_hull.job.edits import releases as edits
from roomy_hull.job.edits import units
from roomy_hull.job.model import Job
from roomy_hull.job.releases import Release, ReleasedPart, next_revision
from roomy_hull.making.cost import FIELDS, cost, cost_sheet, price_of
from roomy_hull.making.cutlist import cut_of
from roomy_hull.making.release import as_released, changes, content, drawn_up, rework, stale
from roomy_hull.making.works import Works, fasteners, works_of
from roomy_hull.verdict.verdict import judge

METAL, OWNER = SHOP.material("5052-H32"), Ref("unit", "x")


def part(a: float = 400, b: float = 300, **more: object) -> SheetPart:
    return SheetPart("p", OWNER, a, b, 2.0, METAL, **more)  # type: ignore[arg-type]


def released(one: SheetPart | BarPart, state: str = "cut") -> ReleasedPart:
    from roomy_hull.making.joints import Joined
    from roomy_hull.making.works import Work

    (row,) = as_released(Works((Work(OWNER, "x", (one,), (), (), Joined((one,), (0,), (), ())),)))
    return row.but(state=state)


def test_a_hash_knows_what_is_cut_and_nothing_else() -> None:
    one = part(left=40.0, holes=(Hole(50, 60, 8), Hole(80, 60, 8)))
    same = part(left=40.0, holes=(Hole(80, 60, 8), Hole(50, 60, 8)), role="floor", group="box")
    assert content(one) == content(msgspec.structs.replace(same, name="other", count=3))
    for changed in (
        part(left=40.1, holes=one.holes), part(left=40.0), part(left=40.0, holes=one.holes, grain=True),
        msgspec.structs.replace(one, thickness=1.6), msgspec.structs.replace(one, material=SHOP.material("304")),
    ):  # fmt: skip
        assert content(changed) != content(one)
    bar = BarPart("b", OWNER, "40x40x3", 900.0, METAL)
    assert content(bar) != content(msgspec.structs.replace(bar, length=901.0))
    assert content(Hardware("slide", OWNER)) == content(Hardware("slide", OWNER, 4))


@pytest.mark.parametrize(
    ("old", "new", "says"),
    [
        (part(), part(holes=(Hole(50, 50, 8),)), "drill"),
        (part(400, 300), part(380, 300), "trim"),
        (part(400, 300), part(380, 310), ""),
        (part(holes=(Hole(50, 50, 8),)), part(), ""),
        # The hole falls away with what is trimmed from the right.
        (part(holes=(Hole(390, 50, 8),)), part(370, 300), "trim"),
        # Trimmed at the left, or below, or both, what stays is where the new part has it.
        (part(holes=(Hole(350, 50, 8),)), part(370, 300, holes=(Hole(320, 50, 8),)), "trim"),
        (part(holes=(Hole(50, 250, 8),)), part(400, 280, holes=(Hole(50, 230, 8),)), "trim"),
        (part(holes=(Hole(350, 250, 8),)), part(370, 280, holes=(Hole(320, 230, 8),)), "trim"),
        (part(holes=(Hole(350, 250, 8),)), part(370, 280, holes=(Hole(320, 240, 8),)), ""),
        # So it is with an opening, and with a bend that is not yet bent.
        (
            part(cutouts=(Cutout(300, 200, 50, 40),)),
            part(380, 290, cutouts=(Cutout(280, 190, 50, 40),)),
            "trim",
        ),
        (
            part(cutouts=(Cutout(300, 200, 50, 40),)),
            part(380, 290, cutouts=(Cutout(270, 190, 50, 40),)),
            "",
        ),
        (part(right=40.0), part(380, 300, right=40.0), "trim"),
        (part(left=40.0), part(left=40.0, holes=(Hole(200, 100, 8),)), "drill"),
        (part(left=40.0), part(left=45.0), ""),
        (
            part(cutouts=(Cutout(100, 100, 50, 40),)),
            part(cutouts=(Cutout(90, 90, 80, 80),)),
            "drill",
        ),
        (part(cutouts=(Cutout(100, 100, 50, 40),)), part(cutouts=(Cutout(200, 100, 50, 40),)), ""),
        (part(), msgspec.structs.replace(part(), thickness=3.0), ""),
        (
            BarPart("b", OWNER, "40x40x3", 900.0, METAL),
            BarPart("b", OWNER, "40x40x3", 880.0, METAL),
            "trim",
        ),
        (
            BarPart("b", OWNER, "40x40x3", 900.0, METAL),
            BarPart("b", OWNER, "40x40x3", 920.0, METAL),
            "",
        ),
    ],
)
def test_what_can_be_made_of_a_piece_that_is_cut(old: SheetPart, new: SheetPart, says: str) -> None:
    assert rework(released(old), released(new)) == says


def test_changes_are_told_by_state_and_number() -> None:
    def row(key: str, content_: str, count: int = 1, state: str = "to cut") -> ReleasedPart:
        return ReleasedPart(key=key, content=content_, count=count, state=state, stock="2 mm x")  # type: ignore[arg-type]

    before = (
        row("a", "1"),
        row("b", "1"),
        row("c", "1", 3),
        row("d", "1", state="bent"),
        row("e", "1"),
    )
    now = (row("a", "1"), row("b", "2"), row("c", "1", 5), row("f", "1", 2))
    found = {c.key: c for c in changes(before, now, {"b": 10.0, "c": 2.0, "f": 3.0})}
    assert {k: (c.verdict, c.count, c.cost) for k, c in found.items()} == {
        "b": ("recut", 1, 10.0), "c": ("more", 2, 4.0), "f": ("new", 2, 6.0), "d": ("gone", 1, 0.0), "e": ("gone", 1, 0.0),
    }  # fmt: skip
    assert "left over" in found["d"].words
    assert changes(before, before) == ()
    (less,) = changes((row("c", "1", 3),), (row("c", "1", 1),))
    assert (less.verdict, less.count) == ("spare", 2)


def test_revisions_are_letters() -> None:
    def with_(revision: str) -> tuple[Release, ...]:
        return (Release(revision=revision, day="2026-01-01", by="AB"),)

    assert [next_revision(()), *(next_revision(with_(r)) for r in ("A", "Y", "Z", "AZ", "ZZ"))] == [
        "A", "B", "Z", "AA", "BA", "AAA",
    ]  # fmt: skip


def test_a_release_keeps_what_came_so_far_and_outlives_its_file(demo: Job) -> None:
    works = works_of(assemble(demo))
    first = drawn_up((), works, "AB", "first", "2026-05-04")
    job = edits.released(demo, first)
    key = next(p.key for p in first.parts if p.key.endswith("Net drawer: front"))
    job = edits.come_to(job, (key,), "bent")
    assert stale(job.releases[-1], works, SHOP.prices) == ()
    changed = units.changed(job, "tools", height=240.0)
    after = works_of(assemble(changed))
    rows = stale(changed.releases[-1], after, SHOP.prices)
    assert rows
    assert all("Tool drawer" in c.key for c in rows)
    second = drawn_up(changed.releases, after, "AB", day="2026-05-05")
    both = edits.released(changed, second)
    states = {p.key: p.state for p in both.releases[-1].parts}
    assert states[key] == "bent"
    assert both.releases[-1].revision == "B"
    assert jobfile.loads(jobfile.dumps(both)) == both
    with pytest.raises(EditError, match="cut already"):
        edits.taken_back(both)
    assert edits.taken_back(edits.released(demo, first)).releases == ()


def test_bad_releases_are_told(demo: Job) -> None:
    works = works_of(assemble(demo))
    made = drawn_up((), works, "AB")
    job = edits.released(demo, made)
    with pytest.raises(EditError, match="revision A is there"):
        edits.released(job, made)
    with pytest.raises(EditError, match="no part 'nothing'"):
        edits.come_to(job, ("nothing",), "cut")
    with pytest.raises(EditError, match="no state"):
        edits.come_to(job, (), "lost")  # type: ignore[arg-type]
    for bad in (demo, edits.taken_back(job)):
        with pytest.raises(EditError, match="nothing is released"):
            edits.come_to(bad, (), "cut")
        with pytest.raises(EditError, match="nothing is released"):
            edits.taken_back(bad)
    with pytest.raises(EditError, match="nothing to release"):
        edits.released(demo, msgspec.structs.replace(made, parts=()))
    for by in ("", "much too long initials"):
        with pytest.raises(InputError, match="initials"):
            drawn_up((), works, by)


def test_costs_of_owners_add_up_to_the_whole(demo: Job) -> None:
    assembly = assemble(demo)
    works, cut = works_of(assembly), cut_of(assembly)
    found = cost_sheet(works, cut, SHOP.prices, coat=True)
    for field in FIELDS:
        assert getattr(found.whole, field) == pytest.approx(
            sum(getattr(s.cost, field) for s in found.shares)
        )
    # What sheets and bars cost as bought is the metal in the parts, the rest, and what is kept of them.
    metre = {
        b: section_area(b) * 1e-6 * SHOP.prices.bar_per_kg
        for b in {b.section for b in cut.bars.bars}
    }
    bars = sum(
        b.length / 1000 * metre[b.section] * b.material.density for b in cut.bars.bars if b.bought
    )
    metal = found.whole.sheet + found.whole.bar + found.whole.rest + found.kept
    assert metal == pytest.approx(cut.nest.price + bars)
    assert found.whole.total == pytest.approx(sum(getattr(found.whole, f) for f in FIELDS))
    assert found.rivets == fasteners(works.joints)["rivet 4.8"] > 100
    net = cost(list(works.parts), SHOP.prices)
    assert found.whole.cutting == pytest.approx(net.cutting)
    assert found.hours == pytest.approx(sum(s.hours for s in found.shares))


@given(st.floats(0.1, 5))
def test_what_is_bought_by_the_metre_costs_by_the_metre(metres: float) -> None:
    p = SHOP.prices
    assert price_of(Hardware("piano", OWNER, metres=metres, sort="hinge"), p) == pytest.approx(
        metres * p.hinge_per_m
    )
    assert price_of(Hardware("door seal", OWNER, metres=metres), p) == pytest.approx(
        metres * p.seal_per_m
    )
    assert price_of(Hardware("M8 bolt", OWNER, sort="bolt"), p) == p.bolt
    assert price_of(Hardware("Meter", OWNER), p) == p.hardware, (
        "a thing is no bolt by its first letter"
    )
    assert price_of(Hardware("slide", OWNER), p) == p.hardware


def test_insulation_is_bought_and_fitted_by_the_square_metre(demo: Job) -> None:
    bare = with_canopy(demo, insulation=0.0)
    with_it = with_canopy(demo, insulation=25.0)
    canopy = canopy_of(demo)
    metres = canopy.length * canopy.width * 1e-6
    found = []
    for job in (bare, with_it):
        parts = list(assemble(job).ground.parts)
        found.append(cost(parts, SHOP.prices).hardware)
    assert found[1] - found[0] == pytest.approx(metres * SHOP.prices.insulation_per_m2)
    amounts = dict(built(judge(with_it)).ops["canopy:insulate"].amounts)
    assert amounts["insulate_m2"] == pytest.approx(metres)
