"""What differs between two briefs, and between two versions of a board, in words and as a picture.

May import the design and what it is made of; nothing in the core imports it.
"""
