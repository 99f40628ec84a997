"""One figure, one owner: every output of every demo is opened, and what more than one shows is compared."""

import csv
import io
import re
from collections import Counter

import msgspec
import pytest

from roomy_hull.core.parts import Hardware
from roomy_hull.formats.book import build as book_of
from roomy_hull.formats.book_parts import Order
from roomy_hull.formats.build_papers import check_sheets
from roomy_hull.formats.csv_tables import bar_list, part_list
from roomy_hull.formats.demo import DEMOS, demo_job
from roomy_hull.formats.loads_json import loads_json
from roomy_hull.formats.making_json import making_json
from roomy_hull.formats.making_tables import buying_list
from roomy_hull.formats.pack import pack
from roomy_hull.formats.plan_json import buying_csv, plan_json
from roomy_hull.formats.services_tables import cable_table, circuit_table, run_table, services_json
from roomy_hull.formats.verdict_json import cut_json, verdict_json
from roomy_hull.formats.workshop import built
from roomy_hull.job.edits.services import begun as services_begun
from roomy_hull.making.cost import FIELDS, cost_sheet
from roomy_hull.making.cutlist import CutList, cut_of
from roomy_hull.making.works import numbered, works_of
from roomy_hull.planning.offer import OPEN, lines_of
from roomy_hull.planning.progress import last_release, part_states
from roomy_hull.shop.shop import shipped_shop
from roomy_hull.studies.loads import board
from roomy_hull.verdict.verdict import Verdict, judge
from tests.known import bodies, by_chance
from tests.sweeping import examples

JOBS = [*DEMOS, "camper", *map(str, range(examples(60, 1)))]
"""The demos, a body with all that hangs under a tray, and jobs by chance."""


@pytest.fixture(scope="module", params=JOBS)
def opened(request: pytest.FixtureRequest) -> tuple[Verdict, CutList]:
    """A judged job and its cut; of a job by chance, whose parts may be larger than the stock, on sheets that take them."""
    key = str(request.param)
    job = demo_job(key) if key in DEMOS else bodies()[2] if key == "camper" else by_chance(int(key))
    shop = shipped_shop()
    if key.isdecimal():
        stock = msgspec.structs.replace(
            shop.stock, bar_length=16000.0, sheets=(*shop.stock.sheets, (9000.0, 4000.0))
        )
        shop = msgspec.structs.replace(shop, stock=stock)
    verdict = judge(services_begun(job) if not job.services.begun else job, shop=shop)
    return verdict, cut_of(verdict.assembly, rounds=2)


def rows_of(text: str) -> list[dict[str, str]]:
    """The rows of a table that was written as CSV."""
    return list(csv.DictReader(io.StringIO(text.lstrip("\ufeff"))))


def words_of(pages: object) -> str:
    """All that a book says."""
    found = []
    for page in pages.pages:  # type: ignore[attr-defined]
        found += [page.title, *page.words]
        found += [" | ".join(row) for t in page.tables for row in t.rows]
    return "\n".join(found)


def order() -> Order:
    return Order("job", "A", "2026-01-01")


def test_parts_are_the_same_everywhere(opened: tuple[Verdict, CutList]) -> None:
    verdict, cut = opened
    works = works_of(verdict.assembly)
    told = making_json(verdict, works, cut)
    listed = rows_of(part_list(cut, {}))
    assert [int(r["no"]) for r in listed] == sorted(numbered(works.parts).values())
    assert [(r["part"], int(r["count"])) for r in listed] == [
        (p["name"], p["count"]) for p in told["parts"]
    ]
    assert Counter(p["name"] for p in verdict_json(verdict)["parts"]) == Counter(
        r["part"] for r in listed
    )
    sawn = sum(int(r["count"]) for r in listed if r["kind"] == "bar")
    assert sum(len(b.pieces) for b in cut.bars.bars) == sawn
    assert len(rows_of(bar_list(cut))) >= len(cut.bars.bars)
    cutsheets = sum(int(r["count"]) for r in listed if r["kind"] == "sheet")
    assert sum(len(s.placed) for s in cut.nest.sheets) == cutsheets
    bought = sum(int(r["count"]) for r in listed if r["kind"] == "bought")
    assert bought == sum(p.count for p in cut.hardware)
    assert len(rows_of(buying_list(cut))) > 0 or not bought


def test_the_book_is_of_the_very_sheets_of_the_cut(opened: tuple[Verdict, CutList]) -> None:
    verdict, cut = opened
    works = works_of(verdict.assembly)
    book = book_of(works, cut, verdict.gaps, order())
    titles = [p.title for p in book.pages if re.match(r"Sheet \d+:", p.title)]
    assert len(titles) == len(cut.nest.sheets)
    for title, sheet in zip(titles, cut.nest.sheets, strict=True):
        assert f"{sheet.length:g} × {sheet.width:g}" in title
    default = cut_of(verdict.assembly)
    sheets = [
        (s["material"], s["thickness_mm"], tuple(s["size_mm"])) for s in cut_json(verdict)["sheets"]
    ]
    assert sheets == [
        (s.material.key, s.thickness, (s.length, s.width)) for s in default.nest.sheets
    ]


def test_money_adds_up(opened: tuple[Verdict, CutList]) -> None:
    verdict, cut = opened
    works = works_of(verdict.assembly)
    sheet = cost_sheet(works, cut, verdict.assembly.shop.prices, coat=verdict.job.plan.coated)
    cost = making_json(verdict, works, cut)["cost"]
    assert len(cost["by_owner"]) == len(works.works)
    for field in FIELDS:
        by_owner = sum(c[field] for c in cost["by_owner"].values())
        assert by_owner == pytest.approx(cost["whole"][field], abs=0.01 * len(works.works) + 0.01)
    build = built(verdict)
    lines = lines_of(verdict.assembly, build, sheet, coated=verdict.job.plan.coated)
    metal = sum(x.price for x in lines if x.words == "Sheet and bar")
    assert metal == pytest.approx(sheet.whole.sheet + sheet.whole.rest + sheet.whole.bar, abs=0.05)


def test_cable_hose_and_pipe_are_the_same_in_schedule_plan_buying_offer_and_pack(
    opened: tuple[Verdict, CutList],
) -> None:
    verdict, cut = opened
    build, s = built(verdict), verdict.services
    runs = s.fluids.runs if s.fluids is not None else ()
    metres = {
        "services:cable": sum(c.metres for c in s.circuits),
        "services:hose": sum(r.way.metres for r in runs if r.sort != "gas"),
        "services:gas": sum(r.way.metres for r in runs if r.sort == "gas"),
    }
    table = rows_of(circuit_table(verdict))
    assert sum(float(r["m one way"]) for r in table) == pytest.approx(
        metres["services:cable"], abs=0.06 * len(table)
    )
    laid = rows_of(run_table(verdict))
    assert len(laid) == len(runs)
    ops = [dict(op.amounts) for op in build.ops.values()]
    assert sum(a.get("cable_m", 0.0) for a in ops) == pytest.approx(metres["services:cable"])
    assert sum(a.get("hose_m", 0.0) for a in ops) == pytest.approx(metres["services:hose"])
    buying = {p.key: p.much for p in build.buying}
    csv_rows = buying_csv(build)
    sheet = cost_sheet(works_of(verdict.assembly), cut, verdict.assembly.shop.prices)
    offered = " ".join(
        x.words
        for x in lines_of(verdict.assembly, build, sheet, coated=False)
        if x.words.startswith(OPEN)
    )
    for key, length in metres.items():
        # A circuit whose ends have no place has fuses, and no length yet.
        assert (key in buying) == (length > 0 or (key == "services:cable" and bool(s.circuits)))
        if key in buying:
            assert buying[key].startswith(f"{length:.1f} m")
            assert f"{length:.1f} m" in csv_rows
            assert f"{length:.1f} m" in offered
    fuses = sum(c.fuse > 0 for c in s.circuits)
    cores = rows_of(cable_table(verdict))
    if s.circuits:
        every = sum(float(r["m all"]) for r in cores if r["circuit"] == "all")
        told = re.search(r"([\d.]+) m of core", buying["services:cable"])
        assert told is not None
        assert float(told[1]) == pytest.approx(every, abs=0.06)
        assert f"{fuses} fuse" in buying["services:cable"]
    said = words_of(pack(verdict))
    for c in s.circuits:
        assert f"{c.metres:.1f} m" in said


def test_litres_are_the_same_in_json_pack_and_masses(opened: tuple[Verdict, CutList]) -> None:
    verdict, _cut = opened
    tanks = verdict.services.fluids.tanks if verdict.services.fluids is not None else ()
    water = [m.kg for m in verdict.assembly.masses() if m.fill.by == "water"]
    assert sum(t.holds for t in tanks) == pytest.approx(sum(water))
    if tanks:
        told = {t["id"]: t["holds_l"] for t in services_json(verdict)["water"]["tanks"]}
        said = words_of(pack(verdict))
        for t in tanks:
            assert told[t.id] == pytest.approx(t.holds, abs=0.006)
            assert f"{t.name} | {t.holds:.0f} l" in said


def test_what_may_still_be_loaded_is_the_least_of_every_limit(
    opened: tuple[Verdict, CutList],
) -> None:
    verdict, _cut = opened
    said = words_of(pack(verdict))
    for s in verdict.loads.scenarios:
        told = re.search(rf"{re.escape(s.name)}: water[^\n]*?(Over by )?(\d+) kg", said)
        assert told is not None
        figures = [f for f in (s.rear, s.gross, s.front) if f.limit is not None]
        rooms = [f.limit - f.value for f in figures if f.limit is not None]
        assert bool(told[1]) == (board.room(s)[0] < 0)  # type: ignore[index]  # every demo has limits
        assert (-1 if told[1] else 1) * int(told[2]) <= min(rooms) + 1


def test_release_and_progress_count_from_one_state(opened: tuple[Verdict, CutList]) -> None:
    verdict, _cut = opened
    last = last_release(verdict.job)
    if last is None:
        return
    works, build = works_of(verdict.assembly), built(verdict)
    states = part_states(verdict.job, works, build)
    known = {
        p.key.partition("/")[2].partition(" #")[0]: p.state
        for p in last.parts
        if p.sort != "bought"
    }
    for (_owner, name), state in states.items():
        if name in known and not any(
            isinstance(p, Hardware) and p.name == name for p in works.parts
        ):
            assert known[name] == state, name


def test_checks_and_operations_are_the_same_on_paper_and_in_json(
    opened: tuple[Verdict, CutList],
) -> None:
    verdict, _cut = opened
    build = built(verdict)
    told = plan_json(verdict, build)
    assert {o["key"] for o in told["operations"]} == set(build.ops)
    said = words_of(check_sheets(verdict, build))
    for check in build.checks:
        assert check.words in said


def test_masses_of_the_items_and_the_scenarios_agree(opened: tuple[Verdict, CutList]) -> None:
    verdict, _cut = opened
    items = {i["id"]: i["mass_kg"] for i in verdict_json(verdict)["items"]}
    mounts = {m["id"]: m["mass_kg"] for m in loads_json(verdict)["mounts"]}
    for thing in verdict.assembly.things:
        if thing.id in mounts:
            assert mounts[thing.id] == pytest.approx(items[thing.id], abs=0.002)
