"""One drawing on many papers: the SVG says what the scene says, and every view of the window can be written."""

import re
import xml.etree.ElementTree as ET  # our own files
from pathlib import Path

import pytest
from pytestqt.qtbot import QtBot

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.core.primitives import Disc, Lines, Outline, Scene, Size, Words, line, rectangle
from roomy_hull.desktop import papers
from roomy_hull.desktop.window import MainWindow
from roomy_hull.drawing.backends.svg import fitted, svg
from roomy_hull.drawing.corners import corners
from roomy_hull.drawing.paper import Paper
from roomy_hull.drawing.scenes import ground
from roomy_hull.drawing.style import DARK, LIGHT
from roomy_hull.formats.settings import Settings
from roomy_hull.session.doing import do
from roomy_hull.session.pages.table import STAGES
from roomy_hull.session.session import Session
from roomy_hull.verdict.verdict import Verdict

NS = "{http://www.w3.org/2000/svg}"
ALL: Scene = (
    rectangle("cut", 0, 0, 100, 50, 5), Outline("blank", ((0, 0), (100, 0), (100, 50), (0, 50)), radius=8),
    line("bend up", (0, 0), (100, 50)), Lines("rail slot", (((0, 0), (10, 0)), ((20, 0), (30, 0)))),
    Disc("blank hole", (50, 25), 4), Words("unit name", (50, 25), "A<B & C", 12),
    Words("etched", (50, 10), "up", 6, fixed=False, upright=True), Size("shop size", (0, -10), (100, -10)),
    Size("shop size", (-10, 0), (-10, 50), text="fifty"), rectangle("trouble", 0, 0, 10, 10),
    rectangle("nothing known", 0, 0, 1, 1), Outline("blank", ((0, 0),)),
)  # fmt: skip


def read(text: str) -> ET.Element:
    """Parse an SVG."""
    return ET.fromstring(text)  # our own


@pytest.mark.parametrize("theme", [LIGHT, DARK], ids=lambda t: t.name)
@pytest.mark.parametrize("system", ["metric", "us"])
def test_every_stroke_is_written(theme: object, system: str) -> None:
    text = svg((Paper("All of them", ALL, (-20, -20, 120, 70), "one\ntwo"),), theme, system)  # type: ignore[arg-type]
    root = read(text)
    words = [t.text for t in root.iter(f"{NS}text")]
    assert words[:3] == ["All of them", "one", "two"]
    assert "A<B & C" in words
    assert ("100" if system == "metric" else "3 15/16") in " ".join(w or "" for w in words)
    assert len(list(root.iter(f"{NS}pattern"))) >= 2
    used = set(re.findall(r"url\(#([\w-]+)\)", text))
    assert used <= {e.get("id") for e in root.iter()}
    assert "nan" not in text
    assert "rotate(-90" in text


def test_a_drawing_is_to_one_scale_and_the_right_way_up() -> None:
    scene = (rectangle("blank", 0, 0, 100, 50), Disc("blank hole", (0, 50), 1.0))
    root = read(svg((Paper("", scene, (0, 0, 200, 100)),)))
    rect = next(r for r in root.iter(f"{NS}rect") if r.get("stroke"))
    x, y, wide, high = (float(rect.get(k) or 0) for k in ("x", "y", "width", "height"))
    assert wide / high == pytest.approx(2, abs=1e-3)
    disc = next(root.iter(f"{NS}circle"))
    assert float(disc.get("cx") or 0) == pytest.approx(x, abs=0.02)
    assert float(disc.get("cy") or 0) == pytest.approx(y, abs=0.02)  # the upper edge


def test_a_round_corner_leaves_its_sides_by_its_radius_and_at_most_half_of_them() -> None:
    square = Outline("blank", ((0, 0), (10, 0), (10, 10), (0, 10)), radius=3)
    found = list(corners(square, lambda p: p, 1.0, least=0.1))
    assert found[0] == ((0, 3), (0, 0), (3, 0))
    assert found[2] == ((10, 7), (10, 10), (7, 10))
    wide = list(corners(Outline("x", square.points, radius=99), lambda p: p, 1.0))
    assert wide[0] == ((0, 5), (0, 0), (5, 0))
    opened = list(corners(Outline("x", square.points, closed=False, radius=3), lambda p: p, 1.0))
    assert opened[0] == ((0, 0),) * 3
    assert opened[3] == ((0, 10),) * 3
    assert opened[1] == ((7, 0), (10, 0), (10, 3))
    assert all(a is b is c for a, b, c in corners(square, lambda p: p, 0.01))


def test_words_are_broken_where_they_do_not_fit() -> None:
    assert fitted("Upper optics drawer", 10, 60) == ["Upper", "optics", "drawer"]
    assert fitted("Upper optics drawer", 10, 400) == ["Upper optics drawer"]
    assert fitted("Incomprehensible", 10, 30) == ["Inco…"]


def test_the_slice_on_paper_names_every_unit_seen(demo_verdict: Verdict) -> None:
    assembly: Assembly = demo_verdict.assembly
    scene = ground.slice_scene(assembly, "right")
    text = svg((Paper("Right", scene, ground.frame(assembly, "right", whole=True)[1]),))
    said = " ".join(t.text or "" for t in read(text).iter(f"{NS}text"))
    named = [
        w.text for w in scene if isinstance(w, Words) and w.role == "unit name" and w.fit > 250
    ]
    assert len(named) > 5
    for name in named:
        assert name[:2] in said


EVERY = [(s.title, p.title) for s in STAGES for p in (s.pages or ())]
EVERY += [(s.title, "") for s in STAGES if not s.pages]


@pytest.mark.parametrize(("stage", "page"), EVERY)
def test_any_view_is_written_as_svg_and_pdf(
    window: MainWindow,
    qtbot: QtBot,
    tmp_path: Path,
    stage: str,
    page: str,
) -> None:
    session = window.session
    session.view.turn_to(stage, page) if page else session.view.set(stage=stage)
    if stage == "Cut":
        qtbot.waitUntil(lambda: not session.cutting.working, timeout=30000)
    shown = window.shown()
    assert shown.isVisible()
    for suffix in (".svg", ".pdf"):
        path = tmp_path / f"view{suffix}"
        papers.write_told(session, shown, path)
        assert not session.messages.trouble, session.messages.text
        assert path.stat().st_size > 2000
    root = read((tmp_path / "view.svg").read_text())
    assert len(list(root.iter())) > 15


class Picks:
    """Answers with one file."""

    def __init__(self, path: Path, window: MainWindow) -> None:
        self.path, self.window = path, window

    def file(self, _words: str, _kinds: str, _wish: str, *, to_save: bool) -> Path:
        return self.path

    def write_view(self, path: Path) -> None:
        papers.write_told(self.window.session, self.window.shown(), path)

    def may_lose(self) -> bool:
        return True


def test_a_place_that_cannot_be_written_is_told(window: MainWindow, tmp_path: Path) -> None:
    session = window.session
    for suffix in (".svg", ".pdf"):
        session.asker = Picks(tmp_path / "none" / f"a{suffix}", window)  # type: ignore[assignment]
        (tmp_path / "none").write_text("in the way") if suffix == ".svg" else None
        do(session, "job.picture")
        assert session.messages.trouble
        assert "cannot be written" in session.messages.text
    session.asker = Picks(tmp_path / "plain", window)  # type: ignore[assignment]
    do(session, "job.picture")
    assert (tmp_path / "plain.svg").exists()
    assert session.path is None
    assert (
        Session(session.job, Settings(tmp_path / "a", tmp_path / "b")).verdict.findings
        == session.verdict.findings
    )
