"""One thing, known to all: every entry of the stores and every piece of a body has an answer from every stage."""

import ast
from pathlib import Path
from typing import Any

import msgspec
import pytest

import roomy_hull
from roomy_hull.core.capabilities import PLAIN
from roomy_hull.job.body import Tray
from roomy_hull.kinds.registry import KINDS
from roomy_hull.kinds.tank import Tank
from roomy_hull.kit.body import undertray
from roomy_hull.kit.body.pieces import BodyParts, BodyThing
from roomy_hull.verdict.verdict import judge
from tests.known import (
    CARRIED_AT,
    answers,
    bodies,
    by_chance,
    contradictions,
    parted,
    places,
    stocked,
)
from tests.sweeping import SWEEP, some

SOURCE = Path(roomy_hull.__file__).parent
OWN_PARTS = {
    "desktop/pages/services/board.py", "job/edits/boards.py", "drawing/scenes/board.py", "session/actions/servicing.py",
    "session/pages/services/board.py", "session/typed.py", "session/typed_boxes.py",
}  # fmt: skip
"""What edits or draws a kind's own parts: a board's instruments, the blocks of one's own unit."""


def test_no_concrete_kind_is_asked_for_above_the_kit() -> None:
    support = {"kind", "expansion", "placed", "registry", "common", "boxes", "card"}
    found = set()
    for path in SOURCE.rglob("*.py"):
        name = path.relative_to(SOURCE).as_posix()
        if name.startswith(("kinds/", "kit/")) or name in OWN_PARTS:
            continue
        for node in ast.walk(ast.parse(path.read_text())):
            if isinstance(node, ast.ImportFrom) and (node.module or "").startswith(
                "roomy_hull.kinds."
            ):
                kind = (node.module or "").rpartition(".")[2]
                if kind not in support:
                    found.add(f"{name}: {kind}")
    assert not found


CASES = [
    (b, turn)
    for b, job in enumerate(bodies())
    for turn in range(max(len(places(job)), len(CARRIED_AT)))
]


@pytest.mark.parametrize(("body", "turn"), some(CASES, 4))
def test_every_entry_in_every_place_has_an_answer_from_every_stage(body: int, turn: int) -> None:
    verdict = judge(stocked(bodies()[body], turn))
    silent = [
        f"{key}: {what}"
        for key, rows in answers(verdict).items()
        for what, said in rows.items()
        if not said
    ]
    assert not silent


def test_the_bodies_hold_every_piece_that_can_hang_stand_or_lie() -> None:
    there = {t.id.partition("-")[0] for job in bodies() for t in judge(job).assembly.ground.things}
    assert {"tray.tank", "tray.trundle", "tray.box", "canopy", "camper"} <= {
        k.rstrip("0123456789") for k in there
    }
    kinds = {r.kind for job in bodies() for r in job.body.racks}
    assert kinds == {"tub rack", "cab rack", "gap rack", "hoop", "rear wall"}
    assert {r.kind for job in bodies() for r in job.body.rooms} == {
        "box",
        "dog box",
        "side box",
        "camper",
        "cab",
        "hatch",
    }


@pytest.mark.parametrize("body", range(len(bodies())) if SWEEP else [0])
def test_what_is_off_in_a_set_up_is_nowhere_in_it(body: int) -> None:
    verdict = judge(parted(stocked(bodies()[body], 1)))
    less = verdict.within("less").assembly
    off = set(verdict.job.setups[1].off)
    assert off
    assert off.isdisjoint(t.id for t in less.everything)
    assert off.isdisjoint(m.owner.id for m in less.masses())


@pytest.mark.parametrize("seed", range(2000) if SWEEP else range(6))
def test_no_two_stages_contradict_each_other_on_a_job_by_chance(seed: int) -> None:
    assert contradictions(judge(by_chance(seed))) == []


def test_a_capability_that_is_left_out_is_missed(monkeypatch: pytest.MonkeyPatch) -> None:
    whole = undertray.things

    def plain(tray: Tray, where: BodyParts) -> tuple[BodyThing, ...]:
        return tuple(
            msgspec.structs.replace(t, capabilities=PLAIN, moves=False) for t in whole(tray, where)
        )

    monkeypatch.setattr(undertray, "things", plain)
    kinds: Any = KINDS
    tank = kinds[Tank]
    monkeypatch.setitem(
        kinds, Tank, msgspec.structs.replace(tank, says=lambda _unit, _side="": PLAIN)
    )
    rows = answers(judge(stocked(bodies()[2], 1)))
    silent = {
        f"{key}: {what}" for key, said in rows.items() for what, word in said.items() if not word
    }
    assert {
        "tray.tank: litres",
        "tray.trundle: slides",
        "tray.trundle: sealed",
        "tray.trundle: locked",
    } <= silent
    assert any(k.startswith("tank-60") and k.endswith("water tested") for k in silent)
