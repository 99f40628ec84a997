"""The cut written to a folder: DXF per blank and sheet, the lists, and if wanted every part as STEP and GLB."""

import re
from pathlib import Path

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.core.parts import BarPart, SheetPart
from roomy_hull.drawing.backends.dxf import DxfWriter
from roomy_hull.drawing.scenes.cut import blank_strokes, marked, sheet_strokes
from roomy_hull.formats import sets
from roomy_hull.formats.csv_tables import bar_list, headed, part_list
from roomy_hull.formats.making_tables import bend_list, buying_list, drill_list, joint_list
from roomy_hull.formats.solid_parts import body, glb, step_of, whole_bodies
from roomy_hull.formats.step import text as step_text
from roomy_hull.making.cutlist import CutList
from roomy_hull.making.marking import Marking
from roomy_hull.making.release import content
from roomy_hull.making.sheets import Progress
from roomy_hull.making.works import numbered

MANIFEST = "cut-files.txt"
"""Names what was written by the last cut, so that the next one can take it away."""


LISTS = {"bends": bend_list, "joints": joint_list, "drill": drill_list, "buying": buying_list}
"""Tables beside part and saw list, by their file's name."""


def file_name(number: int, name: str, ending: str = "dxf") -> str:
    """Make a plain file name of a part's number and name."""
    plain = re.sub(r"[^a-z0-9]+", "-", name.lower()).strip("-")[:50] or "part"
    return f"{number:03d}-{plain}.{ending}"


def write(
    cut: CutList, folder: Path, marking: Marking, progress: Progress = lambda _share: True, *,
    solids: Assembly | None = None,
) -> list[Path]:  # fmt: skip
    """Write all files of a cut, in the place of those of the cut before: all of them or none.

    Args:
        progress: Called with the share done; returning False ends it, and nothing is written.
        solids: The job in vehicle axes, if every part is wanted as STEP and GLB too, as it is folded or sawn, and the
            whole job.
    Raises:
        JobFileError: The folder cannot be written; what was there is untouched.
    """
    made: dict[str, bytes] = {}
    files: dict[int, str] = {}
    dxf = DxfWriter()
    shaped = (
        [p for p in cut.parts if isinstance(p, SheetPart | BarPart)] if solids is not None else []
    )
    total = len(cut.blanks) + len(cut.nest.sheets) + 2 + len(LISTS) + 2 * len(shaped)

    def keep(name: str, text: str | bytes) -> bool:
        made[name] = text if isinstance(text, bytes) else text.encode("utf-8", "replace")
        return progress(len(made) / total)

    # A part has one number: that of the part list, of the book, of its label, of its files and on its metal.
    numbers = numbered(cut.parts)
    for i, blank in enumerate(cut.blanks):
        files[i] = f"blanks/{file_name(blank.number, blank.part.name)}"
        scene = (*blank_strokes(blank), *marked(marking, (blank,), (blank.length, blank.width)))
        if not keep(files[i], dxf.text(scene)):
            return []
    for n, sheet in enumerate(cut.nest.sheets, 1):
        name = f"sheets/{file_name(n, f'{sheet.material.key} {sheet.thickness:g} mm')}"
        blanks = tuple(p.blank for p in sheet.placed)
        scene = (*sheet_strokes(sheet), *marked(marking, blanks, (sheet.length, sheet.width)))
        if not keep(name, dxf.text(scene)):
            return []
    for part in shaped:
        name = f"solids/{file_name(numbers[id(part)], part.name, 'step')}"
        lines = (*marking.lines, f"part {content(part)}")
        if not keep(name, step_of(part, "; ".join(lines))):
            return []
        if not keep(f"{name.removesuffix('step')}glb", glb([body(part)], lines)):
            return []
    if solids is not None:
        bodies = whole_bodies(solids)
        lines = (*marking.lines, f"all parts {marking.whole}")
        keep("solids/job.step", step_text(bodies, "; ".join((solids.job.name, *lines))))
        keep("solids/job.glb", glb(bodies, lines))
    keep("parts.csv", headed(part_list(cut, files), marking))
    keep("bars.csv", headed(bar_list(cut), marking))
    for name, listing in LISTS.items():
        keep(f"{name}.csv", headed(listing(cut), marking))
    sets.put(folder, made, MANIFEST, marking.lines, ours)
    return [folder / name for name in made]


def wrong(folder: Path) -> list[str]:
    """What of a folder's cut is not as it was written, in words; see `sets.wrong`."""
    return sets.wrong(folder, MANIFEST, ours)


def parts_in(data: bytes) -> tuple[str, ...]:
    """The hashes of the parts that a cut file says it was made from, each once."""
    return tuple(dict.fromkeys(HASH.findall(data.decode("utf-8", "replace"))))


HASH = re.compile(r"(?<![0-9A-Za-z.])[0-9a-f]{16}(?![0-9A-Za-z])")
"""A part's hash; the decimals of a coordinate, which a point precedes, are none."""


_PLAIN = re.compile(
    rf"(?:(?:blanks|sheets)/\d{{3,}}-[a-z0-9-]+\.dxf|solids/(?:job|\d{{3,}}-[a-z0-9-]+)\.(?:step|glb)"
    rf"|(?:{'|'.join(('parts', 'bars', *LISTS))})\.csv)"
)


def ours(name: str) -> bool:
    """Whether a name is one that a file of a cut can have."""
    return isinstance(name, str) and _PLAIN.fullmatch(name) is not None
