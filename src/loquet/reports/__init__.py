"""The commands that print what a station knows of a brief, without a database."""
