"""The card: the selection's few real parameters, its mass and what it is made of; else the job's."""

import functools

from PyQt6.QtCore import QSignalBlocker, Qt
from PyQt6.QtWidgets import (
    QApplication,
    QCheckBox,
    QComboBox,
    QFrame,
    QGridLayout,
    QScrollArea,
    QSizePolicy,
    QVBoxLayout,
    QWidget,
)

from roomy_hull.assembly.things import Thing
from roomy_hull.core.card import Field
from roomy_hull.core.errors import UserError
from roomy_hull.core.units import Quantity, show, unit_word
from roomy_hull.desktop.following import follow
from roomy_hull.desktop.text import Label
from roomy_hull.desktop.theme import font
from roomy_hull.desktop.widgets.chooser import Chooser
from roomy_hull.desktop.widgets.figure_edit import FigureEdit
from roomy_hull.drawing.style import Theme
from roomy_hull.job.edits.resizing import value_at
from roomy_hull.session.actions import editing
from roomy_hull.session.card_fields import (
    choices_of,
    load_fields,
    part_fields,
    survey_fields,
    thing_fields,
)
from roomy_hull.session.pages.body_words import body_words
from roomy_hull.session.pages.card_words import kind_words, made_words, mass_words
from roomy_hull.session.pages.chosen import (
    at_brief,
    chosen_fields,
    chosen_key,
    chosen_stage,
    chosen_words,
)
from roomy_hull.session.session import Session
from roomy_hull.session.typed import shown, typed
from roomy_hull.studies.loads.governing import governing


class Card(QScrollArea):
    """Right of the ground: what is selected, or the job as a whole."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self._session, self._theme = session, theme
        self._shown: tuple[object, ...] = ()
        self._edits: dict[str, QWidget] = {}
        self._of, self._leaving = "", False
        self.setWidgetResizable(True)
        self.setFrameShape(QFrame.Shape.NoFrame)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.setAccessibleName("Card of the selection")
        follow(self, self.refresh, session.changed, session.selection.changed, session.view.changed)
        self.refresh()

    @property
    def theme(self) -> Theme:
        """The colours in use."""
        return self._theme

    @theme.setter
    def theme(self, theme: Theme) -> None:
        self._theme = theme
        self._shown = ()
        self.refresh()

    def wanted_height(self) -> int:
        """How high it is with all that it shows. [px]"""
        inner = self.widget()
        return inner.heightForWidth(self.width()) if inner is not None and inner.hasHeightForWidth() else (
            inner.sizeHint().height() if inner is not None else 0)  # fmt: skip

    def edit_of(self, name: str) -> QWidget:
        """The editing widget of a field."""
        return self._edits[name]

    def _fields(self) -> tuple[Field, ...]:
        """The parameters to show: the vehicle's, the body's, or the selection's."""
        session = self._session
        if session.look.stage == "Survey" and not at_brief(session):
            return survey_fields(session.job)
        if session.look.stage == "Body":
            return part_fields(session.job, session.look.body.chosen)
        if chosen_stage(session):
            return chosen_fields(session)
        thing = session.job.thing(session.selection.key)
        if thing is not None:
            return thing_fields(session.job, thing)
        if session.look.stage == "Loads":
            budget = session.look.page("Loads") == "Budget"
            return load_fields(session.job, session.scenario().id, brief=budget)
        return ()

    def refresh(self) -> None:
        """Show what the stage and the selection ask for; rebuilt only where its fields differ."""
        if self._leaving:
            return
        want, fields = self._wanted()
        if want != self._shown:
            self._leave()
            want, fields = self._wanted()
            self._shown = want
            self._build(fields)
        self._fill(fields)

    def _wanted(self) -> tuple[tuple[str, ...], tuple[Field, ...]]:
        """What the form is of, and its fields."""
        session = self._session
        fields = self._fields()
        alone = (
            chosen_key(session)
            if chosen_stage(session)
            else session.look.body.chosen
            if session.look.stage in ("Survey", "Body")
            else session.selection.key or session.look.stage
        )
        return (alone, session.look.system, *(f.name for f in fields)), fields

    def _leave(self) -> None:
        """Take what is being typed, for what it was typed for, and put the form away."""
        self._leaving = True
        try:
            inner = self.widget()
            typing = QApplication.focusWidget()
            if inner is not None and typing is not None and inner.isAncestorOf(typing):
                # Leaving the field takes it. Were the form deleted first, that would happen in the midst of its end.
                typing.clearFocus()
            old = self.takeWidget()
            if old is not None:
                old.deleteLater()
        finally:
            self._leaving = False

    def _build(self, fields: tuple[Field, ...]) -> None:
        """Lay the form out anew."""
        inner = QWidget()
        box = QVBoxLayout(inner)
        box.setContentsMargins(12, 10, 12, 12)
        box.setSpacing(6)
        self._edits = {}
        self._title, self._kind = Label(), Label()
        self._title.setFont(font(16, bold=True))
        self._title.setWordWrap(True)
        self._kind.setFont(font(11))
        self._kind.setStyleSheet(f"color: {self._theme.faint}")
        self._mass, self._sum, self._made = Label(), Label(), Label()
        self._mass.setFont(font(19, bold=True))
        for label in (self._sum, self._made):
            label.setFont(font(12))
            label.setWordWrap(True)
            label.setTextInteractionFlags(Qt.TextInteractionFlag.TextSelectableByMouse)
        self._kind.setWordWrap(True)
        for label in (self._title, self._kind, self._mass, self._sum, self._made):
            # No word makes the card wider than its column.
            label.setSizePolicy(QSizePolicy.Policy.Ignored, label.sizePolicy().verticalPolicy())
        for label in (self._title, self._kind, self._mass, self._sum):
            box.addWidget(label)
        if fields:
            box.addLayout(self._form(fields))
        box.addWidget(self._made)
        box.addStretch(1)
        self.setWidget(inner)

    def _form(self, fields: tuple[Field, ...]) -> QGridLayout:
        grid = QGridLayout()
        grid.setHorizontalSpacing(8)
        grid.setVerticalSpacing(2)
        grid.setColumnStretch(1, 1)
        for row, field in enumerate(fields):
            label = Label(field.words)
            label.setFont(font(12))
            # Bounds are those of the file, in its own units.
            metric = field.bounds if self._session.look.system == "metric" else ""
            label.setToolTip("\n".join(filter(None, (field.tip, metric))))
            widget = self._editor(field)
            widget.setToolTip(label.toolTip())
            label.setBuddy(widget)
            self._edits[field.name] = widget
            grid.addWidget(label, row, 0)
            if field.quantity in ("length", "mass", "volume"):
                quantity: Quantity = field.quantity
                unit = Label(unit_word(quantity, self._session.look.system))
                unit.setFont(font(12))
                unit.setFixedWidth(24)
                unit.setStyleSheet(f"color: {self._theme.faint}")
                grid.addWidget(widget, row, 1)
                grid.addWidget(unit, row, 2)
            else:
                grid.addWidget(widget, row, 1, 1, 2)
        return grid

    def _editor(self, field: Field) -> QWidget:
        choices = choices_of(field, self._session.job, self._session.shop)
        if choices:
            box = Chooser()
            box.addItems(choices)
            box.setAccessibleName(field.words)
            box.activated.connect(lambda _i, f=field, b=box: self._set(f, b.currentText()))
            return box
        if field.quantity == "yes":
            check = QCheckBox()
            check.setAccessibleName(field.words)
            check.clicked.connect(lambda on, f=field: self._set(f, bool(on)))
            return check
        edit = FigureEdit(field, functools.partial(self._typed, field), field.words)
        if field.quantity != "text":
            edit.setFont(font(13))
            edit.setAlignment(Qt.AlignmentFlag.AlignRight)
        return edit

    def _typed(self, field: Field, text: str) -> bool:
        try:
            value = typed(field, text, self._session.look.system)
        except UserError as trouble:
            self._session.say(f"{field.words}: {trouble}", trouble=True)
            return False
        return self._set(field, value)

    def _set(self, field: Field, value: object) -> bool:
        if "." in field.name:
            return bool(editing.set_size(self._session, path=field.name, value=value))
        # Of what the form was made for: another may be chosen by now.
        return bool(editing.set_field(self._session, thing=self._of, field=field.name, value=value))

    def _fill(self, fields: tuple[Field, ...]) -> None:
        """Bring every figure up to date."""
        session = self._session
        self._of = session.selection.key
        stage = session.look.stage
        placed = session.sight.assembly.thing(session.selection.key)
        if chosen_stage(session):
            self._fill_chosen()
        elif stage in ("Survey", "Body"):
            (self._fill_vehicle if stage == "Survey" else self._fill_body)()
        elif placed is None and stage == "Loads":
            self._fill_scenario()
        elif placed is None:
            self._fill_job()
            return
        else:
            self._fill_thing(placed)
        for field in fields:
            if "." in field.name:
                value = value_at(session.job, field.name)
            else:
                value = getattr(session.job.thing(session.selection.key), field.name)
            self._show(self._edits[field.name], field, value)

    def _fill_thing(self, placed: Thing) -> None:
        """Say what the selection weighs and what it is made of."""
        thing, system = placed.value, self._session.look.system
        self._title.setText(thing.name)
        self._kind.setText(kind_words(placed))
        total = sum(m.kg for m in placed.masses)
        uncertainty = sum(m.sigma**2 for m in placed.masses) ** 0.5
        self._mass.setText(f"{show(total, 'mass', system)} ± {show(uncertainty, 'mass', system)}")
        self._sum.setText(mass_words(self._session, placed))
        self._made.setText(made_words(placed))

    def _show(self, widget: QWidget, field: Field, value: object) -> None:
        """Show one value in its widget."""
        if isinstance(widget, FigureEdit):
            widget.show_value(shown(field, value, self._session.look.system))
        elif isinstance(widget, QComboBox):
            with QSignalBlocker(widget):
                if widget.findText(str(value)) < 0:
                    widget.addItem(str(value))
                widget.setCurrentText(str(value))
        elif isinstance(widget, QCheckBox):
            with QSignalBlocker(widget):
                widget.setChecked(bool(value))

    def _fill_vehicle(self) -> None:
        """Say what governs each axle, and what may be behind."""
        session, system = self._session, self._session.look.system
        vehicle = session.job.vehicle
        self._title.setText(vehicle.name)
        self._kind.setText(f"{vehicle.kind}, {vehicle.drive}-hand drive")
        kerb = vehicle.kerb.front + vehicle.kerb.rear
        self._mass.setText(f"{show(kerb, 'mass', system)} kerb")
        rows = []
        for end in ("front", "rear"):
            found = governing(vehicle, end)
            rows.append(
                f"{end.capitalize()} axle may carry {show(found.kg, 'mass', system)}, by its {found.by}."
            )
        self._sum.setText("\n".join(rows))
        self._made.setText(
            "Planning figures. The rating plates, the certifying engineer and local road law decide."
        )

    def _fill_scenario(self) -> None:
        """Say what the chosen scenario comes to, and what stays at home in it."""
        session, system = self._session, self._session.look.system
        loads, one = session.sight.loads.scenario(session.look.scenario), session.scenario()
        self._title.setText(one.name)
        self._kind.setText("scenario, and the springs")
        self._mass.setText(f"{show(loads.gross.value, 'mass', system)} gross")
        names = session.sight.assembly.names
        home = ", ".join(names.get(k, k) for k in one.left_behind)
        self._sum.setText(f"Left at home: {home}." if home else "Everything is aboard.")
        self._made.setText(
            "Copy, delete or add scenarios in the menu Loads. Choose a thing in Levers and press Ctrl+H to leave it "
            "at home in this scenario."
        )

    def _fill_chosen(self) -> None:
        """Say what is chosen in the stage, and what that comes to."""
        title, kind, figure, words, hint = chosen_words(self._session)
        self._title.setText(title)
        self._kind.setText(kind)
        self._mass.setText(figure)
        self._sum.setText(words)
        self._made.setText(hint)

    def _fill_body(self) -> None:
        """Say what the body, or the chosen part of it, weighs and costs."""
        labels = (self._title, self._kind, self._mass, self._sum, self._made)
        for label, words in zip(labels, body_words(self._session), strict=True):
            label.setText(words)

    def _fill_job(self) -> None:
        """Show the job as a whole, and what to do next."""
        session, system = self._session, self._session.look.system
        job, vehicle = session.job, session.job.vehicle
        tray, canopy = job.body.tray, job.body.canopy
        self._title.setText(job.name)
        self._kind.setText(f"{vehicle.name}, {vehicle.kind}, {vehicle.drive}-hand drive")
        loads = session.sight.loads.scenario(session.look.scenario)
        self._mass.setText(f"{show(loads.gross.value, 'mass', system)} gross")
        masses = session.sight.assembly.ground.masses
        made = sum(m.kg for m in masses if m.owner.of_body)

        def sizes(*mm: float) -> str:
            return " × ".join(show(v, "length", system, unit=False) for v in mm)

        word = "Tray" if tray.kind == "tray" else "Floor"
        rows = [f"{word} {sizes(tray.length, tray.width)} {unit_word('length', system)}"]
        if canopy:
            rows.append(
                f"{canopy.name} {sizes(canopy.length, canopy.width, canopy.height)} "
                f"{unit_word('length', system)}"
            )
        rows += [
            f"Body as drawn {show(made, 'mass', system)}",
            f"{_counted(len(job.units), 'unit')} in "
            f"{_counted(len(session.sight.assembly.ground.bays), 'bay')}, "
            f"{len(job.carried)} carried outside",
        ]
        self._sum.setText("\n".join(rows))
        hint = (
            "Click a unit for its card. Drag it, or nudge it with the arrow keys. Figures may be "
            "typed as sums, such as 1986-2*38."
        )
        if vehicle.ratings.standard == "upgraded":
            sign = vehicle.ratings.certificate or "none entered"
            hint += f"\n\nRatings upgraded; certificate: {sign}."
        caution = "Planning figures. The rating plates, the certifying engineer and local road law decide."
        self._made.setText(f"{hint}\n\n{caution}")


def _counted(number: int, noun: str) -> str:
    """Write a number with its noun."""
    return f"{number} {noun}" if number == 1 else f"{number} {noun}s"
