"""What the pin plan hands over: header, map, report descriptor, overlay, wiring card."""
