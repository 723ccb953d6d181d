"""Cards of the log, hours and money, and revisions made from one another."""

from collections import Counter
from datetime import datetime

from sqlalchemy import select
from sqlalchemy.orm import Session

from loquet.store.designs import Head, NotFound, commit_version, head_of, load_design
from loquet.store.tables import FaultRow, HoursRow, ProjectRow, RevisionRow

LETTERS = "ABCDEFGHJKLMNPRSTUVWY"


class NoMoreLetters(Exception):
    """All letters for revisions are used."""


def cards_of(session: Session, project_id: int) -> list[FaultRow]:
    """All cards of a project, the newest first."""
    query = select(FaultRow).where(FaultRow.project_id == project_id).order_by(FaultRow.id.desc())
    return list(session.scalars(query.limit(500)))


def open_cards(session: Session, project_id: int) -> list[FaultRow]:
    """Cards that are neither fixed nor waived."""
    return [card for card in cards_of(session, project_id) if card.state == "open"]


def card(session: Session, card_id: int, project_id: int) -> FaultRow:
    """A card of a project; raises NotFound."""
    row = session.get(FaultRow, card_id)
    if row is None or row.project_id != project_id:
        raise NotFound(f"There is no card {card_id}.")
    return row


def hours_of(session: Session, revision_id: int) -> list[HoursRow]:
    """Work and money of a revision, the oldest first."""
    query = select(HoursRow).where(HoursRow.revision_id == revision_id).order_by(HoursRow.id)
    return list(session.scalars(query.limit(1000)))


def revisions_of(session: Session, project_id: int) -> list[RevisionRow]:
    """All revisions of a project, the oldest first."""
    query = select(RevisionRow).where(RevisionRow.project_id == project_id).order_by(RevisionRow.id)
    return list(session.scalars(query))


def next_revision(session: Session, project_id: int, author: str, now: datetime) -> Head:
    """A new revision with the design of the last one; raises NoMoreLetters."""
    head = head_of(session, project_id, lock=True)
    used = LETTERS.find(head.revision.letter)
    if used < 0 or used + 1 >= len(LETTERS):
        raise NoMoreLetters(f"Revision {head.revision.letter} is the last letter.")
    design = load_design(session, head.version)
    revision = RevisionRow(project_id=project_id, letter=LETTERS[used + 1], turn=0)
    session.add(revision)
    session.flush()
    label = f"Revision {revision.letter}, from {head.revision.letter}"
    commit_version(session, revision, design, label, author, now)
    return head_of(session, project_id)


def again_and_again(session: Session) -> list[tuple[str, int, int]]:
    """Which sorts of mistakes come again across projects: the sort, how many cards, in how many
    projects.
    """
    rows = list(session.scalars(select(FaultRow).where(FaultRow.sort != "")))
    kept = {p.id for p in session.scalars(select(ProjectRow)) if p.kept != "removed"}
    rows = [row for row in rows if row.project_id in kept]
    counts = Counter(row.sort for row in rows)
    projects = {sort: len({r.project_id for r in rows if r.sort == sort}) for sort in counts}
    return sorted(
        ((sort, count, projects[sort]) for sort, count in counts.items()),
        key=lambda row: (-row[1], row[0]),
    )
