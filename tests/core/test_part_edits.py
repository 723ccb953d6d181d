"""Edits of parts on the board: one place for each, rows, halves, turns, seats that are kept."""

from loquet.core.design import Design, slice_of
from loquet.core.freshness import stale_slices
from tests.editing import edit, refused, spot


def test_a_part_of_a_thing_has_one_place(finished: Design) -> None:
    """A button moved on the board is moved in the brief; a part that Loquet places keeps its seat
    as a choice.
    """
    moved = edit(finished, kind="seat-part", role="button:dome", x_mm=27, y_mm=8, turn_deg=0)
    assert spot(moved, "dome") == (27, 8)
    assert moved.choices.part_seats == {}
    placed = next(p for p in slice_of(moved.placement).parts if p.role == "button:dome")
    assert (placed.x_nm, placed.y_nm) == (27_000_000, 8_000_000)
    seated = edit(finished, kind="seat-part", role="buzzer", x_mm=26, y_mm=18, turn_deg=90)
    placed = next(p for p in slice_of(seated.placement).parts if p.role == "buzzer")
    assert (placed.x_nm, placed.turn_deg, placed.locked) == (26_000_000, 90, True)
    assert stale_slices(seated) == ("routing", "pour")
    assert stale_slices(edit(seated, kind="release-part", role="buzzer")) == (
        "placement",
        "routing",
        "pour",
    )
    assert stale_slices(edit(moved, kind="seat-part", role="buzzer", x_mm=26, y_mm=18))[0] == "pins"
    assert edit(seated, kind="release-part", role="buzzer").choices.part_seats == {}


def test_parts_are_arranged_on_the_board(finished: Design) -> None:
    """The first gives line and turn; the outer two stay when parts are spread; two change places
    and keep their turns; the placement fits afterwards.
    """
    roles = ("decoupling 1", "reset filter", "boot strap")
    design = finished
    for role, x, y, turn in zip(roles, (20, 26, 29), (20, 21, 24), (0, 90, 180), strict=True):
        design = edit(design, kind="seat-part", role=role, x_mm=x, y_mm=y, turn_deg=turn)

    def after(how: str, *chosen: str) -> list[tuple[float, float, int]]:
        made = edit(design, kind="arrange-parts", roles=chosen or roles, how=how)
        assert stale_slices(made) == ("routing", "pour")
        parts = {p.role: p for p in slice_of(made.placement).parts}
        return [(p.x_nm / 1e6, p.y_nm / 1e6, p.turn_deg) for p in map(parts.__getitem__, roles)]

    assert after("row") == [(20, 20, 0), (26, 20, 90), (29, 20, 180)]
    assert after("column") == [(20, 20, 0), (20, 21, 90), (20, 24, 180)]
    assert after("spread across") == [(20, 20, 0), (24.5, 21, 90), (29, 24, 180)]
    assert after("spread up") == [(20, 20, 0), (26, 22, 90), (29, 24, 180)]
    assert after("turn alike", *reversed(roles)) == [(20, 20, 180), (26, 21, 180), (29, 24, 180)]
    assert after("swap", *roles[:2]) == [(26, 21, 0), (20, 20, 90), (29, 24, 180)]
    with refused("Two parts"):
        edit(design, kind="arrange-parts", roles=roles, how="swap")
    with refused("no part 'ghost'"):
        edit(design, kind="arrange-parts", roles=("boot strap", "ghost"), how="row")


def parts_at(design: Design, *roles: str) -> list[tuple[float, float, int]]:
    """Where parts lie, in mm and degrees; all that was placed fits."""
    assert stale_slices(design) == ("routing", "pour")
    parts = {p.role: p for p in slice_of(design.placement).parts}
    return [(p.x_nm / 1e6, p.y_nm / 1e6, p.turn_deg) for p in map(parts.__getitem__, roles)]


def test_parts_are_put_in_rows(finished: Design) -> None:
    """Rows of two at 3 by -2 mm from where the first one lies; one column; one row."""
    roles = ("decoupling 1", "boot strap", "reset filter")
    design = edit(finished, kind="seat-part", role=roles[0], x_mm=20, y_mm=20, turn_deg=90)
    rows = {"kind": "array-parts", "roles": roles, "columns": 2, "step_x_mm": 3, "step_y_mm": -2}
    column = {**rows, "columns": 1, "step_x_mm": 0, "step_y_mm": 2.5}
    row = {**rows, "columns": 3, "step_y_mm": 0}
    turned = [(20, 20, 90), (23, 20, 90), (20, 18, 90)]
    assert parts_at(edit(design, **rows), *roles) == turned
    assert parts_at(edit(design, **column), *roles) == [(20, y, 90) for y in (20, 22.5, 25)]
    assert parts_at(edit(design, **row), *roles) == [(x, 20, 90) for x in (20, 23, 26)]
    for piled in ({**rows, "step_x_mm": 0}, {**rows, "step_y_mm": 0}, {**column, "step_y_mm": 0}):
        with refused("on top of each other"):
            edit(design, **piled)
    with refused("at 620, 20 mm, beyond any board"):
        edit(design, **{**row, "columns": 4, "step_x_mm": 200, "roles": (*roles, "chip")})
    with refused("'cell' would lie beyond any board"):
        edit(design, kind="seat-part", role="cell:1", x_mm=27, y_mm=-10)


def test_a_half_is_mirrored(finished: Design) -> None:
    """About the middle at 32 mm: x' = 64 - x; capacitors go to capacitors, the nearest one; upright
    ones keep the turn of their leader, 30 degrees become 330.
    """
    spots = {
        "decoupling 1": (20, 20, 90),
        "decoupling 9": (26, 21, 0),
        "boot strap": (22, 24, 30),
        "decoupling 24": (36, 22, 0),
        "decoupling 36": (45, 20, 0),
        "screen pull-up clock": (50, 30, 0),
    }
    design = finished
    for role, (x, y, turn) in spots.items():
        design = edit(design, kind="seat-part", role=role, x_mm=x, y_mm=y, turn_deg=turn)
    roles = tuple(spots)
    mirrored = [(38, 21, 0), (44, 20, 90), (42, 24, 330)]
    made = edit(design, kind="mirror-parts", roles=roles)
    assert parts_at(made, *roles) == [*list(spots.values())[:3], *mirrored]
    led = edit(design, kind="mirror-parts", roles=("decoupling 36", "decoupling 1"))
    assert parts_at(led, "decoupling 1", "decoupling 36") == [(19, 20, 0), (45, 20, 0)]
    with refused("No part like R1 is picked on the other half"):
        edit(design, kind="mirror-parts", roles=roles[2:5])
    with refused("C4 has no part like it to follow"):
        edit(design, kind="mirror-parts", roles=("decoupling 9", "decoupling 24", "decoupling 36"))


def test_a_seat_is_kept_until_its_part_is_gone(finished: Design) -> None:
    """What a person seated stays through other edits, in millimetres as it was given, and goes with
    the thing.
    """
    seated = edit(
        finished, kind="seat-part", role="decoupling 1", x_mm=30.1236, y_mm=20, turn_deg=450
    )
    kept = seated.choices.part_seats["decoupling 1"]
    assert (kept.x_mm, kept.y_mm, kept.turn_deg, kept.far) == (30.124, 20.0, 90, False)
    moved = edit(seated, kind="move-thing", name="dome", x_mm=33, y_mm=12)
    assert set(moved.choices.part_seats) == {"decoupling 1"}
    chip = edit(moved, kind="seat-part", role="chip", x_mm=31, y_mm=24)
    gone = edit(chip, kind="remove-things", names=["chip"])
    assert "chip" not in gone.choices.part_seats
    assert "decoupling 1" in gone.choices.part_seats


def test_a_part_that_is_turned_twice_turns_its_thing_as_far(finished: Design) -> None:
    """From 0 to 90 degrees and on to 180, and moved by 1 and by 2 mm."""
    where = next(p for p in slice_of(finished.placement).parts if p.role == "button:dome")
    x, y = where.x_nm / 1e6, where.y_nm / 1e6
    first, thing = spot(finished, "dome"), finished.brief.thing("dome")
    assert thing.place is not None
    once = edit(finished, kind="seat-part", role="button:dome", x_mm=x + 1, y_mm=y, turn_deg=90)
    twice = edit(once, kind="seat-part", role="button:dome", x_mm=x + 1, y_mm=y + 2, turn_deg=180)
    place = twice.brief.thing("dome").place
    assert place is not None
    assert (place.x_mm, place.y_mm) == (first[0] + 1, first[1] + 2)
    assert place.turn_deg == (thing.place.turn_deg + 180 - where.turn_deg) % 360
