"""Papers of the build written: the offer, the hand-over pack, lists and check sheets."""

from pathlib import Path

from roomy_hull.core.days import today
from roomy_hull.core.errors import JobFileError, PictureError, UserError
from roomy_hull.core.units import System
from roomy_hull.desktop.book import write_book
from roomy_hull.formats.atomic import write_whole
from roomy_hull.formats.build_papers import board_paper, check_sheets, lists_of, progress_page
from roomy_hull.formats.offer_book import offer_book, offer_csv
from roomy_hull.formats.pack import pack
from roomy_hull.formats.workshop import built
from roomy_hull.job.brief import Offer
from roomy_hull.job.model import Job
from roomy_hull.making.cost import cost_sheet
from roomy_hull.making.cutlist import cut_of
from roomy_hull.making.works import works_of
from roomy_hull.planning.offer import drawn_up, lines_of
from roomy_hull.session.session import Session
from roomy_hull.shop.shop import Shop
from roomy_hull.verdict.verdict import Verdict, judge


def counted(verdict: Verdict, by: str) -> Offer:
    """Draw an offer up of a judged job as it stands, its sheets nested anew."""
    build, assembly = built(verdict), verdict.assembly
    coated = verdict.job.plan.coated
    sheet = cost_sheet(works_of(assembly), cut_of(assembly), assembly.shop.prices, coat=coated)
    lines = lines_of(assembly, build, sheet, coated=coated)
    return drawn_up(verdict.job, lines, assembly.shop, today(), by)


def offer_of(job: Job, folder: Path, shop: Shop, by: str) -> tuple[Path, ...]:
    """Write an offer of a job as it stands; the job itself keeps what was quoted before.

    Raises:
        PictureError: The place cannot be written.
    """
    return write_offer(job, counted(judge(job, shop=shop), by), folder, shop)


def write_offer(
    job: Job, offer: Offer, folder: Path, shop: Shop, system: System = "metric"
) -> tuple[Path, ...]:
    """Write an offer as PDF and CSV.

    Raises:
        PictureError: The place cannot be written.
    """
    stem = folder / f"offer-{offer.number}"
    table = stem.with_suffix(".csv")
    try:
        write_whole(table, offer_csv(offer).encode())
    except JobFileError as trouble:
        raise PictureError(trouble.what, trouble.place, trouble.remedy) from None
    return write_book(offer_book(job, offer, shop), stem.with_suffix(".pdf"), system), table


def pack_of(
    verdict: Verdict, folder: Path, job_file: Path | None = None, system: System = "metric"
) -> tuple[Path, ...]:
    """Write the hand-over pack and the check sheets.

    Args:
        job_file: The job's file, beside which its photos are.
        system: ``metric`` or ``us``.
    Returns: ``hand-over.pdf`` and ``check-sheets.pdf``.
    Raises:
        PictureError: The place cannot be written.
    """
    sheets = check_sheets(verdict, built(verdict))
    return (
        write_book(pack(verdict, job_file), folder / "hand-over.pdf", system),
        write_book(sheets, folder / "check-sheets.pdf", system),
    )


def write_told(session: Session, kind: str, folder: Path) -> None:
    """Write a paper of the job in hand, and say where it is; trouble is told.

    Args:
        kind: ``offer``, ``pack``, ``lists``, ``checks``, ``progress`` or ``board``.
    """
    try:
        files = _written(session, kind, folder)
    except UserError as trouble:
        session.say(str(trouble), trouble=True)
        return
    session.say(f"Written: {', '.join(f.name for f in files)} in {folder}.")


def _written(session: Session, kind: str, folder: Path) -> tuple[Path, ...]:
    """Write one paper."""
    verdict, system = session.verdict, session.look.system
    build = session.building.of(verdict)
    if kind == "offer":
        return write_offer(session.job, session.job.offers[-1], folder, session.shop, system)
    if kind == "pack":
        return pack_of(verdict, folder, session.path, system)
    if kind == "board" and session.building.board is not None:
        return (write_book(board_paper(session.building.board), folder / "board.pdf", system),)
    if kind == "lists":
        book, name = lists_of(verdict, build, build.now), f"lists-{build.now.isoformat()}.pdf"
    elif kind == "checks":
        book, name = check_sheets(verdict, build), "check-sheets.pdf"
    else:
        book, name = progress_page(verdict, session.path), "progress.pdf"
    return (write_book(book, folder / name, system),)
