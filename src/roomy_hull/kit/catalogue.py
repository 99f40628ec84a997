"""The stores: what can be placed, by use, with usual sizes (common practice)."""

import functools
from typing import Any

import msgspec

from roomy_hull.job.carried import Carried, CarriedKind
from roomy_hull.kinds.expansion import Expansion
from roomy_hull.kinds.kind import USES, Offer, Site
from roomy_hull.kinds.registry import KINDS, expand
from roomy_hull.shop.shop import Shop

_ROOF: dict[str, Any] = {"z": 1900.0, "mount": "canopy", "on_roof": True}


@functools.cache
def entries() -> tuple[Offer, ...]:
    """List everything in the stores, in the order shown: by use, then by kind."""
    kinds = sorted(KINDS.values(), key=lambda kind: kind.rank)
    units = [offer for kind in kinds for offer in kind.offers()]
    return (*sorted(units, key=lambda offer: USES.index(offer.use)), *_outside(), *_on_vehicle())


def _carried(key: str, name: str, kind: CarriedKind, size: tuple[float, float, float], mass: float, tip: str,
             **more: Any) -> Offer:  # fmt: skip
    """Describe a thing carried outside."""
    a, b, c = size
    made: dict[str, Any] = {"x": 0.0, "y": 0.0, "z": 900.0} | more
    return Offer(key, "Outside", Carried(id=key, name=name, kind=kind, length=a, width=b, height=c, mass=mass,
                                         **made), tip)  # fmt: skip


def _outside() -> tuple[Offer, ...]:
    return (
        _carried("spare", "Spare wheel", "spare wheel", (270, 804, 804), 34,
                 "The tyre rests on a ledge, not on its studs"),
        _carried("spare-swing", "Swing-out spare", "spare wheel", (270, 804, 804), 52,
                 "Swings aside, so that the rear door opens", turn=110.0, reach=120.0),
        _carried("jerry", "Jerry can 20 l", "jerry", (170, 345, 465), 4.5, "20 l of diesel in a holder", contents=16.8),
        _carried("ladder", "Ladder", "ladder", (60, 380, 1100), 6.5, "Up to the roof, fixed at the rear"),
        _carried("tent", "Roof tent", "tent", (1450, 1250, 320), 62,
                 "On the canopy's roof rails; mind the roof rating", side="left", **_ROOF),
        _carried("awning", "Awning", "awning", (2000, 130, 120), 17, "Straight out on two posts", side="left",
                 reach=2000.0, mount="canopy", z=1900.0),
        _carried("awning-270", "Awning 270°", "awning", (2100, 160, 170), 24, "Turns about one end, round the corner",
                 side="left", turn=270.0, hand="right", mount="canopy", z=1900.0, legs=False),
        _carried("awning-180", "Awning 180°", "awning", (2000, 150, 160), 19, "Turns about one end", side="left",
                 turn=180.0, hand="right", mount="canopy", z=1900.0, legs=False),
        _carried("shower", "Shower tent", "shower tent", (450, 70, 90), 4.5,
                 "On a folding bracket, left- or right-handed", side="left", reach=950.0, turn=90.0, mount="canopy",
                 z=1900.0),
        _carried("light-bar", "Light bar", "light bar", (70, 1200, 80), 5.5, "Across the roof's edge", **_ROOF),
        _carried("aerial", "Aerial", "aerial", (40, 40, 1100), 0.6, "Mind doors and tent", mount="vehicle"),
        _carried("boards", "Recovery boards", "recovery boards", (1150, 320, 90), 8, "Outside: never above clean gear",
                 **_ROOF),
        _carried("load", "Roof load", "load", (1200, 600, 250), 25, "A load on the roof", **_ROOF),
        _carried("load-long", "Long roof load", "load", (3000, 600, 250), 32, "On rack, headboard and canopy in one line",
                 **_ROOF),
    )  # fmt: skip


def _on_vehicle() -> tuple[Offer, ...]:
    """What is bolted to the vehicle itself: it counts in its loads and its angles."""
    own: dict[str, Any] = {"mount": "vehicle"}
    found = (
        _carried("bull-bar", "Bull bar", "bull bar", (260, 1720, 620), 58,
                 "Its lower edge decides the approach angle", **own),
        _carried("winch", "Winch", "winch", (180, 560, 220), 42, "Behind the bull bar's plate", **own),
        _carried("rear-winch", "Rear winch", "winch", (200, 560, 220), 40,
                 "Between the chassis rails, pulling rearward", **own),
        _carried("steps", "Side step", "steps", (1150, 150, 90), 13,
                 "Its lower edge decides the ramp angle; one a side", **own),
        _carried("bonnet-battery", "Second battery under the bonnet", "battery", (330, 175, 220), 24,
                 "Heat shortens its life; fused at both ends by a licensed person", place="bonnet", **own),
        _carried("hitch", "Hitch that stays in", "hitch", (320, 70, 70), 11, "Far behind the axle, and low", **own),
        _carried("snorkel", "Snorkel", "snorkel", (120, 110, 950), 5,
                 "Beside the screen: mind the door and the rack", **own),
        _carried("door-pocket", "Door pocket", "bag", (400, 90, 180), 0.0,
                 "The vehicle's own; one a door, from the front rearward", place="cab", contents=2.0, **own),
        _carried("console", "Console box", "bag", (420, 230, 260), 3.5, "Between the seats, lid at elbow height",
                 place="cab", contents=4.0, **own),
        _carried("wall-table", "Table on the rear wall", "table", (60, 800, 480), 7.5, "Folds down where rails carry it",
                 mount="canopy"),
        _carried("wall-bag", "Bag on the rear wall", "bag", (260, 420, 460), 2.2, "For rubbish, wood or muddy boots",
                 mount="canopy", contents=8.0),
    )  # fmt: skip
    return tuple(
        msgspec.structs.replace(o, use="Vehicle") if o.make.mount == "vehicle" else o for o in found
    )


def entry(key: str) -> Offer:
    """Look an entry of the shipped stores up."""
    return next(e for e in entries() if e.key == key)


class Samples:
    """Units of the stores expanded for their picture and mass, each once.

    Args:
        shop: Whose materials they would be made of.
    """

    def __init__(self, shop: Shop) -> None:
        self._site = Site(25.0, shop)
        self._known: dict[str, tuple[Any, Expansion]] = {}

    def expansion(self, offer: Offer) -> Expansion | None:
        """Expand a unit of the stores; nothing for a carried item."""
        if isinstance(offer.make, Carried):
            return None
        known = self._known.get(offer.key)
        if known is None or known[0] is not offer.make:
            known = (offer.make, expand(offer.make, self._site))
            self._known[offer.key] = known
        return known[1]

    def mass(self, offer: Offer) -> float:
        """Sum the mass of a thing with its usual contents. [kg]"""
        found = self.expansion(offer)
        if found is None:
            return float(offer.make.mass + offer.make.contents)
        return sum(m.kg for m in found.masses)
