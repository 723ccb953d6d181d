"""The database: slices by digest, versions that never change, and what is asked across designs."""
