"""What is kept between starts: recent jobs, preferences, and work saved in case of a crash."""

import contextlib
import hashlib
import json
import os
import time
from pathlib import Path
from typing import Any

import msgspec

from roomy_hull.core.errors import JobFileError
from roomy_hull.core.value import put_back
from roomy_hull.formats import folders, shopfile
from roomy_hull.formats.atomic import free_name, read_whole, write_whole
from roomy_hull.formats.jobfile import loads, rescue
from roomy_hull.formats.locks import Lock
from roomy_hull.formats.plain_json import decode, encode
from roomy_hull.formats.thingfile import own_folder
from roomy_hull.job.model import Job
from roomy_hull.shop.shop import Shop, shipped_shop

RECENT_LIMIT = 8
LATEST = 4e9
"""No work is later than this. [s since 1970]"""
MOST_NAME = 120


class Recovery(msgspec.Struct, frozen=True):
    """Work that an interrupted run left behind, and what its file held when it began; none where that is not known."""

    file: Path
    name: str
    path: Path | None
    when: float
    base: bytes | None = None


class Settings:
    """Files of one user, below the folders that the desktop standard names.

    Args:
        config, state: Folders; by default those that the desktop standard names.
    """

    def __init__(self, config: Path | None = None, state: Path | None = None) -> None:
        self.config = config or folders.config()
        self.state = state or folders.state()
        self._units = state / "units" if state else own_folder("units")
        self._mark = f"{os.getpid()}-{time.time_ns():x}"
        self._alive = Lock(self.state / f"autosave-{self._mark}.lock")
        self.troubles: list[str] = []
        """What was found damaged and set aside, to be told."""

    def workshop(self) -> Path | None:
        """The workshop's folder, that several may share; none where none was chosen, or it is not there now."""
        named = self.preferences().get("workshop")
        path = Path(named) if isinstance(named, str) and named else None
        return path if path is not None and path.is_dir() else None

    def units_folder(self) -> Path:
        """The folder of the stores: the workshop's where one is chosen, else the user's own."""
        folder = self.workshop()
        return folder / "units" if folder is not None else self._units

    def vehicles_folder(self) -> Path | None:
        """The folder of the workshop's own vehicles; none for the user's own."""
        folder = self.workshop()
        return folder / "vehicles" if folder is not None else None

    def preferences(self) -> dict[str, Any]:
        """The preferences; a file that cannot be used is set aside, counts as none, and is told of once."""
        path = self.config / "preferences.json"
        if not path.exists():
            return {}
        try:
            found = decode(read_whole(path), path.name)
            if not isinstance(found, dict):
                raise JobFileError("it holds no preferences", path.name)
        except JobFileError as trouble:
            self._set_aside(path, trouble)
            return {}
        return found

    def _set_aside(self, path: Path, trouble: JobFileError) -> None:
        """Give a damaged file of ours another name, so that it is in nobody's way and nothing of it is lost."""
        aside = free_name(path.with_name(path.name + ".damaged"))
        words = f"{path.name} cannot be used ({trouble.what})"
        try:
            path.rename(aside)
            words += f"; it is set aside as {aside.name}"
        except OSError:
            words += "; it is left where it is"
        self.troubles.append(f"{words}.")

    def keep_preferences(self, **values: Any) -> None:
        """Store some preferences; trouble with the disk is not worth a message."""
        merged = self.preferences() | values
        with contextlib.suppress(JobFileError):
            write_whole(self.config / "preferences.json", encode(merged))

    def shop(self) -> Shop:
        """Read the shop of the workshop's folder, else the user's own, or the shipped values where there is none.

        Raises:
            FileError: The file kept cannot be used; names the place.
        """
        folder = self.workshop()
        shared = shopfile.in_folder(folder) if folder is not None else None
        path = shared or self._shop_file()
        return shopfile.load(path) if path.exists() else shipped_shop()

    def keep_shop(self, shop: Shop) -> None:
        """Have every further start use a shop's values.

        Raises:
            FileError: The place cannot be written.
        """
        shopfile.save(shop, self._shop_file())

    def _shop_file(self) -> Path:
        """Name the file of the user's own shop."""
        return self.config / f"own{shopfile.SUFFIX}"

    def recent(self) -> list[Path]:
        """The recent jobs that still exist, newest first."""
        rows = self.preferences().get("recent", [])
        paths = [Path(r) for r in rows if isinstance(r, str)] if isinstance(rows, list) else []
        return [p for p in paths if _exists(p)]

    def add_recent(self, path: Path) -> None:
        """Put a job first among the recent ones."""
        path = path.resolve()
        rows = [path, *(p for p in self.recent() if p != path)][:RECENT_LIMIT]
        self.keep_preferences(recent=[str(p) for p in rows])

    def autosave(self, job: Job, path: Path | None, base: bytes | None = None) -> None:
        """Write the job aside, with the path that it belongs to and what it was made of.

        Args:
            path: Its file, if it has one.
            base: What that file held when it was last read or written here.
        Raises:
            JobFileError: The place cannot be written.
        """
        # As near to it as can be: what could not be saved is to be kept all the more.
        frame = {
            "roomy-hull-autosave": 1,
            "name": job.name,
            "path": str(path.resolve()) if path else "",
            "pid": os.getpid(),
            "when": time.time(),
            "base": base.decode("utf-8", "replace") if base else "",
            "sha256": hashlib.sha256(base).hexdigest() if base else "",
            "job": put_back(msgspec.to_builtins(job)),
        }
        # Locked for as long as this run lives, so that its work is offered to nobody until it ends.
        with contextlib.suppress(OSError):
            self.state.mkdir(parents=True, exist_ok=True)
        self._alive.take()
        write_whole(self._own_file(), json.dumps(frame).encode())

    def drop_autosave(self) -> None:
        """Forget this run's autosave, since the work is saved or given up."""
        with contextlib.suppress(OSError):
            self._own_file().unlink()
        self._alive.give_up()

    def rescue(self, job: Job) -> Path:
        """Write a job that its file cannot hold as near to it as can be.

        Raises:
            JobFileError: The place cannot be written.
        """
        path = free_name(self.state / f"rescued-{time.strftime('%Y%m%d-%H%M%S')}.json")
        rescue(job, path)
        return path

    def _own_file(self) -> Path:
        """The run's autosave file."""
        return self.state / f"autosave-{self._mark}.json"

    def left_behind(self) -> list[Recovery]:
        """List the work of runs that ended without saving, newest first; what is damaged is set aside."""
        found = []
        for file in sorted(self.state.glob("autosave-*.json")) if self.state.is_dir() else []:
            lock = Lock(file.with_suffix(".lock"))
            if file == self._own_file() or lock.holder() is not None:
                continue
            with contextlib.suppress(OSError):
                lock.path.unlink()
            try:
                found.append(_recovery(file))
            except JobFileError as trouble:
                self._set_aside(file, trouble)
        return sorted(found, key=lambda r: -r.when)

    def recover(self, recovery: Recovery) -> Job:
        """Read recovered work.

        Args:
            recovery: From `left_behind`.
        Raises:
            JobFileError: The file is damaged.
        """
        frame = decode(read_whole(recovery.file), recovery.file.name)
        try:
            inner = encode(frame["job"])
        except (ValueError, KeyError, TypeError) as trouble:
            raise JobFileError(
                f"the recovered work cannot be read ({trouble})", recovery.file.name
            ) from None
        return loads(inner, recovery.file.name)

    def discard(self, recovery: Recovery) -> None:
        """Delete recovered work that is not wanted or has been taken over."""
        with contextlib.suppress(OSError):
            recovery.file.unlink()


def _recovery(file: Path) -> Recovery:
    """Read what an autosave says of itself."""
    frame = decode(read_whole(file), file.name)
    frame = frame if isinstance(frame, dict) else {}
    when, name, path = frame.get("when"), frame.get("name"), frame.get("path")
    timed = isinstance(when, int | float) and 0 < when < LATEST
    if not (timed and isinstance(name, str) and isinstance(path, str)):
        raise JobFileError("it is no autosave", file.name)
    if not isinstance(frame.get("job"), dict):
        raise JobFileError("it holds no job", file.name)
    base = str(frame.get("base", "")).encode("utf-8", "replace")
    if hashlib.sha256(base).hexdigest() != frame.get("sha256"):
        base = b""  # what is not known for certain is compared with nothing
    return Recovery(file, name[:MOST_NAME], Path(path) if path else None, float(when), base or None)  # type: ignore[arg-type]  # a figure, see above


def _exists(path: Path) -> bool:
    """Say whether a file is there; what is no file's name is not."""
    try:
        return path.exists()
    except (OSError, ValueError):
        return False
