"""Files written whole or not at all, and read only where they are files that one could mean.

A new file is written beside the old one and put in its place; the old one can be kept under another name, which at
every instant holds a whole version. What a process that was killed left half written is taken away at the next write.
"""

import contextlib
import errno
import fcntl
import os
import re
import stat
import time
from collections.abc import Generator
from pathlib import Path

from roomy_hull.core.errors import JobFileError

KEPT_SUFFIX = ".previous"
MAX_BYTES = 32 * 1024 * 1024
"""A larger file is no job: such a one would hold a hundred thousand units. [B]"""


def read_whole(path: Path, largest: int = MAX_BYTES) -> bytes:
    """Read a file's bytes.

    Args:
        largest: No such file is larger. [bytes]
    Raises:
        JobFileError: It cannot be read, is no plain file (a folder, a pipe, a device), or is too large to be one of
            ours; nothing of such a one is read.
    """
    try:  # ruff: ignore[too-many-statements-in-try-clause]  # any of it may fail
        # Opened without waiting, so that a pipe with nobody at its other end holds nothing up; looked at while open, so
        # that nothing takes its place between.
        handle = os.open(path, os.O_RDONLY | os.O_NONBLOCK | os.O_CLOEXEC)
        try:
            about = os.fstat(handle)
            if stat.S_ISDIR(about.st_mode):
                raise JobFileError("this is a folder", str(path), "Give a file.")
            if not stat.S_ISREG(about.st_mode):
                raise JobFileError("this is no plain file", str(path), "Give a file on a disk.")
            with os.fdopen(handle, "rb", closefd=False) as file:
                data = file.read(largest + 1) if about.st_size <= largest else b""
        finally:
            os.close(handle)
        size = max(about.st_size, len(data))
        if size > largest:
            raise JobFileError(
                f"the file of {size / 1e6:,.0f} MB is too large", str(path),
                f"A file of this kind has at most {largest / 1e6:,.0f} MB.",
            )  # fmt: skip
        return data
    except OSError as trouble:
        raise JobFileError(
            f"the file cannot be read ({trouble.strerror})", str(path), "Check its name and rights."
        ) from None
    except ValueError:  # a name with a NUL
        raise JobFileError("this is no file's name", repr(str(path))[:200], "Check it.") from None


def write_whole(path: Path, data: bytes, *, keep: bool = False, named: bool = False) -> None:
    """Write bytes to a new file and put it in the old one's place.

    Args:
        keep: Whether the version on disk is kept as ``NAME.previous``, which at every instant is a whole one.
        named: Whether a person named this very file: where it is a link, the file that it leads to is written. What the
            program names itself never leads elsewhere: a link there is replaced.
    Raises:
        JobFileError: The place cannot be written, or the file there is read-only; what was there is untouched.
    """
    new: Path | None = None
    try:  # ruff: ignore[too-many-statements-in-try-clause]  # written whole or not at all: every step of it may fail
        target = Path(os.path.realpath(path)) if named else _own_name(path)
        target.parent.mkdir(parents=True, exist_ok=True)
        mode = _mode(target)
        _tidy(target)
        new = target.with_name(f".{target.name}.{mark()}-{time.time_ns():x}")
        # The rights that the person's own mask gives new files, or those of the file that was there.
        handle = os.open(new, os.O_WRONLY | os.O_CREAT | os.O_EXCL, 0o666)
        with os.fdopen(handle, "wb") as file:
            file.write(data)
            file.flush()
            os.fsync(file.fileno())
        if mode is not None:
            os.chmod(new, mode)
        if keep and mode is not None:
            _keep(target)
        os.replace(new, target)
        _sync(target.parent)
    except OSError as trouble:
        if new:
            with contextlib.suppress(OSError):
                os.unlink(new)
        raise JobFileError(
            f"the file cannot be written ({trouble.strerror})",
            str(path),
            "Choose another place; what was there is untouched.",
        ) from None


def open_own(path: Path, flags: int) -> int:
    """Open a file that the program keeps beside a person's: never through a link, and never anything but a plain file.

    Args:
        flags: As for `os.open`.
    Raises:
        OSError: It cannot be opened, is a link (ELOOP), no plain file, or has other names, by which it could be another
            file.
    """
    flags |= os.O_NOFOLLOW | os.O_NONBLOCK | os.O_CLOEXEC
    for _ in range(3):
        try:
            about = os.lstat(path)
        except FileNotFoundError:
            if not flags & os.O_CREAT:
                raise
            with contextlib.suppress(FileExistsError):
                return os.open(path, flags | os.O_EXCL, 0o666)
            continue
        if _own(about):
            handle = _opened(path, flags)
            if _own(os.fstat(handle)):
                return handle
            os.close(handle)
        elif flags & os.O_CREAT and not stat.S_ISDIR(about.st_mode):
            os.unlink(path)  # the link only; what it leads to stays
        else:
            break
    raise OSError(errno.ELOOP, "a link stands in its place")


def _own(about: os.stat_result) -> bool:
    """Whether it is a plain file without another name."""
    return stat.S_ISREG(about.st_mode) and about.st_nlink <= 1


def _opened(path: Path, flags: int) -> int:
    """Open a file of ours that is there; somebody else's in a shared folder can be read at least, and so locked."""
    try:
        return os.open(path, flags)
    except PermissionError:
        return os.open(path, (flags & ~(os.O_RDWR | os.O_CREAT)) | os.O_RDONLY)


def is_plain(path: Path) -> bool:
    """Whether a plain file of that name is there: a link is none, wherever it leads, nor is a name that no disk takes."""
    try:
        return stat.S_ISREG(path.lstat().st_mode)
    except (OSError, ValueError):
        return False


def _own_name(path: Path) -> Path:
    """A name in a folder, which alone is resolved."""
    return Path(os.path.realpath(path.parent)) / path.name


def _mode(target: Path) -> int | None:
    """The rights of a file that is there already; none where there is none.

    Raises:
        JobFileError: Nobody may write it, or it is no plain file.
    """
    try:
        about = target.lstat()
    except FileNotFoundError:
        return None
    if stat.S_ISLNK(about.st_mode):
        return None
    if not stat.S_ISREG(about.st_mode):
        raise JobFileError("this is no plain file", str(target), "Choose another name.")
    if not about.st_mode & 0o222:
        raise JobFileError(
            "the file is read-only", str(target), "Save under another name, or allow writing to it."
        )
    return stat.S_IMODE(about.st_mode)


def _keep(target: Path) -> None:
    """Have the kept name hold the version on disk: linked, or copied where there are no links, then renamed."""
    kept = target.with_name(target.name + KEPT_SUFFIX)
    fresh = target.with_name(f".{kept.name}.{mark()}-{time.time_ns():x}")
    try:
        try:
            os.link(target, fresh)
        except OSError:
            handle = os.open(fresh, os.O_WRONLY | os.O_CREAT | os.O_EXCL | os.O_NOFOLLOW, 0o666)
            with os.fdopen(handle, "wb") as file:
                file.write(target.read_bytes())
        os.replace(fresh, kept)
    finally:
        # Of one and the same file, renaming leaves both names.
        with contextlib.suppress(OSError):
            os.unlink(fresh)


def _sync(folder: Path) -> None:
    """Have the disk hold the folder's new names too; not every file system can."""
    with contextlib.suppress(OSError):
        handle = os.open(folder, os.O_RDONLY | os.O_DIRECTORY)
        try:
            os.fsync(handle)
        finally:
            os.close(handle)


def mark() -> str:
    """Name the process among all that may write here."""
    return f"{host()}-{os.getpid()}"


def host() -> str:
    """The machine's name, in letters that a file's name can hold."""
    return re.sub(r"[^A-Za-z0-9]+", "_", os.uname().nodename)[:40] or "host"


def _tidy(target: Path) -> None:
    """Take away what processes of this machine left half written beside a file when they were killed."""
    pattern = re.compile(
        rf"\.{re.escape(target.name)}(?:{re.escape(KEPT_SUFFIX)})?\.{re.escape(host())}-(\d+)-[0-9a-f]+"
    )
    with contextlib.suppress(OSError):
        for name in os.listdir(target.parent):
            found = pattern.fullmatch(name)
            if found and int(found[1]) != os.getpid() and not alive(int(found[1])):
                with contextlib.suppress(OSError):
                    os.unlink(target.parent / name)


def alive(pid: int) -> bool:
    """Say whether a process of this machine runs."""
    try:
        os.kill(pid, 0)
    except ProcessLookupError:
        return False
    except (PermissionError, OverflowError):
        return True
    return True


def free_name(path: Path) -> Path:
    """A name beside a path that no file has yet: the path itself, or with a number before its endings.

    Returns: Such as ``ute-2.hull.json``.
    """
    if not path.exists():
        return path
    stem, dot, rest = path.name.partition(".")
    number = 2
    while (found := path.with_name(f"{stem}-{number}{dot}{rest}")).exists():
        number += 1
    return found


WAIT = 10.0
"""So long a save waits for another that is being written. [s]"""


@contextlib.contextmanager
def alone(path: Path) -> Generator[None, None, None]:
    """Be the only one that writes a file for a moment: from looking at what is there to putting the new one in its place.

    Args:
        path: The file; a small one beside it is kept locked meanwhile. Or a folder that is there, which is locked
            itself. The lock ends with its process, however that ends.
    Raises:
        JobFileError: Somebody else has been writing for too long.
    """
    target = Path(os.path.realpath(path))
    try:
        target.parent.mkdir(parents=True, exist_ok=True)
        folder = target.is_dir()
        handle = (
            os.open(target, os.O_RDONLY)
            if folder
            else open_own(target.with_name(f".{target.name}.saving"), os.O_RDWR | os.O_CREAT)
        )
    except OSError:
        yield  # where nothing can be written, the writing itself says so
        return
    try:
        until = time.monotonic() + WAIT
        while not _locked(handle):
            if time.monotonic() > until:
                raise JobFileError(
                    "somebody else is writing this file", path.name, "Save again in a moment."
                )
            time.sleep(0.005)
        yield
    finally:
        os.close(handle)


def _locked(handle: int) -> bool:
    """Take a lock if it can be had; a file system without locks has none to take."""
    try:
        fcntl.flock(handle, fcntl.LOCK_EX | fcntl.LOCK_NB)
    except OSError as trouble:
        return trouble.errno not in (errno.EWOULDBLOCK, errno.EACCES)
    return True
