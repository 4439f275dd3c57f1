"""What the lanes are asked about: which step of every face, or a product, and by which method."""

from dataclasses import dataclass

from amber_gable.domain.paint.method import Method
from amber_gable.domain.paint.product import Product
from amber_gable.services.job.view import JobView
from amber_gable.services.weather.faces.judged_faces import JudgedFace, Which, judged_faces


@dataclass(frozen=True)
class LaneQuestion:
    """`product`: a sheet's code, or a `Which`; what is not known counts as not said."""

    product: str = ""
    method: str = ""

    @property
    def which(self) -> Which:
        return Which(self.product) if self.product in set(Which) else Which.NEXT

    @property
    def by(self) -> Method | None:
        return Method(self.method) if self.method in set(Method) else None

    def sheet(self, view: JobView) -> Product | None:
        return next((p for p in view.bundle.products if p.code == self.product), None)

    def rows(self, view: JobView) -> list[JudgedFace]:
        """Every face judged; none without a climate."""
        return [] if view.site is None else judged_faces(view, view.site, self.sheet(view), self.by, self.which)

    @property
    def query(self) -> dict[str, str]:
        """As it stands in an address."""
        return {k: v for k, v in (("product", self.product), ("method", self.method)) if v}
