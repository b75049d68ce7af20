"""The invented scenario: the Alderbank district. No real person, place, firm or brand."""
