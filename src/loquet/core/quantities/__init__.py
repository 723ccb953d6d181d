"""Lengths in integer nanometres, preferred values, and numbers as the trade writes them.

May import nothing of the core.
"""
