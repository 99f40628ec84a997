"""Parts in the round: volumes are mass over density, STEP is read back, GLB is closed; the book names every part."""

import json
import re
from pathlib import Path

import pytest

from roomy_hull.assembly.assemble import assemble
from roomy_hull.core.parts import BarPart, EndCut, Hardware, SheetPart
from roomy_hull.core.primitives import Words
from roomy_hull.core.refs import Ref
from roomy_hull.drawing.backends.svg import svg
from roomy_hull.formats import book, solid_parts, step
from roomy_hull.formats.book_parts import Order, labels
from roomy_hull.formats.demo import demo_job
from roomy_hull.kinds.placed import Placed
from roomy_hull.kinds.registry import expand
from roomy_hull.kit.catalogue import entries
from roomy_hull.making.cutlist import CutList, cut_of
from roomy_hull.making.gaps import gaps_of
from roomy_hull.making.polyhedra import of_sheet, standing
from roomy_hull.making.works import Works, numbered, works_of
from tests.builders import SHOP, SITE
from tests.test_cli import command

MADE = [o for o in entries() if isinstance(o.make, Placed)]


@pytest.fixture(scope="module")
def works() -> Works:
    return works_of(assemble(demo_job("tarn")))


@pytest.fixture(scope="module")
def cut() -> CutList:
    return cut_of(assemble(demo_job("tarn")))


@pytest.mark.parametrize("offer", MADE, ids=lambda o: o.key)
def test_a_parts_volume_is_its_mass_over_its_density(offer) -> None:  # type: ignore[no-untyped-def]
    for part in expand(offer.make, SITE).parts:
        if isinstance(part, Hardware):
            continue
        solids = standing(part)
        volume = sum(s.volume() for s in solids)
        assert volume == pytest.approx(part.mass() / part.material.density * 1e9, rel=1e-3)
        if part.poses:
            assert sum(s.volume() for s in standing(part, part.poses[0])) == pytest.approx(volume)
        for solid in solids[:2]:
            mesh = solid_parts.mesh(solid)
            assert mesh.is_watertight
            assert mesh.volume * 1e9 == pytest.approx(solid.volume(), rel=1e-6)


def test_a_bend_that_is_not_made_keeps_its_metal_too() -> None:
    part = SheetPart(
        "p", Ref("unit", "x"), 300, 200, 2.0, SHOP.material("5052-H32"), left=50.0, back=40.0
    )
    whole = sum(s.volume() for s in of_sheet(part))
    for done in (frozenset(), frozenset({0}), frozenset({1})):
        assert sum(s.volume() for s in of_sheet(part, done)) == pytest.approx(whole, rel=1e-6)


def test_a_mitred_tube_is_hollow_and_slanted() -> None:
    bar = BarPart(
        "b",
        Ref("unit", "x"),
        "50x25x3",
        600.0,
        SHOP.material("6060-T5"),
        ends=(EndCut(45.0), EndCut()),
    )
    (solid,) = standing(bar)
    assert solid.volume() == pytest.approx(bar.mass() / 2700 * 1e9)
    assert len(solid.facets) == 10


def test_step_is_read_back_in_open_cascade(works: Works, tmp_path: Path) -> None:
    reader = pytest.importorskip(
        "OCP.STEPControl", reason="cadquery-ocp-novtk is not here; see CONTRIBUTING.md"
    )
    from OCP.BRepCheck import BRepCheck_Analyzer  # type: ignore[import-not-found]
    from OCP.BRepGProp import BRepGProp  # type: ignore[import-not-found]
    from OCP.GProp import GProp_GProps  # type: ignore[import-not-found]

    for n, part in enumerate(p for p in works.parts if not isinstance(p, Hardware)):
        file = tmp_path / f"{n}.step"
        file.write_text(solid_parts.step_of(part))
        given = reader.STEPControl_Reader()
        given.ReadFile(str(file))
        given.TransferRoots()
        shape, found = given.OneShape(), GProp_GProps()
        BRepGProp.VolumeProperties_s(shape, found)
        assert BRepCheck_Analyzer(shape).IsValid()
        assert found.Mass() == pytest.approx(part.mass() / part.material.density * 1e9, rel=1e-3)


def test_step_is_plain_text_that_every_reader_takes(works: Works) -> None:
    part = next(p for p in works.parts if isinstance(p, SheetPart))
    body = solid_parts.body(part)._replace(name="Ö'x\\")
    text = step.text([body], "Tür")
    assert text.isascii()
    assert "''x" in text
    numbers = [int(x) for x in re.findall(r"^#(\d+)=", text, re.MULTILINE)]
    assert numbers == list(range(1, len(numbers) + 1))
    assert {int(x) for x in re.findall(r"#(\d+)", text)} == set(numbers)
    # Every edge of a closed solid is used twice, once each way.
    used = re.findall(r"ORIENTED_EDGE\('',\*,\*,#(\d+),\.(T|F)\.\)", text)
    assert len(used) == 2 * text.count("EDGE_CURVE(")
    assert len(set(used)) == len(used)


def test_the_whole_job_stands_as_it_is_judged() -> None:
    job = demo_job("tarn")
    assembly = assemble(job)
    bodies = solid_parts.whole_bodies(assembly)
    for thing in assembly.things:
        own = [b for b in bodies if b.name.startswith(f"{thing.value.name}:")]
        for body in own:
            for p in (p for s in body.solids for f in s.facets for p in f.outer):
                for n in range(3):
                    assert thing.envelope[n] - 0.2 <= p[n] <= thing.envelope[n + 3] + 0.2
    assert solid_parts.glb(bodies[:3])[:4] == b"glTF"


def test_the_book_holds_every_part_its_bends_and_its_joints(works: Works, cut: CutList) -> None:
    made = book.build(
        works, cut, gaps_of(assemble(demo_job("tarn"))), Order("Tarn", "B", "2026-05-04")
    )
    titles = [p.title for p in made.pages]
    numbers = numbered(works.parts)
    for part in works.parts:
        if isinstance(part, SheetPart):
            page = made.pages[titles.index(f"{numbers[id(part)]}  {part.name}")]
            flat = next(b for b in cut.blanks if b.part is part)
            steps = next((t for t in page.tables if t.heads[0] == "bend"), None)
            assert len(steps.rows if steps else ()) == len(flat.bends)
            holes = next((t for t in page.tables if t.heads[0] == "x"), None)
            assert len(holes.rows if holes else ()) == len(flat.holes) + len(flat.cutouts)
            assert f"{flat.length:.1f} × {flat.width:.1f}" in page.words[0]
    for work in works.works:
        together = next(p for p in made.pages if p.title == f"{work.title}: put together")
        assert len(together.tables[0].rows) == len(work.parts)
        if work.joints:
            assert f"{work.title}: joints" in titles
    assert sum(t.startswith("Sheet ") for t in titles) == len(cut.nest.sheets)
    sheet = next(p for p in made.pages if p.title.startswith("Sheet "))
    assert sheet.words[0].endswith("becomes parts; dashed is worth keeping.")
    assert all(len(r) == len(t.heads) for p in made.pages for t in p.tables for r in t.rows)
    assert "revision B" in made.foot


def test_every_piece_has_a_label_with_its_code(works: Works, cut: CutList) -> None:
    papers = labels(works, cut, Order("Tarn", "B", "2026-05-04"))
    pieces = sum(p.count for p in works.parts if not isinstance(p, Hardware))
    assert len(papers) == -(-pieces // 24)
    dark = [s for p in papers for s in p.scene if s.role == "qr"]
    assert len(dark) > 60 * pieces
    assert svg(papers[:1]).startswith("<svg")
    marked = labels(works, cut, Order("Tarn", "B", "2026-05-04", ("STOPS OPEN: 2",)))
    said = [s.text for p in marked for s in p.scene if isinstance(s, Words)]
    assert said.count("STOPS OPEN: 2") == pieces
    made = book.build(works, cut, (), Order("Tarn", "B", "x", ("STOPS OPEN: 2",)))
    assert "STOPS OPEN: 2" in made.foot


def test_the_commands_tell_write_and_refuse(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    assert command("cut", "demo:tarn", "--json", "--rounds", "0") == 0
    told = json.loads(capsys.readouterr().out)
    assert {
        "parts",
        "sheets",
        "bars",
        "groups",
        "joints",
        "gaps",
        "measure_again",
        "cost",
        "releases",
        "stale",
    } <= set(told)
    assert told["not_held"] == []
    sheets = [p for p in told["parts"] if p["sort"] == "sheet"]
    assert all(len(p["bends"]["order"]) >= 0 for p in sheets)
    shares = told["cost"]["by_owner"].values()
    assert told["cost"]["whole"]["total"] == pytest.approx(sum(c["total"] for c in shares), abs=0.1)
    assert sheets
    out = tmp_path / "c"
    assert command("cut", "demo:tarn", "--out", str(out), "--solids", "--rounds", "0") == 0
    made = [p for p in told["parts"] if p["sort"] != "bought"]
    assert (out / "solids" / "job.step").is_file()
    assert len(list((out / "solids").glob("*.glb"))) == len(made) + 1
    assert command("cut", "demo:tarn", "--json", "--rounds", "-1") == 2
    file = tmp_path / "r.hull.json"
    assert command("release", "demo:tarn", "--by", "AB") == 2
    assert command("release", "demo:tarn", "--by", "AB", "--out", str(file)) == 0
    capsys.readouterr()
    assert command("release", str(file)) == 0
    assert "nothing has changed" in capsys.readouterr().out
    assert command("release", str(file), "--by", "CD") == 0
    assert "Revision B" in capsys.readouterr().out
