"""Laws of every circuit, on 500 random devices: no net ends at one pad, every pin accounted for, no
rail without a source, every pad on the pattern, every part with all that it needs.
"""

import random

import pytest

from loquet.core.brief import Brief, BriefError
from loquet.core.checks.rule import findings_of
from loquet.core.checks.rules import back_feed, open_pins, part_rating, put_in_wrong, rail_source
from loquet.core.circuit import RecipeNotPossible
from loquet.core.circuit.assembling import assemble
from loquet.core.library import Library
from loquet.core.provenance import NotApplicable, Passed
from tests.core.benches import bench_for, seen_with
from tests.core.netlists import strays
from tests.making import Plain, device, thing

FEEDS: tuple[tuple[str, dict[str, object]], ...] = (
    ("cells", {"count": 2}),
    ("coin-cell", {}),
    ("lithium-cell", {"charge_light": True}),
    ("series-pack", {"cells": 3}),
    ("nine-volt", {}),
    ("host-feed", {}),
    ("barrel-jack", {"adapter_v": 9.0}),
    ("leads", {}),
    ("lithium-cell", {"holder": True, "sense": False}),
    ("host-header", {"feeds": True}),
    ("usb-charge", {"feeds": True, "asks": "12 V"}),
    ("cells", {"count": 3, "size": "AA"}),
)
OTHERS: tuple[tuple[str, dict[str, object]], ...] = (
    ("button", {}),
    ("pad", {}),
    ("stick", {}),
    ("trigger", {}),
    ("encoder", {}),
    ("light", {}),
    ("light-chain", {"count": 2}),
    ("light-matrix", {"rows": 2, "columns": 2}),
    ("buzzer", {}),
    ("speaker", {}),
    ("sound-converter", {}),
    ("usb-device", {}),
    ("usb-charge", {}),
    ("spare-bus", {}),
    ("serial", {}),
    ("memory-card", {}),
    ("expansion", {"lines": 3}),
    ("screw-terminals", {}),
    ("flat-cable", {"lines": 3}),
    ("membrane", {"lines": 3}),
    ("edge-contacts", {"lines": 2}),
    ("bus-sensor", {"address": 0x45}),
    ("motion", {}),
    ("voltage-sensor", {}),
    ("crystal", {}),
    ("clock-crystal", {}),
    ("own-part", {"lines": 2}),
    ("own-block", {"inputs": 1, "outputs": 1}),
    ("programming", {}),
    ("load-switch", {}),
    ("fiducial", {}),
    ("screen", {"part": "screen-240x240-serial", "bus": "one-way serial"}),
    ("power-switch", {}),
    ("power-button", {}),
    ("host-header", {"ways": 8, "lines": 2}),
    ("touch", {}),
)
SCHEMES = ("one pin each", "diode matrix", "expander 8", "shift register", "charlieplexed")


def random_brief(rng: random.Random) -> Brief | None:
    """Some things on a chip with many pins and a source; nothing where the brief itself makes no
    sense.
    """
    kind, fields = rng.choice(FEEDS)
    rows: list[Plain] = [thing("chip", "brain", part="stm32l433rct6")]
    rows.append(thing(kind, "source", 100, 45, far=True, **fields))
    for index, (name, more) in enumerate(rng.sample(OTHERS, rng.randint(2, 9))):
        rows.append(thing(name, f"thing {index}", **more))
    if rng.random() < 0.3:
        rows.append(thing("converter", "five", gives_v=5.0))
    try:
        return device(*rows, key_scheme={"name": rng.choice(SCHEMES)})
    except BriefError:
        return None


@pytest.mark.parametrize("batch", range(5))
def test_laws_of_every_circuit(batch: int, library: Library) -> None:
    made = 0
    for seed in range(batch * 100, batch * 100 + 100):
        brief = random_brief(random.Random(seed))
        if brief is None:
            continue
        try:
            circuit = assemble(bench_for(brief))
        except RecipeNotPossible as refused:
            assert refused.nearest, seed
            continue
        made += 1
        open_ends = [n.name for n in circuit.nets if len(n.pads) == 1]
        assert open_ends == [], (seed, open_ends)
        seen = seen_with(brief)
        assert isinstance(rail_source.run(seen), Passed), seed
        assert isinstance(open_pins.run(seen), Passed), seed
        assert isinstance(back_feed.run(seen), Passed | NotApplicable), seed
        assert isinstance(put_in_wrong.run(seen), Passed | NotApplicable), seed
        assert strays(circuit) == [], seed
        rated = findings_of([(part_rating.RULE, part_rating.run(seen))])
        assert [f.sentence for f in rated if f.severity == "stop"] == [], seed
        refs = [c.ref for c in circuit.components]
        assert len(set(refs)) == len(refs)
        for component in circuit.components:
            numbers = {pad.number for pad in library.pattern(component.part).pads}
            assert set(component.pads) <= numbers, (seed, component.role)
            if not component.is_chip:
                part = library.parts[component.part]
                assert part.evidence_text, part.id
                assert part.height_mm >= 0
                assert part.price_cents > 0 or component.bare or part.id == "lead-pads", part.id
    assert made > 50
