"""Parts of the shelf in their own right: joined to one another, to the brain, to the rail; what
they draw, cost and want beside them; up to 200 terminals.
"""

from typing import Any

import pytest

from loquet.compiling import own_packs
from loquet.core.brief import Brief, BriefError
from loquet.core.circuit import Circuit, RecipeNotPossible
from loquet.core.design import Choices, Design
from loquet.core.drawers.lines import part_lines
from loquet.core.library import Library
from loquet.core.lookup.project_library import project_library
from loquet.core.parts import Part
from loquet.core.pipeline import bring_up_to_date
from loquet.core.power.budget import loads_of
from loquet.core.power.load import draws_of
from loquet.core.release import release
from tests.conftest import ROOT
from tests.making import Plain, device, thing

(HUB,) = own_packs([ROOT / "examples" / "sheets" / "hub.toml"]).part
OUTLINE = {"kind": "rounded-rectangle", "width_mm": 140, "height_mm": 90}
CHIP, LEADS = thing("chip", "chip", 70, 72, part="stm32f030c8t6"), thing("leads", "leads")
UP = "upstream minus = @UP_MINUS; upstream plus = @UP_PLUS"
ONE = "port 1 minus = @ONE_MINUS; port 1 plus = @ONE_PLUS"
FIRST = f"{UP}; {ONE}; port 2 minus = open; port 2 plus = open"
SECOND = (
    "upstream minus = @ONE_MINUS; upstream plus = @ONE_PLUS; port 1 minus = @UP_MINUS;"
    " port 1 plus = @UP_PLUS; port 2 minus = to chip; port 2 plus = from chip"
)


def joined(name: str, x: float, joins: str, part: str = HUB.id) -> Plain:
    return thing("shelf-part", name, x, 25, part=part, joins=joins)


def begun(*things: Plain, parts: tuple[Part, ...] = (HUB,)) -> Design:
    brief = device(CHIP, LEADS, *things, boards=[{"name": "main", "outline": OUTLINE}])
    return Design(brief=brief, choices=Choices(shelf={part.id: part for part in parts}))


def circuit_of(design: Design, library: Library) -> Circuit:
    known = project_library(design, library)
    (made,) = bring_up_to_date(design, known, "circuit").circuit.values()
    return made.value


TWO = (joined("one", 35, FIRST), joined("two", 105, SECOND))


def test_parts_join_one_another_the_brain_and_the_rail(library: Library) -> None:
    """By hand from the joins; pins 5 and 8 are ground and supply, of which nobody spoke."""
    made = circuit_of(begun(*TWO), library)
    pads = {c.role: c.pads for c in made.components if c.part == HUB.id}
    assert pads["part:one"] == {
        "1": "JOIN_UP_MINUS",
        "2": "JOIN_UP_PLUS",
        "3": "JOIN_ONE_MINUS",
        "4": "JOIN_ONE_PLUS",
        "5": "GROUND",
        "8": "SUPPLY",
    }
    assert pads["part:two"] == {
        "1": "JOIN_ONE_MINUS",
        "2": "JOIN_ONE_PLUS",
        "3": "JOIN_UP_MINUS",
        "4": "JOIN_UP_PLUS",
        "5": "GROUND",
        "6": "PART_TWO_PORT_2_MINUS",
        "7": "PART_TWO_PORT_2_PLUS",
        "8": "SUPPLY",
    }
    (chip,) = (c for c in made.components if c.is_chip)
    assert {"PART_TWO_PORT_2_MINUS", "PART_TWO_PORT_2_PLUS"} <= set(chip.pads.values())
    near = {c.near_role: c.pads for c in made.components if c.role.endswith("supply decoupling")}
    assert near.keys() >= {"part:one", "part:two"}
    assert near["part:one"] == {"1": "SUPPLY", "2": "GROUND"}


def test_they_draw_and_cost_as_their_sheet_says(library: Library) -> None:
    design = begun(*TWO)
    known = project_library(design, library)
    drawn = {d.name: d.current_ma for d in draws_of(design.brief, known.parts, known.screens)}
    assert (drawn["one"], drawn["two"]) == (24, 24)
    (line,) = (
        line for line in part_lines(circuit_of(design, library), known, 5) if line.part == HUB.id
    )
    assert (line.count, line.price_cents, line.by_hand) == (2, 66, False)


@pytest.mark.parametrize(
    ("values", "play", "idle", "sleep"),
    [
        ({}, 24, 24, 24),  # nobody says that it sleeps: it draws as long as its rail is on
        ({"sleeps_ma": 0.2}, 24, 24, 0.2),
        ({"plays_ma": 18, "waits_ma": 6, "sleeps_ma": 0}, 18, 6, 0),
    ],
)
def test_a_part_says_what_it_draws_when(
    values: dict[str, float], play: float, idle: float, sleep: float, library: Library
) -> None:
    hub = HUB.model_copy(update={"values": {**HUB.values, **values}})
    design = begun(joined("one", 35, FIRST), parts=(hub,))
    known = project_library(design, library)
    (row,) = (r for r in loads_of(design.brief, known.parts, known.screens) if r.thing == "one")
    assert (row.currents.play, row.currents.idle, row.currents.sleep) == (play, idle, sleep)
    assert row.currents.peak == 24
    assert ("its parts say" in row.origin) is bool(values)


def test_a_board_of_joined_parts_ends_ready_with_its_pairs_together(library: Library) -> None:
    design = begun(*TWO)
    known = project_library(design, library)
    made = bring_up_to_date(design, known)
    result = release(made, known)
    assert result.ready, [f.sentence for f in result.findings if f.severity == "stop"]
    (routed,) = (kept.value for kept in made.routing.values())

    def length(net: str) -> float:
        tracks = [t for t in routed.tracks if t.net == net]
        assert tracks, net
        return sum(abs(t.x2_nm - t.x1_nm) + abs(t.y2_nm - t.y1_nm) for t in tracks) / 1e6

    for pair in ("JOIN_UP", "JOIN_ONE"):
        plus, minus = length(f"{pair}_PLUS"), length(f"{pair}_MINUS")
        assert abs(plus - minus) < 12, "one way for both"


def test_two_hundred_terminals(library: Library) -> None:
    body = {
        "family": "drawn",
        "name": "W200",
        "body_mm": [112, 14],
        "pads": [
            {"number": str(n), "x_mm": (n % 100 - 49.5) * 1.1, "y_mm": y, "w_mm": 0.6, "h_mm": 1.6}
            for n in range(200)
            for y in (-8 if n < 100 else 8,)
        ],
    }
    does = {0: "supply", 1: "ground"}
    wide = Part.model_validate(
        {
            **HUB.model_dump(mode="json"),
            "id": "own/wide",
            "kind": "chip package",
            "body": body,
            "terminals": {
                f"t{n}": {"pads": [str(n)], "does": does.get(n, "both ways")} for n in range(200)
            },
        }
    )
    joins = ";".join(f"t{n} = @N{n}" for n in range(2, 200))
    made = circuit_of(begun(joined("wide", 70, joins, wide.id), parts=(wide,)), library)
    (part,) = (c for c in made.components if c.part == "own/wide")
    assert len(part.pads) == 200
    assert part.pads["199"] == "JOIN_N199"


@pytest.mark.parametrize(
    ("joins", "words"),
    [
        ("nowhere", "which joins nothing"),
        ("supply = @up", "sends supply to '@up'"),
        ("supply = 5 V", "sends supply to '5 V'"),
        ("supply = open; supply = supply", "names supply twice"),
    ],
)
def test_joins_that_cannot_be_read_are_told(joins: str, words: str) -> None:
    with pytest.raises(BriefError, match=words):
        begun(joined("one", 35, joins))


@pytest.mark.parametrize(
    ("fields", "words"),
    [
        ({"joins": "way 9 = line"}, "has no terminal 'way 9'"),
        ({"joins": UP}, "nobody said where its terminal 'port 1 minus' goes"),
        ({"part": "", "joins": ""}, "no part is named yet"),
    ],
)
def test_what_cannot_be_joined_is_refused_in_words(
    fields: dict[str, Any], words: str, library: Library
) -> None:
    row = {**joined("one", 35, FIRST), **fields}
    with pytest.raises(RecipeNotPossible, match=words) as caught:
        circuit_of(begun(row), library)
    assert caught.value.nearest


def test_both_lines_on_the_bus_make_a_bus_thing() -> None:
    def brief_of(joins: str) -> Brief:
        return begun(joined("one", 35, joins)).brief

    on = brief_of("upstream minus = clock; upstream plus = data").thing("one").on_bus()
    assert on is not None
    assert brief_of("upstream minus = clock").thing("one").on_bus() is None
