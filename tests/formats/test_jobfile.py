import json
import os
from pathlib import Path

import jsonschema
import msgspec
import pytest

from roomy_hull import __version__
from roomy_hull.core.errors import JobFileError
from roomy_hull.formats import jobfile
from roomy_hull.job.edits import units as edits
from roomy_hull.job.model import Job

DOCS = Path(__file__).parent.parent.parent / "docs"


@pytest.mark.parametrize(
    ("data", "says"),
    [
        (b"", "empty"),
        (b"  \n ", "empty"),
        (b"\xff\xfe\x00", "no text"),
        (b"{", "ends too early"),
        (b'{"format": "roomy-hull-job", "version": 2, "na', "ends too early"),
        (b'{"format": "roomy-hull-job",,}', "line 1, column 29"),
        (b"[]", "not a Roomy Hull job"),
        (b'{"format": "other"}', "not a Roomy Hull job"),
        (b'"text"', "not a Roomy Hull job"),
        (b'{"format": "roomy-hull-job", "version": 99}', "newer Roomy Hull"),
        (b'{"format": "roomy-hull-job", "version": 1}', "there is no field name"),
        (b'{"format": "roomy-hull-job",\n "version": 2,\n "name": NaN}', "line 3"),
        (b'{"format": "roomy-hull-job",\n "version": 1,\n "x": -Infinity}', "line 3"),
        (b'{"format": "roomy-hull-job", "format": "x"}', "stands twice"),
        (b"[" * 100000, "nested too deeply"),
    ],
)
def test_what_is_no_job_is_refused_in_words(data: bytes, says: str) -> None:
    with pytest.raises(JobFileError) as caught:
        jobfile.loads(data, "j.hull.json")
    assert says in str(caught.value)
    assert "j.hull.json" in caught.value.place


@pytest.mark.parametrize("cut", [1, 20, 400, 5000, -2, -30])
def test_a_truncated_file_says_where(demo: Job, cut: int) -> None:
    with pytest.raises(JobFileError, match="line"):
        jobfile.loads(jobfile.dumps(demo)[:cut])


def test_nan_inside_is_placed(demo: Job) -> None:
    text = jobfile.dumps(demo).decode().replace('"wheelbase": 3240', '"wheelbase": NaN', 1)
    line = next(i for i, row in enumerate(text.splitlines(), 1) if "NaN" in row)
    with pytest.raises(JobFileError, match=f"line {line}"):
        jobfile.loads(text.encode())


def test_a_byte_order_mark_is_no_trouble(demo: Job) -> None:
    assert jobfile.loads(b"\xef\xbb\xbf" + jobfile.dumps(demo)) == demo


def test_a_file_too_large_is_not_read(monkeypatch: pytest.MonkeyPatch, demo: Job) -> None:
    monkeypatch.setattr(jobfile, "MAX_BYTES", 100)
    with pytest.raises(JobFileError, match="too large"):
        jobfile.loads(jobfile.dumps(demo))


def test_saving_keeps_the_version_before(tmp_path: Path, demo: Job) -> None:
    path = tmp_path / "deep" / "job.hull.json"
    jobfile.save(demo, path)
    moved = edits.changed(demo, "tools", u=500.0)
    jobfile.save(moved, path)
    assert jobfile.load(path) == moved
    assert jobfile.load(path.with_name("job.hull.json.previous")) == demo
    assert {p.name for p in path.parent.iterdir()} == {"job.hull.json", "job.hull.json.previous"}


def test_a_failed_save_leaves_what_was_there(
    tmp_path: Path, demo: Job, monkeypatch: pytest.MonkeyPatch
) -> None:
    path = tmp_path / "job.hull.json"
    jobfile.save(demo, path)
    before = path.read_bytes()

    def full(*_args: object) -> None:
        raise OSError(28, "No space left on device")

    monkeypatch.setattr(os, "replace", full)
    with pytest.raises(JobFileError, match="No space left"):
        jobfile.save(edits.removed(demo, "tools"), path)
    assert path.read_bytes() == before
    assert not [p for p in tmp_path.iterdir() if p.name.startswith(".")]


def test_places_that_cannot_be_used(tmp_path: Path, demo: Job) -> None:
    with pytest.raises(JobFileError, match="folder"):
        jobfile.load(tmp_path)
    with pytest.raises(JobFileError, match="cannot be read"):
        jobfile.load(tmp_path / "nothing.hull.json")
    (tmp_path / "file").write_text("x")
    with pytest.raises(JobFileError, match="cannot be written"):
        jobfile.save(demo, tmp_path / "file" / "job.hull.json")


def test_the_file_is_readable_and_ends_in_a_line_break(demo: Job) -> None:
    text = jobfile.dumps(demo).decode()
    assert text.startswith(
        f'{{\n "format": "roomy-hull-job",\n "version": 3,\n "written_by": "{__version__}",\n "name": '
    )
    assert text.endswith("}\n")
    assert '"extra"' not in text


def test_the_published_schema_is_the_models_and_takes_the_demo(demo: Job) -> None:
    published = json.loads((DOCS / "job.schema.json").read_text())
    assert published == json.loads(json.dumps(jobfile.schema()))
    assert (DOCS / "fields.md").read_text() == jobfile.fields_listed()
    checker = jsonschema.Draft202012Validator(published)
    raw = json.loads(jobfile.dumps(demo))
    checker.validate(raw)
    raw["units"][2]["width"] = -1
    assert [list(e.path)[:1] for e in checker.iter_errors(raw)] == [["units"]]
    raw["units"][2]["width"] = 300
    raw["something"] = "new"
    checker.validate(raw)


@pytest.mark.parametrize(
    ("figure", "words"),
    [("1e999", "not a figure"), ("-1e400", "not a figure")],
)
def test_figures_past_all_counting_are_refused_even_where_nobody_reads_them(
    demo: Job, figure: str, words: str
) -> None:
    text = jobfile.dumps(demo).decode().replace('"name"', f'"colour": {figure}, "name"', 1)
    with pytest.raises(JobFileError, match=words):
        jobfile.loads(text.encode())


def test_next_to_nothing_is_nothing(demo: Job) -> None:
    tiny = json.loads(jobfile.dumps(demo))
    tiny["units"][0]["v"] = 5e-324
    tiny["vehicle"]["ratings"]["front_spring"] = 1e-9
    job = jobfile.loads(json.dumps(tiny).encode())
    assert (job.units[0].v, job.vehicle.ratings.front_spring) == (0, 0)
    # Written too: a sum's last digits never make a file that reads otherwise.
    noisy = msgspec.structs.replace(demo.units[0], v=2e-13)
    assert b"e-13" not in jobfile.dumps(
        msgspec.structs.replace(demo, units=(noisy, *demo.units[1:]))
    )


def test_what_was_aboard_cannot_weigh_more_than_the_vehicle(demo: Job) -> None:
    heavy = json.loads(jobfile.dumps(demo))
    heavy["vehicle"]["kerb"]["driver"] = 30000
    with pytest.raises(JobFileError, match="weigh again"):
        jobfile.loads(json.dumps(heavy).encode())
