"""Rules: each a small file with its id, reason, source and severity; missing data never passes.

May import everything that makes a board, its legend and its stack; the review asks them.
"""
