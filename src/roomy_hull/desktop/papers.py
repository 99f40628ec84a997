"""What is drawn, written as SVG or PDF: from its scenes where it has some, else as it is painted."""

from pathlib import Path
from typing import Protocol, runtime_checkable

from PyQt6.QtCore import QBuffer, QIODevice, QMarginsF, QRect, QRectF, Qt
from PyQt6.QtGui import QColor, QPageLayout, QPageSize, QPainter, QPdfWriter
from PyQt6.QtSvg import QSvgGenerator
from PyQt6.QtWidgets import QWidget

from roomy_hull.core.errors import JobFileError, PictureError, UserError
from roomy_hull.core.units import System
from roomy_hull.desktop.ground.scene_painter import fit, painter_for
from roomy_hull.desktop.theme import font
from roomy_hull.drawing.backends.svg import svg
from roomy_hull.drawing.paper import Paper
from roomy_hull.drawing.style import LIGHT
from roomy_hull.formats.atomic import write_whole
from roomy_hull.session.session import Session

DPI = 96
MARGIN = 36.0


@runtime_checkable
class Drawn(Protocol):
    """A widget that draws scenes."""

    def papers(self) -> tuple[Paper, ...]:
        """Draw them for paper."""


def papers_of(widget: QWidget) -> tuple[Paper, ...]:
    """Gather what a view draws: its own scenes, or those of its parts that are seen.

    Returns: From the top left on; empty where it draws no scene.
    """
    if isinstance(widget, Drawn):
        return widget.papers()
    found: tuple[Paper, ...] = ()
    for part in widget.findChildren(QWidget):
        if isinstance(part, Drawn) and part.isVisibleTo(widget):
            found += part.papers()
    return found


def write(widget: QWidget, path: Path, system: System) -> None:
    """Write a view as SVG or PDF, by the file's ending.

    Args:
        path: The file; ends in ``.svg`` or ``.pdf``.
        system: ``metric`` or ``us``, for sizes.
    Raises:
        PictureError: The place cannot be written.
    """
    papers = papers_of(widget)
    if path.suffix == ".svg":
        data = svg(papers, LIGHT, system).encode() if papers else _rendered(widget)
    else:
        data = _pdf(widget, papers, system)
    try:
        write_whole(path, data, named=True)
    except JobFileError as trouble:
        raise PictureError(trouble.what, trouble.place, trouble.remedy) from None


def _rendered(widget: QWidget) -> bytes:
    """Paint a view without scenes as SVG."""
    kept = QBuffer()
    kept.open(QIODevice.OpenModeFlag.WriteOnly)
    device = QSvgGenerator()
    device.setOutputDevice(kept)
    device.setSize(widget.size())
    device.setViewBox(QRect(0, 0, widget.width(), widget.height()))
    painter = QPainter(device)
    widget.render(painter)
    painter.end()
    return bytes(kept.data().data())


def _pdf(widget: QWidget, papers: tuple[Paper, ...], system: System) -> bytes:
    """Paint scenes on a page each, or a view without any as it is seen."""
    kept = QBuffer()
    kept.open(QIODevice.OpenModeFlag.WriteOnly)
    device, painter = a4(kept)
    if papers:
        _pages(painter, device, papers, system)
    else:
        s = min(device.width() / widget.width(), device.height() / widget.height())
        painter.scale(s, s)
        widget.render(painter)
    painter.end()
    return bytes(kept.data().data())


def papers_pdf(papers: tuple[Paper, ...], system: System) -> bytes:
    """Paint papers as PDF, each over a whole page of A4 lying, without title or notes.

    Args:
        system: ``metric`` or ``us``, for sizes.
    """
    kept = QBuffer()
    kept.open(QIODevice.OpenModeFlag.WriteOnly)
    device, painter = a4(kept)
    for number, paper in enumerate(papers):
        if number:
            device.newPage()
        area = QRectF(0, 0, device.width(), device.height())
        painter_for(LIGHT, system).paint(painter, paper.scene, fit(paper.frame, area))
    painter.end()
    return bytes(kept.data().data())


def a4(kept: QBuffer, title: str = "") -> tuple[QPdfWriter, QPainter]:
    """A page of A4 lying in a file that may have a title, and a painter on it."""
    device = QPdfWriter(kept)
    device.setTitle(title)
    device.setResolution(DPI)
    device.setPageSize(QPageSize(QPageSize.PageSizeId.A4))
    device.setPageOrientation(QPageLayout.Orientation.Landscape)
    device.setPageMargins(QMarginsF(0, 0, 0, 0))
    painter = QPainter(device)
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    return device, painter


def _pages(
    painter: QPainter, device: QPdfWriter, papers: tuple[Paper, ...], system: System
) -> None:
    """Paint each paper on a page of its own."""
    for number, paper in enumerate(papers):
        if number:
            device.newPage()
        wide = device.width() - 2 * MARGIN
        painter.setPen(QColor(LIGHT.ink))
        painter.setFont(font(15, bold=True))
        painter.drawText(
            QRectF(MARGIN, MARGIN, wide, 24), Qt.AlignmentFlag.AlignVCenter, paper.title
        )
        painter.setFont(font(12))
        painter.setPen(QColor(LIGHT.faint))
        painter.drawText(
            QRectF(MARGIN, MARGIN + 26, wide, 36), Qt.TextFlag.TextWordWrap, paper.notes
        )
        top = MARGIN + (66 if paper.notes else 32)
        area = QRectF(MARGIN, top, wide, device.height() - top - MARGIN)
        painter.save()
        painter.setClipRect(area)
        painter_for(LIGHT, system).paint(painter, paper.scene, fit(paper.frame, area))
        painter.restore()


def write_told(session: Session, widget: QWidget, path: Path) -> None:
    """Write a view and say where it is; trouble is told."""
    try:
        write(widget, path, session.look.system)
        session.say(f"What is drawn is written to {path}")
    except UserError as trouble:
        session.say(str(trouble), trouble=True)
