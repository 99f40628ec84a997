"""Pictures of the main views of a job, for the manual and for customers."""

from collections.abc import Callable
from pathlib import Path

from PyQt6.QtCore import QCoreApplication, QEvent, QEventLoop, QPointF, QTimer

from roomy_hull.arrange.arranger import arrange
from roomy_hull.arrange.offers import Told
from roomy_hull.core.capabilities import Role
from roomy_hull.core.errors import InputError, PictureError
from roomy_hull.core.parts import SheetPart
from roomy_hull.desktop.application import application, session_for, window_for
from roomy_hull.desktop.pages.loads.levers import LeversPage
from roomy_hull.desktop.window import SHARE_MS, MainWindow
from roomy_hull.drawing.view import ELEVATION
from roomy_hull.formats.demo import demo_job
from roomy_hull.formats.settings import Settings
from roomy_hull.job.carried import Carried
from roomy_hull.kinds.registry import kind_of
from roomy_hull.session.pages.cut.words import parts, works
from roomy_hull.session.session import Session

SIZE = (1280, 800)


def wait(ms: int) -> None:
    """Let the window work for a while. [ms]"""
    loop = QEventLoop()
    QTimer.singleShot(ms, loop.quit)
    loop.exec()


def _first(window: MainWindow, role: Role) -> str:
    """The id of the first unit that has a role, else of the first unit, else nothing."""
    units = window.session.job.units
    return next(
        (u.id for u in units if role in kind_of(u).says(u, "").roles), units[0].id if units else ""
    )


def _survey(window: MainWindow) -> None:
    window.session.view.turn_to("Survey", "Measures")
    window.page("Survey", "Measures").choose(11)


def _brief(window: MainWindow) -> None:
    window.session.view.turn_to("Survey", "Brief", brief={"question": "springs"})


def _body(window: MainWindow) -> None:
    rooms = window.session.job.body.rooms
    window.session.view.set(
        stage="Body", station="left", body={"chosen": rooms[0].id if rooms else ""}
    )


def _setups(window: MainWindow) -> None:
    window.session.view.turn_to("Fit-out", "Set-ups")


def _plain(window: MainWindow) -> None:
    window.session.view.set(stage="Fit-out", station="right", whole=True)


def _selected(window: MainWindow) -> None:
    session = window.session
    key = _first(window, "fridge")
    thing = session.verdict.assembly.thing(key)
    if thing is not None and thing.place is not None:
        session.view.set(station=thing.place.bay.side, whole=False)
    session.selection.select(key)


def _dragging(window: MainWindow) -> None:
    """Hold the first fridge half a unit into its neighbour."""
    window.session.view.set(stature=0.0, opened=frozenset())
    _selected(window)
    session, ground = window.session, window.ground
    thing = session.verdict.assembly.thing(session.selection.key)
    if thing is None or isinstance(thing.value, Carried):
        return
    where, view = ground.layout_now(), ELEVATION[session.look.station]
    h0, k0, h1, k1 = view.rect(thing.envelope)
    at = where.elevation.px(((h0 + h1) / 2, (k0 + k1) / 2))
    ground.drag.press(thing, view, where.elevation.mm(at.x(), at.y()), at)
    shift = QPointF(view.h[1] * thing.expansion.envelope.x1 * 0.35 * where.elevation.s, 0)
    to = at + shift
    ground.drag.move(where.elevation.mm(to.x(), to.y()), to)
    ground.update()


def _let_go(window: MainWindow) -> None:
    window.ground.drag.cancel()
    window.session.selection.select("")


def _together(window: MainWindow) -> None:
    _let_go(window)
    window.session.view.turn_to("Fit-out", "Together", opened=frozenset())
    grid = window.page("Fit-out", "Together").grid
    rows = [o.id for o in grid.rows()]
    if "wet-bench" in rows and "galley:1" in rows:
        grid.at = (rows.index("wet-bench"), rows.index("galley:1"))
        window.page("Fit-out", "Together").refresh()


def _arrange(window: MainWindow) -> None:
    """Arrange the job anew until nothing more is found: the same each time, and no clock is in the picture."""
    session = window.session
    session.view.turn_to("Fit-out", "Arrange")
    run, heard = session.arranging, list[Told]()

    def hear(told: Told) -> bool:
        heard.append(told)
        return True

    try:
        found = arrange(session.verdict, session.job.arrange, 120.0, 25.0, hear)
    except InputError:  # nothing to arrange: the page says so
        return
    run.of, run.result = session.job, found
    run.trace = [(float(n), t.best, t.bound) for n, t in enumerate(heard)]
    run.choose(0)


def _solid(window: MainWindow) -> None:
    session = window.session
    session.cancel()
    wished = ("door:left", "wet-bench", "galley:2", "net-drawer")
    known = {o.id for o in session.verdict.assembly.openings()}
    session.view.turn_to("Fit-out", "Solid", opened=frozenset(known.intersection(wished)))
    view = window.page("Fit-out", "Solid").view
    view.yaw, view.pitch, view.zoom = -52.0, 28.0, 1.15
    view.build()


def _loads(window: MainWindow) -> None:
    _let_go(window)
    window.session.view.turn_to("Fit-out", "Drawing", opened=frozenset())
    window.session.view.set(whole=True, loads={"row": "rear"})
    window.session.view.turn_to("Loads", "Board")


def _levers(window: MainWindow) -> None:
    window.session.view.turn_to("Loads", "Levers")
    page = window.page("Loads", "Levers")
    if isinstance(page, LeversPage):
        page.rank_by("front")
        page.search()
        for _ in range(200):
            if page.work is None:
                break
            wait(30)


def _cut(window: MainWindow) -> None:
    session = window.session
    session.cancel()
    # Folded all round, so that the order of its bends matters.
    own = next(
        (
            n
            for n, p, _w in parts(session)
            if isinstance(p, SheetPart) and len(p.flat().bends) == 4 and not p.role
        ),
        0,
    )
    session.view.turn_to("Cut", "Parts", cut={"part": own, "bent": -1})


def _wait_for_cut(window: MainWindow) -> None:
    page = window.stage("Cut").page("Sheets")
    for _ in range(400):
        if page.cut is not None and page.idle:
            return
        wait(10)


def _sheet(window: MainWindow) -> None:
    window.session.selection.select("")
    window.session.view.turn_to("Cut", "Sheets", cut={"piece": 0})
    _wait_for_cut(window)
    cut = window.session.cutting.cut
    if cut is not None:
        inner = [n for n, s in enumerate(cut.nest.sheets) if any(p.inside >= 0 for p in s.placed)]
        window.session.view.set(cut={"piece": inner[0] if inner else 0})


def _trip(window: MainWindow) -> None:
    window.session.view.turn_to("Services", "Trip", services={"chosen": ""})


def _reach(window: MainWindow) -> None:
    session = window.session
    rows = session.verdict.access.spaces
    own = next(
        (s for s in rows if s.top and not s.device and s.side == "left"), rows[0] if rows else None
    )
    key = f"space.{own.owner}.{own.part}" if own is not None else ""
    session.view.turn_to("Access", "Reach and sight", access={"chosen": key})


def _goods(window: MainWindow) -> None:
    window.session.view.turn_to("Access", "Gear", access={"chosen": ""}, station="left")


def _plan(window: MainWindow) -> None:
    session = window.session
    session.selection.select("")
    session.view.turn_to("Build", "Plan", build={"op": ""})
    page = window.page("Build", "Plan")
    page.model.days = 5.0
    order = session.building.of(session.verdict).levelled.order
    session.view.set(build={"op": next((k for k in order if k.endswith(":mount")), "")})


def _progress(window: MainWindow) -> None:
    window.session.view.turn_to("Build", "Progress", build={"op": ""}, station="left")


def _dark(window: MainWindow) -> None:
    session = window.session
    made = [w for w in works(session).works if w.owner.is_thing and len(w.joints) > 3]
    session.selection.select(made[0].owner.id if made else "")
    session.view.turn_to("Cut", "Joints", dark=True, system="us")


Views = tuple[tuple[str, Callable[[MainWindow], None]], ...]
VIEWS: Views = (
    ("brief", _brief),
    ("survey", _survey),
    ("body", _body),
    ("fit-out", _plain),
    ("fit-out-dragging", _dragging),
    ("fit-out-together", _together),
    ("fit-out-setups", _setups),
    ("fit-out-arrange", _arrange),
    ("fit-out-solid", _solid),
    ("services-trip", _trip),
    ("loads", _loads),
    ("loads-levers", _levers),
    ("access-goods", _goods),
    ("access-reach", _reach),
    ("cut-parts", _cut),
    ("cut-sheet", _sheet),
    ("build-plan", _plan),
    ("build-progress", _progress),
    ("cut-joints-dark", _dark),
)


OTHERS = (
    ("reedholm", frozenset({"body", "fit-out-setups"})),
    ("tarn", frozenset({"fit-out-arrange"})),
)
"""Views that are taken of other demos where no job is given: one has rooms, a rack and set-ups, one is soon arranged."""


def write(path: Path | None, folder: Path) -> list[Path]:
    """Write a PNG of every main view.

    Args:
        path: Job file, or the demo job where there is none.
    Returns: The pictures, in the order of `VIEWS`.
    Raises:
        UserError: The job cannot be used.
        PictureError: The folder cannot be written.
    """
    application()
    session = session_for(path, _Forgetful(folder))
    try:
        folder.mkdir(parents=True, exist_ok=True)
    except OSError as trouble:
        raise PictureError(
            f"the folder cannot be made ({trouble.strerror})", str(folder), "Choose another place."
        ) from None
    if path is not None:
        return _taken(session, folder, VIEWS)
    elsewhere = frozenset().union(*(views for _, views in OTHERS))
    written = _taken(session, folder, tuple(v for v in VIEWS if v[0] not in elsewhere))
    for name, views in OTHERS:
        other = Session(demo_job(name), _Forgetful(folder))
        written += _taken(other, folder, tuple(v for v in VIEWS if v[0] in views))
    order = [name for name, _prepare in VIEWS]
    return sorted(written, key=lambda f: order.index(f.stem))


def _taken(session: Session, folder: Path, views: Views) -> list[Path]:
    """Take some views of a job in a window of its own."""
    window = window_for(session)
    try:
        return _pictures(window, folder, views)
    finally:
        session.history.mark_saved()
        window.close()
        # Now, not some time later: every window that lives on is styled together with each new one.
        window.deleteLater()
        QCoreApplication.sendPostedEvents(window, QEvent.Type.DeferredDelete.value)


def _pictures(window: MainWindow, folder: Path, views: Views) -> list[Path]:
    """Take views of a window."""
    window.ground.turn_ms = 0
    window.resize(*SIZE)
    window.show()
    window.settle()
    written = []
    for name, prepare in views:
        prepare(window)
        window.hush()
        wait(SHARE_MS + 60)  # until card and findings have shared their column
        file = folder / f"{name}.png"
        if not window.grab().save(str(file)):
            raise PictureError("the picture cannot be written", str(file), "Choose another place.")
        written.append(file)
    return written


class _Forgetful(Settings):
    """Keeps nothing: pictures leave no trace in the person's recent jobs."""

    def __init__(self, folder: Path) -> None:
        super().__init__(folder / ".none", folder / ".none")

    def keep_preferences(self, **values: object) -> None:
        """Keep nothing."""
