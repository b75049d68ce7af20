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
    # Mail: without a host it waits in the outbox. `public_address` is what links in it begin with.
    mail_host: str = ""
    mail_port: int = 587
    mail_user: str = ""
    mail_password: str = ""
    mail_from: str = "kumpan@localhost.localdomain"
    mail_tls: bool = True
    mail_every_s: float = 20.0
    mailbox_port: int = 0
    public_address: str = "http://localhost:8000"
