"""How fast a job goes: the rates and factors that hold for its company, its crew, its cold days and the way up."""

from collections.abc import Mapping
from dataclasses import dataclass, field

from amber_gable.core.survey.drawing.heights import Heights
from amber_gable.domain.job.job import JobBundle
from amber_gable.domain.work.access import REACHES, Access
from amber_gable.domain.work.rates import PACE_FACTORS, RATES, PaceFactor, Rate, factors_with, rates_with
from amber_gable.domain.work.working import Skill

_SKILL_FACTOR = {Skill.MIXED: "mixed-crew", Skill.LEARNING: "learning-crew"}


@dataclass(frozen=True)
class Factor:
    """What makes an hour's work more or less than usual, by name; or `part`: how much of a figure is meant that several
    steps share."""

    name: str
    value: float
    part: bool = False


@dataclass(frozen=True)
class Pace:
    """`cold_share`: of the work, how much is done below 8 °C. `access`: the way up by face, a ladder where none is
    named."""

    rates: Mapping[str, Rate] = field(default_factory=lambda: RATES)
    factors: Mapping[str, PaceFactor] = field(default_factory=lambda: PACE_FACTORS)
    people: int = 2
    skill: Skill = Skill.EXPERIENCED
    cold_share: float = 0.0
    access: Mapping[str, Access] = field(default_factory=dict)

    def way_up(self, face: str) -> Access:
        return self.access.get(face, Access.LADDER)

    def factor(self, code: str) -> Factor:
        return Factor(self.factors[code].words, self.factors[code].value)

    def on_everything(self) -> tuple[Factor, ...]:
        """Factors of all work by hand: who does it, and how cold it is."""
        out = []
        if self.skill in _SKILL_FACTOR:
            out.append(self.factor(_SKILL_FACTOR[self.skill]))
        if self.cold_share > 0:
            cold = self.factors["cold"]
            out.append(Factor(f"{_share(self.cold_share)}{cold.words}", 1 + self.cold_share * (cold.value - 1)))
        return tuple(out)

    def high(self, heights: Heights, face: str) -> tuple[Factor, ...]:
        """Factors of work from a ladder, by the share of it that lies high; none from a tower or lift."""
        if not heights.high or self.way_up(face) is not Access.LADDER:
            return ()
        above_3, above_6 = self.factors["above-3"], self.factors["above-6"]
        between = heights.above_3 - heights.above_6
        value = 1 + between * (above_3.value - 1) + heights.above_6 * (above_6.value - 1)
        words = above_6.words if heights.above_6 >= 1 else above_3.words
        out = [Factor(f"{_share(heights.above_3)}{words}", value)]
        if self.people == 1:
            solo = self.factors["solo"]
            out.append(Factor(f"{_share(heights.above_3)}{solo.words}", 1 + heights.above_3 * (solo.value - 1)))
        return tuple(out)

    def places(self, heights: Heights, face: str, *, sprayed: bool) -> float:
        """How often a ladder, tower or lift is set up to get round once."""
        reach = REACHES[self.way_up(face)]
        return heights.run_m / (reach.sprayed_m if sprayed else reach.by_hand_m) + heights.spots


USUAL_PACE = Pace()


def pace_of(bundle: JobBundle) -> Pace:
    """The pace of a job."""
    plan = bundle.job.estimating
    return Pace(
        rates_with(bundle.company.rates),
        factors_with(bundle.company.factors),
        bundle.job.crew.people,
        bundle.job.crew.skill,
        plan.cold_pct / 100,
        {face: choice.access for face, choice in plan.access.items()},
    )


def _share(share: float) -> str:
    return "" if share > 0.995 else f"{share * 100:.0f} % "
