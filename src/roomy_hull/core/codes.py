"""The catalogue of findings: every code, the page that shows what it is about, and what it says."""

from typing import NamedTuple


class Code(NamedTuple):
    """One sort of finding: the stage that counts it, the page where it is understood, and what is wrong then."""

    stage: str
    page: str
    words: str


_ROWS: dict[tuple[str, str], dict[str, str]] = {
    ("Survey", "Measures"): {
        "survey.axles": "The two axle ratings together are below the gross rating",
        "survey.certificate": "A rating has no certificate behind it",
        "survey.seat_mass": "A seat is taken out whose mass nobody said",
        "survey.seats": "Seats are taken out",
        "survey.track": "The rims make another track than delivered",
        "survey.tyre": "The tyres are of another size than delivered",
        "outline.inside": "The rear tyres stand near the chassis rails",
        "file.named": "Something is named that is not there",
        "file.unknown": "A field of the file is not known; it is kept",
    },
    ("Body", ""): {
        "outline.overhang": "The rear overhang is over the limit of the rule",
        "outline.width": "The overall width is over the limit of the rule",
        "outline.height": "The overall height is over the limit of the rule",
        "outline.under": "What hangs under the tray stands in something else",
        "outline.guard": "A mudguard stands in the tray's frame",
        "outline.cab": "The tray stands too near to the cab, which moves",
        "outline.departure": "The departure angle is small",
        "outline.tail": "A canopy or a box stands past the tray's end",
        "outline.edge": "A canopy or a box stands past the tray's edges",
        "outline.floats": "A box stands over the tray's floor, on nothing",
        "outline.proud": "What is made stands out of the cab's outline",
        "outline.wheel": "The rear tyres meet the tray",
        "outline.tyre": "The rear tyres stand out of the tray that should cover them",
        "outline.bay": "A bay stands out of what it is in",
        "side.leaves": "Two doors overlap",
        "side.post": "Between two doors their rebates leave no post",
        "side.corner": "The rebate of a door leaves no room for the corner post",
        "side.roof": "A door reaches into the roof",
        "side.frame": "The frame stands out of the wall into the bays",
        "side.bows": "The roof's bows hang lower than the roof is deep",
        "side.rail": "A door leaves the rail above it no room",
        "side.bay": "No door opens into a bay",
        "side.also": "A bay is said to be open at a further side, and no door is there",
        "body.meets": "Two parts of the body share room",
        "body.cab_bay": "A bay in the cab stands out of the cab's inside as it is known",
    },
    ("Fit-out", "Drawing"): {
        "body.seat": "Something stands where somebody sits",
        "fit.overlap": "Two things overlap",
        "fit.running": "A thing runs too near to another",
        "fit.vent": "Something stands in a vent, or too near to it",
        "fit.service": "Something stands in the way of serving a thing",
        "fit.unit": "A unit cannot be made as it is described",
        "fit.air": "A dog's room has little air",
        "fit.passage": "A thing goes in only turned, tilted or rolled over",
        "fit.opening": "A thing does not pass the opening of its bay",
        "fit.body": "A thing stands in the vehicle or the body",
        "fit.arch": "A thing stands in a wheel arch",
        "fit.place": "A thing stands out of the room it is carried in",
        "fit.outside.start": "A unit stands out of its bay at the front",
        "fit.outside.end": "A unit stands out of its bay at the rear",
        "fit.outside.front": "A unit stands out of the access face of its bay",
        "fit.outside.back": "A unit stands out of its bay's back",
        "fit.outside.floor": "A unit stands out of its bay's floor",
        "fit.outside.roof": "A unit stands out of its bay's roof",
        "fit.pitch": "A unit is off the rail pitch",
        "fit.slots": "A unit is too narrow for two slots of the rail",
        "fit.crowded": "So much stands in one place that not every pair of things was judged",
        "body.on_rack": "What is fixed to a rack does not lie on it",
        "body.rack_pitch": "What is fixed to a rack is off its holes",
        "body.spare": "The spare is of another size than the tyres",
        "loads.slide": "Slides carry more than they are rated for, or have little in reserve",
        "move.blocked": "What opens meets something on its way",
        "move.near": "What opens passes something with little room",
        "move.low": "What opens reaches the ground when the vehicle has settled",
        "move.deadlock": "Two each wait for the other to be opened first",
        "move.set": "A set of what is wanted open together does not hold",
        "move.run": "A run-through stops",
        "move.pair": "Two meet as one is opened beside the other",
        "out.circle": "Two each have to come out before the other",
    },
    ("Services", "Trip"): {
        "services.flat": "The batteries are flat before the trip is over",
        "services.flat_chance": "There is a fair chance that the batteries are flat before the trip is over",
        "services.cold": "A battery is colder than it may be charged at",
        "services.hot": "A battery is hotter than it may be charged at",
        "services.weather_ends": "The weather that was measured ends before the trip does",
    },
    ("Services", "Runs"): {
        "services.short_lead": "A lead is shorter than its way",
        "services.plug": "A plug does not fit its socket",
        "services.plug_amps": "A plug carries more than it is rated for",
        "services.hose_over": "A hose passes above what water harms",
        "services.side": "Something is connected on another side than it stands",
    },
    ("Services", "Circuits"): {
        "services.cable": "A cable is too thin for what it carries",
        "services.fuse": "A fuse is larger than its cable allows",
        "services.fuse_small": "A fuse blows in use",
        "services.drop": "More volts are lost on the way than allowed",
        "services.short": "A fault draws more than the fuse can break, or too little to blow it",
        "services.unfused": "A cable from the battery has no fuse",
        "services.fuse_far": "A fuse sits too far from the battery",
        "services.switch": "A switch carries more than it is rated for",
        "services.reach": "Something comes out before a fuse or a switch is reached",
        "services.unknown": "A circuit names something that is not there",
        "services.places": "A fuse box has too few places",
        "services.inverter": "The inverter is asked for more than it gives",
        "services.leakage": "A mains circuit has no leakage protection",
    },
    ("Services", "Board"): {
        "services.nowhere": "Nobody said where a consumer is",
        "services.board_deep": "An instrument reaches further back than there is room",
    },
    ("Services", "Water"): {
        "services.dry": "The water runs out before the trip is over",
        "services.no_water": "People are on a trip, and nothing aboard holds water",
        "services.water_over": "A tank leaks onto what water harms",
    },
    ("Services", "Gas and air"): {
        "services.gas_out": "The gas runs out before the trip is over",
        "services.vent": "A gas locker has too little drain",
        "services.ignition": "Something that sparks stands beside a gas locker's vent",
    },
    ("Services", "Signatures"): {"services.sign": "A licensed person has to sign"},
    ("Loads", "Board"): {
        "loads.front": "The front axle is over its limit, or likely to be",
        "loads.rear": "The rear axle is over its limit, or likely to be",
        "loads.gross": "The gross mass is over its limit, or likely to be",
        "loads.combination": "The combination is over its limit, or likely to be",
        "loads.roof": "The roof is over its limit, or likely to be",
        "loads.wheel": "A wheel is over its limit, or likely to be",
        "loads.ball": "The ball mass is over its limit",
        "loads.front_light": "The build lifts the front axle below its kerb load",
        "file.absent": "A scenario leaves something at home that is not there",
    },
    ("Loads", "Levers"): {"loads.sides": "One side is heavier than the other"},
    ("Loads", "Springs"): {
        "loads.level": "The vehicle does not stand level on its springs",
        "loads.air": "An air spring is outside its bounds",
    },
    ("Loads", "Chassis"): {"loads.chassis": "The chassis rails are bent more than they should be"},
    ("Loads", "Strength"): {
        "loads.ties": "Too few tie-downs or straps",
        "loads.loose": "Nothing holds a thing in braking",
        "loads.mount": "The bolts of a thing do not hold it",
        "loads.mount_out": "Pulled out, a thing tears at its rear bolts",
        "loads.lock": "On a slope a thing rolls out; it has no lock",
        "loads.pull": "A thing is heavy to draw out uphill",
        "loads.member": "A floor, wall or bar bends for good, or has little in reserve",
        "loads.sag": "A floor, wall or bar sags",
        "loads.strut": "A door's strut cannot be fitted so",
        "loads.strut_falls": "A door falls shut",
        "loads.strut_heavy": "A door is heavy to lift or to draw down",
        "loads.rack": "A rack carries more than its rating on the road",
        "loads.rack_still": "A rack carries more than its rating standing still",
        "loads.rack_frame": "What holds a rack is not known well enough",
        "loads.rack_bar": "A rack's bar bends for good, or has little in reserve",
        "loads.rack_unrated": "Nobody rated a rack",
    },
    ("Loads", "Stability"): {
        "loads.stability": "The centre of mass is high for the track",
        "loads.towed": "The trailer is over its limit",
    },
    ("Loads", "Sheet"): {"loads.scales": "A weighing differs from what is worked out"},
    ("Access", "Gear"): {
        "access.full": "More is in a place than it has room for",
        "access.size": "A thing is larger than the place it is in",
        "access.fumes": "Fuel or gas is carried in something closed",
        "access.nature": "A thing may not be in the place it is in",
        "access.lost": "A thing has no place",
        "access.bogged": "Recovery gear is not at hand when bogged",
        "access.recovery_off": "Recovery gear stays at home in a set-up",
        "access.heavy_high": "Something heavy is high",
    },
    ("Access", "Reach and sight"): {
        "access.reach": "Nobody reaches the middle of a place",
        "access.sight": "Nobody sees what is in a place",
        "access.out_of_reach": "A part of a place is out of reach",
    },
    ("Access", "Moves"): {
        "access.moves": "What is wanted often takes many moves",
        "access.way": "There is no way to a thing",
    },
    ("Access", "Lifting"): {
        "access.lift": "Lifting a thing is a strain",
        "access.pull": "A thing is heavy to draw out",
    },
    ("Access", "Living"): {
        "access.worktop": "A worktop is too high or too low for somebody",
        "access.head": "There is little room above a head",
        "access.berth": "A bed is too short or too narrow for who sleeps in it",
        "access.dog": "A dog has too little room",
        "access.level": "One stands or sleeps on a slope",
    },
    ("Access", "Off and on"): {
        "access.leg_short": "A canopy leg is too short",
        "access.tips": "The canopy tips on its legs",
        "access.beside": "A leg stands in the way of driving out",
    },
    ("Cut", "Parts"): {
        "making.flange": "A flange is too short to bend",
        "making.bend": "A part cannot be bent on the shop's brake",
        "making.hole": "A hole is too near a bend",
        "making.overlap": "A part's faces overlap on the flat",
        "making.nothing": "A part has no size left",
        "making.sheet_stock": "A part is larger than every stock sheet",
        "making.bar_stock": "A part is longer than the stock bar",
    },
    ("Cut", "Gaps"): {"making.gap": "A gap is likely to bind as built"},
    ("Build", "Plan"): {
        "build.late": "It is ready after its day",
        "build.trouble": "It cannot be planned",
        "build.vehicle": "The vehicle is there too late, or away too early",
        "build.unknown": "Something is planned before or after what is not there",
    },
    ("Build", "Log"): {
        "build.deviation": "Something was built otherwise than drawn",
        "build.as_built": "What was built differs from what is drawn now",
        "build.hole": "A hole was drilled elsewhere",
        "build.clock": "Entries of the log are in another order than their days",
        "build.log": "The log is not as it was written",
    },
    ("Build", "Buying"): {
        "build.order": "Something has to be ordered now",
        "build.missing": "Something that is needed has not come",
    },
    ("Build", "Checks"): {"build.failed": "A check failed, or was put off"},
}

CODES: dict[str, Code] = {
    key: Code(*where, words) for where, rows in _ROWS.items() for key, words in rows.items()
}
"""By code: one row each; the list of findings, where they lead to and which stage counts them come from it."""


def listed() -> str:
    """The catalogue as a page of words (Markdown): stage by stage, page by page."""
    rows = [
        "# Findings",
        "",
        "Every finding there is: what is wrong, and the page where it is understood. A *stop* has to be mended before",
        "cutting, a *look* judged and accepted or mended, a *note* is for information. `check --json` gives the code.",
        "",
    ]
    for (stage, page), codes in _ROWS.items():
        rows += [
            f"## {stage}{f', {page}' * bool(page)}",
            "",
            "| code | what is wrong |",
            "| --- | --- |",
        ]
        rows += [*(f"| `{key}` | {words} |" for key, words in codes.items()), ""]
    return "\n".join(rows)
