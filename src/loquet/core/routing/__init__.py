"""Routing on two layers by negotiated congestion on a 0.1 mm grid (McMurchie and Ebeling 1995).

May import placement and board with all below; it knows no pour but by its rules.
"""

from loquet.core.routing.negotiation import RouteProgress, RoutingStopped, route
from loquet.core.routing.router import RouteInput

__all__ = ["RouteInput", "RouteProgress", "RoutingStopped", "route"]
