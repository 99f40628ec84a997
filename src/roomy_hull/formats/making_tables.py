"""Tables of the making: bends in their order, joints, holes of bars, what is bought."""

from roomy_hull.core.parts import Hardware
from roomy_hull.formats.csv_tables import table
from roomy_hull.making.cutlist import CutList
from roomy_hull.making.works import fasteners
from roomy_hull.tables.column import lines
from roomy_hull.tables.making import BENDS, DRILLED, JOINTS, bend_rows, drill_rows


def bend_list(cut: CutList) -> str:
    """Every bend of every blank in the order in which it is made; what cannot be bent says why. [mm, degree, kN]"""
    rows = lines(BENDS, ())
    for flat in cut.blanks:
        plan = cut.bends(flat)
        if plan.fault:
            rows.append([flat.part.name, "none", *[""] * 4, plan.fault, *[""] * 6, plan.remedy])
        rows += lines(BENDS, bend_rows(flat, plan))[1:]
    return table(rows)


def joint_list(cut: CutList) -> str:
    """Every joint: of what, to what, how, how long, what of it is welded, with how many of what. [mm]"""
    return table(lines(JOINTS, cut.joints))


def drill_list(cut: CutList) -> str:
    """Every hole of every bar: on which side, how far along and across. [mm]"""
    return table(lines(DRILLED, drill_rows(cut)))


def buying_list(cut: CutList) -> str:
    """What is bought: sheets, bars, things by the piece or by the metre, fasteners."""
    rows: list[list[object]] = [["count", "what", "metres each", "for"]]
    metal: dict[str, int] = {}
    for s in cut.nest.sheets:
        if s.bought:
            key = f"sheet {s.thickness:g} mm {s.material.key} {s.length:g} x {s.width:g}"
            metal[key] = metal.get(key, 0) + 1
    for b in cut.bars.bars:
        if b.bought:
            key = f"bar {b.section} {b.material.key} {b.length:g}"
            metal[key] = metal.get(key, 0) + 1
    rows += [[count, key, "", "all"] for key, count in metal.items()]
    for p in cut.parts:
        if isinstance(p, Hardware):
            metres = f"{p.metres:g}" if p.metres else ""
            rows.append([p.count, p.name, metres, p.owner.id or p.owner.kind])
    rows += [[count, word, "", "joints"] for word, count in fasteners(cut.joints).items()]
    return table(rows)
