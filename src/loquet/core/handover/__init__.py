"""What the pin plan hands over: header, map, report descriptor, overlay, wiring card.

May import pins and brief; it knows no board.
"""
