"""The manner of a drawing: light and dark, and what each stroke's role looks like on screen and on paper."""

import msgspec


class Style(msgspec.Struct, frozen=True):
    """How a role is painted: fill and line colours (empty for none), width in pixels, dash, hatch.

    `turn` writes an upright size along its line, as on a shop drawing.
    """

    fill: str = ""
    line: str = ""
    width: float = 1.0
    dash: str = ""
    hatch: str = ""
    alpha: int = 255
    bold: bool = False
    turn: bool = False


class Theme(msgspec.Struct, frozen=True):
    """All colours of one theme."""

    name: str
    window: str
    panel: str
    sunk: str
    ink: str
    faint: str
    rule: str
    accent: str
    accent_ink: str
    stop: str
    look: str
    note: str
    good: str
    paper: str
    roles: dict[str, Style]

    def severity(self, severity: str) -> str:
        """The colour of a finding's severity."""
        return {"stop": self.stop, "look": self.look, "note": self.note}[severity]


def _roles(c: dict[str, str]) -> dict[str, Style]:
    """The role table from a theme's material colours."""
    ink, soft = c["line"], c["soft"]
    return {
        "ground": Style(line=ink, width=2),
        "ground hatch": Style(line=soft),
        "cab": Style(c["cab"], ink, 1.4),
        "cab roof": Style(c["cab_light"], soft),
        "glass": Style(c["glass"], ink),
        "shadow": Style(c["deep"], ""),
        "seam": Style(line=c["cab_dark"], width=1.2),
        "handle": Style(c["cab_dark"], ""),
        "trim": Style(c["trim"], ink),
        "mirror": Style(c["trim"], ink),
        "arch": Style(c["deep"], ""),
        "lamp": Style(c["lamp"], ink),
        "lamp red": Style(c["lamp_red"], ink),
        "plate": Style(c["bought"], ink),
        "steel": Style(c["steel"], ink),
        "steel line": Style(line=ink, width=3),
        "steel plan": Style(c["steel"], soft),
        "tyre": Style(c["tyre"], ink),
        "tyre plan": Style(c["tyre"], "", alpha=70),
        "rim": Style(c["rim"], ink, 0.8),
        "rim dark": Style(c["deep"], ""),
        "tray": Style(c["alu"], ink),
        "tray edge": Style(c["alu"], ink, 1.2),
        "tray plan": Style(c["alu"], ink, 1.2),
        "canopy": Style(c["alu_light"], ink, 1.6),
        "opening": Style(c["inside"], ink, 1.2),
        "inside plan": Style(c["inside"], soft),
        "cut": Style(c["alu_light"], ink, 1.2, hatch="cut"),
        "door gap": Style(c["paper"], soft, 1, "3 3"),
        "opened": Style(c["front"], ink, 1.2, alpha=235),
        "opened door": Style(c["alu_light"], ink, 1.2, "7 3", alpha=150),
        "opened cloth": Style(c["canvas"], ink, 1, "7 3", alpha=110),
        "opened over": Style(c["canvas"], soft, 1, "7 3", alpha=28),
        "opened fan": Style(c["canvas"], "", alpha=60),
        "wood": Style(c["wood"], ink, 1.2),
        "mesh": Style(line=c["steel"], width=1),
        "lamp green": Style(c["free_line"], ""),
        "badge": Style(c["accent"], c["paper"], 1.2),
        "badge words": Style(line=c["paper"], bold=True),
        "moving": Style("", soft, 1.2, "6 4"),
        "moving line": Style("", soft, 1, "6 4"),
        "bay": Style("", soft, 1, "2 3"),
        "bay plan": Style("", soft, 1, "2 3"),
        "rail slot": Style(line=soft),
        "detail": Style(line=soft, width=1),
        "front": Style(c["front"], ink, 1.3),
        "recess": Style(c["deep"], ink),
        "fitting": Style(c["steel"], ink),
        "bought": Style(c["bought"], ink, 1.3),
        "bought dark": Style(c["steel"], ink),
        "screen": Style(c["deep"], ink),
        "space": Style(c["space"], soft, 1, "4 3"),
        "tank outline": Style("", ink, 1.4),
        "tank": Style(c["bought"], ink, 1.4),
        "water": Style(c["water"], "", alpha=150),
        "jerry": Style(c["jerry"], ink, 1.3),
        "canvas": Style(c["canvas"], ink, 1.3),
        "load": Style(c["load"], ink, 1.3),
        "strap": Style(line=c["deep"], width=3),
        "overhead": Style("", soft, 1.2, "9 5"),
        "unit plan": Style(c["front"], ink, 1.1),
        "unit face": Style(c["steel"], ""),
        "unit name": Style(line=c["text"]),
        "person": Style(c["person"], "", alpha=110),
        "person mark": Style(line=c["person"], width=1, dash="4 3"),
        "person words": Style(line=c["text"]),
        "trouble": Style(c["front"], c["stop"], 2, "4 3", "cross"),
        "free": Style(c["free"], "", alpha=120),
        "free edge": Style(line=c["free_line"], width=1.4),
        "not free": Style(c["stop"], c["stop"], 1.4, "5 3", "cross", 90),
        "not free words": Style(line=c["stop"]),
        "gap": Style(line=c["accent"], width=1.2),
        "size": Style(line=c["text"], width=1),
        "shop size": Style(line=c["text"], width=1, turn=True),
        "mark stop": Style(c["stop"], c["stop"], 2.4, "", "cross", 150),
        "mark look": Style(c["look"], c["look"], 2, "7 3", "slant", 130),
        "mark note": Style("", c["note"], 1.4, "2 3"),
        "selected": Style("", c["accent"], 2.6),
        "axle": Style(c["accent"], "", alpha=225),
        "blank": Style(c["alu_light"], ink, 1.6),
        "blank hole": Style(c["paper"], ink, 1.2),
        "bend up": Style(line=c["accent"], width=1.2, dash="7 3 1 3"),
        "bend down": Style(line=c["accent"], width=1.2, dash="2 3"),
        "bend words": Style(line=c["accent"]),
        "fold": Style(c["alu"], c["alu"], 0.7),
        "fold light": Style(c["alu_light"], c["alu_light"], 0.7),
        "fold dark": Style(c["steel"], c["steel"], 0.7),
        "fold edge": Style(line=ink, width=0.8),
        "leader": Style(line=soft, width=0.8),
        "balloon": Style(c["paper"], ink, 1.0),
        "balloon words": Style(line=c["text"]),
        "qr": Style(ink),
        "label edge": Style("", soft, 0.6),
        "label words": Style(line=c["text"]),
        "kept": Style("", soft, 1.0, dash="4 3"),
        "behind skin": Style("", ink, 1.0, dash="4 3"),
        "stock": Style(c["paper"], soft, 1.2),
        "nested": Style(c["alu"], ink, 1),
        "nested chosen": Style(c["accent"], ink, 1.4, alpha=150),
        "nested name": Style(line=c["text"]),
        "detail words": Style(line=soft),
        "extension": Style(line=soft, width=0.8),
        "measure": Style(line=c["accent"], width=2, bold=True),
        "measure end": Style(c["accent"], ""),
        "measured frame": Style("", c["accent"], 2),
        "allowed": Style(c["free"], c["free_line"], 1.4, alpha=120),
        "allowed most": Style(c["free_line"], ""),
        "handle dot": Style(c["accent"], c["paper"], 1.5),
        "body size": Style(line=c["accent"], width=1.2, turn=False),
        "axle over": Style(c["stop"], ""),
        "axle name": Style(line=c["text"]),
        "axle load": Style(line=c["text"], bold=True),
        "centre": Style(c["accent"], ink, 1.2),
        "centre inner": Style(c["paper"], ""),
        "centre line": Style(line=c["accent"], width=1.2, dash="9 3 2 3"),
        "centre words": Style(line=c["text"]),
        "lever": Style(line=soft, width=1, dash="3 3"),
        "lever line": Style(line=c["accent"], width=1.6, dash="6 3"),
        "lever mass": Style(c["load"], ink, 0.8, alpha=110),
        "lever chosen": Style(c["accent"], c["paper"], 1.4, alpha=215),
        "trip night": Style(c["deep"], "", alpha=26),
        "trip sun": Style(c["wood"], "", alpha=190),
        "trip drive": Style(c["accent"], c["paper"], 1, alpha=210),
        "trip mains": Style(c["note"], c["paper"], 1, alpha=210),
        "plan box": Style(c["front"], ink, 1.3),
        "plan line": Style(line=ink, width=1.3),
        "plan chosen": Style(line=c["accent"], width=3),
        "plan fuse": Style(c["paper"], ink, 1.2),
        "plan joint": Style(c["deep"], ""),
        "way main": Style(line=c["stop"], width=2.4),
        "way gives": Style(line=c["look"], width=1.8, dash="9 3 2 3"),
        "way uses": Style(line=c["accent"], width=1.6, dash="6 3"),
        "way water": Style(line=c["water"], width=2.2, dash="1 3"),
        "way gas": Style(line=c["note"], width=2.2, dash="12 3 3 3 3 3"),
        "way air": Style(line=c["soft"], width=2.0, dash="3 6"),
        "way chosen": Style(line=c["accent"], width=4),
        "figure": Style(c["person"], c["paper"], 0.9, alpha=240),
        "reach": Style(c["accent"], c["accent"], 0.8, "3 4", alpha=34),
        "reach space": Style(c["free"], c["free_line"], 1.6, alpha=90),
        "goods": Style(c["paper"], soft, 0.8, alpha=205),
        "goods chosen": Style(c["free"], c["free_line"], 2.0, alpha=150),
        "goods words": Style(line=c["text"]),
        "goods chosen words": Style(line=c["text"]),
        "way label": Style(c["paper"], ink, 0.8, alpha=225),
        "way words": Style(line=c["text"]),
        "chart field": Style(c["paper"], soft, 1),
        "chart grid": Style(line=soft, width=0.5),
        "chart zero": Style(line=ink, width=1.3),
        "chart mark": Style(line=c["accent"], width=1.2, dash="2 3"),
        "chart words": Style(line=c["text"]),
        "chart title": Style(line=c["text"], bold=True),
        "chart limit words": Style(line=c["stop"]),
        "chart band": Style(c["accent"], "", alpha=34),
        "curve 1": Style(line=c["accent"], width=2.4),
        "curve 2": Style(line=c["person"], width=2, dash="7 3"),
        "curve 3": Style(line=c["look"], width=2, dash="2 2"),
        "curve 4": Style(line=c["text"], width=1.6, dash="9 3 2 3"),
        "curve 1 dot": Style(c["accent"], c["paper"], 1),
        "curve 2 dot": Style(c["person"], c["paper"], 1),
        "curve 3 dot": Style(c["look"], c["paper"], 1),
        "curve 4 dot": Style(c["text"], c["paper"], 1),
        "curve thin": Style(line=soft, width=0.8),
        "curve base": Style(line=c["text"], width=1.6, dash="6 4"),
        "curve limit": Style(line=c["stop"], width=1.4, dash="8 4"),
        "chassis judged": Style(c["free"], "", alpha=26),
        "bar": Style(c["alu"], ink, 1),
        "bar tight": Style(c["alu"], ink, 2.4),
        "bar second": Style(c["wood"], ink, 1),
        "bar third": Style(c["bought"], ink, 1, "6 3"),
        "bar chosen": Style(c["accent"], ink, 1.4, alpha=150),
        "bar wait": Style(c["paper"], soft, 1, "4 3"),
        "bar other": Style("", soft, 1, "2 3"),
        "bar words": Style(line=c["text"]),
        "bar pin": Style(c["accent"], c["paper"], 1),
        "bar row": Style(line=soft, width=0.5),
        "bar day": Style(line=soft, width=0.8),
        "bar now": Style(line=c["accent"], width=2),
        "bar due": Style(line=c["stop"], width=2, dash="8 4"),
        "bar due words": Style(line=c["stop"], bold=True),
        "grown to cut": Style("", soft, 0.7, "2 3"),
        "grown cut": Style("", ink, 1, hatch="slant"),
        "grown bent": Style(c["alu_light"], ink, 0.9, hatch="cut"),
        "grown welded": Style(c["alu_light"], ink, 1),
        "grown coated": Style(c["alu"], ink, 1.1),
        "grown fitted": Style(c["front"], ink, 1.6),
        "grown leaf": Style("", ink, 1.2, "9 4"),
        "grown chosen": Style("", c["accent"], 2.6),
    }


LIGHT = Theme(
    "light", window="#e9e6df", panel="#f5f3ee", sunk="#ffffff", ink="#1c2226", faint="#555f66",
    rule="#c4bfb4", accent="#0b6472", accent_ink="#ffffff", stop="#a3211b", look="#865300",
    note="#46545e", good="#2d6a3e", paper="#fbfaf6",
    roles=_roles({
        "line": "#2a3238", "soft": "#76818a", "text": "#1c2226", "cab": "#93a48e",
        "cab_light": "#a5b4a0", "cab_dark": "#566551", "glass": "#c9d9df", "trim": "#4b5358",
        "deep": "#2f363b", "lamp": "#f1ead2", "lamp_red": "#b5463c", "bought": "#eeece4",
        "steel": "#727c83", "tyre": "#3a4045", "rim": "#b9c0c4", "alu": "#c8ced2",
        "alu_light": "#dde1e4", "inside": "#cfccc2", "paper": "#fbfaf6", "front": "#e8ebed",
        "space": "#dcd8cc", "water": "#5f9bb8", "jerry": "#8a8f52", "canvas": "#b0a184",
        "load": "#c0a36b", "wood": "#d9c39b", "person": "#5b4a7a", "free": "#7fc08d", "free_line": "#2d6a3e",
        "stop": "#a3211b", "look": "#865300", "note": "#46545e", "accent": "#0b6472",
    }),
)  # fmt: skip

DARK = Theme(
    "dark", window="#14181b", panel="#1c2226", sunk="#0f1315", ink="#e8e6df", faint="#a9b2b8",
    rule="#3a444b", accent="#5cc3d3", accent_ink="#08171a", stop="#ff8a80", look="#f0b24f",
    note="#a9b8c2", good="#86d19a", paper="#171c1f",
    roles=_roles({
        "line": "#a3aeb5", "soft": "#7c8890", "text": "#e8e6df", "cab": "#46543f",
        "cab_light": "#526149", "cab_dark": "#22291e", "glass": "#2c4550", "trim": "#30373c",
        "deep": "#0c0f11", "lamp": "#8d886f", "lamp_red": "#8e3a33", "bought": "#3d4246",
        "steel": "#50595f", "tyre": "#1e2326", "rim": "#6b757b", "alu": "#4a545b",
        "alu_light": "#394248", "inside": "#22282c", "paper": "#171c1f", "front": "#4e585f",
        "space": "#2b3236", "water": "#3a7894", "jerry": "#5f633a", "canvas": "#6b6049",
        "load": "#77643d", "wood": "#5d4d33", "person": "#a892d6", "free": "#3c7d4c", "free_line": "#86d19a",
        "stop": "#ff8a80", "look": "#f0b24f", "note": "#a9b8c2", "accent": "#5cc3d3",
    }),
)  # fmt: skip
