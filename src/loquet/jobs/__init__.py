"""Long work: started, watched, stopped; the last good version always stays."""
