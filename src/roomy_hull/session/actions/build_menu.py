"""What the menu Build offers."""

from roomy_hull.session.actions import as_built, building, handing
from roomy_hull.session.actions.looking import pages
from roomy_hull.session.actions.registry import Action

MENU = "Build"


def actions() -> list[Action]:
    """What the menu Build offers."""
    return [
        *pages("Build", MENU, "build_page"),
        Action(
            "build.begin",
            "Begin the plan…",
            "On a day; operations come from the job",
            MENU,
            building.begin,
        ),
        Action(
            "build.today",
            "Plan the rest from today",
            "Nothing is planned into the past",
            MENU,
            building.from_today,
        ),
        Action(
            "build.let_go",
            "Let the operation go",
            "Where the plan puts it",
            MENU,
            building.let_go,
            (),
            building.held_by_hand,
        ),
        Action(
            "build.hours",
            "Say how long it takes…",
            "The chosen operation, whatever the rates say",
            MENU,
            building.hours,
            (),
            building.chosen_op,
        ),
        Action("build.own", "Plan something else…", "That no drawing shows", MENU, building.own),
        Action(
            "build.done",
            "Finish the operation…",
            "With the hours it took",
            MENU,
            building.done,
            ("Ctrl+Return",),
            building.chosen_op,
        ),
        Action(
            "build.work",
            "Log hours…",
            "At the chosen operation, which goes on",
            MENU,
            building.log_hours,
            (),
            building.chosen_op,
        ),
        Action(
            "build.photo",
            "Log a photo…",
            "Copied beside the job, of the chosen operation",
            MENU,
            building.photo,
            ("Ctrl+Shift+H",),
        ),
        Action(
            "build.deviation",
            "Log a size as built…",
            "Of the selection; fit and loads follow",
            MENU,
            as_built.deviation,
            ("Ctrl+Shift+B",),
        ),
        Action(
            "build.number",
            "Log a serial number or batch…",
            "Of the selection",
            MENU,
            building.numbered,
        ),
        Action("build.note", "Log a note…", "Of the chosen operation", MENU, building.note),
        Action(
            "build.correct",
            "Correct the entry…",
            "By a new one that says why",
            MENU,
            building.correct,
            (),
            building.chosen_entry,
        ),
        Action(
            "build.check_done",
            "Check done",
            "The chosen check, and on to the next",
            MENU,
            handing.answer("done"),
            ("Ctrl+Alt+D",),
            handing.at_checks,
        ),
        Action(
            "build.check_failed",
            "Check failed",
            "It becomes a task",
            MENU,
            handing.answer("failed"),
            ("Ctrl+Alt+F",),
            handing.at_checks,
        ),
        Action(
            "build.check_later",
            "Check later",
            "And on to the next",
            MENU,
            handing.answer("later"),
            ("Ctrl+Alt+L",),
            handing.at_checks,
        ),
        Action(
            "build.sign",
            "Sign for something…",
            "Engineer, weighing, build, customer",
            MENU,
            handing.sign,
        ),
        Action(
            "build.agree",
            "The offer is agreed…",
            "Which options the customer took",
            MENU,
            handing.agree,
            (),
            lambda s: bool(s.job.offers),
        ),
        Action(
            "build.write_offer",
            "Write the last offer…",
            "PDF and CSV",
            MENU,
            handing.paper("offer"),
            (),
            lambda s: bool(s.job.offers),
        ),
        Action(
            "build.lists",
            "Today's lists…",
            "A page for each person, as PDF",
            MENU,
            handing.paper("lists"),
        ),
        Action(
            "build.sheets",
            "Check sheets…",
            "To fill by hand, as PDF",
            MENU,
            handing.paper("checks"),
        ),
        Action(
            "build.progress",
            "Progress for the customer…",
            "With photos, as PDF",
            MENU,
            handing.paper("progress"),
        ),
        Action(
            "build.pack",
            "The hand-over pack…",
            "As PDF, with the check sheets",
            MENU,
            handing.paper("pack"),
        ),
        Action(
            "build.hand_over", "Hand it over…", "Not while a stop stands", MENU, handing.hand_over
        ),
        Action(
            "build.visit",
            "Log a re-check visit…",
            "What moved, loosened or cracked",
            MENU,
            building.visit,
        ),
        Action("build.lesson", "Log a lesson…", "For the next brief", MENU, building.lesson),
        Action(
            "build.folder",
            "The workshop's folder…",
            "Its jobs share people and stations",
            MENU,
            handing.folder,
        ),
        Action(
            "build.board",
            "The board on paper…",
            "As PDF, to hang up",
            MENU,
            handing.paper("board"),
            (),
            lambda s: s.building.board is not None,
        ),
    ]


def taking() -> list[Action]:
    """What takes something."""
    return [
        Action("build.hold", "Hold an operation", "Not before a moment", "", building.hold),
        Action(
            "build.order",
            "Take an order of operations",
            "That a search found",
            "",
            building.take_order,
        ),
        Action("build.log_work", "Log work", "At an operation", "", building.work),
        Action("build.bought", "Log what was ordered or received", "By keys", "", handing.bought),
        Action("build.check", "Log a check", "With its figures", "", handing.check),
        Action(
            "build.otherwise",
            "Log a size as built",
            "By its path or part",
            "",
            as_built.build_otherwise,
        ),
        Action("build.hole", "Log a hole that was moved", "Of a part", "", as_built.hole_moved),
        Action("build.add_photo", "Log a photo", "From a file", "", building.add_photo),
        Action("build.offer", "Offer", "The job as it stands", "", handing.offer),
        Action("build.open_job", "Open a job of the board", "By its file", "", handing.open_job),
    ]
