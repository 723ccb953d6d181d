"""Parts as they lie in drawers: lines that can be bought, how a part is tried, the halves of plugs,
what somebody has to make sure of.

May import circuit, parts, the design with its library, and `lookup`; nothing that draws or checks a
board.
"""
