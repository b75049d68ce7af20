"""Write what the front end takes from the Python side: OpenAPI document, hazards, emergency page; and the
client's types.
"""

import json

from kumpan.core.hazards import EMERGENCIES, EMERGENCY_PREAMBLE, HAZARDS, STORAGE_RULES
from kumpan.core.quantities.shown import SHOWN_DIGITS
from kumpan.tools.journal_schema import journal_schema_text
from kumpan.tools.packages import FRONTEND, OPENAPI, ROOT, ensure_client_types
from kumpan.web.main import build_app
from kumpan.wording.render import render

HAZARDOUS = FRONTEND / "src/api/hazardous.json"
SHOWN = FRONTEND / "src/api/shownDigits.json"
EMERGENCY = FRONTEND / "src/features/emergency/emergency.json"


def openapi_text() -> str:
    """The OpenAPI document as it is kept."""
    return json.dumps(build_app(None).openapi(), indent=1, ensure_ascii=False, sort_keys=True) + "\n"


def emergency_text() -> str:
    """The emergency page's words, so that it needs no server."""
    page = {
        "preamble": render(EMERGENCY_PREAMBLE),
        "emergencies": [
            {
                "key": row.key,
                "title": render(row.title),
                "measures": [render(measure) for measure in row.measures],
            }
            for row in EMERGENCIES
        ],
        "storage": [render(rule) for rule in STORAGE_RULES],
    }
    return json.dumps(page, indent=2, ensure_ascii=False) + "\n"


def hazardous_text() -> str:
    """The hazard classes whose steps show their cautions and a way to the emergency page."""
    return json.dumps(sorted(row.hazard for row in HAZARDS.values() if row.hazardous), indent=2) + "\n"


def shown_digits_text() -> str:
    """How many digits behind the point a reading is shown with; measures without a row have none."""
    return json.dumps(SHOWN_DIGITS, indent=2) + "\n"


def main() -> None:
    """Write what is made from the program: OpenAPI, the emergency page's texts, the journal's schema."""
    EMERGENCY.parent.mkdir(parents=True, exist_ok=True)
    OPENAPI.parent.mkdir(parents=True, exist_ok=True)
    OPENAPI.write_text(openapi_text())
    EMERGENCY.write_text(emergency_text())
    HAZARDOUS.write_text(hazardous_text())
    SHOWN.write_text(shown_digits_text())
    (ROOT / "docs/journal-format.schema.json").write_text(journal_schema_text())
    ensure_client_types()


if __name__ == "__main__":
    main()
