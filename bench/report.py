"""Runs every benchmark and writes docs/performance.md."""

import json
import platform
import subprocess
import sys
import time
from datetime import date
from pathlib import Path
from typing import Any

HERE = Path(__file__).parent
PAGE = HERE.parent / "docs/performance.md"


def measured(script: str) -> Any:
    """Run one benchmark and read its figures."""
    begun = time.monotonic()
    print(f"measuring {script} …", end=" ", file=sys.stderr, flush=True)
    done = subprocess.run(
        [sys.executable, str(HERE / script)], capture_output=True, text=True, check=True
    )
    print(f"{time.monotonic() - begun:.0f} s", file=sys.stderr, flush=True)
    return json.loads(done.stdout)


def verdict(value: float, limit: float, *, most: bool = True) -> str:
    """Say whether a figure keeps its mark."""
    return "kept" if (value <= limit if most else value >= limit) else "missed"


def commit() -> str:
    """The commit that is measured, and whether anything of it is changed."""
    git = ["git", "-C", str(HERE)]
    name = subprocess.run(
        [*git, "rev-parse", "--short", "HEAD"], capture_output=True, text=True, check=True
    ).stdout
    dirty = subprocess.run(
        [*git, "status", "--porcelain", "src", "bench"], capture_output=True, text=True, check=True
    ).stdout
    return name.strip() + (" with changes" if dirty.strip() else "")


def page() -> str:
    """Measure, and write the page."""
    edit, paint, start = measured("edit.py"), measured("paint.py"), measured("start.py")
    body, moving, soak = measured("body.py"), measured("together.py"), measured("soak.py")
    loads, clicks = measured("loads.py"), measured("clicks.py")
    services, access = measured("services.py"), measured("access.py")
    nests = measured("nesting.py")
    building, arranged = measured("building.py"), measured("arranging.py")
    worse = nests["free"]["worse_than_packer"] + nests["shear"]["worse_than_packer"]
    full, reference = moving["growth"]["60"], moving["reference"]
    sixty = edit["growth"]["60"]
    shown = start.get("window", start["offscreen"])
    rows = [
        ("One unit of 60 moved and let go: fit, loads, together, making; 95th percentile", f"{sixty['quick_p95']:.1f} ms",
         "16 ms", verdict(sixty["quick_p95"], 16)),
        ("The same, everything settled, median", f"{sixty['median']:.0f} ms", "100 ms", verdict(sixty["median"], 100)),
        ("The same, 300 units", f"{edit['growth']['300']['median']:.0f} ms", "500 ms",
         verdict(edit["growth"]["300"]["median"], 500)),
        ("The same, the first demo", f"{edit['growth']['demo']['median']:.0f} ms", "60 ms",
         verdict(edit["growth"]["demo"]["median"], 60)),
        ("The same studies, closed fit and axles, against the plain all-pairs reference", f"{edit['ratio_60']:.0f}× faster",
         "50×", verdict(edit["ratio_60"], 50, most=False)),
        ("Start to drawing and scales painted, against an empty window", f"{shown['ratio']:.2f}×", "2.7×",
         verdict(shown["ratio"], 2.7)),
        ("Start to the complete window, against an empty one", f"{shown['complete_ratio']:.2f}×", "5×",
         verdict(shown["complete_ratio"], 5)),
        ("Start to everything settled, against an empty window", f"{shown['settled_ratio']:.2f}×", "12×",
         verdict(shown["settled_ratio"], 12)),
        ("Everything from nothing in a process of its own, all that it reads included, first demo",
         f"{edit['whole']['demo']:.0f} ms", "500 ms", verdict(edit["whole"]["demo"], 500)),
        ("The same, 300 units", f"{edit['whole']['300']:.0f} ms", "1500 ms", verdict(edit["whole"]["300"], 1500)),
        ("The same, 1,000 units", f"{edit['whole']['1000']:.0f} ms", "6000 ms", verdict(edit["whole"]["1000"], 6000)),
        ("From 300 to 1,000 units it grows with their number to the power of", f"{edit['power']:.2f}", "1.2",
         verdict(edit["power"], 1.2)),
        ("Every click until the window shows it, median", f"{clicks['median']:.0f} ms", "50 ms",
         verdict(clicks["median"], 50)),
        ("The same, 95th percentile", f"{clicks['p95']:.0f} ms", "100 ms", verdict(clicks["p95"], 100)),
        ("Drag step with 60 units and 150 motions: verdict, overlay, paint; 95th percentile",
         f"{paint['busy']['p95']:.0f} ms", "33 ms", verdict(paint["busy"]["p95"], 33)),
        ("Together table of 150 motions from nothing", f"{full['scratch']:.0f} ms", "1000 ms",
         verdict(full["scratch"], 1000)),
        ("The same after one edit, 95th percentile", f"{full['edit_p95']:.0f} ms", "50 ms",
         verdict(full["edit_p95"], 50)),
        ("The demo's table against sampling with FCL: clashes missed", f"{reference['missed']}", "0",
         verdict(reference["missed"], 0)),
        ("Full loads study of 300 units in 12 scenarios from nothing, median",
         f"{loads['study']['median']:.0f} ms", "50 ms", verdict(loads["study"]["median"], 50)),
        ("A trip of 14 days with 40 consumers, weather by chance included, median",
         f"{services['trip']['median']:.0f} ms", "30 ms", verdict(services["trip"]["median"], 30)),
        ("The same trip in 1,000 weathers, median", f"{services['weathers']['median']:.0f} ms", "1000 ms",
         verdict(services["weathers"]["median"], 1000)),
        ("Ways, cables and fuses of 60 runs after a move, median", f"{services['routes']['median']:.1f} ms", "10 ms",
         verdict(services["routes"]["median"], 10)),
        ("Moves, reach and sight of 150 goods for two statures from nothing, median",
         f"{access['nothing']:.0f} ms", "300 ms", verdict(access["nothing"], 300)),
        ("The same after a good was changed, median", f"{access['good']['median']:.0f} ms", "30 ms",
         verdict(access["good"]["median"], 30)),
        ("The same after a unit was moved and let go, median", f"{access['unit']['median']:.0f} ms", "30 ms",
         verdict(access["unit"]["median"], 30)),
        ("Thirty generated things to arrange: proved within 3 % among stacks in 10 s",
         f"{arranged['within_3_percent']} of 30", "29", verdict(arranged["within_3_percent"], 29, most=False)),
        ("The same: proved best among stacks", f"{arranged['proved_best']} of 30", "25",
         verdict(arranged["proved_best"], 25, most=False)),
        ("The same: a first layout in 3 s", f"{arranged['first_in_3_s']} of 30", "30",
         verdict(arranged["first_in_3_s"], 30, most=False)),
        ("The same: peak memory", f"{arranged['most_mb']:.0f} MB", "600 MB", verdict(arranged["most_mb"], 600)),
        ("Any layout at all, by a constraint solver in 10 s on nine of them: better by at most",
         f"{100 * max(arranged['reference_better_by']):.1f} %", "3.5 %",
         verdict(100 * max(arranged["reference_better_by"]), 3.5)),
        ("Stop pressed while it arranges until nothing goes on", f"{arranged['window']['stop_ms']:.0f} ms", "200 ms",
         verdict(arranged["window"]["stop_ms"], 200)),
        ("The window's ticks while it arranges, median", f"{arranged['window']['median_ms']:.1f} ms", "16.7 ms",
         verdict(arranged["window"]["median_ms"], 16.7)),
        (f"Operations and schedule of the demo from its judged job, {building['operations']} operations",
         f"{building['fresh']:.0f} ms", "200 ms", verdict(building["fresh"], 200)),
        ("Levelling 8 jobs of 80 operations on 6 resources, 5 s: worst gap to the bound of 4 networks",
         f"{100 * building['gap']:.1f} %", "5 %", verdict(100 * building["gap"], 5)),
        ("A bar of the plan dragged, a step painted, median", f"{building['drag']['median']:.1f} ms", "16.7 ms",
         verdict(building["drag"]["median"], 16.7)),
        ("A job with 10,000 entries in its log opened and replayed", f"{building['log']:.0f} ms", "300 ms",
         verdict(building["log"], 300)),
        ("Sheets of 24 random sets at the bound, free cuts", f"{nests['free']['at_bound']} of 24", "22",
         verdict(nests["free"]["at_bound"], 22, most=False)),
        ("The same, edge to edge, against the bound of free cuts", f"{nests['shear']['at_bound']} of 24", "22",
         verdict(nests["shear"]["at_bound"], 22, most=False)),
        ("Sets of both on which rectpack is better", f"{worse}", "0", verdict(worse, 0)),
        ("Sets of bars over the bound, of 40 random ones",
         f"{nests['bars']['over']}, {nests['bars']['first_fit_over']} longest first", "1",
         verdict(nests["bars"]["over"], 1)),
        ("Whole cut list of the demo, median", f"{nests['cut_ms']:.0f} ms", "300 ms", verdict(nests["cut_ms"], 300)),
        ("300 parts unfolded, median", f"{nests['unfold_ms']:.0f} ms", "150 ms", verdict(nests["unfold_ms"], 150)),
        ("What is stale since a release, median", f"{nests['release_ms']:.0f} ms", "100 ms",
         verdict(nests["release_ms"], 100)),
        ("Chances of being over against a million random draws, worst difference", f"{loads['chances']['worst']:.1f} "
         "standard errors", "4.5", verdict(loads["chances"]["worst"], 4.5)),
        ("Drag step of the demo: verdict, all views told, weigh strip painted, 95th percentile",
         f"{loads['strip']['p95']:.1f} ms",
         "16.7 ms", verdict(loads["strip"]["p95"], 16.7)),
        (f"Memory after {soak['edits']:,} random edits with undo and redo, against after a quarter of them",
         f"{soak['growth_mb']:+.1f} MB", "8 MB",
         verdict(soak["growth_mb"], 8)),
        ("Tray length changed, whole window up to date, median", f"{body['median']:.0f} ms", "50 ms",
         verdict(body["median"], 50)),
        ("Peak memory of the demo, all views shown", f"{start['memory_all_views_mb']:.0f} MB", "300 MB",
         verdict(start["memory_all_views_mb"], 300)),
    ]  # fmt: skip
    lines = [
        "# Performance",
        "",
        "Written by `bench/run`; not edited by hand. Figures of one run on one machine are good as "
        "ratios: every comparison below was made within the same run. Milliseconds, but for the start's, are "
        "processor time set against a standard piece of work done just before and after (`bench/pace.py`), "
        "since the pace of a shared machine changes by half from one second to the next.",
        "",
        f"Measured on {date.today().isoformat()} at commit {commit()}, Python {platform.python_version()}, "
        f"{platform.machine()}.",
        "",
        "| figure | measured | mark | |",
        "| --- | --- | --- | --- |",
        *(f"| {a} | {b} | {c} | {d} |" for a, b, c, d in rows),
        "",
        "## Growth with the number of units",
        "",
        "One unit is moved by a rail pitch, forth and back. Quick: what a hand waits for, fit, loads, what opens "
        "together, making. Settled: everything, access, plan, gaps and set-ups too, which the window has worked out "
        "in a process beside it. From the new job value, with the memory of the one before.",
        "",
        "| units | quick, median | 95th percentile | settled, median | 95th percentile |",
        "| --- | --- | --- | --- | --- |",
        *(
            f"| {n} | {g['quick']:.1f} ms | {g['quick_p95']:.1f} ms | {g['median']:.0f} ms | {g['p95']:.0f} ms |"
            for n, g in edit["growth"].items()
        ),
        "",
        f"The reference (`bench/reference.py`: plain Python, all pairs, no memory) takes "
        f"{edit['reference_60']:.0f} ms at 60 units for closed fit and axles; ours, the same two with memory, "
        f"{edit['same_60']:.2f} ms. Both in processor time of one run.",
        "",
        "## What can be open together",
        "",
        "Every opening on its way against every other, closed and open, and against what stays. One unit "
        "is moved 200 times; the last row has drawers only.",
        "",
        "| units | motions | from nothing | after an edit, median | 95th percentile | whole verdict, 95th percentile |",
        "| --- | --- | --- | --- | --- | --- |",
        *(
            f"| {n} | {g['motions']} | {g['scratch']:.0f} ms | {g['edit']:.1f} ms | {g['edit_p95']:.1f} ms | "
            f"{g['verdict_p95']:.1f} ms |"
            for n, g in moving["growth"].items()
        ),
        "",
        f"Against brute force (`bench/sampling.py`: every step in {reference['samples']} moments, every pose asked of "
        f"FCL) the demo's table takes {reference['ours_ms']:.0f} ms instead of {reference['theirs_ms']:.0f} ms, "
        f"{reference['ratio']:.0f}× faster; of {reference['clashes']} clashes {reference['missed']} are missed, and "
        f"{reference['alarms']} are seen by us alone. Where so little decides, what turns is followed to 0.05 mm.",
        "",
        "## Loads",
        "",
        "Axles and wheels in every scenario, the worst cell, springs by option, chassis, mounts, members, struts and "
        f"stability of 300 drawers in 12 scenarios, nothing remembered: median {loads['study']['median']:.0f} ms. The "
        f"reference, axles and bending alone in plain Python mass by mass, takes {loads['plain']:.0f} ms: "
        f"{loads['ratio']:.0f}× as long. From a new job value to the painted weigh strip: demo "
        f"{loads['strip']['median']:.1f} ms, 95th percentile {loads['strip']['p95']:.1f} ms; 60 units "
        f"{loads['strip_60']['median']:.1f} and {loads['strip_60']['p95']:.1f} ms.",
        "",
        "## Soak",
        "",
        f"{soak['edits']:,} random edits of the demo, undone and redone in between, judged as in a window: memory in use "
        f"{soak['early_mb']:.0f} MB after a quarter, {soak['late_mb']:.0f} MB at the end.",
        "",
        "## A step of a drag in the window",
        "",
        "Job value, verdict, free places, gaps and a full paint of the window, without a display.",
        "",
        "| job | median | 95th percentile |",
        "| --- | --- | --- |",
        f"| demo | {paint['demo']['median']:.1f} ms | {paint['demo']['p95']:.1f} ms |",
        f"| 60 units, 150 motions | {paint['busy']['median']:.1f} ms | {paint['busy']['p95']:.1f} ms |",
        f"| 300 units | {paint['units_300']['median']:.1f} ms | {paint['units_300']['p95']:.1f} ms |",
        f"| 60 units, clashing | {paint['units_60']['median']:.1f} ms | {paint['units_60']['p95']:.1f} ms |",
        "",
        "## Every click",
        "",
        f"{clicks['count']} actions of the menus that ask nothing, five times each on the demo, every page built: "
        "time until the window has drawn what comes of it. Medians, the slowest first; the rest is quicker.",
        "",
        "| action | median |",
        "| --- | --- |",
        *(f"| {key} | {ms:.0f} ms |" for key, ms in list(clicks["rows"].items())[:25]),
        "",
        "## Start and memory",
        "",
        "Time from the start of the process until drawing and scales are painted, until every panel beside them is "
        "there too, and until everything is worked out, in turn with an empty PyQt6 window of the same size; medians "
        "of seven.",
        "",
        "| window system | empty window | demo painted | ratio | complete | ratio | settled | ratio | peak memory |",
        "| --- | --- | --- | --- | --- | --- | --- | --- | --- |",
        *(
            f"| {name} | {s['empty'] * 1e3:.0f} ms | {s['demo'] * 1e3:.0f} ms | {s['ratio']:.2f}× | "
            f"{s['complete'] * 1e3:.0f} ms | {s['complete_ratio']:.2f}× | "
            f"{s['settled'] * 1e3:.0f} ms | {s['settled_ratio']:.2f}× | "
            f"{s['memory_mb']:.0f} MB |"
            for name, s in start.items()
            if isinstance(s, dict)
        ),
        "",
        "What remains of the start is mostly reading libraries: PyQt6 builds Python enumerations for "
        "every class that is touched (its `Qt` namespace alone costs a third of an empty window), and "
        "msgspec reads much of the standard library. NumPy, ezdxf, the packer, the stages Loads and "
        "Cut, the dialogs, menus and keys are read or built after the window stands.",
    ]
    return "\n".join(lines) + "\n"


if __name__ == "__main__":
    PAGE.write_text(page())
    print(PAGE.read_text())
