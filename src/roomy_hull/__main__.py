"""The entry point: hands the desktop to the command line, loaded only when it is wanted."""

import os
import sys
from pathlib import Path

from roomy_hull import cli


def _run(path: Path | None) -> int:
    """Open the window; Qt is loaded here so that `check` and `cut` start without it."""
    from roomy_hull.desktop import application  # noqa: PLC0415  # see above

    return application.run(path)


def _shots(path: Path | None, folder: Path) -> list[Path]:
    """Take pictures without a display."""
    os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
    from roomy_hull.desktop import shots  # noqa: PLC0415  # Qt, as above

    return shots.write(path, folder)


def main() -> int:
    """Run the command line with its own arguments."""
    return cli.main(sys.argv[1:], cli.Desktop(_run, _shots))


if __name__ == "__main__":
    sys.exit(main())
