"""Several units at once, sides exchanged, variants, sets and run-throughs."""

import json

import pytest
from hypothesis import given
from hypothesis import strategies as st

from roomy_hull.core.errors import EditError, JobFileError
from roomy_hull.formats.demo import demo_job
from roomy_hull.formats.jobfile import dumps, loads
from roomy_hull.job.edits import layouts
from roomy_hull.job.edits import units as edits
from roomy_hull.job.model import Job, Move
from roomy_hull.kinds.fridge import Fridge


def u_of(job: Job, *keys: str) -> list[float]:
    return [job.thing(k).u for k in keys]  # type: ignore[union-attr]


def test_edges_are_aligned_to_the_first(demo: Job) -> None:
    keys = ("tools", "camp", "bird-bags")
    assert u_of(layouts.aligned(demo, keys, "start"), *keys) == [475, 475, 475]
    assert u_of(layouts.aligned(demo, keys, "end"), *keys) == [475, 450, 475]
    tops = layouts.aligned(demo, ("optics", "camp"), "top")
    assert tops.thing("camp").w == 263 + 220 - 330  # type: ignore[union-attr]
    backs = layouts.aligned(demo, ("tools", "bird-bags"), "back")
    assert backs.thing("bird-bags").v == 820 - 600  # type: ignore[union-attr]


def test_gaps_are_made_equal_on_the_pitch(demo: Job) -> None:
    spread = edits.changed(
        edits.changed(demo, "waders", width=200.0), "recovery", width=200.0, u=1400.0
    )
    spread = edits.changed(spread, "gas", u=475.0)
    done = layouts.distributed(spread, ("waders", "gas", "recovery"), 25.0)
    assert u_of(done, "waders", "gas", "recovery") == [25, 700, 1400]
    exact = layouts.distributed(spread, ("waders", "gas", "recovery"), 0.0)
    a, b, c = u_of(exact, "waders", "gas", "recovery")
    assert b - (a + 200) == pytest.approx(c - (b + 250))


@pytest.mark.parametrize(
    ("what", "says"),
    [
        (lambda j: layouts.aligned(j, ("tools",), "start"), "at least 2"),
        (lambda j: layouts.aligned(j, ("tools", "waders"), "start"), "different bays"),
        (lambda j: layouts.distributed(j, ("tools", "camp"), 25), "at least 3"),
        (lambda j: layouts.distributed(j, ("tools", "optics", "bird-bags"), 25), "missing between"),
        (lambda j: layouts.replaced(j, "spare", j.units[0]), "no unit 'spare'"),
        (lambda j: layouts.kept(j, " "), "empty"),
        (lambda j: layouts.kept(j, "A"), "taken"),
        (lambda j: layouts.taken(j, "z"), "no variant"),
        (lambda j: layouts.with_set(j, "x", ()), "something that opens"),
        (lambda j: layouts.with_run(j, "", (Move(do="canopy off"),)), "a name"),
    ],
)
def test_what_cannot_be_done_is_refused_with_its_reason(demo: Job, what: object, says: str) -> None:
    with pytest.raises(EditError, match=says):
        what(demo)  # type: ignore[operator]


@given(st.sampled_from([t.id for t in (*demo_job().units, *demo_job().carried)]))  # type: ignore[attr-defined]
def test_mirroring_twice_is_identity(key: str) -> None:
    job = demo_job()
    assert edits.mirrored(edits.mirrored(job, key), key) == job


def test_exchanging_the_sides_twice_is_identity_and_once_swaps_the_weight(demo: Job) -> None:
    once = layouts.exchanged(demo)
    assert {u.id for u in once.units if u.bay == "L"} == {u.id for u in demo.units if u.bay == "R"}
    assert once.thing("awning").side == "right"  # type: ignore[union-attr]
    assert once.thing("awning").y == 985  # type: ignore[union-attr]
    assert once.thing("spare") == demo.thing("spare")
    assert layouts.exchanged(once) == demo


def test_a_copy_goes_to_the_mirrored_place(demo: Job) -> None:
    job, made = layouts.copied_across(demo, ("galley", "wet-bench"))
    assert made == ("galley-2", "wet-bench-2")
    assert [job.thing(k).bay for k in made] == ["R", "R"]  # type: ignore[union-attr]
    assert job.thing("galley") == demo.thing("galley")


def test_a_replacement_keeps_place_id_and_note(demo: Job) -> None:
    job = edits.changed(demo, "sample-fridge", note="loud")
    new = Fridge(id="x", name="Upright", bay="-", width=450, depth=500, height=620, style="upright")
    there = layouts.replaced(job, "sample-fridge", new).thing("sample-fridge")
    assert isinstance(there, Fridge)
    assert (there.style, there.bay, there.u, there.note) == ("upright", "R", 25, "loud")


def test_variants_are_kept_taken_and_dropped_without_loss(demo: Job) -> None:
    two = edits.removed(layouts.kept(demo, "B"), "wet-bench")
    assert (two.layout, [v.name for v in two.variants]) == ("B", ["A"])
    back = layouts.taken(two, "a")
    assert back.layout == "A"
    assert (back.units, back.carried) == (demo.units, demo.carried)
    assert [(v.id, v.name, len(v.units)) for v in back.variants] == [
        ("b", "B", len(demo.units) - 1)
    ]
    again = layouts.taken(back, "b")
    assert again.units == two.units
    assert layouts.dropped(again, "a").variants == ()
    assert layouts.dropped(again, "z") is again
    assert loads(dumps(again)) == again
    full = demo
    for n in range(12):
        full = layouts.kept(full, f"N{n}")
    with pytest.raises(EditError, match="twelve"):
        layouts.kept(full, "more")


def test_sets_and_runs_are_kept_by_name(demo: Job) -> None:
    job = layouts.with_set(demo, "Camp kitchen", ("door:left",))
    assert [s.name for s in job.sets].count("Camp kitchen") == 1
    assert job.sets[-1].members == ("door:left",)
    ids = [s.id for s in layouts.with_set(job, "camp-kitchen", ("door:left",)).sets]
    assert len(set(ids)) == len(ids)
    assert layouts.without_set(job, job.sets[-1].id).sets == job.sets[:-1]
    assert layouts.without_run(demo, "camp").runs == demo.runs[1:]
    assert layouts.with_run(demo, "Lunch", (Move(do="canopy off"),)).runs[-1].id == "lunch"


@pytest.mark.parametrize(
    ("field", "value", "says"),
    [
        ("variants", [{"id": "v", "name": "V", "units": ["first", "first"]}], "id twice"),
        ("variants", [{"id": "v", "name": "V", "units": ["lost"]}], "bay 'Z'"),
        ("sets", [{"id": "s", "name": "S", "members": ["door:left"]}] * 2, "share an id"),
        ("sets", [{"id": "s", "name": "S", "members": []}], "members"),
        ("runs", [{"id": "r", "name": "R", "moves": [{"do": "fly"}]}], "fly"),
    ],
)
def test_bad_variants_sets_and_runs_of_a_file_are_refused(
    demo: Job, field: str, value: list[dict[str, object]], says: str
) -> None:
    raw = json.loads(dumps(demo))
    first = raw["units"][0]
    made = {"first": first, "lost": first | {"bay": "Z"}}
    for one in value:
        if "units" in one:
            one["units"] = [made.get(u, u) if isinstance(u, str) else u for u in one["units"]]  # type: ignore[attr-defined]
    raw[field] = value
    with pytest.raises(JobFileError, match=says):
        loads(json.dumps(raw).encode())
