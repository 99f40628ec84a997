"""Every action of this version, area by area."""

from roomy_hull.session.actions import (
    accessing,
    arranging,
    bodies,
    briefing,
    build_menu,
    files,
    fitting_out,
    loading,
    looking,
    making,
    servicing,
    setting_up,
    things,
)
from roomy_hull.session.actions.registry import Action, Registry


def standard() -> Registry:
    """Gather the actions of all areas.

    Returns: Every action of window, menu and key sheet, in the order of the menus.
    """
    help_menu = [
        Action("help.keys", "Key sheet", "Every key at a glance", "Help", lambda s: s.asker.show_keys(),
               ("F1",)),
        Action("help.find", "Find an action…", "Search all actions by their words", "Help",
               lambda s: s.asker.find_action(), ("Ctrl+K",)),
        Action("help.about", "About Roomy Hull", "What it is, and which version", "Help", lambda s: s.asker.show_about()),
    ]  # fmt: skip
    return Registry((
        *files.actions(),
        *things.actions(),
        *looking.actions(),
        *files.demos(),
        *things.body(),
        *bodies.body(),
        *files.vehicles(),
        *briefing.actions(),
        *fitting_out.actions(),
        *arranging.actions(),
        *setting_up.actions(),
        *servicing.actions(),
        *loading.actions(),
        *accessing.actions(),
        *making.actions(),
        *build_menu.actions(),
        *looking.stages(),
        *help_menu,
    ))
