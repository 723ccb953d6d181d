"""What a rule answers. Missing data is never a pass."""

from dataclasses import dataclass

from loquet.core.provenance.finding import Finding


@dataclass(frozen=True)
class Passed:
    """The rule was checked on everything it speaks of and holds."""

    checked: int


@dataclass(frozen=True)
class Failed:
    """The rule does not hold; at least one finding."""

    findings: tuple[Finding, ...]


@dataclass(frozen=True)
class NotApplicable:
    """There is nothing here that the rule speaks of."""

    why: str


@dataclass(frozen=True)
class Undetermined:
    """Data is missing, so nobody can say; shown as something to look at."""

    missing: tuple[Finding, ...]


Outcome = Passed | Failed | NotApplicable | Undetermined
