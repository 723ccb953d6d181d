"""Edits of controls and of the device: what they change, what they keep, where they refuse."""

import pytest
from pydantic import ValidationError

from loquet.catalogue.presets import presets
from loquet.core.brief.reach import HAND_MM, out_of_reach, reach_arcs
from loquet.core.design import Choices, Design
from loquet.core.edits import EDITS, EditRefused, apply
from loquet.core.feasibility import brief_faults
from loquet.core.geometry import middle_of
from loquet.core.library import Library
from loquet.core.pinning import placed_targets, verdict_of
from loquet.core.pins.needs import needs_of
from loquet.core.pipeline import board_view, bring_up_to_date, pin_problem, stale_slices
from loquet.core.release import release
from loquet.demo.scenario import demo_brief


@pytest.fixture(scope="module")
def handset() -> Design:
    return Design(brief=demo_brief("star-handset"))


def edit(design: Design, **fields: object) -> Design:
    return apply(design, EDITS.validate_python(fields))


def place(design: Design, name: str) -> tuple[float, float]:
    control = next(c for c in design.brief.controls if c.name == name)
    return control.x_mm, control.y_mm


CONTROLS = [
    {"kind": "button", "name": "new one", "x_mm": 60, "y_mm": 40, "duty": "hot key"},
    {
        "kind": "pad",
        "name": "new one",
        "x_mm": 60,
        "y_mm": 40,
        "form": "five-way part",
        "part": "five-way-10",
    },
    {
        "kind": "stick",
        "name": "new one",
        "x_mm": 60,
        "y_mm": 40,
        "sensing": "magnetic",
        "press": False,
        "part": "stick-magnetic-13",
    },
    {"kind": "trigger", "name": "new one", "x_mm": 60, "y_mm": 40},
    {"kind": "encoder", "name": "new one", "x_mm": 60, "y_mm": 40},
    {"kind": "slider", "name": "new one", "x_mm": 60, "y_mm": 40, "part": "wheel-16"},
    {"kind": "touch", "name": "new one", "x_mm": 60, "y_mm": 40},
]
ADDED = {"button": 1, "pad": 5, "stick": 2, "trigger": 1, "encoder": 3, "slider": 1, "touch": 1}


@pytest.mark.parametrize("control", CONTROLS, ids=lambda c: c["kind"])
def test_every_kind_comes_brings_its_signals_and_goes(
    handset: Design, library: Library, control: dict[str, object]
) -> None:
    more = edit(handset, kind="add-control", control=control)
    assert len(needs_of(more.brief)) - len(needs_of(handset.brief)) == ADDED[str(control["kind"])]
    assert not [f for f in brief_faults(more.brief, library) if "part" in f.place]
    turned = edit(more, kind="change-control", name="new one", control={**control, "turn_deg": 90})
    assert turned.brief.controls[-1].turn_deg == 90
    assert edit(turned, kind="remove-control", name="new one").brief == handset.brief


def test_groups_move_line_up_and_spread(handset: Design) -> None:
    names = ["right west", "right north", "right east"]
    moved = edit(handset, kind="move-controls", names=names, dx_mm=-2.5, dy_mm=1)
    assert place(moved, "right west") == (111.5, 45)
    row = edit(handset, kind="arrange-controls", names=names, how="row")
    assert {place(row, n)[1] for n in names} == {place(handset, "right west")[1]}
    spread = edit(
        edit(handset, kind="move-thing", thing="button:right north", x_mm=120, y_mm=54),
        kind="arrange-controls",
        names=names,
        how="spread across",
    )
    assert [place(spread, n)[0] for n in names] == [114, 126, 138]
    up = edit(
        handset,
        kind="arrange-controls",
        names=["right south", "right north", "right west"],
        how="spread up",
    )
    assert place(up, "right west")[1] == 44
    with pytest.raises(EditRefused, match="no control"):
        edit(handset, kind="move-controls", names=["nobody"], dx_mm=1, dy_mm=1)
    with pytest.raises(EditRefused, match="outside"):
        edit(handset, kind="move-controls", names=names, dx_mm=100, dy_mm=0)


def test_mirrored_copies_change_side_and_name(handset: Design) -> None:
    mirrored = edit(handset, kind="mirror-controls", names=["right east"])
    assert place(mirrored, "left west") == (150 - 138, 44)
    with pytest.raises(EditRefused, match="right shoulder 2' overlaps"):
        edit(handset, kind="mirror-controls", names=["left shoulder"])
    copy = edit(
        edit(handset, kind="remove-control", name="right shoulder"),
        kind="mirror-controls",
        names=["left shoulder"],
    ).brief.controls[-1]
    assert (copy.name, copy.digit, copy.x_mm) == ("right shoulder", "right finger", 128)


def test_names_move_with_locks_schemes_and_chords(handset: Design) -> None:
    design = handset.model_copy(
        update={"choices": Choices(pin_locks={"stick:left stick:x": "8", "button:menu": "6"})}
    )
    design = edit(
        design,
        kind="set-scheme",
        scheme={"name": "mixed", "direct": ["button:menu", "pad:left pad:up"]},
    )
    design = edit(
        design,
        kind="set-chords",
        chords={"rule": "own", "groups": [["button:menu", "stick:left stick:press"]]},
    )
    renamed = edit(
        edit(design, kind="rename-control", name="left stick", new_name="slew"),
        kind="rename-control",
        name="menu",
        new_name="list",
    )
    assert renamed.choices.pin_locks == {"stick:slew:x": "8", "button:list": "6"}
    assert renamed.brief.key_scheme.direct == ("button:list", "pad:left pad:up")
    assert renamed.brief.chords.groups == (("button:list", "stick:slew:press"),)
    gone = edit(renamed, kind="remove-control", name="slew")
    assert gone.choices.pin_locks == {"button:list": "6"}
    assert gone.brief.chords.groups == (("button:list",),)


def test_locks_of_signals_that_a_scheme_drops_are_dropped(handset: Design) -> None:
    design = handset.model_copy(
        update={"choices": Choices(pin_locks={"button:menu": "6", "screen:clock": "26"})}
    )
    assert edit(design, kind="set-scheme", scheme="diode matrix").choices.pin_locks == {
        "screen:clock": "26"
    }


def test_the_device_as_a_whole(handset: Design) -> None:
    assert edit(handset, kind="set-role", role="stand-alone").brief.role == "stand-alone"
    assert edit(handset, kind="set-analogue", by="multiplexer").brief.analogue_by == "multiplexer"
    parallel = edit(
        handset, kind="set-screen", part="screen-320x240-parallel", bus="parallel colour"
    )
    assert parallel.brief.screen is not None
    assert parallel.brief.screen.bus == "parallel colour"
    bits = edit(parallel, kind="set-screen-bits", bits=12)
    assert len(needs_of(bits.brief)) - len(needs_of(parallel.brief)) == 6
    assert (
        edit(handset, kind="set-screen-wish", serial_mhz=24, wanted_rows=4).brief.screen.serial_mhz
        == 24
    )  # type: ignore[union-attr]
    card = edit(handset, kind="add-link", link={"kind": "memory-card", "name": "card"})
    assert len(needs_of(card.brief)) - len(needs_of(handset.brief)) == 5
    assert edit(card, kind="remove-link", name="card").brief == handset.brief
    sensed = edit(handset, kind="set-sensors", sensors=[{"name": "tilt", "interrupt": True}])
    assert {n.signal for n in needs_of(sensed.brief)} - {
        n.signal for n in needs_of(handset.brief)
    } == {
        "bus:clock",
        "bus:data",
        "sensor:tilt:interrupt",
    }
    assert edit(handset, kind="set-battery-sense", sense=False).brief.power.sense is False  # type: ignore[union-attr]
    clocks = edit(handset, kind="set-clocks", crystal=True, clock_crystal=True)
    assert len(needs_of(clocks.brief)) - len(needs_of(handset.brief)) == 4
    lights = edit(
        edit(handset, kind="set-extra", extra="light_matrix", present=True),
        kind="set-lights",
        rows=6,
        columns=5,
    )
    assert len(needs_of(lights.brief)) - len(needs_of(handset.brief)) == 11
    assert edit(handset, kind="set-extra", extra="buzzer", present=False).brief.buzzer is None
    assert (
        edit(
            handset, kind="set-power", power={"kind": "coin-cell", "x_mm": 75, "y_mm": 28}
        ).brief.power.kind
        == "coin-cell"
    )
    assert len(edit(handset, kind="add-corner-holes").brief.fixing_holes) == 4


def test_an_existing_shell_keeps_outline_and_holes(handset: Design) -> None:
    kept = edit(handset, kind="set-shell", shell={"kind": "existing", "name": "old handle"})
    with pytest.raises(EditRefused, match="existing shell"):
        edit(
            kept,
            kind="set-outline",
            outline={"kind": "rounded-rectangle", "width_mm": 140, "height_mm": 70},
        )
    with pytest.raises(EditRefused, match="existing shell"):
        edit(kept, kind="move-thing", thing="hole:post south west", x_mm=9, y_mm=9)
    wide = {"kind": "rounded-rectangle", "width_mm": 160, "height_mm": 72, "corner_mm": 5}
    assert (
        edit(handset, kind="set-outline", outline=wide).brief.outline.model_dump()["width_mm"]
        == 160
    )


@pytest.mark.parametrize(
    ("fields", "said"),
    [
        (
            {
                "kind": "change-control",
                "name": "menu",
                "control": {"kind": "stick", "name": "menu", "x_mm": 64, "y_mm": 12},
            },
            "is a button",
        ),
        (
            {"kind": "set-scheme", "scheme": {"name": "mixed", "direct": ["button:nobody"]}},
            "does not have",
        ),
        (
            {"kind": "set-chords", "chords": {"rule": "own", "groups": [["button:nobody"]]}},
            "does not have",
        ),
        ({"kind": "set-sensors", "sensors": [{"name": "a"}, {"name": "b"}]}, "0x68 is taken"),
        ({"kind": "set-screen-bits", "bits": 7}, "colour_bits"),
        ({"kind": "add-link", "link": {"kind": "usb-device", "name": "usb"}}, "already"),
        ({"kind": "set-lights", "count": -1}, None),
    ],
)
def test_refused_edits_say_why(
    handset: Design, fields: dict[str, object], said: str | None
) -> None:
    if said is None:
        assert edit(handset, **fields).brief == handset.brief
        return
    with pytest.raises(EditRefused) as caught:
        edit(handset, **fields)
    assert said in caught.value.why
    assert caught.value.way_out


def test_an_expander_and_a_sensor_of_one_address_are_refused(handset: Design) -> None:
    sensed = edit(handset, kind="set-sensors", sensors=[{"name": "tilt", "address": 0x20}])
    with pytest.raises(EditRefused, match="0x20 is taken"):
        edit(sensed, kind="set-scheme", scheme="expander 16")


def test_unknown_schemes_are_no_edit() -> None:
    with pytest.raises(ValidationError):
        EDITS.validate_python({"kind": "set-scheme", "scheme": "telepathy"})


def test_pins_are_solved_again_for_the_placed_board(finished: Design, library: Library) -> None:
    """Targets are true pads of the placed board; what the brief moves afterwards is aimed at its new place again."""
    targets = placed_targets(finished, library)
    assert set(targets) == {n.signal for n in needs_of(finished.brief)}
    pads = {middle_of(p.shape): p.net for p in board_view(finished, library).pads}
    assert all(pads[targets[n.signal]] == n.net for n in needs_of(finished.brief))
    aimed = edit(finished, kind="take-placed-targets", targets={**targets, "nobody": (0, 0)})
    assert aimed.choices.pin_targets == targets
    before, after = pin_problem(finished, library), pin_problem(aimed, library)
    assert next(n for n in before.needs if n.signal == "buzzer").target is None
    assert next(n for n in after.needs if n.signal == "buzzer").target == targets["buzzer"]
    assert "pins" in stale_slices(aimed)
    moved = edit(aimed, kind="move-thing", thing="button:dome", x_mm=24, y_mm=7)
    assert set(targets) - set(moved.choices.pin_targets) == {"button:dome"}
    assert placed_targets(Design(brief=finished.brief), library) == {}


def test_every_preset_makes_sense_and_fits_its_chip(library: Library) -> None:
    found = presets()
    assert len(found) == 5
    for preset in found:
        assert brief_faults(preset.brief, library) == [], preset.id
        assert verdict_of(Design(brief=preset.brief), library) is None, preset.id
    remote = bring_up_to_date(Design(brief=found[0].brief), library)
    assert release(remote, library).ready


def test_reach_grows_with_the_hand(handset: Design) -> None:
    arcs = reach_arcs(handset.brief)
    far = {arc.hand: arc.far_mm for arc in arcs}
    assert far["small"] < far["medium"] < far["large"]
    # 0.32 of a hand of 189 mm (from memory): 60 mm
    assert far["medium"] == pytest.approx(60.48)
    assert len(arcs) == 2 * len(HAND_MM)
    assert set(out_of_reach(handset.brief, "large")) <= set(out_of_reach(handset.brief, "small"))
