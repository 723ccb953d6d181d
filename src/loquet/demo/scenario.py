"""The example briefs of the Larkfield workshop."""

from pathlib import Path

from loquet.core.brief import Brief, read_brief

EXAMPLES = Path(__file__).resolve().parents[3] / "examples"
BOARD_BRIEFS = ("dusk-remote", "dome-pod", "focus-pad")
SPREAD_BRIEFS = ("slit-halves", "slew-carrier", "slant-remote")
BRAIN_BRIEFS = ("finder-lamp", "chart-module", "dew-panel", "filter-dial", "step-pad")
FEED_BRIEFS = ("star-handset", "pocket-lamp", "twin-grips", "dome-desk", "chart-console")
DEMO_BRIEFS = (
    *BOARD_BRIEFS,
    "log-key-pad",
    *SPREAD_BRIEFS,
    *BRAIN_BRIEFS,
    *FEED_BRIEFS,
)


def demo_brief(name: str) -> Brief:
    """An example brief by its file name without ending."""
    path = EXAMPLES / f"{name}.brief.json"
    return read_brief(path.read_bytes(), path.name)


def dusk_remote() -> Brief:
    """The six-button pocket remote."""
    return demo_brief("dusk-remote")
