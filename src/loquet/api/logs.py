"""The log: cards of faults and fixes, revisions, decisions, hours and money, lessons; a project as
one file, its report.
"""

from datetime import UTC, date, datetime
from typing import Annotated, Literal

from fastapi import APIRouter, Depends, Response
from pydantic import BaseModel, Field
from sqlalchemy.orm import Session

from loquet.api.context import AUTHOR, ContextNow, SessionNow, body_of
from loquet.api.describing import head_now
from loquet.api.errors import Refused
from loquet.api.shapes import DesignHead
from loquet.core.brief.own_checks import OwnCheck
from loquet.core.comparing.briefs import Change, compare
from loquet.core.design import Design
from loquet.core.provenance import Source, Working, given
from loquet.store.designs import commit_version, create_project, head_of, load_design
from loquet.store.history import versions_of
from loquet.store.logbook import (
    NoMoreLetters,
    again_and_again,
    card,
    cards_of,
    hours_of,
    next_revision,
    revisions_of,
)
from loquet.store.project_file import BadProject, read_project, write_project
from loquet.store.tables import FaultRow, HoursRow, RevisionRow, VersionRow

router = APIRouter(prefix="/api", tags=["log"])
LESSONS = {
    "pin order": (
        "Measure the pins of every look-alike part with its card before the board is ordered."
    ),
    "missing part": "Hold the circuit against the application drawing, part by part.",
    "height": "Type the rooms of the shell in and look at the tightest five at the Stack.",
    "solder": (
        "Look at fine leads with a glass before power, and read neighbours against each other."
    ),
    "polarity": "Read every lead with a meter before it is plugged in.",
    "power": "Look at the peaks and the hold-up at Power.",
    "firmware": "Take the pin map from the hand-over, never from memory.",
    "shell": "Print the drill guide and the front panel at true size first.",
    "ordering": "Order what takes longest first: see the calendar at Release.",
}
Sort = Literal[
    "pin order",
    "missing part",
    "height",
    "solder",
    "polarity",
    "power",
    "firmware",
    "shell",
    "ordering",
    "other",
]
Words = Annotated[str, Field(max_length=300)]


class CardView(BaseModel):
    """A card of the log."""

    id: int
    revision: str
    title: str
    about: str
    found_how: str
    patch: str
    sort: str
    minutes: int
    cents: int
    state: str
    reason: str
    fixed_in: str
    made_at: str


class RevisionView(BaseModel):
    """A revision with its hours and money, and the version that is its head."""

    id: int
    letter: str
    version: int | None
    versions: int
    hours: Working
    money: Working
    open_cards: int


class DecisionView(BaseModel):
    """An edit that decided something: what, by whom, when."""

    words: str
    author: str
    at: str


class HoursView(BaseModel):
    """Work or money spent."""

    words: str
    minutes: int
    cents: int
    day: date


class LessonView(BaseModel):
    """A mistake that came again, with what prevents it."""

    sort: str
    cards: int
    projects: int
    lesson: str


class LogView(BaseModel):
    """The log of a project."""

    cards: list[CardView]
    revisions: list[RevisionView]
    decisions: list[DecisionView]
    hours: list[HoursView]
    checks: list[OwnCheck]
    lessons: list[LessonView]
    todo: list[str]


class CardWanted(BaseModel):
    """A new card."""

    title: Annotated[str, Field(min_length=3, max_length=120)]
    about: Annotated[str, Field(max_length=120)] = ""
    found_how: Words = ""
    patch: Annotated[str, Field(max_length=600)] = ""
    sort: Sort = "other"
    minutes: Annotated[int, Field(ge=0, le=100_000)] = 0
    cents: Annotated[int, Field(ge=0, le=100_000_000)] = 0


class CardChange(BaseModel):
    """Where a card stands now: fixed, waived with a reason, or open again."""

    state: Literal["open", "fixed", "waived"]
    reason: Words = ""
    patch: Annotated[str, Field(max_length=600)] | None = None


class HoursWanted(BaseModel):
    """Work or money spent on the present revision."""

    words: Annotated[str, Field(min_length=2, max_length=120)]
    minutes: Annotated[int, Field(ge=0, le=100_000)] = 0
    cents: Annotated[int, Field(ge=0, le=100_000_000)] = 0


class ReadIn(BaseModel):
    """A project that was read in."""

    project: int


@router.get("/projects/{project_id}/log")
def get_log(project_id: int, session: SessionNow, context: ContextNow) -> LogView:
    """Cards, revisions, decisions, hours, checks and lessons."""
    head = head_of(session, project_id)
    design = load_design(session, head.version)
    cards, revisions = cards_of(session, project_id), revisions_of(session, project_id)
    letters = {r.id: r.letter for r in revisions}
    return LogView(
        cards=[describe_card(c, letters) for c in cards],
        revisions=[describe_revision(session, r, cards) for r in revisions],
        decisions=[
            DecisionView(
                words=v.label, author=v.author, at=v.created_at.isoformat(timespec="minutes")
            )
            for v in versions_of(session, head)
            if v.parent_id is not None and decides(v.label)
        ],
        hours=[
            HoursView(words=h.words, minutes=h.minutes, cents=h.cents, day=h.day)
            for h in hours_of(session, head.revision.id)
        ],
        checks=list(design.choices.own_checks),
        lessons=[
            LessonView(sort=sort, cards=count, projects=projects, lesson=LESSONS.get(sort, ""))
            for sort, count, projects in again_and_again(session)
            if sort in LESSONS
        ],
        todo=[
            f"{c.title}: {c.patch or 'no patch is noted'}"
            for c in reversed(cards)
            if c.state == "open"
        ],
    )


def decides(label: str) -> bool:
    """Whether an edit is a decision rather than work of the stages."""
    made = (
        "Pins solved",
        "Circuit made",
        "Parts placed",
        "Board routed",
        "Ground poured",
        "Made ",
        "Start",
    )
    return not label.startswith(made)


def describe_card(row: FaultRow, letters: dict[int, str]) -> CardView:
    """A card in words."""
    return CardView(
        id=row.id,
        revision=letters.get(row.revision_id, "?"),
        title=row.title,
        about=row.about,
        found_how=row.found_how,
        patch=row.patch,
        sort=row.sort,
        minutes=row.minutes,
        cents=row.cents,
        state=row.state,
        reason=row.reason,
        fixed_in=letters.get(row.fixed_in or 0, ""),
        made_at=row.created_at.isoformat(timespec="minutes"),
    )


def describe_revision(session: Session, row: RevisionRow, cards: list[FaultRow]) -> RevisionView:
    """A revision with what it cost."""
    spent = hours_of(session, row.id)
    mine = [c for c in cards if c.revision_id == row.id]
    count = session.query(VersionRow).filter(VersionRow.revision_id == row.id).count()
    rows: list[tuple[str, int, int]] = [(h.words, h.minutes, h.cents) for h in spent]
    rows += [(c.title, c.minutes, c.cents) for c in mine]
    return RevisionView(
        id=row.id,
        letter=row.letter,
        version=row.head_id,
        versions=count,
        hours=added(row.letter, "hours", "Hours", [(w, m / 60) for w, m, _ in rows], "h"),
        money=added(row.letter, "money", "Money", [(w, c) for w, _, c in rows], "cents"),
        open_cards=sum(c.state == "open" for c in mine),
    )


def added(letter: str, name: str, title: str, rows: list[tuple[str, float]], unit: str) -> Working:
    """A sum of what was noted."""
    whole = sum(value for _, value in rows)
    shown = f"{whole / 100:.2f} €" if unit == "cents" else f"{whole:.1f} h"
    return Working(
        id=f"log.{letter}.{name}",
        title=f"{title} of revision {letter}",
        value=whole,
        unit=unit,
        shown=shown,
        formula="counted, all that is noted added up",
        inputs=tuple(
            given(words, round(value, 3), unit, "noted in the log") for words, value in rows
        ),
        source=Source(kind="brief", text="noted in the log of this project"),
    )


@router.post("/projects/{project_id}/cards", status_code=201)
def new_card(project_id: int, wanted: CardWanted, session: SessionNow) -> CardView:
    """A fault that was found; it blocks the next release until it is fixed or waived."""
    head = head_of(session, project_id, lock=True)
    row = FaultRow(
        project_id=project_id,
        revision_id=head.revision.id,
        state="open",
        reason="",
        created_at=datetime.now(UTC),
        **wanted.model_dump(),
    )
    session.add(row)
    head.revision.turn += 1
    session.flush()
    return describe_card(row, {head.revision.id: head.revision.letter})


@router.post("/projects/{project_id}/cards/{card_id}")
def change_card(project_id: int, card_id: int, wanted: CardChange, session: SessionNow) -> CardView:
    """Fixed in the present revision, waived with a reason, or open again."""
    head = head_of(session, project_id, lock=True)
    row = card(session, card_id, project_id)
    if wanted.state == "waived" and len(wanted.reason.strip()) < 3:
        raise Refused("A fault is waived with a reason.", "Say why it may stay.")
    row.state, row.reason = wanted.state, wanted.reason.strip()
    row.fixed_in = head.revision.id if wanted.state == "fixed" else None
    if wanted.patch is not None:
        row.patch = wanted.patch
    head.revision.turn += 1
    session.flush()
    return describe_card(row, {r.id: r.letter for r in revisions_of(session, project_id)})


@router.post("/projects/{project_id}/hours", status_code=201)
def new_hours(project_id: int, wanted: HoursWanted, session: SessionNow) -> HoursView:
    """Work or money spent."""
    head = head_of(session, project_id)
    now = datetime.now(UTC)
    row = HoursRow(
        revision_id=head.revision.id, day=now.date(), created_at=now, **wanted.model_dump()
    )
    session.add(row)
    session.flush()
    return HoursView(words=row.words, minutes=row.minutes, cents=row.cents, day=row.day)


@router.post("/projects/{project_id}/revisions", status_code=201, response_model=DesignHead)
def new_revision(project_id: int, session: SessionNow, context: ContextNow) -> Response:
    """The next revision, from the last one; open faults are its to-do."""
    try:
        next_revision(session, project_id, AUTHOR, datetime.now(UTC))
    except NoMoreLetters as error:
        raise Refused(str(error), "Copy the project to go on.", 409) from None
    return head_now(session, project_id, context, 201)


@router.post("/projects/{project_id}/revisions/{letter}/copy", status_code=201)
def copy_revision(project_id: int, letter: str, session: SessionNow) -> ReadIn:
    """A revision as a project of its own, with everything that was made of it: so that an old one
    can be opened while a later one goes on.
    """
    design, name = design_of_revision(session, project_id, letter)
    title = f"{name[:28]} {letter}"
    copied = design.model_copy(update={"brief": design.brief.model_copy(update={"name": title})})
    now = datetime.now(UTC)
    number = create_project(session, copied.brief, AUTHOR, now)
    commit_version(
        session, head_of(session, number).revision, copied, f"Copied from {name}", AUTHOR, now
    )
    return ReadIn(project=number)


def design_of_revision(session: Session, project_id: int, letter: str) -> tuple[Design, str]:
    """What a revision shows, and the name of its project."""
    row = next((r for r in revisions_of(session, project_id) if r.letter == letter), None)
    version = session.get(VersionRow, row.head_id) if row and row.head_id else None
    if version is None:
        raise Refused(f"There is no revision {letter[:2]}.", "Choose one of the list.", 404)
    return load_design(session, version), head_of(session, project_id).project.name


@router.get("/projects/{project_id}/revisions/{letter}/changes")
def changes_of(project_id: int, letter: str, session: SessionNow) -> list[Change]:
    """What the brief of the present revision has changed against another revision."""
    before, _ = design_of_revision(session, project_id, letter)
    after = load_design(session, head_of(session, project_id).version)
    return list(compare(before.brief, after.brief))


@router.get("/projects/{project_id}/project.zip", response_class=Response)
def get_project_file(project_id: int, session: SessionNow) -> Response:
    """The whole project as one file."""
    data = write_project(session, project_id)
    name = head_of(session, project_id).project.name.lower()
    shown = "".join(c if c.isascii() and c.isalnum() else "-" for c in name)
    headers = {"Content-Disposition": f'attachment; filename="{shown}.loquet.zip"'}
    return Response(data, media_type="application/zip", headers=headers)


@router.post("/projects/read-in", status_code=201)
def read_in(data: Annotated[bytes, Depends(body_of)], session: SessionNow) -> ReadIn:
    """A project of a file, checked before anything is stored."""
    try:
        return ReadIn(project=read_project(session, data, datetime.now(UTC)))
    except BadProject as error:
        raise Refused(str(error), "Write the project out again on the other machine.") from None
