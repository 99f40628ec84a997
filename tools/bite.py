"""Do the tests bite? Small faults are put into the code, one at a time, and the tests of the file's own folder run.

    tools/bite.py                         every fault that fits a line changed since the last commit on the main branch
    tools/bite.py --base REV              ... since REV
    tools/bite.py --draw 80 --seed 1      so many drawn by chance over the folders that compute
    tools/bite.py --folders core,making   ... over these folders only

A fault is a limit or factor that is another, ``<`` against ``<=``, a sign, a term left out, `min` or `max` dropped or
changed, `and` for `or`, an order turned, a default put to 0. The tests of tests/validation that name the file count too.
It dies where a test of the folder fails. What lives is
printed with its line; mend it by a test of the rule, or name why it cannot matter in docs/mutation.md.
The work is done in a copy of the tree; two faults are tried at a time.
"""

import argparse
import ast
import random
import re
import shutil
import subprocess
import sys
import tempfile
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from typing import NamedTuple

ROOT = Path(__file__).parent.parent
SOURCE = "src/roomy_hull"
DRAWN = ("core", "studies", "making", "planning", "arrange", "formats", "session")
TESTS = {"verdict": "studies", "desktop": "ui", "cli": "session", "shop": "making"}
"""Folders whose tests stand in another."""
OTHER = {
    ast.Lt: "<=", ast.LtE: "<", ast.Gt: ">=", ast.GtE: ">", ast.Eq: "!=", ast.NotEq: "==",
    ast.Add: "-", ast.Sub: "+", ast.Mult: "/", ast.Div: "*", ast.And: "or", ast.Or: "and",
}  # fmt: skip
LONGEST = 900
"""A fault under which the tests take longer than this hangs, and counts as found. [s]"""


class Fault(NamedTuple):
    """A fault: the file, where in it, and what stands there then."""

    file: str
    line: int
    start: int
    end: int
    new: str
    old: str


def faults(  # ruff: ignore[complex-structure]  # one branch for each kind of fault
    file: str, text: str
) -> Iterator[Fault]:
    """Every fault that fits a file."""
    starts = [0]
    for row in text.splitlines(keepends=True):
        starts.append(starts[-1] + len(row.encode()))
    data = text.encode()

    def at(node: ast.expr, *, end: bool = False) -> int:
        if end:
            return starts[(node.end_lineno or 1) - 1] + (node.end_col_offset or 0)
        return starts[node.lineno - 1] + node.col_offset

    def said(node: ast.expr) -> str:
        return data[at(node) : at(node, end=True)].decode()

    def fault(node: ast.expr, new: str) -> Fault:
        return Fault(file, node.lineno, at(node), at(node, end=True), new, said(node))

    for node in _computing(ast.parse(text)):
        if isinstance(node, ast.Constant) and type(node.value) in (int, float) and node.value != 0:
            other = node.value + 1 if isinstance(node.value, int) else round(node.value * 1.3, 6)
            yield fault(node, repr(other))
            yield fault(node, "0" if isinstance(node.value, int) else "0.0")
        elif isinstance(node, ast.Compare) and len(node.ops) == 1 and type(node.ops[0]) in OTHER:
            yield fault(
                node, f"({said(node.left)} {OTHER[type(node.ops[0])]} {said(node.comparators[0])})"
            )
        elif isinstance(node, ast.BinOp) and type(node.op) in OTHER:
            yield fault(node, f"({said(node.left)} {OTHER[type(node.op)]} {said(node.right)})")
            yield fault(node, f"({said(node.left)})")
        elif isinstance(node, ast.BoolOp):
            word = f" {OTHER[type(node.op)]} "
            yield fault(node, "(" + word.join(f"({said(v)})" for v in node.values) + ")")
            yield fault(node, f"({said(node.values[0])})")
        elif isinstance(node, ast.UnaryOp) and isinstance(node.op, ast.Not | ast.USub):
            yield fault(node, f"({said(node.operand)})")
        elif isinstance(node, ast.Call) and isinstance(node.func, ast.Name) and node.args:
            yield from (
                fault(node, new)
                for new in _of_call(node.func.id, said(node), said(node.args[0]), len(node.args))
            )


def _of_call(name: str, whole: str, first: str, count: int) -> Iterator[str]:
    """What may stand for a call: of the least or the most the other, or the first alone; another order, or none."""
    if name in ("min", "max"):
        yield ("max" if name == "min" else "min") + whole.removeprefix(name)
        if count > 1:
            yield f"({first})"
    elif name == "sorted":
        yield f"{whole}[::-1]"
        yield f"list({first})"


def _computing(node: ast.AST) -> Iterator[ast.AST]:
    """The parts of a module that compute: no annotations, no words, nothing that is only for types."""
    for name, value in ast.iter_fields(node):
        if name in ("annotation", "returns", "decorator_list", "slice") and not isinstance(
            node, ast.Slice
        ):
            continue
        for child in value if isinstance(value, list) else [value]:
            if isinstance(child, ast.If) and "TYPE_CHECKING" in ast.unparse(child.test):
                continue
            if isinstance(child, ast.AST) and not isinstance(child, ast.JoinedStr):
                yield child
                yield from _computing(child)


def changed_lines(base: str) -> dict[str, set[int]]:
    """Which lines of the source were changed since a revision, by file."""
    said = subprocess.run(
        ["git", "diff", "-U0", base, "--", SOURCE], cwd=ROOT, capture_output=True, text=True, check=True
    ).stdout  # fmt: skip
    found: dict[str, set[int]] = {}
    file = ""
    for row in said.splitlines():
        if row.startswith("+++ b/"):
            file = row[6:]
        elif match := re.match(r"@@ -\S+ \+(\d+)(?:,(\d+))? @@", row):
            first, count = int(match[1]), int(match[2] or 1)
            found.setdefault(file, set()).update(range(first, first + count))
    return found


def tests_of(file: str) -> list[str]:
    """A file's own tests: those that name it first, here and in tests/validation, then all of its folder."""
    folder, *_rest = file.removeprefix(f"{SOURCE}/").split("/")
    own = f"tests/{TESTS.get(folder, folder)}"
    module = file.removeprefix("src/").removesuffix(".py").split("/")
    dotted = (".".join(module), f"from {'.'.join(module[:-1])} import ")
    first = [
        str(path.relative_to(ROOT))
        for where in (own, "tests/validation")
        for path in sorted((ROOT / where).glob("test_*.py"))
        if any(
            row.startswith(("from", "import")) and (dotted[0] in row or (row.startswith(dotted[1]) and module[-1] in row))
            for row in path.read_text("utf-8").splitlines()
        )
    ]  # fmt: skip
    return [*first, own]


def dies(one: Fault, tree: Path) -> bool:
    """Whether a fault is found, tried in a tree of its own; that tree is as it was afterwards."""
    path = tree / one.file
    text = path.read_bytes()
    path.write_bytes(text[: one.start] + one.new.encode() + text[one.end :])
    try:
        done = subprocess.run(
            [sys.executable, "-m", "pytest", "-x", "-q", "-p", "no:xdist", *tests_of(one.file)],
            cwd=tree, capture_output=True, timeout=LONGEST, check=False,
            env={"PYTHONPATH": f"{tree}/src", "PYTHONDONTWRITEBYTECODE": "1", "QT_QPA_PLATFORM": "offscreen",
                 "PATH": "/usr/bin:/bin", "HOME": str(tree)},
        )  # fmt: skip
    except subprocess.TimeoutExpired:
        return True
    finally:
        path.write_bytes(text)
    return done.returncode != 0


def main() -> int:
    """Draw or list faults, try them, and tell what lives."""
    take = argparse.ArgumentParser(
        description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter
    )
    take.add_argument("--base", default="HEAD")
    take.add_argument("--draw", type=int, default=0)
    take.add_argument("--seed", type=int, default=1)
    take.add_argument("--folders", default=",".join(DRAWN))
    wish = take.parse_args()
    chance = random.Random(wish.seed)
    if wish.draw:
        by_folder = {
            folder: [f for p in sorted((ROOT / SOURCE / folder).rglob("*.py"))
                     for f in faults(str(p.relative_to(ROOT)), p.read_text("utf-8"))]
            for folder in wish.folders.split(",")
        }  # fmt: skip
        folders = list(by_folder)
        chosen = [chance.choice(by_folder[folders[n % len(folders)]]) for n in range(wish.draw)]
    else:
        chosen = [
            f for file, lines in changed_lines(wish.base).items() if (ROOT / file).is_file()
            for f in faults(file, (ROOT / file).read_text("utf-8")) if f.line in lines
        ]  # fmt: skip
    with tempfile.TemporaryDirectory() as where:
        trees = [Path(where) / str(n) for n in range(2)]
        for tree in trees:
            tree.mkdir()
            for part in ("src", "tests", "bench", "tools", "docs"):
                shutil.copytree(
                    ROOT / part, tree / part, ignore=shutil.ignore_patterns("__pycache__")
                )
            for part in ("pyproject.toml", "README.md", "demo", "test", "requirements"):
                (shutil.copytree if (ROOT / part).is_dir() else shutil.copy)(
                    ROOT / part, tree / part
                )
        free = list(trees)

        def tried(one: Fault) -> bool:
            tree = free.pop()
            try:
                return dies(one, tree)
            finally:
                free.append(tree)

        killed = 0
        with ThreadPoolExecutor(len(trees)) as pool:
            for one, dead in zip(chosen, pool.map(tried, chosen), strict=True):
                killed += dead
                old, new = (" ".join(words.split())[:70] for words in (one.old, one.new))
                print(
                    "died " if dead else "LIVES",
                    f"{one.file}:{one.line}: {old}  ->  {new}",
                    flush=True,
                )
    print(f"{killed} of {len(chosen)} died")
    return int(killed < 0.8 * len(chosen))


if __name__ == "__main__":
    sys.exit(main())
