"""What a load sheet is made of, and the same as CSV."""

import msgspec

from roomy_hull.formats.csv_tables import table


class Section(msgspec.Struct, frozen=True):
    """One part of the sheet: title, sentences, one table; or the name of a picture."""

    title: str
    words: tuple[str, ...] = ()
    heads: tuple[str, ...] = ()
    rows: tuple[tuple[str, ...], ...] = ()
    picture: str = ""


class LoadSheet(msgspec.Struct, frozen=True):
    """The whole sheet."""

    title: str
    subtitle: str
    sections: tuple[Section, ...]


def csv(sheet: LoadSheet) -> str:
    """Write the sheet as CSV: each section's title, words and table, one after the other.

    Returns: Comma separated; no cell starts a formula.
    """
    rows: list[list[object]] = [[sheet.title], [sheet.subtitle]]
    for section in sheet.sections:
        if section.picture:
            continue
        rows += [[], [section.title]]
        rows += [[w] for w in section.words]
        if section.heads:
            rows.append(list(section.heads))
        rows += [list(r) for r in section.rows]
    return table(rows)
