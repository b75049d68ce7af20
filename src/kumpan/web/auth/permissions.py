"""Which role may send which request: every route with its method, in one table. What is not here is refused.

A pool in the path is checked besides: one that somebody may not see is not found (404).
"""

from collections.abc import Mapping

from kumpan.services.people.access import Role

OFFICE = frozenset({Role.OFFICE})
STAFF = frozenset({Role.OFFICE, Role.TECHNICIAN})
MEMBERS = frozenset({Role.OFFICE, Role.TECHNICIAN, Role.OWNER})
ALL = frozenset(Role)

API = "/api/v1"
# Open to everybody: calculations that touch nothing stored, signing in, links that are secrets themselves.
OPEN = frozenset({f"{API}/water/analysis", f"{API}/water/after", f"{API}/treatments/preview"})
OPEN_UNDER = (f"{API}/auth/", f"{API}/feeds/")
POOL = f"{API}/pools/{{pool_id}}"
Key = tuple[str, str]

# Requests that read although they are posts; a token that only reads may send them.
READING_POSTS = frozenset({
    f"{API}/basins/preview", f"{API}/basins/from-salt", f"{POOL}/slip/read", f"{POOL}/what-if",
    f"{POOL}/second-opinion", f"{API}/practice/play", f"{API}/imports/{{file_id}}/preview",
})  # fmt: skip

# The pool that they name may be new here: they look for it themselves.
MAKE_POOLS = frozenset({f"{POOL}/journal"})

ROUTES: Mapping[Key, frozenset[Role]] = {
    # Pools.
    ("POST", f"{API}/basins/preview"): MEMBERS,
    ("POST", f"{API}/basins/from-salt"): MEMBERS,
    ("GET", f"{API}/towns"): MEMBERS,
    ("GET", f"{API}/towns/nearest"): MEMBERS,
    ("GET", f"{API}/pools"): MEMBERS,
    ("POST", f"{API}/pools"): OFFICE,
    ("GET", POOL): ALL,
    ("GET", f"{POOL}/assessment"): ALL,
    ("GET", f"{POOL}/board"): ALL,
    ("GET", f"{POOL}/plan"): ALL,
    ("POST", f"{POOL}/settings"): MEMBERS,
    ("POST", f"{POOL}/basin"): MEMBERS,
    ("POST", f"{POOL}/equipment"): MEMBERS,
    ("GET", f"{POOL}/season"): MEMBERS,
    # Tests and the journal.
    ("POST", f"{POOL}/slip/read"): MEMBERS,
    ("GET", f"{POOL}/slip/last"): MEMBERS,
    ("POST", f"{POOL}/tests"): MEMBERS,
    ("POST", f"{POOL}/looks"): MEMBERS,
    ("POST", f"{POOL}/additions"): MEMBERS,
    ("POST", f"{POOL}/water-changes"): MEMBERS,
    ("POST", f"{POOL}/cell"): MEMBERS,
    ("POST", f"{POOL}/swimmers"): MEMBERS,
    ("GET", f"{POOL}/outlook"): ALL,
    ("GET", f"{POOL}/history"): ALL,
    ("GET", f"{POOL}/history/{{measure}}"): ALL,
    ("GET", f"{POOL}/log"): MEMBERS,
    ("GET", f"{POOL}/papers/{{kind}}.pdf"): MEMBERS,
    ("POST", f"{POOL}/papers/notice.pdf"): MEMBERS,
    ("POST", f"{API}/workspace/mark"): OFFICE,
    ("POST", f"{POOL}/device/{{device}}/readings"): STAFF,
    ("GET", f"{POOL}/photos"): ALL,
    ("POST", f"{POOL}/photos"): MEMBERS,
    ("GET", f"{POOL}/photos/{{sha256}}.jpg"): ALL,
    ("POST", f"{API}/entries/{{entry_id}}/void"): MEMBERS,
    ("POST", f"{API}/entries/{{entry_id}}/correct-test"): MEMBERS,
    ("POST", f"{API}/entries/{{entry_id}}/correct-look"): MEMBERS,
    ("POST", f"{API}/entries/{{entry_id}}/correct-addition"): MEMBERS,
    # Treatments.
    ("GET", f"{POOL}/sheet"): ALL,
    ("GET", f"{POOL}/offer"): MEMBERS,
    ("GET", f"{POOL}/sheet.ics"): MEMBERS,
    ("POST", f"{POOL}/what-if"): MEMBERS,
    ("GET", f"{POOL}/ways"): MEMBERS,
    ("GET", f"{POOL}/weekly"): MEMBERS,
    ("GET", f"{POOL}/shock-products"): MEMBERS,
    ("GET", f"{POOL}/presets/{{key}}"): MEMBERS,
    ("POST", f"{POOL}/second-opinion"): MEMBERS,
    ("POST", f"{POOL}/sheets"): MEMBERS,
    ("POST", f"{POOL}/sheets/{{sheet_id}}/put-away"): MEMBERS,
    ("POST", f"{POOL}/sheets/{{sheet_id}}/ticks"): MEMBERS,
    # Maintenance.
    ("GET", f"{POOL}/today"): ALL,
    ("GET", f"{POOL}/care"): MEMBERS,
    ("GET", f"{POOL}/calendar"): MEMBERS,
    ("GET", f"{POOL}/procedures/{{key}}"): MEMBERS,
    ("POST", f"{POOL}/procedures/{{key}}/finish"): MEMBERS,
    ("POST", f"{POOL}/care/done"): MEMBERS,
    ("POST", f"{API}/care/tasks"): MEMBERS,
    ("POST", f"{POOL}/care/put-off"): MEMBERS,
    ("POST", f"{POOL}/care/interval"): MEMBERS,
    ("POST", f"{POOL}/events"): MEMBERS,
    ("POST", f"{POOL}/pressures"): MEMBERS,
    ("POST", f"{POOL}/plant"): MEMBERS,
    ("GET", f"{POOL}/benches"): MEMBERS,
    ("GET", f"{API}/interview"): MEMBERS,
    ("POST", f"{POOL}/interviews"): MEMBERS,
    ("POST", f"{POOL}/lamps"): MEMBERS,
    ("POST", f"{POOL}/machines"): MEMBERS,
    ("POST", f"{POOL}/parts"): MEMBERS,
    ("GET", f"{API}/acid-bath"): MEMBERS,
    ("GET", f"{POOL}/care.ics"): MEMBERS,
    ("POST", f"{POOL}/device"): STAFF,
    # Algae and season.
    ("GET", f"{API}/identify/questions"): MEMBERS,
    ("GET", f"{API}/identify"): MEMBERS,
    ("GET", f"{POOL}/rescue"): MEMBERS,
    ("POST", f"{POOL}/rescue"): MEMBERS,
    ("POST", f"{POOL}/rescue/end"): MEMBERS,
    ("GET", f"{POOL}/season-plan"): MEMBERS,
    ("GET", f"{POOL}/season-lists"): MEMBERS,
    ("POST", f"{POOL}/season-lists"): MEMBERS,
    ("POST", f"{POOL}/season-lists/ticks"): MEMBERS,
    ("GET", f"{POOL}/climate"): MEMBERS,
    ("POST", f"{POOL}/climate"): MEMBERS,
    # Visits.
    ("GET", f"{API}/round"): STAFF,
    ("POST", f"{API}/rounds"): STAFF,
    ("GET", f"{API}/rounds/weeks"): STAFF,
    ("GET", f"{API}/round/closed"): STAFF,
    ("GET", f"{API}/rounds/fair"): OFFICE,
    ("POST", f"{API}/rounds/fair"): OFFICE,
    ("POST", f"{API}/rounds/absences"): OFFICE,
    ("POST", f"{API}/rounds/once"): OFFICE,
    ("POST", f"{API}/rounds/moves"): OFFICE,
    ("POST", f"{API}/truck"): STAFF,
    ("GET", f"{POOL}/report"): ALL,
    ("GET", f"{POOL}/visit"): MEMBERS,
    ("POST", f"{POOL}/visit"): MEMBERS,
    ("POST", f"{POOL}/visit/usual"): MEMBERS,
    ("POST", f"{POOL}/visits"): MEMBERS,
    # The workspace.
    ("GET", f"{API}/choices"): ALL,
    ("GET", f"{API}/shelf"): MEMBERS,
    ("POST", f"{API}/shelf"): STAFF,
    ("POST", f"{API}/shelf/purchases"): STAFF,
    ("POST", f"{API}/shelf/strengths"): STAFF,
    ("POST", f"{API}/shelf/places"): STAFF,
    ("POST", f"{API}/shelf/counts"): STAFF,
    ("GET", f"{API}/costs"): STAFF,
    ("GET", f"{API}/shelf/to-buy"): STAFF,
    ("GET", f"{API}/habits"): MEMBERS,
    ("POST", f"{API}/habits"): STAFF,
    ("GET", f"{API}/practice"): MEMBERS,
    ("POST", f"{API}/practice/play"): MEMBERS,
    # People, and what belongs to whoever is signed in.
    ("GET", f"{API}/people"): MEMBERS,
    ("POST", f"{API}/people"): OFFICE,
    ("GET", f"{API}/members"): OFFICE,
    ("POST", f"{API}/members/{{person_id}}/role"): OFFICE,
    ("POST", f"{API}/members/{{person_id}}/name"): OFFICE,
    ("POST", f"{API}/members/{{person_id}}/end"): OFFICE,
    ("POST", f"{API}/members/{{person_id}}/invitation"): OFFICE,
    ("POST", f"{API}/workspace/name"): OFFICE,
    ("GET", f"{API}/audit"): OFFICE,
    ("GET", f"{API}/audit.csv"): OFFICE,
    ("GET", f"{API}/links"): MEMBERS,
    ("POST", f"{POOL}/links"): MEMBERS,
    ("POST", f"{API}/links/{{link_id}}/end"): MEMBERS,
    # Pools shared, archived, deleted; the journal as a file.
    ("GET", f"{POOL}/journal.jsonl"): MEMBERS,
    ("POST", f"{POOL}/journal"): OFFICE,
    ("POST", f"{API}/journals"): OFFICE,
    # Files of one's own, in and out.
    ("GET", f"{API}/exports/{{what}}.{{ending}}"): MEMBERS,
    ("GET", f"{API}/workspace/archive.zip"): OFFICE,
    ("POST", f"{API}/workspace/archive"): OFFICE,
    ("POST", f"{API}/imports"): OFFICE,
    ("GET", f"{API}/imports"): OFFICE,
    ("GET", f"{API}/imports/choices"): OFFICE,
    ("GET", f"{API}/imports/{{file_id}}"): OFFICE,
    ("POST", f"{API}/imports/{{file_id}}/preview"): OFFICE,
    ("POST", f"{API}/imports/{{file_id}}/apply"): OFFICE,
    ("POST", f"{API}/imports/{{file_id}}/undo"): OFFICE,
    ("POST", f"{API}/imports/{{file_id}}/drop"): OFFICE,
    ("GET", f"{POOL}/shares"): MEMBERS,
    ("POST", f"{POOL}/shares"): OFFICE,
    ("POST", f"{POOL}/offers/{{offer_id}}/end"): OFFICE,
    ("POST", f"{POOL}/shares/{{share_id}}/end"): OFFICE,
    ("POST", f"{API}/shares"): OFFICE,
    ("GET", f"{API}/journal-copies"): OFFICE,
    ("GET", f"{API}/journal-copies/{{copy_id}}.jsonl"): OFFICE,
    ("GET", f"{API}/archived-pools"): OFFICE,
    ("POST", f"{POOL}/archive"): OFFICE,
    ("POST", f"{POOL}/delete"): OFFICE,
    ("GET", f"{API}/mail-choice"): MEMBERS,
    ("POST", f"{API}/mail-choice"): MEMBERS,
    ("GET", f"{API}/outbox"): OFFICE,
    ("POST", f"{API}/outbox/{{mail_id}}/again"): OFFICE,
    ("GET", f"{API}/hooks"): OFFICE,
    ("POST", f"{API}/hooks"): OFFICE,
    ("POST", f"{API}/hooks/{{hook_id}}/end"): OFFICE,
    ("GET", f"{API}/me"): MEMBERS,
    ("POST", f"{API}/me/password"): MEMBERS,
    ("POST", f"{API}/me/second-factor/offer"): MEMBERS,
    ("POST", f"{API}/me/second-factor"): MEMBERS,
    ("POST", f"{API}/me/second-factor/off"): MEMBERS,
    ("POST", f"{API}/me/passkeys/offer"): MEMBERS,
    ("POST", f"{API}/me/passkeys"): MEMBERS,
    ("POST", f"{API}/me/passkeys/{{passkey_id}}/end"): MEMBERS,
    ("POST", f"{API}/me/devices/end"): MEMBERS,
    ("GET", f"{API}/me/push"): MEMBERS,
    ("POST", f"{API}/me/push"): MEMBERS,
    ("POST", f"{API}/me/push/{{device_id}}/end"): MEMBERS,
    ("GET", f"{API}/me/tokens"): MEMBERS,
    ("POST", f"{API}/me/tokens"): MEMBERS,
    ("POST", f"{API}/me/tokens/{{token_id}}/revoke"): MEMBERS,
}  # fmt: skip
# What a token may not change, whatever its scope: it never makes another way in.
BY_A_PERSON_ONLY = ("/me/", "/members/", "/links", "/shares", "/offers/", "/delete", "/hooks")
SAFE = ("GET", "HEAD", "OPTIONS")


def is_open(path: str) -> bool:
    """Whether a path needs nobody to be signed in."""
    return path in OPEN or path.startswith(OPEN_UNDER)


def may(role: Role, method: str, route: str) -> bool:
    """Whether a role may send this request at all."""
    return role in ROUTES.get(("GET" if method == "HEAD" else method, route), frozenset())
