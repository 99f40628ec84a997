"""The user's folders, against platformdirs."""

from collections.abc import Callable
from pathlib import Path

import pytest
from platformdirs.unix import Unix

from roomy_hull.formats import folders

ROWS = [
    ("XDG_CONFIG_HOME", folders.config, "user_config_dir"),
    ("XDG_STATE_HOME", folders.state, "user_state_dir"),
    ("XDG_DATA_HOME", lambda: folders.data("units").parent, "user_data_dir"),
]


@pytest.mark.parametrize(("variable", "ours", "theirs"), ROWS)
@pytest.mark.parametrize("value", [None, "", "  ", "/srv/elsewhere", "/srv/with space"])
def test_the_folders_are_those_of_the_standard(
    variable: str, ours: Callable[[], Path], theirs: str, value: str | None,
    monkeypatch: pytest.MonkeyPatch,
) -> None:  # fmt: skip
    monkeypatch.setenv("HOME", "/home/somebody")
    if value is None:
        monkeypatch.delenv(variable, raising=False)
    else:
        monkeypatch.setenv(variable, value)
    assert ours() == Path(getattr(Unix("roomy-hull", appauthor=False), theirs))


def test_a_folder_that_does_not_start_at_the_root_is_passed_over_as_the_standard_says(
    monkeypatch: pytest.MonkeyPatch,
) -> None:
    monkeypatch.setenv("HOME", "/home/somebody")
    monkeypatch.setenv("XDG_CONFIG_HOME", "here/below")
    assert folders.config() == Path("/home/somebody/.config/roomy-hull")
