"""What each kind puts on a board, in the order in which references are numbered.

A test holds this tuple to the folder.
"""

from collections.abc import Callable

from loquet.core.brief import Thing
from loquet.core.brief.thing import Worked
from loquet.core.circuit.model import Fragment
from loquet.core.circuit.recipes import (
    barrel_jack,
    brain_talk,
    bus_sensor,
    button,
    buzzer,
    cells,
    chip,
    clock_crystal,
    coin_cell,
    converter,
    crystal,
    edge_contacts,
    encoder,
    expansion,
    fiducial,
    flat_cable,
    gauge,
    headphones,
    host_computer,
    host_feed,
    host_header,
    leads,
    light,
    light_chain,
    light_matrix,
    lithium_cell,
    load_switch,
    membrane,
    memory_card,
    module_port,
    motion,
    nine_volt,
    own_block,
    own_part,
    pad,
    power_button,
    power_switch,
    programming,
    ready_module,
    screen,
    screw_terminals,
    serial,
    series_pack,
    shelf_part,
    slider,
    sound_converter,
    spare_bus,
    speaker,
    stick,
    stick_port,
    test_point,
    touch,
    trigger,
    usb_charge,
    usb_device,
    usb_downstream,
    voltage_sensor,
)

RECIPES: tuple[tuple[type[Thing], Callable[..., Fragment]], ...] = (
    chip.RECIPE,
    ready_module.RECIPE,
    host_computer.RECIPE,
    button.RECIPE,
    pad.RECIPE,
    stick.RECIPE,
    trigger.RECIPE,
    encoder.RECIPE,
    slider.RECIPE,
    touch.RECIPE,
    screen.RECIPE,
    buzzer.RECIPE,
    light.RECIPE,
    cells.RECIPE,
    coin_cell.RECIPE,
    lithium_cell.RECIPE,
    load_switch.RECIPE,
    series_pack.RECIPE,
    nine_volt.RECIPE,
    host_feed.RECIPE,
    module_port.RECIPE,
    barrel_jack.RECIPE,
    leads.RECIPE,
    usb_device.RECIPE,
    usb_charge.RECIPE,
    converter.RECIPE,
    power_switch.RECIPE,
    power_button.RECIPE,
    programming.RECIPE,
    test_point.RECIPE,
    brain_talk.RECIPE,
    expansion.RECIPE,
    fiducial.RECIPE,
    host_header.RECIPE,
    edge_contacts.RECIPE,
    flat_cable.RECIPE,
    screw_terminals.RECIPE,
    membrane.RECIPE,
    serial.RECIPE,
    spare_bus.RECIPE,
    stick_port.RECIPE,
    memory_card.RECIPE,
    usb_downstream.RECIPE,
    crystal.RECIPE,
    clock_crystal.RECIPE,
    bus_sensor.RECIPE,
    motion.RECIPE,
    gauge.RECIPE,
    voltage_sensor.RECIPE,
    light_chain.RECIPE,
    light_matrix.RECIPE,
    sound_converter.RECIPE,
    speaker.RECIPE,
    headphones.RECIPE,
    own_part.RECIPE,
    shelf_part.RECIPE,
    own_block.RECIPE,
)


def recipe_for(thing: Thing) -> Callable[..., Fragment] | None:
    """The recipe of a thing's kind; None where there is none yet."""
    return next((function for kind, function in RECIPES if kind is type(thing)), None)


def rank_of(thing: Thing) -> int:
    """Where a thing's kind stands among the recipes; all controls stand together."""
    kinds = [kind for kind, _ in RECIPES]
    if isinstance(thing, Worked):
        return min(i for i, kind in enumerate(kinds) if issubclass(kind, Worked))
    return kinds.index(type(thing)) if type(thing) in kinds else len(kinds)
