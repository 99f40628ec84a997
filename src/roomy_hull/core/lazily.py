"""Modules that are loaded on first use, so that the window opens before heavy libraries are read."""

import importlib.util
import sys
from types import ModuleType


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
    loader = importlib.util.LazyLoader(spec.loader)
    spec.loader = loader
    found = importlib.util.module_from_spec(spec)
    sys.modules[name] = found
    loader.exec_module(found)
    return found
