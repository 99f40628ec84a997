"""What every page's model begins with: the job in hand."""

from collections.abc import Callable

from roomy_hull.session.session import Session


class PageModel:
    """What a page shows and does, without a widget."""

    def __init__(self, session: Session) -> None:
        self._session = session

    def as_one(self, words: str, make: Callable[[], None]) -> bool:
        """Do several edits as one step of the history, and whether it stands."""
        return self._session.as_one(words, make)
