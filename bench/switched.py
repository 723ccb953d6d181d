"""`./loquet bench on`: what it takes to switch every example on in all of its states."""

import time

from loquet.catalogue.library import bundled_library
from loquet.core.design import Design, slice_of
from loquet.core.energising.energised import energised
from loquet.core.lookup.switched_on import device_of, planned_of
from loquet.core.pipeline import StageRefused, run_stage
from loquet.core.reviewing import review
from loquet.demo.scenario import DEMO_BRIEFS, demo_brief

ROW = "{:16} {:>6} {:>6} {:>9} {:>7} {:>8} {:>6} {:>9} {:>9}"
TIMES = 5


def median_ms(work: object) -> float:
    """The median of some runs in ms of CPU."""
    assert callable(work)
    spent = []
    for _ in range(TIMES):
        began = time.process_time()
        work()
        spent.append(1000 * (time.process_time() - began))
    return sorted(spent)[TIMES // 2]


def switched_table() -> int:
    """Parts, nodes, elements, states, how many are sound, ms of CPU for all states, for their sums,
    and for a whole review with nothing remembered of it.
    """
    library = bundled_library()
    print(
        ROW.format(
            "example", "parts", "nodes", "elements", "states", "sound", "", "states ms", "review ms"
        )
    )
    for name in DEMO_BRIEFS:
        try:
            design = run_stage(Design(brief=demo_brief(name)), "pins", library)
            design = run_stage(design, "circuit", library)
        except StageRefused:
            continue
        circuit, brains = slice_of(design.circuit), planned_of(design, library)
        device = device_of(design.brief, circuit, library, brains)
        seen = energised(device)
        network = seen.answers.made
        solving = median_ms(lambda device=device: energised(device).sound)
        reviewing = median_ms(lambda design=design: review(anew(design), library))
        print(
            ROW.format(
                name,
                len(circuit.components),
                len(network.at),
                sum(1 for _ in network.network.elements()),
                len(seen.states),
                int(seen.sound.sum()),
                "",
                f"{solving:.1f}",
                f"{reviewing:.1f}",
            )
        )
    return 0


def anew(design: Design) -> Design:
    """The same design in other objects, of which nothing is remembered."""
    return Design.model_validate_json(design.model_dump_json())
