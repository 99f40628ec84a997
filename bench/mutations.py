"""Job files mutated by chance, read, judged, cut and written: what is accepted makes sense, what is not is refused in words.

``python bench/mutations.py [COUNT] [SEED]``: prints what went wrong, with the mutations that did it; by hand, since the
demos take a tenth of a second each. Most are put into small jobs, one for every kind of unit on every vehicle of the
library, which take a tenth of that. A short form is in ``tests/properties/test_damaged_jobs.py``.
"""

import copy
import json
import math
import random
import sys
import time
from collections.abc import Iterator
from typing import Any

import msgspec

from roomy_hull.core.errors import UserError
from roomy_hull.core.parts import BarPart, SheetPart
from roomy_hull.desktop.build_files import counted
from roomy_hull.formats import jobfile
from roomy_hull.formats.build_papers import check_sheets, lists_of, progress_page
from roomy_hull.formats.demo import demo_job
from roomy_hull.formats.offer_book import offer_book, offer_csv
from roomy_hull.formats.pack import pack
from roomy_hull.formats.plan_json import buying_csv, plan_csv, plan_json
from roomy_hull.formats.vehiclefile import library
from roomy_hull.formats.verdict_json import cut_json, survey_json, verdict_json
from roomy_hull.formats.workshop import built
from roomy_hull.job.brief import Wish
from roomy_hull.job.carried import Carried
from roomy_hull.job.edits import building as edits
from roomy_hull.job.logs import KINDS
from roomy_hull.kit.body.fitting import begun, choices
from roomy_hull.kit.catalogue import entries
from roomy_hull.verdict.guided import questions
from roomy_hull.verdict.verdict import Verdict, judge

WRONG: tuple[Any, ...] = (
    0, -1, 1e-9, 5e-324, 0.001, 0.5, 1, 5, 37.0, 100, 2000, 9999, 19999, 20000, 60000, 1e5, 1e9, -500, "", "x", "a.b", "7",
    "2027-02-30", "2027-02-03", "9999-12-31", "0001-01-01", "2027-02-03T09:00:00", "job:weigh", "canopy:mount",
    None, True, [], {}, "265/75R16", "40x40x3", "left", "rear", "<img src=/dev/zero>", "a" * 121, "\ud800",
)  # fmt: skip
SLOW = 2.0


def leaves(value: Any, at: tuple[str | int, ...] = ()) -> Iterator[tuple[str | int, ...]]:
    """The path of every single value."""
    items: Any = (
        value.items()
        if isinstance(value, dict)
        else enumerate(value)
        if isinstance(value, list)
        else ()
    )
    if not isinstance(value, dict | list):
        yield at
    for key, inner in items:
        yield from leaves(inner, (*at, key))


def mutated(
    frame: Any, rng: random.Random, within: tuple[str, ...] = ()
) -> list[tuple[tuple[str | int, ...], Any]]:
    """Put one to three values out of place, anywhere or within some of the job's fields; says which."""
    places = [at for at in leaves(frame) if not within or at[0] in within]
    done = []
    for at in rng.sample(places, rng.randint(1, 3)):
        inner = frame
        for step in at[:-1]:
            inner = inner[step]
        # Mostly of the same sort: what is refused for its type alone is soon refused.
        same = [
            v for v in WRONG if isinstance(inner[at[-1]], int | float) == isinstance(v, int | float)
        ]
        value = rng.choice(same if rng.random() < 0.9 else WRONG)
        inner[at[-1]] = copy.deepcopy(value)
        done.append((at, value))
    return done


def nonsense(frame: Any) -> str:
    """What is wrong with what becomes of a job that was accepted; empty for nothing.

    Raises:
        UserError: The job is refused.
    """
    job = jobfile.loads(json.dumps(frame).encode())
    if jobfile.loads(jobfile.dumps(job)) != job:
        return "what is written is not what was read"
    verdict = judge(job)
    assembly = verdict.assembly
    for mass in (*assembly.ground.masses, *(m for t in assembly.things for m in t.masses)):
        if not (math.isfinite(mass.kg) and mass.kg >= 0):
            return f"{mass.label} weighs {mass.kg}"
    for part in assembly.parts():
        if isinstance(part, SheetPart | BarPart):
            sizes = [part.length, part.mass()]
            sizes += [part.width, part.thickness] if isinstance(part, SheetPart) else []
            if not all(math.isfinite(s) and s > 0 for s in sizes):
                return f"{part.name} has sizes {sizes}"
    more = {"survey": survey_json(verdict)}
    text = json.dumps(verdict_json(verdict) | more, allow_nan=False, ensure_ascii=False)
    text.encode("utf-8", "backslashreplace")
    if len(assembly.parts()) < 400:
        cut_json(verdict)
    return nonsense_of_building(verdict)


def nonsense_of_building(verdict: Verdict) -> str:
    """What is wrong with the plan and the papers of a judged job; empty for nothing."""
    build, job = built(verdict), verdict.job
    json.dumps(plan_json(verdict, build), allow_nan=False)
    plan_csv(build, verdict.assembly.shop.workshop)
    buying_csv(build)
    for key, hours in build.hours.items():
        if not (math.isfinite(hours) and hours >= 0):
            return f"{key} takes {hours} h"
    for key, one in build.levelled.placed.items():
        task = build.tasks[key]
        before = [build.levelled.placed[k].finish for k in task.after]
        if one.start < max([task.begins, *before]):
            return f"{key} is begun before what comes before it"
    questions(verdict)
    for offer in job.offers:
        offer_book(job, offer, verdict.assembly.shop)
        offer_csv(offer)
    for book in (
        pack(verdict),
        check_sheets(verdict, build),
        progress_page(verdict),
        lists_of(verdict, build, build.now),
    ):
        if not book.pages:
            return f"{book.title} has no page"
    return ""


def building() -> Any:
    """A small job in the shop: wishes, an offer, a plan held by hand, and a log with one entry of every sort."""
    job = demo_job("lowfold")
    job = edits.planned(
        job, begin="2027-02-01", due="2027-03-01", vehicle_from="2027-02-03", recheck="2027-05-01"
    )
    job = edits.held(job, "unit:actions:weld", day="2027-02-09", hour=2.0, hours=3.0)
    job = edits.own_operation(job, "Fetch the carpet", hours=2.0, days=3.0)
    verdict = judge(job)
    build = built(verdict)
    job = edits.offered(job, counted(verdict, "AB"))
    about = {
        "deviation": "units.actions.width",
        "check": build.checks[0].key,
        "ordered": build.buying[0].key,
    }
    about |= {"received": build.buying[1].key, "serial": "Work light"}
    for n, kind in enumerate(KINDS):
        entry = edits.entry(
            f"2027-02-0{1 + n // 2}T0{n % 2 + 7}:00:00", "AB", kind=kind, op="canopy:cut" if kind == "work" else "",
            about=about.get(kind, ""), words=f"a word on the {kind}", hours=1.5 if kind == "work" else 0.0,
            value=455.0 if kind == "deviation" else None, was=460.0 if kind == "deviation" else None,
            figures=(2.0, 3.0), result="failed" if kind == "check" else "", taken="2027-02-20",
        )  # fmt: skip
        job = edits.logged(job, entry)
    wishes = (Wish(id="light", name="Light", mass=2.0, price=90.0, litres=3.0, option="light"),)
    job = msgspec.structs.replace(
        job, brief=job.brief.but(wishes=wishes, budget_kg=300.0, budget_money=9000.0)
    )
    return json.loads(jobfile.dumps(job))


BUILDING = ("brief", "plan", "log", "offers")


def small() -> list[Any]:
    """Small jobs as their files hold them: each library vehicle and body with one of the stores in its first bay."""
    found = []
    offers = [o.make for o in entries() if not isinstance(o.make, Carried)]
    for vehicle in (e.vehicle for e in library() if e.vehicle is not None):
        for choice in choices(vehicle):
            job = begun("Small", vehicle, choice)
            bays = job.body.canopy.bays if job.body.canopy is not None else ()
            for offer in offers if bays else ():
                placed = offer.but(id="one", bay=bays[0].id)
                one = msgspec.structs.replace(job, units=(placed,))
                found.append(json.loads(jobfile.dumps(one)))
    return found


def main() -> None:
    """Mutate, and tell what went wrong."""
    count, seed = (
        (int(a) for a in (*sys.argv[1:], "300", "1")[:2])
        if len(sys.argv) < 3
        else map(int, sys.argv[1:3])
    )
    rng = random.Random(seed)
    demos = [
        json.loads(jobfile.dumps(demo_job(n)))
        for n in ("brackwater", "lowfold", "tarn", "reedholm")
    ]
    little = small()
    in_shop = building()
    refused = accepted = 0
    for n in range(count):
        shop = n % 4 == 1
        frame = copy.deepcopy(in_shop if shop else rng.choice(demos if n % 10 == 0 else little))
        what = mutated(frame, rng, BUILDING if shop else ())
        start = time.process_time()
        try:
            wrong = nonsense(frame)
            accepted += 1
        except UserError as trouble:
            wrong = "a refusal without words" if len(str(trouble)) < 10 else ""
            wrong = wrong or (
                "a refusal of more than 900 letters" if len(str(trouble)) > 900 else ""
            )
            refused += 1
        except Exception as fault:  # every fault is a find
            wrong = f"{type(fault).__name__}: {str(fault)[:120]}"
        took = time.process_time() - start
        if not wrong and took > SLOW:
            wrong = f"{took:.1f} s"
        if n % 1000 == 999:
            print(f"{n + 1}: {accepted} accepted, {refused} refused", flush=True)
        if wrong:
            print(f"{n}: {wrong}  <- {what}", flush=True)
    print(f"{count} jobs: {accepted} accepted, {refused} refused")


if __name__ == "__main__":
    main()
