"""Writes everything that leaves the program for many jobs, to be held against another version's.

    tools/outputs.py make JOBS            sixty jobs made by chance, and the demos
    tools/outputs.py json JOBS OUT        JSON of every command that judges, of each
    tools/outputs.py write JOBS OUT       verdict, cut files and load sheet of each
    tools/outputs.py pages JOBS OUT       the words of every page of the window, for each
    diff -r OUT OTHER                     nothing may differ

What differs by itself at every run (dates, marks of a drawing's making) is taken out.
"""

import contextlib
import io
import os
import re
import sys
import zlib
from collections.abc import Iterator
from pathlib import Path
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from PyQt6.QtWidgets import QWidget

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")

MARKS = re.compile(
    r"(\$(?:TDCREATE|TDUCREATE|TDUPDATE|TDUUPDATE|VERSIONGUID|FINGERPRINTGUID)\n\s*\d+\n)[^\n]*"
    r"|(?<=\n)[0-9.]+ @ 20[^\n]*"
)


def pages(pdf: bytes) -> bytes:
    """What is drawn in a PDF, without its dates and marks."""
    found = []
    for row in re.findall(rb"stream\r?\n(.*?)\r?\nendstream", pdf, re.S):
        with contextlib.suppress(zlib.error):
            found.append(zlib.decompress(row))
    # Typefaces are embedded in another order at each run; what is drawn is plain text.
    return b"\n".join(f for f in found if f.isascii() and b"xmp" not in f)


def make(folder: Path) -> None:
    """Write the jobs."""
    sys.path.insert(0, str(Path(__file__).parent.parent / "bench"))
    from jobs import any_job
    from roomy_hull.formats import jobfile
    from roomy_hull.formats.demo import DEMOS, demo_job

    for name in DEMOS:
        jobfile.save(demo_job(name), folder / f"{name}.hull.json")
    for seed in range(60):
        jobfile.save(any_job(seed), folder / f"chance-{seed:02d}.hull.json")


def run(*words: str) -> str:
    """Run one command as the command line would, and give what it prints."""
    from roomy_hull import __main__ as entry

    said = io.StringIO()
    sys.argv = ["roomy-hull", *words]
    with contextlib.redirect_stdout(said), contextlib.redirect_stderr(said):
        code = entry.main()
    return f"{said.getvalue()}exit {code}\n"


def write_json(jobs: Path, out: Path) -> None:
    """Write the JSON of each job."""
    for job in sorted(jobs.glob("*.hull.json")):
        there = out / job.name.removesuffix(".hull.json")
        there.mkdir(parents=True, exist_ok=True)
        for command in ("check", "cut", "services", "access", "plan"):
            (there / f"{command}.json").write_text(run(command, str(job), "--json"), "utf-8")
        print(there.name, file=sys.stderr)


def write(jobs: Path, out: Path) -> None:
    """Write what leaves the program for each job."""
    out.mkdir(parents=True, exist_ok=True)
    for job in sorted(jobs.glob("*.hull.json")):
        name = job.name.removesuffix(".hull.json")
        there = out / name
        (there / "cut").mkdir(parents=True, exist_ok=True)
        (there / "check.json").write_text(run("check", str(job), "--json"), "utf-8")
        (there / "check.txt").write_text(run("check", str(job)), "utf-8")
        said = run("cut", str(job), "--anyway", "--out", str(there / "cut"))
        (there / "cut.txt").write_text(said.replace(str(out), "OUT"), "utf-8")
        said = run("sheet", str(job), "--out", str(there))
        (there / "sheet.txt").write_text(said.replace(str(out), "OUT"), "utf-8")
        for file in there.rglob("*.dxf"):
            text = MARKS.sub(lambda m: (m[1] or "") + "-", file.read_text("utf-8"))
            file.write_text(text, "utf-8")
        for file in there.rglob("*.pdf"):
            file.write_bytes(pages(file.read_bytes()))
        print(name, file=sys.stderr)


def words_of(widget: "QWidget") -> Iterator[str]:
    """All words that can be seen in a widget, line by line, those of its tables cell by cell."""
    from PyQt6.QtCore import QAbstractListModel, Qt
    from PyQt6.QtWidgets import (
        QAbstractButton,
        QAbstractItemView,
        QComboBox,
        QHeaderView,
        QLabel,
        QLineEdit,
        QWidget,
    )

    for child in widget.findChildren(QWidget):
        if not child.isVisibleTo(widget):
            continue
        if isinstance(child, QLabel | QAbstractButton | QLineEdit):
            yield child.text()
        elif isinstance(child, QComboBox):
            yield " | ".join(child.itemText(n) for n in range(child.count()))
        elif isinstance(child, QHeaderView):
            continue  # its words are those of its table
        elif isinstance(child, QAbstractItemView) and (model := child.model()) is not None:
            columns = range(1 if isinstance(model, QAbstractListModel) else model.columnCount())
            across = Qt.Orientation.Horizontal
            yield " | ".join(str(model.headerData(n, across) or "") for n in columns)
            for row in range(model.rowCount()):
                yield " | ".join(str(model.index(row, n).data() or "") for n in columns)
        if child.toolTip():
            yield f"({child.toolTip()})"


def write_pages(jobs: Path, out: Path) -> None:
    """Write the words of every page for each job."""
    from PyQt6.QtWidgets import QApplication

    from roomy_hull.desktop.application import window_for
    from roomy_hull.formats import jobfile
    from roomy_hull.formats.settings import Settings
    from roomy_hull.session.pages.table import STAGES, Page
    from roomy_hull.session.session import Session

    application = QApplication.instance() or QApplication([])
    for path in sorted(jobs.glob("*.hull.json")):
        there = out / path.name.removesuffix(".hull.json")
        there.mkdir(parents=True, exist_ok=True)
        session = Session(jobfile.load(path), Settings(there / "config", there / "state"))
        window = window_for(session)
        window.show()
        window.settle()
        for stage in STAGES:
            for page in stage.pages or (Page(stage.title, "", ""),):
                session.view.turn_to(stage.title, page.title)
                application.processEvents()
                rows = "\n".join(words_of(window))
                (there / f"{stage.title} {page.title}.txt").write_text(f"{rows}\n", "utf-8")
        session.history.mark_saved()
        window.close()
        print(there.name, file=sys.stderr)


if __name__ == "__main__":
    if os.environ.get("PYTHONHASHSEED") != "0":  # the DXF library lists its classes as a set
        os.execve(
            sys.executable, [sys.executable, *sys.argv], {**os.environ, "PYTHONHASHSEED": "0"}
        )
    if sys.argv[1:2] == ["make"]:
        make(Path(sys.argv[2]))
    elif sys.argv[1:2] == ["json"]:
        write_json(Path(sys.argv[2]), Path(sys.argv[3]))
    elif sys.argv[1:2] == ["pages"]:
        write_pages(Path(sys.argv[2]), Path(sys.argv[3]))
    else:
        write(Path(sys.argv[2]), Path(sys.argv[3]))
