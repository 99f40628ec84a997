"""What docs/formats.md gives as an example is a file that the program takes, as it stands there."""

import re
from pathlib import Path

import pytest

from roomy_hull.formats import jobfile, shopfile, wantfile
from roomy_hull.job.model import VERSION

DOCS = (Path(__file__).parent.parent.parent / "docs/formats.md").read_text()
EXAMPLES = {m[1]: m[0] for m in (
    (text, re.search(r'"format": "roomy-hull-(\w+)"', text)[1])  # type: ignore[index]
    for text in re.findall(r"```json\n(.*?)```", DOCS, re.DOTALL)
)}  # fmt: skip


def test_examples_of_all_files_with_a_body_are_found() -> None:
    assert EXAMPLES.keys() == {"job", "shop", "want"}


def test_the_job_of_the_docs_is_a_job_of_the_newest_version() -> None:
    job = jobfile.loads(EXAMPLES["job"].encode())
    assert job.units
    assert f'"version": {VERSION},' in EXAMPLES["job"]


def test_the_shop_of_the_docs_is_a_shop(tmp_path: Path) -> None:
    path = tmp_path / "a.shop.json"
    path.write_text(EXAMPLES["shop"])
    assert shopfile.load(path).rules.running_gap == 4


def test_the_want_of_the_docs_is_a_want(tmp_path: Path) -> None:
    path = tmp_path / "a.want.json"
    path.write_text(EXAMPLES["want"])
    assert wantfile.load(path)


@pytest.mark.parametrize(
    ("words", "given"), [("party", '"people": [{"id": "ida", "name": "Ida", "stature": 1650}]')]
)
def test_a_party_is_read_as_it_is_told(words: str, given: str) -> None:
    bed = '"berths": [{"id": "bed", "name": "Bed", "length": 1900, "width": 700, "height": 500, "sleepers": ["ida"]}]'
    text = EXAMPLES["job"].rstrip()[:-1] + f', "{words}": {{{given}, {bed}}}}}'
    assert jobfile.loads(text.encode()).party.berths[0].sleepers == ("ida",)
