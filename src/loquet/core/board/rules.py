"""The limits a board is drawn to, from the chosen house."""

from dataclasses import dataclass


@dataclass(frozen=True)
class BoardRules:
    """House limits and drawing widths in nanometres."""

    track_nm: int
    gap_nm: int
    hole_nm: int
    ring_nm: int
    edge_nm: int
    mask_web_nm: int
    mask_grow_nm: int
    hole_gap_nm: int
    legend_height_nm: int
    legend_stroke_nm: int

    @property
    def signal_width_nm(self) -> int:
        """Width drawn for signals: at least 0.20 mm."""
        return max(self.track_nm, 200_000)

    @property
    def supply_width_nm(self) -> int:
        """Width drawn for supply and ground: at least 0.30 mm."""
        return max(self.track_nm, 300_000)

    @property
    def drawn_gap_nm(self) -> int:
        """Gap kept between nets: at least 0.15 mm, or the house's own where that is more."""
        return max(self.gap_nm, 150_000)

    @property
    def via_hole_nm(self) -> int:
        """Finished hole of a via."""
        return max(self.hole_nm, 300_000)

    @property
    def via_nm(self) -> int:
        """Diameter of a via's copper: hole and two rings, at least 0.6 mm."""
        return max(self.via_hole_nm + 2 * self.ring_nm, 600_000)
