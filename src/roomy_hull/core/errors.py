"""The tree of errors: what a user can mend is kept apart from what is our own fault."""


class RoomyHullError(Exception):
    """Base of every error that the program raises on purpose."""


class UserError(RoomyHullError):
    """Trouble that the person at the screen can mend.

    Args:
        what: What is wrong, in the words of the trade.
        place: Where: a file and line, a field, a unit.
        remedy: What to do about it.
    """

    def __init__(self, what: str, place: str = "", remedy: str = "") -> None:
        super().__init__(what)
        self.what = what
        self.place = place
        self.remedy = remedy

    def __str__(self) -> str:
        """Say the trouble on one line: place, what, remedy."""
        what, place, remedy = (_short(words) for words in (self.what, self.place, self.remedy))
        head = f"{place}: {what}" if place else what
        head = head.rstrip(".") + "."
        return f"{head} {remedy}" if remedy else head


MOST_SAID = 280
"""No part of a message is longer: what it quotes may be. [letters]"""


def _short(words: str) -> str:
    """Leave out the middle of words that are too long to be read."""
    if len(words) <= MOST_SAID:
        return words
    return f"{words[: MOST_SAID - 60]} … {words[-50:]}"


class InputError(UserError):
    """A typed value that cannot be used."""


class FileError(UserError):
    """A file that cannot be read or written."""


class JobFileError(FileError):
    """A job, vehicle or unit file that cannot be read or written."""


class EditError(UserError):
    """An edit that would leave a job invalid."""


class PictureError(FileError):
    """A picture that cannot be written."""


class GivenUp(RoomyHullError):  # ruff: ignore[error-suffix-on-exception-name]  # it is no error
    """Long work that the person gave up: no trouble, nothing to mend."""
