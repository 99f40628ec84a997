"""The commands of the stage Build: plan, offer, pack and board, in words, as JSON and as files."""

import csv
import json
from pathlib import Path

import pytest

from roomy_hull.cli.main import main
from roomy_hull.formats import jobfile
from roomy_hull.formats.demo import demo_job
from tests.test_cli import Recorder, clashing, recorder

__all__ = ["clashing", "recorder"]


def test_the_plan_in_words_as_json_and_as_tables(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    assert main(["plan", "demo", "--out", str(tmp_path)], Recorder().desktop()) == 0
    told = capsys.readouterr().out
    assert "nine times in ten" in told
    assert "no plan ends before" in told
    assert main(["plan", "demo", "--json"], Recorder().desktop()) == 0
    found = json.loads(capsys.readouterr().out)
    assert found["begin"] == "2027-02-01"
    assert found["end"] >= found["bound_end"]
    ops = {o["key"]: o for o in found["operations"]}
    assert all(a in ops for o in ops.values() for a in o["after"])
    done = [o for o in ops.values() if o["done"]]
    assert done
    assert all("from" not in o for o in done)
    assert found["hours"]["worked"] == pytest.approx(
        sum(o["worked"] for o in ops.values()), abs=0.01
    )
    rows = list(csv.reader((tmp_path / "operations.csv").read_text().splitlines()))
    assert len(rows) == len(ops) + 1
    assert {len(r) for r in rows} == {len(rows[0])}
    assert len((tmp_path / "buying.csv").read_text().splitlines()) == len(found["buying"]) + 1
    # Before a plan is begun, days are counted and nothing is said of dates.
    assert main(["plan", "demo:tarn"], Recorder().desktop()) == 0
    told = capsys.readouterr().out
    assert "No plan is begun" in told
    assert "2000" not in told
    assert "day 1" in told


def test_offer_and_pack_are_handed_to_the_desktop(
    recorder: Recorder, tmp_path: Path, clashing: Path
) -> None:
    assert main(["offer", "demo", "--out", str(tmp_path), "--by", "KR"], recorder.desktop()) == 0
    assert recorder.calls[-1][0] == "offer"
    assert recorder.calls[-1][-1] == "KR"
    assert main(["pack", "demo", "--out", str(tmp_path)], recorder.desktop()) == 0
    assert recorder.calls[-1] == ("pack", "Brackwater Bird Survey", tmp_path, None)
    # Not while a stop stands.
    assert main(["pack", str(clashing), "--out", str(tmp_path)], recorder.desktop()) == 1
    assert len(recorder.calls) == 2
    assert (
        main(["pack", str(clashing), "--out", str(tmp_path), "--anyway"], recorder.desktop()) == 1
    )
    assert recorder.calls[-1][-1] == clashing


def test_the_board_of_a_folder(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    jobfile.save(demo_job("tarn"), tmp_path / "tarn.hull.json")
    (tmp_path / "bad.hull.json").write_text("{")
    assert main(["board", str(tmp_path)], Recorder().desktop()) == 0
    told = capsys.readouterr().out
    assert "Tarn Seed Bank; laid out; 0 stop" in told
    assert "bad.hull.json: " in told
    assert main(["board", str(tmp_path), "--json"], Recorder().desktop()) == 0
    found = json.loads(capsys.readouterr().out)
    assert [j["name"] for j in found["jobs"] if not j["trouble"]] == ["Tarn Seed Bank"]
    assert main(["board", str(tmp_path / "gone")], Recorder().desktop()) == 2
    assert "no such folder" in capsys.readouterr().err
    empty = tmp_path / "empty"
    empty.mkdir()
    assert main(["board", str(empty)], Recorder().desktop()) == 0
    assert "no jobs" in capsys.readouterr().out
