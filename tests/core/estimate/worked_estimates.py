"""The hours of the five demo jobs, worked out by hand from the drawings and trade.md §17: arithmetic, and nothing of
the program. Amount ÷ what one person does in an hour × factors. Surfaces: width × height less openings above 1.5 m²,
× profile factor, as the take-off is worked by hand elsewhere (test_worked_takeoff.py)."""

WET = 1.5  # for lead and silica: wet or under a shroud
MISTED = 1.2  # cut out wet
LAP = 1.08  # lap of 150 mm with a butt of 12 mm
MOVE = 4 / 60  # a ladder moved


def _sash(high: bool, *, putty: bool = False, surface: float = 0.0) -> dict[str, float]:
    """Two panes a sash: 0.55 h to prepare it once, 0.9 h a coat. 45 % of the preparation frees and scrapes it, 30 %
    dulls, 15 % washes, 10 % dusts. Upstairs ×1.15, and a ladder set up for each round."""
    up = 1.15 if high else 1.0
    out = {
        "wash": 0.15 * 0.55 * up,
        "free": 0.45 * 0.55 * MISTED * up,
        "dull": 0.30 * 0.55 * WET * up,
        "dust": 0.10 * 0.55 * up,
        "coat-1": 0.9 * up,
        "coat-2": 0.9 * up,
        "move-coat-1": up / 20,  # moved after every coat
        "refit": up / 20,
    }
    if putty:  # 8 % loose; 4.6 m of putty, out 4 m an hour, in 7; rebates 5 % and spots 9.6 % of a coat
        out |= {
            "scrape": 0.08 * surface / 7.5 * WET * up,
            "putty-out": 4.6 / 4 * MISTED * up,
            "putty": 4.6 / 7 * up,
            "prime-rebates": 0.05 * 0.9 * up,
            "feather": 0.096 * 0.3 * 0.55 * WET * up,
            "prime-spots": 0.096 * 0.9 * up,
        }
    if high:  # free, dull, two coats; with putty: out and dulled, feathered, two primers, putty, two coats
        out["moves"] = (7 if putty else 4) * MOVE
    return out


def _shutters(surface: float, *, high: bool) -> dict[str, float]:
    """0.25 h a pair off and on, 0.4 upstairs; brushed 0.4 h a shutter, ×1.4 for louvres; worked on the ground."""
    each_way = (0.4 if high else 0.25) / 2
    coat = 2 * 0.4 * 1.4
    return {
        "take-down": each_way,
        "wash": surface / 30,
        "dull": surface / 20 * WET,
        "dust": surface / 25,
        "coat-1": coat,
        "coat-2": coat,
        "refit": each_way,
    }


_CONTAINED = {"contain": 3.0, "daily-clean": 0.5, "final-check": 0.25}
"""Once for a face, with the work that disturbs its old paint."""


def _trim(metres: float, surface: float, up: float, run: float) -> dict[str, float]:
    """10 m/h a coat; washed, dulled wet and dusted by its surface; the ladder goes along four times."""
    return {
        "wash": surface / 30 * up,
        "dull": surface / 20 * WET * up,
        "dust": surface / 25 * up,
        "coat-1": metres / 10 * up,
        "coat-2": metres / 10 * up,
        "moves": 4 * run / 1.8 * MOVE if run else 0.0,
    }


# 14 Cooper's Rise. Walls 5.6 m high: above 3 m lie 2.6 of 5.6 m at the front; at the gables (7.4 × 5.6 m and a
# triangle 2.6 m high) 28.86 of 51.06 m² above 3 m, 6.89 above 6 m; at the back the kitchen wing hides 4.2 × 2.8 m.
_FRONT = 1 + 0.15 * 2.6 / 5.6
_GABLE = 1 + 0.15 * (28.86 - 6.888) / 51.06 + 0.35 * 6.888 / 51.06
_BACK = 1 + 0.15 * 24.96 / 42.0
_WING = 1 + 0.15 * 0.8167 / 9.75  # 3 m wide, 2.8 to 3.7 m high: a corner of 2.333 × 0.7 / 2 above 3 m
_FRONT_M2 = (9.6 * 5.6 - 1.1 * 2.15 - 6.5) * LAP
# What is done all over goes round the openings as well: cutting in costs what they save.
_FRONT_ALL = (9.6 * 5.6 - 6.5) * LAP
_GABLE_M2 = (7.4 * 5.6 + 7.4 * 2.6 / 2 - 5.2) * LAP
_BACK_M2 = (9.6 * 5.6 - 4.2 * 2.8 - 4.8) * LAP
_WING_BACK_M2, _WING_BACK_ALL = (4.2 * 2.8 - 0.9 * 2.05) * LAP, 4.2 * 2.8 * LAP
_WING_SIDE_M2 = 3.0 * (2.8 + 3.7) / 2 * LAP
_GABLE_RUN = 7.4 * 28.86 / 7.4 / 3.5  # its upper part is 3.9 m high in the mean, more than one strip of 3.5 m
_ROUND_FRONT, _ROUND_GABLE = 9.6 / 1.8 * MOVE, _GABLE_RUN / 1.8 * MOVE
_LOOSE_F, _LOOSE_W = 0.243, 0.252
_DOOR_M2 = 1.1 * 2.15 * 1.3 + (2 * 2.15 + 1.1) * 0.18  # six panels: × 1.3, and its frame
_GLAZED_M2 = 0.9 * 2.05 * 0.55 + (2 * 2.05 + 0.9) * 0.18


def _shutter_m2(height: float) -> float:
    return 2 * 0.38 * height * 2 * 1.75 + 2 * 2 * (0.38 + height) * 0.032


def _sash_m2(height: float) -> float:
    sashes = 2 * 2 * (0.9 + height / 2) * 0.09
    return sashes + 2 * height / 2 * 0.05 + 2 * (0.9 + height) * 0.22


COOPERS_RISE = {
    "front-siding": {
        "contain": 3.0,
        "cut-back": 0.5,
        "fittings-down": 0.25 * _FRONT,
        "wash": _FRONT_ALL / 30 * _FRONT,
        "scrape": _LOOSE_F * _FRONT_M2 / 7.5 * WET * _FRONT,  # with the feathering 5 m² of failing paint an hour
        "caulk-out": 18 / 12 * MISTED * _FRONT,
        "rot": 0.23 / 0.5 * MISTED * _FRONT,
        "nails": 14 / 30 * WET * _FRONT,
        "prime-nails": 0.005 * _FRONT_M2 / 10 * _FRONT,  # heads are a two-hundredth of it at the least
        "fill-nails": 14 / 20 * _FRONT,  # cleaned and filled 12 an hour
        "feather": 1.2 * _LOOSE_F * _FRONT_M2 / 18 * WET * _FRONT,
        "fibre": 1.2 * _LOOSE_F * _FRONT_M2 / 20 * WET * _FRONT,
        "sand-fillings": 0.01 * _FRONT_M2 / 20 * WET * _FRONT,
        "daily-clean": 0.5,
        "dust": _FRONT_ALL / 25 * _FRONT,
        "prime-spots": 1.2 * _LOOSE_F * _FRONT_M2 / 10 * _FRONT,
        "prime-fillings": 0.01 * _FRONT_M2 / 10 * _FRONT,
        "caulk": 18 / 25 * _FRONT,
        "mask": 6 / 12 * _FRONT,
        "coat-1": _FRONT_ALL / 11 * _FRONT,
        "coat-2": _FRONT_ALL / 11 * _FRONT,
        "unmask": 6 * 0.025 * _FRONT,
        "fittings-back": 0.25 * _FRONT,
        "final-check": 0.25,
        # All along: old caulk out with the scraping, nails, their filling, dust with the sanding, caulk, two coats.
        # Patches lie about, so twice their share: primer on what was bared (0.583), on nail heads, on fillings (0.015).
        # Few things, as many as lie above 3 m: the lamp down and up, 0.23 m² of rot, six openings masked.
        "moves": (7 + 1.2 * _LOOSE_F * 2 + 0.015 * 2) * _ROUND_FRONT + (1 + 1 + 0.23 + 6) * 2.6 / 5.6 * MOVE,
    },
    "front-trim": _trim(51.6, 6.5, _FRONT, 9.6),
    "front-w1-item": _sash(False),
    "front-w2-item": _sash(False, putty=True, surface=_sash_m2(1.5)),
    "front-w3-item": _sash(True, putty=True, surface=_sash_m2(1.4)),
    "front-w4-item": _sash(True),
    "front-w5-item": _sash(True),
    "front-door-item": {
        "take-down": 0.25,
        "wash": _DOOR_M2 / 30,
        "dull": _DOOR_M2 / 20 * WET,
        "dust": _DOOR_M2 / 25,
        "mask": 1 / 12,
        "coat-1": 0.75,
        "coat-2": 0.75,
        "unmask": 0.025,
        "refit": 0.25,
    },
    "shutters-1": _shutters(_shutter_m2(1.5), high=False),
    "shutters-2": _shutters(_shutter_m2(1.5), high=False),
    "shutters-3": _shutters(_shutter_m2(1.4), high=True),
    "shutters-4": _shutters(_shutter_m2(1.4), high=True),
    "shutters-5": _shutters(_shutter_m2(1.4), high=True),
    "gutter-front": {  # 9.6 m and a downspout of 5.3 m; the ladder along it three times, not for washing
        "take-down": 0.25 * 1.15,
        "wash": (9.6 * 0.3 + 5.3 * 0.26) / 30 * 1.15,
        "coat-1": (9.6 + 5.3) / 15 * 1.15,
        "refit": 0.25 * 1.15,
        "moves": 3 * _ROUND_FRONT,
    },
    "west-gable-siding": {
        "contain": 3.0,
        "wash": _GABLE_M2 / 30 * _GABLE,
        "scrape": _LOOSE_W * _GABLE_M2 / 7.5 * WET * _GABLE,
        "feather": 1.2 * _LOOSE_W * _GABLE_M2 / 18 * WET * _GABLE,
        "daily-clean": 0.5,
        "dust": 1.2 * _LOOSE_W * _GABLE_M2 / 25 * _GABLE,
        "prime-spots": 1.2 * _LOOSE_W * _GABLE_M2 / 10 * _GABLE,
        "mask": 2 / 12 * _GABLE,
        "coat-1": _GABLE_M2 / 11 * _GABLE,
        "coat-2": _GABLE_M2 / 11 * _GABLE,
        "unmask": 2 * 0.025 * _GABLE,
        "final-check": 0.25,
        # Scraped; feathered and dusted; primed: twice the share. Two coats all along. Two openings masked.
        "moves": (2 * _LOOSE_W + 4 * 1.2 * _LOOSE_W + 2) * _ROUND_GABLE + 2 * 28.86 / 51.06 * MOVE,
    },
    "west-gable-trim": _trim(27.1, 5.2, _GABLE, _GABLE_RUN),
    "west-w1-item": _sash(True),
    "back-siding": {
        "cover": 0.375 * 9.6 / 10,
        "mildew": 0.30 * _BACK_M2 / 40 * _BACK,
        "wash": _BACK_M2 / 30 * _BACK,
        "mask": 2 / 12 * _BACK,
        "coat-1": _BACK_M2 / 11 * _BACK,
        "coat-2": _BACK_M2 / 11 * _BACK,
        "unmask": 2 * 0.025 * _BACK,
        "moves": 2 * _ROUND_FRONT + 2 * 24.96 / 42.0 * MOVE,  # two coats as wide as the front, two openings masked
    },
    "back-trim": _trim(28.0, 4.8, _BACK, 9.6) | _CONTAINED,
    "back-w1-item": _sash(True),
    "back-w2-item": _sash(True),
    "east-gable-siding": {
        "cover": 0.375 * 7.4 / 10,
        "wash": _GABLE_M2 / 30 * _GABLE,
        "mask": 2 / 12 * _GABLE,
        "coat-1": _GABLE_M2 / 11 * _GABLE,
        "coat-2": _GABLE_M2 / 11 * _GABLE,
        "unmask": 2 * 0.025 * _GABLE,
        "moves": 2 * _ROUND_GABLE + 2 * 28.86 / 51.06 * MOVE,
    },
    "east-gable-trim": _trim(27.1, 5.2, _GABLE, _GABLE_RUN) | _CONTAINED,
    "east-w1-item": _sash(True),
    "wing-back-siding": {
        "cover": 0.25,
        "mildew": 0.15 * _WING_BACK_M2 / 40,
        "wash": _WING_BACK_ALL / 30,
        "mask": 1 / 12,
        "coat-1": _WING_BACK_ALL / 11,
        "coat-2": _WING_BACK_ALL / 11,
        "unmask": 0.025,
    },
    "wing-door-item": {
        "take-down": 0.25,
        "wash": _GLAZED_M2 / 30,
        "dull": _GLAZED_M2 / 20 * WET,
        "dust": _GLAZED_M2 / 25,
        "mask": 1 / 12,
        "coat-1": 0.7,
        "coat-2": 0.7,
        "unmask": 0.025,
        "refit": 0.25,
        **_CONTAINED,
    },
    **{
        side: {
            **_CONTAINED,  # light chalk, scrubbed
            "wash": _WING_SIDE_M2 / 30 * _WING,
            "coat-1": _WING_SIDE_M2 / 11 * _WING,
            "coat-2": _WING_SIDE_M2 / 11 * _WING,
            "moves": 2 * 2.3333 / 1.8 * MOVE,
        }
        for side in ("wing-east-siding", "wing-west-siding")
    },
}

COOPERS_RISE_COATED_M2 = (
    _FRONT_M2 + 2 * _GABLE_M2 + _BACK_M2 + _WING_BACK_M2 + 2 * _WING_SIDE_M2
    + 6.5 + 5.2 + 4.8 + 5.2
    + 2 * _sash_m2(1.5) + 7 * _sash_m2(1.4) + _DOOR_M2 + _GLAZED_M2
    + 2 * _shutter_m2(1.5) + 3 * _shutter_m2(1.4)
    + 9.6 * 0.3 + 5.3 * 0.26
)  # fmt: skip
# About 204 h on the parts, 26 of them containment of seven faces; with looking over and the walk round 207; three
# people work 9.5 h each a day: 7.3 days, so eight days of three. Each day and
# person half an hour to begin, half to end, half on the road.
COOPERS_RISE_SITE = {
    "look-over": COOPERS_RISE_COATED_M2 / 150,
    "walk-round": 1.0,
    "day": 8 * 3 * 1.0,
    "travel": 8 * 3 * 0.5,
}


# The Net Loft. Walls 6.4 m high: 3.4 of it above 3 m, 0.4 above 6 m; the quay side has a parapet and a sign band.
STUCCO = 1.3
_LOFT = 1 + 0.15 * 3.0 / 6.4 + 0.35 * 0.4 / 6.4
# The quay side: above 3 m 41.7 of what the band leaves, 83.7 m²; above 6 m 8.1 m², 2.5 of them in the raised middle.
_QUAY = 1 + 0.15 * (41.7 - 8.1) / 83.7 + 0.35 * 8.1 / 83.7
_QUAY_RUN = 50.1 / 3.5  # its upper part, band and all, is a little higher than one strip of 3.5 m
_LOFT_S_ALL = (14 * 6.4 + 5 * 0.5 - 12 * 0.7) * STUCCO
_LOFT_S = (14 * 6.4 + 5 * 0.5 - 3.2 * 3.2 - 2 * 1.4 * 1.4 - 2 * 1.4 * 1.2 - 12 * 0.7) * STUCCO
_LOFT_W, _LOFT_N, _LOFT_E = 9 * 6.4 * STUCCO, (14 * 6.4 - 2.1) * STUCCO, (9 * 6.4 - 1.68) * STUCCO


def _loft_end(surface: float, width: float, openings: int) -> dict[str, float]:
    """Contained for the chalk, washed by hose (lead), two coats airless, the ladder along once for each, 3 m at a time
    with the pole."""
    out = {
        **_CONTAINED,
        "wash": surface / 30 * _LOFT,
        "coat-1": surface / 90 * _LOFT,
        "coat-2": surface / 90 * _LOFT,
        "moves": 2 * width / 3.0 * MOVE + openings * 3.4 / 6.4 * MOVE,
    }
    return out | ({"mask": openings / 6 * _LOFT, "unmask": openings / 40 * _LOFT} if openings else {})


NET_LOFT = {
    "west-wall": _loft_end(_LOFT_W, 9.0, 0),
    "east-wall": _loft_end(9 * 6.4 * STUCCO, 9.0, 1),
    "north-wall": {
        "contain": 3.0,
        "wash": 14 * 6.4 * STUCCO / 30 * _LOFT,
        "open-cracks": 7.5 / 20 * WET * _LOFT,
        "dust-cracks": 7.5 / 60 * _LOFT,
        "cracks": 7.5 / 20 * _LOFT,
        "daily-clean": 0.5,
        "dust": 0.1 * _LOFT_N / 25 * _LOFT,
        "mask": 1 / 6 * _LOFT,
        "coat-1": 14 * 6.4 * STUCCO / 90 * _LOFT,
        "coat-2": 14 * 6.4 * STUCCO / 90 * _LOFT,
        "unmask": 1 / 40 * _LOFT,
        "final-check": 0.25,
        # By hand 1.8 m at a time: cracks out and in as many places as metres of them lie above 3 m, the dust off twice
        # its share; one opening masked; two coats 3 m at a time.
        "moves": (2 * 7.5 * 3.4 / 6.4 + 0.2 * 14 / 1.8 + 3.4 / 6.4 + 2 * 14 / 3.0) * MOVE,
    },
    "south-wall": {
        **_CONTAINED,
        "wash": _LOFT_S_ALL / 30 * _QUAY,
        "mask": 5 / 6 * _QUAY,
        "coat-1": _LOFT_S_ALL / 90 * _QUAY,
        "coat-2": _LOFT_S_ALL / 90 * _QUAY,
        "unmask": 5 / 40 * _QUAY,
        # The band takes its share of the wall above 3 m, the wall the rest.
        "moves": (2 * _QUAY_RUN / 3.0 * (1 - 8.4 / 50.1) + 5 * 41.7 / 83.7) * MOVE,
    },
    "sign-band": {
        "wash": 12 * 0.7 * 1.1 / 30 * 1.15,
        "prime": 12 * 0.7 * 1.1 / 90 * 1.15,
        "coat-1": 12 * 0.7 * 1.1 / 90 * 1.15,
        "coat-2": 12 * 0.7 * 1.1 / 90 * 1.15,
        "coat-3": 12 * 0.7 * 1.1 / 90 * 1.15,
        "moves": 4 * _QUAY_RUN / 3.0 * 8.4 / 50.1 * MOVE,
    },
}
NET_LOFT_EDGES = 2 * (12 + 0.7) / 40  # the band is another colour than the wall it is sprayed on
# 32 h on the walls come to two days of two, but the yard side waits overnight four times: after washing, filling, and
# what dries between; five days of two. Sprayed on three of them (the band's primer and coats).
NET_LOFT_SITE = {
    "edge-tape": NET_LOFT_EDGES,
    "look-over": (_LOFT_W + _LOFT_N + _LOFT_E + _LOFT_S + 12 * 0.7 * 1.1) / 150,
    "walk-round": 1.0,
    "day": 5 * 2 * 1.0,
    "travel": 5 * 2 * 0.5,
    "sprayer-day": 3 * 0.5,
    "vehicle": 3 * 0.25,
}

# Quarry Lane. One storey; only the vinyl gables reach above 3 m: a triangle 8.2 m wide and 1.8 m high from 2.7 m up, of
# which the part above 3 m is 6.833 m wide and 1.5 m high.
_VINYL_M2 = 8.2 * 1.8 / 2 * (0.11 + 0.012) / 0.11
_VINYL = 1 + 0.15 * (1.5 / 1.8) ** 2
BRICK = 1.15


def _brick(surface: float, width: float, openings: int) -> dict[str, float]:
    """Washed by pressure, conditioner and two coats rolled."""
    out = {
        "cover": 0.375 * min(width / 10, 4 / 3),
        "wash": surface / 70,
        "prime": surface / 28,
        "coat-1": surface / 28,
        "coat-2": surface / 28,
    }
    return out | ({"mask": openings / 12, "unmask": openings / 40} if openings else {})


_GARAGE = {  # 2.6 m wide: 1.04 single doors; 1.5 h in all to clear, wash, mask and put back, a third each
    "take-down": 0.5 * (1 + 0.04 / 3),
    "wash": 0.5 * (1 + 0.04 / 3),
    "dull": 2.6 * 2.2 * 1.1 / 20,
    "dust": 2.6 * 2.2 * 1.1 / 120,
    "coat-1": 1.04,
    "coat-2": 1.04,
    "mask": 1 / 12,
    "unmask": 0.025,
    "refit": 0.5 * (1 + 0.04 / 3),
}
_VINYL_GABLE = {
    "wash": _VINYL_M2 / 30 * _VINYL,
    "coat-1": _VINYL_M2 / 11 * _VINYL,
    "coat-2": _VINYL_M2 / 11 * _VINYL,
    "moves": 2 * 6.8333 / 1.8 * MOVE,
}
_QL_FRONT = (13.5 * 2.7 - 2 * 2.6 * 2.2 - 2.1 - 2.16) * BRICK
_QL_LEFT, _QL_RIGHT = 8.2 * 2.7 * BRICK, 8.2 * 2.7 * BRICK  # its window of 1.32 m² stays in
_QL_BACK = (13.5 * 2.7 - 2.16 - 2.4 * 2.1) * BRICK
QUARRY_LANE = {
    "ql-front-brick": _brick(13.5 * 2.7 * BRICK, 13.5, 4),
    "ql-door-1": _GARAGE,
    "ql-door-2": _GARAGE,
    "ql-left-brick": _brick(_QL_LEFT, 8.2, 1),
    "ql-left-vinyl": _VINYL_GABLE,
    "ql-back-brick": _brick(13.5 * 2.7 * BRICK, 13.5, 2),
    "ql-chimney": {"wash": 4.5 / 30, "coat-1": 4.5 / 28, "coat-2": 4.5 / 28},  # from its scaffold
    "ql-gutter": {  # 13.5 m and two downspouts of 2.6 m
        "take-down": 2 * 0.25,
        "wash": (13.5 * 0.3 + 2 * 2.6 * 0.26) / 30,
        "prime": (13.5 + 5.2) / 15,
        "coat-1": (13.5 + 5.2) / 15,
        "refit": 2 * 0.25,
    },
    "ql-right-brick": {**_brick(_QL_RIGHT, 8.2, 0), "cut-back": 0.5},
    "ql-right-vinyl": _VINYL_GABLE,
}
# 33 h are two days of two; wash, conditioner, and coats that wait overnight make four visits.
QUARRY_LANE_SITE = {
    "scaffold": 2.0,
    "look-over": (_QL_FRONT + _QL_LEFT + _QL_BACK + _QL_RIGHT + 2 * _VINYL_M2 + 2 * 2.6 * 2.2 * 1.1 + 4.5
                  + 13.5 * 0.3 + 5.2 * 0.26) / 150,
    "walk-round": 1.0,
    "day": 4 * 2 * 1.0,
    "travel": 4 * 2 * 0.5,
}  # fmt: skip

# Heron Deck, one person. Boards of 140 mm with 5 mm between, 28 mm thick: tops and edges.
_DECK_M2 = 6.0 * 4.2 * (0.14 + 2 * 0.028) / 0.145
_RAIL_M2 = 2 * 4.4 * 0.95 * 2 * 0.038 / 0.1 + 2 * 4.4 * 0.26
_STAIR_M2 = 4 * 2 * 1.2 * 0.28 + 4 * 4 * 0.33287 * 0.25
_PORCH_M2 = 3.6 * 2.2 * 1.05
HERON_DECK = {
    "deck-boards": {
        "cover": 0.25,
        "wash": _DECK_M2 / 40,
        "strip": _DECK_M2 / 10,
        "brighten": _DECK_M2 / 40,
        "fibre": _DECK_M2 / 20,
        "dust": _DECK_M2 / 120,
        "coat-1": _DECK_M2 / 22,
    },
    "deck-railing": {"wash": _RAIL_M2 / 30, "brighten": _RAIL_M2 / 40, "coat-1": 4.4 / 3},
    "deck-stair": {
        "wash": _STAIR_M2 / 30,
        "brighten": _STAIR_M2 / 40,
        "fibre": _STAIR_M2 / 20,
        "dust": _STAIR_M2 / 120,
        "coat-1": _STAIR_M2 / 11,
    },
    "porch-slab": {
        "cover": 0.25,
        "wash": _PORCH_M2 / 40,
        "dull": _PORCH_M2 / 20 * WET,
        "dust": _PORCH_M2 / 25,
        "mask": 0.25,
        "coat-1": _PORCH_M2 / 20,
        "coat-2": _PORCH_M2 / 20,
        "unmask": 0.025,
    },
}
# Washed; stripped and brightened another day; stained when dry: three days of one.
HERON_DECK_SITE = {
    "furniture": 0.5,
    "look-over": (_DECK_M2 + _RAIL_M2 + _STAIR_M2 + _PORCH_M2) / 150,
    "walk-round": 1.0,
    "day": 3 * 1.0,
    "travel": 3 * 0.5,
}

# Feed Barn. Two slopes at 22°; ribs 70 mm wide at the foot, 30 mm at the crest, 25 mm high, every 200 mm.
_ROOF_M2 = 18.0 * 5.75 / 0.92718 * (0.13 + 0.03 + 2 * 0.032016) / 0.2
_STEEP = 1.15
_SLOPE = {
    "cover": 0.5,
    "wash": _ROOF_M2 / 70 * _STEEP,
    "seams": _ROOF_M2 / 60 * _STEEP,
    "coat-1": _ROOF_M2 / 60 * _STEEP,
    "coat-2": _ROOF_M2 / 60 * _STEEP,
}
FEED_BARN = {"south-roof": _SLOPE, "north-roof": _SLOPE}
# Washed; seams sealed and coated; coated again: three days of two, each with fall protection, two with the sprayer.
FEED_BARN_SITE = {
    "look-over": 2 * _ROOF_M2 / 150,
    "walk-round": 1.0,
    "day": 3 * 2 * 1.0,
    "travel": 3 * 2 * 0.5,
    "sprayer-day": 2 * 0.5,
    "fall-gear": 3 * 2 * 0.4 * 2 * _ROOF_M2 / 200,  # for 200 m² of roof, more in step with its size
}

# Litres: m² of all coats × thirst ÷ (10 × solids % ÷ dry film µm) ÷ what the method leaves of it. A brush loses 4 %,
# a roller 8, airless 20. Only the first film on what is bare drinks more: siding 1.15, trim 1.10, brick and slab 1.30,
# deck boards 1.35.
BRUSHED, ROLLED, SPRAYED = 0.96, 0.92, 0.80
_PEELED = 1.2 * _LOOSE_F * _FRONT_M2 + 1.2 * _LOOSE_W * _GABLE_M2
_WINDOWS_M2 = 2 * _sash_m2(1.5) + 7 * _sash_m2(1.4)
_PUTTIED_M2 = _sash_m2(1.5) + _sash_m2(1.4)
COOPERS_RISE_LITRES = {
    ("gannet-rustguard", "#f4f1ea"): 0.005 * _FRONT_M2 / (10 * 45 / 50) / BRUSHED,
    ("gannet-tightbond", "#f4f1ea"): _PEELED * 1.15 / (10 * 48 / 150) / BRUSHED,
    ("gannet-barewood", "#f4f1ea"): (0.01 * _FRONT_M2 * 1.15 + 0.096 * _PUTTIED_M2 * 1.10) / (10 * 36 / 38) / BRUSHED,
    ("gannet-oilprime", "#f4f1ea"): 0.05 * _PUTTIED_M2 * 1.10 / (10 * 50 / 40) / BRUSHED,
    ("skerry-housecoat", "#e9dcc1"): 2 * (_FRONT_M2 + 2 * _GABLE_M2 + 2 * _WING_SIDE_M2) / (10 * 38 / 40) / BRUSHED,
    ("skerry-latewall", "#e9dcc1"): 2 * (_BACK_M2 + _WING_BACK_M2) / (10 * 40 / 42) / BRUSHED,
    ("skerry-trimline", "#f1ead9"): 2 * (6.5 + 5.2 + 4.8 + 5.2 + _GLAZED_M2) / (10 * 36 / 38) / BRUSHED,
    ("lantern-doorsatin", "#f1ead9"): 2 * _WINDOWS_M2 / (10 * 42 / 40) / BRUSHED,
    ("skerry-trimline", "#22382f"): 2 * _DOOR_M2 / (10 * 36 / 38) / BRUSHED,
    ("skerry-trimline", "#2f3b37"): 2 * (2 * _shutter_m2(1.5) + 3 * _shutter_m2(1.4)) / (10 * 36 / 38) / BRUSHED,
    ("skerry-trimline", "#efe9dc"): (9.6 * 0.3 + 5.3 * 0.26) / (10 * 36 / 38) / BRUSHED,
}
_BAND_M2 = 12 * 0.7 * 1.1
NET_LOFT_LITRES = {
    ("fathom-stonecoat", "#3d5a73"): 2 * (_LOFT_S + _LOFT_W + _LOFT_N + _LOFT_E) / (10 * 40 / 60) / SPRAYED,
    ("gannet-keyprime", "#a33a36"): _BAND_M2 / (10 * 38 / 35) / SPRAYED,
    ("fathom-stonecoat", "#b3261e"): 3 * _BAND_M2 / (10 * 40 / 60) / SPRAYED,
}
_BRICK_M2 = _QL_FRONT + _QL_LEFT + _QL_BACK + _QL_RIGHT
_GUTTER_M2 = 13.5 * 0.3 + 5.2 * 0.26
QUARRY_LANE_LITRES = {
    ("fathom-binder", "#d8d3c9"): _BRICK_M2 * 1.3 / (10 * 20 / 15) / ROLLED,
    ("fathom-stonecoat", "#d9d3c6"): (2 * _BRICK_M2 + 4.5 * 1.3 + 4.5) / (10 * 40 / 60) / ROLLED,
    ("skerry-trimline", "#efe9dc"): (2 * 2 * 2.6 * 2.2 * 1.1 / ROLLED + _GUTTER_M2 / BRUSHED) / (10 * 36 / 38),
    ("skerry-housecoat", "#b5ad9c"): 2 * 2 * _VINYL_M2 / (10 * 38 / 40) / BRUSHED,
    ("gannet-keyprime", "#f4f1ea"): _GUTTER_M2 / (10 * 38 / 35) / BRUSHED,
}
# A penetrating stain has no film to reckon with: its sheet says 5 to 9 m² a litre, so 7.
HERON_DECK_LITRES = {
    ("tarn-decktone", "#8a6440"): (_DECK_M2 * 1.35 + _RAIL_M2 * 1.10 + _STAIR_M2 * 1.35) / 7 / BRUSHED,
    ("tarn-porchway", "#8b8d8c"): 2 * _PORCH_M2 / (10 * 38 / 45) / ROLLED,
}
FEED_BARN_LITRES = {("skerry-roofshield", "#dcdfdc"): 2 * 2 * _ROOF_M2 / (10 * 52 / 250) / SPRAYED}

# The yardsticks of whole jobs (trade.md §12).
WORKED = {
    "1": (COOPERS_RISE, COOPERS_RISE_SITE, COOPERS_RISE_LITRES, (185, 250)),
    "2": (NET_LOFT, NET_LOFT_SITE, NET_LOFT_LITRES, (50, 80)),
    "3": (QUARRY_LANE, QUARRY_LANE_SITE, QUARRY_LANE_LITRES, (35, 55)),
    "4": (HERON_DECK, HERON_DECK_SITE, HERON_DECK_LITRES, (18, 30)),
    "5": (FEED_BARN, FEED_BARN_SITE, FEED_BARN_LITRES, (22, 38)),
}
