"""Part lists as CSV: sheet parts, bars and hardware."""

import csv
import io
import re
import unicodedata

from roomy_hull.core.parts import BarPart, SheetPart
from roomy_hull.making.cutlist import CutList
from roomy_hull.making.marking import Marking
from roomy_hull.making.release import content, content_of


def table(rows: list[list[object]]) -> str:
    """Write rows as CSV with plain line ends; a cell never starts a formula."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\n")
    for row in rows:
        writer.writerow([safe(cell) for cell in row])
    return out.getvalue()


BREAKS = "\r\n\v\f\x00\x1c\x1d\x1e\x85\u2028\u2029\t"
"""What some program takes for the end of a line or cell: a row is one line, a cell one cell."""
FILLERS = '\u115f\u1160\u3164\uffa0\u2800"'
"""Letters that are not seen, and the quote that a spreadsheet takes away."""
FIGURE = re.compile(r"[+-]?\d+(?:[.,]\d+)*%?")


def safe(cell: object) -> object:
    """Keep a spreadsheet from running a name that reads like a formula; a figure stays one."""
    if not isinstance(cell, str):
        return cell
    cell = re.sub(f"[{BREAKS}]", " ", cell)
    if FIGURE.fullmatch(cell):
        return cell
    # Where semicolons or commas part the columns, as in other countries, what stands behind one begins a cell too.
    return "".join(
        part if n % 2 or not _runs(part) else f"'{part}"
        for n, part in enumerate(re.split(r"([;,|])", cell))
    )


def _runs(part: str) -> bool:
    """Whether the first sign of a cell that is seen makes a formula of it; a figure by itself is none."""
    for n, sign in enumerate(part):
        if unicodedata.category(sign)[0] in "ZCM" or sign in FILLERS:
            continue
        formula = unicodedata.normalize("NFKC", sign)[:1] in ("=", "+", "-", "@", "\u2212")
        return formula and not FIGURE.fullmatch(part[n:].strip())
    return False


def headed(text: str, marking: Marking) -> str:
    """A list with job and revision in every row, and what is open in lines above its heads: no machine reads past these."""
    head, *rows = csv.reader(io.StringIO(text))
    more = {} if "part hash" in head else {"hash of all parts": marking.whole}
    more |= {"job": marking.job, "revision": marking.state}
    # The cells of the list are written as they are: they were made safe before.
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\n")
    writer.writerows([words] for words in marking.warnings)
    writer.writerow([*head, *more])
    # A list of nothing says of what it is, too.
    writer.writerows([*row, *map(safe, more.values())] for row in rows or [[""] * len(head)])
    return out.getvalue()


def part_list(cut: CutList, files: dict[int, str]) -> str:
    """Write the part list.

    Args:
        files: For each blank's index, the name of its DXF file.
    Returns:
        CSV: number, name, count, kind, material, thickness or section, blank size, bends, mass of one and of all,
        file, hash of the part. [mm, kg]
    """
    rows: list[list[object]] = [
        ["no", "part", "count", "kind", "material", "thickness or section",
         "length mm", "width mm", "bends", "kg each", "kg all", "file", "part hash"]
    ]  # fmt: skip
    at = 0
    for number, part in enumerate(cut.parts, 1):
        if isinstance(part, SheetPart):
            one = cut.blanks[at]
            kg = part.mass()
            rows.append([number, part.name, part.count, "sheet", part.material.key,
                         f"{part.thickness:g}", f"{one.length:.1f}", f"{one.width:.1f}",
                         len(one.bends), f"{kg:.3f}", f"{kg * part.count:.3f}",
                         files.get(at, ""), content_of(one)])  # fmt: skip
            at += 1
        elif isinstance(part, BarPart):
            kg = part.mass()
            rows.append([
                number,
                part.name,
                part.count,
                "bar",
                part.material.key,
                part.section,
                f"{part.length:.1f}",
                "",
                0,
                f"{kg:.3f}",
                f"{kg * part.count:.3f}",
                "",
                content(part),
            ])
        else:
            rows.append([number, part.name, part.count, "bought", *[""] * 9])
    return table(rows)


def bar_list(cut: CutList) -> str:
    """Write the saw list: every stock bar with its pieces in order and the offcut. [mm]"""
    rows: list[list[object]] = [
        ["bar", "section", "material", "piece", "length mm", "ends", "offcut mm"]
    ]
    for number, bar in enumerate(cut.bars.bars, 1):
        for i, (name, length, ends) in enumerate(bar.pieces):
            rest = f"{bar.offcut:.0f}" if i == len(bar.pieces) - 1 else ""
            rows.append([
                number,
                bar.section,
                bar.material.key,
                name,
                f"{length:.1f}",
                ends or "square",
                rest,
            ])
    return table(rows)
