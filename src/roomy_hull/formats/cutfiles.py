"""The cut written to a folder: DXF per blank and sheet, part list and saw list."""

import contextlib
import re
from pathlib import Path

from roomy_hull.core.errors import JobFileError
from roomy_hull.drawing.backends.dxf import DxfWriter
from roomy_hull.drawing.scenes.cut import blank_strokes, sheet_strokes
from roomy_hull.formats.csv_tables import bar_list, part_list
from roomy_hull.formats.whole import read_whole, write_whole
from roomy_hull.making.cutlist import CutList
from roomy_hull.making.sheets import Progress

MANIFEST = "cut-files.txt"
"""Names what was written by the last cut, so that the next one can take it away."""


def file_name(number: int, name: str) -> str:
    """Make a plain file name of a part's number and name."""
    plain = re.sub(r"[^a-z0-9]+", "-", name.lower()).strip("-")[:50] or "part"
    return f"{number:03d}-{plain}.dxf"


def write(cut: CutList, folder: Path, progress: Progress = lambda _share: True) -> list[Path]:
    """Write all files of a cut.

    Parameters
    ----------
    cut : CutList
        The cut.
    folder : Path
        Where to; made if it is not there.
    progress : callable
        Called with the share done; returning False stops before the next file.

    Returns
    -------
    list of Path
        What was written.

    Raises
    ------
    JobFileError
        The folder cannot be written.
    """
    written: list[Path] = []
    files: dict[int, str] = {}
    dxf = DxfWriter()
    total = len(cut.blanks) + len(cut.nest.sheets) + 2

    def put(path: Path, text: str) -> bool:
        write_whole(path, text.encode("utf-8", "replace"))
        written.append(path)
        return progress(len(written) / total)

    before = _listed(folder)
    for i, blank in enumerate(cut.blanks):
        files[i] = f"blanks/{file_name(i + 1, blank.part.name)}"
        if not put(folder / files[i], dxf.text(blank_strokes(blank))):
            return written
    for n, sheet in enumerate(cut.nest.sheets, 1):
        name = f"sheets/{file_name(n, f'{sheet.material.key} {sheet.thickness:g} mm')}"
        if not put(folder / name, dxf.text(sheet_strokes(sheet))):
            return written
    put(folder / "parts.csv", part_list(cut, files))
    put(folder / "bars.csv", bar_list(cut))
    # What an earlier cut left here under other names would be cut by mistake; nothing but ours is taken away.
    ours = {str(path.relative_to(folder)) for path in written}
    for name in before - ours:
        with contextlib.suppress(OSError):
            (folder / name).unlink()
    write_whole(folder / MANIFEST, "".join(f"{name}\n" for name in sorted(ours)).encode())
    return written


def _listed(folder: Path) -> set[str]:
    """List the files of an earlier cut in a folder, as its manifest names them; nothing outside the folder."""
    try:
        rows = read_whole(folder / MANIFEST).decode("utf-8").splitlines()
    except (JobFileError, UnicodeDecodeError):
        return set()
    plain = re.compile(r"(?:(?:blanks|sheets)/\d{3,}-[a-z0-9-]+\.dxf|(?:parts|bars)\.csv)")
    return {row for row in rows if plain.fullmatch(row)}
