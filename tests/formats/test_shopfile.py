"""The shop as a file: what it sets is used everywhere, what it leaves out stays as shipped."""

import json
from pathlib import Path
from typing import Any

import jsonschema
import msgspec
import pytest

from roomy_hull.core.errors import FileError, InputError
from roomy_hull.formats import shopfile
from roomy_hull.formats.settings import Settings
from roomy_hull.job.model import Job
from roomy_hull.making.cost import cost
from roomy_hull.making.cutlist import cut_list
from roomy_hull.session.doing import do
from roomy_hull.session.session import Session
from roomy_hull.verdict.verdict import judge
from tests.builders import SHOP

PUBLISHED = Path(__file__).parents[2] / "docs/shop.schema.json"


def text(**shop: Any) -> bytes:
    """Write a shop file that sets some fields."""
    return json.dumps({"format": shopfile.FORMAT, "version": 1, "shop": shop}).encode()


def test_what_is_written_is_read_back() -> None:
    assert shopfile.loads(shopfile.dumps(SHOP)) == SHOP
    assert shopfile.loads(text()) == SHOP


def test_a_test_bend_changes_every_developed_length(demo: Job) -> None:
    own = shopfile.loads(text(name="Bent", materials={"5052-H32": {"k_factor": 0.33}}))
    assert own.materials["5052-H32"].density == SHOP.materials["5052-H32"].density
    assert own.materials["6060-T5"] == SHOP.materials["6060-T5"]
    plain, bent = judge(demo), judge(demo, shop=own)

    def lengths(verdict: Any) -> list[float]:
        cut = cut_list(verdict.assembly.parts(), verdict.assembly.shop.stock)
        return [b.length for b in cut.blanks if b.bends and b.part.material.key == "5052-H32"]

    before, after = lengths(plain), lengths(bent)
    assert len(before) == len(after) > 10
    # Each bend at right angles takes pi/2 times the change of K times the thickness less.
    assert all(a <= b for a, b in zip(after, before, strict=True))
    assert sum(after) < sum(before)


def test_prices_stock_and_rules_are_the_shops(demo: Job) -> None:
    own = shopfile.loads(
        text(
            prices={"sheet_per_kg": 19.0}, stock={"sheets": [[1000, 500]], "bar_length": 1200},
            rules={"running_gap": 60.0, "side_imbalance": 0.001},
        )
    )  # fmt: skip
    verdict = judge(demo, shop=own)
    codes = {f.code for f in verdict.findings}
    assert {"making.sheet_stock", "making.bar_stock", "fit.running", "loads.sides"} <= codes
    assert not codes & {f.code for f in judge(demo).findings if f.code.startswith("making")}
    parts = verdict.assembly.parts()
    assert cost(parts, own.prices).total > cost(parts, SHOP.prices).total


@pytest.mark.parametrize(
    ("shop", "place", "says"),
    [
        ({"materials": {"5052-H32": {"k_facter": 0.4}}}, "shop.materials.5052-H32", "no field 'k_facter'"),
        ({"materials": {"5052-H32": {"k_factor": 1.4}}}, "k_factor", "1.4 is no K factor"),
        ({"materials": {"5052-H32": {"density": -1}}}, "shop.materials.5052-H32.density", "-1 is not above 0"),
        ({"materials": {"tin": {"density": 7300}}}, "shop.materials.tin", "there is no field"),
        ({"materials": {"5052-H32": "soft"}}, "shop.materials.5052-H32", "a group of fields"),
        ({"prices": {"bend": "two"}}, "shop.prices.bend", "a figure is wanted"),
        ({"prices": {"bend": -2}}, "shop.prices.bend", "-2 is not 0 or more"),
        ({"stock": {"sheets": []}}, "shop.stock.sheets", "there is no sheet"),
        ({"stock": {"sheets": [[2440, 0]]}}, "shop.stock.sheets[0][1]", "0 is not above 0"),
        ({"rulse": {}}, "shop", "no field 'rulse'"),
        ({"sheet": "gold"}, "shop.sheet", "no material 'gold'"),
    ],
)  # fmt: skip
def test_what_cannot_be_is_refused_with_its_place(
    shop: dict[str, Any], place: str, says: str
) -> None:
    with pytest.raises(FileError) as caught:
        shopfile.loads(text(**shop), "own.shop.json")
    assert says in str(caught.value)
    assert place in caught.value.place
    assert "own.shop.json" in caught.value.place
    assert caught.value.remedy


@pytest.mark.parametrize(
    ("data", "says"),
    [
        (b"", "empty"), (b"{", "early"), (b"[]", "not a Roomy Hull shop"), (b'{"format": "x"}', "not a Roomy"),
        (b'{"format": "roomy-hull-shop", "version": 2}', "version 2"),
        (b'{"format": "roomy-hull-shop", "version": 1}', "no group of fields 'shop'"),
        (text(prices={"bend": 1}).replace(b"1}}", b"NaN}}"), "NaN is not a figure"),
    ],
)  # fmt: skip
def test_a_file_that_is_none_is_told(data: bytes, says: str) -> None:
    with pytest.raises(FileError, match=says):
        shopfile.loads(data, "own.shop.json")


def test_a_new_material_is_whole_and_can_be_used(demo: Job) -> None:
    row = {k: v for k, v in msgspec.to_builtins(SHOP.materials["5083-H116"]).items() if k != "key"}
    own = shopfile.loads(text(materials={"5754-H22": row | {"name": "Aluminium 5754-H22"}}))
    tray = demo.body.tray.but(floor_material="5754-H22")
    job = msgspec.structs.replace(demo, body=demo.body.but(tray=tray))
    assert judge(job, shop=own).count("stop") == 0
    with pytest.raises(InputError) as caught:
        judge(job)
    assert caught.value.place == "body.tray.floor_material"
    assert "5083-H116" in caught.value.remedy


def test_a_rule_that_the_shop_does_not_have_names_its_field(demo: Job) -> None:
    job = msgspec.structs.replace(demo, body=demo.body.but(rule="EU 1"))
    with pytest.raises(InputError, match="no rule 'EU 1'") as caught:
        judge(job)
    assert caught.value.place == "body.rule"


def test_the_published_schema_takes_what_is_written() -> None:
    published = json.loads(PUBLISHED.read_text())
    assert published == json.loads(json.dumps(shopfile.schema()))
    checker = jsonschema.Draft202012Validator(published)
    checker.validate(json.loads(shopfile.dumps(SHOP)))
    checker.validate(json.loads(text(prices={"bend": 3.0})))
    assert list(checker.iter_errors(json.loads(text(prices={"bent": 3.0}))))


def test_the_shop_is_kept_from_one_start_to_the_next(keeping: Settings, tmp_path: Path) -> None:
    assert keeping.shop() == SHOP
    own = shopfile.loads(text(name="Ours", prices={"bend": 9.0}))
    keeping.keep_shop(own)
    assert keeping.shop() == own
    with pytest.raises(FileError, match="cannot be read"):
        shopfile.load(tmp_path / "none.shop.json")
    with pytest.raises(FileError, match="folder"):
        shopfile.load(tmp_path)
    (tmp_path / "file").write_text("")
    with pytest.raises(FileError, match="cannot be written"):
        shopfile.save(own, tmp_path / "file" / "own.shop.json")


class Picks:
    """Answers with one file, for reading and writing."""

    def __init__(self, path: Path) -> None:
        self.path = path

    def file(self, _words: str, _kinds: str, _wish: str, *, to_save: bool) -> Path:
        return self.path


def test_a_shop_is_taken_and_written_from_the_menu(session: Session, tmp_path: Path) -> None:
    path = tmp_path / "mine.shop.json"
    path.write_bytes(text(name="Mine", rules={"running_gap": 60.0}))
    session.asker = Picks(path)  # type: ignore[assignment]  # answers what is asked
    seen: list[int] = []
    session.changed.connect(lambda: seen.append(len(session.verdict.findings)))
    before = len(session.verdict.findings)
    do(session, "shop.import")
    assert session.shop.name == "Mine"
    assert seen
    assert seen[-1] > before
    assert session.settings.shop().name == "Mine"
    session.asker = Picks(tmp_path / "out")  # type: ignore[assignment]  # answers what is asked
    do(session, "shop.export")
    assert shopfile.load(tmp_path / "out.shop.json") == session.shop
    path.write_bytes(b"{")
    session.asker = Picks(path)  # type: ignore[assignment]  # answers what is asked
    do(session, "shop.import")
    assert session.messages.trouble
    assert session.shop.name == "Mine"


def test_a_shop_without_a_material_of_the_job_leaves_everything_as_it_was(
    session: Session, demo: Job
) -> None:
    tray = demo.body.tray.but(floor_material="5083-H116")
    session.edit("floor", msgspec.structs.replace(demo, body=demo.body.but(tray=tray)))
    small = {k: v for k, v in SHOP.materials.items() if k != "5083-H116"}
    with pytest.raises(InputError, match="no material '5083-H116'"):
        session.set_shop(msgspec.structs.replace(SHOP, materials=small))
    assert session.shop == SHOP
    assert session.verdict.assembly.shop == SHOP
