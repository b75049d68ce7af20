"""What comes in over HTTP: strict models, read into inner units at this door."""
