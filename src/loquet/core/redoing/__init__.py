"""What a job does again with a board that is made: other arrangements, some nets anew, a net
tidied, tracks that give way.

May import pipeline, edits and review; nothing in the core imports it.
"""
