"""Modules that are loaded on first use, so that the window opens before heavy libraries are read."""

import importlib.abc
import importlib.util
import sys
from importlib.machinery import ModuleSpec
from types import ModuleType

BASE = "numpy"
"""What others are built on in C: they read it past its Python face, so that it has to be read before them."""


class _After(importlib.abc.Loader):
    """Reads a module, and before it what it is built on."""

    def __init__(self, loader: importlib.abc.Loader) -> None:
        self._loader = loader

    def create_module(self, spec: ModuleSpec) -> ModuleType | None:
        """Make the module as its own loader does."""
        return self._loader.create_module(spec)

    def exec_module(self, module: ModuleType) -> None:
        """Read the module."""
        base = sys.modules.get(BASE)
        if base is not None and base is not module:
            hasattr(base, "ndarray")  # asked for, it is read
        self._loader.exec_module(module)


def module(name: str) -> ModuleType:
    """A module that is read when something of it is first used.

    Parameters
    ----------
    name : str
        Its full name.

    Returns
    -------
    ModuleType
        The module; the same one as an `import` gives.

    Raises
    ------
    ModuleNotFoundError
        There is none such.
    """
    if name in sys.modules:
        return sys.modules[name]
    spec = importlib.util.find_spec(name)
    if spec is None or spec.loader is None:
        raise ModuleNotFoundError(name)
    loader = importlib.util.LazyLoader(_After(spec.loader))
    spec.loader = loader
    found = importlib.util.module_from_spec(spec)
    sys.modules[name] = found
    loader.exec_module(found)
    return found
