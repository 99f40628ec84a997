"""The book as PDF: its pages painted one after the other, long tables over as many as they need."""

from pathlib import Path

from PyQt6.QtCore import QBuffer, QIODevice, QRectF, Qt
from PyQt6.QtGui import QColor, QFontMetricsF, QImage, QImageReader, QPainter, QPdfWriter, QPen

from roomy_hull import __version__
from roomy_hull.core.days import today
from roomy_hull.core.errors import JobFileError, PictureError
from roomy_hull.core.units import System
from roomy_hull.desktop.ground.scene_painter import fit, painter_for
from roomy_hull.desktop.papers import a4, papers_pdf
from roomy_hull.desktop.theme import font
from roomy_hull.drawing.paper import Paper
from roomy_hull.drawing.style import LIGHT
from roomy_hull.formats.atomic import write_whole
from roomy_hull.formats.book import Book, build
from roomy_hull.formats.book_parts import BookPage, Image, Order, Table, labels
from roomy_hull.job.model import Job
from roomy_hull.making.cutlist import CutList, cut_of
from roomy_hull.making.works import works_of
from roomy_hull.shop.shop import Shop
from roomy_hull.verdict.marks import marking_now
from roomy_hull.verdict.verdict import Verdict, judge

DPI = 96
A4_WIDE, A4_HIGH = 1123, 794
"""A sheet of A4 lying, at that many dots to the inch. [px]"""
MARGIN, FOOT, ROW, GUTTER = 34.0, 26.0, 17.0, 26.0
"""Around a page, for its foot, a row of a table, between its columns. [px]"""


class _Album:
    """Sheets of paper as pictures, for looking at before anything is written."""

    def __init__(self, wide: int, high: int, only: int) -> None:
        self._size, self._only = (wide, high), only
        self.count = 1
        self.shown = self._sheet()
        self._spare = self._sheet()
        self.painter = QPainter(self.shown if only == 1 else self._spare)
        self._hint()

    def _sheet(self) -> QImage:
        image = QImage(*self._size, QImage.Format.Format_RGB32)
        image.fill(QColor(LIGHT.paper))
        return image

    def _hint(self) -> None:
        self.painter.setRenderHint(QPainter.RenderHint.Antialiasing)

    def width(self) -> int:
        """Of a sheet. [px]"""
        return self._size[0]

    def height(self) -> int:
        """Of a sheet. [px]"""
        return self._size[1]

    def newPage(self) -> bool:
        """Go on on the next sheet; only the wanted one is kept."""
        self.count += 1
        self.painter.end()
        self.painter.begin(self.shown if self.count == self._only else self._spare)
        self._hint()
        return True


class _Sheets:
    """Paints pages on a device, and breaks them where they are full."""

    def __init__(
        self, painter: QPainter, device: QPdfWriter | _Album, foot: str, system: System
    ) -> None:
        self._p, self._device, self._foot = painter, device, foot
        self._scenes = painter_for(LIGHT, system)
        self._number = 0
        self._y = 0.0
        self._title = ""

    @property
    def _bottom(self) -> float:
        return self._device.height() - MARGIN - FOOT

    def _turn(self, title: str) -> None:
        """Begin a sheet."""
        if self._number:
            self._device.newPage()
        self._number += 1
        p, wide = self._p, self._device.width() - 2 * MARGIN
        p.setPen(QColor(LIGHT.ink))
        p.setFont(font(15, bold=True))
        p.drawText(QRectF(MARGIN, MARGIN - 6, wide, 26), Qt.AlignmentFlag.AlignVCenter, title)
        p.setFont(font(9))
        p.setPen(QColor(LIGHT.faint))
        low = QRectF(MARGIN, self._device.height() - MARGIN, wide, 16)
        p.drawText(low, Qt.AlignmentFlag.AlignLeft, f"{self._foot} · Roomy Hull {__version__}")
        p.drawText(low, Qt.AlignmentFlag.AlignRight, f"page {self._number}")
        self._y = MARGIN + 26

    def page(self, page: BookPage) -> None:
        """Paint a page: words, drawings beside one another, tables under them."""
        self._title = page.title
        self._turn(page.title)
        wide = self._device.width() - 2 * MARGIN
        self._p.setFont(font(10))
        for words in page.words:
            self._p.setPen(QColor(LIGHT.ink))
            box = self._p.boundingRect(QRectF(MARGIN, self._y, wide, 400), Qt.TextFlag.TextWordWrap, words)  # fmt: skip
            self._p.drawText(box, Qt.TextFlag.TextWordWrap, words)
            self._y = box.bottom() + 5
        if page.papers:
            self._drawings(page.papers, page.tables)
        for table in page.tables:
            self._table(table)
        if page.images:
            self._photos(page.images)

    def _drawings(self, papers: tuple[Paper, ...], tables: tuple[Table, ...]) -> None:
        """Drawings beside one another, so high as the tables leave room, at least half a page."""
        rows = sum(min(len(t.rows), 14) + 2 for t in tables)
        room = self._bottom - self._y
        high = max(room * 0.5, room - rows * ROW - 8) if rows else room
        wide = self._device.width() - 2 * MARGIN
        # The first is the drawing with the sizes: it gets the larger part.
        shares = [0.62, 0.38] if len(papers) == 2 else [1 / len(papers)] * len(papers)
        x = MARGIN
        for paper, share in zip(papers, shares, strict=True):
            area = QRectF(x + 4, self._y, wide * share - 8, high)
            self._p.save()
            self._p.setClipRect(area)
            self._scenes.paint(self._p, paper.scene, fit(paper.frame, area))
            self._p.restore()
            x += wide * share
        self._y += high + 8

    def _photos(self, images: tuple[Image, ...]) -> None:
        """Photos beside one another, so large as the rest of the page allows, each with its words."""
        across = min(3, len(images))
        down = -(-len(images) // across)
        wide = (self._device.width() - 2 * MARGIN) / across
        high = (self._bottom - self._y) / down
        for n, image in enumerate(images):
            x, y = MARGIN + n % across * wide, self._y + n // across * high
            room = QRectF(x + 3, y + 3, wide - 6, high - ROW - 6)
            picture = scaled(image.path, round(room.width() * 2), round(room.height() * 2))
            if picture.isNull():
                self._p.drawText(room, Qt.AlignmentFlag.AlignCenter, "cannot be shown")
            else:
                size = (
                    picture.size().toSizeF().scaled(room.size(), Qt.AspectRatioMode.KeepAspectRatio)
                )
                area = QRectF(room.left(), room.top(), size.width(), size.height())
                self._p.drawImage(area, picture)
            self._p.setFont(font(9))
            self._p.setPen(QColor(LIGHT.ink))
            self._p.drawText(
                QRectF(x + 3, y + high - ROW, wide - 6, ROW),
                Qt.AlignmentFlag.AlignVCenter,
                image.words,
            )

    def _table(self, table: Table) -> None:
        """A table: each column as wide as its longest cell, the widest gives way."""
        if not table.rows:
            return
        p = self._p
        p.setFont(font(9))
        metrics = QFontMetricsF(p.font(), p.device())
        wide = self._device.width() - 2 * MARGIN
        columns = [
            max(metrics.horizontalAdvance(str(r[n])) for r in (table.heads, *table.rows)) + 14
            for n in range(len(table.heads))
        ]
        over = sum(columns) - wide
        if over > 0:
            columns[max(range(len(columns)), key=lambda n: columns[n])] -= over
        # Narrow tables stand beside themselves, column by column.
        across = max(1, int((wide + GUTTER) / (sum(columns) + GUTTER)))
        rest = list(table.rows)
        while rest:
            if self._y + 3 * ROW > self._bottom:
                self._turn(f"{self._title}, continued")
            deep = max(1, int((self._bottom - self._y) / ROW) - 1)
            here = min(across, -(-len(rest) // deep))
            share = min(deep, -(-len(rest) // here))
            top, lowest = self._y, self._y
            for n in range(here):
                self._y = top
                left = MARGIN + n * (sum(columns) + GUTTER)
                self._heads(table, columns, left)
                for row in rest[:share]:
                    self._row(row, columns, left, faint=False)
                del rest[:share]
                lowest = max(lowest, self._y)
            self._y = lowest
        self._y += 8

    def _heads(self, table: Table, columns: list[float], left: float) -> None:
        self._row(table.heads, columns, left, faint=True)
        pen = QPen(QColor(LIGHT.faint))
        pen.setWidthF(0.7)
        self._p.setPen(pen)
        y = round(self._y)
        self._p.drawLine(round(left), y, round(left + sum(columns)), y)

    def _row(self, row: tuple[str, ...], columns: list[float], left: float, *, faint: bool) -> None:
        x = left
        self._p.setFont(font(9))
        self._p.setPen(QColor(LIGHT.faint if faint else LIGHT.ink))
        metrics = QFontMetricsF(self._p.font(), self._p.device())
        for words, wide in zip(row, columns, strict=True):
            cut = metrics.elidedText(words, Qt.TextElideMode.ElideRight, wide - 8)
            self._p.drawText(QRectF(x, self._y, wide - 6, ROW), Qt.AlignmentFlag.AlignVCenter, cut)
            x += wide
        self._y += ROW


def scaled(path: str, wide: int, high: int) -> QImage:
    """Read a picture no larger than it is shown, turned as the camera was held; a null one where it cannot be read."""
    reader = QImageReader(path)
    reader.setAutoTransform(True)
    reader.setDecideFormatFromContent(True)
    size = reader.size()
    if size.isValid() and (size.width() > wide or size.height() > high):
        reader.setScaledSize(size.scaled(wide, high, Qt.AspectRatioMode.KeepAspectRatio))
    return reader.read()


def pdf(book: Book, system: System = "metric") -> bytes:
    """Paint a book.

    Args:
        system: ``metric`` or ``us``, for sizes.
    Returns: A PDF, A4 lying, as lines and letters.
    """
    kept = QBuffer()
    kept.open(QIODevice.OpenModeFlag.WriteOnly)
    device, painter = a4(kept, book.title)
    sheets = _Sheets(painter, device, book.foot, system)
    for page in book.pages:
        sheets.page(page)
    painter.end()
    return bytes(kept.data().data())


def preview(book: Book, number: int, system: System = "metric") -> tuple[QImage, int]:
    """Paint one sheet of a book as a picture.

    Args:
        number: Which sheet, from 1.
        system: ``metric`` or ``us``.
    """
    album = _Album(A4_WIDE, A4_HIGH, number)
    sheets = _Sheets(album.painter, album, book.foot, system)
    for page in book.pages:
        sheets.page(page)
    album.painter.end()
    return album.shown, album.count


def write_book(book: Book, path: Path, system: System = "metric") -> Path:
    """Write a book as PDF.

    Args:
        system: ``metric`` or ``us``.
    Raises:
        PictureError: The place cannot be written.
    """
    try:
        write_whole(path, pdf(book, system))
    except JobFileError as trouble:
        raise PictureError(trouble.what, trouble.place, trouble.remedy) from None
    return path


def write_job(job: Job, folder: Path, shop: Shop) -> tuple[Path, ...]:
    """Write a job's book, and its labels.

    Raises:
        PictureError: The place cannot be written.
        InputError: Something is larger than the stock.
    """
    verdict = judge(job, shop=shop)
    return write_verdict(verdict, folder, cut_of(verdict.assembly))


def write_verdict(verdict: Verdict, folder: Path, cut: CutList, system: System = "metric") -> tuple[Path, ...]:  # fmt: skip
    """Write the book of a judged job, and its labels.

    Args:
        system: ``metric`` or ``us``.
    Returns: ``book.pdf`` and ``labels.pdf``.
    Raises:
        PictureError: The place cannot be written.
    """
    job = verdict.job
    works, marking = works_of(verdict.assembly), marking_now(verdict)
    revision = marking.revision + (" with changes" if marking.revision and marking.changed else "")
    order = Order(job.name, revision, today().isoformat(), marking.warnings)
    book = build(works, cut, verdict.gaps, order)
    files = folder / "book.pdf", folder / "labels.pdf"
    try:
        write_whole(files[0], pdf(book, system))
        write_whole(files[1], papers_pdf(labels(works, cut, order), system))
    except JobFileError as trouble:
        raise PictureError(trouble.what, trouble.place, trouble.remedy) from None
    return files
