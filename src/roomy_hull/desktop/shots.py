"""Pictures of the main views of a job, for the manual and for customers."""

from collections.abc import Callable
from pathlib import Path

from PyQt6.QtCore import QCoreApplication, QEvent, QEventLoop, QPointF, QTimer

from roomy_hull.actions.fitting_out import go_to_step
from roomy_hull.core.errors import JobFileError
from roomy_hull.desktop.application import application, bench_for, window_for
from roomy_hull.desktop.loads.levers import LeversPage
from roomy_hull.desktop.loads.strength import StrengthPage
from roomy_hull.desktop.window import MainWindow
from roomy_hull.drawing.view import ELEVATION
from roomy_hull.formats.keeping import Keeping
from roomy_hull.job import layouts, scenarios
from roomy_hull.job.model import Weighing
from roomy_hull.job.unit import Carried, Fridge

SIZE = (1280, 800)


def wait(ms: int) -> None:
    """Let the window work for a while. [ms]"""
    loop = QEventLoop()
    QTimer.singleShot(ms, loop.quit)
    loop.exec()


def _first(window: MainWindow, kind: type) -> str:
    """Give the id of the first unit of a kind, else of the first unit, else nothing."""
    units = window.bench.job.units
    return next((u.id for u in units if isinstance(u, kind)), units[0].id if units else "")


def _survey(window: MainWindow) -> None:
    window.bench.set_look(stage="Survey")
    window.survey_stage.list.setCurrentRow(11)


def _body(window: MainWindow) -> None:
    window.bench.set_look(stage="Body", station="left")


def _plain(window: MainWindow) -> None:
    window.bench.set_look(stage="Fit-out", station="right", whole=True)


def _selected(window: MainWindow) -> None:
    bench = window.bench
    key = _first(window, Fridge)
    thing = bench.verdict.assembly.thing(key)
    if thing is not None and thing.place is not None:
        bench.set_look(station=thing.place.bay.side, whole=False)
    bench.select(key)


def _opened(window: MainWindow) -> None:
    window.bench.select("")
    window.bench.set_look(station="left", whole=False, stature=1530.0)
    window.do("look.open_all")


def _dragging(window: MainWindow) -> None:
    """Hold the first fridge half a unit into its neighbour."""
    window.bench.set_look(stature=0.0, opened=frozenset())
    _selected(window)
    bench, ground = window.bench, window.ground
    thing = bench.verdict.assembly.thing(bench.selection)
    if thing is None or isinstance(thing.value, Carried):
        return
    where, view = ground.layout_now(), ELEVATION[bench.look.station]
    h0, k0, h1, k1 = view.rect(thing.envelope)
    at = where.elevation.px(((h0 + h1) / 2, (k0 + k1) / 2))
    ground.drag.press(thing, view, where.elevation.mm(at.x(), at.y()), at)
    shift = QPointF(view.h[1] * thing.expansion.envelope.x1 * 0.35 * where.elevation.s, 0)
    to = at + shift
    ground.drag.move(where.elevation.mm(to.x(), to.y()), to)
    ground.update()


def _let_go(window: MainWindow) -> None:
    window.ground.drag.cancel()
    window.bench.select("")


def _together(window: MainWindow) -> None:
    _let_go(window)
    window.bench.set_look(page="Together", opened=frozenset())
    grid = window.together_page.grid
    rows = [o.id for o in grid.rows()]
    if "wet-bench" in rows and "galley:1" in rows:
        grid.at = (rows.index("wet-bench"), rows.index("galley:1"))
        window.together_page.refresh()


def _run(window: MainWindow) -> None:
    runs = window.bench.job.runs
    window.bench.set_look(page="Run-through", whole=False, run=runs[0].id if runs else "")
    if runs:
        go_to_step(window.bench, len(runs[0].moves))


def _variants(window: MainWindow) -> None:
    bench = window.bench
    bench.select("")
    bench.preview(layouts.kept(bench.job, "Upright"))
    key = _first(window, Fridge)
    new = Fridge(id="x", name="Upright 85 l", bay="-", width=447, depth=500, height=620, litres=85, mass=22,
                 style="upright", contents=30, slide_mass=0)  # fmt: skip
    if isinstance(bench.job.thing(key), Fridge):
        bench.preview(layouts.replaced(bench.job, key, new))
    bench.set_look(page="Variants", station="right")


def _solid(window: MainWindow) -> None:
    bench = window.bench
    bench.cancel()
    wished = ("door:left", "wet-bench", "galley:2", "net-drawer")
    known = {o.id for o in bench.verdict.assembly.openings()}
    bench.set_look(page="Solid", opened=frozenset(known.intersection(wished)))
    view = window.solid_page.view
    view.yaw, view.pitch, view.zoom = -52.0, 28.0, 1.15
    view.build()


def _loads(window: MainWindow) -> None:
    _let_go(window)
    window.bench.set_look(page="Drawing", opened=frozenset())
    window.bench.set_look(stage="Loads", whole=True, loads_page="Board", row="rear")


def _levers(window: MainWindow) -> None:
    window.bench.set_look(loads_page="Levers")
    page = window.loads_stage.page("Levers")
    if isinstance(page, LeversPage):
        page.rank_by("front")
        page.search()
        for _ in range(200):
            if page.work is None:
                break
            wait(30)


def _springs(window: MainWindow) -> None:
    window.bench.select("")
    window.bench.set_look(loads_page="Springs")


def _chassis(window: MainWindow) -> None:
    window.bench.set_look(loads_page="Chassis")


def _strength(window: MainWindow) -> None:
    window.bench.set_look(loads_page="Strength")
    page = window.loads_stage.page("Strength")
    if isinstance(page, StrengthPage):
        page.only("")
        page.at = next((n for n, r in enumerate(page.rows()) if r.kind == "Strut"), 0)
        page.refresh()


def _stability(window: MainWindow) -> None:
    window.bench.set_look(loads_page="Stability")


def _sheet_page(window: MainWindow) -> None:
    """Show a weighing of the chosen scenario, a little off what was reckoned."""
    bench = window.bench
    loads = bench.verdict.loads.scenario(bench.look.scenario)
    wheels = dict(
        zip(("front_left", "front_right", "rear_left", "rear_right"), loads.wheels, strict=True)
    )
    read = {
        k: round(f.value + d)
        for (k, f), d in zip(wheels.items(), (-7.0, -2.0, 15.0, 9.0), strict=True)
    }
    one = Weighing(id="w", scenario=loads.id, date="2026-11-20", place="four wheel pads").but(
        **read
    )
    bench.preview(scenarios.weighed(bench.job, one))
    bench.set_look(loads_page="Sheet")


def _cut(window: MainWindow) -> None:
    window.bench.cancel()
    window.bench.set_look(stage="Cut")
    _wait_for_cut(window)
    cut = window.cut_stage.cut
    folded = (
        [
            n
            for n, b in enumerate(cut.blanks, 1)
            if len(b.bends) == 4 and "drawer box" in b.part.name
        ]
        if cut is not None
        else []
    )
    if folded:
        window.cut_stage.list.setCurrentRow(folded[0])


def _wait_for_cut(window: MainWindow) -> None:
    for _ in range(400):
        if window.cut_stage.cut is not None and window.cut_stage.idle:
            return
        wait(10)


def _sheet(window: MainWindow) -> None:
    stage = window.cut_stage
    if stage.cut is not None:
        stage.list.setCurrentRow(len(stage.cut.blanks) + 3)


def _dark(window: MainWindow) -> None:
    window.bench.set_look(stage="Fit-out", station="left", whole=True, dark=True, system="us")


VIEWS: tuple[tuple[str, Callable[[MainWindow], None]], ...] = (
    ("survey", _survey),
    ("body", _body),
    ("fit-out", _plain),
    ("fit-out-open", _opened),
    ("fit-out-dragging", _dragging),
    ("fit-out-together", _together),
    ("fit-out-run", _run),
    ("fit-out-variants", _variants),
    ("fit-out-solid", _solid),
    ("loads", _loads),
    ("loads-levers", _levers),
    ("loads-springs", _springs),
    ("loads-chassis", _chassis),
    ("loads-strength", _strength),
    ("loads-stability", _stability),
    ("loads-sheet", _sheet_page),
    ("cut-blank", _cut),
    ("cut-sheet", _sheet),
    ("fit-out-dark-us", _dark),
)


def write(path: Path | None, folder: Path) -> list[Path]:
    """Write a PNG of every main view.

    Parameters
    ----------
    path : Path or None
        Job file, or the demo job where there is none.
    folder : Path
        Where to; made if it is not there.

    Returns
    -------
    list of Path
        The pictures.

    Raises
    ------
    JobFileError
        The job cannot be used, or the folder cannot be written.
    """
    application()
    bench = bench_for(path, _Forgetful(folder))
    try:
        folder.mkdir(parents=True, exist_ok=True)
    except OSError as trouble:
        raise JobFileError(
            f"the folder cannot be made ({trouble.strerror})", str(folder), "Choose another place."
        ) from None
    window = window_for(bench)
    try:
        return _pictures(window, folder)
    finally:
        bench.history.mark_saved()
        window.close()
        # Now, not some time later: every window that lives on is styled together with each new one.
        window.deleteLater()
        QCoreApplication.sendPostedEvents(window, QEvent.Type.DeferredDelete.value)


def _pictures(window: MainWindow, folder: Path) -> list[Path]:
    """Take every view of a window."""
    window.ground.turn_ms = 0
    window.resize(*SIZE)
    window.show()
    window.settle()
    written = []
    for name, prepare in VIEWS:
        prepare(window)
        window.hush()
        wait(30)
        file = folder / f"{name}.png"
        if not window.grab().save(str(file)):
            raise JobFileError("the picture cannot be written", str(file), "Choose another place.")
        written.append(file)
    return written


class _Forgetful(Keeping):
    """Keeps nothing: pictures leave no trace in the person's recent jobs."""

    def __init__(self, folder: Path) -> None:
        super().__init__(folder / ".none", folder / ".none")

    def keep_preferences(self, **values: object) -> None:
        """Keep nothing."""
