"""Whatever a hand does in the window, nothing fails and undo leads back: a short form of bench/hands.py."""

import random
from pathlib import Path

import pytest

import hands
from roomy_hull.desktop.window import MainWindow
from roomy_hull.session.doing import do
from tests.sweeping import examples


@pytest.mark.parametrize("seed", [3, 8])
def test_any_hand_does_no_harm(
    window: MainWindow, tmp_path: Path, monkeypatch: pytest.MonkeyPatch, seed: int
) -> None:
    monkeypatch.setenv("XDG_DATA_HOME", str(tmp_path))
    hand = hands.AnyHand(window, random.Random(seed), tmp_path)
    for _ in range(examples(250, 100)):
        hand.anything()
    hand.back()
    assert hand.faults.rows == []


def test_a_fault_of_the_program_would_be_seen(
    window: MainWindow, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    hand = hands.AnyHand(window, random.Random(1), tmp_path)

    def fails() -> str:
        raise RuntimeError("boom")

    for way in (
        "act",
        "turn",
        "select",
        "type",
        "pick",
        "click",
        "press",
        "wheel",
        "drag",
        "undo",
        "damage",
    ):
        monkeypatch.setattr(hand, way, fails, raising=True)
    fails.__name__ = "fails"
    hand.anything()
    assert len(hand.faults.rows) == 1
    assert "boom" in hand.faults.rows[0]


def test_a_name_that_cannot_be_kept_keeps_no_layout(
    window: MainWindow, monkeypatch: pytest.MonkeyPatch
) -> None:
    session = window.session
    before = session.job
    monkeypatch.setattr(session.asker, "name", lambda *_a: "a" * 300)
    do(session, "unit.keep_variant")
    assert session.job is before
    assert "is kept" not in session.messages.text
    assert session.messages.trouble
