"""Somebody who answers every question of the window by chance, and a list of what went wrong."""

import contextlib
import random
import time
from collections.abc import Generator
from pathlib import Path
from types import TracebackType

from mutations import SLOW
from roomy_hull.formats.demo import demo_job
from roomy_hull.job.model import Job
from roomy_hull.session.asking import Nobody
from roomy_hull.session.session import Session


class Anybody(Nobody):
    """Answers every question by chance; files go to a folder of its own."""

    def __init__(self, session: Session, rng: random.Random, folder: Path) -> None:
        self._session, self._rng, self._folder = session, rng, folder

    def open_path(self) -> Path | None:
        """One of the files written before, or none."""
        found = [None, *self._folder.glob("*.json")]
        return self._rng.choice(found)

    def save_path(self) -> Path | None:
        """One of a few names."""
        return self._folder / f"{self._rng.choice('abc')}.hull.json"

    def folder(self, _words: str) -> Path | None:
        """A folder of its own."""
        return self._folder

    def file(self, _words: str, _kinds: str, wish: str, *, to_save: bool) -> Path | None:
        """Name a file to write, or one that is there."""
        return self._folder / Path(wish).name if to_save else self.open_path()

    def may_lose(self) -> bool:
        """Give work up at times."""
        return self._rng.random() < 0.1

    def new_job(self) -> Job | None:
        """One of the demos."""
        return demo_job(self._rng.choice(("brackwater", "lowfold", "tarn")))

    def name(self, _words: str, wish: str) -> str:
        """Any name."""
        return self._rng.choice((wish, "", "<b>x", "a" * 300, "\ud800", "7", "vehicle"))

    def agree(self, _words: str) -> bool:
        """Agree to half of all."""
        return self._rng.random() < 0.5

    def choose(self, _words: str, options: tuple[str, ...]) -> str:
        """Any of the ways."""
        return self._rng.choice(("", *options))


class Faults:
    """What went wrong, with what was done last."""

    def __init__(self) -> None:
        self.rows: list[str] = []
        self.doing = ""

    def caught(
        self, kind: type[BaseException], fault: BaseException, trace: TracebackType | None
    ) -> None:
        """Note a fault of the program."""
        at = trace
        while at is not None and at.tb_next is not None:
            at = at.tb_next
        where = f"{at.tb_frame.f_code.co_filename}:{at.tb_lineno}" if at is not None else ""
        self.note(f"{kind.__name__}: {str(fault)[:160]} ({where})")

    def note(self, words: str) -> None:
        """Note anything, once."""
        row = f"{words}  <- {self.doing}"
        self.rows.append(row)
        print(row, flush=True)

    @contextlib.contextmanager
    def step(self, doing: str) -> Generator[None]:
        """Watch one step: faults, and the time it takes."""
        self.doing = doing
        start = time.process_time()
        try:
            yield
        except Exception as fault:  # every fault is a find
            self.caught(type(fault), fault, fault.__traceback__)
        took = time.process_time() - start
        if took > SLOW:
            self.note(f"{took:.1f} s")
