"""Benchmarks of the chain: figures as a table, no pass or fail."""
