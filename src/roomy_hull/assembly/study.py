"""Study: one thing that is judged of a job, as data: what it needs, how it runs, what it finds and mends."""

from collections.abc import Callable, Mapping
from typing import Any, Generic, TypeVar

import msgspec

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.core.findings import Finding, Fix
from roomy_hull.job.model import Job

T = TypeVar("T")


class StudyKey(str, Generic[T]):
    """Under which a study's result stands, and of which type that is."""

    __slots__ = ()  # results go to another process: no attribute hangs on their keys


class Before(msgspec.Struct, frozen=True):
    """An earlier judgement of the same job: only a memory, it never alters a result.

    Attributes:
        assembly: As it was.
        results: Results by study.
        held: Of studies that were not run then, by key: the assembly that their results are of; nothing where none was
            known.
    """

    assembly: Assembly
    results: Mapping[str, Any]
    held: Mapping[str, Assembly | None] = {}


class Context(msgspec.Struct, frozen=True):
    """What a study is given.

    Attributes:
        assembly: The job in vehicle axes, and the shop that makes it.
        results: Results of the studies that ran before, by key; those that it needs are among them.
        before: An earlier judgement.
    """

    assembly: Assembly
    results: dict[str, Any]
    before: Before | None = None

    def of(self, key: StudyKey[T]) -> T:
        """The result of a study that ran before."""
        found: T = self.results[key]
        return found

    def old(self, key: str) -> Any:
        """A study's earlier result; nothing where there is none."""
        return (
            self.before.results.get(key)
            if self.before is not None and self.rests_on(key) is not None
            else None
        )

    def rests_on(self, key: str) -> Assembly | None:
        """The assembly that a study's earlier result is of; nothing where there is none."""
        return self.before.held.get(key, self.before.assembly) if self.before is not None else None


def no_findings(_case: Context) -> list[Finding]:
    """Find nothing: the study's result is read by others."""
    return []


def no_fixes(_case: Context, _finding: Finding) -> tuple[Fix, ...]:
    """Offer nothing."""
    return ()


def nothing_written(_case: Context) -> dict[str, Any]:
    """Write nothing by itself."""
    return {}


def nothing_known(_of: Any) -> None:
    """Nothing stands for a result, or is laid beside it."""


class Study(msgspec.Struct, frozen=True):
    """One study.

    Attributes:
        key: Under which its result stands in the verdict.
        run: `Context` → its result: a pure function of assembly and needs. Typed, frozen and complete.
        needs: Keys of the studies whose results it reads.
        judge: `Context`, its result in it → findings, in a fixed order.
        codes: Beginnings of the codes of its findings, for those who ask for a remedy.
        fixes: `Context`, finding → remedies; computed when somebody asks.
        settles: Whether it is long: it stays as it was while a gesture goes on, and beside a window it is worked out by
            itself.
        idle: Of one that is long: `Context` → what stands for its result as long as nothing is known: empty, and marked
            so.
        shown_with: Of one that is long: job → what its pages lay beside its result. Where that changed it is run at
            once.
        to_json: `Context` → its part of ``check --json``, as built-in objects.
    """

    key: str
    run: Callable[[Context], Any]
    needs: tuple[str, ...] = ()
    judge: Callable[[Context], list[Finding]] = no_findings
    codes: tuple[str, ...] = ()
    fixes: Callable[[Context, Finding], tuple[Fix, ...]] = no_fixes
    settles: bool = False
    idle: Callable[[Context], Any] = nothing_known
    shown_with: Callable[[Job], Any] = nothing_known
    to_json: Callable[[Context], dict[str, Any]] = nothing_written
