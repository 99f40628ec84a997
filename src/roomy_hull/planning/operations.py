"""Operations: what has to be done to build a job, with how much of it there is, who may do it, where, and after what.

They come from the same parts and joints that are cut, from the order in which units go in, and from what runs through
the furniture; nothing of it is typed. Their hours are amounts times the shop's rates.
"""

from collections.abc import Iterable, Mapping

import msgspec

from roomy_hull.assembly.study import Case
from roomy_hull.assembly.things import Thing
from roomy_hull.core.parts import BarPart, Hardware, SheetPart
from roomy_hull.core.refs import CANOPY, TRAY, Ref
from roomy_hull.job.carried import Carried
from roomy_hull.job.plans import Extra
from roomy_hull.kinds.gas_locker import GasLocker
from roomy_hull.kinds.tank import Tank
from roomy_hull.making.cost import coated, cut_of_blank
from roomy_hull.making.flats import blank
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


def operations_of(case: Case, works: Works, coat_days: float = 0.0) -> dict[str, Op]:
    """Derive a job's operations.

    Parameters
    ----------
    case : Case
        The judged job: in which order units go in, circuits, hoses and gas lines.
    works : Works
        Its parts and joints.
    coat_days : float
        Working days that coating takes; 0 where nothing is coated.

    Returns
    -------
    dict of str to Op
        By their keys, each behind those that it comes after.
    """
    assembly = case.assembly
    make = _Maker(assembly.shop.workshop.rates)
    made: dict[Ref, str] = {}
    for work in works.works:
        thing = assembly.thing(work.owner)
        made[work.owner] = _of_work(make, work, thing, coat_days, case)
    make.add(
        "job:receive", "receive", "Take the vehicle in, look it over, photograph it", {"receive": 1}
    )
    fitted = _fitted(make, case, made)
    wired = _run_through(make, case, fitted)
    _last(make, case, fitted, wired)
    _extras(make, assembly.job.plan.own)
    return make.ops


def _of_work(  # ruff: ignore[too-many-locals]  # one line for each kind of work, in the order of the work
    make: _Maker, work: Work, thing: Thing | None, coat_days: float, case: Case
) -> str:
    """What is done to one owner's parts until it can be fitted; gives the last of it."""
    o, own, title = owner_key(work.owner), work.owner, work.title
    sheets = [p for p in work.parts if isinstance(p, SheetPart)]
    bars = [p for p in work.parts if isinstance(p, BarPart)]
    bought = sum(1 if p.metres else p.count for p in work.parts if isinstance(p, Hardware))
    cut_parts: list[SheetPart | BarPart] = [*sheets, *bars]
    flats = [(blank(p), p.count) for p in sheets]
    cuts = [(cut_of_blank(f), n) for f, n in flats]
    metres, pierces = sum(c.metres * n for c, n in cuts), sum(c.pierces * n for c, n in cuts)
    bends = sum(len(f.bends) * n for f, n in flats)
    pieces = sum(p.count for p in cut_parts)
    weld, fixed = welded(work.joints) / 1000, fasteners(work.joints)
    by = {
        sort: sum(n for word, n in fixed.items() if word.startswith(sort)) for sort in ("rivet", "bolt", "screw")
    }  # fmt: skip
    metal = [f"sheet:{p.material.key}:{p.thickness:g}" for p in sheets]
    lengths = [f"bar:{p.material.key}:{p.section}" for p in bars]
    cut = make.add(
        f"{o}:cut",
        "cut",
        f"Cut {title}",
        {"cut_m": metres, "pierce": pierces},
        (),
        own,
        needs=metal,
    )
    cut = (
        make.add(f"{o}:deburr", "deburr", f"Deburr {title}", {"deburr_m": metres}, (cut,), own)
        or cut
    )
    bent = make.add(f"{o}:bend", "bend", f"Bend {title}", {"bend": bends}, (cut,), own) or cut
    sawn = make.add(
        f"{o}:saw",
        "saw",
        f"Saw {title}",
        {"saw_piece": sum(p.count for p in bars)},
        (),
        own,
        needs=lengths,
    )
    holes = sum(len(p.drilled) * p.count for p in bars)
    sawn = (
        make.add(f"{o}:drill", "drill", f"Drill {title}", {"drill_hole": holes}, (sawn,), own)
        or sawn
    )
    last = [k for k in (bent, sawn) if k]
    joined = make.add(f"{o}:weld", "weld", f"Weld {title}", {"weld_m": weld}, last, own)
    if joined:
        last = [
            make.add(
                f"{o}:dress",
                "dress",
                f"Dress the welds of {title}",
                {"dress_m": weld},
                (joined,),
                own,
            )
            or joined
        ]
    area = coated(work.parts)
    if coat_days and area:
        packed = make.add(
            f"{o}:prepare", "prepare", f"Clean and pack {title}", {"coat_m2": area}, last, own
        )
        last = [
            make.add(
                f"{o}:coat", "coat", f"{title} away for coating", {}, (packed,), own, days=coat_days
            )
        ]
    canopy = case.assembly.job.body.canopy
    if own == CANOPY and canopy is not None and canopy.insulation:
        last = [make.add(f"{o}:insulate", "insulate", f"Insulate {title}",
                         {"insulate_m2": canopy.length * canopy.width / 1e6}, last, own)]  # fmt: skip
    if pieces:
        together = {"piece": pieces, "bought_piece": bought, **by}
        last = [make.add(f"{o}:assemble", "assemble", f"Assemble {title}", together, last, own,
                         needs=(hardware_key(p) for p in work.parts if isinstance(p, Hardware)))]  # fmt: skip
    if thing is not None and isinstance(thing.value, Tank) and pieces:
        last = [
            make.add(
                f"{o}:pressure",
                "pressure test",
                f"Fill and pressure-test {title}",
                {"test": 1},
                last,
                own,
            )
        ]
    return last[0] if last else ""


def hardware_key(part: Hardware) -> str:
    """The key of something bought for a part list."""
    return f"hardware:{bought_name(part)}"


def bought_name(part: Hardware) -> str:
    """What something bought is called, without what it belongs to."""
    return part.name.partition(": ")[2] or part.name


def is_made(thing: Thing) -> bool:
    """Whether a thing is made in the shop: something of it is cut or sawn."""
    return any(not isinstance(p, Hardware) for p in thing.expansion.parts)


def _fitted(make: _Maker, case: Case, made: dict[Ref, str]) -> dict[str, str]:
    """Tray and canopy mounted, every thing fitted in the order in which it goes in; the fitting of each, by id."""
    assembly, body = case.assembly, case.assembly.job.body
    base = ["job:receive"]
    if made.get(TRAY):
        base = [make.add("tray:mount", "mount", "Mount the tray on the chassis", {"mount_body": 1}, (made[TRAY], *base),
                         TRAY, crew=2)]  # fmt: skip
    tray = list(base)
    if made.get(CANOPY):
        base = [make.add("canopy:mount", "mount", "Lift the canopy on and bolt it down", {"mount_body": 1},
                         (made[CANOPY], *base), CANOPY, crew=2)]  # fmt: skip
    in_out = case.results["in and out"]
    order = [key for bay in in_out.order.values() for key in bay]
    rest = [t.id for t in assembly.things if t.id not in set(order)]
    found: dict[str, str] = {}
    for key in (*order, *rest):
        thing = assembly.thing(key)
        if thing is None:
            continue
        # What blocks a unit's way out goes in behind it.
        blocked = [found[k] for k in found if key in in_out.blockers(k)]
        own = made.get(thing.ref, "")
        value = thing.value
        outside = isinstance(value, Carried)
        mounts = tray if isinstance(value, Carried) and value.mount != "canopy" else base
        amounts = {
            "fit_outside" if outside else "fit_made" if is_made(thing) else "fit_bought": 1.0
        }
        needs = () if is_made(thing) else (f"thing:{key}",)
        found[key] = make.add(f"{owner_key(thing.ref)}:fit", "fit", f"Fit {value.name}", amounts,
                              (own, *mounts, *blocked), thing.ref, needs=needs)  # fmt: skip
    if body.canopy is None and not made.get(TRAY):
        found.setdefault("", base[0])
    return found


def _run_through(make: _Maker, case: Case, fitted: dict[str, str]) -> dict[str, list[str]]:
    """Circuits, hoses and gas lines, each after what it joins is fitted; by sort."""
    services, job = case.results["services"], case.assembly.job
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


def _last(make: _Maker, case: Case, fitted: dict[str, str], runs: dict[str, list[str]]) -> None:
    """What follows when everything is in: tests, weighing, finishing, certifying, washing, handing over."""
    job = case.assembly.job
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
    if runs["gas"] or any(isinstance(u, GasLocker) for u in job.units):
        test("test gas", "Leak-test the gas line", runs["gas"] or every, "gas")
    if runs["water"] or any(isinstance(u, Tank) for u in job.units):
        test("test water", "Fill, pump up, look for leaks", runs["water"] or every)
    if job.body.canopy is not None and job.body.canopy.doors:
        test("test hose", "Hose every door and seal", ("canopy:mount", *every), "", "hose_test")
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
        make.ops[key] = Op(
            key, "extra", x.name, None, (), x.hours, "" if x.days and not x.hours else x.trade, x.station,
            tuple(k for k in dict.fromkeys(x.after) if k in make.ops), 1, x.days,
        )  # fmt: skip
        behind = x.before or ("job:finish",)
        for later in behind:
            own = make.ops.get(later)
            if own is not None and later not in x.after:
                make.ops[later] = msgspec.structs.replace(own, after=(*own.after, key))
