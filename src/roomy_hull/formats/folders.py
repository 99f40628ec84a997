"""The user's folders, as the desktop standard names them."""

from pathlib import Path

from platformdirs import PlatformDirs

_OURS = PlatformDirs("roomy-hull", appauthor=False)


def config() -> Path:
    """Name the folder of preferences."""
    return _OURS.user_config_path


def state() -> Path:
    """Name the folder of work set aside."""
    return _OURS.user_state_path


def data(name: str) -> Path:
    """Name one of the folders of the user's own things."""
    return _OURS.user_data_path / name
