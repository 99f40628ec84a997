"""Where is what: names in their places, none over another, a picture no wider than what it tells of."""

import itertools

import pytest

from roomy_hull.core.primitives import Words
from roomy_hull.drawing.scenes.access import named_at, where_is_what
from roomy_hull.drawing.view import ELEVATION, Station
from roomy_hull.formats.demo import demo_job
from roomy_hull.verdict.verdict import judge

NARROW = 0.4
"""A sign is at least so wide, of its height, in most fonts without serifs."""


@pytest.mark.parametrize("name", ["", "lowfold", "tarn"])
@pytest.mark.parametrize("station", ["left", "right", "rear"])
def test_names_stand_in_their_places_and_none_over_another(name: str, station: Station) -> None:
    verdict = judge(demo_job(name) if name else demo_job())
    found, goods = verdict.access, verdict.job.goods
    scene, window = where_is_what(verdict.assembly, goods, found.stowed, found.spaces, station)
    rows = [s for s in scene if isinstance(s, Words) and s.role == "goods words"]
    own = {
        n: [g for g, r in zip(goods, found.stowed, strict=True) if r.space == n]
        for n, s in enumerate(found.spaces)
        if s.side == station
    }
    told = sum(len(v) for v in own.values())
    assert not told or rows
    for a, b in itertools.combinations(rows, 2):
        high = abs(a.at[1] - b.at[1]) >= 0.5 * (a.size + b.size)
        wide = abs(a.at[0] - b.at[0]) >= NARROW * (len(a.text) * a.size + len(b.text) * b.size) / 2
        assert high or wide, (a.text, b.text)
    view = ELEVATION[station]
    for n, some in own.items():
        if not some:
            continue
        rect = view.rect(found.spaces[n].rest)
        assert window[0] < rect[0] < rect[2] < window[2]
        assert window[1] < rect[1] < rect[3] < window[3]
        for good in some:
            mine = [w for w in rows if good.name in w.text and rect[1] < w.at[1] < rect[3]]
            for w in mine:
                assert named_at(some, rect, w.at[1]) is good
    bays = [
        p.frame.box(p.size) for p in verdict.assembly.ground.bays.values() if p.bay.side == station
    ]
    if bays:
        most = max(view.rect(b)[2] for b in bays) - min(view.rect(b)[0] for b in bays)
        assert window[2] - window[0] < most + 500
