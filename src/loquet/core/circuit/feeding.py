"""From a source to its rail: the nets on the way, the guard against a source that is put in the
wrong way, and the converter with its parts.
"""

from dataclasses import dataclass

from loquet.core.brief import Brief, Thing, plain_name
from loquet.core.brief.joining import joined_by, joiners, switched_source
from loquet.core.brief.regulated import RegulatedFeed
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.model import GROUND, Component, Fragment, NetKind, RecipeNotPossible
from loquet.core.parts import Part
from loquet.core.power.budget import Made
from loquet.core.power.converting import Conversion
from loquet.core.power.figures import junction
from loquet.core.provenance import Source, Working, WorkingInput
from loquet.core.quantities.preferred import nearest
from loquet.core.quantities.shown import show_si

GUARD_P, GUARD_DIODE = "transistor-pmos-sot23", "diode-schottky-sod123"
IDEAL = "ideal-diode-5"
GATE_LIMIT_V = 8.0
IDEAL_LIMIT_V, WORTH_MA = 5.5, 250.0
LOWER_OHM = 22_000.0
TOLERANCE = 0.01
LOW, HIGH = ("10 µF", "capacitor-2012"), ("10 µF", "capacitor-3216")
OUT, BOOT = ("22 µF", "capacitor-2012"), ("100 nF", "capacitor-1608")
COIL_ENDS = ("coil", "coil 1", "coil 2")
JUMPS: NetKind = "switched"
APPLICATION = Source(
    kind="common practice",
    text=(
        "application circuit of the converter's drawing (invented): input and output capacitors,"
        " coil of 4.7 µH, divider at feedback"
    ),
)


@dataclass(frozen=True)
class FeedWay:
    """Nets from a source to its rail: at its plug, behind its guard, behind the switch, and the
    rail. Without a switch the two in the middle are one.
    """

    top: str
    guarded: str
    behind: str
    rail: str


def switched_by(brief: Brief, thing: Thing) -> Thing | None:
    """The switch in the way of a source: it stands in that of the first source that comes in over
    this device's boards.
    """
    if thing is not switched_source(brief):
        return None
    return next((t for t in brief.things if t.SWITCHES), None)


def feed_way(bench: Bench, thing: Thing) -> FeedWay:
    """The nets of a source; from its guard on, one that joins another has the nets of that."""
    rail = bench.rail_fed_by(thing)
    host = bench.brief.thing(rail.fed_by)
    behind = rail.net if rail.direct else net(host, "in")
    guarded = net(host, "guarded") if switched_by(bench.brief, host) else behind
    return FeedWay(net(thing, "top"), guarded, behind, rail.net)


def net(thing: Thing, piece: str) -> str:
    """A net of a piece of a source."""
    return plain_name(thing.role(piece))


def supplies(*nets: str) -> dict[str, NetKind]:
    """These nets as supply."""
    return dict.fromkeys(nets, "supply")


def reverse_guard(
    bench: Bench, thing: Thing, way: FeedWay, volts: float, near: tuple[str, str]
) -> Component:
    """What blocks a source that is put in the wrong way: a P-channel transistor with its gate at
    ground up to 8 V, a Schottky diode above.

    Of several sources on one rail each has something that lets current out only, since a transistor
    that is on lets it back in.
    """
    if joined_by(bench.brief, thing) or joiners(bench.brief, thing):
        return one_way(bench, thing, (way.top, way.guarded), volts, near)
    role = f"{thing.role()} reverse guard"
    words = "Blocks the source when it is put in the wrong way"
    if volts <= GATE_LIMIT_V:
        pads = {"1": GROUND, "2": way.guarded, "3": way.top}
        return block(role, GUARD_P, "P-channel", words, pads, near)
    return block(role, GUARD_DIODE, "Schottky", words, {"1": way.guarded, "2": way.top}, near)


def one_way(
    bench: Bench, thing: Thing, nets: tuple[str, str], volts: float, near: tuple[str, str]
) -> Component:
    """What lets current out of a source and none back: an ideal diode where it takes the volts and
    the current is worth it, or a Schottky diode.
    """
    role, (top, guarded) = f"{thing.role()} one way", nets
    words = "Lets current out of this source and none back"
    rail = bench.rail_fed_by(thing)
    made = bench.made(bench.brief.thing(rail.fed_by))
    amount = made.input_ma("peak", volts)
    if volts <= IDEAL_LIMIT_V and amount > WORTH_MA:
        pads = {"1": top, "2": GROUND, "3": top, "5": guarded}
        return block(role, IDEAL, "ideal diode", words, pads, near)
    return block(role, GUARD_DIODE, "Schottky", words, {"1": guarded, "2": top}, near)


def block(
    role: str, part: str, value: str, words: str, pads: dict[str, str], near: tuple[str, str]
) -> Component:
    """A component of the power block that sits close to a pad of another."""
    return Component(
        role=role,
        part=part,
        block="power",
        value=value,
        purpose=words,
        pads=pads,
        near_role=near[0],
        near_pad=near[1],
    )


def capacitor(
    role: str, size: tuple[str, str], words: str, net: str, near: tuple[str, str]
) -> Component:
    """A capacitor from a net to ground."""
    return block(role, size[1], size[0], words, {"1": net, "2": GROUND}, near)


def conversion_of(bench: Bench, thing: Thing) -> tuple[Made, Conversion]:
    """How a source's rail is made; raises RecipeNotPossible with what every way lacks."""
    made = bench.made(thing)
    if made.taken is None:
        wish = thing.made_by()
        looked = [c for c in made.found if wish in ("auto", c.way.name)]
        lacks = [f"a {c.way.title.lower()} {c.why_not}" for c in looked]
        limit = "; ".join(lacks or ["it would be made of itself"])
        raise RecipeNotPossible(
            thing.name,
            f"nothing makes {made.rail.usual_v:g} V of it: {limit}",
            "Change the rail's volts, its load, or the source; the Power station compares the"
            " ways.",
        )
    return made, made.taken


def converter(bench: Bench, thing: Thing, entry: str) -> Fragment:
    """The converter from a net to the rail that a thing feeds, nothing for a source that joins
    another; raises RecipeNotPossible where none fits.
    """
    if joined_by(bench.brief, thing):
        return Fragment(())
    made, taken = conversion_of(bench, thing)
    part, rail, role = taken.part, made.rail.net, f"{thing.role()} converter"
    names = {name: pad for pad, name in reversed(part.pin_names.items())}
    fixed = {"in": entry, "enable": entry, "ground": GROUND, "out": rail, "sense": rail}
    fixed |= {"mode": GROUND, "feedback": net(thing, "feedback"), "boot": net(thing, "boot")}
    fixed |= {"switch": net(thing, "coil"), "coil 1": net(thing, "coil 1")}
    fixed |= {"coil 2": net(thing, "coil 2")}
    pads = {pad: fixed[name] for pad, name in part.pin_names.items()}
    value = f"{made.rail.usual_v:g} V" if taken.way.name == "linear" else part.short
    words = f"{taken.way.title} to {made.rail.usual_v:g} V"
    main = Component(role=role, part=part.id, block="power", value=value, purpose=words, pads=pads)
    high = part.values["input_max_v"] > 6
    around = [
        *coil(thing, taken, entry, rail, role, names),
        capacitor(
            f"{role} input", HIGH if high else LOW, "Input capacitor", entry, (role, names["in"])
        ),
        capacitor(
            f"{role} output",
            OUT,
            "Output capacitor",
            rail,
            (role, names.get("out", names["ground"])),
        ),
    ]
    jumping = {net(thing, word) for word in COIL_ENDS} & set(pads.values())
    kinds = supplies(entry, rail) | dict.fromkeys(jumping, JUMPS)
    if "reference_v" not in part.values:
        return Fragment((main, *around), kinds, (junction(made),))
    upper, divider = feedback(thing, taken, rail, role, names["feedback"])
    working = feedback_working(thing, part, made.rail.usual_v, upper)
    return Fragment((main, *around, *divider), kinds, (working, junction(made)))


def coil(
    thing: Thing, taken: Conversion, entry: str, rail: str, role: str, names: dict[str, str]
) -> list[Component]:
    """The coil of a switching converter, and the capacitor of the upper switch's driver."""
    ends = {
        "buck": (net(thing, "coil"), rail),
        "boost": (entry, net(thing, "coil")),
        "buck-boost": (net(thing, "coil 1"), net(thing, "coil 2")),
    }.get(taken.way.name)
    if ends is None:
        return []
    pad = names.get("switch") or names["coil 1"]
    pads = {"1": ends[0], "2": ends[1]}
    found = [block(f"{role} coil", "inductor-4040", "4.7 µH", "Coil", pads, (role, pad))]
    if "boot" in names:
        pads = {"1": net(thing, "boot"), "2": net(thing, "coil")}
        words = "Drives the upper switch"
        near = (role, names["boot"])
        found.append(block(f"{role} boot", BOOT[1], BOOT[0], words, pads, near))
    return found


def feedback(
    thing: Thing, taken: Conversion, rail: str, role: str, pad: str
) -> tuple[float, tuple[Component, Component]]:
    """The divider that sets the rail: lower resistor 22 kΩ, upper one the nearest E24."""
    upper = nearest(LOWER_OHM * (taken.out_v / taken.part.values["reference_v"] - 1))
    middle, part = net(thing, "feedback"), "resistor-1608"
    words = "Sets the volts of the rail"
    return upper, (
        block(
            f"{role} upper", part, show_si(upper, "Ω"), words, {"1": rail, "2": middle}, (role, pad)
        ),
        block(
            f"{role} lower",
            part,
            show_si(LOWER_OHM, "Ω"),
            words,
            {"1": middle, "2": GROUND},
            (role, pad),
        ),
    )


def feedback_working(thing: Thing, part: Part, wanted: float, upper: float) -> Working:
    """What the divider really gives."""
    reference = part.values["reference_v"]
    volts = reference * (1 + upper / LOWER_OHM)
    swing = TOLERANCE * 2 * (volts - reference)
    return Working(
        id=f"{thing.name}.feedback",
        title=f"Rail that the divider of {thing.label} sets",
        value=volts,
        unit="V",
        shown=f"{volts:.3f} V ± {swing:.3f} V",
        formula="Vref x (1 + Rupper / Rlower), both resistors at 1 %: worst case ± 2 % of V - Vref",
        inputs=(
            WorkingInput(name="Vref", value=f"{reference:g}", unit="V", origin=part.evidence_text),
            WorkingInput(
                name="Rupper", value=f"{upper:g}", unit="Ω", origin=f"nearest E24 for {wanted:g} V"
            ),
            WorkingInput(name="Rlower", value=f"{LOWER_OHM:g}", unit="Ω", origin=APPLICATION.text),
        ),
        source=APPLICATION,
    )


def plugged(thing: RegulatedFeed, bench: Bench, part: str, value: str) -> Fragment:
    """A source at a plug (pad 1 is plus, pad 2 minus) with a guard and a converter behind it."""
    way, source = feed_way(bench, thing), thing.source()
    assert source is not None
    plug = source_plug(thing, part, value, way.top)
    guard = reverse_guard(bench, thing, way, source.fresh_v, (plug.role, "1"))
    made = converter(bench, thing, way.behind)
    kinds = supplies(way.top, way.guarded) | made.kinds
    return Fragment((plug, guard, *made.components), kinds, made.workings)


def source_plug(thing: Thing, part: str, value: str, top: str) -> Component:
    """Where a source comes on to the board: the thing itself where it is its plug, or the plug of
    what lies beside the board.
    """
    own = any(body.part for body in thing.bodies())
    return Component(
        role=thing.role() if own else thing.role("plug"),
        part=part,
        block="power",
        value=value,
        purpose=f"Plug of {thing.label}",
        pads={"1": top, "2": GROUND},
        polar=True,
    )
