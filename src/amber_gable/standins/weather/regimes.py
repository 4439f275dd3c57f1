"""Kinds of day at the invented coast, and which days are which."""

from dataclasses import dataclass
from datetime import date
from hashlib import sha256


@dataclass(frozen=True)
class Regime:
    """A day's weather in figures. warmth and dryness K against the season and against the day's mean; swing half the
    range of the day, K; cloud 0-1 by night and by day; wind m/s and the bearing it comes from; rain as (first hour,
    hours, mm/h); fog until that local hour; showers: chance of a convective one in an hour of the mid-afternoon;
    breeze: how much of the sea wind comes in on such a day, 0-1."""

    warmth: float
    dryness: float
    swing: float
    cloud_night: float
    cloud_day: float
    wind: float
    wind_from: float
    rain: tuple[tuple[float, float, float], ...] = ()
    fog_until: float = 0.0
    showers: float = 0.0
    breeze: float = 0.0


REGIMES = {
    "fog": Regime(0.5, 2.2, 3.5, 0.55, 0.55, 1.6, 170, fog_until=9.0, showers=0.01, breeze=0.3),
    "fair": Regime(1.5, 6.0, 5.0, 0.15, 0.25, 2.4, 250, showers=0.015, breeze=0.7),
    "warm": Regime(4.0, 6.5, 5.5, 0.10, 0.20, 2.6, 230, showers=0.06, breeze=0.9),
    "front": Regime(0.0, 2.0, 2.0, 0.90, 1.00, 6.0, 215, rain=((6.0, 9.0, 2.2), (18.0, 2.0, 1.0))),
    "showers": Regime(-1.0, 4.0, 3.5, 0.50, 0.65, 5.0, 280, rain=((11.0, 1.0, 1.8), (15.0, 2.0, 1.2)), showers=0.25),
    "cold-clear": Regime(-3.5, 6.5, 5.5, 0.05, 0.15, 1.8, 320),
    "drying-wind": Regime(-1.0, 8.0, 4.5, 0.20, 0.30, 5.2, 300, showers=0.02),
    "grey": Regime(-0.5, 3.5, 2.5, 0.85, 0.85, 3.0, 90, showers=0.05),
}
# The demo fortnight from Saturday 12 September 2026; the weeks around it are drawn from the seed.
_DEMO_FIRST = date(2026, 9, 12)
_DEMO = "fair fog fog fair warm front cold-clear drying-wind drying-wind cold-clear fair fair grey showers fair fair"
# Weeks as they follow a front: clearing, fair, then worse again.
_WEEKS = (
    "cold-clear fair fair warm grey showers front",
    "drying-wind fair warm warm fog fair front",
    "fair fair grey grey showers cold-clear fair",
    "showers drying-wind cold-clear fair fair fog grey",
    "fog fair warm fair front showers drying-wind",
)
DEMO_SEED = "saltmarsh"


def regime_of(day: date, seed: str) -> Regime:
    """The kind of day, the same whenever it is asked."""
    offset = (day - _DEMO_FIRST).days
    demo = _DEMO.split()
    if seed == DEMO_SEED and 0 <= offset < len(demo):
        return REGIMES[demo[offset]]
    week, weekday = divmod(day.toordinal(), 7)
    pick = int.from_bytes(sha256(f"{seed}/{week}".encode()).digest()[:4], "big") % len(_WEEKS)
    return REGIMES[_WEEKS[pick].split()[weekday]]
