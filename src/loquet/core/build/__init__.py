"""From parts and a bare board to a working device: soldering, first power, finding faults, records.

Ohms, volts, amperes, °C, seconds.
"""
