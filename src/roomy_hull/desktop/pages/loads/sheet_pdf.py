"""The load sheet on paper: A4, tables that break across pages, and the same pictures as on the screen."""

from pathlib import Path

from PyQt6.QtCore import QBuffer, QIODevice, QMarginsF, QRectF, QSizeF, Qt
from PyQt6.QtGui import QColor, QFontMetricsF, QPageLayout, QPageSize, QPainter, QPdfWriter

from roomy_hull import __version__
from roomy_hull.core.errors import FileError, InputError, UserError
from roomy_hull.core.primitives import Rect, Scene
from roomy_hull.core.refs import CANOPY, TRAY, VEHICLE
from roomy_hull.core.units import System
from roomy_hull.desktop.ground.scene_painter import fit, painter_for
from roomy_hull.desktop.theme import font
from roomy_hull.drawing.scenes import loads as loads_scene
from roomy_hull.drawing.style import LIGHT
from roomy_hull.formats.atomic import write_whole
from roomy_hull.formats.load_sheet import build
from roomy_hull.formats.sheet_parts import LoadSheet, Section, csv
from roomy_hull.job.model import Job
from roomy_hull.session.session import Session
from roomy_hull.shop.shop import Shop
from roomy_hull.studies.loads import ranking
from roomy_hull.verdict.verdict import Verdict, judge

DPI = 88
WIDE, TALL = 8.27 * DPI, 11.69 * DPI
MARGIN = 38.0
ROW = 17.0
FILL = "To be weighed"
"""The section that is filled in by hand, with higher rows."""
FOOT = "Planning figures; ratings, certificates and road law decide."


class _Page:
    """A pen that goes down the paper and turns the page."""

    def __init__(self, writer: QPdfWriter, painter: QPainter, words: str) -> None:
        self.writer, self.p, self.words = writer, painter, words
        self.y, self.number = MARGIN, 1
        self._foot()

    def _foot(self) -> None:
        self.p.setPen(QColor(LIGHT.faint))
        self.p.setFont(font(9))
        area = QRectF(MARGIN, TALL - MARGIN + 8, WIDE - 2 * MARGIN, 16)
        self.p.drawText(
            area, Qt.AlignmentFlag.AlignLeft, f"{self.words} · {FOOT} · Roomy Hull {__version__}"
        )
        self.p.drawText(area, Qt.AlignmentFlag.AlignRight, f"page {self.number}")

    def room(self, height: float) -> None:
        """Turn the page where less than a height is left."""
        if self.y + height > TALL - MARGIN:
            self.writer.newPage()
            self.number += 1
            self.y = MARGIN
            self._foot()

    def words_at(self, text: str, size: float, *, bold: bool = False, after: float = 3.0) -> None:
        """Write a paragraph."""
        self.p.setFont(font(size, bold=bold))
        flags = Qt.TextFlag.TextWordWrap | Qt.AlignmentFlag.AlignLeft
        wide = QRectF(0, 0, WIDE - 2 * MARGIN, 4000)
        high = QFontMetricsF(self.p.font()).boundingRect(wide, int(flags.value), text).height()
        self.room(high)
        self.p.setPen(QColor(LIGHT.ink))
        self.p.drawText(QRectF(MARGIN, self.y, WIDE - 2 * MARGIN, high + 4), int(flags.value), text)
        self.y += high + after


def _widths(page: _Page, section: Section) -> list[float]:
    """Share the paper's width among the columns by what stands in them; long ones wrap."""
    page.p.setFont(font(9.6))
    metrics = QFontMetricsF(page.p.font())
    want = [
        min(
            330.0,
            16
            + max(
                metrics.horizontalAdvance(r[c])
                for r in (section.heads, *section.rows)
                if c < len(r)
            ),
        )
        for c in range(len(section.heads))
    ]
    whole = WIDE - 2 * MARGIN
    scale = whole / sum(want)
    return [w * min(scale, 1.0) + max(0.0, whole - sum(want)) / len(want) for w in want]


def _table(page: _Page, section: Section) -> None:
    """Write a table; its heads again on every page."""
    widths = _widths(page, section)
    flags = int(
        (Qt.TextFlag.TextWordWrap | Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignTop).value
    )

    def high(cells: tuple[str, ...], bold: bool) -> float:
        page.p.setFont(font(9.6, bold=bold))
        metrics = QFontMetricsF(page.p.font())
        boxes = (
            metrics.boundingRect(QRectF(0, 0, w - 8, 2000), flags, cell).height()
            for w, cell in zip(widths, cells, strict=True)
        )
        return max(ROW, *(b + 5 for b in boxes))

    def put(cells: tuple[str, ...], bold: bool) -> None:
        tall = high(cells, bold)
        x = MARGIN
        page.p.setPen(QColor(LIGHT.ink))
        page.p.setFont(font(9.6, bold=bold))
        for w, cell in zip(widths, cells, strict=True):
            page.p.drawText(QRectF(x + 3, page.y + 2, w - 8, tall), flags, cell)
            x += w
        page.y += tall
        page.p.setPen(QColor(LIGHT.ink if bold else LIGHT.rule))
        page.p.drawLine(round(MARGIN), round(page.y), round(WIDE - MARGIN), round(page.y))

    tall = 30.0 if section.title.startswith(FILL) else 0.0
    page.room(high(section.heads, True) + 2 * ROW)
    put(section.heads, True)
    for row in section.rows:
        before = page.number
        page.room(max(high(row, False), tall))
        if page.number != before:
            put(section.heads, True)
        put(row, False)
        page.y += max(0.0, tall - ROW)
    page.y += 8


def _picture(verdict: Verdict, name: str, system: System, scenario: str) -> tuple[Scene, Rect]:
    """One of the sheet's pictures, of the scenario that is shown."""
    assembly, loads = verdict.assembly, verdict.loads.scenario(scenario)
    if name == "chassis":
        scene = loads_scene.chassis_scene(
            assembly, verdict.carrying.chassis, loads.id, loads.stance
        )
        return scene, loads_scene.chassis_frame(assembly)
    if name == "levers":
        one = next(s for s in verdict.assembly.job.scenarios if s.id == loads.id)
        rows = ranking.ranked(ranking.contributions(assembly, verdict.loads, one), "rear")
        chosen = next((r.owner for r in rows if r.owner not in (VEHICLE, TRAY, CANOPY)), None)
        return loads_scene.lever_scene(
            assembly, rows, chosen, system, "rear"
        ), loads_scene.loads_frame(assembly)
    return loads_scene.loads_scene(assembly, loads, system), loads_scene.loads_frame(assembly)


def write_pdf(sheet: LoadSheet, verdict: Verdict, path: Path, system: System, scenario: str) -> int:
    """Write the sheet as PDF.

    Args:
        system: ``metric`` or ``us``.
    Raises:
        FileError: The place cannot be written.
    """
    # In memory first: what is on disk is replaced by a whole file or not at all.
    kept = QBuffer()
    kept.open(QIODevice.OpenModeFlag.WriteOnly)
    writer = QPdfWriter(kept)
    writer.setResolution(DPI)
    writer.setPageSize(QPageSize(QSizeF(210, 297), QPageSize.Unit.Millimeter))
    writer.setPageMargins(QMarginsF(0, 0, 0, 0), QPageLayout.Unit.Millimeter)
    writer.setTitle(sheet.title)
    writer.setCreator("Roomy Hull")
    painter = QPainter()
    if not painter.begin(writer):
        raise FileError("the file cannot be written", str(path), "Choose another place.")
    page = _Page(writer, painter, sheet.title)
    page.words_at(sheet.title, 20, bold=True)
    page.words_at(sheet.subtitle, 12, after=10)
    name = verdict.loads.scenario(scenario).name
    for section in sheet.sections:
        tall = {"": 90.0, "chassis": 380.0}.get(section.picture, 270.0)
        if section.title.startswith(FILL):
            tall = (len(section.rows) + 2) * 30.0  # not to be torn apart
        page.room(tall + 40)
        title = f"{section.title}: {name}" if section.picture else section.title
        page.words_at(title, 13, bold=True)
        for text in section.words:
            page.words_at(text, 10)
        if section.picture:
            scene, frame = _picture(verdict, section.picture, system, scenario)
            area = QRectF(MARGIN, page.y, WIDE - 2 * MARGIN, tall)
            painter.save()
            painter.setClipRect(area)
            painter_for(LIGHT, system).paint(painter, scene, fit(frame, area))
            painter.restore()
            page.y += tall + 8
        if section.heads:
            _table(page, section)
        page.y += 4
    painter.end()
    write_whole(path, bytes(kept.data().data()))
    return page.number


def write(verdict: Verdict, folder: Path, system: System, scenario: str) -> tuple[Path, Path]:
    """Write the sheet as PDF and CSV into a folder.

    Args:
        system: ``metric`` or ``us``.
    Raises:
        FileError: The place cannot be written.
    """
    sheet = build(verdict, system)
    pdf, text = folder / "load-sheet.pdf", folder / "load-sheet.csv"
    write_whole(text, csv(sheet).encode("utf-8", "replace"))
    write_pdf(sheet, verdict, pdf, system, scenario)
    return pdf, text


def write_job(
    job: Job, folder: Path, scenario: str = "", shop: Shop | None = None
) -> tuple[Path, Path]:
    """Judge a job and write its sheet.

    Args:
        scenario: Id of the one that is drawn; the heaviest where empty.
    Raises:
        InputError: There is no such scenario.
        FileError: The place cannot be written.
    """
    verdict = judge(job, shop=shop)
    ids = [s.id for s in job.scenarios]
    if scenario and scenario not in ids:
        raise InputError(
            f"there is no scenario '{scenario}'", remedy=f"Choose of: {', '.join(ids)}."
        )
    heavy = max(verdict.loads.scenarios, key=lambda s: s.gross.value).id
    return write(verdict, folder, "metric", scenario or heavy)


def write_told(session: Session, folder: Path) -> None:
    """Write the sheet of the job on the session and say where it is."""
    session.complete()
    try:
        pdf, text = write(session.verdict, folder, session.look.system, session.scenario().id)
    except UserError as trouble:
        session.say(str(trouble), trouble=True)
        return
    session.say(f"The load sheet is written: {pdf} and {text.name}")
