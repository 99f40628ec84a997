"""A start where something is missing: a sentence and exit 2, never an abort."""

import os
import subprocess
import sys

import pytest

from roomy_hull.cli import displays
from roomy_hull.core.errors import UserError
from roomy_hull.formats import folders


def start(*words: str, **env: str) -> subprocess.CompletedProcess[str]:
    kept = {
        k: v
        for k, v in os.environ.items()
        if k not in {"DISPLAY", "WAYLAND_DISPLAY", "QT_QPA_PLATFORM", "HOME"}
    }
    return subprocess.run(
        [sys.executable, "-m", "roomy_hull", *words], env=kept | env, capture_output=True, text=True, check=False,
        timeout=60,
    )  # fmt: skip


@pytest.mark.parametrize(
    "env",
    [{}, {"DISPLAY": ":7731"}, {"WAYLAND_DISPLAY": "wayland-77", "XDG_RUNTIME_DIR": "/nowhere"}],
)
def test_without_a_display_the_window_is_refused_in_a_sentence(env: dict[str, str]) -> None:
    done = start("open", "demo", **env)
    assert done.returncode == 2
    assert done.stderr.startswith("roomy-hull: ")
    assert "display" in done.stderr
    assert done.stderr.count("\n") == 1
    with pytest.raises(UserError, match="display"):
        displays.check(env)


def test_what_needs_no_display_asks_for_none() -> None:
    displays.check({"QT_QPA_PLATFORM": "offscreen"})
    displays.check({"DISPLAY": "far:0"})  # another machine's: only trying tells
    done = start("check", "demo:tarn")
    assert done.returncode == 0
    assert "Traceback" not in done.stderr


def test_a_person_without_a_home_has_a_folder_all_the_same(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(folders.os.path, "expanduser", lambda _word: "~")  # type: ignore[attr-defined]
    monkeypatch.delenv("XDG_CONFIG_HOME", raising=False)
    assert folders.config().is_absolute()
