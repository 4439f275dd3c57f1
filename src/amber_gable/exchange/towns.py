"""Towns of the world with where they lie and their time zone, shipped with the program: nobody is asked for them.

Data of GeoNames (geonames.org) under CC BY 4.0, made by scripts/make_towns.py.
"""

import lzma
import unicodedata
from bisect import bisect_left
from dataclasses import dataclass
from functools import cache
from importlib.resources import files

import numpy as np
import numpy.typing as npt

from amber_gable.core.weather.outdoors.air import Array

EARTH_KM = 6371.0
NEAR_HOME_KM = 400.0


@dataclass(frozen=True)
class Town:
    """`region` is a state where the country is known by its states, else empty."""

    name: str
    country: str
    region: str
    latitude: float
    longitude: float
    time_zone: str
    people: int

    @property
    def words(self) -> str:
        return ", ".join(filter(None, (self.name, self.region, self.country)))


@dataclass(frozen=True)
class _Towns:
    """All of them in the order of their folded names; their places (N,), degrees, and people (N,). `globe`: where they
    lie on a ball of radius 1 (N, 3)."""

    lines: list[str]
    folded: list[str]
    latitude: Array
    longitude: Array
    people: Array
    globe: Array

    def town(self, n: int) -> Town:
        name, country, region, latitude, longitude, time_zone, people = self.lines[n].split("\t")
        return Town(name, country, region, float(latitude), float(longitude), time_zone, int(people))

    def where(self, n: int) -> str:
        """Its region and country, folded."""
        _, country, region, _ = self.lines[n].split("\t", 3)
        return folded(f"{region} {country}")

    def beginning(self, name: str) -> range:
        """Those whose folded name begins so."""
        return range(bisect_left(self.folded, name), bisect_left(self.folded, name + LAST))


_OTHERS = {"ø": "o", "ł": "l", "đ": "d", "ð": "d", "þ": "th", "æ": "ae", "œ": "oe", "ı": "i", "ħ": "h", "ŧ": "t"}
_LETTERS = str.maketrans({**_OTHERS, "’": None, "'": None})
"""What no accent can be taken off, and what is left out."""


LAST = chr(0x10FFFF)
"""Comes after every letter."""


def folded(text: str) -> str:
    """Without accents, case and points, as people type."""
    if text.isascii() and text.isalpha():
        return text.lower()
    plain = unicodedata.normalize("NFKD", text.casefold().translate(_LETTERS))
    return " ".join("".join(c if c.isalnum() else " " for c in plain if not unicodedata.combining(c)).split())


@cache
def _towns() -> _Towns:
    data = (files("amber_gable.exchange") / "towns.tsv.xz").read_bytes()
    lines = [line for line in lzma.decompress(data).decode("utf-8").splitlines() if not line.startswith("#")]
    # Places are read at once, a town only when it is found: the first who looks one up waits for this.
    cells = [line.split("\t") for line in lines]
    names = [folded(c[0]) for c in cells]
    by_name = sorted(range(len(lines)), key=names.__getitem__)
    latitude, longitude, people = (np.array([float(cells[n][at]) for n in by_name]) for at in (3, 4, 6))
    globe = _on_ball(latitude, longitude)
    return _Towns([lines[n] for n in by_name], [names[n] for n in by_name], latitude, longitude, people, globe)


def find_towns(text: str, home: tuple[float, float] | None = None, most: int = 8) -> list[Town]:
    """Towns of a name, or beginning with it; behind a comma may stand what must be in country or state. Those whose
    name it is come first, of these the ones near `home` (latitude, longitude), then the larger ones."""
    name, _, behind = text.partition(",")
    wanted, where = folded(name), folded(behind)
    if len(wanted) < 2:
        return []
    every = _towns()
    at = [n for n in every.beginning(wanted) if not where or where in every.where(n)]
    away = None if home is None or not at else distance_km(every.latitude[at], every.longitude[at], *home)

    def order(place: int) -> tuple[bool, bool, float]:
        n = at[place]
        near = away is not None and bool(away[place] <= NEAR_HOME_KM)
        return every.folded[n] != wanted, not near, -every.people[n]

    return [every.town(at[place]) for place in sorted(range(len(at)), key=order)[:most]]


def nearest_town(latitude: float, longitude: float) -> tuple[Town, float]:
    """The nearest, and how far away it is, km."""
    every = _towns()
    n = int((every.globe @ _on_ball(latitude, longitude)).argmax())
    return every.town(n), float(distance_km(every.latitude[n], every.longitude[n], latitude, longitude))


def _on_ball(latitude: npt.ArrayLike, longitude: npt.ArrayLike) -> Array:
    """(…, 3). Of two such the product is the larger, the nearer they lie."""
    lat, lon = np.radians(latitude), np.radians(longitude)
    return np.stack([np.cos(lat) * np.cos(lon), np.cos(lat) * np.sin(lon), np.sin(lat)], axis=-1)


def distance_km(latitudes: npt.ArrayLike, longitudes: npt.ArrayLike, latitude: float, longitude: float) -> Array:
    """Along great circles (haversine); degrees in."""
    lat, lon, here, there = (np.radians(a) for a in (latitudes, longitudes, latitude, longitude))
    half = np.sin((lat - here) / 2) ** 2 + np.cos(lat) * np.cos(here) * np.sin((lon - there) / 2) ** 2
    return np.asarray(2 * EARTH_KM * np.arcsin(np.sqrt(half)))
