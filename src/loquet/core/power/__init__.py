"""Rails: what feeds what, and between which voltages."""

from loquet.core.power.rails import Rail, rail_of, rails_of

__all__ = ["Rail", "rail_of", "rails_of"]
