"""Operations: what has to be done to build a job, with how much of it there is, who may do it, where, and after what.

They come from the same parts and joints that are cut, from the order in which units go in, and from what runs through
the furniture; nothing of it is typed. Their hours are amounts times the shop's rates.
"""

from collections.abc import Iterable, Mapping
from typing import Any, NamedTuple

import msgspec

from roomy_hull.assembly.body import Ground
from roomy_hull.assembly.study import Context
from roomy_hull.assembly.things import Thing
from roomy_hull.core.memo import by_identity
from roomy_hull.core.parts import BarPart, Hardware, Part, SheetPart
from roomy_hull.core.refs import CANOPY, TRAY, VEHICLE, Ref
from roomy_hull.job.plans import Extra
from roomy_hull.kit.body.racks import MOUNTS
from roomy_hull.making.cost import coated, cut_of_blank
from roomy_hull.making.flats import blank
from roomy_hull.making.joints import Joined
from roomy_hull.making.works import Work, Works, fasteners, welded
from roomy_hull.planning.op import KINDS, Kind, Op, hours_of, owner_key
from roomy_hull.shop.workshop import Rates


class _Maker:
    """Writes operations down, each once."""

    def __init__(self, rates: Rates) -> None:
        self.rates = rates
        self.ops: dict[str, Op] = {}

    def add(  # ruff: ignore[too-many-arguments, too-many-positional-arguments]  # an operation has as many
        self, key: str, kind: Kind, words: str, amounts: Mapping[str, float], after: Iterable[str] = (),
        owner: Ref | None = None, crew: int = 1, days: float = 0.0, needs: Iterable[str] = (), trade: str = "",
    ) -> str:  # fmt: skip
        """Write one down, behind those of `after` that there are; gives its key, or nothing where there is nothing to do."""
        rows = tuple((k, a) for k, a in amounts.items() if a)
        hours = hours_of(rows, self.rates)
        if not hours and not days:
            return ""
        about = KINDS[kind]
        self.ops[key] = Op(
            key, kind, words, owner, rows, hours, trade or about.trade, about.station,
            tuple(dict.fromkeys(k for k in after if k in self.ops)), crew, days, tuple(dict.fromkeys(needs)),
        )  # fmt: skip
        return key


def operations_of(context: Context, works: Works, coat_days: float = 0.0) -> dict[str, Op]:
    """Derive a job's operations.

    Args:
        context: The judged job: in which order units go in, circuits, hoses and gas lines.
        coat_days: Working days that coating takes; 0 where nothing is coated.
    Returns: By their keys, each behind those that it comes after.
    """
    assembly = context.assembly
    make = _Maker(assembly.shop.workshop.rates)
    made: dict[Ref, str] = {}
    tanks: dict[Ref, list[str]] = {}
    for t in assembly.doing("water"):
        if t.capabilities.vessel is not None and t.capabilities.vessel.made:
            tanks.setdefault(t.owner, []).append(t.name)
    for work in works.works:
        about = _About(coat_days, tuple(tanks.get(work.owner, ())))
        made[work.owner] = _of_work(make, work, about)
    make.add(
        "job:receive", "receive", "Take the vehicle in, look it over, photograph it", {"receive": 1}
    )
    fitted = _fitted(make, context, made)
    wired = _run_through(make, context, fitted)
    _last(make, context, fitted, wired)
    _extras(make, assembly.job.plan.own)
    return make.ops


class Amounts(NamedTuple):
    """How much work there is at one owner's parts. [m, m²]"""

    cut_m: float
    pierces: int
    bends: int
    pieces: int
    bars: int
    holes: int
    weld_m: float
    area: float
    bought: int
    fixed: dict[str, int]
    sheet: tuple[str, ...]
    bar: tuple[str, ...]
    hardware: tuple[str, ...]


@by_identity(1024)
def amounts_of(made: Joined) -> Amounts:
    """Count the work at one owner's parts: metres, pierces, bends, holes, welds, fasteners, what has to be bought.

    Args:
        made: Its parts and joints, the pattern of its work.
    """
    sheets = [p for p in made.parts if isinstance(p, SheetPart)]
    bars = [p for p in made.parts if isinstance(p, BarPart)]
    got = [p for p in made.parts if isinstance(p, Hardware)]
    flats = [(blank(p), p.count) for p in sheets]
    cuts = [(cut_of_blank(f), n) for f, n in flats]
    fixed = fasteners(made.joints)
    return Amounts(
        sum(c.metres * n for c, n in cuts), sum(c.pierces * n for c, n in cuts), sum(len(f.bends) * n for f, n in flats),
        sum(p.count for p in sheets) + sum(p.count for p in bars), sum(p.count for p in bars),
        sum(len(p.drilled) * p.count for p in bars), welded(made.joints) / 1000, coated(made.parts),
        sum(1 if p.metres else p.count for p in got),
        {sort: sum(n for word, n in fixed.items() if word.startswith(sort)) for sort in ("rivet", "bolt", "screw")},
        _keys(sheets), _keys(bars), _keys(got),
    )  # fmt: skip


def _keys(parts: Iterable[Part]) -> tuple[str, ...]:
    return tuple(dict.fromkeys(map(bought_key, parts)))


class _About(NamedTuple):
    """What beside its parts says how an owner's work is done: days of coating, tanks that are welded."""

    coat_days: float
    tanks: tuple[str, ...]


def _of_work(make: _Maker, work: Work, about: _About) -> str:
    """What is done to one owner's parts until it can be fitted; gives the last of it."""
    ops, last = _steps(work, make.rates, about)
    make.ops.update(ops)
    return last


@by_identity(1024, 2)
def _steps(work: Work, rates: Rates, about: _About) -> tuple[dict[str, Op], str]:
    """The operations on one owner's parts, and the last of them; the same ones for the very same work."""
    make = _Maker(rates)
    o, own, title = owner_key(work.owner), work.owner, work.title
    a = amounts_of(work.pattern)

    def add(
        kind: Kind, words: str, amounts: Mapping[str, float], after: Iterable[str] = (), **more: Any
    ) -> str:
        return make.add(f"{o}:{kind}", kind, f"{words} {title}", amounts, after, own, **more)

    cut = add("cut", "Cut", {"cut_m": a.cut_m, "pierce": a.pierces}, needs=a.sheet)
    cut = add("deburr", "Deburr", {"deburr_m": a.cut_m}, (cut,)) or cut
    bent = add("bend", "Bend", {"bend": a.bends}, (cut,)) or cut
    sawn = add("saw", "Saw", {"saw_piece": a.bars}, needs=a.bar)
    sawn = add("drill", "Drill", {"drill_hole": a.holes}, (sawn,)) or sawn
    last = [k for k in (bent, sawn) if k]
    joined = add("weld", "Weld", {"weld_m": a.weld_m}, last)
    if joined:
        last = [add("dress", "Dress the welds of", {"dress_m": a.weld_m}, (joined,)) or joined]
    if about.coat_days and a.area:
        packed = add("prepare", "Clean and pack", {"coat_m2": a.area}, last)
        last = [add("coat", "Have coated outside:", {}, (packed,), days=about.coat_days)]
    insulated = sum(h.area * h.count for h in work.parts if isinstance(h, Hardware))
    if insulated:
        last = [add("insulate", "Insulate", {"insulate_m2": insulated}, last)]
    if a.pieces:
        together = {"piece": a.pieces, "bought_piece": a.bought, **a.fixed}
        last = [add("assemble", "Assemble", together, last, needs=a.hardware)]
    if about.tanks and a.pieces:
        last = [
            make.add(f"{o}:pressure test", "pressure test", f"Fill and pressure-test {', '.join(about.tanks)}",
                     {"test": len(about.tanks)}, last, own)
        ]  # fmt: skip
    return make.ops, last[0] if last else ""


def bought_key(part: Part) -> str:
    """The key of what is bought for a part: its sheet, its bar, or itself."""
    if isinstance(part, SheetPart):
        return f"sheet:{part.material.key}:{part.thickness:g}"
    return (
        f"bar:{part.material.key}:{part.section}"
        if isinstance(part, BarPart)
        else f"hardware:{part.name}"
    )


def is_made(thing: Thing) -> bool:
    """Whether a thing is made in the shop: something of it is cut or sawn."""
    return any(not isinstance(p, Hardware) for p in thing.expansion.parts)


def _bodies(make: _Maker, context: Context, made: dict[Ref, str]) -> dict[Ref, str]:
    """Tray, canopy, rooms and racks mounted, what is made with doors hosed while it is empty; the last of each."""
    ground = context.assembly.ground
    last = {VEHICLE: "job:receive"}
    last[TRAY] = make.add("tray:mount", "mount", "Mount the tray on the chassis", {"mount_body": 1},
                          (made[TRAY], last[VEHICLE]), TRAY, crew=2) if made.get(TRAY) else last[VEHICLE]  # fmt: skip
    for shell in ground.shells:
        key, name, room = owner_key(shell.ref), shell.value.name, ground.room(shell.ref.id)
        if shell.ref == CANOPY and made.get(CANOPY):
            words = "Lift the canopy on and bolt it down"
        elif room is not None and room.mount != "vehicle":
            words = f"Set {name} on and {'bolt' if room.room.made else 'tie'} it down"
        else:
            last[shell.ref] = last[TRAY]
            continue
        before = (made.get(shell.ref, ""), last[TRAY])
        stands = make.add(
            f"{key}:mount", "mount", words, {"mount_body": 1}, before, shell.ref, crew=2,
            needs=(f"thing:{room.room.id}",) if room is not None and not room.room.made else (),
        )  # fmt: skip
        if made.get(shell.ref) and any("sheet" in (d.leaf, d.second) for d in shell.value.doors):
            stands = make.add(f"{key}:hose", "test", f"Hose {name} while it is empty: every seal and seam",
                              {"hose_test": 1}, (stands,), shell.ref)  # fmt: skip
        last[shell.ref] = stands
    for place in ground.racks:
        on = CANOPY if MOUNTS[place.rack.kind] == "canopy" else TRAY
        own = place.rack.ref
        last[own] = make.add(f"{owner_key(own)}:fit", "fit", f"Fit {place.rack.name}", {"fit_outside": 1.0},
                             (made.get(own, ""), last.get(on, last[TRAY])), own)  # fmt: skip
    return last


def _stands_on(thing: Thing, ground: Ground, last: dict[Ref, str]) -> str:
    """The mounting of what a thing is fitted in or on."""
    value = thing.value
    if thing.place is not None:
        return last[ground.stands_in(thing.bay) or TRAY]
    on = Ref("rack", getattr(value, "on", ""))
    if on in last:
        return last[on]
    mount = {"canopy": CANOPY, "tray": TRAY}.get(getattr(value, "mount", ""), VEHICLE)
    return last.get(mount, last[TRAY])


def _fitted(make: _Maker, context: Context, made: dict[Ref, str]) -> dict[str, str]:
    """Body mounted, every thing fitted in the order in which it goes in; the fitting of each, by id."""
    assembly = context.assembly
    last = _bodies(make, context, made)
    in_out = context.results["in and out"]
    order = [key for bay in in_out.order.values() for key in bay]
    rest = [t.id for t in assembly.things if t.id not in set(order)]
    found: dict[str, str] = {}
    behind: dict[str, list[str]] = {}
    for key in (*order, *rest):
        thing = assembly.thing(key)
        if thing is None:
            continue
        # What blocks a unit's way out goes in behind it.
        blocked = behind.get(key, ())
        own = made.get(thing.ref, "")
        outside = thing.place is None
        mounts = (_stands_on(thing, assembly.ground, last),)
        amounts = {
            "fit_outside" if outside else "fit_made" if is_made(thing) else "fit_bought": 1.0
        }
        needs = () if is_made(thing) else (f"thing:{key}",)
        found[key] = make.add(f"{owner_key(thing.ref)}:fit", "fit", f"Fit {thing.name}", amounts,
                              (own, *mounts, *blocked), thing.ref, needs=needs)  # fmt: skip
        for other in in_out.blockers(key):
            behind.setdefault(other, []).append(found[key])
    found |= {t.id: last[TRAY] for t in assembly.ground.things}
    # Where nothing is fitted, all that follows still comes after the body.
    bodies = [k for k in dict.fromkeys(last.values()) if k != last[VEHICLE]]
    return found | {f"body {n}": key for n, key in enumerate(bodies or [last[VEHICLE]])}


def _run_through(make: _Maker, context: Context, fitted: dict[str, str]) -> dict[str, list[str]]:
    """Circuits, hoses and gas lines, each after what it joins is fitted; by sort."""
    services, job = context.results["services"], context.assembly.job
    mains = {c.id for c in job.services.consumers if c.mains}
    mains |= {s.id for s in job.services.sources if s.kind == "mains"} | {"inverter"}
    found: dict[str, list[str]] = {"electrics": [], "mains": [], "water": [], "gas": [], "air": []}
    for c in services.circuits:
        sort = "mains" if c.id in mains else "electrics"
        ends = [fitted[e] for e in c.ends if e in fitted]
        found[sort].append(make.add(f"circuit:{c.id}:wire", "mains" if sort == "mains" else "wire", f"Wire {c.name}",
                                    {"circuit": 1, "cable_m": c.metres}, ends or fitted.values(),
                                    needs=("services:cable",)))  # fmt: skip
    for run in services.fluids.runs if services.fluids is not None else ():
        ends = [fitted[e] for e in run.ends if e in fitted]
        if run.sort == "gas":
            key = make.add(f"run:{run.id}", "gas", f"Lay the gas line {run.name}", {"gas_line": 1}, ends,
                           needs=("services:gas",))  # fmt: skip
        else:
            key = make.add(f"run:{run.id}", "plumb", f"Lay {run.name}", {"hose_run": 1, "hose_m": run.way.metres}, ends,
                           needs=("services:hose",))  # fmt: skip
        found[run.sort].append(key)
    return found


def _last(
    make: _Maker, context: Context, fitted: dict[str, str], runs: dict[str, list[str]]
) -> None:
    """What follows when everything is in: tests, weighing, finishing, certifying, washing, handing over."""
    job = context.assembly.job
    tests: list[str] = []
    every = [k for k in fitted.values() if k]

    def test(
        key: str, words: str, after: Iterable[str], trade: str = "", rate: str = "test"
    ) -> None:
        tests.append(make.add(f"job:{key}", "test", words, {rate: 1}, after, trade=trade))

    if runs["electrics"] or runs["mains"]:
        test(
            "test electrics",
            "Test every circuit under load",
            runs["electrics"] + runs["mains"],
            "electrics",
        )
    if runs["mains"]:
        test("test mains", "Test mains and leakage protection", runs["mains"], "mains")
    if runs["gas"] or context.assembly.doing("gas"):
        test("test gas", "Leak-test the gas line", runs["gas"] or every, "gas")
    if runs["water"] or context.assembly.doing("water"):
        test("test water", "Fill, pump up, look for leaks", runs["water"] or every)
    if any("sheet" in (d.leaf, d.second) for d in job.body.doors()):
        test("test hose", "Hose every door and seal", every, "", "hose_test")
    whole = [*every, *(k for some in runs.values() for k in some), *tests]
    finish = make.add(
        "job:finish",
        "finish",
        "Work off the finishing list",
        {"finish": 1},
        whole or ["job:receive"],
    )
    weigh = make.add("job:weigh", "weigh", "Weigh all axles", {"weigh": 1}, (finish,))
    last = [weigh]
    if job.vehicle.ratings.standard == "upgraded":
        last = [
            make.add(
                "job:engineer",
                "engineer",
                "Certifying engineer looks it over",
                {"engineer": 1},
                (weigh,),
            )
        ]
    wash = make.add("job:wash", "wash", "Wash, clean, retorque", {"wash": 1}, last)
    make.add(
        "job:hand over",
        "hand over",
        "Show it to the customer and hand it over",
        {"hand_over": 1},
        (wash,),
    )


def _extras(make: _Maker, extras: tuple[Extra, ...]) -> None:
    """The plan's own operations, behind and before those that they name and that there are."""
    for x in extras:
        key = f"extra:{x.id}"
        rests = x.days > 0 and not x.hours
        make.ops[key] = Op(
            key, "extra", x.name, None, (), x.hours, "" if rests else x.trade, x.station, (), 1, x.days if rests else 0.0,
        )  # fmt: skip
        if x.days > 0 and x.hours:
            # It is worked at, then waited for.
            make.ops[f"{key}:wait"] = Op(
                f"{key}:wait", "extra", f"{x.name}: wait", None, (), 0.0, "", "", (key,), 1, x.days
            )
    for x in extras:
        key = f"extra:{x.id}"
        last = f"{key}:wait" if f"{key}:wait" in make.ops else key
        own = make.ops[key]
        after = tuple(_whole(make, k) for k in dict.fromkeys(x.after) if k in make.ops)
        make.ops[key] = msgspec.structs.replace(own, after=after)
        for later in x.before or ("job:finish",):
            other = make.ops.get(later)
            if other is not None and later not in x.after:
                make.ops[later] = msgspec.structs.replace(
                    other, after=tuple(dict.fromkeys((*other.after, last)))
                )


def _whole(make: _Maker, key: str) -> str:
    """An operation with what is waited for behind it."""
    wait = f"{key}:wait"
    return wait if wait in make.ops else key


def unknown_in(extras: tuple[Extra, ...], ops: Mapping[str, Op]) -> tuple[tuple[str, str], ...]:
    """What the plan's own operations name that is not there: the operation's name, and the key."""
    return tuple((x.name, k) for x in extras for k in (*x.after, *x.before) if k not in ops)
