"""Photos beside a job: odd names, what is no picture, what is too large or gone, and moving with the job."""

import shutil
import struct
import zlib
from pathlib import Path

import pytest

from roomy_hull.core.errors import JobFileError
from roomy_hull.formats import photos
from roomy_hull.formats.photos import brought_along, folder_of, path_of, taken, taken_in


def png(wide: int = 4, high: int = 3) -> bytes:
    """A small picture, as the PNG specification writes one."""

    def chunk(kind: bytes, data: bytes) -> bytes:
        return (
            struct.pack(">I", len(data)) + kind + data + struct.pack(">I", zlib.crc32(kind + data))
        )

    rows = b"".join(b"\x00" + b"\x40\x80\xc0" * wide for _ in range(high))
    head = struct.pack(">IIBBBBB", wide, high, 8, 2, 0, 0, 0)
    return (
        b"\x89PNG\r\n\x1a\n"
        + chunk(b"IHDR", head)
        + chunk(b"IDAT", zlib.compress(rows))
        + chunk(b"IEND", b"")
    )


def jpeg(day: bytes = b"2027:02:03 10:11:12", order: str = "<") -> bytes:
    """The beginning of a JPEG whose Exif 2.32 block says when it was taken."""
    head = (b"II*\x00" if order == "<" else b"MM\x00*") + struct.pack(order + "I", 8)
    first = (
        struct.pack(order + "H", 1)
        + struct.pack(order + "HHII", 0x8769, 4, 1, 26)
        + struct.pack(order + "I", 0)
    )
    own = (
        struct.pack(order + "H", 1)
        + struct.pack(order + "HHII", 0x9003, 2, 20, 44)
        + struct.pack(order + "I", 0)
    )
    block = b"Exif\x00\x00" + head + first + own + day + b"\x00"
    return b"\xff\xd8\xff\xe1" + struct.pack(">H", len(block) + 2) + block + b"\xff\xd9"


@pytest.fixture
def job(tmp_path: Path) -> Path:
    """Where a job would be."""
    (tmp_path / "jobs").mkdir()
    return tmp_path / "jobs" / "wet bench.hull.json"


@pytest.mark.parametrize(
    "name",
    [
        "a photo.png",
        "Tür, öffen & \u202e.PNG",
        "-rf.png",
        "x" * 200 + ".png",
        "…",
        ".png",
        "a\nb.png",
    ],
)
def test_a_photo_of_any_name_is_copied_under_a_plain_one(
    tmp_path: Path, job: Path, name: str
) -> None:
    source = tmp_path / name
    source.write_bytes(png())
    found = taken_in(job, source)
    assert found.file.isascii()
    assert len(found.file) < 90
    assert found.file.endswith(".png")
    assert "/" not in found.file
    assert not found.file.startswith((".", "-"))
    there = path_of(job, found.file)
    assert there is not None
    assert there.parent == job.parent / "wet bench.photos"
    assert there.read_bytes() == source.read_bytes()
    # The same photo again is the same file; another one of its name is another.
    assert taken_in(job, source) == found
    source.write_bytes(png(9, 9))
    assert taken_in(job, source).file != found.file
    assert len(list(folder_of(job).iterdir())) == 2


def test_the_day_is_read_from_the_photo() -> None:
    assert taken(jpeg()) == taken(jpeg(order=">")) == "2027-02-03"
    assert taken(jpeg(b"    :  :     :  :  ")) == ""
    assert taken(png()) == ""
    whole = jpeg()
    for cut in range(0, len(whole), 3):
        assert taken(whole[:cut]) in ("", "2027-02-03")


def test_what_is_no_photo_is_refused_in_words(
    tmp_path: Path, job: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    for name, data, words in (
        ("a.png", b"not a picture", "no picture"),
        ("b.jpg", b"", "no picture"),
    ):
        (tmp_path / name).write_bytes(data)
        with pytest.raises(JobFileError, match=words):
            taken_in(job, tmp_path / name)
    with pytest.raises(JobFileError, match="no such photo"):
        taken_in(job, tmp_path / "gone.png")
    with pytest.raises(JobFileError, match="no such photo"):
        taken_in(job, tmp_path)
    monkeypatch.setattr(photos, "MAX_PHOTO", 10)
    (tmp_path / "huge.png").write_bytes(png())
    with pytest.raises(JobFileError, match="MB"):
        taken_in(job, tmp_path / "huge.png")
    assert not folder_of(job).exists()


def test_a_name_that_leads_elsewhere_finds_nothing(tmp_path: Path, job: Path) -> None:
    (tmp_path / "secret.png").write_bytes(png())
    folder_of(job).mkdir()
    for name in ("../secret.png", "../../secret.png", str(tmp_path / "secret.png"), "", ".."):
        assert path_of(job, name) is None
    assert path_of(None, "a.png") is None


def test_photos_move_with_their_job(tmp_path: Path, job: Path) -> None:
    source = tmp_path / "a.png"
    source.write_bytes(png())
    found = taken_in(job, source)
    job.write_text("{}")
    # The folder is moved as a whole.
    moved = tmp_path / "elsewhere"
    shutil.move(job.parent, moved)
    there = moved / job.name
    assert path_of(there, found.file) is not None
    # The job is saved under another name: its photos come along, what is missing is told.
    other = tmp_path / "third" / "other.hull.json"
    assert brought_along(there, other, (found.file, "lost.png")) == ("lost.png",)
    assert path_of(other, found.file) is not None
    assert brought_along(None, other, (found.file,)) == ()
    assert brought_along(there, there, ("lost.png",)) == ()
