"""From parts and a bare board to a working device: soldering, first power, finding faults, records.

Ohms, volts, amperes, °C, seconds.

May import stack, pipeline, lookup and all below; checks and files know nothing of it.
"""
