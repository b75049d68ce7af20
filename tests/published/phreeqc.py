"""PHREEQC as the outside reference: phreeqpython 1.6.2 with phreeqc.dat, and the added species of the engine.

PHREEQC 3: Parkhurst & Appelo 2013, USGS Techniques and Methods 6-A43. Cyanurates: O'Brien, Morris &
Butler 1974. Hypochlorous acid: Morris 1966. The added constants are quoted from memory.
"""

from functools import cache
from pathlib import Path

import phreeqpython

from kumpan.core.chemistry.speciation import Totals

# Cyanuric acid and hypochlorite as elements of their own, so that PHREEQC runs no redox on them.
_MASTER = """
SOLUTION_MASTER_SPECIES
 Cya  H3Cya  0  129.07  129.07
 Hoc  HHoc   0  51.45   51.45
SOLUTION_SPECIES
 H3Cya = H3Cya
  log_k 0
 HHoc = HHoc
  log_k 0
 HHoc = Hoc- + H+
  -analytical_expression 10.0686 -0.0253 -3000
 H3Cya = H2Cya- + H+
  log_k -6.88
 H3Cya = HCya-2 + 2H+
  log_k -18.28
 H3Cya = Cya-3 + 3H+
  log_k -31.78
 H3Cya + HHoc = H3CyaHHoc
  log_k 4.07
 H3Cya + HHoc = H2CyaHHoc- + H+
  log_k -1.26
 H3Cya + HHoc = HCyaHHoc-2 + 2H+
  log_k -11.38
 H3Cya + 2HHoc = H3Cya(HHoc)2
  log_k 7.00
 H3Cya + 2HHoc = H2Cya(HHoc)2- + H+
  log_k 3.25
 H3Cya + 3HHoc = H3Cya(HHoc)3
  log_k 8.80
END
"""


class Reference:
    """PHREEQC with our species; pH always comes from its own charge balance."""

    def __init__(self) -> None:
        folder = Path(phreeqpython.__file__).parent / "database"
        self.pp = phreeqpython.PhreeqPython(database="phreeqc.dat", database_directory=folder)
        self.pp.ip.run_string(_MASTER)

    def solution(self, totals: Totals) -> phreeqpython.Solution:
        """A solution of the same conserved totals."""
        mmol = {
            "Ca": totals.calcium,
            "Cl": totals.chloride,
            "Na": totals.sodium,
            "K": totals.potassium,
            "S(6)": totals.sulfate,
            "B": totals.borate,
            "Cya": totals.cyanurate,
            "Hoc": totals.chlorine,
            "C(4)": totals.carbon,
        }
        composition: dict[str, object] = {"temp": totals.temperature_c, "units": "mmol/kgw", "pH": "7 charge"}
        composition |= {name: value * 1e3 for name, value in mmol.items() if value > 0}
        return self.pp.add_solution(composition)

    def acid_to_end_point(self, totals: Totals) -> float:
        """mmol of HCl per kg that a titration to pH 4.5 takes, found by bisection on PHREEQC's pH."""
        low, high = 0.0, 40.0
        for _ in range(40):
            middle = (low + high) / 2
            with_acid = totals._replace(
                chloride=totals.chloride + middle / 1e3, alkalinity=totals.alkalinity - middle / 1e3
            )
            solution = self.solution(with_acid)
            low, high = (middle, high) if solution.pH > 4.5 else (low, middle)
            solution.forget()
        return (low + high) / 2


@cache
def reference() -> Reference:
    return Reference()
