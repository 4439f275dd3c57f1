"""Probabilities against what then happened, in small; `make bench` prints the whole table."""

import numpy as np

from tests.bench.calibration import cases


def test_probabilities_tell_more_than_yes_or_no_and_than_the_rule_of_thumb() -> None:
    """Ten forecasts through a season: a sharper score than the forecast they are drawn around, and honest at both ends
    of the scale."""
    found = cases(issues=10, members=24)
    assert len(found.given) > 2000
    assert found.brier(found.given) < 0.95 * found.brier(found.single)
    assert found.brier(found.given) < 0.5 * found.brier(found.thumb)
    for low, high, least, most in ((0.0, 0.1, 0.0, 0.1), (0.7, 0.9, 0.65, 1.0), (0.95, 1.0, 0.9, 1.0)):
        count, held = found.band(low, high)
        assert count > 100 and least <= held <= most, (low, high, held)
    early, late = (found.lead_h < 36), (found.lead_h > 120)
    doubt = [float(np.mean(np.minimum(found.given[part], 1 - found.given[part]))) for part in (early, late)]
    assert doubt[0] < 0.7 * doubt[1], "the further ahead, the less it dares to say"
