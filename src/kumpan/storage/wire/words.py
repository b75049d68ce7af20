"""The words that stored rows may hold, closed as of each version.

A word may be added; none may be renamed or taken away.
"""

from typing import Literal

CellKindWord = Literal["plain", "self_cleaning"]
ChlorinationWord = Literal["liquid", "granules", "tablets", "salt_cell", "mineral"]
ClarityWord = Literal["clear", "hazy", "cloudy", "drain_hidden", "green"]
ContainerKindWord = Literal["cup", "jug", "scoop", "scale"]
CoverWord = Literal["none", "solid", "mesh"]
DeadWayWord = Literal["stir", "settle"]
FilterWord = Literal["sand", "cartridge", "de"]
FixtureKindWord = Literal["skimmer", "return", "drain"]
HazardWord = Literal[
    "none",
    "open_water",
    "powder",
    "acid",
    "alkali",
    "caustic",
    "borate",
    "oxidiser_liquid",
    "oxidiser_granules",
    "tablets",
    "heat_of_solution",
    "electricity",
    "pressure",
    "shell",
    "shell_wash",
    "soiled_water",
    "valve",
    "cell",
    "cell_acid",
    "silica",
    "suction",
]
LevelWord = Literal["low", "normal", "high"]
MeasureWord = Literal[
    "free_chlorine",
    "total_chlorine",
    "combined_chlorine",
    "ph",
    "total_alkalinity",
    "calcium_hardness",
    "cyanuric_acid",
    "salt",
    "borate",
    "sulfate",
    "phosphate_ppb",
    "copper",
    "iron",
    "tds",
    "temperature_c",
    "saturation_index",
]
MethodWord = Literal[
    "strip", "drops", "comparator", "turbidity_tube", "photometer", "meter", "display", "shop", "thermometer"
]
NotedEventWord = Literal[
    "storm",
    "heavy_use",
    "hot_spell",
    "leaves",
    "plastered",
    "filled",
    "flood",
    "power_cut",
    "cover_on",
    "cover_off",
    "note",
]
OutcomeWord = Literal["done", "skipped"]
PhotoOfWord = Literal["look", "step", "care", "equipment", "visit", "rescue"]
PhWayWord = Literal["lowered", "raised"]
PoolKindWord = Literal["in_ground", "above_ground"]
RescueOutcomeWord = Literal["clear", "drained", "stopped"]
SeverityWord = Literal["light", "green", "opaque", "mustard", "black"]
ShapeKindWord = Literal["rectangle", "round", "ellipse", "stadium", "kidney"]
SurfaceWord = Literal["plaster", "tile", "vinyl", "fibreglass", "painted"]
WaterChangeWord = Literal["backwash", "refill", "rain", "drain"]
WhichWord = Literal["opening", "closing"]
WinterWord = Literal["frost", "mild"]
