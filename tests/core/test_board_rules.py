"""Rules of a finished board: each with the mistake, at its limit, and without."""

from dataclasses import replace
from typing import Any

import pytest

from loquet.core.board import BoardView, Placement, PourPiece, Routing, Track, Via
from loquet.core.checks.catalogue import RULES
from loquet.core.checks.rule import Subject, findings_of
from loquet.core.checks.rules import usb_pair
from loquet.core.design import Design
from loquet.core.geometry import Box, Round, gap_between
from loquet.core.library import Library
from loquet.core.parts.land import Pad
from loquet.core.pipeline import board_view, bring_up_to_date
from loquet.core.provenance import Finding
from loquet.core.reviewing import subject_of
from loquet.demo.scenario import demo_brief
from tests.making import as_made, device, thing

MM = 1_000_000
NEW = [
    "decoupling-distance",
    "crystal-distance",
    "converter-loop",
    "flyback-distance",
    "guard-distance",
    "under-module",
    "guide-room",
    "port-at-edge",
    "caps-at-edge",
    "probe-side",
    "bare-contacts",
    "slot-width",
    "hole-near-edge",
    "hole-aspect",
    "dangling-ends",
    "acute-corners",
    "vias-in-pads",
    "track-current",
    "usb-pair",
    "analogue-apart",
    "heat-relief",
    "dead-copper",
    "paste-area",
]


@pytest.fixture(scope="module")
def star(library: Library) -> Design:
    """The star handset, made up to the poured board."""
    return bring_up_to_date(Design(brief=demo_brief("star-handset")), library)


@pytest.fixture(scope="module")
def seen(star: Design, library: Library) -> Subject:
    view = board_view(star, library)
    return replace(subject_of(star, library), view=view)


def view_of(seen: Subject) -> BoardView:
    assert seen.view is not None
    return seen.view


def said(rule: str, seen: Subject, **changes: Any) -> list[Finding]:
    """What a rule says of a board on which something was changed."""
    one = next(r for r in RULES if r.id == rule)
    return findings_of([(one, one.run(replace(seen, view=replace(view_of(seen), **changes))))])


def moved(seen: Subject, ref: str, x_nm: float, y_nm: float, **more: Any) -> Placement:
    """The placement with one part elsewhere."""
    placement = view_of(seen).placement
    change = {"x_nm": round(x_nm), "y_nm": round(y_nm), **more}
    parts = tuple(p.model_copy(update=change) if p.ref == ref else p for p in placement.parts)
    return placement.model_copy(update={"parts": parts})


def ref_of(seen: Subject, role: str) -> str:
    return next(c.ref for c in view_of(seen).circuit.components if c.role == role)


def wired(seen: Subject, *tracks: Track, vias: tuple[Via, ...] = ()) -> Routing:
    routing = view_of(seen).routing
    assert routing is not None
    return routing.model_copy(
        update={"tracks": (*routing.tracks, *tracks), "vias": (*routing.vias, *vias)}
    )


def track(net: str, x1: float, y1: float, x2: float, y2: float, width: float = 0.2) -> Track:
    a, b, c, d, w = (round(v * MM) for v in (x1, y1, x2, y2, width))
    return Track(net=net, far=False, x1_nm=a, y1_nm=b, x2_nm=c, y2_nm=d, width_nm=w)


@pytest.mark.parametrize("rule", NEW)
def test_a_finished_handset_has_none_of_these(rule: str, seen: Subject) -> None:
    assert [f.sentence for f in said(rule, seen)] == []


@pytest.mark.parametrize(
    ("rule", "role", "host", "pad", "most_mm"),
    [
        ("decoupling-distance", "decoupling 1", "chip", "1", 6.0),
        ("flyback-distance", "buzzer diode", "buzzer", "1", 10.0),
        ("guard-distance", "link:usb guard array", "link:usb", "6", 15.0),
    ],
)
def test_a_part_too_far_from_its_pin(
    rule: str, role: str, host: str, pad: str, most_mm: float, seen: Subject
) -> None:
    """The gap is measured between the pads of the net that both share: a little within the limit, a
    little beyond.
    """
    look_at_both_sides(rule, role, host, pad, most_mm, seen)


def look_at_both_sides(
    rule: str, role: str, host: str, pad: str, most_mm: float, seen: Subject
) -> None:
    """Move a part away from its pad until it is a little within the limit, and a little beyond."""
    view, ref = view_of(seen), ref_of(seen, role)
    component = view.circuit.component(ref)
    at = next(c for c in view.circuit.components if c.role == host)
    net = at.pads[pad or component.near_pad]
    seat = view.seats[ref]
    for away, count in ((most_mm - 0.5, 0), (most_mm + 0.5, 1)):
        goals = [p for p in view.pads if (p.ref, p.pad) == (at.ref, component.near_pad)]
        steps = (step for step in range(0, 4000) if step)
        for step in steps:
            placement = moved(seen, ref, seat.x, seat.y - step * 20_000)
            other = replace(view, placement=placement)
            ends = [p for p in other.pads if p.ref == ref and p.net == net]
            gap = min(gap_between(a.shape, b.shape) for a in ends for b in goals)
            if gap > away * MM:
                break
        found = said(rule, seen, placement=placement)
        assert [f.about[0] for f in found] == [f"part:{ref}"] * count, away
        assert all(f"{most_mm:g} mm are the most" in f.sentence for f in found)


def test_a_capacitor_far_from_its_converter(library: Library) -> None:
    brief = device(
        thing("chip", "chip", part="stm32l433rct6"),
        thing("cells", "cells", 60, 20, far=True),
        thing("converter", "five", gives_v=5.0),
    )
    design = bring_up_to_date(Design(brief=brief), library, "placement")
    view = board_view(design, library)
    subject = replace(subject_of(design, library), view=view)
    output = next(c for c in view.circuit.components if "output" in c.role and "five" in c.role)
    look_at_both_sides(
        "converter-loop", output.role, output.near_role, output.near_pad, 6.0, subject
    )


def test_a_high_part_under_the_screen(seen: Subject) -> None:
    """The module hangs below its header at (75, 62): its middle lies some 13 mm down."""
    buzzer = ref_of(seen, "buzzer")
    (found,) = said("under-module", seen, placement=moved(seen, buzzer, 75 * MM, 48 * MM))
    assert f"part:{buzzer}" in found.about
    low = dict.fromkeys(view_of(seen).heights_mm, 2.0)
    assert (
        said("under-module", seen, placement=moved(seen, buzzer, 75 * MM, 48 * MM), heights_mm=low)
        == []
    )


@pytest.mark.parametrize(("gap_mm", "count"), [(0.7, 1), (0.9, 0)])
def test_a_guide_wants_room_beside_a_button(gap_mm: float, count: int, seen: Subject) -> None:
    view = view_of(seen)
    key, tall = ref_of(seen, "button:right east"), ref_of(seen, "buzzer")
    assert view.heights_mm[tall] != view.heights_mm[key]
    one, other = (view.patterns[r].body for r in (key, tall))
    x = view.seats[key].x + (one.w + other.w) / 2 + gap_mm * MM
    heights = {**view.heights_mm, key: 3.0, tall: 4.0}
    placement = moved(seen, tall, x, view.seats[key].y, turn_deg=0)
    assert len(said("guide-room", seen, placement=placement, heights_mm=heights)) == count
    heights[tall] = 3.0
    assert said("guide-room", seen, placement=placement, heights_mm=heights) == []


@pytest.mark.parametrize(("inside_mm", "count"), [(0.9, 0), (1.1, 1)])
def test_a_plug_behind_the_edge(inside_mm: float, count: int, seen: Subject) -> None:
    """The socket stands at the upper edge, 70 mm up, its mating side towards it."""
    view, ref = view_of(seen), ref_of(seen, "link:usb")
    body = view.patterns[ref].body
    y = 70 * MM - inside_mm * MM - body.h / 2 + body.y
    found = said("port-at-edge", seen, placement=moved(seen, ref, view.seats[ref].x, y))
    assert len(found) == count


@pytest.mark.parametrize(("gap_mm", "count"), [(0.9, 1), (1.1, 0)])
def test_a_ceramic_capacitor_at_the_edge(gap_mm: float, count: int, seen: Subject) -> None:
    ref = ref_of(seen, "chip bulk")
    body = view_of(seen).patterns[ref].body
    placement = moved(seen, ref, 75 * MM, gap_mm * MM + body.h / 2, turn_deg=0)
    assert len(said("caps-at-edge", seen, placement=placement)) == count


def test_test_points_on_two_sides_and_under_a_screen(seen: Subject) -> None:
    first, second = (c.ref for c in view_of(seen).circuit.components if c.ref in ("TP1", "TP2"))
    seat = view_of(seen).seats[first]
    (found,) = said("probe-side", seen, placement=moved(seen, first, seat.x, seat.y, far=True))
    assert found.about == (f"part:{first}",)
    (found,) = said("probe-side", seen, placement=moved(seen, second, 75 * MM, 48 * MM))
    assert "'screen', where no probe reaches" in found.sentence


@pytest.mark.parametrize(("gap_mm", "count"), [(0.45, 1), (0.55, 0)])
def test_a_thin_bridge_between_a_hole_and_the_edge(
    gap_mm: float, count: int, seen: Subject
) -> None:
    via = Via(net="GROUND", x_nm=75 * MM, y_nm=round((gap_mm + 0.15) * MM))
    found = said("hole-near-edge", seen, routing=wired(seen, vias=(via,)))
    assert len(found) == count


@pytest.mark.parametrize(("thick_um", "count"), [(2400, 0), (2500, 1)])
def test_a_hole_eight_times_as_deep_as_wide(thick_um: int, count: int, seen: Subject) -> None:
    """The vias here are 0.3 mm: 8 x 0.3 = 2.4 mm."""
    thick = replace(seen, brief=as_made(seen.brief, thickness_mm=thick_um / 1000))
    assert len(said("hole-aspect", thick)) == count


def test_a_track_that_ends_in_the_open(seen: Subject) -> None:
    rail = track("SUPPLY", 20, 20, 22, 20)
    found = said("dangling-ends", seen, routing=wired(seen, rail))
    assert [(f.x_mm, f.y_mm) for f in found] == [(20.0, 20.0), (22.0, 20.0)]
    back = track("SUPPLY", 22, 20, 20, 20)
    assert said("dangling-ends", seen, routing=wired(seen, rail, back)) == []
    poured = track("GROUND", 20, 20, 22, 20)
    assert said("dangling-ends", seen, routing=wired(seen, poured)) == []


@pytest.mark.parametrize(("dx", "dy", "count"), [(2, 3.3, 1), (2, 3.6, 0), (-2, 0.5, 0)])
def test_tracks_that_meet_at_a_sharp_angle(dx: float, dy: float, count: int, seen: Subject) -> None:
    """60 degrees is the limit: tan 60 = 1.732, so 2 by 3.464."""
    one, other = track("SUPPLY", 20, 20, 24, 20), track("SUPPLY", 20, 20, 20 + dx, 20 + dy)
    found = said("acute-corners", seen, routing=wired(seen, one, other))
    assert len(found) == count


def test_a_via_in_a_pad(seen: Subject) -> None:
    view = view_of(seen)
    pad = next(p for p in view.pads if p.ref == ref_of(seen, "chip bulk"))
    assert isinstance(pad.shape, Box)
    inside = Via(net=pad.net, x_nm=pad.shape.x, y_nm=pad.shape.y)
    (found,) = said("vias-in-pads", seen, routing=wired(seen, vias=(inside,)))
    assert f"part:{pad.ref}" in found.about
    reach = max(pad.shape.w, pad.shape.h)
    beside = inside.model_copy(update={"x_nm": pad.shape.x + reach})
    others = said("vias-in-pads", seen, routing=wired(seen, vias=(beside,)))
    assert all(f"part:{pad.ref}" not in f.about for f in others)


def test_a_supply_track_that_is_too_thin(seen: Subject) -> None:
    """IPC-2221: 0.05 mm of 35 µm copper carries some 0.2 A at 20 K."""
    thin = track("SUPPLY", 20, 20, 22, 20, 0.01)
    (found,) = said("track-current", seen, routing=wired(seen, thin))
    assert found.about == ("net:SUPPLY",)
    wide = track("SUPPLY", 20, 20, 22, 20, 3.0)
    assert said("track-current", seen, routing=wired(seen, wide)) == []


def test_a_usb_line_with_a_detour(seen: Subject) -> None:
    net = "USB_PLUS"
    assert any(n.name == net for n in view_of(seen).circuit.nets)
    detour = track(net, 20, 20, 20, 20 + usb_pair.MOST_MM + 8)
    (found,) = said("usb-pair", seen, routing=wired(seen, detour))
    assert found.about == ("net:USB_PLUS", "net:USB_MINUS")


@pytest.mark.parametrize(("gap_mm", "count"), [(0.45, 1), (0.55, 0)])
def test_an_axis_beside_a_coil(gap_mm: float, count: int, seen: Subject) -> None:
    view = view_of(seen)
    coil = "CELL_COIL"
    pads = {"1": coil, "2": coil}
    inductor = view.circuit.components[0].model_copy(
        update={"role": "x", "ref": "L9", "part": "inductor-4040", "pads": pads}
    )
    parts = (*view.circuit.components, inductor)
    circuit = view.circuit.model_copy(update={"components": parts})
    plans = [r.plan for r in seen.brains if r.plan]
    axis = next(a.net for p in plans for a in p.assignments if a.kind == "analogue")
    one = track(axis, 20, 20, 25, 20)
    other = track(coil, 20, 20.2 + gap_mm, 25, 20.2 + gap_mm)
    routing = Routing(tracks=(one, other), vias=())
    found = said("analogue-apart", seen, circuit=circuit, routing=routing)
    assert len(found) == count


def test_a_ground_pad_without_spokes_and_copper_that_hangs_on_nothing(seen: Subject) -> None:
    view = view_of(seen)
    assert view.pour is not None
    square = ((1 * MM, 1 * MM), (3 * MM, 1 * MM), (3 * MM, 3 * MM), (1 * MM, 3 * MM))
    alone = PourPiece(far=False, outer=square)
    routing = Routing(tracks=(), vias=())
    pour = view.pour.model_copy(update={"pieces": (alone,), "stitches": ()})
    (dead,) = said("dead-copper", seen, pour=pour, routing=routing)
    assert (dead.x_mm, dead.y_mm) == (2.0, 2.0)
    found = said("heat-relief", seen, pour=pour, routing=routing)
    drilled = {p.owner for p in view.pads if p.net == "GROUND" and p.drill_nm and not p.in_full}
    assert len(found) >= len(drilled)
    assert {f.sentence.split(" by ")[1] for f in found} == {"0 of 8 spokes."}  # four a side
    # two ground tracks that reach one pad hold it; that they lie on the board helps no other
    x, y = found[0].x_mm, found[0].y_mm
    assert x is not None
    assert y is not None
    led = (track("GROUND", x, y, x + 4, y), track("GROUND", x, y, x, y + 4))
    fewer = said("heat-relief", seen, pour=pour, routing=Routing(tracks=led, vias=()))
    assert [f.about for f in fewer] == [f.about for f in found[1:]]


@pytest.mark.parametrize(("side_nm", "count"), [(310_000, 1), (325_000, 0)])
def test_an_opening_too_small_for_its_stencil(side_nm: int, count: int, seen: Subject) -> None:
    """IPC-7525: a square of side a has a / 4 t; 0.66 x 4 x 0.12 mm = 0.317 mm."""
    view, ref = view_of(seen), ref_of(seen, "chip bulk")
    pads = tuple(Pad(str(i + 1), Box(i * MM, 0, side_nm, side_nm)) for i in range(2))
    patterns = {**view.patterns, ref: replace(view.patterns[ref], pads=pads)}
    found = [f for f in said("paste-area", seen, patterns=patterns) if f"part:{ref}" in f.about]
    assert len(found) == count


def test_a_via_in_a_field_of_bare_contacts(library: Library) -> None:
    """A pill of 8 mm: a via 3.8 mm from its middle lies in the field, one 4.5 mm away along a side
    does not, and at 3.9 mm on both axes (5.5 mm away) neither: the field is round.
    """
    key = thing("button", "pill", 60, 30, part="button-carbon-fingers")
    brief = device(thing("chip", "chip", part="stm32l433rct6"), thing("leads", "leads"), key)
    design = bring_up_to_date(Design(brief=brief), library)
    subject = subject_of(design, library)
    view = board_view(design, library)
    rule = next(r for r in RULES if r.id == "bare-contacts")
    assert findings_of([(rule, rule.run(replace(subject, view=view)))]) == []
    (field,) = view.fields
    spot = field.shape
    assert isinstance(spot, Round)
    for dx, dy, count in ((3.8, 0, 1), (4.5, 0, 0), (3.9, 3.9, 0), (0, 0, 1)):
        via = Via(net="GROUND", x_nm=spot.x + round(dx * MM), y_nm=spot.y + round(dy * MM))
        changed = replace(view, routing=Routing(tracks=(), vias=(via,)), pour=None)
        assert len(findings_of([(rule, rule.run(replace(subject, view=changed)))])) == count


@pytest.mark.parametrize(("width", "count"), [(0.9, 1), (1.0, 0)])
def test_a_slot_narrower_than_the_cutter(width: float, count: int, library: Library) -> None:
    brief = device(
        thing("chip", "chip", part="stm32l433rct6"),
        thing("leads", "leads"),
        thing("slot", "strap", 60, 30, width_mm=width, length_mm=8.0),
    )
    design = bring_up_to_date(Design(brief=brief), library, "placement")
    subject, view = subject_of(design, library), board_view(design, library)
    rule = next(r for r in RULES if r.id == "slot-width")
    assert len(findings_of([(rule, rule.run(replace(subject, view=view)))])) == count


def test_a_pour_over_what_it_must_keep_off(seen: Subject) -> None:
    """A poured piece that covers a foreign pad, a screw hole and the whole board, its own line far
    from all three.
    """
    view = view_of(seen)
    assert view.pour is not None
    left, bottom, right, top = (round(v) for v in view.outline.bounds)
    ring = ((left, bottom), (right, bottom), (right, top), (left, top))
    pour = view.pour.model_copy(update={"pieces": (PourPiece(far=False, outer=ring),)})
    gaps = said("copper-gap", seen, pour=pour)
    pad = next(p for p in view.pads if p.owner == f"{ref_of(seen, 'chip bulk')} pad 1")
    assert any(f"{pad.owner} ({pad.net})" in f.sentence and "0.00 mm" in f.sentence for f in gaps)
    edges = said("copper-edge", seen, pour=pour)
    assert any("is 0.00 mm from the board's edge" in f.sentence for f in edges)
    assert len({f.sentence for f in edges if " of post " in f.sentence}) == 4


def test_copper_of_another_net_in_a_field_and_its_own(library: Library) -> None:
    """A track that ends at a comb may lie in its field; one that crosses it may not."""
    key = thing("button", "pill", 60, 30, part="button-carbon-fingers")
    brief = device(thing("chip", "chip", part="stm32l433rct6"), thing("leads", "leads"), key)
    design = bring_up_to_date(Design(brief=brief), library)
    subject, view = subject_of(design, library), board_view(design, library)
    rule = next(r for r in RULES if r.id == "bare-contacts")
    spot = view.fields[0].shape
    assert isinstance(spot, Round)
    own = next(pad.net for pad in view.pads if pad.ref == view.fields[0].ref)
    for net, count in ((own, 0), ("SUPPLY", 1)):
        ends = {"x1_nm": spot.x - MM, "x2_nm": spot.x + MM, "y1_nm": spot.y, "y2_nm": spot.y}
        track = Track(net=net, far=False, width_nm=200_000, **ends)
        changed = replace(view, routing=Routing(tracks=(track,), vias=()), pour=None)
        told = findings_of([(rule, rule.run(replace(subject, view=changed)))])
        assert [(f.sentence.split(" of ")[0], f.way_out) for f in told] == [
            ("A track", "Lead it round the field.")
        ] * count
