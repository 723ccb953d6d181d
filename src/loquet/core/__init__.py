"""The job's rules and computation: no web, database, clock, network or environment in here."""
