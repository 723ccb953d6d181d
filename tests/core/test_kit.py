"""The kit, the drawers and the wires: what a purchaser can buy without asking."""

import pytest

from loquet.core.buying.kit import kit_of
from loquet.core.design import Design, slice_of
from loquet.core.drawers.lines import part_lines, spares
from loquet.core.edits import EDITS, EditRefused, apply
from loquet.core.library import Library
from loquet.core.parts.wire import wire, wire_for
from loquet.core.pipeline import run_stage
from loquet.demo.scenario import demo_brief
from tests.making import Plain, device, thing, varied


def counted(library: Library, *things: Plain, quantity: int = 3) -> dict[str, int]:
    design = Design(brief=device(*things, quantity=quantity))
    return {
        line.what: line.count for line in kit_of(design, library).lines if line.group != "making"
    }


@pytest.mark.parametrize(
    ("given", "wanted"),
    [
        ([thing("cells", "cells", size="AA", count=3)], {"AA cell, alkaline, 1.5 V": 9}),
        ([thing("coin-cell", "cell")], {"coin cell 2032, lithium, 3 V": 3}),
        (
            [thing("lithium-cell", "cell", capacity_mah=500)],
            {
                "lithium cell, one cell, 500 mAh, with its own protection": 3,
                "lead with a plug half for 2 pins at 2.0 mm (sockets, keyed), plus at pin 1": 3,
            },
        ),
        (
            [thing("series-pack", "pack", cells=3)],
            {
                "lithium pack, 3 cells in series, 2000 mAh, with its own protection": 3,
                "lead with a plug half for 2 pins at 2.5 mm (sockets, keyed), plus at pin 1": 3,
                "balancing charger for 3 cells in series": 3,
            },
        ),
        (
            [thing("speaker", "voice")],
            {
                "speaker 8 Ω, 1 W, 20 mm": 3,
                "lead with a plug half for 2 pins at 2.0 mm (sockets, keyed), to the speaker": 3,
            },
        ),
        (
            [thing("hole", "post a", screw="M2.5"), thing("hole", "post b", screw="M2.5")],
            {"screw M2.5, pan head, as long as the Stack says once the board is placed": 6},
        ),
        (
            [thing("button", "a", part="button-low-key-linear"), thing("button", "b")],
            {"key cap for a low-profile key switch": 3},
        ),
        (
            [thing("button", "a", part="button-carbon-fingers")],
            {"carbon pill 8 mm in its rubber dome": 3},
        ),
        (
            [thing("button", "a", part="button-carbon-fingers-12")],
            {"carbon pill 12 mm in its rubber dome": 3},
        ),
        ([thing("stick", "a")], {"cap for a resistive stick": 3}),
        (
            [thing("flat-cable", "flat", lines=4, pitch_mm=1.0, contact="top")],
            {"flat cable, 6 ways, 1 mm, contacts on the top side at this end": 3},
        ),
        (
            [thing("barrel-jack", "jack", adapter_v=9.0)],
            {
                "mains adapter 9 V, 1 A, plug 5.5 / 2.1 mm, plus inside, "
                "approved where it is used": 3
            },
        ),
        ([thing("programming", "port")], {"lead for a probe, 5 sockets at 2.54 mm": 1}),
    ],
)
def test_what_a_thing_brings_with_it(
    given: list[Plain], wanted: dict[str, int], library: Library
) -> None:
    assert counted(library, *given) == wanted


def test_halves_on_a_cable_need_it_and_halves_that_are_plugged_need_sockets(
    library: Library,
) -> None:
    def cables(joined: str) -> list[tuple[str, int]]:
        both = {name: {"joined": joined} for name in ("link out", "link in")}
        kit = kit_of(Design(brief=varied("slit-halves", things=both)), library)
        return [(row.what, row.count) for row in kit.lines if "link" in row.why]

    assert cables("cable") == [("cable with sockets at both ends for: pin header", 4)]
    sockets = "row of sockets in place of the posts at link in: pin header, sockets"
    assert cables("plugged") == [(sockets, 4)]


def test_a_line_of_the_kit_is_marked_and_stays_so(library: Library) -> None:
    design = Design(brief=demo_brief("dusk-remote"))
    cells = "AAA cell, alkaline, 1.5 V"

    def state(now: Design) -> str:
        return next(line.state for line in kit_of(now, library).lines if line.what == cells)

    def marked(now: Design, to: str) -> Design:
        return apply(now, EDITS.validate_python({"kind": "mark-kit", "what": cells, "state": to}))

    bought = marked(design, "bought")
    assert [state(d) for d in (design, bought, marked(bought, "in the drawer"))] == [
        *("missing", "bought", "in the drawer")
    ]
    back = marked(bought, "missing")
    assert (state(back), back.choices.kit) == ("missing", {})
    full = design.model_copy(
        update={
            "choices": design.choices.model_copy(
                update={"kit": {f"thing {i}": "bought" for i in range(200)}}
            )
        }
    )
    with pytest.raises(EditRefused, match="More than 200"):
        marked(full, "bought")


def test_a_line_of_the_drawers_has_all_that_a_purchaser_needs(library: Library) -> None:
    brief = demo_brief("dusk-remote")
    design = run_stage(run_stage(Design(brief=brief), "pins", library), "circuit", library)
    lines = {(r.part, r.value): r for r in part_lines(slice_of(design.circuit), library, 10)}
    # six supply pins and reset of the chip: 100 nF, six a device; sixty and a tenth more
    nano = lines["capacitor-1608", "100 nF"]
    assert (nano.count, nano.spares, nano.to_buy) == (len(nano.refs), 6, 10 * len(nano.refs) + 6)
    assert nano.size == "inch 0603 / metric 1608 (1.6 x 0.80 mm)"
    assert nano.what == "Ceramic capacitor X7R, 10 %, 16 V"
    transistor = lines["transistor-npn-sot23", ""]
    assert transistor.pins == (("1", "base"), ("2", "emitter"), ("3", "collector"))
    holder = lines["holder-aaa-surface", ""]
    assert (holder.count, holder.spares, holder.to_buy) == (2, 1, 21)
    chip = lines["chip:stm32l051c8t6", "stm32l051c8t6"]
    assert (chip.known, chip.price_cents, len(chip.lands)) == ("data set", 306.0, 48)
    assert not any(line.part == "test-point-round" for line in lines.values())


def test_spares_by_size() -> None:
    """A tenth and at least five of small ones, a fiftieth and at least one of others: common
    practice, no source.
    """
    assert [spares(n, True) for n in (1, 50, 51, 200)] == [5, 5, 6, 20]
    assert [spares(n, False) for n in (1, 50, 51, 200)] == [1, 1, 2, 4]


def test_a_part_says_its_own_spares() -> None:
    """Five in a hundred and at least two; none at all; a share alone keeps the usual least."""
    own = {"spare_share": 0.05, "spare_least": 2}
    assert [spares(n, True, own) for n in (1, 40, 41, 200)] == [2, 2, 3, 10]
    assert spares(200, True, {"spare_share": 0, "spare_least": 0}) == 0
    assert [spares(n, False, {"spare_share": 0.5}) for n in (1, 10)] == [1, 5]


def test_wire_gauges_of_the_table() -> None:
    """ASTM B258: 22 AWG 0.644 mm, 24 AWG 0.511 mm, 30 AWG 0.255 mm; 53 and 338 mΩ/m at 20 °C
    (handbook, from memory: 52.96 and 338.6).
    """
    assert [round(wire(n).diameter_mm, 3) for n in (22, 24, 30)] == [0.644, 0.511, 0.255]
    assert wire(22).mohm_m == pytest.approx(52.96, rel=0.01)
    assert wire(30).mohm_m == pytest.approx(338.6, rel=0.01)


def test_the_thinnest_wire_that_carries_a_current() -> None:
    """30 AWG is 0.0509 mm², 255 mA at 5 A/mm². 1 A needs 0.2 mm²: 24 AWG; over half a metre
    50 mV need 22 AWG (53 mV: not enough) and 20.
    """
    assert wire_for(100, 150).gauge == 30
    assert wire_for(300, 150).gauge == 28
    assert wire_for(1000, 150).gauge == 24
    assert wire_for(1000, 500).gauge == 20
    assert wire_for(90_000, 500).gauge == 18


def test_screws_and_caps_come_from_the_stack(finished: Design, library: Library) -> None:
    """Four M2 holes and six keys a remote, ten remotes; why each is wanted is said once."""
    lines = {r.what: r for r in kit_of(finished, library).lines if r.group == "mechanics"}
    (screw,) = (r for what, r in lines.items() if what.startswith("screw M2 x "))
    assert screw.count == 4 * finished.brief.quantity
    (cap,) = (r for what, r in lines.items() if what.startswith("cap of "))
    assert (cap.count, cap.why) == (6 * finished.brief.quantity, "controls, printed or bought")
