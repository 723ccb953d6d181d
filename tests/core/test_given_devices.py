"""Devices with faults that were found by hand: each gets the finding that ought to come, or comes
out right. Reviewed by a hardware engineer; limits of parts from memory of data sheets.
"""

from pathlib import Path

import pytest

from loquet.core.brief import BriefError, read_brief
from loquet.core.design import Design
from loquet.core.library import Library
from loquet.core.pipeline import run_stage
from loquet.core.reviewing import review
from tests.conftest import ROOT

DEVICES = ROOT / "tests" / "data" / "devices"
STOPPED: dict[str, set[str]] = {
    "aa-charge": {"charge-way", "programmable"},
    "d03-one-aa-boost": {"part-rating"},
    "d09c-switch": {"part-current"},
    "d14-avr-three-aa": {"programmable"},
    "d26b-two-brains": {"levels", "levels-up", "programmable"},
    "hot-chip": {"supply-range", "programmable"},
    "hot-chip9": {"supply-range", "programmable"},
    "sense5": {"levels", "programmable"},
    "t21-low-sensor": {"levels", "levels-up"},
    "t23-screen-5v": {"levels"},
    "t4-no-prog": {"programmable"},
    "t5-f405-usb": {"usb-clock"},
    "d07-usb-f103": {"usb-clock"},
    "t36-usb-f3": {"usb-clock"},
    "d30-f103-selfpowered": {"usb-supply", "back-feed"},
    "t31-coin-usb": {"usb-supply"},
    "pill": {"contact-finish", "programmable"},
}
LOOKED_AT: dict[str, set[str]] = {
    "d02-three-aa-latch": {"part-rating"},
    "t20-chain-33": {"part-supply"},
    "t28-polar": {"charge-way"},
    "t30-two-rails": {"off-means-off"},
    "t31-coin-usb": {"off-means-off"},
    "t33-li-jack": {"off-means-off", "charge-way"},
}
NO_RULE_OF_THESE = ("rail-source", "levels", "levels-up", "part-current", "part-rating")


def made(path: Path, library: Library) -> Design:
    """A device as far as its circuit."""
    design = Design(brief=read_brief(path.read_bytes(), path.name))
    return run_stage(run_stage(design, "pins", library), "circuit", library)


@pytest.mark.parametrize("path", sorted(DEVICES.glob("*.json")), ids=lambda p: p.name[:-11])
def test_each_gets_what_it_ought_to(path: Path, library: Library) -> None:
    name = path.name.removesuffix(".brief.json")
    if name == "bogus-rail":
        with pytest.raises(BriefError, match="no such rail', which nothing in this device makes"):
            read_brief(path.read_bytes(), path.name)
        return
    found = review(made(path, library), library)
    stops = {f.rule for f in found if f.severity == "stop"}
    assert stops == STOPPED.get(name, set())
    assert {f.rule for f in found if f.severity == "look"} >= LOOKED_AT.get(name, set())


def test_a_fuse_of_a_port_lets_its_power_through(library: Library) -> None:
    """The 5 V of a downstream port stand behind the port's own fuse: they have a source."""
    design = made(DEVICES / "d25b-downstream.brief.json", library)
    assert not [f for f in review(design, library) if f.rule in NO_RULE_OF_THESE]
