"""What each kind asks of a brain. A test holds this tuple to the folder."""

from collections.abc import Callable

from loquet.core.brief import Thing
from loquet.core.pins.model import Need
from loquet.core.pins.needs import (
    brain_talk,
    bus_sensor,
    buzzer,
    clock_crystal,
    crystal,
    edge_contacts,
    encoder,
    expansion,
    flat_cable,
    gauge,
    headphones,
    host_header,
    light,
    light_chain,
    light_matrix,
    lithium_cell,
    load_switch,
    membrane,
    memory_card,
    motion,
    own_block,
    own_part,
    power_button,
    programming,
    screen,
    screw_terminals,
    serial,
    shelf_part,
    sound_converter,
    speaker,
    touch,
    usb_device,
    usb_downstream,
    voltage_sensor,
)

NEEDS: tuple[tuple[type[Thing], Callable[..., list[Need]]], ...] = (
    screen.NEEDS,
    buzzer.NEEDS,
    speaker.NEEDS,
    sound_converter.NEEDS,
    headphones.NEEDS,
    light.NEEDS,
    light_chain.NEEDS,
    light_matrix.NEEDS,
    usb_device.NEEDS,
    usb_downstream.NEEDS,
    serial.NEEDS,
    memory_card.NEEDS,
    expansion.NEEDS,
    host_header.NEEDS,
    screw_terminals.NEEDS,
    flat_cable.NEEDS,
    membrane.NEEDS,
    edge_contacts.NEEDS,
    own_part.NEEDS,
    shelf_part.NEEDS,
    own_block.NEEDS,
    encoder.NEEDS,
    touch.NEEDS,
    bus_sensor.NEEDS,
    motion.NEEDS,
    gauge.NEEDS,
    voltage_sensor.NEEDS,
    lithium_cell.NEEDS,
    load_switch.NEEDS,
    crystal.NEEDS,
    clock_crystal.NEEDS,
    programming.NEEDS,
    brain_talk.NEEDS,
    power_button.NEEDS,
)


def asker(thing: Thing) -> Callable[..., list[Need]] | None:
    """The function that says what a thing of this kind asks; None where it asks nothing."""
    return next((function for kind, function in NEEDS if kind is type(thing)), None)
