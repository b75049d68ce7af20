"""Reports on paper."""
