"""Modules that are loaded on first use, so that the window opens before heavy libraries are read."""

import importlib.util
import sys
from importlib.machinery import ModuleSpec
from types import ModuleType
from typing import Any

LIBRARIES = {
    "numpy": "the first picture is painted without it; what computes at once reads it itself",
    "scipy": "for linear programmes and fits that few jobs ask for",
    "shapely": "for outlines that are not boxes: cut parts, bevels, arches",
    "trimesh": "for 3D files only",
    "ezdxf": "for cut files only",
    "highspy": "for arranging and nesting against a bound",
    "spyrrow": "for nesting by true shape",
    "segno": "for labels with a code on them",
    "serial": "for a weigh pad or another device on a line",
}
"""What is read when it is first needed and not at the start, and why it can wait."""
BASE = {"shapely": "numpy"}
"""What some are built on in C: they read it past its Python face, so that it has to be read before them."""


class _After:
    """Reads a module, and before it what it is built on."""

    def __init__(self, loader: Any) -> None:
        self._loader = loader

    def create_module(self, spec: ModuleSpec) -> ModuleType | None:
        """Make the module as its own loader does."""
        made: ModuleType | None = self._loader.create_module(spec)
        return made

    def exec_module(self, module: ModuleType) -> None:
        """Read the module."""
        spec = module.__spec__
        base = sys.modules.get(BASE.get(spec.name, "")) if spec is not None else None
        if base is not None:
            hasattr(base, "__version__")  # asked for, it is read
        self._loader.exec_module(module)


def module(name: str) -> ModuleType:
    """A module that is read when something of it is first used.

    Returns: The module; the same one as an `import` gives.
    Raises:
        ModuleNotFoundError: There is none such.
    """
    if name in sys.modules:
        return sys.modules[name]
    spec = importlib.util.find_spec(name)
    if spec is None or spec.loader is None:
        raise ModuleNotFoundError(name)
    loader: Any = importlib.util.LazyLoader(_After(spec.loader) if name in BASE else spec.loader)  # type: ignore[arg-type]  # a loader by its two methods
    spec.loader = loader
    found = importlib.util.module_from_spec(spec)
    sys.modules[name] = found
    loader.exec_module(found)
    return found
