"""A cut is written whole or not at all; every file says of what it is, and what was open as it was written."""

import csv
import io
import os
import re
from pathlib import Path

import ezdxf
import msgspec
import pytest

from roomy_hull.__main__ import main
from roomy_hull.core.errors import JobFileError
from roomy_hull.formats import cutfiles, jobfile, sets
from roomy_hull.job.edits import releases as edits
from roomy_hull.job.edits import units
from roomy_hull.job.model import Job
from roomy_hull.making.cutlist import CutList, cut_list
from roomy_hull.making.marking import Marking
from roomy_hull.making.release import current, drawn_up
from roomy_hull.making.works import works_of
from roomy_hull.verdict.marks import marking_now
from roomy_hull.verdict.verdict import Verdict, judge
from tests.builders import SHOP
from tests.sweeping import some

FINE, OPEN = Marking("Wetland crew", "B"), Marking("Wetland crew", "", 0, 2)


@pytest.fixture(scope="module")
def cut(demo_verdict: Verdict) -> CutList:
    whole = cut_list(demo_verdict.assembly.parts(), SHOP.stock)
    blanks, nest = whole.blanks[:6], whole.nest
    return msgspec.structs.replace(
        whole, blanks=blanks, parts=tuple(b.part for b in blanks), nest=msgspec.structs.replace(nest, sheets=nest.sheets[:1])
    )  # fmt: skip


def fewer(cut: CutList) -> CutList:
    return msgspec.structs.replace(cut, blanks=cut.blanks[2:4], parts=cut.parts[2:4])


def content(folder: Path) -> dict[str, bytes]:
    return {
        str(p.relative_to(folder)): p.read_bytes() for p in sorted(folder.rglob("*")) if p.is_file()
    }


class Killed(BaseException):
    """Stands for the end of the process."""


CALLS = ("replace", "unlink", "open", "mkdir", "fsync")


@pytest.mark.parametrize("call", CALLS)
def test_a_cut_broken_off_at_any_call_leaves_the_one_set_or_the_other(
    call: str, cut: CutList, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    cutfiles.write(cut, tmp_path / "new", OPEN)
    new = content(tmp_path / "new").keys()
    real, seen = getattr(os, call), 0
    folder = tmp_path / "out"
    for stop in some([*range(40), *range(40, 400, 3)], 9):
        for path in sorted(folder.rglob("*"), reverse=True) if folder.exists() else ():
            path.rmdir() if path.is_dir() else path.unlink()
        cutfiles.write(fewer(cut), folder, FINE)
        old = content(folder).keys()
        (folder / "notes.txt").write_text("the person's own")
        count = iter(range(10_000))

        def killing(
            *values: object, count: object = count, stop: int = stop, **more: object
        ) -> object:
            if next(count) == stop:  # type: ignore[call-overload]
                raise Killed
            return real(*values, **more)

        with monkeypatch.context() as patch:
            patch.setattr(os, call, killing)
            try:
                cutfiles.write(cut, folder, OPEN)
                ended = True
            except Killed:
                ended = False
        seen += not ended
        said = cutfiles.wrong(folder)  # an exchange that was begun is ended
        assert [w for w in said if "broken off" not in w] == []
        found = {k: v for k, v in content(folder).items() if not k.startswith(".")}
        assert found.pop("notes.txt") == b"the person's own"
        # All of the one or all of the other, by their names and by what every file says.
        marked = {b"STOPS OPEN: 2" in data for data in found.values()}
        assert (found.keys(), marked) in ((old, {False}), (new, {True}))
        assert not ended or marked == {True}
    assert seen


def test_a_full_disk_leaves_the_set_that_was_there(
    cut: CutList, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    cutfiles.write(fewer(cut), tmp_path, FINE)
    before = content(tmp_path)

    def full(*_values: object) -> None:
        raise OSError(28, "No space left on device")

    monkeypatch.setattr(os, "fsync", full)
    with pytest.raises(JobFileError, match=r"No space left.*untouched"):
        cutfiles.write(cut, tmp_path, OPEN)
    monkeypatch.undo()
    assert content(tmp_path) == before


def test_nothing_is_written_or_taken_away_through_what_is_planted(
    cut: CutList, tmp_path: Path
) -> None:
    elsewhere = tmp_path / "elsewhere"
    elsewhere.mkdir()
    (elsewhere / "001-part.dxf").write_text("precious")
    out = tmp_path / "out"
    out.mkdir()
    (out / "blanks").symlink_to(elsewhere)
    with pytest.raises(JobFileError, match="is a link"):
        cutfiles.write(cut, out, FINE)
    (out / "blanks").unlink()
    (out / "parts.csv").symlink_to(elsewhere / "001-part.dxf")
    (out / sets.JOURNAL).write_text(
        '{"stage": "../elsewhere", "put": ["parts.csv"], "remove": ["../elsewhere/001-part.dxf", "parts.csv"]}'
    )
    cutfiles.write(cut, out, FINE)
    assert [p.name for p in elsewhere.iterdir()] == ["001-part.dxf"]
    assert (elsewhere / "001-part.dxf").read_text() == "precious"
    assert not (out / "parts.csv").is_symlink()


def test_a_file_changed_or_lost_since_is_told(cut: CutList, tmp_path: Path) -> None:
    cutfiles.write(cut, tmp_path, FINE)
    assert cutfiles.wrong(tmp_path) == []
    first, second, *_rest = sorted((tmp_path / "blanks").iterdir())
    first.write_bytes(first.read_bytes() + b" ")
    second.unlink()
    assert cutfiles.wrong(tmp_path) == [
        f"blanks/{first.name} is not as it was written", f"blanks/{second.name} is missing",
    ]  # fmt: skip
    (tmp_path / cutfiles.MANIFEST).write_text("blanks/001-x.dxf\n")  # of an older version
    with pytest.raises(JobFileError, match="with hashes"):
        cutfiles.wrong(tmp_path)


@pytest.mark.parametrize("marking", [FINE, OPEN, Marking("Ute", "C", 3, 1)])
def test_every_file_says_of_what_it_is(marking: Marking, cut: CutList, tmp_path: Path) -> None:
    cutfiles.write(cut, tmp_path, marking)
    files = [p for p in tmp_path.rglob("*") if p.is_file() and not p.name.startswith(".")]
    assert len(files) > 12
    for path in files:
        text = path.read_text()
        assert marking.job in text
        assert marking.state in text
        for words in marking.warnings:
            assert words in text, path
    hashes = set()
    names: dict[str, str] = {}
    for path in tmp_path.rglob("*.dxf"):
        doc = ezdxf.readfile(path)  # type: ignore[attr-defined]
        assert doc.layers.get("NOT_CUT").dxf.plot == 0
        said = [e for e in doc.modelspace() if e.dxf.layer == "NOT_CUT"]
        assert {e.dxftype() for e in said} == {"TEXT"}
        hashes |= set(cutfiles.parts_in(path.read_bytes()))
        # Within what is cut: a nest made of it is no larger.
        whole = [
            e
            for e in doc.modelspace()
            if e.dxf.layer in ("CUT", "ETCH") and e.dxftype() == "LWPOLYLINE"
        ]
        right = max(p[0] for e in whole for p in e.get_points())  # type: ignore[attr-defined]
        top = max(p[1] for e in whole for p in e.get_points())  # type: ignore[attr-defined]
        # The number that is etched on every piece is that of its file, and of one part only.
        etched = [
            e.dxf.text for e in doc.modelspace() if e.dxf.layer == "ETCH" and e.dxftype() == "TEXT"
        ]
        named = [words for words in etched if re.match(r"\d{3} .*  x\d+$", words)]
        assert named
        for number, name in (w.split(" ", 1) for w in named):
            assert names.setdefault(number, name) == name
        if path.parent.name == "blanks":
            assert [w[:3] for w in named] == [path.name[:3]]
        for e in said:
            at = e.dxf.align_point if e.dxf.hasattr("align_point") else e.dxf.insert
            assert 0 <= at.x <= right
            assert 0 <= at.y <= top
            assert at.x + 0.62 * e.dxf.height * len(e.dxf.text) <= right * 1.05
    rows = list(csv.reader(io.StringIO((tmp_path / "parts.csv").read_text())))
    head = rows[len(marking.warnings)]
    assert head[-3:] == ["part hash", "job", "revision"]
    assert {r[-3] for r in rows[len(marking.warnings) + 1 :]} == {
        h for h in hashes if h in str(rows)
    }
    assert all(r[-2:] == [marking.job, marking.state] for r in rows[len(marking.warnings) + 1 :])


def test_the_decimals_of_a_coordinate_are_no_hash() -> None:
    told = b"10\n0.1234567890123456\npart 3bf645e8ad57e5f3\n0.9876543210987654"
    assert cutfiles.parts_in(told) == ("3bf645e8ad57e5f3",)


def test_a_machine_is_told_whether_its_file_is_the_current_one(
    demo: Job, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    path, out = tmp_path / "ute.hull.json", tmp_path / "out"
    jobfile.save(demo, path)
    assert main_of("cut", str(path), "--out", str(out)) == 0
    assert "not released" in capsys.readouterr().out
    assert main_of("cut", str(path), "--out", str(out), "--verify") == 0
    jobfile.save(
        demo.but(note="Another word")
        if hasattr(demo, "but")
        else msgspec.structs.replace(demo, note="x"),
        path,
    )
    blanks = sorted((out / "blanks").iterdir())
    for file in (blanks[0], out / "bars.csv", out / "parts.csv"):
        assert main_of("check", str(path), "--file", str(file)) == 0
    capsys.readouterr()
    wider = units.changed(demo, "tools", width=demo.thing("tools").width + 7.0)  # type: ignore[union-attr]
    jobfile.save(wider, path)
    now = set(current(works_of(judge(wider).assembly)))
    old = [p for p in out.glob("*/*.dxf") if not set(cutfiles.parts_in(p.read_bytes())) <= now]
    new = [p for p in out.glob("*/*.dxf") if p not in old]
    assert old
    assert new
    assert main_of("check", str(path), "--file", str(old[0])) == 1
    assert "NOT the current one" in capsys.readouterr().out
    assert main_of("check", str(path), "--file", str(new[0])) == 0
    assert main_of("check", str(path), "--file", str(out / "bars.csv")) == 1
    assert main_of("cut", str(path), "--out", str(out), "--verify") == 1
    said = capsys.readouterr().out
    assert "0 files are not as they were written" in said
    assert said.count("is not of the job as it is now") == len(old)


def main_of(*words: str) -> int:
    """What a command ends with."""
    import sys

    before, sys.argv = sys.argv, ["roomy-hull", *words]
    try:
        return main()
    finally:
        sys.argv = before


def test_a_cut_with_stops_says_so_everywhere_and_is_logged(
    demo: Job, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    path, out = tmp_path / "ute.hull.json", tmp_path / "out"
    jobfile.save(units.changed(demo, "sample-fridge", u=80.0), path)
    stops = sum(f.severity == "stop" for f in judge(jobfile.load(path)).findings)
    assert main_of("cut", str(path), "--out", str(out)) == 1
    assert not out.exists()
    assert main_of("cut", str(path), "--out", str(out), "--anyway") == 1
    assert f"STOPS OPEN: {stops}" in capsys.readouterr().err
    for file in out.rglob("*.*"):
        if file.is_file() and not file.name.startswith("."):
            assert f"STOPS OPEN: {stops}" in file.read_text(), file
    (entry,) = jobfile.load(path).log
    assert f"{stops} stop findings are open" in entry.words


def test_what_has_changed_since_a_release_is_counted(demo: Job, demo_verdict: Verdict) -> None:
    whole = marking_now(demo_verdict).whole
    assert marking_now(demo_verdict) == Marking(demo.name, whole=whole)
    works = works_of(demo_verdict.assembly)
    job = edits.released(demo, drawn_up((), works, "AB"))
    assert marking_now(judge(job)) == Marking(demo.name, "A", whole=whole)
    changed = marking_now(judge(units.changed(job, "tools", width=demo.thing("tools").width + 7.0)))  # type: ignore[union-attr]
    assert changed.changed > 0
    assert changed.whole != whole
    noted = marking_now(judge(msgspec.structs.replace(job, note="Another word")))
    assert noted.whole == whole
    assert changed.warnings[-1] == f"{changed.changed} parts have changed since revision A"
