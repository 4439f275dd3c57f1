"""A configured feed as a forecast provider: asked at its own address, read by its own mapping."""

from datetime import UTC, datetime

from amber_gable.domain.errors import InputError
from amber_gable.domain.weather.feed import Feed, placed
from amber_gable.domain.weather.series import WeatherSeries
from amber_gable.exchange.files import decode
from amber_gable.exchange.weather.forecast import MAX_BYTES, ForecastUnavailable
from amber_gable.exchange.weather.http_answer import HttpAnswer, NoAnswer, fetch
from amber_gable.exchange.weather.mapped import forecast_of, read_rows


def ask_feed(address: str, latitude: float, longitude: float, etag: str = "", timeout_s: float = 3.0) -> HttpAnswer:
    """What the address answers for a place. Raises NoAnswer."""
    where = placed(address, latitude, longitude)
    return fetch(where, {}, connect_s=timeout_s, total_s=3 * timeout_s, most_bytes=MAX_BYTES, etag=etag)


class MappedForecast:
    """Answers as HttpForecast does. A feed does not say when it was made: it counts as of the hour it was had."""

    def __init__(self, feed: Feed, timeout_s: float = 3.0) -> None:
        self.feed, self.timeout_s = feed, timeout_s
        self._named: dict[tuple[float, float], tuple[str, str]] = {}

    def forecast(self, latitude: float, longitude: float, at: datetime) -> WeatherSeries:
        """`at` in the zone of the place. Raises ForecastUnavailable."""
        name = self.feed.name
        etag, held = self._named.get((latitude, longitude), ("", ""))
        try:
            answer = ask_feed(self.feed.address, latitude, longitude, etag, self.timeout_s)
            text = held if answer.unchanged and held else decode(answer.body, name)
            rows = read_rows(text, self.feed.mapping, name, at.tzinfo or UTC)
            series = forecast_of(rows, at.tzinfo or UTC, at.replace(minute=0, second=0, microsecond=0), name)
        except NoAnswer as error:
            raise ForecastUnavailable(f"the feed “{name}” {error}") from error
        except InputError as error:
            raise ForecastUnavailable(f"the feed “{name}” sent something unusable ({str(error)[:200]})") from error
        if answer.etag:
            self._named[latitude, longitude] = (answer.etag, text)
        return series
