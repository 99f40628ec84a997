"""Want files: what has to go in, from the stores or written out, with the wishes about it."""

from pathlib import Path
from typing import Annotated

import msgspec
from msgspec import Meta

from roomy_hull.core.errors import JobFileError
from roomy_hull.core.value import Gap, Id, Name, Value
from roomy_hull.formats import thingfile
from roomy_hull.formats.atomic import read_whole
from roomy_hull.job.arranging import ApartWish, BayWish, NearWish, Short, Weights
from roomy_hull.job.carried import Carried
from roomy_hull.job.edits import arranging as edits
from roomy_hull.job.model import Job
from roomy_hull.kinds.kind import Offer
from roomy_hull.kinds.registry import Unit
from roomy_hull.kit.catalogue import entries

FORMAT = "roomy-hull-want"
FIELD = "want"


class Thing(Value, frozen=True, kw_only=True):
    """Something that has to go in: an entry of the stores by its key, or a unit written out.

    `id` and `name` are its own, the entry's where empty. `width`, `depth` and `height` are those of the entry where 0. [mm]
    """

    stores: Annotated[str, Meta(max_length=60)] = ""
    unit: Unit | None = None
    id: Annotated[str, Meta(max_length=60)] = ""
    name: Name = ""
    count: Annotated[int, Meta(ge=1, le=40, description="1 to 40")] = 1
    width: Gap = 0.0
    depth: Gap = 0.0
    height: Gap = 0.0
    bays: Annotated[tuple[Id, ...], Meta(max_length=40)] = ()


class Want(Value, frozen=True, kw_only=True):
    """What is wanted of a layout; see `job.arranging` for the wishes.

    `pinned` are units of the job that stay where they are; `pin_all` has all of them stay, so that only `things` are placed.
    `weights` follow the job's findings where they are left out.
    """

    things: Annotated[tuple[Thing, ...], Meta(max_length=200)] = ()
    pinned: Annotated[tuple[Id, ...], Meta(max_length=1000)] = ()
    pin_all: bool = False
    bays: Annotated[tuple[BayWish, ...], Meta(max_length=1000)] = ()
    apart: Annotated[tuple[ApartWish, ...], Meta(max_length=60)] = ()
    near: Annotated[tuple[NearWish, ...], Meta(max_length=60)] = ()
    weights: Weights | None = None
    axle: Short = ""
    gas: bool = True


def loads(data: bytes, place: str) -> Want:
    """Read a want file from its bytes.

    Raises:
        JobFileError: The file is damaged, foreign or newer, or a value in it is not allowed; names the place.
    """
    found: Want = thingfile.read(data, place, FORMAT, FIELD, Want)
    return found


def load(path: Path) -> Want:
    """Read a want file. Raises `JobFileError` where it cannot be read or `loads` refuses it."""
    return loads(read_whole(path), path.name)


def with_want(job: Job, want: Want, place: str) -> Job:
    """Put what a file wants into a job.

    Returns: With it in `job.arrange`; wishes of the job's own stay beside it.
    Raises:
        JobFileError: A thing is neither of the stores nor written out, or goes into no bay, two have one id, or a wish
            names nobody.
    """
    stores = {e.key: e for e in entries()}
    bays = list(job.arrange.bays)
    for n, thing in enumerate(want.things, 1):
        made = _made(thing, stores, f"{place}, thing {n}")
        for _ in range(thing.count):
            taken = {u.id for u in (*job.units, *job.arrange.wanted)}
            if thing.id and thing.count == 1 and thing.id in taken:
                raise JobFileError(
                    f"the id '{thing.id}' stands twice",
                    f"{place}, thing {n}",
                    "Give it another one.",
                )
            job = edits.wanted(job, made)
            if thing.bays:
                bays.append(BayWish(thing=job.arrange.wanted[-1].id, bays=thing.bays))
    here = job.arrange
    pinned = tuple(u.id for u in job.units) if want.pin_all else (*here.pinned, *want.pinned)
    unknown = [k for k in want.pinned if job.thing(k) is None]
    if unknown:
        raise JobFileError(
            f"there is no unit '{unknown[0]}' to pin", place, "Name a unit of the job."
        )
    own = {w.thing for w in want.bays}
    try:
        new = here.but(
            pinned=tuple(dict.fromkeys(pinned)), bays=(*(w for w in bays if w.thing not in own), *want.bays),
            apart=(*here.apart, *want.apart), near=(*here.near, *want.near), axle=want.axle or here.axle, gas=want.gas,
            weights=want.weights or here.weights, own_weights=want.weights is not None or here.own_weights,
        )  # fmt: skip
    except msgspec.ValidationError as trouble:
        raise JobFileError(str(trouble), place, "Mend it; see docs/formats.md.") from None
    every = {u.id for u in (*job.units, *job.arrange.wanted)}
    named = [k for w in want.apart for k in (w.a, w.b)]
    named += [k for w in want.near for k in (w.a, w.b)] + [w.thing for w in want.bays]
    for key in named:
        if key not in every:
            raise JobFileError(
                f"a wish names '{key}', which is not there",
                place,
                "Drop the wish, or add the thing.",
            )
    return edits.wish_of(job, new)


def _made(thing: Thing, stores: dict[str, Offer], place: str) -> Unit:
    """The unit that a file means."""
    if thing.unit is not None:
        made = thing.unit
    elif thing.stores in stores:
        found = stores[thing.stores].make
        if isinstance(found, Carried):
            raise JobFileError(
                f"'{thing.stores}' goes into no bay",
                place,
                "It is carried outside: place it by hand.",
            )
        made = found
    else:
        begin = thing.stores.split("-", maxsplit=1)[0]
        near = ", ".join(k for k in stores if begin and k.startswith(begin))
        what = f"the stores have no '{thing.stores}'"
        raise JobFileError(what if begin else "a thing is neither 'stores' nor 'unit'", place,
                           f"Near it: {near}." if near else "The keys are in docs/formats.md.")  # fmt: skip
    changes = {
        k: getattr(thing, k)
        for k in ("id", "name", "width", "depth", "height")
        if getattr(thing, k)
    }
    try:
        return made.but(**changes) if changes else made
    except msgspec.ValidationError as trouble:
        raise JobFileError(str(trouble), place, "Mend the value; see docs/formats.md.") from None
