"""Thin endpoints over the core and the store."""
