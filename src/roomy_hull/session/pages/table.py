"""The table of stages and pages: menus, keys, bars, the job line and the window are made from it."""

import msgspec

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.core.codes import CODES
from roomy_hull.core.findings import Finding
from roomy_hull.session.view_state import ViewState


class Page(msgspec.Struct, frozen=True):
    """One page of a stage.

    Attributes:
        title, key, tip: Its name, its key, what it shows.
        widget: Where its widget is: module below `desktop.pages`, and class, as ``loads.board:BoardPage``. Empty for
            the drawing itself; a panel over the drawing begins with ``+``.
        rests: The long study that it shows, if it shows one.
    """

    title: str
    key: str
    tip: str
    widget: str = ""
    rests: str = ""


class Stage(msgspec.Struct, frozen=True):
    """One stage of the work, in the order of the work.

    Attributes:
        title: Its name, on the job line and in the menu.
        widget: Where its widget is, as for a page; empty for one of several pages.
        pages: Its pages; none where the stage is one.
        rests: The long study that all of them show, if they show one.
    """

    title: str
    widget: str = ""
    pages: tuple[Page, ...] = ()
    rests: str = ""

    def rest(self, title: str) -> str:
        """The long study that a page shows; empty for none."""
        return self.rests or next((p.rests for p in self.pages if p.title == title), "")


STAGES: tuple[Stage, ...] = (
    Stage("Survey", "", (
        Page("Brief", "Ctrl+Shift+F8", "What it is for, what is wished for, where schools differ", "build.brief:BriefPage"),
        Page("Measures", "Ctrl+Shift+F9", "What the tape says, with its uncertainty", "survey:SurveyStage"),
    )),
    Stage("Body", "body:BodyStage"),
    Stage("Fit-out", "", (
        Page("Drawing", "F2", "Place and move units"),
        Page("Together", "F3", "What can be open at the same time",
             "fitout.together:TogetherPage"),
        Page("Run-through", "F4", "Play a sequence move by move", "+fitout.panels:RunPanel"),
        Page("In and out", "F5", "In which order units go in and come out",
             "+fitout.panels:InOutPanel"),
        Page("Arrange", "Ctrl+F2", "A place for everything, with a proof of how good it is", "fitout.arranging:ArrangePage"),
        Page("Set-ups", "F11", "What is on the vehicle for which use, and how to swap", "fitout.setups:SetupsPage",
             rests="set-ups"),
        Page("Variants", "F7", "Layouts side by side", "fitout.variants:VariantsPage"),
        Page("Solid", "F12", "The job in the round", "fitout.solid:SolidPage"),
    )),
    Stage("Services", "", (
        Page("Trip", "Ctrl+Alt+Shift+1", "How long until flat, until dry", "services.trip:TripPage"),
        Page("Runs", "Ctrl+Alt+Shift+2", "Where cables, hoses and pipes lie, how long to cut them",
             "services.runs:RunsPage"),
        Page("Circuits", "Ctrl+Alt+Shift+3", "Which wire, which fuse", "services.circuits:CircuitsPage"),
        Page("Board", "Ctrl+Alt+Shift+4", "Instruments on a panel that is cut with the rest", "services.board:BoardPage"),
        Page("Water", "Ctrl+Alt+Shift+5", "What runs out, on a slope too", "services.fluids:WaterPage"),
        Page("Gas and air", "Ctrl+Alt+Shift+6", "What burns how long; tyres and air springs", "services.fluids:GasPage"),
        Page("Signatures", "Ctrl+Alt+Shift+7", "Who answers for what", "services.signing:SignaturesPage"),
    )),
    Stage("Loads", "", (
        Page("Board", "Ctrl+Alt+1", "Every scenario against every limit",
             "loads.board:BoardPage"),
        Page("Levers", "Ctrl+Alt+2", "What weighs what, and what moving it would do",
             "loads.levers:LeversPage"),
        Page("Budget", "Ctrl+Alt+3", "The brief: wanted, needed, decided",
             "loads.budget:BudgetPage"),
        Page("Springs", "Ctrl+Alt+4", "How it stands on each kind of springs", "loads.springs:SpringsPage"),
        Page("Chassis", "Ctrl+Alt+5", "Shear and bending of the rails",
             "loads.chassis:ChassisPage"),
        Page("Strength", "Ctrl+Alt+6", "Mounts, slides, members and gas struts",
             "loads.strength:StrengthPage"),
        Page("Stability", "Ctrl+Alt+7", "Centre of mass, tilt, angles, towing", "loads.stability:StabilityPage"),
        Page("Sheet", "Ctrl+Alt+8", "Weighings, and the sheet to print", "loads.sheet:SheetPage"),
        Page("Scenarios", "Ctrl+Alt+9", "Who and what is aboard in each", "loads.scenarios:ScenariosPage"),
    )),
    Stage("Access", "", (
        Page("Gear", "Ctrl+Shift+1", "What is carried, where it is, where is what", "access.goods:GoodsPage"),
        Page("Reach and sight", "Ctrl+Shift+2", "Who gets at what, and sees it", "access.reach:ReachPage"),
        Page("Moves", "Ctrl+Shift+3", "In how many moves a thing is in the hand", "access.moves:MovesPage"),
        Page("Lifting", "Ctrl+Shift+4", "What is lifted from where, with which strain", "access.lifting:LiftingPage"),
        Page("Living", "Ctrl+Shift+5", "Worktops, heads, beds, dogs, standing level", "access.living:LivingPage"),
        Page("Off and on", "Ctrl+Shift+6", "How the canopy comes off", "access.off_on:OffOnPage"),
    ), "access"),
    Stage("Cut", "", (
        Page("Parts", "Ctrl+Shift+F1", "Every part flat and folded, its bends in order", "cutting.parts:PartsPage"),
        Page("Sheets", "Ctrl+Shift+F2", "How blanks lie on sheets, beside the fewest that could do",
             "cutting.sheets:SheetsPage"),
        Page("Bars", "Ctrl+Shift+F3", "How bars are sawn and drilled", "cutting.sheets:BarsPage"),
        Page("Joints", "Ctrl+Shift+F4", "How parts go together", "cutting.joints:JointsPage"),
        Page("Gaps", "Ctrl+Shift+F5", "How likely each gap binds as built, what to measure again",
             "cutting.gaps:GapsPage", "gaps"),
        Page("Cost", "Ctrl+Shift+F6", "What it costs to make", "cutting.cost:CostPage"),
        Page("Release", "Ctrl+Shift+F7", "Revisions, what is stale, how far every part has come",
             "cutting.release:ReleasePage"),
    )),
    Stage("Build", "", (
        Page("Quote", "Alt+Shift+1", "What it costs, with options; what was quoted before", "build.offer:OfferPage"),
        Page("Plan", "Alt+Shift+2", "Who does what when; what is late and why", "build.plan:PlanPage"),
        Page("Progress", "Alt+Shift+3", "The vehicle as it grows", "build.progress:ProgressPage"),
        Page("Log", "Alt+Shift+4", "What was done, found and built otherwise; photos", "build.log:LogPage"),
        Page("Buying", "Alt+Shift+5", "What comes from outside, and by when to order it", "build.buying:BuyingPage"),
        Page("Checks", "Alt+Shift+6", "What is tested before it leaves", "build.checks:ChecksPage"),
        Page("Hand-over", "Alt+Shift+7", "What the customer is given, page by page", "build.pack:PackPage"),
        Page("Workshop", "Alt+Shift+8", "All jobs of the workshop", "build.board:BoardPage"),
    ), "build"),
)  # fmt: skip
"""Every stage, and every page of each: one row each."""

_ROWS = {"front": "front", "front_light": "front", "rear": "rear", "gross": "gross", "roof": "roof", "ball": "ball",
         "combination": "combination"}  # fmt: skip


def stage(title: str) -> Stage:
    """Look a stage up by its title."""
    return next(s for s in STAGES if s.title == title)


def page(stage_title: str, look: ViewState) -> Page:
    """The page of a stage that is shown: the chosen one, else its first."""
    pages = stage(stage_title).pages
    return next((p for p in pages if p.title == look.page(stage_title)), pages[0])


def facing(finding: Finding, assembly: Assembly, look: ViewState) -> dict[str, object]:
    """Say how to stand so that a finding is seen: side, scenario, stage and page."""
    changes: dict[str, object] = {}
    for ref in finding.subjects:
        thing = assembly.thing(ref)
        if thing is not None and thing.place is not None:
            changes["station"] = thing.place.bay.side
            break
    if finding.scenario:
        changes["scenario"] = finding.scenario
    about = CODES[finding.code]
    changes["stage"] = about.stage
    shown = look.page(about.stage)
    # What lies over the drawing stays: the drawing below it shows the finding.
    over = any(p.title == shown and p.widget.startswith("+") for p in stage(about.stage).pages)
    if about.page and not (about.page == "Drawing" and over):
        changes["pages"] = {**look.pages, about.stage: about.page}
    row = _ROWS.get(finding.code.removeprefix("loads."))
    if row is not None:
        changes["loads"] = {"row": row}
    return changes
