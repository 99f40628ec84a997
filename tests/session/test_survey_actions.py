"""What the session does for Survey and Body, and the fields of vehicle and body."""

import msgspec
import pytest

from roomy_hull.core.card import Field
from roomy_hull.core.errors import InputError
from roomy_hull.core.tables.read import measures
from roomy_hull.core.units import System
from roomy_hull.formats.demo import demo_job
from roomy_hull.formats.settings import Settings
from roomy_hull.job.body import Trundle, UnderBox, UnderTank
from roomy_hull.job.edits.resizing import resized, value_at
from roomy_hull.job.model import Job
from roomy_hull.job.survey import Survey
from roomy_hull.session.actions import editing, surveying
from roomy_hull.session.actions.surveying import adjusted
from roomy_hull.session.card_fields import part_fields, survey_fields
from roomy_hull.session.session import Session
from roomy_hull.session.typed import shown, typed

NAMES = ["brackwater", "lowfold", "tarn"]


def every_field(job: Job) -> list[Field]:
    return [*survey_fields(job), *part_fields(job, "")]


@pytest.mark.parametrize("name", NAMES)
def test_every_field_is_there_and_has_words(name: str) -> None:
    job = demo_job(name)
    fields = every_field(job)
    assert len({f.name for f in fields}) == len(fields)
    for field in fields:
        assert value_at(job, field.name) is not None, field.name
        assert field.words
        if field.quantity == "choice":
            assert str(value_at(job, field.name)) in field.choices


@pytest.mark.parametrize("name", NAMES)
@pytest.mark.parametrize("system", ["metric", "us"])
def test_what_is_shown_reads_back_and_changes_nothing(name: str, system: System) -> None:
    job = demo_job(name)
    for field in every_field(job):
        if field.quantity == "yes":
            continue
        old = value_at(job, field.name)
        new = typed(field, shown(field, old, system), system)
        if isinstance(old, float | int):
            # Inches are shown to 1/16, pounds whole, gallons to a tenth.
            least = {"length": 0.8, "mass": 0.23, "volume": 0.2}.get(field.quantity, 1e-9)
            least = least if system == "us" else 0.0051
            assert new == pytest.approx(old, abs=least), field.name
        else:
            assert new == old


@pytest.mark.parametrize("name", NAMES)
def test_every_field_can_be_set_to_what_it_is(name: str) -> None:
    job = demo_job(name)
    for field in every_field(job):
        assert resized(job, field.name, value_at(job, field.name)) == job, field.name


def test_what_hangs_under_the_tray_has_fields(demo: Job) -> None:
    flat = demo.body.tray.but(
        boxes=(UnderBox(id="ahead-left", side="left", place="ahead", length=300, height=300, depth=300),),
        trundle=Trundle(length=800, width=600, height=200), tank=UnderTank(length=400, width=600, height=200),
    )  # fmt: skip
    job = msgspec.structs.replace(demo, body=msgspec.structs.replace(demo.body, tray=flat))
    names = {f.name for f in part_fields(job, "")}
    assert {
        "body.tray.boxes.ahead-left.length", "body.tray.trundle.width", "body.tray.tank.start",
    } <= names  # fmt: skip
    assert resized(job, "body.tray.boxes.ahead-left.length", 320.0).body.tray.boxes[0].length == 320


def test_seats_and_fuel_are_where_the_card_says(session: Session) -> None:
    before = session.verdict.loads.scenario("full")
    base = session.job.vehicle.wheelbase
    assert editing.set_size(
        session, path="vehicle.seats.0.x", value=session.job.vehicle.seats[0].x + 500
    )
    people = session.job.scenarios[[s.id for s in session.job.scenarios].index("full")].people
    after = session.verdict.loads.scenario("full")
    assert after.rear.value - before.rear.value == pytest.approx(people[0] * 500 / base)
    assert after.gross.value == pytest.approx(before.gross.value)
    assert editing.set_size(
        session, path="vehicle.seats.0.y", value=-session.job.vehicle.seats[0].y
    )
    assert session.verdict.loads.scenario("full").left.value > after.left.value
    assert editing.set_size(session, path="vehicle.fuel.x", value=session.job.vehicle.fuel.x + 300)
    assert session.verdict.loads.scenario("full").rear.value > after.rear.value


def test_a_spring_may_be_broken_and_a_load_index_not() -> None:
    fields = {f.name: f for f in survey_fields(demo_job())}
    spring, index = fields["vehicle.springs.rear"], fields["vehicle.tyre_load_index"]
    assert typed(spring, "62.5", "metric") == 62.5
    with pytest.raises(InputError, match="whole number"):
        typed(index, "121.5", "metric")


def test_readings_are_taken_and_dropped_as_steps(session: Session) -> None:
    before = session.job
    assert surveying.add_reading(session, measure="wheelbase_left", value=3180.5, by="laser")
    assert surveying.add_reading(session, measure="wheelbase_left", value=3181.0, by="hand")
    taken = [r for r in session.job.survey.readings if r.measure == "wheelbase_left"][-2:]
    assert [r.by for r in taken] == ["laser", "tape"]
    session.undo()
    session.undo()
    assert session.job == before
    session.redo()
    surveying.drop_readings(session, measure="wheelbase_left")
    assert not [r for r in session.job.survey.readings if r.measure == "wheelbase_left"]
    after = session.job
    surveying.drop_readings(session, measure="wheelbase_left")
    assert session.job is after


@pytest.mark.parametrize("value", [0.0, -12.0, float("nan"), float("inf")])
def test_what_is_no_length_is_refused(session: Session, value: float) -> None:
    before = session.job
    assert not surveying.add_reading(session, measure="wheelbase_left", value=value, by="tape")
    assert session.job == before
    assert session.messages.trouble


def test_four_scales_become_two_axles(session: Session) -> None:
    surveying.weigh(session, wheels={"FL": 580.0, "FR": 575.0, "RL": 410.0, "RR": 415.0})
    kerb = session.job.vehicle.kerb
    assert (kerb.front, kerb.rear, kerb.source) == (1155.0, 825.0, "weighed")
    assert "nothing counts twice" in session.messages.text
    session.undo()
    assert session.job.vehicle.kerb != kerb


def test_a_survey_goes_into_the_vehicle_and_comes_out_by_undo(session: Session) -> None:
    before = session.job
    found = adjusted(session)
    assert found is not None
    surveying.take_survey(session)
    assert f"{len(found.sizes)} sizes" in session.messages.text
    size = found.sizes["wheelbase"]
    assert session.job.vehicle.wheelbase == pytest.approx(size.value, abs=0.51)
    session.undo()
    assert session.job == before


def test_readings_that_contradict_each_other_wholly_are_told(
    demo: Job, keeping: Settings
) -> None:  # fmt: skip
    session = Session(msgspec.structs.replace(demo, survey=Survey()), keeping)
    # Three sides of a frame that no diagonal of this length can close.
    for key, value in (("frame_front", 800.0), ("frame_rear", 800.0), ("frame_left", 2000.0),
                       ("frame_right", 2000.0), ("frame_diagonal_1", 9000.0),
                       ("frame_diagonal_2", 9000.0)):  # fmt: skip
        surveying.add_reading(session, measure=key, value=value, by="tape")
    found = adjusted(session)
    assert found is not None
    assert found.suspects
    assert not session.messages.trouble


def test_taking_over_a_contradiction_is_told(demo: Job, keeping: Settings) -> None:
    session = Session(msgspec.structs.replace(demo, survey=Survey()), keeping)
    for key, value in (("axle_cab", 1580.0), ("axle_end", 560.0), ("cab_end", 2240.0)):
        surveying.add_reading(session, measure=key, value=value, by="tape")
    surveying.take_survey(session)
    assert session.messages.trouble
    assert "again before cutting" in session.messages.text


def test_a_step_that_succeeds_takes_the_old_trouble_away(session: Session) -> None:
    assert not editing.set_size(session, path="body.tray.length", value=-5.0)
    assert session.messages.trouble
    assert session.messages.text[0].isupper()
    assert editing.set_size(session, path="body.tray.length", value=2060.0)
    assert not session.messages.trouble
    assert not session.messages.text


@pytest.mark.parametrize("kind", ["cab-chassis", "pickup", "wagon"])
def test_every_measure_says_how_it_is_taken(kind: str) -> None:
    for measure in measures()[kind]:
        assert measure.words
        assert len(measure.how) > 8
        assert 0 < measure.sigma < 20


def test_a_refused_size_is_told_at_its_path(session: Session) -> None:
    before = session.job
    assert not editing.set_size(session, path="body.tray.length", value=-5.0)
    assert session.job == before
    assert session.messages.trouble
    assert not editing.set_size(session, path="body.tray.wheelbase", value=5.0)
    assert "wheelbase" in session.messages.text
