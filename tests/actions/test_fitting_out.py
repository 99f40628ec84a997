"""Actions of Fit-out without a window: placing, opening, sets, runs, the stores, the first quick look."""

from pathlib import Path

import msgspec
import pytest

from roomy_hull.actions import fitting_out
from roomy_hull.actions.fields import fields_of, shown, typed
from roomy_hull.actions.finding_room import free_starts, why_not
from roomy_hull.actions.registry import Registry
from roomy_hull.actions.standard import standard
from roomy_hull.actions.workbench import Workbench
from roomy_hull.core.errors import InputError
from roomy_hull.formats.keeping import Keeping
from roomy_hull.job import edits
from roomy_hull.job.model import Job
from roomy_hull.job.unit import Block, Carried, CaseRack, Own, Stack
from roomy_hull.kit import stores
from roomy_hull.verdict.verdict import judge


class Says:
    """Answers what is asked."""

    def __init__(self, name: str = "", entry: str = "") -> None:
        self._name, self._entry = name, entry

    def name(self, words: str, wish: str) -> str:
        assert words
        return self._name or wish

    def chosen_entry(self) -> str:
        return self._entry


@pytest.fixture(scope="module")
def registry() -> Registry:
    return standard()


def do(registry: Registry, bench: Workbench, key: str, says: Says | None = None) -> None:
    action = registry.get(key)
    assert action.enabled(bench), key
    action.run(bench, says or Says())  # type: ignore[arg-type]


def empty(job: Job) -> Job:
    return msgspec.structs.replace(job, units=(), carried=(), sets=(), runs=())


def test_the_first_look_is_quick_and_the_next_is_whole(demo: Job, keeping: Keeping) -> None:
    quick = Workbench(demo, keeping, whole=False)
    assert quick.verdict.together.openings == ()
    assert (
        quick.verdict.loads.scenario("full").gross.value
        == judge(demo).loads.scenario("full").gross.value
    )
    told: list[int] = []
    quick.job_changed.connect(lambda: told.append(1))
    quick.complete()
    assert told == [1]
    assert quick.verdict.findings == judge(demo).findings
    assert len(quick.verdict.together.openings) == 22
    quick.complete()
    assert told == [1]
    # An edit before it is whole makes it whole too.
    early = Workbench(demo, keeping, whole=False)
    early.edit("move", edits.changed(demo, "tools", u=500.0))
    assert early.verdict.findings == judge(early.job).findings


def test_everything_that_can_be_is_opened_and_closed_again(
    registry: Registry, bench: Workbench
) -> None:
    bench.set_look(station="rear")
    do(registry, bench, "look.open_all")
    assert {"door:rear", "spare", "jerry-1", "waders", "recovery"} <= bench.look.opened
    do(registry, bench, "look.open_all")
    assert not bench.look.opened
    bench.set_look(station="left")
    do(registry, bench, "look.open_all")
    assert "Galley drawers 1" in bench.message


def test_a_thing_with_several_openings_opens_whole_or_one_by_one(bench: Workbench) -> None:
    bench.toggle_open("galley")
    assert bench.look.opened == {"galley:1", "galley:2"}
    bench.toggle_open("galley:2")
    assert bench.look.opened == {"galley:1"}
    bench.toggle_open("galley")
    assert bench.look.opened == {"galley:1", "galley:2"}
    bench.toggle_open("galley")
    assert not bench.look.opened


def test_a_set_wants_something_open(registry: Registry, bench: Workbench) -> None:
    assert not registry.get("unit.keep_set").enabled(bench)
    fitting_out.keep_set(bench, Says("X"))  # type: ignore[arg-type]
    assert bench.trouble
    bench.set_look(opened=frozenset({"camp", "door:right"}))
    do(registry, bench, "unit.keep_set", Says("Night"))
    assert bench.job.sets[-1].members == ("door:right", "camp")
    assert bench.message == "'Night' holds"


def test_steps_stay_within_a_run(registry: Registry, bench: Workbench) -> None:
    for _ in range(9):
        do(registry, bench, "unit.step_on")
    assert bench.look.step == 6
    for _ in range(9):
        do(registry, bench, "unit.step_back")
    assert (bench.look.step, bench.look.opened) == (0, frozenset())
    bench.edit("none", msgspec.structs.replace(bench.job, runs=()))
    assert fitting_out.played(bench) is None
    fitting_out.go_to_step(bench, 1)
    assert "no run-through yet" in bench.message


def test_a_failing_move_marks_where(bench: Workbench) -> None:
    bench.edit("odd", edits.changed(bench.job, "wet-bench", leaf_right=300.0))
    run = bench.job.runs[0]
    moves = (*run.moves, run.moves[3].but(what="galley:1"))
    bench.edit("longer", msgspec.structs.replace(bench.job, runs=(run.but(moves=moves),)))
    fitting_out.go_to_step(bench, 7)
    assert bench.finding is not None
    assert bench.finding.code == "move.run"
    assert bench.finding.where
    assert "Wet bench is in its way" in bench.message


def test_the_first_place_is_one_where_it_can_be_used(bench: Workbench) -> None:
    bench.edit("clear", empty(bench.job))
    bench.set_look(station="right")
    # At the bay's very front the door of this fridge would meet the canopy's front wall.
    starts = free_starts(bench.verdict.assembly, bench.entry("fridge-upright").make, "right")
    assert starts[0][1] <= 25
    made = bench.place("fridge-upright")
    assert not [f for f in bench.verdict.findings if made in f.subjects and f.weight == "stop"]
    assert why_not(bench.verdict.assembly, Own(id="x", name="X", bay="-", width=1600, depth=100, height=100,
                   blocks=(Block(u=0, v=0, w=0, width=1, depth=1, height=1),)), "right").startswith(
        "Driver side 100 mm too long. It would fit into Rear")  # fmt: skip


def test_hung_things_keep_clear_of_each_other(bench: Workbench) -> None:
    bench.edit("clear", empty(bench.job))
    bench.set_look(station="left")
    for key in ("awning", "shower", "shower", "shower"):
        assert bench.place(key)
    boxes = [t.envelope for t in bench.verdict.assembly.things]
    assert all(a.common(b) is None for i, a in enumerate(boxes) for b in boxes[i + 1 :])
    canopy = bench.verdict.assembly.ground.canopy
    assert canopy is not None
    assert all(b.y1 <= canopy.y0 for b in boxes)
    bench.set_look(station="rear")
    assert bench.place("awning")
    behind = bench.job.carried[-1]
    assert (behind.side, behind.width) == ("rear", 2000)


def test_replacing_asks_for_something_chosen(registry: Registry, bench: Workbench) -> None:
    bench.select("optics")
    do(registry, bench, "unit.replace")
    assert "Choose what is to come" in bench.message
    do(registry, bench, "unit.replace", Says(entry="spare"))
    assert "Choose what is to come" in bench.message
    do(registry, bench, "unit.replace", Says(entry="pocket"))
    assert bench.job.thing("optics").name == "Open pocket"  # type: ignore[union-attr]


def test_variants_are_named_in_turn(registry: Registry, bench: Workbench) -> None:
    do(registry, bench, "unit.keep_variant")
    assert (bench.job.layout, [v.name for v in bench.job.variants]) == ("B", ["A"])
    assert "Layout A is kept" in bench.message
    do(registry, bench, "unit.keep_variant", Says("A"))
    assert bench.trouble
    assert bench.job.layout == "B"


def test_aligning_and_spacing_take_several(registry: Registry, bench: Workbench) -> None:
    bench.select("tools")
    assert not registry.get("unit.align_start").enabled(bench)
    for key in ("bird-bags", "camp"):
        bench.select_also(key)
    do(registry, bench, "unit.align_front")
    do(registry, bench, "unit.space")
    assert bench.trouble or bench.job.thing("bird-bags").u > 0  # type: ignore[union-attr]
    bench.select_also("tools")
    assert bench.chosen() == ("bird-bags", "camp")
    do(registry, bench, "edit.delete")
    assert bench.job.thing("camp") is None
    assert bench.chosen() == ()


def test_what_cannot_be_kept_is_told(bench: Workbench, tmp_path: Path) -> None:
    blocked = tmp_path / "file"
    blocked.write_text("x")
    bench._room.folder = blocked / "units"
    bench.keep_unit("optics")
    assert "cannot be kept" in bench.message
    bench.keep_unit("spare")
    assert "cannot be kept" in bench.message


# The card's fields


@pytest.mark.parametrize("made", [e.make for e in stores.entries()], ids=lambda m: m.name)
@pytest.mark.parametrize("system", ["metric", "us"])
def test_every_field_reads_back_what_it_shows(made: object, system: str) -> None:
    for field in fields_of(made):  # type: ignore[arg-type]
        value = getattr(made, field.name)
        text = shown(field, value, system) if field.quantity != "yes" else ""  # type: ignore[arg-type]
        if field.quantity == "yes":
            assert isinstance(value, bool)
            continue
        again = typed(field, text, system)  # type: ignore[arg-type]
        if field.quantity in ("text", "choice"):
            assert again == value
            assert field.quantity == "text" or value in field.choices
        elif field.quantity == "lengths":
            assert again == pytest.approx(value, abs=0.9)
        elif field.quantity == "boxes":
            assert [b.width for b in again] == pytest.approx([b.width for b in value], abs=0.9)  # type: ignore[attr-defined]
        else:
            assert again == pytest.approx(value, abs=0.9 if system == "us" else 0.006)


def test_boxes_and_heights_are_typed_with_spaces() -> None:
    unit = stores.entry("own").make
    boxes = next(f for f in fields_of(unit) if f.name == "blocks")
    found = typed(boxes, "0 0 0 400 500 120; 0 0 120 400 500 2*90 m", "metric")
    assert [(b.w, b.height, b.moves) for b in found] == [(0, 120, False), (120, 180, True)]  # type: ignore[attr-defined]
    assert unit.but(blocks=found).blocks == found
    for text, says in (
        ("0 0 0 400", "box 1 has 4 figures"),
        ("", "no box"),
        ("0 0 0 0 1 1", "box 1"),
    ):
        with pytest.raises(InputError, match=says):
            typed(boxes, text, "metric")
    heights = next(f for f in fields_of(stores.entry("stack").make) if f.name == "heights")
    assert typed(heights, '200; 150+10; 4"', "metric") == pytest.approx((200, 160, 101.6))


def test_a_bad_figure_keeps_the_old_one_and_names_the_place(bench: Workbench) -> None:
    assert not bench.set_field("galley", "heights", (300.0, 300.0))
    assert "7 mm higher" in bench.message
    assert isinstance(bench.job.thing("galley"), Stack)
    assert not bench.set_field("optics-cases", "across", 3)
    assert "does not take the cases" in bench.message
    assert isinstance(bench.job.thing("optics-cases"), CaseRack)
    assert not bench.set_field("awning", "turn", 900.0)
    item = bench.job.thing("awning")
    assert isinstance(item, Carried)
    assert item.turn == 0
