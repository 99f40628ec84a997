"""Doing an action of the menus by its id; what takes something is a function, called by its name."""

import functools
from typing import Any

from roomy_hull.session.actions.registry import Registry
from roomy_hull.session.session import Session


@functools.cache
def registry() -> Registry:
    """Every action of the menus, declared once."""
    from roomy_hull.session.actions.standard import (  # ruff: ignore[import-outside-top-level]  # not to slow the start
        standard,
    )

    return standard()


def do(session: Session, action: str) -> Any:
    """Do an action by its id, if it is enabled; nothing where it is not."""
    found = registry().get(action)
    return found.run(session) if found.enabled(session) else None
