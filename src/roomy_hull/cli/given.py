"""What a command's arguments name: the shop, and the verdict on the job."""

from __future__ import annotations

import sys
import time
from pathlib import Path
from typing import TYPE_CHECKING

from roomy_hull.cli.codes import SHIPPED
from roomy_hull.cli.paths import job_of
from roomy_hull.formats import shopfile
from roomy_hull.formats.settings import Settings
from roomy_hull.shop.shop import Shop, shipped_shop
from roomy_hull.verdict.verdict import Verdict, judge

if TYPE_CHECKING:
    import argparse

    from roomy_hull.job.model import Job


def shop_of(word: str) -> Shop:
    """Read the shop that a command names; the user's own, as in the window, where it names none."""
    if word == SHIPPED:
        return shipped_shop()
    if not word:
        return Settings().shop()
    return shopfile.load(Path(word))


def verdict_of(args: argparse.Namespace, job: Job | None = None) -> Verdict:
    """Judge the job that a command names, made by the shop that it names; on a terminal it is told how far it is.

    Args:
        job: What became of the job that is named; read from its file where none is given.
    Raises:
        UserError: A file cannot be used.
    """
    job, shop = job if job is not None else job_of(args.job), shop_of(args.shop)
    if not sys.stderr.isatty():
        return judge(job, shop=shop)
    begun = time.monotonic()

    def told(study: str, part: float) -> None:
        if time.monotonic() - begun > SHORT:
            sys.stderr.write(f"{CLEAR}{100 * part:.0f} %: {study} …")
            sys.stderr.flush()

    found = judge(job, shop=shop, told=told)
    sys.stderr.write(CLEAR)
    return found


SHORT = 0.5
"""What is done sooner is not told of. [s]"""
CLEAR = "\r\x1b[K"
"""Takes the terminal's line away."""
