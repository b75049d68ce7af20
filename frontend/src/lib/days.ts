const HALF_A_YEAR_MS = 183 * 86_400_000;

/**
 * "Mon, Jun 8" of a calendar day like 2026-06-08, which has no hour and no zone. Another year is named, unless it is
 * so near that only one such day can be meant: "Fri, Jan 1" in December.
 */
export function dayText(day: string): string {
  const [at, now] = [new Date(`${day}T12:00:00Z`), new Date()];
  const otherYear = day.slice(0, 4) !== String(now.getFullYear());
  const far = otherYear && Math.abs(at.getTime() - now.getTime()) > HALF_A_YEAR_MS;
  return new Intl.DateTimeFormat("en-US", {
    ...(far ? { year: "numeric" } : { weekday: "short" }),
    month: "short",
    day: "numeric",
    timeZone: "UTC",
  }).format(at);
}

/** The calendar day so many days after another. */
export function daysAfter(day: string, days: number): string {
  const at = new Date(`${day}T12:00:00Z`);
  at.setUTCDate(at.getUTCDate() + days);
  return at.toISOString().slice(0, 10);
}
