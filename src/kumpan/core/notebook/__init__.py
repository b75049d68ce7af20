"""What somebody wrote down in a table of their own: columns guessed, rows read, each with its doubt."""
