"""Settings: the rates that hours are reckoned by."""

from collections.abc import Mapping

from fastapi import APIRouter, Request, UploadFile
from starlette.responses import RedirectResponse, Response

from amber_gable.domain.errors import InputError, Refused
from amber_gable.domain.work.operation import AmountUnit
from amber_gable.domain.work.rates import PACE_FACTORS, RATES
from amber_gable.services.company.rates import bring_rates, keep_rates, own_factors, own_rates, rates_file, shown
from amber_gable.web.asking import context_of
from amber_gable.web.pages import Fields, page, typed_system, units_of

router = APIRouter(prefix="/settings/rates")
_GROUPS = (
    (AmountUnit.M2, "By the surface", "area", "an hour"),
    (AmountUnit.M, "By the length", "run", "an hour"),
    (AmountUnit.PIECES, "By the piece", "", "minutes each"),
)


@router.get("")
def rates(request: Request) -> Response:
    return _page(request, {}, {})


def _page(request: Request, typed: Mapping[str, str], faults: Mapping[str, str], trouble: str = "") -> Response:
    units, own, factors = units_of(request), own_rates(context_of(request)), own_factors(context_of(request))
    groups = [
        {
            "name": name,
            "unit": f"{units.symbol(kind)} {words}" if kind else words,
            "rows": [
                {
                    "rate": r,
                    "usual": shown(r, r.per_hour, units.system),
                    "typed": typed.get(f"rate.{r.code}")
                    or (shown(r, own[r.code].per_hour, units.system) if r.code in own and not typed else ""),
                    "own": own.get(r.code),
                    "fault": faults.get(f"rate.{r.code}", ""),
                }
                for r in RATES.values()
                if r.unit is unit
            ],
        }
        for unit, name, kind, words in _GROUPS
    ]
    context = {
        "groups": groups,
        "factors": [
            {
                "factor": f,
                "typed": typed.get(f"factor.{f.code}")
                or (f"{factors[f.code]:g}" if f.code in factors and not typed else ""),
                "own": f.code in factors,
                "fault": faults.get(f"factor.{f.code}", ""),
            }
            for f in PACE_FACTORS.values()
        ],
        "faults": faults,
        "trouble": trouble,
        "said": request.query_params.get("said", "")[:9],
        "system": units.system.value,
    }
    return page(request, "settings/rates.html", context, 422 if faults or trouble else 200)


@router.post("")
def keep(request: Request, form: Fields) -> Response:
    try:
        keep_rates(context_of(request), form, typed_system(request, form))
    except Refused as error:
        return _page(request, form, error.fields)
    return RedirectResponse("/settings/rates?said=kept", 303)


@router.get(".csv")
def take_out(request: Request) -> Response:
    return Response(
        rates_file(context_of(request)).encode("utf-8-sig"),
        media_type="text/csv; charset=utf-8",
        headers={"content-disposition": 'attachment; filename="rates.csv"'},
    )


@router.post(".csv")
def bring(request: Request, file: UploadFile) -> Response:
    try:
        bring_rates(context_of(request), file.file.read(), file.filename or "rates.csv")
    except InputError as error:
        return _page(request, {}, {}, str(error))
    return RedirectResponse("/settings/rates?said=brought", 303)
