"""The Larkfield workshop's demo data."""
