"""`loquet log`: the log of a saved project, read from its file."""

from pathlib import Path

from loquet.compiling import Unusable, read_limited
from loquet.reports.plans import Report
from loquet.store.project_file import MOST_BYTES, BadProject, checked_rows


def report_log(path: Path) -> tuple[int, Report]:
    """Revisions, cards and hours: 0, or 2 where a fault is open.

    Raises Unusable for what is no project file.
    """
    try:
        name, rows = checked_rows(read_limited(path, MOST_BYTES))
    except BadProject as error:
        raise Unusable(f"{path}: {error}") from None
    letters = {row["id"]: row["letter"] for row in rows["revisions"]}
    cards = [
        {
            **{
                key: row[key]
                for key in (
                    "title",
                    "about",
                    "found_how",
                    "patch",
                    "sort",
                    "state",
                    "reason",
                    "minutes",
                    "cents",
                )
            },
            "revision": letters.get(row["revision_id"], "?"),
            "fixed_in": letters.get(row["fixed_in"], ""),
        }
        for row in rows["fault_cards"]
    ]
    hours = [
        {
            "revision": letters.get(row["revision_id"], "?"),
            "words": row["words"],
            "minutes": row["minutes"],
            "cents": row["cents"],
        }
        for row in rows["hours"]
    ]
    code = 2 if any(card["state"] == "open" for card in cards) else 0
    return code, {
        "project": name,
        "revisions": list(letters.values()),
        "cards": cards,
        "hours": hours,
    }


def say_log(report: Report) -> str:
    """The log in lines for a person."""
    lines = [f"{report['project']}: revisions {', '.join(report['revisions'])}"]
    lines += [
        f"{card['state']:6} {card['revision']}  {card['title']}. {card['patch']}"
        for card in report["cards"]
    ]
    lines += [
        f"spent  {row['revision']}  {row['words']}: {row['minutes'] / 60:.1f} h,"
        f" {row['cents'] / 100:.2f} €"
        for row in report["hours"]
    ]
    return "\n".join(lines)
