"""Goods as tables: whatever marks and commas a spreadsheet writes; what is wrong told with its line; packing lists."""

import csv
import json
from pathlib import Path
from xml.etree import ElementTree

import pytest

from roomy_hull.core.errors import EditError, InputError
from roomy_hull.formats.goods_table import aboard, goods_text, packing_list, read_goods, unread
from roomy_hull.job.edits.goods import stowed, with_goods
from roomy_hull.job.goods import MOST_GOODS
from roomy_hull.job.model import Job
from tests.test_cli import command


@pytest.mark.parametrize(
    "text",
    [
        "Tin opener\t0.2\t1\tNet drawer\teach stop",
        "Tin opener;0,2;1;net-drawer;each stop",
        "Tin opener,0.2,1,Net drawer,each stop",
        "Name;Kg;Number;Place;Wanted\nTin opener;0,2 kg;1;NET DRAWER;each stop",
        "item\tuse\twhere\tmass [kg]\nTin opener\teach stop\tnet-drawer\t0.2",
        "\ufeffName,Place,Class,Weight\n\nTin opener,Net drawer,Each Stop,0.2\n",
    ],
)
def test_a_spreadsheet_s_lines_are_read(stocked: Job, text: str) -> None:
    (one,) = read_goods(text, stocked)
    assert (one.name, one.mass, one.count, one.place, one.use) == (
        "Tin opener",
        0.2,
        1,
        "net-drawer",
        "each stop",
    )


def test_sizes_natures_and_parts(stocked: Job) -> None:
    text = (
        "name;kg;size;nature;place;part;litres\nPots;4;300 x 200 x 120 mm;clean/heavy;galley;2;7,2"
    )
    (one,) = read_goods(text, stocked)
    assert (one.length, one.width, one.height) == (300, 200, 120)
    assert one.nature == ("clean", "heavy")
    assert (one.place, one.part, one.litres) == ("galley", "2", 7.2)


def test_scenarios_are_named_and_columns_that_are_not_read_are_told(stocked: Job) -> None:
    first, second = stocked.scenarios[:2]
    text = f"Good;No.;Kg;Price;Only;Colour\nRope;3;1,5;20;{first.name} / {second.id};blue\n"
    (one,) = read_goods(text, stocked)
    assert (one.count, one.mass, one.only) == (3, 1.5, (first.id, second.id))
    assert unread(text) == ("Price", "Colour")
    assert unread("Rope;3;1") == ()
    with pytest.raises(InputError, match="'moon' is none of"):
        read_goods("good;only\nRope;moon", stocked)


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("", "nothing in it"),
        ("Pots;four", "line 1: 'four' is no figure"),
        ("name;kg\nPots;4\n;5", "line 3: the line has no name"),
        ("Pots;4;1.5", "'1.5' is no number of pieces"),
        ("Pots;4;0", "line 1"),
        ("Pots;-4", "line 1"),
        ("Pots;nan", "'nan' is no figure"),
        ("Pots;4;1;Cellar", "there is no 'Cellar' in the job"),
        ("Pots;4;1;;daily", "'daily' is none of: now"),
        ("name;size\nPots;300 x 200", "is no size"),
        ("x" * 5_000_001, "too long"),
    ],
)
def test_what_is_wrong_is_told_with_its_line(stocked: Job, text: str, words: str) -> None:
    with pytest.raises(InputError) as found:
        read_goods(text, stocked)
    assert words in str(found.value)


def test_ten_thousand_goods_are_refused_whole(stocked: Job) -> None:
    many = read_goods("\n".join(f"Thing {n};1" for n in range(10_000)), stocked)
    with pytest.raises(EditError, match=f"more than the {MOST_GOODS}"):
        with_goods(stocked, many)
    some = with_goods(stocked, many[:1000])
    assert len({g.id for g in some.goods}) == len(stocked.goods) + 1000
    twice = with_goods(some, many[:3])
    assert [g.id for g in twice.goods[-3:]] == ["thing-0-2", "thing-1-2", "thing-2-2"]
    with pytest.raises(EditError, match="no 'cellar'"):
        stowed(stocked, "pots", "cellar")


def test_a_packing_list_holds_what_is_aboard(stocked: Job) -> None:
    scenario = stocked.scenarios[2]
    job = with_goods(stocked, read_goods("Spare rope;3;1;;rarely", stocked))
    rows = list(csv.reader(packing_list(job, scenario).splitlines()))
    assert len(rows) == 1 + len(aboard(job, scenario)) == 1 + len(job.goods)
    assert rows[-1][0] == "not stowed yet"
    assert sum(float(r[5]) for r in rows[1:]) == pytest.approx(sum(g.kg for g in job.goods))
    order = [r[0] for r in rows[1:-1]]
    assert order == sorted(order, key=order.index)  # place by place


def test_access_in_words_as_json_and_as_papers(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    assert command("access", "demo", "--out", str(tmp_path)) == 0
    said = capsys.readouterr().out
    assert "Net drawer" in said
    assert "2 actions" in said
    names = {p.name for p in tmp_path.iterdir()}
    assert {"goods.csv", "canopy-off.txt", "packing-full.csv", "where-is-what-left.svg"} <= names
    words = " ".join(
        ElementTree.fromstring((tmp_path / "where-is-what-left.svg").read_text()).itertext()
    )
    assert "Mist nets" in words
    assert "Unplug at vehicle | canopy" in (tmp_path / "canopy-off.txt").read_text()
    more = tmp_path / "more.csv"
    more.write_text("name;kg;place\nRope;3,5;camp\n")
    assert command("access", "demo", "--json", "--goods", str(more)) == 0
    frame = json.loads(capsys.readouterr().out)
    assert frame["goods"][-1]["kg"] == 3.5
    assert {p["id"] for p in frame["people"]} == {"ida", "oskar"}
    spaces = {(s["owner"], s["part"]): s for s in frame["spaces"]}
    assert [a["what"] for a in spaces["net-drawer", ""]["actions"]] == ["door:left", "net-drawer"]
    assert sum(frame["canopy"]["legs_kg"].values()) == pytest.approx(
        frame["canopy"]["loaded_kg"], abs=0.5
    )
    more.write_text("name;kg\nRope;heavy\n")
    assert command("access", "demo", "--goods", str(more)) == 2
    assert "line 2" in capsys.readouterr().err
    with pytest.raises(InputError, match="cannot be read"):
        goods_text(tmp_path / "none.csv")


def test_of_two_columns_of_one_name_the_first_is_read(stocked: Job) -> None:
    text = "name;mass;name;mass\nTin;1.5;Other;9\n"
    (good,) = read_goods(text, stocked, "x.csv")
    assert (good.name, good.mass) == ("Tin", 1.5)
