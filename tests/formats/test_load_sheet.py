"""The load sheet as text, CSV and PDF, and the loads in the verdict's JSON."""

import csv
import io
import json
from pathlib import Path

import msgspec
import pytest

from roomy_hull.core.errors import FileError, InputError
from roomy_hull.desktop.application import application
from roomy_hull.desktop.pages.loads import sheet_pdf
from roomy_hull.formats import load_sheet, sheet_parts
from roomy_hull.formats.loads_json import loads_json
from roomy_hull.job.edits import scenarios
from roomy_hull.job.edits import units as edits
from roomy_hull.job.model import Job, Weighing
from roomy_hull.verdict.verdict import Verdict, judge


@pytest.fixture(scope="module")
def weighed() -> Verdict:
    from roomy_hull.formats.demo import demo_job

    one = Weighing(
        id="w", scenario="full", front=1470, rear=1790, date="2026-11-20", place="Reed Lane"
    )
    return judge(scenarios.weighed(demo_job(), one))


def section(sheet: load_sheet.LoadSheet, start: str) -> load_sheet.Section:  # type: ignore[name-defined]
    return next(s for s in sheet.sections if s.title.startswith(start))


def test_the_sheet_holds_what_an_engineer_asks_for(weighed: Verdict) -> None:
    sheet = load_sheet.build(weighed, day="2026-11-25")
    assert sheet.subtitle == "Marl 2.8, layout A, 2026-11-25"
    titles = [s.title for s in sheet.sections]
    for start in ("Vehicle and ratings", "How it is computed", "Axles, gross", "Sides and wheels", "Masses, places",
                  "Springs", "Peak bending", "Restraint", "Centre of mass", "Towing", "The brief", "Findings",
                  "Weighings", "Cautions", "To be weighed and signed"):  # fmt: skip
        assert any(t.startswith(start) for t in titles), start
    for s in sheet.sections:
        assert all(len(r) == len(s.heads) for r in s.rows), s.title
    masses = section(sheet, "Masses")
    kg = sum(float(r[1].replace(",", "")) for r in masses.rows)
    drawn = sum(
        m.kg + weighed.loads.moved_by(m) for m in weighed.assembly.masses() if not m.fill.entered
    )
    assert kg == pytest.approx(drawn, abs=0.05 * len(masses.rows))
    known = {r[0]: r[3] for r in masses.rows}
    assert known["Vehicle: kerb, rear axle"] == "weighed"
    assert known["Sample fridge: fridge"] == "data sheet"
    assert known["Tool drawer: sheet metal"] == "geometry"
    assert known["Tool drawer: contents"] == "estimate"
    axles = section(sheet, "Axles")
    full = next(r for r in axles.rows if r[0].startswith("Leaving full"))
    figure = weighed.loads.scenario("full").rear
    assert full[2] == f"{figure.value:,.0f} ± {figure.uncertainty:,.0f}"
    assert section(sheet, "Weighings").words == (
        "All tables above follow the weighings that count.",
    )
    assert "certif" in " ".join(section(sheet, "Cautions").words)
    assert len(section(sheet, "To be weighed").rows) == len(weighed.job.scenarios) + 4


def test_us_figures_and_a_clean_job(weighed: Verdict) -> None:
    sheet = load_sheet.build(weighed, "us")
    assert "lb" in section(sheet, "Axles").title
    gross = dict(r[:2] for r in section(sheet, "Vehicle").rows)["Gross rating"]
    assert gross == "7,716 lb"
    calm = edits.changed(weighed.job, "tools", contents=5.0)
    calm = scenarios.unweighed(calm, "w")
    v = calm.vehicle
    air = msgspec.structs.replace(
        calm, vehicle=v.but(springs=v.springs.but(school="air", air_most=1000))
    )
    calm = judge(air)  # type: ignore[assignment]
    sheet = load_sheet.build(calm)  # type: ignore[arg-type]
    assert section(sheet, "Findings").words == ("Nothing is found wrong.",)
    assert not any(s.title == "Weighings" for s in sheet.sections)


def test_the_csv_reads_back_and_starts_no_formula(weighed: Verdict) -> None:
    job = edits.changed(weighed.job, "camp", name="=1+1")
    rows = list(csv.reader(io.StringIO(sheet_parts.csv(load_sheet.build(judge(job))))))
    assert rows[0] == ["Load sheet: Brackwater Bird Survey"]
    assert any(r and r[0].startswith("'=1+1") for r in rows)
    assert not any(c.startswith("=") for r in rows for c in r)
    heads = next(r for r in rows if r[:2] == ["Scenario", "Front axle"])
    assert heads[-1] == "Combination"


def test_the_pdf_is_written_and_has_pages(weighed: Verdict, tmp_path: Path) -> None:
    application()
    pdf, text = sheet_pdf.write(weighed, tmp_path / "new", "metric", "full")
    data = pdf.read_bytes()
    assert data.startswith(b"%PDF")
    assert data.count(b"/Type /Page\n") >= 4
    assert text.read_text().startswith("Load sheet")
    with pytest.raises(FileError, match="cannot be written"):
        sheet_pdf.write(weighed, text / "below", "metric", "full")


def test_a_job_is_written_from_the_command_line(demo: Job, tmp_path: Path) -> None:
    application()
    assert all(p.exists() for p in sheet_pdf.write_job(demo, tmp_path))
    with pytest.raises(InputError, match="no scenario 'none'"):
        sheet_pdf.write_job(demo, tmp_path, "none")


def test_the_json_of_the_loads_is_what_the_studies_say(weighed: Verdict) -> None:
    frame = json.loads(json.dumps(loads_json(weighed)))
    assert frame["worst"]["scenario"] == "rear"
    assert frame["springs"]["fitted"] == "standard"
    low = frame["springs"]["schools"]["standard"]["scenarios"]["full"]["tail_low_mm"]
    assert low == pytest.approx(weighed.loads.scenario("full").stance.tail_low, abs=1e-3)
    assert weighed.carrying is not None
    chassis = frame["chassis"]
    assert len(chassis["x_mm"]) == len(chassis["scenarios"][0]["moment_nm"])
    assert chassis["scenarios"][2]["ratio"] == pytest.approx(
        weighed.carrying.chassis.diagrams[2].ratio, abs=1e-4
    )
    assert {m["id"] for m in frame["mounts"]} == {c.id for c in weighed.carrying.mounts}
    assert len(frame["members"]) == len(weighed.carrying.all_members())
    assert [s["door"] for s in frame["struts"]] == ["left", "right", "rear"]
    assert frame["weighings"][0]["rows"][-1]["what"] == "gross"
    assert frame["brief"]["open_kg"]["wanted"] == 105
