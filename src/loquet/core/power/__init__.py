"""Rails: what feeds what, and between which voltages.

May import brief and parts with what lies below; it knows no circuit.
"""

from loquet.core.power.rails import Rail, lines_v, logic_rail_of, rail_of, rails_of

__all__ = ["Rail", "lines_v", "logic_rail_of", "rail_of", "rails_of"]
