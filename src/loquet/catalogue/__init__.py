"""Bundled data, and readers of open data sets, as core types."""
