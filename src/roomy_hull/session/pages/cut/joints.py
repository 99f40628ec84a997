"""The page Joints: how parts go together."""

from roomy_hull.core.parts import Hardware
from roomy_hull.core.primitives import Rect, Scene
from roomy_hull.drawing.scenes.folded import frame_of
from roomy_hull.formats.book_parts import drawn_apart, joint_rows
from roomy_hull.making.works import fasteners, numbered, questions, welded
from roomy_hull.session.pages.cut.words import chosen_work, works
from roomy_hull.session.pages.model import PageModel
from roomy_hull.tables.column import Cell


class JointsModel(PageModel):
    """Something put together: drawn apart with its numbers, and its joints in words."""

    heads = ("Of", "To", "How", "Length", "With")

    def picture(self, _ratio: float) -> tuple[str, tuple[Scene, Rect] | None]:
        """What is chosen, drawn apart, every part with its number."""
        work = chosen_work(self._session)
        if work is None:
            return "Nothing is made yet", None
        scene = drawn_apart(work, numbered(works(self._session).parts))
        return f"{work.title}, drawn apart", (scene, frame_of(scene)) if scene else None

    def words(self) -> str:
        """How much is welded and fastened, of what is chosen and in all; what nothing holds."""
        work, made = chosen_work(self._session), works(self._session)
        if work is None:
            return "Nothing is made yet."
        own = ", ".join(f"{n} × {word}" for word, n in fasteners(work.joints).items())
        said = (
            f"{work.title}: {len(work.joints)} joints, {welded(work.joints) / 1000:.2f} m of weld"
        )
        said += f", {own}. " if own else ". "
        whole = ", ".join(f"{n} × {word}" for word, n in fasteners(made.joints).items())
        said += f"The whole job: {welded(made.joints) / 1000:.1f} m of weld, {whole}."
        asked = questions(made)
        if asked:
            more = f", and {len(asked) - 2} more" if len(asked) > 2 else ""
            said += f" To be looked at: {'; '.join(asked[:2])}{more}."
        return said

    def titles(self) -> list[str]:
        """Everything that is made, to choose from."""
        return [
            w.title
            for w in works(self._session).works
            if any(not isinstance(p, Hardware) for p in w.parts)
        ]

    def owner(self, title: str) -> str:
        """The id to be selected for a title; empty for the body."""
        work = next((w for w in works(self._session).works if w.title == title), None)
        return work.owner.id if work is not None and work.owner.is_thing else ""

    def first(self, title: str) -> int:
        """The number of the first part of a title."""
        number = 1
        for work in works(self._session).works:
            if work.title == title:
                return number
            number += len(work.parts)
        return 0

    def chosen(self) -> str:
        """The title of what is chosen."""
        work = chosen_work(self._session)
        return work.title if work is not None else ""

    def cells(self) -> list[list[Cell]]:
        """Its joints."""
        work = chosen_work(self._session)
        if work is None:
            return []
        numbers = numbered(works(self._session).parts)
        return [
            [(cell, "") for cell in row]
            for row in joint_rows(work, numbers, self._session.look.system)
        ]
