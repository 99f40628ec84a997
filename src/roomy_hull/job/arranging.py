"""Arranging: what has to go in, what stays where it is, and what the owner wants of a layout."""

from typing import Annotated, Literal

from msgspec import Meta

from roomy_hull.core.value import Gap, Id, Value
from roomy_hull.kinds.registry import Unit

Weight = Annotated[float, Meta(ge=0, le=4, description="0 to 4")]
Short = Literal["", "rear", "front"]


class Weights(Value, frozen=True, kw_only=True):
    """How much each part of a layout counts, as a multiple of what is usual.

    0 is not at all. `axle` is mass on the short axle, `balance` the sides, `low` heavy things low, `reach` what is out of
    reach, `runs` cables and hoses, `room` free wall left in one piece.
    """

    axle: Weight = 1.0
    balance: Weight = 1.0
    low: Weight = 1.0
    reach: Weight = 1.0
    runs: Weight = 1.0
    room: Weight = 1.0


class BayWish(Value, frozen=True, kw_only=True):
    """In which bays a unit may go; any where it has no such wish."""

    thing: Id
    bays: Annotated[tuple[Id, ...], Meta(min_length=1, max_length=40)]


class ApartWish(Value, frozen=True, kw_only=True):
    """Two units that leave so much wall between them where they are in one bay. [mm]"""

    a: Id
    b: Id
    gap: Gap = 300.0


class NearWish(Value, frozen=True, kw_only=True):
    """Two units that belong near each other."""

    a: Id
    b: Id


class Arranging(Value, frozen=True, kw_only=True):
    """What is to be arranged.

    `wanted` are units that are not in the layout yet; their bay is not used. `pinned` stay where they are, all others are
    placed anew. `axle` says which axle should have less; empty for the one that the job's findings show to be short.
    `own_weights` says that the weights were set by hand, else they follow the findings. `gas` keeps a gas locker away
    from what can ignite gas.
    """

    wanted: Annotated[tuple[Unit, ...], Meta(max_length=200)] = ()
    pinned: Annotated[tuple[Id, ...], Meta(max_length=1000)] = ()
    bays: Annotated[tuple[BayWish, ...], Meta(max_length=1000)] = ()
    apart: Annotated[tuple[ApartWish, ...], Meta(max_length=60)] = ()
    near: Annotated[tuple[NearWish, ...], Meta(max_length=60)] = ()
    weights: Weights = Weights()
    own_weights: bool = False
    axle: Short = ""
    gas: bool = True

    def __post_init__(self) -> None:
        """Refuse ids that stand twice, and a thing kept away from itself.

        Raises:
            ValueError: Names the id and the remedy.
        """
        for words, ids in (
            ("units to be arranged", [u.id for u in self.wanted]),
            ("wishes for bays", [w.thing for w in self.bays]),
        ):
            for one in ids:
                if ids.count(one) > 1:
                    raise ValueError(
                        f"the id '{one}' stands twice among the {words}; give each its own"
                    )
        pairs = [(w.a, w.b) for w in self.apart] + [(w.a, w.b) for w in self.near]
        for a, b in pairs:
            if a == b:
                raise ValueError(f"'{a}' is to be near or away from itself; name two things")
