"""How this installation is set up: environment variables that begin with AMBER_GABLE_."""

from pathlib import Path

from pydantic import Field
from pydantic_settings import BaseSettings, SettingsConfigDict


class Settings(BaseSettings):
    """`forecast_url` and `meter_url` empty mean no forecast service and no meter: nothing leaves the machine unless
    it is set. `forecast_members`: how many futures of its own the service is asked for."""

    model_config = SettingsConfigDict(env_prefix="AMBER_GABLE_")

    data: Path = Path("var")
    port: int = Field(default=8765, ge=1, le=65535)
    weather_port: int = Field(default=8766, ge=1, le=65535)
    forecast_url: str = ""
    forecast_members: int = Field(default=0, ge=0, le=100)
    meter_url: str = ""

    @property
    def database(self) -> Path:
        return self.data / "amber-gable.sqlite3"

    @property
    def demo_database(self) -> Path:
        return self.data / "demo.sqlite3"
