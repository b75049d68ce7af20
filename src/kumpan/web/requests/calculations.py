"""The stable calculation interface: bodies and answers of the three stateless endpoints.

Units: mg/L (ppm) as in `Readings`, L, g, mL, minutes, degrees C.
"""

from typing import Annotated

from pydantic import Field

from kumpan.core.pool.equipment import Chlorination, Filter, Surface, Traits
from kumpan.core.products.product import Addition, Product
from kumpan.core.quantities.readings import Readings
from kumpan.core.ranges.profiles import ProfileKey
from kumpan.web.requests.base import (
    Amount,
    Concentration,
    Density,
    Fraction,
    PhValue,
    StrengthPercent,
    Strict,
    StrictBool,
    TemperatureC,
    VolumeL,
)


class ReadingsIn(Strict):
    """All optional; null or absent means not known. mg/L, temperature in C, phosphate in ug/L."""

    free_chlorine: Concentration | None = Field(None, description="mg/L as Cl2")
    total_chlorine: Concentration | None = Field(None, description="mg/L as Cl2")
    ph: PhValue | None = None
    total_alkalinity: Concentration | None = Field(None, description="mg/L as CaCO3, as titrated to pH 4.5")
    calcium_hardness: Concentration | None = Field(None, description="mg/L as CaCO3")
    cyanuric_acid: Concentration | None = Field(None, description="mg/L")
    salt: Concentration | None = Field(None, description="all chloride, mg/L as NaCl")
    borate: Concentration | None = Field(None, description="mg/L as B")
    sulfate: Concentration | None = Field(None, description="mg/L as SO4")
    phosphate_ppb: Concentration | None = Field(None, description="ug/L as PO4")
    copper: Concentration | None = Field(None, description="mg/L")
    iron: Concentration | None = Field(None, description="mg/L")
    tds: Concentration | None = Field(None, description="total dissolved solids, mg/L")
    temperature_c: TemperatureC | None = Field(None, description="degrees C")

    def to_core(self) -> Readings:
        return Readings(**self.model_dump())


class AdditionIn(Strict):
    """An amount of one chemical: `mass_g`, or for liquids `volume_ml`; exactly one of the two."""

    chemical: str = Field(max_length=60)
    strength_percent: StrengthPercent
    mass_g: Amount | None = None
    volume_ml: Amount | None = None
    density_g_per_ml: Density | None = None

    def to_core(self) -> Addition:
        return Addition(**self.model_dump())


class DilutionIn(Strict):
    """That fraction of the water drained, then replaced by `fill`."""

    fraction: Fraction
    fill: ReadingsIn


class AnalysisRequest(Strict):
    readings: ReadingsIn


class AfterRequest(Strict):
    readings: ReadingsIn
    volume_l: VolumeL
    additions: Annotated[list[AdditionIn], Field(max_length=100)] = []
    dilution: DilutionIn | None = None


class PoolIn(Strict):
    volume_l: VolumeL
    surface: Surface
    chlorination: Chlorination
    filter: Filter
    indoor: StrictBool = False
    covered: StrictBool = False

    def traits(self) -> Traits:
        return Traits(
            surface=self.surface,
            chlorination=self.chlorination,
            filter=self.filter,
            indoor=self.indoor,
            covered=self.covered,
        )


class TargetsIn(Strict):
    """Targets that go before the school's; what is not named comes from the school."""

    free_chlorine: Concentration | None = None
    ph: PhValue | None = None
    total_alkalinity: Concentration | None = None
    calcium_hardness: Concentration | None = None
    cyanuric_acid: Concentration | None = None
    salt: Concentration | None = None
    borate: Concentration | None = None


class ProductIn(Strict):
    id: str = Field(min_length=1, max_length=100)
    chemical: str = Field(max_length=60)
    strength_percent: StrengthPercent
    package_g: Annotated[Amount, Field(ge=0.1)] | None = None
    package_ml: Annotated[Amount, Field(ge=0.1)] | None = None
    density_g_per_ml: Density | None = None

    def to_core(self) -> Product:
        return Product(**self.model_dump())


class PreviewRequest(Strict):
    pool: PoolIn
    readings: ReadingsIn
    targets: TargetsIn = TargetsIn()
    school: ProfileKey = ProfileKey.HOUSEHOLD
    shelf: Annotated[list[ProductIn], Field(max_length=200)] | None = None
    kit: Annotated[str, Field(max_length=40, description="what it was tested with: the readings' doubt")] = (
        "drops"
    )
    volume_doubt_percent: Annotated[float, Field(ge=0, le=100, allow_inf_nan=False)] = 15.0
