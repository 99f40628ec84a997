"""The project's own promises: documents, pictures, locks and layers that hold."""

import ast
import graphlib
import re
import subprocess
import sys
import tomllib
from collections.abc import Iterator
from pathlib import Path

import grimp
import pytest

from roomy_hull import __version__
from roomy_hull.core import lazily
from roomy_hull.formats.jobfile import loads
from roomy_hull.session.actions.standard import standard
from roomy_hull.verdict.verdict import judge

ROOT = Path(__file__).parent.parent


def test_every_picture_is_linked_from_the_readme() -> None:
    pictures = sorted((ROOT / "docs/screenshots").glob("*.png"))
    readme = (ROOT / "README.md").read_text()
    assert 0 < len(pictures) < 20
    for picture in pictures:
        assert f"docs/screenshots/{picture.name}" in readme, picture.name
        assert picture.read_bytes()[:4] == b"\x89PNG"


@pytest.mark.parametrize("name", ["README.md", "CONTRIBUTING.md", "CHANGELOG.md", "docs/architecture.md",
                                  "docs/formats.md", "docs/numbers.md", "docs/performance.md", "docs/guide.md",
                                  "docs/words.md"])  # fmt: skip
def test_links_between_documents_lead_somewhere(name: str) -> None:
    text = (ROOT / name).read_text()
    for target in re.findall(r"\]\((?!https?:)([^)#]+)", text):
        assert ((ROOT / name).parent / target).exists(), f"{name}: {target}"


def test_the_architecture_page_names_every_package() -> None:
    text = (ROOT / "docs/architecture.md").read_text()
    for folder in (ROOT / "src/roomy_hull").iterdir():
        if folder.is_dir() and not folder.name.startswith("__"):
            assert f"`{folder.name}" in text, folder.name


def test_locks_hold_hashes_and_no_addresses() -> None:
    for name in ("run", "dev"):
        text = (ROOT / f"requirements/{name}.lock").read_text()
        assert "://" not in text
        pins = re.findall(r"^([a-z0-9-]+)==", text, re.M | re.I)
        assert len(pins) > 5
        for pin in pins:
            block = text.split(f"\n{pin}==" if f"\n{pin}==" in text else f"{pin}==")[1]
            assert "--hash=sha256:" in block[:200]


def test_what_the_wishes_pin_the_locks_hold() -> None:
    for name in ("run", "dev"):
        lock = (ROOT / f"requirements/{name}.lock").read_text().lower()
        for row in (ROOT / f"requirements/{name}.in").read_text().splitlines():
            if "==" in row:
                assert f"{row.lower()} " in lock, row


def test_the_version_is_one() -> None:
    project = tomllib.loads((ROOT / "pyproject.toml").read_text())["project"]
    assert project["version"] == __version__
    assert f"## {__version__}" in (ROOT / "CHANGELOG.md").read_text()


def test_no_file_holds_more_than_one_idea() -> None:
    for folder in ("src", "tests", "bench", "tools"):
        for path in (ROOT / folder).rglob("*.py"):
            rows = path.read_text().splitlines()
            assert len(rows) <= 500, f"{path.name} has {len(rows)} lines"


def _late(node: ast.AST, inside: bool = False) -> Iterator[str]:
    """What is read when it is first needed, under a node: in a function, or through `lazily`."""
    for child in ast.iter_child_nodes(node):
        if (
            isinstance(node, ast.If)
            and ast.unparse(node.test) == "TYPE_CHECKING"
            and child in node.body
        ):
            continue
        if inside and isinstance(child, ast.Import):
            yield from (alias.name for alias in child.names)
        elif inside and isinstance(child, ast.ImportFrom):
            yield child.module or ""
        elif isinstance(child, ast.Call) and ast.unparse(child.func) == "lazily.module":
            yield from (str(n.value) for n in child.args if isinstance(n, ast.Constant))
        yield from _late(child, inside or isinstance(child, ast.FunctionDef))


def test_libraries_that_are_read_late_are_listed_with_their_reason() -> None:
    found = {
        name.split(".")[0]
        for path in (ROOT / "src").rglob("*.py")
        for name in _late(ast.parse(path.read_text()))
    }
    assert found - {"roomy_hull"} - sys.stdlib_module_names == lazily.LIBRARIES.keys()
    assert all(lazily.LIBRARIES.values())


def test_no_class_has_more_than_25_public_methods() -> None:
    for path in (ROOT / "src").rglob("*.py"):
        for node in ast.walk(ast.parse(path.read_text())):
            if isinstance(node, ast.ClassDef):
                names = {m.name for m in node.body if isinstance(m, ast.FunctionDef)}
                public = [n for n in names if not n.startswith("_")]
                assert len(public) <= 25, f"{path.name}: {node.name} has {len(public)}"


def test_the_core_is_free_of_qt() -> None:
    names = (
        "core job kit assembly studies.fit.judge studies.loads.judge making.cutlist verdict.verdict",
        "formats.cutfiles drawing.scenes.ground session.actions.standard cli",
    )
    imports = "; ".join(f"import roomy_hull.{n}" for row in names for n in row.split())
    code = f"import sys; {imports}; assert not [m for m in sys.modules if m.startswith('PyQt')]"
    subprocess.run([sys.executable, "-c", code], check=True)


def test_keys_in_the_guide_are_keys_of_the_program() -> None:
    keys = {k for a in standard().all() for k in a.keys}
    named = set(
        re.findall(
            r"`([^`]+)`", (ROOT / "docs/guide.md").read_text().split("## Keys")[1].split("##")[0]
        )
    )
    assert named
    assert named <= keys


def test_the_smallest_job_of_the_format_page_can_be_checked() -> None:
    block = re.search(r"```json\n(.*?)```", (ROOT / "docs/formats.md").read_text(), re.S)
    assert block is not None
    verdict = judge(loads(block[1].encode()))
    assert verdict.count("stop") == 0
    assert verdict.loads.scenario("full").gross.value > 1980


def test_no_file_imports_itself_by_way_of_others() -> None:
    graph = grimp.build_graph("roomy_hull", cache_dir=None)
    imports = {m: graph.find_modules_directly_imported_by(m) for m in graph.modules}
    graphlib.TopologicalSorter(imports).prepare()  # a circle is named by its error
