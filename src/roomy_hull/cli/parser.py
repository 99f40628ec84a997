"""The arguments: every command with its own, made of them when more than the window is wanted."""

import argparse
import sys
from typing import Any, NoReturn

from roomy_hull import __version__
from roomy_hull.cli.codes import DEMO, SHIPPED, SHOP_SUFFIX, UNUSABLE
from roomy_hull.formats import jobfile
from roomy_hull.formats.demo import DEMOS


class _Parser(argparse.ArgumentParser):
    """Says what is wrong with a command on one line, and how to get help."""

    def error(self, message: str) -> NoReturn:
        """End with exit code 2."""
        sys.stderr.write(f"{self.prog}: {message}. See {self.prog} --help.\n")
        sys.exit(UNUSABLE)

    def parse_known_args(self, *args: Any, **more: Any) -> Any:
        """Parse; the cut has to go somewhere."""
        found = super().parse_known_args(*args, **more)
        if self.prog.endswith(" cut") and not found[0].out and not found[0].json:
            self.error("one of --out DIR and --json is wanted")
        if self.prog.endswith(" cut") and found[0].verify and not found[0].out:
            self.error("--verify wants --out DIR, where the files are")
        return found


def _written(commands: "argparse._SubParsersAction[_Parser]", what: str) -> None:
    """Add the commands that tell of a stage, as words, as JSON, and as files in a folder."""
    one = commands.add_parser("services", help="circuits, the trip, water, gas and air")
    one.add_argument("job", metavar="JOB", help=what)
    one.add_argument("--json", action="store_true", help="as JSON (docs/formats.md)")
    one.add_argument(
        "--out",
        default="",
        metavar="DIR",
        help="folder for the tables: circuits, cables, runs, plugs",
    )
    one.add_argument(
        "--weather",
        default="",
        metavar="FILE",
        help="hourly irradiance and air as CSV (docs/formats.md)",
    )
    _shop(one)
    one = commands.add_parser(
        "access", help="who gets at what, in how many moves, with which strain"
    )
    one.add_argument("job", metavar="JOB", help=what)
    one.add_argument("--json", action="store_true", help="as JSON (docs/formats.md)")
    one.add_argument(
        "--goods", default="", metavar="FILE", help="goods to add, a table (docs/formats.md)"
    )
    one.add_argument(
        "--out",
        default="",
        metavar="DIR",
        help="folder for packing lists, maps, the canopy-off sheet",
    )
    _shop(one)


def _made(commands: "argparse._SubParsersAction[_Parser]", what: str) -> None:
    """Add the commands of the stage Cut."""
    one = commands.add_parser("cut", help="write DXF blanks, nested sheets, part and saw lists")
    one.add_argument("job", metavar="JOB", help=what)
    one.add_argument("--out", default="", metavar="DIR", help="folder for the files")
    one.add_argument(
        "--json", action="store_true", help="everything of the cut as JSON (docs/formats.md)"
    )
    one.add_argument(
        "--anyway",
        action="store_true",
        help="write them even with stop findings; every file says so",
    )
    one.add_argument(
        "--verify",
        action="store_true",
        help="write nothing: are the files in DIR whole, and of the job as it is now?",
    )
    one.add_argument(
        "--solids", action="store_true", help="every part as STEP and GLB too, and the whole job"
    )
    one.add_argument(
        "--shapes",
        action="store_true",
        help="lay odd outlines into one another where that saves a sheet; takes minutes",
    )
    one.add_argument(
        "--rounds",
        type=int,
        default=300,
        metavar="N",
        help="how often the nesting is improved (300)",
    )
    _shop(one)
    one = commands.add_parser("book", help="write the book to build by, and its labels, as PDF")
    one.add_argument("job", metavar="JOB", help=what)
    one.add_argument("--out", required=True, metavar="DIR", help="folder for the files")
    _shop(one)
    one = commands.add_parser(
        "release", help="freeze what is cut as a revision, or say what is stale"
    )
    one.add_argument("job", metavar="JOB", help=what)
    one.add_argument(
        "--by",
        default="",
        metavar="INITIALS",
        help="who releases it; without, only what is stale is told",
    )
    one.add_argument("--note", default="", help="a word on what it is for")
    one.add_argument(
        "--out",
        default="",
        metavar="FILE",
        help="where the job is written with it; else the same file",
    )
    _shop(one)


def _built(commands: "argparse._SubParsersAction[_Parser]", what: str) -> None:
    """Add the commands of the stage Build."""
    one = commands.add_parser(
        "plan", help="operations, who does them when, what is late and why, what to order"
    )
    one.add_argument("job", metavar="JOB", help=what)
    one.add_argument("--json", action="store_true", help="as JSON (docs/formats.md)")
    one.add_argument(
        "--out", default="", metavar="DIR", help="folder for operations.csv and buying.csv"
    )
    _shop(one)
    one = commands.add_parser(
        "offer", help="write an offer of the job as it stands, as PDF and CSV"
    )
    one.add_argument("job", metavar="JOB", help=what)
    one.add_argument("--out", required=True, metavar="DIR", help="folder for the files")
    one.add_argument("--by", default="", metavar="INITIALS", help="who offers it")
    _shop(one)
    one = commands.add_parser("pack", help="write the hand-over pack and the check sheets, as PDF")
    one.add_argument("job", metavar="JOB", help=what)
    one.add_argument("--out", required=True, metavar="DIR", help="folder for the files")
    one.add_argument("--anyway", action="store_true", help="write it even with stop findings")
    _shop(one)
    one = commands.add_parser(
        "board", help="all jobs of a workshop's folder: how far, when ready, what is late and why"
    )
    one.add_argument("folder", metavar="FOLDER", help=f"where its *{jobfile.SUFFIX} files lie")
    one.add_argument("--json", action="store_true", help="as JSON (docs/formats.md)")
    one.add_argument(
        "--rounds",
        type=int,
        default=0,
        metavar="N",
        help="how often the plan of all is improved (0)",
    )
    _shop(one)


def _swapped(commands: "argparse._SubParsersAction[_Parser]", what: str) -> None:
    """Add the command of the set-ups."""
    one = commands.add_parser(
        "swap", help="set-ups: what is off in each; or step by step from one to another"
    )
    one.add_argument("job", metavar="JOB", help=what)
    one.add_argument("start", nargs="?", default="", metavar="FROM", help="id of a set-up")
    one.add_argument("end", nargs="?", default="", metavar="TO", help="id of another")
    one.add_argument("--json", action="store_true", help="as JSON (docs/formats.md)")
    one.add_argument("--out", default="", metavar="FILE", help="where the steps are written as CSV")
    _shop(one)


def _arranged(commands: "argparse._SubParsersAction[_Parser]", what: str) -> None:
    """Add the command that arranges."""
    one = commands.add_parser(
        "arrange", help="a bay, a place and a height for everything, with a proof of how good"
    )
    one.add_argument("job", metavar="JOB", help=what)
    one.add_argument(
        "--want", default="", metavar="FILE", help="what has to go in, and wishes (docs/formats.md)"
    )
    one.add_argument(
        "--out",
        default="",
        metavar="DIR",
        help="folder for every layout as a job, and a table of them",
    )
    one.add_argument("--json", action="store_true", help="as JSON (docs/formats.md)")
    one.add_argument(
        "--seconds", type=float, default=10.0, metavar="S", help="how long it may take (10)"
    )
    one.add_argument(
        "--pitch", type=float, default=50.0, metavar="MM", help="steps along the wall (50)"
    )
    _shop(one)


def parser() -> argparse.ArgumentParser:
    """Make the command's parser."""
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
    _shop(one)
    one = commands.add_parser("check", help="judge a job and print what is found")
    one.add_argument("job", metavar="JOB", help=what)
    one.add_argument(
        "--json", action="store_true", help="the whole verdict as JSON (docs/formats.md)"
    )
    one.add_argument(
        "--file",
        default="",
        metavar="FILE",
        help="tell whether a cut file is of the job as it is now",
    )
    _shop(one)
    _made(commands, what)
    _built(commands, what)
    _swapped(commands, what)
    _arranged(commands, what)
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
    _shop(one)
    one = commands.add_parser("sheet", help="write the load sheet as PDF and CSV")
    one.add_argument("job", metavar="JOB", help=what)
    one.add_argument("--out", required=True, metavar="DIR", help="folder for the files")
    one.add_argument("--scenario", default="", metavar="ID", help="the one that is drawn")
    _shop(one)
    _written(commands, what)
    one = commands.add_parser("why", help="the sum behind one figure of the scenario board")
    one.add_argument("job", metavar="JOB", help=what)
    one.add_argument("scenario", metavar="SCENARIO", help="its id")
    one.add_argument("row", metavar="ROW", help="front, rear, gross, payload, 'rear left', level …")
    _shop(one)
    commands.add_parser("vehicles", help="list the library of vehicles")
    one = commands.add_parser(
        "simulate", help="a measuring device that is not there, for trying out"
    )
    one.add_argument("device", choices=("laser", "scales", "monitor"))
    one.add_argument(
        "--value",
        type=float,
        default=2140.0,
        help="true distance [mm], mass of all wheels [kg], or what is drawn [W]",
    )
    one.add_argument(
        "--noise", type=float, default=0.1, help="chance that a line is damaged or missing"
    )
    one = commands.add_parser(
        "schema",
        help="print the JSON Schema of job or shop file, or the list of findings or of fields",
    )
    one.add_argument(
        "file", nargs="?", default="job", choices=("job", "shop", "findings", "fields")
    )
    one = commands.add_parser("shop", help="write the shipped shop to a file, to be changed")
    one.add_argument(
        "--out", required=True, metavar="FILE", help=f"the file, ending in {SHOP_SUFFIX}"
    )
    return top


def _shop(one: argparse.ArgumentParser) -> None:
    """Let a command take the shop's own values."""
    one.add_argument(
        "--shop",
        default="",
        metavar="FILE",
        help=f"materials, stock, prices and rules: a *{SHOP_SUFFIX} file, or '{SHIPPED}'; else those that you keep",
    )
