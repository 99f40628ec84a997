"""A first body for a vehicle, fitted to its measures: where a new job begins."""

import msgspec

from roomy_hull.core.errors import InputError
from roomy_hull.job.body import Arch, Body, Tray, Trundle, UnderBox, UnderTank
from roomy_hull.job.canopy import Bay, Canopy, Door
from roomy_hull.job.model import Job, Scenario
from roomy_hull.job.vehicle import Vehicle
from roomy_hull.kit.body import mudguards, undertray
from roomy_hull.kit.body.fittings import with_legs_clear
from roomy_hull.kit.body.subframe import floor_z, front_x

CHOICES: dict[str, tuple[str, ...]] = {
    "cab-chassis": ("full canopy", "short canopy", "bare tray"),
    "pickup": ("topper", "open tub"),
    "wagon": ("cargo area",),
}
"""What can be begun on each kind of vehicle."""

SILL, HEADER = 30.0, 20.0
"""What a new canopy leaves below its doors and above them (common practice). [mm]"""
SHELLS = ((35.0, 30.0, "25x25x3"), (35.0, 36.0, "30x30x3"), (45.0, 46.0, "40x40x3"))
"""A new canopy's wall, roof and bars, from narrow and long to wide and short. [mm]"""
CROSS_BOX = 750.0
"""Length of a short canopy across the tray (common practice). [mm]"""


def choices(vehicle: Vehicle) -> tuple[str, ...]:
    """What bodies can be begun on a vehicle."""
    return CHOICES[vehicle.kind]


def fitted(vehicle: Vehicle, choice: str) -> Body:
    """Fit a first body to a vehicle.

    Args:
        vehicle: As measured. [mm]
        choice: One of `choices`.
    Returns:
        Tray or hold, canopy, topper or cargo space, with doors and bays that fit it. Every size is a proposal to
        be changed.
    Raises:
        InputError: The choice is not for this kind of vehicle, or its measures leave no room.
    """
    if choice not in choices(vehicle):
        raise InputError(
            f"a {vehicle.kind} takes no {choice}", remedy=f"Choose {', '.join(choices(vehicle))}."
        )
    try:
        if vehicle.kind == "cab-chassis":
            return _tray_body(vehicle, choice)
        return _hold_body(vehicle, choice)
    except ValueError as trouble:  # a body's own rules: this vehicle's figures leave it no sense
        raise InputError(
            f"{vehicle.name} has no room for a {choice}: {trouble}",
            remedy="Begin with another body, or measure the vehicle again.",
        ) from None


def _tray_body(vehicle: Vehicle, choice: str) -> Body:
    """Fit a tray a little longer than the chassis, as wide as the cab, and its canopy."""
    width = min(vehicle.shape.width, 1850.0 if vehicle.shape.width < 2000 else 2400.0)
    gap = vehicle.clearance_behind_cab + 30.0
    # The tray ends some 30 behind the rails, in whole tens.
    length = round((vehicle.chassis_end + 30 - vehicle.cab_back - gap) / 10) * 10
    if length < 900:
        raise InputError(
            f"the chassis leaves a tray of {length:g} mm",
            place=vehicle.name,
            remedy="Measure cab back and chassis end again, both aft of the front axle.",
        )
    plain = Tray(gap=gap, length=length, width=width, fittings=35.0)
    tray = plain.but(rail=mudguards.rail_for(vehicle, plain) or mudguards.RAILS[-1])
    board = vehicle.shape.height - floor_z(vehicle, tray)
    tray = tray.but(headboard=max(300.0, round(board / 5) * 5))
    if choice == "bare tray":
        return Body(tray=tray)
    return Body(tray=tray, canopy=_on_tray(vehicle, tray, full=choice == "full canopy"))


def _on_tray(vehicle: Vehicle, tray: Tray, *, full: bool) -> Canopy:
    """A first canopy for a tray: on all of it, or across its front."""
    # A wall longer than the stock sheet would have to be joined.
    long = min(tray.length - 30, 2900.0) if full else min(CROSS_BOX, tray.length - 30)
    made = canopy_for(long, tray.width - 20, 940.0, full=full, start=10.0)
    return with_legs_clear(vehicle, tray.width, made)


def canopy_for(length: float, width: float, height: float, *, full: bool, start: float) -> Canopy:
    """A canopy with doors on both sides, and at the rear where it is long enough.

    Args:
        length, width, height: Outside sizes. [mm]
        full: Whether it has a rear door and bay.
        start: Where it begins behind the tray's front. [mm]
    Returns: With side bays back to back on a divider, and a rear bay of 400 where there is one. [mm]
    """
    # Wide roofs need the deeper bows, and so do short ones, whose few bows carry as much.
    wall, roof, bars = SHELLS[int(width > 2000) + int(not full)]
    deep = (width - 2 * wall) / 2 - 10
    rear = full and length > 1400
    side = length - 2 * wall - (430 if rear else 20)
    # The bays' floor is level with the sills, and each door is as long as its bay.
    high, opening = height - roof - SILL, height - roof - SILL - HEADER
    doors = [
        Door(id=s, side=s, start=wall + 20, length=side - 20, sill=SILL, height=opening)
        for s in ("left", "right")
    ]
    bays = [
        Bay(id=key, name=name, side=s, start=20, length=side - 20, depth=deep, sill=SILL,  # type: ignore[arg-type]
            height=high)
        for key, name, s in (("L", "Left", "left"), ("R", "Right", "right"))
    ]  # fmt: skip
    if rear:
        across = width - 2 * wall
        doors.append(
            Door(
                id="rear", side="rear", start=wall + 20, length=across - 40, sill=SILL,
                height=opening,
            )
        )  # fmt: skip
        bays.append(
            Bay(id="B", name="Rear", side="rear", start=20, length=across - 40, depth=400, sill=SILL,
                height=high)
        )  # fmt: skip
    return Canopy(name="Canopy" if full else "Cross-box canopy", start=start, length=length, width=width,
                  height=height, wall=wall, roof=roof, frame=bars, insulation=25.0, jacks=True, doors=tuple(doors),
                  bays=tuple(bays))  # fmt: skip


def _hold_body(vehicle: Vehicle, choice: str) -> Body:
    """Take a tub or cargo area as it is, with one bay that opens at the tailgate."""
    hold = vehicle.hold
    if hold is None:
        raise InputError("the cargo area is not measured", vehicle.name, "Measure it in Survey.")
    arches: tuple[Arch, ...] = ()
    if hold.arch_width and hold.arch_length and hold.arch_height:
        arches = (Arch(start=hold.arch_start, length=hold.arch_length, width=hold.arch_width,
                       height=hold.arch_height),)  # fmt: skip
    tray = Tray(kind="hold", floor_z=hold.floor, gap=hold.start - vehicle.cab_back if
                hold.start > vehicle.cab_back else 0.0, length=hold.length, width=hold.width,
                headboard=0.0, mudguards=False, lift_points=0, fittings=6.0, arches=arches)  # fmt: skip
    if choice == "open tub":
        return Body(tray=tray)
    topper = choice == "topper"
    wall = 22.0 if topper else 15.0
    height = hold.height + 420 if topper else hold.height + 20
    roof = 25.0 if topper else 20.0
    across, clear = hold.width - 2 * wall, height - roof
    side = (across - hold.opening_width) / 2 if hold.opening_width < across else 0.0
    high = min(hold.opening_height if not topper else clear, clear)
    bay = Bay(id="B", name="Tailgate", side="rear", start=0, length=across, depth=hold.length - 2 * wall,
              height=clear
              )  # fmt: skip
    door = Door(id="tailgate", side="rear", start=wall + max(0.0, side), length=across - 2 * max(0.0, side),
                height=high)  # fmt: skip
    canopy = Canopy(kind="topper" if topper else "cargo", name="Topper" if topper else "Cargo area",
                    base=hold.height if topper else 0.0, length=hold.length, width=hold.width,
                    height=height, wall=wall, roof=roof, frame="20x20x3", divider=0.0,
                    doors=(door,), bays=(bay,))  # fmt: skip
    return Body(tray=tray, canopy=canopy)


def begun(name: str, vehicle: Vehicle, choice: str) -> Job:
    """Begin a job: a vehicle, a first body, and the scenarios that everybody asks for.

    Args:
        choice: One of `choices`.
    Raises:
        InputError: The choice is not for this kind of vehicle, or its measures leave no room.
    """
    body = fitted(vehicle, choice)
    crew = (80.0, 75.0)[: len(vehicle.seats)]
    scenarios = [
        Scenario(id="full", name="Leaving full", people=crew),
        Scenario(
            id="dry", name="Coming home dry", people=crew, fuel=0.15, water=0.05, contents=0.7
        ),
    ]
    if body.canopy is not None and body.canopy.kind == "canopy":
        scenarios.insert(0, Scenario(id="tray", name="Bare tray at work", people=crew[:1], fuel=0.6,
                                     water=0.0, contents=0.0, canopy=False))  # fmt: skip
    return Job(name=name, vehicle=vehicle, body=body, scenarios=tuple(scenarios))


def covered(job: Job, choice: str) -> Job:
    """Put a first canopy on the tray or tub as it stands, or take the canopy away again.

    Args:
        choice: ``full canopy`` or ``short canopy`` on a tray, ``topper`` on a tub; ``none`` takes it away.
    Returns: The new job; the scenarios stay as they are.
    Raises:
        InputError: There is a canopy already, units stand in the one to be taken away, or there is no room.
    """
    body = job.body
    if choice == "none":
        if job.units:
            raise InputError(
                f"{len(job.units)} units stand in its bays",
                "the canopy",
                "Delete them first, then take it away.",
            )
        return msgspec.structs.replace(job, body=body.but(canopy=None))
    if body.canopy is not None:
        raise InputError(
            "there is one already",
            body.canopy.name,
            "Change its sizes on the stage Body, or take it away first.",
        )
    if body.tray.kind == "tray":
        if choice not in ("full canopy", "short canopy"):
            raise InputError(f"a tray takes no {choice}", remedy="Fit a canopy.")
        try:
            canopy: Canopy | None = _on_tray(job.vehicle, body.tray, full=choice == "full canopy")
        except ValueError as trouble:
            raise InputError(
                f"this tray has no room for a {choice}: {trouble}",
                remedy="Make the tray longer or wider.",
            ) from None
    else:
        canopy = fitted(job.vehicle, choice).canopy
    return msgspec.structs.replace(job, body=body.but(canopy=canopy))


UNDER = (
    "box ahead left",
    "box ahead right",
    "box behind left",
    "box behind right",
    "trundle",
    "tank",
)
"""What can be hung under a tray."""


def toggled(job: Job, what: str) -> Job:
    """Hang something under the tray as large as there is room for, or take it away again.

    Args:
        what: One of `UNDER`.
    Raises:
        InputError: The vehicle has no tray, or there is no room; says what is in the way.
    """
    tray = job.body.tray
    if tray.kind != "tray":
        raise InputError(f"a {job.vehicle.kind} has no tray to hang it under")
    if what.startswith("box"):
        _, place, side = what.split()
        key = f"{place}-{side}"
        kept = tuple(b for b in tray.boxes if b.id != key)
        if len(kept) == len(tray.boxes):
            kept = (*kept, _box(job, place, side, key))
        new = tray.but(boxes=kept)
    elif what == "trundle":
        new = tray.but(trundle=None if tray.trundle else _trundle(job))
    else:
        new = tray.but(tank=None if tray.tank else _tank(job))
    return msgspec.structs.replace(job, body=msgspec.structs.replace(job.body, tray=new))


HAIR = 1e-6
"""What only touches is not in the way. [mm]"""


def _room(
    job: Job, low: float, high: float, y0: float, y1: float, deep: float
) -> tuple[float, float, str]:
    """The longest free stretch along x between two ends, and what bounds it. [mm]"""
    tray, vehicle = job.body.tray, job.vehicle
    x0, top = front_x(vehicle, tray), floor_z(vehicle, tray) - undertray.EDGE
    blocks = (
        *undertray.obstacles(vehicle, tray),
        *undertray.solids(tray, x0, top + undertray.EDGE),
    )
    inside = [
        (b.x0, b.x1, p.words) for p in blocks for b in (p.box,)
        if b.y0 < y1 - HAIR and b.y1 > y0 + HAIR and b.z0 < top - HAIR and b.z1 > top - deep + HAIR
    ]  # fmt: skip
    best, at, by = (low, low), low, "nothing"
    for a, b, name in sorted([*inside, (high, high + 1, "the tray's end")]):
        if min(a, high) - at > best[1] - best[0]:
            best = (at, min(a, high))
        if a < high and b > low:
            by = name
        at = max(at, b)
    return best[0], best[1], by


def _box(job: Job, place: str, side: str, key: str) -> UnderBox:
    """Size a toolbox to the room ahead of the wheel or behind it."""
    tray, vehicle = job.body.tray, job.vehicle
    x0 = front_x(vehicle, tray)
    x1, half = x0 + tray.length, tray.width / 2
    low, high = (x0, vehicle.wheelbase) if place == "ahead" else (vehicle.wheelbase, x1)
    for depth in (450.0, 330.0, 240.0):
        y0, y1 = (-half, -half + depth) if side == "left" else (half - depth, half)
        a, b, by = _room(job, low + 10, high - 10, y0, y1, 350)
        if b - a >= 180:
            gap = a - x0 if place == "ahead" else x1 - b
            return UnderBox(id=key, side=side, place=place, gap=gap, length=(b - a) // 5 * 5,  # type: ignore[arg-type]
                            height=350, depth=depth)  # fmt: skip
    where = "ahead of" if place == "ahead" else "behind"
    raise InputError(
        f"there is no room for a toolbox {where} the {side} wheel, because of the {by}",
        remedy="A longer tray or chassis, or a shorter cab, makes room.",
    )


def _trundle(job: Job) -> Trundle:
    """Size a trundle drawer to the room between the rails behind the axle."""
    tray, vehicle = job.body.tray, job.vehicle
    x1 = front_x(vehicle, tray) + tray.length
    wide = vehicle.rail_spread - vehicle.rail_width - 40
    for high in (300.0, 220.0, 160.0):
        a, b, _by = _room(job, vehicle.wheelbase, x1, -wide / 2, wide / 2, high)
        if wide >= 120 and b >= x1 - 1 and b - a >= 250:
            return Trundle(length=min(1500.0, (b - a - 10) // 10 * 10), width=wide, height=high)
    raise InputError(
        "there is no room for a trundle drawer behind the axle", remedy="Make the tray longer."
    )


def _tank(job: Job) -> UnderTank:
    """Size a water tank to the room between the rails ahead of the axle."""
    tray, vehicle = job.body.tray, job.vehicle
    x0 = front_x(vehicle, tray)
    wide = vehicle.rail_spread - vehicle.rail_width - 40
    for high in (260.0, 200.0, 150.0):
        a, b, _by = _room(job, x0 + 20, vehicle.wheelbase, -wide / 2, wide / 2, high)
        if wide >= 60 and b - a >= 250:
            long = min(700.0, (b - a) // 10 * 10)
            return UnderTank(start=a - x0, length=long, width=wide, height=high)
    raise InputError(
        "there is no room for a tank ahead of the axle", remedy="Move the fuel tank first."
    )
