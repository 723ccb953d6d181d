import pytest
from pydantic import ValidationError

from loquet.core.design import Design
from loquet.core.edits import EDITS, EditRefused, apply
from loquet.core.pipeline import stale_slices


def edit(design: Design, **fields: object) -> Design:
    return apply(design, EDITS.validate_python(fields))


def test_a_button_moves_and_makes_the_rest_stale(finished: Design) -> None:
    moved = edit(finished, kind="move-thing", thing="button:dome", x_mm=25.5, y_mm=7.5)
    assert (moved.brief.controls[4].x_mm, moved.brief.controls[4].y_mm) == (25.5, 7.5)
    assert "pins" in stale_slices(moved)
    assert finished.brief.controls[4].x_mm == 26


@pytest.mark.parametrize(
    ("thing", "field"),
    [
        ("screen", "screen"),
        ("light", "light"),
        ("power", "power"),
        ("power_switch", "power_switch"),
        ("programming_port", "programming_port"),
    ],
)
def test_other_things_move_too(finished: Design, thing: str, field: str) -> None:
    moved = edit(finished, kind="move-thing", thing=thing, x_mm=31.0, y_mm=20.0)
    assert getattr(moved.brief, field).x_mm == 31.0


def test_a_hole_moves(finished: Design) -> None:
    moved = edit(finished, kind="move-thing", thing="hole:post south west", x_mm=4.0, y_mm=4.0)
    assert moved.brief.fixing_holes[0].x_mm == 4.0


def test_buttons_come_and_go(finished: Design) -> None:
    more = edit(
        finished,
        kind="add-control",
        control={"kind": "button", "name": "fan", "x_mm": 45, "y_mm": 30},
    )
    assert [c.name for c in more.brief.controls][-1] == "fan"
    assert edit(more, kind="remove-control", name="fan").brief == finished.brief


def test_a_lock_follows_a_renamed_button_and_goes_with_a_removed_one(finished: Design) -> None:
    locked = edit(finished, kind="lock-pin", signal="button:dome", pin="29")
    renamed = edit(locked, kind="rename-control", name="dome", new_name="roof")
    assert renamed.choices.pin_locks == {"button:roof": "29"}
    assert edit(renamed, kind="remove-control", name="roof").choices.pin_locks == {}
    assert edit(locked, kind="release-pin", signal="button:dome").choices.pin_locks == {}


def test_a_new_chip_drops_the_locks(finished: Design) -> None:
    locked = edit(finished, kind="lock-pin", signal="button:dome", pin="29")
    assert edit(locked, kind="set-chip", part="stm32g031k8t6").choices.pin_locks == {}


def test_a_part_is_seated_by_hand_and_released(finished: Design) -> None:
    seated = edit(finished, kind="seat-part", role="buzzer", x_mm=26, y_mm=18, turn_deg=90)
    assert seated.placement is not None
    placed = next(p for p in seated.placement.value.parts if p.role == "buzzer")
    assert (placed.x_nm, placed.turn_deg, placed.locked) == (26_000_000, 90, True)
    assert stale_slices(seated) == ("placement", "routing", "pour")
    assert edit(seated, kind="release-part", role="buzzer").choices.part_seats == {}


def test_extras_come_and_go(finished: Design) -> None:
    without = edit(finished, kind="set-extra", extra="buzzer", present=False)
    assert without.brief.buzzer is None
    assert edit(without, kind="set-extra", extra="buzzer", present=True).brief.buzzer is not None


def test_simple_settings(finished: Design) -> None:
    assert edit(finished, kind="set-quantity", quantity=7).brief.quantity == 7
    assert (
        edit(finished, kind="set-reading", reading="pull-down-resistors").brief.button_reading
        == "pull-down-resistors"
    )
    chosen = edit(
        finished,
        kind="choose-house",
        house="saltmarsh",
        finish="gold",
        colour="blue",
        thickness_um=1000,
        shipping="courier",
    )
    assert chosen.choices.house == "saltmarsh"
    assert (
        edit(chosen, kind="replace-brief", brief=finished.brief.model_dump()).brief
        == finished.brief
    )


@pytest.mark.parametrize(
    ("fields", "reason"),
    [
        (
            {"kind": "move-thing", "thing": "button:dome", "x_mm": 200, "y_mm": 7},
            "outside the board",
        ),
        ({"kind": "move-thing", "thing": "button:ghost", "x_mm": 20, "y_mm": 7}, "no control"),
        ({"kind": "move-thing", "thing": "sofa", "x_mm": 20, "y_mm": 7}, "no 'sofa'"),
        ({"kind": "move-thing", "thing": "button:dome", "x_mm": 38, "y_mm": 7}, "overlaps"),
        (
            {
                "kind": "add-control",
                "control": {"kind": "button", "name": "dome", "x_mm": 45, "y_mm": 30},
            },
            "stands twice",
        ),
        ({"kind": "lock-pin", "signal": "button:ghost", "pin": "3"}, "no signal"),
        ({"kind": "seat-part", "role": "ghost", "x_mm": 3, "y_mm": 3}, "no part"),
    ],
)
def test_impossible_edits_say_why(finished: Design, fields: dict[str, object], reason: str) -> None:
    with pytest.raises(EditRefused) as caught:
        edit(finished, **fields)
    assert reason in caught.value.why
    assert caught.value.way_out


def test_two_signals_cannot_be_locked_to_one_pin(finished: Design) -> None:
    locked = edit(finished, kind="lock-pin", signal="button:dome", pin="29")
    with pytest.raises(EditRefused, match="Pin 29 is locked"):
        edit(locked, kind="lock-pin", signal="light", pin="29")


def test_the_last_button_stays(finished: Design) -> None:
    one = finished.model_copy(
        update={
            "brief": finished.brief.model_copy(update={"controls": finished.brief.controls[:1]})
        }
    )
    with pytest.raises(EditRefused, match="last control"):
        edit(one, kind="remove-control", name="brighter")


def test_unknown_edits_are_refused() -> None:
    with pytest.raises(ValidationError):
        EDITS.validate_python({"kind": "drop-table"})
