"""Setting up and running Loquet on one machine: packages, database, front end, server, tests."""
