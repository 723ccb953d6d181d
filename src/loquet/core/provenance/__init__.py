"""Where numbers come from, and what is wrong: workings, sources, findings, outcomes of rules.

May import plain alone.
"""

from loquet.core.provenance.finding import Finding, Repair, Severity
from loquet.core.provenance.outcome import Failed, NotApplicable, Outcome, Passed, Undetermined
from loquet.core.provenance.working import Source, SourceKind, Working, WorkingInput, given

__all__ = [
    "Failed",
    "Finding",
    "NotApplicable",
    "Outcome",
    "Passed",
    "Repair",
    "Severity",
    "Source",
    "SourceKind",
    "Undetermined",
    "Working",
    "WorkingInput",
    "given",
]
