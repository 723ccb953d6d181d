"""Twelve data sheets of invented parts: their pin tables give the terminals that their roles ask
for, and devices made with them end ready and proven.
"""

from pathlib import Path

import pytest

from loquet.catalogue.library import bundled_library
from loquet.compiling import chosen_from, own_packs
from loquet.core.brief import read_brief
from loquet.core.design import Design
from loquet.core.library import Library
from loquet.core.lookup.project_library import project_library
from loquet.core.pipeline import bring_up_to_date
from loquet.core.release import release
from loquet.core.shelf.pack import read_pack
from loquet.core.shelf.pin_table import for_role, read_pin_table

FOLDER = Path(__file__).parents[2] / "examples" / "sheets"
SHEETS = sorted(FOLDER.glob("*.txt"))
MADE_OF = {
    "charging-pad": {"charger", "gauge", "regulator"},
    "many-keys": {"expander"},
    "module-panel": {"module", "membrane-socket"},
    "quad-lamp": {"quad-chip"},
    "roof-remote": {"step-down"},
    "speaking-stick": {"amplifier", "stick"},
}
"""Which sheets each device is made with; a hub and a screen of eight bits have no recipe yet."""


def test_there_are_twelve_sheets_and_six_devices() -> None:
    assert len(SHEETS) == 12
    assert {path.name.split(".")[0] for path in FOLDER.glob("*.brief.json")} == set(MADE_OF)


@pytest.mark.parametrize("path", SHEETS, ids=lambda path: path.stem)
def test_a_pin_table_gives_the_terminals_of_its_role(path: Path, library: Library) -> None:
    """Pasted as it stands, with the names of the sheet."""
    (part,) = read_pack(path.with_suffix(".toml").read_bytes(), path.stem).part
    rows, unread = read_pin_table(path.read_text().split("\nPins\n")[1].split("\n\n")[0])
    role = library.roles.of(part.kind)
    assert role is not None
    assert unread == ()
    found = {
        row.name: (row.pads, row.does) for row in for_role(rows, (*role.terminals, *role.also))
    }
    assert found == {name: (t.pads, t.does) for name, t in part.terminals.items()}
    assert library.roles.lacks(part) == ()


@pytest.mark.parametrize("name", sorted(MADE_OF))
def test_a_device_of_sheets_ends_ready_and_proven(name: str) -> None:
    path = FOLDER / f"{name}.brief.json"
    brief, pack = read_brief(path.read_bytes(), path.name), own_packs(sorted(FOLDER.glob("*.toml")))
    begun = Design(brief=brief, choices=chosen_from(pack, None))
    library = project_library(begun, bundled_library())
    design = bring_up_to_date(begun, library)
    made = release(design, library)
    assert [f.sentence for f in made.findings if f.severity == "stop"] == []
    assert made.proof is not None
    assert made.proof.holds
    (circuit,) = (kept.value for kept in design.circuit.values())
    used = {c.part for c in circuit.components} | {t.package for t in brief.shelf.pin_tables}
    asked = {f"own/sheet-{sheet}" for sheet in MADE_OF[name]}
    assert {part for part in used if part.startswith("own/")} == asked
