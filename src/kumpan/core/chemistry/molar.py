"""Molar masses, g/mol, from the standard atomic weights (IUPAC 2021, abridged, quoted from memory).

A test derives each one again from a general reference library.
"""

SOURCE = "mass-balance"

H, B, C, N, O = 1.008, 10.81, 12.011, 14.007, 15.999  # noqa: E741
NA, S, CL, K, CA, CU = 22.990, 32.06, 35.45, 39.098, 40.078, 63.546

CHLORINE = 2 * CL
CALCIUM_CARBONATE = CA + C + 3 * O
ALKALINITY_EQUIVALENT_AS_CACO3 = CALCIUM_CARBONATE / 2
CYANURIC_ACID = 3 * (C + H + N + O)
SODIUM_CHLORIDE = NA + CL
SODIUM_BICARBONATE = NA + H + C + 3 * O
SODIUM_CARBONATE = 2 * NA + C + 3 * O
SODIUM_BISULFATE = NA + H + S + 4 * O
SODIUM_HYDROXIDE = NA + O + H
HYDROGEN_CHLORIDE = H + CL
CALCIUM_CHLORIDE = CA + 2 * CL
BORAX_DECAHYDRATE = 2 * NA + 4 * B + 7 * O + 10 * (2 * H + O)
BORIC_ACID = B + 3 * (O + H)
SODIUM_THIOSULFATE_PENTAHYDRATE = 2 * NA + 2 * S + 3 * O + 5 * (2 * H + O)
POTASSIUM_PEROXYMONOSULFATE = K + H + S + 5 * O
SULFATE = S + 4 * O
