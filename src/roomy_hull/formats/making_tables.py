"""Tables of the making: bends in their order, joints, holes of bars, what is bought."""

from roomy_hull.core.parts import BarPart, Hardware
from roomy_hull.formats.csv_tables import table
from roomy_hull.making.cutlist import CutList
from roomy_hull.making.works import fasteners


def bend_list(cut: CutList) -> str:
    """Every bend of every blank in the order in which it is made. [mm, degree, kN]"""
    rows: list[list[object]] = [
        ["part", "step", "from x mm", "from y mm", "to x mm", "to y mm", "way", "angle", "radius mm", "length mm",
         "turned over", "die mm", "force kN", "punch mm"]
    ]  # fmt: skip
    for flat in cut.blanks:
        plan = cut.bends(flat)
        if plan.fault:
            rows.append([flat.part.name, "none", *[""] * 4, plan.fault, *[""] * 6, plan.remedy])
        for n, s in enumerate(plan.steps, 1):
            b = flat.bends[s.bend]
            rows.append([
                flat.part.name, n, f"{b.a[0]:.2f}", f"{b.a[1]:.2f}", f"{b.b[0]:.2f}", f"{b.b[1]:.2f}",
                "up" if s.angle > 0 else "down", f"{abs(s.angle):g}", f"{s.radius:g}", f"{s.length:.1f}",
                "yes" if s.flipped else "", f"{s.die:g}", f"{s.force:.2f}", " + ".join(f"{x:g}" for x in s.punch),
            ])  # fmt: skip
    return table(rows)


def joint_list(cut: CutList) -> str:
    """Every joint: of what, to what, how, how long, what of it is welded, with how many of what. [mm]"""
    rows: list[list[object]] = [
        ["one", "other", "how", "length mm", "weld mm", "throat mm", "fastener", "count", "hole mm"]
    ]
    for j in cut.joints:
        rows.append([
            j.one, j.other, j.method, f"{j.length:.1f}", f"{j.welded:.1f}", f"{j.throat:g}" if j.throat else "",
            j.fastener, len(j.spots) if j.fastener else "", f"{j.hole:g}" if j.hole else "",
        ])  # fmt: skip
    return table(rows)


def drill_list(cut: CutList) -> str:
    """Every hole of every bar: on which side, how far along and across. [mm]"""
    rows: list[list[object]] = [["bar", "section", "side", "along mm", "across mm", "diameter mm", "slot mm"]]  # fmt: skip
    for part in cut.parts:
        if isinstance(part, BarPart):
            rows += [
                [part.name, part.section, h.words, f"{h.along:.2f}", f"{h.across:.2f}", f"{h.diameter:g}",
                 f"{h.length:g}" if h.length else ""]
                for h in part.drilled
            ]  # fmt: skip
    return table(rows)


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
