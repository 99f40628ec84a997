"""Names and ids are words: whatever they say, nothing is taken for something else."""

import html
import re
from pathlib import Path

import msgspec
import pytest
from hypothesis import given
from hypothesis import strategies as st

from roomy_hull.core.errors import JobFileError
from roomy_hull.core.refs import RESERVED, VEHICLE, Ref
from roomy_hull.formats import jobfile
from roomy_hull.formats.demo import demo_job
from roomy_hull.formats.settings import Settings
from roomy_hull.job.edits import units as edits
from roomy_hull.job.model import Job
from roomy_hull.session.marks import bare, rich, strong
from roomy_hull.session.pages.board import BoardModel
from roomy_hull.session.pages.sheet import SheetModel
from roomy_hull.session.pages.strength import StrengthModel
from roomy_hull.session.session import Session
from roomy_hull.verdict.verdict import fixes, judge

DEMO = demo_job()


def renamed(job: Job, old: str, new: str) -> Job:
    """A unit another id, and the sets and runs that name it nothing."""
    units = tuple(msgspec.structs.replace(u, id=new) if u.id == old else u for u in job.units)
    return msgspec.structs.replace(
        job, units=units, sets=(), runs=(), brief=job.brief.but(wishes=())
    )


@pytest.mark.parametrize(
    "word", ["kerb side", "kerb, rear axle", "kerb", "person 0", "fuel", "ball", "contents"]
)
def test_a_seat_may_have_any_name(demo: Job, word: str) -> None:
    seats = tuple(s.but(name=word) for s in demo.vehicle.seats)
    job = msgspec.structs.replace(demo, vehicle=demo.vehicle.but(seats=seats))
    named, plain = judge(jobfile.loads(jobfile.dumps(job))), judge(demo)
    assert named.loads.scenarios == plain.loads.scenarios
    assert named.carrying == plain.carrying


@pytest.mark.parametrize("word", sorted(RESERVED))
def test_an_id_that_stands_for_the_vehicle_or_its_body_is_refused_with_the_remedy(
    word: str,
) -> None:
    for field in ("units", "carried"):
        thing = getattr(DEMO, field)[0]
        rows = (msgspec.structs.replace(thing, id=word), *getattr(DEMO, field)[1:])
        job = msgspec.structs.replace(
            DEMO, **{field: rows}, sets=(), runs=(), brief=DEMO.brief.but(wishes=())
        )
        with pytest.raises(JobFileError) as caught:
            jobfile.loads(jobfile.dumps(job), "job.hull.json")
        assert f"'{word}' stands for the {word} itself" in caught.value.what
        assert f"{field}[0].id ({thing.name})" in caught.value.place
        assert f"{word}-1" in caught.value.remedy
    assert edits.free_id(DEMO, word) == f"{word}-2"


def test_a_unit_called_vehicle_that_stays_at_home_leaves_the_vehicle_where_it_is() -> None:
    # Not from a file, that refuses it, but from a program that makes jobs.
    job = renamed(DEMO, "tools", "vehicle")
    home = tuple(s.but(left_behind=("vehicle",)) for s in job.scenarios)
    left = msgspec.structs.replace(job, scenarios=home)
    before, after = judge(job).loads.scenario("full"), judge(left).loads.scenario("full")
    tools = sum(m.kg for m in judge(job).assembly.masses() if m.owner == Ref("unit", "vehicle"))
    assert before.gross.value - after.gross.value == pytest.approx(tools)
    assert Ref("unit", "vehicle") != VEHICLE


def test_fixes_of_a_unit_called_body_move_the_unit() -> None:
    job = edits.changed(renamed(DEMO, "sample-fridge", "body"), "body", u=75.0)
    verdict = judge(job)
    overlap = next(f for f in verdict.findings if f.code == "fit.overlap")
    fix = next(f for f in fixes(verdict, overlap) if f.subject == Ref("unit", "body"))
    mended = judge(edits.changed(job, "body", **fix.changes))
    assert overlap.key not in {f.key for f in mended.findings}


SIGNS = st.text(
    st.characters(codec="utf-8", exclude_categories=("Cs", "Cc")), min_size=1, max_size=40
)


@given(SIGNS)
def test_every_sign_of_a_name_is_seen(name: str) -> None:
    shown = rich(f"{strong(name)} is {name}")
    assert html.unescape(re.sub(r"</?b>", "", shown)) == f"{name} is {name}"
    assert bare(f"{strong(name)}: {name}") == f"{name}: {name}"


@pytest.mark.parametrize(
    "name", ["<b>Fat</b> & <i>sons</i>", "A<B", "Nuts & bolts", "</table>", "&lt;"]
)
def test_strength_board_and_sheet_show_a_name_as_it_is(
    demo: Job, keeping: Settings, name: str
) -> None:
    job = edits.changed(demo, "tools", name=name)
    first = msgspec.structs.replace(job.scenarios[0], name=name)
    job = msgspec.structs.replace(job, scenarios=(first, *job.scenarios[1:]))
    session = Session(job, keeping)
    session.view.set(scenario=first.id)
    strength = StrengthModel(session)
    strength.at = next(n for n, r in enumerate(strength.rows()) if r.name == name)
    assert html.escape(name) in rich(strength.words())
    _heads, _rows, rule = BoardModel(session).why()
    assert html.escape(name) in rich(rule)
    sheet = SheetModel(session).text("#000000")
    assert html.escape(name) in sheet
    assert re.search(re.escape(name), html.unescape(re.sub(r"<[^>]+>", "", sheet)))


def test_a_kept_job_opens_again_with_its_names(demo: Job, tmp_path: Path) -> None:
    job = edits.changed(demo, "tools", name="A<B & C")
    jobfile.save(job, tmp_path / "a.hull.json")
    assert jobfile.load(tmp_path / "a.hull.json") == job
