"""What a rule is, and running all of them."""

from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Any

from loquet.core.board import BoardView
from loquet.core.brief import Brief
from loquet.core.circuit import Circuit
from loquet.core.design import Choices
from loquet.core.library import Library
from loquet.core.ordering.house import House
from loquet.core.parts import Chip
from loquet.core.pins import PinPlan
from loquet.core.plain.frozen import digest_of_text
from loquet.core.plain.remembering import Remembered
from loquet.core.provenance import (
    Failed,
    Finding,
    Outcome,
    Passed,
    Repair,
    Severity,
    Source,
    Undetermined,
    Working,
)


@dataclass(frozen=True)
class Subject:
    """All that a rule may look at; later slices are None until they are made.

    `view` is the board that a rule of boards is run for. A rule of brains finds in `share`, `chip`
    and `plan`, and as `brief`, what belongs to the brain that it is run for.
    """

    brief: Brief
    choices: Choices
    house: House
    library: Library
    chip: Chip | None = None
    plan: PinPlan | None = None
    circuit: Circuit | None = None
    views: tuple[BoardView, ...] = ()
    view: BoardView | None = None
    brains: tuple["ReadBy", ...] = ()
    share: Brief | None = None


@dataclass(frozen=True)
class ReadBy:
    """What one brain reads, with its chip and plan as far as they are there; a device without a
    brain has one of these without a chip.
    """

    share: Brief
    chip: Chip | None = None
    plan: PinPlan | None = None


@dataclass(frozen=True)
class Rule:
    """A rule: `needs` names what of the subject must be there for it to speak at all."""

    id: str
    station: str
    severity: Severity
    why: str
    source: Source
    run: Callable[[Subject], Outcome]
    needs: tuple[str, ...] = ()

    def finding(
        self,
        sentence: str,
        way_out: str,
        about: tuple[str, ...] = (),
        x_nm: float | None = None,
        y_nm: float | None = None,
        severity: Severity | None = None,
        working: Working | None = None,
        repairs: tuple[Repair, ...] = (),
        state: str = "",
    ) -> Finding:
        """A finding of this rule, with its place in mm, its working, the repairs that Loquet can
        make itself, and the state of the switched-on device in which it shows.
        """
        return Finding(
            rule=self.id,
            severity=severity or self.severity,
            station=self.station,
            sentence=sentence,
            way_out=way_out,
            about=about,
            x_mm=None if x_nm is None else round(x_nm / 1e6, 3),
            y_mm=None if y_nm is None else round(y_nm / 1e6, 3),
            working=working,
            repairs=repairs,
            state=state,
        )


OF_A_BRAIN = frozenset({"share", "chip", "plan"})


def thing(name: str) -> str:
    """How a finding refers to a thing; the front end shows it under this very text."""
    return f"thing:{name}"


def outcome(findings: list[Finding], checked: int) -> Outcome:
    """Passed with the count of what was checked, or failed."""
    return Failed(tuple(findings)) if findings else Passed(checked)


def run_rules(rules: tuple[Rule, ...], subject: Subject) -> list[tuple[Rule, Outcome]]:
    """The outcome of every rule whose subject is there; rules of boards speak once a board, rules
    of brains once a brain.
    """
    decided = decisions_of(subject.choices)
    return [
        (rule, outcome_of(rule, seen, decided))
        for rule in rules
        for seen in subjects_for(rule, subject)
        if all(getattr(seen, need) is not None for need in rule.needs)
    ]


OUTCOMES: Remembered[Outcome] = Remembered(1200)
PLACES: Any = dict.fromkeys(("part_seats", "wires", "arrangements"), True)
"""Choices that rules see as the placement and the routing that were made of them."""


def decisions_of(choices: Choices) -> str:
    """A digest of what a person decided, but for where parts and tracks lie."""
    return digest_of_text(choices.model_dump_json(exclude=PLACES))


def outcome_of(rule: Rule, subject: Subject, decided: str) -> Outcome:
    """What a rule says; what it said of the very same values is not worked out again.

    One that looks at all boards at once always speaks anew.
    """
    if "views" in rule.needs:
        return rule.run(subject)
    view = subject.view
    made = (view.placement, view.routing, view.pour, view.board) if view else ()
    about: tuple[object, ...] = (
        rule,
        subject.brief,
        subject.circuit,
        subject.chip,
        subject.plan,
        *made,
    )
    about += tuple(part for own in subject.brains for part in (own.chip, own.plan))
    return OUTCOMES.of((*about, subject.house, subject.library), lambda: rule.run(subject), decided)


def subjects_for(rule: Rule, subject: Subject) -> list[Subject]:
    """The subject as often as a rule has to speak."""
    if "view" in rule.needs:
        return [replace(subject, view=view) for view in subject.views]
    if OF_A_BRAIN & set(rule.needs):
        return [
            replace(subject, brief=own.share, share=own.share, chip=own.chip, plan=own.plan)
            for own in subject.brains
        ]
    return [subject]


def findings_of(outcomes: list[tuple[Rule, Outcome]]) -> list[Finding]:
    """All findings; what is undetermined is shown as well, since missing data is never a pass."""
    found: list[Finding] = []
    for _, result in outcomes:
        match result:
            case Failed(findings):
                found.extend(findings)
            case Undetermined(missing):
                found.extend(missing)
    order = {"stop": 0, "look": 1, "note": 2}
    return sorted(found, key=lambda f: (order[f.severity], f.station, f.rule, f.sentence))
