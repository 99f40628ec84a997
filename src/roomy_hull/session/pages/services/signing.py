"""The page Signatures: what a licensed or skilled person answers for, and who has signed for it."""

from roomy_hull.core.wording import counted
from roomy_hull.job.services import Signed
from roomy_hull.session.pages.model import PageModel
from roomy_hull.tables.column import Cell

ROWS: dict[Signed, tuple[str, str]] = {
    "mains": ("a licensed electrician", "Mains voltage kills. Nothing is energised before it is tested and signed for."),
    "gas": ("a licensed gas fitter", "Gas burns and suffocates. No bottle is opened before its line is tested."),
    "low voltage": ("whoever wired it", "A cable without its fuse sets fire: hold every fuse against the schedule."),
    "water": ("whoever plumbed it", "Filled, pumped up and looked at dry; drinking water through food-grade hose only."),
}  # fmt: skip
"""Who signs for what, and what stands in for what can hurt (the local code decides)."""


class SignaturesModel(PageModel):
    """What is to be signed for, one chosen."""

    heads = ("Of", "Who may sign", "Wanted", "Signed by", "On", "Licence or certificate")

    def wanted(self, what: Signed) -> str:
        """Why a signature is wanted; empty where it is not."""
        verdict = self._session.known
        s = verdict.job.services
        if what == "mains":
            by = [c.name for c in s.consumers if c.mains] + [
                x.name for x in s.sources if x.kind == "mains"
            ]
            return "inverter" if s.inverter.thing else ", ".join(by)
        if what == "gas":
            return ", ".join(t.name for t in verdict.assembly.doing("gas"))
        if what == "low voltage":
            return (
                counted(len(verdict.services.circuits), "circuit")
                if verdict.services.circuits
                else ""
            )
        f = verdict.services.fluids
        return (
            f"{len(f.tanks)} tank" + ("s" if len(f.tanks) > 1 else "")
            if f is not None and f.tanks
            else ""
        )

    def keys(self) -> list[str]:
        """What each row chooses."""
        return [f"signatures.{what}" for what in ROWS]

    def cells(self) -> list[list[Cell]]:
        """A row for each."""
        signed = {x.what: x for x in self._session.job.services.signatures}
        rows: list[list[Cell]] = []
        for what, (who, _why) in ROWS.items():
            one, why = signed.get(what), self.wanted(what)
            bold = "bold" if self._session.look.services.chosen == f"signatures.{what}" else ""
            open_ = "look" if why and one is None else ""
            rows.append([
                (what.capitalize(), bold), (who, ""), (f"for {why}" if why else "no", ""),
                (one.name if one is not None else "open" if why else "", open_),
                (one.date if one is not None else "", ""), (one.number if one is not None else "", ""),
            ])  # fmt: skip
        return rows

    def words(self) -> list[str]:
        """What to see to before one signs."""
        return [f"{what.capitalize()}: {why}" for what, (_who, why) in ROWS.items()]

    def chosen(self) -> Signed | None:
        """What is chosen, where anything is."""
        key = self._session.look.services.chosen.removeprefix("signatures.")
        return next(
            (
                w
                for w in ROWS
                if w == key and self._session.look.services.chosen.startswith("signatures.")
            ),
            None,
        )
