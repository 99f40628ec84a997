"""What each command does."""

from __future__ import annotations

import json
import sys
import threading
from collections.abc import Callable, Sequence
from pathlib import Path
from typing import TYPE_CHECKING

from roomy_hull.cli import arranging, building, making, setups
from roomy_hull.cli.codes import DEMO, FINE, STOPS, UNUSABLE
from roomy_hull.cli.given import shop_of, verdict_of
from roomy_hull.cli.paths import job_of, job_path
from roomy_hull.cli.report import report
from roomy_hull.core import codes
from roomy_hull.core.errors import InputError
from roomy_hull.formats import access_tables, jobfile, services_tables, shopfile, solid3d
from roomy_hull.formats.atomic import write_whole
from roomy_hull.formats.goods_table import goods_text, read_goods, unread
from roomy_hull.formats.vehiclefile import library
from roomy_hull.formats.verdict_json import cut_json, survey_json, verdict_json
from roomy_hull.formats.weatherfile import read_weather
from roomy_hull.job.edits.goods import with_goods
from roomy_hull.job.edits.services import with_weather
from roomy_hull.planning.simulator import Simulator, laser, monitor, scales
from roomy_hull.shop.shop import shipped_shop
from roomy_hull.studies.loads import board
from roomy_hull.verdict.verdict import Verdict

if TYPE_CHECKING:
    import argparse

    from roomy_hull.cli.desktop import Desktop


def run(args: argparse.Namespace, desktop: Desktop) -> int:
    """Do what the arguments say.

    Raises:
        UserError: A file cannot be used.
    """
    return COMMANDS[args.command or "open"](args, desktop)


def _open(args: argparse.Namespace, desktop: Desktop) -> int:
    shop = getattr(args, "shop", "")
    return desktop.run(job_path(getattr(args, "job", DEMO)), Path(shop) if shop else None)


def _schema(args: argparse.Namespace, _desktop: Desktop) -> int:
    pages = {"findings": codes.listed, "fields": jobfile.fields_listed}
    if args.file in pages:
        print(pages[args.file](), end="")
        return FINE
    found = shopfile.schema() if args.file == "shop" else jobfile.schema()
    print(json.dumps(found, indent=1))
    return FINE


def _write_shop(args: argparse.Namespace, _desktop: Desktop) -> int:
    shopfile.save(shipped_shop(), Path(args.out))
    print(args.out)
    return FINE


def _shots(args: argparse.Namespace, desktop: Desktop) -> int:
    for file in desktop.shots(job_path(args.job), Path(args.out)):
        print(file)
    return FINE


def _sheet(args: argparse.Namespace, desktop: Desktop) -> int:
    shop = shop_of(args.shop)
    for file in desktop.sheet(job_of(args.job), Path(args.out), args.scenario, shop):
        print(file)
    return FINE


def _check(args: argparse.Namespace, _desktop: Desktop) -> int:
    verdict = verdict_of(args)
    if args.file:
        return making.file_told(verdict, Path(args.file))
    if args.json:
        more = {"cut": cut_json(verdict), "survey": survey_json(verdict)}
        print(json.dumps(verdict_json(verdict) | more, indent=1, ensure_ascii=False))
    else:
        print(report(verdict))
    return STOPS if verdict.count("stop") else FINE


def _services(args: argparse.Namespace, _desktop: Desktop) -> int:
    job = job_of(args.job)
    if args.weather:
        job = with_weather(job, read_weather(Path(args.weather), job.services.trip))
    verdict = verdict_of(args, job)
    if args.json:
        print(json.dumps(services_tables.services_json(verdict), indent=1, ensure_ascii=False))
    else:
        print(services_tables.services_report(verdict))
    if args.out:
        folder = Path(args.out)
        for name, write in services_tables.FILES.items():
            write_whole(folder / name, write(verdict).encode())
    return STOPS if verdict.count("stop", "Services") else FINE


def _access(args: argparse.Namespace, _desktop: Desktop) -> int:
    job = job_of(args.job)
    if args.goods:
        text = goods_text(Path(args.goods))
        job = with_goods(job, read_goods(text, job, Path(args.goods).name))
        left = unread(text)
        if left:
            print(f"not read: the columns {', '.join(left)}", file=sys.stderr)
    verdict = verdict_of(args, job)
    if args.json:
        print(json.dumps(access_tables.access_json(verdict), indent=1, ensure_ascii=False))
    else:
        print(access_tables.access_report(verdict))
    if args.out:
        access_tables.write_papers(verdict, Path(args.out))
    return STOPS if verdict.count("stop", "Access") else FINE


def _solid(verdict: Verdict, out: Path, opened: Sequence[str]) -> int:
    """Write the job as GLB; an opening that there is not is named with those that there are."""
    known = [o.id for o in verdict.assembly.openings()]
    for key in opened:
        if key not in known:
            raise InputError(
                f"there is no '{key}' that opens", remedy=f"Choose of: {', '.join(known)}."
            )
    solid3d.write(verdict.assembly, out, frozenset(opened))
    print(out)
    return FINE


def _why(verdict: Verdict, scenario: str, row: str) -> int:
    """Print the sum behind one figure; an unknown scenario or row is named with those there are."""
    ids, keys = [s.id for s in verdict.job.scenarios], [k for k, _ in board.ROWS]
    for word, known, what in ((scenario, ids, "scenario"), (row, keys, "row")):
        if word not in known:
            raise InputError(
                f"there is no {what} '{word}'", remedy=f"Choose of: {', '.join(known)}."
            )
    one = next(s for s in verdict.assembly.job.scenarios if s.id == scenario)
    found = board.why(verdict.assembly, verdict.loads, one, row)
    print(f"{found.title}\n{found.rule}")
    for line in found.lines:
        part = f"{line.kg:>9,.1f} kg × {line.part:>7.4f} =" if line.kg else " " * 24
        print(f"  {line.words:<44}{part}{line.amount:>10,.1f} {found.unit}")
    uncertainty = f" ± {found.uncertainty:,.1f}" if found.uncertainty else ""
    print(
        f"  {'together':<44}{'':24}{found.total:>10,.1f}{uncertainty} {found.unit}\nLimit: {found.limit}."
    )
    return FINE


def _vehicles() -> int:
    """List the library; a file that cannot be used is named with its trouble."""
    entries = library()
    for entry in entries:
        words = entry.vehicle.name if entry.vehicle is not None else entry.trouble
        kind = entry.vehicle.kind if entry.vehicle is not None else "cannot be used"
        print(f"{kind:<15}{words}")
    return UNUSABLE if any(e.vehicle is None for e in entries) else FINE


def _simulate(device: str, value: float, noise: float) -> int:
    """Serve a stand-in device until it is interrupted."""
    if not 0 < value < 20000 or not 0 <= noise < 1:
        raise InputError(
            "the value is above 0 and the noise from 0 to below 1", remedy="Mend them."
        )
    shares = {"FL": 0.27, "FR": 0.27, "RL": 0.23, "RR": 0.23}
    answers = {
        "laser": laser(lambda: value),
        "scales": scales(lambda: {w: value * s for w, s in shares.items()}),
        "monitor": monitor(lambda: (13.2, -value / 13.2, 0.8)),
    }
    answer = answers[device]
    served = Simulator(answer, silence=noise, garbage=noise)
    print(f"A {device} that is not there answers at {served.path}; Ctrl+C ends it.", flush=True)
    never = threading.Event()
    try:
        # A wait without an end may sleep through an interrupt that another thread was given.
        while not never.wait(0.2):
            pass
    finally:
        served.close()
    return FINE


COMMANDS: dict[str, Callable[[argparse.Namespace, Desktop], int]] = {
    "open": _open,
    "check": _check,
    "why": lambda args, _desktop: _why(verdict_of(args), args.scenario, args.row),
    "cut": making.cut,
    "book": making.book,
    "plan": building.plan,
    "offer": building.offer,
    "pack": building.pack,
    "board": building.board,
    "swap": setups.run,
    "arrange": arranging.run,
    "release": making.release,
    "solid": lambda args, _desktop: _solid(verdict_of(args), Path(args.out), args.open),
    "services": _services,
    "access": _access,
    "sheet": _sheet,
    "shots": _shots,
    "schema": _schema,
    "shop": _write_shop,
    "vehicles": lambda _args, _desktop: _vehicles(),
    "simulate": lambda args, _desktop: _simulate(args.device, args.value, args.noise),
}
"""Every command by its word."""
