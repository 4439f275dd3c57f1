"""The heat and water balance stepped through time (docs/physics.md §4), compiled, with its twin in plain numpy.

All arrays have time first, (T, R), so that one step of all rows lies together in memory. A row is one surface in the
weather of one member.
"""

import math
from dataclasses import dataclass

import numpy as np

from amber_gable.core.weather.outdoors.air import (
    ICE_A,
    ICE_B,
    ICE_C,
    KELVIN,
    Array,
    Ints,
    saturation_over_face,
    vapour_density,
)
from amber_gable.core.weather.wall.compiled import Loop
from amber_gable.domain.grid import STEP_S

LATENT_HEAT = 2.45e6
SUBLIMATION_HEAT = 2.83e6
"""J/kg of water, and of ice below 0 °C."""
AIR_HEAT_CAPACITY = 1.2 * 1006.0
LEWIS_TERM = 0.91
"""Le^(2/3) for water vapour in air, Le = 0.87."""
CONVECTION_FLOOR = 0.5
_EXCHANGE = AIR_HEAT_CAPACITY * LEWIS_TERM
_R_VAPOUR, _MAGNUS_A, _MAGNUS_B, _MAGNUS_C = 461.5, 610.94, 17.625, 243.04


@dataclass(frozen=True)
class Balance:
    """What drives the rows: absorbed and received W/m² and forced convection squared (T, R), rain kg/(m² s) (T, R),
    air °C and its vapour kg/m³ (T, M), `member` (R,) which of the M each row lies in; of each row (R,): emissivity × σ,
    heat stored W/(m² K), conductance behind it, most water it holds kg/m², natural convection when warmer and when
    colder than the air."""

    gain: Array
    forced_squared: Array
    rain: Array
    air: Array
    vapour: Array
    member: Ints
    emissivity_sigma: Array
    storage: Array
    u: Array
    film_max: Array
    natural_warm: Array
    natural_cold: Array


Stepped = tuple[Array, Array, Array, Array, Array]
"""Surface °C, film kg/m², convection W/(m² K), each (T, R), and temperature and film at the end, (R,)."""


def step_through(b: Balance, t: Array, w: Array, count: int) -> Stepped:
    """The first `count` steps from temperatures t (°C) and films w (kg/m²), both (R,)."""
    compiled = LOOP.code_for(count * (1 + len(t) // 50))
    if compiled is None:
        return step_plainly(b, t, w, count)
    surface, film, convection = (np.empty((count, len(t))) for _ in range(3))
    t, w = t.copy(), w.copy()
    compiled(
        b.gain, b.forced_squared, b.rain, b.air, b.vapour, b.member, b.emissivity_sigma, b.storage, b.u, b.film_max,
        b.natural_warm, b.natural_cold, t, w, surface, film, convection, count,
    )  # fmt: skip
    return surface, film, convection, t, w


def step_plainly(b: Balance, t: Array, w: Array, count: int) -> Stepped:
    """The same in numpy, all rows of a step at once."""
    surface, film, convection = (np.empty((count, len(t))) for _ in range(3))
    for k in range(count):
        air = b.air[k, b.member]
        difference = t - air
        buoyancy = np.where(difference < 0, b.natural_cold, b.natural_warm) * np.cbrt(np.abs(difference))
        h = np.sqrt(buoyancy**2 + b.forced_squared[k]) + CONVECTION_FLOOR
        exchange = h / _EXCHANGE
        kelvin = t + KELVIN
        icy = t < 0.0
        saturated = vapour_density(saturation_over_face(t), t)
        latent = np.where(icy, SUBLIMATION_HEAT, LATENT_HEAT)
        flux = exchange * (b.vapour[k, b.member] - saturated)
        # Rain that falls on a dry face may dry off it in the same step.
        wet = (flux > 0) | (w > 0) | (b.rain[k] > 0)
        # d(saturated)/dT from Clausius-Clapeyron in its Magnus form.
        factor, place = np.where(icy, ICE_B, _MAGNUS_B), np.where(icy, ICE_C, _MAGNUS_C)
        slope = np.where(wet, exchange * saturated * (factor * place / (place + t) ** 2 - 1 / kelvin), 0.0)
        flux = np.where(wet, flux, 0.0)
        drying_limit = -(w / STEP_S + b.rain[k])
        limited = flux < drying_limit
        flux, slope = np.where(limited, drying_limit, flux), np.where(limited, 0.0, slope)
        radiated = b.emissivity_sigma * kelvin**4
        gain = b.gain[k] - radiated - h * difference - b.u * t + latent * flux
        stiffness = b.storage + 4 * radiated / kelvin + h + b.u + latent * slope
        change = gain / stiffness
        t = t + change
        flux = np.maximum(flux - slope * change, drying_limit)
        w = np.minimum(np.maximum(w + STEP_S * (flux + b.rain[k]), 0.0), b.film_max)
        surface[k], film[k], convection[k] = t, w, h
    return surface, film, convection, t, w


def _loop(
    gain: Array,
    forced_squared: Array,
    rain: Array,
    air: Array,
    vapour: Array,
    member: Ints,
    emissivity_sigma: Array,
    storage: Array,
    u: Array,
    film_max: Array,
    natural_warm: Array,
    natural_cold: Array,
    t: Array,
    w: Array,
    surface: Array,
    film: Array,
    convection: Array,
    count: int,
) -> None:
    for k in range(count):
        for f in range(t.size):
            temperature, water, m = t[f], w[f], member[f]
            difference = temperature - air[k, m]
            natural = natural_cold[f] if difference < 0 else natural_warm[f]
            buoyancy = natural * abs(difference) ** (1.0 / 3.0)
            h = math.sqrt(buoyancy * buoyancy + forced_squared[k, f]) + CONVECTION_FLOOR
            exchange = h / _EXCHANGE
            kelvin = temperature + KELVIN
            start, factor, place, latent = _MAGNUS_A, _MAGNUS_B, _MAGNUS_C, LATENT_HEAT
            if temperature < 0.0:
                start, factor, place, latent = ICE_A, ICE_B, ICE_C, SUBLIMATION_HEAT
            pressure = start * math.exp(factor * temperature / (place + temperature))
            saturated = pressure / (_R_VAPOUR * kelvin)
            flux = exchange * (vapour[k, m] - saturated)
            slope = 0.0
            if flux > 0 or water > 0 or rain[k, f] > 0:
                steepness = factor * place / (place + temperature) ** 2 - 1.0 / kelvin
                slope = exchange * saturated * steepness
            else:
                flux = 0.0
            drying_limit = -(water / STEP_S + rain[k, f])
            if flux < drying_limit:
                flux, slope = drying_limit, 0.0
            radiated = emissivity_sigma[f] * kelvin**4
            balance = gain[k, f] - radiated - h * difference - u[f] * temperature + latent * flux
            change = balance / (storage[f] + 4.0 * radiated / kelvin + h + u[f] + latent * slope)
            temperature += change
            flux = max(flux - slope * change, drying_limit)
            water = min(max(water + STEP_S * (flux + rain[k, f]), 0.0), film_max[f])
            t[f], w[f] = temperature, water
            surface[k, f], film[k, f], convection[k, f] = temperature, water, h


LOOP = Loop(_loop, "f2 f2 f2 f2 f2 i1 f1 f1 f1 f1 f1 f1 w1 w1 w2 w2 w2 n")
