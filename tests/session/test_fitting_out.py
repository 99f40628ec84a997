"""Actions of Fit-out without a window: placing, opening, sets, runs, the stores, the first quick look."""

from pathlib import Path

import msgspec
import pytest

from roomy_hull.core.card import fields
from roomy_hull.core.errors import InputError
from roomy_hull.formats.settings import Settings
from roomy_hull.job.carried import Carried
from roomy_hull.job.edits import units as edits
from roomy_hull.job.model import Job
from roomy_hull.kinds.case_rack import CaseRack
from roomy_hull.kinds.own import Block, Own
from roomy_hull.kinds.stack import Stack
from roomy_hull.kit import catalogue as stores
from roomy_hull.session.actions import editing, fitting_out
from roomy_hull.session.actions.registry import Registry
from roomy_hull.session.actions.standard import standard
from roomy_hull.session.doing import do
from roomy_hull.session.finding_room import free_starts, why_not
from roomy_hull.session.session import Session
from roomy_hull.session.typed import shown, typed
from roomy_hull.verdict.verdict import Glance, judge


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


def answered(registry: Registry, session: Session, key: str, says: Says | None = None) -> None:
    action = registry.get(key)
    assert action.enabled(session), key
    session.asker = says or Says()  # type: ignore[assignment]  # answers what is asked
    action.run(session)


def empty(job: Job) -> Job:
    return msgspec.structs.replace(job, units=(), carried=(), sets=(), runs=())


def test_the_first_look_is_quick_and_the_next_is_whole(demo: Job, keeping: Settings) -> None:
    quick = Session(demo, keeping, whole=False)
    assert isinstance(quick.sight, Glance)
    assert quick.sight.assembly.openings() == []
    assert (
        quick.sight.loads.scenario("full").gross.value
        == judge(demo).loads.scenario("full").gross.value
    )
    told: list[int] = []
    quick.changed.connect(lambda: told.append(1))
    quick.complete()
    assert told == [1]
    assert quick.verdict.findings == judge(demo).findings
    assert len(quick.verdict.together.openings) == 22
    quick.complete()
    assert told == [1]
    # An edit before it is whole makes it whole too.
    early = Session(demo, keeping, whole=False)
    early.edit("move", edits.changed(demo, "tools", u=500.0))
    assert early.verdict.findings == judge(early.job).findings


def test_everything_that_can_be_is_opened_and_closed_again(
    registry: Registry, session: Session
) -> None:
    session.view.set(station="rear")
    answered(registry, session, "look.open_all")
    assert {"door:rear", "spare", "jerry-1", "waders", "recovery"} <= session.look.opened
    answered(registry, session, "look.open_all")
    assert not session.look.opened
    session.view.set(station="left")
    answered(registry, session, "look.open_all")
    assert "Galley drawers 1" in session.messages.text


def test_a_thing_with_several_openings_opens_whole_or_one_by_one(session: Session) -> None:
    editing.toggle_open(session, key="galley")
    assert session.look.opened == {"galley:1", "galley:2"}
    editing.toggle_open(session, key="galley:2")
    assert session.look.opened == {"galley:1"}
    editing.toggle_open(session, key="galley")
    assert session.look.opened == {"galley:1", "galley:2"}
    editing.toggle_open(session, key="galley")
    assert not session.look.opened


def test_a_set_wants_something_open(registry: Registry, session: Session) -> None:
    assert not registry.get("unit.keep_set").enabled(session)
    session.asker = Says("X")  # type: ignore[assignment]  # answers what is asked
    fitting_out.keep_set(session)
    assert session.messages.trouble
    session.view.set(opened=frozenset({"camp", "door:right"}))
    answered(registry, session, "unit.keep_set", Says("Night"))
    assert session.job.sets[-1].members == ("door:right", "camp")
    assert session.messages.text == "'Night' holds"


def test_steps_stay_within_a_run(registry: Registry, session: Session) -> None:
    for _ in range(9):
        answered(registry, session, "unit.step_on")
    assert session.look.play.step == 6
    for _ in range(9):
        answered(registry, session, "unit.step_back")
    assert (session.look.play.step, session.look.opened) == (0, frozenset())
    session.edit("none", msgspec.structs.replace(session.job, runs=()))
    assert fitting_out.played(session) is None
    fitting_out.go_to_step(session, 1)
    assert "no run-through yet" in session.messages.text


def test_a_failing_move_marks_where(session: Session) -> None:
    session.edit("odd", edits.changed(session.job, "wet-bench", leaf_right=300.0))
    run = session.job.runs[0]
    moves = (*run.moves, run.moves[3].but(what="galley:1"))
    session.edit("longer", msgspec.structs.replace(session.job, runs=(run.but(moves=moves),)))
    fitting_out.go_to_step(session, 7)
    assert session.selection.finding is not None
    assert session.selection.finding.code == "move.run"
    assert session.selection.finding.where
    assert "Wet bench is in its way" in session.messages.text


def test_the_first_place_is_one_where_it_can_be_used(session: Session) -> None:
    session.edit("clear", empty(session.job))
    session.view.set(station="right")
    # At the bay's very front the door of this fridge would meet the canopy's front wall.
    starts = free_starts(
        session.verdict.assembly, session.catalogue.entry("fridge-upright").make, "right"
    )
    assert starts[0][1] <= 25
    made = editing.place(session, entry="fridge-upright")
    assert not [f for f in session.verdict.findings if made in f.words and f.severity == "stop"]
    assert why_not(session.verdict.assembly, Own(id="x", name="X", bay="-", width=1600, depth=100, height=100,
                   blocks=(Block(u=0, v=0, w=0, width=1, depth=1, height=1),)), "right").startswith(
        "Driver side 75 mm too long. It would fit into Rear")  # fmt: skip


def test_hung_things_keep_clear_of_each_other(session: Session) -> None:
    session.edit("clear", empty(session.job))
    session.view.set(station="left")
    for key in ("awning", "shower", "shower", "shower"):
        assert editing.place(session, entry=key)
    boxes = [t.envelope for t in session.verdict.assembly.things]
    assert all(a.common(b) is None for i, a in enumerate(boxes) for b in boxes[i + 1 :])
    canopy = session.verdict.assembly.ground.canopy
    assert canopy is not None
    assert all(b.y1 <= canopy.y0 for b in boxes)
    session.view.set(station="rear")
    assert editing.place(session, entry="awning")
    behind = session.job.carried[-1]
    assert (behind.side, behind.width) == ("rear", 2000)


def test_replacing_asks_for_something_chosen(registry: Registry, session: Session) -> None:
    session.selection.select("optics")
    answered(registry, session, "unit.replace")
    assert "Choose what is to come" in session.messages.text
    answered(registry, session, "unit.replace", Says(entry="spare"))
    assert "Choose what is to come" in session.messages.text
    answered(registry, session, "unit.replace", Says(entry="pocket"))
    assert session.job.thing("optics").name == "Open pocket"  # type: ignore[union-attr]


def test_variants_are_named_in_turn(registry: Registry, session: Session) -> None:
    answered(registry, session, "unit.keep_variant")
    assert (session.job.layout, [v.name for v in session.job.variants]) == ("B", ["A"])
    assert "Layout A is kept" in session.messages.text
    answered(registry, session, "unit.keep_variant", Says("A"))
    assert session.messages.trouble
    assert session.job.layout == "B"


def test_aligning_and_spacing_take_several(registry: Registry, session: Session) -> None:
    session.selection.select("tools")
    assert not registry.get("unit.align_start").enabled(session)
    for key in ("bird-bags", "camp"):
        session.selection.add(key)
    answered(registry, session, "unit.align_front")
    answered(registry, session, "unit.space")
    assert session.messages.trouble
    assert session.messages.text.startswith("494 mm are missing between the outer two.")
    session.selection.add("tools")
    assert session.selection.ids() == ("bird-bags", "camp")
    answered(registry, session, "edit.delete")
    assert session.job.thing("camp") is None
    assert session.selection.ids() == ()


def test_what_cannot_be_kept_is_told(session: Session, tmp_path: Path) -> None:
    blocked = tmp_path / "file"
    blocked.write_text("x")
    session.catalogue._folder = blocked / "units"
    session.selection.select("tools")
    do(session, "unit.keep")
    assert "cannot be kept" in session.messages.text


# The card's fields


@pytest.mark.parametrize("made", [e.make for e in stores.entries()], ids=lambda m: m.name)
@pytest.mark.parametrize("system", ["metric", "us"])
def test_every_field_reads_back_what_it_shows(made: object, system: str) -> None:
    for field in fields(made):
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
        elif field.quantity == "groups":
            assert [(g.id, g.name, g.hinge, g.turn) for g in again] == [  # type: ignore[attr-defined]
                (g.id, g.name, g.hinge, g.turn) for g in value
            ]
            assert [g.travel for g in again] == pytest.approx([g.travel for g in value], abs=0.9)  # type: ignore[attr-defined]
        elif field.quantity == "boxes":
            assert [b.width for b in again] == pytest.approx([b.width for b in value], abs=0.9)  # type: ignore[attr-defined]
        else:
            assert again == pytest.approx(value, abs=0.9 if system == "us" else 0.006)


def test_boxes_and_heights_are_typed_with_spaces() -> None:
    unit = stores.entry("own").make
    boxes = next(f for f in fields(unit) if f.name == "blocks")
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
    heights = next(f for f in fields(stores.entry("stack").make) if f.name == "heights")
    assert typed(heights, '200; 150+10; 4"', "metric") == pytest.approx((200, 160, 101.6))


def test_a_bad_figure_keeps_the_old_one_and_names_the_place(session: Session) -> None:
    assert not editing.set_field(session, thing="galley", field="heights", value=(300.0, 300.0))
    assert "7 mm higher" in session.messages.text
    assert isinstance(session.job.thing("galley"), Stack)
    assert not editing.set_field(session, thing="optics-cases", field="across", value=3)
    assert "does not take the cases" in session.messages.text
    assert isinstance(session.job.thing("optics-cases"), CaseRack)
    assert not editing.set_field(session, thing="awning", field="turn", value=900.0)
    item = session.job.thing("awning")
    assert isinstance(item, Carried)
    assert item.turn == 0


def test_doors_are_opened_before_drawers_and_drawers_from_the_floor_up(
    session: Session, monkeypatch: pytest.MonkeyPatch
) -> None:
    tried: list[tuple[str, ...]] = []
    monkeypatch.setattr(
        fitting_out,
        "most_open",
        lambda _found, wished: (tried.append(wished), wished)[1],  # type: ignore[func-returns-value]
    )
    rank = {"door": 0, "tray": 0, "outside": 1, "unit": 2}
    for station in ("left", "right", "rear"):
        session.view.set(station=station, opened=frozenset())
        fitting_out.open_most(session)
        openings = {o.id: o for o in session.verdict.together.openings}
        rows = [(rank[openings[key].kind], openings[key].rest_box.z0) for key in tried[-1]]
        assert rows == sorted(rows)
        # In the order of the job they would stand otherwise.
        assert rows != [
            (rank[o.kind], o.rest_box.z0) for o in openings.values() if o.id in tried[-1]
        ]
