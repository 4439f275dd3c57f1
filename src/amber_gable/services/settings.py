"""How this installation is set up: environment variables that begin with AMBER_GABLE_."""

from pathlib import Path
from urllib.parse import urlsplit

from pydantic import Field
from pydantic_settings import BaseSettings, SettingsConfigDict

from amber_gable.domain.errors import InputError

LOOPBACK = "127.0.0.1"
LOCAL_NAMES = frozenset({LOOPBACK, "localhost", "::1"})


class Settings(BaseSettings):
    """`forecast_url` and `meter_url` empty mean no forecast service and no meter: nothing leaves the machine unless
    it is set. `forecast_members`: how many futures of its own the service is asked for. `host`: the address that is
    listened on; `hosts`: further names under which pages may be asked for, with commas between; `public_url`: how
    others reach the program, for links that are sent to them. `solve_seconds`: how long fewer days are looked for once
    a job is planned, in the solver's own steps; 0: only when somebody asks."""

    model_config = SettingsConfigDict(env_prefix="AMBER_GABLE_")

    data: Path = Path("var")
    host: str = LOOPBACK
    hosts: str = ""
    public_url: str = ""
    port: int = Field(default=8765, ge=1, le=65535)
    weather_port: int = Field(default=8766, ge=1, le=65535)
    forecast_url: str = ""
    forecast_members: int = Field(default=0, ge=0, le=100)
    meter_url: str = ""
    solve_seconds: float = Field(default=15.0, ge=0, le=600)

    @property
    def database(self) -> Path:
        return self.data / "amber-gable.sqlite3"

    @property
    def names(self) -> frozenset[str]:
        """Host names under which pages may be asked for."""
        public = urlsplit(self.public_url).hostname
        named = {n.strip().lower() for n in self.hosts.split(",") if n.strip()}
        return LOCAL_NAMES | named | ({public} if public else set())

    def check_reach(self, *, accounts: bool) -> None:
        """Raises InputError where the program would be reached from elsewhere and nobody has to sign in."""
        if accounts:
            return
        for name, value, local in (
            ("HOST", self.host, self.host in LOCAL_NAMES),
            ("HOSTS", self.hosts, not self.hosts.strip()),
            ("PUBLIC_URL", self.public_url, not self.public_url.strip()),
        ):
            if not local:
                raise InputError(
                    f"AMBER_GABLE_{name}",
                    f"is {value}: there are no accounts yet, so whoever reaches the program could read and change "
                    "everything",
                    f"leave it unset; the program then answers on {LOOPBACK} alone",
                )

    @property
    def demo_database(self) -> Path:
        return self.data / "demo.sqlite3"
