"""The services on the command line: words, JSON, tables and the plan."""

import csv
import json
from pathlib import Path
from xml.etree import ElementTree

import msgspec
import pytest

from roomy_hull.formats import jobfile
from roomy_hull.formats.demo import demo_job
from roomy_hull.job.services import Services
from tests.test_cli import command


def test_services_in_words_as_json_and_as_files(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    assert command("services", "demo", "--out", str(tmp_path / "out")) == 0
    said = capsys.readouterr().out
    assert "Sample fridge" in said
    assert "engine off, no sun: 52 h" in said
    assert sorted(p.name for p in (tmp_path / "out").iterdir()) == [
        "cables.csv",
        "circuits.csv",
        "plan.dxf",
        "plan.svg",
        "plugs.csv",
        "runs.csv",
    ]
    plan = ElementTree.fromstring((tmp_path / "out" / "plan.svg").read_text())
    words = " ".join(plan.itertext())
    assert "House battery" in words
    assert "10 mm²" in words
    rows = (tmp_path / "out" / "circuits.csv").read_text().splitlines()
    assert rows[0].startswith("circuit,from,to,A,m one way,cable")
    for file in ("circuits.csv", "cables.csv", "plugs.csv", "runs.csv"):
        cells = list(csv.reader((tmp_path / "out" / file).read_text().splitlines()))
        assert {len(row) for row in cells} == {len(cells[0])}, file
    assert command("services", "demo", "--json") == 0
    frame = json.loads(capsys.readouterr().out)
    assert len(rows) == 1 + len(frame["circuits"])
    assert len(frame["trip"]["left_wh"]) == frame["trip"]["hours"] == 144
    assert frame["trip"]["still_with_sun_h"] is None
    assert frame["water"]["tanks"][0]["usable_l"]["level"] < frame["water"]["tanks"][0]["holds_l"]


def test_a_job_without_services_says_how_to_begin(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    bare = msgspec.structs.replace(demo_job(), services=Services(), units=(), sets=(), runs=())
    path = tmp_path / "bare.hull.json"
    jobfile.save(bare, path)
    assert command("services", str(path)) == 2
    assert "no services are entered" in capsys.readouterr().err
