"""What every page's model begins with: the job in hand."""

from roomy_hull.session.session import Session


class PageModel:  # ruff: ignore[class-as-data-structure]  # a base to build on
    """What a page shows and does, without a widget.

    Args:
        session: The job in hand.
    """

    def __init__(self, session: Session) -> None:
        self._session = session
