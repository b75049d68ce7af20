"""How answers are told to one reader: language, units, numbers and dates, and where a value stands on the
board.
"""
