"""Two windows on one file: nothing is overwritten in silence, and edits that do not touch are laid together."""

import json
from pathlib import Path

import msgspec
import pytest
from hypothesis import given
from hypothesis import strategies as st

from roomy_hull.core.errors import JobFileError
from roomy_hull.formats import jobfile
from roomy_hull.formats.settings import Settings
from roomy_hull.job.edits import units as edits
from roomy_hull.job.edits.merging import merged
from roomy_hull.job.edits.resizing import resized
from roomy_hull.job.model import Job
from roomy_hull.session.actions.files import COPY, OVER, TOGETHER
from roomy_hull.session.asking import Nobody
from roomy_hull.session.doing import do
from roomy_hull.session.files import ChangedError, open_job, save_job
from roomy_hull.session.session import Session


class Answers(Nobody):
    """Answers as it was told, and remembers what it was asked."""

    def __init__(self, choice: str = "", path: Path | None = None, *, agrees: bool = False) -> None:
        self.choice, self.path, self.agrees = choice, path, agrees
        self.asked: list[str] = []

    def choose(self, words: str, options: tuple[str, ...]) -> str:
        self.asked.append(words)
        assert not self.choice or self.choice in options
        return self.choice

    def save_path(self) -> Path | None:
        return self.path

    def agree(self, words: str) -> bool:
        self.asked.append(words)
        return self.agrees


@pytest.fixture
def two(tmp_path: Path, demo: Job) -> tuple[Session, Session, Path]:
    path = tmp_path / "ute.hull.json"
    jobfile.save(demo, path)
    found = []
    for n in (1, 2):
        session = Session(demo, Settings(tmp_path / f"c{n}", tmp_path / f"s{n}"))
        open_job(session, path)
        found.append(session)
    return found[0], found[1], path


def moved(session: Session, key: str, u: float) -> None:
    session.edit("move", edits.changed(session.job, key, u=u))


def test_the_second_window_is_told_who_has_the_file(two: tuple[Session, Session, Path]) -> None:
    first, second, _path = two
    assert "has this file open too" not in first.messages.text
    assert "has this file open too" in second.messages.text


def test_what_another_window_saved_is_not_written_over(two: tuple[Session, Session, Path]) -> None:
    first, second, path = two
    moved(first, "tools", 500.0)
    save_job(first, path)
    on_disk = path.read_bytes()
    moved(second, "camp", 1000.0)
    with pytest.raises(ChangedError, match=r"changed by somebody else, last on .* has it open"):
        save_job(second, path)
    assert path.read_bytes() == on_disk
    # Nor by the action, where nobody chooses.
    do(second, "job.save")
    assert path.read_bytes() == on_disk
    assert second.history.dirty
    assert "Not saved" in second.messages.text


def test_edits_that_do_not_touch_are_laid_together(two: tuple[Session, Session, Path]) -> None:
    first, second, path = two
    moved(first, "tools", 500.0)
    first.edit("size", resized(first.job, "body.tray.headboard", 900.0))
    save_job(first, path)
    moved(second, "camp", 1000.0)
    second.asker = Answers(TOGETHER)
    do(second, "job.save")
    both = jobfile.load(path)
    assert both.thing("tools").u == 500  # type: ignore[union-attr]
    assert both.thing("camp").u == 1000  # type: ignore[union-attr]
    assert both.body.tray.headboard == 900
    assert second.job == both
    assert not second.history.dirty
    # One step, taken back as one.
    second.undo()
    assert second.job.thing("tools").u == 475  # type: ignore[union-attr]
    assert second.job.thing("camp").u == 1000  # type: ignore[union-attr]


def test_edits_of_the_same_part_are_named(two: tuple[Session, Session, Path]) -> None:
    first, second, path = two
    moved(first, "tools", 500.0)
    save_job(first, path)
    on_disk = path.read_bytes()
    moved(second, "tools", 525.0)
    second.asker = Answers(TOGETHER)
    do(second, "job.save")
    assert "units.tools.u" in second.messages.text
    assert path.read_bytes() == on_disk
    assert second.job.thing("tools").u == 525  # type: ignore[union-attr]


def test_a_copy_or_the_persons_own_word(two: tuple[Session, Session, Path], tmp_path: Path) -> None:
    first, second, path = two
    moved(first, "tools", 500.0)
    save_job(first, path)
    on_disk = path.read_bytes()
    moved(second, "tools", 525.0)
    second.asker = Answers(COPY, tmp_path / "copy.hull.json")
    do(second, "job.save")
    assert path.read_bytes() == on_disk
    assert jobfile.load(tmp_path / "copy.hull.json").thing("tools").u == 525  # type: ignore[union-attr]
    third = Session(second.job, Settings(tmp_path / "c3", tmp_path / "s3"))
    open_job(third, path)
    moved(first, "tools", 475.0)
    save_job(first, path)
    moved(third, "tools", 550.0)
    third.asker = Answers(OVER)
    do(third, "job.save")
    assert jobfile.load(path).thing("tools").u == 550  # type: ignore[union-attr]
    # What was there is kept.
    assert jobfile.load(path.with_name("ute.hull.json.previous")).thing("tools").u == 475  # type: ignore[union-attr]


def test_saving_again_and_again_asks_nothing(two: tuple[Session, Session, Path]) -> None:
    first, _second, path = two
    for u in (500.0, 525.0, 550.0):
        moved(first, "tools", u)
        save_job(first, path)
    assert not first.history.dirty


def test_save_as_a_name_without_ending_asks_before_it_replaces(
    two: tuple[Session, Session, Path],
) -> None:
    first, _second, path = two
    on_disk = path.read_bytes()
    moved(first, "tools", 500.0)
    first.asker = asked = Answers(path=path.with_name("ute"))
    do(first, "job.save_as")
    assert path.read_bytes() == on_disk
    assert "Replace it?" in asked.asked[0]


def test_a_step_that_no_file_could_hold_is_not_taken(two: tuple[Session, Session, Path]) -> None:
    first, _second, path = two
    before = first.job
    crowd = tuple(before.sets[0].but(id=f"s{n}") for n in range(50))
    first.edit("sets", msgspec.structs.replace(before, sets=crowd))
    assert first.job is before
    assert "Sets: a list of length <= 40 is wanted" in first.messages.text
    assert "not taken" in first.messages.text
    # One that got in all the same is kept beside, and said so.
    first.history.push("sets", msgspec.structs.replace(before, sets=crowd))
    on_disk = path.read_bytes()
    do(first, "job.save")
    assert "Nothing is lost" in first.messages.text
    (kept,) = first.settings.state.glob("rescued-*.json")
    assert len(json.loads(kept.read_text())["sets"]) == len(crowd)
    assert path.read_bytes() == on_disk


def test_half_a_sign_is_taken_neither_by_hand_nor_from_a_file(
    two: tuple[Session, Session, Path],
) -> None:
    first, _second, path = two
    assert not first.edit("note", msgspec.structs.replace(first.job, note="a\ud800b"))
    assert "half a sign" in first.messages.text
    with pytest.raises(JobFileError, match="half a sign"):
        first.take(
            msgspec.structs.replace(first.job, name="\ud800"), None
        )  # as a new job's dialog hands it over
    save_job(first, path)
    raw = json.loads(path.read_bytes())
    raw["units"][1]["name"] = "a\udc00b"
    path.write_text(json.dumps(raw))
    with pytest.raises(JobFileError, match=r"units\[1\].name: a word holds half a sign"):
        jobfile.load(path)
    raw["units"][1]["name"] = "a whole one: \U0001f600"
    path.write_text(json.dumps(raw))
    assert jobfile.load(path).units[1].name == "a whole one: \U0001f600"


part = st.dictionaries(st.sampled_from("abc"), st.integers(0, 2), max_size=3)
things = st.dictionaries(st.sampled_from(("p", "q", "r")), part, max_size=3).map(
    lambda d: [{"id": k} | v for k, v in d.items()]
)
jobs = st.fixed_dictionaries({"name": st.integers(0, 2), "body": part, "units": things})


@given(jobs, jobs, jobs)
def test_what_only_one_changed_is_taken_from_that_one(base: dict, mine: dict, theirs: dict) -> None:  # type: ignore[type-arg]
    assert merged(base, mine, base) == (mine, ())
    raw, conflicts = merged(base, base, theirs)
    assert conflicts == ()
    assert {u["id"]: u for u in raw["units"]} == {u["id"]: u for u in theirs["units"]}
    assert (raw["name"], raw["body"]) == (theirs["name"], theirs["body"])
    assert merged(base, mine, mine) == (mine, ())
    # What both agree on is so, and a change of one side that the other left alone is never lost.
    raw, conflicts = merged(base, mine, theirs)
    if not conflicts:
        for key in "abc":
            a, b, c = (side["body"].get(key) for side in (base, mine, theirs))
            assert raw["body"].get(key) == (b if b != a else c)


def test_a_vehicle_with_fewer_seats_than_people_is_refused_in_words(
    two: tuple[Session, Session, Path],
) -> None:
    first, _second, _path = two
    seats = first.job.vehicle.seats[:1]
    narrow = msgspec.structs.replace(first.job.vehicle, seats=seats)
    before = first.job
    assert not first.attempt("import", lambda: msgspec.structs.replace(before, vehicle=narrow))
    assert first.job is before
    assert "2 people for 1 seat" in first.messages.text
