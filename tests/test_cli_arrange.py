"""The command arrange: words, JSON, layouts as jobs, and refusals with exit code 2."""

import json
from pathlib import Path

import pytest

from roomy_hull.formats import jobfile
from roomy_hull.verdict.verdict import judge
from tests.test_cli import command


def test_layouts_are_written_as_jobs_that_pass(
    tmp_path: Path, capfd: pytest.CaptureFixture[str]
) -> None:
    out = tmp_path / "out"
    code = command("arrange", "demo:tarn", "--pitch", "25", "--seconds", "5", "--out", str(out))
    told = capfd.readouterr()
    assert code == 0
    assert "Best found" in told.out
    assert "points, nothing in stacks is better than" in told.err
    jobs = sorted(out.glob(f"layout-*{jobfile.SUFFIX}"))
    assert jobs
    for path in jobs:
        job, news = jobfile.opened(path)
        assert news == ()
        assert judge(job).count("stop") == 0
        assert job.layout == "Arranged"
    table = (out / "layouts.csv").read_text()
    assert table.count("\n") == len(jobs) + 1
    assert len(json.loads((out / "arrange.json").read_text())["layouts"]) == len(jobs)


def test_json_is_all_that_stands_on_the_output(capfd: pytest.CaptureFixture[str]) -> None:
    assert command("arrange", "demo:tarn", "--pitch", "25", "--seconds", "4", "--json") == 0
    told = json.loads(capfd.readouterr().out)
    assert told["cell_mm"] == 25.0
    assert {u["id"] for u in told["layouts"][0]["units"]} >= {"cold", "water"}


def test_what_is_wanted_besides(tmp_path: Path, capfd: pytest.CaptureFixture[str]) -> None:
    want = tmp_path / "want.json"
    want.write_text(json.dumps({
        "format": "roomy-hull-want", "version": 1,
        "want": {"pin_all": True, "things": [{"stores": "outlet", "id": "plug"}]},
    }))  # fmt: skip
    assert (
        command(
            "arrange", "demo:tarn", "--want", str(want), "--seconds", "4", "--pitch", "25", "--json"
        )
        == 0
    )
    told = json.loads(capfd.readouterr().out)
    first = {u["id"]: u for u in told["layouts"][0]["units"]}
    assert "plug" in first
    assert first["cold"]["u"] == 675.0


def test_too_much_ends_with_code_1_and_names_it(
    tmp_path: Path, capfd: pytest.CaptureFixture[str]
) -> None:
    want = tmp_path / "want.json"
    things = [{"stores": "drawer-low", "count": 5}]
    want.write_text(
        json.dumps({"format": "roomy-hull-want", "version": 1, "want": {"things": things}})
    )
    assert command("arrange", "demo:tarn", "--want", str(want), "--seconds", "4", "--json") == 1
    told = json.loads(capfd.readouterr().out)
    assert told["layouts"] == []
    assert told["does_not_fit"]["things"]


@pytest.mark.parametrize(("more", "words"), [
    (["--seconds", "0"], "no time to arrange"), (["--seconds", "nan"], "no time to arrange"),
    (["--pitch", "5"], "not tried"), (["--pitch", "nan"], "not tried"), (["--want", "none.json"], "none.json"),
])  # fmt: skip
def test_bad_figures_and_files_are_refused(
    more: list[str], words: str, capfd: pytest.CaptureFixture[str]
) -> None:
    assert command("arrange", "demo:tarn", *more) == 2
    assert words in capfd.readouterr().err


def test_nothing_to_arrange_is_said(tmp_path: Path, capfd: pytest.CaptureFixture[str]) -> None:
    want = tmp_path / "want.json"
    want.write_text(
        json.dumps({"format": "roomy-hull-want", "version": 1, "want": {"pin_all": True}})
    )
    assert command("arrange", "demo:tarn", "--want", str(want)) == 2
    assert "nothing to arrange" in capfd.readouterr().err
