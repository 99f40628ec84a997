"""The cut written to a folder: DXF per blank and sheet, the lists, and if wanted every part as STEP and GLB."""

import contextlib
import re
from pathlib import Path

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.core.errors import JobFileError
from roomy_hull.core.parts import BarPart, SheetPart
from roomy_hull.drawing.backends.dxf import DxfWriter
from roomy_hull.drawing.scenes.cut import blank_strokes, sheet_strokes
from roomy_hull.formats.csv_tables import bar_list, part_list
from roomy_hull.formats.making_tables import bend_list, buying_list, drill_list, joint_list
from roomy_hull.formats.solid_parts import body, glb, step_of, whole_bodies
from roomy_hull.formats.step import text as step_text
from roomy_hull.formats.whole import read_whole, write_whole
from roomy_hull.making.cutlist import CutList
from roomy_hull.making.sheets import Progress

MANIFEST = "cut-files.txt"
"""Names what was written by the last cut, so that the next one can take it away."""


LISTS = {"bends": bend_list, "joints": joint_list, "drill": drill_list, "buying": buying_list}
"""Tables beside part and saw list, by their file's name."""


def file_name(number: int, name: str, ending: str = "dxf") -> str:
    """Make a plain file name of a part's number and name."""
    plain = re.sub(r"[^a-z0-9]+", "-", name.lower()).strip("-")[:50] or "part"
    return f"{number:03d}-{plain}.{ending}"


def write(
    cut: CutList, folder: Path, progress: Progress = lambda _share: True, *,
    solids: Assembly | None = None,
) -> list[Path]:  # fmt: skip
    """Write all files of a cut.

    Parameters
    ----------
    cut : CutList
        The cut.
    folder : Path
        Where to; made if it is not there.
    progress : callable
        Called with the share done; returning False stops before the next file.
    solids : Assembly or None
        The job in vehicle axes, if every part is wanted as STEP and GLB too, as it is folded or sawn, and the whole job.

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
    shaped = (
        [p for p in cut.parts if isinstance(p, SheetPart | BarPart)] if solids is not None else []
    )
    total = len(cut.blanks) + len(cut.nest.sheets) + 2 + len(LISTS) + 2 * len(shaped)

    def put(path: Path, text: str | bytes) -> bool:
        write_whole(path, text if isinstance(text, bytes) else text.encode("utf-8", "replace"))
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
    for n, part in enumerate(shaped, 1):
        name = f"solids/{file_name(n, part.name, 'step')}"
        if not put(folder / name, step_of(part)):
            return written
        if not put(folder / f"{name.removesuffix('step')}glb", glb([body(part)])):
            return written
    if solids is not None:
        bodies = whole_bodies(solids)
        put(folder / "solids/job.step", step_text(bodies, solids.job.name))
        put(folder / "solids/job.glb", glb(bodies))
    put(folder / "parts.csv", part_list(cut, files))
    put(folder / "bars.csv", bar_list(cut))
    for name, made in LISTS.items():
        put(folder / f"{name}.csv", made(cut))
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
    lists = "|".join(("parts", "bars", *LISTS))
    plain = re.compile(
        rf"(?:(?:blanks|sheets)/\d{{3,}}-[a-z0-9-]+\.dxf|solids/(?:job|\d{{3,}}-[a-z0-9-]+)\.(?:step|glb)|(?:{lists})\.csv)"
    )
    return {row for row in rows if plain.fullmatch(row)}
