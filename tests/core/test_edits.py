"""Edits of any kind of thing, of boards and of choices: what they change, what they keep, where
they refuse.
"""

from typing import Any

import pytest
from pydantic import ValidationError

from loquet.core.brief import Place, kinds
from loquet.core.brief.any_thing import kind_name
from loquet.core.brief.thing import Thing
from loquet.core.design import Choices, Design, slice_of
from loquet.core.edits import EDITS, EditRefused
from loquet.core.freshness import stale_slices
from loquet.core.library import Library
from loquet.core.pins.needing import needs_of
from loquet.demo.scenario import demo_brief
from tests.editing import edit, refused, spot


@pytest.fixture(scope="module")
def handset() -> Design:
    return Design(brief=demo_brief("ridge-handset"))


@pytest.mark.parametrize("model", kinds.KINDS, ids=kind_name)
def test_every_kind_comes_turns_changes_board_and_goes(handset: Design, model: type[Thing]) -> None:
    two = edit(
        handset,
        kind="add-board",
        board={
            "name": "second",
            "outline": {"kind": "rounded-rectangle", "width_mm": 80, "height_mm": 50},
        },
    )
    new = {"kind": kind_name(model), "name": "new one"}
    fixed = {"address": 0x11} if "address" in model.model_fields else {}
    more = edit(two, kind="add-thing", thing={**new, **fixed})
    assert isinstance(more.brief.thing("new one"), model)
    moved = edit(
        more,
        kind="move-thing",
        name="new one",
        x_mm=30,
        y_mm=20,
        turn_deg=217,
        far=True,
        board="second",
    )
    found = moved.brief.thing("new one")
    assert found.place == Place(x_mm=30, y_mm=20, turn_deg=217, far=True)
    assert found.board == "second"
    assert edit(moved, kind="remove-things", names=["new one"]).brief == two.brief


ADDED = {
    "button": 1,
    "pad": 4,
    "stick": 3,
    "trigger": 1,
    "encoder": 3,
    "slider": 1,
    "touch": 2,
    "memory-card": 5,
    "light-matrix": 8,
    "expansion": 8,
    "crystal": 2,
    "serial": 2,
    "headphones": 1,
    "hole": 0,
    "words": 0,
}


@pytest.mark.parametrize("kind", ADDED)
def test_a_thing_brings_its_signals(handset: Design, kind: str) -> None:
    """Counted by hand from what such a thing has: axes, contacts, bus lines."""
    place = {"x_mm": 75, "y_mm": 46}
    more = edit(handset, kind="add-thing", thing={"kind": kind, "name": "new one", "place": place})
    assert len(needs_of(more.brief)) - len(needs_of(handset.brief)) == ADDED[kind]


def test_a_field_is_changed_by_the_kind_s_own_validation(handset: Design) -> None:
    changed = edit(handset, kind="change-thing", name="menu", changes={"duty": "hot key"})
    assert changed.brief.thing("menu").contacts()[0].duty == "hot key"
    for changes, said in (
        (
            {"duty": "sleep"},
            "Duty 'sleep' of menu: it must be 'play', 'menu', 'hot key' or 'power'",
        ),
        ({"colour": "red"}, "Colour 'red' of menu: there is no such field"),
        (
            {"place": {"x_mm": "left", "y_mm": 3}},
            "Across 'left' of menu: it must be a valid number",
        ),
        ({"kind": "stick"}, "Name and kind"),
    ):
        with pytest.raises(EditRefused) as caught:
            edit(handset, kind="change-thing", name="menu", changes=changes)
        assert said in caught.value.why
        assert caught.value.way_out


def test_a_button_moves_and_makes_the_rest_stale(finished: Design) -> None:
    moved = edit(finished, kind="move-thing", name="dome", x_mm=25.5, y_mm=7.5)
    assert spot(moved, "dome") == (25.5, 7.5)
    assert "pins" in stale_slices(moved)
    assert spot(finished, "dome") == (26, 7)


def test_locks_schemes_and_chords_follow_a_name_and_go_with_a_thing(handset: Design) -> None:
    locks = {"stick:left stick:x": "8", "button:menu": "6"}
    design = handset.model_copy(update={"choices": Choices(pin_locks=locks)})
    scheme = {"name": "mixed", "direct": ["button:menu", "pad:left pad:up"]}
    design = edit(design, kind="set-scheme", scheme=scheme)
    groups = [["button:menu", "stick:left stick:press"]]
    design = edit(design, kind="set-chords", chords={"rule": "own", "groups": groups})
    design = edit(design, kind="rename-thing", name="left stick", new_name="slew")
    renamed = edit(design, kind="rename-thing", name="menu", new_name="list")
    assert renamed.choices.pin_locks == {"stick:slew:x": "8", "button:list": "6"}
    assert renamed.brief.key_scheme.direct == ("button:list", "pad:left pad:up")
    assert renamed.brief.chords.groups == (("button:list", "stick:slew:press"),)
    gone = edit(renamed, kind="remove-things", names=["slew"])
    assert gone.choices.pin_locks == {"button:list": "6"}
    assert gone.brief.chords.groups == (("button:list",),)


def test_a_renamed_brain_keeps_its_plan(finished: Design) -> None:
    renamed = edit(finished, kind="rename-thing", name="chip", new_name="brain one")
    assert slice_of(renamed.pins, "brain one") == slice_of(finished.pins, "chip")


def test_another_chip_drops_the_locks(finished: Design) -> None:
    locked = edit(finished, kind="lock-pin", signal="button:dome", pin="29")
    other = edit(locked, kind="change-thing", name="chip", changes={"part": "stm32g031k8t6"})
    assert other.choices.pin_locks == {}
    assert edit(locked, kind="release-pin", signal="button:dome").choices.pin_locks == {}
    with refused("Pin 29 is locked"):
        edit(locked, kind="lock-pin", signal="light", pin="29")


def test_locks_of_signals_that_a_scheme_drops_are_dropped(handset: Design) -> None:
    locks = {"button:menu": "6", "screen:clock": "26"}
    design = handset.model_copy(update={"choices": Choices(pin_locks=locks)})
    matrix = edit(design, kind="set-scheme", scheme="diode matrix")
    assert matrix.choices.pin_locks == {"screen:clock": "26"}


def test_groups_move_line_up_and_spread(handset: Design) -> None:
    names = ["right west", "right north", "right east"]
    moved = edit(handset, kind="move-things", names=names, dx_mm=-2.5, dy_mm=1)
    assert spot(moved, "right west") == (111.5, 45)
    row = edit(handset, kind="arrange-things", names=names, how="row")
    assert {spot(row, n)[1] for n in names} == {spot(handset, "right west")[1]}
    level = edit(handset, kind="move-thing", name="right north", x_mm=120, y_mm=54)
    across = edit(level, kind="arrange-things", names=names, how="spread across")
    assert [spot(across, n)[0] for n in names] == [114, 126, 138]
    rising = ["right south", "right north", "right west"]
    up = edit(handset, kind="arrange-things", names=rising, how="spread up")
    assert spot(up, "right west")[1] == 44
    with refused("no 'nobody'"):
        edit(handset, kind="move-things", names=["nobody"], dx_mm=1, dy_mm=1)
    with refused("outside"):
        edit(handset, kind="move-things", names=names, dx_mm=100, dy_mm=0)


def test_mirrored_and_copied_things_have_names_of_their_own(handset: Design) -> None:
    mirrored = edit(handset, kind="mirror-things", names=["right east"])
    assert spot(mirrored, "left west") == (150 - 138, 44)
    with refused("Right shoulder 2 overlaps 'right shoulder'"):
        edit(handset, kind="mirror-things", names=["left shoulder"])
    single = edit(handset, kind="remove-things", names=["right shoulder"])
    copy = edit(single, kind="mirror-things", names=["left shoulder"]).brief.thing("right shoulder")
    assert copy.model_dump()["digit"] == "right finger"
    menu = handset.brief.thing("menu").model_dump(mode="json")
    twice = edit(handset, kind="paste-things", things=[menu], dx_mm=0, dy_mm=20)
    assert spot(twice, "menu 2") == (spot(handset, "menu")[0], spot(handset, "menu")[1] + 20)


def test_things_are_pasted_into_another_project(handset: Design) -> None:
    """What its own project had and this one has not is left out: board, rail, brain; names stay one
    of each.
    """
    menu = handset.brief.thing("menu").model_dump(mode="json")
    foreign = {**menu, "board": "left half", "rail": "five volts", "brain": "second"}
    free = {**menu, "name": "fresh", "place": None}
    once = edit(handset, kind="paste-things", things=[foreign, free], dy_mm=20, dx_mm=0)
    copy = once.brief.thing("menu 2")
    assert (copy.board, copy.rail, copy.brain) == ("main", "", "")
    assert once.brief.thing("fresh").place is None
    kept = {**menu, "brain": "chip"}
    again = edit(once, kind="paste-things", things=[kept], dx_mm=-20, dy_mm=20)
    assert again.brief.thing("menu 3").brain == "chip"
    outline = {"kind": "rounded-rectangle", "width_mm": 60, "height_mm": 40}
    two = edit(handset, kind="add-board", board={"name": "pads", "outline": outline})
    x, y = spot(two, "menu")
    over = edit(two, kind="paste-things", things=[menu], dx_mm=20 - x, dy_mm=20 - y, board="pads")
    assert (over.brief.thing("menu 2").board, spot(over, "menu 2")) == ("pads", (20, 20))


def test_boards_come_go_and_take_their_things_along(handset: Design) -> None:
    outline = {"kind": "rounded-rectangle", "width_mm": 60, "height_mm": 40}
    two = edit(handset, kind="add-board", board={"name": "pads", "outline": outline})
    with refused("already"):
        edit(two, kind="add-board", board={"name": "Pads", "outline": outline})
    half = edit(two, kind="rename-board", name="pads", new_name="left half")
    with refused("stands twice"):  # both would be written to left-half/
        edit(half, kind="add-board", board={"name": "left-half", "outline": outline})
    moved = edit(two, kind="move-thing", name="menu", x_mm=20, y_mm=20, board="pads")
    renamed = edit(moved, kind="rename-board", name="pads", new_name="left half")
    assert renamed.brief.thing("menu").board == "left half"
    gone = edit(renamed, kind="remove-board", name="left half")
    assert [b.name for b in gone.brief.boards] == ["main"]
    assert "menu" not in {t.name for t in gone.brief.things}
    with refused("last board"):
        edit(gone, kind="remove-board", name="main")


def test_holes_come_along_when_the_outline_grows(handset: Design) -> None:
    """150 x 70 mm with holes 5 mm from each side; 20 mm wider and 10 mm higher they are 5 mm from
    each side again.
    """
    outline = {"kind": "rounded-rectangle", "width_mm": 170, "height_mm": 80, "corner_mm": 5}
    wide = edit(handset, kind="set-outline", outline=outline)
    corners = {n: spot(wide, f"post {n}") for n in ("south west", "south east", "north west")}
    assert corners == {"south west": (5, 5), "south east": (165, 5), "north west": (5, 75)}


def test_an_existing_shell_keeps_outline_and_holes(handset: Design) -> None:
    kept = edit(handset, kind="set-shell", shell={"kind": "existing", "name": "old handle"})
    outline = {"kind": "rounded-rectangle", "width_mm": 140, "height_mm": 70}
    for fields in (
        {"kind": "set-outline", "outline": outline},
        {"kind": "move-thing", "name": "post south west", "x_mm": 9, "y_mm": 9},
        {"kind": "remove-things", "names": ["post south west"]},
        {"kind": "move-things", "names": ["post south west"], "dx_mm": 1, "dy_mm": 0},
    ):
        with refused("existing shell"):
            edit(kept, **fields)


def test_wishes_of_the_device(handset: Design) -> None:
    assert edit(handset, kind="set-role", role="stand-alone").brief.role == "stand-alone"
    assert edit(handset, kind="set-analogue", by="multiplexer").brief.analogue_by == "multiplexer"
    reading = "pull-down-resistors"
    assert edit(handset, kind="set-reading", reading=reading).brief.button_reading == reading
    assert edit(handset, kind="set-quantity", quantity=7).brief.quantity == 7
    named = edit(handset, kind="set-words", name="Other name", purpose="For the dome.")
    assert (named.brief.name, named.brief.purpose) == ("Other name", "For the dome.")
    making = {"finish": "gold", "colour": "blue", "thickness_mm": 1.0}
    house = {"house": "saltmarsh", "shipping": "courier", "making": making}
    chosen = edit(handset, kind="choose-house", **house)
    assert chosen.choices.house == "saltmarsh"
    assert chosen.brief.making.thickness_um == 1000
    soldered = edit(chosen, kind="set-making", making={**making, "soldered_by": "hot plate"})
    assert soldered.brief.making.soldered_by == "hot plate"
    whole = handset.brief.model_dump(mode="json")
    assert edit(chosen, kind="replace-brief", brief=whole).brief == handset.brief


def test_a_file_of_the_first_format_replaces_a_brief_too(handset: Design) -> None:
    import json

    from tests.conftest import ROOT

    first = json.loads((ROOT / "tests" / "data" / "first" / "dome-pod.brief.json").read_text())
    assert edit(handset, kind="replace-brief", brief=first).brief == demo_brief("dome-pod")


@pytest.mark.parametrize(
    ("fields", "reason"),
    [
        ({"kind": "move-thing", "name": "dome", "x_mm": 200, "y_mm": 7}, "outside the board"),
        ({"kind": "move-thing", "name": "ghost", "x_mm": 20, "y_mm": 7}, "no 'ghost'"),
        ({"kind": "move-thing", "name": "dome", "x_mm": 38, "y_mm": 7}, "overlaps"),
        (
            {"kind": "move-thing", "name": "dome", "x_mm": 20, "y_mm": 7, "board": "moon"},
            "does not have",
        ),
        ({"kind": "add-thing", "thing": {"kind": "button", "name": "Dome"}}, "already"),
        ({"kind": "add-thing", "thing": {"kind": "button", "name": "all-dark"}}, "BUTTON_ALL_DARK"),
        (
            {"kind": "add-thing", "thing": {"kind": "motion", "name": "tilt", "address": 60}},
            "0x3c is taken",
        ),
        ({"kind": "rename-thing", "name": "dome", "new_name": "red"}, "already"),
        ({"kind": "release-thing", "name": "dome"}, "worked by hand"),
        ({"kind": "lock-pin", "signal": "button:ghost", "pin": "3"}, "no signal"),
        ({"kind": "seat-part", "role": "ghost", "x_mm": 3, "y_mm": 3}, "no part"),
        (
            {"kind": "set-scheme", "scheme": {"name": "mixed", "direct": ["button:nobody"]}},
            "does not have",
        ),
    ],
)
def test_impossible_edits_say_why(finished: Design, fields: dict[str, Any], reason: str) -> None:
    with pytest.raises(EditRefused) as caught:
        edit(finished, **fields)
    assert reason in caught.value.why
    assert caught.value.way_out


@pytest.mark.parametrize(
    "fields",
    [
        {"kind": "drop-table"},
        {"kind": "set-scheme", "scheme": "telepathy"},
        {"kind": "add-thing", "thing": {"kind": "lever", "name": "x"}},
        {"kind": "add-thing", "thing": 7},
        {"kind": "set-quantity", "quantity": 0},
        {"kind": "replace-brief", "brief": {"format": "loquet-brief-9"}},
    ],
)
def test_what_is_no_edit_is_refused(fields: dict[str, Any]) -> None:
    with pytest.raises(ValidationError):
        EDITS.validate_python(fields)


def test_an_expander_and_a_sensor_of_one_address_are_refused(
    handset: Design, library: Library
) -> None:
    sensor = {"kind": "bus-sensor", "name": "tilt", "address": 0x20}
    sensed = edit(handset, kind="add-thing", thing=sensor)
    with refused("0x20 is taken"):
        edit(sensed, kind="set-scheme", scheme="expander 16")


def test_places_that_pins_aim_at_follow_a_name_and_go_when_the_thing_moves(
    handset: Design,
) -> None:
    aims = {"button:menu": (1_000, 2_000), "button:mark": (3_000, 4_000)}
    aimed = handset.model_copy(update={"choices": Choices(pin_targets=aims)})
    renamed = edit(aimed, kind="rename-thing", name="menu", new_name="list")
    assert renamed.choices.pin_targets == {
        "button:list": (1_000, 2_000),
        "button:mark": (3_000, 4_000),
    }
    x, y = spot(handset, "menu")
    moved = edit(aimed, kind="move-thing", name="menu", x_mm=x + 0.5, y_mm=y)
    assert moved.choices.pin_targets == {"button:mark": (3_000, 4_000)}


def test_an_outline_is_that_of_the_board_that_is_named(handset: Design) -> None:
    outline = {"kind": "rounded-rectangle", "width_mm": 30, "height_mm": 20, "corner_mm": 2}
    two = edit(handset, kind="add-board", board={"name": "second", "outline": outline})
    wide = edit(two, kind="set-outline", board="second", outline={**outline, "width_mm": 44})
    assert [b.outline.width_mm for b in wide.brief.boards] == [150, 44]
    assert wide.brief.things == two.brief.things
    with pytest.raises(EditRefused) as caught:
        edit(handset, kind="remove-board", name="main")
    assert str(caught.value).startswith("The last board cannot be removed.")


def test_places_are_kept_to_the_micrometre(handset: Design) -> None:
    moved = edit(handset, kind="move-thing", name="menu", x_mm=75.12349, y_mm=20.0004)
    place = moved.brief.thing("menu").place
    assert place is not None
    assert (place.x_mm, place.y_mm) == (75.123, 20.0)
    shifted = edit(moved, kind="move-things", names=["menu"], dx_mm=0.0104, dy_mm=-1.00049)
    place = shifted.brief.thing("menu").place
    assert place is not None
    assert (place.x_mm, place.y_mm) == (75.133, 19.0)


SMALL = {"kind": "rounded-rectangle", "width_mm": 40, "height_mm": 30, "corner_mm": 2}


def test_a_port_settles_when_it_comes_and_when_it_is_moved(handset: Design) -> None:
    """The handset's outline is 150 x 70 mm; the body of the port is 7.3 mm deep.

    A turn that is given leaves it where it was put.
    """
    port = {"kind": "usb-device", "name": "way in", "place": {"x_mm": 75, "y_mm": 69}}
    bare = edit(handset, kind="remove-things", names=["usb"])
    added = edit(bare, kind="add-thing", thing=port)

    def place_of(design: Design) -> tuple[float, float, int]:
        place = design.brief.thing("way in").place
        assert place is not None
        return place.x_mm, place.y_mm, place.turn_deg

    assert place_of(added) == (75, 66.35, 180)
    moved = edit(added, kind="move-thing", name="way in", x_mm=149, y_mm=35)
    assert place_of(moved) == (146.35, 35, 90)
    free = edit(added, kind="move-thing", name="way in", x_mm=149, y_mm=35, turn_deg=10)
    assert place_of(free) == (149, 35, 10)
    board = edit(moved, kind="add-board", board={"name": "small", "outline": SMALL})
    there = edit(board, kind="move-thing", name="way in", x_mm=20, y_mm=1, board="small")
    assert place_of(there) == (20, 3.65, 0)


def test_a_table_becomes_the_first_brain(handset: Design) -> None:
    """With a brain its part changes; without one a chip comes; a table of the same name is
    replaced.
    """
    text = "pad,port,can\n1,A1,input output\n2,,supply\n"
    taken = edit(handset, kind="use-pin-table", name="mine", text=text)
    assert (taken.brief.brains[0].name, taken.brief.brains[0].part) == ("chip", "own")
    again = edit(taken, kind="use-pin-table", name="mine", text=text + "3,,ground\n")
    assert [len(t.pads) for t in again.brief.shelf.pin_tables] == [3]
    bare = edit(handset, kind="remove-things", names=["chip"])
    alone = edit(bare, kind="use-pin-table", name="mine", text=text)
    (brain,) = alone.brief.brains
    assert (brain.name, brain.kind, brain.part, brain.board) == ("chip", "chip", "own", "main")
    assert len(alone.brief.things) == len(bare.brief.things) + 1


@pytest.mark.parametrize(
    ("fields", "field", "most"),
    [
        (
            {"kind": "choose-house", "making": {}, "shipping": "s"},
            "house",
            64,
        ),
        ({"kind": "lock-pin", "pin": "1"}, "signal", 60),
        ({"kind": "release-pin"}, "signal", 60),
    ],
)
def test_words_of_edits_have_their_published_lengths(
    fields: dict[str, Any], field: str, most: int
) -> None:
    """Limits by hand; a longer word is refused before anything is looked at."""
    assert EDITS.validate_python({**fields, field: "x" * most})
    with pytest.raises(ValidationError):
        EDITS.validate_python({**fields, field: "x" * (most + 1)})


def test_keys_that_a_change_takes_away_leave_scheme_and_chords(handset: Design) -> None:
    """A stick that is not pressed any more has no key; what named it forgets it."""
    press, other = "stick:left stick:press", "button:menu"
    named = edit(
        handset, kind="set-scheme", scheme={"name": "bare matrix", "diodes": [press, other]}
    )
    chords = {"rule": "own", "groups": [[press, other, "button:mark"]]}
    changed = edit(
        edit(named, kind="set-chords", chords=chords),
        kind="change-thing",
        name="left stick",
        changes={"press": False},
    )
    assert changed.brief.key_scheme.diodes == (other,)
    assert changed.brief.chords.groups == ((other, "button:mark"),)
