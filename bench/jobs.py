"""Made-up jobs of a wished size, for benchmarks and tests."""

import msgspec

from roomy_hull.formats.demo import demo_job
from roomy_hull.job.model import Job
from roomy_hull.job.unit import CaseRack, Drawer, Fridge, Stack, Unit


def crowded(units: int, *, gap: float = 3.0) -> Job:
    """Give the demo vehicle with a number of drawers spread over its three bays.

    Parameters
    ----------
    units : int
        How many, at most 300.
    gap : float
        Clear gap between neighbours. [mm]

    Returns
    -------
    Job
        Without conflicts as long as the gap is 3 mm or more.
    """
    demo = demo_job()
    canopy = demo.body.canopy
    assert canopy is not None
    open_bays = tuple(
        msgspec.structs.replace(b, margin_start=0.0, margin_top=0.0, sill=0.0) for b in canopy.bays
    )
    body = msgspec.structs.replace(
        demo.body, canopy=msgspec.structs.replace(canopy, bays=open_bays)
    )
    across, up = (10, 10) if units > 60 else (5, 4)
    made = []
    for n in range(units):
        bay, rest = ("L", "R", "B")[n % 3], n // 3
        column, row = rest % across, rest // across
        # A pitch of its own per drawer, so that every place lies on the rail pitch.
        step, high = (150.0, 92.5) if across == 10 else (275.0, 222.5)
        made.append(
            Drawer(
                id=f"d{n}",
                name=f"Drawer {n}",
                bay=bay,
                u=column * step,
                w=row * high,
                width=step - gap,
                depth=380.0,
                carcass=1.5,
                height=high - gap,
                contents=2.0,
            )
        )
    assert across * up * 3 >= units
    return msgspec.structs.replace(demo, body=body, units=tuple(made))


def busy(units: int) -> Job:
    """Give a job of units with several motions each: racks of four cases, stacks of two, chest fridges.

    Parameters
    ----------
    units : int
        How many, at most 60; at 60 the job has 150 motions, doors and carried things included.

    Returns
    -------
    Job
        The demo vehicle with drop sides; its units stand clear of each other when closed.
    """
    plain = crowded(units)
    made: list[Unit] = []
    for n, d in enumerate(plain.units):
        at = {"id": d.id, "name": f"Unit {n}", "bay": d.bay, "u": d.u, "w": d.w, "width": d.width,
              "depth": d.depth, "height": d.height, "contents": 2.0}  # fmt: skip
        kind = (n // 3 + n) % 3  # every bay gets all three
        if kind == 0:
            made.append(
                CaseRack(**at, case_width=122.0, case_depth=340.0, case_height=98.0, across=2, up=2)
            )
        elif kind == 1:
            made.append(Stack(**at, heights=(109.0, 109.0), carcass=1.5))
        else:
            made.append(Fridge(**at, slide_height=40.0, vent=0.0, lid_gap=0.0))
    tray = msgspec.structs.replace(plain.body.tray, sides=60.0)
    body = msgspec.structs.replace(plain.body, tray=tray)
    return msgspec.structs.replace(plain, body=body, units=tuple(made), sets=(), runs=())
