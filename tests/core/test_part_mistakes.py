"""K14, K15, K17 to K20, K26, K28 and K42 of docs/mistakes.md: for each, designs that have the
mistake with their finding, and the same without it, which have none.
"""

from dataclasses import replace
from typing import Any

import pytest
from shapely.ops import unary_union

from loquet.core.checks.catalogue import RULES
from loquet.core.checks.rule import Subject, findings_of
from loquet.core.circuit import Circuit
from loquet.core.circuit.assembling import assemble
from loquet.core.design import Bought, Choices, Design, slice_of
from loquet.core.drawers.substitutes import drop_ins
from loquet.core.edits import EDITS, EditRefused, apply
from loquet.core.geometry import polygon_of
from loquet.core.library import Library
from loquet.core.parts.mating import End, Half, faults_between
from loquet.core.pipeline import board_view, bring_up_to_date
from loquet.core.reviewing import review
from loquet.demo.scenario import DEMO_BRIEFS, demo_brief
from loquet.standins.part_supplier import offers_of
from tests.core.benches import bench_for
from tests.making import Plain, device, thing

CHIP = thing("chip", "chip", part="stm32l433rct6")
LITHIUM = thing("lithium-cell", "cell", 60, 30, far=True)
LEAD: dict[str, Any] = {"family": "plug for wires", "pitch_mm": 2.0, "ways": 2, "gender": "sockets"}


def found(rule: str, seen: Subject) -> list[str]:
    one = next(r for r in RULES if r.id == rule)
    return [f.sentence for f in findings_of([(one, one.run(seen))])]


def with_half(
    library: Library, rule: str, connector: str, *things: Plain, **half: Any
) -> list[str]:
    """What a rule says of a device for one of whose connectors a half was named."""
    brief = device(CHIP, *things)
    choices = Choices(halves={connector: Half(**half)})
    circuit = assemble(bench_for(brief))
    assert connector in {c.role for c in circuit.components}
    return found(rule, Subject(brief, choices, library.house("millrace"), library, circuit=circuit))


@pytest.mark.parametrize(
    ("wrong", "why"),
    [
        (
            {"family": "square posts"},
            "square posts and plug for wires are two families, whatever their pitch",
        ),
        ({"pitch_mm": 2.5}, "its pitch is 2.5 mm, and the connector's 2 mm"),
        ({"ways": 3}, "it has 3 ways, and the connector 2"),
        ({"gender": "pins"}, "it has pins where sockets are needed"),
    ],
)
def test_k14_a_half_that_does_not_mate(library: Library, wrong: dict[str, Any], why: str) -> None:
    said = with_half(library, "mating", "cell:plug", LITHIUM, **(LEAD | wrong))
    assert said == [f"What you have for J1 (Plug of cell) does not mate: {why}."]
    assert with_half(library, "mating", "cell:plug", LITHIUM, **LEAD) == []


def test_k14_a_flat_cable_whose_contacts_face_the_wrong_side(library: Library) -> None:
    cable = thing("flat-cable", "it", lines=4, pitch_mm=0.5, contact="top")
    half = {"family": "flat cable", "pitch_mm": 0.5, "ways": 6, "gender": "cable end"}
    feeds = thing("leads", "leads")
    assert with_half(library, "mating", "cable:it", feeds, cable, **half, contact="top") == []
    for side, words in (
        ("bottom", "its contacts face the bottom"),
        ("", "nobody knows which side its contacts face"),
    ):
        said = with_half(library, "mating", "cable:it", feeds, cable, **half, contact=side)
        assert said == [
            (
                f"What you have for J2 (Flat cable) does not mate: {words}, and the connector "
                "touches the top."
            )
        ]


def test_k15_a_lead_with_the_other_polarity(library: Library) -> None:
    said = with_half(library, "mating", "cell:plug", LITHIUM, **LEAD, turned=True)
    assert said == [
        (
            "What you have for J1 (Plug of cell) does not mate: its way 1 meets way 2: plus and "
            "minus, or all lines, change places."
        )
    ]
    pack = thing("series-pack", "pack")
    assert (
        len(with_half(library, "mating", "pack", pack, **(LEAD | {"pitch_mm": 2.5}), turned=True))
        == 1
    )
    assert with_half(library, "mating", "pack", pack, **(LEAD | {"pitch_mm": 2.5})) == []


def test_k17_a_ribbon_that_is_opened_too_often(library: Library) -> None:
    cable, feeds = thing("flat-cable", "it", lines=4, pitch_mm=0.5), thing("leads", "leads")
    half = {"family": "flat cable", "pitch_mm": 0.5, "ways": 6, "gender": "cable end"}
    assert with_half(library, "mating-cycles", "cable:it", feeds, cable, **half, opened=50) == [
        "J2 (Flat cable) will be opened 50 times, and is made for 20 (usual rating, from memory)."
    ]
    assert len(with_half(library, "mating-cycles", "cell:plug", LITHIUM, **LEAD, opened=31)) == 1
    assert with_half(library, "mating-cycles", "cell:plug", LITHIUM, **LEAD, opened=30) == []
    usb = thing("usb-device", "usb")
    socket = {"family": "USB-C", "pitch_mm": 0, "ways": 1, "gender": "pins"}
    assert (
        with_half(library, "mating-cycles", "link:usb", usb, LITHIUM, **socket, opened=2_000) == []
    )


def test_what_mates_is_said_in_words_and_is_what_mates(library: Library) -> None:
    assert library.roles.end(library.parts["resistor-1608"]) is None
    assert library.roles.end(library.parts["terminals-3"]) is None  # bare wires go in
    plug = library.roles.end(library.parts["wire-plug-2.0-2"])
    assert plug is not None
    assert plug.other_half == "plug for wires at 2 mm, 2 ways, sockets, keyed"
    for part in ("posts-6", "flat-cable-0.5-8-bottom", "usb-c-16", "stick-port-9"):
        end = library.roles.end(library.parts[part])
        assert isinstance(end, End)
        other = (
            "sockets"
            if end.gender == "pins"
            else "cable end"
            if end.gender == "contacts"
            else "pins"
        )
        half = Half(
            family=end.family,
            pitch_mm=end.pitch_mm,
            ways=end.ways,
            gender=other,
            contact=end.contact,
        )
        assert faults_between(end, half) == []


def test_a_half_is_kept_and_forgotten() -> None:
    design = Design(brief=device(CHIP, LITHIUM))
    edit = {"kind": "say-half", "connector": "cell:plug", "half": LEAD}
    named = apply(design, EDITS.validate_python(edit))
    assert named.choices.halves == {"cell:plug": Half(**LEAD)}
    assert apply(named, EDITS.validate_python(edit | {"half": None})).choices.halves == {}
    full = design.model_copy(
        update={"choices": Choices(halves={str(i): Half(**LEAD) for i in range(100)})}
    )
    with pytest.raises(EditRefused, match="More than 100"):
        apply(full, EDITS.validate_python(edit))


def test_k18_a_part_too_high_for_the_shell(library: Library) -> None:
    """The AAA holder is 12.5 mm high and lies on the far side of the Dusk remote; its buttons are
    on the near side.
    """
    design = bring_up_to_date(Design(brief=demo_brief("dusk-remote")), library, "placement")

    def said(**room: float) -> list[str]:
        edit = EDITS.validate_python({"kind": "set-room", "board": "main", **room})
        return [f.sentence for f in review(apply(design, edit), library) if f.rule == "room-above"]

    far = said(far_room_mm=12.0)
    assert len(far) == 2
    assert all("is 12.5 mm high, and there are 12.0 mm above the far side." in s for s in far)
    assert said(far_room_mm=12.5) == []
    near = said(near_room_mm=3.0, far_room_mm=20.0)
    assert near
    assert all("above the near side" in s for s in near)
    assert said() == []
    with pytest.raises(EditRefused, match="There is no board 'attic'"):
        apply(design, EDITS.validate_python({"kind": "set-room", "board": "attic"}))


def without(circuit: Circuit, *roles: str) -> Circuit:
    """A circuit without the components whose roles hold one of these words."""
    kept = tuple(c for c in circuit.components if not any(word in c.role for word in roles))
    return circuit.model_copy(update={"components": kept})


def test_k26_a_spike_that_no_capacitor_holds(library: Library) -> None:
    """C = I / (2 pi f U): a speaker and lights make steps of some 100 mA; 5 % of 3.3 V is 165 mV,
    so that 100 mA at 50 kHz want 1.9 µF.
    """
    lights = thing("light-chain", "lights", count=4)
    for more in ((lights,), (lights, thing("memory-card", "card"))):
        brief = device(CHIP, LITHIUM, *more)
        whole = assemble(bench_for(brief))
        house = library.house("millrace")
        assert found("bulk", Subject(brief, Choices(), house, library, circuit=whole)) == []
        bare = without(whole, "bulk", "output", "decoupling", "core", "reserve")
        said = found("bulk", Subject(brief, Choices(), house, library, circuit=bare))
        assert len(said) == 1
        assert said[0].startswith("A step of ")
        assert "wants " in said[0]


def test_k28_a_cell_that_nobody_measures(library: Library) -> None:
    """A cell behind a converter runs empty without a sign unless it is measured; of cells at the
    rail the firmware has to tell.
    """

    def said(*things: Plain) -> list[str]:
        brief = device(CHIP, *things)
        one = next(r for r in RULES if r.id == "companions")
        seen = Subject(brief, Choices(), library.house("millrace"), library)
        return [
            f.sentence for f in findings_of([(one, one.run(seen))]) if "low-battery" in f.sentence
        ]

    assert said(LITHIUM | {"sense": False}) == [
        "There is no low-battery sign: the cell is not measured."
    ]
    assert said(LITHIUM) == []
    assert said(thing("cells", "cell")) == ["There is no low-battery sign."]


@pytest.mark.parametrize(
    ("line", "made", "wanted"),
    [
        # five resistors of 10 kOhm a card for ten boards: 50, a tenth and at least five to spare
        ("resistor-1608, 10 kΩ", (thing("memory-card", "card"),), 70 + 7),
        # one stick for ten boards: ten and one
        ("stick-resistive-13", (thing("stick", "slew"),), 10 + 1),
    ],
)
def test_k19_too_few_to_lose_one(
    line: str, made: tuple[Plain, ...], wanted: int, library: Library
) -> None:
    brief = device(CHIP, thing("leads", "leads"), *made, quantity=10)
    circuit, house = assemble(bench_for(brief)), library.house("millrace")

    def said(pieces: int) -> list[str]:
        bought = {line: Bought(maker_part="as in the bag", pieces=pieces)}
        seen = Subject(brief, Choices(bought=bought), house, library, circuit=circuit)
        return found("too-few", seen)

    assert said(wanted) == said(0) == []
    (short,) = said(wanted - 1)
    assert f"{wanted - 1} of as in the bag ({line}) lie there, and {wanted} are wanted" in short


@pytest.mark.parametrize("name", [n for n in DEMO_BRIEFS if n != "ridge-handset"])
def test_the_examples_raise_no_false_alarm(name: str, library: Library) -> None:
    """Of what is found on the finished circuit: nothing. (The ridge handset has no circuit: its
    chip is too small, which it shows.)
    """
    design = bring_up_to_date(Design(brief=demo_brief(name)), library, "circuit")
    assert slice_of(design.circuit).misfits == ()
    quiet = {
        "open-pins",
        "bulk",
        "levels",
        "levels-up",
        "back-feed",
        "rail-source",
        "shut-down",
        "mating",
        "mating-cycles",
        "hand-changes",
        *("part-rating", "switch-over", "port-offer", "dark-lines", "too-few", "port-budget"),
    }
    assert [f.sentence for f in review(design, library) if f.rule in quiet] == []


def test_fingers_are_two_combs_that_never_touch(library: Library) -> None:
    """Fingers and gaps of 0.4 mm under a pill of 8 mm; the pads of a comb are one piece of
    copper.
    """
    for part in ("button-carbon-fingers", "button-carbon-fingers-5", "button-carbon-fingers-12"):
        combs = {
            number: unary_union(
                [polygon_of(p.shape) for p in library.pattern(part).pads if p.number == number]
            )
            for number in ("1", "4")
        }
        assert all(comb.geom_type == "Polygon" for comb in combs.values())
        assert combs["1"].distance(combs["4"]) == pytest.approx(400_000, abs=1_000)
    both = combs["1"].union(combs["4"])
    wide = both.bounds[2] - both.bounds[0]
    assert wide == pytest.approx(12e6, abs=1e3)


def test_k20_a_card_or_a_cell_of_another_brand(library: Library) -> None:
    design = Design(brief=device(CHIP, LITHIUM))
    row = {"maker_part": "Moor 16", "supplier": "market", "substitute": True}
    edit = {"kind": "name-bought", "line": "memory card", "bought": row}
    card = apply(design, EDITS.validate_python(edit))
    cell = apply(
        card,
        EDITS.validate_python(edit | {"line": "AAA cell", "bought": row | {"maker_part": "Fen A"}}),
    )

    def said(of: Design) -> list[str]:
        return [f.sentence for f in review(of, library) if f.rule == "substituted"]

    assert said(card) == ["Moor 16 was bought in place of memory card."]
    assert said(cell) == [
        "Fen A was bought in place of AAA cell.",
        "Moor 16 was bought in place of memory card.",
    ]
    asked = apply(design, EDITS.validate_python(edit | {"bought": row | {"substitute": False}}))
    assert said(asked) == []
    assert said(apply(card, EDITS.validate_python(edit | {"bought": None}))) == []


@pytest.mark.parametrize("wrong", [{"1": "SUPPLY", "9": "GROUND"}, {"A": "SUPPLY", "2": "GROUND"}])
def test_k42_pads_numbered_unlike_the_drawing(library: Library, wrong: dict[str, str]) -> None:
    """A capacitor has pads 1 and 2: a circuit that uses another one has no board."""
    design = bring_up_to_date(Design(brief=demo_brief("pocket-lamp")), library, "placement")

    def said(pads: dict[str, str] | None) -> list[str]:
        circuit = slice_of(design.circuit)
        components = tuple(
            c.model_copy(update={"pads": pads or c.pads}) if c.ref == "C1" else c
            for c in circuit.components
        )
        view = replace(
            board_view(design, library),
            circuit=circuit.model_copy(update={"components": components}),
        )
        one = next(r for r in RULES if r.id == "pad-agreement")
        seen = Subject(design.brief, Choices(), library.house("millrace"), library, view=view)
        return [f.sentence for f in findings_of([(one, one.run(seen))])]

    (sentence,) = said(wrong)
    assert sentence.startswith("C1 (")
    assert f"uses pad {'9' if '9' in wrong else 'A'}, which its pattern " in sentence
    assert said(None) == []


def test_drop_ins_have_the_same_pads_and_pins(library: Library) -> None:
    button = library.parts["button-6x6-surface"]
    found = drop_ins(button, library)
    assert "button-soft-rubber-6x6" in {p.id for p in found}
    for part in found:
        assert part.joined == button.joined
        assert library.pattern(part.id).pads == library.pattern(button.id).pads
    assert drop_ins(library.parts["regulator-linear-low"], library) == ()


def test_offers_have_breaks_least_counts_and_one_part_that_ran_out() -> None:
    first, second = offers_of("resistor-1608", 0.4)
    assert first.supplier != second.supplier
    assert all("simulated" in o.supplier for o in (first, second))
    assert (first.buys(3), first.buys(30)) == (10, 30)
    assert (
        first.each_cents(1) > first.each_cents(10) > first.each_cents(100) > first.each_cents(1000)
    )
    assert first.each_cents(99) == first.each_cents(10)
    assert [o.pieces for o in offers_of("button-6x6-surface", 14)] == [0, 0]
    assert all(o.days > 50 for o in offers_of("button-6x6-surface", 14))
    assert offers_of("stick-resistive-13", 90)[0].buys(1) == 1
