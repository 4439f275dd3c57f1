"""An estimate's tables as files."""

from amber_gable.services.job.view import JobView
from amber_gable.services.quantities.quantities import kept_quantities

TABLES = ("work", "purchase")


def estimate_csv(view: JobView, table: str) -> bytes:
    from amber_gable.exchange.job.estimate_tables import purchase_csv, work_csv

    made = work_csv if table == "work" else purchase_csv
    # Spreadsheets read UTF-8 where the file says so.
    return made(kept_quantities(view).estimate).encode("utf-8-sig")


def estimate_workbook(view: JobView, table: str) -> bytes:
    from amber_gable.exchange.job.estimate_tables import purchase_workbook, work_workbook

    made = work_workbook if table == "work" else purchase_workbook
    return made(kept_quantities(view).estimate)
