"""Rules: each a small file with its id, reason, source and severity; missing data never passes."""
