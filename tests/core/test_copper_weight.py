"""Copper of two ounces: wider gaps, narrower supply tracks, another stack and price, each worked
out by hand.
"""

import json
from dataclasses import replace
from datetime import date

import pytest

from loquet.core.checks.rules import house_offer, track_current
from loquet.core.design import Design
from loquet.core.energising.carried import Carried
from loquet.core.freshness import stale_slices
from loquet.core.library import Library
from loquet.core.ordering.house import Asked
from loquet.core.pipeline import board_view, bring_up_to_date
from loquet.core.provenance import Failed, Passed
from loquet.core.release import release
from loquet.core.reviewing import review, subject_of
from loquet.standins.board_house import quote
from loquet.standins.file_inspection import Inspection, Plate
from tests.editing import edit
from tests.making import as_made

CHOICE = {
    "kind": "choose-house",
    "house": "millrace",
    "shipping": "parcel",
}
GOLD = {"finish": "gold"}


def in_copper(design: Design, um: int) -> Design:
    return edit(design, **CHOICE, making={**GOLD, "copper_um": um})


@pytest.fixture(scope="module")
def heavy(small: Design, library: Library) -> Design:
    """The demo pod ordered in 70 µm."""
    return bring_up_to_date(in_copper(small, 70), library)


def test_it_is_drawn_for_what_is_etched(small: Design, heavy: Design, library: Library) -> None:
    """Millrace etches 0.20 mm in 70 µm, 0.15 mm in 35; the routing has to be made anew for it, the
    placement not; the board is whole and its files go to the house.
    """
    changed = in_copper(small, 70)
    assert stale_slices(changed) == ("routing", "pour")
    assert stale_slices(in_copper(small, 35)) == ()
    rules = board_view(heavy, library).rules
    assert (rules.gap_nm, rules.track_nm) == (200_000, 200_000)
    usual = library.house("millrace").rules()
    assert (usual.gap_nm, usual.track_nm) == (150_000, 150_000)
    assert library.house("saltmarsh").rules(70).gap_nm == 180_000
    made = release(heavy, library)
    assert [f.sentence for f in made.findings if f.severity == "stop"] == []
    job = json.loads(made.files["fabrication/board.gbrjob"])
    copper = [row["Thickness"] for row in job["MaterialStackup"] if row["Type"] == "Copper"]
    assert copper == [0.07, 0.07]
    assert changed.brief.making.copper_um == 70


def test_a_track_that_is_too_narrow_in_thin_copper_may_do_in_thick(
    small: Design, library: Library, monkeypatch: pytest.MonkeyPatch
) -> None:
    """1.5 A at 20 K want 0.35 mm in 35 µm, 0.17 mm in 70 µm: the pod's supply of 0.3 mm is too
    narrow for the one, wide enough for the other.
    """
    carried = Carried(nets={"SUPPLY": 1500.0})
    monkeypatch.setattr(track_current, "carried_by", lambda _: carried)
    for um, kind in ((35, Failed), (70, Passed)):
        seen = subject_of(small, library)
        brief = as_made(small.brief, copper_um=um)
        said = track_current.run(replace(seen, view=seen.views[0], brief=brief))
        assert isinstance(said, kind)


def test_its_price_and_what_a_house_does_not_do(small: Design, library: Library) -> None:
    """Ten boards of 100 x 50 mm are 5 dm²: 5 x 1.40 at the share for five and more (1.0) are 7.00;
    twenty are 10 dm² at 0.86: 12.04. Ropewalk has none, and tracks of 0.15 mm are too narrow.
    """
    seen = Inspection((Plate(100.0, 50.0),), 0.2, 0.3, 4, ())
    house = library.house("millrace")
    day = date(2026, 11, 30)

    def wanted(um: int) -> Asked:
        return Asked(
            finish="gold", colour="green", thickness_um=1600, copper_um=um, shipping="parcel"
        )

    for count, cents in ((10, 700), (20, 1204)):
        thin, thick = (quote(house, seen, count, wanted(um), day) for um in (35, 70))
        assert ("copper 70 µm", cents) in thick.lines
        assert thick.total_cents - thin.total_cents == cents
        assert not any("copper" in words for words, _ in thin.lines)
        assert thick.complaints == ()
    narrow = Inspection((Plate(100.0, 50.0),), 0.15, 0.3, 4, ())
    (said,) = quote(house, narrow, 10, wanted(70), day).complaints
    assert said == "Tracks of 0.15 mm are too narrow in copper of 70 µm; the limit is 0.20 mm."
    assert quote(house, narrow, 10, wanted(35), day).complaints == ()
    cheap = wanted(70).model_copy(update={"finish": "lead-free solder", "shipping": "letter"})
    pooled = quote(library.house("ropewalk"), seen, 10, cheap, day)
    assert pooled.complaints == ("Copper of 70 µm is not offered.",)
    strange = in_copper(small, 105)
    found = [f for f in review(strange, library) if f.rule == house_offer.RULE.id]
    assert [(f.sentence, f.way_out) for f in found] == [
        (
            "Millrace Boards does not make boards with copper of 105 µm.",
            "Choose one of: 35 µm, 70 µm.",
        )
    ]
