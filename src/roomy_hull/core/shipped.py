"""Files that ship with the program."""

from pathlib import Path

FOLDER = Path(__file__).parent.parent / "resources"


def shipped(*names: str) -> bytes:
    """Read a file of the program's resources.

    Args:
        *names: Folders and file name below ``resources``.
    Raises:
        FileNotFoundError: The installation is damaged.
    """
    return FOLDER.joinpath(*names).read_bytes()
