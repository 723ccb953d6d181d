"""Answers that took long, kept by what they depend on, so that nobody waits for the same one
twice.
"""

from datetime import UTC, datetime

from sqlalchemy.dialects.mysql import insert
from sqlalchemy.orm import Session

from loquet.store.tables import AnswerRow


def answer_of(session: Session, digest: str) -> str | None:
    """The kept answer to a question, or None where it was not worked out yet."""
    row = session.get(AnswerRow, digest)
    return row.content if row else None


def keep_answer(session: Session, digest: str, content: str) -> None:
    """Keep an answer; the first one stays where two were worked out at once."""
    row = {"digest": digest, "content": content, "created_at": datetime.now(UTC)}
    session.execute(insert(AnswerRow).prefix_with("IGNORE").values(**row))
