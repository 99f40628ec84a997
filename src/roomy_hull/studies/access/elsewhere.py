"""Where a good would be better: places that everybody reaches in few enough moves, and drawers too heavy to pull."""

from typing import Any

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.core.findings import PRACTICE, Finding, Fix
from roomy_hull.core.refs import BODY
from roomy_hull.job.goods import people
from roomy_hull.studies.access.stowing import FILLED, MOST_ACTIONS, goes_in
from roomy_hull.studies.access.told import finding, ref

OFFERED = 3
MENDED = frozenset({
    "access.moves",
    "access.reach",
    "access.size",
    "access.way",
    "access.lost",
    "access.bogged",
})
"""Findings that another place mends."""


def places_for(assembly: Assembly, result: Any, found: Finding) -> tuple[Fix, ...]:
    """Offer other places for a good.

    Args:
        found: Any finding; others than `MENDED` have no fixes here.
    Returns:
        At most three that everybody reaches, in few enough moves, where it goes in and finds room; the nearest
        first.
    """
    key = next((s.id for s in found.subjects if s.kind == "good"), "")
    good = next((g for g in assembly.job.goods if g.id == key), None)
    if found.code not in MENDED or good is None:
        return ()
    most = MOST_ACTIONS.get(good.use, 99)
    takes = {f.space: f.takes for f in result.filled}
    own = next(
        (r.space for g, r in zip(assembly.job.goods, result.stowed, strict=True) if g.id == key), -1
    )
    rows = []
    for n, (space, way, seen) in enumerate(
        zip(result.spaces, result.moves, result.seen, strict=True)
    ):
        room = takes.get(n, 0.0) + good.volume <= FILLED * space.litres
        free = way.possible and way.count <= most and not (good.use == "now" and way.lifted)
        reached = all(s.how in ("in reach", "crouching", "on tiptoe") for s in seen)
        dry = found.code != "access.bogged" or space.side == "rear" or not space.needs
        suits = n != own and not space.device and free and reached
        if suits and room and dry and goes_in(good, space):
            rows.append((way.count, way.metres, n))
    return tuple(
        Fix(f"Stow it in {result.spaces[n].name}: {result.moves[n].said}", BODY,
            {f"goods.{key}.place": result.spaces[n].owner, f"goods.{key}.part": result.spaces[n].part})
        for _count, _metres, n in sorted(rows)[:OFFERED]
    )  # fmt: skip


def heavy_to_pull(assembly: Assembly, mounts: Any) -> list[Finding]:
    """Drawers that, full and uphill, are more than the weakest of the party pulls with one hand.

    Args:
        mounts: What the study of strength says of each slide. [N]
    """
    weakest = min(people(assembly.job.party), key=lambda p: p.pull)
    heavy = [c for c in mounts if c.slide is not None and c.slide.pull > weakest.pull]
    if not heavy:
        return []
    worst = max(heavy, key=lambda c: c.slide.pull)
    names = ", ".join(c.name for c in heavy)
    return [
        finding("pull", "note", f"Full and uphill more than {weakest.called} pulls with one hand: {names}",
                ref(assembly, worst.id), (worst.slide.pull, weakest.pull, "N"), PRACTICE)
    ]  # fmt: skip
