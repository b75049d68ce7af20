"""Files of somebody's own brought in: read, shown, made into entries, taken back."""
