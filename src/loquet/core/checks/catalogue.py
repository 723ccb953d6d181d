"""All rules, in the order they are run. A test holds this tuple to the folder."""

from loquet.core.checks.rule import Rule
from loquet.core.checks.rules import (
    boot_sharing,
    cell_safety,
    companions,
    copper_edge,
    copper_gap,
    courtyards,
    ground_island,
    house_limits,
    house_offer,
    mask_web,
    pad_agreement,
    rail_source,
    supply_range,
    unrouted,
)

RULES: tuple[Rule, ...] = (
    companions.RULE,
    cell_safety.RULE,
    supply_range.RULE,
    boot_sharing.RULE,
    rail_source.RULE,
    pad_agreement.RULE,
    courtyards.RULE,
    copper_gap.RULE,
    copper_edge.RULE,
    house_limits.RULE,
    mask_web.RULE,
    unrouted.RULE,
    ground_island.RULE,
    house_offer.RULE,
)
