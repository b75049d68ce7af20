"""Outside devices: the adapter that reads them, the program that polls, and the simulated stand-in."""
