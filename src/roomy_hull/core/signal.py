"""Signals: something that listeners hear about, without being kept alive by it.

Our own thirty lines rather than a library: the known ones read some sixty milliseconds of the standard
library at start, a quarter of what the whole start may take.
"""

import types
import weakref
from collections.abc import Callable

Listener = Callable[[], None]


class Connection:
    """One listener of a signal; `end` lets go of it."""

    def __init__(self, signal: "Signal", listener: Listener) -> None:
        self._signal = signal
        bound = isinstance(listener, types.MethodType)
        self._listener: Callable[[], Listener | None]
        self._listener = weakref.WeakMethod(listener) if bound else lambda: listener

    def end(self, *_ignored: object) -> None:
        """Stop listening; what another signal sends along with its own notice is ignored."""
        self._signal.drop(self)

    def call(self) -> bool:
        """Call the listener; False where it is gone."""
        listener = self._listener()
        if listener is None:
            return False
        listener()
        return True


class Signal:
    """Something that listeners hear about. A bound method is held weakly: it goes with its object."""

    def __init__(self) -> None:
        self._connections: list[Connection] = []

    def connect(self, listener: Listener) -> Connection:
        """Have a function called on every emission, in the order of connecting.

        Args:
            listener: Takes nothing. A bound method does not keep its object alive; a plain function is kept.
        """
        connection = Connection(self, listener)
        self._connections.append(connection)
        return connection

    def drop(self, connection: Connection) -> None:
        """Let go of a listener; one that is gone already changes nothing."""
        if connection in self._connections:
            self._connections.remove(connection)

    def emit(self) -> None:
        """Call every listener; those whose object is gone are forgotten."""
        for connection in tuple(self._connections):
            if connection in self._connections and not connection.call():
                self.drop(connection)
