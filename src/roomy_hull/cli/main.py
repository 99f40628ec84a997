"""One command, from its words to its exit code."""

import sys
from collections.abc import Sequence

from roomy_hull.cli.codes import DEMO, FAULT, FINE, UNUSABLE
from roomy_hull.cli.desktop import Desktop
from roomy_hull.cli.paths import job_path
from roomy_hull.core.errors import UserError


def main(argv: Sequence[str], desktop: Desktop) -> int:
    """Run one command.

    Args:
        argv: The arguments after the command's name.
    Returns: 0 fine, 1 stop findings, 2 unusable input, 3 a fault of the program.
    """
    try:
        # The window is to open at once: reading what parses other commands would take a tenth of its time.
        if not argv or (
            argv[0] == "open" and len(argv) <= 2 and not any(a[:1] == "-" for a in argv[1:])
        ):
            named = job_path(argv[1] if len(argv) > 1 else DEMO)
            return desktop.first() if not argv and desktop.first else desktop.run(named, None)
        from roomy_hull.cli.commands import run  # ruff: ignore[import-outside-top-level]  # the window is to open without what other commands read
        from roomy_hull.cli.parser import parser  # ruff: ignore[import-outside-top-level]  # the window is to open without what other commands read

        return run(parser().parse_args(list(argv)), desktop)
    except UserError as trouble:
        print(f"roomy-hull: {trouble}", file=sys.stderr)
        return UNUSABLE
    except BrokenPipeError:
        sys.stderr.close()
        return FINE
    except KeyboardInterrupt:
        return 130
    except Exception as fault:
        print(
            f"roomy-hull: a fault of the program, not of your job ({type(fault).__name__}: {fault}). "
            "Please report it with the job file.",
            file=sys.stderr,
        )
        return FAULT
