"""What of the desktop the command line may start; it is handed in, so that nothing here needs Qt."""

from collections.abc import Callable
from pathlib import Path
from typing import TYPE_CHECKING

import msgspec

from roomy_hull.job.model import Job
from roomy_hull.shop.shop import Shop

if TYPE_CHECKING:
    from roomy_hull.verdict.verdict import Verdict


class Desktop(msgspec.Struct, frozen=True):
    """What of the desktop the command line may start."""

    run: Callable[[Path | None, Path | None], int]
    shots: Callable[[Path | None, Path], list[Path]]
    sheet: Callable[[Job, Path, str, Shop], tuple[Path, Path]]
    book: Callable[[Job, Path, Shop], tuple[Path, ...]]
    offer: Callable[[Job, Path, Shop, str], tuple[Path, ...]]
    pack: Callable[["Verdict", Path, Path | None], tuple[Path, ...]]
    first: Callable[[], int] | None = None
