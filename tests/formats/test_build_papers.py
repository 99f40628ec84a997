"""Papers of the build: what stands in the offer, the pack, the lists, the check sheets, the progress page and the board."""

import math
from datetime import date
from pathlib import Path

import msgspec
import pytest

from roomy_hull.formats.book import Book
from roomy_hull.formats.book_parts import BookPage
from roomy_hull.formats.build_papers import (
    board_paper,
    check_sheets,
    lists_of,
    on_day,
    progress_page,
)
from roomy_hull.formats.offer_book import offer_book, offer_csv
from roomy_hull.formats.pack import PER_PAGE, advice, pack, photo_pages
from roomy_hull.formats.photos import folder_of
from roomy_hull.formats.workshop import Board, Card, Stage, built
from roomy_hull.job.brief import Offer, OfferLine
from roomy_hull.job.edits import building as edits
from roomy_hull.job.edits.goods import with_goods
from roomy_hull.job.goods import Good
from roomy_hull.job.logs import Entry
from roomy_hull.job.model import Job
from roomy_hull.shop.shop import shipped_shop
from roomy_hull.studies.loads.axles import ScenarioLoads
from roomy_hull.verdict.verdict import Verdict, judge
from tests.formats.test_photos import png

OFFER = Offer(
    number="2027-1", day="2027-01-08", until="2027-02-07", by="KR", margin=0.25, tax=0.1,
    lines=(
        OfferLine(words="Sheet and bar", price=1000.0), OfferLine(words="Fitting", amount=10, unit="h", price=950.0),
        OfferLine(words="Winch", option="winch", price=1900.0), OfferLine(words="Tent", option="tent", price=2900.0),
    ),
)  # fmt: skip


def page(book: Book, title: str) -> BookPage:
    """A page by the beginning of its title."""
    return next(p for p in book.pages if p.title.startswith(title))


def test_an_offers_sums_are_those_of_its_lines(demo: Job) -> None:
    assert OFFER.net() == 1950 * 1.25
    assert OFFER.net("winch") == 1900 * 1.25
    assert OFFER.gross(("winch",)) == pytest.approx((1950 + 1900) * 1.25 * 1.1)
    assert OFFER.options == ("winch", "tent")
    book = offer_book(demo, OFFER, shipped_shop())
    rows = {r[0]: r[1:] for r in book.pages[0].tables[0].rows}
    assert rows["The build as drawn"] == ("2,437.50", "2,681.25")
    assert rows["With winch"] == ("+ 2,375.00", "+ 2,612.50")
    assert rows["With everything"] == ("8,437.50", "9,281.25")
    assert "8 January 2027" in book.pages[0].words[0]
    assert [p.title for p in book.pages[1:4]] == [
        "What is in the build",
        "What is in it: winch",
        "What is in it: tent",
    ]
    taken = msgspec.structs.replace(OFFER, taken=("winch",), agreed="2027-01-12")
    rows = {r[0]: r[1:] for r in offer_book(demo, taken, shipped_shop()).pages[0].tables[0].rows}
    assert rows["As agreed on 12 January 2027"] == ("4,812.50", "5,293.75")
    assert "With winch (taken)" in rows
    bare = msgspec.structs.replace(OFFER, lines=OFFER.lines[:2])
    assert "With everything" not in {
        r[0] for r in offer_book(demo, bare, shipped_shop()).pages[0].tables[0].rows
    }


def test_an_offer_as_a_table_adds_up_and_never_starts_a_formula() -> None:
    bad = msgspec.structs.replace(
        OFFER, lines=(*OFFER.lines, OfferLine(words="=1+1", option="winch", price=1.0))
    )
    rows = [r.split(",") for r in offer_csv(bad).splitlines()]
    assert {len(r) for r in rows} == {7}
    sums = {r[0]: float(r[5]) for r in rows if r[1] == "sum"}
    for option, net in sums.items():
        assert net == pytest.approx(
            sum(float(r[5]) for r in rows[1:] if r[0] == option and r[1] != "sum"), abs=0.02
        )
    assert "'=1+1" in offer_csv(bad)


@pytest.fixture(scope="module")
def worked(stocked_verdict: Verdict) -> Verdict:
    """The shipped demo in the middle of its build."""
    return stocked_verdict


def test_the_pack_tells_what_was_built(worked: Verdict) -> None:
    book = pack(worked)
    titles = [p.title for p in book.pages]
    assert titles[0] == "Brackwater Bird Survey: your vehicle"
    for wanted in ("The left side, as built", "Where is what: The left side", "Packing list", "Loads", "Circuits and fuses",
                   "Water and gas", "How the canopy comes off and on", "Care of Marl 2.8", "What was tested",
                   "Built otherwise than drawn"):  # fmt: skip
        assert wanted in titles
    cover = dict(r[:2] for t in book.pages[0].tables for r in t.rows)  # type: ignore[arg-type, var-annotated]
    assert cover["handed over"] == "not yet"
    assert cover["House battery"].startswith("0417")
    goods = page(book, "Packing list").tables[0].rows
    assert len(goods) == len(worked.job.goods)
    circuits = page(book, "Circuits").tables[0].rows
    assert [r[0] for r in circuits] == [c.name for c in worked.services.circuits]
    assert [r[3] for r in circuits] == [f"{c.fuse:g} A" for c in worked.services.circuits]
    tests = page(book, "What was tested").tables[0].rows
    assert len(tests) == len(built(worked).checks)
    done = [r for r in tests if r[4] == "done"]
    assert [(r[0], r[3]) for r in done] == [("Water", "30, 30 kPa 100.0 % held")]
    care = page(book, "Care").tables[0]
    assert care.heads[-2:] == ("at 500 km", "at 5,000 km")
    assert all(r[1].endswith("N·m") for r in care.rows)
    assert all(len(r) == len(t.heads) for p in book.pages for t in p.tables for r in t.rows)


def test_the_pack_of_a_bare_job_has_no_page_of_what_is_not_there(demo: Job) -> None:
    bare = msgspec.structs.replace(demo, services=type(demo.services)())
    titles = [p.title for p in pack(judge(bare)).pages]
    assert "Circuits and fuses" not in titles
    assert "Packing list" not in titles
    assert "Built otherwise than drawn" not in titles
    assert "Loads" in titles


def test_the_pack_is_dated_once_it_is_handed_over(demo: Job) -> None:
    job = edits.logged(demo, edits.entry("2027-03-02T15:00:00", "AB", kind="handed over"))
    cover = dict(r[:2] for t in pack(judge(job)).pages[0].tables for r in t.rows)  # type: ignore[arg-type, var-annotated]
    assert cover["handed over"] == "2 March 2027"
    cover = dict(r[:2] for t in pack(judge(demo), day="2027-03-05").pages[0].tables for r in t.rows)  # type: ignore[arg-type, misc]
    assert cover["handed over"] == "5 March 2027"


def least_room(s: ScenarioLoads) -> float:
    """By hand: the least that gross, both axles, four wheels, roof, ball, trailer and combination leave. [kg]"""
    figures = (s.gross, s.front, s.rear, *s.wheels, s.roof, s.ball, s.trailer, s.combination)
    return min(f.limit - f.value for f in figures if f is not None and f.limit is not None)


def test_advice_says_what_may_come_along_and_what_stays_at_home(demo: Job) -> None:
    verdict = judge(demo)
    for s, words in zip(verdict.loads.scenarios, advice(verdict), strict=True):
        room = least_room(s)
        assert words.startswith(f"{s.name}: ")
        if room >= 0:
            assert f" {math.floor(room)} kg at the most may still come along" in words
    heavy = with_goods(demo, tuple(
        Good(id=f"g{n}", name=f"Anvil {n}", mass=120.0 + n, place="net-drawer") for n in range(5)
    ))  # fmt: skip
    verdict = judge(heavy)
    told = dict(zip((s.id for s in verdict.loads.scenarios), advice(verdict), strict=True))
    over = [s for s in verdict.loads.scenarios if least_room(s) < 0]
    assert over
    for s in over:
        words = told[s.id]
        assert f"Over by {math.ceil(-least_room(s))} kg" in words
        # The heaviest first, so many as bring it below.
        named = [n for n in range(5) if f"Anvil {n}" in words]
        assert max(range(5)) in named
        kg = sum(120.0 + n for n in named)
        assert kg >= -least_room(s) or len(named) == 5
        assert kg - (120.0 + min(named)) < -least_room(s)
    pages = pack(verdict)
    assert "NOT TO BE HANDED OVER" in pages.foot


def test_the_tightest_limit_decides_whichever_it_is(demo: Job) -> None:
    ratings = demo.vehicle.ratings
    full = next(s for s in judge(demo).loads.scenarios if s.id == "full")
    for changes, by in (
        ({"front_axle": full.front.value + 30}, "front axle"),
        ({"wheel": max(w.value for w in full.wheels) + 20}, "wheel"),
        ({"roof": full.roof.value + 10}, "on the roof"),
    ):
        tight = msgspec.structs.replace(
            demo, vehicle=demo.vehicle.but(ratings=ratings.but(**changes))
        )
        verdict = judge(tight)
        words = next(
            w
            for s, w in zip(verdict.loads.scenarios, advice(verdict), strict=True)
            if s.id == "full"
        )
        assert by in words
        room = least_room(next(s for s in verdict.loads.scenarios if s.id == "full"))
        assert room == pytest.approx(
            {"front axle": 30, "wheel": 20, "on the roof": 10}[by], abs=0.6
        )


def test_photos_are_so_many_to_a_page_and_missing_ones_named(tmp_path: Path) -> None:
    job = tmp_path / "a.hull.json"
    folder_of(job).mkdir()
    entries = []
    for n in range(PER_PAGE + 2):
        entries.append(
            Entry(
                id=f"e{n}",
                at="2027-02-03T10:00:00",
                kind="photo",
                file=f"p{n}.png",
                words=f"photo {n}",
            )
        )
        if n != 3:
            (folder_of(job) / f"p{n}.png").write_bytes(png())
    pages = photo_pages(tuple(entries), job, "Photos")
    assert [len(p.images) for p in pages] == [PER_PAGE - 1, 2]
    assert pages[0].words == ("Missing beside the job: p3.png.",)
    assert pages[0].images[0].words == "2027-02-03 photo 0"
    assert photo_pages((), job, "Photos") == []
    assert all(not p.images for p in photo_pages(tuple(entries), None, "Photos"))


def test_todays_lists_hold_what_is_planned_for_each(worked: Verdict) -> None:
    build = built(worked)
    day = build.now
    book = lists_of(worked, build, day)
    rows = on_day(build, day)
    assert len(book.pages) == len(rows)
    for one, keys in zip(book.pages, rows.values(), strict=True):
        assert [r[1] for r in one.tables[0].rows] == [build.ops[k].words for k in keys]
    for keys in rows.values():
        starts = [build.levelled.placed[k].start for k in keys]
        assert starts == sorted(starts)
    empty = lists_of(worked, build, date(2031, 1, 1))
    assert "nothing is planned" in empty.pages[0].title


def test_check_sheets_and_progress(worked: Verdict) -> None:
    build = built(worked)
    sheets = check_sheets(worked, build)
    assert sum(len(p.tables[0].rows) for p in sheets.pages) == len(build.checks)
    book = progress_page(worked)
    done = [k for k in build.ops if k in build.state.done]
    assert f"{len(done)} of {len(build.ops)} operations" in book.pages[0].words[0]
    assert len(book.pages[1].papers) == 2
    assert all(paper.scene for paper in book.pages[1].papers)


def test_the_board_on_paper_has_a_row_for_each_job(tmp_path: Path) -> None:
    cards = (
        Card(
            tmp_path / "a",
            "A",
            "Customer",
            Stage(5, "planned"),
            0,
            2,
            date(2027, 2, 3),
            date(2027, 2, 5),
            2.0,
            "the slides",
            "cut",
        ),
        Card(tmp_path / "b", "B", stage=Stage(2, "laid out")),
    )
    book = board_paper(Board(tmp_path, shipped_shop(), cards, None, (), ()))
    table = book.pages[0].tables[0]
    assert table.rows[0] == (
        "A",
        "Customer",
        "planned",
        "0 / 2",
        "2027-02-03",
        "2027-02-05",
        "2 working days",
        "the slides",
        "cut",
    )
    assert table.rows[1][4:7] == ("", "", "")
