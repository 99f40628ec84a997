import csv
import io
import math
import re
from pathlib import Path

import ezdxf
import msgspec
import pytest
from ezdxf import recover
from hypothesis import given
from hypothesis import strategies as st

from roomy_hull.assembly.assemble import assemble
from roomy_hull.core.errors import JobFileError
from roomy_hull.core.folded import Cutout, Hole
from roomy_hull.core.parts import BarPart, Hardware, SheetPart
from roomy_hull.core.primitives import Outline
from roomy_hull.core.refs import TRAY
from roomy_hull.drawing.backends.dxf import LAYERS, DxfWriter, polyline
from roomy_hull.drawing.scenes.cut import blank_scene, blank_strokes, sheet_scene, sheet_strokes
from roomy_hull.formats import atomic, csv_tables, cutfiles, solid3d
from roomy_hull.formats.csv_tables import bar_list, part_list
from roomy_hull.formats.demo import demo_job
from roomy_hull.making.cutlist import CutList, cut_list
from roomy_hull.making.flats import blank
from roomy_hull.making.marking import Marking
from roomy_hull.verdict.verdict import Verdict
from tests.builders import SHOP

DXF = DxfWriter()
MARKING = Marking("Wetland crew", "B")


@pytest.fixture(scope="module")
def cut(demo_verdict: Verdict) -> CutList:
    return cut_list(demo_verdict.assembly.parts(), SHOP.stock)


@pytest.fixture(scope="module")
def written(cut: CutList, tmp_path_factory: pytest.TempPathFactory) -> Path:
    folder = tmp_path_factory.mktemp("cut")
    cutfiles.write(cut, folder, MARKING)
    return folder


def test_every_drawing_audits_clean(written: Path, cut: CutList) -> None:
    files = sorted(written.rglob("*.dxf"))
    assert len(files) == len(cut.blanks) + len(cut.nest.sheets)
    for file in files:
        doc, auditor = recover.readfile(file)
        assert not auditor.has_errors, file.name
        assert not auditor.has_fixes, file.name
        assert doc.units == 4
        assert {"CUT", "CUT_INNER", "BEND_UP", "BEND_DOWN", "ETCH"} <= {
            layer.dxf.name for layer in doc.layers
        }


def test_a_blank_reads_back_as_it_was(cut: CutList) -> None:
    for one in cut.blanks:
        space = ezdxf.read(io.StringIO(DXF.text(blank_strokes(one)))).modelspace()  # type: ignore[attr-defined]
        outlines = space.query('LWPOLYLINE[layer=="CUT"]')
        inner = space.query('LWPOLYLINE[layer=="CUT_INNER"]')
        assert (len(outlines), len(inner)) == (1, len(one.cutouts))
        assert all(p.closed for p in (*outlines, *inner))
        points = [tuple(p) for p in outlines[0].get_points("xy")]
        assert points == [pytest.approx(p, abs=1e-4) for p in one.outline]
        assert len(space.query('LINE[layer=="BEND_UP"]')) == sum(b.angle > 0 for b in one.bends)
        assert len(space.query('LINE[layer=="BEND_DOWN"]')) == sum(b.angle < 0 for b in one.bends)
        assert sorted(c.dxf.radius for c in space.query("CIRCLE")) == pytest.approx(
            sorted(h.diameter / 2 for h in one.holes)
        )
        words = " ".join(t.dxf.text for t in space.query('TEXT[layer=="ETCH"]'))
        assert one.part.name in words
        assert f"x{one.part.count}" in words


def test_a_nested_sheet_holds_its_blanks_where_they_were_put(cut: CutList) -> None:
    for sheet in cut.nest.sheets:
        space = ezdxf.read(io.StringIO(DXF.text(sheet_strokes(sheet)))).modelspace()  # type: ignore[attr-defined]
        assert len(space.query('LWPOLYLINE[layer=="ETCH"]')) == 1
        outer = list(space.query('LWPOLYLINE[layer=="CUT"]'))
        boxes = []
        for line in outer:
            xs, ys = zip(*line.get_points("xy"), strict=True)
            boxes.append((min(xs), min(ys), max(xs), max(ys)))
        for placed in sheet.placed:
            want = (placed.x, placed.y, placed.x + placed.length, placed.y + placed.width)
            assert any(box == pytest.approx(want, abs=1e-3) for box in boxes), (
                placed.blank.part.name
            )


def test_rounded_openings_have_quarter_circles() -> None:
    hole = ((10.0, 20.0), (110.0, 20.0), (110.0, 70.0), (10.0, 70.0))
    round_ = polyline(Outline("blank hole", hole, radius=12))
    assert round_[0] == (22, 20, 0)  # behind the first corner, and on along the lower edge
    assert [v[2] for v in round_] == pytest.approx([0, math.tan(math.pi / 8)] * 4)
    assert polyline(Outline("blank hole", hole)) == [(x, y, 0) for x, y in hole]
    part = SheetPart("p", TRAY, 300, 200, 2, SHOP.material("5052-H32"), holes=(Hole(30, 30, 9),),
                     cutouts=(Cutout(100, 60, 80, 50, 12),))  # fmt: skip
    space = ezdxf.read(io.StringIO(DXF.text(blank_strokes(blank(part))))).modelspace()
    assert space.query("CIRCLE")[0].dxf.center.x == pytest.approx(30)
    (outline,), (opening,) = (
        space.query(f'LWPOLYLINE[layer=="{n}"]') for n in ("CUT", "CUT_INNER")
    )
    assert not any(v[2] for v in outline.get_points("xyb"))
    assert sum(bool(v[2]) for v in opening.get_points("xyb")) == 4


@given(st.integers(0, 15))
def test_each_bend_line_lies_on_its_own_side(sides: int) -> None:
    # Flanges of 60 at some of four sides of a base of 300 × 200: the middle of each bend lies half its
    # allowance from where the base becomes round, on the side where the flange is.
    left, right, front, back = (60.0 if sides & 1 << n else 0.0 for n in range(4))
    part = SheetPart("p", TRAY, 300, 200, 2, SHOP.material("5052-H32"), left=left, right=right,
                     front=front, back=back)  # fmt: skip
    flat = blank(part)
    space = ezdxf.read(io.StringIO(DXF.text(blank_strokes(flat)))).modelspace()  # type: ignore[attr-defined]
    lines = [
        ((b.dxf.start.x, b.dxf.start.y), (b.dxf.end.x, b.dxf.end.y)) for b in space.query("LINE")
    ]
    allowance = math.pi / 2 * (3 + 0.44 * 2)
    near = 60 - 5 + allowance / 2  # straight leg, then half the allowance
    across = sorted(a[0] for a, b in lines if a[0] == b[0])
    along = sorted(a[1] for a, b in lines if a[1] == b[1])
    assert len(across) + len(along) == len(lines)
    want = [near] * bool(left) + [flat.length - near] * bool(right)
    assert across == pytest.approx(want, abs=1e-3)
    want = [near] * bool(front) + [flat.width - near] * bool(back)
    assert along == pytest.approx(want, abs=1e-3)


def test_picture_and_file_say_the_same(cut: CutList) -> None:
    for one in cut.blanks:
        picture = [s for s in blank_scene(one) if s.role in LAYERS]
        assert picture == [s for s in blank_strokes(one) if s.role != "etched"]
    for sheet in cut.nest.sheets:
        picture = [s for s in sheet_scene(sheet) if s.role in LAYERS]
        assert picture == [s for s in sheet_strokes(sheet) if s.role != "etched"]


def test_a_file_does_not_depend_on_those_before_it(cut: CutList) -> None:
    first = [DxfWriter().text(blank_strokes(b)) for b in cut.blanks[:2]]
    one = DxfWriter()
    later = [one.text(blank_strokes(b)) for b in (*cut.blanks[:2], cut.blanks[0])]

    def plain(text: str) -> str:
        return "\n".join(r for r in text.splitlines() if not re.search(r"[{@]|^ *2\d{6}\.", r))

    assert [plain(t) for t in later] == [plain(t) for t in (*first, first[0])]


def test_the_part_list_names_every_part_with_its_mass_and_file(written: Path, cut: CutList) -> None:
    rows = list(csv.DictReader((written / "parts.csv").read_text().splitlines()))
    assert len(rows) == len(cut.parts)
    for row, one in zip(rows, cut.parts, strict=True):
        assert row["part"] == one.name
        assert int(row["count"]) == one.count
        if isinstance(one, SheetPart):
            assert (written / row["file"]).is_file()
            assert float(row["kg all"]) == pytest.approx(one.mass() * one.count, abs=2e-3)
        elif isinstance(one, BarPart):
            assert row["thickness or section"] == one.section
        else:
            assert row["kind"] == "bought"


def test_a_part_has_one_number_in_list_and_file_name(written: Path, cut: CutList) -> None:
    text = (written / "parts.csv").read_text(encoding="utf-8-sig")
    rows = [r for r in csv.DictReader(io.StringIO(text)) if r["file"]]
    assert len(rows) == len(cut.blanks)
    for row in rows:
        assert row["file"].startswith(f"blanks/{int(row['no']):03d}-")
        assert (written / row["file"]).is_file()


def test_the_saw_list_adds_up(cut: CutList) -> None:
    rows = list(csv.DictReader(io.StringIO(bar_list(cut))))
    assert len({r["bar"] for r in rows}) == len(cut.bars.bars)
    total = sum(float(r["length mm"]) for r in rows)
    assert total == pytest.approx(
        sum(p.length * p.count for p in cut.parts if isinstance(p, BarPart)), abs=1
    )


def test_a_name_never_becomes_a_formula() -> None:
    parts = [
        Hardware("=1+1", TRAY),
        SheetPart("@cmd", TRAY, 300, 200, 2, SHOP.material("5052-H32")),
    ]
    text = part_list(cut_list(parts, SHOP.stock), {})  # type: ignore[arg-type]
    assert "'=1+1" in text
    assert "'@cmd" in text


@pytest.mark.parametrize(
    ("name", "file"),
    [
        ("Net drawer: front", "007-net-drawer-front.dxf"),
        ("../../etc", "007-etc.dxf"),
        ("Ä", "007-part.dxf"),
    ],
)
def test_file_names_are_plain(name: str, file: str) -> None:
    assert cutfiles.file_name(7, name) == file


def test_writing_stops_where_it_is_told_to(cut: CutList, tmp_path: Path) -> None:
    written = cutfiles.write(cut, tmp_path, MARKING, lambda share: share < 0.2)
    assert written == []
    assert list(tmp_path.iterdir()) == []


def test_what_an_earlier_cut_left_is_taken_away_and_nothing_else(
    cut: CutList, tmp_path: Path
) -> None:
    cutfiles.write(cut, tmp_path, MARKING)
    before = {p.name for p in (tmp_path / "blanks").iterdir()}
    (tmp_path / "blanks" / "mine.dxf").write_text("the person's own")
    (tmp_path / "notes.txt").write_text("keep")
    listed = (tmp_path / cutfiles.MANIFEST).read_text()
    (tmp_path / cutfiles.MANIFEST).write_text(
        listed + "../notes.txt\n/etc/hosts\nblanks/mine.dxf\nnotes.txt\n"
    )
    fewer = msgspec.structs.replace(cut, parts=cut.parts[:3], blanks=cut.blanks[1:3])
    cutfiles.write(fewer, tmp_path, MARKING)
    left = {p.name for p in (tmp_path / "blanks").iterdir()}
    assert len(left) == 3
    assert "mine.dxf" in left
    assert not (before - left) & left
    assert (tmp_path / "notes.txt").read_text() == "keep"


@pytest.mark.parametrize(
    ("cell", "shown"),
    [("-330", "-330"), ("+12.5", "+12.5"), ("1,234", "1,234"),
     ("=1+1", "'=1+1"), ("\t=1", "' =1"), ("\r@x", "' @x"),
     ("a\nb", "a b"),
     ("\ufeff=1", "'\ufeff=1"), (" -a", "' -a"), ("\uff1d1", "'\uff1d1"), ("-", "'-"), ("Galley", "Galley"),
     ("-3=1", "'-3=1"),
     # Behind what parts columns elsewhere; behind what is not seen; as other letters of the same sign.
     ("a;=1", "a;'=1"), ("a, -5 mm", "a,' -5 mm"), ("a; -5", "a; -5"), ("a|@x", "a|'@x"), ("a\t=1", "a =1"),
     ("\u2003=1", "'\u2003=1"), ("\u3000=1", "'\u3000=1"), ("\u00ad=1", "'\u00ad=1"),
     ("\u200e\u202e=1", "'\u200e\u202e=1"),
     ("\u2028=1", "' =1"), ("\u0085=1", "' =1"), ("\u3164=1", "'\u3164=1"), ("\ufe66x", "'\ufe66x"),
     ("\u0301=1", "'\u0301=1"),
     ('"=1', "'\"=1"), ("a-b; c+d", "a-b; c+d"), ("Board, 230 V", "Board, 230 V")],
)  # fmt: skip
def test_a_cell_runs_nothing_and_a_figure_stays_one(cell: str, shown: str) -> None:
    (row,) = csv.reader(io.StringIO(csv_tables.table([[cell, "x"]]), newline=""))
    assert row[0] == shown


def test_a_full_disk_leaves_the_old_files(
    cut: CutList, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    solid = tmp_path / "x.glb"
    solid.write_bytes(b"old")

    def full(_handle: int) -> None:
        raise OSError(28, "No space left on device")

    monkeypatch.setattr(atomic.os, "fsync", full)  # type: ignore[attr-defined]
    with pytest.raises(JobFileError, match="No space left"):
        solid3d.write(assemble(demo_job()), solid)
    with pytest.raises(JobFileError, match="No space left"):
        cutfiles.write(cut, tmp_path, MARKING)
    assert [p.name for p in tmp_path.iterdir() if p.is_file()] == ["x.glb"]
    assert solid.read_bytes() == b"old"
