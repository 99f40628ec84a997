"""What is kept between starts: recent jobs, preferences, and work saved in case of a crash."""

import contextlib
import json
import os
import time
from pathlib import Path
from typing import Any

import msgspec

from roomy_hull.core.errors import JobFileError
from roomy_hull.formats import folders, shopfile
from roomy_hull.formats.jobfile import dumps, loads, write_whole
from roomy_hull.formats.thingfile import own_folder
from roomy_hull.job.model import Job
from roomy_hull.shop.shop import Shop, shipped_shop

RECENT_LIMIT = 8


class Recovery(msgspec.Struct, frozen=True):
    """Work that an interrupted run left behind."""

    file: Path
    name: str
    path: Path | None
    when: float


class Keeping:
    """Files of one user, below the folders that the desktop standard names.

    Parameters
    ----------
    config, state : Path or None
        Folders; by default those that the desktop standard names.
    """

    def __init__(self, config: Path | None = None, state: Path | None = None) -> None:
        self.config = config or folders.config()
        self.state = state or folders.state()
        self._units = state / "units" if state else own_folder("units")
        self._mark = f"{os.getpid()}-{time.time_ns():x}"

    def units_folder(self) -> Path:
        """The folder of the user's own stores."""
        return self._units

    def preferences(self) -> dict[str, Any]:
        """The preferences; an unreadable file counts as none."""
        try:
            found = json.loads((self.config / "preferences.json").read_text("utf-8"))
        except (OSError, ValueError):
            return {}
        return found if isinstance(found, dict) else {}

    def keep_preferences(self, **values: Any) -> None:
        """Store some preferences; trouble with the disk is not worth a message."""
        merged = self.preferences() | values
        with contextlib.suppress(JobFileError):
            write_whole(self.config / "preferences.json", json.dumps(merged, indent=1).encode())

    def shop(self) -> Shop:
        """Read the user's own shop, or the shipped values where there is none.

        Returns
        -------
        Shop
            Its values.

        Raises
        ------
        FileError
            The file kept cannot be used; names the place.
        """
        path = self._shop_file()
        return shopfile.load(path) if path.exists() else shipped_shop()

    def keep_shop(self, shop: Shop) -> None:
        """Have every further start use a shop's values.

        Parameters
        ----------
        shop : Shop
            Its values.

        Raises
        ------
        FileError
            The place cannot be written.
        """
        shopfile.save(shop, self._shop_file())

    def _shop_file(self) -> Path:
        """Name the file of the user's own shop."""
        return self.config / f"own{shopfile.SUFFIX}"

    def recent(self) -> list[Path]:
        """The recent jobs that still exist, newest first."""
        rows = self.preferences().get("recent", [])
        paths = [Path(r) for r in rows if isinstance(r, str)] if isinstance(rows, list) else []
        return [p for p in paths if p.exists()]

    def add_recent(self, path: Path) -> None:
        """Put a job first among the recent ones."""
        path = path.resolve()
        rows = [path, *(p for p in self.recent() if p != path)][:RECENT_LIMIT]
        self.keep_preferences(recent=[str(p) for p in rows])

    def autosave(self, job: Job, path: Path | None) -> None:
        """Write the job aside, with the path that it belongs to.

        Parameters
        ----------
        job : Job
            The job as it stands.
        path : Path or None
            Its file, if it has one.
        """
        frame = {
            "roomy-hull-autosave": 1,
            "name": job.name,
            "path": str(path.resolve()) if path else "",
            "pid": os.getpid(),
            "when": time.time(),
            "job": json.loads(dumps(job)),
        }
        with contextlib.suppress(JobFileError):
            write_whole(self._own_file(), json.dumps(frame).encode())

    def drop_autosave(self) -> None:
        """Forget this run's autosave, since the work is saved or given up."""
        with contextlib.suppress(OSError):
            self._own_file().unlink()

    def _own_file(self) -> Path:
        """The run's autosave file."""
        return self.state / f"autosave-{self._mark}.json"

    def left_behind(self) -> list[Recovery]:
        """List the work of runs that ended without saving, newest first."""
        found = []
        for file in self.state.glob("autosave-*.json") if self.state.is_dir() else []:
            if file == self._own_file():
                continue
            try:
                frame = json.loads(file.read_text("utf-8"))
                pid, when = int(frame["pid"]), float(frame["when"])
                name, path = str(frame["name"]), str(frame["path"])
            except (OSError, ValueError, KeyError, TypeError):
                continue
            if not _alive(pid):
                found.append(Recovery(file, name, Path(path) if path else None, when))
        return sorted(found, key=lambda r: -r.when)

    def recover(self, recovery: Recovery) -> Job:
        """Read recovered work.

        Parameters
        ----------
        recovery : Recovery
            From `left_behind`.

        Returns
        -------
        Job
            The job as it stood.

        Raises
        ------
        JobFileError
            The file is damaged.
        """
        try:
            frame = json.loads(recovery.file.read_text("utf-8"))
            inner = json.dumps(frame["job"]).encode()
        except (OSError, ValueError, KeyError, TypeError) as trouble:
            raise JobFileError(
                f"the recovered work cannot be read ({trouble})", recovery.file.name
            ) from None
        return loads(inner, recovery.file.name)

    def discard(self, recovery: Recovery) -> None:
        """Delete recovered work that is not wanted or has been taken over."""
        with contextlib.suppress(OSError):
            recovery.file.unlink()


def _alive(pid: int) -> bool:
    """Say whether a process runs."""
    try:
        os.kill(pid, 0)
    except ProcessLookupError:
        return False
    except (PermissionError, OverflowError):
        return True
    return True
