"""Where each rule and figure comes from: a key, and what stands behind it.

Kinds: `published` (quoted from memory unless said otherwise), `common practice` (the trade, no
source), `derived` (from molar masses and definitions), `from memory` (no source to name).
A test fails on a key that is used but not listed here, and on one that is listed but never used.
"""

from dataclasses import dataclass
from enum import StrEnum


class SourceKind(StrEnum):
    """How firm a source is."""

    PUBLISHED = "published"
    COMMON_PRACTICE = "common practice"
    DERIVED = "derived"
    FROM_MEMORY = "from memory"


@dataclass(frozen=True)
class Source:
    """One origin. `reference` is what a reader would look up; `note` its validity or reservations."""

    kind: SourceKind
    reference: str
    note: str = ""


_P, _C = SourceKind.PUBLISHED, SourceKind.COMMON_PRACTICE
_D, _M = SourceKind.DERIVED, SourceKind.FROM_MEMORY

SOURCES: dict[str, Source] = {
    "unit-definitions": Source(
        _P, "NIST Handbook 44, Appendix C; international yard and pound 1959", "exact"
    ),
    "pool-shapes": Source(_C, "plane geometry; the kidney factor 0.45 is the trade's"),
    "school-household": Source(_C, "household ranges of pool owners"),
    "school-service": Source(_C, "ranges of a weekly service round"),
    "school-small-vinyl": Source(_C, "ranges for small soft-sided and vinyl pools"),
    "school-residential-standard": Source(
        _P, "ANSI/APSP/ICC-11 2019, residential ranges", "quoted from memory"
    ),
    "school-public-code": Source(_P, "CDC Model Aquatic Health Code", "quoted from memory"),
    "school-own": Source(_C, "ranges that an owner sets, in place of a school's"),
    "disagreements": Source(_C, "questions on which experienced practitioners answer differently"),
    "supplement-chlorine": Source(
        _C, "some makers of mineral supplements allow 0.5 to 1 of free chlorine; public codes do not"
    ),
    "swim-limit": Source(
        _M, "3 by households, 4 by the residential standard and labels, 10 by the public code"
    ),
    "swim-ph": Source(
        _P, "CDC Model Aquatic Health Code: closed when pH is outside 7.0 to 8.0", "quoted from memory"
    ),
    "mass-balance": Source(_D, "conservation of mass; standard atomic weights"),
    "weekly-regime": Source(
        _D,
        "the pool's own loss a day, times seven, by mass balance",
        "given in the trade's tablets and spoons",
    ),
    "pool-presets": Source(_C, "kinds of pool as the trade tells them apart, and how each is kept"),
    "label-doses": Source(
        _M, "usual label directions per 10,000 gal by kind of product", "the person's own label counts"
    ),
    "available-chlorine": Source(_D, "g available Cl2 per 100 mL (trade percent) or by mass, by definition"),
    "densities": Source(_M, "densities of pool liquids at 20 C"),
    "addition-limits": Source(_M, "single-addition limits"),
    "separation": Source(_M, "separation times between two different chemicals"),
    "mixing": Source(_C, "mixing and dissolving times before a retest"),
    "order": Source(_C, "order of additions: alkalinity, pH, calcium and stabilizer, sanitizer"),
    "rounding": Source(_C, "round to what a person can measure; salt by whole bags, down first"),
    "sampling": Source(_C, "away from returns and skimmer, deep end or mid pool, elbow-deep"),
    "strip-blocks": Source(_M, "color blocks of common test strips"),
    "drop-factors": Source(_M, "ppm per drop of common titration kits"),
    "method-doubt": Source(_M, "doubt of common poolside methods"),
    "plausibility": Source(_C, "what a practitioner doubts on sight"),
    "test-interval": Source(_C, "owners test free chlorine and pH about twice a week in season"),
    "cautions": Source(_C, "cautions of the trade; the product label comes first"),
    "emergency": Source(_M, "first measures; the label and the emergency services come first"),
    "cya-ratio": Source(
        _P, "Falk et al. 2019, Water 11(6) 1314: CYA:FC no more than 20:1", "quoted from memory"
    ),
    "plummer-busenberg": Source(
        _P, "Plummer & Busenberg 1982, Geochim. Cosmochim. Acta 46, 1011", "quoted from memory; 0 to 90 C"
    ),
    "phreeqc-dat": Source(
        _P, "phreeqc.dat of PHREEQC 3; Parkhurst & Appelo 2013, USGS Techniques and Methods 6-A43"
    ),
    "morris": Source(_P, "Morris 1966, J. Phys. Chem. 70, 3798: HOCl", "quoted from memory"),
    "obrien": Source(
        _P,
        "O'Brien, Morris & Butler 1974: chlorinated isocyanurates",
        "quoted from memory; 25 C at every temperature",
    ),
    "bradley-pitzer": Source(
        _P,
        "Bradley & Pitzer 1979, J. Phys. Chem. 83, 1599: dielectric constant of water",
        "quoted from memory",
    ),
    "kell": Source(_P, "Kell 1975, J. Chem. Eng. Data 20, 97: density of water", "quoted from memory"),
    "langelier": Source(
        _P,
        "Langelier 1936; factor table as in operators' handbooks",
        "quoted from memory; solids over 2000 from memory",
    ),
    "fao-56": Source(
        _P,
        "Allen et al. 1998, FAO Irrigation and Drainage Paper 56, equations 21 to 25",
        "quoted from memory",
    ),
    "sun-strength": Source(_M, "ultraviolet falls with the sun's height a little faster than light"),
    "photolysis": Source(
        _P,
        "Nowell & Hoigne 1992, Water Research 26, 593: HOCl 60 min, OCl- 12 min under a summer noon",
        "quoted from memory; the share that depth and sky leave, and bound chlorine, are from memory",
    ),
    "dark-demand": Source(_M, "a clean pool loses up to 1 mg/L overnight; demand doubles every 10 C"),
    "bathers": Source(_M, "about 4 g of chlorine a swimmer and hour"),
    "combined": Source(
        _M, "a part of what swimmers bring binds chlorine; free chlorine and sun break it down in days"
    ),
    "bloom-demand": Source(_M, "a bloom eats about ten mg/L a day while it lasts"),
    "algae-key": Source(
        _C,
        "telling green, mustard and black algae from pollen, sand, metal and dead algae",
        "weights, not measurements",
    ),
    "rescue-plan": Source(
        _C, "rounds, levels, days and the end of a green, mustard or black pool's treatment"
    ),
    "rescue-model": Source(
        _M,
        "what lives, what clouds, how fast each goes: middles and spreads that give the trade's days",
        "figures to be corrected by each test, not measurements",
    ),
    "boosters": Source(
        _C, "what is sold to go along with a shock: monopersulfate, ammonium salts, bromide, algaecide"
    ),
    "overnight-loss": Source(
        _C, "free chlorine lost between dusk and dawn: at most 1 ppm means that nothing is left to kill"
    ),
    "clarifier": Source(_C, "clarifier and enzymes only with free chlorine under 5 ppm"),
    "treat-or-drain": Source(
        _C,
        "when a green pool is better drained: unseen first step with much stabilizer or calcium, or the cost",
    ),
    "drain-day": Source(_C, "the order of a draining day: brush wet, pump minded, wash last, refill at once"),
    "startup": Source(_C, "startup after a refill: test chlorine first, balance, stabilizer to range"),
    "rescue-causes": Source(_C, "why pools turn: chlorine, stabilizer, phosphate, pump hours, shocks"),
    "care-intervals": Source(_C, "intervals of cleaning and care of owners, service rounds and small pools"),
    "filter-care": Source(_C, "pressure limits, intervals and steps of sand, cartridge and DE filters"),
    "cell-care": Source(_C, "inspection intervals and the order of cleaning a chlorinator cell"),
    "cell-life": Source(_M, "a cell's rated life of about 5,000 to 10,000 hours at output"),
    "cell-limits": Source(_C, "low-temperature limit, washes a season, display against hand test"),
    "cell-faults": Source(_C, "fault finding at a chlorinator, step by step"),
    "firm-planning": Source(_C, "rounds of a service firm: minutes a stop, speed in town, equal days"),
    "machine-care": Source(_C, "care of cleaners, feeders, covers, heaters and automation"),
    "own-tasks": Source(_C, "what a person adds to a pool's care"),
    "water-lost": Source(_C, "backwash rates of filters, pumps that turn a pool in eight hours"),
    "equipment-faults": Source(_C, "fault finding at pump, filter, cleaner and heater, step by step"),
    "cleaning-routine": Source(_C, "the weekly cleaning in both orders"),
    "circulation-care": Source(_C, "pump hours, windows, return aiming, suction split"),
    "device-sanity": Source(_C, "what a controller's reading can be; a hand test goes before it"),
    "dilution-tests": Source(_C, "salt and stabilizer are tested again after much new water"),
    "routine-shock": Source(_C, "a shock every one to two weeks, weekly over 80 F"),
    "scale-forms": Source(_M, "scale builds above a saturation index of about +0.3"),
    "learned-intervals": Source(_C, "test and clean more often at first, stretch as the log shows it steady"),
    "service-round": Source(
        _C, "what a technician's report tells an owner: found, added, why, next, when to swim"
    ),
    "season-lists": Source(_C, "opening and closing lists by kind of pool, filter, cell, cover and winter"),
    "water-climate": Source(
        _M,
        "water of an unheated outdoor pool by month and latitude",
        "a start, to be edited; the pool's log goes before",
    ),
    "winter-losses": Source(
        _M,
        "water lowered and made up, rain and melt over a winter; bacteria can turn stabilizer into ammonia",
        "what to expect, not what to dose from",
    ),
    "season-marks": Source(_C, "what a season's record is read for: warmth, tests, doses, shocks, new water"),
    "truck-trays": Source(_C, "acids and oxidizers ride in separate secured trays"),
    "weekly-stop": Source(_C, "a weekly stop cannot hold 1 to 3 ppm with one liquid dose"),
    "cell-rates": Source(_C, "a cell's output, setting and hours; off in cold water"),
    "tablet-release": Source(_C, "a 3 in tablet lasts about a week in a feeder"),
    "evaporation": Source(_M, "about 5 mm a day from an open pool at 25 C, a tenth under a cover"),
    "ph-drift": Source(_M, "pH rises by some 0.02 to 0.05 a day as carbon dioxide leaves; a cell adds to it"),
    "borate": Source(_M, "30 to 50 mg/L as boron slows algae; not allowed everywhere, by its label"),
    "mineral-programme": Source(_C, "the weekly program sold with mineral and ion units"),
    "season-loss": Source(_M, "an outdoor pool in season loses 1 to 4 mg/L of free chlorine a day"),
    "chlorine-ageing": Source(
        _M, "half-lives of liquid chlorine by strength and temperature; second order in its concentration"
    ),
    "chlorine-model": Source(_D, "first-order loss by sun and dark, zero-order demand, sources and pulses"),
    "simulated-world": Source(_M, "an invented pool, for practice and study; no figure of it is advice"),
    "salt-bump": Source(_D, "volume from the rise of a weighed addition of salt"),
    "shock": Source(
        _C,
        "shock to 10, or to about 40 % of stabilizer; at most 30, or 15 on vinyl and indoors (from memory)",
    ),
    "faecal-guidance": Source(
        _P,
        "CDC, fecal incident response recommendations",
        "quoted from memory; the health authority decides",
    ),
    "shock-hour": Source(_C, "shock at dusk: sun destroys chlorine within hours"),
    "rules-of-thumb": Source(_C, "dosing rules by bag, jug and tablet, as people use them"),
    "co2-in-air": Source(_M, "carbon dioxide in outdoor air, about 420 ppm by volume"),
    "gas-transfer": Source(
        _P,
        "Cole & Caraco 1998, Limnol. Oceanogr. 43, 647: gas transfer of a lake at low wind",
        "quoted from memory; for a pool lowered to what the trade sees of pH",
    ),
    "water-change": Source(
        _C, "stabilizer, calcium and salt leave only with water; draining may harm shell and liner"
    ),
    "chlorine-reducer": Source(
        _M, "about 2 g of thiosulfate a gram of chlorine in practice; half of it first, then a test"
    ),
    "aeration": Source(_C, "alkalinity is lowered by acid in small doses, with aeration between"),
    "scope": Source(
        _C, "chlorine on biguanide or bromide-treated water does harm; spas by themselves differ"
    ),
}


def source(key: str) -> Source:
    """The origin behind `key`. Raises KeyError for an unknown key: wrong use, not a user's error."""
    return SOURCES[key]
