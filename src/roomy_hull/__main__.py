"""The entry point: hands the desktop to the command line, loaded only when it is wanted."""

import gc

# Start-up makes many small objects and frees hardly any: looking for garbage then costs a fifth of
# the time. The window switches it on again once it stands; the other commands are short.
gc.disable()

import sys  # ruff: ignore[module-import-not-at-top-of-file]

# What reads and writes files does without the newest typing; reading that would take a tenth of the start.
_absent = "typing_extensions" not in sys.modules
if _absent:
    sys.modules["typing_extensions"] = None  # type: ignore[assignment]  # so it is not looked for
import msgspec  # ruff: ignore[module-import-not-at-top-of-file, unused-import]

if _absent:
    del sys.modules["typing_extensions"]

import os  # ruff: ignore[module-import-not-at-top-of-file]
from pathlib import Path  # ruff: ignore[module-import-not-at-top-of-file]
from typing import TYPE_CHECKING  # ruff: ignore[module-import-not-at-top-of-file]

from roomy_hull.cli import displays  # ruff: ignore[module-import-not-at-top-of-file]
from roomy_hull.cli.desktop import Desktop  # ruff: ignore[module-import-not-at-top-of-file]
from roomy_hull.cli.main import main as run  # ruff: ignore[module-import-not-at-top-of-file]
from roomy_hull.job.model import Job  # ruff: ignore[module-import-not-at-top-of-file]
from roomy_hull.shop.shop import Shop  # ruff: ignore[module-import-not-at-top-of-file]

if TYPE_CHECKING:
    from roomy_hull.verdict.verdict import Verdict


def _run(path: Path | None, shop: Path | None, *, first: bool = False) -> int:
    """Open the window; Qt is loaded here so that `check` and `cut` start without it."""
    displays.check(os.environ)
    from roomy_hull.session.beside import Beside  # ruff: ignore[import-outside-top-level]  # for the window only

    # It reads what it needs while the window is built.
    beside = Beside()
    beside.warm()
    try:
        from roomy_hull.desktop import quick_enums  # ruff: ignore[import-outside-top-level]  # see above

        quick_enums.quicken()  # before anything of Qt is touched
        from roomy_hull.desktop import application  # ruff: ignore[import-outside-top-level]

        return application.run(path, shop, beside=beside, first=first)
    finally:
        beside.close()


def _first() -> int:
    """Open the window with no job named: a first start offers what one can begin with."""
    return _run(None, None, first=True)


def _shots(path: Path | None, folder: Path) -> list[Path]:
    """Take pictures without a display."""
    os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
    from roomy_hull.desktop import shots  # ruff: ignore[import-outside-top-level]  # Qt, as above

    return shots.write(path, folder)


def _sheet(job: Job, folder: Path, scenario: str, shop: Shop) -> tuple[Path, Path]:
    """Write the load sheet without a display."""
    os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
    from roomy_hull.desktop import application  # ruff: ignore[import-outside-top-level]  # Qt, as above
    from roomy_hull.desktop.pages.loads import sheet_pdf  # ruff: ignore[import-outside-top-level]

    application.application()
    return sheet_pdf.write_job(job, folder, scenario, shop)


def _book(job: Job, folder: Path, shop: Shop) -> tuple[Path, ...]:
    """Write the book and its labels without a display."""
    os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
    from roomy_hull.desktop import application, book  # ruff: ignore[import-outside-top-level]  # Qt, as above

    application.application()
    return book.write_job(job, folder, shop)


def _offer(job: Job, folder: Path, shop: Shop, by: str) -> tuple[Path, ...]:
    """Write an offer without a display."""
    os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
    from roomy_hull.desktop import application, build_files  # ruff: ignore[import-outside-top-level]  # Qt, as above

    application.application()
    return build_files.offer_of(job, folder, shop, by)


def _pack(verdict: "Verdict", folder: Path, job_file: Path | None) -> tuple[Path, ...]:
    """Write the hand-over pack without a display."""
    os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
    from roomy_hull.desktop import application, build_files  # ruff: ignore[import-outside-top-level]  # Qt, as above

    application.application()
    return build_files.pack_of(verdict, folder, job_file)


def main() -> int:
    """Run the command line with its own arguments."""
    return run(sys.argv[1:], Desktop(_run, _shots, _sheet, _book, _offer, _pack, _first))


if __name__ == "__main__":
    sys.exit(main())
