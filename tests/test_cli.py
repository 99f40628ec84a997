import json
import os
import select
import signal
import subprocess
import sys
from pathlib import Path

import pytest

from roomy_hull.cli import given
from roomy_hull.cli.desktop import Desktop
from roomy_hull.cli.main import main
from roomy_hull.formats import jobfile, vehiclefile
from roomy_hull.job.edits import units as edits
from roomy_hull.job.model import Job
from roomy_hull.making.works import works_of
from roomy_hull.shop.shop import Shop
from roomy_hull.verdict.verdict import Verdict


class Recorder:
    """Stands where the desktop would be handed in."""

    def __init__(self) -> None:
        self.calls: list[tuple[object, ...]] = []

    def desktop(self) -> Desktop:
        def run(path: Path | None, shop: Path | None) -> int:
            self.calls.append(("run", path, shop))
            return 0

        def shots(path: Path | None, folder: Path) -> list[Path]:
            self.calls.append(("shots", path, folder))
            return [folder / "a.png"]

        def sheet(job: Job, folder: Path, scenario: str, shop: Shop) -> tuple[Path, Path]:
            self.calls.append(("sheet", job.name, folder, scenario, shop.name))
            return folder / "load-sheet.pdf", folder / "load-sheet.csv"

        def book(job: Job, folder: Path, shop: Shop) -> tuple[Path, ...]:
            self.calls.append(("book", job.name, folder, shop.name))
            return (folder / "book.pdf",)

        def offer(job: Job, folder: Path, shop: Shop, by: str) -> tuple[Path, ...]:
            self.calls.append(("offer", job.name, folder, shop.name, by))
            return (folder / "offer.pdf",)

        def pack(verdict: Verdict, folder: Path, path: Path | None) -> tuple[Path, ...]:
            self.calls.append(("pack", verdict.job.name, folder, path))
            return (folder / "hand-over.pdf",)

        return Desktop(run, shots, sheet, book, offer, pack)


@pytest.fixture
def recorder() -> Recorder:
    return Recorder()


def command(*args: str) -> int:
    return main(args, Recorder().desktop())


@pytest.fixture
def clashing(demo: Job, tmp_path: Path) -> Path:
    path = tmp_path / "clash.hull.json"
    jobfile.save(edits.changed(demo, "sample-fridge", u=75.0), path)
    return path


def test_check_prints_scenarios_and_findings(capsys: pytest.CaptureFixture[str]) -> None:
    assert command("check", "demo") == 0
    said = capsys.readouterr().out
    assert "Leaving full, crew of two" in said
    assert "LOOK  Worst rear" in said
    assert "0 stop, 3 look" in said


def test_check_of_a_clash_exits_with_one(
    clashing: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    assert command("check", str(clashing)) == 1
    assert "STOP  Sample fridge and Tool drawer overlap [47.0 mm]" in capsys.readouterr().out


def test_json_carries_what_the_window_shows(
    stocked_verdict: Verdict, capsys: pytest.CaptureFixture[str]
) -> None:
    assert command("check", "demo", "--json") == 0
    frame = json.loads(capsys.readouterr().out)
    assert frame["format"] == "roomy-hull-verdict/1"
    assert frame["job"] == "Brackwater Bird Survey"
    for row, loads in zip(frame["scenarios"], stocked_verdict.loads.scenarios, strict=True):
        for key, figure in (
            ("front_kg", loads.front), ("rear_kg", loads.rear), ("gross_kg", loads.gross),
            ("left_kg", loads.left), ("right_kg", loads.right), ("payload_left_kg", loads.payload_left),
        ):  # fmt: skip
            assert row[key]["value"] == pytest.approx(figure.value, abs=1e-3)
            assert row[key]["doubt"] == pytest.approx(figure.uncertainty, abs=1e-3)
            assert row[key]["limit"] == figure.limit
        assert row["tail_low_mm"] == pytest.approx(loads.stance.tail_low, abs=1e-3)
        assert sum(o["mass_kg"] for o in row["owners"].values()) == pytest.approx(
            loads.gross.value, abs=0.02
        )
    assert [f["code"] for f in frame["findings"]] == [f.code for f in stocked_verdict.findings]
    codes = [f["code"] for f in frame["findings"] if f["weight"] == "look"]
    assert codes == ["loads.level", "access.lift", "access.lift"]
    assert {"code", "weight", "title", "subjects", "measured", "limit", "unit", "source"} <= set(
        frame["findings"][0]
    )
    items = {i["id"]: i for i in frame["items"]}
    assert items["water"]["mass_kg"] == pytest.approx(99.5, abs=0.1)
    assert len(items["sample-fridge"]["solids"]) == 2
    assert len(frame["parts"]) == len(works_of(stocked_verdict.assembly).parts)
    assert sum(len(s["blanks"]) for s in frame["cut"]["sheets"]) == sum(
        p["count"] for p in frame["parts"] if p["kind"] == "sheet"
    )


def test_json_names_fixes_and_places(clashing: Path, capsys: pytest.CaptureFixture[str]) -> None:
    assert command("check", str(clashing), "--json") == 1
    first = json.loads(capsys.readouterr().out)["findings"][0]
    assert first["where_mm"]
    assert any(f["changes"] == {"u": 25.0} for f in first["fixes"])


def test_cut_writes_files_and_says_how_many(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    assert command("cut", "demo", "--out", str(tmp_path / "c")) == 0
    assert "sheets" in capsys.readouterr().out
    assert (tmp_path / "c" / "parts.csv").is_file()
    assert list((tmp_path / "c" / "blanks").glob("*.dxf"))


def test_cut_refuses_while_stops_are_open_unless_told(
    clashing: Path, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    out = tmp_path / "c"
    assert command("cut", str(clashing), "--out", str(out)) == 1
    said = capsys.readouterr().err
    assert "nothing is written: 4 stop findings are open" in said
    assert not out.exists()
    assert command("cut", str(clashing), "--out", str(out), "--anyway") == 1
    assert (out / "parts.csv").is_file()


@pytest.mark.parametrize(
    ("args", "says"),
    [
        (["check", "nothing.hull.json"], "cannot be read"),
        (["check", "."], "folder"),
        (["cut", "nothing.hull.json", "--out", "x"], "cannot be read"),
    ],
)
def test_unusable_input_is_two_and_one_line(
    args: list[str], says: str, capsys: pytest.CaptureFixture[str]
) -> None:
    assert command(*args) == 2
    said = capsys.readouterr().err
    assert says in said
    assert said.count("\n") == 1


@pytest.mark.parametrize("args", [["chek", "x"], ["check"], ["cut", "demo"], ["--bogus"]])
def test_a_wrong_command_is_two_and_points_to_help(
    args: list[str], capsys: pytest.CaptureFixture[str]
) -> None:
    with pytest.raises(SystemExit) as caught:
        command(*args)
    assert caught.value.code == 2
    assert "--help" in capsys.readouterr().err


def test_the_desktop_is_started_with_what_was_named(recorder: Recorder, tmp_path: Path) -> None:
    assert main([], recorder.desktop()) == 0
    assert main(["open"], recorder.desktop()) == 0
    assert main(["open", "j.hull.json"], recorder.desktop()) == 0
    assert main(["shots", "demo", "--out", str(tmp_path)], recorder.desktop()) == 0
    assert recorder.calls == [
        ("run", None, None), ("run", None, None), ("run", Path("j.hull.json"), None), ("shots", None, tmp_path)
    ]  # fmt: skip


def test_our_own_faults_are_three_and_no_traceback(
    monkeypatch: pytest.MonkeyPatch, capsys: pytest.CaptureFixture[str]
) -> None:
    def fault(*_args: object) -> None:
        raise RuntimeError("oops")

    monkeypatch.setattr(given, "judge", fault)
    assert command("check", "demo") == 3
    said = capsys.readouterr().err
    assert "fault of the program" in said
    assert "Traceback" not in said


def test_the_schema_is_printed(capsys: pytest.CaptureFixture[str]) -> None:
    assert command("schema") == 0
    assert json.loads(capsys.readouterr().out) == json.loads(json.dumps(jobfile.schema()))


BLOCKED = """
import sys
class Block:
    def find_spec(self, name, path=None, target=None):
        if name.split(".")[0] == "PyQt6":
            raise ImportError("PyQt6 is not to be had here")
sys.meta_path.insert(0, Block())
from roomy_hull import __main__
sys.argv = ["roomy-hull", *sys.argv[1:]]
code = __main__.main()
assert "PyQt6" not in sys.modules
sys.exit(code)
"""


def test_check_and_cut_run_without_qt(tmp_path: Path) -> None:
    for args in (["check", "demo"], ["cut", "demo", "--out", str(tmp_path)]):
        done = subprocess.run(
            [sys.executable, "-c", BLOCKED, *args],
            capture_output=True,
            text=True,
            env=dict(os.environ),
        )
        assert done.returncode == 0, done.stderr


def test_json_has_outline_towing_body_and_survey(
    demo_verdict: Verdict, capsys: pytest.CaptureFixture[str]
) -> None:
    assert command("check", "demo", "--json") == 0
    frame = json.loads(capsys.readouterr().out)
    outline = frame["outline"]
    assert outline["overhang_mm"] == pytest.approx(demo_verdict.outline.overhang, abs=0.001)
    assert outline["width_mm"] == pytest.approx(demo_verdict.outline.width, abs=0.001)
    assert {a["scenario"] for a in outline["angles"]} == {
        a.scenario for a in demo_verdict.outline.angles
    }
    towing = frame["towing"]
    assert [p["id"] for p in towing["scenarios"]] == [s["id"] for s in frame["scenarios"]]
    limit = towing["axles"]["rear"]["limit_kg"]
    assert all(s["rear_kg"]["limit"] == limit for s in frame["scenarios"])
    cost = frame["body"]["cost"]
    parts = sum(cost[k] for k in ("sheet", "bar", "hardware", "cutting", "bending"))
    assert cost["total"] == pytest.approx(parts, abs=0.01)
    assert frame["survey"]["sizes"]["wheelbase"]["doubt"] > 0


@pytest.mark.parametrize("name", ["demo:lowfold", "demo:tarn"])
def test_the_other_demo_jobs_are_checked(name: str, capsys: pytest.CaptureFixture[str]) -> None:
    assert command("check", name) == 0
    assert "0 stop" in capsys.readouterr().out


def test_a_demo_that_is_not_there_names_those_that_are(capsys: pytest.CaptureFixture[str]) -> None:
    assert command("check", "demo:nowhere") == 2
    said = capsys.readouterr().err
    assert "lowfold" in said
    assert "Traceback" not in said


def test_the_library_is_listed(capsys: pytest.CaptureFixture[str]) -> None:
    assert command("vehicles") == 0
    lines = capsys.readouterr().out.splitlines()
    assert len(lines) >= 6
    assert {line.split()[0] for line in lines} == {"cab-chassis", "pickup", "wagon"}


def test_an_own_vehicle_that_is_damaged_is_named(
    monkeypatch: pytest.MonkeyPatch, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    monkeypatch.setattr(vehiclefile, "own_folder", lambda: tmp_path)
    (tmp_path / "mine.vehicle.json").write_text("{")
    assert command("vehicles") == 2
    assert "cannot be used" in capsys.readouterr().out


@pytest.mark.parametrize(
    "args", [("--value", "-5"), ("--value", "nan"), ("--noise", "1"), ("--noise", "-0.1")]
)
def test_a_device_with_impossible_figures_is_refused(
    args: tuple[str, str], capsys: pytest.CaptureFixture[str]
) -> None:
    assert command("simulate", "laser", *args) == 2
    assert "Mend them" in capsys.readouterr().err


@pytest.mark.parametrize(
    ("device", "says"), [("laser", b" DIST "), ("scales", b" LOAD ")]
)  # fmt: skip
def test_a_stand_in_device_is_served_until_it_is_stopped(device: str, says: bytes) -> None:
    run = subprocess.Popen(
        [sys.executable, "-m", "roomy_hull", "simulate", device, "--noise", "0"],
        stdout=subprocess.PIPE, stderr=subprocess.PIPE, text=True,
    )  # fmt: skip
    try:
        assert run.stdout is not None
        words = run.stdout.readline()
        path = words.split(" answers at ")[1].split(";")[0]
        handle = os.open(path, os.O_RDWR | os.O_NOCTTY)
        try:
            heard = b""
            os.write(handle, b"MEAS\n")
            while says not in heard and select.select([handle], [], [], 10.0)[0]:
                heard += os.read(handle, 200)
            assert says in heard
        finally:
            os.close(handle)
    finally:
        run.send_signal(signal.SIGINT)
        _out, trouble = run.communicate(timeout=20)
    assert run.returncode == 130
    assert "Traceback" not in trouble


def test_the_solid_is_written_open_or_closed(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    out = tmp_path / "demo.glb"
    assert (
        command("solid", "demo", "--out", str(out), "--open", "door:left", "--open", "wet-bench")
        == 0
    )
    assert out.read_bytes()[:4] == b"glTF"
    assert command("solid", "demo", "--out", str(out), "--open", "moon") == 2
    assert "no 'moon' that opens. Choose of: door:left" in capsys.readouterr().err


def test_json_tells_what_opens_and_in_which_order(capsys: pytest.CaptureFixture[str]) -> None:
    assert command("check", "demo", "--json") == 0
    moving = json.loads(capsys.readouterr().out)["moving"]
    pairs = {tuple(p["pair"]): p for p in moving["together"]}
    assert pairs["wet-bench", "galley:1"]["relation"] == "never"
    assert pairs["door:left", "wet-bench"]["first"] == "door:left"
    assert [s["holds"] for s in moving["sets"]] == [True, True, True]
    assert [r["actions"] for r in moving["runs"]] == [6, 4, 2]
    right = next(b for b in moving["in_and_out"] if b["bay"] == "R")
    assert right["order"].index("battery") < right["order"].index("bird-bags")
    assert moving["layouts"][0]["name"] == "A"


def test_why_prints_the_sum_behind_a_figure(capsys: pytest.CaptureFixture[str]) -> None:
    assert command("why", "demo", "full", "rear left") == 0
    said = capsys.readouterr().out
    assert said.startswith("Wheel rear left: Leaving full, crew of two")
    assert "Drinking water: water" in said
    assert "Limit: 1,550 kg by load index 123" in said
    assert command("why", "demo", "dry", "level") == 0
    assert "Front axle beyond kerb" in capsys.readouterr().out


@pytest.mark.parametrize(
    ("scenario", "row", "words"),
    [("fool", "rear", "no scenario 'fool'"), ("full", "rare", "no row 'rare'")],
)
def test_why_names_what_there_is(
    capsys: pytest.CaptureFixture[str], scenario: str, row: str, words: str
) -> None:
    assert command("why", "demo", scenario, row) == 2
    assert words in capsys.readouterr().err


def test_sheet_hands_the_job_to_the_desktop(
    recorder: Recorder, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    assert (
        main(
            ("sheet", "demo:tarn", "--out", str(tmp_path), "--scenario", "dry"), recorder.desktop()
        )
        == 0
    )
    assert recorder.calls == [("sheet", "Tarn Seed Bank", tmp_path, "dry", "Shipped values")]
    assert "load-sheet.pdf" in capsys.readouterr().out
