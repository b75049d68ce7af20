/** A browser takes longer to make one of these than to use it a hundred times. */
const made = new Map<string, Intl.DateTimeFormat>();

function formatOf(locale: string, options: Intl.DateTimeFormatOptions): Intl.DateTimeFormat {
  const key = `${locale} ${Object.entries(options).join(" ")}`;
  const known = made.get(key) ?? new Intl.DateTimeFormat(locale, options);
  made.set(key, known);
  return known;
}

/** Clock times on the pool's own clock, not the device's. */
export function clock(at: string, zone: string): string {
  return formatOf("en-US", { hour: "numeric", minute: "2-digit", timeZone: zone })
    .format(new Date(at))
    .replaceAll("\u202f", " ");
}

export function dayName(at: string, zone: string): string {
  return formatOf("en-US", {
    weekday: "short",
    month: "short",
    day: "numeric",
    timeZone: zone,
  }).format(new Date(at));
}

export function dayKey(at: string, zone: string): string {
  return formatOf("en-CA", { timeZone: zone }).format(new Date(at));
}

/** "18:40 today", "18:40 yesterday", "18:40 on Tue, Jun 2". */
export function whenText(at: string, zone: string, now: Date): string {
  const day = dayKey(at, zone);
  if (day === dayKey(now.toISOString(), zone)) return `${clock(at, zone)} today`;
  const yesterday = new Date(now.getTime() - 86_400_000).toISOString();
  if (day === dayKey(yesterday, zone)) return `${clock(at, zone)} yesterday`;
  return `${clock(at, zone)} on ${dayName(at, zone)}`;
}

export function weekday(at: string, zone: string): string {
  return formatOf("en-US", { weekday: "short", timeZone: zone }).format(new Date(at));
}

/** "February 2036": as far ahead as no day is known. */
export function monthAndYear(at: string, zone: string): string {
  return formatOf("en-US", { month: "long", year: "numeric", timeZone: zone }).format(new Date(at));
}

/** "Jun 2", for an axis. */
export function dayOfMonth(at: number, zone: string): string {
  return formatOf("en-US", { month: "short", day: "numeric", timeZone: zone }).format(at);
}

/** "45 min", "2 h", "1 h 35 min", "3 days": a span of minutes. */
export function hoursText(minutes: number): string {
  if (minutes >= 2 * 1440) return `${Math.round(minutes / 1440)} days`;
  const hours = Math.floor(minutes / 60);
  const rest = minutes % 60;
  if (hours === 0) return `${rest} min`;
  return rest === 0 ? `${hours} h` : `${hours} h ${rest} min`;
}
