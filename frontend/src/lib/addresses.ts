/** Where each thing that the server calls by its station is done, under its pool's own address. */
const STATIONS: Record<string, string> = {
  board: "",
  slip: "/test",
  sheet: "/plan",
  shock: "/plan?plan=shock",
  mineral: "/plan?plan=mineral",
  label: "/plan?plan=label_dose",
  week: "/week",
  rescue: "/rescue",
  care: "/care",
  benches: "/care/equipment",
  season: "/season",
  identify: "/what-is-it",
};

/** The address of a station of a pool; a procedure's is its key behind "do/". Null: it is done on no screen. */
export function addressOf(poolId: string, station: string): string | null {
  if (station === "shelf") return "/shelf"; // all pools have it together
  const under = station.startsWith("do/") ? `/care/${station}` : STATIONS[station];
  return under === undefined ? null : `/pools/${poolId}${under}`;
}

/** What addresses were before, under a pool's own: bookmarks and printed codes still lead where they led. */
export const MOVED: Record<string, string> = {
  slip: "/test",
  sheet: "/plan",
  "care/benches": "/care/equipment",
};
