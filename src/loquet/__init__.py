"""Loquet designs custom circuit boards for handheld controls, from the brief to proven files."""

__version__ = "0.1.0"
