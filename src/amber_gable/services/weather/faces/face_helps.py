"""What would gain hours for a face's coat in the coming week."""

from collections.abc import Sequence

from amber_gable.core.specification.choices.candidates import goes_on
from amber_gable.core.weather.futures.members import Coat
from amber_gable.core.weather.judged.helps import Help, helps
from amber_gable.services.job.view import JobView
from amber_gable.services.weather.faces.judged_faces import JudgedFace
from amber_gable.services.workspace import digest

DAYS = 6


def face_helps(view: JobView, row: JudgedFace, rows: Sequence[JudgedFace]) -> list[Help]:
    """Most first, from now on; of the shelf's products those of the same family that may go on the surface, of methods
    those its sheet allows, of faces the others that wait for a coat. Empty for what lays no film."""
    site, coat = view.site, row.step
    if site is None or not isinstance(coat, Coat):
        return []
    tags = coat.surface.substrate.tags
    products = [p for p in view.bundle.products if p.family is coat.product.family and goes_on(p, tags)]
    faces = [(r.face.name, r.step.surface) for r in rows if isinstance(r.step, Coat) and r.face.id != row.face.id]

    def found() -> list[Help]:
        return helps(
            site.weather,
            coat,
            site.policy,
            view.bundle.job.crew,
            products,
            coat.product.methods,
            faces,
            days=DAYS,
            since=view.now.timestamp(),
        )

    seen = (view.bundle, view.weather.series, int(view.now.timestamp()) // 3600, row.face.id, coat.product, coat.method)
    return view.ctx.space.standing.get("helps" + digest(*seen, repr(coat.damp)), found)
