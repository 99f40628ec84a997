"""Scenarios, brief, weighings and pages by action; the fields of the card in the stage Loads."""

from pathlib import Path

import msgspec
import pytest

from roomy_hull.core.errors import EditError, GivenUp, InputError
from roomy_hull.formats.demo import DEMOS, demo_job
from roomy_hull.job.brief import Wish
from roomy_hull.job.edits import scenarios
from roomy_hull.job.edits.resizing import resized, value_at
from roomy_hull.job.model import Job, Weighing
from roomy_hull.session import session as module
from roomy_hull.session.actions import editing
from roomy_hull.session.actions.registry import Registry
from roomy_hull.session.actions.standard import standard
from roomy_hull.session.card_fields import load_fields
from roomy_hull.session.pages.table import stage
from roomy_hull.session.session import Session
from roomy_hull.session.typed import shown, typed
from roomy_hull.verdict import improve
from roomy_hull.verdict.verdict import judge


class Asked:
    """Somebody who answers."""

    def __init__(self, name: str = "", folder: Path | None = None) -> None:
        self._name, self._folder = name, folder
        self.written: list[Path] = []

    def name(self, words: str, wish: str) -> str:
        return self._name

    def folder(self, words: str) -> Path | None:
        return self._folder

    def write_sheet(self, folder: Path) -> None:
        self.written.append(folder)


@pytest.fixture
def registry() -> Registry:
    return standard()


def answered(registry: Registry, session: Session, key: str, ask: Asked | None = None) -> None:
    action = registry.get(key)
    assert action.enabled(session), key
    session.asker = ask or Asked()  # type: ignore[assignment]  # answers what is asked
    action.run(session)


def test_pages_have_keys_and_are_shown(registry: Registry, session: Session) -> None:
    for n, name in enumerate((p.title for p in stage("Loads").pages), 1):
        assert registry.get(f"loads.{name.lower()}").keys == (f"Ctrl+Alt+{n}",)
        answered(registry, session, f"loads.{name.lower()}")
        assert (session.look.stage, session.look.page("Loads")) == ("Loads", name)


def test_the_usual_scenarios_are_added_once(registry: Registry, session: Session) -> None:
    before = len(session.job.scenarios)
    answered(registry, session, "loads.usual")
    names = [s.name for s in session.job.scenarios]
    assert len(set(names)) == len(names) > before
    assert not registry.get("loads.usual").enabled(session)
    session.undo()
    assert len(session.job.scenarios) == before


@pytest.mark.parametrize("name", list(DEMOS))
def test_usual_scenarios_suit_the_vehicle(name: str) -> None:
    job = demo_job(name)
    found = {s.id: s for s in scenarios.usual(job)}
    removable = job.body.canopy is not None and job.body.canopy.kind == "canopy"
    assert ("tray" in found) == removable
    assert len(found["rear"].people) == len(job.vehicle.seats)
    for one in found.values():
        job = scenarios.added(job, one)
        assert one.ball <= one.trailer
    assert judge(job).loads.scenarios[-1].gross.value > 0


def test_a_copy_is_changed_on_the_card_and_dropped(registry: Registry, session: Session) -> None:
    answered(registry, session, "loads.copy", Asked("Two dogs along"))
    one = session.scenario()
    assert one.name == "Two dogs along"
    assert one.but(id="full", name="Leaving full, crew of two") == session.job.scenarios[2]
    before = session.verdict.loads.scenario(one.id).gross.value
    assert editing.set_size(session, path=f"scenarios.{one.id}.people.3", value=55.0)
    assert session.scenario().people == (82, 74, 0, 55)
    assert editing.set_size(session, path=f"scenarios.{one.id}.water", value=0.5)
    assert session.verdict.loads.scenario(one.id).gross.value == pytest.approx(
        before + 55 - 45, abs=1
    )
    assert not editing.set_size(session, path=f"scenarios.{one.id}.people.0", value=-4.0)
    assert not editing.set_size(session, path=f"scenarios.{one.id}.ball", value=100.0)
    assert "ball mass is part of the trailer" in session.messages.text
    assert editing.set_size(session, path=f"scenarios.{one.id}.trailer", value=900.0)
    assert editing.set_size(session, path=f"scenarios.{one.id}.ball", value=100.0)
    answered(registry, session, "loads.drop")
    assert one.id not in [s.id for s in session.job.scenarios]
    answered(registry, session, "loads.copy", Asked(""))
    assert len(session.job.scenarios) == 6


def test_scenarios_that_are_needed_stay(demo: Job) -> None:
    alone = demo
    for s in demo.scenarios[1:]:
        alone = scenarios.dropped(alone, s.id)
    with pytest.raises(EditError, match="keeps one scenario"):
        scenarios.dropped(alone, demo.scenarios[0].id)
    weighed = scenarios.weighed(
        demo, Weighing(id="w", scenario="full", rear=1700, date="2026-11-20")
    )
    with pytest.raises(EditError, match="2026-11-20 was made in it"):
        scenarios.dropped(weighed, "full")
    with pytest.raises(EditError, match="no scenario"):
        scenarios.copied(demo, "nowhere", "x")
    many = demo
    for n in range(18):
        many = scenarios.copied(many, "full", f"S {n}")
    with pytest.raises(EditError, match="at most 24"):
        scenarios.copied(many, "full", "one more")


def test_a_thing_is_left_at_home_and_taken_along(registry: Registry, session: Session) -> None:
    session.selection.select("punt")
    before = session.verdict.loads.scenario("full").gross.value
    answered(registry, session, "loads.leave")
    assert session.scenario().left_behind == ("punt",)
    assert session.verdict.loads.scenario("full").gross.value == pytest.approx(before - 38)
    answered(registry, session, "loads.leave")
    assert session.scenario().left_behind == ()


def test_wishes_and_the_sheet(registry: Registry, session: Session, tmp_path: Path) -> None:
    answered(registry, session, "loads.wish", Asked("Anvil"))
    wish = session.job.brief.wishes[-1]
    assert (wish.id, wish.name, session.look.page("Loads")) == ("anvil", "Anvil", "Budget")
    assert editing.set_size(session, path="brief.wishes.anvil.mass", value=40.0)
    assert session.job.brief.wishes[-1].mass == 40
    ask = Asked(folder=tmp_path)
    answered(registry, session, "loads.write", ask)
    assert ask.written == [tmp_path]
    full = session.job
    for n in range(200 - len(full.brief.wishes)):
        full = scenarios.wished(full, wish.but(name=f"W{n}"))
    with pytest.raises(EditError, match="at most 200"):
        scenarios.wished(full, wish)


def test_every_field_of_a_scenario_and_of_each_school_is_shown_and_read_back(demo: Job) -> None:
    job = demo
    for option in ("standard", "constant load", "extra leaf", "air"):
        job = resized(job, "vehicle.springs.school", option)
        fields = load_fields(job, "full", brief=False)
        assert len({f.name for f in fields}) == len(fields)
        for field in fields:
            value = value_at(job, field.name)
            if field.quantity == "yes":
                continue
            text = shown(field, value, "metric")
            again = resized(job, field.name, typed(field, text, "metric"))
            assert (
                value_at(again, field.name) == pytest.approx(value)
                if field.quantity != "text"
                else True
            )
    share = next(f for f in load_fields(job, "full", brief=False) if f.name.endswith("water"))
    assert typed(share, "37.5 %", "metric") == 0.375
    with pytest.raises(EditError):
        resized(job, share.name, typed(share, "140", "metric"))
    with pytest.raises(InputError):
        typed(share, "half", "metric")
    with pytest.raises(EditError, match="not below"):
        resized(job, "vehicle.springs.air_most", 20.0)


def test_better_moves_are_real_and_stop_nothing(demo: Job) -> None:
    verdict = judge(demo)
    short = improve.short_of(verdict)
    assert (short.measure, short.scenario) == ("front", "full")
    assert "96%" in short.words
    for measure in ("front", "rear", "side"):
        found = improve.better(verdict, measure, "full")
        assert found
        assert [b.gain for b in found] == sorted((b.gain for b in found), reverse=True)
        for one in found:
            after = judge(one.job)
            assert after.count("stop") == 0
            a, b = verdict.loads.scenario("full"), after.loads.scenario("full")
            if measure == "side":
                before, now = (abs(x.right.value - x.left.value) for x in (a, b))
                assert before - now == pytest.approx(one.gain, abs=0.6)
            else:
                # A unit that turns its contents with it may come out a little otherwise than its box moves.
                assert getattr(a, measure).value - getattr(b, measure).value == pytest.approx(
                    one.gain, abs=0.6
                )
            assert after.count("look") - verdict.count("look") == one.looks
    with pytest.raises(GivenUp):
        improve.better(verdict, "side", "full", progress=lambda share: share < 0.03)
    inches = improve.better(verdict, "side", "full", "us")
    assert any(" in " in b.words for b in inches)


def test_names_and_masses_that_cannot_be_are_told(demo: Job) -> None:
    with pytest.raises(EditError, match="length <= 120"):
        scenarios.copied(demo, "full", "n" * 200)
    with pytest.raises(EditError, match="length <= 120"):
        scenarios.wished(demo, Wish(id="w", name="n" * 200))


def test_worst_rear_keeps_the_combination(demo: Job) -> None:
    rear = next(s for s in scenarios.usual(demo) if s.id == "rear")
    assert (rear.ball, rear.trailer) == (350, 3000)
    assert not [
        f
        for f in judge(scenarios.added(demo, rear.but(people=(80.0,)))).findings
        if f.code == "loads.combination"
    ]
    solo = demo.vehicle.but(ratings=demo.vehicle.ratings.but(ball=0, towed=0))
    found = {s.id: s for s in scenarios.usual(msgspec.structs.replace(demo, vehicle=solo))}
    assert found["rear"].trailer == 0
    assert "towing" not in found


def test_a_step_that_cannot_be_judged_is_taken_back(
    session: Session, monkeypatch: pytest.MonkeyPatch
) -> None:
    before, real = session.job, module.judge  # type: ignore[attr-defined]

    def refuse(job: Job, *rest: object, **more: object) -> object:
        if job is not before:
            raise InputError("this cannot be judged", "the tray", "Mend it.")
        return real(job, *rest, **more)  # type: ignore[arg-type]  # handed on

    monkeypatch.setattr(module, "judge", refuse)
    assert not editing.set_size(session, path="body.tray.length", value=2100.0)
    assert session.job is before
    assert (
        session.messages.text == "The tray: this cannot be judged. Mend it. The step is taken back."
    )
    # Nor does redo bring it.
    session.redo()
    assert session.job is before
    # Several as one go back together.

    def several() -> None:
        for length in (2100.0, 2150.0):
            assert editing.set_size(session, path="body.tray.length", value=length)

    assert not session.as_one("try lengths", several)
    assert session.job is before
    assert not session.history.undo_words()
    assert not session.history.redo_words()


@pytest.mark.parametrize(
    ("path", "value", "words"),
    [
        ("body.tray.tank.height", 12.0, "no room inside"),
        ("body.tray.trundle.width", 60.0, "leave no box"),
    ],
)
def test_what_hangs_under_the_tray_keeps_a_size(
    registry: Registry, session: Session, path: str, value: float, words: str
) -> None:
    what = path.split(".")[2]
    editing.set_size(session, path="vehicle.chassis_end", value=4400.0)
    editing.set_size(session, path="body.tray.length", value=2600.0)
    if getattr(session.job.body.tray, what) is None:
        answered(registry, session, f"body.{what}")
    assert getattr(session.job.body.tray, what) is not None, session.messages.text
    assert not editing.set_size(session, path=path, value=value)
    assert words in session.messages.text


def test_narrow_rails_leave_no_room_between_them(registry: Registry, session: Session) -> None:
    editing.set_size(session, path="vehicle.rail_spread", value=130.0)
    for what in ("trundle", "tank"):
        answered(registry, session, f"body.{what}")
        assert getattr(session.job.body.tray, what) is None
        assert "no room" in session.messages.text
