"""What goes wrong, as exceptions."""

from __future__ import annotations

from dataclasses import dataclass, field


@dataclass(frozen=True)
class Fix:
    """A change of a rule's text that mends a fault: ``text`` in place of the bytes ``begin`` to ``end``."""

    label: str
    text: str
    begin: int
    end: int

    def applied(self, source: str) -> str:
        """``source`` with the fix applied."""
        data = source.encode()
        return (data[: self.begin] + self.text.encode() + data[self.end :]).decode()


@dataclass(frozen=True)
class Diagnostic:
    """Something about a rule's text: where (bytes ``begin`` to ``end``; line and column from 1), what, what to do."""

    code: str
    severity: str
    message: str
    help: str
    begin: int
    end: int
    line: int
    column: int
    fixes: list[Fix] = field(default_factory=list)

    def __str__(self) -> str:
        return f"{self.line}:{self.column}: {self.severity} {self.code}: {self.message}"


def diagnostics_of(rows: list[dict]) -> list[Diagnostic]:
    return [Diagnostic(**{**row, "fixes": [Fix(**fix) for fix in row["fixes"]]}) for row in rows]


class Error(Exception):
    """Something could not be done; the words say what, where and what to do."""

    status: int = 0


class RuleError(Error):
    """The text of a rule has faults, which are in ``diagnostics``."""

    diagnostics: list[Diagnostic]


class ArgumentError(Error, ValueError):
    """What was asked makes no sense: no such name, a number out of its range."""


class FileError(Error, OSError):
    """A file is not there, or is not what it should be."""


class NotPossible(Error):
    """Such as a LUT of a rule that looks at places."""


def raised(status: int, words: str, rows: list[dict]) -> None:
    """Called by the binding: raises what a status of kasuri.h is."""
    kinds = {1: RuleError, 2: ArgumentError, 3: FileError, 6: NotPossible}
    error = kinds.get(status, Error)(words)
    error.status = status
    if isinstance(error, RuleError):
        error.diagnostics = diagnostics_of(rows)
    raise error
