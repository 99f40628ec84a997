"""The catalogue of findings: what is raised is in it, what is in it is raised, tested, and led to."""

import ast
import functools
from pathlib import Path

import pytest

from roomy_hull.core.codes import CODES, listed
from roomy_hull.session.pages.table import STAGES

ROOT = Path(__file__).parent.parent.parent
SOURCE = "\n".join(
    p.read_text() for p in (ROOT / "src/roomy_hull").rglob("*.py") if p.name != "codes.py"
)
TESTS = "\n".join(
    p.read_text() for p in (ROOT / "tests").rglob("test_*.py") if p.name != "test_codes.py"
)


@functools.cache
def raised() -> set[str]:
    """Codes that are written out where findings are made."""
    found = set()
    for path in (ROOT / "src/roomy_hull").rglob("*.py"):
        for node in ast.walk(ast.parse(path.read_text())):
            if isinstance(node, ast.Call) and node.args and isinstance(node.args[0], ast.Constant):
                name, code = ast.unparse(node.func), node.args[0].value
                if name in ("Finding", "_finding", "tell"):
                    found.add(str(code))
                elif name == "finding":
                    found.add(".".join((path.parent.name, str(code))))
    return found


def test_what_is_raised_is_in_the_catalogue() -> None:
    assert len(raised()) > 100
    assert raised() - CODES.keys() == set()


def test_the_published_list_is_the_catalogue() -> None:
    assert (ROOT / "docs/findings.md").read_text() == listed()
    assert all(f"`{code}`" in listed() for code in CODES)


@pytest.mark.parametrize("code", CODES)
def test_a_code_is_raised_somewhere_leads_to_a_page_and_is_tested(code: str) -> None:
    about = CODES[code]
    last = code.rsplit(".", 1)[-1]
    assert code in raised() or f'"{last}"' in SOURCE, "nothing raises it"
    stage = next(s for s in STAGES if s.title == about.stage)
    assert about.page in {p.title for p in stage.pages} or (not about.page and not stage.pages)
    assert about.words
    assert not about.words.endswith(".")
    assert f'"{code}"' in TESTS or f'"{last}"' in TESTS, "no test names it"
