"""What is typed and not yet taken goes where it was typed, however the field is left."""

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QApplication
from pytestqt.qtbot import QtBot

from roomy_hull.desktop.widgets.figure_edit import FigureEdit
from roomy_hull.desktop.window import MainWindow
from roomy_hull.session.actions import editing
from roomy_hull.session.doing import do


def typed(window: MainWindow, qtbot: QtBot, key: str, name: str, words: str) -> FigureEdit:
    """Choose a thing and type into one of its fields, without leaving it."""
    window.session.view.set(stage="Fit-out")
    window.session.selection.select(key)
    QApplication.processEvents()
    edit = window.card.edit_of(name)
    assert isinstance(edit, FigureEdit)
    edit.setFocus()
    edit.selectAll()
    qtbot.keyClicks(edit, words)
    assert edit.hasFocus()
    return edit


@pytest.mark.parametrize("other", ["pantry", "fridge", "water"])
def test_choosing_something_else_takes_what_was_typed_for_what_was_chosen(
    window: MainWindow, qtbot: QtBot, other: str
) -> None:
    session = window.session
    before = session.job.thing(other)
    typed(window, qtbot, "galley", "width", "455")
    session.selection.select(other)
    QApplication.processEvents()
    assert session.job.thing("galley").width == 455  # type: ignore[union-attr]
    assert session.job.thing(other) == before
    session.undo()
    assert session.job.thing("galley").width != 455  # type: ignore[union-attr]


@pytest.mark.parametrize("stage", ["Survey", "Body", "Loads", "Cut", "Build"])
def test_turning_to_another_stage_takes_it_too(
    window: MainWindow, qtbot: QtBot, stage: str
) -> None:
    typed(window, qtbot, "galley", "width", "455")
    window.session.view.set(stage=stage)
    QApplication.processEvents()
    assert window.session.job.thing("galley").width == 455  # type: ignore[union-attr]


def test_what_cannot_be_taken_is_told_and_nothing_else_is_changed(
    window: MainWindow, qtbot: QtBot
) -> None:
    session = window.session
    before = session.job
    typed(window, qtbot, "galley", "width", "nonsense")
    session.selection.select("water")
    QApplication.processEvents()
    assert session.job is before
    assert session.messages.trouble


def test_a_thing_that_is_deleted_while_one_types_takes_the_words_along(
    window: MainWindow, qtbot: QtBot
) -> None:
    session = window.session
    typed(window, qtbot, "galley", "width", "455")
    do(session, "edit.delete")
    QApplication.processEvents()
    assert session.job.thing("galley") is None
    session.undo()
    assert session.job.thing("galley") is not None


def test_undo_while_one_types_leaves_the_other_things_alone(
    window: MainWindow, qtbot: QtBot
) -> None:
    session = window.session
    first = session.job
    editing.set_field(session, thing="water", field="name", value="Another")
    typed(window, qtbot, "galley", "width", "455")
    session.selection.select("water")
    session.undo()
    session.undo()
    QApplication.processEvents()
    assert session.job == first


def test_escape_gives_it_up(window: MainWindow, qtbot: QtBot) -> None:
    edit = typed(window, qtbot, "galley", "width", "455")
    before = window.session.job
    qtbot.keyClick(edit, Qt.Key.Key_Escape)
    window.session.selection.select("water")
    QApplication.processEvents()
    assert window.session.job is before
