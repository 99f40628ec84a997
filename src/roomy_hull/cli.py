"""The command line: open, check, why, cut, sheet, shots, schema. Without Qt; the desktop is handed in."""

import argparse
import json
import sys
import threading
from collections.abc import Callable, Sequence
from pathlib import Path
from typing import NoReturn

import msgspec

from roomy_hull import __version__
from roomy_hull.core.errors import InputError, UserError
from roomy_hull.core.findings import Finding
from roomy_hull.core.shipped import FOLDER
from roomy_hull.formats import jobfile
from roomy_hull.formats.demo import DEMOS, demo_job
from roomy_hull.job.model import Job
from roomy_hull.studies.loads import board
from roomy_hull.studies.loads.axles import ScenarioLoads
from roomy_hull.verdict.verdict import Verdict, judge

FINE, STOPS, UNUSABLE, FAULT = 0, 1, 2, 3
DEMO = "demo"
"""The word that stands for the shipped demo job wherever a job file is wanted."""


class Desktop(msgspec.Struct, frozen=True):
    """What of the desktop the command line may start."""

    run: Callable[[Path | None], int]
    shots: Callable[[Path | None, Path], list[Path]]
    sheet: Callable[[Job, Path, str], tuple[Path, Path]]


class _Parser(argparse.ArgumentParser):
    """Says what is wrong with a command on one line, and how to get help."""

    def error(self, message: str) -> NoReturn:
        """End with exit code 2."""
        sys.stderr.write(f"{self.prog}: {message}. See {self.prog} --help.\n")
        sys.exit(UNUSABLE)


def parser() -> argparse.ArgumentParser:
    """Give the command's parser."""
    top = _Parser(
        prog="roomy-hull",
        description="Layout, fit and load checks for vehicle trays and canopies, before metal is cut.",
        epilog="Exit codes: 0 fine, 1 stop findings, 2 unusable input, 3 a fault of the program.",
    )
    top.add_argument("--version", action="version", version=f"Roomy Hull {__version__}")
    commands = top.add_subparsers(dest="command", metavar="COMMAND")
    what = f"a *{jobfile.SUFFIX} file, or '{DEMO}' ({', '.join(f'{DEMO}:{d}' for d in list(DEMOS)[1:])})"
    one = commands.add_parser("open", help="open the window")
    one.add_argument("job", nargs="?", default=DEMO, metavar="JOB", help=what)
    one = commands.add_parser("check", help="judge a job and print what is found")
    one.add_argument("job", metavar="JOB", help=what)
    one.add_argument(
        "--json", action="store_true", help="the whole verdict as JSON (docs/formats.md)"
    )
    one = commands.add_parser("cut", help="write DXF blanks, nested sheets, part and saw lists")
    one.add_argument("job", metavar="JOB", help=what)
    one.add_argument("--out", required=True, metavar="DIR", help="folder for the files")
    one.add_argument("--anyway", action="store_true", help="write them even with stop findings")
    one = commands.add_parser("shots", help="write pictures of the main views")
    one.add_argument("job", metavar="JOB", help=what)
    one.add_argument("--out", required=True, metavar="DIR", help="folder for the pictures")
    one = commands.add_parser("solid", help="write the job as a 3D file (GLB) for the customer")
    one.add_argument("job", metavar="JOB", help=what)
    one.add_argument("--out", required=True, metavar="FILE", help="the file, ending in .glb")
    one.add_argument(
        "--open",
        action="append",
        default=[],
        metavar="ID",
        help="an opening to show open; repeatable",
    )
    one = commands.add_parser("sheet", help="write the load sheet as PDF and CSV")
    one.add_argument("job", metavar="JOB", help=what)
    one.add_argument("--out", required=True, metavar="DIR", help="folder for the files")
    one.add_argument("--scenario", default="", metavar="ID", help="the one that is drawn")
    one = commands.add_parser("why", help="the sum behind one figure of the scenario board")
    one.add_argument("job", metavar="JOB", help=what)
    one.add_argument("scenario", metavar="SCENARIO", help="its id")
    one.add_argument("row", metavar="ROW", help="front, rear, gross, payload, 'rear left', level …")
    commands.add_parser("vehicles", help="list the library of vehicles")
    one = commands.add_parser(
        "simulate", help="a measuring device that is not there, for trying out"
    )
    one.add_argument("device", choices=("laser", "scales"))
    one.add_argument(
        "--value", type=float, default=2140.0, help="true distance [mm], or mass of all wheels [kg]"
    )
    one.add_argument(
        "--noise", type=float, default=0.1, help="chance that a line is damaged or missing"
    )
    commands.add_parser("schema", help="print the JSON Schema of the job file")
    return top


def main(argv: Sequence[str], desktop: Desktop) -> int:
    """Run one command.

    Parameters
    ----------
    argv : sequence of str
        The arguments after the command's name.
    desktop : Desktop
        How to open the window and take pictures.

    Returns
    -------
    int
        0 fine, 1 stop findings, 2 unusable input, 3 a fault of the program.
    """
    args = parser().parse_args(list(argv))
    try:
        return _run(args, desktop)
    except UserError as trouble:
        print(f"roomy-hull: {trouble}", file=sys.stderr)
        return UNUSABLE
    except BrokenPipeError:
        sys.stderr.close()
        return FINE
    except KeyboardInterrupt:
        return 130
    except Exception as fault:
        print(
            f"roomy-hull: a fault of the program, not of your job ({type(fault).__name__}: {fault}). "
            "Please report it with the job file.",
            file=sys.stderr,
        )
        return FAULT


def _run(args: argparse.Namespace, desktop: Desktop) -> int:
    """Do what the arguments say."""
    if args.command in (None, "open"):
        return desktop.run(_path(getattr(args, "job", DEMO)))
    if args.command == "schema":
        print(json.dumps(jobfile.schema(), indent=1))
        return FINE
    if args.command == "vehicles":
        return _vehicles()
    if args.command == "simulate":
        return _simulate(args.device, args.value, args.noise)
    if args.command == "shots":
        for file in desktop.shots(_path(args.job), Path(args.out)):
            print(file)
        return FINE
    if args.command == "sheet":
        for file in desktop.sheet(_job(args.job), Path(args.out), args.scenario):
            print(file)
        return FINE
    verdict = judge(_job(args.job))
    if args.command == "why":
        return _why(verdict, args.scenario, args.row)
    if args.command == "solid":
        return _solid(verdict, Path(args.out), args.open)
    if args.command == "check":
        if args.json:
            from roomy_hull.formats.verdict_json import (
                cut_json,
                survey_json,
                verdict_json,
            )  # not to slow `open`

            more = {"cut": cut_json(verdict), "survey": survey_json(verdict)}
            print(json.dumps(verdict_json(verdict) | more, indent=1, ensure_ascii=False))
        else:
            print(report(verdict))
        return STOPS if verdict.count("stop") else FINE
    return _cut(verdict, Path(args.out), anyway=args.anyway)


def _solid(verdict: Verdict, out: Path, opened: Sequence[str]) -> int:
    """Write the job as GLB; an opening that there is not is named with those that there are."""
    from roomy_hull.formats import solid3d  # not to slow `open`

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
    one = next(s for s in verdict.job.scenarios if s.id == scenario)
    found = board.why(verdict.assembly, verdict.loads, one, row)
    print(f"{found.title}\n{found.rule}")
    for line in found.lines:
        part = f"{line.kg:>9,.1f} kg × {line.part:>7.4f} =" if line.kg else " " * 24
        print(f"  {line.words:<44}{part}{line.amount:>10,.1f} {found.unit}")
    doubt = f" ± {found.doubt:,.1f}" if found.doubt else ""
    print(
        f"  {'together':<44}{'':24}{found.total:>10,.1f}{doubt} {found.unit}\nLimit: {found.limit}."
    )
    return FINE


def _vehicles() -> int:
    """List the library; a file that cannot be used is named with its trouble."""
    from roomy_hull.formats.vehiclefile import library  # not to slow `open`

    entries = library()
    for entry in entries:
        words = entry.vehicle.name if entry.vehicle is not None else entry.trouble
        kind = entry.vehicle.kind if entry.vehicle is not None else "cannot be used"
        print(f"{kind:<15}{words}")
    return UNUSABLE if any(e.vehicle is None for e in entries) else FINE


def _simulate(device: str, value: float, noise: float) -> int:
    """Serve a stand-in device until it is interrupted."""
    from roomy_hull.planning.simulator import Simulator, laser, scales  # not to slow `open`

    if not 0 < value < 20000 or not 0 <= noise < 1:
        raise InputError(
            "the value is above 0 and the noise from 0 to below 1", remedy="Mend them."
        )
    shares = {"FL": 0.27, "FR": 0.27, "RL": 0.23, "RR": 0.23}
    answer = laser(lambda: value) if device == "laser" else scales(
        lambda: {w: value * s for w, s in shares.items()}
    )  # fmt: skip
    served = Simulator(answer, silence=noise, garbage=noise)
    print(f"A {device} that is not there answers at {served.path}; Ctrl+C ends it.", flush=True)
    try:
        threading.Event().wait()
    finally:
        served.close()
    return FINE


def _path(word: str) -> Path | None:
    """Give the file that a word names; none for the demo job (a file so called is ./demo)."""
    return None if word == DEMO else shipped_path(word) or Path(word)


def shipped_path(word: str) -> Path | None:
    """Give the file of a demo job that is named as ``demo:lowfold``; none for other words."""
    if not word.startswith(f"{DEMO}:"):
        return None
    name = word.partition(":")[2]
    demo_job(name)
    return FOLDER / "demo" / f"{name}.hull.json"


def _job(word: str) -> Job:
    """Read the job that a word names."""
    path = _path(word)
    return demo_job() if path is None else jobfile.load(path)


def _cut(verdict: Verdict, out: Path, *, anyway: bool) -> int:
    """Write the cut files, unless stops are open."""
    from roomy_hull.formats import cutfiles  # the packer is not to slow `open`
    from roomy_hull.making.cutlist import cut_list

    stops = [f for f in verdict.findings if f.severity == "stop"]
    for finding in stops:
        print(_line(finding), file=sys.stderr)
    if stops and not anyway:
        print(
            f"roomy-hull: nothing is written while {len(stops)} stop findings are open; "
            "mend them, or add --anyway.",
            file=sys.stderr,
        )
        return STOPS
    cut = cut_list(verdict.assembly.parts(), verdict.assembly.shop.stock)
    paths = cutfiles.write(cut, out)
    print(
        f"{len(paths)} files in {out}: {len(cut.blanks)} different blanks, "
        f"{len(cut.nest.sheets)} sheets, {len(cut.bars.bars)} bars."
    )
    return STOPS if stops else FINE


def report(verdict: Verdict) -> str:
    """Write a verdict for people.

    Parameters
    ----------
    verdict : Verdict
        The verdict.

    Returns
    -------
    str
        One block per scenario, then the findings with their figures and sources.
    """
    rows = [verdict.job.name, ""]
    for loads in verdict.loads.scenarios:
        rows += _scenario_rows(loads)
    if not verdict.findings:
        rows.append("Nothing is found wrong.")
    rows += [_line(f) for f in verdict.findings]
    rows += [
        "",
        f"{verdict.count('stop')} stop, {verdict.count('look')} look. Planning figures: ratings, "
        "certificates and road law decide.",
    ]
    return "\n".join(rows)


def _scenario_rows(loads: ScenarioLoads) -> list[str]:
    """Write one scenario."""
    rows = [loads.name]
    for words, figure in (
        ("front axle", loads.front), ("rear axle", loads.rear), ("gross", loads.gross),
        ("combination", loads.combination), ("left", loads.left), ("right", loads.right),
    ):  # fmt: skip
        if figure is not None:
            limit = f" of {figure.limit:,.0f}" if figure.limit is not None else ""
            rows.append(f"  {words:<12}{figure.value:>8,.0f} ± {figure.doubt:<3,.0f} kg{limit}")
    payload = loads.payload_left
    rows.append(f"  {'payload left':<12}{payload.value:>8,.0f} ± {payload.doubt:<3,.0f} kg")
    return [*rows, ""]


def _line(finding: Finding) -> str:
    """Write one finding."""
    figures = ""
    if finding.measured is not None:
        figures = f" [{finding.measured:,.1f} against {finding.limit or 0:,.1f} {finding.unit}]"
    accepted = f" (accepted: {finding.accepted})" if finding.accepted else ""
    return f"{finding.severity.upper():<5} {finding.title}{figures} ({finding.source}){accepted}"
