"""The three stateless endpoints that other programs and outside checks call. Stable."""

from fastapi import APIRouter

from kumpan.core.quantities.readings import Measure
from kumpan.services.treatments.calculations import Dilution, after, analyze, preview
from kumpan.web.requests.calculations import AfterRequest, AnalysisRequest, PreviewRequest
from kumpan.web.responses.calculations import AfterView, Analysis, Plan
from kumpan.web.scope import ReaderDep

router = APIRouter(prefix="/api/v1", tags=["calculation"])


@router.post("/water/analysis")
def analysis(request: AnalysisRequest, reader: ReaderDep) -> Analysis:
    """What one set of readings says together: indices, active chlorine, what is missing."""
    return Analysis.of(analyze(request.readings.to_core()), reader)


@router.post("/water/after")
def water_after(request: AfterRequest, reader: ReaderDep) -> AfterView:
    """The readings after dilution and additions, mixed, closed to the air."""
    dilution = request.dilution
    return AfterView.of(
        after(
            request.readings.to_core(),
            request.volume_l,
            [addition.to_core() for addition in request.additions],
            Dilution(dilution.fraction, dilution.fill.to_core()) if dilution else None,
        ),
        reader,
    )


@router.post("/treatments/preview")
def treatment_preview(request: PreviewRequest, reader: ReaderDep) -> Plan:
    """The whole plan for one water: steps in order, the predicted water, what stays unmet."""
    named = request.targets.model_dump(exclude_none=True)
    return Plan.of(
        preview(
            request.readings.to_core(),
            request.pool.volume_l,
            traits=request.pool.traits(),
            targets={Measure(name): value for name, value in named.items()},
            profile_key=request.school,
            inventory=None if request.shelf is None else [product.to_core() for product in request.shelf],
            kit_key=request.kit,
            volume_uncertainty_percent=request.volume_doubt_percent,
        ),
        reader,
    )
