"""Routing on two layers by negotiated congestion on a 0.1 mm grid (McMurchie and Ebeling 1995)."""

from loquet.core.routing.negotiation import RouteProgress, RoutingStopped, route
from loquet.core.routing.router import RouteInput

__all__ = ["RouteInput", "RouteProgress", "RoutingStopped", "route"]
