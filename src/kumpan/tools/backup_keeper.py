"""The program that makes a backup a day beside a running Kumpan, and takes old ones away."""

import sys
import time
from datetime import datetime, timedelta
from pathlib import Path

from kumpan.settings import Settings
from kumpan.tools.backup import dump, is_due, prune, scheduled
from kumpan.tools.console import Stop

EVERY, LOOKS_EVERY_S = timedelta(days=1), 300.0


def once(database_url: str, folder: Path, now: datetime) -> Path | None:
    """Make a backup if one is due; the file. Raises Stop where it cannot be made."""
    if not is_due(folder, now, EVERY):
        return None
    file = scheduled(folder, now)
    dump(database_url, file)
    prune(folder)
    return file


def main(folder: Path) -> None:
    """Until ended."""
    url = Settings().database_url
    while True:
        try:
            once(url, folder, datetime.now().astimezone())
        except Stop as reason:
            print(reason, file=sys.stderr, flush=True)
        time.sleep(LOOKS_EVERY_S)


if __name__ == "__main__":
    main(Path(sys.argv[1]))
