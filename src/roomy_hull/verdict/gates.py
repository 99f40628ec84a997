"""What stands before metal is cut, parts are released, a vehicle is handed over: asked by window and command alike."""

from typing import Literal, NamedTuple

from roomy_hull.core.wording import counted
from roomy_hull.making.gaps import worth
from roomy_hull.making.works import questions, works_of
from roomy_hull.planning.plan import Build
from roomy_hull.verdict.verdict import Verdict

Act = Literal["cut", "release", "pack", "hand over"]


class Gate(NamedTuple):
    """What stands before an act.

    Attributes:
        bars: What forbids it. Cut files and the pack are written all the same where somebody says so, and say it
            themselves; what is released or handed over is counted on.
        asks: What somebody should know before, and decides.
    """

    bars: tuple[str, ...]
    asks: tuple[str, ...] = ()

    def words(self) -> str:
        """All of it in one line."""
        return "; ".join((*self.bars, *self.asks))


def gate(act: Act, verdict: Verdict, build: Build | None = None) -> Gate:
    """Ask what stands before an act.

    Args:
        build: The plan, for pack and hand-over.
    """
    stops = verdict.count("stop")
    bars = (
        [f"{counted(stops, 'stop finding')} {'are' if stops > 1 else 'is'} open"] if stops else []
    )
    asks: list[str] = []
    if act == "release":
        asks += [
            f"worth measuring first: {w.words} (± {w.sigma:.1f} mm)" for w in worth(verdict.gaps)
        ]
        asks += [f"to be looked at: {q}" for q in questions(works_of(verdict.assembly))]
    if build is not None:
        results = [build.state.result(c.key) for c in build.checks]
        failed, open_ = results.count("failed"), sum(r in ("", "later") for r in results)
        bars += [f"{counted(failed, 'check')} failed"] if failed else []
        asks += [f"{counted(open_, 'check')} still to do"] if open_ else []
        left = len([k for k in build.tasks if k != "job:hand over"])
        asks += [f"{counted(left, 'operation')} not done"] if left else []
        unsigned = sum(f.code == "services.sign" for f in verdict.open_findings())
        asks += [f"{counted(unsigned, 'signature')} missing"] if unsigned else []
    return Gate(tuple(bars), tuple(asks))
