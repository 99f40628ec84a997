"""What arranging came to, as JSON and as a table."""

import math
from typing import Any

from roomy_hull.arrange.instance import PARTS
from roomy_hull.arrange.objective import Value
from roomy_hull.arrange.offers import Arranged, Offer

HEADS = ("layout", "sort", "points", *PARTS, "stops", "looks")


def _worth(worth: Value) -> dict[str, float]:
    return {k: round(getattr(worth, k), 4) for k in (*PARTS, "points")}


def _offer(offer: Offer) -> dict[str, Any]:
    return {
        "sort": offer.sort, "worth": _worth(offer.value), "stops": list(offer.stops), "looks": list(offer.looks),
        "units": [{"id": u.id, "bay": u.bay, "u": u.u, "v": u.v, "w": u.w} for u in offer.job.units],
    }  # fmt: skip


def arrange_json(found: Arranged) -> dict[str, Any]:
    """Write what a run came to. [points; kg, kg·m, mm]

    Returns: Words, proof, the layouts with every unit's place, and why it does not fit where it does not.
    """
    return {
        "words": found.words, "proved": found.proved, "bound": found.bound if math.isfinite(found.bound) else None,
        "stack": found.most, "cell_mm": found.cell, "as_it_is": _worth(found.hand) if found.hand is not None else None,
        "layouts": [_offer(o) for o in found.offers],
        "does_not_fit": None if found.reason is None else {
            "kind": found.reason.kind, "certain": found.reason.certain, "things": list(found.too_many),
        },
        "judged": found.judged, "seconds": round(found.seconds, 2), "stopped": found.stopped,
    }  # fmt: skip


def arrange_rows(found: Arranged) -> list[list[object]]:
    """The layouts as rows of a table, heads first."""
    rows: list[list[object]] = [list(HEADS)]
    for n, o in enumerate(found.offers, 1):
        worth = [f"{getattr(o.value, k):.3f}" for k in PARTS]
        said = ("; ".join(o.stops), "; ".join(o.looks))
        rows.append([n, o.sort, f"{o.value.points:.3f}", *worth, *said])
    return rows
