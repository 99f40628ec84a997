"""What a command's arguments name: the shop, and the verdict on the job."""

from __future__ import annotations

from pathlib import Path
from typing import TYPE_CHECKING

from roomy_hull.cli.codes import SHIPPED
from roomy_hull.cli.paths import job_of
from roomy_hull.formats import shopfile
from roomy_hull.formats.keeping import Keeping
from roomy_hull.shop.shop import Shop, shipped_shop
from roomy_hull.verdict.verdict import Verdict, judge

if TYPE_CHECKING:
    import argparse


def shop_of(word: str) -> Shop:
    """Read the shop that a command names; the user's own, as in the window, where it names none."""
    if word == SHIPPED:
        return shipped_shop()
    if not word:
        return Keeping().shop()
    return shopfile.load(Path(word))


def verdict_of(args: argparse.Namespace) -> Verdict:
    """Judge the job that a command names, made by the shop that it names."""
    return judge(job_of(args.job), shop=shop_of(args.shop))
