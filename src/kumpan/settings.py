"""Settings of the running program, read by entry points only. Environment names start with KUMPAN_."""

from pathlib import Path

from pydantic_settings import BaseSettings, SettingsConfigDict


class Settings(BaseSettings):
    """What the environment says (KUMPAN_...)."""

    model_config = SettingsConfigDict(env_prefix="KUMPAN_")

    database_url: str
    static_dir: Path | None = None
    log_level: str = "INFO"
    simulator_url: str = "http://127.0.0.1:9000/controller"
    poll_s: float = 60.0
    demo: bool = False
    first_code: str = ""
    hosts: str = "localhost,127.0.0.1,::1"
    strict_transport: bool = False
    metrics_token: str = ""
