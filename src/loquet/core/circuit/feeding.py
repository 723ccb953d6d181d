"""From a source to its rail: the nets on the way, the guard against a source that is put in the
wrong way, and the converter with its parts.
"""

from dataclasses import dataclass

from loquet.core.brief import Brief, Thing, plain_name
from loquet.core.brief.joining import joined_by, joiners, switched_source
from loquet.core.brief.regulated import RegulatedFeed
from loquet.core.circuit.bench import Bench
from loquet.core.circuit.model import GROUND, Component, Fragment, NetKind, RecipeNotPossible
from loquet.core.parts import Part, choosing
from loquet.core.parts.choosing import Wanted, p_channel, schottky, serving
from loquet.core.parts.terminal import ONE, OTHER
from loquet.core.power.budget import Made
from loquet.core.power.converting import BOOT, COIL_UH, OUT, Conversion, stood_v
from loquet.core.power.figures import junction
from loquet.core.power.plugged import entry_value
from loquet.core.provenance import Source, Working, WorkingInput
from loquet.core.quantities.preferred import nearest
from loquet.core.quantities.shown import show_si

WORTH_MA = 250.0
KEEPS = 2.0
"""A ceramic capacitor for so many times the volts that lie on it keeps half and more; see
`parts/dielectric.py`.
"""
LOWER_OHM = 22_000.0
TOLERANCE = 0.01
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
    ground where the shelf has one whose gate takes the volts, else a Schottky diode.

    Of several sources on one rail each has something that lets current out only, since a transistor
    that is on lets it back in.
    """
    if joined_by(bench.brief, thing) or joiners(bench.brief, thing):
        return one_way(bench, thing, (way.top, way.guarded), volts, near)
    role = f"{thing.role()} reverse guard"
    words = "Blocks the source when it is put in the wrong way"
    amount = taken_ma(bench, thing, volts)
    guard = p_channel(bench.parts, volts, amount)
    if guard is not None:
        pads = {"gate": GROUND, "source": way.guarded, "drain": way.top}
        return block(role, guard.id, "P-channel", words, pads, near)
    part = schottky(bench.parts, amount).id
    return block(role, part, "Schottky", words, {"cathode": way.guarded, "anode": way.top}, near)


def one_way(
    bench: Bench, thing: Thing, nets: tuple[str, str], volts: float, near: tuple[str, str]
) -> Component:
    """What lets current out of a source and none back: an ideal diode where it takes the volts and
    the current is worth it, or a Schottky diode.
    """
    role, (top, guarded) = f"{thing.role()} one way", nets
    words = "Lets current out of this source and none back"
    amount = taken_ma(bench, thing, volts)
    ideal = serving(bench.parts, Wanted("ideal diode", least={"input_max_v": volts}))
    if ideal and amount > WORTH_MA:
        lies = {"in": top, "ground": GROUND, "enable": top, "out": guarded}
        pads = {name: net for name, net in lies.items() if name in ideal[0].terminals}
        return block(role, ideal[0].id, "ideal diode", words, pads, near)
    part = schottky(bench.parts, amount).id
    return block(role, part, "Schottky", words, {"cathode": guarded, "anode": top}, near)


def taken_ma(bench: Bench, thing: Thing, volts: float) -> float:
    """What a source gives at so many volts with everything on, in mA."""
    return bench.made(bench.brief.thing(bench.rail_fed_by(thing).fed_by)).input_ma("peak", volts)


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
    bench: Bench,
    role: str,
    value: str,
    words: str,
    net: str,
    near: tuple[str, str],
    volts: float = 0,
) -> Component:
    """A capacitor from a net to ground, at so many volts."""
    part = bench.capacitor(value, volts)
    return block(role, part, value, words, {ONE: net, OTHER: GROUND}, near)


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
    fixed = {"in": entry, "enable": entry, "ground": GROUND, "out": rail, "sense": rail}
    fixed |= {"mode": GROUND, "feedback": net(thing, "feedback"), "boot": net(thing, "boot")}
    fixed |= {"switch": net(thing, "coil"), "coil 1": net(thing, "coil 1")}
    fixed |= {"coil 2": net(thing, "coil 2")}
    pads = {name: fixed[name] for name in part.terminals if name in fixed}
    value = f"{made.rail.usual_v:g} V" if taken.way.name == "linear" else part.short
    words = f"{taken.way.title} to {made.rail.usual_v:g} V"
    main = Component(role=role, part=part.id, block="power", value=value, purpose=words, pads=pads)
    value, top_v = entry_value(bench.brief, thing), part.figure("input_max_v")
    beside = "out" if "out" in part.terminals else "ground"
    around = [
        *coil(bench, thing, taken, entry, rail, role),
        capacitor(
            bench, f"{role} input", value, "Input capacitor", entry, (role, "in"), stood_v(top_v)
        ),
        capacitor(
            bench,
            f"{role} output",
            OUT,
            "Output capacitor",
            rail,
            (role, beside),
            KEEPS * made.rail.usual_v,
        ),
    ]
    jumping = {net(thing, word) for word in COIL_ENDS} & set(pads.values())
    kinds = supplies(entry, rail) | dict.fromkeys(jumping, JUMPS)
    if "reference_v" not in part.values:
        return Fragment((main, *around), kinds, (junction(made),))
    upper, divider = feedback(bench, thing, taken, rail, role)
    working = feedback_working(thing, part, made.rail.usual_v, upper)
    return Fragment((main, *around, *divider), kinds, (working, junction(made)))


def coil(
    bench: Bench, thing: Thing, taken: Conversion, entry: str, rail: str, role: str
) -> list[Component]:
    """The coil of a switching converter, and the capacitor of the upper switch's driver."""
    ends = {
        "buck": (net(thing, "coil"), rail),
        "boost": (entry, net(thing, "coil")),
        "buck-boost": (net(thing, "coil 1"), net(thing, "coil 2")),
    }.get(taken.way.name)
    if ends is None:
        return []
    own = taken.part.terminals
    at = "switch" if "switch" in own else "coil 1"
    pads = {ONE: ends[0], OTHER: ends[1]}
    found = [
        block(
            f"{role} coil",
            choosing.inductor(bench.parts, COIL_UH),
            "4.7 µH",
            "Coil",
            pads,
            (role, at),
        )
    ]
    if "boot" in own:
        pads = {ONE: net(thing, "boot"), OTHER: net(thing, "coil")}
        words = "Drives the upper switch"
        near = (role, "boot")
        found.append(block(f"{role} boot", bench.capacitor(BOOT), BOOT, words, pads, near))
    return found


def feedback(
    bench: Bench, thing: Thing, taken: Conversion, rail: str, role: str
) -> tuple[float, tuple[Component, Component]]:
    """The divider that sets the rail: lower resistor 22 kΩ, upper one the nearest E24."""
    upper = nearest(LOWER_OHM * (taken.out_v / taken.part.figure("reference_v") - 1))
    middle, part = net(thing, "feedback"), bench.resistor
    words = "Sets the volts of the rail"
    return upper, (
        block(
            f"{role} upper",
            part,
            show_si(upper, "Ω"),
            words,
            {ONE: rail, OTHER: middle},
            (role, "feedback"),
        ),
        block(
            f"{role} lower",
            part,
            show_si(LOWER_OHM, "Ω"),
            words,
            {ONE: middle, OTHER: GROUND},
            (role, "feedback"),
        ),
    )


def feedback_working(thing: Thing, part: Part, wanted: float, upper: float) -> Working:
    """What the divider really gives."""
    reference = part.figure("reference_v")
    volts = reference * (1 + upper / LOWER_OHM)
    swing = TOLERANCE * 2 * (volts - reference)
    return Working(
        id=f"{thing.name}.feedback",
        title=f"Rail that the divider of {thing.label} sets",
        value=volts,
        unit="V",
        shown=f"{volts:.3f} V ± {swing:.3f} V",
        formula=(
            "Vref x (1 + Rupper / Rlower), both resistors at 1 %: worst case ± 2 % of V - Vref"
        ),
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
    """A source at a plug with a guard and a converter behind it."""
    way, source = feed_way(bench, thing), thing.source()
    assert source is not None
    plug = source_plug(thing, bench.parts[part], value, way.top)
    guard = reverse_guard(bench, thing, way, source.fresh_v, (plug.role, plus_of(plug)))
    made = converter(bench, thing, way.behind)
    kinds = supplies(way.top, way.guarded) | made.kinds
    return Fragment((plug, guard, *made.components), kinds, made.workings)


def source_plug(thing: Thing, part: Part, value: str, top: str) -> Component:
    """Where a source comes on to the board: the thing itself where it is its plug, or the plug of
    what lies beside the board.
    """
    own = any(body.part for body in thing.bodies())
    return Component(
        role=thing.role() if own else thing.role("plug"),
        part=part.id,
        block="power",
        value=value,
        purpose=f"Plug of {thing.label}",
        pads=dict(zip(part.poles, (top, GROUND), strict=True)),
        polar=True,
    )


def plus_of(plug: Component) -> str:
    """The terminal of plus at the plug of a source, before it is landed."""
    return next(iter(plug.pads))
