"""The job itself, pure: no web, no database, no clock, no files. `now`, zones and seeds are arguments.

Units inside are always mg/L, L, g, mL, degrees C, meters and minutes; names carry them.
"""
